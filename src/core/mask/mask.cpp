#include "mask/mask.h"

#include <algorithm>
#include <cmath>

#include "blank/measure.h"
#include "blank/walk.h"
#include "mask/bridges.h"
#include "mask/perforate.h"
#include "mask/sticking.h"

namespace nine {
namespace {

constexpr double kCornerRadius_mm = 2;  // a sharp corner of sheet lifts first
constexpr double kThinnestWeb_mm =
    0.5;  // thinner strips between windows tear (common practice, no published source)
constexpr double kFinestSpacing_mm =
    0.5;  // of a mask's mesh: finer moved the least strain by 1.3 %, the landing by 1e-4 mm
constexpr double kSpeck_mm2 = 0.05;  // left over where outlines are joined
constexpr int kFewestUseful = 300;
constexpr std::size_t kProbesAnOutline = 8;

/// `flat` is its place on the sheet.
RegistrationMark makeMark(char name, const Skin& skin, const Landmarks& landmarks, const SkinPlace& at,
                          const SheetPlace& flat) {
    const SkinPoint point{Side::Left, at.x(), at.y()};
    const SurfacePoint place = skin.at(point);
    RegistrationMark mark{name, at, flat, "", 0, at.x() - skin.noseX_mm(), at.y()};
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
    return {std::move(element), SheetPlace(centroid(open)), area(open), std::move(outline),
            std::move(islands)};
}

/// The art's outlines on the sheet. Errors: off_sheet.
struct FlatArt {
    PolygonSet outlines;
    std::vector<const std::string*> owners;  ///< ids of elements
};
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

Warning bridgesTold(const BridgedSheet& sheet, double width_mm, const std::string& where) {
    return {"bridges",
            Words(NINE_WORDS(
                      "core",
                      "{count} bridges of {width} hold what stands free inside the windows. They leave gaps "
                      "in the paint: touch them up with a brush."))
                .number("count", sheet.bridges, 0)
                .length("width", width_mm, 1),
            where};
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

}  // namespace

PolygonSet bordersOf(const FlatPatch& flat) {
    PolygonSet borders;
    for (const std::vector<int>& loop : flat.patch.loops) {
        Polygon2& border = borders.emplace_back();
        for (const int v : loop) border.push_back(flat.map[static_cast<std::size_t>(v)]);
    }
    const PolygonSet rounded = offset(offset({borders.front()}, -kCornerRadius_mm), kCornerRadius_mm);
    if (rounded.size() == 1) borders.front() = rounded.front();
    return borders;
}

FitReport Mask::report() const {
    FitReport all;
    all.liesFlat = true;
    const auto worst = [](double& into, double v) { into = std::max(into, v); };
    for (const Sheet& sheet : sheets) {
        const FitReport& r = sheet.report;
        all.vertices += r.vertices;
        worst(all.strainMax, r.strainMax);
        worst(all.strainP95, r.strainP95);
        worst(all.strainFeasibleMax, r.strainFeasibleMax);
        worst(all.areaRatioMax, r.areaRatioMax);
        worst(all.landing.rms_mm, r.landing.rms_mm);
        worst(all.landing.max_mm, r.landing.max_mm);
        worst(all.traced.rms_mm, r.traced.rms_mm);
        worst(all.traced.max_mm, r.traced.max_mm);
        worst(all.relief_mm, r.relief_mm);
        worst(all.lift_mm, r.lift_mm);
        worst(all.bend_mm, r.bend_mm);
        worst(all.hand_mm, r.hand_mm);
        all.strainLimit = r.strainLimit;
        all.tracedKnown = all.tracedKnown && r.tracedKnown;
        all.liesFlat = all.liesFlat && r.liesFlat;
    }
    return all;
}

namespace {

Warning slender(const std::optional<Ribbon>& ribbon, const std::string& where) {
    if (!ribbon)
        return {"slender_ribbon",
                NINE_WORDS("core",
                           "Strips of sheet between the windows are too slender to come to rest where they "
                           "are drawn. Lay a carrier film over them, or cut them on the body."),
                where};
    const bool held = ribbon->slenderness() <= kHeldRibbon;
    return {
        "slender_ribbon",
        Words(held ? NINE_WORDS("core",
                                "A strip of sheet {length} long and {width} wide is left beside a window "
                                "{x} from the nose; a finger pushes it aside. Lay a carrier film over it, "
                                "or leave a bridge in the middle.")
                   : NINE_WORDS("core",
                                "A strip of sheet {length} long and {width} wide is left beside a window "
                                "{x} from the nose; it does not stay where it is laid. Lay the sheet "
                                "first and cut the strip on the body, or leave more sheet there."))
            .length("length", ribbon->length_mm, 1)
            .length("width", ribbon->width_mm, 2)
            .length("x", ribbon->at.x(), 0),
        where};
}

void warnOfOverlap(const std::vector<SlitOnSheet>& slits, const std::string& where, Warnings& warnings) {
    constexpr double kOver_mm = 0.05;
    for (const SlitOnSheet& slit : slits) {
        if (slit.mouth_mm > -kOver_mm) continue;
        warnings.push_back(
            {"slit_closes",
             Words(NINE_WORDS("core",
                              "The slit {x} from the nose does not open on the flat but overlaps by "
                              "{over}: it helps nothing there. Take it out or move it."))
                 .length("x", slit.skin.line.front().x(), 0)
                 .length("over", -slit.mouth_mm, 1),
             where});
    }
}

/// How far the lips stand apart at the mouth; less than nothing where each lies beyond the other and the
/// sheet would have to be there twice.
double openingOf(const Polyline2& lip, const Polyline2& other) {
    const Vec2 way = other.front() - lip.front();
    const Vec2 inwards = (lip.back() - lip.front()).normalized();
    const double apart = way.norm();
    // A loop runs counter-clockwise, the sheet on its left: going in along the first lip, the wedge is on the
    // right.
    return inwards.x() * way.y() - inwards.y() * way.x() <= 0 ? apart : -apart;
}

std::vector<SlitOnSheet> slitsOn(const FlatPatch& flat, const std::vector<Slit>& slits) {
    constexpr double kHere_mm = 1e-3;
    std::vector<SlitOnSheet> all;
    const std::vector<int>& loop = flat.patch.loops.front();
    const auto skinAt = [&](std::size_t i) { return flat.patch.skin[static_cast<std::size_t>(loop[i])]; };
    const auto flatAt = [&](std::size_t i) {
        return flat.map[static_cast<std::size_t>(loop[i % loop.size()])];
    };
    for (const Slit& slit : slits) {
        std::vector<std::size_t> mouths;
        std::optional<std::size_t> tip;
        for (std::size_t i = 0; i < loop.size(); ++i) {
            if ((skinAt(i) - slit.line.front()).norm() < kHere_mm) mouths.push_back(i);
            if ((skinAt(i) - slit.line.back()).norm() < kHere_mm) tip = i;
        }
        if (mouths.size() != 2 || !tip) continue;
        const std::size_t n = loop.size();
        // Going round the border one comes to one mouth, the tip, the other mouth.
        const auto ahead = [&](std::size_t from, std::size_t to) { return (to + n - from) % n; };
        std::size_t first = mouths[0], second = mouths[1];
        if (ahead(first, *tip) > ahead(first, second)) std::swap(first, second);
        SlitOnSheet here{slit, {}, {}, 0, false};
        for (std::size_t k = 0; k <= ahead(first, *tip); ++k) here.lip.push_back(flatAt(first + k));
        for (std::size_t k = 0; k <= ahead(*tip, second); ++k)
            here.otherLip.push_back(flatAt(second + n - k));
        here.mouth_mm = openingOf(here.lip, here.otherLip);
        all.push_back(std::move(here));
    }
    return all;
}

/// The outline with its corners as they were where slits open: panels meet there, and a rounded corner would
/// leave bare skin between them.
Polygon2 sharpAtMouths(const Polygon2& rounded, const FlatPatch& flat,
                       const std::vector<SlitOnSheet>& slits) {
    constexpr double kKept_mm = 1.5 * kCornerRadius_mm;
    if (slits.empty()) return rounded;
    Polygon2 border;
    for (const int v : flat.patch.loops.front()) border.push_back(flat.map[static_cast<std::size_t>(v)]);
    PolygonSet mouths;
    for (const SlitOnSheet& slit : slits)
        for (const Vec2& at : {slit.lip.front(), slit.otherLip.front()}) {
            const Polygon2 speck{at + Vec2(-0.01, -0.01), at + Vec2(0.01, -0.01), at + Vec2(0.01, 0.01),
                                 at + Vec2(-0.01, 0.01)};
            for (Polygon2& disc : offset({speck}, kKept_mm)) mouths.push_back(std::move(disc));
        }
    PolygonSet whole = united({rounded}, intersected({border}, united(mouths)));
    std::erase_if(whole, [](const Polygon2& ring) { return std::abs(polygonArea(ring)) < kSpeck_mm2; });
    return whole.size() == 1 ? whole.front() : rounded;
}

/// The outline with a lap beyond the first lip of each slit, as far as its wedge is wide enough.
Polygon2 lapped(Polygon2 outline, std::vector<SlitOnSheet>& slits) {
    for (SlitOnSheet& slit : slits) {
        if (slit.mouth_mm < kLap_mm + kLapRoom_mm) continue;
        constexpr double kHold_mm = 0.05;  // into the sheet, whose border was rounded to hundredths
        Polygon2 lap;
        const Polyline2& lip = slit.lip;
        std::vector<Vec2> beyond;
        for (std::size_t i = 0; i + 1 < lip.size(); ++i) {
            double room = 1e300;
            for (const Vec2& other : slit.otherLip) room = std::min(room, (other - lip[i]).norm());
            if (room < kLap_mm + kLapRoom_mm) break;
            const Vec2 along = (lip[i + 1] - lip[i == 0 ? 0 : i - 1]).normalized();
            const Vec2 outwards(along.y(), -along.x());  // the wedge lies to the right of the first lip
            lap.push_back(lip[i] - kHold_mm * outwards);
            beyond.push_back(lip[i] + kLap_mm * outwards);
        }
        if (lap.size() < 2) continue;
        lap.insert(lap.end(), beyond.rbegin(), beyond.rend());
        if (polygonArea(lap) < 0) std::reverse(lap.begin(), lap.end());
        PolygonSet with = united({outline}, {lap});
        std::erase_if(with, [](const Polygon2& ring) { return std::abs(polygonArea(ring)) < kSpeck_mm2; });
        if (with.size() != 1) continue;
        outline = with.front();
        slit.lapped = true;
    }
    return outline;
}

Result<Sheet> cutSheet(const Skin& skin, const Landmarks& landmarks, const SheetPlan& plan, int vertices,
                       Precision precision, Laying laying, const std::string& where, const Task& task,
                       Warnings& warnings) {
    // In one piece: the whole sheet, the one that is cut, the one that sticks; then what is drawn on it.
    // On a small mask more vertices are only more work: the skin does not turn within half a millimetre.
    const double area = polygonArea(plan.region.outer);
    const int useful =
        std::max(kFewestUseful, static_cast<int>(area / (kFinestSpacing_mm * kFinestSpacing_mm)));
    Result<PatchMesh> mesh = meshPatch(skin, plan.region, std::min(vertices, useful), where);
    if (!mesh) return mesh.error();
    mesh->marks = plan.marks;
    warnings.insert(warnings.end(), mesh->warnings.begin(), mesh->warnings.end());
    Result<FlatPatch> flat = precision == Precision::Exact ? flattenPatch(std::move(*mesh), task)
                                                           : previewPatch(std::move(*mesh), task);
    if (!flat) return flat.error();
    Sheet sheet;
    sheet.flat = std::make_shared<const FlatPatch>(std::move(*flat));
    sheet.map = sheet.flat->map;
    sheet.report.vertices = sheet.flat->rest.vertexCount;
    sheet.report.strainMax = sheet.flat->strain.max;
    sheet.report.strainP95 = sheet.flat->strain.p95;
    if (precision == Precision::Exact) {
        if (const std::optional<Region> cut = perforated(plan.region, plan.opens)) {
            Result<PerforatedPatch> real =
                perforatedPatch(skin, sheet.flat, *cut, sheet.report.vertices, where, task);
            if (!real) return real.error();
            std::optional<Ribbon> ribbon = mostSlender(*cut, plan.region.holes.size());
            if (ribbon && ribbon->slenderness() <= kPlainRibbon) ribbon.reset();
            if (!real->balanced || ribbon) warnings.push_back(slender(ribbon, where));
            sheet.flat = std::make_shared<const FlatPatch>(std::move(real->flat));
            sheet.map = sheet.flat->map;
            sheet.report.vertices = sheet.flat->rest.vertexCount;
            sheet.report.strainMax = sheet.flat->strain.max;
            sheet.report.strainP95 = sheet.flat->strain.p95;
        } else if (!plan.opens.empty()) {
            warnings.push_back({"window_at_edge",
                                NINE_WORDS("core",
                                           "A window reaches the edge of the sheet, so its figures are those "
                                           "of the sheet without windows; the real one may land a few tenths "
                                           "of a millimetre off. Give it more margin."),
                                where});
        }
    }
    if (precision == Precision::Exact && laying != Laying::Loose) {
        Result<Compensated> sticking = compensated(skin, *sheet.flat, laying, task);
        if (!sticking && sticking.error().code == "cancelled") return sticking.error();
        if (sticking && sticking->after_mm < sticking->before_mm) {
            sheet.compensated_mm = sticking->before_mm;
            sheet.flat = std::make_shared<const FlatPatch>(std::move(sticking->flat));
            sheet.map = sheet.flat->map;
            sheet.report.strainMax = sheet.flat->strain.max;
            sheet.report.strainP95 = sheet.flat->strain.p95;
        }
    }
    PolygonSet borders = bordersOf(*sheet.flat);
    sheet.slits = slitsOn(*sheet.flat, plan.region.slits);
    sheet.outline = lapped(sharpAtMouths(borders.front(), *sheet.flat, sheet.slits), sheet.slits);
    warnOfOverlap(sheet.slits, where, warnings);
    sheet.holes.assign(std::make_move_iterator(borders.begin() + 1), std::make_move_iterator(borders.end()));
    const CutPlaces drawnBy(*sheet.flat);
    Result<FlatArt> art = laidFlat(plan.opens, drawnBy, where);
    if (!art) return art.error();
    sheet.windows = cutWindows(std::move(*art));
    for (const SkinPlace& mark : plan.marks) {
        const std::optional<SheetPlace> at = drawnBy.at(mark, skin.at({Side::Left, mark.x(), mark.y()}));
        const char name = static_cast<char>('A' + sheet.marks.size());
        if (at) sheet.marks.push_back(makeMark(name, skin, landmarks, mark, *at));
    }
    warnOfThinWebs(sheet.windows, where, warnings);
    warnOfIslands(sheet.windows, where, warnings);
    return sheet;
}

}  // namespace

Result<Mask> cutMask(const Skin& skin, const Landmarks& landmarks, const OpenedArt& art, const MaskWish& wish,
                     double strainLimit, int vertices, Precision precision, const std::string& where,
                     const Task& task) {
    const MaskKind* kind = findMaskKind(wish.kind);
    if (!kind)
        return Error{"unknown_kind",
                     Words(NINE_WORDS("core",
                                      "A mask of the kind \"{kind}\" is not known to this version of the "
                                      "program; no sheet is made for it. Open the job with a newer version."))
                         .name("kind", wish.kind),
                     where};
    Warnings doubts;
    Result<std::vector<SheetPlan>> plans =
        kind->plan({skin, landmarks, art.left, where, art.right, art.uncovered}, wish.values, doubts);
    if (plans)
        for (SheetPlan& plan : *plans) {
            BridgedSheet held = bridged(skin, std::move(plan), bridgeWidth_mm(wish.material));
            plan = std::move(held.plan);
            if (held.bridges > 0) doubts.push_back(bridgesTold(held, bridgeWidth_mm(wish.material), where));
        }
    if (plans && !wish.slits.empty()) plans = slitted(std::move(*plans), wish.slits, where);
    if (!plans) return plans.error();
    Result<Mask> mask = cutSheets(skin, landmarks, *plans, strainLimit, vertices, precision, where, task,
                                  layingOf(wish.apply));
    if (mask) mask->warnings.insert(mask->warnings.begin(), doubts.begin(), doubts.end());
    return mask;
}

Result<Mask> cutSheets(const Skin& skin, const Landmarks& landmarks, const std::vector<SheetPlan>& plans,
                       double strainLimit, int vertices, Precision precision, const std::string& where,
                       const Task& task, Laying laying) {
    Mask mask;
    for (const SheetPlan& plan : plans) {
        Result<Sheet> sheet =
            cutSheet(skin, landmarks, plan, vertices, precision, laying, where, task, mask.warnings);
        if (!sheet) return sheet.error();
        sheet->report.strainLimit = strainLimit;
        mask.sheets.push_back(std::move(*sheet));
        for (const ElementArt* a : plan.opens) mask.moved_mm = std::max(mask.moved_mm, a->moved_mm());
    }
    return mask;
}

Result<Mask> judgedMask(const Skin& skin, const std::vector<const ElementArt*>& art, const MaskWish& wish,
                        Mask mask, const Task& task) {
    for (Sheet& sheet : mask.sheets) {
        std::vector<Probe> probes;
        // Of the sheet as it is cut: its rims. Art lies off them by up to the sag of their chords, where
        // there is no sheet.
        for (const std::vector<int>& rim : sheet.flat->patch.rims) {
            const std::size_t stride = std::max<std::size_t>(1, rim.size() / kProbesAnOutline);
            for (std::size_t i = 0; i < rim.size(); i += stride) {
                const auto v = static_cast<std::size_t>(rim[i]);
                probes.push_back({sheet.flat->patch.mesh.vertices[v], SkinPlace(sheet.flat->patch.skin[v])});
            }
        }
        for (const ElementArt* a : art) {
            if (!sheet.flat->patch.rims.empty()) break;
            for (const Outline& outline : a->outlines()) {
                const std::size_t stride = std::max<std::size_t>(1, outline.points.size() / kProbesAnOutline);
                for (std::size_t i = 0; i < outline.points.size(); i += stride)
                    probes.push_back({outline.points[i], SkinPlace(outline.skin[i])});
            }
        }
        const auto material = findMaterial(wish.material);
        const LaidOn laid(sheet.report.strainLimit, material ? material->bending_nmm() : 0,
                          pressureOf_kpa(wish.pressed));
        Result<FitReport> report =
            judgeFit(skin, *sheet.flat, laid, layingOf(wish.apply), std::move(probes), task);
        if (!report) return report.error();
        sheet.report = std::move(*report);
        std::vector<Vec2> marks, places;
        for (const RegistrationMark& mark : sheet.marks) marks.push_back(mark.flat);
        for (const Window& window : sheet.windows)
            places.insert(places.end(), window.outline.begin(), window.outline.end());
        sheet.report.hand_mm = handError_mm(marks, places);
    }
    return mask;
}

std::vector<Vec2> sideBySide(const Mask& mask) {
    constexpr double kApart_mm = 6;
    std::vector<Vec2> shifts;
    double end = 0;
    for (const Sheet& sheet : mask.sheets) {
        const Box2 box = boxAround({sheet.outline});
        shifts.emplace_back(shifts.empty() ? 0 : end + kApart_mm - box.low.x(), 0);
        end = box.high.x() + shifts.back().x();
    }
    return shifts;
}

Box2 boxSideBySide(const Mask& mask) {
    const std::vector<Vec2> shifts = sideBySide(mask);
    PolygonSet corners(1);
    for (std::size_t k = 0; k < mask.sheets.size(); ++k) {
        const Box2 box = boxAround({mask.sheets[k].outline});
        for (const Vec2& corner : {box.low, box.high}) corners[0].push_back(corner + shifts[k]);
    }
    return boxAround(corners);
}

Sheet mirrored(Sheet sheet) {
    const auto flip = [](Vec2& p) { p.x() = -p.x(); };
    const auto flipRing = [&](Polygon2& ring) {
        for (Vec2& p : ring) flip(p);
        std::reverse(ring.begin(), ring.end());
    };
    for (Vec2& p : sheet.map) flip(p);
    flipRing(sheet.outline);
    for (Polygon2& hole : sheet.holes) flipRing(hole);
    for (Window& w : sheet.windows) {
        flipRing(w.outline);
        for (Polygon2& island : w.islands) flipRing(island);
        flip(w.centre);
    }
    for (RegistrationMark& m : sheet.marks) flip(m.flat);
    for (SlitOnSheet& slit : sheet.slits) {
        for (Vec2& p : slit.lip) flip(p);
        for (Vec2& p : slit.otherLip) flip(p);
    }
    return sheet;
}

Mask mirrored(Mask mask) {
    for (Sheet& sheet : mask.sheets) sheet = mirrored(std::move(sheet));
    return mask;
}

}  // namespace nine
