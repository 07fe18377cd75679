// The skin as a picture, for textures: columns run round the body from the left datum line over the back, the
// right side and the belly; rows run from nose to tail, evenly along the skin like those of a SkinGrid.
#pragma once

#include "base/units.h"
#include "blank/skin_grid.h"
#include "geom/rasteriser.h"
#include "pattern/art.h"

namespace nine {

/// A body ready to be drawn, and what takes places of its picture back to skin coordinates.
struct DrawnBody {
    TexturedMesh mesh;
    int rows = 0, columns = 0;                          ///< of the mesh
    std::vector<double> x_mm, backArc_mm, bellyArc_mm;  ///< of evenly spaced rows of the picture

    /// The skin point at a place of the picture (0..1 each).
    SkinPoint skinAt(const Vec2& texture) const;
    /// Row of the picture (0..1) at x.
    Ratio rowAt(double x_mm) const;
    /// Place on the mesh of a point of the left side, between its vertices.
    SurfacePoint near(const Vec2& skin) const;
};

/// 140 x 72 points: 20k triangles. About 30 ms.
DrawnBody drawBody(const Skin& skin);

/// An outline moved by `shift` in x, g onto a body of another shape, at once: for drawing while the body is
/// dragged. Off the exact place by what the mesh's triangles are (0.05 mm), and by how much its shape
/// changed.
Outline carried(Outline outline, const DrawnBody& body, const Vec2& shift);

/// Colours of the body before any mark, faded into each other round the girth.
struct Ground {
    std::uint32_t back = 0xFFB5AF9F, side = 0xFFB5AF9F, belly = 0xFFB5AF9F;  ///< a bare blank
    bool operator==(const Ground&) const = default;
};

struct PaintedArt {
    const std::vector<Outline>* outlines;
    std::uint32_t colour;
    bool left, right;
};

/// About 10 ms and the area of the marks.
Image paintSkin(const DrawnBody& body, const Ground& ground, const std::vector<PaintedArt>& art, int columns,
                int rows);

}  // namespace nine
