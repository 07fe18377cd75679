#include <QObject>

#include "app/leaves/log/log_leaf.h"

namespace nine::app {

QString helpOnLog() {
    return QObject::tr(
        "<h3>Log</h3><p>What worked, and how to do it again. Each run that was recorded at the bench becomes "
        "a <b>recipe card</b>: "
        "steps as they were laid down, settings, times, amounts, mishaps, without anybody writing. Add "
        "words, tick what is seen, "
        "drop a photo on it. Paint that was used is taken off the shelf when the card is "
        "made.</p><p><b>Search</b> takes any word, "
        "colour, paint, blank or date. Up and Down on the page go from card to card. <b>Start a job from "
        "this card</b> makes a new "
        "job, on another blank too: marks are then fitted to it.</p><p><b>Left against right</b>: type what "
        "a caliper says, or "
        "click the marks on a photo of each side, nose and tail first. Above half a millimetre a difference "
        "is seen (common "
        "practice). A sheet that lay wrong moves all its marks alike; what it does not explain is the mark's "
        "own.</p><p><b>Wear</b> "
        "is counted from the cards. Metal mesh serves six or seven times, a brush about a hundred lures "
        "(common practice); how long "
        "yours last is for you to say. Cards are handed on as files; nothing leaves this machine by "
        "itself.</p>");
}

}  // namespace nine::app
