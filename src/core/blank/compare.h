// How two blanks differ, measured with both noses at 0.
#pragma once

#include "blank/measure.h"

namespace nine {

struct BlankDifference {
    struct At {
        double x_mm;                         ///< from the nose
        double top_mm, bottom_mm, width_mm;  ///< second minus first; width is the whole width
        double girth_mm;
    };
    double length_mm, area_mm2, volume_mm3;  ///< second minus first
    std::vector<At> places;                  ///< along what both have
    double outlineWorst_mm, outlineRms_mm;   ///< of top, bottom and half width
    double girthWorst_mm;
};

/// At `count` places, even along the shorter body. About 0.2 s, most of it both areas.
BlankDifference compareBlanks(const Skin& first, const Skin& second, int count = 41);

}  // namespace nine
