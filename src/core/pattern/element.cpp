#include "pattern/element.h"

#include <array>
#include <cmath>

#include "base/number_text.h"
#include "blank/walk.h"

namespace nine {
namespace {

Error outOfRange(const std::string& path, const char* field, double value, double low, double high) {
    return {"out_of_range",
            std::string(field) + " is " + numberText(value) + "; it must lie between " + numberText(low) +
                " and " + numberText(high) + ".",
            path + "." + field};
}

struct Range {
    const char* field;
    double value, low, high;
};

std::vector<Range> rangesOf(const Element& element) {
    constexpr double far = 500;
    std::vector<Range> ranges{{"dx_mm", element.dx_mm, -far, 4 * far}, {"dg_mm", element.dg_mm, -far, far}};
    if (const auto* dots = std::get_if<DotRow>(&element.shape)) {
        ranges.insert(ranges.end(), {{"count", double(dots->count), 1, kMaxCount},
                                     {"spacing_mm", dots->spacing_mm, kSmallestSize_mm, kLargestSize_mm},
                                     {"first_mm", dots->first_mm, kSmallestSize_mm, 50},
                                     {"last_mm", dots->last_mm, kSmallestSize_mm, 50},
                                     {"bow_mm", dots->bow_mm, -50, 50}});
    } else if (const auto* mark = std::get_if<GillMark>(&element.shape)) {
        ranges.insert(ranges.end(), {{"width_mm", mark->width_mm, kSmallestSize_mm, 50},
                                     {"from", mark->from, 0, 1},
                                     {"to", mark->to, 0, 1},
                                     {"pair_mm", mark->pair_mm, 0, kLargestPair_mm}});
    } else if (const auto* bars = std::get_if<Bars>(&element.shape)) {
        ranges.insert(ranges.end(), {{"count", double(bars->count), 1, kMaxCount},
                                     {"spacing_mm", bars->spacing_mm, kSmallestSize_mm, kLargestSize_mm},
                                     {"width_back_mm", bars->widthBack_mm, kSmallestSize_mm, 50},
                                     {"width_belly_mm", bars->widthBelly_mm, kSmallestSize_mm, 50},
                                     {"g0_mm", bars->g0_mm, -far, far},
                                     {"g1_mm", bars->g1_mm, -far, far}});
    }
    return ranges;
}

}  // namespace

std::string kindName(const Element& element) {
    if (const auto* unknown = std::get_if<UnknownShape>(&element.shape)) return unknown->kind;
    static constexpr std::array names{"dot_row", "bars", "gill_mark"};
    return names[element.shape.index()];
}
const char* shortName(const Element& element) {
    static constexpr std::array names{"dots", "bars", "gill mark", "unknown"};
    return names[element.shape.index()];
}

double pairShift_mm(const Element& element) {
    const auto* mark = std::get_if<GillMark>(&element.shape);
    return mark ? mark->pair_mm : 0;
}

Status checkElement(const Element& element, const std::string& path) {
    if (!element.known()) return Done{};  // its numbers mean what this version cannot know
    for (const Range& r : rangesOf(element)) {
        if (!(r.value >= r.low && r.value <= r.high))
            return outOfRange(path, r.field, r.value, r.low, r.high);
    }
    if (const auto* bars = std::get_if<Bars>(&element.shape);
        bars && !(bars->g1_mm - bars->g0_mm >= kSmallestSize_mm)) {
        return Error{"out_of_range", "A bar must reach from g0_mm up to a larger g1_mm.", path + ".g1_mm"};
    }
    if (const auto* mark = std::get_if<GillMark>(&element.shape); mark && !(mark->to - mark->from >= 0.05)) {
        return Error{"out_of_range", "A gill mark must reach from \"from\" to a \"to\" at least 0.05 larger.",
                     path + ".to"};
    }
    return Done{};
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
        return Error{"unknown_landmark",
                     "This blank has no landmark named \"" + element.anchor + "\"; it has " +
                         (known.empty() ? "none" : known) + ".",
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
