#include "recipe/rules.h"

#include <algorithm>

#include "recipe/rule_parts.h"

namespace nine {
const Bottle* RuleView::bottle(const std::string& id) const {
    return findBottle(facts.paints, id);
}

std::span<const Rule> rules() {
    static const std::vector<Rule> all = [] {
        std::vector<Rule> list;
        for (const auto& some : {rulesOfPaint(), rulesOfWhatIsLaidOn(), rulesOfFinish()})
            list.insert(list.end(), some.begin(), some.end());
        return list;
    }();
    return all;
}

std::vector<RuleFinding> checkRecipe(const RuleView& view, const Severities& severities) {
    std::vector<RuleFinding> all;
    for (const Rule& rule : rules()) {
        const std::string id(rule.id);
        const auto& accepted = view.recipe.accepted;
        if (std::find(accepted.begin(), accepted.end(), id) != accepted.end()) continue;
        Severity severity = rule.severity;
        for (const auto& [other, changed] : severities)
            if (other == id) severity = changed;
        for (const std::size_t k : rule.finds(view)) {
            const Step& step = view.recipe.steps[k];
            RuleFinding finding{id, severity, step.id,
                                Words(rule.says).name("step", step.name.empty() ? step.id : step.name),
                                Words()};
            if (rule.mend) finding.repair = Words(rule.repair);
            all.push_back(std::move(finding));
        }
    }
    return all;
}

Recipe mended(Recipe recipe, const RuleFinding& finding, const RecipeFacts& facts) {
    for (const Rule& rule : rules()) {
        if (rule.id != finding.rule) continue;
        const std::size_t step = placeOf(recipe, finding.step);
        if (rule.mend && step < recipe.steps.size()) return rule.mend(std::move(recipe), step, facts);
    }
    recipe.accepted.push_back(finding.rule);
    return recipe;
}

}  // namespace nine
