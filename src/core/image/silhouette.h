// The silhouette of a body on a plain ground.
//
// The ground is a plane in L*a*b* fitted to the picture's border, so a light that falls off to one side does
// no harm (ground.h). What differs from it by Otsu's threshold is body, and so is what hangs on to that and
// leaves the ground's unevenness: pale bellies belong to it. What is only darker, of the ground's colour and
// softly bordered is a shadow and taken off (shadow.h); rings, wires and bills are taken off by what they
// are, parts that a bar of the ground's colour cuts off are joined again (attached.h). The edge is then
// followed all round, below what was taken off too, and placed half way between body and ground (border.h).
// Strokes say what belongs to the body or does not, and are final.
#pragma once

#include "base/result.h"
#include "base/task.h"
#include "base/units.h"
#include "image/picture.h"
#include "image/stroke.h"

namespace nine {

struct SilhouetteWish {
    std::vector<Stroke2> strokes;
    double thin_px = 0;  ///< things up to this wide are left out; 0 picks 1/60 of the body's length
    std::vector<Vec2> putBack = {};  ///< what was taken off here (TakenOff) belongs to the body
};

/// Something that hung on to the body, or lay beside it, and was taken off.
struct TakenOff {
    enum class Kind { Thin, Bill, Shadow };  ///< a ring, a hook or a wire; a bill; what is only darker ground
    Kind kind = Kind::Thin;
    Polyline2 outline;      ///< closed, pixels of the picture
    Vec2 foot;              ///< the point of the body's outline it sits at
    double reach_px = 0;    ///< how far it stands out from there
    bool doubtful = false;  ///< a shadow that may as well be a dark part of the body
    bool back = false;      ///< put back by hand
};

/// A stretch of the outline along which no edge was seen, below something taken off or in a shadow: it runs
/// on from both sides.
struct Guessed {
    Polyline2 line;        ///< pixels of the picture
    double likely_px = 0;  ///< how far off it may be
};

struct Silhouette {
    Polyline2 outline;  ///< closed, pixels of the picture, about one point every two pixels worked on
    std::vector<TakenOff> takenOff;
    std::vector<Guessed> guessed;
    Ratio contrast = 0;  ///< how far body and ground are apart, in standard deviations of the ground
    Warnings warnings;
};

/// Errors: no_contrast, nothing_found, cut_off (the body leaves the picture), tracing_sheet, cancelled. A
/// picture of 12 megapixels takes about a second.
Result<Silhouette> silhouetteOf(const Picture& picture, const SilhouetteWish& wish, const Task& task = {});

}  // namespace nine
