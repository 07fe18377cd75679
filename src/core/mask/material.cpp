#include "mask/material.h"

namespace nine {

const std::vector<SheetMaterial>& sheetMaterials() {
    static const std::vector<SheetMaterial> materials{
        {"paper", "Paper", 0.003},      {"card", "Card", 0.003},       {"film", "Plastic film", 0.005},
        {"tape", "Masking tape", 0.03}, {"vinyl", "Soft vinyl", 0.10},
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
