#include "mask/material.h"

namespace nine {

const std::vector<SheetMaterial>& sheetMaterials() {
    static const std::vector<SheetMaterial> materials{
        {"paper", "Paper", 0.003, 0.10},       {"card", "Card", 0.003, 0.25},
        {"film", "Plastic film", 0.005, 0.15}, {"tape", "Masking tape", 0.03, 0.13},
        {"vinyl", "Soft vinyl", 0.10, 0.08},
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
