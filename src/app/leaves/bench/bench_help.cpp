#include <QObject>

#include "app/leaves/bench/bench_leaf.h"

namespace nine::app {

QString helpOnBench() {
    return QObject::tr(
        "<h3>Bench</h3><p>What to do next, with which colour in the cup. The steps of the recipe become "
        "tasks of trays; one colour "
        "goes over every tray that needs it before the cup is cleaned, drying overlaps spraying, paint does "
        "not stand in a gun until "
        "it dries. A plan is there at once and better ones are looked for. <b>Drag a task</b> along, or "
        "select it and press Left and "
        "Right: it begins no sooner, the rest follows; Delete lets it go. Comma and full stop go from day to "
        "day. One lure is a list "
        "of steps.</p><p><b>The step runner</b> (Ctrl+R) shows one step at a time, to be read from two "
        "metres. <b>Space</b> answers "
        "what is asked and ends a step, <b>Backspace</b> goes back, <b>P</b> pauses; a foot switch may send "
        "any other key. <b>M</b> "
        "keeps a mishap of the body in hand (Left and Right choose it), <b>C</b> what was set otherwise, "
        "<b>I</b> what was done "
        "besides, <b>S</b> leaves a step out, <b>R</b> does it once more, <b>N</b> says that what is asked "
        "is not so and goes on, "
        "<b>H</b> is the table of rescues. Everything is written down as it happens: after a power cut the "
        "run goes on where it "
        "was.</p><p>What is checked before a step follows from the recipe; single checks can be switched off "
        "and are then still "
        "printed. Times of hands are usual ones: yours come from the runs you record. The program states the "
        "usual caution and defers "
        "to data sheets and local rules.</p>");
}

}  // namespace nine::app
