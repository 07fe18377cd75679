// Every rule: silent on a recipe that is right, said when it is spoilt, silenced by its own repair.
#include "recipe/rules.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <map>

#include "recipe/begin.h"
#include "tests/support.h"

namespace nine {
namespace {

using namespace test;

RecipeFacts facts() {
    RecipeFacts f;
    f.bill = f.sockets = f.hookEyes = f.hinge = true;
    f.socket_mm = 6;
    f.net = f.fabricNet = true;
    f.masks = {{"bars-L", "Bars", {"bars"}, {"#303020"}, false, false, {}, false, "bars-R"},
               {"dots-L", "Dots", {"dots"}, {"#C03020"}, true, false, {}, false, ""}};
    f.soft = {{"shade", "Shade", "#605030"}};
    f.elements = {"bars", "dots", "shade"};
    f.drawn = {"shade", "bars-L", "dots-L"};
    f.paints = genericShelf();
    return f;
}

Step step(Act act, const std::string& id) {
    Step s;
    s.act = act;
    s.id = id;
    s.name = id;
    return s;
}
Step colour(const std::string& id, const std::string& paint, Where where = {}) {
    Step s = step(Act::Colour, id);
    s.paint = {{paint, 4}};
    s.reducer = 1;
    s.coats = 2;
    s.where = std::move(where);
    return s;
}
Step mask(Act act, const std::string& id, const std::string& of) {
    Step s = step(act, id);
    s.mask = of;
    return s;
}

/// Nothing wrong with it.
Recipe good() {
    Recipe r;
    r.steps.push_back(step(Act::Prepare, "prepare"));
    r.steps.back().does = {"wash", "paper_test"};
    r.steps.push_back(step(Act::Cover, "cover"));
    r.steps.back().does = {"bill", "sockets", "hook_eyes", "hinge"};
    r.steps.push_back(colour("white", "white"));
    r.steps.back().act = Act::Base;
    r.steps.push_back(colour("olive", "olive"));
    r.steps.push_back(mask(Act::MaskOn, "on", "bars-L"));
    r.steps.push_back(colour("bars", "black", {Reaches::Windows, "bars-L"}));
    r.steps.push_back(mask(Act::MaskOff, "off", "bars-L"));
    r.steps.push_back(step(Act::NetOn, "net-on"));
    r.steps.push_back(colour("scales", "brown", {Reaches::Net, ""}));
    r.steps.push_back(step(Act::NetOff, "net-off"));
    r.steps.push_back(step(Act::Eyes, "eyes"));
    r.steps.back().glue = "thick";
    r.steps.back().wait_min = 25;
    r.steps.push_back(step(Act::Clear, "clear"));
    r.steps.back().clear = "epoxy";
    r.steps.back().does = {"hook_eyes", "hinge"};
    return r;
}
Step& in(Recipe& r, const std::string& id) {
    return r.steps.at(placeOf(r, id));
}
void insert(Recipe& r, const std::string& before, Step s) {
    r.steps.insert(r.steps.begin() + static_cast<std::ptrdiff_t>(placeOf(r, before)), std::move(s));
}
void remove(Recipe& r, const std::string& id) {
    r.steps.erase(r.steps.begin() + static_cast<std::ptrdiff_t>(placeOf(r, id)));
}

/// Colours of one place that every step reaches.
struct OnePlace {
    std::vector<std::shared_ptr<const Cover>> covers;
    Painted painted;
    OverWhatAt over;
    OnePlace(const Recipe& recipe, const RecipeFacts& f) {
        auto all = std::make_shared<Cover>();
        all->share = {1.f};
        for (const Step& s : recipe.steps) covers.push_back(s.on && paints(s.act) ? all : nullptr);
        static const Palette palette = paletteOf(genericShelf());
        painted = need(nine::painted(recipe.steps, palette, covers, 1, f.blank));
        over = overWhat(painted, covers);
    }
};
std::vector<RuleFinding> findings(const Recipe& recipe, const RecipeFacts& f) {
    const OnePlace place(recipe, f);
    return checkRecipe({recipe, f, place.over});
}
std::vector<std::string> said(const Recipe& recipe, const RecipeFacts& f) {
    std::vector<std::string> ids;
    for (const RuleFinding& finding : findings(recipe, f)) ids.push_back(finding.rule);
    return ids;
}

struct Spoilt {
    const char* rule;
    void (*spoil)(Recipe&, RecipeFacts&);
    const char* step;  ///< it is about
};
const Spoilt kSpoilt[] = {
    {"neon_over_dark", [](Recipe& r, RecipeFacts&) { insert(r, "eyes", colour("glow", "neon-pink")); },
     "glow"},
    {"transparent_over_dark",
     [](Recipe& r, RecipeFacts&) { insert(r, "eyes", colour("glaze", "umber-glaze")); }, "glaze"},
    {"bright_over_dark",
     [](Recipe& r, RecipeFacts&) {
         insert(r, "eyes", colour("orange", "orange"));
         in(r, "orange").coats = 1;
     },
     "orange"},
    {"loses_colour",
     [](Recipe& r, RecipeFacts&) {
         // Amber candy through the mask, on a light grey that is no dark ground.
         insert(r, "on", colour("grey", "grey"));
         in(r, "grey").coats = 8;
         in(r, "bars").paint = {{"candy-amber", 4}};
         in(r, "bars").coats = 2;
     },
     "bars"},
    {"muddy",
     [](Recipe& r, RecipeFacts&) {
         r.steps.erase(r.steps.begin() + 3, r.steps.begin() + 10);
         insert(r, "eyes", colour("red", "red-glaze"));
         insert(r, "eyes", colour("green", "green-glaze"));
         in(r, "red").coats = in(r, "green").coats = 3;
         insert(r, "clear", step(Act::Lock, "lock"));
         in(r, "lock").dry = Dry::Touch;
     },
     "green"},
    {"mask_on_wet", [](Recipe& r, RecipeFacts&) { in(r, "olive").dry = Dry::Flash; }, "on"},
    {"net_on_wet", [](Recipe& r, RecipeFacts&) { in(r, "bars").dry = Dry::Flash; }, "net-on"},
    {"painted_over", [](Recipe& r, RecipeFacts&) { insert(r, "net-on", colour("late", "cream")); }, "late"},
    {"candy_heated",
     [](Recipe& r, RecipeFacts&) {
         insert(r, "olive", colour("candy", "candy-red"));
         insert(r, "clear", step(Act::Lock, "lock"));
         in(r, "lock").dry = Dry::Touch;
     },
     "candy"},
    {"no_rest",
     [](Recipe& r, RecipeFacts&) {
         insert(r, "olive", colour("candy", "candy-red"));
         in(r, "candy").dry = Dry::Rest;
         in(r, "candy").rest_min = 3;
         insert(r, "clear", step(Act::Lock, "lock"));
         in(r, "lock").dry = Dry::Touch;
     },
     "candy"},
    {"heat_near_solvent",
     [](Recipe&, RecipeFacts& f) {
         for (Bottle& b : f.paints) b.solvent = b.id == "olive";
     },
     "olive"},
    {"heat_on_hollow",
     [](Recipe& r, RecipeFacts& f) {
         f.hollow = true;
         for (Step& s : r.steps)
             if (s.id != "bars") s.dry = Dry::Touch;
     },
     "bars"},
    {"ink_dissolves",
     [](Recipe& r, RecipeFacts&) {
         in(r, "bars").paint = {{"sepia-ink", 4}};
         in(r, "clear").clear = "solvent_dip";
     },
     "clear"},
    {"no_lock", [](Recipe& r, RecipeFacts&) { insert(r, "olive", colour("glaze", "yellow-glaze")); },
     "clear"},
    {"eyes_early",
     [](Recipe& r, RecipeFacts&) {
         const Step eyes = in(r, "eyes");
         remove(r, "eyes");
         insert(r, "net-on", eyes);
     },
     "eyes"},
    {"glue_not_set", [](Recipe& r, RecipeFacts&) { in(r, "eyes").wait_min = 5; }, "eyes"},
    {"foaming_glue", [](Recipe& r, RecipeFacts&) { in(r, "eyes").glue = "foaming"; }, "eyes"},
    {"bill_bare",
     [](Recipe& r, RecipeFacts&) {
         in(r, "cover").does = {"sockets", "hook_eyes", "hinge"};
     },
     "white"},
    {"sockets_bare",
     [](Recipe& r, RecipeFacts&) {
         in(r, "cover").does = {"bill", "hook_eyes", "hinge"};
     },
     "white"},
    {"hinge_bare",
     [](Recipe& r, RecipeFacts&) {
         in(r, "cover").does = {"bill", "sockets"};
     },
     "white"},
    {"net_forgotten", [](Recipe& r, RecipeFacts&) { remove(r, "net-off"); }, "clear"},
    {"mask_forgotten", [](Recipe& r, RecipeFacts&) { remove(r, "off"); }, "clear"},
    {"order_of_masks",
     [](Recipe& r, RecipeFacts&) {
         insert(r, "off", mask(Act::MaskOn, "dots-on", "dots-L"));
         insert(r, "net-on", mask(Act::MaskOff, "dots-off", "dots-L"));
     },
     "off"},
    {"never_laid",
     [](Recipe& r, RecipeFacts&) {
         remove(r, "on");
         remove(r, "off");
     },
     "bars"},
    {"fabric_lifted_wet", [](Recipe& r, RecipeFacts&) { in(r, "scales").dry = Dry::Wet; }, "net-off"},
    {"cutouts_lost",
     [](Recipe& r, RecipeFacts&) {
         in(r, "olive").where = {Reaches::Negatives, "bars-L"};
     },
     "olive"},
    {"needle_too_fine",
     [](Recipe& r, RecipeFacts& f) {
         f.needle_mm = 0.2;
         insert(r, "olive", colour("pearl", "pearl-white"));
     },
     "pearl"},
    {"not_wiped",
     [](Recipe& r, RecipeFacts&) {
         insert(r, "net-on", mask(Act::MaskOn, "again", "bars-L"));
         insert(r, "net-on", mask(Act::MaskOff, "again-off", "bars-L"));
     },
     "again"},
    {"lock_for_clear",
     [](Recipe& r, RecipeFacts&) {
         remove(r, "clear");
         r.steps.push_back(step(Act::Lock, "lock"));
         in(r, "lock").dry = Dry::Touch;
     },
     "lock"},
    {"lock_heated", [](Recipe& r, RecipeFacts&) { insert(r, "clear", step(Act::Lock, "lock")); }, "lock"},
    {"clear_on_hook_eyes", [](Recipe& r, RecipeFacts&) { in(r, "clear").does = {"hinge"}; }, "clear"},
    {"clear_on_hinge", [](Recipe& r, RecipeFacts&) { in(r, "clear").does = {"hook_eyes"}; }, "clear"},
    {"no_paper_test", [](Recipe& r, RecipeFacts&) { in(r, "prepare").does = {"wash"}; }, "white"},
    {"isocyanates", [](Recipe& r, RecipeFacts&) { in(r, "clear").clear = "two_part"; }, "clear"},
    {"mask_gone",
     [](Recipe& r, RecipeFacts&) {
         insert(r, "net-on", mask(Act::MaskOn, "lost", "gone-L"));
         insert(r, "net-on", mask(Act::MaskOff, "lost-off", "bars-L"));
         remove(r, "lost-off");
         insert(r, "net-on", mask(Act::MaskOff, "lost-off", "gone-L"));
     },
     "lost"},
    {"net_gone",
     [](Recipe& r, RecipeFacts& f) {
         f.net = false;
         remove(r, "scales");
         remove(r, "net-off");
     },
     "net-on"},
    {"element_gone",
     [](Recipe& r, RecipeFacts&) {
         in(r, "olive").where = {Reaches::Element, "nobody"};
     },
     "olive"},
    {"paint_gone",
     [](Recipe& r, RecipeFacts&) {
         in(r, "olive").paint = {{"lost", 1}};
     },
     "olive"},
};

TEST(Rules, AreManyEachWithItsSpoiltRecipe) {
    EXPECT_GE(rules().size(), 24u);
    for (const Rule& rule : rules())
        EXPECT_EQ(std::count_if(std::begin(kSpoilt), std::end(kSpoilt),
                                [&](const Spoilt& s) { return s.rule == rule.id; }),
                  1)
            << rule.id;
}

TEST(Rules, NothingIsSaidOfARecipeThatIsRight) {
    EXPECT_EQ(said(good(), facts()), std::vector<std::string>{});
    EXPECT_EQ(said({}, facts()), std::vector<std::string>{});
}

TEST(Rules, EachIsSaidWhenItIsBrokenAndSilencedByItsRepair) {
    for (const Spoilt& spoilt : kSpoilt) {
        SCOPED_TRACE(spoilt.rule);
        Recipe recipe = good();
        RecipeFacts f = facts();
        spoilt.spoil(recipe, f);
        const std::vector<RuleFinding> found = findings(recipe, f);
        const auto own = std::find_if(found.begin(), found.end(),
                                      [&](const RuleFinding& x) { return x.rule == spoilt.rule; });
        ASSERT_NE(own, found.end());
        EXPECT_EQ(own->step, spoilt.step);
        EXPECT_NE(own->says.plain().find(in(recipe, own->step).name), std::string::npos);
        for (int k = 0; k < 4; ++k) {
            const std::vector<RuleFinding> left = findings(recipe, f);
            const auto still = std::find_if(left.begin(), left.end(),
                                            [&](const RuleFinding& x) { return x.rule == spoilt.rule; });
            if (still == left.end()) break;
            recipe = mended(std::move(recipe), *still, f);
        }
        for (const std::string& id : said(recipe, f)) EXPECT_NE(id, spoilt.rule);
        for (const Step& s : recipe.steps) EXPECT_TRUE(checkStep(s, "s")) << s.id;
        std::vector<std::string> ids;
        for (const Step& s : recipe.steps) {
            EXPECT_EQ(std::count(ids.begin(), ids.end(), s.id), 0) << s.id;
            ids.push_back(s.id);
        }
    }
}

TEST(Rules, WhatIsMeantIsNotSaid) {
    // Tacky, wet on wet under a net; a heated opaque; a dark glaze over a dark back; steps that are off.
    RecipeFacts f = facts();
    Recipe r = good();
    in(r, "bars").dry = Dry::Tacky;
    EXPECT_EQ(said(r, f), std::vector<std::string>{});
    r = good();
    insert(r, "eyes", colour("glow", "neon-pink"));
    in(r, "glow").on = false;
    EXPECT_EQ(said(r, f), std::vector<std::string>{});
    // White under neon, where that goes, is enough.
    r = good();
    insert(r, "eyes", colour("white-2", "white", {Reaches::Fade, ""}));
    insert(r, "eyes", colour("glow", "neon-pink", {Reaches::Fade, ""}));
    EXPECT_EQ(said(r, f), std::vector<std::string>{});
    // What was accepted is not said again; severities are the shop's.
    r = good();
    in(r, "eyes").glue = "foaming";
    const OnePlace place(r, f);
    EXPECT_EQ(checkRecipe({r, f, place.over}, {{"foaming_glue", Severity::Fault}}).at(0).severity,
              Severity::Fault);
    r.accepted = {"foaming_glue"};
    EXPECT_EQ(said(r, f), std::vector<std::string>{});
}

TEST(Begin, BothSchoolsAndTheShortPath) {
    const RecipeFacts f = facts();
    for (const School school : {School::LightToDark, School::BackFirst}) {
        const Recipe r = need(beginRecipe(f, school));
        for (const Step& s : r.steps) EXPECT_TRUE(checkStep(s, "s")) << s.id;
        // Everything drawn is painted, masks lie when they are sprayed through, the net comes off.
        for (const char* of : {"shade", "bars-L", "dots-L"})
            EXPECT_TRUE(std::any_of(r.steps.begin(), r.steps.end(), [&](const Step& s) {
                return paints(s.act) && s.where.of == of;
            })) << of;
        for (const std::string& id : said(r, f))
            EXPECT_TRUE(id == "bright_over_dark" || id == "neon_over_dark" || id == "transparent_over_dark" ||
                        id == "muddy")
                << id;
    }
    RecipeFacts plain;
    plain.paints = genericShelf();
    plain.hookEyes = true;
    const Recipe three = need(beginRecipe(plain, School::LightToDark));
    EXPECT_LE(three.steps.size(), 3u);
    EXPECT_EQ(three.steps.back().act, Act::Clear);
    plain.paints.clear();
    EXPECT_EQ(beginRecipe(plain, School::LightToDark).error().code, "no_shelf");
}

TEST(Begin, TheSchoolsDifferInOrder) {
    RecipeFacts f = facts();
    f.masks.clear();
    f.net = false;
    f.soft = {{"dark", "Dark", "#202018"}, {"pale", "Pale", "#E8E0C0"}};
    f.drawn = {"dark", "pale"};
    const Recipe light = need(beginRecipe(f, School::LightToDark)),
                 back = need(beginRecipe(f, School::BackFirst));
    EXPECT_LT(placeOf(light, "pale"), placeOf(light, "dark"));
    EXPECT_GT(placeOf(back, "pale"), placeOf(back, "dark"));
}

}  // namespace
}  // namespace nine
