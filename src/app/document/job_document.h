// The open job: its value, its file, its undo history. The only place that changes the job.
//
// Views read job() and listen to changed(). Edits are whole new jobs; those of one gesture (a drag, a held
// arrow key) merge into one step of the history. Selection, zoom and camera are view state and never part of
// the job.
#pragma once

#include <QObject>
#include <QUndoStack>

#include "job/job_file.h"

namespace nine::app {

class JobDocument : public QObject {
    Q_OBJECT
  public:
    explicit JobDocument(QObject* parent = nullptr);

    const Job& job() const { return job_; }
    bool empty() const { return job_.get<BlankChapter>().table.stations.empty(); }
    const QString& path() const { return path_; }
    /// Whether something would be lost if it were closed now.
    bool dirty() const { return unsaved_ || !history_.isClean(); }
    QUndoStack& history() { return history_; }

    /// Starts a gesture: edits until the next call merge. Every single edit should be preceded by one.
    void beginGesture() { ++gesture_; }
    /// Takes back what the gesture has done so far (Esc while dragging).
    void cancelGesture();
    /// Replaces the job as one undoable step. Does nothing if it is the same value.
    void edit(Job job, const QString& label);

    /// A new document: history emptied. A job taken from a recovered copy is unsaved until it is saved,
    /// whatever is edited and undone.
    enum class Kept { Saved, Unsaved };
    void open(Job job, const QString& path, Kept kept = Kept::Saved);
    /// Errors: those of loadJob and of station tables; the document is unchanged then. What was read but is
    /// doubtful stands in doubts().
    Status openFile(const QString& path);
    const Warnings& doubts() const { return doubts_; }
    Status save(const QString& path);

  signals:
    /// Another job took the place of the one before; `changed` follows.
    void opened();
    void changed(nine::Parts parts, quint64 revision);
    /// Path or saved state changed.
    void fileChanged();

  private:
    friend class ReplaceJob;
    void set(const Job& job);

    Job job_;
    Warnings doubts_;
    QString path_;
    QUndoStack history_;
    bool unsaved_ = false;
    quint64 gesture_ = 0, editedIn_ = 0, revision_ = 0;
};

}  // namespace nine::app
