#include "pattern/field.h"

#include <algorithm>
#include <cmath>

#include "base/rng.h"
#include "pattern/bands.h"
#include "pattern/cuttable.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"

namespace nine {
namespace {

constexpr double kLeastReach = 0.02;       // of length and half girth
constexpr double kStraight_mm = 0.004;     // a place so near the line between its neighbours says nothing
constexpr double kLongestEdge_mm = 0.4;
constexpr double kOwn_mm = 2.5, kShared_mm = 6;  // from the back line

Polygon2 thinned(const Polygon2& ring) {
    Polygon2 kept;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 &p = ring[i], &next = ring[(i + 1) % ring.size()];
        if (!kept.empty() && kept.size() > 1) {
            const Vec2 along = next - kept.back();
            const double length = along.norm();
            if (length < kLongestEdge_mm && length > 0 &&
                std::abs(cross(along, p - kept.back())) / length < kStraight_mm &&
                (p - kept.back()).dot(along) > 0 && i % 3 != 0)
                continue;
        }
        kept.push_back(p);
    }
    return kept;
}

const Handle kReachHandles[] = {
    {"first",
     NINE_WORDS("core", "front edge of the field"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn& on) {
         e.values.set("from_length", e.values.number("from_length") + by.x() / on.skin.length_mm());
     },
     {"from_length"}},
    {"last",
     NINE_WORDS("core", "rear edge of the field"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn& on) {
         e.values.set("to_length", e.values.number("to_length") + by.x() / on.skin.length_mm());
     },
     {"to_length"}},
    {"upper",
     NINE_WORDS("core", "upper edge of the field"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn& on) {
         const SectionArc arc = on.skin.arcAt(0.5 * (on.skin.noseX_mm() + on.skin.tailX_mm()));
         e.values.set("from_girth",
                      e.values.number("from_girth") - by.y() / (arc.backArc_mm() + arc.bellyArc_mm()));
     },
     {"from_girth"}},
    {"lower",
     NINE_WORDS("core", "lower edge of the field"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn& on) {
         const SectionArc arc = on.skin.arcAt(0.5 * (on.skin.noseX_mm() + on.skin.tailX_mm()));
         e.values.set("to_girth",
                      e.values.number("to_girth") - by.y() / (arc.backArc_mm() + arc.bellyArc_mm()));
     },
     {"to_girth"}},
};

double smooth(double t) {
    const double c = std::clamp(t, 0.0, 1.0);
    return c * c * (3 - 2 * c);
}

}  // namespace

FieldReach reachOf(const Values& v) {
    return {v.number("from_length"), v.number("to_length"), v.number("from_girth"), v.number("to_girth"),
            v.text("across") == "back"};
}

Status checkReach(const Values& values, const std::string& path) {
    const FieldReach reach = reachOf(values);
    const Pattern too = NINE_WORDS("core", "The field ends where it begins; move its edges apart.");
    if (reach.toLength - reach.fromLength < kLeastReach)
        return Error{"out_of_range", too, path + ".to_length"};
    if (!reach.overBack && reach.toGirth - reach.fromGirth < kLeastReach)
        return Error{"out_of_range", too, path + ".to_girth"};
    return Done{};
}

Chart::Wish wishOf(const DrawOn& on, const FieldReach& reach, double cell_mm) {
    const double nose = on.skin.noseX_mm() + on.shift_mm.x(), length = on.skin.length_mm();
    const SectionArc arc = on.skin.arcAt(on.skin.noseX_mm() + 0.5 * length);
    const double half = arc.backArc_mm() + arc.bellyArc_mm(), down = -on.shift_mm.y() / half;
    const double to = std::clamp(reach.toGirth + down, 0.0, 1.0);
    const double from = reach.overBack ? std::max(-to, -0.98) : std::clamp(reach.fromGirth + down, 0.0, to);
    return {nose + reach.fromLength * length, nose + reach.toLength * length, from, to, cell_mm};
}

double insideOf(const FieldReach& reach, const Skin& skin, double x_mm, double share, double soft) {
    const double t = (x_mm - skin.noseX_mm()) / skin.length_mm(), s = std::abs(share);
    const double end = std::max(1e-6, soft);
    double in = smooth((t - reach.fromLength) / end) * smooth((reach.toLength - t) / end) *
                smooth((reach.toGirth - s) / end);
    if (!reach.overBack) in *= reach.fromGirth > 0 ? smooth((s - reach.fromGirth) / end) : 1;
    return in;
}

std::vector<std::pair<std::string_view, Vec2>> placesOfReach(const DrawOn& on, const FieldReach& reach) {
    const Chart::Wish wish = wishOf(on, reach, 1);
    const auto at = [&](double x, double share) {
        const double tip = 0.01 * on.skin.length_mm();
        const double clamped = std::clamp(x, on.skin.noseX_mm() + tip, on.skin.tailX_mm() - tip);
        const SectionArc arc = on.skin.arcAt(clamped);
        return Vec2(clamped, arc.backArc_mm() - share * (arc.backArc_mm() + arc.bellyArc_mm()));
    };
    const double x = 0.5 * (wish.from_x_mm + wish.to_x_mm);
    const double upper = std::max(0.0, wish.fromShare), middle = 0.5 * (upper + wish.toShare);
    std::vector<std::pair<std::string_view, Vec2>> places{{"first", at(wish.from_x_mm, middle)},
                                                          {"last", at(wish.to_x_mm, middle)},
                                                          {"lower", at(x, wish.toShare)}};
    if (!reach.overBack) places.emplace_back("upper", at(x, upper));
    return places;
}

std::span<const Handle> handlesOfReach() {
    return kReachHandles;
}

SidedNoise::SidedNoise(double size_mm, std::uint64_t seed, int octaves)
    : both_(size_mm, seed, octaves), own_(size_mm, scrambled(seed + 77), octaves) {}

double SidedNoise::at(const Vec3& p, double fromBack_mm) const {
    const Vec3 mirrored(p.x(), std::sqrt(p.y() * p.y() + 0.36), p.z());
    const double t = smooth((fromBack_mm - kOwn_mm) / (kShared_mm - kOwn_mm));
    const double own = t < 1 ? own_.at(p) : 0, both = t > 0 ? both_.at(mirrored) : 0;
    return (t * both + (1 - t) * own) / std::hypot(t, 1 - t);  // as strong where the two mix
}

Result<Field> grownLabyrinth(const Chart& chart, Field u, const Labyrinth& wish,
                             const std::vector<float>& inside, const std::vector<bool>& counts,
                             const Task& task) {
    constexpr double kNear = 6.1, kFar = 1.8;
    constexpr float kGain = 7, kOutside = 2.2f;
    const double near = wish.wavelength_mm / kNear;
    std::vector<float> heights;
    for (int round = 0; round < wish.rounds; ++round) {
        if (task.cancelled()) return Task::cancelledError();
        task.progress(static_cast<double>(round) / wish.rounds);
        Field help = u, hinder = u;
        chart.diffuse(help, near, wish.pull, 3);
        chart.diffuse(hinder, kFar * near, wish.pull, 3);
        heights.clear();
        for (std::size_t i = 0; i < u.size(); ++i) {
            u[i] = kGain * (help[i] - hinder[i]);
            if (counts[i]) heights.push_back(u[i]);
        }
        float bias = 0;
        if (!heights.empty()) {
            const auto at = heights.begin() + static_cast<std::ptrdiff_t>(
                                                  (1 - wish.cover) * static_cast<double>(heights.size() - 1));
            std::nth_element(heights.begin(), at, heights.end());
            bias = -*at;
        }
        for (std::size_t i = 0; i < u.size(); ++i) u[i] = std::tanh(u[i] + bias - kOutside * (1 - inside[i]));
    }
    return u;
}

Field cleanedToCover(const Chart& chart, const Field& field, double cover, const std::vector<bool>& counts,
                     double close_mm, double open_mm, double least_mm) {
    const double least_mm2 = 0.25 * kPi * least_mm * least_mm;
    constexpr double kEnough = 0.004;
    constexpr int kTries = 10;
    double whole = 0;
    std::vector<float> heights;
    for (std::size_t i = 0; i < field.size(); ++i) {
        if (!counts[i]) continue;
        whole += chart.area_mm2(i);
        heights.push_back(field[i]);
    }
    if (heights.empty()) return chart.withoutSmall(chart.cleaned(field, close_mm, open_mm), least_mm2);
    std::sort(heights.begin(), heights.end());
    // The height is looked for among the field's own, by rank: it rises evenly with what is covered.
    double low = 0, high = 1, rank = 1 - cover;
    Field best, cut(field.size());
    double nearest = 2;
    for (int k = 0; k < kTries && nearest > kEnough; ++k) {
        const auto at =
            static_cast<std::size_t>(std::clamp(rank, 0.0, 1.0) * static_cast<double>(heights.size() - 1));
        for (std::size_t i = 0; i < field.size(); ++i) cut[i] = field[i] - heights[at];
        Field clean = chart.withoutSmall(chart.cleaned(cut, close_mm, open_mm), least_mm2);
        double covered = 0;
        for (std::size_t i = 0; i < field.size(); ++i)
            if (counts[i] && clean[i] > 0) covered += chart.area_mm2(i);
        const double off = covered / whole - cover;
        if (std::abs(off) < nearest) {
            nearest = std::abs(off);
            best = std::move(clean);
        }
        (off > 0 ? low : high) = rank;
        const double step = rank + off;
        rank = step > low && step < high ? step : 0.5 * (low + high);
    }
    return best;
}

Result<Drawn> drawnField(const DrawOn& on, const Chart& chart, const Field& field, double least_mm,
                         double bridge_mm) {
    PolygonSet rings;
    for (const Polygon2& ring : chart.rings(field)) rings.push_back(thinned(ring));
    const double least = 0.25 * kPi * least_mm * least_mm;
    std::erase_if(rings, [&](const Polygon2& ring) { return std::abs(polygonArea(ring)) < least; });
    if (rings.empty())
        return Error{
            "fits_nowhere",
            NINE_WORDS("core",
                       "Nothing of this field fits where it is to lie; let it reach farther, or make "
                       "its marks smaller."),
            on.path};
    // Before bridges, which must find what they hold; and once more when all is cut off that must be.
    const Result<PolygonSet> held = withBridges(on, cuttable(rings), bridge_mm);
    if (!held) return held.error();
    return Drawn{{{outlinesOf(on.skin, *held, least)}}};
}

}  // namespace nine
