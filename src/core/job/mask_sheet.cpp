#include "job/mask_sheet.h"

#include <algorithm>
#include <cmath>

#include "job/derive.h"
#include "mask/press.h"

namespace nine {
namespace {

Words asSaid(Pattern pattern) {
    return Words(pattern);
}

std::size_t countOf(const Mask& mask, std::size_t (*of)(const Sheet&)) {
    std::size_t count = 0;
    for (const Sheet& sheet : mask.sheets) count += of(sheet);
    return count;
}

/// Which slits are lapped: "1, 3", and which are not.
std::pair<std::string, std::string> lapsOf(const MaskSpec& spec, const Mask& mask) {
    std::vector<int> lapped, butted;
    for (const Sheet& sheet : mask.sheets)
        for (const SlitOnSheet& slit : sheet.slits) {
            const auto found = std::find_if(
                spec.wish.slits.begin(), spec.wish.slits.end(),
                [&](const Slit& s) { return (s.line.back() - slit.skin.line.back()).norm() < 1e-6; });
            const auto number = static_cast<int>(found - spec.wish.slits.begin()) + 1;
            (slit.lapped ? lapped : butted).push_back(number);
        }
    std::sort(lapped.begin(), lapped.end());
    std::sort(butted.begin(), butted.end());
    return {numberList(lapped), numberList(butted)};
}

Words laid(const MaskSpec& spec, const Mask& mask) {
    if (mask.sheets.size() > 1)
        return asSaid(
            NINE_WORDS("core",
                       "Lay the sheets one after the other from the nose to the tail, each with its own "
                       "crosses on their places."));
    switch (spec.wish.apply) {
        case Apply::Lateral:
            return asSaid(
                NINE_WORDS("core",
                           "Lay the line between its end marks first, the crosses on their places, and "
                           "smooth it outwards from there to both edges without pulling."));
        case Apply::Back:
            return asSaid(
                NINE_WORDS("core",
                           "Lay its edge along the back first, the crosses on their places, and smooth it "
                           "down towards the belly without pulling."));
        default:
            return asSaid(
                NINE_WORDS("core",
                           "Lay it loosely with its crosses on their places, do not pull it straight; "
                           "press it down from the crosses outwards."));
    }
}

std::vector<Words> stepsOf(const Skin& skin, const MaskSpec& spec, const Mask& mask) {
    // In one piece: the order of work, from the knife to the brush.
    std::vector<Words> steps;
    if (spec.cutouts == Cutouts::OnCarrier)
        steps.push_back(
            asSaid(NINE_WORDS("core",
                              "Cut, but lift nothing out yet: lay carrier film over the whole sheet "
                              "first and take the cut-outs off on it, so that they keep their places.")));
    else if (spec.keepsCutouts())
        steps.push_back(
            asSaid(NINE_WORDS("core",
                              "Lift the cut-outs out in the order of their numbers and keep them on backing; "
                              "small ones carry no number, the list says where each belongs.")));
    steps.push_back(
        asSaid(NINE_WORDS("core",
                          "The body is dry and hard: a finger leaves no mark on it. Wipe off dust and "
                          "grease.")));
    steps.push_back(
        asSaid(NINE_WORDS("core",
                          "Arrow to the nose, lettering outwards. The nick in the edge stands over mark "
                          "A on both sides of the fish.")));
    steps.push_back(laid(spec, mask));
    for (const Sheet& sheet : mask.sheets) {
        if (sheet.steps.empty()) continue;
        steps.push_back(
            Words(NINE_WORDS(
                      "core",
                      "It is laid {count} times from the nose to the tail: dry before each move, then its "
                      "nose edge through the middle of the mark painted last, between the two ticks."))
                .number("count", static_cast<double>(sheet.steps.size()), 0));
        for (const CardStep& step : sheet.steps)
            steps.push_back(
                Words(NINE_WORDS("core",
                                 "Place {step}: its first window {x} from the nose, {windows} of its "
                                 "windows; it fits within {off} there."))
                    .number("step", step.number, 0)
                    .length("x", step.first.x() - skin.noseX_mm(), 0)
                    .number("windows", step.windows, 0)
                    .length("off", std::max(0.01, step.off_mm), 2));
    }
    const auto [lapped, butted] = lapsOf(spec, mask);
    if (!lapped.empty())
        steps.push_back(
            Words(NINE_WORDS(
                      "core",
                      "Slits {slits}: lay the lip with the lap first, the other one over it, edge on the "
                      "pen line."))
                .name("slits", lapped));
    if (!butted.empty())
        steps.push_back(Words(NINE_WORDS("core",
                                         "Slits {slits}: bring the lips together edge to edge and tape "
                                         "over the joint."))
                            .name("slits", butted));
    if (spec.covers != Covers::Cutouts)
        steps.push_back(
            asSaid(NINE_WORDS("core",
                              "Extraction on, respirator matched to the paint's data sheet. Spray every "
                              "window; look along the edges before anything comes off.")));
    if (mask.moved_mm > 0)
        steps.push_back(
            Words(NINE_WORDS("core",
                             "Dry. Slide it {moved} towards the tail, its ticks where the crosses "
                             "stood, and spray again."))
                .length("moved", mask.moved_mm, 1));
    if (spec.covers != Covers::Sheet)
        steps.push_back(asSaid(
            spec.covers == Covers::InTurn
                ? NINE_WORDS(
                      "core",
                      "Dry hard. Take the sheet off and lay the cut-outs on what was sprayed, each by its "
                      "number; then spray round them, extraction and respirator as before.")
                : NINE_WORDS(
                      "core",
                      "Take the sheet off and leave the cut-outs on the body; spray round them, extraction "
                      "on, respirator matched to the paint's data sheet.")));
    if (countOf(mask, [](const Sheet& s) { return s.bridges.size(); }) > 0)
        steps.push_back(asSaid(NINE_WORDS("core", "Touch up the gaps its bridges leave with a brush.")));
    steps.push_back(
        asSaid(NINE_WORDS("core",
                          "Take it off when the gloss has turned matt: low, slowly, back over itself. Wipe "
                          "and dry it before it is used again or turned.")));
    return steps;
}

}  // namespace

bool pressedInPlaces(const MaskSpec& spec, const Mask& mask) {
    return spec.wish.pressed == Pressed::Held &&
           countOf(mask, [](const Sheet& s) { return s.press.size(); }) > 0;
}

MaskSheet maskSheet(const Job& job, const Skin& skin, const MaskSpec& spec, const Mask& mask) {
    MaskSheet sheet;
    const auto material = findMaterial(spec.wish.material);
    sheet.title =
        Words(spec.side == Side::Left ? NINE_WORDS("core", "{mask}, left side, {material}")
                                      : NINE_WORDS("core", "{mask}, right side, {material}"))
            .name("mask", spec.shownName())
            .words("material", material ? Words(material->name) : Words(NINE_WORDS("core", "sheet")));
    for (const Sheet& s : mask.sheets)
        for (const RegistrationMark& mark : s.marks) sheet.marks.push_back(markSentence(mark));
    sheet.steps = stepsOf(skin, spec, mask);
    if (pressedInPlaces(spec, mask))
        for (const Sheet& s : mask.sheets)
            for (const PressArea& area : s.press) sheet.press.push_back(pressSentence(area, skin.noseX_mm()));
    if (spec.keepsCutouts()) {
        std::vector<const Window*> windows;
        for (const Sheet& s : mask.sheets)
            for (const Window& window : s.windows) windows.push_back(&window);
        std::sort(windows.begin(), windows.end(),
                  [](const Window* a, const Window* b) { return a->number < b->number; });
        const auto& elements = job.get<PatternChapter>().elements;
        for (const Window* window : windows) {
            const auto found = std::find_if(elements.begin(), elements.end(),
                                            [&](const ElementPtr& e) { return e->id == window->element; });
            sheet.cutouts.push_back(
                Words(window->skin.y() >= 0
                          ? NINE_WORDS("core",
                                       "{number}: {element}, {along} from the nose, {across} above the axis")
                          : NINE_WORDS("core",
                                       "{number}: {element}, {along} from the nose, {across} below the axis"))
                    .number("number", window->number, 0)
                    .name("element", found == elements.end() ? window->element : (*found)->shownName())
                    .length("along", window->skin.x() - skin.noseX_mm(), 0)
                    .length("across", std::abs(window->skin.y()), 1));
        }
    }
    sheet.cautions.push_back(asSaid(NINE_WORDS(
        "core",
        "Blade: cut away from the holding hand, cap the knife; never cut vinyl hot or with a laser.")));
    sheet.cautions.push_back(asSaid(NINE_WORDS(
        "core",
        "Mist and solvents: the product's data sheet and local rules come first. Nothing solvent near "
        "heat.")));
    return sheet;
}

}  // namespace nine
