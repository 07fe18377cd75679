// Which part of a page a drawn line encloses, across the gaps where the hand was lifted.
#pragma once

#include "base/result.h"
#include "base/task.h"
#include "image/pencil.h"

namespace nine {

/// The regions on both sides of the line that goes round the body; neither covers the line.
struct Enclosure {
    PixelSet outside, inside;
    double bridged_mm = 0;  ///< gaps up to this wide were closed
};

/// The closed line is the one that encloses what is drawn, lines inside of it are inside: of all widths of
/// gaps that close something the smallest that leaves nothing of the line outside. Gaps up to `widest_mm`
/// are bridged however much lies beyond; wider ones only to find what was left open, so that it can be told
/// (bridged_mm is then larger than `widest_mm`). Nothing when no line encloses 80 mm2.
/// Errors: two_bodies, over_the_edge (with the place), cancelled.
Result<std::optional<Enclosure>> enclosedIn(const FlatBox& box, const PixelSet& lines, double widest_mm,
                                            const std::string& name, const Task& task);

}  // namespace nine
