#include "pattern/cuttable.h"

#include <algorithm>

namespace nine {
namespace {

/// An opening and the islands in it.
std::vector<PolygonSet> apiece(const PolygonSet& rings) {
    std::vector<PolygonSet> parts;
    for (const Polygon2& ring : rings)
        if (polygonArea(ring) > 0) parts.push_back({ring});
    for (const Polygon2& hole : rings) {
        if (polygonArea(hole) > 0) continue;
        PolygonSet* innermost = nullptr;
        for (PolygonSet& part : parts)
            if (contains(part.front(), hole.front()) &&
                (!innermost || polygonArea(part.front()) < polygonArea(innermost->front())))
                innermost = &part;
        if (innermost) innermost->push_back(hole);
    }
    return parts;
}

/// Cuts back what stands too near, each by what the other reaches into it; true if anything did.
bool setApart(std::vector<PolygonSet>& parts, double least_mm) {
    constexpr double kAndABit = 1.05;  // the two faces are not parallel
    std::vector<Box2> boxes;
    for (const PolygonSet& part : parts) boxes.push_back(boxAround(part));
    bool any = false;
    for (std::size_t i = 0; i < parts.size(); ++i) {
        for (std::size_t k = i + 1; k < parts.size(); ++k) {
            if (parts[i].empty() || parts[k].empty() || apart(boxes[i], boxes[k]) >= least_mm) continue;
            const double gap = borderDistance(parts[i].front(), parts[k].front());
            if (gap >= least_mm) continue;
            const double bite = kAndABit * 0.5 * (gap + least_mm);
            any = true;
            const PolygonSet first = parts[i];
            parts[i] = subtracted(first, offset(parts[k], bite));
            parts[k] = subtracted(parts[k], offset(first, bite));
        }
    }
    return any;
}

/// Shrunk and grown again, or the other way round.
PolygonSet twiceOffset(const PolygonSet& rings, double by_mm) {
    constexpr double kClose_mm = 0.004;
    return withoutCloseCorners(offset(withoutCloseCorners(offset(rings, by_mm), kClose_mm), -by_mm),
                               kClose_mm);
}

}  // namespace

PolygonSet cuttable(PolygonSet rings, double least_mm) {
    constexpr int kRounds = 12;
    const double half = 0.5 * least_mm, least_mm2 = 0.25 * kPi * least_mm * least_mm;
    rings = twiceOffset(rings, half);
    for (int round = 0; round < kRounds; ++round) {
        rings = twiceOffset(rings, -half);
        std::vector<PolygonSet> parts = apiece(rings);
        std::erase_if(parts, [&](const PolygonSet& part) { return area(part) < least_mm2; });
        const bool moved = setApart(parts, least_mm);
        rings.clear();
        for (PolygonSet& part : parts) rings.insert(rings.end(), part.begin(), part.end());
        if (!moved) break;
    }
    return rings;
}

}  // namespace nine
