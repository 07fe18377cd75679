#include "mask/mask.h"

#include <algorithm>
#include <cmath>

#include "blank/measure.h"
#include "blank/walk.h"
#include "geom/borders.h"
#include "mask/bridges.h"
#include "mask/card_steps.h"
#include "mask/marks.h"
#include "mask/perforate.h"
#include "mask/press.h"
#include "mask/slits_on_sheet.h"
#include "mask/sticking.h"
#include "mask/windows.h"

namespace nine {
namespace {

constexpr double kFinestSpacing_mm =
    0.5;  // of a mask's mesh: finer moved the least strain by 1.3 %, the landing by 1e-4 mm
constexpr int kFewestUseful = 300;
constexpr Ratio kMostInCut =
    1.5;  // times as many where windows leave strips, which bend easily in their plane
constexpr std::size_t kProbesAnOutline = 8;

/// `flat` is its place on the sheet.
RegistrationMark makeMark(char name, const Skin& skin, const Landmarks& landmarks, const SkinPlace& at,
                          const SheetPlace& flat) {
    const SkinPoint point{Side::Left, at.x(), at.y()};
    RegistrationMark mark{name, at, flat, "", 0, at.x() - skin.noseX_mm(), at.y()};
    if (const std::optional<FeltNear> felt = feltNear(skin, landmarks, at)) {
        mark.landmark = felt->landmark;
        const Vec2& reference = felt->reference;
        const Result<Geodesic> way = shortestWay(skin, point, {Side::Left, reference.x(), reference.y()});
        mark.distance_mm = way ? way->length_mm : felt->distance_mm;
        const Result<double> along = distanceAlong(skin, reference.x(), at.x(), at.y(), "");
        mark.behind_mm = along ? *along : at.x() - reference.x();
        mark.above_mm = at.y() - reference.y();
    }
    return mark;
}

Warning bridgesTold(const BridgedSheet& sheet, double width_mm, const std::string& where) {
    return {"bridges",
            Words(NINE_WORDS(
                      "core",
                      "{count} bridges of {width} hold what stands free inside the windows. They leave gaps "
                      "in the paint: touch them up with a brush."))
                .number("count", static_cast<double>(sheet.plan.bridges.size()), 0)
                .length("width", width_mm, 1),
            where};
}

}  // namespace

PolygonSet bordersOf(const FlatPatch& flat, const PolygonSet& openings) {
    PolygonSet borders;
    for (const std::vector<int>& loop : flat.patch.loops) {
        Polygon2& border = borders.emplace_back();
        for (const int v : loop) border.push_back(flat.map[static_cast<std::size_t>(v)]);
    }
    // An opening at the edge is cut as an opening: the edge goes on past it.
    PolygonSet atEdge;
    for (const Polygon2& opening : openings)
        if (polygonArea(opening) > 0 && borderDistance(opening, borders.front()) < kOpenToEdge_mm)
            atEdge.push_back(opening);
    if (!atEdge.empty()) {
        PolygonSet whole = united({borders.front()}, atEdge);
        std::sort(whole.begin(), whole.end(),
                  [](const Polygon2& a, const Polygon2& b) { return polygonArea(a) > polygonArea(b); });
        borders.front() = whole.front();
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
            Result<PerforatedPatch> real = perforatedPatch(
                skin, sheet.flat, *cut,
                static_cast<int>((plan.region.slits.empty() ? kMostInCut : 1) * std::min(vertices, useful)),
                where, task);
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
            warnings.push_back(
                {"window_at_edge",
                 NINE_WORDS("core",
                            "Its windows leave no sheet in one piece, so its figures are those "
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
    const CutPlaces drawnBy(*sheet.flat);
    Result<FlatArt> art = laidFlat(plan.opens, drawnBy, where);
    if (!art) return art.error();
    PolygonSet borders = bordersOf(*sheet.flat, art->outlines);
    sheet.slits = slitsOn(*sheet.flat, plan.region.slits);
    sheet.outline = lapped(sharpAtMouths(borders.front(), *sheet.flat, sheet.slits), sheet.slits);
    warnOfOverlap(sheet.slits, where, warnings);
    sheet.holes.assign(std::make_move_iterator(borders.begin() + 1), std::make_move_iterator(borders.end()));
    sheet.windows = cutWindows(std::move(*art));
    for (const SkinPlace& mark : plan.marks) {
        const std::optional<SheetPlace> at = drawnBy.at(mark, skin.at({Side::Left, mark.x(), mark.y()}));
        const char name = static_cast<char>('A' + sheet.marks.size());
        if (at) sheet.marks.push_back(makeMark(name, skin, landmarks, mark, *at));
    }
    warnOfThinWebs(sheet.windows, sheet.outline, where, warnings);
    warnOfIslands(sheet.windows, plan.looseIslands, where, warnings);
    for (const SkinPlace& tick : plan.ticks)
        if (const auto at = drawnBy.at(tick, skin.at({Side::Left, tick.x(), tick.y()})))
            sheet.ticks.push_back(*at);
    for (const SkinPlace& bridge : plan.bridges)
        if (const auto at = drawnBy.at(bridge, skin.at({Side::Left, bridge.x(), bridge.y()})))
            sheet.bridges.push_back({bridge, *at});
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
            const double width =
                wish.bridges.width_mm > 0 ? wish.bridges.width_mm : bridgeWidth_mm(wish.material);
            BridgedSheet held = bridged(skin, std::move(plan), wish.bridges, width);
            if (held.lost_mm2 > 0) doubts.push_back(bridgesTold(held, width, where));
            plan = withBestMarks(skin, landmarks, std::move(held.plan));
        }
    if (plans && !wish.slits.empty()) plans = slitted(std::move(*plans), wish.slits, where);
    if (!plans) return plans.error();
    Result<Mask> mask = cutSheets(skin, landmarks, *plans, strainLimit, vertices, precision, where, task,
                                  layingOf(wish.apply));
    if (mask) mask->warnings.insert(mask->warnings.begin(), doubts.begin(), doubts.end());
    if (!mask || precision == Precision::Preview) return mask;
    for (std::size_t k = 0; k < plans->size(); ++k) {
        if ((*plans)[k].laidAt.empty()) continue;
        Result<std::vector<CardStep>> steps =
            cardSteps(skin, landmarks, (*plans)[k], mask->sheets[k], strainLimit, vertices, where, task);
        if (!steps) return steps.error();
        mask->sheets[k].steps = std::move(*steps);
        warnOfMisfit(mask->sheets[k].steps, where, mask->warnings);
    }
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
    numberWindows(mask.sheets);
    return mask;
}

namespace {

/// The borders of openings that reach the edge of the sheet: of the cut sheet's outline what stands well
/// inside that of the whole one.
std::vector<Probe> notchProbes(const FlatPatch& flat) {
    constexpr double kInside_mm = 0.3;
    constexpr std::size_t kStride = 3;
    std::vector<Probe> probes;
    Polygon2 whole;
    for (const int v : flat.whole->patch.loops.front())
        whole.push_back(flat.whole->patch.skin[static_cast<std::size_t>(v)]);
    const Borders border({whole});
    const std::vector<int>& loop = flat.patch.loops.front();
    for (std::size_t i = 0; i < loop.size(); i += kStride) {
        const auto v = static_cast<std::size_t>(loop[i]);
        if (border.distance_mm(flat.patch.skin[v]) < kInside_mm) continue;
        probes.push_back({flat.patch.mesh.vertices[v], SkinPlace(flat.patch.skin[v])});
    }
    return probes;
}

}  // namespace

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
        if (sheet.flat->whole)
            for (Probe& probe : notchProbes(*sheet.flat)) probes.push_back(std::move(probe));
        for (const ElementArt* a : art) {
            if (!probes.empty()) break;
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
        if (material && !material->sticks) {
            sheet.press = pressAreas(skin, sheet.windows);
            layFingers(sheet.press, skin, *sheet.flat);
        }
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
    for (SheetPlace& tick : sheet.ticks) flip(tick);
    for (Bridge& bridge : sheet.bridges) flip(bridge.flat);
    for (PressArea& area : sheet.press)
        for (PressArea::Finger& finger : area.fingers) flip(finger.flat);
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
