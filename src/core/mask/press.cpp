#include "mask/press.h"

#include <algorithm>
#include <cmath>

#include "mask/perforate.h"

namespace nine {
namespace {

/// How wide a band along the body is tight round `x`.
double tightAt_mm(const Skin& skin, double x, double g, double gap) {
    constexpr double kMost_mm = 8, kLeast_mm = 1, kReach_mm = 2;
    // Turn of the skin along the body over a few mm.
    const double a = std::max(skin.noseX_mm() + 0.1, x - kReach_mm);
    const double b = std::min(skin.tailX_mm() - 0.1, x + kReach_mm);
    const auto at = [&](double where) {
        const SectionArc arc = skin.arcAt(where);
        const double here = std::clamp(g, -arc.bellyArc_mm(), arc.backArc_mm());
        return skin.at(arc, where, here, Side::Left);
    };
    const SurfacePoint from = at(a), to = at(b);
    const double turn = 2 * std::asin(std::min(1.0, 0.5 * (from.normal - to.normal).norm()));
    const double curvature = turn / arcLength_mm(from, to);
    return std::clamp(std::sqrt(8 * gap / std::max(curvature, 1e-6)), kLeast_mm, kMost_mm);
}

constexpr double kFinger_mm = 2.5;  // from a window's rim to the middle of the finger
constexpr double kOverlap = 0.8;    // of a band, to the next one over the same window

}  // namespace

std::vector<PressPlace> pressPlan(const Skin& skin, double x0, double x1, double g, double gap) {
    std::vector<PressPlace> places;
    for (double x = x0; x < x1;) {
        const double width = tightAt_mm(skin, x, g, gap);
        const double middle = std::min(x + 0.5 * width, std::max(0.5 * (x + x1), x1 - 0.5 * width));
        places.push_back({middle, tightAt_mm(skin, middle, g, gap)});
        if (middle + 0.5 * places.back().width_mm >= x1) break;
        x = middle + (kOverlap - 0.5) * places.back().width_mm;
    }
    return places;
}

std::vector<PressArea> pressAreas(const Skin& skin, const std::vector<Window>& windows, double gap) {
    std::vector<const Window*> left;
    for (const Window& window : windows) left.push_back(&window);
    std::stable_sort(left.begin(), left.end(),
                     [](const Window* a, const Window* b) { return a->reach.low.x() < b->reach.low.x(); });
    std::vector<PressArea> areas;
    const auto add = [&](double x, double width, bool part, std::vector<int> numbers) {
        std::sort(numbers.begin(), numbers.end());
        double low = 1e300, high = -1e300;
        for (const Window& w : windows)
            if (std::binary_search(numbers.begin(), numbers.end(), w.number)) {
                low = std::min(low, w.reach.low.y());
                high = std::max(high, w.reach.high.y());
            }
        areas.push_back({static_cast<int>(areas.size()) + 1,
                         x,
                         width,
                         std::move(numbers),
                         part,
                         {{SkinPlace(x, high + kFinger_mm)}, {SkinPlace(x, low - kFinger_mm)}}});
    };
    while (!left.empty()) {
        const Window& first = *left.front();
        const double x0 = first.reach.low.x(), g = first.skin.y();
        const double width = tightAt_mm(skin, x0, g, gap);
        if (first.reach.size().x() > width) {  // in several goes
            for (const PressPlace& place : pressPlan(skin, x0, first.reach.high.x(), g, gap))
                add(place.x_mm, place.width_mm, true, {first.number});
            left.erase(left.begin());
            continue;
        }
        // All that fit beside it; the fingers go to the middle of them, and what is tight there must do.
        const auto taken = [&](double until) {
            double end = x0;
            for (const Window* w : left)
                if (w->reach.high.x() <= until) end = std::max(end, w->reach.high.x());
            return end;
        };
        double end = taken(x0 + width), tight = width;
        for (int round = 0; round < 4; ++round) {
            tight = tightAt_mm(skin, 0.5 * (x0 + end), g, gap);
            if (end - x0 <= tight || end <= first.reach.high.x()) break;
            end = std::max(first.reach.high.x(), taken(x0 + tight));
        }
        std::vector<int> numbers;
        std::erase_if(left, [&](const Window* w) {
            const bool here = w->reach.high.x() <= end;
            if (here) numbers.push_back(w->number);
            return here;
        });
        add(0.5 * (x0 + end), tight, false, std::move(numbers));
    }
    return areas;
}

void layFingers(std::vector<PressArea>& areas, const Skin& skin, const FlatPatch& flat) {
    constexpr double kRoom_mm = 1.2;  // to the edge
    const CutPlaces sheet(flat);
    const PolygonSet within = offset({bordersOf(flat).front()}, -kRoom_mm);
    const auto laid = [&](const SkinPlace& at) -> std::optional<SheetPlace> {
        if (!skin.check({Side::Left, at.x(), at.y()}, "")) return std::nullopt;
        const std::optional<SheetPlace> place = sheet.at(at, skin.at({Side::Left, at.x(), at.y()}));
        const auto holds = [&](const Polygon2& ring) { return place && contains(ring, *place); };
        return std::any_of(within.begin(), within.end(), holds) ? place : std::nullopt;
    };
    for (PressArea& area : areas) {
        std::vector<PressArea::Finger> there;
        for (std::size_t i = 0; i < area.fingers.size(); ++i)
            for (const double nearer : {0.0, 0.4, 0.8}) {  // of the way back to the rim
                SkinPlace at = area.fingers[i].skin;
                at.y() += (i == 0 ? -1 : 1) * nearer * kFinger_mm;
                const std::optional<SheetPlace> place = laid(at);
                if (!place) continue;
                there.push_back({at, *place});
                break;
            }
        area.fingers = std::move(there);
    }
}

std::string numberList(const std::vector<int>& numbers) {
    std::string list;
    for (std::size_t i = 0; i < numbers.size();) {
        std::size_t last = i;
        while (last + 1 < numbers.size() && numbers[last + 1] == numbers[last] + 1) ++last;
        list += (list.empty() ? "" : ", ") + std::to_string(numbers[i]);
        if (last > i) list += (last == i + 1 ? ", " : "-") + std::to_string(numbers[last]);
        i = last + 1;
    }
    return list;
}

Words pressSentence(const PressArea& area, double noseX_mm) {
    const auto said = [&](Pattern pattern) {
        return Words(pattern)
            .number("area", area.number, 0)
            .name("windows", numberList(area.windows))
            .length("x", area.x_mm - noseX_mm, 0)
            .length("wide", area.width_mm, 1);
    };
    if (area.part)
        return said(NINE_WORDS(
            "core",
            "{area}: press on both sides of window {windows} at {x} from the nose, where {wide} of it "
            "are tight. Spray only that, let it dry, move on."));
    if (area.windows.size() == 1)
        return said(NINE_WORDS("core",
                               "{area}: press beside window {windows}, {x} from the nose; {wide} are tight. "
                               "Spray it, let it dry, move on."));
    return said(NINE_WORDS("core",
                           "{area}: press beside windows {windows}, {x} from the nose; {wide} are tight. "
                           "Spray them, let them dry, move on."));
}

}  // namespace nine
