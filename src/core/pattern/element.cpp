#include "pattern/element.h"

#include <cmath>

#include "blank/walk.h"

namespace nine {
namespace {

constexpr double kFarthest_mm = 2000, kFarthestAhead_mm = 500;

Status within(const std::string& path, const char* field, Pattern name, double value, double low,
              double high) {
    if (value >= low && value <= high) return Done{};
    return Error{"out_of_range",
                 Words(NINE_WORDS("core", "{name} is {value}; it must lie between {low} and {high}."))
                     .words("name", name)
                     .length("value", value, kShortest)
                     .length("low", low, kShortest)
                     .length("high", high, kShortest),
                 path + "." + field};
}

}  // namespace

Words sentenceOf(const Element& element, Pattern sentence) {
    Words words(sentence);
    const Kind* kind = findKind(element.kind);
    if (!kind) return words;
    for (const Param& p : kind->params()) {
        const double v = element.values.number(p.key);
        const std::string key(p.key);
        if (p.type == Param::Type::Length) words = std::move(words).length(key, v, p.decimals);
        if (p.type == Param::Type::Count) words = std::move(words).number(key, v, 0);
        if (p.type == Param::Type::Share) words = std::move(words).number(key, 100 * v, p.decimals);
        if (p.type == Param::Type::Angle) words = std::move(words).number(key, v, p.decimals);
        if (p.type == Param::Type::Seed) words = std::move(words).number(key, v, 0);
        if (p.type == Param::Type::Letters || p.type == Param::Type::Colour)
            words = std::move(words).name(key, element.values.text(p.key));
        if (p.type == Param::Type::Choice)
            for (const Choice& choice : p.choices)
                if (choice.id == element.values.text(p.key)) words = std::move(words).words(key, choice.name);
    }
    return words;
}

Refit ruleOf(const Element& element, std::string_view key) {
    if (const auto own = element.rules.find(std::string(key)); own != element.rules.end()) return own->second;
    if (key == "dx_mm") return Refit::WithLength;
    if (key == "dg_mm") return Refit::WithGirth;
    const Kind* kind = findKind(element.kind);
    const Param* param = kind ? findParam(*kind, key) : nullptr;
    return param ? param->refit : Refit::Fixed;
}

Element refitted(Element e, double length, double girth, double noseFrom, double noseTo) {
    const Kind* kind = findKind(e.kind);
    if (!kind) return e;
    const bool fromNose = e.anchor.empty() && kind->hasOrigin();
    const double along = factorOf(ruleOf(e, "dx_mm"), length, girth);
    e.dx_mm = fromNose ? noseTo + along * (e.dx_mm - noseFrom) : along * e.dx_mm;
    e.dg_mm *= factorOf(ruleOf(e, "dg_mm"), length, girth);
    for (const Param& p : kind->params()) {
        const double factor = factorOf(ruleOf(e, p.key), length, girth);
        if (factor == 1) continue;
        if (p.type == Param::Type::Path) {
            Polyline2 path = std::get<Polyline2>(*e.values.find(p.key));
            for (Vec2& place : path) place *= factor;
            e.values.set(p.key, std::move(path));
        } else if (p.isNumber()) {
            const double v = factor * e.values.number(p.key);
            e.values.set(p.key, p.isWhole() ? std::max(1.0, std::round(v)) : v);
        }
    }
    return e;
}

Status checkElement(const Element& element, const std::string& path) {
    const Kind* kind = findKind(element.kind);
    if (!kind) return Done{};  // its numbers mean what this version cannot know
    if (Status ok = within(path, "dx_mm", NINE_WORDS("core", "Distance"), element.dx_mm, -kFarthestAhead_mm,
                           kFarthest_mm);
        !ok)
        return ok;
    if (Status ok = within(path, "dg_mm", NINE_WORDS("core", "Height"), element.dg_mm, -kMostHeight_mm,
                           kMostHeight_mm);
        !ok)
        return ok;
    if (Status ok = within(path, "clear_mm", NINE_WORDS("core", "Distance kept clear"), element.clear_mm, 0,
                           kMostClear_mm);
        !ok)
        return ok;
    return checkValues(*kind, element.values, path);
}

Result<Vec2> originOf(const Skin& skin, const Landmarks& landmarks, const Element& element,
                      const std::string& path) {
    if (element.anchor.empty()) {
        if (Status ok = skin.check({Side::Left, element.dx_mm, element.dg_mm}, path); !ok) return ok.error();
        return Vec2(element.dx_mm, element.dg_mm);
    }
    const auto found = landmarks.find(element.anchor);
    if (found == landmarks.end()) {
        std::string known;
        for (const auto& [name, landmark] : landmarks) known += (known.empty() ? "" : ", ") + name;
        return Error{
            "unknown_landmark",
            Words(NINE_WORDS("core", "This blank has no landmark named \"{anchor}\"; it has {known}."))
                .name("anchor", element.anchor)
                .words("known", known.empty() ? Words(NINE_WORDS("core", "none")) : Words::verbatim(known)),
            path + ".anchor"};
    }
    const Landmark& landmark = found->second;
    const double g = landmark.isCurve() ? element.dg_mm : landmark.points.front().y() + element.dg_mm;
    const Result<double> x = walkAlong(skin, referencePoint(landmark, g).x(), g, element.dx_mm, path);
    if (!x) return x.error();
    return Vec2(*x, g);
}

Result<Element> reanchored(const Skin& skin, const Landmarks& landmarks, Element element,
                           const std::string& anchor, const std::string& path) {
    const Result<Vec2> origin = originOf(skin, landmarks, element, path);
    if (!origin) return origin.error();
    const auto hundredth = [](double v) { return std::round(100 * v) / 100; };
    element.anchor = anchor;
    element.dx_mm = hundredth(origin->x());
    element.dg_mm = hundredth(origin->y());
    const auto found = landmarks.find(anchor);
    if (found == landmarks.end())
        return anchor.empty() ? Result<Element>(element) : originOf(skin, landmarks, element, path).error();
    const Landmark& landmark = found->second;
    const double g = origin->y();
    if (!landmark.isCurve()) element.dg_mm = hundredth(g - landmark.points.front().y());
    const Result<double> along = distanceAlong(skin, referencePoint(landmark, g).x(), origin->x(), g, path);
    if (!along) return along.error();
    element.dx_mm = hundredth(*along);
    return element;
}

}  // namespace nine
