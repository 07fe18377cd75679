#include <QObject>

#include "app/leaves/layers/layers_leaf.h"

namespace nine::app {

QString helpOnLayers() {
    return QObject::tr(
        "<h3>Layers</h3><p>What goes on in which order, and what it will look like before a bottle is "
        "opened. "
        "<b>Begin</b> makes a first recipe from the pattern, its masks and the net, light to dark or from "
        "the back "
        "down; every step of it is yours to change.</p><p>Rows are read upwards as paint goes on. Each film "
        "is drawn "
        "as thick as it dries, all at one scale; the stripe under it is the colour seen then. <b>Drag a "
        "row</b> to "
        "move a step, or Alt+Up and Alt+Down; Up and Down go from step to step, Delete takes one out, C puts "
        "all "
        "films in one stack. <b>Drag the line</b> on the body, or Left and Right, to cut elsewhere. A fade "
        "is dragged "
        "on the body by its two diamonds: how far it reaches, how soft it is.</p><p>The holder shows the "
        "body after "
        "the selected step. Move over the body to read a colour in words and numbers. Numbers of difference "
        "are "
        "CIEDE2000: below 1 nobody sees it, from 3 a close look does.</p><p>What would ruin a bait is said "
        "with a "
        "flag, its reason and a button that mends it; leave it, and it is not said again in this job. Drops "
        "and "
        "millilitres count what flies past and what stays in the cup.</p><p>No real paint was measured: "
        "those that "
        "ship are invented. Paint a card with yours, two coats and four over white and one over black, and "
        "give the "
        "shelf their colours. Mask edges are drawn sharp here; how wide they come out is on the Spray "
        "leaf.</p>");
}

}  // namespace nine::app
