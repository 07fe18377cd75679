// A coin lying beside the body, for the scale of a photograph.
#pragma once

#include <optional>

#include "base/result.h"
#include "base/units.h"
#include "image/picture.h"

namespace nine {

/// A round flat thing as the picture shows it: an ellipse whose longer diameter is the true one, since a
/// slant only shortens.
struct SeenCoin {
    Vec2 middle;           ///< pixels
    Vec2 half_px;          ///< half of the longer diameter, as a vector
    Ratio slender = 1;     ///< shorter over longer diameter
    double slant_deg = 0;  ///< at which the camera looks at it, from that
    double miss_px = 0;    ///< root mean square of its edge from the ellipse
};

/// The coin that holds the pixel `inside`: its edge is looked for along rays as the sharpest change that lies
/// on one ellipse (least squares with outliers dropped; Fitzgibbon, Pilu and Fisher 1999, Direct least square
/// fitting of ellipses). Up to a third of it may be hidden. Errors: no_coin.
Result<SeenCoin> coinAt(const Picture& picture, const Vec2& inside);

/// What to say when the camera looked at the coin, and so at the body, at a slant; nothing up to 8 degrees.
std::optional<Warning> slantWarning(const SeenCoin& coin);

}  // namespace nine
