// How much paint a step takes, in drops and millilitres, for one body or many.
#pragma once

#include "recipe/recipe.h"

namespace nine {

struct StepAmount {
    std::string step;                     ///< id
    double area_mm2 = 0;                  ///< of one body that the step reaches
    double paint_ml = 0, reducer_ml = 0;  ///< for all bodies, with what misses and what stays in the cup
    Ratio drops = 0;                      ///< of both
    int fills = 1;                        ///< of a cup of kCupFill_ml
};
/// Share of the paint that lands on the body, the rest flies past: half of what is sprayed at so small a
/// thing (common practice says a third to a half stays; guess). What no spraying gets out of a cup.
constexpr Fraction kLands = 0.35;
constexpr double kStaysInCup_ml = 0.05, kCupFill_ml = 2;

constexpr int kMostLures = 500;
/// Says so; `where` is the field.
Error luresError(int lures, const std::string& where);

/// `areas_mm2` of one body by step: skin times cover. Steps without paint are left out. lures 1 to 500.
/// Errors: out_of_range.
Result<std::vector<StepAmount>> amountsOf(const Recipe& recipe, const Palette& palette,
                                          const std::vector<double>& areas_mm2, int lures);

}  // namespace nine
