// Background work of which only the latest request matters.
//
// A new request cancels the one before; results of cancelled or overtaken requests are dropped on the GUI
// thread. One slot per derived product. Must be used from the GUI thread and outlived by nothing it calls:
// destroying it cancels and waits.
#pragma once

#include <sys/resource.h>
#include <QCoreApplication>
#include <QObject>
#include <QThreadPool>
#include <atomic>
#include <functional>
#include <memory>

#include "base/task.h"

namespace nine::app {

/// How work, and all threads it starts, gives way to other work: nice values. On a machine with few cores
/// what nobody waits for would otherwise make drags stutter.
enum class Urgency {
    Now = 1,      ///< a picture that follows the hand
    Soon = 9,     ///< what the hand wants to see next
    Patient = 12  ///< whole solutions, pictures at rest
};

template <typename Result>
class LatestOnly {
  public:
    explicit LatestOnly(QObject* context, Urgency urgency = Urgency::Now)
        : context_(context), urgency_(urgency) {
        pool_.setMaxThreadCount(1);
    }
    ~LatestOnly() {
        task_.cancel();
        pool_.waitForDone();
    }

    /// `work(task)` runs on a thread of its own and returns a Result; `done(result)` runs on the GUI thread,
    /// only if nothing newer was asked for meanwhile. `progress(fraction)` likewise.
    void request(std::function<Result(const Task&)> work, std::function<void(Result)> done,
                 std::function<void(double)> progress = {}) {
        task_.cancel();
        const quint64 number = ++*latest_;
        const auto latest = latest_;
        QObject* context = context_;
        task_ = Task::make([=](double share) {
            if (!progress) return;
            QMetaObject::invokeMethod(
                context,
                [=] {
                    if (*latest == number) progress(share);
                },
                Qt::QueuedConnection);
        });
        running_ = true;
        pool_.start([=, this, task = task_] {
            if (task.cancelled()) return;
            ::setpriority(PRIO_PROCESS, 0, static_cast<int>(urgency_));  // of this thread alone (Linux)
            auto result = std::make_shared<Result>(work(task));
            QMetaObject::invokeMethod(
                context,
                [=, this] {
                    if (*latest != number || task.cancelled()) return;
                    running_ = false;
                    done(std::move(*result));
                },
                Qt::QueuedConnection);
        });
    }

    void cancel() {
        task_.cancel();
        ++*latest_;
        running_ = false;
    }
    bool running() const { return running_; }

  private:
    QObject* context_;
    Urgency urgency_;
    QThreadPool pool_;
    Task task_;
    std::shared_ptr<std::atomic<quint64>> latest_ = std::make_shared<std::atomic<quint64>>(0);
    bool running_ = false;
};

}  // namespace nine::app
