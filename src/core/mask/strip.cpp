#include "mask/strip.h"

#include <algorithm>
#include <cmath>

#include "blank/walk.h"

namespace nine {
namespace {

constexpr double kLedOn_mm = 12;    // a mouth may be so far from the border after the sheet has changed
constexpr double kInside_mm = 0.2;  // what is left of a slit when it is cut off at the border

/// Where the line from `from` towards `to` meets a border segment: how far along it, and on which segment.
struct Meeting {
    double along;
    std::size_t segment;
    Vec2 at;
};
std::optional<Meeting> firstMeeting(const Vec2& from, const Vec2& to, const Polygon2& ring) {
    std::optional<Meeting> first;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 &a = ring[i], &b = ring[(i + 1) % ring.size()];
        const Vec2 way = to - from, side = b - a, apart = a - from;
        const double turn = way.x() * side.y() - way.y() * side.x();
        if (std::abs(turn) < 1e-14) continue;
        const double along = (apart.x() * side.y() - apart.y() * side.x()) / turn;
        const double on = (apart.x() * way.y() - apart.y() * way.x()) / turn;
        if (along < 0 || along > 1 || on < 0 || on > 1) continue;
        if (!first || along < first->along) first = Meeting{along, i, a + on * side};
    }
    return first;
}

void addCorner(Polygon2& ring, std::size_t segment, const Vec2& at) {
    constexpr double kSame_mm = 0.05;  // nearer, and the mesh would have slivers there
    Vec2 &a = ring[segment], &b = ring[(segment + 1) % ring.size()];
    if ((a - at).norm() < kSame_mm) {
        a = at;
    } else if ((b - at).norm() < kSame_mm) {
        b = at;
    } else {
        ring.insert(ring.begin() + static_cast<std::ptrdiff_t>(segment) + 1, at);
    }
}

}  // namespace

Strip sideStrip(const Skin& skin, Fraction leftOut) {
    const double off = leftOut * skin.length_mm();
    return {skin.noseX_mm() + off, skin.tailX_mm() - off, [](const SectionArc& arc) {
                return Crossing{-arc.bellyArc_mm(), 0, arc.backArc_mm()};
            }};
}

Strip wrapStrip(const Skin& skin, Seam seam, Fraction leftOut) {
    // Edges that meet cannot both be cut to the line: a hair is left between them, which the knife takes.
    constexpr double kHair_mm = 0.05;
    const double off = leftOut * skin.length_mm();
    const double x0 = skin.noseX_mm() + off, x1 = skin.tailX_mm() - off;
    if (seam == Seam::Belly)
        return {x0, x1, [](const SectionArc& arc) {
                    return Crossing{-arc.bellyArc_mm() + kHair_mm, arc.backArc_mm(),
                                    2 * arc.backArc_mm() + arc.bellyArc_mm() - kHair_mm};
                }};
    return {x0, x1, [](const SectionArc& arc) {
                return Crossing{-2 * arc.bellyArc_mm() - arc.backArc_mm() + kHair_mm, -arc.bellyArc_mm(),
                                arc.backArc_mm() - kHair_mm};
            }};
}

Strip bandStrip(const BandPatch& band) {
    const Crossing same{band.g0_mm, 0.5 * (band.g0_mm + band.g1_mm), band.g1_mm};
    return {band.x0_mm, band.x1_mm, [same](const SectionArc&) { return same; }};
}

Region regionOf(const Skin& skin, const Strip& strip, double step_mm) {
    const int steps = std::max(4, static_cast<int>(std::ceil((strip.x1_mm - strip.x0_mm) / step_mm)));
    Polygon2 low, high;
    for (int k = 0; k <= steps; ++k) {
        const double x = strip.x0_mm + (strip.x1_mm - strip.x0_mm) * k / steps;
        const Crossing crossing = strip.at(skin.arcAt(x));
        low.emplace_back(x, crossing.low_mm);
        high.emplace_back(x, crossing.high_mm);
    }
    Region region{std::move(low), {}, {}};
    region.outer.insert(region.outer.end(), high.rbegin(), high.rend());
    return region;
}

Region withSlits(Region region, const std::vector<Slit>& slits) {
    for (Slit slit : slits) {
        if (slit.line.size() >= 2) {
            const Vec2 led = slit.line[0] + kLedOn_mm * (slit.line[0] - slit.line[1]).normalized();
            // From the tip outwards, so that a mouth beyond the border is cut off at it.
            for (std::size_t i = slit.line.size() - 1; i > 0; --i) {
                const Vec2 to = i == 1 ? led : slit.line[i - 1];
                const std::optional<Meeting> at = firstMeeting(slit.line[i], to, region.outer);
                if (!at) continue;
                if ((at->at - slit.line.back()).norm() > kInside_mm) {
                    slit.line.erase(slit.line.begin(), slit.line.begin() + static_cast<std::ptrdiff_t>(i));
                    slit.line.insert(slit.line.begin(), at->at);
                    addCorner(region.outer, at->segment, at->at);
                }
                break;
            }
        }
        region.slits.push_back(std::move(slit));
    }
    return region;
}

std::vector<SkinPlace> panelMarks(const Region& region) {
    const Box2 box = boxAround({region.outer});
    struct Edge {
        bool across, low;
        std::vector<double> mouths = {};
    };
    std::array<Edge, 4> edges{{{true, true}, {true, false}, {false, true}, {false, false}}};
    for (const Slit& slit : region.slits) {
        const Vec2 way = slit.line.back() - slit.line.front();
        const bool across = std::abs(way.y()) >= std::abs(way.x());
        for (Edge& edge : edges)
            if (edge.across == across && edge.low == ((across ? way.y() : way.x()) > 0))
                edge.mouths.push_back(across ? slit.line.front().x() : slit.line.front().y());
    }
    std::vector<SkinPlace> marks;
    for (Edge& edge : edges) {
        if (edge.mouths.empty()) continue;
        std::sort(edge.mouths.begin(), edge.mouths.end());
        const Eigen::Index run = edge.across ? 0 : 1, other = 1 - run;
        // The ends of the edge: of the whole region along the body, of its end face across it.
        double first = box.low[run], last = box.high[run];
        if (!edge.across) {
            const double end = edge.low ? box.low.x() : box.high.x();
            first = 1e300;
            last = -1e300;
            for (const Vec2& p : region.outer) {
                if (std::abs(p.x() - end) > 0.1) continue;
                first = std::min(first, p.y());
                last = std::max(last, p.y());
            }
        }
        std::vector<double> ends{first};
        ends.insert(ends.end(), edge.mouths.begin(), edge.mouths.end());
        ends.push_back(last);
        for (std::size_t i = 0; i + 1 < ends.size(); ++i) {
            const double middle = 0.5 * (ends[i] + ends[i + 1]);
            Vec2 from, to;
            from[run] = to[run] = middle;
            from[other] = (edge.low ? box.low : box.high)[other] + (edge.low ? -1 : 1);
            to[other] = (edge.low ? box.high : box.low)[other];
            const std::optional<Meeting> border = firstMeeting(from, to, region.outer);
            if (!border) continue;
            Vec2 at = border->at;
            at[other] += edge.low ? kMarkInset_mm : -kMarkInset_mm;
            if (contains(region.outer, at)) marks.emplace_back(at);
        }
    }
    std::sort(marks.begin(), marks.end(),
              [](const SkinPlace& a, const SkinPlace& b) { return a.x() < b.x(); });
    return marks;
}

std::array<SkinPlace, 2> endMarks(const Skin& skin, const Strip& strip) {
    const auto core = [&](double x, double way) {
        const double g = strip.at(skin.arcAt(x)).core_mm;
        const Result<double> inset = walkAlong(skin, x, g, way * kMarkInset_mm, "");
        const double at = inset ? *inset : x;
        return SkinPlace(at, strip.at(skin.arcAt(at)).core_mm);
    };
    return {core(strip.x0_mm, 1), core(strip.x1_mm, -1)};
}

}  // namespace nine
