#include "app/frame/folder_dialog.h"

#include <QLineEdit>
#include <QMessageBox>

namespace nine::app {

FolderDialog::FolderDialog(QWidget* parent, const QString& title, const QString& start)
    : QFileDialog(parent, title, start) {
    setOption(DontUseNativeDialog);  // its line of text is read
    setOption(ShowDirsOnly);
    setFileMode(Directory);
    setLabelText(Accept, tr("Write here"));
}

void FolderDialog::accept() {
    const auto* line = findChild<QLineEdit*>("fileNameEdit");
    const QString typed = line ? line->text().trimmed() : QString();
    const QString folder = typed.isEmpty() ? directory().absolutePath()
                                           : QDir::cleanPath(directory().absoluteFilePath(typed));
    const QFileInfo info(folder);
    if (info.exists() && !info.isDir()) {
        QMessageBox::warning(this, tr("Nine Leaves"), tr("%1 is a file, not a folder; choose another name.").arg(folder));
        return;
    }
    folder_ = folder;
    done(Accepted);
}

}  // namespace nine::app
