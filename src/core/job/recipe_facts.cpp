#include "job/recipe_facts.h"

#include <algorithm>
#include <cstdio>

#include "job/job.h"
#include "pattern/skin_picture.h"

namespace nine {
namespace {

std::string colourOfElement(const Element& element, std::size_t index) {
    if (parseColour(element.colour)) return element.colour;
    return colourText(srgbOf(colourOf(element, index)));
}

/// Its own colour and those its kind sprays besides.
std::vector<std::string> coloursOf(const Element& element, std::size_t index) {
    std::vector<std::string> colours{colourOfElement(element, index)};
    if (const Kind* kind = findKind(element.kind))
        for (const Param& param : kind->params())
            if (param.type == Param::Type::Colour) {
                const std::string other = element.values.text(param.key);
                if (parseColour(other) && other != param.usualText) colours.push_back(other);
            }
    return colours;
}

}  // namespace

RecipeFacts recipeFacts(const Job& job, const std::vector<Bottle>& shelf) {
    RecipeFacts facts = recipeFacts(job);
    for (const Bottle& b : shelf)
        if (!findBottle(facts.paints, b.id)) facts.paints.push_back(b);
    return facts;
}

RecipeFacts recipeFacts(const Job& job) {
    // In one piece: body, tools, then marks and masks in the order of the pattern.
    RecipeFacts facts;
    const Landmarks& landmarks = job.get<BlankChapter>().landmarks;
    const PatternChapter& pattern = job.get<PatternChapter>();
    facts.bill = landmarks.count("bill_slot") > 0;
    facts.sockets = landmarks.count("eye") > 0;
    if (facts.sockets) facts.socket_mm = landmarks.at("eye").diameter_mm;
    facts.hookEyes = landmarks.count("belly_hanger") + landmarks.count("tail_hanger") > 0;
    facts.hinge = landmarks.count("hinge") > 0;
    facts.paints = job.get<LayersChapter>().paints;
    facts.groundBack = pattern.groundBack;
    facts.groundSide = pattern.groundSide;
    facts.groundBelly = pattern.groundBelly;
    if (const auto& net = job.get<ScalesChapter>().net) {
        facts.net = true;
        facts.fabricNet = !net->liftWet;
    }
    const std::vector<MaskSpecPtr> specs = maskSpecs(job);
    for (std::size_t i = 0; i < pattern.elements.size(); ++i) {
        const Element& element = *pattern.elements[i];
        facts.elements.push_back(element.id);
        if (!element.known()) continue;
        if (!element.isCut()) {
            facts.soft.push_back({element.id, element.shownName(), colourOfElement(element, i)});
            facts.drawn.push_back(element.id);
            continue;
        }
        for (const MaskSpecPtr& spec : specs) {
            const auto& opened = spec->wish.elements;
            if (std::find(opened.begin(), opened.end(), element.id) == opened.end()) continue;
            const auto known = std::find_if(facts.masks.begin(), facts.masks.end(), [&](const MaskFact& m) {
                return m.id == spec->id || (m.right != (spec->side == Side::Right) && m.elements == opened);
            });
            if (known == facts.masks.end()) {
                MaskFact mask;
                mask.id = spec->id;
                mask.name = spec->shownName();
                mask.elements = opened;
                mask.colours = coloursOf(element, i);
                mask.keepsCutouts = spec->keepsCutouts();
                mask.right = spec->side == Side::Right;
                facts.drawn.push_back(mask.id);
                facts.masks.push_back(std::move(mask));
                continue;
            }
            if (known->id != spec->id) known->twin = spec->id;
            for (const std::string& colour : coloursOf(element, i))
                if (std::find(known->colours.begin(), known->colours.end(), colour) == known->colours.end())
                    known->colours.push_back(colour);
        }
    }
    return facts;
}

}  // namespace nine
