// A face mask: all of the head from a front edge to a bowed rear edge.
#include <algorithm>
#include <cmath>

#include "blank/walk.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"

namespace nine {
namespace face_mask {
namespace {

using Type = Param::Type;

struct FaceMask {
    double front, up, down, bow_mm, lean_mm;
};

constexpr Bound<FaceMask> kSizes[] = {
    {{.key = "front",
      .name = NINE_WORDS("core", "Front edge, share of the way from the nose"),
      .type = Type::Share,
      .low = 0.05,
      .high = 0.95,
      .usual = 0.3,
      .decimals = 0},
     &FaceMask::front},
    {{.key = "up",
      .name = NINE_WORDS("core", "Reach to the back"),
      .type = Type::Share,
      .low = 0.05,
      .high = 1,
      .usual = 0.96,
      .decimals = 0},
     &FaceMask::up},
    {{.key = "down",
      .name = NINE_WORDS("core", "Reach to the belly"),
      .type = Type::Share,
      .low = -0.9,
      .high = 1,
      .usual = 0.5,
      .decimals = 0},
     &FaceMask::down},
    {{.key = "bow_mm",
      .name = NINE_WORDS("core", "Bow of the rear edge"),
      .low = -40,
      .high = 40,
      .usual = 1.5,
      .refit = Refit::WithLength,
      .lessen = Lessen::Lower},
     &FaceMask::bow_mm},
    {{.key = "lean_mm",
      .name = NINE_WORDS("core", "Lean of the rear edge"),
      .low = -40,
      .high = 40,
      .usual = 0,
      .refit = Refit::WithLength,
      .lessen = Lessen::Lower},
     &FaceMask::lean_mm},
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    {"middle", NINE_WORDS("core", "rear edge of the face mask"), {}, {{{"bow_mm", 1, 0}}}},
    {"upper", NINE_WORDS("core", "upper corner of the face mask"), {}, {{{"lean_mm", 1, 0}}}},
};

class FaceMaskKind : public Kind {
  public:
    std::string_view id() const override { return "face_mask"; }
    Family family() const override { return Family::Head; }
    Pattern name() const override { return NINE_WORDS("core", "face mask"); }
    Pattern onMask() const override { return NINE_WORDS("core", "face"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS(
            "core",
            "The face from {front} % of the way from the nose on, up to {up} % of the way to the "
            "back and {down} % to the belly; its rear edge bowed {bow_mm} and leaning {lean_mm}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    Status check(const Values& values, const std::string& path) const override {
        const FaceMask s = sizesOf(kSizes, values);
        if (s.up + s.down >= 0.1) return Done{};
        return Error{"out_of_range",
                     NINE_WORDS("core", "The face mask has no height left; let it reach farther."),
                     path + ".down"};
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        // In one piece: round the four edges of the face.
        const FaceMask s = sizesOf(kSizes, element.values);
        const double edge = artSteps(on.fineness).edge_mm, nose = on.skin.noseX_mm();
        const auto heightAt = [&](double x, double t) {  // t from the lower edge to the upper
            const SectionArc arc = on.skin.arcAt(x);
            return -s.down * arc.bellyArc_mm() + t * (s.down * arc.bellyArc_mm() + s.up * arc.backArc_mm());
        };
        constexpr int kSteps = 60;
        std::vector<Vec2> rear;
        for (int k = 0; k <= kSteps; ++k) {
            const double t = static_cast<double>(k) / kSteps;
            const double g = heightAt(on.origin.x(), t);
            const Result<double> x = walkAlong(on.skin, on.origin.x(), 0.999 * g,
                                               s.bow_mm * 4 * t * (1 - t) + s.lean_mm * (t - 0.5), on.path);
            if (!x) return x.error();
            rear.emplace_back(*x, heightAt(*x, t));
        }
        const double frontX = nose + s.front * (on.origin.x() - nose);
        double least = 1e300;
        for (const Vec2& p : rear) least = std::min(least, p.x());
        if (frontX > least - 0.2 || frontX < nose + 0.01 * on.skin.length_mm())
            return Error{"off_body",
                         NINE_WORDS("core",
                                    "The face mask has no length left between its edges; move it towards the "
                                    "tail or its front edge to the nose."),
                         on.path};
        // Counter-clockwise with the nose left: up the rear edge, forward, down the front, back.
        Polygon2 ring = rear;
        const auto run = [&](double from, double to, double t) {
            for (int k = 1; k < kSteps; ++k) {
                const double x = from + (to - from) * k / kSteps;
                ring.emplace_back(x, heightAt(x, t));
            }
        };
        run(rear.back().x(), frontX, 1);
        for (int k = kSteps; k >= 0; --k)
            ring.emplace_back(frontX, heightAt(frontX, static_cast<double>(k) / kSteps));
        run(frontX, rear.front().x(), 0);
        const PolygonSet rings = subdivided(unitedByWinding({ring}), edge);
        return Drawn{{{outlinesOf(on.skin, rings)}}, {{"middle", rear[kSteps / 2]}, {"upper", rear.back()}}};
    }
};

}  // namespace
}  // namespace face_mask

NINE_KIND(faceMask, face_mask::FaceMaskKind)

}  // namespace nine
