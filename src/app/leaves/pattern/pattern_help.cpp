#include <QObject>

#include "app/leaves/pattern/pattern_leaf.h"

namespace nine::app {

QString helpOnPattern() {
    return QObject::tr(
        "<h3>Pattern</h3><p>What is wanted on the body. Choose a family above the body, click a small "
        "picture, "
        "then click where the mark is to start; Insert opens the same as a menu. Marks are measured from "
        "landmarks, so they fit the next size: drag the diamond of the anchor onto another landmark to "
        "change "
        "it.</p>"
        "<p>Drag a mark or one of its diamonds on any view: side, back, belly or nose; over the back it goes "
        "on "
        "on the other side. Values written on the drawing are typed after a double click, all others in the "
        "sentences. Ctrl and a click select several; marks of a group move together. In the list the eye "
        "hides a "
        "mark for now, the lock holds it where it is, and rows are dragged into another order: what stands "
        "first is "
        "painted first.</p>"
        "<p>How a row or a bar changes from end to end is drawn on the card: drag its diamond or its ends, or "
        "use the arrow keys there.</p>"
        "<p>A halo, a shadow or a highlight belongs to its mark and follows it. A mark can keep clear of "
        "others; "
        "what meets an eye, a hook eye or the bill is cut off there, hatched on the drawing and told. Fades, flecks and nets are "
        "sprayed "
        "without a mask.</p>"
        "<p>Below stands the same pattern on the blanks of the library, at one scale (R goes from one to the "
        "next). "
        "The card says what becomes of each mark and mends what it can; \"make this a job\" opens it.</p>"
        "<p>Keys: arrows move 0.1 mm, with Shift 1 mm; Space takes the next diamond; Page Up and Down the "
        "next "
        "mark; Alt with Up and Down its place in the list; D doubles it; Ctrl+C and Ctrl+V copy, also into "
        "another "
        "job; Delete takes it out.</p>");
}

}  // namespace nine::app
