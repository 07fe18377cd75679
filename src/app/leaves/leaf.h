// What every leaf of the job has: a page with its drawing and a card with what the drawing cannot hold.
#pragma once

#include <QLayout>
#include <QWidget>

#include "app/document/bench_store.h"
#include "app/document/results.h"
#include "app/document/view_state.h"
#include "app/frame/stem.h"
#include "app/frame/tell_tale.h"

namespace nine::app {

struct LeafContext {
    JobDocument& document;
    Results& results;
    ViewState& view;
    BenchStore& bench;
};

class Leaf : public QObject {
    Q_OBJECT
  public:
    Leaf(LeafContext context, QObject* parent) : QObject(parent), context_(context) {}

    virtual QWidget* page() = 0;
    virtual QWidget* card() = 0;
    virtual LeafEntry entry() const = 0;

    /// The leaf has been opened: what was put off while it was out of sight is done now.
    void opened() {
        if (stale_) rebuildCard();
    }

  protected:
    /// Builds the card from the job. Called when something it shows has changed; costs tens of milliseconds,
    /// so cards out of sight wait until they are opened.
    virtual void rebuildCard() = 0;
    bool putOff() {
        stale_ = !card()->isVisible();
        return stale_;
    }

    const Job& job() const { return context_.document.job(); }
    LeafContext context_;

  private:
    bool stale_ = true;
};

}  // namespace nine::app
