// The stretch of a flat mask as it is shown: averaged over about 1 mm, as the verdict's figures are felt by a
// sheet, in the colours of the ramp that ends at what the sheet takes.
#pragma once

#include <QImage>

#include "app/document/results.h"

namespace nine::app {

constexpr double kAveragedOver_mm = 1;

/// Largest principal strain at every vertex, averaged over its neighbourhood of kAveragedOver_mm. Fractions.
std::vector<double> averagedStretch(const FlatPatch& flat);

struct MapRequest {
    MaskPtr mask;
    SkinPtr skin;
    Side side = Side::Left;
    View3 view;                 ///< of the body, pixelsPerMm in device pixels
    int width = 0, height = 0;  ///< device pixels of the body's box
    double ratio = 1;           ///< device pixels for one of the window
};

/// What takes too long to be worked out while painting. Thread-safe; about 30 ms for 2000 vertices.
struct MaskDrawing {
    MapRequest request;
    std::vector<QImage> flats;  ///< of each sheet the box round its outline, clipped to it
    QImage onBody;              ///< the body's box; only what faces the viewer
    Vec2 worst = Vec2::Zero();  ///< where a sheet stretches most, the sheets side by side
    Vec3 worstOnBody = Vec3::Zero();
    std::vector<std::pair<Vec2, Vec2>> landed;  ///< where probes were wanted and came to lie, the same way
};
MaskDrawing drawMask(const MapRequest& request, const Task& task);

/// A point of the left side as it stands on `side`.
SurfacePoint onSide(Side side, SurfacePoint point);

}  // namespace nine::app
