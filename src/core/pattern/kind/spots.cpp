// Spots at random but evenly apart, their size and number graded along the body and down the side.
#include <cmath>

#include "base/parallel.h"
#include "base/rng.h"
#include "geom/polygon_set.h"
#include "pattern/art.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"
#include "pattern/natural.h"
#include "pattern/scatter.h"

namespace nine {
namespace spots {
namespace {

constexpr double kCell_mm = 0.28;
constexpr std::size_t kMostSpots = 2000;

struct Spots {
    double small_mm, large_mm;  ///< diameters
    double gap_mm;
    double headward, backward;  ///< size and number towards the head and the back over those at the other end
    double soft, rough;
    std::string across;
};

using Type = Param::Type;
constexpr Bound<Spots> kSizes[] = {
    {{.key = "small_mm",
      .name = NINE_WORDS("core", "Smallest diameter"),
      .low = 0.3,
      .high = 30,
      .usual = 0.9,
      .decimals = 2,
      .lessen = Lessen::Smaller},
     &Spots::small_mm},
    {{.key = "large_mm",
      .name = NINE_WORDS("core", "Largest diameter"),
      .low = 0.3,
      .high = 30,
      .usual = 1.3,
      .decimals = 2,
      .lessen = Lessen::Smaller,
      .usualFrom = "small_mm"},
     &Spots::large_mm},
    {{.key = "gap_mm",
      .name = NINE_WORDS("core", "Least gap"),
      .low = 0.3,
      .high = 50,
      .usual = 1,
      .decimals = 2,
      .refit = Refit::WithGirthRoot},
     &Spots::gap_mm},
    {{.key = "headward",
      .name = NINE_WORDS("core", "Denser to the head"),
      .type = Type::Share,
      .low = 0.2,
      .high = 5,
      .usual = 1,
      .decimals = 0},
     &Spots::headward},
    {{.key = "backward",
      .name = NINE_WORDS("core", "Denser to the back"),
      .type = Type::Share,
      .low = 0.2,
      .high = 5,
      .usual = 1,
      .decimals = 0},
     &Spots::backward},
    {kSoftParam, &Spots::soft},
    {{.key = "rough",
      .name = NINE_WORDS("core", "Outline, more or less"),
      .type = Type::Share,
      .low = 0,
      .high = 0.4,
      .usual = 0.12,
      .decimals = 0},
     &Spots::rough},
    {kAcrossParam, &Spots::across},
};
constexpr auto kParams = joined(paramsOf(kSizes), kReachParams);

class SpotsKind : public FieldKind {
  public:
    std::string_view id() const override { return "spots"; }
    Pattern name() const override { return NINE_WORDS("core", "field of spots"); }
    Pattern onMask() const override { return NINE_WORDS("core", "spots"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "Spots from Ø {small_mm} to Ø {large_mm}, at least {gap_mm} apart, {headward} % as "
                       "dense at the head and {backward} % at the back, outlines off by {rough} %."),
            NINE_WORDS("core",
                       "From {from_length} to {to_length} % of the length and from {from_girth} to "
                       "{to_girth} % of the way from back to belly, thinning out over {soft} %; they stand "
                       "{across}; seed {seed}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    Status check(const Values& values, const std::string& path) const override {
        const Spots sizes = sizesOf(kSizes, values);
        if (sizes.large_mm < sizes.small_mm)
            return Error{"out_of_range",
                         NINE_WORDS("core", "The largest spot must not be smaller than the smallest."),
                         path + ".large_mm"};
        return checkReach(values, path);
    }
    bool isMended(const Values&) const override { return false; }  // sizes and distances are set
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        // In one piece: where darts may lie, the darts, and a spot at each.
        const Spots sizes = sizesOf(kSizes, element.values);
        const FieldReach reach = reachOf(element.values);
        const std::uint64_t seed = on.seedOf(element.values.number(kSeedKey));
        const double cell = std::clamp(0.25 * (sizes.small_mm + sizes.gap_mm), 0.12, 1.0);
        const Chart chart(on.skin, wishOf(on, reach, std::min(cell, 4 * kCell_mm)));
        // What spots keep away from: marks grown by the distance, and bare places.
        PolygonSet kept;
        for (const ElementArt* mark : on.clearOf) {
            const Result<PolygonSet> wide =
                grown(on.skin, ringsOf(mark->outlines()), on.clear_mm, on.fineness, on.path);
            if (!wide) return wide.error();
            kept.insert(kept.end(), wide->begin(), wide->end());
        }
        if (on.bare)
            for (const BarePlace& place : *on.bare) kept.push_back(place.ring);
        std::vector<Box2> boxes;
        for (const Polygon2& ring : kept) boxes.push_back(boxAround({ring}));
        const auto clear = [&](const Vec2& at, double radius) {
            const Box2 around{at - Vec2(radius, radius), at + Vec2(radius, radius)};
            for (std::size_t k = 0; k < kept.size(); ++k) {
                if (apart(boxes[k], around) > 0) continue;
                if (contains(kept[k], at)) return false;
                for (int a = 0; a < 8; ++a)
                    if (contains(kept[k], at + radius * Vec2(std::cos(a * kPi / 4), std::sin(a * kPi / 4))))
                        return false;
            }
            return true;
        };
        const auto sizeAt = [&](int r, int c) -> std::optional<Vec2> {
            const std::uint64_t chance = scrambled(seed + 31 * chart.index(r, c));
            const double x = chart.x_mm(r) - on.shift_mm.x(), share = chart.share(c);
            const double inside = insideOf(reach, on.skin, x, share, sizes.soft);
            if (inside <= 0.02) return std::nullopt;
            const double t = ((x - on.skin.noseX_mm()) / on.skin.length_mm() - reach.fromLength) /
                             (reach.toLength - reach.fromLength);
            const double s = std::abs(share) / std::max(0.01, reach.toGirth);
            const double density = std::pow(sizes.headward, 1 - t) * std::pow(sizes.backward, 1 - s) *
                                   inside / std::max({1.0, sizes.headward, sizes.backward});
            const double diameter = sizes.small_mm + (sizes.large_mm - sizes.small_mm) *
                                                         static_cast<double>(chance >> 40) * 0x1p-24 *
                                                         std::min(1.0, 0.4 + density);
            const double most = 0.5 * diameter * (1 + sizes.rough);
            if (!clear(chart.place(r, c), most)) return std::nullopt;
            return Vec2(most, sizes.gap_mm / std::pow(std::max(0.02, density), 0.6));
        };
        const std::vector<Dart> darts = scattered(chart, sizeAt, seed);
        if (on.task.cancelled()) return Task::cancelledError();
        if (darts.empty() || darts.size() > kMostSpots)
            return Error{
                "fits_nowhere",
                darts.empty()
                    ? Words(
                          NINE_WORDS("core",
                                     "No spot fits where the field is to lie; let it reach farther, or make "
                                     "the spots smaller."))
                    : Words(NINE_WORDS("core",
                                       "That would be {count} spots; at most {most} are drawn. Make them "
                                       "larger or farther apart."))
                          .number("count", static_cast<double>(darts.size()), 0)
                          .number("most", kMostSpots, 0),
                on.path};
        std::vector<std::optional<Outline>> drawn(darts.size());
        forEachInParallel(darts.size(), [&](std::size_t i) {
            const double radius = darts[i].radius_mm / (1 + sizes.rough);
            const Wobble wobble(sizes.rough, scrambled(seed + 1000 + i));
            Result<Outline> spot = drawBlob(
                on.skin, darts[i].at, [&](double a) { return radius * wobble.at(a); }, darts[i].radius_mm,
                on.fineness, on.path);
            if (spot) drawn[i] = std::move(*spot);  // at a tip: left out
        });
        std::vector<Outline> outlines;
        for (std::optional<Outline>& spot : drawn)
            if (spot) outlines.push_back(std::move(*spot));
        if (outlines.empty())
            return Error{"fits_nowhere", NINE_WORDS("core", "No spot fits where the field is to lie."),
                         on.path};
        return Drawn{{{std::move(outlines)}}, placesOfReach(on, reach)};
    }
};

}  // namespace
}  // namespace spots

NINE_KIND(spots, spots::SpotsKind)

}  // namespace nine
