#include "mask/windows.h"

#include <algorithm>
#include <cmath>

namespace nine {
namespace {

constexpr double kThinnestWeb_mm =
    0.5;  // thinner strips between windows tear (common practice, no published source)

/// Which of the outlines touch each other, directly or through others: the number of the first of its group,
/// for each.
std::vector<std::size_t> groupsOf(const PolygonSet& outlines) {
    std::vector<Box2> boxes;
    for (const Polygon2& outline : outlines) boxes.push_back(boxAround({outline}));
    std::vector<std::size_t> group(outlines.size());
    for (std::size_t i = 0; i < outlines.size(); ++i) {
        group[i] = i;
        for (std::size_t j = 0; j < i; ++j) {
            if (group[j] == group[i] || apart(boxes[i], boxes[j]) > 0) continue;
            const bool touching = contains(outlines[i], outlines[j].front()) ||
                                  contains(outlines[j], outlines[i].front()) ||
                                  borderDistance(outlines[i], outlines[j]) == 0;
            if (!touching) continue;
            const std::size_t first = std::min(group[i], group[j]), second = std::max(group[i], group[j]);
            for (std::size_t k = 0; k <= i; ++k)
                if (group[k] == second) group[k] = first;
        }
    }
    return group;
}

Window windowOf(std::string element, Polygon2 outline, PolygonSet islands, const PolygonSet& skin) {
    PolygonSet open{outline};
    open.insert(open.end(), islands.begin(), islands.end());
    return {std::move(element), SheetPlace(centroid(open)), area(open),     std::move(outline),
            std::move(islands), SkinPlace(centroid(skin)),  boxAround(skin)};
}

}  // namespace

Result<FlatArt> laidFlat(const std::vector<const ElementArt*>& art, const CutPlaces& sheet,
                         const std::string& where) {
    FlatArt laid;
    for (const ElementArt* element : art) {
        for (const Outline& outline : element->outlines()) {
            Polygon2 flat;
            for (std::size_t i = 0; i < outline.points.size(); ++i) {
                const std::optional<SheetPlace> at = sheet.at(SkinPlace(outline.skin[i]), outline.points[i]);
                if (!at)
                    return Error{"off_sheet",
                                 Words(NINE_WORDS("core",
                                                  "\"{element}\" reaches beyond the sheet {x} from the nose; "
                                                  "move it, or let the mask cover more."))
                                     .name("element", element->element)
                                     .length("x", outline.skin[i].x(), 0),
                                 where};
                flat.push_back(*at);
            }
            laid.outlines.push_back(std::move(flat));
            laid.skin.push_back(outline.skin);
            laid.owners.push_back(&element->element);
        }
    }
    return laid;
}

std::vector<Window> cutWindows(FlatArt art) {
    PolygonSet& outlines = art.outlines;
    const std::vector<const std::string*>& owners = art.owners;
    // What stands alone is cut as it was drawn; uniting would only move its start point.
    const std::vector<std::size_t> group = groupsOf(outlines);
    std::vector<Window> windows;
    for (std::size_t i = 0; i < outlines.size(); ++i) {
        if (group[i] != i) continue;
        PolygonSet together, onSkin;
        for (std::size_t k = i; k < outlines.size(); ++k) {
            if (group[k] != i) continue;
            together.push_back(outlines[k]);
            onSkin.push_back(art.skin[k]);
        }
        if (together.size() == 1) {
            windows.push_back(windowOf(*owners[i], std::move(outlines[i]), {}, {art.skin[i]}));
            continue;
        }
        PolygonSet rims, holes;
        for (Polygon2& ring : united(together))
            (polygonArea(ring) > 0 ? rims : holes).push_back(std::move(ring));
        std::vector<PolygonSet> islands(rims.size());
        for (Polygon2& hole : holes) {  // of the rims round it the innermost has it
            std::size_t owner = rims.size();
            for (std::size_t r = 0; r < rims.size(); ++r) {
                if (contains(rims[r], hole.front()) &&
                    (owner == rims.size() || polygonArea(rims[r]) < polygonArea(rims[owner])))
                    owner = r;
            }
            if (owner < rims.size()) islands[owner].push_back(std::move(hole));
        }
        for (std::size_t r = 0; r < rims.size(); ++r)
            windows.push_back(windowOf(*owners[i], std::move(rims[r]), std::move(islands[r]), onSkin));
    }
    return windows;
}

void warnOfThinWebs(const std::vector<Window>& windows, const Polygon2& outline, const std::string& where,
                    Warnings& warnings) {
    double thinnest = kThinnestWeb_mm, toEdge = kThinnestWeb_mm;
    std::vector<Box2> boxes;
    for (const Window& window : windows) boxes.push_back(boxAround({window.outline}));
    for (std::size_t i = 0; i < windows.size(); ++i) {
        const double edge = borderDistance(windows[i].outline, outline);
        if (edge >= kOpenToEdge_mm) toEdge = std::min(toEdge, edge);
        for (std::size_t j = i + 1; j < windows.size(); ++j) {
            if (apart(boxes[i], boxes[j]) >= thinnest) continue;
            thinnest = std::min(thinnest, borderDistance(windows[i].outline, windows[j].outline));
        }
    }
    const auto told = [&](Pattern pattern, double least) {
        warnings.push_back({"thin_web", Words(pattern).length("thinnest", least, 2), where});
    };
    if (thinnest < kThinnestWeb_mm)
        told(NINE_WORDS("core",
                        "Only {thinnest} of sheet is left between two windows; it will tear. "
                        "Leave half a millimetre or more."),
             thinnest);
    if (toEdge < kThinnestWeb_mm)
        told(NINE_WORDS("core",
                        "Only {thinnest} of sheet is left between a window and the edge; it will tear and "
                        "lands where it likes. Give it more margin, or a mask of another kind."),
             toEdge);
}

void numberWindows(std::vector<Sheet>& sheets) {
    // Columns a millimetre wide, so that marks one above the other are counted downwards.
    const auto before = [](const Window* a, const Window* b) {
        const double ax = std::round(a->skin.x()), bx = std::round(b->skin.x());
        return ax != bx ? ax < bx : a->skin.y() > b->skin.y();
    };
    int number = 0;
    for (Sheet& sheet : sheets) {
        std::vector<Window*> order;
        for (Window& window : sheet.windows) order.push_back(&window);
        std::stable_sort(order.begin(), order.end(), before);
        for (Window* window : order) window->number = ++number;
    }
}

void warnOfIslands(const std::vector<Window>& windows, bool loose, const std::string& where,
                   Warnings& warnings) {
    std::size_t count = 0;
    const Window* first = nullptr;
    for (const Window& window : windows) {
        count += window.islands.size();
        if (!first && !window.islands.empty()) first = &window;
    }
    if (!first) return;
    if (loose) {
        warnings.push_back(
            {"loose_islands",
             Words(
                 NINE_WORDS("core",
                            "{count} pieces of sheet stand free inside the windows of \"{element}\" and are "
                            "laid by themselves: keep them on carrier film, or each by its number."))
                 .number("count", static_cast<double>(count), 0)
                 .name("element", first->element),
             where});
        return;
    }
    warnings.push_back(
        {"island",
         Words(count == 1
                   ? NINE_WORDS(
                         "core",
                         "A piece of sheet stands free inside the window of \"{element}\" and will fall out "
                         "when it is cut. It is too small for bridges: paint over it, or move the marks "
                         "apart.")
                   : NINE_WORDS(
                         "core",
                         "{count} pieces of sheet stand free inside the window of \"{element}\" and will "
                         "fall out when it is cut. They are too small for bridges: paint over them, or move "
                         "the "
                         "marks apart."))
             .number("count", static_cast<double>(count), 0)
             .name("element", first->element),
         where});
}

}  // namespace nine
