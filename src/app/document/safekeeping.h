// Nothing is lost: autosave and recovery, a lock against two windows on one job, the list of recent files.
//
// Autosave writes a copy of the open job to the user's state folder a moment after each change, in the
// background; only the user can read it. The copy goes when the job is saved or closed; one that is left over
// belongs to a run that ended badly and is offered.
#pragma once

#include <QDateTime>
#include <QLockFile>
#include <QTimer>
#include <memory>

#include "app/document/job_document.h"
#include "app/document/writer.h"

namespace nine::app {

/// A job that a run which ended badly has left behind.
struct LeftBehind {
    QString copy;      ///< the autosaved file
    QString original;  ///< where the job was saved, or empty
    QDateTime copied, saved;
};

class Safekeeping : public QObject {
    Q_OBJECT
  public:
    /// `folder` is where copies are kept; by default $XDG_STATE_HOME/nine-leaves.
    explicit Safekeeping(JobDocument& document, QString folder = {}, QObject* parent = nullptr);
    ~Safekeeping() override;

    static constexpr int kDelay_ms = 1500;

    /// Copies whose program is not running any more, newest first.
    std::vector<LeftBehind> leftBehind() const;
    /// Removes such a copy for good.
    void forget(const LeftBehind& left);
    QString copyPath() const { return base_ + ".nineleaves.json"; }
    /// Writes the copy now and waits (tests, and before the program ends).
    void keepNow();

    /// Takes the lock of a job file. False when another window has it.
    bool lock(const QString& path);

    static QStringList recentFiles();
    static void addRecent(const QString& path);

  signals:
    /// The copy could not be written; once until one can be again.
    void notKept(nine::Error error);

  private:
    void keep();

    void onChanged();
    void onFileChanged();
    void removeCopy();

    JobDocument& document_;
    QString folder_, base_;
    std::unique_ptr<QLockFile> running_, jobLock_;
    QTimer delay_;
    bool failing_ = false;
    Writer writer_;
};

}  // namespace nine::app
