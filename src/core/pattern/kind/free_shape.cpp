// A shape drawn with a pen on the skin: smooth through its places, closed.
#include <algorithm>
#include <cmath>

#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"
#include "pattern/stroke.h"

namespace nine {
namespace free_shape {
namespace {

using Type = Param::Type;

struct FreeShape {
    Polyline2 path_mm;
    double size, round;
    std::string across;
};

constexpr Choice kAcross[] = {{"side", NINE_WORDS("core", "on each side")},
                              {"back", NINE_WORDS("core", "over the back, as one piece")},
                              {"belly", NINE_WORDS("core", "under the belly, as one piece")}};
constexpr std::array<double, 2> kUsual[] = {{-4, 0.4}, {-1.2, 2.4}, {3.2, 1.6}, {4.4, -0.8}, {0.4, -2.2}};

constexpr Bound<FreeShape> kSizes[] = {
    {{.key = "path_mm", .name = NINE_WORDS("core", "Places"), .type = Type::Path, .usualPath_mm = kUsual},
     &FreeShape::path_mm},
    {{.key = "size",
      .name = NINE_WORDS("core", "Size"),
      .type = Type::Share,
      .low = 0.05,
      .high = 20,
      .usual = 1,
      .decimals = 0,
      .refit = Refit::WithGirthRoot,
      .lessen = Lessen::Smaller},
     &FreeShape::size},
    {{.key = "round",
      .name = NINE_WORDS("core", "Smoothed"),
      .type = Type::Share,
      .low = 0,
      .high = 1,
      .usual = 1,
      .decimals = 0},
     &FreeShape::round},
    {{.key = "across",
      .name = NINE_WORDS("core", "Across"),
      .type = Type::Choice,
      .usualText = "side",
      .choices = kAcross},
     &FreeShape::across},
};
constexpr auto kParams = paramsOf(kSizes);

class FreeShapeKind : public Kind {
  public:
    std::string_view id() const override { return "free_shape"; }
    Family family() const override { return Family::Own; }
    Pattern name() const override { return NINE_WORDS("core", "shape of your own"); }
    Pattern onMask() const override { return NINE_WORDS("core", "shape"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core",
                           "A shape of your own at {size} % of its size, smoothed by {round} %; it stands "
                           "{across}. Drag its places on the body.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return {}; }
    bool isCentral(const Values& values) const override { return values.text("across") != "side"; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const FreeShape s = sizesOf(kSizes, element.values);
        Polygon2 shape;
        for (const Vec2& p : s.path_mm) shape.push_back(s.size * p);
        const Polygon2 corners = shape;
        const double edge = artSteps(on.fineness).edge_mm;
        Polygon2 smooth = smoothThrough(shape, true, 0.5 * edge);
        if (s.round < 1) {  // between the straight line through the places and the smooth one
            const Polygon2 straight = smoothStraight(shape, smooth.size());
            for (std::size_t i = 0; i < smooth.size(); ++i)
                smooth[i] = s.round * smooth[i] + (1 - s.round) * straight[i];
        }
        if (polygonArea(smooth) < 0) std::reverse(smooth.begin(), smooth.end());
        const PolygonSet parts = unitedByWinding({smooth});
        Drawn drawn;
        if (parts.size() != 1 || std::abs(polygonArea(parts.front()) - polygonArea(smooth)) > 0.01)
            drawn.warnings.push_back(
                {"crosses_itself",
                 Words(NINE_WORDS("core",
                                  "\"{id}\" crosses itself; it is cut round the outside of it. Drag its "
                                  "places apart."))
                     .name("id", element.id),
                 ".path_mm"});
        if (parts.empty())
            return Error{"fits_nowhere",
                         NINE_WORDS("core", "The shape has no room inside; drag its places apart."),
                         on.path + ".path_mm"};
        PolygonSet rings;
        for (const Polygon2& part : parts) {
            Result<Polygon2> ring = shapeFrom(on.skin, on.origin, part, edge, on.path);
            if (!ring) return ring.error();
            rings.push_back(std::move(*ring));
        }
        if (s.across != "side") {
            const bool back = s.across == "back";
            const PolygonSet half = rings;
            for (Polygon2 ring : half) {
                for (Vec2& p : ring) {
                    const SectionArc arc = on.skin.arcAt(p.x());
                    p.y() = (back ? 2 * arc.backArc_mm() : -2 * arc.bellyArc_mm()) - p.y();
                    if (Status ok = on.skin.check({Side::Left, p.x(), p.y()}, on.path); !ok)
                        return ok.error();
                }
                std::reverse(ring.begin(), ring.end());
                rings.push_back(std::move(ring));
            }
            rings = subdivided(united(rings), 2 * edge);
        }
        drawn.passes = {{outlinesOf(on.skin, rings, 0.01)}};
        static constexpr std::string_view kNumbers[] = {"1",  "2",  "3",  "4",  "5",  "6",  "7",  "8",
                                                        "9",  "10", "11", "12", "13", "14", "15", "16",
                                                        "17", "18", "19", "20", "21", "22", "23", "24"};
        for (std::size_t i = 0; i < std::min(corners.size(), std::size(kNumbers)); ++i)
            if (const Result<Vec2> at = placeFrom(on.skin, on.origin, corners[i], on.path))
                drawn.places.emplace_back(kNumbers[i], *at);
        return drawn;
    }

  private:
    /// As many places along the straight closed line as the smooth one has.
    static Polygon2 smoothStraight(const Polygon2& corners, std::size_t count) {
        Polygon2 line;
        for (std::size_t i = 0; i < count; ++i) {
            const double at =
                static_cast<double>(i) * static_cast<double>(corners.size()) / static_cast<double>(count);
            const auto k = static_cast<std::size_t>(at);
            const Vec2 &a = corners[k % corners.size()], &b = corners[(k + 1) % corners.size()];
            line.push_back(a + (at - static_cast<double>(k)) * (b - a));
        }
        return line;
    }
};

}  // namespace
}  // namespace free_shape

NINE_KIND(freeShape, free_shape::FreeShapeKind)

}  // namespace nine
