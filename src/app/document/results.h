// What follows from the open job, worked out in the background: body and art at once, masks and pages after
// them.
//
// Nothing here computes on the GUI thread. Values are shared and never change; a view keeps what it was given
// until the next signal. While a new result is under way the old one stays, so drags are drawn from the last
// good picture.
#pragma once

#include <QObject>

#include "app/document/job_document.h"
#include "app/document/latest_only.h"
#include "blank/measure.h"
#include "blank/wrap.h"
#include "job/export.h"
#include "pattern/skin_picture.h"

namespace nine::app {

struct BodyResult {
    SkinPtr skin;
    std::shared_ptr<const DrawnBody> drawn;
    std::shared_ptr<const SkinGrid> grid;
    std::vector<ArtPtr> art;                     ///< of each element; null where it could not be drawn
    std::vector<Error> artErrors;                ///< of those that could not
    std::shared_ptr<const Image> picture, bare;  ///< painted, and without any paint
    BlankPtr blank;
    PatternPtr pattern;
    std::optional<Error> error;  ///< of the body itself
};

struct MasksResult {
    Job job;
    std::vector<MaskResult> masks;
    std::vector<Piece> pieces;  ///< of each mask that could be made, else empty
    std::optional<CutPages> pages;
    std::optional<Error> pagesError;
};

class Results : public QObject {
    Q_OBJECT
  public:
    Results(JobDocument& document, QObject* parent);

    const BodyResult& body() const { return body_; }
    const MasksResult& masks() const { return masks_; }
    const BodyMeasure& measure() const { return measure_; }
    bool masksRunning() const { return masksSlot_.running(); }
    double progress() const { return progress_; }
    /// True when nothing is under way.
    bool settled() const { return !bodySlot_.running() && !masksSlot_.running() && !measureSlot_.running(); }
    void cancelMasks();

    const SheetSize& sheet() const { return sheet_; }
    void setSheet(SheetSize sheet);
    /// Replaces the pages with moved pieces (view state until saved layouts exist).
    void setPages(CutPages pages);

  signals:
    void bodyChanged();
    void masksChanged();
    /// A piece was dragged: nothing else follows from that.
    void pagesMoved();
    void progressChanged();

  private:
    void onChanged(Parts parts);
    void requestBody();
    void requestMasks();

    JobDocument& document_;
    std::shared_ptr<Derivations> derived_ = std::make_shared<Derivations>();
    BodyResult body_;
    MasksResult masks_;
    BodyMeasure measure_{};
    SheetSize sheet_;
    double progress_ = 1;
    LatestOnly<BodyResult> bodySlot_{this};
    LatestOnly<MasksResult> masksSlot_{this, true};
    LatestOnly<BodyMeasure> measureSlot_{this, true};
};

/// "#rrggbb" as 0xFFRRGGBB; `fallback` if it is empty or wrong.
std::uint32_t colourOf(const std::string& text, std::uint32_t fallback);
/// The colour an element is shown in.
std::uint32_t colourOf(const Element& element, std::size_t index);

}  // namespace nine::app
