// One piece of sheet to be cut out: its outline, the windows in it, and what is drawn on it with a pen.
//
// Coordinates are mm on the piece, y up, seen from the side that will be painted. What masks are is
// not known here.
#pragma once

#include <string>

#include "geom/polygon_set.h"

namespace nine {

struct PieceWindow {
    std::string element;  ///< id of what it was cut for; empty for a hole, where no sheet is to be
    Polygon2 outline;
    PolygonSet islands = {};  ///< pieces of sheet that stand free inside
};

struct Piece {
    std::string id;         ///< unique among the pieces of a job
    std::string mask = {};  ///< id of the mask it is a sheet of
    std::size_t sheet = 0;  ///< which of its sheets
    std::string name = {};
    char side = 'L';
    std::string stock = {};  ///< what kind of sheet it is cut from, in words
    Polygon2 outline = {};
    std::vector<PieceWindow> windows = {};
    std::vector<Polyline2> pen = {};  ///< marks and lettering, open lines

    /// Around everything, lettering beside the piece included.
    Box2 box() const;
};

/// What stands on a piece: one or more lines of text, and an arrow that points to the fish's nose.
struct PieceLabel {
    std::vector<std::string> lines;
    Vec2 towardsNose;  ///< unit, along x
};

/// Writes the label where it touches neither windows, pen lines nor the edge: as large as fits, on one line
/// or several. Returns false if nothing fits on the piece; the label then stands below it. About 5 ms.
bool writeLabel(Piece& piece, const PieceLabel& label);

/// A registration mark: a cross whose centre is the exact place, with its letter on the side of `inward`.
std::vector<Polyline2> crossMark(const Vec2& at, char letter, const Vec2& inward);

/// Where a finger presses: a ring of a fingertip's middle with its number beside it.
std::vector<Polyline2> fingerMark(const Vec2& at, int number);

/// Writes a few letters into a window, so that what is cut out can be told apart: as large as fits, up to
/// 2.6 mm. False, and nothing written, where not even 1 mm fits.
bool writeIn(Piece& piece, const Polygon2& window, const std::string& letters);

}  // namespace nine
