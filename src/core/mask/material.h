// What a mask is cut from, and how much of a stretch it takes.
#pragma once

#include <optional>
#include <string_view>
#include <vector>

#include "base/units.h"
#include "base/words.h"

namespace nine {

struct SheetMaterial {
    std::string_view id;   ///< as written in job files
    Pattern name;          ///< as shown
    Fraction strainLimit;  ///< largest log strain it follows without lifting, as a fraction
    double thickness_mm;
    Figure stiffness_mpa;  ///< Young's modulus (from memory of handbook ranges, to be measured)
    bool sticks;           ///< held down by its own glue: its edges do not bend up

    /// E t^3 / (12 (1 - nu^2)), N mm; 0 for what sticks.
    Figure bending_nmm() const;
};

/// Start values; common practice, no published source. Measured values of a shop's own sheets replace them.
const std::vector<SheetMaterial>& sheetMaterials();
std::optional<SheetMaterial> findMaterial(std::string_view id);

}  // namespace nine
