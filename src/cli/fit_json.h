// Figures of a fit as the command line prints them.
#pragma once

#include "cli/args.h"
#include "cli/verbs.h"
#include "job/derive.h"

namespace nine::cli {

/// The flags that say of what a sheet is and how it is laid.
struct SheetAsked {
    SheetMaterial material;
    Fraction limit;
    int vertices;
    Apply apply;
    int relief;  ///< slits: -1 as few as will do, 0 none, else that many
};
Result<SheetAsked> sheetAsked(const Args& args);

/// A whole side or a whole body (--kind), with as many slits or pieces as its material needs.
Result<Reply> fitStrip(const Args& args, const Task& task);

Json fitJson(const FitReport& report);

/// One row a mask, all figures, and its verdict in a sentence.
struct MaskReplies {
    Json masks = Json::array();
    std::string text;
    Warnings warnings;
    bool allLieFlat = true;
};
/// Errors: the first mask that could not be made.
Result<MaskReplies> describeMasks(const std::vector<MaskResult>& results);

}  // namespace nine::cli
