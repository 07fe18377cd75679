#include <QObject>

#include "app/leaves/scales/scales_leaf.h"

namespace nine::app {

QString helpOnScales() {
    return QObject::tr(
        "<h3>Scales</h3><p>Which net gives scales of the wanted size, how it will lie on this body, and how "
        "to put it on. "
        "The wanted scale comes from the real fish, from a count along the side, or from your eye; the nets "
        "are ranked by how "
        "near they come. When all are coarser than the fish, use one as a hint.</p><p>The drawing shows the "
        "net pulled over "
        "the body and gathered: each cell in the colour of how much longer it lies one way than the other, "
        "red where it stands "
        "off more than you allow. <b>Drag a clip</b> along the belly, double-click the belly for one more, "
        "Delete takes the "
        "selected one off, Space goes to the next, arrows nudge it. <i>Place the clips</i> seeks the fewest "
        "that keep the net "
        "close enough. <b>Drag the ring</b> of the blue arrow to pull harder or less. Click the body to see "
        "from near what the net prints there.</p><p>How knots push back "
        "between two clips "
        "is not known, so a stand-off is a range. Stiffnesses of nets are judgements, nothing was measured: "
        "lay a real piece on "
        "and compare.</p><p>Lines pressed into foil meet on the lateral line; print the strip and wrap it "
        "along. A scale stencil "
        "is a mark of the pattern: its cells are set on the Pattern leaf, its sheet on Masks.</p>");
}

}  // namespace nine::app
