// Asks for a folder. What is typed is what is used, also when it is not there yet: whoever writes makes it.
// A line of its own, since the toolkit's file dialog rewrites its line whenever its list has read on.
#pragma once

#include <QDialog>

class QLineEdit;

namespace nine::app {

class FolderDialog : public QDialog {
    Q_OBJECT
  public:
    FolderDialog(QWidget* parent, const QString& title, const QString& start);
    /// Absolute; empty until it was accepted.
    const QString& folder() const { return folder_; }

  public slots:
    void accept() override;

  private:
    void browse();

    QString start_;  // absolute: what a relative name is meant from
    QLineEdit* line_;
    QString folder_;
};

}  // namespace nine::app
