// A place of the body that is pointed out on drawings and on the holder.
#pragma once

#include <QString>

#include "geom/surface.h"

namespace nine::app {

struct PointOnBody {
    SurfacePoint at;
    QString label;  ///< a letter or a number
};

}  // namespace nine::app
