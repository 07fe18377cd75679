// Background work of which only the latest request matters.
//
// What overtakes a request cancels it, and its result is dropped; or, where a picture has to follow the hand,
// it is finished and shown, and the latest request is next: a hand that moves faster than the work would
// otherwise see nothing until it rests. Never for writing (see Writer). What work throws ends in the error
// `internal`: as the result where that can be an error, else told by Troubles; the slot goes on. One slot per
// derived product. Must be used from the GUI thread and outlived by nothing it calls: destroying it cancels
// and waits.
#pragma once

#include <sys/resource.h>
#include <QCoreApplication>
#include <QObject>
#include <QThreadPool>
#include <atomic>
#include <functional>
#include <memory>
#include <optional>
#include <utility>

#include "app/document/troubles.h"
#include "base/guarded.h"
#include "base/task.h"

namespace nine::app {

/// How work, and all threads it starts, gives way to other work: nice values. On a machine with few cores
/// what nobody waits for would otherwise make drags stutter.
enum class Urgency {
    Now = 1,      ///< a picture that follows the hand
    Soon = 9,     ///< what the hand wants to see next
    Patient = 12  ///< whole solutions, pictures at rest
};

enum class Overtaken { Dropped, Shown };

template <typename Result>
class LatestOnly {
  public:
    explicit LatestOnly(QObject* context, Urgency urgency = Urgency::Now,
                        Overtaken overtaken = Overtaken::Dropped)
        : context_(context), urgency_(urgency), overtaken_(overtaken) {
        pool_.setMaxThreadCount(1);
    }
    ~LatestOnly() {
        task_.cancel();
        pool_.waitForDone();
    }

    /// `work(task)` runs on a thread of its own and returns a Result; `done(result)` runs on the GUI thread,
    /// unless it was cancelled or overtaken (see above). `progress(fraction)` likewise. Within `done`,
    /// running() tells whether something newer is on its way.
    void request(std::function<Result(const Task&)> work, std::function<void(Result)> done,
                 std::function<void(double)> progress = {}) {
        Request request{std::move(work), std::move(done), std::move(progress)};
        if (running_ && overtaken_ == Overtaken::Shown) {
            next_ = std::move(request);
        } else {
            start(std::move(request));
        }
    }

    void cancel() {
        task_.cancel();
        next_.reset();
        ++*latest_;
        running_ = false;
    }
    bool running() const { return running_; }

  private:
    struct Request {
        std::function<Result(const Task&)> work;
        std::function<void(Result)> done;
        std::function<void(double)> progress;
    };

    void start(Request request) {
        using Outcome = decltype(guarded(std::declval<std::function<Result()>>()));
        task_.cancel();
        const quint64 number = ++*latest_;
        const auto latest = latest_;
        QObject* context = context_;
        task_ = Task::make([context, latest, number, progress = std::move(request.progress)](double share) {
            if (!progress) return;
            QMetaObject::invokeMethod(
                context,
                [=] {
                    if (*latest == number) progress(share);
                },
                Qt::QueuedConnection);
        });
        running_ = true;
        pool_.start([=, this, task = task_, work = std::move(request.work), done = std::move(request.done)] {
            if (task.cancelled()) return;
            ::setpriority(PRIO_PROCESS, 0, static_cast<int>(urgency_));  // of this thread alone (Linux)
            auto result = std::make_shared<Outcome>(guarded([&] { return work(task); }));
            QMetaObject::invokeMethod(
                context,
                [=, this] {
                    if (*latest != number || task.cancelled()) return;
                    running_ = false;
                    if (next_) start(*std::exchange(next_, std::nullopt));
                    if constexpr (std::is_same_v<Outcome, Result>) {
                        done(std::move(*result));
                    } else if (*result) {
                        done(std::move(**result));
                    } else {
                        emit Troubles::instance().happened(result->error());
                    }
                },
                Qt::QueuedConnection);
        });
    }

    QObject* context_;
    Urgency urgency_;
    Overtaken overtaken_;
    std::optional<Request> next_;
    QThreadPool pool_;
    Task task_;
    std::shared_ptr<std::atomic<quint64>> latest_ = std::make_shared<std::atomic<quint64>>(0);
    bool running_ = false;
};

}  // namespace nine::app
