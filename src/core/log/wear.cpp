#include "log/wear.h"

#include <algorithm>
#include <map>

namespace nine {

int usualLife(std::string_view kind, std::string_view made) {
    if (kind == "net" && made == "metal") return 7;  // six or seven, common practice
    if (kind == "brush") return 100;                 // about a hundred lures, common practice
    return 0;
}

bool Wear::soon() const {
    return life > 0 && !worn() && (left() <= 1 || 10 * left() <= life);
}

std::vector<Wear> wearOf(const std::vector<RecipeCard>& cards, const std::vector<ToolRow>& rows) {
    std::map<std::pair<std::string, std::string>, Wear> all;
    const auto rowOf = [&](const std::string& kind, const std::string& id) -> const ToolRow* {
        for (const ToolRow& row : rows)
            if (row.kind == kind && row.id == id) return &row;
        return nullptr;
    };
    for (const ToolRow& row : rows) all[{row.kind, row.id}] = {row.kind, row.id, row.name, row.made};
    for (const RecipeCard& card : cards)
        for (const CardTool& tool : card.tools) {
            Wear& wear = all[{tool.kind, tool.id}];
            const ToolRow* row = rowOf(tool.kind, tool.id);
            if (!row) wear = {tool.kind, tool.id, tool.name, tool.made, wear.uses};
            if (!row || card.ended >= row->newSince) wear.uses += tool.uses;
        }
    std::vector<Wear> list;
    for (auto& [key, wear] : all) {
        const ToolRow* row = rowOf(wear.kind, wear.id);
        wear.life = row && row->life > 0 ? row->life : usualLife(wear.kind, wear.made);
        if (row) wear.wider_mm = row->cleaned * kFiled_mm;
        const int over = std::max({wear.life, wear.uses, 1});
        if (row && row->price >= 0) wear.perUse = row->price / over;
        list.push_back(std::move(wear));
    }
    const auto share = [](const Wear& w) { return w.life > 0 ? static_cast<double>(w.uses) / w.life : 0; };
    std::stable_sort(list.begin(), list.end(), [&](const Wear& a, const Wear& b) {
        return share(a) != share(b) ? share(a) > share(b) : a.uses > b.uses;
    });
    return list;
}

}  // namespace nine
