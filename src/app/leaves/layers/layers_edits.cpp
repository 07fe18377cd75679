#include "app/leaves/layers/layers_edits.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"

namespace nine::app {
namespace {

std::ptrdiff_t offset(std::size_t place) {
    return static_cast<std::ptrdiff_t>(place);
}

Ratio paintDrops(const Step& step) {
    Ratio drops = 0;
    for (const MixPart& part : step.paint) drops += part.drops;
    return drops;
}

}  // namespace

Recipe withMoved(Recipe recipe, const std::string& id, std::size_t count, std::size_t to) {
    const std::size_t from = placeOf(recipe, id), all = recipe.steps.size();
    if (from >= all) return recipe;
    count = std::min(count, all - from);
    to = std::min(to, all - count);
    const auto begin = recipe.steps.begin();
    if (from < to)
        std::rotate(begin + offset(from), begin + offset(from + count), begin + offset(to + count));
    else
        std::rotate(begin + offset(to), begin + offset(from), begin + offset(from + count));
    return recipe;
}

Recipe withCopy(Recipe recipe, const std::string& id, std::string& copy) {
    const std::size_t from = placeOf(recipe, id);
    if (from >= recipe.steps.size()) return recipe;
    Step step = recipe.steps[from];
    step.id = copy = freshId(recipe, id);
    step.made = false;
    recipe.steps.insert(recipe.steps.begin() + offset(from) + 1, std::move(step));
    return recipe;
}

Recipe without(Recipe recipe, const std::string& id) {
    std::erase_if(recipe.steps, [&](const Step& s) { return s.id == id; });
    return recipe;
}

Recipe withNew(Recipe recipe, Act act, const std::string& below, const std::vector<Bottle>& paints,
               std::string& added) {
    Step step;
    step.act = act;
    for (const auto& name : actNames())
        if (name.value == act) step.id = freshId(recipe, std::string(name.id));
    if (nine::paints(act) && !paints.empty()) {
        const Bottle* white = findBottle(paints, "white");
        const Bottle& bottle = white && act == Act::Base ? *white : paints.front();
        step.paint = {{bottle.id, 4}};
        step.reducer = 1;
        step.name = bottle.name;
    }
    if (act == Act::Eyes) step.glue = "gel";
    if (act == Act::Clear) step.clear = "epoxy";
    added = step.id;
    const std::size_t place = placeOf(recipe, below);
    recipe.steps.insert(
        place < recipe.steps.size() ? recipe.steps.begin() + offset(place) + 1 : recipe.steps.end(),
        std::move(step));
    return recipe;
}

Recipe withGroupedBelow(Recipe recipe, const std::string& id, const std::string& name) {
    const std::size_t place = placeOf(recipe, id);
    if (place == 0 || place >= recipe.steps.size()) return recipe;
    Step& below = recipe.steps[place - 1];
    if (below.group.empty()) below.group = name;
    recipe.steps[place].group = below.group;
    return recipe;
}

std::string ratioText(const Step& step) {
    const auto text = [](Ratio drops) { return numberText(std::round(100 * drops) / 100); };
    return text(paintDrops(step)) + " : " + text(step.reducer);
}

}  // namespace nine::app
