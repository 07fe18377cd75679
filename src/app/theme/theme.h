// Colours, type and lines of the interface: the one place that states them.
#pragma once

#include <QColor>
#include <QFont>
#include <QPalette>
#include <vector>

namespace nine::app {

struct Tokens {
    QColor paper, panel, deep, sheet, ink, muted, line, hair, accent, select, caution, fault, onAccent;
    QColor glass;  ///< bills and other transparent parts
    bool dark = false;
};

/// The tokens in force.
const Tokens& tokens();
/// Takes effect at the next painting; call before or with a repaint of the window.
void useDarkTheme(bool dark);

/// Loads the shipped fonts. Call once after QApplication.
void loadFonts();

/// Inter at a pixel size, tabular figures where the font engine offers them.
QFont inter(double pixels, int weight = QFont::Normal);

/// Colours of sheet materials, the same in both themes.
QColor materialColour(std::string_view material);
/// Ink on tape or a map, in both themes.
QColor inkOnSheet();

/// Colour ramps, even in lightness; t in 0..1.
enum class Ramp { Stretch, Film, Lift };
QColor rampColour(Ramp ramp, double t);

/// For widgets and dialogs of the toolkit that no style sheet reaches.
QPalette themePalette();

/// The style sheet of standard widgets (line edits, buttons, menus) from the tokens.
QString themeStyleSheet();

}  // namespace nine::app
