#include <QObject>

#include "app/leaves/spray/spray_leaf.h"

namespace nine::app {

QString helpOnSpray() {
    return QObject::tr(
        "<h3>Spray</h3><p>How to spray through the stencil so that its edge comes out as wanted. "
        "Pressure, distance, "
        "mix and coats start where painters start; the model says what changes round that: how wide "
        "the edge gets, "
        "how far paint creeps, and what the next step in each direction would spoil.</p><p>Drag the "
        "circle on the "
        "gun's distance line, the one on the arc for the angle, the one on the skin for the place; "
        "the columns set "
        "pressure, trigger and speed; the circle beside the sheet holds it off on pads. What you set "
        "is pinned: the "
        "plan keeps it and says when pins contradict each other. Needles are those of <i>My "
        "bench</i>. Below stand "
        "the film across the edge in the circle, dashed where the sheet stands off most, and every "
        "opening on "
        "the body in the colour of its edge.</p><p>Mist: extraction on, and a respirator matched to "
        "the "
        "paint's data sheet, for every stroke. The figures are computed, not measured: try on paper "
        "first.</p>");
}

}  // namespace nine::app
