// What the Bench leaf works on: the job's steps on the bench, the plan, the run; found in the background and
// shared by page, card and runner, which follow changed().
#pragma once

#include <QTimer>

#include "app/leaves/bench/bench_run.h"
#include "app/leaves/leaf.h"

namespace nine::app {

/// What one more of a mask would save.
struct CopyOffer {
    std::string tool;  ///< id of the mask
    std::string name;
    int copies = 1, sooner_s = 0;
};

struct CupOnBench {
    CupContent cup;
    double all_ml = 0;  ///< paint and reducer, for all lures
};

struct BenchStudy {
    Job of;                        ///< the job as it was looked at
    std::vector<JobOnBench> jobs;  ///< the open one first
    Moment start = 0;
    BenchWish wish;
    BenchPlan plan;
    bool planned = false;
    std::vector<CupOnBench> cups;
    Load load;
    int lureByLure = 0;
    std::vector<CopyOffer> offers;
    Warnings warnings;
    std::optional<Error> error;

    const BenchTask& taskOf(const PlacedTask& placed) const {
        return wish.work.trays[static_cast<std::size_t>(placed.tray)]
            .tasks[static_cast<std::size_t>(placed.task)];
    }
    const BenchTray& trayOf(const PlacedTask& placed) const {
        return wish.work.trays[static_cast<std::size_t>(placed.tray)];
    }
    const PlacedTask* placed(const std::string& task) const;
    /// One body: a list of steps, no chart.
    bool isShort() const { return wish.work.trays.size() == 1 && wish.work.trays.front().lures == 1; }
};

class BenchDesk : public QObject {
    Q_OBJECT
  public:
    BenchDesk(LeafContext context, QObject* parent);

    /// Whether somebody looks; for nobody nothing is worked out, but while a run goes on.
    void setWatched(bool on);
    const BenchStudy& study() const { return study_; }
    bool settled() const { return !slot_.running() && !rest_.isActive() && !runs_.running(); }
    bool planning() const { return slot_.running(); }
    BenchRun& run() { return run_; }
    const BenchRun& run() const { return run_; }
    void setClock(Clock clock);
    Moment now() const { return run_.now(); }

    /// The selected task; empty for none.
    const std::string& task() const { return task_; }
    void select(const std::string& task);

    const BenchChapter& chapter() const { return context_.document.job().get<BenchChapter>(); }
    /// One step of the history. The reason when it cannot be.
    Status change(const QString& label, const std::function<void(BenchChapter&)>& edit);
    Status setLures(int lures);
    /// Of My bench.
    Status changeShop(const std::function<void(BenchShop&)>& edit);
    /// Drags a task to a time of the plan; below 0 lets it go.
    Status lock(const std::string& task, int start_s);

    /// Runs that were left in the middle, the newest first.
    const std::vector<KnownRun>& leftRuns() const { return left_; }
    void lookForRuns();
    /// Records from now on, in the order of the plan. False while there is none.
    bool beginRun();
    /// The job on the bench as the run has it.
    const JobOnBench* jobOfRun() const;
    /// Gates of a task of the run; `before` asks what was set at the gun for what was sprayed last.
    std::vector<Gate> gatesOfRun(const BenchTask& task) const;
    /// The plan's remaining times, from now on: what is done is done.
    void replan() { request(); }

  signals:
    void changed();

  private:
    void request();

    static constexpr int kRest_ms = 300;
    LeafContext context_;
    std::shared_ptr<Derivations> derived_ = std::make_shared<Derivations>();
    BenchRun run_;
    BenchStudy study_;
    std::shared_ptr<const RecipeOnBody> before_;
    std::vector<KnownRun> left_;
    std::string task_;
    bool watched_ = false, stale_ = true;
    int requests_ = 0;
    QTimer rest_;
    LatestOnly<BenchStudy> slot_{this, Urgency::Soon};
    LatestOnly<std::vector<KnownRun>> runs_{this, Urgency::Soon};
};

}  // namespace nine::app
