// The measures of a blank as a page for the bench, and as a table for other programs.
#pragma once

#include "cut/drawing.h"
#include "job/job.h"

namespace nine {

/// One page: side and top outline true to size where they fit the paper, stations with height, width and
/// girth, landmarks with their distances from the nose and along the skin from the line tie.
Drawing benchTable(const BlankChapter& blank, const Skin& skin, const Vec2& paper_mm);

/// x_mm,height_mm,width_mm,girth_mm of each station.
std::string benchTableText(const BlankChapter& blank, const Skin& skin);

}  // namespace nine
