#include <limits>

#include "base/memo.h"
#include "base/number_table.h"
#include "base/parallel.h"
#include "base/task.h"
#include "tests/support.h"

namespace nine {
namespace {

TEST(NumberText, ReadsWholeNumbersOnly) {
    EXPECT_EQ(parseNumber("12.5"), 12.5);
    EXPECT_EQ(parseNumber(" +3e-2\t"), 0.03);
    EXPECT_EQ(parseNumber("12,5", true), 12.5);
    for (const char* bad : {"", " ", "1.2.3", "12,5", "nan", "inf", "1e999", "0x10", "3 mm", "++1"}) {
        EXPECT_FALSE(parseNumber(bad)) << bad;
    }
    EXPECT_FALSE(parseNumber("1.5", true));  // a point in a table of decimal commas is a mistake
}

TEST(NumberText, WritesShortestAndFixed) {
    EXPECT_EQ(numberText(0.1), "0.1");
    EXPECT_EQ(numberText(215.9), "215.9");
    EXPECT_EQ(fixedText(2.0049, 2), "2.00");
    EXPECT_EQ(fixedText(-0.0004, 2), "0.00");
    EXPECT_EQ(fixedText(1e300, 0).size(), 301u);
    EXPECT_EQ(parseNumber(numberText(1.0 / 3)), 1.0 / 3);
}

TEST(NumberTable, UnderstandsOfficeFiles) {
    const auto table = test::need(parseNumberTable("\xEF\xBB\xBF# c\r\nb;a;extra\r\n\r\n1,5;2;9\r\n",
                                                   {{"a", "b"}, 2, "table"}, "f", 10));
    ASSERT_EQ(table.rows.size(), 1u);
    EXPECT_EQ(table.rows[0][0], 2);
    EXPECT_EQ(table.rows[0][1], 1.5);
    EXPECT_EQ(table.lines[0], 4u);
}

TEST(NumberTable, SaysWhatIsWrongAndWhere) {
    const auto error = [](const char* text) {
        return parseNumberTable(text, {{"a", "b"}, 2, "table"}, "f", 10).error();
    };
    EXPECT_EQ(error("").code, "bad_header");
    EXPECT_EQ(error("x,y\n").code, "bad_header");
    EXPECT_EQ(error("a,c\n1,2\n").code, "missing_column");
    EXPECT_EQ(error("a,a,b\n").code, "bad_header");
    EXPECT_EQ(error("a,b\n1,2\n3\n").where, "f:3 b");
    EXPECT_EQ(error("a,b\n1,zwei\n").where, "f:2 b");
    EXPECT_EQ(error("a,b\n1,1e309\n").code, "bad_number");
}

TEST(Memo, ComputesOnceAndHoldsItsKeys) {
    Memo<int, std::string> memo(2);
    int computed = 0;
    auto key = std::make_shared<const int>(1);
    const std::weak_ptr<const int> watch = key;
    const auto get = [&](const std::shared_ptr<const int>& k, const char* plain) {
        return memo.get({k}, plain, [&] { return std::make_shared<const int>(++computed); });
    };
    EXPECT_EQ(get(key, "a"), get(key, "a"));
    EXPECT_EQ(computed, 1);
    get(key, "b");
    EXPECT_EQ(computed, 2);
    // The key outlives its last owner outside: were its address reused, the stale result would be found.
    key.reset();
    EXPECT_FALSE(watch.expired());
    const auto other = std::make_shared<const int>(2);
    get(other, "a");
    get(other, "b");
    EXPECT_TRUE(watch.expired());  // two newer entries have pushed it out
}

TEST(Memo, DoesNotRememberFailure) {
    Memo<int> memo(2);
    EXPECT_EQ(memo.get({}, {}, [] { return std::shared_ptr<const int>(); }), nullptr);
    EXPECT_EQ(*memo.get({}, {}, [] { return std::make_shared<const int>(7); }), 7);
}

TEST(Task, CopiesShareCancellation) {
    const Task idle;
    idle.cancel();
    EXPECT_FALSE(idle.cancelled());
    double seen = 0;
    const Task task = Task::make([&](double share) { seen = share; });
    const Task copy = task;
    copy.cancel();
    EXPECT_TRUE(task.cancelled());
    copy.progress(0.5);
    EXPECT_EQ(seen, 0.5);
}

TEST(Parallel, CallsEachOnce) {
    std::vector<std::atomic<int>> calls(1000);
    forEachInParallel(calls.size(), [&](std::size_t i) { ++calls[i]; });
    for (const auto& c : calls) EXPECT_EQ(c, 1);
}

}  // namespace
}  // namespace nine
