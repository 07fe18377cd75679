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
    /// Its inverse; what is off the body comes to its edge.
    Vec2 textureOf(const SkinPoint& skin) const;
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

/// One spraying of a mark, as it is painted into the picture.
struct PaintedArt {
    const std::vector<Outline>* outlines;  ///< openings and what is left bare in them; may be none
    std::uint32_t colour;
    bool left, right;
    Fraction strength = 1;             ///< how much of what is under it is hidden
    const SoftCover* cover = nullptr;  ///< of what has no outlines
};

/// "#rrggbb" as 0xFFRRGGBB; `fallback` if it is empty or wrong.
std::uint32_t colourOf(const std::string& text, std::uint32_t fallback);
/// The colour an element is shown in; those that have none take turns by their place in the pattern.
std::uint32_t colourOf(const Element& element, std::size_t index);

/// Adds the passes of an element, as they stand on each side. `right` is the right side's own art, or null
/// when it is the left one's mirror image.
void addPainted(std::vector<PaintedArt>& painted, const Element& element, std::size_t index,
                const ElementArt& left, const ElementArt* right);

/// What is painted is where outlines wind round, so marks that overlap are not cut out of each other. Edges
/// are smoothed over `subRows` lines a row. About 10 ms and the area of the marks; a cover 30 ms a million
/// places.
Image paintSkin(const DrawnBody& body, const Ground& ground, const std::vector<PaintedArt>& art, int columns,
                int rows, int subRows = 1);

}  // namespace nine
