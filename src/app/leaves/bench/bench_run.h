// The run that is recorded: where it stands, and its writing in the background.
//
// Every event counts at once and is on the disk a moment later. What cannot be written is kept and tried
// again; the run goes on. One run at a time.
#pragma once

#include <QObject>
#include <QTimer>

#include "app/document/writer.h"
#include "job/run_card.h"

namespace nine::app {

class BenchRun : public QObject {
    Q_OBJECT
  public:
    /// `folder` is where runs are kept.
    BenchRun(QString folder, QObject* parent);
    ~BenchRun() override;

    const QString& folder() const { return folder_; }
    void setClock(Clock clock) { clock_ = std::move(clock); }
    Moment now() const { return clock_(); }

    /// Whether a run is in hand, over or not.
    bool there() const { return there_; }
    bool going() const { return there_ && !state_.isOver(); }
    const RunState& state() const { return state_; }
    const RunHead& head() const { return head_; }
    const std::vector<RunEvent>& events() const { return events_; }
    /// The job as it was when the run began.
    const Job& job() const { return job_; }
    /// Of the task in hand; null when none is left.
    const BenchTask* task() const { return taskIn(head_.work, state_.current()); }
    /// What was wrong with the last writing; nothing once all is written.
    const std::optional<Error>& trouble() const { return trouble_; }
    bool written() const { return !writer_.busy() && !trouble_; }

    void begin(RunHead head, const Job& job, const std::vector<std::string>& order);
    /// Goes on with one that was left. Errors: those of RunFile::open.
    Status resume(const std::string& folder);
    /// Adds an event of the task in hand, at this moment.
    void add(Happened what, const std::string& key = {}, const std::string& value = {},
             const std::string& step = {}, int lure = 0);
    /// Puts it away; it can be gone on with later.
    void close();

  signals:
    void changed();

  private:
    void record(RunEvent event);
    void say(const Status& status);

    QString folder_;
    Clock clock_ = systemClock();
    bool there_ = false;
    RunHead head_;
    Job job_;
    RunState state_;
    std::vector<RunEvent> events_;
    std::optional<Error> trouble_;
    struct Recording;
    std::shared_ptr<Recording> recording_;  ///< used by the writer alone
    QTimer again_;
    Writer writer_;
};

}  // namespace nine::app
