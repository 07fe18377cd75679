#include "app/leaves/bench/bench_run.h"

#include <utility>

namespace nine::app {
namespace {

constexpr int kAgain_ms = 4000;

}  // namespace

/// What is written: a folder that could not be made is tried again, with all that has happened since.
struct BenchRun::Recording {
    std::string runs;
    RunHead head;
    Job job;
    std::optional<RunFile> file;
    std::vector<RunEvent> waiting;

    Status write() {
        if (!file) {
            Result<RunFile> made = RunFile::begin(runs, head, job);
            if (!made)
                return Error{
                    "cannot_write",
                    Words(NINE_WORDS(
                              "core",
                              "What happens is kept in memory and written as soon as it can be: {reason}"))
                        .words("reason", made.error().words),
                    made.error().where};
            file = std::move(*made);
        }
        Status ok = file->retry();
        for (const RunEvent& event : waiting)
            if (Status added = file->add(event); !added) ok = added;
        waiting.clear();
        return ok;
    }
};

BenchRun::BenchRun(QString folder, QObject* parent) : QObject(parent), folder_(std::move(folder)) {
    again_.setInterval(kAgain_ms);
    connect(&again_, &QTimer::timeout, this, [this] {
        if (!recording_) return again_.stop();
        writer_.write([recording = recording_] { return recording->write(); },
                      [this](const Status& status) { say(status); });
    });
}

BenchRun::~BenchRun() {
    writer_.drain();
}

void BenchRun::say(const Status& status) {
    const bool before = trouble_.has_value();
    if (status)
        trouble_.reset();
    else
        trouble_ = status.error();
    if (trouble_ && !again_.isActive()) again_.start();
    if (!trouble_) again_.stop();
    if (before != trouble_.has_value()) emit changed();
}

void BenchRun::begin(RunHead head, const Job& job, const std::vector<std::string>& order) {
    close();
    head.began = now();
    head_ = head;
    job_ = job;
    there_ = true;
    recording_ = std::make_shared<Recording>(Recording{folder_.toStdString(), head, job, {}, {}});
    RunEvent began = eventNow(clock_, state_, Happened::Began);
    began.value = head.title;
    record(std::move(began));
    RunEvent ordered = eventNow(clock_, state_, Happened::Order);
    for (const std::string& task : order) ordered.value += task + "\n";
    record(std::move(ordered));
}

Status BenchRun::resume(const std::string& folder) {
    writer_.drain();
    Result<RunFile> file = RunFile::open(folder);
    if (!file) return file.error();
    Result<Job> job = file->job();
    if (!job) return job.error();
    close();
    job_ = std::move(*job);
    head_ = file->head();
    events_ = file->events();
    state_ = folded(events_);
    there_ = true;
    recording_ =
        std::make_shared<Recording>(Recording{folder_.toStdString(), head_, job_, std::move(*file), {}});
    emit changed();
    return Done{};
}

void BenchRun::record(RunEvent event) {
    state_ = after(std::move(state_), event);
    events_.push_back(event);
    writer_.write(
        [recording = recording_, event = std::move(event)] {
            recording->waiting.push_back(event);
            return recording->write();
        },
        [this](const Status& status) { say(status); });
    emit changed();
}

void BenchRun::add(Happened what, const std::string& key, const std::string& value, const std::string& step,
                   int lure) {
    if (!there_) return;
    RunEvent event = eventNow(clock_, state_, what);
    event.key = key;
    event.value = value;
    event.step = step;
    event.lure = lure;
    record(std::move(event));
}

void BenchRun::close() {
    if (!there_) return;
    // Let go on the writer's thread, once all of it is written.
    writer_.write([recording = std::exchange(recording_, nullptr)]() -> Status {
        recording->file.reset();
        return Done{};
    });
    again_.stop();
    there_ = false;
    head_ = {};
    job_ = {};
    state_ = {};
    events_.clear();
    trouble_.reset();
    emit changed();
}

}  // namespace nine::app
