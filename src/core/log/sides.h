// Left against right: what was measured on the two sides of a finished body, and what it comes from.
//
// A mask that lay wrong moves all its marks alike: each mask's sheet is fitted to its marks as a stiff piece
// (least squares: moved along, moved up, turned), and what is left over is a mark's own. Above kSeen_mm a
// difference is seen (common practice, no published source).
#pragma once

#include "log/card.h"

namespace nine {

constexpr double kSeen_mm = 0.5;

struct MarkDifference {
    std::string mark, mask;
    std::optional<double> along_mm, up_mm;  ///< right minus left; along is towards the tail
    bool seen() const;
};

enum class SideCause {
    MaskMoved,   ///< the whole sheet lay elsewhere
    MaskTurned,  ///< it lay askew
    OneMark,     ///< this mark alone
    WholeSide,   ///< all masks alike: the body was measured or held another way
};
struct SideFinding {
    SideCause cause = SideCause::OneMark;
    std::string mask, mark;
    bool right = false;  ///< the side that is off the pattern
    double along_mm = 0, up_mm = 0, turned_deg = 0;
    Words says, mend;
};
struct SideReport {
    std::vector<MarkDifference> differences;
    std::vector<SideFinding> findings;  ///< the largest first; none: the sides are alike
};
SideReport compareSides(const std::vector<SideReading>& readings);

}  // namespace nine
