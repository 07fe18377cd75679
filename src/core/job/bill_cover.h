// A cover for the bill, cut with the masks: two leaves of the bill's outline, joined at its tip, folded over
// it and pressed together round it; paint never reaches the bill then.
#pragma once

#include "cut/piece.h"
#include "job/job.h"

namespace nine {

constexpr const char* kBillCoverId = "bill-cover";
constexpr double kBillCoverLap_mm = 2.5;  ///< round the bill, to be pressed together; common practice

/// The length and width of the bill are known.
bool hasBill(const Job& job);

/// The piece, seen from above, its fold dashed across it; the bill's own outline is drawn on both leaves.
/// Nothing without a bill. It ends where the bill leaves the body.
std::optional<Piece> billCover(const Job& job);

/// What is cut besides the masks' pieces, because the job asks for it.
std::vector<Piece> otherPieces(const Job& job);

}  // namespace nine
