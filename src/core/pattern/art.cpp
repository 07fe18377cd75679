#include "pattern/art.h"

#include <algorithm>
#include <cmath>

#include "pattern/bands.h"
#include "pattern/cuttable.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"

namespace nine {
namespace {

constexpr double kLeastCut_mm2 = 0.25;  // smaller is lost in weeding

ElementArt ofUnknownKind(const Element& element, const std::string& path) {
    const Vec2 nowhere = Vec2::Zero();
    return {element.id,
            nowhere,
            {},
            nowhere,
            nowhere,
            {{"unknown_kind",
              Words(NINE_WORDS("core",
                               "\"{id}\" is a \"{kind}\", which this version of the program does not "
                               "know; it is kept, but not drawn."))
                  .name("id", element.id)
                  .name("kind", element.kind),
              path}}};
}

/// Rings of `cutter` whose box meets the box of one of the outlines.
PolygonSet near(const PolygonSet& cutter, const std::vector<Outline>& outlines) {
    PolygonSet met;
    if (outlines.empty()) return met;
    Box2 all = boxAround({outlines.front().skin});
    for (const Outline& outline : outlines) {
        const Box2 box = boxAround({outline.skin});
        all = {all.low.cwiseMin(box.low), all.high.cwiseMax(box.high)};
    }
    for (const Polygon2& ring : cutter)
        if (apart(boxAround({ring}), all) <= 0) met.push_back(ring);
    return met;
}

/// Takes the cutter's area off every pass. True when anything was taken.
bool cutOff(const Skin& skin, const PolygonSet& cutter, ElementArt& art) {
    constexpr double kNothing_mm2 = 1e-4;
    bool any = false;
    for (Pass& pass : art.passes) {
        const PolygonSet met = near(cutter, pass.outlines);
        if (met.empty()) continue;
        const PolygonSet before = ringsOf(pass.outlines);
        if (std::abs(area(intersected(before, met))) < kNothing_mm2) continue;
        any = true;
        std::vector<Outline> left =
            outlinesOf(skin, withoutSlivers(subtracted(before, met), kSliverOfCut_mm), kLeastCut_mm2);
        pass.outlines = std::move(left);
    }
    return any;
}

/// Each place told once, however often it is met.
void cutAtBare(const Skin& skin, const std::vector<BarePlace>& bare, const std::string& path,
               ElementArt& art) {
    std::vector<std::string> told;
    for (const BarePlace& place : bare) {
        std::vector<Outline> lost =
            art.passes.empty() ? std::vector<Outline>()
                               : outlinesOf(skin, intersected(ringsOf(art.outlines()), {place.ring}));
        if (!cutOff(skin, {place.ring}, art)) continue;
        art.cutAway.push_back({std::move(lost), place.name});
        const std::string name = place.name.plain();
        if (std::find(told.begin(), told.end(), name) != told.end()) continue;
        told.push_back(name);
        art.warnings.push_back(
            {"cut_at_bare",
             Words(NINE_WORDS("core",
                              "\"{element}\" is cut off where it meets the {zone}: no paint goes there."))
                 .name("element", art.element)
                 .words("zone", place.name),
             path});
    }
}

Status keepClear(const DrawOn& on, ElementArt& art) {
    for (const ElementArt* mark : on.clearOf) {
        const Result<PolygonSet> wide =
            grown(on.skin, ringsOf(mark->outlines()), on.clear_mm, on.fineness, on.path);
        if (!wide) return wide.error();
        cutOff(on.skin, *wide, art);
    }
    return Done{};
}

void boxOf(ElementArt& art) {
    if (!art.outlines().empty()) art.low = art.high = art.outlines().front().skin.front();
    for (const Outline& outline : art.outlines()) {
        for (const Vec2& p : outline.skin) {
            art.low = art.low.cwiseMin(p);
            art.high = art.high.cwiseMax(p);
        }
    }
}

bool crossesMiddle(const Skin& skin, const ElementArt& art) {
    if (art.outlines().empty()) return false;
    // The middle lines along the art, looked up: outlines have thousands of places.
    constexpr int kSteps = 80;
    const double from = art.low.x(), step = std::max(1e-6, (art.high.x() - from) / kSteps);
    std::vector<Vec2> middles;  // belly and back
    for (int k = 0; k <= kSteps; ++k) {
        const SectionArc arc = skin.arcAt(std::clamp(from + k * step, skin.noseX_mm(), skin.tailX_mm()));
        middles.emplace_back(-arc.bellyArc_mm(), arc.backArc_mm());
    }
    constexpr double kTouch_mm = 0.05;  // more than the lookup is off, less than a blade is wide
    for (const Outline& outline : art.outlines()) {
        for (const Vec2& p : outline.skin) {
            const double at = std::clamp((p.x() - from) / step, 0.0, static_cast<double>(kSteps));
            const auto k = std::min(static_cast<std::size_t>(at), middles.size() - 2);
            const Vec2 middle = middles[k] + (at - static_cast<double>(k)) * (middles[k + 1] - middles[k]);
            if (p.y() > middle.y() + kTouch_mm || p.y() < middle.x() - kTouch_mm) return true;
        }
    }
    return false;
}

}  // namespace

Result<ElementArt> drawElement(const Skin& skin, const Landmarks& landmarks, const Element& element,
                               const std::string& path, Fineness fineness, const DrawWith& with) {
    // In one piece: origin, the kind's own drawing, what is cut off it, what is said of it.
    if (Status ok = checkElement(element, path); !ok) return ok.error();
    if (!element.known()) return ofUnknownKind(element, path);
    const Kind& kind = *findKind(element.kind);
    Vec2 origin(0.5 * (skin.noseX_mm() + skin.tailX_mm()), 0);
    if (kind.hasOrigin()) {
        const Result<Vec2> found = originOf(skin, landmarks, element, path);
        if (!found) return found.error();
        origin = *found;
    }
    if (kind.isDerived() && (!with.source || with.source->outlines().empty()))
        return Error{
            "no_source",
            Words(NINE_WORDS("core",
                             "\"{id}\" is made from another mark, and there is none with an outline. "
                             "Choose the mark it belongs to."))
                .name("id", element.id),
            path + ".of"};
    const DrawOn on{skin,
                    landmarks,
                    origin,
                    Vec2(element.dx_mm, element.dg_mm),
                    fineness,
                    path,
                    with.source,
                    with.clearOf,
                    element.clear_mm,
                    with.bare,
                    with.otherSide,
                    with.task};
    Result<Drawn> drawn = kind.draw(on, element);
    if (!drawn) return drawn.error();
    ElementArt art{element.id, origin, std::move(drawn->passes), origin, origin, {}};
    art.places = std::move(drawn->places);
    art.cut = kind.isCut();
    art.oneForBoth = element.isCentral();
    for (Warning& warning : drawn->warnings) {
        warning.where = path + warning.where;
        art.warnings.push_back(std::move(warning));
    }
    const bool any = !art.outlines().empty();
    if (Status ok = keepClear(on, art); !ok) return ok.error();
    if (art.cut && with.bare) cutAtBare(skin, *with.bare, path, art);
    if (art.cut && kind.isMended(element.values))
        for (Pass& pass : art.passes)
            pass.outlines = outlinesOf(skin, cuttable(ringsOf(pass.outlines)), kLeastCut_mm2);
    if (any && art.outlines().empty())
        return Error{
            "fits_nowhere",
            Words(NINE_WORDS("core",
                             "Nothing is left of \"{id}\": all of it lies on bare skin or too near to "
                             "the marks it keeps clear of. Move it."))
                .name("id", element.id),
            path};
    boxOf(art);
    if (element.onBothSides() && crossesMiddle(skin, art)) {
        art.warnings.push_back(
            {"crosses_midline",
             Words(NINE_WORDS("core",
                              "\"{id}\" reaches over the back or belly line, where it will overlap its "
                              "twin of the other side. Shorten it, or unlink the sides."))
                 .name("id", element.id),
             path});
    }
    if (kind.openingsMerge(element.values)) {
        art.warnings.push_back(
            {"windows_merge",
             Words(NINE_WORDS("core",
                              "Windows of \"{id}\" run into each other: nothing is left between them. "
                              "Widen the spacing."))
                 .name("id", element.id),
             path + ".spacing_mm"});
    }
    return art;
}

const std::vector<Outline>& ElementArt::outlines() const {
    static const std::vector<Outline> none;
    return passes.empty() ? none : passes.front().outlines;
}

std::optional<Vec2> ElementArt::place(std::string_view handle) const {
    for (const auto& [key, at] : places)
        if (key == handle) return at;
    return std::nullopt;
}

Result<ElementArt> drawRound(const Skin& skin, const Vec2& centre, double diameter_mm) {
    Result<Outline> disc = drawDisc(skin, centre, diameter_mm / 2, Fineness::Cut, "");
    if (!disc) return disc.error();
    return ElementArt{{}, centre, {{{std::move(*disc)}}}, centre, centre, {}};
}

Result<ElementArt> thumbnailOf(const Kind& kind) {
    constexpr double kLength_mm = 60, kRadius_mm = 9;
    StationTable table;
    for (const double x : {0.0, kLength_mm}) {
        Station station;
        station.x_mm = x;
        station.top_mm = station.bottom_mm = station.halfWidth_mm = kRadius_mm;
        table.stations.push_back(station);
    }
    const Result<Skin> skin = Skin::of(table);
    if (!skin) return skin.error();
    Landmarks landmarks;
    Element e;
    e.id = kind.id();
    e.kind = kind.id();
    e.values = usualValues(kind);
    e.dx_mm = kind.hasOrigin() ? 14 : 0;
    if (!kind.alongCurve().empty()) {
        e.anchor = kind.alongCurve();
        e.dx_mm = 0;
        landmarks[e.anchor].points = {{24, 9}, {27, 0}, {24, -9}};
    }
    if (!kind.isDerived()) return drawElement(*skin, landmarks, e, "");
    Element source;
    source.id = "source";
    source.kind = kinds().front()->id();  // any that has outlines of its own
    source.values = usualValues(*findKind(source.kind));
    source.dx_mm = 14;
    const Result<ElementArt> art = drawElement(*skin, landmarks, source, "");
    if (!art) return art.error();
    DrawWith with;
    with.source = &*art;
    return drawElement(*skin, landmarks, e, "", Fineness::Cut, with);
}

}  // namespace nine
