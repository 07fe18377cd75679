// Cards, small sheets, bill covers, kept cut-outs, bridges and fingers, as a job holds them and as they are
// cut.
#include <gtest/gtest.h>

#include <numeric>
#include <set>

#include "job/bill_cover.h"
#include "job/export.h"
#include "mask/bridges.h"
#include "mask/press.h"
#include "mask/sticking.h"
#include "tests/bodies.h"
#include "tests/elements.h"
#include "tests/plain_job.h"

namespace nine {
namespace {

using namespace test;

Job withSpec(MaskSpec spec) {
    spec.id = "m";
    return withMasks(need(plainJob()).with(SprayChapter{}),
                     {std::make_shared<const MaskSpec>(std::move(spec))});
}

MaskSpec specOf(const std::string& kind, std::vector<std::string> elements,
                const std::string& material = "tape") {
    MaskSpec spec;
    spec.wish.kind = kind;
    spec.wish.elements = std::move(elements);
    spec.wish.material = material;
    spec.wish.values = usualValues(findMaskKind(kind)->params());
    return spec;
}

MaskPtr judgedFirst(const Job& job) {
    Derivations derived;
    return need(derived.mask(job, *maskSpecs(job).front(), 900));
}

ElementPtr dotsAt(const std::string& id, const Vec2& at, double diameter_mm, int count = 1,
                  double apart = 4) {
    Element e;
    e.id = id;
    e.dx_mm = at.x();
    e.dg_mm = at.y();
    shape(e, DotRow{count, apart, diameter_mm, diameter_mm, 0});
    return std::make_shared<const Element>(e);
}

Job ofElements(std::vector<ElementPtr> elements, MaskSpec spec) {
    PatternChapter pattern;
    for (const ElementPtr& e : elements) spec.wish.elements.push_back(e->id);
    pattern.elements = std::move(elements);
    spec.id = "m";
    return withMasks(need(plainJob()).with(SprayChapter{}).with(pattern),
                     {std::make_shared<const MaskSpec>(std::move(spec))});
}

TEST(SmallSheets, EachMarkHasOneAndCloseOnesShareIt) {
    MaskSpec spec = specOf("small_sheets", {});
    spec.wish.values.set("margin_mm", 3.0);
    const std::vector<ElementPtr> marks{dotsAt("row", {18, 2}, 2, 4, 6), dotsAt("near", {19.5, 4}, 1)};
    const MaskPtr apart = judgedFirst(ofElements(marks, spec));
    // Dots of 2 mm every 6: gaps of 4. The small one stands 0.8 mm beside the first or second.
    ASSERT_EQ(apart->sheets.size(), 4u);
    std::vector<std::size_t> windows;
    std::set<int> numbers;
    double x = 0;
    for (const Sheet& sheet : apart->sheets) {
        windows.push_back(sheet.windows.size());
        for (const Window& w : sheet.windows) {
            EXPECT_TRUE(numbers.insert(w.number).second);
            EXPECT_GT(w.skin.x(), x - 2.1);
        }
        x = sheet.windows.front().skin.x();
        EXPECT_GE(sheet.marks.size(), 2u);
        EXPECT_LT(sheet.report.landing.max_mm, 0.01);
        EXPECT_LT(boxAround({sheet.outline}).size().x(), 14);
    }
    EXPECT_EQ(std::accumulate(windows.begin(), windows.end(), std::size_t{0}), 5u);
    EXPECT_EQ(*std::max_element(windows.begin(), windows.end()), 2u);
    EXPECT_EQ(*numbers.begin(), 1);
    EXPECT_EQ(*numbers.rbegin(), 5);
    spec.wish.values.set("together_mm", 4.5);
    EXPECT_EQ(judgedFirst(ofElements(marks, spec))->sheets.size(), 1u);
}

TEST(SmallSheets, SixtyAreEnough) {
    MaskSpec spec = specOf("small_sheets", {});
    spec.wish.values.set("margin_mm", 1.0);
    spec.wish.values.set("together_mm", 0.0);
    std::vector<ElementPtr> marks;
    for (int r = 0; r < 6; ++r)
        marks.push_back(dotsAt("r" + std::to_string(r), {14, -6.0 + 2 * r}, 0.5, 11, 2));
    Derivations derived;
    const Job job = ofElements(marks, spec);
    const Result<MaskPtr> mask = derived.mask(job, *maskSpecs(job).front(), 300);
    ASSERT_FALSE(mask);
    EXPECT_EQ(mask.error().code, "too_many_sheets");
    EXPECT_NE(mask.error().text().find("66"), std::string::npos);
    EXPECT_EQ(mask.error().where, "masks.masks[0].together_mm");
}

TEST(Butted, EndsOnTheLineUnlessItIsToGoOver) {
    // A dot 3 mm below the back line of the largest section, with 6 mm of margin.
    const SkinPtr skin = need(Derivations().skin(need(plainJob())));
    const double back = skin->arcAt(30).backArc_mm();
    MaskSpec spec = specOf("butted", {});
    const std::vector<ElementPtr> marks{dotsAt("high", {30, back - 3}, 2)};
    const auto highest = [&](const MaskSpec& s) {
        const MaskPtr mask = judgedFirst(ofElements(marks, s));
        double over = -1e300;
        for (const Vec2& p : mask->sheets[0].flat->patch.skin)
            over = std::max(over, p.y() - skin->arcAt(p.x()).backArc_mm());
        return over;
    };
    EXPECT_NEAR(highest(spec), 0, 0.05);
    spec.wish.values.set("back", std::string("over"));
    EXPECT_GT(highest(spec), 2);
    // The plain box goes over as well; that is what this kind is there for.
    MaskSpec box = specOf("fitted", {});
    EXPECT_GT(highest(box), 2);
}

TEST(Butted, KeepsClearOfHangersAndSaysWhenArtReachesOverTheLine) {
    const Job plain = need(plainJob());
    const Landmark& hanger = plain.get<BlankChapter>().landmarks.at("belly_hanger");
    const Vec2 at = hanger.points.front();
    const MaskPtr mask =
        judgedFirst(ofElements({dotsAt("beside", {at.x(), at.y() + 5}, 2)}, specOf("butted", {})));
    for (const Vec2& p : mask->sheets[0].flat->patch.skin) EXPECT_GT((p - at).norm(), 1) << p.transpose();
    const SkinPtr skin = need(Derivations().skin(plain));
    const Job over =
        ofElements({dotsAt("over", {30, skin->arcAt(30).backArc_mm()}, 3)}, specOf("butted", {}));
    Derivations derived;
    const Result<MaskPtr> refused = derived.mask(over, *maskSpecs(over).front(), 300);
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().code, "art_beyond");
}

TEST(WholeSheets, ArtOverTheBackMeetsItsOtherHalfOnTheLine) {
    const SkinPtr skin = need(Derivations().skin(need(plainJob())));
    const double back = skin->arcAt(30).backArc_mm();
    const MaskPtr mask =
        judgedFirst(ofElements({dotsAt("over", {30, back - 0.8}, 4)}, specOf("full_side", {})));
    const Sheet& sheet = mask->sheets[0];
    ASSERT_EQ(sheet.windows.size(), 1u);
    // The dot is cut off on the line: each half of the sheet ends there, and the other side has the rest.
    double line = -1e300;
    for (double x = 28; x <= 32; x += 0.1) line = std::max(line, skin->arcAt(x).backArc_mm());
    EXPECT_NEAR(sheet.windows[0].reach.high.y(), line, 0.1);
    EXPECT_NEAR(sheet.windows[0].reach.low.y(), back - 2.8, 0.1);
    // On the flat its straight side is the edge of the sheet.
    EXPECT_LT(borderDistance(sheet.windows[0].outline, sheet.outline), 0.02);
    EXPECT_LT(area(subtracted({sheet.windows[0].outline}, {sheet.outline})), 0.15);
    EXPECT_LT(sheet.report.landing.max_mm, 0.08);  // the body is too fat for it without slits
    EXPECT_FALSE(sheet.report.landed.empty());
    // Its figures are those of the sheet with the opening in it: the mesh goes round the dot.
    for (const Triangle& t : sheet.flat->patch.mesh.triangles) {
        Vec2 middle = Vec2::Zero();
        for (const int v : t) middle += sheet.flat->patch.skin[static_cast<std::size_t>(v)] / 3;
        EXPECT_GT((middle - Vec2(30, back - 0.8)).norm(), 1.7);
    }
}

TEST(WholeSheets, AWrapInThreeHoldsTheSameWindows) {
    const auto wrapOf = [](int sheets) {
        MaskSpec spec = specOf("full_body", {});
        spec.wish.values.set("sheets", static_cast<double>(sheets));
        return judgedFirst(ofElements({dotsAt("row", {16, 2}, 2, 6, 5)}, spec));
    };
    const MaskPtr one = wrapOf(1), three = wrapOf(3);
    ASSERT_EQ(one->sheets.size(), 1u);
    ASSERT_EQ(three->sheets.size(), 3u);
    for (std::size_t k = 0; k + 1 < 3; ++k)  // no skin between two sheets
        EXPECT_NEAR(three->sheets[k].flat->patch.high().x(), three->sheets[k + 1].flat->patch.low().x(),
                    0.05);
    // Parted where no dot is: each dot is whole, on both sides of the fish.
    std::size_t windows = 0;
    for (const Sheet& sheet : three->sheets) windows += sheet.windows.size();
    EXPECT_EQ(windows, 12u);
    for (const Sheet& sheet : three->sheets) EXPECT_GE(sheet.marks.size(), 4u);  // wider than long
    EXPECT_LT(three->report().landing.max_mm, 0.08);
    EXPECT_LT(three->report().strainFeasibleMax, one->report().strainFeasibleMax);
}

TEST(Stepped, ACardOfLikeMarksFitsWhereverItIsLaid) {
    MaskSpec spec = specOf("stepped", {}, "card");
    spec.wish.values.set("margin_mm", 3.0);
    const MaskPtr mask = judgedFirst(ofElements({dotsAt("row", {15, 2}, 2, 8, 4)}, spec));
    ASSERT_EQ(mask->sheets.size(), 1u);
    const Sheet& card = mask->sheets[0];
    EXPECT_EQ(card.windows.size(), 3u);  // 8 dots in three goes: 3, 3 and 2
    ASSERT_EQ(card.steps.size(), 3u);
    for (std::size_t k = 0; k < 3; ++k) {
        EXPECT_EQ(card.steps[k].number, int(k) + 1);
        EXPECT_EQ(card.steps[k].windows, k == 2 ? 2 : 3);
        EXPECT_NEAR(card.steps[k].first.x(), 15 + 12.0 * double(k), 0.6);
        EXPECT_LT(card.steps[k].off_mm, 0.1);
    }
    EXPECT_LT(card.steps[1].off_mm, 1e-6);  // it was cut for that place
    // The mark before it, 2 mm high, comes to lie between the ticks on its nose edge.
    ASSERT_EQ(card.ticks.size(), 2u);
    EXPECT_NEAR((card.ticks[1] - card.ticks[0]).norm(), 2, 0.1);
    const double nose = boxAround({card.outline}).low.x();
    for (const SheetPlace& tick : card.ticks) EXPECT_NEAR(tick.x(), nose, 0.3);
    EXPECT_NEAR(card.windows[0].centre.x() - nose, 4, 0.15);
}

TEST(Stepped, MarksThatGrowAreTold) {
    Element e;
    e.id = "row";
    e.dx_mm = 15;
    e.dg_mm = 2;
    shape(e, DotRow{6, 6, 5.5, 1, 0});
    const Job job = ofElements({std::make_shared<const Element>(e)}, specOf("stepped", {}, "card"));
    Derivations derived;
    const MaskResult result = derived.masks(job, 600).front();
    const std::vector<CardStep>& steps = (*need(result.mask)).sheets[0].steps;
    ASSERT_EQ(steps.size(), 3u);
    // Pairs of dots, 0.9 mm smaller each: of the first place 1.8 mm across, 0.9 mm at each rim.
    EXPECT_NEAR(steps[0].off_mm, 0.9, 0.15);
    EXPECT_TRUE(std::any_of(result.warnings.begin(), result.warnings.end(),
                            [](const Warning& w) { return w.code == "card_misfit"; }));
    MaskSpec many = specOf("stepped", {}, "card");
    many.wish.values.set("steps", 7.0);
    const Job wrong = ofElements({std::make_shared<const Element>(e)}, many);
    const Result<MaskPtr> refused = derived.mask(wrong, *maskSpecs(wrong).front(), 300);
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().code, "too_many_steps");
}

TEST(Marks, StandClearOfWindowsAndAreNoWorseForTheHand) {
    // Dots where the marks of a plain box would be: on its mid-line, 2.5 mm from its ends.
    MaskSpec spec = specOf("fitted", {});
    spec.wish.values.set("margin_mm", 2.0);
    const MaskPtr mask = judgedFirst(ofElements({dotsAt("row", {16, 0}, 1.6, 8, 3.5)}, spec));
    const Sheet& sheet = mask->sheets[0];
    for (const RegistrationMark& mark : sheet.marks)
        for (const Window& window : sheet.windows) {
            EXPECT_FALSE(contains(window.outline, mark.flat));
            for (const Vec2& p : window.outline) EXPECT_GT((p - mark.flat).norm(), 1.9) << mark.name;
        }
    // Near both ends all the same: the hand's 0.3 mm at each moves no window by much more.
    EXPECT_LT(sheet.report.hand_mm, 0.4);
    EXPECT_GT(sheet.report.hand_mm, 0.2);
}

TEST(Press, EveryWindowIsSprayedWhileItIsTight) {
    const SkinPtr skin = need(Derivations().skin(need(plainJob())));
    MaskSpec spec = specOf("fitted", {}, "film");
    const MaskPtr mask = judgedFirst(ofElements({dotsAt("row", {14, 2}, 2, 9, 4)}, spec));
    const Sheet& sheet = mask->sheets[0];
    ASSERT_FALSE(sheet.press.empty());
    std::set<int> sprayed;
    double last = -1e300;
    for (const PressArea& area : sheet.press) {
        EXPECT_LE(area.width_mm, 8);
        EXPECT_GT(area.x_mm, last);  // from the nose to the tail
        last = area.x_mm;
        EXPECT_EQ(area.fingers.size(), 2u);
        for (const int number : area.windows) {
            EXPECT_TRUE(sprayed.insert(number).second);
            const auto window = std::find_if(sheet.windows.begin(), sheet.windows.end(),
                                             [&](const Window& w) { return w.number == number; });
            ASSERT_NE(window, sheet.windows.end());
            EXPECT_GE(window->reach.low.x(), area.x_mm - 0.5 * area.width_mm - 1e-6);
            EXPECT_LE(window->reach.high.x(), area.x_mm + 0.5 * area.width_mm + 1e-6);
        }
        for (const PressArea::Finger& finger : area.fingers)
            for (const Window& window : sheet.windows) EXPECT_FALSE(contains(window.outline, finger.flat));
    }
    EXPECT_EQ(sprayed.size(), sheet.windows.size());
    // What sticks needs no fingers.
    EXPECT_TRUE(judgedFirst(ofElements({dotsAt("row", {14, 2}, 2, 9, 4)}, specOf("fitted", {})))
                    ->sheets[0]
                    .press.empty());
}

TEST(Press, OnACylinderEightMillimetresAreTightAndALongWindowTakesSeveralGoes) {
    const Skin skin = cylinder(9, 60);
    const auto windowAt = [&](int number, double x0, double x1) {
        Window w;
        w.number = number;
        w.skin = SkinPlace(0.5 * (x0 + x1), 0);
        w.reach = {{x0, -1}, {x1, 1}};
        return w;
    };
    // 7.9 mm go into one place, 8.1 mm do not.
    EXPECT_EQ(pressAreas(skin, {windowAt(1, 20, 22), windowAt(2, 25.9, 27.9)}).size(), 1u);
    EXPECT_EQ(pressAreas(skin, {windowAt(1, 20, 22), windowAt(2, 26.1, 28.1)}).size(), 2u);
    const std::vector<PressArea> goes = pressAreas(skin, {windowAt(1, 20, 40)});
    ASSERT_EQ(goes.size(), 3u);
    EXPECT_TRUE(goes[0].part);
    EXPECT_LE(goes[0].x_mm - 4, 20 + 1e-9);
    EXPECT_GE(goes[2].x_mm + 4, 40 - 1e-9);
    for (std::size_t i = 0; i + 1 < goes.size(); ++i) EXPECT_LT(goes[i + 1].x_mm - goes[i].x_mm, 8);
    EXPECT_EQ(numberList({1, 2, 3, 5, 7, 8}), "1-3, 5, 7, 8");
    EXPECT_EQ(pressSentence({2, 24, 6.3, {3, 4, 5}, false, {}}, 4).plain(),
              "2: press beside windows 3-5, 20 mm from the nose; 6.3 mm are tight. Spray them, let them dry, "
              "move on.");
}

/// Dots in a circle, touching: a piece of sheet stands free in the middle.
std::vector<ElementPtr> touchingDots() {
    std::vector<ElementPtr> ring;
    for (int i = 0; i < 10; ++i) {
        const double turn = 2 * kPi * i / 10;
        ring.push_back(
            dotsAt("d" + std::to_string(i), {28 + 4 * std::cos(turn), 1 + 4 * std::sin(turn)}, 3.2));
    }
    return ring;
}

TEST(Bridges, StandWhereTheyArePutAndAsWideAsAsked) {
    MaskSpec spec = specOf("fitted", {});
    spec.wish.bridges.width_mm = 1.2;
    spec.wish.bridges.at = {{28, 6}, {32.5, 1}, {24, -2}};  // above, towards the tail, below
    const MaskPtr mask = judgedFirst(ofElements(touchingDots(), spec));
    const Sheet& sheet = mask->sheets[0];
    ASSERT_EQ(sheet.bridges.size(), 3u);
    for (std::size_t k = 0; k < 3; ++k)
        EXPECT_LT((sheet.bridges[k].skin - spec.wish.bridges.at[k]).norm(), 2.5);
    ASSERT_EQ(sheet.windows.size(), 3u);  // three bridges part the ring in three
    double nearest = 1e300;
    for (std::size_t i = 0; i < 3; ++i)
        for (std::size_t k = 0; k < i; ++k)
            nearest = std::min(nearest, borderDistance(sheet.windows[i].outline, sheet.windows[k].outline));
    EXPECT_NEAR(nearest, 1.2, 0.06);
}

TEST(Bridges, LooseOnesAreToldAndStayIslands) {
    MaskSpec spec = specOf("fitted", {});
    spec.wish.bridges.loose = true;
    const Job job = ofElements(touchingDots(), spec);
    Derivations derived;
    const MaskResult result = derived.masks(job, 600).front();
    const Mask& mask = *need(result.mask);
    ASSERT_EQ(mask.sheets[0].windows.size(), 1u);
    EXPECT_EQ(mask.sheets[0].windows[0].islands.size(), 1u);
    EXPECT_TRUE(mask.sheets[0].bridges.empty());
    EXPECT_TRUE(std::any_of(result.warnings.begin(), result.warnings.end(),
                            [](const Warning& w) { return w.code == "loose_islands"; }));
}

TEST(Bridges, AreAsWideAsTheToolAsks) {
    const Job job = ofElements(touchingDots(), specOf("fitted", {}, "film"));
    CutChapter cut = job.get<CutChapter>();
    const auto narrowest = [&](const char* tool) {
        cut.tool = tool;
        const MaskPtr mask = judgedFirst(job.with(cut));
        const auto& windows = mask->sheets[0].windows;
        return windows.size() == 2 ? borderDistance(windows[0].outline, windows[1].outline) : -1.0;
    };
    EXPECT_NEAR(narrowest("plotter"), 0.6, 0.06);  // the film asks for more than the machine
    EXPECT_NEAR(narrowest("hot"), 1.0, 0.06);      // the hot tip for more than the film
}

TEST(MaskSpecs, CutOutsAndBridgesAreWrittenAndReadBack) {
    MaskSpec spec = specOf("butted", {"red-dots"});
    spec.cutouts = Cutouts::OnCarrier;
    spec.covers = Covers::InTurn;
    spec.wish.bridges = {true, 0.9, {{28, 6.5}}};
    Job job = withSpec(spec);
    MasksChapter masks = job.get<MasksChapter>();
    masks.billCover = true;
    job = job.with(masks);
    const std::string text = jobText(job);
    const Job again = need(parseJob(text, "f")).job;
    const MaskSpec& read = *maskSpecs(again).front();
    EXPECT_EQ(read.wish, maskSpecs(job).front()->wish);
    EXPECT_EQ(read.cutouts, Cutouts::OnCarrier);
    EXPECT_EQ(read.covers, Covers::InTurn);
    EXPECT_TRUE(again.get<MasksChapter>().billCover);
    EXPECT_EQ(jobText(again), text);
    const auto errorOf = [&](const std::string& from, const std::string& to) {
        std::string wrong = text;
        const auto at = wrong.find(from);
        EXPECT_NE(at, std::string::npos) << from;
        wrong.replace(at, from.size(), to);
        const auto bad = parseJob(wrong, "f");
        return bad ? std::string() : bad.error().code;
    };
    EXPECT_EQ(errorOf("\"carrier\"", "\"glued\""), "bad_value");
    EXPECT_EQ(errorOf("\"in_turn\"", "\"both\""), "bad_value");
    EXPECT_EQ(errorOf("\"width_mm\": 0.9", "\"width_mm\": 90"), "out_of_range");
    EXPECT_EQ(errorOf("28.0,", "\"x\","), "bad_value");
    // What covers by its cut-outs keeps them, whatever was said.
    spec.cutouts = Cutouts::Dropped;
    EXPECT_TRUE(spec.keepsCutouts());
    spec.covers = Covers::Sheet;
    EXPECT_FALSE(spec.keepsCutouts());
}

TEST(Pieces, KeptCutOutsCarryTheirNumbers) {
    MaskSpec spec = specOf("fitted", {});
    const std::vector<ElementPtr> marks{dotsAt("row", {16, 0}, 4, 4, 7)};
    const auto strokesInWindows = [&](const MaskSpec& s) {
        const Job job = ofElements(marks, s);
        const MaskPtr mask = judgedFirst(job);
        const std::vector<Piece> pieces = piecesOf(job, *maskSpecs(job).front(), *mask);
        std::vector<int> counts;
        for (const PieceWindow& window : pieces[0].windows) {
            int count = 0;
            for (const Polyline2& stroke : pieces[0].pen)
                count += std::all_of(stroke.begin(), stroke.end(),
                                     [&](const Vec2& p) { return contains(window.outline, p); });
            counts.push_back(count);
        }
        return counts;
    };
    EXPECT_EQ(strokesInWindows(spec), (std::vector<int>{0, 0, 0, 0}));
    spec.cutouts = Cutouts::Kept;
    for (const int count : strokesInWindows(spec)) EXPECT_GE(count, 1);
}

TEST(Pieces, ANickShowsTheSamePlaceOnBothSides) {
    MaskSpec spec = specOf("fitted", {"red-dots"});
    Job job = withSpec(spec);
    MaskSpec other = *maskSpecs(job).front();
    other.id = "r";
    other.side = Side::Right;
    job = withMasks(job, {maskSpecs(job).front(), std::make_shared<const MaskSpec>(other)});
    Derivations derived;
    std::vector<double> behind;
    for (const MaskSpecPtr& s : maskSpecs(job)) {
        const MaskPtr mask = need(derived.mask(job, *s, 900));
        const Piece piece = piecesOf(job, *s, *mask).front();
        const Polygon2& plain = mask->sheets[0].outline;
        const PolygonSet nick = subtracted({plain}, {piece.outline});
        ASSERT_EQ(nick.size(), 1u);
        EXPECT_NEAR(area(nick), 0.5 * 1.2 * 0.8, 0.1);  // a triangle 1.2 mm deep, 0.8 mm wide at the edge
        const double way = s->side == Side::Left ? 1 : -1;
        behind.push_back(way * (centroid(nick).x() - mask->sheets[0].marks.front().flat.x()));
        EXPECT_GT(centroid(nick).y(), mask->sheets[0].marks.front().flat.y());
    }
    EXPECT_NEAR(behind[0], behind[1], 1e-9);
    EXPECT_NEAR(behind[0], 0, 0.05);
}

TEST(BillCover, TwoLeavesMeetAtTheTip) {
    Job job = need(plainJob());
    ASSERT_TRUE(hasBill(job));
    const Landmark& bill = job.get<BlankChapter>().landmarks.at("bill_slot");
    const Piece cover = *billCover(job);
    const Box2 box = boxAround({cover.outline});
    EXPECT_NEAR(box.low.x(), 0, 1e-6);
    EXPECT_NEAR(box.size().x(), 2 * (bill.length_mm + 0.5), 1e-3);
    EXPECT_NEAR(box.size().y(), bill.width_mm + 2 * kBillCoverLap_mm, 0.05);
    // Folded, both leaves lie on each other.
    const double fold = bill.length_mm + 0.5;
    Polygon2 over = cover.outline;
    for (Vec2& p : over) p.x() = 2 * fold - p.x();
    std::reverse(over.begin(), over.end());
    EXPECT_NEAR(area(intersected({cover.outline}, {over})), area({cover.outline}), 0.01);
    // It is cut when it is asked for, and the pages know no mask of it.
    MasksChapter masks = job.get<MasksChapter>();
    masks.billCover = true;
    Derivations derived;
    const auto made = derived.masks(job, 300);
    const std::size_t without = need(cutPages(job, made)).pieces.size();
    job = job.with(masks);
    EXPECT_EQ(need(cutPages(job, made)).pieces.size(), without + 1);
    // No bill, no cover.
    BlankChapter blank = job.get<BlankChapter>();
    blank.landmarks.at("bill_slot").length_mm = 0;
    EXPECT_FALSE(billCover(job.with(blank)));
    EXPECT_FALSE(hasBill(job.with(blank)));
}

TEST(Windows, AHairOfSheetAtTheEdgeIsTold) {
    const Job job = need(loadJob(example("dock65-grayling.nineleaves.json"))).job;
    Derivations derived;
    for (const MaskSpecPtr& spec : maskSpecs(job)) {
        if (spec->id != "anal-L") continue;
        const MaskPtr mask = need(derived.cutOnly(job, *spec, Precision::Exact));
        const bool told = std::any_of(mask->warnings.begin(), mask->warnings.end(), [](const Warning& w) {
            return w.code == "thin_web" && w.text().find("edge") != std::string::npos;
        });
        EXPECT_TRUE(told);
    }
}

}  // namespace
}  // namespace nine
