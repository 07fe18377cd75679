// What holds for every kind of element, whatever it is.
#include "pattern/kinds.h"

#include <gtest/gtest.h>

#include <nlohmann/json.hpp>
#include <set>

#include "base/rng.h"
#include "geom/polygon_set.h"
#include "job/job_file.h"
#include "pattern/art.h"
#include "tests/bodies.h"

namespace nine {
namespace {

using namespace test;

/// An element of a kind where it can lie on the sample bodies.
Element placed(const Kind& kind, const Skin& skin) {
    Element e;
    e.id = "it";
    e.kind = kind.id();
    e.values = usualValues(kind);
    e.anchor = kind.alongCurve();
    e.linked = !kind.isCentral(e.values);
    if (kind.hasOrigin()) e.dx_mm = e.anchor.empty() ? 0.3 * skin.length_mm() : 1;
    // On slim bodies there is less room than on the sheet a kind is thought for.
    const Param* count = findParam(kind, "count");
    if (count && e.anchor.empty()) e.values.set("count", 3.0);
    return e;
}

Landmarks marksOn(const Skin& skin, const Kind& kind) {
    Landmarks landmarks;
    if (kind.alongCurve().empty()) return landmarks;
    const double x = 0.35 * skin.length_mm();
    const SectionArc arc = skin.arcAt(x);
    landmarks[std::string(kind.alongCurve())].points = {
        {x, 0.6 * arc.backArc_mm()}, {x + 1, 0}, {x, -0.6 * arc.bellyArc_mm()}};
    return landmarks;
}

/// Drawn, and what it is derived from if it is: a plain patch in the middle of the side.
Result<ElementArt> drawn(const Kind& kind, const Skin& skin, const Element& e) {
    if (!kind.isDerived()) return drawElement(skin, marksOn(skin, kind), e, "e");
    Element source;
    source.id = "source";
    source.kind = "oval_patch";
    source.values = usualValues(*findKind("oval_patch"));
    source.dx_mm = 0.4 * skin.length_mm();
    const ElementArt art = need(drawElement(skin, {}, source, "s"));
    DrawWith with;
    with.source = &art;
    return drawElement(skin, {}, e, "e", Fineness::Cut, with);
}

/// Closed, on the skin, running the right way round and nowhere over itself.
void expectSound(const Skin& skin, const ElementArt& art, const std::string& what) {
    for (const Pass& pass : art.passes) {
        for (const Outline& outline : pass.outlines) {
            ASSERT_GE(outline.skin.size(), 3u) << what;
            ASSERT_EQ(outline.points.size(), outline.skin.size()) << what;
            const double enclosed = polygonArea(outline.skin);
            EXPECT_EQ(enclosed < 0, outline.hole) << what;
            EXPECT_NEAR(std::abs(area(united({outline.skin}))), std::abs(enclosed),
                        2e-3 + 1e-4 * std::abs(enclosed))
                << what << " crosses itself at " << outline.centre.transpose();
            for (std::size_t i = 0; i < outline.skin.size(); ++i) {
                const SkinPoint at{Side::Left, outline.skin[i].x(), outline.skin[i].y()};
                ASSERT_TRUE(skin.check(at, "")) << what << " " << outline.skin[i].transpose();
                EXPECT_LT((skin.at(at).position - outline.points[i].position).norm(), 2e-4) << what;
            }
        }
        if (!pass.cover) continue;
        for (double x = skin.noseX_mm() + 0.5; x < skin.tailX_mm(); x += 1.3) {
            const SectionArc arc = skin.arcAt(x);
            for (double g = -arc.bellyArc_mm(); g <= arc.backArc_mm(); g += 0.7) {
                const double share = pass.cover(x, g);
                ASSERT_TRUE(share >= 0 && share <= 1) << what << " " << x << " " << g;
            }
        }
    }
}

Job jobWith(const Element& e) {
    const std::string path = plainJobPath();
    Job job = need(loadJob(path)).job;
    PatternChapter pattern;
    pattern.elements = {std::make_shared<const Element>(e)};
    job = job.with(pattern);
    job = job.with(SprayChapter{});
    return withMasks(job, {});
}

class EveryKind : public testing::TestWithParam<const Kind*> {
  protected:
    const Kind& kind = *GetParam();
};

TEST_P(EveryKind, HasKeysOfItsOwnAndUsualValuesWithinLimits) {
    std::set<std::string_view> keys;
    for (const Param& p : kind.params()) {
        EXPECT_TRUE(keys.insert(p.key).second) << p.key;
        EXPECT_FALSE(p.name.empty()) << p.key;
        EXPECT_TRUE(p.type != Param::Type::Length || p.key.ends_with("_mm")) << p.key;
        EXPECT_TRUE(p.type != Param::Type::Angle || p.key.ends_with("_deg")) << p.key;
        EXPECT_EQ(p.type == Param::Type::Choice, !p.choices.empty()) << p.key;
        EXPECT_TRUE(p.usualFrom.empty() || findParam(kind, p.usualFrom)) << p.key;
    }
    need(checkValues(kind, usualValues(kind), "e"));
    EXPECT_EQ(findKind(kind.id()), &kind);
}

/// Both ends of every limit are taken, one step beyond is refused with its path.
TEST_P(EveryKind, KeepsItsLimits) {
    for (const Param& p : kind.params()) {
        if (!p.isNumber()) continue;
        const double step = p.isWhole() ? 1 : 1e-3;
        for (const auto& [value, inside] :
             {std::pair{p.low, true}, {p.high, true}, {p.low - step, false}, {p.high + step, false}}) {
            Values values = usualValues(kind);
            values.set(p.key, value);
            const Status ok = checkValues(kind, values, "e");
            // The kind's own rules may refuse a pair of values that each lie within limits.
            const bool limits = ok || ok.error().words.pattern() !=
                                          Pattern("{name} is {value}; it must lie between {low} and {high}.");
            EXPECT_EQ(limits, inside) << p.key << " " << value;
            EXPECT_TRUE(inside || ok.error().where == "e." + std::string(p.key)) << p.key;
        }
        Values odd = usualValues(kind);
        odd.set(p.key, std::nan(""));
        EXPECT_FALSE(checkValues(kind, odd, "e")) << p.key;
    }
}

TEST_P(EveryKind, TakesOnlyTextsAndPathsThatMeanSomething) {
    for (const Param& p : kind.params()) {
        if (p.isNumber() || p.type == Param::Type::Colour) continue;
        std::vector<ParamValue> wrong{std::string("no such thing, and far longer than forty letters may be"),
                                      std::string()};
        if (p.type == Param::Type::Path)
            wrong = {Polyline2{{0, 0}, {1, 0}}, Polyline2{{0, 0}, {1, 0}, {std::nan(""), 1}},
                     Polyline2(kMostPathPlaces + 1, Vec2(1, 1))};
        for (const ParamValue& value : wrong) {
            Values values = usualValues(kind);
            values.set(p.key, value);
            const Status ok = checkValues(kind, values, "e");
            ASSERT_FALSE(ok) << p.key;
            EXPECT_EQ(ok.error().where, "e." + std::string(p.key));
        }
    }
}

/// What a file says comes back, and what it leaves out takes its usual value.
TEST_P(EveryKind, GoesThroughAFile) {
    Element e = placed(kind, sphere(10));
    const auto tryValue = [&](std::string_view key, ParamValue value) {
        Values values = e.values;
        values.set(key, std::move(value));
        if (checkValues(kind, values, "e")) e.values = std::move(values);
    };
    for (const Param& p : kind.params()) {
        if (p.isWhole()) tryValue(p.key, p.usual + 1);
        if (p.isNumber() && !p.isWhole()) tryValue(p.key, 0.75 * p.usual + 0.25 * std::min(p.high, 9.5));
        if (p.type == Param::Type::Choice) tryValue(p.key, std::string(p.choices.back().id));
        if (p.type == Param::Type::Letters) tryValue(p.key, std::string("Æ 7\"{"));
        if (p.type == Param::Type::Path) tryValue(p.key, Polyline2{{0, 0}, {2.125, 0}, {1, -3.3}});
    }
    e.of = "other";
    e.clearOf = {"a", "b"};
    e.clear_mm = 0.4;
    e.ownSides = e.locked = true;
    e.group = "fins";
    e.rules = {{"dx_mm", Refit::Fixed}, {"dg_mm", Refit::WithGirthRoot}};
    Home home{60, 90, 1.5, -2, e.values, e.dx_mm, e.dg_mm, e.values};
    for (const Param& p : kind.params())
        if (p.isNumber() && !p.isWhole()) home.values.set(p.key, 0.5 * (p.usual + p.low));
    e.home = std::make_shared<const Home>(home);
    const std::string text = jobText(jobWith(e));
    const LoadedJob read = need(parseJob(text, "f"));
    const Element& back = *read.job.get<PatternChapter>().elements[0];
    EXPECT_EQ(back.values, e.values);
    EXPECT_EQ(back.of, e.of);
    EXPECT_EQ(back.clearOf, e.clearOf);
    EXPECT_EQ(back.clear_mm, e.clear_mm);
    EXPECT_TRUE(back.ownSides && back.locked);
    EXPECT_EQ(back.group, e.group);
    EXPECT_EQ(back.rules, e.rules);
    ASSERT_TRUE(back.home);
    EXPECT_EQ(*back.home, home);
    EXPECT_EQ(jobText(read.job), text);
    auto bare = nlohmann::json::parse(text);
    bare["pattern"]["elements"] = {{{"id", "it"}, {"kind", std::string(kind.id())}}};
    const LoadedJob usual = need(parseJob(bare.dump(), "f"));
    for (const Param& p : kind.params()) {
        const Values& values = usual.job.get<PatternChapter>().elements[0]->values;
        ASSERT_TRUE(values.find(p.key)) << p.key;
        const Param& from = p.usualFrom.empty() ? p : *findParam(kind, p.usualFrom);
        EXPECT_EQ(*values.find(p.key), usualValue(from)) << p.key;
    }
}

TEST_P(EveryKind, IsDrawnOnEveryBodyTheSameTwice) {
    for (const char* name : kSamples) {
        const Skin skin = sampleSkin(name);
        const Element e = placed(kind, skin);
        const ElementArt art = need(drawn(kind, skin, e));
        const ElementArt again = need(drawn(kind, skin, e));
        ASSERT_FALSE(art.passes.empty()) << name;
        ASSERT_TRUE(!art.outlines().empty() || art.passes.front().cover) << name;
        EXPECT_TRUE(!kind.isCut() || !art.outlines().empty()) << name;
        expectSound(skin, art, name);
        ASSERT_EQ(art.outlines().size(), again.outlines().size());
        for (std::size_t i = 0; i < art.outlines().size(); ++i) {
            EXPECT_EQ(art.outlines()[i].skin, again.outlines()[i].skin) << name;
            for (const Vec2& p : art.outlines()[i].skin) {
                EXPECT_TRUE((p.array() >= art.low.array() - 1e-9).all());
                EXPECT_TRUE((p.array() <= art.high.array() + 1e-9).all());
            }
        }
    }
    const ElementArt small = need(thumbnailOf(kind));
    EXPECT_TRUE(!small.outlines().empty() || small.passes.front().cover);
}

/// Any values within limits, on any body: sound outlines, or a sentence that says why not.
TEST_P(EveryKind, IsSoundForAnyValues) {
    const int trials = kind.isSlow() ? 4 : 14;
    int sound = 0;
    for (int trial = 0; trial < trials; ++trial) {
        Rng rng(scrambled(static_cast<std::uint64_t>(trial) + 1000 * kind.id().size()) + kind.id()[0]);
        const double r = rng.between(6, 16), length = rng.between(45, 120);
        const Skin skin = trial % 3 == 0   ? cylinder(r, length)
                          : trial % 3 == 1 ? spheroid(r, 0.5 * length)
                                           : sampleSkin(kSamples[rng.next() % 5]);
        Element e = placed(kind, skin);
        for (const Param& p : kind.params()) {
            if (p.type == Param::Type::Choice)
                e.values.set(p.key, std::string(p.choices[rng.next() % p.choices.size()].id));
            if (!p.isNumber() || p.key == "count") continue;
            const double wide = std::max(0.35 * std::abs(p.usual), 0.02 * std::min(10.0, p.high - p.low));
            double v = std::clamp(p.usual + wide * rng.between(-1, 1), p.low, p.high);
            if (p.isWhole()) v = std::round(v);
            Values values = e.values;
            values.set(p.key, v);
            if (checkValues(kind, values, "e")) e.values = std::move(values);
        }
        const Result<ElementArt> art = drawn(kind, skin, e);
        const std::string what = std::string(kind.id()) + " trial " + std::to_string(trial);
        if (!art) {
            EXPECT_TRUE(art.error().code == "off_body" || art.error().code == "fits_nowhere" ||
                        art.error().code == "out_of_range")
                << what << " " << art.error().code;
            EXPECT_FALSE(art.error().words.plain().empty());
            continue;
        }
        ++sound;
        expectSound(skin, *art, what);
        // What a file keeps draws the same.
        const LoadedJob read = need(parseJob(jobText(jobWith(e)), "f"));
        const ElementArt again = need(drawn(kind, skin, *read.job.get<PatternChapter>().elements[0]));
        ASSERT_EQ(again.outlines().size(), art->outlines().size()) << what;
        for (std::size_t i = 0; i < art->outlines().size(); ++i)
            EXPECT_EQ(again.outlines()[i].skin, art->outlines()[i].skin) << what;
    }
    EXPECT_GE(2 * sound, trials) << "drawn too seldom to say much";
}

/// A handle stands on its mark, changes what it says it changes and nothing else, and goes with the hand.
TEST_P(EveryKind, HandlesChangeWhatTheySay) {
    const Skin skin = cylinder(12, 90);
    const Element e = placed(kind, skin);
    const ElementArt art = need(drawn(kind, skin, e));
    for (const auto& [key, ignored] : art.places) {
        const bool node = key[0] >= '0' && key[0] <= '9';  // places of a path are no handles of the kind
        EXPECT_TRUE(node || std::any_of(kind.handles().begin(), kind.handles().end(),
                                        [&, place = key](const Handle& h) { return h.key == place; }))
            << key;
    }
    for (const Handle& handle : kind.handles()) {
        const std::optional<Vec2> at = art.place(handle.key);
        ASSERT_TRUE(at) << handle.key;
        Element moved = e;
        const Vec2 by(0.4, -0.3);
        moveHandle(handle, moved, by, {skin, marksOn(skin, kind)});
        const auto changes = [&](std::string_view key) {
            return std::find(handle.changes.begin(), handle.changes.end(), key) != handle.changes.end() ||
                   std::any_of(handle.moves.begin(), handle.moves.end(),
                               [&](const HandleMove& m) { return m.key == key; });
        };
        bool any = false;
        for (const Param& p : kind.params()) {
            const bool same = *moved.values.find(p.key) == *e.values.find(p.key);
            EXPECT_TRUE(same || changes(p.key)) << handle.key << " " << p.key;
            any = any || !same;
        }
        EXPECT_TRUE(moved.dx_mm == e.dx_mm || changes("dx_mm")) << handle.key;
        EXPECT_TRUE(moved.dg_mm == e.dg_mm || changes("dg_mm")) << handle.key;
        any = any || moved.dx_mm != e.dx_mm || moved.dg_mm != e.dg_mm;
        EXPECT_TRUE(any) << handle.key;
        const ElementArt then = need(drawn(kind, skin, moved));
        const Vec2 went = *then.place(handle.key) - *at;
        // Nearer to the hand than before, along what it moves.
        EXPECT_LT((went - by).norm(), by.norm()) << handle.key << " went " << went.transpose();
    }
}

TEST_P(EveryKind, FollowsTheBodyByItsRules) {
    Element usual;
    usual.kind = kind.id();
    usual.values = usualValues(kind);
    const Element larger = refitted(usual, 1.25, 1.5, 0, 0);
    for (const Param& p : kind.params()) {
        if (!p.isNumber()) continue;
        const double factor = p.refit == Refit::Fixed        ? 1
                              : p.refit == Refit::WithLength ? 1.25
                              : p.refit == Refit::WithGirth  ? 1.5
                                                             : 1.224744871391589;
        EXPECT_NEAR(larger.values.number(p.key), factor * usual.values.number(p.key), 1e-12) << p.key;
    }
    // A painter's own rule goes before the kind's.
    for (const Param& p : kind.params()) {
        if (!p.isNumber() || p.isWhole()) continue;
        Element ruled = usual;
        ruled.rules[std::string(p.key)] = Refit::WithGirth;
        EXPECT_NEAR(refitted(ruled, 1.25, 1.5, 0, 0).values.number(p.key), 1.5 * usual.values.number(p.key),
                    1e-12);
    }
}

/// Every key of a sentence is a value that can be set, and its words are whole without leftovers.
TEST_P(EveryKind, SaysItself) {
    const Element e = placed(kind, sphere(10));
    ASSERT_FALSE(kind.sentences().empty());
    for (const Pattern& sentence : kind.sentences()) {
        const std::string words = sentenceOf(e, sentence).plain();
        EXPECT_EQ(words.find('{'), words.npos) << words;
    }
    EXPECT_FALSE(kind.name().empty());
    EXPECT_FALSE(kind.onMask().empty());
}

INSTANTIATE_TEST_SUITE_P(Kinds, EveryKind, testing::ValuesIn(kinds().begin(), kinds().end()),
                         [](const auto& tested) {
                             std::string name(tested.param->id());
                             std::erase(name, '_');
                             return name;
                         });

}  // namespace
}  // namespace nine
