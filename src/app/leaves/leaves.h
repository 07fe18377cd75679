// The leaves of a job in one list: the stem, the keys, help, pictures and tests read it.
#pragma once

#include <memory>
#include <vector>

#include "app/leaves/leaf.h"

namespace nine::app {

/// Places on the stem of the leaves there are; for tests and for leaves that point to each other.
enum LeafNumber {
    BlankNumber = 0,
    PatternNumber = 1,
    LayersNumber = 2,
    ScalesNumber = 3,
    MasksNumber = 4,
    CutNumber = 5,
    SprayNumber = 6,
    BenchNumber = 7,
    LogNumber = 8
};

struct LeafPlace {
    const char* name;  ///< QT_TRANSLATE_NOOP("leaf", "Masks")
    const char* id;    ///< of its folder, and of its picture
    Leaf* (*make)(LeafContext, QObject* parent);
    QString (*help)();  ///< rich text
};
/// From the ground up.
const std::vector<LeafPlace>& leafPlaces();

/// The leaf of a window by its class.
template <typename L>
L& leafOf(const QObject& window) {
    return *window.findChild<L*>();
}

}  // namespace nine::app
