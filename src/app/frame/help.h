// Help, offline: what each leaf is for, and the keys.
#pragma once

#include <QString>

class QWidget;

namespace nine::app {

/// One page for a leaf, as rich text.
QString helpFor(int leaf);
/// All keys, as a table.
QString helpOnKeys();
/// Shows the page for a leaf and the keys in a dialog.
void showHelp(QWidget* parent, int leaf);

}  // namespace nine::app
