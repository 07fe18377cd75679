#include "mask/slits_on_sheet.h"

#include <algorithm>
#include <cmath>

namespace nine {
namespace {

constexpr double kSpeck_mm2 = 0.05;  // left over where outlines are joined

/// How far the lips stand apart at the mouth; less than nothing where each lies beyond the other and the
/// sheet would have to be there twice.
double openingOf(const Polyline2& lip, const Polyline2& other) {
    const Vec2 way = other.front() - lip.front();
    const Vec2 inwards = (lip.back() - lip.front()).normalized();
    const double apart = way.norm();
    // A loop runs counter-clockwise, the sheet on its left: going in along the first lip, the wedge is on the
    // right.
    return inwards.x() * way.y() - inwards.y() * way.x() <= 0 ? apart : -apart;
}

}  // namespace

std::vector<SlitOnSheet> slitsOn(const FlatPatch& flat, const std::vector<Slit>& slits) {
    constexpr double kHere_mm = 1e-3;
    std::vector<SlitOnSheet> all;
    const std::vector<int>& loop = flat.patch.loops.front();
    const auto skinAt = [&](std::size_t i) { return flat.patch.skin[static_cast<std::size_t>(loop[i])]; };
    const auto flatAt = [&](std::size_t i) {
        return flat.map[static_cast<std::size_t>(loop[i % loop.size()])];
    };
    for (const Slit& slit : slits) {
        std::vector<std::size_t> mouths;
        std::optional<std::size_t> tip;
        for (std::size_t i = 0; i < loop.size(); ++i) {
            if ((skinAt(i) - slit.line.front()).norm() < kHere_mm) mouths.push_back(i);
            if ((skinAt(i) - slit.line.back()).norm() < kHere_mm) tip = i;
        }
        if (mouths.size() != 2 || !tip) continue;
        const std::size_t n = loop.size();
        // Going round the border one comes to one mouth, the tip, the other mouth.
        const auto ahead = [&](std::size_t from, std::size_t to) { return (to + n - from) % n; };
        std::size_t first = mouths[0], second = mouths[1];
        if (ahead(first, *tip) > ahead(first, second)) std::swap(first, second);
        SlitOnSheet here{slit, {}, {}, 0, false};
        for (std::size_t k = 0; k <= ahead(first, *tip); ++k) here.lip.push_back(flatAt(first + k));
        for (std::size_t k = 0; k <= ahead(*tip, second); ++k)
            here.otherLip.push_back(flatAt(second + n - k));
        here.mouth_mm = openingOf(here.lip, here.otherLip);
        all.push_back(std::move(here));
    }
    return all;
}

Polygon2 sharpAtMouths(const Polygon2& rounded, const FlatPatch& flat,
                       const std::vector<SlitOnSheet>& slits) {
    constexpr double kKept_mm = 1.5 * kCornerRadius_mm;
    if (slits.empty()) return rounded;
    Polygon2 border;
    for (const int v : flat.patch.loops.front()) border.push_back(flat.map[static_cast<std::size_t>(v)]);
    PolygonSet mouths;
    for (const SlitOnSheet& slit : slits)
        for (const Vec2& at : {slit.lip.front(), slit.otherLip.front()}) {
            const Polygon2 speck{at + Vec2(-0.01, -0.01), at + Vec2(0.01, -0.01), at + Vec2(0.01, 0.01),
                                 at + Vec2(-0.01, 0.01)};
            for (Polygon2& disc : offset({speck}, kKept_mm)) mouths.push_back(std::move(disc));
        }
    PolygonSet whole = united({rounded}, intersected({border}, united(mouths)));
    std::erase_if(whole, [](const Polygon2& ring) { return std::abs(polygonArea(ring)) < kSpeck_mm2; });
    return whole.size() == 1 ? whole.front() : rounded;
}

Polygon2 lapped(Polygon2 outline, std::vector<SlitOnSheet>& slits) {
    for (SlitOnSheet& slit : slits) {
        if (slit.mouth_mm < kLap_mm + kLapRoom_mm) continue;
        constexpr double kHold_mm = 0.05;  // into the sheet, whose border was rounded to hundredths
        Polygon2 lap;
        const Polyline2& lip = slit.lip;
        std::vector<Vec2> beyond;
        for (std::size_t i = 0; i + 1 < lip.size(); ++i) {
            double room = 1e300;
            for (const Vec2& other : slit.otherLip) room = std::min(room, (other - lip[i]).norm());
            if (room < kLap_mm + kLapRoom_mm) break;
            const Vec2 along = (lip[i + 1] - lip[i == 0 ? 0 : i - 1]).normalized();
            const Vec2 outwards(along.y(), -along.x());  // the wedge lies to the right of the first lip
            lap.push_back(lip[i] - kHold_mm * outwards);
            beyond.push_back(lip[i] + kLap_mm * outwards);
        }
        if (lap.size() < 2) continue;
        lap.insert(lap.end(), beyond.rbegin(), beyond.rend());
        if (polygonArea(lap) < 0) std::reverse(lap.begin(), lap.end());
        PolygonSet with = united({outline}, {lap});
        std::erase_if(with, [](const Polygon2& ring) { return std::abs(polygonArea(ring)) < kSpeck_mm2; });
        if (with.size() != 1) continue;
        outline = with.front();
        slit.lapped = true;
    }
    return outline;
}

void warnOfOverlap(const std::vector<SlitOnSheet>& slits, const std::string& where, Warnings& warnings) {
    constexpr double kOver_mm = 0.05;
    for (const SlitOnSheet& slit : slits) {
        if (slit.mouth_mm > -kOver_mm) continue;
        warnings.push_back(
            {"slit_closes",
             Words(NINE_WORDS("core",
                              "The slit {x} from the nose does not open on the flat but overlaps by "
                              "{over}: it helps nothing there. Take it out or move it."))
                 .length("x", slit.skin.line.front().x(), 0)
                 .length("over", -slit.mouth_mm, 1),
             where});
    }
}

}  // namespace nine
