// A chain of open links along the side. Each link is two half rings, so that no sheet falls out of it.
#include <algorithm>
#include <cmath>

#include "blank/walk.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"
#include "pattern/stroke.h"

namespace nine {
namespace chain {
namespace {

using Type = Param::Type;

struct Chain {
    double count, spacing_mm, long_mm, high_mm, line_mm, bridge_mm, bow_mm;
};

constexpr Bound<Chain> kSizes[] = {
    {{.key = "count",
      .name = NINE_WORDS("core", "Links"),
      .type = Type::Count,
      .low = 1,
      .high = kMaxCount,
      .usual = 5,
      .decimals = 0,
      .lessen = Lessen::Fewer},
     &Chain::count},
    {{.key = "spacing_mm",
      .name = NINE_WORDS("core", "Spacing"),
      .low = kSmallestSize_mm,
      .high = kLargestSize_mm,
      .usual = 6.2,
      .refit = Refit::WithLength},
     &Chain::spacing_mm},
    {{.key = "long_mm",
      .name = NINE_WORDS("core", "Length of a link"),
      .low = 1,
      .high = 60,
      .usual = 5.2,
      .refit = Refit::WithLength,
      .lessen = Lessen::Smaller},
     &Chain::long_mm},
    {{.key = "high_mm",
      .name = NINE_WORDS("core", "Height of a link"),
      .low = 1,
      .high = 60,
      .usual = 3.6,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Smaller},
     &Chain::high_mm},
    {{.key = "line_mm",
      .name = NINE_WORDS("core", "Width of its line"),
      .low = 0.2,
      .high = 10,
      .usual = 0.8,
      .decimals = 2},
     &Chain::line_mm},
    {{.key = "bridge_mm",
      .name = NINE_WORDS("core", "Bridges"),
      .low = 0.3,
      .high = 5,
      .usual = 0.7,
      .decimals = 2},
     &Chain::bridge_mm},
    {{.key = "bow_mm",
      .name = NINE_WORDS("core", "Bow"),
      .low = -50,
      .high = 50,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Lower},
     &Chain::bow_mm},
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    {"middle", NINE_WORDS("core", "middle of the chain"), {}, {{{"bow_mm", 0, 1}}}},
    rowStart(NINE_WORDS("core", "first link")),
    rowEnd(NINE_WORDS("core", "last link")),
};

class ChainKind : public Kind {
  public:
    std::string_view id() const override { return "chain"; }
    Family family() const override { return Family::Rows; }
    Pattern name() const override { return NINE_WORDS("core", "chain of links"); }
    Pattern onMask() const override { return NINE_WORDS("core", "chain"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "{count} links, {spacing_mm} apart, each {long_mm} long and {high_mm} high, of a "
                       "line {line_mm} wide with bridges of {bridge_mm}; the middle lifted by {bow_mm}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    bool openingsMerge(const Values& values) const override {
        const Chain c = sizesOf(kSizes, values);
        return c.count > 1 && c.spacing_mm <= c.long_mm;
    }
    double rowLength_mm(const Values& values) const override {
        const Chain c = sizesOf(kSizes, values);
        return (c.count - 1) * c.spacing_mm;
    }
    Status check(const Values& values, const std::string& path) const override {
        const Chain c = sizesOf(kSizes, values);
        if (2 * c.line_mm + 0.2 <= std::min(c.long_mm, c.high_mm)) return Done{};
        return Error{
            "out_of_range",
            NINE_WORDS("core", "The line of the links leaves nothing open inside; make it narrower."),
            path + ".line_mm"};
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Chain c = sizesOf(kSizes, element.values);
        const auto count = static_cast<std::size_t>(c.count);
        const double length = (c.count - 1) * c.spacing_mm, step = artSteps(on.fineness).edge_mm;
        std::vector<double> distances;
        for (std::size_t i = 0; i < count; ++i) distances.push_back(static_cast<double>(i) * c.spacing_mm);
        const auto rise = [&](double s) {
            const double t = length > 0 ? s / length : 0;
            return c.bow_mm * 4 * t * (1 - t);
        };
        const Result<std::vector<Vec2>> centres =
            walkLine(on.skin, on.origin.x(), on.origin.y(), rise, distances, on.path);
        if (!centres) return centres.error();
        const double along = 0.5 * (c.long_mm - c.line_mm), across = 0.5 * (c.high_mm - c.line_mm);
        // The half rings stop short of the two ends of the link by half a bridge.
        const double open = 0.5 * c.bridge_mm / across;
        const Result<std::vector<Outline>> links = drawAll(2 * count, [&](std::size_t k) -> Result<Outline> {
            const double from = (k % 2 == 0 ? 0 : kPi) + open;
            const int pieces = std::max(8, static_cast<int>(std::ceil(kPi * std::max(along, across) / step)));
            std::vector<Vec2> places;
            for (int i = 0; i <= pieces; ++i) {
                const double a = from + (kPi - 2 * open) * i / pieces;
                const Result<Vec2> at = placeFrom(on.skin, (*centres)[k / 2],
                                                  Vec2(along * std::cos(a), across * std::sin(a)), on.path);
                if (!at) return at.error();
                places.push_back(*at);
            }
            const Result<Spine> spine = spineOf(on.skin, places, step, on.path);
            if (!spine) return spine.error();
            Result<std::vector<Outline>> half =
                drawStroke(on.skin, *spine, {evenWidth(c.line_mm), StrokeEnd::Square, StrokeEnd::Square, {}},
                           on.fineness, on.path);
            if (!half) return half.error();
            return half->front();
        });
        if (!links) return links.error();
        return Drawn{{{*links}}, placesOfRow(*centres)};
    }
};

}  // namespace
}  // namespace chain

NINE_KIND(chain, chain::ChainKind)

}  // namespace nine
