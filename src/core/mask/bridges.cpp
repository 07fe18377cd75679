#include "mask/bridges.h"

#include <algorithm>
#include <cmath>

#include "pattern/bands.h"

namespace nine {
namespace {

constexpr double kAlongRim_mm = 0.15;
constexpr double kInto_mm = 0.4;  // a strip reaches so far into the sheet on both sides, and half its width:
                                  // the rim may fall back beside it
constexpr double kLongIsland_mm = 24;    // round it: a third bridge
constexpr double kRoundFromNext = 0.55;  // of an even share of the way round
constexpr double kNearIsland_mm = 12;    // a bridge put by hand holds no island further away

struct Crossing2 {
    Vec2 island, rim;
    double along;  // way round the island, 0..1
    double gap_mm() const { return (rim - island).norm(); }
};

/// The nearest place of the rim for places all round the island.
std::vector<Crossing2> crossingsOf(const Polygon2& island, const Polygon2& rim) {
    const Polygon2 inner = subdivided({island}, kAlongRim_mm).front(),
                   outer = subdivided({rim}, kAlongRim_mm).front();
    std::vector<Crossing2> all;
    for (std::size_t i = 0; i < inner.size(); ++i) {
        const auto nearest = std::min_element(outer.begin(), outer.end(), [&](const Vec2& a, const Vec2& b) {
            return (a - inner[i]).squaredNorm() < (b - inner[i]).squaredNorm();
        });
        all.push_back({inner[i], *nearest, static_cast<double>(i) / static_cast<double>(inner.size())});
    }
    return all;
}

std::vector<Crossing2> bestOf(std::vector<Crossing2> all, int count) {
    std::sort(all.begin(), all.end(),
              [](const Crossing2& a, const Crossing2& b) { return a.gap_mm() < b.gap_mm(); });
    std::vector<Crossing2> chosen;
    for (const Crossing2& c : all) {
        const bool near = std::any_of(chosen.begin(), chosen.end(), [&](const Crossing2& other) {
            const double apart = std::abs(c.along - other.along);
            return std::min(apart, 1 - apart) < kRoundFromNext / count;
        });
        if (!near) chosen.push_back(c);
        if (static_cast<int>(chosen.size()) == count) break;
    }
    return chosen;
}

/// The crossings nearest to places given by hand.
std::vector<Crossing2> nearestTo(const std::vector<Crossing2>& all, const std::vector<Vec2>& places) {
    std::vector<Crossing2> chosen;
    for (const Vec2& place : places) {
        const auto off = [&](const Crossing2& c) { return (0.5 * (c.island + c.rim) - place).squaredNorm(); };
        chosen.push_back(*std::min_element(all.begin(), all.end(),
                                           [&](const auto& a, const auto& b) { return off(a) < off(b); }));
    }
    return chosen;
}

/// Of the islands the one each place was put at: the nearest, or none.
std::vector<std::size_t> islandsOf(const std::vector<Vec2>& places,
                                   const std::vector<const Polygon2*>& islands) {
    std::vector<std::size_t> owner;
    for (const Vec2& place : places) {
        double nearest = kNearIsland_mm;
        std::size_t which = islands.size();
        for (std::size_t i = 0; i < islands.size(); ++i)
            for (const Vec2& p : *islands[i])
                if ((p - place).norm() < nearest) {
                    nearest = (p - place).norm();
                    which = i;
                }
        owner.push_back(which);
    }
    return owner;
}

Polygon2 stripOf(const Crossing2& c, double width_mm) {
    const Vec2 way = (c.rim - c.island).normalized(), side(-way.y(), way.x());
    const Vec2 into = (kInto_mm + 0.5 * width_mm) * way, from = c.island - into, to = c.rim + into;
    const Vec2 half = 0.5 * width_mm * side;
    return {from - half, to - half, to + half, from + half};
}

/// Of the elements the one whose art holds a ring that was cut from them all.
std::size_t ownerOf(const Polygon2& ring, const std::vector<PolygonSet>& arts) {
    std::size_t best = 0;
    double most = -1;
    for (std::size_t e = 0; e < arts.size(); ++e) {
        const double shared = area(intersected({ring}, arts[e]));
        if (shared > most) {
            most = shared;
            best = e;
        }
    }
    return best;
}

/// The bridges across the openings of `whole`; their middles go into `middles`.
PolygonSet stripsAcross(const PolygonSet& whole, const BridgeWish& wish, double width_mm,
                        std::vector<SkinPlace>& middles) {
    std::vector<const Polygon2*> islands;
    for (const Polygon2& ring : whole)
        if (polygonArea(ring) <= -kLeastIsland_mm2) islands.push_back(&ring);
    const std::vector<std::size_t> byHand = islandsOf(wish.at, islands);
    PolygonSet strips;
    for (std::size_t i = 0; i < islands.size(); ++i) {
        const Polygon2& island = *islands[i];
        const Polygon2* rim = nullptr;  // the innermost round it
        for (const Polygon2& ring : whole)
            if (polygonArea(ring) > 0 && contains(ring, island.front()) &&
                (!rim || polygonArea(ring) < polygonArea(*rim)))
                rim = &ring;
        if (!rim) continue;
        std::vector<Vec2> places;
        for (std::size_t k = 0; k < byHand.size(); ++k)
            if (byHand[k] == i) places.push_back(wish.at[k]);
        std::vector<Crossing2> ways = crossingsOf(island, *rim);
        const int count = perimeter(island) > kLongIsland_mm ? 3 : 2;
        for (const Crossing2& c : places.empty() ? bestOf(std::move(ways), count) : nearestTo(ways, places)) {
            strips.push_back(stripOf(c, width_mm));
            middles.emplace_back(0.5 * (c.island + c.rim));
        }
    }
    return strips;
}

}  // namespace

double bridgeWidth_mm(std::string_view material) {
    return material == "film" ? 0.6 : 0.8;
}

BridgedSheet bridged(const Skin& skin, SheetPlan plan, const BridgeWish& wish, double width_mm) {
    BridgedSheet result{std::move(plan)};
    result.plan.looseIslands = wish.loose;
    if (wish.loose) return result;
    std::vector<PolygonSet> arts;
    PolygonSet all;
    for (const ElementArt* art : result.plan.opens) {
        arts.push_back(united(ringsOf(art->outlines())));
        all.insert(all.end(), arts.back().begin(), arts.back().end());
    }
    const PolygonSet whole = united(all);
    const PolygonSet strips = stripsAcross(whole, wish, width_mm, result.plan.bridges);
    if (strips.empty()) return result;
    const PolygonSet left = subtracted(whole, united(strips));
    result.lost_mm2 = area(whole) - area(left);
    // The openings that are left, given back to the elements they were cut from. Holes go with the ring round
    // them.
    std::vector<PolygonSet> given(arts.size());
    std::vector<std::pair<const Polygon2*, std::size_t>> rims;
    for (const Polygon2& ring : left) {
        if (polygonArea(ring) <= 0) continue;
        rims.emplace_back(&ring, ownerOf(ring, arts));
        given[rims.back().second].push_back(ring);
    }
    for (const Polygon2& ring : left) {
        if (polygonArea(ring) > 0) continue;
        for (const auto& [rim, owner] : rims)
            if (contains(*rim, ring.front())) {
                given[owner].push_back(ring);
                break;
            }
    }
    for (std::size_t e = 0; e < arts.size(); ++e) {
        auto art = std::make_shared<ElementArt>(*result.plan.opens[e]);
        art->passes.front().outlines = outlinesOf(skin, given[e]);
        result.plan.opens[e] = art.get();
        result.plan.made.push_back(std::move(art));
    }
    return result;
}

}  // namespace nine
