#include "mask/mask.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "blank/measure.h"
#include "blank/walk.h"

namespace nine {
namespace {

constexpr double kMarkZone_mm = 5;      // room at both ends for a cross of 4 mm
constexpr double kCornerRadius_mm = 2;  // a sharp corner of sheet lifts first
constexpr double kNearestToArt_mm = 1;  // margin kept even where the body's tip leaves no more
constexpr double kWidestShare = 0.9;    // of the girth: more, and the sheet's edges meet
constexpr double kThinnestWeb_mm =
    0.5;  // thinner strips between windows tear (common practice, no published source)
constexpr int kGirthSamples = 24;
constexpr double kFinestSpacing_mm =
    0.5;  // of a mask's mesh: finer moved the least strain by 1.3 %, the landing by 1e-4 mm
constexpr int kFewestUseful = 300;

RegistrationMark makeMark(char name, const Skin& skin, const Landmarks& landmarks, const Vec2& at,
                          const SheetCarrier& sheet) {
    const SkinPoint point{Side::Left, at.x(), at.y()};
    const SurfacePoint place = skin.at(point);
    RegistrationMark mark{name, at, sheet.at(place), "", 0, at.x() - skin.noseX(), at.y()};
    double nearest = 0;
    Vec2 reference = at;
    for (const auto& [landmarkName, landmark] : landmarks) {
        const LandmarkKind* kind = landmarkKind(landmarkName);
        // Of the painter's own ones points are things on the body, curves mostly are not.
        if (kind ? !kind->felt : landmark.isCurve()) continue;
        const Vec2 candidate = referencePoint(landmark, at.y());
        if (!skin.check({Side::Left, candidate.x(), candidate.y()}, "")) continue;
        const double straight =
            (skin.at({Side::Left, candidate.x(), candidate.y()}).position - place.position).norm();
        if (!mark.landmark.empty() && straight >= nearest) continue;
        nearest = straight;
        mark.landmark = landmarkName;
        reference = candidate;
    }
    if (!mark.landmark.empty()) {
        const Result<Geodesic> way = shortestWay(skin, point, {Side::Left, reference.x(), reference.y()});
        mark.distance_mm = way ? way->length_mm : nearest;
        const Result<double> along = distanceAlong(skin, reference.x(), at.x(), at.y(), "");
        mark.behind_mm = along ? *along : at.x() - reference.x();
        mark.above_mm = at.y() - reference.y();
    }
    return mark;
}

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

Window windowOf(std::string element, Polygon2 outline, PolygonSet islands) {
    PolygonSet open{outline};
    open.insert(open.end(), islands.begin(), islands.end());
    return {std::move(element), centroid(open), area(open), std::move(outline), std::move(islands)};
}

std::vector<Window> cutWindows(const std::vector<const ElementArt*>& art, const SheetCarrier& sheet) {
    PolygonSet outlines;
    std::vector<const std::string*> owners;
    for (const ElementArt* element : art) {
        for (const Outline& outline : element->outlines()) {
            Polygon2 flat;
            for (const SurfacePoint& p : outline.points) flat.push_back(sheet.at(p));
            outlines.push_back(std::move(flat));
            owners.push_back(&element->element);
        }
    }
    // What stands alone is cut as it was drawn; uniting would only move its start point.
    const std::vector<std::size_t> group = groupsOf(outlines);
    std::vector<Window> windows;
    for (std::size_t i = 0; i < outlines.size(); ++i) {
        if (group[i] != i) continue;
        PolygonSet together;
        for (std::size_t k = i; k < outlines.size(); ++k)
            if (group[k] == i) together.push_back(outlines[k]);
        if (together.size() == 1) {
            windows.push_back(windowOf(*owners[i], std::move(outlines[i]), {}));
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
            windows.push_back(windowOf(*owners[i], std::move(rims[r]), std::move(islands[r])));
    }
    return windows;
}

void warnOfThinWebs(const std::vector<Window>& windows, const std::string& where, Warnings& warnings) {
    double thinnest = kThinnestWeb_mm;
    std::vector<Box2> boxes;
    for (const Window& window : windows) boxes.push_back(boxAround({window.outline}));
    for (std::size_t i = 0; i < windows.size(); ++i) {
        for (std::size_t j = i + 1; j < windows.size(); ++j) {
            if (apart(boxes[i], boxes[j]) >= thinnest) continue;
            thinnest = std::min(thinnest, borderDistance(windows[i].outline, windows[j].outline));
        }
    }
    if (thinnest < kThinnestWeb_mm) {
        warnings.push_back(
            {"thin_web",
             Words(NINE_WORDS("core",
                              "Only {thinnest} of sheet is left between two windows; it will tear. "
                              "Leave half a millimetre or more."))
                 .length("thinnest", thinnest, 2),
             where});
    }
}

void warnOfIslands(const std::vector<Window>& windows, const std::string& where, Warnings& warnings) {
    std::size_t count = 0;
    const Window* first = nullptr;
    for (const Window& window : windows) {
        count += window.islands.size();
        if (!first && !window.islands.empty()) first = &window;
    }
    if (!first) return;
    warnings.push_back(
        {"island",
         Words(count == 1
                   ? NINE_WORDS(
                         "core",
                         "A piece of sheet stands free inside the window of \"{element}\" and will fall out "
                         "when it is cut. Move the marks apart, or put them into two masks; bridges that "
                         "hold such pieces are not made yet.")
                   : NINE_WORDS(
                         "core",
                         "{count} pieces of sheet stand free inside the window of \"{element}\" and will "
                         "fall out when it is cut. Move the marks apart, or put them into two masks; bridges "
                         "that hold such pieces are not made yet."))
             .number("count", static_cast<double>(count), 0)
             .name("element", first->element),
         where});
}

}  // namespace

Polygon2 borderOf(const FlatPatch& flat) {
    std::vector<std::pair<int, int>> edges;
    for (const Triangle& t : flat.rest.triangles) {
        for (std::size_t i = 0; i < 3; ++i) edges.emplace_back(t[i], t[(i + 1) % 3]);
    }
    std::vector<std::pair<int, int>> sorted = edges;
    std::sort(sorted.begin(), sorted.end());
    std::vector<int> next(flat.map.size(), -1);
    int start = 0;
    for (const auto& [a, b] : edges) {
        if (std::binary_search(sorted.begin(), sorted.end(), std::pair{b, a})) continue;
        next[static_cast<std::size_t>(a)] = b;
        start = a;
    }
    Polygon2 border;
    int at = start;
    do {
        border.push_back(flat.map[static_cast<std::size_t>(at)]);
        at = next[static_cast<std::size_t>(at)];
    } while (at != start && at >= 0);
    const PolygonSet rounded = offset(offset({border}, -kCornerRadius_mm), kCornerRadius_mm);
    return rounded.size() == 1 ? rounded.front() : border;
}

Laying layingOf(Apply apply) {
    switch (apply) {
        case Apply::Lateral:
            return Laying::FromMidline;
        case Apply::Back:
            return Laying::FromTopEdge;
        default:
            return Laying::Loose;
    }
}

const char* applyName(Apply apply) {
    switch (apply) {
        case Apply::Lateral:
            return "lateral";
        case Apply::Back:
            return "back";
        default:
            return "loose";
    }
}

BandPatch patchAround(const Skin& skin, const std::vector<const ElementArt*>& art, double margin_mm,
                      const std::string& where, Warnings& warnings) {
    Vec2 low = art.front()->low, high = art.front()->high;
    for (const ElementArt* a : art) {
        low = low.cwiseMin(a->low);
        high = high.cwiseMax(a->high);
    }
    const double along = std::max(margin_mm, kMarkZone_mm);
    const double middle = 0.5 * (low.y() + high.y());
    bool cut = false;
    const auto endAt = [&](double from, double way, double keepOff, bool closed) {
        const Result<double> walked = walkAlong(skin, from, middle, way * along, where);
        const double end = way < 0 ? skin.noseX() : skin.tailX();
        const double limit = closed ? end - way * keepOff : end;
        double x = walked ? *walked : end;
        if (way * (x - limit) > 0) {
            x = way * (limit - from) > kNearestToArt_mm ? limit : from + way * kNearestToArt_mm;
            cut = true;
        }
        return x;
    };
    const double keepOff = kPoleDoubtful * skin.length_mm();
    BandPatch patch{};
    patch.x0_mm = endAt(low.x(), -1, keepOff, skin.loft().noseClosed());
    patch.x1_mm = endAt(high.x(), 1, keepOff, skin.loft().tailClosed());

    // Where the body is slender the sheet must not meet itself on the far side.
    double roomUp = margin_mm, roomDown = margin_mm;
    for (int i = 0; i <= kGirthSamples; ++i) {
        const SectionArc arc = skin.arcAt(patch.x0_mm + (patch.x1_mm - patch.x0_mm) * i / kGirthSamples);
        const double spare = 0.5 * (kWidestShare * arc.girth() - (high.y() - low.y()));
        roomUp = std::min({roomUp, spare, 2 * kWidestShare * arc.backArc() - high.y()});
        roomDown = std::min({roomDown, spare, low.y() + 2 * kWidestShare * arc.bellyArc()});
    }
    cut = cut || roomUp < margin_mm || roomDown < margin_mm;
    patch.g0_mm = low.y() - std::max(roomDown, 0.0);
    patch.g1_mm = high.y() + std::max(roomUp, 0.0);
    if (cut) {
        warnings.push_back(
            {"margin_cut",
             Words(NINE_WORDS("core",
                              "The body leaves no room for the whole margin of {margin} round this "
                              "art; cover the rest with tape."))
                 .length("margin", margin_mm, 1),
             where});
    }
    return patch;
}

Result<Mask> cutMask(const Skin& skin, const Landmarks& landmarks, const std::vector<const ElementArt*>& art,
                     const MaskSpec& spec, double strainLimit, int vertices, Precision precision,
                     const std::string& where, const Task& task) {
    Mask mask;
    const BandPatch band = patchAround(skin, art, spec.margin_mm, where, mask.warnings);
    // On a small mask more vertices are only more work: the skin does not turn within half a millimetre.
    const double area = (band.x1_mm - band.x0_mm) * (band.g1_mm - band.g0_mm);
    const int useful =
        std::max(kFewestUseful, static_cast<int>(area / (kFinestSpacing_mm * kFinestSpacing_mm)));
    Result<PatchMesh> mesh = meshPatch(skin, band, std::min(vertices, useful), where);
    if (!mesh) return mesh.error();
    const double inset = 0.5 * kMarkZone_mm;
    const double middle = 0.5 * (band.g0_mm + band.g1_mm);
    const auto insetFrom = [&](double x, double way) {
        const Result<double> at = walkAlong(skin, x, middle, way * inset, where);
        return Vec2(at ? *at : x, middle);
    };
    mesh->markA = insetFrom(band.x0_mm, 1);
    mesh->markB = insetFrom(band.x1_mm, -1);
    mask.warnings.insert(mask.warnings.end(), mesh->warnings.begin(), mesh->warnings.end());

    Result<FlatPatch> flat = precision == Precision::Exact ? flattenPatch(std::move(*mesh), task)
                                                           : previewPatch(std::move(*mesh), task);
    if (!flat) return flat.error();
    mask.flat = std::make_shared<const FlatPatch>(std::move(*flat));
    mask.map = mask.flat->map;
    mask.report.vertices = mask.flat->rest.vertexCount;
    mask.report.strainMax = mask.flat->strain.max;
    mask.report.strainP95 = mask.flat->strain.p95;
    mask.report.strainLimit = strainLimit;
    const SheetCarrier sheet(mask.flat->patch.pairedWith(mask.map));
    mask.outline = borderOf(*mask.flat);
    mask.windows = cutWindows(art, sheet);
    for (const ElementArt* a : art) mask.moved_mm = std::max(mask.moved_mm, a->moved_mm());
    mask.marks = {makeMark('A', skin, landmarks, mask.flat->patch.markA, sheet),
                  makeMark('B', skin, landmarks, mask.flat->patch.markB, sheet)};
    warnOfThinWebs(mask.windows, where, mask.warnings);
    warnOfIslands(mask.windows, where, mask.warnings);
    return mask;
}

Result<Mask> judgedMask(const Skin& skin, const std::vector<const ElementArt*>& art, const MaskSpec& spec,
                        Mask mask, const Task& task) {
    std::vector<SurfacePoint> probes;
    for (const ElementArt* a : art) {
        for (const Outline& outline : a->outlines()) {
            const std::size_t stride = std::max<std::size_t>(1, outline.points.size() / 8);
            for (std::size_t i = 0; i < outline.points.size(); i += stride)
                probes.push_back(outline.points[i]);
        }
    }
    Result<FitReport> report =
        judgeFit(skin, *mask.flat, mask.report.strainLimit, layingOf(spec.apply), std::move(probes), task);
    if (!report) return report.error();
    mask.report = std::move(*report);
    return mask;
}

Mask mirrored(Mask mask) {
    const auto flip = [](Vec2& p) { p.x() = -p.x(); };
    const auto flipRing = [&](Polygon2& ring) {
        for (Vec2& p : ring) flip(p);
        std::reverse(ring.begin(), ring.end());
    };
    for (Vec2& p : mask.map) flip(p);
    flipRing(mask.outline);
    for (Window& w : mask.windows) {
        flipRing(w.outline);
        for (Polygon2& island : w.islands) flipRing(island);
        flip(w.centre);
    }
    for (RegistrationMark& m : mask.marks) flip(m.flat);
    return mask;
}

}  // namespace nine
