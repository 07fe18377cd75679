#include "pattern/art.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "base/parallel.h"
#include "base/units.h"
#include "blank/landmark_curve.h"
#include "blank/walk.h"
#include "geom/geodesic.h"

namespace nine {
namespace {

struct Steps {
    double edge_mm;   ///< along a bar's edges; they are nearly straight on the sheet
    double shoot_mm;  ///< a dot's radius in steps; second order, 1e-4 mm for 3 mm dots at 0.25
    double chord_mm;
    int leastRim;
};
constexpr Steps stepsOf(Fineness fineness) {
    return fineness == Fineness::Cut ? Steps{0.4, 0.25, kArtChord_mm, 24}
                                     : Steps{1.6, 1, 6 * kArtChord_mm, 12};
}

int rimPoints(double radius_mm, const Steps& steps) {
    return std::clamp(static_cast<int>(std::ceil(kPi / std::sqrt(2 * steps.chord_mm / radius_mm))),
                      steps.leastRim, 200);
}

/// A geodesic circle whose polygon has the circle's area.
Result<Outline> drawDot(const Skin& skin, const Vec2& centre, double radius_mm, const Steps& steps,
                        const std::string& path) {
    const SkinPoint centrePoint{Side::Left, centre.x(), centre.y()};
    if (Status ok = skin.check(centrePoint, path); !ok) return ok.error();
    const SurfacePoint middle = skin.at(centrePoint);
    // A rim round the tip of the body comes back on the other side and would look like a dot there.
    const Error overEnd{"off_body", "A dot reaches over the end of the body; move the row or use fewer dots.",
                        path};
    for (const double tip : {skin.noseX(), skin.tailX()}) {
        const bool closed = tip == skin.noseX() ? skin.loft().noseClosed() : skin.loft().tailClosed();
        if (closed && (middle.position - Vec3(tip, 0, 0)).norm() < radius_mm) return overEnd;
    }
    const int count = rimPoints(radius_mm, steps);
    const double step = 2 * kPi / count;
    const double reach = radius_mm * std::sqrt(step / std::sin(step));
    Vec3 ahead = Vec3::UnitX() - middle.normal.x() * middle.normal;
    if (ahead.squaredNorm() < 1e-6) ahead = tangentBasis(middle.normal).col(0);
    ahead.normalize();
    const Vec3 up = ahead.cross(middle.normal);
    Outline dot;
    dot.centre = centre;
    for (int i = 0; i < count; ++i) {
        const Vec3 direction = std::cos(step * i) * ahead + std::sin(step * i) * up;
        const SurfacePoint p = shootGeodesic(skin, middle, direction, {reach}, steps.shoot_mm)[0];
        if (!(p.position.x() > skin.noseX() && p.position.x() < skin.tailX())) {
            return overEnd;
        }
        dot.points.push_back(p);
        const SkinPoint at = skin.locateNear(p.position, centre.y());
        dot.skin.emplace_back(at.x_mm, at.g_mm);
    }
    return dot;
}

/// `count` outlines on all cores; the first that cannot be drawn is the error.
template <typename Draw>
Result<std::vector<Outline>> drawAll(std::size_t count, const Draw& draw) {
    std::vector<Result<Outline>> drawn(count, Result<Outline>(Outline{}));
    forEachInParallel(count, [&](std::size_t i) { drawn[i] = draw(i); });
    std::vector<Outline> outlines;
    for (Result<Outline>& outline : drawn) {
        if (!outline) return outline.error();
        outlines.push_back(std::move(*outline));
    }
    return outlines;
}

Result<std::vector<Outline>> drawDots(const Skin& skin, const Vec2& origin, const DotRow& row,
                                      const Steps& steps, const std::string& path) {
    const double length = (row.count - 1) * row.spacing_mm;
    const auto rise = [&](double s) {
        const double t = length > 0 ? s / length : 0;
        return row.bow_mm * 4 * t * (1 - t);
    };
    std::vector<double> distances;
    for (int i = 0; i < row.count; ++i) distances.push_back(i * row.spacing_mm);
    const Result<std::vector<Vec2>> centres = walkLine(skin, origin.x(), origin.y(), rise, distances, path);
    if (!centres) return centres.error();
    return drawAll(centres->size(), [&](std::size_t i) {
        const double t = row.count > 1 ? static_cast<double>(i) / (row.count - 1) : 0;
        const double diameter = (1 - t) * row.first_mm + t * row.last_mm;
        return drawDot(skin, (*centres)[i], diameter / 2, steps, path);
    });
}

Result<Outline> drawBar(const Skin& skin, const Vec2& centre, const Bars& bars, const Steps& fine,
                        const std::string& path) {
    const double low = centre.y() + bars.g0_mm, high = centre.y() + bars.g1_mm;
    for (const double g : {low, high}) {
        if (Status ok = skin.check({Side::Left, centre.x(), g}, path); !ok) return ok.error();
    }
    const int steps = std::max(2, static_cast<int>(std::ceil((high - low) / fine.edge_mm)));
    std::vector<Vec2> edge;  // up the tail edge, down the nose edge
    for (const int way : {1, -1}) {
        for (int k = 0; k <= steps; ++k) {
            const double t = static_cast<double>(way > 0 ? k : steps - k) / steps;
            const double g = (1 - t) * low + t * high;
            const double half = 0.5 * ((1 - t) * bars.widthBelly_mm + t * bars.widthBack_mm);
            const Result<double> x = walkAlong(skin, centre.x(), g, way * half, path);
            if (!x) return x.error();
            edge.emplace_back(*x, g);
        }
    }
    Outline bar;
    bar.centre = Vec2(centre.x(), 0.5 * (low + high));
    // The two ends lie along the skin too: straight in x, g, with enough points between.
    const std::size_t top = static_cast<std::size_t>(steps);
    for (std::size_t i = 0; i < edge.size(); ++i) {
        bar.skin.push_back(edge[i]);
        if (i != top && i + 1 != edge.size()) continue;
        const Vec2& next = edge[(i + 1) % edge.size()];
        const int between = static_cast<int>(std::ceil(std::abs(next.x() - edge[i].x()) / fine.edge_mm));
        for (int k = 1; k < between; ++k) bar.skin.push_back(edge[i] + (next - edge[i]) * k / between);
    }
    for (const Vec2& p : bar.skin) bar.points.push_back(skin.at({Side::Left, p.x(), p.y()}));
    return bar;
}

Result<std::vector<Outline>> drawBars(const Skin& skin, const Vec2& origin, const Bars& bars,
                                      const Steps& steps, const std::string& path) {
    std::vector<double> x{origin.x()};
    for (int i = 1; i < bars.count; ++i) {
        const Result<double> next = walkAlong(skin, x.back(), origin.y(), bars.spacing_mm, path);
        if (!next) return next.error();
        x.push_back(*next);
    }
    return drawAll(x.size(),
                   [&](std::size_t i) { return drawBar(skin, Vec2(x[i], origin.y()), bars, steps, path); });
}

/// The crescent moved `shift_mm` towards the tail.
Result<Outline> drawCrescent(const Skin& skin, const Landmark& landmark, const Element& element,
                             const GillMark& mark, double shift_mm, const Steps& fine,
                             const std::string& path) {
    const std::vector<Vec2> curve = curveOf(landmark);
    const double length = lengthsAlong(skin, curve).back();
    // Even, so that the widest place is one of them.
    const int steps =
        2 *
        std::max(4, static_cast<int>(std::ceil(0.5 * length * (mark.to - mark.from) / fine.edge_mm - 1e-6)));
    const std::vector<Vec2> plate = partOf(skin, curve, mark.from, mark.to, steps);
    std::vector<Vec2> front, rear;
    for (int k = 0; k <= steps; ++k) {
        const Vec2& p = plate[static_cast<std::size_t>(k)];
        const double g = p.y() + element.dg_mm;
        const double wide = mark.width_mm * std::sin(kPi * k / steps);
        for (const auto& [edge, distance] :
             {std::pair{&front, element.dx_mm + shift_mm}, {&rear, element.dx_mm + shift_mm + wide}}) {
            const Result<double> x = walkAlong(skin, p.x(), g, distance, path);
            if (!x) return x.error();
            edge->emplace_back(*x, g);
        }
    }
    // Counter-clockwise with the nose left: down the front edge, up the rear edge.
    if (front.front().y() < front.back().y()) {
        std::reverse(front.begin(), front.end());
        std::reverse(rear.begin(), rear.end());
    }
    Outline crescent;
    crescent.skin = front;
    crescent.skin.insert(crescent.skin.end(), rear.rbegin() + 1, rear.rend() - 1);
    const std::size_t middle = front.size() / 2;
    crescent.centre = 0.5 * (front[middle] + rear[middle]);
    for (const Vec2& p : crescent.skin) {
        if (Status ok = skin.check({Side::Left, p.x(), p.y()}, path); !ok) return ok.error();
        crescent.points.push_back(skin.at({Side::Left, p.x(), p.y()}));
    }
    return crescent;
}

/// The crescent, and the same moved for the second pass if there is one.
Result<std::vector<Outline>> drawGillMark(const Skin& skin, const Landmarks& landmarks,
                                          const Element& element, const GillMark& mark, const Steps& steps,
                                          const std::string& path) {
    const auto plate = landmarks.find(element.anchor);
    if (plate == landmarks.end() || !plate->second.isCurve()) {
        return Error{
            "not_a_curve",
            "A gill mark follows a landmark that is a curve, such as the gill plate; anchor it to one.",
            path + ".anchor"};
    }
    std::vector<Outline> crescents;
    for (const double shift : {0.0, mark.pair_mm}) {
        if (!crescents.empty() && shift <= 0) break;
        Result<Outline> crescent = drawCrescent(skin, plate->second, element, mark, shift, steps, path);
        if (!crescent) return crescent.error();
        crescents.push_back(std::move(*crescent));
    }
    return crescents;
}

bool windowsMerge(const Element& element) {
    if (const auto* dots = std::get_if<DotRow>(&element.shape)) {
        return dots->count > 1 && dots->spacing_mm <= std::max(dots->first_mm, dots->last_mm);
    }
    const auto* bars = std::get_if<Bars>(&element.shape);
    return bars && bars->count > 1 && bars->spacing_mm <= std::max(bars->widthBack_mm, bars->widthBelly_mm);
}

}  // namespace

Result<ElementArt> drawElement(const Skin& skin, const Landmarks& landmarks, const Element& element,
                               const std::string& path, Fineness fineness) {
    if (Status ok = checkElement(element, path); !ok) return ok.error();
    if (!element.known()) {
        const Vec2 nowhere = Vec2::Zero();
        return ElementArt{
            element.id,
            nowhere,
            {},
            {},
            nowhere,
            nowhere,
            {{"unknown_kind",
              "\"" + element.id + "\" is a \"" + kindName(element) +
                  "\", which this version of the program does not know; it is kept, but not drawn.",
              path}}};
    }
    const Result<Vec2> origin = originOf(skin, landmarks, element, path);
    if (!origin) return origin.error();
    const Steps steps = stepsOf(fineness);
    const auto* dots = std::get_if<DotRow>(&element.shape);
    const auto* bars = std::get_if<Bars>(&element.shape);
    const auto* mark = std::get_if<GillMark>(&element.shape);
    Result<std::vector<Outline>> outlines = dots ? drawDots(skin, *origin, *dots, steps, path)
                                            : bars
                                                ? drawBars(skin, *origin, *bars, steps, path)
                                                : drawGillMark(skin, landmarks, element, *mark, steps, path);
    if (!outlines) return outlines.error();

    ElementArt art{element.id, *origin, std::move(*outlines), {}, {}, {}, {}};
    if (mark && art.outlines.size() > 1) {
        art.second.push_back(std::move(art.outlines.back()));
        art.outlines.pop_back();
    }
    art.low = art.high = art.outlines.front().skin.front();
    bool crosses = false;
    for (const Outline& outline : art.outlines) {
        const SectionArc arc = skin.arcAt(outline.centre.x());
        for (const Vec2& p : outline.skin) {
            art.low = art.low.cwiseMin(p);
            art.high = art.high.cwiseMax(p);
            crosses =
                crosses || p.y() > arc.backArc() + kArtChord_mm || p.y() < -arc.bellyArc() - kArtChord_mm;
        }
    }
    if (crosses && element.linked) {
        art.warnings.push_back(
            {"crosses_midline",
             "\"" + element.id +
                 "\" reaches over the back or belly line, where it will overlap its twin of the "
                 "other side. Shorten it, or unlink the sides.",
             path});
    }
    if (windowsMerge(element)) {
        art.warnings.push_back(
            {"windows_merge",
             "Windows of \"" + element.id +
                 "\" run into each other: nothing is left between them. Widen the spacing.",
             path + ".spacing_mm"});
    }
    return art;
}

}  // namespace nine
