// Writing in the background: one thread, first come first written, nothing dropped, every end reported.
//
// Unlike pictures, of which only the latest matters (LatestOnly), whatever was asked to be written is
// written. Used from the GUI thread. An owner whose `ended` functions reach into it calls drain() first in
// its destructor.
#pragma once

#include <QObject>
#include <QThreadPool>
#include <functional>
#include <mutex>
#include <vector>

#include "base/result.h"

namespace nine::app {

class Writer : public QObject {
    Q_OBJECT
  public:
    using Work = std::function<Status()>;
    using Ended = std::function<void(const Status&)>;

    explicit Writer(QObject* parent = nullptr);
    ~Writer() override;

    /// `work()` runs once all that was asked before is done; `ended(status)` on the GUI thread then. What
    /// work throws is the error internal. Without `ended` an error is told by Troubles.
    void write(Work work, Ended ended = {});
    bool busy() const { return waiting_ > 0; }
    /// Waits until all is written, and reports it.
    void drain();

  private:
    struct Report {
        Ended ended;
        Status status;
    };
    void report();

    QThreadPool pool_;
    std::mutex mutex_;
    std::vector<Report> reports_;  ///< of what is written and not reported yet
    int waiting_ = 0;
};

}  // namespace nine::app
