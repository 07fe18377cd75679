#include "recipe/begin.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace nine {
namespace {

constexpr Figure kBright = 60;  // chroma or lightness a ground must not swallow

Lab labOfText(const std::string& colour) {
    const std::optional<Srgb> c = parseColour(colour);
    return labOf(xyzOf(linearOf(c ? *c : Srgb{128, 128, 128})));
}

class Beginner {
  public:
    Beginner(const RecipeFacts& facts, School school, const Task& task)
        : facts_(facts), school_(school), task_(task), palette_(paletteOf(facts.paints)) {
        for (std::size_t i = 0; i < palette_.ids.size(); ++i) {
            const Film& film = palette_.paints[i].film;
            if (film.glow > 0 || film.flakeCover > 0) continue;
            // One colour alone is one that covers by itself.
            const std::string& family = facts.paints[i].family;
            if (simple() && family != "opaque" && family != "craft") continue;
            plain_.ids.push_back(palette_.ids[i]);
            plain_.paints.push_back(palette_.paints[i]);
        }
    }

    Result<Recipe> begin() {
        if (palette_.ids.empty())
            return Error{"no_shelf", NINE_WORDS("core", "There is no paint on the shelf to begin with."),
                         "paints"};
        prepare();
        base();
        ground();
        marks();
        finish();
        if (task_.cancelled()) return Task::cancelledError();
        return std::move(recipe_);
    }

  private:
    Step& add(Act act, const std::string& id, const std::string& name) {
        Step step;
        step.act = act;
        step.id = freshId(recipe_, id);
        step.name = name;
        step.made = true;
        recipe_.steps.push_back(std::move(step));
        return recipe_.steps.back();
    }

    bool simple() const { return facts_.drawn.empty() && !facts_.net; }

    void prepare() {
        Step& step = add(Act::Prepare, "prepare", "Prepare");
        step.does = {"wash", "scuff", "dust_off", "paper_test"};
        std::vector<std::string> cover;
        if (facts_.bill) cover.push_back("bill");
        if (facts_.sockets) cover.push_back("sockets");
        if (facts_.hookEyes && !simple()) cover.push_back("hook_eyes");
        if (facts_.hinge) cover.push_back("hinge");
        if (!cover.empty()) add(Act::Cover, "cover", "Cover").does = cover;
    }

    /// The nearest paint for a colour over white, and how many coats of it.
    void give(Step& step, const std::string& colour) {
        auto known = mixes_.find(colour);
        if (known == mixes_.end()) {
            Wanted wanted;
            wanted.colour = labOfText(colour);
            // What glows or glitters only where nothing else comes near.
            constexpr Figure kFar = 8;
            const auto sought = [&](const Palette& palette) {
                const Result<NearestMixes> found = nearestMixes(palette, wanted, task_);
                return found && !found->found.empty() ? found->found[found->offered] : FoundMix{{}, 1e9, {}};
            };
            FoundMix best = sought(plain_);
            if (best.difference > kFar && !simple())
                if (FoundMix any = sought(palette_); any.difference < best.difference - kFar)
                    best = std::move(any);
            std::vector<MixPart> parts = std::move(best.parts);
            known = mixes_.emplace(colour, std::move(parts)).first;
        }
        step.paint = known->second;
        if (step.paint.empty()) step.paint = {{palette_.ids.front(), 1}};
        Ratio drops = 0;
        bool never = false;
        for (const MixPart& part : step.paint) {
            drops += part.drops;
            const Bottle* b = findBottle(facts_.paints, part.bottle);
            never = never || (b && b->noHeat);
            if (b) step.rest_min = std::max(step.rest_min, b->rest_min);
            locks_ = locks_ || (b && (b->wantsLock || b->family == "ink"));
        }
        step.reducer = drops / 4;  // 4:1
        step.coats = 2;
        step.dry = step.rest_min > 0 ? Dry::Rest : never ? Dry::Touch : Dry::HeatMatt;
    }

    void base() {
        if (simple()) return;  // where it is needed the rules ask for it
        bool bright = false;
        const auto look = [&](const std::string& colour) {
            if (colour.empty()) return;
            const Lab c = labOfText(colour);
            bright = bright || c.l > kBright || std::hypot(c.a, c.b) > kBright / 2;
        };
        for (const SoftFact& s : facts_.soft) look(s.colour);
        for (const MaskFact& m : facts_.masks)
            for (const std::string& colour : m.colours) look(colour);
        for (const std::string& g : {facts_.groundBack, facts_.groundSide, facts_.groundBelly}) look(g);
        if (!bright || !findBottle(facts_.paints, "white")) return;
        Step& step = add(Act::Base, "base", "White base");
        step.paint = {{"white", 4}};
        step.reducer = 1;
        step.coats = 2;
    }

    void fade(const std::string& id, const std::string& name, const std::string& colour, FadeFrom from) {
        Step& step = add(Act::Colour, id, name);
        give(step, colour);
        step.where.reaches = Reaches::Fade;
        step.where.from = from;
    }

    /// Side everywhere, back and belly faded over it.
    void ground() {
        if (!facts_.groundSide.empty()) give(add(Act::Colour, "side", "Sides"), facts_.groundSide);
        const auto belly = [&] {
            if (!facts_.groundBelly.empty()) fade("belly", "Belly", facts_.groundBelly, FadeFrom::Belly);
        };
        const auto back = [&] {
            if (!facts_.groundBack.empty()) fade("back", "Back", facts_.groundBack, FadeFrom::Back);
        };
        if (school_ == School::BackFirst) {
            back();
            belly();
        } else {
            belly();
            back();
        }
        if (recipe_.steps.back().act == Act::Prepare || recipe_.steps.back().act == Act::Cover ||
            recipe_.steps.back().act == Act::Base)
            if (simple()) give(add(Act::Colour, "colour", "Colour"), "#7A8A5A");
    }

    void freehand(const SoftFact& soft) {
        Step& step = add(Act::Colour, soft.id, soft.name);
        give(step, soft.colour);
        step.where.reaches = Reaches::Element;
        step.where.of = soft.id;
    }
    /// Two, or as many as bring the colour close over a dark body, four at most.
    Ratio coatsOver(const Step& step, const Lab& wanted) const {
        constexpr Figure kNear = 10;
        const std::optional<Sprayable> paint = paintOf(step, palette_);
        Ratio coats = 2;
        while (paint && coats < 4 &&
               difference(labOf(under(bare(evenBands(.1)), paint->film, coats), kMatt), wanted) > kNear)
            ++coats;
        return coats;
    }

    void masked(const MaskFact& mask) {
        // A mask without a twin is for its own side only.
        const std::string name = mask.name + (!mask.twin.empty() ? "" : mask.right ? ", right" : ", left");
        const auto lay = [&](Act act, const char* ending) {
            Step& step = add(act, mask.id + ending, name);
            step.mask = mask.id;
            step.group = mask.name;
        };
        lay(Act::MaskOn, "-on");
        std::size_t pass = 0;
        for (const std::string& colour : mask.colours) {
            Step& step = add(Act::Colour, mask.id,
                             mask.colours.size() > 1 ? name + " " + std::to_string(++pass) : name);
            give(step, colour);
            step.coats = coatsOver(step, labOfText(colour));
            step.where.reaches = Reaches::Windows;
            step.where.of = mask.id;
            step.group = mask.name;
        }
        lay(Act::MaskOff, "-off");
    }

    void marks() {
        // Soft marks that follow one another are put in the order of the school; masks stay where they are,
        // since what is drawn over them comes after.
        std::vector<const SoftFact*> run;
        const auto flush = [&] {
            std::stable_sort(run.begin(), run.end(), [&](const SoftFact* a, const SoftFact* b) {
                const Figure x = labOfText(a->colour).l, y = labOfText(b->colour).l;
                return school_ == School::LightToDark ? x > y : false;
            });
            for (const SoftFact* soft : run) freehand(*soft);
            run.clear();
        };
        for (const std::string& id : facts_.drawn) {
            for (const SoftFact& soft : facts_.soft)
                if (soft.id == id) run.push_back(&soft);
            for (const MaskFact& mask : facts_.masks)
                if (mask.id == id) {
                    flush();
                    masked(mask);
                }
        }
        flush();
        if (!facts_.net) return;
        add(Act::NetOn, "net-on", "Net on");
        Step& scales = add(Act::Colour, "scales", "Scales");
        give(scales, "#3E3526");
        scales.coats = 1;
        scales.mist = true;
        scales.where.reaches = Reaches::Net;
        add(Act::NetOff, "net-off", "Net off");
    }

    void finish() {
        if (facts_.sockets) {
            Step& eyes = add(Act::Eyes, "eyes", "Eyes");
            eyes.eye_mm = facts_.socket_mm;
            eyes.glue = "thick";
            eyes.wait_min = 20;
        }
        if (locks_) add(Act::Lock, "lock", "Lock coat").dry = Dry::Touch;
        Step& clear = add(Act::Clear, "clear", "Clear coat");
        clear.clear = "epoxy";
        if (facts_.hookEyes) clear.does.push_back("hook_eyes");
        if (facts_.hinge) clear.does.push_back("hinge");
        if (!simple()) add(Act::Cure, "cure", "Cure").wait_min = 72 * 60;
    }

    const RecipeFacts& facts_;
    School school_;
    const Task& task_;
    Palette palette_, plain_;
    Recipe recipe_;
    std::map<std::string, std::vector<MixPart>> mixes_;
    bool locks_ = false;
};

}  // namespace

Result<Recipe> beginRecipe(const RecipeFacts& facts, School school, const Task& task) {
    return Beginner(facts, school, task).begin();
}

}  // namespace nine
