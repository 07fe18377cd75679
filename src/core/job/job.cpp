#include "job/job.h"

#include <algorithm>
#include <map>
#include <set>

namespace nine {

std::vector<Zone> allZones(const Skin& skin, const BlankChapter& blank) {
    std::vector<Zone> zones = blank.zones;
    for (Zone& z : zonesOfLandmarks(skin, blank.landmarks)) zones.push_back(std::move(z));
    return zones;
}

Job withBlank(Job job, BlankChapter blank) {
    job.blank = std::make_shared<const BlankChapter>(std::move(blank));
    return job;
}

Job withElement(Job job, std::size_t index, Element element) {
    PatternChapter pattern = *job.pattern;
    pattern.elements[index] = std::make_shared<const Element>(std::move(element));
    job.pattern = std::make_shared<const PatternChapter>(std::move(pattern));
    return job;
}

Job withMasks(Job job, std::vector<MaskSpecPtr> masks) {
    job.masks = std::make_shared<const MasksChapter>(MasksChapter{std::move(masks)});
    return job;
}

Job withCut(Job job, CutChapter cut) {
    job.cut = std::make_shared<const CutChapter>(std::move(cut));
    return job;
}

Job withPlace(const Job& job, PiecePlace place) {
    CutChapter cut = *job.cut;
    for (const PiecePlace& before : cut.places)
        if (before.piece == place.piece && place.unknownJson.empty()) place.unknownJson = before.unknownJson;
    std::erase_if(cut.places, [&](const PiecePlace& p) { return p.piece == place.piece; });
    cut.places.push_back(std::move(place));
    return withCut(job, std::move(cut));
}

Job withPlacesOf(const Job& job, const CutPages& pages, std::size_t index) {
    Job next = job;
    for (std::size_t i = 0; i < pages.pieces.size(); ++i) {
        const PlacedPiece& placed = pages.pieces[i];
        if (!placed.byHand && i != index) continue;
        const Box2 box = placed.piece.box();
        // Not rounded: pieces may stand edge to edge.
        next = withPlace(next, {placed.piece.id, placed.page, 0.5 * (box.low + box.high), {}});
    }
    return next;
}

SpraySpec sprayOfMask(const Job& job, const std::string& mask) {
    for (const SpraySpec& spec : job.spray->masks) {
        if (spec.mask == mask) return spec;
    }
    SpraySpec usual;
    usual.mask = mask;
    return usual;
}

Job withSpray(const Job& job, SpraySpec spec) {
    SprayChapter spray = *job.spray;
    const auto found = std::find_if(spray.masks.begin(), spray.masks.end(),
                                    [&](const SpraySpec& s) { return s.mask == spec.mask; });
    if (found == spray.masks.end()) {
        spray.masks.push_back(std::move(spec));
    } else {
        *found = std::move(spec);
    }
    Job next = job;
    next.spray = std::make_shared<const SprayChapter>(std::move(spray));
    return next;
}

Job withMasksInStep(const Job& job) {
    Job next = job;
    if (!job.masks->masks.empty()) {
        std::vector<MaskSpecPtr> masks;
        for (const MaskSpecPtr& mask : job.masks->masks) {
            MaskSpec spec = *mask;
            std::erase_if(spec.elements, [&](const std::string& id) {
                return std::none_of(job.pattern->elements.begin(), job.pattern->elements.end(),
                                    [&](const auto& e) { return e->id == id && e->standsOn(spec.side); });
            });
            if (spec.elements.empty()) continue;
            const bool same = spec.elements.size() == mask->elements.size();
            masks.push_back(same ? mask : std::make_shared<const MaskSpec>(std::move(spec)));
        }
        for (const ElementPtr& element : job.pattern->elements) {
            for (const Side side : {Side::Left, Side::Right}) {
                const auto opens = [&](const MaskSpecPtr& m, Side s) {
                    return m->side == s &&
                           std::count(m->elements.begin(), m->elements.end(), element->id) > 0;
                };
                const auto here = [&](const auto& m) { return opens(m, side); };
                const auto there = [&](const auto& m) { return opens(m, otherSide(side)); };
                if (!element->known() || !element->standsOn(side) ||
                    std::any_of(masks.begin(), masks.end(), here))
                    continue;
                const auto twin = std::find_if(masks.begin(), masks.end(), there);
                MaskSpec spec = twin != masks.end() ? **twin : MaskSpec{};
                if (twin == masks.end() && !masks.empty()) spec.material = masks.front()->material;
                spec.elements = {element->id};
                spec.name = element->shownName();
                spec.side = side;
                spec.unknownJson.clear();
                const std::string stem = element->id + "-" + sideLetter(side);
                spec.id = stem;
                const auto taken = [&](const auto& m) { return m->id == spec.id; };
                for (int n = 2; std::any_of(masks.begin(), masks.end(), taken); ++n)
                    spec.id = stem + "-" + std::to_string(n);
                masks.push_back(std::make_shared<const MaskSpec>(std::move(spec)));
            }
        }
        if (masks != job.masks->masks) next = withMasks(next, std::move(masks));
    }
    const std::vector<MaskSpecPtr> masks = maskSpecs(next);
    SprayChapter spray = *next.spray;
    const auto lost = std::erase_if(spray.masks, [&](const SpraySpec& s) {
        return std::none_of(masks.begin(), masks.end(), [&](const auto& m) { return m->id == s.mask; });
    });
    if (lost > 0) next.spray = std::make_shared<const SprayChapter>(std::move(spray));
    return next;
}

std::vector<MaskSpecPtr> maskSpecs(const Job& job) {
    if (!job.masks->masks.empty()) return job.masks->masks;
    std::vector<MaskSpecPtr> specs;
    for (const ElementPtr& element : job.pattern->elements) {
        for (const Side side : {Side::Left, Side::Right}) {
            if (!element->known() || !element->standsOn(side)) continue;
            MaskSpec spec;
            spec.id = element->id + "-" + sideLetter(side);
            spec.name = element->shownName();
            spec.elements = {element->id};
            spec.side = side;
            specs.push_back(std::make_shared<const MaskSpec>(std::move(spec)));
        }
    }
    return specs;
}

namespace {

/// Names go on sheets and cards: longer ones are a mistake, and would be written a thousand times.
Status checkName(const std::string& name, const std::string& path) {
    const auto letters = std::count_if(
        name.begin(), name.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0u) != 0x80u; });
    if (letters <= kMostNameLetters) return Done{};
    return Error{"out_of_range",
                 Words(NINE_WORDS("core",
                                  "This name has {letters} letters; it may have {most}. "
                                  "Shorten it."))
                     .number("letters", letters, 0)
                     .number("most", kMostNameLetters, 0),
                 path};
}

Status checkNames(const Job& job) {
    std::vector<std::pair<const std::string*, std::string>> names{{&job.blank->name, "blank.name"},
                                                                  {&job.pattern->name, "pattern.name"}};
    for (std::size_t i = 0; i < job.blank->zones.size(); ++i) {
        const std::string path = "blank.zones[" + std::to_string(i) + "]";
        names.emplace_back(&job.blank->zones[i].name, path + ".name");
        names.emplace_back(&job.blank->zones[i].id, path + ".id");
    }
    for (const auto& [name, landmark] : job.blank->landmarks) names.emplace_back(&name, "blank.landmarks");
    for (std::size_t i = 0; i < job.pattern->elements.size(); ++i) {
        const Element& e = *job.pattern->elements[i];
        const std::string path = "pattern.elements[" + std::to_string(i) + "]";
        names.emplace_back(&e.name, path + ".name");
        names.emplace_back(&e.id, path + ".id");
    }
    for (std::size_t i = 0; i < job.masks->masks.size(); ++i) {
        const std::string path = "masks[" + std::to_string(i) + "]";
        names.emplace_back(&job.masks->masks[i]->name, path + ".name");
        names.emplace_back(&job.masks->masks[i]->id, path + ".id");
    }
    for (const auto& [name, path] : names)
        if (Status ok = checkName(*name, path); !ok) return ok;
    return Done{};
}

Status checkSpray(const Job& job) {
    std::set<std::string_view> maskIds;
    const std::vector<MaskSpecPtr> masks = maskSpecs(job);
    for (const MaskSpecPtr& m : masks) maskIds.insert(m->id);
    std::set<std::string> seen;
    for (std::size_t i = 0; i < job.spray->masks.size(); ++i) {
        const SpraySpec& spec = job.spray->masks[i];
        const std::string path = "spray[" + std::to_string(i) + "]";
        if (!maskIds.count(spec.mask))
            return Error{"unknown_mask",
                         Words(NINE_WORDS("core", "There is no mask \"{mask}\" to spray through."))
                             .name("mask", spec.mask),
                         path + ".mask"};
        if (!seen.insert(spec.mask).second)
            return Error{
                "bad_id",
                Words(NINE_WORDS("core", "The mask \"{mask}\" is given twice here.")).name("mask", spec.mask),
                path + ".mask"};
        if (!findPaint(spec.paint)) return Error{"unknown_paint", unknownPaint(spec.paint), path + ".paint"};
        const auto within = [](double v, double low, double high) { return v >= low && v <= high; };
        if (spec.soft_mm && !within(*spec.soft_mm, kSharp_mm, kSoftest_mm))
            return Error{"out_of_range",
                         Words(NINE_WORDS("core", "A soft edge is {least} to {most} wide."))
                             .length("least", kSharp_mm, 1)
                             .length("most", kSoftest_mm, 0),
                         path + ".soft_mm"};
        if (!within(spec.pads_mm, 0, kMostPads_mm))
            return Error{
                "out_of_range",
                Words(NINE_WORDS("core", "Pads are up to {most} high.")).length("most", kMostPads_mm, 0),
                path + ".pads_mm"};
        if (!within(spec.relief_mm, 0, kMostRelief_mm))
            return Error{"out_of_range",
                         Words(NINE_WORDS("core", "Relief under a mask is up to {most} deep."))
                             .length("most", kMostRelief_mm, 0),
                         path + ".relief_mm"};
        if (Status ok = checkPins(spec.pins, path + ".pins"); !ok) return ok;
    }
    return Done{};
}

}  // namespace

Status checkJob(const Job& job) {
    const auto place = [](const char* list, std::size_t i, const std::string& field) {
        return std::string(list) + "[" + std::to_string(i) + "]" + (field.empty() ? "" : "." + field);
    };
    if (Status ok = checkNames(job); !ok) return ok;
    const auto& elements = job.pattern->elements;
    std::map<std::string_view, ElementPtr> byId;
    std::set<std::string> ids;
    for (std::size_t i = 0; i < elements.size(); ++i) {
        const std::string path = place("pattern.elements", i, "");
        if (elements[i]->id.empty())
            return Error{"bad_id", NINE_WORDS("core", "Every element needs an id."), path + ".id"};
        if (!ids.insert(elements[i]->id).second) {
            return Error{
                "bad_id",
                Words(NINE_WORDS("core", "The id \"{id}\" is used twice.")).name("id", elements[i]->id),
                path + ".id"};
        }
        if (Status ok = checkElement(*elements[i], path); !ok) return ok;
        byId.emplace(elements[i]->id, elements[i]);
    }
    std::set<std::string> maskIds;
    for (std::size_t i = 0; i < job.masks->masks.size(); ++i) {
        const MaskSpec& spec = *job.masks->masks[i];
        const auto path = [&](const char* field) { return place("masks", i, field); };
        if (spec.id.empty() || !maskIds.insert(spec.id).second) {
            return Error{
                "bad_id",
                Words(
                    NINE_WORDS("core", "Every mask needs an id of its own; \"{id}\" is empty or used twice."))
                    .name("id", spec.id),
                path("id")};
        }
        if (!findMaterial(spec.material)) {
            std::string known;
            for (const SheetMaterial& m : sheetMaterials())
                known += (known.empty() ? "" : ", ") + std::string(m.id);
            return Error{"unknown_material",
                         Words(NINE_WORDS("core", "\"{material}\" is not a sheet material; choose {known}."))
                             .name("material", spec.material)
                             .name("known", known),
                         path("material")};
        }
        if (!(spec.margin_mm >= kMinMargin_mm && spec.margin_mm <= kMaxMargin_mm)) {
            return Error{
                "out_of_range",
                Words(NINE_WORDS("core", "The margin of a mask must lie between {least} and {most}."))
                    .length("least", kMinMargin_mm, 0)
                    .length("most", kMaxMargin_mm, 0),
                path("margin_mm")};
        }
        if (spec.elements.empty())
            return Error{"empty_mask", NINE_WORDS("core", "A mask needs an element to open."),
                         path("elements")};
        std::set<std::string_view> opened;
        for (const std::string& id : spec.elements) {
            if (!opened.insert(id).second)
                return Error{
                    "bad_id",
                    Words(NINE_WORDS("core", "This mask names the element \"{id}\" twice; once is enough."))
                        .name("id", id),
                    path("elements")};
            const auto found = byId.find(id);
            if (found == byId.end()) {
                return Error{
                    "unknown_element",
                    Words(NINE_WORDS("core", "There is no element \"{id}\" in the pattern.")).name("id", id),
                    path("elements")};
            }
            if (!found->second->standsOn(spec.side)) {
                return Error{
                    "wrong_side",
                    Words(NINE_WORDS("core",
                                     "\"{id}\" does not stand on the side of this mask. Link its sides or "
                                     "move the mask."))
                        .name("id", id),
                    path("side")};
            }
        }
    }
    return checkSpray(job);
}

}  // namespace nine
