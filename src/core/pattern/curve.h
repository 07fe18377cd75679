// How a value runs from one end of a mark to the other, drawn small on the card and dragged there.
#pragma once

#include <string_view>

#include "base/units.h"
#include "base/words.h"
#include "pattern/values.h"

namespace nine {

/// at(values, along) is in mm, from 0 at one end to 1 at the other; what draw() itself uses. Dragging an end
/// sets its key to mm; the middle is set by a function, for what makes it so high is not always a length. Out
/// of limits is the caller's to refuse.
struct Curve {
    Pattern name;                            ///< "How they shrink"
    Pattern from, to;                        ///< "shoulder", "tail"
    bool ofWidths = true;                    ///< else of heights, which may be negative
    std::string_view first = {}, last = {};  ///< keys of the ends; empty where an end stays
    std::string_view middle = {};            ///< the key that setMiddle changes
    double (*at)(const Values&, Fraction along) = nullptr;
    void (*setMiddle)(Values&, double middle_mm) = nullptr;
};

}  // namespace nine
