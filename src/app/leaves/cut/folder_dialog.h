// Asks for a folder. What is typed is what is used, also when it is not there yet: whoever writes makes it.
#pragma once

#include <QFileDialog>

namespace nine::app {

class FolderDialog : public QFileDialog {
    Q_OBJECT
  public:
    FolderDialog(QWidget* parent, const QString& title, const QString& start);
    /// Absolute; empty until it was accepted.
    const QString& folder() const { return folder_; }

  public slots:
    void accept() override;

  private:
    QString folder_;
};

}  // namespace nine::app
