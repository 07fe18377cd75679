// What holds for every kind of element, whatever it is.
#include "pattern/kinds.h"

#include <gtest/gtest.h>

#include <nlohmann/json.hpp>
#include <set>

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
    e.dx_mm = e.anchor.empty() ? 0.3 * skin.length_mm() : 1;
    if (const Param* count = findParam(kind, "count"); count && e.anchor.empty()) e.values.set("count", 3.0);
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

Job jobWith(const Element& e) {
    const std::string path = example("sedge60-brook-char.nineleaves.json");
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
        EXPECT_TRUE(p.usualFrom.empty() || findParam(kind, p.usualFrom)) << p.key;
    }
    need(checkValues(kind, usualValues(kind), "e"));
    EXPECT_EQ(findKind(kind.id()), &kind);
}

/// Both ends of every limit are taken, one step beyond is refused with its path.
TEST_P(EveryKind, KeepsItsLimits) {
    for (const Param& p : kind.params()) {
        if (p.type == Param::Type::Colour) continue;
        const double step = p.type == Param::Type::Count ? 1 : 1e-3;
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

/// What a file says comes back, and what it leaves out takes its usual value.
TEST_P(EveryKind, GoesThroughAFile) {
    Element e = placed(kind, sphere(10));
    for (const Param& p : kind.params())
        if (p.type == Param::Type::Length) e.values.set(p.key, 0.75 * p.usual + 0.25 * std::min(p.high, 9.5));
    const std::string text = jobText(jobWith(e));
    const LoadedJob read = need(parseJob(text, "f"));
    EXPECT_EQ(read.job.get<PatternChapter>().elements[0]->values, e.values);
    EXPECT_EQ(jobText(read.job), text);
    auto bare = nlohmann::json::parse(text);
    bare["pattern"]["elements"] = {{{"id", "it"}, {"kind", std::string(kind.id())}}};
    const LoadedJob usual = need(parseJob(bare.dump(), "f"));
    for (const Param& p : kind.params()) {
        const Values& values = usual.job.get<PatternChapter>().elements[0]->values;
        ASSERT_TRUE(values.find(p.key)) << p.key;
        const Param& from = p.usualFrom.empty() ? p : *findParam(kind, p.usualFrom);
        if (p.type == Param::Type::Colour) {
            EXPECT_EQ(std::get<std::string>(*values.find(p.key)), p.usualColour);
        } else {
            EXPECT_EQ(values.number(p.key), from.usual) << p.key;
        }
    }
}

TEST_P(EveryKind, IsDrawnOnEveryBodyTheSameTwice) {
    for (const char* name : kSamples) {
        const Skin skin = sampleSkin(name);
        const Landmarks landmarks = marksOn(skin, kind);
        const Element e = placed(kind, skin);
        const ElementArt art = need(drawElement(skin, landmarks, e, "e"));
        const ElementArt again = need(drawElement(skin, landmarks, e, "e"));
        ASSERT_FALSE(art.outlines().empty()) << name;
        for (std::size_t i = 0; i < art.outlines().size(); ++i) {
            EXPECT_EQ(art.outlines()[i].skin, again.outlines()[i].skin) << name;
            EXPECT_EQ(art.outlines()[i].points.size(), art.outlines()[i].skin.size());
            EXPECT_GT(polygonArea(art.outlines()[i].skin), 0) << name << " runs clockwise";
            for (const Vec2& p : art.outlines()[i].skin) {
                EXPECT_TRUE((p.array() >= art.low.array() - 1e-9).all());
                EXPECT_TRUE((p.array() <= art.high.array() + 1e-9).all());
            }
        }
    }
    EXPECT_FALSE(need(thumbnailOf(kind)).outlines().empty());
}

/// A handle stands on its mark, changes what it says it changes and nothing else, and goes with the hand.
TEST_P(EveryKind, HandlesChangeWhatTheySay) {
    const Skin skin = cylinder(12, 90);
    const Landmarks landmarks = marksOn(skin, kind);
    const Element e = placed(kind, skin);
    const ElementArt art = need(drawElement(skin, landmarks, e, "e"));
    for (const Handle& handle : kind.handles()) {
        const std::optional<Vec2> at = handle.at(art.outlines());
        ASSERT_TRUE(at) << handle.key;
        EXPECT_FALSE(handle.at({})) << handle.key;
        Element moved = e;
        const Vec2 by(0.4, -0.3);
        handle.move(moved, by, {skin, landmarks});
        const auto changes = [&](std::string_view key) {
            return std::find(handle.changes.begin(), handle.changes.end(), key) != handle.changes.end();
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
        const ElementArt then = need(drawElement(skin, landmarks, moved, "e"));
        const Vec2 went = *handle.at(then.outlines()) - *at;
        // Nearer to the hand than before, along what it moves.
        EXPECT_LT((went - by).norm(), by.norm()) << handle.key << " went " << went.transpose();
    }
}

TEST_P(EveryKind, FollowsTheBodyByItsRules) {
    const Values usual = usualValues(kind);
    const Values larger = refitted(kind, usual, 1.25, 1.5);
    for (const Param& p : kind.params()) {
        if (p.type == Param::Type::Colour) continue;
        const double factor = p.refit == Refit::Fixed ? 1 : p.refit == Refit::WithLength ? 1.25 : 1.5;
        EXPECT_EQ(larger.number(p.key), factor * usual.number(p.key)) << p.key;
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
