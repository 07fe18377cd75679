#include "app/leaves/cut/folder_dialog.h"

#include <QCompleter>
#include <QDialogButtonBox>
#include <QDir>
#include <QFileDialog>
#include <QFileSystemModel>
#include <QLabel>
#include <QLineEdit>
#include <QMessageBox>
#include <QPushButton>
#include <QVBoxLayout>

namespace nine::app {

FolderDialog::FolderDialog(QWidget* parent, const QString& title, const QString& start)
    : QDialog(parent), start_(QDir(start).absolutePath()), line_(new QLineEdit(start_)) {
    setWindowTitle(title);
    line_->setObjectName("folder");
    line_->setMinimumWidth(460);
    line_->selectAll();

    auto* completer = new QCompleter(this);
    auto* folders = new QFileSystemModel(completer);
    folders->setFilter(QDir::Dirs | QDir::NoDotAndDotDot);
    folders->setRootPath(start_);
    completer->setModel(folders);
    line_->setCompleter(completer);

    auto* asked = new QLabel(tr("&Folder to write to; it is made if it is not there"));
    asked->setBuddy(line_);
    auto* buttons = new QDialogButtonBox;
    QPushButton* here = buttons->addButton(tr("Write here"), QDialogButtonBox::AcceptRole);
    here->setDefault(true);
    QPushButton* browsing = buttons->addButton(tr("&Look for it…"), QDialogButtonBox::ActionRole);
    browsing->setAutoDefault(false);
    buttons->addButton(QDialogButtonBox::Cancel);
    connect(buttons, &QDialogButtonBox::accepted, this, &FolderDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &FolderDialog::reject);
    connect(browsing, &QPushButton::clicked, this, &FolderDialog::browse);

    auto* page = new QVBoxLayout(this);
    page->addWidget(asked);
    page->addWidget(line_);
    page->addWidget(buttons);
}

void FolderDialog::browse() {
    const QString from = QDir(start_).absoluteFilePath(line_->text().trimmed());
    const QString found = QFileDialog::getExistingDirectory(
        this, windowTitle(), from, QFileDialog::ShowDirsOnly | QFileDialog::DontUseNativeDialog);
    if (!found.isEmpty()) line_->setText(found);
}

void FolderDialog::accept() {
    const QString folder = QDir::cleanPath(QDir(start_).absoluteFilePath(line_->text().trimmed()));
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
