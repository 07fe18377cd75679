#include "mask/material.h"

namespace nine {

const std::vector<SheetMaterial>& sheetMaterials() {
    static const std::vector<SheetMaterial> materials{
        {"paper", NINE_WORDS("core", "paper"), 0.003, 0.10},
        {"card", NINE_WORDS("core", "card"), 0.003, 0.25},
        {"film", NINE_WORDS("core", "plastic film"), 0.005, 0.15},
        {"tape", NINE_WORDS("core", "masking tape"), 0.03, 0.13},
        {"vinyl", NINE_WORDS("core", "soft vinyl"), 0.10, 0.08},
    };
    return materials;
}

std::optional<SheetMaterial> findMaterial(std::string_view id) {
    for (const SheetMaterial& m : sheetMaterials()) {
        if (m.id == id) return m;
    }
    return std::nullopt;
}

}  // namespace nine
