// What every leaf of the job has: a page with its drawing and a card with what the drawing cannot hold.
#pragma once

#include <QKeySequence>
#include <QLayout>
#include <QWidget>

#include "app/document/bench_store.h"
#include "app/document/library_store.h"
#include "app/document/results.h"
#include "app/document/view_state.h"
#include "app/leaves/frame.h"
#include "app/leaves/leaf_entry.h"
#include "app/sheet/point_on_body.h"

namespace nine::app {

struct LeafContext {
    JobDocument& document;
    Results& results;
    ViewState& view;
    BenchStore& bench;
    LibraryStore& library;
    Frame& frame;
};

/// Something that is wrong with the job.
struct Flag {
    std::string id;              ///< of what is wrong: F goes from one to the next by it
    QString words;               ///< a sentence
    bool fault = true;           ///< or a caution
    std::function<void()> show;  ///< selects it; the frame opens the leaf
    QString repairName = {};     ///< on the button; empty for none
    std::function<void()> repair = {};
};

/// What a leaf says of the job when nothing is wrong.
struct Standing {
    QString sentence;      ///< empty: nothing to say
    bool fine = false;     ///< all is well
    QString figures = {};  ///< unfolds on demand, whatever else is said
};

struct MenuEntry {
    QString words;
    QKeySequence keys;
    std::function<void()> chosen;
};

class Leaf : public QObject {
    Q_OBJECT
  public:
    Leaf(LeafContext context, QObject* parent) : QObject(parent), context_(context) {}

    virtual QWidget* page() = 0;
    virtual QWidget* card() = 0;
    virtual LeafEntry entry() const = 0;
    /// What is wrong, the worst first: the line at the foot shows the first of the first leaf that has any.
    virtual std::vector<Flag> flags() { return {}; }
    virtual Standing standing() const { return {}; }
    /// What it adds to the menu of the job.
    virtual std::vector<MenuEntry> menu() { return {}; }
    /// What it is busy with, or nothing.
    virtual QString busyWith() const { return {}; }
    /// Nothing is under way that page or card wait for.
    virtual bool settled() const { return true; }
    /// What is pointed out on the holder while this leaf is open.
    virtual std::vector<PointOnBody> pointedOut() const { return {}; }
    /// What the body wears on the holder while this leaf is open; null for the pattern alone.
    virtual std::shared_ptr<const Image> wornOnHolder() const { return {}; }
    /// What that is, in a few words.
    virtual QString wornWords() const { return {}; }
    /// The skin once all is done, for the holder wherever the open leaf has nothing else to show; null when
    /// it is not this leaf's to say, or not known for the job as it is.
    virtual std::shared_ptr<const Image> bodyAsPainted() const { return {}; }
    /// Takes a file that was dropped on the window; false when it is none of its own.
    virtual bool takesFile(const QString&) { return false; }

    /// The leaf has been opened: what was put off while it was out of sight is done now.
    void opened() {
        if (stale_) rebuildCard();
    }

  signals:
    /// entry(), flags() or what it is busy with may be different now.
    void restless();

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
