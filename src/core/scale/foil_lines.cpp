#include "scale/foil_lines.h"

#include <algorithm>
#include <cmath>

#include "blank/landmark_curve.h"

#include "scale/limits.h"

namespace nine {
namespace {

constexpr double kStep_mm = 0.25;

/// dx for a step of 1 mm of girth along a line that leans by an angle (its tangent) to the tail off the
/// girth.
double leanPerGirth(const Skin& skin, double x, double g, double tangent) {
    const double h = 1e-3, low = std::max(skin.noseX_mm(), x - h), high = std::min(skin.tailX_mm(), x + h);
    const Vec3 alongX =
        (skin.at({Side::Left, high, g}).position - skin.at({Side::Left, low, g}).position) / (high - low);
    const Vec3 alongG =
        (skin.at({Side::Left, x, g + h}).position - skin.at({Side::Left, x, g - h}).position).normalized();
    const double with = alongX.dot(alongG), across = (alongX - with * alongG).norm();
    return tangent / (across - tangent * with);
}

}  // namespace

std::vector<Vec2> lateralLine(const Skin& skin, const Landmarks& landmarks) {
    const auto found = landmarks.find("lateral_line");
    if (found != landmarks.end() && found->second.isCurve()) return curveOf(found->second);
    std::vector<Vec2> datum;
    for (int i = 0; i <= 100; ++i)
        datum.emplace_back(skin.noseX_mm() + (0.01 + 0.98 * i / 100) * skin.length_mm(), 0);
    return datum;
}

Status checkFoil(const FoilWish& wish, const std::string& path) {
    const auto within = [&](const char* field, double value, double low, double high) {
        return checkWithin(field, value, low, high, path);
    };
    for (const Status& ok :
         {within("width_mm", wish.width_mm, 0.8, 60), within("lean_deg", wish.lean_deg, 5, 70),
          within("short_mm", wish.short_mm, 0, 100), within("tail_mm", wish.tail_mm, 0, 200)})
        if (!ok) return ok;
    return Done{};
}

Result<FoilLines> foilLines(const Skin& skin, const Landmarks& landmarks, const FoilWish& wish,
                            const std::string& path) {
    // In one piece: ticks along the lateral line, then each line walked out from them.
    if (Status ok = checkFoil(wish, path); !ok) return ok.error();

    const std::vector<Vec2> lateral = lateralLine(skin, landmarks);
    const std::vector<double> arc = lengthsAlong(skin, lateral);
    const auto arcOfX = [&](double x) {
        for (std::size_t i = 1; i < lateral.size(); ++i)
            if (lateral[i].x() >= x) {
                const double t =
                    (x - lateral[i - 1].x()) / std::max(lateral[i].x() - lateral[i - 1].x(), 1e-9);
                return arc[i - 1] + std::clamp(t, 0.0, 1.0) * (arc[i] - arc[i - 1]);
            }
        return arc.back();
    };
    const auto placeAt = [&](double s) {
        std::size_t i = 1;
        while (i + 1 < arc.size() && arc[i] < s) ++i;
        const double t = (s - arc[i - 1]) / std::max(arc[i] - arc[i - 1], 1e-9);
        return Vec2(lateral[i - 1] + std::clamp(t, 0.0, 1.0) * (lateral[i] - lateral[i - 1]));
    };
    double from = arc.front(), to = arc.back();
    const auto plate = landmarks.find("gill_plate");
    if (plate != landmarks.end())
        from = std::max(from, arcOfX(referencePoint(plate->second, lateral.front().y()).x()));
    const auto root = landmarks.find("tail_root");
    if (root != landmarks.end()) to = std::min(to, arcOfX(root->second.points.front().x()));
    from += wish.short_mm;
    to -= wish.tail_mm;
    if (to - from < 2 * wish.width_mm)
        return Error{
            "empty_reach",
            Words(NINE_WORDS("core",
                             "Two diamonds of {width} do not fit between gill cover and tail ({room})."))
                .length("width", wish.width_mm)
                .length("room", std::max(0.0, to - from)),
            path + ".width_mm"};

    FoilLines lines;
    lines.diamonds = static_cast<int>((to - from) / wish.width_mm + 1e-9);
    const std::vector<Vec2> gill = plate != landmarks.end() ? curveOf(plate->second) : std::vector<Vec2>{};
    const auto overGill = [&](const Vec2& p) {
        if (gill.size() < 2) return false;
        const Vec2 at = referencePoint(plate->second, p.y());
        return p.x() < at.x() + wish.short_mm;
    };
    for (int k = 0; k <= lines.diamonds; ++k) {
        const double s = from + k * wish.width_mm;
        lines.ticks_mm.push_back(s);
        const Vec2 start = placeAt(s);
        lines.tickSkin.push_back(start);
        for (const bool up : {true, false}) {
            if (!up && wish.below == BelowLateral::Nothing) continue;
            for (const bool toTail : {true, false}) {
                if (!up && wish.below == BelowLateral::Ribs && !toTail) continue;
                FoilLine line{s, toTail, {start}};
                Vec2 p = start;
                const double tangent = (toTail ? 1 : -1) * std::tan(degToRad(wish.lean_deg));
                for (;;) {
                    const SectionArc section = skin.arcAt(p.x());
                    const double room = up ? section.backArc_mm() - p.y() : p.y() + section.bellyArc_mm();
                    const double step = std::min(kStep_mm, room - 1e-3);
                    if (step < 1e-3) break;
                    const double dg = up ? step : -step;
                    const double lean = up ? tangent : -tangent;
                    const double half = p.x() + 0.5 * dg * leanPerGirth(skin, p.x(), p.y(), lean);
                    if (half <= skin.noseX_mm() + 0.05 || half >= skin.tailX_mm() - 0.05) break;
                    // Going down, leaning to the tail is the other way round by the sign of dg.
                    const double slope = leanPerGirth(skin, half, p.y() + dg / 2, lean);
                    const Vec2 next(p.x() + dg * slope, p.y() + dg);
                    if (next.x() <= skin.noseX_mm() + 0.05 || next.x() >= skin.tailX_mm() - 0.05 ||
                        overGill(next))
                        break;
                    p = next;
                    line.skin.push_back(p);
                }
                if (line.skin.size() > 2) (up ? lines.above : lines.below).push_back(std::move(line));
            }
        }
    }
    lines.length_mm = lines.ticks_mm.back() - lines.ticks_mm.front();
    // Where the line to the tail from a tick in the middle meets the one to the head from the next.
    const double middle = lines.ticks_mm[lines.ticks_mm.size() / 2];
    const auto find = [&](double s, bool toTail) -> const FoilLine* {
        for (const FoilLine& line : lines.above)
            if (std::abs(line.start_mm - s) < 1e-6 && line.toTail == toTail) return &line;
        return nullptr;
    };
    const FoilLine *a = find(middle - wish.width_mm, true), *b = find(middle, false);
    if (a && b)
        for (std::size_t i = 1; i < std::min(a->skin.size(), b->skin.size()); ++i)
            if (a->skin[i].x() >= b->skin[i].x()) {
                const double before = b->skin[i - 1].x() - a->skin[i - 1].x(),
                             after = b->skin[i].x() - a->skin[i].x();
                const double t = before / std::max(before - after, 1e-12);
                lines.height_mm = 2 * ((1 - t) * a->skin[i - 1].y() + t * a->skin[i].y() - a->skin[0].y());
                break;
            }
    return lines;
}

}  // namespace nine
