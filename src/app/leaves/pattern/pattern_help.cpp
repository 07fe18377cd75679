#include <QObject>

#include "app/leaves/pattern/pattern_leaf.h"

namespace nine::app {

QString helpOnPattern() {
    return QObject::tr(
        "<h3>Pattern</h3><p>What is wanted on the body. Rows of dots and bars are anchored to "
        "landmarks, so they move "
        "with them and fit the next size. Drag a mark along the skin, its ends to spread the row, "
        "its middle to bow it, or change its numbers in the "
        "sentence. Beside the body stands the mask the mark needs; it follows what you drag. Linked "
        "marks "
        "stand on both sides, mirrored. A mark that reaches off the body is shown hollow where it "
        "could "
        "lie: drag it, or put it back by the button.</p>");
}

}  // namespace nine::app
