#include <QObject>

#include "app/leaves/masks/masks_leaf.h"

namespace nine::app {

QString helpOnMasks() {
    return QObject::tr(
        "<h3>Masks</h3><p>Whether a sheet lies flat there and lands where the mark was drawn. The "
        "colours show how far "
        "the sheet must stretch, up to what it takes. The crosses are where the windows were drawn, "
        "the dots where they "
        "land when the sheet is laid back on the body, twenty times enlarged. A mask that cannot lie "
        "stands off, and paint "
        "creeps under it: take a softer sheet or make the mask smaller.</p>");
}

}  // namespace nine::app
