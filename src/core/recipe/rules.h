// The mistakes of order that ruin baits, each said once with its reason and what mends it.
//
// A rule is a row of rules(): what it looks for, the sentence, and a repair that silences it. Rules never
// change a recipe by themselves. What a painter accepts (Recipe::accepted) is not said again.
// Source: common practice, no published source, unless the sentence defers to a data sheet.
#pragma once

#include "recipe/recipe.h"

namespace nine {

enum class Severity { Hint, Caution, Fault };

struct RuleFinding {
    std::string rule;  ///< id
    Severity severity = Severity::Caution;
    std::string step;  ///< id; empty: the whole recipe
    Words says;
    Words repair;  ///< what the repair does; empty: none but to accept
};

struct RuleView {
    const Recipe& recipe;
    const RecipeFacts& facts;
    OverWhatAt over = {};              ///< null: rules about colour are silent
    const Palette* palette = nullptr;  ///< of the facts' paints, where it is known; else worked out

    const Bottle* bottle(const std::string& id) const;
    /// All steps that are on, before `step`, from the last to the first.
    template <typename F>
    void before(std::size_t step, F&& f) const {
        for (std::size_t k = step; k-- > 0;)
            if (recipe.steps[k].on && !f(k)) return;
    }
};

struct Rule {
    std::string_view id;
    Severity severity;
    Pattern says;    ///< of a finding; {step} its name
    Pattern repair;  ///< empty: it can only be accepted
    /// Steps it is about; recipe.steps.size() for the whole.
    std::vector<std::size_t> (*finds)(const RuleView&);
    Recipe (*mend)(Recipe, std::size_t step, const RecipeFacts&);  ///< null: none
};
std::span<const Rule> rules();

/// Severity changed by the shop: by rule id; a hint may be made a fault.
using Severities = std::vector<std::pair<std::string, Severity>>;
std::vector<RuleFinding> checkRecipe(const RuleView& view, const Severities& severities = {});
/// The recipe with a finding mended; with it accepted where there is no repair.
Recipe mended(Recipe recipe, const RuleFinding& finding, const RecipeFacts& facts);

}  // namespace nine
