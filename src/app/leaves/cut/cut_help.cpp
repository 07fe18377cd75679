#include <QObject>

#include "app/leaves/cut/cut_leaf.h"

namespace nine::app {

QString helpOnCut() {
    return QObject::tr(
        "<h3>Cut</h3><p>The pieces of both sides on the sheet, true to size. Drag a piece where you "
        "want it. Print at "
        "100 % and measure the 100 mm line and the 50 mm square before you cut; or write SVG for a "
        "cutter.</p><p>Blades: "
        "cut away from the holding hand. Vinyl or PVC is never cut hot or with a laser: follow the "
        "sheet's data sheet.</p>");
}

}  // namespace nine::app
