// The scales chapter: kept in files, in step with masks and blank; what follows from it; cut scales.
#include "job/derive.h"
#include "job/net_job.h"
#include "job/net_picture.h"
#include "pattern/cut_scales.h"
#include "tests/bodies.h"
#include "tests/plain_job.h"

namespace nine {
namespace {

using test::need;

ScalesChapter someScales() {
    ScalesChapter s;
    s.net = *findNet("grid-2.0");
    s.doubled = true;
    s.second = {0.5, 0.25, 3};
    s.wish = {ScaleFrom::Count, 300, 85, 33, 1.7, 0.15};
    s.pull_n_m = 75;
    s.gather = Gather::Back;
    s.reach = {4, 50, 0.8};
    s.clips = {{8}, {20.5}, {40}};
    s.clip_mm = 5;
    s.allowed_mm = 0.7;
    s.usesLeft = 2;
    s.liftWet = true;
    s.netUnder = false;
    s.slant_deg = 67;
    s.from_deg = -90;
    s.foil = FoilWish{3.5, 25, 1, 5, BelowLateral::Diamonds};
    return s;
}

Skin skinOfJob(const Job& job) {
    return need(Skin::of(job.get<BlankChapter>().table));
}

TEST(ScalesChapter, ComesBackFromItsFileAsItWas) {
    Job job = need(test::plainJob()).with(someScales());
    const std::string text = jobText(job);
    const Job again = need(parseJob(text, "a.nineleaves.json")).job;
    EXPECT_EQ(jobText(again), text);
    const ScalesChapter &a = job.get<ScalesChapter>(), &b = again.get<ScalesChapter>();
    EXPECT_EQ(*a.net, *b.net);
    EXPECT_EQ(a.second, b.second);
    EXPECT_EQ(a.wish, b.wish);
    EXPECT_EQ(a.reach, b.reach);
    EXPECT_EQ(a.clips, b.clips);
    EXPECT_EQ(a.foil, b.foil);
    EXPECT_EQ(std::tuple(a.doubled, a.pull_n_m, a.gather, a.clip_mm, a.allowed_mm, a.usesLeft, a.liftWet,
                         a.netUnder, a.slant_deg, a.from_deg),
              std::tuple(b.doubled, b.pull_n_m, b.gather, b.clip_mm, b.allowed_mm, b.usesLeft, b.liftWet,
                         b.netUnder, b.slant_deg, b.from_deg));
    // Nothing is written of a job without scales.
    EXPECT_EQ(jobText(need(test::plainJob())).find("\"scales\""), std::string::npos);
}

TEST(ScalesChapter, WhatIsWrongIsNamedWithItsPlace) {
    const std::string plain = jobText(need(test::plainJob()));
    const auto codeOf = [&](const std::string& scales) {
        std::string text = plain;
        text.insert(text.rfind('}'), ", \"scales\": " + scales);
        const auto job = parseJob(text, "a");
        return job ? std::string("fine")
                   : job.error().code + job.error().where.substr(job.error().where.find(' '));
    };
    EXPECT_EQ(codeOf("{}"), "fine");
    EXPECT_EQ(codeOf(R"({"net": {"name": "x", "weave": "knitted"}})"), "bad_value scales.net.weave");
    EXPECT_EQ(codeOf(R"({"net": {"weave": "square"}})"), "missing scales.net.name");
    EXPECT_EQ(codeOf(R"({"net": {"name": "x", "strand_mm": 0}})"), "out_of_range scales.net.strand_mm");
    EXPECT_EQ(codeOf(R"({"clips": [1, "b"]})"), "bad_value scales.clips");
    EXPECT_EQ(codeOf(R"({"pull_n_m": -3})"), "out_of_range scales.pull_n_m");
    EXPECT_EQ(codeOf(R"({"gather": "side"})"), "bad_value scales.gather");
    EXPECT_EQ(codeOf(R"({"slant_deg": 89})"), "out_of_range scales.slant_deg");
    EXPECT_EQ(codeOf(R"({"foil": {"width_mm": 0}})"), "out_of_range scales.foil.width_mm");
    EXPECT_EQ(codeOf(R"({"wish": {"fish_count": 0}})"), "out_of_range scales.wish.fish_count");
    EXPECT_EQ(codeOf(R"({"mask": "nobody"})"), "unknown_mask scales.mask");
    EXPECT_EQ(codeOf(R"({"hook": "third_hanger"})"), "no_hanger scales.hook");
    EXPECT_EQ(codeOf(R"({"reach": [1, 2]})"), "bad_value scales.reach");
}

TEST(ScalesChapter, WhatCouldNotBeReadAgainIsNoJob) {
    const Job plain = need(test::plainJob());
    const auto where = [&](const std::function<void(ScalesChapter&)>& edit) {
        ScalesChapter s = someScales();
        s.mask.clear();
        edit(s);
        const Status ok = checkJob(plain.with(s));
        return ok ? std::string("fine") : ok.error().where;
    };
    EXPECT_EQ(where([](ScalesChapter&) {}), "fine");
    EXPECT_EQ(where([](ScalesChapter& s) { s.wish.fishCount = 0; }), "scales.wish.fish_count");
    EXPECT_EQ(where([](ScalesChapter& s) { s.wish.tolerance = -1; }), "scales.wish.tolerance");
    EXPECT_EQ(where([](ScalesChapter& s) { s.net->strand_mm = 0; }), "scales.net.strand_mm");
    EXPECT_EQ(where([](ScalesChapter& s) { s.pull_n_m = 0; }), "scales.pull_n_m");
    EXPECT_EQ(where([](ScalesChapter& s) { s.clip_mm = 1e9; }), "scales.clip_mm");
    EXPECT_EQ(where([](ScalesChapter& s) { s.allowed_mm = std::nan(""); }), "scales.allowed_mm");
    EXPECT_EQ(where([](ScalesChapter& s) { s.slant_deg = 89; }), "scales.slant_deg");
    EXPECT_EQ(where([](ScalesChapter& s) { s.reach.downTo = 0; }), "scales.reach");
    EXPECT_EQ(where([](ScalesChapter& s) { s.foil->width_mm = -1; }), "scales.foil.width_mm");
}

TEST(ScalesChapter, KeysOfLaterVersionsAreKept) {
    std::string text = jobText(need(test::plainJob()));
    text.insert(
        text.rfind('}'),
        R"(, "scales": {"net": {"name": "x", "gloss": 3}, "glue": [1], "foil": {"hue": 2}, "wish": {"moon": 1}})");
    const std::string kept = jobText(need(parseJob(text, "a")).job);
    for (const char* key : {"\"gloss\": 3", "\"glue\": [1]", "\"hue\": 2", "\"moon\": 1"})
        EXPECT_NE(kept.find(key), std::string::npos) << key;
}

TEST(ScalesChapter, AMaskThatGoesIsNamedNoMore) {
    ScalesChapter s = someScales();
    Job job = need(test::plainJob());
    s.mask = maskSpecs(job).front()->id;
    job = job.with(s);
    ASSERT_TRUE(checkJob(job));
    EXPECT_EQ(inStep(job).get<ScalesChapter>().mask, s.mask);
    job = inStep(withMasks(job, {}));
    PatternChapter none;
    job = inStep(job.with(none).with(MasksChapter{}).with(SprayChapter{}));
    EXPECT_EQ(job.get<ScalesChapter>().mask, "");
    EXPECT_TRUE(checkJob(job));
}

TEST(NetOfJob, IsLaidFlaggedAndMendedByTheClipItOffers) {
    Job job = need(test::plainJob());
    const Skin skin = skinOfJob(job);
    EXPECT_EQ(netOnBody(job, skin).error().code, "no_net");
    ScalesChapter s;
    s.net = *findNet("tulle-1.6");
    s.clips = {{14}, {56}};
    job = job.with(s);
    NetOnBody net = need(netOnBody(job, skin));
    ASSERT_TRUE(net.clipped);
    double worst = net.clipped->worst.most_mm;
    int mended = 0;
    for (int round = 0; round < 6; ++round) {
        const auto flag = std::find_if(net.flags.begin(), net.flags.end(),
                                       [](const NetFlag& f) { return f.clip.has_value(); });
        if (flag == net.flags.end()) break;
        EXPECT_TRUE(flag->fault);
        s.clips.push_back(*flag->clip);
        std::sort(s.clips.begin(), s.clips.end(),
                  [](const Clip& a, const Clip& b) { return a.x_mm < b.x_mm; });
        job = job.with(s);
        net = need(netOnBody(job, skin, kDrapeSpacing_mm, net.drape));
        ASSERT_FALSE(net.clipError) << net.clipError->text();
        ++mended;
    }
    EXPECT_GE(mended, 2);
    EXPECT_LT(net.clipped->worst.most_mm, worst);
    // A clip on the hanger is refused with its place.
    const auto clear = clearOfFittings(job, skin);
    ASSERT_FALSE(clear.empty());
    s.clips = {{0.5 * (clear.back().first + clear.back().second)}};
    net = need(netOnBody(job.with(s), skin, kDrapeSpacing_mm, net.drape));
    ASSERT_TRUE(net.clipError);
    EXPECT_EQ(net.clipError->code, "clip_in_the_way");
    EXPECT_EQ(net.clipError->where, "scales.clips[0]");
}

TEST(NetOfJob, AKnownDrapeIsKeptOnlyForTheSameWish) {
    Job job = need(test::plainJob());
    const Skin skin = skinOfJob(job);
    ScalesChapter s;
    s.net = *findNet("tulle-1.6");
    job = job.with(s);
    const DrapePtr first = need(netOnBody(job, skin)).drape;
    s.clips = {{14}, {38}};
    EXPECT_EQ(need(netOnBody(job.with(s), skin, kDrapeSpacing_mm, first)).drape, first);
    s.pull_n_m = 200;
    EXPECT_NE(need(netOnBody(job.with(s), skin, kDrapeSpacing_mm, first)).drape, first);
}

TEST(NetOfJob, AHookInsideEndsTheNetThere) {
    Job job = need(test::plainJob());
    const Skin skin = skinOfJob(job);
    ScalesChapter s;
    s.net = *findNet("tulle-1.6");
    s.hook = "belly_hanger";
    ASSERT_TRUE(job.get<BlankChapter>().landmarks.count("belly_hanger"));
    job = job.with(s);
    const double x = job.get<BlankChapter>().landmarks.at("belly_hanger").points.front().x();
    EXPECT_NEAR(need(netOnBody(job, skin)).drape->grid.x_mm.back(), x, 1e-9);
}

TEST(NetOfJob, ALayerLaidExactlyOnTheFirstIsTold) {
    Job job = need(test::plainJob());
    const Skin skin = skinOfJob(job);
    ScalesChapter s;
    s.net = *findNet("tulle-1.6");
    s.doubled = true;
    s.second = {0, 0, 0};
    const auto told = [&] {
        const NetOnBody net = need(netOnBody(job.with(s), skin));
        return std::any_of(net.flags.begin(), net.flags.end(), [](const NetFlag& f) {
            return f.words.plain().find("exactly on the first") != std::string::npos;
        });
    };
    EXPECT_TRUE(told());
    s.second = {0.9, 0, 0};
    EXPECT_FALSE(told());
}

TEST(NetOfJob, StepsTakeTheMaskOffInTheOrderItWentOn) {
    Job job = need(test::plainJob());
    ScalesChapter s;
    s.net = *findNet("craft-2.0");
    s.clips = {{14}, {38}};
    s.mask = maskSpecs(job).front()->id;
    const auto order = [&](bool under) {
        s.netUnder = under;
        std::string text;
        for (const Words& step : netSteps(job.with(s), {})) text += step.plain() + "\n";
        return text;
    };
    const std::string under = order(true), over = order(false);
    EXPECT_LT(under.find("Hook it"), under.find("over it"));
    EXPECT_LT(under.find("off first, then the net"), under.find("pull the net off briskly"));
    EXPECT_LT(over.find("on first"), over.find("Hook it"));
    EXPECT_LT(over.find("pull the net off briskly"), over.find("off last"));
    for (const std::string& text : {under, over}) EXPECT_NE(text.find("respirator"), std::string::npos);
    EXPECT_NE(under.find("off first, then"), std::string::npos);
    EXPECT_NE(over.find("off last"), std::string::npos);
}

TEST(NetPicture, AsMuchIsSprayedAsTheNetIsOpenAndNothingBeyondIt) {
    const Skin skin = test::cylinder(11, 80);
    DrapeWish wish;
    wish.net = *findNet("grid-2.0");
    wish.pull_n_m = kLeastPull_n_m;
    wish.reach = {10, 60, 1};
    const DrapePtr laid = need(drape(skin, wish));
    const DrawnBody body = drawBody(skin);
    const Image bare{1200, 900, std::vector<std::uint32_t>(1200 * 900, 0xFFFFFFFF)};
    const auto sprayed = [&](const Image& image, double from, double to) {
        int all = 0, dark = 0;
        for (int row = 0; row < image.height; ++row) {
            const double x = body.skinAt({0.0, static_cast<double>(row) / (image.height - 1)}).x_mm;
            if (x < from || x > to) continue;
            for (int c = 0; c < image.width; ++c, ++all) dark += image.at(c, row) == 0xFF000000;
        }
        return static_cast<double>(dark) / all;
    };
    const Image one = netSprayed(bare, body, skin, *laid, false, {}, 0xFF000000, 1);
    EXPECT_NEAR(sprayed(one, 15, 55), openShare(wish.net), 0.02);
    EXPECT_EQ(sprayed(one, 0, 9), 0);
    EXPECT_EQ(sprayed(one, 61, 80), 0);
    const Image two = netSprayed(bare, body, skin, *laid, true, {1, 1, 0}, 0xFF000000, 1);
    EXPECT_NEAR(sprayed(two, 15, 55), std::pow(1 - 2 * wish.net.strand_mm / 2.0, 2),
                0.03);  // strands half way between
}

TEST(ClipStrip, TicksStandAtArcsAlongTheBelly) {
    // On a cylinder the belly line is as long as the axis.
    Job job = need(test::plainJob());
    BlankChapter blank;
    blank.name = "Cylinder";
    for (const double x : {0.0, 30.0, 60.0, 90.0}) blank.table.stations.push_back(test::round(x, 12));
    ScalesChapter s;
    s.net = *findNet("tulle-1.6");
    s.clips = {{10}, {40.5}, {80}};
    job = Job().with(blank).with(s);
    const Drawing page = clipStrip(job, skinOfJob(job));
    std::vector<double> at;
    const double foot = page.layers[0].lines[0].points[0].x();
    for (const DrawnLine& line : page.layers[1].lines)
        if (line.points.size() == 2 && line.points[0].x() == line.points[1].x() &&
            line.points[1].y() - line.points[0].y() == 6)
            at.push_back(line.points[0].x() - foot);
    ASSERT_EQ(at.size(), 3u);
    EXPECT_NEAR(at[0], 10, 1e-3);
    EXPECT_NEAR(at[1], 40.5, 1e-3);
    EXPECT_NEAR(at[2], 80, 1e-3);
    EXPECT_NEAR(page.layers[0].lines[0].points[1].x() - foot, 90, 1e-3);
}

TEST(CutScales, OnACylinderAreAsAskedAndCounted) {
    const Skin skin = test::cylinder(12, 90);
    const Element element = cutScalesElement(5, 1.5, 0.8);
    EXPECT_TRUE(isCutScales(element));
    const CutScales read = need(readCutScales(skin, {}, element));
    EXPECT_NEAR(read.aspect_min, 1, 2e-3);
    EXPECT_NEAR(read.aspect_max, 1, 2e-3);
    // A lozenge of 5 by 7.5 moved in by 0.4: both diagonals shorter by 0.8 / sin and / cos of the half angle.
    const double half = std::atan(1.5), a = 5 - 0.8 / std::sin(half), b = 7.5 - 0.8 / std::cos(half);
    EXPECT_NEAR(read.opening_min, a * b / (5 * 7.5), 5e-3);
    EXPECT_NEAR(read.narrowest_mm, std::min(a, b), 0.02);
    EXPECT_NEAR(read.cellsAlongLateral, 90 / 5 - 1, 1);
    // Area: cells are half of 5 x 7.5 each; whole ones only, so a row or two fewer.
    const double all = 90 * kPi * 12 / (0.5 * 5 * 7.5);
    EXPECT_LT(read.cells, all);
    EXPECT_GT(read.cells, 0.8 * all);
}

TEST(CutScales, RoundEdgesPointToTheTailAndGetSmallerThere) {
    const Skin skin = test::sampleSkin("reed118");
    Element element = cutScalesElement(4, 1.2, 0.6);
    element.values = usualValues(*findKind(element.kind));
    element.values.set("shape", std::string("half_moon"));
    element.values.set("pitch_mm", 4.5);
    element.values.set("tail", 0.5);
    const Landmarks none;
    const DrawOn on{.skin = skin,
                    .landmarks = none,
                    .origin = Vec2::Zero(),
                    .shift_mm = Vec2::Zero(),
                    .fineness = Fineness::Cut,
                    .path = "e"};
    const Drawn drawn = need(findKind(element.kind)->draw(on, element));
    ASSERT_GT(drawn.passes[0].outlines.size(), 30u);
    double ahead = 0, behind = 0;
    int aheadCount = 0, behindCount = 0;
    for (const Outline& o : drawn.passes[0].outlines) {
        double low = 1e9, high = -1e9, g0 = 1e9, g1 = -1e9;
        for (const Vec2& p : o.skin) {
            low = std::min(low, p.x());
            high = std::max(high, p.x());
            g0 = std::min(g0, p.y());
            g1 = std::max(g1, p.y());
        }
        // A crescent's tips lie nearer to the nose than its middle.
        double tips = 0, middles = 0;
        int tipCount = 0, middleCount = 0;
        for (const Vec2& p : o.skin) {
            const double t = std::abs((p.y() - 0.5 * (g0 + g1)) / (0.5 * (g1 - g0)));
            if (t > 0.8) tips += p.x(), ++tipCount;
            if (t < 0.3) middles += p.x(), ++middleCount;
        }
        if (tipCount && middleCount && g1 - g0 > 2) {
            EXPECT_LT(tips / tipCount, middles / middleCount);
        }
        const bool front = o.centre.x() < skin.noseX_mm() + 0.4 * skin.length_mm();
        (front ? ahead : behind) += g1 - g0;
        ++(front ? aheadCount : behindCount);
    }
    ASSERT_GT(aheadCount, 5);
    ASSERT_GT(behindCount, 5);
    EXPECT_GT(ahead / aheadCount, 1.15 * behind / behindCount);
}

TEST(CutScales, ASecondColourGoesThroughTheSameWindows) {
    const Skin skin = test::sampleSkin("dock65");
    Element element = cutScalesElement(4, 1.3, 0.6);
    element.values.set("split", 0.5);
    const Landmarks none;
    const DrawOn on{.skin = skin,
                    .landmarks = none,
                    .origin = Vec2::Zero(),
                    .shift_mm = Vec2::Zero(),
                    .fineness = Fineness::Cut,
                    .path = "e"};
    const Drawn drawn = need(findKind(element.kind)->draw(on, element));
    ASSERT_EQ(drawn.passes.size(), 2u);
    EXPECT_LT(drawn.passes[1].outlines.size(), drawn.passes[0].outlines.size());
    EXPECT_EQ(drawn.passes[1].shift_mm, Vec2::Zero());
    for (const Outline& lower : drawn.passes[1].outlines) {
        const SectionArc arc = skin.arcAt(lower.centre.x());
        EXPECT_LT(lower.centre.y(), 0.5 * (arc.backArc_mm() - arc.bellyArc_mm()) + 1);
        EXPECT_TRUE(std::any_of(drawn.passes[0].outlines.begin(), drawn.passes[0].outlines.end(),
                                [&](const Outline& o) { return (o.centre - lower.centre).norm() < 1e-9; }));
    }
}

TEST(CutScales, ACardMovedAlongTheBodyKeepsTheirPhase) {
    // On a cylinder a lattice that is not graded repeats: the card fits everywhere.
    BlankChapter blank;
    blank.name = "Cylinder";
    for (const double x : {0.0, 30.0, 60.0, 90.0}) blank.table.stations.push_back(test::round(x, 12));
    Element scales = cutScalesElement(5, 1.2, 0.8);
    scales.values.set("from_length", 0.1);
    scales.values.set("to_length", 0.9);
    scales.values.set("from_girth", 0.3);
    scales.values.set("to_girth", 0.7);
    PatternChapter pattern;
    pattern.elements.push_back(std::make_shared<const Element>(scales));
    MaskSpec spec;
    spec.id = "m";
    spec.wish.elements = {scales.id};
    spec.wish.kind = maskKinds().back()->id();
    spec.wish.material = "vinyl";
    spec.wish.values = usualValues(maskKinds().back()->params());
    const Job job = withMasks(Job().with(blank).with(pattern), {std::make_shared<const MaskSpec>(spec)});
    Derivations derived;
    const MaskPtr mask = need(derived.mask(job, *maskSpecs(job).front(), 900));
    ASSERT_GE(mask->sheets[0].steps.size(), 2u);
    for (const CardStep& step : mask->sheets[0].steps) EXPECT_LT(step.off_mm, 0.1) << step.number;
}

TEST(CutScales, WhatIsSmallerThanItsWebIsTold) {
    const Skin skin = test::sampleSkin("dock65");
    EXPECT_EQ(readCutScales(skin, {}, cutScalesElement(1, 1, 3)).error().code, "fits_nowhere");
    EXPECT_EQ(readCutScales(skin, {}, cutScalesElement(0.1, 1, 0.5)).error().code, "out_of_range");
    EXPECT_EQ(readCutScales(skin, {}, cutScalesElement(0.8, 1, 0.2)).error().code, "too_many");
}

}  // namespace
}  // namespace nine
