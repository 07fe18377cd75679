// What the bench has to do, as far as planning it needs to know: tasks of trays in their order, what is in
// the cup for each, what they hold.
//
// Times are whole seconds; a task takes the hands of one painter for hands_s and is then left alone for
// free_s before the next task of its tray may begin.
#pragma once

#include <string>
#include <vector>

#include "paint/colour.h"

namespace nine {

/// What is in a cup: tasks with the same one share it.
struct CupContent {
    std::string key;     ///< the mix, drop by drop
    std::string name;    ///< as it is said
    std::string colour;  ///< "#rrggbb", as it looks laid on
    Lab lab{};
    std::string family;  ///< PaintFamily::id of what there is most of
    bool solvent = false;
};

/// Where bodies rest when nobody holds them.
enum class Rests { Nowhere, Rack, Turner };

struct BenchTask {
    std::string id;                  ///< "A/olive/2": tray, step, which time
    std::vector<std::string> steps;  ///< ids of the recipe's steps it does, in order
    int coat = 0, coats = 0;         ///< the second of three; 0: not a coat
    int firstLure = 1, lures = 1;    ///< tags on the bodies: 9 to 16
    bool bodyByBody = false;         ///< all its steps on one body, then on the next: fewer masks than bodies
    int hands_s = 0, free_s = 0;
    int cup = -1;          ///< of BenchWork::cups; -1: nothing is sprayed
    double needle_mm = 0;  ///< wanted; 0: any
    int takes = -1;        ///< a tool (BenchWork::tools), one for each body, from its start on
    int frees = -1;        ///< at its end
    Rests rests = Rests::Nowhere;
    bool heated = false;  ///< while it rests
};

/// A mask or a net, of which there are so many.
struct BenchTool {
    std::string id, name;
    int copies = 1;
};

struct BenchTray {
    std::string tag;  ///< "A"
    std::string job;  ///< id of what it is painted as
    int firstLure = 1, lures = 1;
    std::vector<BenchTask> tasks;  ///< in order
};

struct BenchWork {
    std::vector<CupContent> cups;
    std::vector<BenchTool> tools;
    std::vector<BenchTray> trays;
    std::size_t count() const;
};

}  // namespace nine
