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
        "creeps under it: take a softer sheet, slit it, or make the "
        "mask smaller.</p><p>A mask is a box round its marks, a card that ends on the back line and keeps "
        "clear of bill and "
        "hangers, a small sheet for each mark, a small card that is moved along the body, a whole side, or "
        "one sheet round the whole "
        "body. Drag the squares at its edges to give it more or less margin. The cards beside it say what "
        "each sheet can do there; a click takes it, with the slits it "
        "needs. Drag the ring at the end of a slit to lengthen it and its line to move it; Delete takes "
        "out the one in hand. On the flat sheet slits open into wedges: cut the wedge away, lay lip to "
        "lip, or over the lap where one is drawn. Every panel between slits has a mark of its own: lay "
        "them one after the other, from the middle outwards.</p><p>A nick in the edge stands over mark A and "
        "shows "
        "the same place on both sides. What is cut out can be kept, numbered, to cover what was sprayed "
        "while "
        "you spray round it. What would fall out of a window is held by bridges: drag their rings, or lay it "
        "by itself. A stiff sheet held by two fingers is tight only between them: the rings with numbers say "
        "where to press, in which order. Sheet of this mask, in the menu, prints all of that.</p><p>Knives "
        "slip: cut away from your "
        "fingers, on a mat, with a fresh blade.</p>");
}

}  // namespace nine::app
