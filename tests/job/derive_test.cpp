// What follows from a job hangs on values alone; and masks of marks that touch.
#include "job/derive.h"
#include "mask/bridges.h"
#include "pattern/bands.h"
#include "tests/elements.h"
#include "tests/plain_job.h"

#include <array>

#include "job/export.h"
#include "tests/support.h"

namespace nine {
namespace {

using test::need;

/// A dot row on the skin itself.
ElementPtr dots(const std::string& id, const Vec2& at, double diameter_mm, int count = 1,
                double spacing_mm = 4) {
    Element e;
    e.id = id;
    e.dx_mm = at.x();
    e.dg_mm = at.y();
    test::shape(e, test::DotRow{count, spacing_mm, diameter_mm, diameter_mm, 0});
    return std::make_shared<const Element>(e);
}

Job jobOf(std::vector<ElementPtr> elements, std::vector<MaskSpecPtr> masks = {}) {
    Job job = need(test::plainJob());
    PatternChapter pattern;
    pattern.elements = std::move(elements);
    job = job.with(pattern);
    return withMasks(job, std::move(masks));
}

MaskSpecPtr maskOf(const std::vector<ElementPtr>& elements, Side side = Side::Left) {
    MaskSpec spec;
    spec.id = side == Side::Left ? "all-L" : "all-R";
    for (const ElementPtr& e : elements) spec.wish.elements.push_back(e->id);
    spec.wish.material = "tape";
    spec.side = side;
    return std::make_shared<const MaskSpec>(spec);
}

MaskPtr cut(const Job& job) {
    Derivations derived;
    return need(derived.cutOnly(job, *maskSpecs(job)[0], Precision::Exact));
}

TEST(Windows, WhatLiesInsideAnotherIsOneWindow) {
    const std::vector<ElementPtr> alone{dots("large", {28, 1}, 6)};
    std::vector<ElementPtr> nested = alone;
    nested.push_back(dots("small", {26.8, 1}, 1, 3, 1.2));
    nested.push_back(dots("apart", {38, 1}, 2));
    const MaskPtr mask = cut(jobOf(nested, {maskOf(nested)}));
    ASSERT_EQ(mask->sheets[0].windows.size(), 2u);
    EXPECT_EQ(mask->sheets[0].windows[0].element, "large");
    EXPECT_EQ(mask->sheets[0].windows[1].element, "apart");
    EXPECT_TRUE(mask->sheets[0].windows[0].islands.empty());
    // A disc of 6 mm on a sheet that stretches by a per cent or so.
    EXPECT_NEAR(mask->sheets[0].windows[0].area_mm2, 9 * 3.14159265, 0.04 * 9 * 3.14159265);
}

TEST(Windows, OverlappingElementsAreUnited) {
    const std::vector<ElementPtr> both{dots("a", {28, 1}, 4), dots("b", {30, 1}, 4)};
    const MaskPtr mask = cut(jobOf(both, {maskOf(both)}));
    ASSERT_EQ(mask->sheets[0].windows.size(), 1u);
    // Two discs of radius 2, 2 mm apart: the lens between them counts once.
    const double lens = 2 * 4 * std::acos(0.5) - 0.5 * 2 * std::sqrt(16.0 - 4);
    const double wanted = 2 * 4 * 3.14159265 - lens;
    EXPECT_NEAR(mask->sheets[0].windows[0].area_mm2, wanted, 0.04 * wanted);
    EXPECT_NEAR(mask->sheets[0].windows[0].centre.y(), centroid(mask->sheets[0].windows[0].outline).y(),
                1e-9);
}

/// Dots that touch in a ring of 8 mm.
std::vector<ElementPtr> ringOfDots(double diameter_mm) {
    std::vector<ElementPtr> ring;
    for (int i = 0; i < 10; ++i) {
        const double turn = 2 * 3.14159265 * i / 10;
        ring.push_back(
            dots("d" + std::to_string(i), {28 + 4 * std::cos(turn), 1 + 4 * std::sin(turn)}, diameter_mm));
    }
    return ring;
}

TEST(Windows, APieceThatStandsFreeIsHeldByBridges) {
    const std::vector<ElementPtr> ring = ringOfDots(3.2);
    const Job job = jobOf(ring, {maskOf(ring)});
    Derivations derived;
    const MaskResult result = derived.masks(job, 600).front();
    const Sheet& sheet = need(result.mask)->sheets[0];
    ASSERT_EQ(sheet.windows.size(), 2u);  // the ring parted by two bridges
    for (const Window& w : sheet.windows) EXPECT_TRUE(w.islands.empty());
    // The middle of the ring hangs together with the sheet: it is in the mesh, and one border goes round all.
    EXPECT_EQ(sheet.flat->patch.loops.size(), 1u);
    const Vec2 middle(28, 1);
    bool there = false;
    for (const Vec2& p : sheet.flat->patch.skin) there = there || (p - middle).norm() < 1;
    EXPECT_TRUE(there);
    // Two strips as wide as was asked for, where two dots meet: the ring is 2.03 mm across there (1.6 mm
    // dots, 2.47 apart).
    const double width =
        std::max(bridgeWidth_mm(result.spec->wish.material), findTool("knife")->smallest_mm);
    EXPECT_NEAR(borderDistance(sheet.windows[0].outline, sheet.windows[1].outline), width, 0.1);
    // What it costs: two strips across the ring, which is 2.4 mm wide on the average over their width.
    std::vector<ArtPtr> art;
    SheetPlan plan{bandRegion({18, 38, -9, 11}), {}, {}};
    for (std::size_t i = 0; i < ring.size(); ++i) art.push_back(need(derived.art(job, i)));
    for (const ArtPtr& a : art) plan.opens.push_back(a.get());
    const BridgedSheet held = bridged(*need(derived.skin(job)), plan, {}, 0.8);
    EXPECT_EQ(held.plan.bridges.size(), 2u);
    EXPECT_NEAR(held.lost_mm2, 2 * 0.8 * 2.4, 0.3);
    ASSERT_EQ(result.warnings.size(), 1u);
    EXPECT_EQ(result.warnings[0].code, "bridges");
    EXPECT_NE(result.warnings[0].text().find("2 bridges"), std::string::npos);
}

TEST(Windows, SheetTooSmallForBridgesIsAnIslandAndTold) {
    const std::vector<ElementPtr> ring = ringOfDots(7.0);
    const Job job = jobOf(ring, {maskOf(ring), maskOf(ring, Side::Right)});
    Derivations derived;
    const auto results = derived.masks(job, 300);
    for (const MaskResult& result : results) {
        const Mask& mask = *need(result.mask);
        ASSERT_EQ(mask.sheets[0].windows.size(), 1u);
        ASSERT_EQ(mask.sheets[0].windows[0].islands.size(), 1u);
        EXPECT_GT(mask.sheets[0].windows[0].area_mm2, 0);
        EXPECT_NEAR(mask.sheets[0].windows[0].area_mm2,
                    polygonArea(mask.sheets[0].windows[0].outline) +
                        polygonArea(mask.sheets[0].windows[0].islands[0]),
                    1e-9);
        EXPECT_LT(polygonArea(mask.sheets[0].windows[0].islands[0]), -0.1);
        // It stands in the middle of the ring, where the whole sheet has it.
        EXPECT_LT(
            (centroid(mask.sheets[0].windows[0].islands[0]) - centroid(mask.sheets[0].windows[0].outline))
                .norm(),
            0.2);
        EXPECT_TRUE(
            contains(mask.sheets[0].windows[0].outline, mask.sheets[0].windows[0].islands[0].front()));
        ASSERT_EQ(result.warnings.size(), 1u);
        EXPECT_EQ(result.warnings[0].code, "island");
        EXPECT_NE(result.warnings[0].text().find("fall out"), std::string::npos);
    }
    EXPECT_EQ(results[0].warnings[0].where, "masks.masks[0]");
    EXPECT_EQ(results[1].warnings[0].where, "masks.masks[1]");  // not that of its twin
    // The island is cut like everything else, before the window that frees it.
    const CutPages pages = need(cutPages(job, results));
    const Drawing page = drawPage(pages, 0, {"t", {}});
    EXPECT_EQ(page.layers[0].lines.size(), 6u);
    EXPECT_GT(area({page.layers[0].lines[1].points}), -2 * area({page.layers[0].lines[0].points}));
}

TEST(Windows, ApartStayAsTheyWereDrawn) {
    const std::vector<ElementPtr> row{dots("row", {24, 1}, 2, 4, 4)};
    const MaskPtr mask = cut(jobOf(row, {maskOf(row)}));
    ASSERT_EQ(mask->sheets[0].windows.size(), 4u);
    for (std::size_t i = 1; i < 4; ++i)
        EXPECT_GT(mask->sheets[0].windows[i].centre.x(), mask->sheets[0].windows[i - 1].centre.x() + 3);
}

TEST(Derive, TakingOneOutDrawsNoOtherAgain) {
    std::vector<ElementPtr> elements;
    for (int i = 0; i < 6; ++i) elements.push_back(dots("d" + std::to_string(i), {20.0 + 3 * i, 1}, 1.5));
    const Job job = jobOf(elements);
    Derivations derived;
    std::vector<ArtPtr> before;
    for (std::size_t i = 0; i < elements.size(); ++i) before.push_back(need(derived.art(job, i)));
    elements.erase(elements.begin());
    const Job fewer = jobOf(elements);
    Job same = fewer;
    same = same.withPart(job.part<BlankChapter>());
    for (std::size_t i = 0; i < elements.size(); ++i)
        EXPECT_EQ(need(derived.art(same, i)), before[i + 1]) << i;
}

TEST(Derive, ADerivedMarkFollowsWhatItRestsOn) {
    Element rim;
    rim.id = "rim";
    rim.kind = "rim";
    rim.of = "row";
    rim.values = usualValues(*findKind("rim"));
    const ElementPtr same = std::make_shared<const Element>(rim);
    const auto jobWith = [&](double size) { return jobOf({dots("row", {20, 1}, size, 3, 8), same}); };
    Derivations derived;
    const auto first = [&](double size) {
        return polygonArea(need(derived.art(jobWith(size), 1))->outlines().front().skin);
    };
    const double small = first(2), large = first(4);
    EXPECT_NEAR(small, kPi * 1.6 * 1.6, 0.3);
    EXPECT_NEAR(large, kPi * 2.6 * 2.6, 0.6);
}

TEST(Derive, PlacesFollowTheJobThatAsks) {
    std::vector<ElementPtr> elements{dots("a", {30, 1}, 1.5), dots("off", {59.9, 1}, 9)};
    const Job job = jobOf(elements);
    Derivations derived;
    EXPECT_EQ(derived.art(job, 1).error().where, "pattern.elements[1]");
    Job turned = jobOf({elements[1], elements[0]});
    turned = turned.withPart(job.part<BlankChapter>());
    EXPECT_EQ(derived.art(turned, 0).error().where, "pattern.elements[0]");
    EXPECT_EQ(derived.masks(turned, 200)[0].mask.error().where, "pattern.elements[0]");
}

/// Two windows on large jobs take turns: what one has drawn is still there when it is its turn again.
TEST(Derive, TwoLargeJobsAreRememberedTogether) {
    std::vector<ElementPtr> first, second;
    for (int i = 0; i < 200; ++i) {
        const Vec2 at(15 + 0.15 * i, 1);
        first.push_back(dots("a" + std::to_string(i), at, 0.5));
        second.push_back(dots("b" + std::to_string(i), at, 0.6));
    }
    const Job one = jobOf(first);
    Job two = jobOf(second);
    two = two.withPart(one.part<BlankChapter>());
    Derivations derived;
    std::vector<ArtPtr> drawn;
    for (int round = 0; round < 2; ++round) {
        for (const Job* job : std::array<const Job*, 2>{&one, &two}) {
            for (std::size_t i = 0; i < 200; ++i) {
                const ArtPtr art = need(derived.art(*job, i));
                if (round == 0) {
                    drawn.push_back(art);
                } else {
                    ASSERT_EQ(art, drawn[(job == &one ? 0 : 200) + i]) << i;
                }
            }
        }
    }
}

TEST(Derive, MasksAreHandedOutAsTheyCome) {
    const std::vector<ElementPtr> two{dots("a", {25, 1}, 2), dots("b", {35, 1}, 2)};
    const Job job = jobOf(two);
    Derivations derived;
    std::vector<std::size_t> came;
    std::vector<double> shares;
    const Task task = Task::make([&](double share) { shares.push_back(share); });
    const auto all = derived.masks(job, 200, task, [&](std::size_t i, const MaskResult& r) {
        EXPECT_TRUE(r.mask);
        came.push_back(i);
    });
    std::sort(came.begin(), came.end());
    EXPECT_EQ(came, (std::vector<std::size_t>{0, 1, 2, 3}));
    EXPECT_EQ(shares, (std::vector<double>{0.25, 0.5, 0.75, 1}));
}

TEST(Derive, AMarginChangedSolvesAgain) {
    const std::vector<ElementPtr> one{dots("a", {28, 1}, 3)};
    Derivations derived;
    MaskSpec spec = *maskOf(one);
    const Job job = jobOf(one, {std::make_shared<const MaskSpec>(spec)});
    const double narrow = need(derived.cutOnly(job, spec, Precision::Exact))->report().vertices;
    const Box2 before = boxAround({need(derived.cutOnly(job, spec, Precision::Exact))->sheets[0].outline});
    spec.wish.values.set("margin_mm", 10.0);
    const Box2 after = boxAround({need(derived.cutOnly(job, spec, Precision::Exact))->sheets[0].outline});
    EXPECT_GT(narrow, 0);
    EXPECT_NEAR(after.size().y() - before.size().y(), 8, 0.5);
}

TEST(Derive, WhatLiesOnBareSkinIsCutOffAndTold) {
    const std::vector<ElementPtr> row{dots("row", {20, 1}, 2, 6, 4)};
    Job job = jobOf(row);
    BlankChapter blank = job.get<BlankChapter>();
    Zone zone;
    zone.id = "z";
    zone.name = "clip place";
    zone.polygon = {{31, 0}, {33, 0}, {33, 2}, {31, 2}};
    blank.zones = {zone};
    job = job.with(blank);
    Derivations derived;
    const ArtPtr art = need(derived.art(job, 0));
    const Warnings& told = art->warnings;
    ASSERT_EQ(told.size(), 1u);
    EXPECT_EQ(told[0].code, "cut_at_bare");
    EXPECT_NE(told[0].text().find("\"row\" is cut off where it meets the clip place"), std::string::npos)
        << told[0].text();
    PolygonSet openings;
    for (const Outline& outline : art->outlines()) openings.push_back(outline.skin);
    EXPECT_LT(area(intersected(openings, {zone.polygon})), 1e-6);
    EXPECT_GT(area(openings), 3 * kPi);  // three dots whole, the fourth in part
    blank.zones[0].noPaint = false;
    Derivations again;
    EXPECT_TRUE(need(again.art(job.with(blank), 0))->warnings.empty());
}

TEST(Derive, TheSheetReachesRoundAllItOpens) {
    const std::vector<ElementPtr> two{dots("near", {20, 1}, 2), dots("far", {44, -4}, 2)};
    const MaskPtr mask = cut(jobOf(two, {maskOf(two)}));
    ASSERT_EQ(mask->sheets[0].windows.size(), 2u);
    for (const Window& window : mask->sheets[0].windows) {
        for (const Vec2& p : window.outline) EXPECT_TRUE(contains(mask->sheets[0].outline, p));
        EXPECT_GT(borderDistance(window.outline, mask->sheets[0].outline),
                  4);  // a margin of 6 mm, but for rounded corners
    }
}

TEST(Derive, RightHandMarksAreMirroredToo) {
    const Job job = need(test::plainJob());
    Derivations derived;
    const auto masks = derived.masks(job, 200);
    const auto &left = (*masks[0].mask)->sheets[0].marks, &right = (*masks[1].mask)->sheets[0].marks;
    ASSERT_EQ(left.size(), right.size());
    for (std::size_t i = 0; i < left.size(); ++i) {
        EXPECT_EQ(right[i].flat, Vec2(-left[i].flat.x(), left[i].flat.y()));
        EXPECT_EQ(right[i].skin, left[i].skin);
    }
    EXPECT_GT(left[1].flat.x(), left[0].flat.x() + 5);  // A at the nose, which is left on the left
}

/// Against a search over all that can be felt, by the straight way: near marks it orders as the skin does.
TEST(Derive, MarksAreTiedToTheNearestThingThatCanBeFelt) {
    const Job job = need(test::plainJob());
    Derivations derived;
    const SkinPtr skin = need(derived.skin(job));
    for (const MaskResult& result : derived.masks(job, 200)) {
        for (const RegistrationMark& mark : need(result.mask)->sheets[0].marks) {
            const Vec3 at = skin->at({Side::Left, mark.skin.x(), mark.skin.y()}).position;
            std::string nearest;
            double least = 1e9;
            for (const char* name :
                 {"line_tie", "bill_slot", "eye", "gill_plate", "belly_hanger", "tail_hanger", "tail_root"}) {
                const auto found = job.get<BlankChapter>().landmarks.find(name);
                if (found == job.get<BlankChapter>().landmarks.end()) continue;
                const Vec2 p = referencePoint(found->second, mark.skin.y());
                const double d = (skin->at({Side::Left, p.x(), p.y()}).position - at).norm();
                if (d >= least) continue;
                least = d;
                nearest = name;
            }
            EXPECT_EQ(mark.landmark, nearest);
            EXPECT_LT(mark.distance_mm, 1.6 * least + 0.1);
            // Two steps at right angles: not longer together than the way round the corner, not shorter than
            // the way.
            EXPECT_NEAR(std::hypot(mark.behind_mm, mark.above_mm), mark.distance_mm,
                        0.4 * mark.distance_mm + 0.1);  // the skin is curved
        }
    }
}

TEST(Derive, MarksSayWhichWay) {
    RegistrationMark mark{'A', {}, {}, "gill_plate", 0, 0, 0};
    const auto says = [&](double behind, double above) {
        mark.behind_mm = behind;
        mark.above_mm = above;
        return markSentence(mark).plain();
    };
    EXPECT_EQ(says(1.7, 0), "A 1.7 mm behind the gill plate");
    EXPECT_EQ(says(-1.7, 0.1), "A 1.7 mm ahead of the gill plate");
    EXPECT_EQ(says(0.2, -4), "A 4.0 mm below the gill plate");
    EXPECT_EQ(says(-3, 4.2), "A 3.0 mm ahead of and 4.2 mm above the gill plate");
    EXPECT_EQ(says(0, 0.01), "A on the gill plate");
    mark.landmark.clear();
    EXPECT_EQ(says(12.4, -2), "A 12.4 mm behind the nose, 2.0 mm below the axis");
}

/// For the second pass the sheet is moved towards the tail, so what lay under a cross then lies nearer to the
/// sheet's nose end.
TEST(Derive, TicksOfTheSecondPassStandTowardsTheNose) {
    Element gill;
    gill.id = "gill";
    gill.anchor = "gill_plate";
    gill.dx_mm = 1;
    test::GillMark shape;
    shape.pair_mm = 1.5;
    test::shape(gill, shape);
    const std::vector<ElementPtr> one{std::make_shared<const Element>(gill)};
    const Job job = jobOf(one, {maskOf(one), maskOf(one, Side::Right)});
    Derivations derived;
    for (const MaskSpecPtr& spec : maskSpecs(job)) {
        const MaskPtr mask = need(derived.cutOnly(job, *spec, Precision::Exact));
        const Piece piece = piecesOf(job, *spec, *mask).front();
        const double way = spec->side == Side::Left ? -1 : 1;  // to the nose
        for (const RegistrationMark& mark : mask->sheets[0].marks) {
            const auto tickAt = [&](const Vec2& at) {
                return std::any_of(piece.pen.begin(), piece.pen.end(), [&](const Polyline2& line) {
                    return line.size() == 2 && (0.5 * (line[0] + line[1]) - at).norm() < 0.05 &&
                           std::abs(line[0].x() - line[1].x()) < 0.3;
                });
            };
            EXPECT_TRUE(tickAt(mark.flat + Vec2(1.5 * way, 0))) << mark.name;
            EXPECT_FALSE(tickAt(mark.flat - Vec2(1.5 * way, 0))) << mark.name;
        }
    }
}

TEST(Derive, WhatASheetIsLaidLikeIsPartOfWhatIsRemembered) {
    const std::vector<ElementPtr> one{dots("a", {28, 1}, 3, 4, 5)};
    const Job job = jobOf(one, {maskOf(one)});
    Derivations derived;
    MaskSpec spec = *maskSpecs(job)[0];
    const MaskPtr loose = need(derived.mask(job, spec, 300));
    spec.wish.apply = Apply::Back;
    const MaskPtr back = need(derived.mask(job, spec, 300));
    EXPECT_NE(loose->report().landing.rms_mm, back->report().landing.rms_mm);
    spec.wish.material = "film";
    EXPECT_LT(need(derived.mask(job, spec, 300))->report().strainLimit, back->report().strainLimit);
}

/// Holes are cut out of the piece as windows are, and every sheet of a mask is a piece of its own.
TEST(Derive, HolesAndSheetsAreCut) {
    const auto square = [](double low, double high) {
        return Polygon2{{low, low}, {high, low}, {high, high}, {low, high}};
    };
    Mask mask;
    mask.sheets.resize(2);
    for (Sheet& sheet : mask.sheets) sheet.outline = square(0, 40);
    Polygon2 hole = square(10, 14);
    std::reverse(hole.begin(), hole.end());
    mask.sheets[1].holes = {hole};
    MaskSpec spec;
    spec.id = "m";
    const std::vector<Piece> pieces = piecesOf(Job{}, spec, mask);
    ASSERT_EQ(pieces.size(), 2u);
    EXPECT_EQ(pieces[0].id, "m");
    EXPECT_EQ(pieces[1].id, "m/2");
    EXPECT_EQ(pieces[1].mask, "m");
    EXPECT_EQ(pieces[1].sheet, 1u);
    EXPECT_TRUE(pieces[0].windows.empty());
    ASSERT_EQ(pieces[1].windows.size(), 1u);
    EXPECT_TRUE(pieces[1].windows[0].element.empty());
    const CutPages pages = need(layOutPieces(pieces, {}, {}));
    int cutRings = 0;
    for (const Layer& layer : drawPage(pages, 0, {}).layers)
        if (layer.name == "CUT") {
            for (const DrawnLine& line : layer.lines) cutRings += line.closed;
        }
    EXPECT_EQ(cutRings, 3);
    // Lettering keeps out of the hole.
    for (const Polyline2& stroke : pieces[1].pen)
        for (const Vec2& p : stroke) EXPECT_FALSE(contains(pieces[1].windows[0].outline, p));
}

}  // namespace
}  // namespace nine
