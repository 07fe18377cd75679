#include "job/chapters/masks.h"

#include <algorithm>
#include <set>

#include "job/job.h"
#include "job/param_json.h"

namespace nine {

using namespace json;

namespace {

/// Of a mask whose kind is not known only what others refer to is read, and nothing of it can be wrong.
void readUnknownKind(const Value& json, Fields& f, MaskSpec& spec) {
    if (const Value* name = f.find("name")) spec.name = name->text();
    if (const Value* side = f.find("side")) spec.side = side->text() == "R" ? Side::Right : Side::Left;
    if (const Value* elements = f.find("elements"); elements && elements->isArray())
        for (const Value& id : elements->items()) spec.wish.elements.push_back(id.text());
    spec.wish.values = {};
    spec.unknownJson = std::string(json.raw());
}

Apply readApply(Fields& f) {
    std::string apply = applyName(Apply::Loose);
    f.read("apply", apply);
    for (const Apply a : {Apply::Loose, Apply::Lateral, Apply::Back})
        if (apply == applyName(a)) return a;
    fail("bad_value", NINE_WORDS("core", "apply must be \"loose\", \"lateral\" or \"back\"."), f.at("apply"));
}

std::vector<Slit> readSlits(const Value& json, const std::string& path) {
    constexpr std::size_t kMost = 40, kMostPlaces = 400;
    std::vector<Slit> slits;
    for (const Value& one : needArray(json, path)) {
        const std::string at = indexed(path, slits.size());
        Fields f(one, at);
        Slit slit;
        for (const Value& place : needArray(f.need("path"), f.at("path"))) {
            const auto xg = numbersIn(place, 2);
            if (!xg)
                fail("bad_value", NINE_WORDS("core", "A slit's path is a list of [x, g]."), f.at("path"));
            slit.line.emplace_back((*xg)[0], (*xg)[1]);
        }
        f.read("locked", slit.locked);
        if (slit.line.size() < 2 || slit.line.size() > kMostPlaces || slits.size() == kMost)
            fail("out_of_range", NINE_WORDS("core", "A slit has 2 to 400 places, and a mask up to 40 slits."),
                 f.at("path"));
        slits.push_back(std::move(slit));
    }
    return slits;
}

Json slitsJson(const std::vector<Slit>& slits) {
    Json list = Json::array();
    for (const Slit& slit : slits) {
        Json line = Json::array();
        for (const Vec2& p : slit.line) line.push_back({p.x(), p.y()});
        Json one{{"path", std::move(line)}};
        if (slit.locked) one["locked"] = true;
        list.push_back(std::move(one));
    }
    return list;
}

Pressed readPressed(Fields& f) {
    std::string pressed = pressedName(Pressed::Fingertip);
    f.read("pressed", pressed);
    for (const Pressed p : {Pressed::Light, Pressed::Fingertip, Pressed::Held})
        if (pressed == pressedName(p)) return p;
    fail("bad_value", NINE_WORDS("core", "pressed must be \"light\", \"fingertip\" or \"held\"."),
         f.at("pressed"));
}

BridgeWish readBridges(const Value& json, const std::string& path) {
    constexpr std::size_t kMost = 100;
    Fields f(json, path);
    BridgeWish wish;
    f.read("loose", wish.loose);
    f.read("width_mm", wish.width_mm);
    if (const Value* places = f.find("at"))
        for (const Value& place : needArray(*places, f.at("at"))) {
            const auto xg = numbersIn(place, 2);
            if (!xg || wish.at.size() == kMost)
                fail("bad_value", NINE_WORDS("core", "Bridges stand at a list of up to 100 [x, g]."),
                     f.at("at"));
            wish.at.emplace_back((*xg)[0], (*xg)[1]);
        }
    const bool usual = wish.width_mm == 0;
    if (!usual && !(wish.width_mm >= kNarrowestBridge_mm && wish.width_mm <= kWidestBridge_mm))
        fail("out_of_range", NINE_WORDS("core", "A bridge is 0.2 to 10 mm wide."), f.at("width_mm"));
    return wish;
}

Json bridgesJson(const BridgeWish& wish) {
    Json json = Json::object();
    if (wish.loose) json["loose"] = true;
    if (wish.width_mm > 0) json["width_mm"] = wish.width_mm;
    for (const Vec2& p : wish.at) json["at"].push_back({p.x(), p.y()});
    return json;
}

Cutouts readCutouts(Fields& f) {
    std::string cutouts = cutoutsName(Cutouts::Dropped);
    f.read("cutouts", cutouts);
    for (const Cutouts c : {Cutouts::Dropped, Cutouts::Kept, Cutouts::OnCarrier})
        if (cutouts == cutoutsName(c)) return c;
    fail("bad_value", NINE_WORDS("core", "cutouts must be \"dropped\", \"kept\" or \"carrier\"."),
         f.at("cutouts"));
}

Covers readCovers(Fields& f) {
    std::string covers = coversName(Covers::Sheet);
    f.read("covers", covers);
    for (const Covers c : {Covers::Sheet, Covers::Cutouts, Covers::InTurn})
        if (covers == coversName(c)) return c;
    fail("bad_value", NINE_WORDS("core", "covers must be \"sheet\", \"cutouts\" or \"in_turn\"."),
         f.at("covers"));
}

MaskSpec readMask(const Value& json, const std::string& path, Warnings& warnings) {
    Fields f(json, path);
    MaskSpec spec;
    f.need("id");
    f.read("id", spec.id);
    f.read("kind", spec.wish.kind);
    const MaskKind* kind = findMaskKind(spec.wish.kind);
    if (!kind) {
        warnings.push_back(
            {"unknown_kind",
             Words(NINE_WORDS("core",
                              "The mask \"{id}\" is a \"{kind}\", which this version of the program does not "
                              "know. It is kept as it is, but no sheet is made for it; open the job with a "
                              "newer version to see it."))
                 .name("id", spec.id)
                 .name("kind", spec.wish.kind),
             f.at("kind")});
        readUnknownKind(json, f, spec);
        return spec;
    }
    f.read("name", spec.name);
    for (const Value& id : needArray(f.need("elements"), f.at("elements"))) {
        if (!id.isText())
            fail("bad_value", NINE_WORDS("core", "elements lists the ids of elements, in quotes."),
                 f.at("elements"));
        spec.wish.elements.push_back(id.text());
    }
    f.read("side", spec.side);
    f.read("material", spec.wish.material);
    spec.wish.apply = readApply(f);
    spec.wish.pressed = readPressed(f);
    spec.wish.values = readParams(f, kind->params());
    if (const Value* slits = f.find("slits")) spec.wish.slits = readSlits(*slits, f.at("slits"));
    if (const Value* bridges = f.find("bridges")) spec.wish.bridges = readBridges(*bridges, f.at("bridges"));
    spec.cutouts = readCutouts(f);
    spec.covers = readCovers(f);
    spec.unknownJson = f.unknown();
    return spec;
}

Json writeMask(const MaskSpec& spec) {
    const MaskKind* kind = findMaskKind(spec.wish.kind);
    if (!kind) return asItStood(spec.unknownJson);
    Json json{{"id", spec.id}};
    if (!spec.name.empty()) json["name"] = spec.name;
    json["kind"] = spec.wish.kind;
    json["elements"] = spec.wish.elements;
    json["side"] = std::string(1, sideLetter(spec.side));
    json["material"] = spec.wish.material;
    json["apply"] = applyName(spec.wish.apply);
    if (spec.wish.pressed != Pressed::Fingertip) json["pressed"] = pressedName(spec.wish.pressed);
    writeParams(json, kind->params(), spec.wish.values);
    if (!spec.wish.slits.empty()) json["slits"] = slitsJson(spec.wish.slits);
    if (spec.wish.bridges != BridgeWish{}) json["bridges"] = bridgesJson(spec.wish.bridges);
    if (spec.cutouts != Cutouts::Dropped) json["cutouts"] = cutoutsName(spec.cutouts);
    if (spec.covers != Covers::Sheet) json["covers"] = coversName(spec.covers);
    addUnknown(json, spec.unknownJson);
    return json;
}

std::string pathOf(std::size_t index, const char* field) {
    return indexed("masks.masks", index) + "." + field;
}

/// What a mask opens: elements there are, each once, on its side.
Status checkOpened(const MaskSpec& spec, const PatternChapter& pattern, std::size_t index) {
    if (spec.wish.elements.empty())
        return Error{"empty_mask", NINE_WORDS("core", "A mask needs an element to open."),
                     pathOf(index, "elements")};
    std::set<std::string_view> opened;
    for (const std::string& id : spec.wish.elements) {
        if (!opened.insert(id).second)
            return Error{
                "bad_id",
                Words(NINE_WORDS("core", "This mask names the element \"{id}\" twice; once is enough."))
                    .name("id", id),
                pathOf(index, "elements")};
        const auto found = std::find_if(pattern.elements.begin(), pattern.elements.end(),
                                        [&](const ElementPtr& e) { return e->id == id; });
        if (found == pattern.elements.end())
            return Error{
                "unknown_element",
                Words(NINE_WORDS("core", "There is no element \"{id}\" in the pattern.")).name("id", id),
                pathOf(index, "elements")};
        if (!(*found)->standsOn(spec.side))
            return Error{
                "wrong_side",
                Words(NINE_WORDS("core",
                                 "\"{id}\" does not stand on the side of this mask. Link its sides or "
                                 "move the mask."))
                    .name("id", id),
                pathOf(index, "side")};
    }
    return Done{};
}

Status checkSpec(const MaskSpec& spec, const PatternChapter& pattern, std::size_t index) {
    if (!findMaterial(spec.wish.material)) {
        std::string known;
        for (const SheetMaterial& m : sheetMaterials())
            known += (known.empty() ? "" : ", ") + std::string(m.id);
        return Error{"unknown_material",
                     Words(NINE_WORDS("core", "\"{material}\" is not a sheet material; choose {known}."))
                         .name("material", spec.wish.material)
                         .name("known", known),
                     pathOf(index, "material")};
    }
    if (findMaskKind(spec.wish.kind)->bothSides() && spec.side == Side::Right)
        return Error{"wrong_side",
                     NINE_WORDS("core", "A mask of the whole body stands on the left side (\"L\")."),
                     pathOf(index, "side")};
    if (Status ok = checkValues(findMaskKind(spec.wish.kind)->params(), spec.wish.values,
                                indexed("masks.masks", index));
        !ok)
        return ok;
    return checkOpened(spec, pattern, index);
}

/// A mask for one element on one side, like the twin it has on the other, or like the others of the job.
MaskSpecPtr maskFor(const Element& element, Side side, const std::vector<MaskSpecPtr>& masks,
                    const MaskSpecPtr& twin) {
    MaskSpec spec = twin ? *twin : MaskSpec{};
    const auto known = std::find_if(masks.begin(), masks.end(), [](const auto& m) { return m->known(); });
    if (!twin && known != masks.end()) spec.wish.material = (*known)->wish.material;
    spec.wish.elements = {element.id};
    spec.name = element.shownName();
    spec.side = side;
    spec.unknownJson.clear();
    const std::string stem = element.id + "-" + sideLetter(side);
    spec.id = stem;
    const auto taken = [&](const auto& m) { return m->id == spec.id; };
    for (int n = 2; std::any_of(masks.begin(), masks.end(), taken); ++n)
        spec.id = stem + "-" + std::to_string(n);
    return std::make_shared<const MaskSpec>(std::move(spec));
}

/// What is one piece for both sides has one mask.
bool wantsMask(const Element& element, Side side) {
    return element.isCut() && element.standsOn(side) && !(element.isCentral() && side == Side::Right);
}

bool opens(const MaskSpec& mask, const std::string& element, Side side) {
    const auto& ids = mask.wish.elements;
    const MaskKind* kind = findMaskKind(mask.wish.kind);
    const bool here = mask.side == side || (kind && kind->bothSides());
    return here && std::find(ids.begin(), ids.end(), element) != ids.end();
}

}  // namespace

MasksChapter ChapterOf<MasksChapter>::read(Fields& f, Warnings& warnings) {
    MasksChapter chapter;
    f.read("bill_cover", chapter.billCover);
    const Value* masks = f.find("masks");
    if (!masks) return chapter;
    for (const Value& mask : needArray(*masks, f.at("masks")))
        chapter.masks.push_back(std::make_shared<const MaskSpec>(
            readMask(mask, indexed(f.at("masks"), chapter.masks.size()), warnings)));
    return chapter;
}

void ChapterOf<MasksChapter>::write(Json& json, const MasksChapter& chapter) {
    for (const MaskSpecPtr& spec : chapter.masks) json["masks"].push_back(writeMask(*spec));
    if (chapter.billCover) json["bill_cover"] = true;
}

Status ChapterOf<MasksChapter>::check(const Job& job) {
    const auto& masks = job.get<MasksChapter>().masks;
    std::set<std::string_view> ids;
    for (std::size_t i = 0; i < masks.size(); ++i) {
        const MaskSpec& spec = *masks[i];
        if (Status ok = checkName(spec.name, pathOf(i, "name")); !ok) return ok;
        if (Status ok = checkName(spec.id, pathOf(i, "id")); !ok) return ok;
        if (spec.id.empty() || !ids.insert(spec.id).second)
            return Error{
                "bad_id",
                Words(
                    NINE_WORDS("core", "Every mask needs an id of its own; \"{id}\" is empty or used twice."))
                    .name("id", spec.id),
                pathOf(i, "id")};
        if (!spec.known()) continue;
        if (Status ok = checkSpec(spec, job.get<PatternChapter>(), i); !ok) return ok;
    }
    return Done{};
}

std::shared_ptr<const MasksChapter> ChapterOf<MasksChapter>::inStep(
    const Job& job, const std::shared_ptr<const MasksChapter>& now) {
    if (now->masks.empty()) return now;
    const auto& elements = job.get<PatternChapter>().elements;
    std::vector<MaskSpecPtr> masks;
    for (const MaskSpecPtr& mask : now->masks) {
        MaskSpec spec = *mask;
        if (spec.known())
            std::erase_if(spec.wish.elements, [&](const std::string& id) {
                return std::none_of(elements.begin(), elements.end(),
                                    [&](const auto& e) { return e->id == id && e->standsOn(spec.side); });
            });
        if (spec.known() && spec.wish.elements.empty()) continue;
        const bool same = spec.wish == mask->wish;
        masks.push_back(same ? mask : std::make_shared<const MaskSpec>(std::move(spec)));
    }
    for (const ElementPtr& element : elements) {
        for (const Side side : {Side::Left, Side::Right}) {
            const auto here = [&](const auto& m) { return opens(*m, element->id, side); };
            const auto there = [&](const auto& m) {
                return m->known() && opens(*m, element->id, otherSide(side));
            };
            if (!wantsMask(*element, side) || std::any_of(masks.begin(), masks.end(), here)) continue;
            const auto twin = std::find_if(masks.begin(), masks.end(), there);
            masks.push_back(maskFor(*element, side, masks, twin == masks.end() ? nullptr : *twin));
        }
    }
    if (masks == now->masks) return now;
    return std::make_shared<const MasksChapter>(
        MasksChapter{std::move(masks), now->billCover, now->unknownJson});
}

Job withMasks(const Job& job, std::vector<MaskSpecPtr> masks) {
    const MasksChapter& now = job.get<MasksChapter>();
    return job.with(MasksChapter{std::move(masks), now.billCover, now.unknownJson});
}

std::vector<MaskSpecPtr> maskSpecs(const Job& job) {
    if (!job.get<MasksChapter>().masks.empty()) return job.get<MasksChapter>().masks;
    std::vector<MaskSpecPtr> specs;
    for (const ElementPtr& element : job.get<PatternChapter>().elements) {
        for (const Side side : {Side::Left, Side::Right}) {
            if (!wantsMask(*element, side)) continue;
            MaskSpec spec;
            spec.id = element->id + "-" + sideLetter(side);
            spec.name = element->shownName();
            spec.wish.elements = {element->id};
            spec.side = side;
            specs.push_back(std::make_shared<const MaskSpec>(std::move(spec)));
        }
    }
    return specs;
}

std::string placeOf(const Job& job, const MaskSpec& spec) {
    const auto& masks = job.get<MasksChapter>().masks;
    const auto found =
        std::find_if(masks.begin(), masks.end(), [&](const auto& m) { return m->id == spec.id; });
    return found == masks.end() ? "masks." + spec.id
                                : indexed("masks.masks", static_cast<std::size_t>(found - masks.begin()));
}

}  // namespace nine
