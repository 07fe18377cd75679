// The sheet as it is cut: closed forms on a cylinder, derivatives of an energy written down here once more,
// and the landing by a lattice of springs, which knows nothing of triangles and Hencky strain.
#include "mask/perforate.h"

#include <gtest/gtest.h>

#include <Eigen/Eigenvalues>

#include <random>

#include "geom/balance.h"
#include "geom/borders.h"
#include "job/derive.h"
#include "pattern/kinds.h"
#include "tests/bodies.h"
#include "tests/plain_job.h"

namespace nine {
namespace {

using namespace test;

/// Bars side by side, as wide ribbons between them as they are wide.
ElementArt barsOn(const Skin& skin, double dx, int count, double width, double spacing) {
    Element e;
    e.id = "bars";
    e.kind = "bars";
    e.values = usualValues(*findKind("bars"));
    e.values.set("count", static_cast<double>(count));
    e.values.set("width_back_mm", width);
    e.values.set("width_belly_mm", width);
    e.values.set("spacing_mm", spacing);
    e.values.set("g0_mm", -4.0);
    e.values.set("g1_mm", 5.0);
    e.dx_mm = dx;
    return need(drawElement(skin, {}, e, "e"));
}

struct Cut {
    std::shared_ptr<const FlatPatch> whole;
    PerforatedPatch real;
};
Cut cutOut(const Skin& skin, const BandPatch& band, const ElementArt& art, int vertices = 1500) {
    const Region region = bandRegion(band);
    PatchMesh mesh = need(meshPatch(skin, region, vertices, ""));
    const double g = 0.5 * (band.g0_mm + band.g1_mm);
    mesh.marks = {{band.x0_mm + 1, g}, {band.x1_mm - 1, g}};
    Cut cut;
    cut.whole = std::make_shared<const FlatPatch>(need(flattenPatch(std::move(mesh))));
    const std::optional<Region> holes = perforated(region, {&art});
    if (!holes) throw std::runtime_error("no windows");
    cut.real = need(perforatedPatch(skin, cut.whole, *holes, vertices, ""));
    return cut;
}

/// Where the whole sheet's map has the vertices of the perforated one.
FlatMap fromWhole(const Cut& cut) {
    const SheetMap map = sheetMapOf(*cut.whole);
    FlatMap flat;
    for (std::size_t v = 0; v < cut.real.flat.patch.skin.size(); ++v) {
        const auto at =
            map.at(SkinPlace(cut.real.flat.patch.skin[v]), cut.real.flat.patch.mesh.vertices[v], 0.05);
        flat.push_back(at ? Vec2(*at) : cut.real.flat.map[v]);
    }
    return flat;
}

/// The landing of all rims when the sheet is cut by `map`.
Landing landingOfRims(const Skin& skin, const PatchMesh& patch, const FlatMap& map,
                      LaidSheet::LaidAs how = LaidSheet::LaidAs::Lattice) {
    PolygonSet rings;
    for (const auto* loops : {&patch.loops, &patch.rims})
        for (const std::vector<int>& loop : *loops) {
            Polygon2& ring = rings.emplace_back();
            for (const int v : loop) ring.push_back(map[static_cast<std::size_t>(v)]);
        }
    std::vector<HeldMark> held;
    for (const SkinPlace& mark : {patch.marks.front(), patch.marks.back()}) {
        std::size_t nearest = 0;
        for (std::size_t v = 0; v < patch.skin.size(); ++v)
            if ((patch.skin[v] - mark).squaredNorm() < (patch.skin[nearest] - mark).squaredNorm())
                nearest = v;
        held.push_back({SheetPlace(map[nearest]), patch.mesh.vertices[nearest].position});
    }
    std::vector<Probe> probes;
    std::vector<SheetPlace> drawn;
    for (const std::vector<int>& rim : patch.rims)
        for (const int i : rim) {
            const auto v = static_cast<std::size_t>(i);
            probes.push_back({patch.mesh.vertices[v], SkinPlace(patch.skin[v])});
            drawn.push_back(SheetPlace(map[v]));
        }
    return landingOf(need(landProbes(skin, patch.pairedWith(map), held, probes, drawn, Laying::Loose, {},
                                     std::make_shared<const Borders>(rings), how)));
}

/// Energy of the sheet cut by `map` and laid with its vertices at `places`, written down anew: flat area
/// times the square of the log strains, Poisson ratio 1/3.
double laidEnergy(const PatchMesh& patch, const FlatMap& map, const std::vector<SurfacePoint>& places,
                  int vertex) {
    double sum = 0;
    for (const Triangle& t : patch.mesh.triangles) {
        if (t[0] != vertex && t[1] != vertex && t[2] != vertex) continue;
        const auto p = [&](std::size_t k) { return map[static_cast<std::size_t>(t[k])]; };
        const auto q = [&](std::size_t k) -> const SurfacePoint& {
            return places[static_cast<std::size_t>(t[k])];
        };
        const double a = arcLength_mm(q(0), q(1)), b = arcLength_mm(q(1), q(2)), c = arcLength_mm(q(2), q(0));
        Eigen::Matrix2d flat, laid;
        flat << p(1) - p(0), p(2) - p(0);
        const double x = (a * a + c * c - b * b) / (2 * a);
        laid << a, x, 0, std::sqrt(c * c - x * x);
        const Eigen::Matrix2d stretch = laid * flat.inverse();
        const Eigen::SelfAdjointEigenSolver<Eigen::Matrix2d> eigen(stretch.transpose() * stretch);
        const double e1 = 0.5 * std::log(eigen.eigenvalues()[0]), e2 = 0.5 * std::log(eigen.eigenvalues()[1]);
        sum += 0.5 * flat.determinant() * 0.5 * (e1 * e1 + e2 * e2 + 2.0 / 3 * e1 * e2);
    }
    return sum;
}

TEST(Perforate, OnACylinderEveryLengthIsKept) {
    const double r = 12;
    const Skin tube = cylinder(r, 90);
    const ElementArt art = barsOn(tube, 30, 5, 2, 4.5);
    const Cut cut = cutOut(tube, {22, 58, -9, 10}, art);
    ASSERT_TRUE(cut.real.balanced);
    const PatchMesh& patch = cut.real.flat.patch;
    EXPECT_EQ(patch.loops.size(), 1u);
    EXPECT_EQ(patch.rims.size(), 5u);
    // Rolled out, x and g are the plane itself.
    const Vec2 from = cut.real.flat.map[0] - patch.skin[0];
    double worst = 0;
    std::mt19937 random(5);
    std::uniform_int_distribution<std::size_t> any(0, patch.skin.size() - 1);
    for (int k = 0; k < 4000; ++k) {
        const std::size_t a = any(random), b = any(random);
        worst = std::max(worst, std::abs((cut.real.flat.map[a] - cut.real.flat.map[b]).norm() -
                                         (patch.skin[a] - patch.skin[b]).norm()));
    }
    EXPECT_LT(worst, 2e-5) << from;
    // Rims stand where the art is: within the sag of their chords.
    double area = 0, asked = 0;
    for (const std::vector<int>& rim : patch.rims) {
        Polygon2 ring;
        for (const int v : rim) ring.push_back(cut.real.flat.map[static_cast<std::size_t>(v)]);
        area += std::abs(polygonArea(ring));
    }
    for (const Outline& outline : art.outlines()) asked += polygonArea(outline.skin);
    EXPECT_NEAR(area, asked, 0.01 * asked);
}

TEST(Perforate, TheBalancedSheetRestsAndTheWholeSheetsMapDoesNot) {
    const Skin skin = sampleSkin("sedge60");
    const Cut cut = cutOut(skin, {17, 51, -8, 10}, barsOn(skin, 22, 5, 2.2, 5));
    ASSERT_TRUE(cut.real.balanced);
    const PatchMesh& patch = cut.real.flat.patch;
    const FlatMap before = fromWhole(cut);
    // Slopes of the energy, by moving single vertices along the skin.
    const auto slopes = [&](const FlatMap& map) {
        double sum = 0;
        for (const std::vector<int>& rim : patch.rims) {
            for (std::size_t i = 0; i < rim.size(); i += 5) {
                const int v = rim[i];
                const auto n = static_cast<std::size_t>(v);
                const auto basis = tangentBasis(patch.mesh.vertices[n].normal);
                for (int axis = 0; axis < 2; ++axis) {
                    const double h = 1e-4;
                    std::vector<SurfacePoint> places = patch.mesh.vertices;
                    places[n] = skin.project(patch.mesh.vertices[n].position + h * basis.col(axis));
                    const double ahead = laidEnergy(patch, map, places, v);
                    places[n] = skin.project(patch.mesh.vertices[n].position - h * basis.col(axis));
                    const double slope = (ahead - laidEnergy(patch, map, places, v)) / (2 * h);
                    sum += slope * slope;
                }
            }
        }
        return std::sqrt(sum);
    };
    const double without = slopes(before), with = slopes(cut.real.flat.map);
    EXPECT_LT(with, 0.002 * without) << with << " " << without;
    // Laid by springs: the rims come back where they were drawn, those of the whole sheet's map do not.
    const Landing own = landingOfRims(skin, patch, cut.real.flat.map),
                  whole = landingOfRims(skin, patch, before);
    EXPECT_LT(own.rms_mm, 0.01);
    EXPECT_LT(own.max_mm, 0.02);
    EXPECT_GT(whole.max_mm, 0.1);
    EXPECT_GT(whole.rms_mm, 8 * own.rms_mm);
}

/// The demo of three marks: its bars, dots and spots, as masks of a job.
/// The membrane and the lattice of springs, each with its own triangles and law, say the same of a right and
/// of a wrong map.
TEST(Perforate, TheMembraneSaysWhatTheLatticeSays) {
    using As = LaidSheet::LaidAs;
    const Skin skin = sampleSkin("sedge60");
    const Cut cut = cutOut(skin, {14, 46, -8, 9}, barsOn(skin, 17, 5, 2.2, 5), 2500);
    const PatchMesh& patch = cut.real.flat.patch;
    const Landing right = landingOfRims(skin, patch, cut.real.flat.map, As::Best),
                  rightToo = landingOfRims(skin, patch, cut.real.flat.map, As::Lattice);
    EXPECT_LT(right.rms_mm, 0.01);
    EXPECT_LT(right.max_mm, 0.02);
    EXPECT_NEAR(right.max_mm, rightToo.max_mm, 0.02);
    const FlatMap uncut = fromWhole(cut);
    const Landing wrong = landingOfRims(skin, patch, uncut, As::Best),
                  wrongToo = landingOfRims(skin, patch, uncut, As::Lattice);
    EXPECT_GT(wrong.max_mm, 0.15);
    EXPECT_NEAR(wrong.max_mm, wrongToo.max_mm, 0.1 * wrong.max_mm);
    EXPECT_NEAR(wrong.rms_mm, wrongToo.rms_mm, 0.1 * wrong.rms_mm);
    // A twentieth larger all round: told as what it is, half of that length at the ends.
    FlatMap large = cut.real.flat.map;
    for (Vec2& p : large) p *= 1.05;
    EXPECT_NEAR(landingOfRims(skin, patch, large, As::Best).max_mm,
                landingOfRims(skin, patch, large, As::Lattice).max_mm, 0.06);
}

/// A strip 83 mm long beside one window: it bends in its own plane at the least unrest. 5000 springs say 0.2
/// mm of it, 60000 say 0.09.
TEST(Perforate, ALongStripBesideAWindowLandsWhereItWasDrawn) {
    const Job job = need(loadJob(example("willow104-smelt.nineleaves.json"))).job;
    Derivations derived;
    for (const MaskSpecPtr& spec : maskSpecs(job)) {
        if (spec->id != "band-L") continue;
        const MaskPtr mask = need(derived.mask(job, *spec));
        ASSERT_EQ(mask->sheets[0].windows.size(), 1u);
        EXPECT_GT(boxAround({mask->sheets[0].windows[0].outline}).size().x(), 70);
        EXPECT_LT(mask->report().landing.max_mm, 0.05);
    }
}

TEST(Perforate, TheMasksOfAJobLandWithinTwoHundredths) {
    const Job job = need(plainJob());
    Derivations derived;
    for (const MaskSpecPtr& spec : maskSpecs(job)) {
        if (spec->side == Side::Right) continue;
        const MaskPtr mask = need(derived.mask(job, *spec));
        const Sheet& sheet = mask->sheets[0];
        EXPECT_FALSE(sheet.flat->patch.rims.empty());
        EXPECT_TRUE(sheet.flat->whole);
        EXPECT_LT(sheet.report.landing.max_mm, 0.02) << spec->id;
        EXPECT_LT(sheet.report.landing.rms_mm, 0.01) << spec->id;
        // Windows are whole: as many as outlines, each as large as on the skin within its stretch.
        std::size_t outlines = 0;
        for (const ArtPtr& art : need(derived.artOf(job, *spec))) outlines += art->outlines().size();
        EXPECT_EQ(sheet.windows.size(), outlines);
        EXPECT_EQ(sheet.flat->patch.rims.size(), outlines);
        EXPECT_TRUE(sheet.holes.empty());  // windows are not holes of the sheet's own
    }
}

TEST(Perforate, TheStrainOfAPieceDoesNotGrowWithTheMesh) {
    const Skin skin = sampleSkin("sedge60");
    std::vector<double> single, piece;
    for (const int vertices : {800, 3200}) {
        const Cut cut = cutOut(skin, {17, 51, -8, 10}, barsOn(skin, 22, 5, 2.2, 5), vertices);
        const FlatPatch& flat = cut.real.flat;
        single.push_back(flat.strain.max);
        piece.push_back(strainWithin(flat.patch.mesh, flat.rest, flat.strains));
        EXPECT_LT(piece.back(), single.back());
    }
    EXPECT_NEAR(piece[1], piece[0], 0.12 * piece[0]);
    // Of one strain everywhere it is that strain.
    const Cut cut = cutOut(skin, {17, 51, -8, 10}, barsOn(skin, 22, 3, 2.2, 5), 800);
    const FlatPatch& flat = cut.real.flat;
    const std::vector<PrincipalStrain> even(flat.strains.size(), {0.013, -0.007});
    EXPECT_NEAR(strainWithin(flat.patch.mesh, flat.rest, even), 0.013, 1e-12);
}

TEST(Perforate, WhatCannotBeAHoleIsLeftToTheWholeSheet) {
    const Skin skin = sampleSkin("sedge60");
    const ElementArt art = barsOn(skin, 22, 5, 2.2, 5);
    EXPECT_FALSE(perforated(bandRegion({30, 51, -8, 10}), {&art}));  // a bar crosses the border
    EXPECT_FALSE(perforated(bandRegion({17, 51, -8, 10}), {}));      // nothing to cut out
    Region holed = bandRegion({17, 51, -8, 10});
    holed.holes.push_back({{27, 0}, {27, 2}, {29, 2}, {29, 0}});
    EXPECT_FALSE(perforated(holed, {&art}));  // a bar meets a hole of the sheet's own
    // An opening inside another goes with it.
    Element e;
    e.id = "dot";
    e.kind = "dot_row";
    e.values = usualValues(*findKind("dot_row"));
    e.values.set("count", 1.0);
    e.dx_mm = 35;
    const auto dot = [&](double size) {
        e.values.set("first_mm", size);
        e.values.set("last_mm", size);
        return need(drawElement(skin, {}, e, "e"));
    };
    const ElementArt large = dot(6), small = dot(2);
    EXPECT_EQ(perforated(bandRegion({17, 51, -8, 10}), {&large, &small})->holes.size(), 1u);
    // So does one that stands in the island of a ring.
    std::vector<ElementArt> ring;
    for (int i = 0; i < 12; ++i) {
        e.dx_mm = 35 + 4.5 * std::cos(i * kPi / 6);
        e.dg_mm = 1 + 4.5 * std::sin(i * kPi / 6);
        ring.push_back(dot(3));
    }
    e.dx_mm = 35;
    e.dg_mm = 1;
    ring.push_back(dot(1.5));
    std::vector<const ElementArt*> all;
    for (const ElementArt& one : ring) all.push_back(&one);
    EXPECT_EQ(perforated(bandRegion({17, 51, -8, 10}), all)->holes.size(), 1u);
}

/// Bars as close as 0.6 mm over nine millimetres leave ribbons of 15 to 1; at 2.3 mm nothing is slender.
TEST(Perforate, SlenderRibbonsAreFoundAndTold) {
    const Skin tube = cylinder(12, 90);
    const BandPatch band{22, 58, -9, 10};
    const auto slenderest = [&](double spacing) {
        const ElementArt art = barsOn(tube, 30, 4, 2.4, spacing);
        return mostSlender(*perforated(bandRegion(band), {&art}));
    };
    const std::optional<Ribbon> ribbon = slenderest(3.0);
    ASSERT_TRUE(ribbon);
    EXPECT_NEAR(ribbon->width_mm, 0.6, 0.02);
    EXPECT_NEAR(ribbon->length_mm, 9, 1.5);
    EXPECT_GT(ribbon->slenderness(), kPlainRibbon);
    EXPECT_FALSE(slenderest(4.7));
    const ElementArt art = barsOn(tube, 30, 4, 2.4, 3.0);
    MaskWish wish;
    wish.elements = {"bars"};
    const Mask mask = need(cutMask(tube, {}, {{&art}}, wish, 0.1, 800, Precision::Exact, "m"));
    const auto told = std::find_if(mask.warnings.begin(), mask.warnings.end(),
                                   [](const Warning& w) { return w.code == "slender_ribbon"; });
    ASSERT_NE(told, mask.warnings.end());
    EXPECT_NE(told->text().find("carrier film"), std::string::npos) << told->text();
}

/// A sheet that all but lies flat stands off by all but nothing; the stiffer, the more.
TEST(Lift, GrowsWithoutAStep) {
    const Skin skin = sampleSkin("sedge60");
    const FlatPatch flat = need(flattenPatch(need(meshPatch(skin, BandPatch{17, 51, -8, 10}, 500, ""))));
    const auto lift = [&](double limit) { return need(judgeFit(skin, flat, limit, Laying::Loose)).lift_mm; };
    const double needed = need(judgeFit(skin, flat, 1, Laying::Loose)).strainFeasibleMax;
    const std::vector<double> all = liftsOf_mm(flat.patch);
    const double whole = *std::max_element(all.begin(), all.end());
    EXPECT_EQ(lift(1.001 * needed), 0);
    EXPECT_GT(lift(0.999 * needed), 0);
    EXPECT_LT(lift(0.999 * needed), 0.01 * whole);
    double before = 0;
    for (const double limit : {0.999, 0.98, 0.95, 0.9, 0.8, 0.6}) {
        const double now = lift(limit * needed);
        EXPECT_GT(now, before) << limit;
        EXPECT_LT(now - before, 0.3 * whole) << limit;
        before = now;
    }
    EXPECT_GT(lift(1e-4 * needed), 0.999 * whole);
}

TEST(Balance, FoldedStartsAndCancellingAreSaid) {
    const Skin skin = sampleSkin("sedge60");
    const Cut cut = cutOut(skin, {17, 51, -8, 10}, barsOn(skin, 22, 3, 2.2, 5), 600);
    const PatchMesh& patch = cut.real.flat.patch;
    FlatMap folded = cut.real.flat.map;
    const Triangle& t = patch.mesh.triangles[40];
    std::swap(folded[static_cast<std::size_t>(t[0])], folded[static_cast<std::size_t>(t[1])]);
    EXPECT_EQ(balancedMap(patch.mesh, folded, {0, 5}).error().code, "cannot_balance");
    EXPECT_TRUE(std::isinf(unrest_mm(patch.mesh, folded, {0, 5})));
    const Task task = Task::make();
    task.cancel();
    EXPECT_EQ(balancedMap(patch.mesh, cut.real.flat.map, {0, 5}, task).error().code, "cancelled");
}

}  // namespace
}  // namespace nine
