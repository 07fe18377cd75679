#include <QObject>

#include "app/leaves/blank/blank_leaf.h"

namespace nine::app {

QString helpOnBlank() {
    return QObject::tr(
        "<h3>Blank</h3><p>What shape this body is. <b>Trace it</b>: print the sheet at 100 %, lay "
        "the body in the upper box, "
        "nose to the left, and draw round it with a soft pencil held upright; from above in the "
        "second box, or lay a string "
        "round the body. Scan the sheet, or photograph it at any slant with all rings in the "
        "picture. "
        "<b>Photograph it</b>: on plain paper, from far away and straight above; give its length, or "
        "drag two points to a "
        "ruler. Drag nose and tail until the line runs along the body, paint out what is not body. "
        "<b>Kind and readings</b>: "
        "one of seven shapes, pulled to what you measured; hollow points are assumed.</p>"
        "<p>Drag a point to change a reading, a line to move a station, a diamond to move a "
        "landmark; or type the numbers "
        "on the card. Underlined numbers on dimension lines are typed where they stand. A string "
        "laid round a station tells "
        "how full its section is, all round or above or below the axis alone. Click a landmark to "
        "see what it means; eyes "
        "say which stock eye goes in, bills stand as glass. Bare areas take no paint and no opening; "
        "carved ones hold every "
        "sheet off.</p>"
        "<p><b>How hard to wrap</b> says how wide a strip of the chosen sheet, 20 mm long, may be to "
        "lie flat "
        "there, at most half round the body; the map says where a "
        "sheet of your size does. <b>Along the skin</b> measures between two points, and the girth "
        "at the first.</p>"
        "<p>Keys: Page up and down go through the stations, or through nose, tail, points and brush "
        "of a photo; arrows move what "
        "is in hand (Shift: more), Space sets a point or draws, Enter types or closes, Delete takes "
        "out, Ctrl+L opens your "
        "blanks. A tracing is helped like a photo: drag its nose and tail, paint out and in; painted "
        "along an open line, a stroke closes it. A pencil leaves its line outside the body: type one "
        "size by ruler and the outline is drawn in by what is over, all round alike, or say how the "
        "pencil was held.</p><p>On a photo, what was taken off is hatched and says why; a click puts "
        "it "
        "back. Dotted lines are guessed. [ and ] change the brush. A coin or a card on the table "
        "gives "
        "the scale, but lies lower than the outline: stand a metre away, or type the length "
        "too. <b>Lay a photo over it</b> shows where a new photo and the body of the job differ, in "
        "mm, and changes nothing until a body is made of it.</p><p>Blades and hooks: take the hooks "
        "off before "
        "you lay a body down to trace "
        "it.</p>");
}

}  // namespace nine::app
