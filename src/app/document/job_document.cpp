#include "app/document/job_document.h"

#include <QFileInfo>
#include <QUndoCommand>

#include "base/files.h"

namespace nine::app {

/// The one undo command: both jobs, whole. They share all that the edit did not touch.
class ReplaceJob : public QUndoCommand {
  public:
    ReplaceJob(JobDocument* document, Job after, quint64 gesture, const QString& label)
        : QUndoCommand(label),
          document_(document),
          before_(document->job()),
          after_(std::move(after)),
          gesture_(gesture) {}

    void undo() override { document_->set(before_); }
    void redo() override { document_->set(after_); }
    int id() const override { return 1; }
    bool mergeWith(const QUndoCommand* next) override {
        const auto* other = static_cast<const ReplaceJob*>(next);
        if (other->gesture_ != gesture_) return false;
        after_ = other->after_;
        setObsolete(after_ == before_);
        return true;
    }

  private:
    JobDocument* document_;
    Job before_, after_;
    quint64 gesture_;
};

JobDocument::JobDocument(QObject* parent) : QObject(parent) {
    connect(&history_, &QUndoStack::cleanChanged, this, &JobDocument::fileChanged);
}

void JobDocument::set(const Job& job) {
    const Parts parts = differing(job_, job);
    job_ = job;
    emit changed(parts, ++revision_);
}

void JobDocument::edit(Job job, const QString& label) {
    if (job == job_) return;
    editedIn_ = gesture_;
    history_.push(new ReplaceJob(this, std::move(job), gesture_, label));
}

void JobDocument::cancelGesture() {
    if (editedIn_ == gesture_ && history_.canUndo()) history_.undo();
    ++gesture_;
}

void JobDocument::open(Job job, const QString& path, Kept kept) {
    history_.clear();
    path_ = path;
    unsaved_ = kept == Kept::Unsaved;
    doubts_.clear();
    job_ = std::move(job);
    emit opened();
    emit changed(allParts(), ++revision_);
    emit fileChanged();
}

Status JobDocument::openFile(const QString& path) {
    const std::string file = path.toStdString();
    if (path.endsWith(".json")) {
        Result<LoadedJob> loaded = loadJob(file);
        if (!loaded) return loaded.error();
        open(std::move(loaded->job), path);
        doubts_ = std::move(loaded->warnings);
        return Done{};
    }
    const Result<std::string> text = readFile(file);
    if (!text) return text.error();
    Result<StationTable> table = parseStationTable(*text, QFileInfo(path).fileName().toStdString());
    if (!table) return table.error();
    if (const Result<Skin> skin = Skin::of(*table); !skin) return skin.error();
    open(jobOfBlank(QFileInfo(path).completeBaseName().toStdString(), std::move(*table)), {});
    return Done{};
}

Status JobDocument::save(const QString& path) {
    if (Status saved = saveJob(job_, path.toStdString()); !saved) return saved;
    path_ = path;
    unsaved_ = false;
    history_.setClean();
    emit fileChanged();
    return Done{};
}

}  // namespace nine::app
