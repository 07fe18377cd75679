// Rules of covers, eyes and clear.
#include "recipe/rule_parts.h"

namespace nine {

using namespace rule_parts;

namespace {

const Rule kFinishRules[] = {
    {"eyes_early", Severity::Caution,
     NINE_WORDS("core", "The eyes of \"{step}\" go in before the last paint: its dust falls on them."),
     NINE_WORDS("core", "Move them behind the last paint"),
     [](const RuleView& v) {
         const auto last = lastPaint(v);
         return those(v,
                      [&](const Step& s, std::size_t k) { return s.act == Act::Eyes && last && k < *last; });
     },
     [](Recipe r, std::size_t k, const RecipeFacts& facts) {
         const auto last = lastPaint({r, facts});
         return last ? moved(std::move(r), k, *last + 1) : r;
     }},
    {"glue_not_set", Severity::Caution,
     NINE_WORDS("core", "The clear comes before the glue of \"{step}\" has set: give it 20 to 30 minutes."),
     NINE_WORDS("core", "Wait 20 minutes"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             if (s.act != Act::Eyes || s.glue == "none" || s.wait_min >= kGlueWait_min) return false;
             return k + 1 < v.recipe.steps.size() &&
                    std::any_of(v.recipe.steps.begin() + static_cast<std::ptrdiff_t>(k) + 1,
                                v.recipe.steps.end(), [](const Step& t) { return t.on && finishes(t); });
         });
     },
     [](Recipe r, std::size_t k, const RecipeFacts&) {
         at(r, k).wait_min = kGlueWait_min;
         return r;
     }},
    {"foaming_glue", Severity::Caution,
     NINE_WORDS("core", "Foaming glue pushes the eyes of \"{step}\" out of their sockets."),
     NINE_WORDS("core", "Take thick glue"),
     [](const RuleView& v) {
         return those(v,
                      [](const Step& s, std::size_t) { return s.act == Act::Eyes && s.glue == "foaming"; });
     },
     [](Recipe r, std::size_t k, const RecipeFacts&) {
         at(r, k).glue = "thick";
         return r;
     }},
    {"bill_bare", Severity::Fault,
     NINE_WORDS("core", "The bill is not covered before the first paint, \"{step}\"."),
     NINE_WORDS("core", "Cover the bill"),
     [](const RuleView& v) { return uncovered<&RecipeFacts::bill>(v, "bill"); },
     [](Recipe r, std::size_t, const RecipeFacts&) { return covered(std::move(r), "bill"); }},
    {"sockets_bare", Severity::Hint,
     NINE_WORDS(
         "core",
         "The eye sockets are not covered before the first paint, \"{step}\": paint makes them smaller."),
     NINE_WORDS("core", "Cover the sockets"),
     [](const RuleView& v) { return uncovered<&RecipeFacts::sockets>(v, "sockets"); },
     [](Recipe r, std::size_t, const RecipeFacts&) { return covered(std::move(r), "sockets"); }},
    {"hinge_bare", Severity::Caution,
     NINE_WORDS("core", "The hinge is not covered before the first paint, \"{step}\"."),
     NINE_WORDS("core", "Cover the hinge"),
     [](const RuleView& v) { return uncovered<&RecipeFacts::hinge>(v, "hinge"); },
     [](Recipe r, std::size_t, const RecipeFacts&) { return covered(std::move(r), "hinge"); }},
    {"lock_for_clear", Severity::Caution,
     NINE_WORDS("core", "\"{step}\" is the last coat: a lock coat is thin and no top coat."),
     NINE_WORDS("core", "Add a clear coat"),
     [](const RuleView& v) {
         const auto lock = firstOf(v, Act::Lock);
         return lock && !firstOf(v, Act::Clear) ? Steps{*lock} : Steps{};
     },
     [](Recipe r, std::size_t, const RecipeFacts& facts) {
         Step clear = coatOf(r, Act::Clear, "clear", "Clear coat");
         clear.clear = "epoxy";
         clear.does = {"hook_eyes"};
         if (facts.hinge) clear.does.push_back("hinge");
         r.steps.push_back(clear);
         return r;
     }},
    {"lock_heated", Severity::Caution, NINE_WORDS("core", "\"{step}\" is a lock coat and is not warmed."),
     NINE_WORDS("core", "Let it dry by air"),
     [](const RuleView& v) {
         return those(v, [](const Step& s, std::size_t) { return s.act == Act::Lock && heats(s.dry); });
     },
     [](Recipe r, std::size_t k, const RecipeFacts&) {
         at(r, k).dry = Dry::Touch;
         return r;
     }},
    {"clear_on_hook_eyes", Severity::Caution,
     NINE_WORDS("core", "\"{step}\" must be kept off the hook eyes, or they close."),
     NINE_WORDS("core", "Keep off the hook eyes"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t) {
             return finishes(s) && v.facts.hookEyes && !s.doing("hook_eyes");
         });
     },
     [](Recipe r, std::size_t k, const RecipeFacts&) {
         at(r, k).does.push_back("hook_eyes");
         return r;
     }},
    {"clear_on_hinge", Severity::Caution,
     NINE_WORDS("core", "\"{step}\" must be kept off the hinge, or it stiffens."),
     NINE_WORDS("core", "Keep off the hinge"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t) {
             return finishes(s) && v.facts.hinge && !s.doing("hinge");
         });
     },
     [](Recipe r, std::size_t k, const RecipeFacts&) {
         at(r, k).does.push_back("hinge");
         return r;
     }},
    {"no_paper_test", Severity::Hint, NINE_WORDS("core", "Nothing is tried on paper before \"{step}\"."),
     NINE_WORDS("core", "Test on paper first"),
     [](const RuleView& v) {
         const auto paint = firstPaint(v);
         const bool tested =
             !those(v, [](const Step& s, std::size_t) { return s.doing("paper_test"); }).empty();
         return paint && !tested ? Steps{*paint} : Steps{};
     },
     [](Recipe r, std::size_t, const RecipeFacts&) {
         for (Step& s : r.steps)
             if (s.on && s.act == Act::Prepare) {
                 s.does.push_back("paper_test");
                 return r;
             }
         Step step = coatOf(r, Act::Prepare, "prepare", "Prepare");
         step.does = {"paper_test"};
         r.steps.insert(r.steps.begin(), step);
         return r;
     }},
    {"isocyanates", Severity::Caution,
     NINE_WORDS("core",
                "\"{step}\" is a two-part clear with isocyanates: it needs supplied air and training, not a "
                "filter mask. Its data sheet and local codes decide."),
     NINE_WORDS("core", "Read it and let it stand"),
     [](const RuleView& v) {
         return those(v, [](const Step& s, std::size_t) {
             const ClearKind* kind = findClear(s.clear);
             return finishes(s) && kind && kind->isocyanates;
         });
     },
     nullptr},
};

}  // namespace

std::span<const Rule> rulesOfFinish() {
    return kFinishRules;
}

}  // namespace nine
