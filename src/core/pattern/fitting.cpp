#include "pattern/fitting.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace nine {
namespace {

constexpr int kPlaces = 16;          // looked at along the body
constexpr double kLongestWay = 1.6;  // along the skin, for the length of the body
constexpr double kNearest_mm = 0.02;

double rounded(double v) {
    return std::round(100 * v) / 100;
}

/// The mark with so much of its girth offset, its count and its size left.
Element reduced(Element e, double height, double count, double size) {
    e.dg_mm = rounded(height * e.dg_mm);
    if (const Kind* kind = findKind(e.kind)) e.values = lessened(*kind, e.values, height, count, size);
    return e;
}

}  // namespace

Result<Element> broughtOnto(const Skin& skin, const Landmarks& landmarks, const Element& element,
                            const Task& task) {
    Error why;
    const auto lies = [&](const Element& e) {
        const Result<ElementArt> art = drawElement(skin, landmarks, e, "", Fineness::Glance);
        if (!art) why = art.error();
        // The cut itself is sampled finer and comes a little nearer to the ends.
        return art && drawElement(skin, landmarks, e, "", Fineness::Cut);
    };
    if (lies(element)) return element;
    if (why.code != "off_body") return why;
    const auto at = [&](Element e, double along) {
        e.dx_mm = rounded(along);
        return e;
    };
    // From whatever it is measured, it starts on the body: places along the whole of it, the nearest first.
    const double reach = kLongestWay * skin.length_mm(), step = skin.length_mm() / kPlaces;
    std::vector<double> places;
    for (double along = -reach; along <= reach; along += step) places.push_back(along);
    std::sort(places.begin(), places.end(),
              [&](double a, double b) { return std::abs(a - element.dx_mm) < std::abs(b - element.dx_mm); });
    for (const auto& [count, size] :
         {std::pair{1.0, 1.0}, {0.8, 1.0}, {0.6, 1.0}, {0.35, 1.0}, {0.0, 1.0}, {0.0, 0.5}, {0.0, 0.2}}) {
        for (const double height : {1.0, 0.8, 0.55, 0.3, 0.0}) {
            const Element e = reduced(element, height, count, size);
            if (lies(e)) return e;
            for (const double place : places) {
                if (task.cancelled()) return Task::cancelledError();
                if (!lies(at(e, place))) continue;
                // Towards where it was, as far as it lies: the edge it went over.
                double off = std::clamp(element.dx_mm, place - step, place + step), on = place;
                while (std::abs(on - off) > kNearest_mm) {
                    const double middle = 0.5 * (on + off);
                    (lies(at(e, middle)) ? on : off) = middle;
                }
                return at(e, on);
            }
        }
    }
    return why;
}

}  // namespace nine
