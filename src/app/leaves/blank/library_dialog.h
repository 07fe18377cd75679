// The painter's blanks: thumbnails, search, take one, keep the open one, duplicate, compare, in and out as
// files.
#pragma once

#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>

#include "app/document/job_document.h"
#include "app/document/library_store.h"
#include "blank/compare.h"

namespace nine::app {

class LibraryDialog : public QDialog {
    Q_OBJECT
  public:
    LibraryDialog(LibraryStore& store, JobDocument& document, QWidget* parent);

    QListWidget& list() { return *list_; }
    QLineEdit& search() { return *search_; }
    const QLabel& figures() const { return *figures_; }
    const QLabel& problem() const { return *problem_; }

  public slots:
    /// The selected blank becomes the job's body, as one step of its history; closes.
    void use();
    /// The open job's blank is kept in the library.
    void keepOpen();
    void duplicate();
    void remove();
    void putBack();
    void importFile();
    void exportFile();

  private:
    void fill();
    void select();
    void say(const Error& error);
    std::string selected() const;

    LibraryStore& store_;
    JobDocument& document_;
    QListWidget* list_;
    QLineEdit* search_;
    QLabel *figures_, *problem_;
    QWidget* overlay_;
    QPushButton *use_, *keep_, *duplicate_, *remove_, *putBack_, *export_;
    std::string removed_;
    struct Compared {
        std::string id;
        StationTable table, open;
        std::optional<Error> error;
        std::optional<BlankDifference> difference;
        BodyMeasure measure{};
    };
    Compared compared_;
    LatestOnly<Compared> comparer_{this, Urgency::Soon};
};

}  // namespace nine::app
