#include "image/line_art.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "geom/polygon_set.h"
#include "image/enclosure.h"

namespace nine {
namespace {

constexpr double kShortestLine_mm = 3;  // specks
constexpr double kSmallestFilled_mm2 = 80;
constexpr float kBare_px = 1.5F;  // farther from all lines there is none

/// Ink across the outline at one of its points, in pixels from the point, outwards positive. NaN where there
/// is no end within reach.
struct InkAcross {
    Vec2 outward = Vec2::Zero();
    double inner = 0, outer = 0;  ///< where the ink ends
    double middle = 0;            ///< of the ink near the point
    bool inked = false;
};
InkAcross inkAcross(const Drawn& drawn, const Vec2& at, const Vec2& outward, double reach) {
    constexpr double kStep = 0.25, kFoot = 0.35, kEdge = 0.6;
    InkAcross across{outward, std::nan(""), std::nan("")};
    const auto half = static_cast<int>(std::round(2 * reach / kStep)), count = 2 * half + 1;
    const auto place = [&](int k) { return (k - half) * kStep; };
    std::vector<double> ink;
    for (int k = 0; k < count; ++k) ink.push_back(drawn.ink.sample(at + place(k) * outward));
    const auto value = [&](int k) { return ink[static_cast<std::size_t>(k)]; };
    const double most = *std::max_element(ink.begin() + half / 2, ink.end() - half / 2);
    // A pale stroke ends where its own ink does.
    const double level = std::min(drawn.level, std::max(drawn.faint, kEdge * most));
    // Of several strokes the nearest one: an eye close to the line is not part of it.
    int near = -1;
    for (int d = 0; d <= half / 2 && near < 0; ++d)
        for (const int k : {half - d, half + d})
            if (near < 0 && value(k) > level) near = k;
    if (near < 0) return across;
    int first = near, last = near;
    while (first > 0 && value(first - 1) > kFoot * level) --first;
    while (last + 1 < count && value(last + 1) > kFoot * level) ++last;
    double sum = 0, moment = 0;
    for (int k = std::max(first, half / 2); k <= std::min(last, count - 1 - half / 2); ++k) {
        sum += value(k) - kFoot * level;
        moment += (value(k) - kFoot * level) * place(k);
    }
    across.inked = sum > 0;
    across.middle = moment / std::max(1e-9, sum);
    // Each end by the shoulder next to it: a pale stroke beside a dark one ends at its own.
    const auto edge = [&](int end, int inwards) {
        if (end == 0 || end == count - 1) return std::nan("");
        int k = end;
        while (k != near && k + inwards >= first && k + inwards <= last && value(k + inwards) >= value(k))
            k += inwards;
        const double wanted = std::min(drawn.level, std::max(drawn.faint, kEdge * value(k)));
        while (k != end - inwards && value(k) > wanted) k -= inwards;
        const double below = value(k), above = value(k + inwards);
        return place(k) + inwards * kStep * (wanted - below) / std::max(1e-9, above - below);
    };
    across.inner = edge(first, 1);
    across.outer = edge(last, -1);
    return across;
}

/// The points of a closed line in runs of `is` longer than ten widths of a pencil line.
template <typename Is>
std::vector<bool> longRuns(std::size_t n, const Polyline2& line, const Is& is) {
    constexpr double kLong_px = 40;
    std::vector<bool> runs(n, false);
    const double step = (line[1] - line[0]).norm();
    std::size_t start = 0;
    while (start < n && is(start)) ++start;
    for (std::size_t i = start; i < start + n;) {
        std::size_t end = i;
        while (end < start + n && is(end % n)) ++end;
        if (static_cast<double>(end - i) * step > kLong_px)
            for (std::size_t k = i; k < end; ++k) runs[k % n] = true;
        i = std::max(end, i + 1);
    }
    return runs;
}

/// Moves each point to the middle of the ink across the line, where there is ink. Where the ink is wider than
/// the line, something joins it: from outside, and the point lies half a line from the inner edge; or from
/// within - at a pointed end the lines of both sides run into each other, and their middle would cut the
/// point off - and it lies half a line from the outer edge. `pointsOnly` moves only what lies at pointed
/// ends.
void centreOnInk(Polyline2& line, const Drawn& drawn, const PixelSet& outside, double reach,
                 bool pointsOnly = false) {
    // In one piece: one search across the line at each of its points.
    constexpr double kJoined = 1.4;  // widths of the line
    constexpr double kTwice = 2.6;   // and up to here
    constexpr double kTurn = 0.7;    // cosine
    const std::size_t n = line.size();
    const double side = polygonArea(line) > 0 ? 1 : -1;
    std::vector<InkAcross> all(n);
    std::vector<double> widths;
    for (std::size_t i = 0; i < n; ++i) {
        const Vec2 along = (line[(i + 3) % n] - line[(i + n - 3) % n]).normalized();
        all[i] = inkAcross(drawn, line[i], side * Vec2(along.y(), -along.x()), reach);
        if (all[i].inked && all[i].outer > all[i].inner) widths.push_back(all[i].outer - all[i].inner);
    }
    if (widths.empty()) return;
    std::nth_element(widths.begin(), widths.begin() + static_cast<long>(widths.size() / 2), widths.end());
    const double width = widths[widths.size() / 2];
    const auto joined = [&](std::size_t i) {
        return all[i].inked && !(all[i].outer - all[i].inner < kJoined * width);
    };
    // At a point the line turns back on itself; where another only crosses it, it goes straight on.
    const auto apart =
        std::min(n / 4, static_cast<std::size_t>(std::ceil(1.5 * width / (line[1] - line[0]).norm())));
    const auto turns = [&](std::size_t i) {
        const Vec2 in = line[i] - line[(i + n - apart) % n], out = line[(i + apart) % n] - line[i];
        return in.dot(out) < kTurn * in.norm() * out.norm();
    };
    // Towards a fine end the lines of both sides run into one: paper outside lies on both sides of the ink.
    const auto fine = [&](std::size_t i) {
        if (!all[i].inked || std::isnan(all[i].inner)) return false;
        const Vec2 within = line[i] + (all[i].inner - 2) * all[i].outward;
        const int x = static_cast<int>(within.x()), y = static_cast<int>(within.y());
        return outside.inside(x, y) && outside.at(x, y);
    };
    // Two strokes side by side for a while are one line gone over twice; what joins it does so briefly.
    const std::vector<bool> twice = longRuns(n, line, [&](std::size_t i) {
        return joined(i) && all[i].outer - all[i].inner < kTwice * width && !fine(i);
    });
    Polyline2 moved = line;
    for (std::size_t i = 0; i < n; ++i) {
        const InkAcross& a = all[i];
        // Of a gap, ink beside it says nothing.
        if (!a.inked || drawn.away.sample(line[i]) > kBare_px || (pointsOnly && !(joined(i) && turns(i))))
            continue;
        double by = a.middle;
        if (fine(i) && all[i].outer - all[i].inner > width && !turns(i)) {
            by = a.outer - 0.5 * width;
        } else if (twice[i] && !turns(i)) {
            by = 0.5 * (a.inner + a.outer);
        } else if (joined(i)) {
            if (std::abs(a.inner) < 0.8 * width) {
                by = a.inner + 0.5 * width;
            } else if (std::abs(a.outer) < 0.8 * width ||
                       (std::abs(a.outer - 0.5 * width) < reach + width && turns(i))) {
                by = a.outer - 0.5 * width;
            }
        }
        moved[i] += by * a.outward;
    }
    line = std::move(moved);
}

/// The usual width of the line, pixels: where its ink is half of its darkest.
double widthOf(const Polyline2& line, const Drawn& drawn, double reach) {
    constexpr double kStep = 0.25;
    std::vector<float> widths;
    for (std::size_t i = 0, n = line.size(); i < n; i += 3) {
        const Vec2 along = (line[(i + 3) % n] - line[(i + n - 3) % n]).normalized();
        const Vec2 across(-along.y(), along.x());
        const auto ink = [&](double t) { return drawn.ink.sample(line[i] + t * across); };
        double most = 0;
        for (double t = -2; t <= 2; t += kStep) most = std::max<double>(most, ink(t));
        if (!(most > drawn.level)) continue;
        double width = 0;
        for (const double way : {-1.0, 1.0}) {
            double t = 0;
            while (t < reach && ink(way * t) > 0.5 * most) t += kStep;
            width += t;
        }
        widths.push_back(static_cast<float>(width - kStep));
    }
    return quantile(widths, 0.5);
}

/// A stretch of the outline without ink, from its first bare point for `count` points.
struct Gap {
    std::size_t first = 0, count = 0;
};
std::vector<Gap> gapsOf(const Polyline2& line, const Drawn& drawn) {
    const std::size_t n = line.size();
    const auto bare = [&](std::size_t i) { return drawn.away.sample(line[i % n]) > kBare_px; };
    std::size_t start = 0;
    while (start < n && bare(start)) ++start;
    if (start == n) return {{0, n}};
    std::vector<Gap> gaps;
    for (std::size_t i = start; i < start + n;) {
        std::size_t j = i;
        while (j < start + n && bare(j)) ++j;
        if (j > i) gaps.push_back({i % n, j - i});
        i = std::max(j, i + 1);
    }
    return gaps;
}

/// Where the hand was lifted the line goes on from both sides (a cubic that keeps both directions).
void bridgeGaps(Polyline2& line, const Drawn& drawn, double pixelsPerMm) {
    const std::size_t n = line.size();
    const double step = (line[1] - line[0]).norm();
    const auto reach = static_cast<std::size_t>(std::ceil(1.2 * pixelsPerMm / step)),
               ends = static_cast<std::size_t>(std::ceil(0.8 * pixelsPerMm / step));
    const Polyline2 before = line;
    for (const Gap& gap : gapsOf(before, drawn)) {
        if (2 * gap.count < ends || gap.count + 2 * (ends + reach) >= n / 2) continue;
        const std::size_t from = gap.first + n - ends, count = gap.count + 2 * ends - 1;
        const Vec2 a = before[from % n], b = before[(from + count) % n];
        const double chord = (b - a).norm();
        const Vec2 in = chord * (a - before[(from - reach) % n]).normalized(),
                   out = chord * (before[(from + count + reach) % n] - b).normalized();
        if (in.dot(b - a) < 0.5 * chord * chord || out.dot(b - a) < 0.5 * chord * chord)
            continue;  // a corner
        for (std::size_t k = 1; k < count; ++k) {
            const double t = static_cast<double>(k) / static_cast<double>(count), t2 = t * t, t3 = t2 * t;
            line[(from + k) % n] =
                (2 * t3 - 3 * t2 + 1) * a + (t3 - 2 * t2 + t) * in + (3 * t2 - 2 * t3) * b + (t3 - t2) * out;
        }
    }
}

/// The curve midway between outside and inside. At a pointed end both lines run into one before they meet,
/// and midway lies short of the point: there the body goes on as long as the ink is wider than a line.
Polyline2 boundaryOf(const Enclosure& r) {
    constexpr double kWiderThanLine = 1.1;
    const Plane outer = distanceTo(r.outside), inner = distanceTo(r.inside);
    Plane side = outer;
    for (std::size_t i = 0; i < side.values.size(); ++i) side.values[i] -= inner.values[i];
    const std::vector<Polyline2> lines = levelLines(side, 0);
    if (lines.empty()) return {};
    std::vector<float> halves;
    for (const Vec2& p : lines.front()) halves.push_back(static_cast<float>(outer.sample(p)));
    const auto half = static_cast<float>(kWiderThanLine * quantile(halves, 0.5));
    for (std::size_t i = 0; i < side.values.size(); ++i)
        side.values[i] = std::max(side.values[i], outer.values[i] - half);
    return levelLines(side, 0).front();
}

/// One part of a line mask as a polyline: means along its long direction, in pixels. Curves that turn back
/// on themselves are no guides.
GuideLine runOf(const Part& part, const PixelSet& mask, double pixelsPerMm) {
    GuideLine guide;
    const PixelSet one = pixelsOf(part, mask.width, mask.height);
    const PixelSet whole = filled(one);
    const auto holes = std::count(whole.on.begin(), whole.on.end(), 1) - static_cast<long>(part.area());
    const double box = static_cast<double>(part.width()) * part.height();
    if (static_cast<double>(holes) > 0.3 * box) {  // a ring: its middle line lies between its two edges
        guide.closed = true;
        Enclosure r{inverse(whole), PixelSet(mask.width, mask.height)};
        for (std::size_t i = 0; i < whole.on.size(); ++i) r.inside.on[i] = whole.on[i] && !one.on[i];
        guide.points = evenlySpaced(boundaryOf(r), 0.5 * pixelsPerMm, 0.3 * pixelsPerMm);
        return guide;
    }
    const Vec2 middle = part.centroid(mask.width);
    const auto w = static_cast<std::size_t>(mask.width);
    const auto pixel = [&](std::size_t i) {
        return Vec2(static_cast<double>(i % w) + 0.5, static_cast<double>(i / w) + 0.5);
    };
    const Vec2 along = part.direction(mask.width);
    double low = 1e18, high = -1e18;
    for (const std::size_t i : part.pixels) {
        low = std::min(low, (pixel(i) - middle).dot(along));
        high = std::max(high, (pixel(i) - middle).dot(along));
    }
    const auto bins = static_cast<std::size_t>(std::max(2.0, std::round((high - low) / pixelsPerMm)));
    std::vector<Vec2> sum(bins, Vec2::Zero());
    std::vector<double> count(bins, 0);
    for (const std::size_t i : part.pixels) {
        const double s = ((pixel(i) - middle).dot(along) - low) / std::max(1e-9, high - low);
        const auto k = std::min(bins - 1, static_cast<std::size_t>(s * static_cast<double>(bins)));
        sum[k] += pixel(i);
        count[k] += 1;
    }
    for (std::size_t k = 0; k < bins; ++k)
        if (count[k] > 0) guide.points.push_back(sum[k] / count[k]);
    return guide;
}

std::vector<GuideLine> runsOf(const PixelSet& mask, const FlatBox& box) {
    std::vector<GuideLine> guides;
    for (const Part& part : partsOf(mask, true)) {
        if (std::hypot(part.width(), part.height()) < kShortestLine_mm * box.pixelsPerMm) continue;
        GuideLine guide = runOf(part, mask, box.pixelsPerMm);
        for (Vec2& p : guide.points) p = box.mmOf(p);
        if (guide.points.size() > 1) guides.push_back(std::move(guide));
    }
    return guides;
}

/// A body that is filled in, or lies on the page itself: dark against the paper as a whole.
std::optional<TracedBox> filledIn(const FlatBox& box) {
    const Plane grey = smoothed(box.grey, 0.1 * box.pixelsPerMm);
    const double paper = quantile(grey.values, 0.9);
    const float level = otsuLevel(grey.values);
    if (level > 0.8 * paper) return std::nullopt;
    Plane dark = grey;
    for (float& v : dark.values) v = -v;
    const PixelSet opaque = opened(above(dark, -level), 0.7 * box.pixelsPerMm);
    for (const Part& part : partsOf(opaque, false)) {
        const bool border =
            part.left <= 1 || part.top <= 1 || part.right >= grey.width - 2 || part.bottom >= grey.height - 2;
        if (border ||
            static_cast<double>(part.area()) < kSmallestFilled_mm2 * box.pixelsPerMm * box.pixelsPerMm)
            continue;
        PixelSet one = pixelsOf(part, grey.width, grey.height);
        const PixelSet near = grown(one, 4);
        Plane only = dark;  // its own edge, half way between paper and body
        for (std::size_t i = 0; i < only.values.size(); ++i)
            if (!near.on[i]) only.values[i] = -static_cast<float>(paper);
        const std::vector<Polyline2> lines = levelLines(only, -level);
        if (lines.empty()) return std::nullopt;
        TracedBox found;
        found.filled = true;
        found.outline = evenlySpaced(lines.front(), 0.25 * box.pixelsPerMm, 0.3 * box.pixelsPerMm);
        return found;
    }
    return std::nullopt;
}

/// What to say when something lies on the box: from where to where, or nothing.
Words coveredWords(const FlatBox& box) {
    constexpr double kWorthSaying_mm2 = 40;
    int left = box.covered.width, right = -1;
    double area = 0;
    for (int y = 0; y < box.covered.height; ++y) {
        for (int x = 0; x < box.covered.width; ++x) {
            if (!box.covered.at(x, y)) continue;
            left = std::min(left, x);
            right = std::max(right, x);
            area += 1;
        }
    }
    if (area < kWorthSaying_mm2 * box.pixelsPerMm * box.pixelsPerMm) return {};
    return Words(NINE_WORDS("core",
                            "Something covers its box from {from} to {to}: take the picture again with "
                            "nothing over the page."))
        .length("from", left / box.pixelsPerMm, 0)
        .length("to", right / box.pixelsPerMm, 0);
}

double placeOf_mm(const FlatBox& box, const Vec2& pixel) {
    return pixel.x() / box.pixelsPerMm;
}

/// Where both sides of a fine end cross, the end is where they meet.
Polyline2 withoutLoops(const Polyline2& line) {
    const PolygonSet parts = united({polygonArea(line) > 0 ? line : Polyline2(line.rbegin(), line.rend())});
    if (parts.size() <= 1) return line;
    return *std::max_element(parts.begin(), parts.end(), [](const Polygon2& a, const Polygon2& b) {
        return polygonArea(a) < polygonArea(b);
    });
}

/// The outline midway in the line between both regions, and the lines within it.
TracedBox tracedBox(Polyline2 line, const Drawn& drawn, const Enclosure& regions, const FlatBox& box) {
    const double perMm = box.pixelsPerMm;
    bridgeGaps(line, drawn, perMm);
    centreOnInk(line, drawn, regions.outside, 0.9 * perMm);
    line = evenlySpaced(line, 0.2 * perMm, 0.25 * perMm);
    centreOnInk(line, drawn, regions.outside, 0.7 * perMm);
    TracedBox found;
    found.outline = evenlySpaced(line, 0.2 * perMm, 0.25 * perMm);
    // Evening out has rounded points off.
    centreOnInk(found.outline, drawn, regions.outside, 0.7 * perMm, true);
    found.outline = withoutLoops(found.outline);
    // Lines well inside are guides: what is within the outline less a strip along it.
    const PixelSet inside = shrunk(inverse(grown(regions.outside, 0.6 * perMm)), 0.9 * perMm);
    PixelSet inner = drawn.dark;
    for (std::size_t i = 0; i < inner.on.size(); ++i) inner.on[i] = inner.on[i] && inside.on[i];
    found.guides = runsOf(inner, box);
    found.lineWidth_mm = widthOf(found.outline, drawn, 1.3 * perMm) / perMm;
    return found;
}

}  // namespace

Result<TracedBox> outlineIn(const FlatBox& box, const std::string& name, const Task& task) {
    const Words covered = coveredWords(box);
    const Error nothing{
        covered.empty() ? "nothing_drawn" : "line_open",
        Words(NINE_WORDS("core",
                         "There is no closed line in the box of the {name}, or it is too faint. {what}"))
            .name("name", name)
            .words("what", covered.empty()
                               ? Words(NINE_WORDS("core", "Draw round the body with a soft, dark pencil."))
                               : covered),
        name};
    const double perMm = box.pixelsPerMm;
    const auto finish = [&](TracedBox found) {
        for (Vec2& p : found.outline) p = box.mmOf(p);
        return found;
    };
    if (const std::optional<Drawn> drawn = drawnIn(box)) {
        Result<std::optional<Enclosure>> regions = enclosedIn(box, drawn->lines, kWidestGap_mm, name, task);
        if (!regions) return regions.error();
        Polyline2 line = *regions ? boundaryOf(**regions) : Polyline2();
        if (line.size() >= 20) {
            line = evenlySpaced(line, 0.25 * perMm, 0.2 * perMm);
            Gap gap;
            for (const Gap& g : gapsOf(line, *drawn))
                if (g.count > gap.count) gap = g;
            const double open_mm = static_cast<double>(gap.count) * (line[1] - line[0]).norm() / perMm;
            const bool closed = open_mm <= kWidestGap_mm + 0.5 && (*regions)->bridged_mm <= kWidestGap_mm;
            if (closed) return finish(tracedBox(std::move(line), *drawn, **regions, box));
            if (!filledIn(box))  // the edge of a filled body is no line
                return Error{
                    "line_open",
                    Words(NINE_WORDS("core",
                                     "The line of the {name} is broken or hidden for {open}, {at} from the "
                                     "left edge of its box. Close it "
                                     "with the pencil, or take the picture again with nothing over it."))
                        .name("name", name)
                        .length("open", open_mm, 0)
                        .length("at", placeOf_mm(box, line[(gap.first + gap.count / 2) % line.size()]), 0),
                    name};
        }
    }
    if (std::optional<TracedBox> found = filledIn(box)) return finish(std::move(*found));
    return nothing;
}

std::vector<GuideLine> linesIn(const FlatBox& box) {
    const std::optional<Drawn> drawn = drawnIn(box);
    return drawn ? runsOf(drawn->dark, box) : std::vector<GuideLine>();
}

}  // namespace nine
