// Figures of a fit as the command line prints them.
#pragma once

#include "cli/verbs.h"
#include "job/derive.h"

namespace nine::cli {

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
