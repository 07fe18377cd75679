#include "job/tracing_page.h"

#include "base/units.h"
#include "geom/stroke_font.h"
#include "image/tracing_sheet.h"

namespace nine {
namespace {

using namespace tracing_sheet;

constexpr double kBoxGrey = 0.72;  // seen by the painter, too pale to be taken for pencil
constexpr double kText_mm = 2.3;

Polyline2 ring(const Vec2& middle, double radius, bool backwards) {
    constexpr int kSides = 96;
    Polyline2 out;
    for (int i = 0; i < kSides; ++i) {
        const double v = (backwards ? -2 : 2) * kPi * i / kSides;
        out.push_back(middle + radius * Vec2(std::cos(v), std::sin(v)));
    }
    return out;
}

}  // namespace

Drawing tracingPage(const Vec2& paper_mm) {
    Drawing page;
    page.title = "Tracing sheet";
    page.size_mm = paper_mm;
    const Vec2 origin = 0.5 * (paper_mm - kFrame_mm);
    Layer pen{"PEN", {}}, text{"TEXT", {}};
    const auto write = [&](const char* words, const Vec2& at, double height = kText_mm) {
        for (Polyline2& stroke : strokeText(words, height)) {
            for (Vec2& p : stroke) p += origin + at;
            text.lines.push_back({std::move(stroke), false});
        }
    };
    for (const Vec2& mark : kMarks_mm) {
        // One line that runs out along the outer circle and back along the inner: filled, it is a ring.
        Polyline2 band = ring(origin + mark, kRingOuter_mm, false);
        band.push_back(band.front());
        const Polyline2 inner = ring(origin + mark, kRingInner_mm, true);
        band.insert(band.end(), inner.begin(), inner.end());
        band.push_back(inner.front());
        text.lines.push_back({std::move(band), true, true, 0});
        text.lines.push_back({ring(origin + mark, kDot_mm, false), true, true, 0});
    }
    const struct {
        const Box2& box;
        const char* words;
    } boxes[] = {
        {kSide, "Side: lay the body down, nose to the left, and draw round it, without bill and rings."},
        {kTop,
         "From above: stand the body on its belly, nose to the left, and draw round it. Or leave it empty "
         "and use a string."},
        {kRubbing,
         "Rubbing: thin paper over the left side, nose at the left edge; rub with a soft pencil, then copy "
         "the lines here."}};
    for (const auto& [box, words] : boxes) {
        const Vec2 low = origin + box.low, high = origin + box.high;
        pen.lines.push_back(
            {{low, Vec2(high.x(), low.y()), high, Vec2(low.x(), high.y())}, true, false, kBoxGrey});
        const double middle = 0.5 * (low.y() + high.y());
        for (const double x : {low.x() - 2.5, high.x()})
            pen.lines.push_back({{Vec2(x, middle), Vec2(x + 2.5, middle)}, false, false, kBoxGrey});
        if (&box != &kSide) write(words, {box.low.x(), box.high.y() + 1.6});
    }
    write(boxes[0].words, {95, kSide.high.y() + 3.4}, 2.0);
    // The line to measure.
    const Vec2 from = origin + kRulerFrom;
    text.lines.push_back({{from, origin + kRulerTo}, false});
    for (int k = 0; k <= 10; ++k) {
        const Vec2 foot = from + Vec2(10 * k, 0);
        text.lines.push_back({{foot, foot + Vec2(0, k % 5 == 0 ? 3 : 2)}, false});
    }
    write("100 mm: measure it. If it is not, tell the program what it measures.", {20, -1.4}, 2.0);
    write("A pencil leaves its line outside the body: note how you held it, or its length by ruler ______ mm",
          {20, 6.2}, 2.0);
    write("Keep all rings in the picture. Nine Leaves tracing sheet", {158, 2.2}, 2.0);
    page.layers = {std::move(pen), std::move(text)};
    return page;
}

}  // namespace nine
