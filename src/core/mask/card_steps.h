// One card laid several times along the body: how well its windows fit what is drawn at each place.
#pragma once

#include "mask/mask.h"

namespace nine {

/// `card` is the sheet of `plan`; the sheets of the other places are made as theirs and laid over it by the
/// rigid motion that fits the middles of their windows best. Errors: those of cutSheets. Cost: a small sheet
/// for each place.
Result<std::vector<CardStep>> cardSteps(const Skin& skin, const Landmarks& landmarks, const SheetPlan& plan,
                                        const Sheet& card, Fraction strainLimit, int vertices,
                                        const std::string& where, const Task& task = {});

/// A place where the card is further off than kSeen_mm.
void warnOfMisfit(const std::vector<CardStep>& steps, const std::string& where, Warnings& warnings);
constexpr double kSeen_mm = 0.5;  // common practice, no published source

}  // namespace nine
