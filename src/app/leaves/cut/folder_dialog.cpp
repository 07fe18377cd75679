#include "app/leaves/cut/folder_dialog.h"

#include <QDialogButtonBox>
#include <QLineEdit>
#include <QMessageBox>
#include <QPushButton>

namespace nine::app {

FolderDialog::FolderDialog(QWidget* parent, const QString& title, const QString& start)
    : QFileDialog(parent, title, start) {
    setOption(DontUseNativeDialog);  // its line of text is read
    setOption(ShowDirsOnly);
    setFileMode(Directory);
    setLabelText(Accept, tr("Write here"));
    // The base class allows only folders that are there; ours may be new.
    const auto* box = findChild<QDialogButtonBox*>();
    auto* line = findChild<QLineEdit*>("fileNameEdit");
    QPushButton* accepting = box ? box->button(QDialogButtonBox::Open) : nullptr;
    if (!accepting && box) accepting = box->button(QDialogButtonBox::Save);
    if (line && accepting)
        connect(line, &QLineEdit::textChanged, accepting, [accepting] { accepting->setEnabled(true); });
}

void FolderDialog::accept() {
    const auto* line = findChild<QLineEdit*>("fileNameEdit");
    const QString typed = line ? line->text().trimmed() : QString();
    const QString folder =
        typed.isEmpty() ? directory().absolutePath() : QDir::cleanPath(directory().absoluteFilePath(typed));
    const QFileInfo info(folder);
    if (info.exists() && !info.isDir()) {
        QMessageBox::warning(this, tr("Nine Leaves"),
                             tr("%1 is a file, not a folder; choose another name.").arg(folder));
        return;
    }
    folder_ = folder;
    done(Accepted);
}

}  // namespace nine::app
