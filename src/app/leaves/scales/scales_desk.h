// What the Scales leaf works on: the net as it lies, its threads, lines for foil, the ranking of nets; all
// found in the background and shared by page and card, which follow changed().
//
// A change is answered coarsely at once (the drape at 4 mm, without clips) and exactly a moment later; a clip
// that is moved keeps the drape. While a plan of clips is sought each better one is shown and may be taken.
#pragma once

#include "app/leaves/leaf.h"
#include "job/net_job.h"

namespace nine::app {

/// A thread in space, of the left side.
struct ThreadLine {
    Vec3 from, middle, to;
    float stretch;
    bool second;  ///< of the upper layer
};

struct ScalesStudy {
    SkinPtr skin;
    std::optional<NetOnBody> net;
    bool coarse = false;  ///< a preview
    std::shared_ptr<const std::vector<ThreadLine>> threads;
    bool thinned = false;
    bool doubled = false;  ///< what the threads were found for
    NetShift second = {};
    std::vector<Words> steps;
    std::optional<Error> error;
    std::optional<FoilLines> foil;
    std::optional<Error> foilError;
};

class ScalesDesk : public QObject {
    Q_OBJECT
  public:
    ScalesDesk(LeafContext context, QObject* parent);

    /// The last that was found; what is drawn while the next is sought.
    const ScalesStudy& study() const { return study_; }
    const ScalesChapter& wish() const { return context_.document.job().get<ScalesChapter>(); }
    /// Nets by how near their scales are to the wanted; without a body in no order.
    NetRanking ranking() const;
    /// The shop's own among those that ship, once the workshop file has been read.
    const std::vector<Net>& nets() const { return nets_; }
    /// Keeps the job's net in the workshop file; told in words when it cannot be.
    void keepNet();
    bool settled() const { return !preview_.running() && !exact_.running() && !plan_.running(); }
    bool planning() const { return plan_.running(); }

    /// The net as it is laid, were its threads not to stretch at all; a moment later than the rest.
    const std::optional<NetReading>& fishnet() const { return fishnet_; }
    /// The painted body with the net's scales sprayed over it; null without a net.
    const std::shared_ptr<const Image>& worn() const { return worn_; }
    /// Where the magnifier looks; the middle of the side unless moved.
    Vec2 aim() const;
    void lookAt(const Vec2& skin);
    /// The clip in hand, by its place.
    const std::optional<double>& clip() const { return clip_; }
    void hold(std::optional<double> clip_mm);

    /// One step of the history; edits of a drag follow one beginGesture. The reason when the job would not be
    /// one.
    Status change(const QString& label, const std::function<void(ScalesChapter&)>& edit);
    /// Seeks the fewest clips; they become the job's when it is done, or as far as it came when it is
    /// stopped.
    void plan();
    void stopPlanning();

  signals:
    void changed();
    void planned();

  private:
    void request();
    void requestFishnet();
    void requestWorn();
    void takePlan(const ClipPlan& plan);

    LeafContext context_;
    ScalesStudy study_;
    std::vector<Net> nets_ = netsOfCatalogue();
    std::shared_ptr<const Image> worn_;
    std::optional<NetReading> fishnet_;
    std::optional<DrapeWish> fishnetFor_;
    std::optional<Vec2> aim_;
    std::optional<double> clip_;
    std::optional<ClipPlan> best_;
    LatestOnly<ScalesStudy> preview_{this, Urgency::Now, Overtaken::Shown}, exact_{this, Urgency::Soon};
    LatestOnly<std::shared_ptr<const Image>> wearing_{this, Urgency::Patient};
    LatestOnly<std::optional<NetReading>> stiff_{this, Urgency::Patient};
    LatestOnly<std::optional<ClipPlan>> plan_{this, Urgency::Soon};
};

}  // namespace nine::app
