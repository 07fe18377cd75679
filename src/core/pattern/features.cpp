#include "pattern/features.h"

#include <algorithm>
#include <cmath>

#include "pattern/bands.h"

namespace nine {
namespace {

constexpr double kWidest_mm = 2;  // nobody asks beyond

}  // namespace

Features featuresOf(const ElementArt& art) {
    Features features;
    std::vector<PolygonSet> openings;
    std::vector<Box2> boxes;
    for (const Outline& outline : art.outlines()) {
        if (!outline.hole) {
            openings.push_back({});
            boxes.push_back(boxAround({outline.skin}));
        }
        if (!openings.empty()) openings.back().push_back(outline.skin);
    }
    for (std::size_t i = 0; i < openings.size(); ++i) {
        const double width = narrowestPart_mm(openings[i], kWidest_mm);
        if (features.narrowest_mm == 0 || width < features.narrowest_mm) {
            features.narrowest_mm = width;
            features.narrowestAt = centroid(openings[i].front());
        }
        for (std::size_t k = 0; k < i; ++k) {
            const double least = features.web_mm > 0 ? features.web_mm : kWidest_mm;
            if (apart(boxes[i], boxes[k]) >= least) continue;
            const double web = std::max(1e-3, borderDistance(openings[i].front(), openings[k].front()));
            if (web >= least) continue;
            features.web_mm = web;
            features.webAt = 0.5 * (centroid(openings[i].front()) + centroid(openings[k].front()));
        }
    }
    return features;
}

}  // namespace nine
