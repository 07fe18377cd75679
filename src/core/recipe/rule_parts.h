// What rules are made of: questions about a recipe, and mends that several share. Internal to recipe/.
#pragma once

#include <algorithm>
#include <cmath>

#include "recipe/rules.h"

namespace nine::rule_parts {

using Steps = std::vector<std::size_t>;

// Below this a ground swallows what shines through it; L* (fitted: bare plastic of a grey blank is 73).
constexpr Figure kDark = 62;
constexpr double kGlueWait_min = 20;
constexpr double kCoarseFlake_um = 30, kPearlNeedle_mm = 0.3;

inline Step& at(Recipe& recipe, std::size_t step) {
    return recipe.steps[step];
}

inline bool hasFamily(const RuleView& v, const Step& s, std::initializer_list<std::string_view> families) {
    return std::any_of(s.paint.begin(), s.paint.end(), [&](const MixPart& part) {
        const Bottle* b = v.bottle(part.bottle);
        return b && std::find(families.begin(), families.end(), b->family) != families.end();
    });
}
template <typename Asked>
bool anyBottle(const RuleView& v, const Step& s, Asked asked) {
    return std::any_of(s.paint.begin(), s.paint.end(), [&](const MixPart& part) {
        const Bottle* b = v.bottle(part.bottle);
        return b && asked(*b);
    });
}
/// Steps that are on and for which `asked` says so.
template <typename Asked>
Steps those(const RuleView& v, Asked asked) {
    Steps found;
    for (std::size_t k = 0; k < v.recipe.steps.size(); ++k)
        if (v.recipe.steps[k].on && asked(v.recipe.steps[k], k)) found.push_back(k);
    return found;
}
inline std::optional<std::size_t> firstOf(const RuleView& v, Act act) {
    const Steps all = those(v, [&](const Step& s, std::size_t) { return s.act == act; });
    return all.empty() ? std::nullopt : std::optional(all.front());
}
inline std::optional<std::size_t> firstPaint(const RuleView& v) {
    const Steps all = those(v, [](const Step& s, std::size_t) { return paints(s.act); });
    return all.empty() ? std::nullopt : std::optional(all.front());
}
inline std::optional<std::size_t> lastPaint(const RuleView& v) {
    const Steps all = those(v, [](const Step& s, std::size_t) { return paints(s.act); });
    return all.empty() ? std::nullopt : std::optional(all.back());
}
/// The last step before that lays something wet down.
inline std::optional<std::size_t> wetBefore(const RuleView& v, std::size_t step) {
    std::optional<std::size_t> found;
    v.before(step, [&](std::size_t k) {
        const Step& s = v.recipe.steps[k];
        if (s.act == Act::MaskOff || s.act == Act::NetOff) return true;
        if (paints(s.act) || s.act == Act::Lock) found = k;
        return !found && s.act != Act::Cure;
    });
    return found;
}
inline bool darkUnder(const RuleView& v, std::size_t step) {
    const auto over = v.over ? v.over(step) : std::nullopt;
    return over && over->ground.l < kDark;
}
inline Figure chroma(const Lab& c) {
    return std::hypot(c.a, c.b);
}

inline Step whiteBefore(const Recipe& recipe, const Step& step) {
    Step white;
    white.id = freshId(recipe, "white");
    white.act = Act::Base;
    white.name = "White";
    white.paint = {{"white", 4}};
    white.reducer = 1;
    white.coats = 2;
    white.where = step.where;
    white.group = step.group;
    white.dry = Dry::HeatMatt;
    return white;
}
/// White where the step goes, before it; under a mask before the mask is laid on.
inline Recipe withWhite(Recipe recipe, std::size_t step, const RecipeFacts&) {
    Step white = whiteBefore(recipe, at(recipe, step));
    recipe.steps.insert(recipe.steps.begin() + static_cast<std::ptrdiff_t>(step), white);
    return recipe;
}
inline Recipe dried(Recipe recipe, std::size_t step) {
    Step& s = at(recipe, step);
    s.dry = s.rest_min > 0 ? Dry::Rest : Dry::HeatMatt;
    return recipe;
}
/// The wet step before this one dried.
inline Recipe driedBefore(Recipe recipe, std::size_t step, const RecipeFacts& facts) {
    const RuleView v{recipe, facts};
    if (const auto wet = wetBefore(v, step)) {
        const bool never = anyBottle(v, recipe.steps[*wet], [](const Bottle& b) { return b.noHeat; });
        recipe = dried(std::move(recipe), *wet);
        if (never) at(recipe, *wet).dry = Dry::Touch;
    }
    return recipe;
}
inline Recipe covered(Recipe recipe, const char* what) {
    for (Step& s : recipe.steps)
        if (s.on && s.act == Act::Cover) {
            s.does.push_back(what);
            return recipe;
        }
    Step cover;
    cover.id = freshId(recipe, "cover");
    cover.act = Act::Cover;
    cover.name = "Cover";
    cover.does = {what};
    // Before the first paint, after what prepares.
    auto place = recipe.steps.begin();
    while (place != recipe.steps.end() && place->act == Act::Prepare) ++place;
    recipe.steps.insert(place, cover);
    return recipe;
}
inline bool coversBefore(const RuleView& v, const char* what) {
    const auto paint = firstPaint(v);
    if (!paint) return true;
    bool found = false;
    v.before(*paint, [&](std::size_t k) {
        found = found || (v.recipe.steps[k].act == Act::Cover && v.recipe.steps[k].doing(what));
        return !found;
    });
    return found;
}
template <bool RecipeFacts::*Has>
Steps uncovered(const RuleView& v, const char* what) {
    const auto paint = firstPaint(v);
    return v.facts.*Has && paint && !coversBefore(v, what) ? Steps{*paint} : Steps{};
}
inline Recipe off(Recipe recipe, std::size_t step, const RecipeFacts&) {
    at(recipe, step).on = false;
    return recipe;
}
inline Recipe moved(Recipe recipe, std::size_t from, std::size_t to) {
    const Step step = at(recipe, from);
    recipe.steps.erase(recipe.steps.begin() + static_cast<std::ptrdiff_t>(from));
    recipe.steps.insert(recipe.steps.begin() + static_cast<std::ptrdiff_t>(from < to ? to - 1 : to), step);
    return recipe;
}
/// What is still on the body, innermost first, before a step.
inline std::vector<std::string> lyingBefore(const RuleView& v, std::size_t step) {
    std::vector<std::string> stack;
    for (std::size_t k = 0; k < step; ++k) {
        const Step& s = v.recipe.steps[k];
        if (!s.on) continue;
        const std::string what =
            s.act == Act::NetOn || s.act == Act::NetOff ? std::string("net") : "mask:" + s.mask;
        if (s.act == Act::NetOn || s.act == Act::MaskOn) stack.push_back(what);
        if (s.act == Act::NetOff || s.act == Act::MaskOff)
            if (const auto found = std::find(stack.rbegin(), stack.rend(), what); found != stack.rend())
                stack.erase(std::next(found).base());
    }
    return stack;
}
inline bool isMask(const RecipeFacts& facts, const std::string& id) {
    return std::any_of(facts.masks.begin(), facts.masks.end(),
                       [&](const MaskFact& m) { return m.id == id || m.twin == id; });
}
inline std::string maskOf(const Step& s) {
    if (s.act == Act::MaskOn || s.act == Act::MaskOff) return s.mask;
    return s.where.reaches == Reaches::Windows || s.where.reaches == Reaches::Negatives ? s.where.of : "";
}
inline Step coatOf(const Recipe& recipe, Act act, const char* id, const char* name) {
    Step s;
    s.id = freshId(recipe, id);
    s.act = act;
    s.name = name;
    return s;
}
inline bool finishes(const Step& s) {
    return s.act == Act::Clear;
}

}  // namespace nine::rule_parts

namespace nine {
/// The rules, by what they are about.
std::span<const Rule> rulesOfPaint();
std::span<const Rule> rulesOfWhatIsLaidOn();
std::span<const Rule> rulesOfFinish();
}  // namespace nine
