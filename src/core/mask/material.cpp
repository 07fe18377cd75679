#include "mask/material.h"

#include "geom/flatten.h"

namespace nine {

const std::vector<SheetMaterial>& sheetMaterials() {
    static const std::vector<SheetMaterial> materials{
        {"paper", NINE_WORDS("core", "paper"), 0.003, 0.10, 3000, false},
        {"card", NINE_WORDS("core", "card"), 0.003, 0.25, 3000, false},
        {"film", NINE_WORDS("core", "plastic film"), 0.005, 0.15, 2500, false},
        {"tape", NINE_WORDS("core", "masking tape"), 0.03, 0.13, 500, true},
        {"vinyl", NINE_WORDS("core", "soft vinyl"), 0.10, 0.08, 50, true},
    };
    return materials;
}

double SheetMaterial::bending_nmm() const {
    constexpr Ratio nu = kSheetPoissonRatio;
    return sticks ? 0 : stiffness_mpa * thickness_mm * thickness_mm * thickness_mm / (12 * (1 - nu * nu));
}

std::optional<SheetMaterial> findMaterial(std::string_view id) {
    for (const SheetMaterial& m : sheetMaterials()) {
        if (m.id == id) return m;
    }
    return std::nullopt;
}

}  // namespace nine
