#include "image/line_art.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "geom/polygon_set.h"
#include "image/enclosure.h"

namespace nine {
namespace {

constexpr double kShortestLine_mm = 3;  // specks
constexpr double kSmallestBody_mm2 = 80;

/// Ink across the outline at one of its points, in pixels from the point, outwards positive. NaN where there
/// is no end within reach.
struct InkAcross {
    Vec2 outward = Vec2::Zero();
    double inner = 0, outer = 0;  ///< where the ink ends
    double middle = 0;            ///< of the ink near the point
    bool inked = false;
};
InkAcross inkAcross(const Drawn& drawn, const Vec2& at, const Vec2& outward, double reach) {
    constexpr double kStep = 0.25, kFoot = 0.35;
    InkAcross across{outward, std::nan(""), std::nan("")};
    const auto count = static_cast<int>(2 * std::round(reach / kStep)) + 1, half = count / 2;
    std::vector<double> ink;
    for (int k = 0; k < count; ++k)
        ink.push_back(drawn.ink.sample(at + (k - half) * kStep * outward));
    const double most = *std::max_element(ink.begin(), ink.end());
    // A pale stroke ends where its own ink does.
    double level = std::min(drawn.level, std::max(drawn.faint, 0.6 * most));
    if (!(most > level)) return across;
    // Of several strokes the nearest one: an eye close to the line is not part of it.
    int near = -1;
    for (int d = 0; d <= half && near < 0; ++d)
        for (const int k : {half - d, half + d})
            if (near < 0 && ink[static_cast<std::size_t>(k)] > level) near = k;
    if (near < 0) return across;
    int first = near, last = near;
    const auto foot = [&](int k) { return ink[static_cast<std::size_t>(k)] > kFoot * level; };
    while (first > 0 && foot(first - 1)) --first;
    while (last + 1 < count && foot(last + 1)) ++last;
    double sum = 0, moment = 0, peak = 0, highest = 0;
    for (int k = first; k <= last; ++k) {
        const double raw = ink[static_cast<std::size_t>(k)], t = (k - half) * kStep, v = raw - kFoot * level;
        sum += std::max(0.0, v);
        moment += std::max(0.0, v) * t;
        if (raw > highest) {
            highest = raw;
            peak = t;
        }
    }
    level = std::min(level, std::max(drawn.faint, 0.6 * highest));
    across.inked = sum > 0;
    across.middle = moment / sum;
    const auto edge = [&](double direction) {
        double before = highest;
        for (double t = 0; t <= 2 * reach; t += kStep) {
            const double raw = drawn.ink.sample(at + (peak + direction * t) * outward);
            if (raw < level)
                return peak + direction * (t - kStep * (level - raw) / std::max(1e-9, before - raw));
            before = raw;
        }
        return std::nan("");
    };
    across.inner = edge(-1);
    across.outer = edge(1);
    return across;
}

/// Moves each point to the middle of the ink across the line, where there is ink. Where the ink is wider than
/// the line, something joins it: from outside, and the point lies half a line from the inner edge; or from
/// within - at a pointed end the lines of both sides run into each other, and their middle would cut the
/// point off - and it lies half a line from the outer edge. `pointsOnly` moves only what lies at pointed
/// ends.
void centreOnInk(Polyline2& line, const Drawn& drawn, double reach, bool pointsOnly = false) {
    constexpr double kJoined = 1.4;  // widths of the line
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
    Polyline2 moved = line;
    for (std::size_t i = 0; i < n; ++i) {
        const InkAcross& a = all[i];
        if (!a.inked || (pointsOnly && !(joined(i) && turns(i)))) continue;
        double by = a.middle;
        if (joined(i)) {
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

/// The longest stretch of the outline without ink: its middle and its length, pixels.
struct Gap {
    Vec2 middle = Vec2::Zero();
    double length = 0;
};
Gap longestGap(const Polyline2& line, const PixelSet& mask) {
    const Plane distance = distanceTo(mask);
    const std::size_t n = line.size();
    const double step = (line[1] - line[0]).norm();
    const auto bare = [&](std::size_t i) { return distance.sample(line[i % n]) > 1.5F; };
    std::size_t start = 0;
    while (start < n && bare(start)) ++start;
    if (start == n) return {line.front(), step * static_cast<double>(n)};
    Gap gap;
    for (std::size_t i = start; i < start + n;) {
        std::size_t j = i;
        while (j < start + n && bare(j)) ++j;
        const double length = static_cast<double>(j - i) * step;
        if (length > gap.length) gap = {line[(i + j) / 2 % n], length};
        i = std::max(j, i + 1);
    }
    return gap;
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
            static_cast<double>(part.area()) < kSmallestBody_mm2 * box.pixelsPerMm * box.pixelsPerMm)
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
std::string coveredWords(const FlatBox& box) {
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
    if (area < kWorthSaying_mm2 * box.pixelsPerMm * box.pixelsPerMm) return "";
    return " Something covers its box from " + fixedText(left / box.pixelsPerMm, 0) + " to " +
           fixedText(right / box.pixelsPerMm, 0) + " mm: take the picture again with nothing over the page.";
}

std::string placeOf(const FlatBox& box, const Vec2& pixel) {
    return fixedText(pixel.x() / box.pixelsPerMm, 0) + " mm from the left edge of its box";
}

/// The outline midway in the line between both regions, and the lines within it.
TracedBox tracedBox(Polyline2 line, const Drawn& drawn, const Enclosure& regions, const FlatBox& box) {
    const double perMm = box.pixelsPerMm;
    centreOnInk(line, drawn, 0.9 * perMm);
    line = evenlySpaced(line, 0.2 * perMm, 0.25 * perMm);
    centreOnInk(line, drawn, 0.7 * perMm);
    TracedBox found;
    found.outline = evenlySpaced(line, 0.2 * perMm, 0.25 * perMm);
    // Evening out has rounded points off.
    centreOnInk(found.outline, drawn, 0.7 * perMm, true);
    // Lines well inside are guides: what is within the outline less a strip along it.
    const PixelSet inside = shrunk(inverse(grown(regions.outside, 0.6 * perMm)), 0.9 * perMm);
    PixelSet inner = drawn.dark;
    for (std::size_t i = 0; i < inner.on.size(); ++i) inner.on[i] = inner.on[i] && inside.on[i];
    found.guides = runsOf(inner, box);
    double area = 0;
    for (std::size_t i = 0; i < drawn.dark.on.size(); ++i) area += drawn.dark.on[i];
    found.lineWidth_mm = area / (perMm * perMm) / (perimeter(line) / perMm);
    return found;
}

}  // namespace

Result<TracedBox> outlineIn(const FlatBox& box, const std::string& name, const Task& task) {
    const std::string covered = coveredWords(box);
    const Error nothing{covered.empty() ? "nothing_drawn" : "line_open",
                        "There is no closed line in the box of the " + name + ", or it is too faint." +
                            (covered.empty() ? " Draw round the body with a soft, dark pencil." : covered),
                        name};
    const double perMm = box.pixelsPerMm;
    const auto finish = [&](TracedBox found) {
        for (Vec2& p : found.outline) p = box.mmOf(p);
        return found;
    };
    if (const std::optional<Drawn> drawn = drawnIn(box)) {
        Result<std::optional<Enclosure>> regions =
            enclosedIn(box, drawn->lines, kWidestGap_mm, name, task);
        if (!regions) return regions.error();
        Polyline2 line = *regions ? boundaryOf(**regions) : Polyline2();
        if (line.size() >= 20) {
            line = evenlySpaced(line, 0.25 * perMm, 0.2 * perMm);
            const Gap gap = longestGap(line, drawn->lines);
            const bool closed =
                gap.length <= (kWidestGap_mm + 0.5) * perMm && (*regions)->bridged_mm <= kWidestGap_mm;
            if (closed) return finish(tracedBox(std::move(line), *drawn, **regions, box));
            if (!filledIn(box))  // the edge of a filled body is no line
                return Error{
                    "line_open",
                    "The line of the " + name + " is broken or hidden for " +
                        fixedText(gap.length / perMm, 0) + " mm, " + placeOf(box, gap.middle) +
                        ". Close it with the pencil, or take the picture again with nothing over it.",
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
