// From what was read off a tracing sheet or a photograph to the blank of a job, for window and command line
// alike.
#pragma once

#include "blank/from_outline.h"
#include "image/outline.h"
#include "image/picture_file.h"
#include "image/silhouette.h"
#include "image/tracing.h"
#include "job/job.h"

namespace nine {

/// What a photograph is told by hand.
struct PhotoWish {
    SilhouetteWish silhouette;
    std::optional<double> length_mm;  ///< of the body, known
    struct Known {
        Vec2 from_px, to_px;
        double mm = 0;
    };
    /// Two points on the table whose distance is known: of a ruler, a card, a coin. The body's outline lies
    /// higher, nearer to the camera. Beside the length it only tells how far away the camera was.
    std::optional<Known> known;
    /// Width over length of the body, where a photo from above shows it: the outline lies half the width
    /// above the table. Without it 0.7 of the height is assumed for the width.
    std::optional<double> widthOverLength;
    double focal_px = 0;                           ///< of the lens (PictureFile), 0 when unknown
    std::optional<std::pair<Vec2, Vec2>> axis_px;  ///< nose and tail, when dragged straight
    bool noseLeft = true;
};

/// A photograph's outline along its axis.
struct PhotoOutline {
    Polyline2 outline_px;  ///< as found
    BodyAxis axis_px;
    double mmPerPx = 0;
    Polyline2 outline;          ///< x from the nose, z up, mm
    double camera_mm = 0;       ///< how far the camera was from the table, 0 when nothing tells
    std::vector<Vec2> hung_mm;  ///< where rings and wires sat that were taken off: x, z
    Warnings warnings;
};

/// Errors: no_scale (neither length nor two points, or the points coincide). What was guessed or is in doubt
/// is among the warnings, with its place and how many mm it may be off.
Result<PhotoOutline> photoOutline(const Silhouette& silhouette, const PhotoWish& wish);

/// What a photo from above says of the one from the side. Errors: those of photoOutline.
Result<double> widthOverLength(const Silhouette& above);

/// What is said beside the pictures.
struct BodyWish {
    std::string name, family;  ///< of bodyFamilies(); empty: the likeliest
    std::vector<StringReading> girths;
};

struct MadeBlank {
    BlankChapter blank;
    OutlinedBody body;
    bool familyGuessed = false;
};

/// Errors of bodyFromOutlines and Skin. Landmarks are the kind's usual ones, marked as assumed, but for what
/// was drawn: a closed ring on the head is the eye, a steep line behind it the gill plate, others become
/// guide_1 ... What was warned of in the pictures is among the body's warnings.
Result<MadeBlank> blankOfTracing(const TracingReading& reading, const BodyWish& wish);
Result<MadeBlank> blankOfPhotos(const PhotoOutline& side, const std::optional<PhotoOutline>& above,
                                const BodyWish& wish);

/// A reduced copy of a picture for the job, with where the body's ends lie in it (pixels of `picture`).
BackPicturePtr backPicture(const Picture& picture, const Vec2& nose_px, const Vec2& tail_px, std::string file,
                           std::string hash, bool fromAbove);
/// The flat side box of a tracing sheet as such a copy.
BackPicturePtr backPicture(const Picture& picture, const TracingReading& reading, std::string file,
                           std::string hash);

}  // namespace nine
