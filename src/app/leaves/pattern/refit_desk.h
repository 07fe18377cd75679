// The same pattern on other blanks: each blank of the library with the pattern on it, worked out in the
// background once the job has rested; one of them chosen.
#pragma once

#include <QImage>
#include <QObject>
#include <QTimer>

#include "app/leaves/leaf.h"
#include "job/refit.h"

namespace nine::app {

struct RefitPreview {
    BlankChapter blank;
    std::optional<RefittedJob> refit;  ///< nothing when the blank itself is wrong
    QImage picture;                    ///< at the scale all previews share
    int troubles() const;
};

class RefitDesk : public QObject {
    Q_OBJECT
  public:
    RefitDesk(LeafContext context, QObject* parent);

    /// Asks for previews of what the job is now, unless they are there. `perMm` is the scale of the pictures.
    void want(double perMm, double ratio);
    const std::vector<RefitPreview>& previews() const { return shown_.previews; }
    bool running() const { return slot_.running() || rest_.isActive(); }

    /// Name of the blank that is looked at closely; empty for none.
    const std::string& chosen() const { return chosen_; }
    void choose(const std::string& blank);
    const RefitPreview* chosenPreview() const;
    /// Mends elements of the chosen one; it is drawn again.
    void mend(const std::vector<std::string>& ids);
    /// Counts what was shown: the card is built anew for each.
    int revision() const { return revision_; }

  signals:
    void changed();

  private:
    void work();
    /// Read when the library has changed, not for every edit of the job.
    void readLibrary();

    struct Shown {
        std::vector<RefitPreview> previews;
        PatternPtr pattern;
        BlankPtr blank;
        double perMm = 0;
    };
    static constexpr int kRest_ms = 700;
    LeafContext context_;
    std::optional<std::vector<BlankChapter>> blanks_;  ///< of the library
    std::shared_ptr<Derivations> derived_ = std::make_shared<Derivations>();
    Shown shown_;
    double perMm_ = 0, ratio_ = 1;
    std::string chosen_;
    int revision_ = 0;
    QTimer rest_;
    LatestOnly<Shown> slot_{this, Urgency::Patient};
    LatestOnly<RefitPreview> mendSlot_{this, Urgency::Soon};
};

}  // namespace nine::app
