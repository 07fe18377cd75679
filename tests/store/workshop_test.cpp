// The workshop file: rows in and out, nothing erased, one writer at a time.
#include "store/workshop.h"

#include "tests/support.h"

namespace nine {
namespace {

using test::need;

WorkshopRow row(const std::string& id, const std::string& name) {
    return {"blank", id, name, "minnow 104mm", "{\"a\": 1}", std::string("\x89PNG\0x", 6), {}};
}

TEST(Workshop, KeepsWhatIsPutIn) {
    const test::TemporaryFolder folder;
    {
        Workshop w = need(Workshop::open(folder / "deep/w.sqlite"));
        ASSERT_TRUE(w.put(row("willow", "Willow 104")));
        ASSERT_TRUE(w.put(row("aal", "Ärger 3")));
        WorkshopRow again = row("willow", "Willow 105");
        again.json = "{}";
        ASSERT_TRUE(w.put(again));
    }
    const Workshop w = need(Workshop::open(folder / "deep/w.sqlite"));
    EXPECT_EQ(need(w.list("blank")).size(), 2u);
    EXPECT_TRUE(need(w.list("recipe")).empty());
    const auto found = need(w.get("blank", "willow"));
    ASSERT_TRUE(found);
    EXPECT_EQ(found->name, "Willow 105");
    EXPECT_EQ(found->json, "{}");
    EXPECT_EQ(found->thumbnail.size(), 6u);
    EXPECT_EQ(found->changed.size(), 20u);
    EXPECT_FALSE(need(w.get("blank", "nobody")));
}

TEST(Workshop, SearchTakesWordsAsTheyAre) {
    const test::TemporaryFolder folder;
    Workshop w = need(Workshop::open(folder / "w.sqlite"));
    ASSERT_TRUE(w.put(row("a", "Willow 104")));
    ASSERT_TRUE(w.put(row("b", "100% cotton_wood")));
    EXPECT_EQ(need(w.list("blank", "willow 104")).size(), 1u);
    EXPECT_EQ(need(w.list("blank", "MINNOW")).size(), 2u);
    EXPECT_EQ(need(w.list("blank", "%")).size(), 1u);
    EXPECT_EQ(need(w.list("blank", "n_w")).size(), 1u);
    EXPECT_TRUE(need(w.list("blank", "'; DROP TABLE rows; --")).empty());
    EXPECT_EQ(need(w.list("blank")).size(), 2u);
}

TEST(Workshop, WhatIsTakenOutCanBePutBack) {
    const test::TemporaryFolder folder;
    Workshop w = need(Workshop::open(folder / "w.sqlite"));
    ASSERT_TRUE(w.put(row("a", "Willow 104")));
    ASSERT_TRUE(w.remove("blank", "a"));
    EXPECT_FALSE(need(w.get("blank", "a")));
    EXPECT_TRUE(need(w.list("blank")).empty());
    EXPECT_EQ(need(w.freeId("blank", "A")), "a-2");  // its id stays its own
    ASSERT_TRUE(w.restore("blank", "a"));
    EXPECT_TRUE(need(w.get("blank", "a")));
    EXPECT_EQ(w.remove("blank", "x").error().code, "unknown_row");
}

TEST(Workshop, IdsAreMadeFromNames) {
    const test::TemporaryFolder folder;
    Workshop w = need(Workshop::open(folder / "w.sqlite"));
    EXPECT_EQ(need(w.freeId("blank", "Willow 104!")), "willow-104");
    ASSERT_TRUE(w.put(row("willow-104", "Willow 104")));
    EXPECT_EQ(need(w.freeId("blank", "willow 104")), "willow-104-2");
    EXPECT_EQ(need(w.freeId("blank", "ÄÖ")), "blank");
}

TEST(Workshop, ASecondCopyReads) {
    const test::TemporaryFolder folder;
    Workshop first = need(Workshop::open(folder / "w.sqlite"));
    ASSERT_TRUE(first.put(row("a", "Willow 104")));
    {
        Workshop second = need(Workshop::open(folder / "w.sqlite"));
        EXPECT_TRUE(second.readOnly());
        EXPECT_EQ(need(second.list("blank")).size(), 1u);
        EXPECT_EQ(second.put(row("b", "B")).error().code, "read_only");
        EXPECT_EQ(second.remove("blank", "a").error().code, "read_only");
    }
    EXPECT_FALSE(first.readOnly());
    ASSERT_TRUE(first.put(row("c", "C")));
}

TEST(Workshop, OtherFilesAreLeftAsTheyAre) {
    const test::TemporaryFolder folder;
    test::write(folder / "text.sqlite", "this is no database, and long enough to be told from an empty one");
    EXPECT_EQ(Workshop::open(folder / "text.sqlite").error().code, "not_a_workshop");
    EXPECT_EQ(test::read(folder / "text.sqlite").substr(0, 12), "this is no d");
    EXPECT_EQ(Workshop::open("/proc/nowhere/w.sqlite").error().code, "cannot_open");
}

}  // namespace
}  // namespace nine
