// A lattice of cut scales tried on a body, before it is an element of a pattern.
#pragma once

#include "blank/landmarks.h"
#include "pattern/element.h"

namespace nine {

struct CutScales {
    int cells = 0;  ///< on one side
    int cellsAlongLateral = 0;
    Ratio aspect_min = 1, aspect_max = 1;       ///< height over length against the asked
    Fraction opening_min = 0, opening_max = 0;  ///< of a cell, web left out
    double narrowest_mm = 0;                    ///< the smallest opening's narrower measure
    Vec2 region_mm = Vec2::Zero();              ///< along and round the side
};

/// Lozenges of `pitch_mm`, `tall` times as high as long, all over the side, not graded, as an element for a
/// pattern.
Element cutScalesElement(double pitch_mm, Ratio tall, double web_mm);
bool isCutScales(const Element& element);
/// Scales through a net, as they are shown: cells so long and high, that share of them thread.
Element netScalesElement(double along_mm, double across_mm, Fraction thread);
/// Errors: those of the kind's limits and draw().
Result<CutScales> readCutScales(const Skin& skin, const Landmarks& landmarks, const Element& element,
                                const Task& task = {});

}  // namespace nine
