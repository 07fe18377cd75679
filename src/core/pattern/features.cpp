#include "pattern/features.h"

#include <algorithm>
#include <cmath>

#include "pattern/bands.h"

namespace nine {
namespace {

constexpr double kLost = 0.02;    // of an opening's area
constexpr double kWidest_mm = 2;  // nobody asks beyond
constexpr int kHalvings = 7;

/// Of one opening with its holes.
double narrowest(const PolygonSet& opening) {
    const double whole = area(opening);
    const auto fits = [&](double width) {
        const double left = area(offset(offset(opening, -0.5 * width), 0.5 * width));
        return whole - left <= kLost * whole;
    };
    double low = 0, high = kWidest_mm;
    if (fits(high)) return high;
    for (int k = 0; k < kHalvings; ++k) {
        const double middle = 0.5 * (low + high);
        (fits(middle) ? low : high) = middle;
    }
    return low;
}

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
        const double width = narrowest(openings[i]);
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
