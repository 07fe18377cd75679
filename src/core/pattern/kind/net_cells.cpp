// Scales as a net leaves them: shown, never cut. The paint goes through the openings; the threads stay.
#include <algorithm>
#include <cmath>

#include "pattern/cut_scales.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"

namespace nine {
namespace net_cells {
namespace {

using Type = Param::Type;

struct NetCells {
    double pitch_mm, thread, pull, soft, strength;
};

constexpr Bound<NetCells> kSizes[] = {
    {{.key = "pitch_mm",
      .name = NINE_WORDS("core", "From cell to cell"),
      .low = 0.6,
      .high = 12,
      .usual = 1.6,
      .decimals = 2},
     &NetCells::pitch_mm},
    {{.key = "thread",
      .name = NINE_WORDS("core", "Thread"),
      .type = Type::Share,
      .low = 0.05,
      .high = 0.6,
      .usual = 0.24,
      .decimals = 0},
     &NetCells::thread},
    {{.key = "pull",
      .name = NINE_WORDS("core", "Pulled along the body"),
      .type = Type::Share,
      .low = 0.5,
      .high = 2.5,
      .usual = 1.3,
      .decimals = 0},
     &NetCells::pull},
    {{.key = "soft",
      .name = NINE_WORDS("core", "Fades out over"),
      .type = Type::Share,
      .low = 0.01,
      .high = 0.5,
      .usual = 0.18,
      .decimals = 0},
     &NetCells::soft},
    {{.key = "strength",
      .name = NINE_WORDS("core", "Strength"),
      .type = Type::Share,
      .low = 0.05,
      .high = 1,
      .usual = 0.8,
      .decimals = 0},
     &NetCells::strength},
};
constexpr auto kParams = joined(paramsOf(kSizes), kReachParams);

class NetCellsKind : public FieldKind {
  public:
    std::string_view id() const override { return "net_cells"; }
    Pattern name() const override { return NINE_WORDS("core", "scales through a net"); }
    Pattern onMask() const override { return NINE_WORDS("core", "net"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "Cells {pitch_mm} from one to the next, {thread} % of it thread, {pull} % as long "
                       "along the body, at {strength} % strength. A net's work: shown here, never cut."),
            NINE_WORDS("core",
                       "From {from_length} to {to_length} % of the length and from {from_girth} to "
                       "{to_girth} % of the way from back to belly, fading out over {soft} %; seed {seed}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    bool isCut() const override { return false; }
    bool isSlow() const override { return false; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const NetCells s = sizesOf(kSizes, element.values);
        const FieldReach reach = reachOf(element.values);
        const HalfGirths girths(on.skin);
        const double widest = girths.widest_mm();
        const Vec2 shift = on.shift_mm;
        // Cells count round the widest girth and get smaller with it, as a net gathers.
        const double rows = 2 * std::max(2.0, std::round(widest / (0.6 * s.pitch_mm)));
        const auto skin = std::make_shared<const Skin>(on.skin);
        const SoftCover cover = [=](double x, double g) {
            const double share = girths.shareAt(x, g - shift.y());
            const double inside = insideOf(reach, *skin, x - shift.x(), share, s.soft);
            if (inside <= 0) return 0.0;
            // A diamond lattice, nose-side cells over the ones behind: distance to the nearest thread.
            const double v = share * rows / 2;
            const double u = girths.skinAlong_mm(x) / (s.pitch_mm * s.pull);
            const double a = std::abs(std::remainder(u + 0.5 * v, 1.0)),
                         b = std::abs(std::remainder(u - 0.5 * v, 1.0));
            const double near = std::min(a, b), edge = 0.5 * s.thread;
            const double t = std::clamp((near - edge + 0.06) / 0.12, 0.0, 1.0);
            return s.strength * inside * t * t * (3 - 2 * t);
        };
        return Drawn{{{.outlines = {}, .cover = cover}}, placesOfReach(on, reach)};
    }
};

}  // namespace
}  // namespace net_cells

NINE_KIND(netCells, net_cells::NetCellsKind)

Element netScalesElement(double along_mm, double across_mm, Fraction thread) {
    Element element;
    element.id = "net-scales";
    element.kind = std::string(netCellsKind().id());
    element.values = usualValues(netCellsKind());
    const auto set = [&](const char* key, double value) {
        const Param& param = *findParam(netCellsKind(), key);
        element.values.set(key, std::clamp(value, param.low, param.high));
    };
    // Rows of these cells stand 0.6 pitches apart, so a cell is 1.2 pitches high.
    set("pitch_mm", across_mm / 1.2);
    set("pull", along_mm / (across_mm / 1.2));
    set("thread", thread);
    set("to_girth", 0.9);
    return element;
}

}  // namespace nine
