#include "app/leaves/bench/bench_run.h"

namespace nine::app {
namespace {

constexpr int kAgain_ms = 4000;

}  // namespace

BenchRun::BenchRun(QString folder, QObject* parent)
    : QObject(parent), folder_(std::move(folder)), file_(std::make_shared<std::optional<RunFile>>()) {
    again_.setInterval(kAgain_ms);
    connect(&again_, &QTimer::timeout, this, [this] {
        writer_.write([file = file_] { return *file ? (*file)->retry() : Status(Done{}); },
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
    writer_.write(
        [file = file_, runs = folder_.toStdString(), head, job]() -> Status {
            Result<RunFile> made = RunFile::begin(runs, head, job);
            if (!made) return made.error();
            *file = std::move(*made);
            return Done{};
        },
        [this](const Status& status) { say(status); });
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
    *file_ = std::move(*file);
    emit changed();
    return Done{};
}

void BenchRun::record(RunEvent event) {
    state_ = after(std::move(state_), event);
    events_.push_back(event);
    writer_.write(
        [file = file_, event = std::move(event)]() -> Status {
            if (!*file)
                return Error{
                    "cannot_write",
                    NINE_WORDS(
                        "core",
                        "The run could not be begun on the disk; what happens is kept in memory alone."),
                    ""};
            return (*file)->add(event);
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
    writer_.write([file = file_]() -> Status {
        file->reset();
        return Done{};
    });
    there_ = false;
    head_ = {};
    job_ = {};
    state_ = {};
    events_.clear();
    trouble_.reset();
    emit changed();
}

}  // namespace nine::app
