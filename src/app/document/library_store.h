// The painter's workshop file in the window: opened in the background at the first use, filled with the
// demo's blanks when it is new. Used from the GUI thread; single rows are read in a millisecond.
#pragma once

#include <QObject>

#include "app/document/latest_only.h"
#include "app/document/writer.h"
#include "job/blank_library.h"

namespace nine::app {

class LibraryStore : public QObject {
    Q_OBJECT
  public:
    /// `folder` holds workshop.sqlite; the user's data folder if empty.
    LibraryStore(const QString& folder, QObject* parent);
    /// What was asked to be added is in the file by then.
    ~LibraryStore() override;

    QString path() const { return path_; }
    /// Opens the file unless that was done. Ends with changed(), and problem() when it could not.
    void open();
    bool ready() const { return workshop_ != nullptr; }
    const std::optional<Error>& problem() const { return problem_; }
    Workshop& workshop() { return *workshop_; }
    /// Draws the blank's thumbnail in the background and puts it in; ends with changed(), or notAdded(). Goes
    /// on when the dialog that asked for it is gone. Needs ready().
    void add(BlankChapter blank);
    /// Work on the file on a thread of its own, in the order it was asked for, nothing dropped; `ended` on
    /// the GUI thread. Waits until the file has been opened. Errors besides the work's own: those of opening.
    void work(std::function<Status(Workshop&)> job, Writer::Ended ended);
    bool busy() const { return writer_.busy() || !waiting_.empty(); }

  signals:
    void changed();
    void notAdded(nine::Error error);

  private:
    QString path_;
    std::shared_ptr<Workshop> workshop_;
    std::optional<Error> problem_;
    struct Waiting {
        std::function<Status(Workshop&)> job;
        Writer::Ended ended;
    };
    std::vector<Waiting> waiting_;  ///< for the file to be opened
    std::shared_ptr<std::optional<Workshop>> beside_ =
        std::make_shared<std::optional<Workshop>>();  ///< the writer's alone
    LatestOnly<std::shared_ptr<Result<Workshop>>> opener_{this, Urgency::Soon};
    Writer writer_;
};

}  // namespace nine::app
