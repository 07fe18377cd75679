// What follows from the open job, worked out in the background: body and art at once, masks and pages after
// them.
//
// Nothing here computes on the GUI thread. Values are shared and never change; a view keeps what it was given
// until the next signal. While a new result is under way the old one stays, so drags are drawn from the last
// good picture.
#pragma once

#include <QObject>
#include <QTimer>
#include <map>
#include <set>

#include "app/document/job_document.h"
#include "app/document/latest_only.h"
#include "app/document/view_state.h"
#include "blank/measure.h"
#include "blank/wrap.h"
#include "cut/estimate.h"
#include "job/export.h"
#include "pattern/fitting.h"
#include "pattern/fittings.h"
#include "pattern/skin_picture.h"

namespace nine::app {

/// A mark that reaches off the body, where it could be instead: shown hollow, put there when asked for.
struct StrayMark {
    Element brought;
    ArtPtr art;
};

struct BodyResult {
    SkinPtr skin;
    std::shared_ptr<const DrawnBody> drawn;
    std::vector<ArtPtr> art;       ///< of each element; null where it could not be drawn
    std::vector<ArtPtr> rightArt;  ///< the right side's own, where it is not the mirror image
    std::vector<EyeRing> eyes;     ///< of the eye that will be glued in, the outermost first
    std::shared_ptr<const std::vector<Solid>> fittings;  ///< bill and hook eyes
    std::set<std::string> hidden;                        ///< ids of elements that are not shown
    std::vector<Error> artErrors;                        ///< of those that could not
    std::map<std::string, StrayMark> strays;             ///< of those, by id
    /// Drawn, or else where it could be; null when there is neither.
    ArtPtr artOrStray(std::size_t index) const;
    std::shared_ptr<const Image> picture, bare;  ///< painted, and without any paint
    BlankPtr blank;
    PatternPtr pattern;
    std::optional<Error> error;  ///< of the body itself
};

/// Shared by bodies that are drawn without bill and hooks.
std::shared_ptr<const std::vector<Solid>> noFittings();

/// All masks of a job; or, while they are being solved, those that are there: the new ones as they come, and
/// in place of the others what was there before, if anything.
struct MasksResult {
    Job job = {};
    std::vector<MaskResult> masks = {};
    bool whole = false;                  ///< every mask is the job's as it is now: this may be cut
    std::set<std::string> waiting = {};  ///< ids of those that are still to come
    std::vector<std::vector<Piece>> pieces =
        {};  ///< of each mask, one a sheet; none where it could not be made
    std::optional<CutPages> pages = {};
    CutEstimate toCut = {};  ///< of all pieces, once all have come
    std::vector<Drawing> drawings =
        {};  ///< of the pages; only the texts of their feet hold while a piece is dragged
    std::optional<Error> pagesError = {};
};

/// Where a mask stands among those of a result; -1 if it is not there.
int indexIn(const MasksResult& masks, const std::string& mask);
/// Whether the mask is there as the job asks for it now.
inline bool isCurrent(const MasksResult& masks, const std::string& mask) {
    return indexIn(masks, mask) >= 0 && (masks.whole || !masks.waiting.count(mask));
}

/// The selected mask as it would be cut now: coarse while something is dragged, then exact, before its
/// verdict is there.
struct MaskSketch {
    MaskSpecPtr spec;
    MaskPtr mask;
    /// One a sheet; only once it is exact: finding room for letters takes its time.
    std::vector<Piece> pieces;
    Precision precision = Precision::Preview;
};

class Results : public QObject {
    Q_OBJECT
  public:
    /// `derived` remembers what follows from jobs; windows may share one.
    Results(JobDocument& document, ViewState& view, std::shared_ptr<Derivations> derived, QObject* parent);

    const BodyResult& body() const { return body_; }
    const MasksResult& masks() const { return masks_; }
    /// Empty when the selected mask cannot be cut.
    const std::optional<MaskSketch>& sketch() const { return sketch_; }
    const BodyMeasure& measure() const { return measured_.body; }
    /// Skin without what zones and landmarks keep bare.
    double painted_mm2() const { return measured_.painted_mm2; }
    /// Skin within each zone of the blank, by id, mm^2.
    const std::map<std::string, double>& zoneAreas() const { return measured_.zones; }
    bool masksRunning() const { return masksSlot_.running() || quiet_.isActive(); }
    double progress() const { return progress_; }
    /// True when nothing is under way.
    bool settled() const {
        return !bodySlot_.running() && !calm_.isActive() && !fineSlot_.running() && !masksRunning() &&
               !sketchSlot_.running() && !exactSlot_.running() && !measureSlot_.running();
    }
    void cancelMasks();

    /// The pages while a piece is dragged; the edit at its end makes them the job's.
    void setPages(CutPages pages);

  signals:
    void bodyChanged();
    void masksChanged();
    void sketchChanged();
    /// A piece was dragged: nothing else follows from that.
    void pagesMoved();
    void progressChanged();

  private:
    void onChanged(Parts parts);
    void requestBody();
    void requestFineBody();
    void takeBody(BodyResult result);
    void requestSketch();
    void requestMasks();
    void masksAreOld();

    /// The body is drawn exactly once the glance has been shown: pictures that follow the hand go first.
    static constexpr int kCalm_ms = 60;
    /// All masks are solved once nothing has changed for so long: a drag is not followed step by step.
    static constexpr int kQuiet_ms = 120;

    JobDocument& document_;
    ViewState& view_;
    std::shared_ptr<Derivations> derived_;
    BodyResult body_;
    MasksResult masks_;
    struct Measured {
        BodyMeasure body{};
        double painted_mm2 = 0;
        std::map<std::string, double> zones;
    };
    Measured measured_;
    double progress_ = 1;
    quint64 asked_ = 0;  ///< counts the requests for masks
    std::optional<MaskSketch> sketch_;
    std::string sketched_;  ///< id
    QTimer calm_, quiet_;
    LatestOnly<BodyResult> bodySlot_{this, Urgency::Now, Overtaken::Shown}, fineSlot_{this, Urgency::Soon};
    LatestOnly<MaskSketch> sketchSlot_{this, Urgency::Soon, Overtaken::Shown},
        exactSlot_{this, Urgency::Soon};
    LatestOnly<MasksResult> masksSlot_{this, Urgency::Patient};
    LatestOnly<Measured> measureSlot_{this, Urgency::Patient};
};

}  // namespace nine::app
