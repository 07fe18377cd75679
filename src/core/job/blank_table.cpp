#include "job/blank_table.h"

#include "base/number_text.h"
#include "blank/measure.h"
#include "blank/string_girth.h"
#include "geom/stroke_font.h"

namespace nine {
namespace {

constexpr double kMargin_mm = 14, kRow_mm = 4.6, kText_mm = 2.4, kTitle_mm = 4.5;

class Page {
  public:
    explicit Page(Drawing& drawing) : drawing_(drawing) {}
    void write(const std::string& words, double x, double y, double height = kText_mm, bool right = false) {
        const double shift = right ? strokeTextWidth_mm(words, height) : 0;
        for (Polyline2& stroke : strokeText(words, height)) {
            for (Vec2& p : stroke) p += Vec2(x - shift, y);
            text.lines.push_back({std::move(stroke), false});
        }
    }
    void rule(double x0, double x1, double y) { pen.lines.push_back({{Vec2(x0, y), Vec2(x1, y)}, false}); }
    void finish() { drawing_.layers = {std::move(pen), std::move(text)}; }
    Layer pen{"PEN", {}}, text{"TEXT", {}};

  private:
    Drawing& drawing_;
};

Polyline2 outlineAt(const Skin& skin, bool above, const Vec2& nose) {
    Polyline2 line = bodyOutline(skin, above);
    for (Vec2& p : line) p += nose - Vec2(skin.noseX_mm(), 0);
    return line;
}

}  // namespace

Drawing benchTable(const BlankChapter& blank, const Skin& skin, const Vec2& paper_mm) {
    // In one piece: a page, from top to foot.
    Drawing drawing;
    drawing.title = blank.name + ", measures";
    drawing.size_mm = paper_mm;
    Page page(drawing);
    const BodyMeasure m = measureBody(skin);
    const auto mm = [](double v) { return fixedText(v, 1); };
    double y = paper_mm.y() - kMargin_mm - kTitle_mm;
    page.write(blank.name, kMargin_mm, y, kTitle_mm);
    y -= 7;
    page.write(mm(m.length_mm) + " long, " + mm(m.height_mm) + " high, " + mm(m.width_mm) +
                   " wide (mm); skin " + mm(m.area_mm2 / 100) + " cm2, to paint " +
                   mm(paintedArea_mm2(skin, m.area_mm2, allZones(skin, blank)) / 100) + " cm2",
               kMargin_mm, y);
    if (m.length_mm + 2 * kMargin_mm <= paper_mm.x()) {  // true to size, or not at all
        const double top = y - 6 - 0.5 * m.height_mm;
        const double side = top - 0.15 * m.height_mm, above = side - 0.5 * m.height_mm - 8 - 0.5 * m.width_mm;
        page.pen.lines.push_back({outlineAt(skin, false, Vec2(kMargin_mm, side)), true});
        page.pen.lines.push_back({outlineAt(skin, true, Vec2(kMargin_mm, above)), true});
        page.write("true to size, printed at 100 %", kMargin_mm + m.length_mm + 4, side);
        y = above - 0.5 * m.width_mm - 6;
    }
    y -= kRow_mm;
    const double columns[] = {kMargin_mm + 22, kMargin_mm + 44, kMargin_mm + 64, kMargin_mm + 84,
                              kMargin_mm + 116};
    const char* heads[] = {"from nose", "height", "width", "girth", "string, off by"};
    for (int i = 0; i < 5; ++i) page.write(heads[i], columns[i], y, kText_mm, true);
    page.rule(kMargin_mm, columns[4], y - 1.4);
    for (const Station& s : blank.table.stations) {
        y -= kRow_mm;
        const std::string cells[] = {
            mm(s.x_mm), mm(s.top_mm + s.bottom_mm), mm(2 * s.halfWidth_mm), mm(girthOf_mm(s)),
            s.girth_mm > 0 ? mm(s.girth_mm) + ", " + fixedText(girthResidual_mm(s), 2) : ""};
        for (int i = 0; i < 5; ++i) page.write(cells[i], columns[i], y, kText_mm, true);
    }
    y -= 2 * kRow_mm;
    page.write("landmark", kMargin_mm, y);
    page.write("from nose", kMargin_mm + 64, y, kText_mm, true);
    page.write("over the side line", kMargin_mm + 98, y, kText_mm, true);
    page.write("from the line tie", kMargin_mm + 132, y, kText_mm, true);
    page.rule(kMargin_mm, kMargin_mm + 132, y - 1.4);
    const auto tie = blank.landmarks.find("line_tie");
    for (const auto& [name, landmark] : blank.landmarks) {
        if (y < kMargin_mm + kRow_mm) break;
        y -= kRow_mm;
        const Vec2 at = referencePoint(landmark, 0);
        page.write(spokenName(name).plain() +
                       (landmark.diameter_mm > 0 ? ", " + mm(landmark.diameter_mm) + " across" : "") +
                       (landmark.assumed ? " (assumed)" : ""),
                   kMargin_mm, y);
        page.write(mm(at.x()), kMargin_mm + 64, y, kText_mm, true);
        page.write(mm(at.y()), kMargin_mm + 98, y, kText_mm, true);
        if (tie != blank.landmarks.end() && name != "line_tie") {
            const Vec2& from = tie->second.points.front();
            const Result<Geodesic> way =
                shortestWay(skin, {Side::Left, from.x(), from.y()}, {Side::Left, at.x(), at.y()});
            if (way) page.write(mm(way->length_mm), kMargin_mm + 132, y, kText_mm, true);
        }
    }
    page.finish();
    return drawing;
}

std::string benchTableText(const BlankChapter& blank, const Skin&) {
    std::string text = "x_mm,height_mm,width_mm,girth_mm\n";
    for (const Station& s : blank.table.stations) {
        text += numberText(s.x_mm) + "," + fixedText(s.top_mm + s.bottom_mm, 3) + "," +
                fixedText(2 * s.halfWidth_mm, 3) + "," + fixedText(girthOf_mm(s), 3) + "\n";
    }
    return text;
}

}  // namespace nine
