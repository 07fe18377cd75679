// A crescent behind the gill plate (or another landmark that is a curve), its front edge along it. dx_mm is
// the distance behind the curve, dg_mm moves it towards the back.
#include <algorithm>
#include <cmath>

#include "base/units.h"
#include "blank/landmark_curve.h"
#include "blank/walk.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"

namespace nine {
namespace gill_mark {
namespace {

constexpr double kLargestPair_mm = 2;  // less than the registration marks need

struct GillMark {
    double width_mm;         ///< in the middle; it tapers to both tips
    double from, to;         ///< the part of the curve it follows, shares of its length from its first end
    double pair_mm;          ///< the sheet is sprayed twice, moved so far towards the tail between; 0: once
    std::string pairColour;  ///< of the first pass; the second, over it, has the element's colour
};

using Type = Param::Type;
constexpr Bound<GillMark> kGillSizes[] = {
    {{"width_mm", NINE_WORDS("core", "Width"), Type::Length, kSmallestSize_mm, 50, 2.5, 1, Refit::WithLength,
      Lessen::Smaller},
     &GillMark::width_mm},
    {{"from", NINE_WORDS("core", "First end"), Type::Share, 0, 1, 0.1, 0}, &GillMark::from},
    {{"to", NINE_WORDS("core", "Last end"), Type::Share, 0, 1, 0.9, 0}, &GillMark::to},
    {{"pair_mm", NINE_WORDS("core", "Move between the passes"), Type::Length, 0, kLargestPair_mm, 0, 1},
     &GillMark::pair_mm},
    {{"pair_colour",
      NINE_WORDS("core", "Colour of the first pass"),
      Type::Colour,
      0,
      0,
      0,
      0,
      Refit::Fixed,
      Lessen::Not,
      {},
      "#f2efe2",
      {},
      {}},
     &GillMark::pairColour},
};
constexpr auto kGillParams = paramsOf(kGillSizes);

/// The crescent's ring begins at a tip; the other is half way round.
Vec2 onRing(const Outline& crescent, std::size_t quarters) {
    return crescent.skin[quarters * (crescent.skin.size() / 2) / 2];
}

/// One end along the curve, by so much of it as `by` is of its length: the one towards the back or the belly.
void moveTip(Element& e, double by_mm, bool upper, const MoveOn& on) {
    const auto plate = on.landmarks.find(e.anchor);
    if (plate == on.landmarks.end() || !plate->second.isCurve()) return;
    const std::vector<Vec2>& points = plate->second.points;
    const bool fromBack = points.front().y() > points.back().y();
    const char* key = upper == fromBack ? "from" : "to";
    const double length = lengthsAlong(on.skin, curveOf(plate->second)).back();
    const double share = (fromBack ? -1 : 1) * by_mm / std::max(1e-6, length);
    e.values.set(key, std::clamp(e.values.number(key) + share, 0.0, 1.0));
}

const Handle kGillHandles[] = {
    {"middle",
     NINE_WORDS("core", "rear edge"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn&) {
         e.values.set("width_mm", e.values.number("width_mm") + by.x());
     },
     {"width_mm"}},
    {"upper",
     NINE_WORDS("core", "upper tip"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn& on) { moveTip(e, by.y(), true, on); },
     {"from", "to"}},
    {"lower",
     NINE_WORDS("core", "lower tip"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn& on) { moveTip(e, by.y(), false, on); },
     {"from", "to"}},
    {"first",
     NINE_WORDS("core", "front edge"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn&) {
         e.dx_mm += by.x();
         e.dg_mm += by.y();
     },
     {"dx_mm", "dg_mm"}},
};

/// The crescent moved `shift_mm` towards the tail.
Result<Outline> drawCrescent(const Skin& skin, const Landmark& landmark, const Element& element,
                             const GillMark& mark, double shift_mm, const ArtSteps& fine,
                             const std::string& path) {
    const std::vector<Vec2> curve = curveOf(landmark);
    const double length = lengthsAlong(skin, curve).back();
    // Even, so that the widest place is one of them.
    const int steps =
        2 *
        std::max(4, static_cast<int>(std::ceil(0.5 * length * (mark.to - mark.from) / fine.edge_mm - 1e-6)));
    const std::vector<Vec2> plate = partOf(skin, curve, mark.from, mark.to, steps);
    std::vector<Vec2> front, rear;
    for (int k = 0; k <= steps; ++k) {
        const Vec2& p = plate[static_cast<std::size_t>(k)];
        const double g = p.y() + element.dg_mm;
        const double wide = mark.width_mm * std::sin(kPi * k / steps);
        for (const auto& [edge, distance] :
             {std::pair{&front, element.dx_mm + shift_mm}, {&rear, element.dx_mm + shift_mm + wide}}) {
            const Result<double> x = walkAlong(skin, p.x(), g, distance, path);
            if (!x) return x.error();
            edge->emplace_back(*x, g);
        }
    }
    // Counter-clockwise with the nose left: down the front edge, up the rear edge.
    if (front.front().y() < front.back().y()) {
        std::reverse(front.begin(), front.end());
        std::reverse(rear.begin(), rear.end());
    }
    Outline crescent;
    crescent.skin = front;
    crescent.skin.insert(crescent.skin.end(), rear.rbegin() + 1, rear.rend() - 1);
    const std::size_t middle = front.size() / 2;
    crescent.centre = 0.5 * (front[middle] + rear[middle]);
    for (const Vec2& p : crescent.skin) {
        if (Status ok = skin.check({Side::Left, p.x(), p.y()}, path); !ok) return ok.error();
        crescent.points.push_back(skin.at({Side::Left, p.x(), p.y()}));
    }
    return crescent;
}

class GillMarkKind : public Kind {
  public:
    std::string_view id() const override { return "gill_mark"; }
    Family family() const override { return Family::Head; }
    Pattern name() const override { return NINE_WORDS("core", "gill mark"); }
    Pattern onMask() const override { return NINE_WORDS("core", "gill mark"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS(
                "core",
                "A crescent {width_mm} wide in the middle, along the gill plate from {from} % to {to} % of "
                "its length."),
            NINE_WORDS("core",
                       "Sprayed twice, the sheet moved by {pair_mm} towards the tail between; 0 is once.")};
    }
    std::span<const Param> params() const override { return kGillParams; }
    std::span<const Handle> handles() const override { return kGillHandles; }
    std::string_view alongCurve() const override { return "gill_plate"; }
    Status check(const Values& values, const std::string& path) const override {
        const GillMark mark = sizesOf(kGillSizes, values);
        if (mark.to - mark.from >= 0.05) return Done{};
        return Error{
            "out_of_range",
            Words(NINE_WORDS("core",
                             "A gill mark must follow at least {least} of its curve; move its ends apart."))
                .share("least", 0.05),
            path + ".to"};
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const GillMark mark = sizesOf(kGillSizes, element.values);
        const auto plate = on.landmarks.find(element.anchor);
        if (plate == on.landmarks.end() || !plate->second.isCurve())
            return Error{
                "not_a_curve",
                NINE_WORDS("core",
                           "A gill mark follows a landmark that is a curve, such as the gill plate; anchor "
                           "it to one."),
                on.path + ".anchor"};
        std::vector<Pass> passes;
        for (const double shift : {0.0, mark.pair_mm}) {
            if (!passes.empty() && shift <= 0) break;
            Result<Outline> crescent =
                drawCrescent(on.skin, plate->second, element, mark, shift, artSteps(on.fineness), on.path);
            if (!crescent) return crescent.error();
            passes.push_back({{std::move(*crescent)}, Vec2(shift, 0), {}});
        }
        if (passes.size() > 1) passes.front().colour = mark.pairColour;
        const Outline& first = passes.front().outlines.front();
        return Drawn{passes,
                     {{"upper", onRing(first, 0)},
                      {"first", onRing(first, 1)},
                      {"lower", onRing(first, 2)},
                      {"middle", onRing(first, 3)}}};
    }
};

}  // namespace
}  // namespace gill_mark

NINE_KIND(gillMark, gill_mark::GillMarkKind)

}  // namespace nine
