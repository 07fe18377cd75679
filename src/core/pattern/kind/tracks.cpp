// Worm tracks: a labyrinth of lines of even width, as on the back of a char.
//
// What two diffusions of different reach, one helping and one hindering, leave when they are repeated with a
// limit: a stripe pattern of one wavelength (Swift, Hohenberg type; cf. Turing 1952, Young 1984). The
// wavelength is the distance between tracks; a bias takes it over to short worms and spots.
#include <cmath>

#include "base/rng.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"

namespace nine {
namespace tracks {
namespace {

constexpr double kSmooth = 0.057;   // of the wavelength: steps of the last round are rounded off
constexpr double kGlanceCells = 5;  // another labyrinth, but one that looks the same
constexpr int kGlanceRounds = 7;
constexpr int kRounds = 12;         // twice as many change little
constexpr double kCells = 8;        // a wavelength
constexpr double kLeast_mm = 0.62;  // thinner lines tear out of the sheet or fill with paint

struct Tracks {
    double width_mm;  ///< from one track to the next
    double cover;     ///< share of the skin
    double pull;      ///< longer along the body
    double bridge_mm;
    double soft;
    std::string across;
};

using Type = Param::Type;
constexpr Bound<Tracks> kSizes[] = {
    {{.key = "pitch_mm",
      .name = NINE_WORDS("core", "From track to track"),
      .low = 1.2,
      .high = 20,
      .usual = 2.1,
      .decimals = 2,
      .refit = Refit::WithGirthRoot},
     &Tracks::width_mm},
    {{.key = "cover",
      .name = NINE_WORDS("core", "Share of the skin"),
      .type = Type::Share,
      .low = 0.12,
      .high = 0.65,
      .usual = 0.42,
      .decimals = 0},
     &Tracks::cover},
    {{.key = "pull",
      .name = NINE_WORDS("core", "Pulled along the body"),
      .type = Type::Share,
      .low = 0.5,
      .high = 2.5,
      .usual = 1.3,
      .decimals = 0},
     &Tracks::pull},
    {kBridgeParam, &Tracks::bridge_mm},
    {kSoftParam, &Tracks::soft},
    {kAcrossParam, &Tracks::across},
};
constexpr auto kParams = joined(paramsOf(kSizes), kReachParams);

class TracksKind : public FieldKind {
  public:
    std::string_view id() const override { return "tracks"; }
    Pattern name() const override { return NINE_WORDS("core", "worm tracks"); }
    Pattern onMask() const override { return NINE_WORDS("core", "tracks"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core",
                           "Tracks {pitch_mm} from one to the next, over {cover} % of the skin, {pull} % as "
                           "long along the body, from {from_length} to {to_length} % of its length and from "
                           "{from_girth} to {to_girth} % of the way from back to belly."),
                NINE_WORDS("core",
                           "They thin out over {soft} %; bridges of {bridge_mm} hold what they enclose; they "
                           "stand {across}; seed {seed}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        // In one piece: the start, the rounds, and what becomes of them.
        const Tracks sizes = sizesOf(kSizes, element.values);
        const FieldReach reach = reachOf(element.values);
        const std::uint64_t seed = on.seedOf(element.values.number(kSeedKey));
        const double lambda = sizes.width_mm;
        const bool glance = on.fineness == Fineness::Glance;
        const Chart chart(on.skin, wishOf(on, reach, lambda / (glance ? kGlanceCells : kCells)));
        const SidedNoise start(lambda / 1.9, seed);
        const FieldCells cells = cellsOf(on, chart, reach, sizes.soft);
        Field u(chart.size());
        for (std::size_t i = 0; i < u.size(); ++i)
            u[i] = static_cast<float>(0.8 * start.at(chart.point(i), cells.offBack_mm[i]));
        Result<Field> grown = grownLabyrinth(
            chart, std::move(u), {lambda, sizes.cover, sizes.pull, glance ? kGlanceRounds : kRounds},
            cells.inside, cells.counts, on.task);
        if (!grown) return grown.error();
        chart.diffuse(*grown, kSmooth * lambda, 2);
        const Field clean =
            cleanedToCover(chart, *grown, sizes.cover, cells.counts, 0.28, 0.5 * kLeast_mm - 0.04, 0.9);
        Result<Drawn> drawn = drawnField(on, chart, clean, 0.9, sizes.bridge_mm);
        if (!drawn) return drawn.error();
        drawn->places = placesOfReach(on, reach);
        return drawn;
    }
};

}  // namespace
}  // namespace tracks

NINE_KIND(tracks, tracks::TracksKind)

}  // namespace nine
