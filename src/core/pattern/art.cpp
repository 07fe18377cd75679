#include "pattern/art.h"

#include <algorithm>
#include <cmath>

#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"

namespace nine {

Result<ElementArt> drawElement(const Skin& skin, const Landmarks& landmarks, const Element& element,
                               const std::string& path, Fineness fineness) {
    if (Status ok = checkElement(element, path); !ok) return ok.error();
    if (!element.known()) {
        const Vec2 nowhere = Vec2::Zero();
        return ElementArt{
            element.id,
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
    const Result<Vec2> origin = originOf(skin, landmarks, element, path);
    if (!origin) return origin.error();
    const Kind& kind = *findKind(element.kind);
    Result<std::vector<Pass>> passes = kind.draw({skin, landmarks, *origin, fineness, path}, element);
    if (!passes) return passes.error();
    ElementArt art{element.id, *origin, std::move(*passes), *origin, *origin, {}};
    if (!art.outlines().empty()) art.low = art.high = art.outlines().front().skin.front();
    bool crosses = false;
    for (const Outline& outline : art.outlines()) {
        const SectionArc arc = skin.arcAt(outline.centre.x());
        for (const Vec2& p : outline.skin) {
            art.low = art.low.cwiseMin(p);
            art.high = art.high.cwiseMax(p);
            crosses = crosses || p.y() > arc.backArc_mm() + kArtChord_mm ||
                      p.y() < -arc.bellyArc_mm() - kArtChord_mm;
        }
    }
    if (crosses && element.linked) {
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
    e.kind = kind.id();
    e.values = usualValues(kind);
    e.dx_mm = 14;
    if (!kind.alongCurve().empty()) {
        e.anchor = kind.alongCurve();
        e.dx_mm = 0;
        landmarks[e.anchor].points = {{24, 9}, {27, 0}, {24, -9}};
    }
    return drawElement(*skin, landmarks, e, "");
}

}  // namespace nine
