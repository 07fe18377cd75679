// Where two fingers hold a stiff sheet down while it is sprayed, one place after the other.
//
// A band across the body between two fingers on one girth line is tight sqrt(8 gap / k) wide, k the curvature
// of the body along there, 8 mm at most. Source: a shell solve made beforehand at 36 mm radius of curvature;
// not valid for card above 0.3 mm.
#pragma once

#include "mask/mask.h"

namespace nine {

struct PressPlace {
    double x_mm;      ///< fingers here, on both sides of the window
    double width_mm;  ///< tight so far along the body; spray only there
};
constexpr double kTightGap_mm = 0.1;

/// From nose to tail, each overlapping the last.
std::vector<PressPlace> pressPlan(const Skin& skin, double x0_mm, double x1_mm, double g_mm,
                                  double gap_mm = kTightGap_mm);

/// The fewest places such that each window is sprayed while it is tight, whole where it fits one place; in
/// order from nose to tail, so that no finger has to rest on what was just sprayed before it is dry.
std::vector<PressArea> pressAreas(const Skin& skin, const std::vector<Window>& windows,
                                  double gap_mm = kTightGap_mm);

/// Puts the fingers where there is sheet.
void layFingers(std::vector<PressArea>& areas, const Skin& skin, const FlatPatch& flat);

/// "3-5, 8" of numbers in order.
std::string numberList(const std::vector<int>& numbers);

/// "2: press beside windows 3-5, 24 mm from the nose; 6.2 mm are tight. Spray them, let them dry,
/// move on."
Words pressSentence(const PressArea& area, double noseX_mm);

}  // namespace nine
