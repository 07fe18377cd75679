// Mottling: smooth noise above a threshold, from fine specks to large marbled blotches.
//
// Coarse mottling mixes the labyrinth's even spacing with noise: noise alone clumps. Fine mottling is noise.
#include <cmath>

#include "base/rng.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"

namespace nine {
namespace mottle {
namespace {

constexpr double kLeast_mm = 0.62;
constexpr int kRounds = 8;

struct Mottle {
    double size_mm;  ///< from blotch to blotch
    double cover, even, pull, ragged, soft, bridge_mm;
    std::string across;
};

using Type = Param::Type;
constexpr Bound<Mottle> kSizes[] = {
    {{.key = "size_mm",
      .name = NINE_WORDS("core", "From blotch to blotch"),
      .low = 1.4,
      .high = 30,
      .usual = 3.7,
      .decimals = 1,
      .refit = Refit::WithGirthRoot},
     &Mottle::size_mm},
    {{.key = "cover",
      .name = NINE_WORDS("core", "Share of the skin"),
      .type = Type::Share,
      .low = 0.05,
      .high = 0.8,
      .usual = 0.4,
      .decimals = 0},
     &Mottle::cover},
    {{.key = "even",
      .name = NINE_WORDS("core", "Evenly apart"),
      .type = Type::Share,
      .low = 0,
      .high = 1,
      .usual = 0.55,
      .decimals = 0},
     &Mottle::even},
    {{.key = "pull",
      .name = NINE_WORDS("core", "Pulled along the body"),
      .type = Type::Share,
      .low = 0.5,
      .high = 2.5,
      .usual = 1,
      .decimals = 0},
     &Mottle::pull},
    {{.key = "ragged",
      .name = NINE_WORDS("core", "Ragged"),
      .type = Type::Share,
      .low = 0,
      .high = 1,
      .usual = 0.4,
      .decimals = 0},
     &Mottle::ragged},
    {kSoftParam, &Mottle::soft},
    {kBridgeParam, &Mottle::bridge_mm},
    {kAcrossParam, &Mottle::across},
};
constexpr auto kParams = joined(paramsOf(kSizes), kReachParams);

class MottleKind : public FieldKind {
  public:
    std::string_view id() const override { return "mottle"; }
    Pattern name() const override { return NINE_WORDS("core", "mottling"); }
    Pattern onMask() const override { return NINE_WORDS("core", "mottling"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "Blotches {size_mm} from one to the next, over {cover} % of the skin, {even} % even "
                       "and {ragged} % ragged, {pull} % as long along the body."),
            NINE_WORDS("core",
                       "From {from_length} to {to_length} % of the length and from {from_girth} to "
                       "{to_girth} % of the way from back to belly, thinning out over {soft} %; bridges of "
                       "{bridge_mm}; they stand {across}; seed {seed}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        // In one piece: noise, labyrinth, their mixture, and what becomes of it.
        const Mottle sizes = sizesOf(kSizes, element.values);
        const FieldReach reach = reachOf(element.values);
        const std::uint64_t seed = on.seedOf(element.values.number(kSeedKey));
        const bool glance = on.fineness == Fineness::Glance;
        const Chart chart(on.skin,
                          wishOf(on, reach, std::clamp(sizes.size_mm / 10, glance ? 0.3 : 0.16, 0.6)));
        const SidedNoise start(sizes.size_mm / 1.9, seed),
            rough(0.55 * sizes.size_mm, scrambled(seed + 3), 3);
        const FieldCells cells = cellsOf(on, chart, reach, sizes.soft);
        Field u(chart.size()), noise(chart.size());
        for (std::size_t i = 0; i < u.size(); ++i) {
            u[i] = static_cast<float>(0.8 * start.at(chart.point(i), cells.offBack_mm[i]));
            noise[i] = static_cast<float>(rough.at(chart.point(i), cells.offBack_mm[i]));
        }
        const Field smooth = u;
        if (sizes.even > 0) {
            Result<Field> grown =
                grownLabyrinth(chart, std::move(u), {sizes.size_mm, sizes.cover, sizes.pull, kRounds},
                               cells.inside, cells.counts, on.task);
            if (!grown) return grown.error();
            u = std::move(*grown);
        }
        for (std::size_t i = 0; i < u.size(); ++i) {
            const double mixed =
                sizes.even * u[i] + (1 - sizes.even) * 3 * smooth[i] + sizes.ragged * 1.4 * noise[i];
            u[i] = static_cast<float>(mixed - 2.4 * (1 - cells.inside[i]));
        }
        const Field clean =
            cleanedToCover(chart, u, sizes.cover, cells.counts, 0.28, 0.5 * kLeast_mm - 0.02, 0.8);
        Result<Drawn> drawn = drawnField(on, chart, clean, 0.75, sizes.bridge_mm);
        if (!drawn) return drawn.error();
        drawn->places = placesOfReach(on, reach);
        return drawn;
    }
};

}  // namespace
}  // namespace mottle

NINE_KIND(mottle, mottle::MottleKind)

}  // namespace nine
