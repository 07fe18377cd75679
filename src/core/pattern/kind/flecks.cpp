// Flecks flicked on with a brush or a wet trigger: shown, never cut.
#include <algorithm>
#include <cmath>

#include "base/parallel.h"
#include "base/rng.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"

namespace nine {
namespace flecks {
namespace {

using Type = Param::Type;

struct Flecks {
    double perCm2, small_mm, large_mm, long_;
};

constexpr Bound<Flecks> kSizes[] = {
    {{.key = "per_cm2",
      .name = NINE_WORDS("core", "To the square centimetre"),
      .type = Type::Count,
      .low = 1,
      .high = 200,
      .usual = 24,
      .decimals = 0},
     &Flecks::perCm2},
    {{.key = "small_mm",
      .name = NINE_WORDS("core", "Smallest"),
      .low = 0.1,
      .high = 5,
      .usual = 0.25,
      .decimals = 2},
     &Flecks::small_mm},
    {{.key = "large_mm",
      .name = NINE_WORDS("core", "Largest"),
      .low = 0.1,
      .high = 8,
      .usual = 0.8,
      .decimals = 2},
     &Flecks::large_mm},
    {{.key = "long",
      .name = NINE_WORDS("core", "Drawn out"),
      .type = Type::Share,
      .low = 1,
      .high = 6,
      .usual = 1.6,
      .decimals = 0},
     &Flecks::long_},
};
constexpr auto kParams = joined(paramsOf(kSizes), kReachParams);

class FlecksKind : public FieldKind {
  public:
    std::string_view id() const override { return "flecks"; }
    Pattern name() const override { return NINE_WORDS("core", "flecks"); }
    Pattern onMask() const override { return NINE_WORDS("core", "flecks"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "{per_cm2} flecks to the square centimetre, from {small_mm} to {large_mm}, drawn out "
                       "to {long} %. They are flicked on: shown here, never cut."),
            NINE_WORDS("core",
                       "From {from_length} to {to_length} % of the length and from {from_girth} to "
                       "{to_girth} % of the way from back to belly; seed {seed}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    bool isCut() const override { return false; }
    Status check(const Values& values, const std::string& path) const override {
        const Flecks s = sizesOf(kSizes, values);
        if (s.large_mm < s.small_mm)
            return Error{"out_of_range",
                         NINE_WORDS("core", "The largest fleck must not be smaller than the smallest."),
                         path + ".large_mm"};
        return checkReach(values, path);
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Flecks s = sizesOf(kSizes, element.values);
        const FieldReach reach = reachOf(element.values);
        Rng rng(on.seedOf(element.values.number(kSeedKey)));
        const Chart chart(on.skin, wishOf(on, reach, 0.5));
        std::vector<double> until;  // area up to each cell
        double whole = 0;
        for (std::size_t i = 0; i < chart.size(); ++i) until.push_back(whole += chart.area_mm2(i));
        const auto count = static_cast<std::size_t>(std::min(4000.0, s.perCm2 * whole / 100));
        struct Fleck {
            Vec2 at;
            double radius, lean, along;
        };
        std::vector<Fleck> flecks;
        for (std::size_t k = 0; k < count; ++k) {
            const double area = rng.fraction() * whole, sized = rng.fraction(), lean = rng.between(0, kPi);
            const double keep = rng.fraction(), u = rng.between(-0.5, 0.5), v = rng.between(-0.5, 0.5);
            const auto found = std::lower_bound(until.begin(), until.end(), area) - until.begin();
            const int r = static_cast<int>(found) / chart.columns(),
                      c = static_cast<int>(found) % chart.columns();
            if (keep > insideOf(reach, on.skin, chart.x_mm(r) - on.shift_mm.x(), chart.share(c), 0.15))
                continue;
            // Small ones are many, large ones few.
            const double diameter = s.small_mm * std::pow(s.large_mm / s.small_mm, sized * sized);
            flecks.push_back({chart.placeAt(r + u, c + v), 0.5 * diameter, lean, 1 + (s.long_ - 1) * keep});
        }
        std::vector<std::optional<Outline>> drawn(flecks.size());
        forEachInParallel(flecks.size(), [&](std::size_t i) {
            const Fleck& f = flecks[i];
            Result<Outline> fleck = drawBlob(
                on.skin, f.at,
                [&](double a) { return ovalReach_mm(f.radius * f.along, f.radius, f.lean, a); },
                f.radius * f.along, Fineness::Glance, on.path);
            if (fleck) drawn[i] = std::move(*fleck);
        });
        std::vector<Outline> outlines;
        for (std::optional<Outline>& fleck : drawn)
            if (fleck) outlines.push_back(std::move(*fleck));
        if (outlines.empty())
            return Error{"fits_nowhere", NINE_WORDS("core", "No fleck fits where the field is to lie."),
                         on.path};
        return Drawn{{{std::move(outlines)}}, placesOfReach(on, reach)};
    }
};

}  // namespace
}  // namespace flecks

NINE_KIND(flecks, flecks::FlecksKind)

}  // namespace nine
