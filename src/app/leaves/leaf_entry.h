// How a leaf stands, as the stem shows it.
#pragma once

#include <QString>

namespace nine::app {

enum class LeafState { Nothing, Begun, Ready, Repair };

struct LeafEntry {
    QString name;
    LeafState state = LeafState::Nothing;
    int flags = 0;       ///< how many things there are to repair
    bool fault = false;  ///< whether any of them is a fault
    bool operator==(const LeafEntry&) const = default;
};

}  // namespace nine::app
