// A line of changing width: the lateral line, the belly line, a vein, a streak.
#include <algorithm>
#include <cmath>

#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"
#include "pattern/stroke.h"

namespace nine {
namespace line {
namespace {

using Type = Param::Type;

struct Line {
    double length_mm, rise_mm, bow_mm;
    double start_mm, middle_mm, end_mm;  ///< widths
    std::string startEnd, endEnd, runs;
};

constexpr Choice kRuns[] = {{"free", NINE_WORDS("core", "along the side")},
                            {"back", NINE_WORDS("core", "on the back line")},
                            {"belly", NINE_WORDS("core", "on the belly line")}};

constexpr Bound<Line> kSizes[] = {
    {{.key = "length_mm",
      .name = NINE_WORDS("core", "Length"),
      .low = 0.5,
      .high = 400,
      .usual = 25,
      .refit = Refit::WithLength,
      .lessen = Lessen::Smaller},
     &Line::length_mm},
    {{.key = "rise_mm",
      .name = NINE_WORDS("core", "Rise"),
      .low = -100,
      .high = 100,
      .usual = 0,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Lower},
     &Line::rise_mm},
    {{.key = "bow_mm",
      .name = NINE_WORDS("core", "Arch"),
      .low = -100,
      .high = 100,
      .usual = 0,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Lower},
     &Line::bow_mm},
    {{.key = "start_mm",
      .name = NINE_WORDS("core", "Width at the head"),
      .low = kSmallestSize_mm,
      .high = 50,
      .usual = 0.8,
      .decimals = 2},
     &Line::start_mm},
    {{.key = "middle_mm",
      .name = NINE_WORDS("core", "Width in the middle"),
      .low = kSmallestSize_mm,
      .high = 50,
      .usual = 0.8,
      .decimals = 2,
      .usualFrom = "start_mm"},
     &Line::middle_mm},
    {{.key = "end_mm",
      .name = NINE_WORDS("core", "Width at the tail"),
      .low = kSmallestSize_mm,
      .high = 50,
      .usual = 0.8,
      .decimals = 2,
      .usualFrom = "start_mm"},
     &Line::end_mm},
    {{.key = "head_end",
      .name = NINE_WORDS("core", "End at the head"),
      .type = Type::Choice,
      .usualText = "round",
      .choices = kStrokeEnds},
     &Line::startEnd},
    {{.key = "tail_end",
      .name = NINE_WORDS("core", "End at the tail"),
      .type = Type::Choice,
      .usualText = "pointed",
      .choices = kStrokeEnds},
     &Line::endEnd},
    {{.key = "runs",
      .name = NINE_WORDS("core", "Runs"),
      .type = Type::Choice,
      .usualText = "free",
      .choices = kRuns,
      .spare = true},
     &Line::runs},
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    {"middle", NINE_WORDS("core", "middle of the line"), {}, {{{"bow_mm", 0, 1}}}},
    {"first",
     NINE_WORDS("core", "head end of the line"),
     {},
     {{{"dx_mm", 1, 0}, {"dg_mm", 0, 1}, {"length_mm", -1, 0}}}},
    {"last",
     NINE_WORDS("core", "tail end of the line"),
     NINE_WORDS("core", "{length_mm} long"),
     {{{"length_mm", 1, 0}, {"rise_mm", 0, 1}}}},
};

const Curve kCurves[] = {
    {.name = NINE_WORDS("core", "How wide the line is"),
     .from = NINE_WORDS("core", "head"),
     .to = NINE_WORDS("core", "tail"),
     .first = "start_mm",
     .last = "end_mm",
     .middle = "middle_mm",
     .at =
         [](const Values& v, double t) {
             return 2 * threeWidths(v.number("start_mm"), v.number("middle_mm"), v.number("end_mm"))(t);
         },
     .setMiddle = [](Values& v, double mm) { v.set("middle_mm", mm); }},
};

class LineKind : public Kind {
  public:
    std::string_view id() const override { return "line"; }
    Family family() const override { return Family::Lines; }
    Pattern name() const override { return NINE_WORDS("core", "line"); }
    Pattern onMask() const override { return NINE_WORDS("core", "line"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "A line {length_mm} long, rising {rise_mm} and arched {bow_mm}, {start_mm} wide at "
                       "the head, {middle_mm} in the middle and {end_mm} at the tail."),
            NINE_WORDS("core", "Its ends are {head_end} and {tail_end}; it runs {runs}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    std::span<const Curve> curves() const override { return kCurves; }
    bool isCentral(const Values& values) const override { return values.text("runs") != "free"; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Line sizes = sizesOf(kSizes, element.values);
        const double step = artSteps(on.fineness).edge_mm;
        Result<Spine> spine =
            sizes.runs == "free"
                ? spineAlong(on.skin, on.origin, sizes.length_mm, sizes.rise_mm, sizes.bow_mm, step, on.path)
                : spineOnMiddle(on.skin, on.origin.x(), sizes.length_mm, sizes.runs == "back", step, on.path);
        if (!spine) return spine.error();
        Result<std::vector<Outline>> line =
            drawStroke(on.skin, *spine,
                       {threeWidths(sizes.start_mm, sizes.middle_mm, sizes.end_mm),
                        strokeEndOf(sizes.startEnd),
                        strokeEndOf(sizes.endEnd),
                        {}},
                       on.fineness, on.path);
        if (!line) return line.error();
        return Drawn{{{std::move(*line)}},
                     {{"first", spine->at.front()},
                      {"middle", spine->placeAt(0.5 * spine->length_mm())},
                      {"last", spine->at.back()}}};
    }
};

}  // namespace
}  // namespace line

NINE_KIND(line, line::LineKind)

}  // namespace nine
