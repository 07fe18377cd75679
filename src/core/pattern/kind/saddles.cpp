// Saddles: blotches that lie over the back, each one piece for both sides.
#include <algorithm>
#include <cmath>

#include "blank/walk.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"
#include "pattern/natural.h"

namespace nine {
namespace saddles {
namespace {

using Type = Param::Type;

struct Saddles {
    double count, spacing_mm, along_mm, down_mm, last;
};

constexpr Bound<Saddles> kSizes[] = {
    {{.key = "count",
      .name = NINE_WORDS("core", "Count"),
      .type = Type::Count,
      .low = 1,
      .high = kMaxCount,
      .usual = 5,
      .decimals = 0,
      .lessen = Lessen::Fewer},
     &Saddles::count},
    {{.key = "spacing_mm",
      .name = NINE_WORDS("core", "Spacing"),
      .low = kSmallestSize_mm,
      .high = kLargestSize_mm,
      .usual = 8,
      .refit = Refit::WithLength},
     &Saddles::spacing_mm},
    {{.key = "along_mm",
      .name = NINE_WORDS("core", "Length along the back"),
      .low = 0.4,
      .high = 60,
      .usual = 4,
      .refit = Refit::WithLength,
      .lessen = Lessen::Smaller},
     &Saddles::along_mm},
    {{.key = "down_mm",
      .name = NINE_WORDS("core", "Reach down each side"),
      .low = 0.3,
      .high = 60,
      .usual = 6,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Smaller},
     &Saddles::down_mm},
    {{.key = "last",
      .name = NINE_WORDS("core", "Size of the last"),
      .type = Type::Share,
      .low = 0.1,
      .high = 3,
      .usual = 0.7,
      .decimals = 0},
     &Saddles::last},
};
constexpr auto kParams = joined(paramsOf(kSizes), kNaturalParams);

const Handle kHandles[] = {
    {"first",
     NINE_WORDS("core", "first saddle"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn&) { moveRowStart(e, Vec2(by.x(), 0)); },
     {"spacing_mm", "dx_mm"}},
    {"last",
     NINE_WORDS("core", "last saddle"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn&) { spreadRow(e, by.x()); },
     {"spacing_mm"}},
    {"lower", NINE_WORDS("core", "lower end of the saddles"), {}, {{{"down_mm", 0, -1}}}},
};

class SaddlesKind : public Kind {
  public:
    std::string_view id() const override { return "saddles"; }
    Family family() const override { return Family::Rows; }
    Pattern name() const override { return NINE_WORDS("core", "saddles over the back"); }
    Pattern onMask() const override { return NINE_WORDS("core", "saddles"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core",
                           "{count} saddles over the back, {spacing_mm} apart, {along_mm} long and reaching "
                           "{down_mm} down each side; the last {last} % as large as the first.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    bool isCentral(const Values&) const override { return true; }
    bool openingsMerge(const Values& values) const override {
        const Saddles s = sizesOf(kSizes, values);
        return s.count > 1 && s.spacing_mm <= s.along_mm;
    }
    double rowLength_mm(const Values& values) const override {
        const Saddles s = sizesOf(kSizes, values);
        return (s.count - 1) * s.spacing_mm;
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Saddles s = sizesOf(kSizes, element.values);
        const Natural natural = naturalOf(element.values);
        const auto count = static_cast<std::size_t>(s.count);
        const std::uint64_t seed = on.seedOf(natural.seed);
        const std::vector<Off> offs = offsOf(natural, count, seed);
        std::vector<Vec2> centres;
        double x = on.origin.x();
        for (std::size_t i = 0; i < count; ++i) {
            const double back = on.skin.arcAt(x).backArc_mm();
            if (i > 0) {
                const Result<double> next = walkAlong(on.skin, x, 0.999 * back, s.spacing_mm, on.path);
                if (!next) return next.error();
                x = *next;
            }
            const double g = on.skin.arcAt(x).backArc_mm();
            const Result<double> off = walkAlong(on.skin, x, 0.999 * g, offs[i].along_mm, on.path);
            if (!off) return off.error();
            centres.emplace_back(*off, on.skin.arcAt(*off).backArc_mm() + offs[i].across_mm);
        }
        Result<std::vector<Outline>> drawn = drawAll(count, [&](std::size_t i) {
            const double t = count > 1 ? static_cast<double>(i) / static_cast<double>(count - 1) : 0;
            const double size = (1 + (s.last - 1) * t) * offs[i].size;
            const Wobble wobble(natural.rough, scrambled(seed + i));
            const double along = 0.5 * s.along_mm * size, down = s.down_mm * size;
            return drawBlob(
                on.skin, centres[i], [&](double a) { return ovalReach_mm(along, down, 0, a) * wobble.at(a); },
                std::max(along, down) * (1 + natural.rough), on.fineness, on.path);
        });
        if (!drawn) return drawn.error();
        Drawn result{{{std::move(*drawn)}}, placesOfRow(centres)};
        const Vec2& first = centres.front();
        std::erase_if(result.places, [](const auto& place) { return place.first == "middle"; });
        result.places.emplace_back("lower", Vec2(first.x(), first.y() - s.down_mm));
        return result;
    }
};

}  // namespace
}  // namespace saddles

NINE_KIND(saddles, saddles::SaddlesKind)

}  // namespace nine
