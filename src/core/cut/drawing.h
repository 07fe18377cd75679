// A true-size page of lines in layers, and the files it is written to.
//
// Coordinates are mm from the lower left corner, y up. Layer names are the contract: CUT, SCORE, PEN, TEXT.
// SVG has its origin at the upper left; svgPoint() converts. Numbers are written with four decimals (0.1 um).
#pragma once

#include <string>

#include "base/units.h"
#include "geom/polygon_set.h"

namespace nine {

struct DrawnLine {
    Polyline2 points;
    bool closed = false;
    bool filled = false;  ///< black within, for marks that are looked for in pictures; SVG and PDF only
    Fraction grey = -1;   ///< 0 black to 1 white instead of the layer's own; SVG and PDF only
};

struct Layer {
    std::string name;
    std::vector<DrawnLine> lines;
};

struct Drawing {
    std::string title;
    Vec2 size_mm;
    std::vector<Layer> layers;
};

Vec2 svgPoint(const Drawing& drawing, const Vec2& p);

/// Width, height and viewBox in mm, one group a layer with the layer's name as id.
std::string svgText(const Drawing& drawing);

/// DXF R2000 with $INSUNITS mm: one polyline a line, closed where it is, in layers of the names above; the
/// origin is the lower left corner. Six decimals. Source: the published DXF reference.
std::string dxfText(const Drawing& drawing);

/// One page a drawing (all kinds of sizes), PDF 1.5 with an optional content group a layer, so that a viewer
/// can switch layers. The page box is exact to 1e-6 points. Source: ISO 32000-1:2008, 8.11 and 14.11.2.
std::string pdfText(const std::vector<Drawing>& pages);

}  // namespace nine
