#include "app/document/writer.h"

#include "app/document/troubles.h"
#include "base/guarded.h"

namespace nine::app {

Writer::Writer(QObject* parent) : QObject(parent) {
    pool_.setMaxThreadCount(1);
}

Writer::~Writer() {
    drain();
}

void Writer::write(Work work, Ended ended) {
    ++waiting_;
    pool_.start([this, work = std::move(work), ended = std::move(ended)] {
        Report done{ended, guarded(work)};
        {
            const std::lock_guard lock(mutex_);
            reports_.push_back(std::move(done));
        }
        QMetaObject::invokeMethod(
            this, [this] { report(); }, Qt::QueuedConnection);
    });
}

void Writer::drain() {
    pool_.waitForDone();
    report();
}

void Writer::report() {
    std::vector<Report> done;
    {
        const std::lock_guard lock(mutex_);
        done.swap(reports_);
    }
    waiting_ -= static_cast<int>(done.size());
    for (const Report& r : done) {
        if (r.ended) {
            r.ended(r.status);
        } else if (!r.status) {
            emit Troubles::instance().happened(r.status.error());
        }
    }
}

}  // namespace nine::app
