// A mark that reaches off the body, brought to where it can be.
//
// Bodies get shorter and landmarks move under marks that lay well: such a mark is not lost, it is shown at
// the edge it went over and can be put there.
#pragma once

#include "base/task.h"
#include "pattern/art.h"

namespace nine {

/// The element changed as little as this finds so that it lies on the body: moved along, then towards the
/// axis, then with fewer marks, then smaller. Itself when it lies already. Rounded to hundredths.
/// Errors: out_of_range, unknown_landmark, not_a_curve of drawElement, which no moving mends; off_body when
/// nothing was found; cancelled. Up to a few hundred tries, 1 to 50 ms.
Result<Element> broughtOnto(const Skin& skin, const Landmarks& landmarks, const Element& element,
                            const Task& task = {});

}  // namespace nine
