// A running piece of long work as its worker sees it: it may be cancelled from outside and tells how far
// it has come. Copies share one state. The default Task never cancels and tells nobody; it costs one
// pointer test. Cancelling is cooperative: workers ask at least every few milliseconds.
#pragma once

#include <atomic>
#include <functional>
#include <memory>

#include "base/result.h"
#include "base/units.h"

namespace nine {

class Task {
  public:
    Task() = default;

    /// A task that can be cancelled; `onProgress(fraction 0..1)` is called on the worker's thread.
    static Task make(std::function<void(double)> onProgress = {}) {
        Task t;
        t.state_ = std::make_shared<State>();
        t.state_->onProgress = std::move(onProgress);
        return t;
    }

    void cancel() const {
        if (state_) state_->cancelled.store(true, std::memory_order_relaxed);
    }
    /// The same work for a part of it: cancelled together, but how far the part has come is not told as the
    /// whole's.
    Task silent() const {
        Task part = *this;
        part.told_ = false;
        return part;
    }
    bool cancelled() const { return state_ && state_->cancelled.load(std::memory_order_relaxed); }
    void progress(Fraction fraction) const {
        if (told_ && state_ && state_->onProgress) state_->onProgress(fraction);
    }

    static Error cancelledError() {
        return {"cancelled", NINE_WORDS("core", "The work was cancelled; nothing was changed."), ""};
    }

  private:
    struct State {
        std::atomic<bool> cancelled{false};
        std::function<void(double)> onProgress;
    };
    std::shared_ptr<State> state_;
    bool told_ = true;
};

}  // namespace nine
