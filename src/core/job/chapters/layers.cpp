#include "job/chapters/layers.h"

#include <algorithm>
#include <set>

#include "job/job.h"
#include "job/json_fields.h"
#include "job/recipe_facts.h"

namespace nine {

using namespace json;

namespace {

template <typename E>
void readName(Fields& f, const char* key, E& into, std::span<const EnumName<E>> names) {
    std::string text;
    f.read(key, text);
    if (text.empty()) return;
    std::string all;
    for (const EnumName<E>& name : names) {
        if (name.id == text) {
            into = name.value;
            return;
        }
        all += (all.empty() ? "" : ", ") + std::string(name.id);
    }
    fail("bad_value",
         Words(NINE_WORDS("core", "{key} is one of {all}, not \"{text}\"."))
             .name("key", key)
             .name("all", all)
             .name("text", text),
         f.at(key));
}
template <typename E>
std::string nameIn(E value, std::span<const EnumName<E>> names) {
    for (const EnumName<E>& name : names)
        if (name.value == value) return std::string(name.id);
    return {};
}

constexpr EnumName<School> kSchools[] = {
    {School::LightToDark, "light", NINE_WORDS("core", "light to dark")},
    {School::BackFirst, "back", NINE_WORDS("core", "back first")},
};
constexpr EnumName<Severity> kSeverities[] = {
    {Severity::Hint, "hint", NINE_WORDS("core", "hint")},
    {Severity::Caution, "caution", NINE_WORDS("core", "caution")},
    {Severity::Fault, "fault", NINE_WORDS("core", "fault")},
};
std::span<const EnumName<School>> schools() {
    return kSchools;
}
std::span<const EnumName<Severity>> severityNames() {
    return kSeverities;
}

std::vector<std::string> readWords(Fields& f, const char* key) {
    std::vector<std::string> words;
    if (const Value* list = f.find(key))
        for (const Value& item : needArray(*list, f.at(key))) {
            if (!item.isText())
                fail("bad_value", NINE_WORDS("core", "Here should stand words in quotes."), f.at(key));
            words.push_back(item.text());
        }
    return words;
}

Step readStep(const Value& value, const std::string& path) {
    Fields f(value, path);
    Step s;
    f.need("id");
    f.need("act");
    f.read("id", s.id);
    readName(f, "act", s.act, actNames());
    f.read("name", s.name);
    f.read("on", s.on);
    f.read("made", s.made);
    f.read("group", s.group);
    if (const Value* paint = f.find("paint"))
        for (const Value& item : needArray(*paint, f.at("paint"))) {
            Fields p(item, f.at("paint"));
            MixPart part;
            p.need("of");
            p.read("of", part.bottle);
            p.read("drops", part.drops);
            part.unknownJson = p.unknown();
            s.paint.push_back(std::move(part));
        }
    f.read("reducer", s.reducer);
    f.read("coats", s.coats);
    f.read("mist", s.mist);
    if (const Value* where = f.find("where")) {
        Fields w(*where, f.at("where"));
        readName(w, "reaches", s.where.reaches, reachNames());
        w.read("of", s.where.of);
        readName(w, "from", s.where.from, fadeNames());
        w.read("reach_mm", s.where.reach_mm);
        w.read("soft_mm", s.where.soft_mm);
        s.where.unknownJson = w.unknown();
    }
    readName(f, "dry", s.dry, dryNames());
    f.read("rest_min", s.rest_min);
    f.read("mask", s.mask);
    s.does = readWords(f, "does");
    f.read("eye_mm", s.eye_mm);
    f.read("glue", s.glue);
    f.read("clear", s.clear);
    f.read("wait_min", s.wait_min);
    f.read("note", s.note);
    if (Status ok = checkStep(s, path); !ok) throw Bad{ok.error()};
    s.unknownJson = f.unknown();
    return s;
}

Json stepJson(const Step& s) {
    const Step usual;
    Json into{{"id", s.id}, {"act", nameIn(s.act, actNames())}};
    const auto put = [&](const char* key, const auto& value, const auto& normal) {
        if (value != normal) into[key] = value;
    };
    put("name", s.name, usual.name);
    put("on", s.on, usual.on);
    put("made", s.made, usual.made);
    put("group", s.group, usual.group);
    for (const MixPart& part : s.paint) {
        Json drop{{"of", part.bottle}};
        if (part.drops != 1) drop["drops"] = part.drops;
        addUnknown(drop, part.unknownJson);
        into["paint"].push_back(std::move(drop));
    }
    put("reducer", s.reducer, usual.reducer);
    put("coats", s.coats, usual.coats);
    put("mist", s.mist, usual.mist);
    if (!(s.where == usual.where)) {
        Json where{{"reaches", nameIn(s.where.reaches, reachNames())}};
        if (!s.where.of.empty()) where["of"] = s.where.of;
        if (s.where.reaches == Reaches::Fade || s.where.from != usual.where.from)
            where["from"] = nameIn(s.where.from, fadeNames());
        if (s.where.reach_mm != usual.where.reach_mm) where["reach_mm"] = s.where.reach_mm;
        if (s.where.soft_mm != usual.where.soft_mm) where["soft_mm"] = s.where.soft_mm;
        addUnknown(where, s.where.unknownJson);
        into["where"] = std::move(where);
    }
    put("dry", nameIn(s.dry, dryNames()), nameIn(usual.dry, dryNames()));
    put("rest_min", s.rest_min, usual.rest_min);
    put("mask", s.mask, usual.mask);
    put("does", s.does, usual.does);
    put("eye_mm", s.eye_mm, usual.eye_mm);
    put("glue", s.glue, usual.glue);
    put("clear", s.clear, usual.clear);
    put("wait_min", s.wait_min, usual.wait_min);
    put("note", s.note, usual.note);
    addUnknown(into, s.unknownJson);
    return into;
}

}  // namespace

Bottle json::readBottle(Fields& f, const std::string& path) {
    // In one piece: key by key, in the order they are written.
    Bottle b;
    f.need("name");
    f.read("name", b.name);
    f.read("id", b.id);
    if (b.id.empty()) b.id = b.name;
    f.need("family");
    f.read("family", b.family);
    if (const Value* card = f.find("card")) {
        Fields c(*card, f.at("card"));
        c.read("white", b.card.white);
        c.read("black", b.card.black);
        c.read("dull", b.card.dull);
        c.read("read_to", b.card.readTo);
        b.card.unknownJson = c.unknown();
    }
    if (const Value* swatches = f.find("swatches"))
        for (const Value& item : needArray(*swatches, f.at("swatches"))) {
            Fields s(item, f.at("swatches"));
            Swatch swatch;
            s.read("coats", swatch.coats);
            std::string over = "white", seen;
            s.read("over", over);
            s.read("seen", seen);
            const std::optional<Srgb> colour = parseColour(seen);
            if (!colour || (over != "white" && over != "black"))
                fail("bad_value",
                     NINE_WORDS(
                         "core",
                         "A swatch is {\"coats\", \"over\": \"white\" or \"black\", \"seen\": \"#rrggbb\"}."),
                     f.at("swatches"));
            swatch.overWhite = over == "white";
            swatch.seen = *colour;
            swatch.unknownJson = s.unknown();
            b.swatches.push_back(std::move(swatch));
        }
    f.read("glow_nm", b.glow_nm);
    f.read("flake_um", b.flake_um);
    f.read("no_heat", b.noHeat);
    f.read("rest_min", b.rest_min);
    f.read("wants_lock", b.wantsLock);
    f.read("solvent", b.solvent);
    f.read("left_ml", b.left_ml);
    if (Status ok = checkBottle(b, path); !ok) throw Bad{ok.error()};
    b.unknownJson = f.unknown();
    return b;
}

json::Json json::bottleJson(const Bottle& b) {
    const Bottle usual;
    Json into{{"id", b.id}, {"name", b.name}, {"family", b.family}};
    if (!(b.card == usual.card)) {
        into["card"] = {{"white", b.card.white},
                        {"black", b.card.black},
                        {"dull", b.card.dull},
                        {"read_to", b.card.readTo}};
        addUnknown(into["card"], b.card.unknownJson);
    }
    for (const Swatch& s : b.swatches) {
        Json swatch{
            {"coats", s.coats}, {"over", s.overWhite ? "white" : "black"}, {"seen", colourText(s.seen)}};
        addUnknown(swatch, s.unknownJson);
        into["swatches"].push_back(std::move(swatch));
    }
    const auto put = [&](const char* key, const auto& value, const auto& normal) {
        if (value != normal) into[key] = value;
    };
    put("glow_nm", b.glow_nm, usual.glow_nm);
    put("flake_um", b.flake_um, usual.flake_um);
    put("no_heat", b.noHeat, usual.noHeat);
    put("rest_min", b.rest_min, usual.rest_min);
    put("wants_lock", b.wantsLock, usual.wantsLock);
    put("solvent", b.solvent, usual.solvent);
    put("left_ml", b.left_ml, usual.left_ml);
    addUnknown(into, b.unknownJson);
    return into;
}

LayersChapter ChapterOf<LayersChapter>::read(Fields& f, Warnings&) {
    LayersChapter layers;
    readName(f, "school", layers.school, schools());
    f.read("lures", layers.lures);
    if (const Value* paints = f.find("paints")) {
        std::size_t i = 0;
        for (const Value& item : needArray(*paints, f.at("paints"))) {
            const std::string path = indexed(f.at("paints"), i++);
            Fields b(item, path);
            layers.paints.push_back(readBottle(b, path));
        }
    }
    if (const Value* steps = f.find("steps")) {
        std::size_t i = 0;
        for (const Value& item : needArray(*steps, f.at("steps")))
            layers.recipe.steps.push_back(readStep(item, indexed(f.at("steps"), i++)));
    }
    if (const Value* sprays = f.find("sprays")) {
        std::size_t i = 0;
        for (const Value& item : needArray(*sprays, f.at("sprays"))) {
            Fields s(item, indexed(f.at("sprays"), i++));
            StepSpray spray;
            s.need("step");
            s.read("step", spray.step);
            if (const Value* pins = s.find("pins")) {
                Fields p(*pins, s.at("pins"));
                spray.pins = readPins(p);
                spray.unknownPinsJson = p.unknown();
            }
            spray.unknownJson = s.unknown();
            layers.sprays.push_back(std::move(spray));
        }
    }
    layers.recipe.accepted = readWords(f, "accepted");
    if (const Value* severities = f.find("severities")) {
        Fields s(*severities, f.at("severities"));
        for (const Rule& rule : rules()) {
            const std::string id(rule.id);
            if (!s.find(id.c_str())) continue;
            Severity severity = rule.severity;
            readName(s, id.c_str(), severity, severityNames());
            layers.severities.emplace_back(id, severity);
        }
        layers.unknownSeveritiesJson = s.unknown();
    }
    return layers;
}

void ChapterOf<LayersChapter>::write(Json& json, const LayersChapter& layers) {
    if (layers.school != School::LightToDark) json["school"] = nameIn(layers.school, schools());
    if (layers.lures != 1) json["lures"] = layers.lures;
    for (const Bottle& b : layers.paints) json["paints"].push_back(bottleJson(b));
    for (const Step& s : layers.recipe.steps) json["steps"].push_back(stepJson(s));
    for (const StepSpray& s : layers.sprays) {
        if (placeOf(layers.recipe, s.step) >= layers.recipe.steps.size()) continue;
        Json spray{{"step", s.step}};
        if (!s.pins.empty() || !s.unknownPinsJson.empty()) {
            spray["pins"] = pinsJson(s.pins);
            addUnknown(spray["pins"], s.unknownPinsJson);
        }
        addUnknown(spray, s.unknownJson);
        json["sprays"].push_back(std::move(spray));
    }
    if (!layers.recipe.accepted.empty()) json["accepted"] = layers.recipe.accepted;
    for (const auto& [id, severity] : layers.severities)
        json["severities"][id] = nameIn(severity, severityNames());
    if (!layers.unknownSeveritiesJson.empty()) {
        if (!json.contains("severities")) json["severities"] = Json::object();
        addUnknown(json["severities"], layers.unknownSeveritiesJson);
    }
}

Status ChapterOf<LayersChapter>::check(const Job& job) {
    const LayersChapter& layers = job.get<LayersChapter>();
    const auto tooMany = [](const char* what, std::size_t count, std::size_t most) {
        return Error{"too_many",
                     Words(NINE_WORDS("core", "There are {count} {what}; {most} are the most."))
                         .name("what", what)
                         .number("count", static_cast<double>(count), 0)
                         .number("most", static_cast<double>(most), 0),
                     std::string("layers.") + what};
    };
    if (layers.lures < 1 || layers.lures > kMostLures) return luresError(layers.lures, "layers.lures");
    if (layers.recipe.steps.size() > kMostRecipeSteps)
        return tooMany("steps", layers.recipe.steps.size(), kMostRecipeSteps);
    if (layers.paints.size() > kMostPaints) return tooMany("paints", layers.paints.size(), kMostPaints);
    std::set<std::string> seen;
    const auto twice = [&](const std::string& id, const std::string& path) {
        return Error{"duplicate_id",
                     Words(NINE_WORDS("core", "The id \"{id}\" stands twice.")).name("id", id), path + ".id"};
    };
    for (std::size_t i = 0; i < layers.recipe.steps.size(); ++i) {
        const Step& step = layers.recipe.steps[i];
        const std::string path = indexed("layers.steps", i);
        if (Status ok = checkStep(step, path); !ok) return ok;
        if (step.id.empty() || !seen.insert(step.id).second) return twice(step.id, path);
        for (const auto& [text, field] :
             {std::pair(&step.name, ".name"), {&step.id, ".id"}, {&step.group, ".group"}})
            if (Status ok = checkName(*text, path + field); !ok) return ok;
    }
    seen.clear();
    for (std::size_t i = 0; i < layers.sprays.size(); ++i) {
        const std::string path = indexed("layers.sprays", i);
        if (!seen.insert(layers.sprays[i].step).second) return twice(layers.sprays[i].step, path);
        if (Status ok = checkPins(layers.sprays[i].pins, path + ".pins"); !ok) return ok;
    }
    seen.clear();
    for (std::size_t i = 0; i < layers.paints.size(); ++i) {
        const std::string path = indexed("layers.paints", i);
        if (Status ok = checkBottle(layers.paints[i], path); !ok) return ok;
        if (!seen.insert(layers.paints[i].id).second) return twice(layers.paints[i].id, path);
        for (const auto& [text, field] :
             {std::pair(&layers.paints[i].name, ".name"), {&layers.paints[i].id, ".id"}})
            if (Status ok = checkName(*text, path + field); !ok) return ok;
    }
    return Done{};
}

namespace {

const std::string kColourOnly = "colour-";

/// A colour as an opaque paint of the job's own, the same for the same colour.
std::string paintFor(LayersChapter& layers, const std::string& colour, const std::string& name) {
    const std::optional<Srgb> seen = parseColour(colour);
    if (!seen) return {};
    for (const Bottle& b : layers.paints)
        if (b.id == kColourOnly + colour.substr(1)) return b.id;
    Bottle paint;
    paint.id = kColourOnly + colour.substr(1);
    paint.name = name;
    paint.family = "opaque";
    paint.card.dull = 0;  // the design shows things as they are under the clear
    paint.swatches = {{2, true, *seen}, {2, false, *seen}};
    layers.paints.push_back(paint);
    return paint.id;
}

Step colourStep(LayersChapter& layers, const std::string& id, const std::string& name,
                const std::string& colour) {
    Step step;
    step.id = freshId(layers.recipe, id);
    step.act = Act::Colour;
    step.name = name;
    step.coats = 2;
    const std::string paint = paintFor(layers, colour, name);
    if (!paint.empty()) step.paint = {{paint, 4}};
    step.reducer = 1;
    return step;
}

void addSteps(LayersChapter& layers, const RecipeFacts& facts, const std::string& drawn, std::size_t& at) {
    const auto insert = [&](Step step) {
        if (paints(step.act) && step.paint.empty()) return;
        step.made = true;
        layers.recipe.steps.insert(layers.recipe.steps.begin() + static_cast<std::ptrdiff_t>(at++),
                                   std::move(step));
    };
    for (const SoftFact& soft : facts.soft) {
        if (soft.id != drawn) continue;
        Step step = colourStep(layers, soft.id, soft.name, soft.colour);
        step.where = {Reaches::Element, soft.id, FadeFrom::Back, 10, 8};
        insert(std::move(step));
    }
    for (const MaskFact& mask : facts.masks) {
        if (mask.id != drawn || mask.colours.empty()) continue;
        Step on;
        on.id = freshId(layers.recipe, mask.id + "-on");
        on.act = Act::MaskOn;
        on.name = mask.name;
        on.group = mask.name;
        on.mask = mask.id;
        insert(on);
        for (const std::string& colour : mask.colours) {
            Step step = colourStep(layers, mask.id, mask.name, colour);
            step.group = mask.name;
            step.where = {Reaches::Windows, mask.id, FadeFrom::Back, 10, 8};
            insert(std::move(step));
        }
        Step off = on;
        off.id = freshId(layers.recipe, mask.id + "-off");
        off.act = Act::MaskOff;
        insert(off);
    }
}

}  // namespace

SprayPins pinsOfStep(const LayersChapter& layers, const std::string& step) {
    for (const StepSpray& s : layers.sprays)
        if (s.step == step) return s.pins;
    return {};
}

LayersChapter withStepPins(LayersChapter layers, const std::string& step, const SprayPins& pins) {
    const auto found = std::find_if(layers.sprays.begin(), layers.sprays.end(),
                                    [&](const StepSpray& s) { return s.step == step; });
    if (found == layers.sprays.end())
        layers.sprays.push_back({step, pins, {}, {}});
    else
        found->pins = pins;
    return layers;
}

bool isColourOnly(const Bottle& bottle) {
    return bottle.id.rfind(kColourOnly, 0) == 0;
}

bool isDraft(const LayersChapter& layers) {
    const auto stands = [](const Step& step) {
        return (step.act == Act::Colour || step.act == Act::MaskOn || step.act == Act::MaskOff) &&
               std::all_of(step.paint.begin(), step.paint.end(),
                           [](const MixPart& part) { return part.bottle.rfind(kColourOnly, 0) == 0; });
    };
    const auto& steps = layers.recipe.steps;
    return !steps.empty() && std::all_of(steps.begin(), steps.end(), stands);
}

Job withStepsOfColours(const Job& job) {
    const LayersChapter& now = job.get<LayersChapter>();
    const PatternChapter& pattern = job.get<PatternChapter>();
    if (!now.recipe.steps.empty() || (pattern.elements.empty() && pattern.groundSide.empty())) return job;
    LayersChapter layers = now;
    const RecipeFacts facts = recipeFacts(job);
    const auto ground = [&](const char* id, const char* name, const std::string& colour, bool fade,
                            FadeFrom from) {
        if (!parseColour(colour)) return;
        Step step = colourStep(layers, id, name, colour);
        if (fade) step.where = {Reaches::Fade, "", from, 10, 10};
        layers.recipe.steps.push_back(std::move(step));
    };
    ground("side", "Sides", pattern.groundSide, false, FadeFrom::Back);
    ground("belly", "Belly", pattern.groundBelly, true, FadeFrom::Belly);
    ground("back", "Back", pattern.groundBack, true, FadeFrom::Back);
    std::size_t at = layers.recipe.steps.size();
    for (const std::string& drawn : facts.drawn) addSteps(layers, facts, drawn, at);
    if (layers.recipe.steps.size() > kMostRecipeSteps) layers.recipe.steps.resize(kMostRecipeSteps);
    return job.with(std::move(layers));
}

std::shared_ptr<const LayersChapter> ChapterOf<LayersChapter>::inStep(
    const Job& job, const std::shared_ptr<const LayersChapter>& now) {
    const auto& steps = now->recipe.steps;
    if (std::none_of(steps.begin(), steps.end(), [](const Step& s) { return paints(s.act); })) return now;
    const RecipeFacts facts = recipeFacts(job);
    const auto painted = [&](const std::string& drawn, const MaskFact* mask) {
        return std::any_of(steps.begin(), steps.end(), [&](const Step& s) {
            if (!paints(s.act)) return false;
            if (s.where.of == drawn) return true;
            if (!mask) return false;
            // A mark that was made into a mask of its own, or the other way round, stays painted.
            return s.where.of == mask->twin || std::find(mask->elements.begin(), mask->elements.end(),
                                                         s.where.of) != mask->elements.end();
        });
    };
    std::vector<std::string> missing;
    for (const std::string& drawn : facts.drawn) {
        const auto mask = std::find_if(facts.masks.begin(), facts.masks.end(),
                                       [&](const MaskFact& m) { return m.id == drawn; });
        if (!painted(drawn, mask == facts.masks.end() ? nullptr : &*mask)) missing.push_back(drawn);
    }
    const auto lost = [&](const Step& s) {
        if (!s.made) return false;
        const auto known = [&](const std::string& mask) {
            return std::any_of(facts.masks.begin(), facts.masks.end(),
                               [&](const MaskFact& m) { return m.id == mask || m.twin == mask; });
        };
        if (!s.mask.empty() && !known(s.mask)) return true;
        if (s.where.reaches == Reaches::Windows) return !known(s.where.of);
        return s.where.reaches == Reaches::Element &&
               std::find(facts.elements.begin(), facts.elements.end(), s.where.of) == facts.elements.end();
    };
    if (missing.empty() && std::none_of(steps.begin(), steps.end(), lost)) return now;
    auto next = std::make_shared<LayersChapter>(*now);
    if (std::erase_if(next->recipe.steps, lost) > 0)
        std::erase_if(next->paints, [&](const Bottle& b) {
            return isColourOnly(b) &&
                   std::none_of(next->recipe.steps.begin(), next->recipe.steps.end(), [&](const Step& s) {
                       return std::any_of(s.paint.begin(), s.paint.end(),
                                          [&](const MixPart& part) { return part.bottle == b.id; });
                   });
        });
    std::size_t at = next->recipe.steps.size();
    while (at > 0) {
        const Act act = next->recipe.steps[at - 1].act;
        if (act != Act::Eyes && act != Act::Lock && act != Act::Clear && act != Act::Cure && act != Act::Note)
            break;
        --at;
    }
    for (const std::string& drawn : missing) {
        if (next->recipe.steps.size() + 3 > kMostRecipeSteps) break;
        addSteps(*next, facts, drawn, at);
    }
    return next;
}

}  // namespace nine
