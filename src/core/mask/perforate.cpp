#include "mask/perforate.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <set>
#include <unordered_map>

#include "geom/balance.h"
#include "geom/solid_share.h"
#include "pattern/bands.h"

namespace nine {
namespace {

constexpr double kLongestEdge_mm = 0.6, kShortestEdge_mm = 0.12;
constexpr double kEdgeOverGap = 0.5;  // so that a ribbon is three or four triangles wide
constexpr double kGap_mm = 1.2;       // nobody looks farther for the next rim

/// Places of rims by cells, to find the nearest of another ring.
class RimFinder {
  public:
    explicit RimFinder(const PolygonSet& rings) {
        for (std::size_t r = 0; r < rings.size(); ++r)
            for (const Vec2& p : rings[r]) cells_[cellOf(p, 0, 0)].push_back({p, r});
    }
    /// kGap_mm when there is none nearer.
    double gapAt(const Vec2& p, std::size_t ring) const {
        double nearest = kGap_mm;
        for (int i = -1; i <= 1; ++i)
            for (int k = -1; k <= 1; ++k)
                if (const auto cell = cells_.find(cellOf(p, i, k)); cell != cells_.end())
                    for (const auto& [q, other] : cell->second)
                        if (other != ring) nearest = std::min(nearest, (q - p).norm());
        return nearest;
    }

  private:
    static std::int64_t cellOf(const Vec2& p, int i, int k) {
        return (static_cast<std::int64_t>(std::floor(p.x() / kGap_mm)) + i) * 1000003 +
               static_cast<std::int64_t>(std::floor(p.y() / kGap_mm)) + k;
    }
    std::unordered_map<std::int64_t, std::vector<std::pair<Vec2, std::size_t>>> cells_;
};

/// Fewer places, none of those left out farther than the sag from the line between those that are kept.
Polygon2 thinned(const Polygon2& ring, std::size_t number, const RimFinder& rims) {
    const std::size_t n = ring.size();
    Polygon2 kept{ring.front()};
    std::size_t at = 0;
    while (at < n) {
        const double longest =
            std::clamp(kEdgeOverGap * rims.gapAt(ring[at % n], number), kShortestEdge_mm, kLongestEdge_mm);
        std::size_t next = at + 1;
        for (std::size_t j = at + 2; j <= n; ++j) {
            const Vec2 way = ring[j % n] - ring[at];
            const double length = way.norm();
            if (length > longest || length < 1e-9) break;
            bool near = true;
            for (std::size_t m = at + 1; near && m < j; ++m)
                near = std::abs(cross(way, ring[m] - ring[at])) <= kRimSag_mm * length;
            if (!near) break;
            next = j;
        }
        at = next;
        if (at < n) kept.push_back(ring[at]);
    }
    return kept;
}

int nearestVertex(const PatchMesh& patch, const Vec2& place) {
    std::size_t best = 0;
    for (std::size_t v = 1; v < patch.skin.size(); ++v)
        if ((patch.skin[v] - place).squaredNorm() < (patch.skin[best] - place).squaredNorm()) best = v;
    return static_cast<int>(best);
}

/// Parts the loops round windows from the borders of the sheet.
void partRims(PatchMesh& patch, const Region& cut, std::size_t ownHoles) {
    const auto key = [](const Vec2& p) {
        constexpr double kGrid = 1e3;
        return std::pair(std::llround(kGrid * p.x()), std::llround(kGrid * p.y()));
    };
    std::set<std::pair<long long, long long>> onRims;
    for (std::size_t h = ownHoles; h < cut.holes.size(); ++h)
        for (const Vec2& p : cut.holes[h]) onRims.insert(key(p));
    const auto isRim = [&](const std::vector<int>& loop) {
        return std::any_of(loop.begin(), loop.end(), [&](int v) {
            return onRims.count(key(patch.skin[static_cast<std::size_t>(v)])) > 0;
        });
    };
    for (std::size_t k = 1; k < patch.loops.size();) {
        if (isRim(patch.loops[k])) {
            patch.rims.push_back(std::move(patch.loops[k]));
            patch.loops.erase(patch.loops.begin() + static_cast<std::ptrdiff_t>(k));
        } else {
            ++k;
        }
    }
}

/// A hair inside its own triangles, for each vertex that shares its place with the other lip of a slit.
std::vector<std::optional<Vec2>> besideSlits(const PatchMesh& patch) {
    constexpr double kHair_mm = 0.02;
    std::map<std::pair<double, double>, int> seen;
    for (const Vec2& p : patch.skin) ++seen[{p.x(), p.y()}];
    std::vector<Vec2> inwards(patch.skin.size(), Vec2::Zero());
    for (const Triangle& t : patch.mesh.triangles)
        for (std::size_t k = 0; k < 3; ++k) {
            const auto v = [&](std::size_t i) {
                return patch.skin[static_cast<std::size_t>(t[(k + i) % 3])];
            };
            inwards[static_cast<std::size_t>(t[k])] += (v(1) + v(2) - 2 * v(0)).normalized();
        }
    std::vector<std::optional<Vec2>> places(patch.skin.size());
    for (std::size_t v = 0; v < places.size(); ++v)
        if (seen[{patch.skin[v].x(), patch.skin[v].y()}] > 1 && inwards[v].norm() > 1e-9)
            places[v] = patch.skin[v] + kHair_mm * inwards[v].normalized();
    return places;
}

/// Takes openings that reach the edge, or leave only a hair of sheet there, out of the sheet's outline. False
/// when nothing whole is left.
bool notched(Region& sheet, PolygonSet& openings) {
    constexpr Fraction kMostTaken = 0.5;
    PolygonSet atEdge;
    std::erase_if(openings, [&](const Polygon2& ring) {
        if (borderDistance(ring, sheet.outer) >= kShortestEdge_mm) return false;
        atEdge.push_back(ring);
        return true;
    });
    if (atEdge.empty()) return true;
    constexpr double kApart_mm = 0.03, kSpeck_mm2 = 0.2;
    // A hair that is left beyond an opening would be cut away with it.
    PolygonSet left =
        subtracted({sheet.outer}, offset(offset(united(atEdge), kShortestEdge_mm), -kShortestEdge_mm));
    left = subtracted(left, united(atEdge));
    left = offset(offset(left, -0.5 * kShortestEdge_mm), 0.5 * kShortestEdge_mm);
    left = withoutCloseCorners(left, kApart_mm);
    std::erase_if(left, [&](const Polygon2& ring) { return std::abs(polygonArea(ring)) < kSpeck_mm2; });
    if (left.size() != 1 || polygonArea(left.front()) < kMostTaken * polygonArea(sheet.outer)) return false;
    sheet.outer = left.front();
    return true;
}

}  // namespace

std::optional<Region> perforated(const Region& region, const std::vector<const ElementArt*>& opens) {
    PolygonSet art;
    for (const ElementArt* element : opens)
        for (const Polygon2& ring : ringsOf(element->outlines())) art.push_back(ring);
    if (art.empty()) return std::nullopt;
    PolygonSet openings;
    for (Polygon2& ring : united(art))
        if (polygonArea(ring) > 0) openings.push_back(std::move(ring));
    // An opening in the island of another goes with the island.
    std::vector<Box2> boxes;
    for (const Polygon2& ring : openings) boxes.push_back(boxAround({ring}));
    PolygonSet cut;
    for (std::size_t i = 0; i < openings.size(); ++i) {
        bool inner = false;
        for (std::size_t k = 0; k < openings.size() && !inner; ++k)
            inner = k != i && apart(boxes[i], boxes[k]) <= 0 && contains(openings[k], openings[i].front());
        if (!inner) cut.push_back(openings[i]);
    }
    Region sheet = region;
    if (!notched(sheet, cut)) return std::nullopt;
    PolygonSet around = sheet.holes;
    around.push_back(sheet.outer);
    for (const Polygon2& ring : cut) {
        if (!contains(sheet.outer, ring.front())) return std::nullopt;
        for (const Polygon2& border : around)
            if (borderDistance(ring, border) < kShortestEdge_mm) return std::nullopt;
        for (const Polygon2& hole : sheet.holes)
            if (contains(hole, ring.front()) || contains(ring, hole.front())) return std::nullopt;
    }
    PolygonSet all = cut;
    all.insert(all.end(), around.begin(), around.end());
    const RimFinder rims(subdivided(all, kLongestEdge_mm));  // a border may be one long line
    Region result = sheet;
    for (std::size_t i = 0; i < cut.size(); ++i) {
        Polygon2 rim = thinned(cut[i], i, rims);
        std::reverse(rim.begin(), rim.end());
        result.holes.push_back(std::move(rim));
    }
    return result;
}

std::optional<Ribbon> mostSlender(const Region& region, std::size_t first) {
    PolygonSet rims(region.holes.begin() + static_cast<std::ptrdiff_t>(first), region.holes.end());
    constexpr double kStep_mm = 0.15, kWidens = 2;
    const std::size_t windows = rims.size();
    rims.push_back(region.outer);
    rims.insert(rims.end(), region.holes.begin(), region.holes.begin() + static_cast<std::ptrdiff_t>(first));
    rims = subdivided(std::move(rims), kStep_mm);
    const RimFinder finder(rims);
    std::optional<Ribbon> worst;
    for (std::size_t r = 0; r < windows; ++r) {
        const Polygon2& rim = rims[r];
        const std::size_t n = rim.size();
        std::vector<double> gaps;
        for (const Vec2& p : rim) gaps.push_back(finder.gapAt(p, r));
        // From each narrowest place both ways, as long as it is no wider than twice that.
        for (std::size_t i = 0; i < n; ++i) {
            const double width = gaps[i];
            if (width >= kGap_mm || width > gaps[(i + 1) % n] || width > gaps[(i + n - 1) % n]) continue;
            double length = 0;
            for (const std::size_t way : {std::size_t{1}, n - 1})
                for (std::size_t k = i, steps = 0; steps < n / 2; ++steps) {
                    const std::size_t next = (k + way) % n;
                    if (gaps[next] >= std::min(kGap_mm, kWidens * width)) break;
                    length += (rim[next] - rim[k]).norm();
                    k = next;
                }
            const Ribbon ribbon{length, std::max(width, 1e-3), SkinPlace(rim[i])};
            if (!worst || ribbon.slenderness() > worst->slenderness()) worst = ribbon;
        }
    }
    return worst;
}

Result<PerforatedPatch> perforatedPatch(const Skin& skin, std::shared_ptr<const FlatPatch> sheet,
                                        const Region& cut, int vertices, const std::string& where,
                                        const Task& task, std::size_t mostRimPlaces) {
    const FlatPatch& whole = *sheet;
    PerforatedPatch result;
    FlatPatch& flat = result.flat;
    const auto ownHoles = static_cast<std::ptrdiff_t>(whole.patch.loops.size()) - 1;
    std::size_t places = 0;
    for (auto hole = cut.holes.begin() + ownHoles; hole != cut.holes.end(); ++hole) places += hole->size();
    Region meshed = cut;
    if (places > mostRimPlaces) {
        flat.openings.assign(cut.holes.begin() + ownHoles, cut.holes.end());
        meshed.holes.resize(static_cast<std::size_t>(ownHoles));
    }
    Result<PatchMesh> mesh = meshInTriangles(skin, meshed, vertices, where, whole.patch.marks);
    if (!mesh) return mesh.error();
    flat.patch = std::move(*mesh);
    flat.patch.marks = whole.patch.marks;
    flat.patch.across_mm = whole.patch.across_mm;
    flat.patch.along_mm = whole.patch.along_mm;
    flat.patch.turnAcross_rad = whole.patch.turnAcross_rad;
    flat.patch.turnAlong_rad = whole.patch.turnAlong_rad;
    partRims(flat.patch, meshed, static_cast<std::size_t>(ownHoles));
    if (!flat.openings.empty()) {
        const SolidShare solid(meshed.outer, flat.openings);
        for (const Triangle& t : flat.patch.mesh.triangles) {
            Vec2 middle = Vec2::Zero();
            for (const int v : t) middle += flat.patch.skin[static_cast<std::size_t>(v)] / 3;
            flat.patch.mesh.stiffness.push_back(solid.stiffnessAt(middle));
        }
    }
    const SheetMap drawn = sheetMapOf(whole);
    const SheetCarrier carrier(whole.patch.pairedWith(whole.map));
    const std::vector<std::optional<Vec2>> beside = besideSlits(flat.patch);
    for (std::size_t v = 0; v < flat.patch.skin.size(); ++v) {
        const SurfacePoint& place = flat.patch.mesh.vertices[v];
        if (beside[v]) {  // of this lip, not of the other
            const SurfacePoint near = skin.at({Side::Left, beside[v]->x(), beside[v]->y()});
            if (const auto lip = drawn.at(SkinPlace(*beside[v]), near, kRimSlack_mm)) {
                flat.map.push_back(*lip);
                continue;
            }
        }
        // The border of the whole sheet is a chord here and there: what lies a little beyond is carried.
        const std::optional<SheetPlace> at = drawn.at(SkinPlace(flat.patch.skin[v]), place, kRimSlack_mm);
        flat.map.push_back(at ? *at : carrier.at(place));
    }
    const std::array<int, 2> held{nearestVertex(flat.patch, flat.patch.marks.front()),
                                  nearestVertex(flat.patch, flat.patch.marks.back())};
    Result<FlatMap> balanced = balancedMap(flat.patch.mesh, flat.map, held, task);
    if (!balanced && balanced.error().code == "cancelled") return balanced.error();
    result.balanced = static_cast<bool>(balanced);
    if (balanced) flat.map = std::move(*balanced);
    flat.rest = restMesh(flat.patch.mesh);
    flat.strains = strainsOf(flat.rest, flat.map);
    flat.strain = summarize(flat.rest, flat.strains);
    flat.whole = std::move(sheet);
    return result;
}

CutPlaces::CutPlaces(const FlatPatch& flat) : cut_(sheetMapOf(flat)) {
    if (!flat.whole) return;
    whole_.emplace(sheetMapOf(*flat.whole));
    // Openings at the edge have no rim of their own: the outline goes round them.
    std::vector<std::vector<int>> rims = flat.patch.rims;
    rims.push_back(flat.patch.loops.front());
    for (const std::vector<int>& rim : rims) {
        for (const int i : rim) {
            const auto v = static_cast<std::size_t>(i);
            const auto before =
                whole_->at(SkinPlace(flat.patch.skin[v]), flat.patch.mesh.vertices[v], kRimSlack_mm);
            if (before) rims_.emplace_back(flat.patch.skin[v], flat.map[v] - *before);
        }
    }
}

std::optional<SheetPlace> CutPlaces::at(const SkinPlace& where, const SurfacePoint& place) const {
    std::optional<SheetPlace> at = cut_.at(where, place, kRimSlack_mm);
    if (at || !whole_ || rims_.empty()) return at;
    at = whole_->at(where, place, kRimSlack_mm);
    if (!at) return at;
    const auto nearest = std::min_element(rims_.begin(), rims_.end(), [&](const auto& a, const auto& b) {
        return (a.first - where).squaredNorm() < (b.first - where).squaredNorm();
    });
    return SheetPlace(*at + nearest->second);
}

}  // namespace nine
