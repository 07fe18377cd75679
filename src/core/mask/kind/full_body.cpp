// The whole body in one sheet whose edges meet on the belly or the back.
#include <algorithm>

#include "mask/kind/whole.h"

namespace nine {
namespace {

constexpr Choice kSeams[] = {{"belly", NINE_WORDS("core", "on the belly")},
                             {"back", NINE_WORDS("core", "on the back")}};

/// Art of the right side as it stands in the chart that goes on over the back, or under the belly.
std::shared_ptr<const ElementArt> roundTheBody(const Skin& skin, const ElementArt& right, Seam seam) {
    auto there = std::make_shared<ElementArt>(right);
    const auto turned = [&](const Vec2& p) {
        const SectionArc arc = skin.arcAt(p.x());
        return Vec2(p.x(), (seam == Seam::Belly ? 2 * arc.backArc_mm() : -2 * arc.bellyArc_mm()) - p.y());
    };
    there->low = Vec2(1e300, 1e300);
    there->high = -there->low;
    for (Pass& pass : there->passes)
        for (Outline& outline : pass.outlines) {
            std::reverse(outline.skin.begin(), outline.skin.end());
            std::reverse(outline.points.begin(), outline.points.end());
            for (Vec2& p : outline.skin) {
                p = turned(p);
                there->low = there->low.cwiseMin(p);
                there->high = there->high.cwiseMax(p);
            }
            for (SurfacePoint& p : outline.points) {
                p.position.y() = -p.position.y();
                p.normal.y() = -p.normal.y();
            }
        }
    there->origin = turned(right.origin);
    return there;
}

/// Whether it lies wholly on the left side, so that the right side has its mirror image besides.
bool oneSided(const Skin& skin, const ElementArt& art, Seam seam) {
    for (const Outline& outline : art.outlines())
        for (const Vec2& p : outline.skin) {
            const SectionArc arc = skin.arcAt(p.x());
            if (seam == Seam::Belly ? p.y() > arc.backArc_mm() : p.y() < -arc.bellyArc_mm()) return false;
        }
    return true;
}

class WrapMaskKind : public MaskKind {
  public:
    std::string_view id() const override { return "full_body"; }
    Pattern name() const override { return NINE_WORDS("core", "mask of the whole body"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "One sheet round the whole body; {nose_mm} of the nose and {tail_mm} of the tail stay "
                       "bare."),
            NINE_WORDS("core", "Its edges meet {seam}. Sheets behind one another along the body: {sheets}.")};
    }
    std::span<const Param> params() const override {
        static constexpr Param kParams[] = {kBareNose,
                                            kBareTail,
                                            {.key = "seam",
                                             .name = NINE_WORDS("core", "Its edges meet"),
                                             .type = Param::Type::Choice,
                                             .usualText = "belly",
                                             .choices = kSeams},
                                            kSheets};
        return kParams;
    }
    bool bothSides() const override { return true; }
    Result<std::optional<Strip>> strip(const PlanOn& on, const Values& values) const override {
        Result<Strip> strip = betweenBareEnds(on, values, wrapStrip(on.skin, seamOf(values)));
        if (!strip) return strip.error();
        return std::optional(std::move(*strip));
    }
    Result<std::vector<SheetPlan>> plan(const PlanOn& on, const Values& values, Warnings&) const override {
        const Seam seam = seamOf(values);
        const Result<Strip> strip = betweenBareEnds(on, values, wrapStrip(on.skin, seam));
        if (!strip) return strip.error();
        std::vector<const ElementArt*> opens = on.art;
        std::vector<std::shared_ptr<const ElementArt>> made;
        for (const ElementArt* right : on.right.empty() ? on.art : on.right) {
            if (!oneSided(on.skin, *right, seam)) continue;
            made.push_back(roundTheBody(on.skin, *right, seam));
            opens.push_back(made.back().get());
        }
        Result<std::vector<SheetPlan>> sheets =
            wholeSheets(on, *strip, static_cast<int>(values.number("sheets")), std::move(opens));
        if (!sheets) return sheets.error();
        for (SheetPlan& sheet : *sheets) sheet.made.insert(sheet.made.end(), made.begin(), made.end());
        return sheets;
    }

  private:
    static Seam seamOf(const Values& values) {
        return values.text("seam") == "back" ? Seam::Back : Seam::Belly;
    }
};

}  // namespace

const MaskKind& full_bodyMaskKind();
const MaskKind& full_bodyMaskKind() {
    static const WrapMaskKind kind;
    return kind;
}

}  // namespace nine
