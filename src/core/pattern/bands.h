// Outlines on the skin grown, shrunk, swept and cut: what derived marks, collars and cut-outs are made of.
//
// Distances are geodesic: each place of an outline is walked along the skin across the outline, so a rim of
// 0.6 mm is 0.6 mm wide wherever the body is steep. Rings are x, g; what is solid lies to their left.
// Booleans are taken in x, g, exact to kGrid_mm; straight edges there stand for the skin's within
// kArtChord_mm when rings are sampled as art is. Errors: off_body, when a ring would leave the skin. Cost:
// about 10 us a place and millimetre.
//
//     const Result<PolygonSet> wide = grown(skin, ringsOf(art.outlines()), 0.6, Fineness::Cut, path);
//     std::vector<Outline> rim = outlinesOf(skin, subtracted(*wide, ringsOf(art.outlines())));
#pragma once

#include "blank/skin.h"
#include "pattern/outline.h"

namespace nine {

PolygonSet ringsOf(const std::vector<Outline>& outlines);

/// Openings first to last as they stand in `set`, each followed by its holes. Rings that enclose less than
/// `least_mm2` (in x, g) are dropped.
std::vector<Outline> outlinesOf(const Skin& skin, const PolygonSet& set, Figure least_mm2 = 0);

/// By a distance outwards, or inwards when it is negative; corners become round.
Result<PolygonSet> grown(const Skin& skin, const PolygonSet& rings, double distance_mm, Fineness fineness,
                         const std::string& path);

/// All that is passed over when the rings are moved by so much towards the tail (x) and the back (y).
Result<PolygonSet> swept(const Skin& skin, const PolygonSet& rings, const Vec2& by_mm,
                         const std::string& path);

/// The rings moved so, without what lies between.
Result<PolygonSet> moved(const Skin& skin, const PolygonSet& rings, const Vec2& by_mm,
                         const std::string& path);

/// Without what is narrower than `width_mm` and hangs on or stands alone: slivers that a cut leaves. Corners
/// of what stays are kept. In x, g.
PolygonSet withoutSlivers(const PolygonSet& rings, double width_mm);
constexpr double kSliverOfCut_mm =
    0.5;  // narrower openings tear or fill (common practice, no published source)

/// More points along edges longer than `edge_mm`, in x, g.
PolygonSet subdivided(PolygonSet rings, double edge_mm);

}  // namespace nine
