// Background slots: what is overtaken is dropped, or shown with the latest next.
#include "app/document/latest_only.h"

#include <gtest/gtest.h>

#include <QTest>
#include <QThread>

namespace nine::app {
namespace {

std::function<int(const Task&)> slowly(int value) {
    return [value](const Task&) {
        QThread::msleep(20);
        return value;
    };
}

TEST(LatestOnly, OvertakenResultsAreDropped) {
    QObject context;
    LatestOnly<int> slot(&context);
    std::vector<int> got;
    for (int i = 1; i <= 5; ++i) slot.request(slowly(i), [&](int value) { got.push_back(value); });
    ASSERT_TRUE(QTest::qWaitFor([&] { return !slot.running(); }, 3000));
    EXPECT_EQ(got, std::vector<int>{5});
}

TEST(LatestOnly, OrShownAndTheLatestIsNext) {
    QObject context;
    LatestOnly<int> slot(&context, Urgency::Now, Overtaken::Shown);
    std::vector<int> got;
    std::vector<bool> more;
    for (int i = 1; i <= 5; ++i)
        slot.request(slowly(i), [&](int value) {
            got.push_back(value);
            more.push_back(slot.running());
        });
    ASSERT_TRUE(QTest::qWaitFor([&] { return !slot.running(); }, 3000));
    EXPECT_EQ(got, (std::vector<int>{1, 5}));  // those between were never begun
    EXPECT_EQ(more, (std::vector<bool>{true, false}));
}

TEST(LatestOnly, CancellingDropsWhatRunsAndWhatWaits) {
    QObject context;
    LatestOnly<int> slot(&context, Urgency::Now, Overtaken::Shown);
    int got = 0;
    const auto take = [&](int value) { got = value; };
    slot.request(slowly(1), take);
    slot.request(slowly(2), take);
    slot.cancel();
    EXPECT_FALSE(slot.running());
    QTest::qWait(80);
    EXPECT_EQ(got, 0);
    slot.request(slowly(3), take);
    ASSERT_TRUE(QTest::qWaitFor([&] { return !slot.running(); }, 3000));
    EXPECT_EQ(got, 3);
}

TEST(LatestOnly, WorkIsToldThatItIsOvertaken) {
    QObject context;
    LatestOnly<int> slot(&context);
    std::atomic<bool> stopped{false};
    slot.request(
        [&](const Task& task) {
            for (int i = 0; i < 400 && !task.cancelled(); ++i) QThread::msleep(5);
            stopped = task.cancelled();
            return 0;
        },
        [](int) {});
    QTest::qWait(30);
    slot.request(slowly(1), [](int) {});
    ASSERT_TRUE(QTest::qWaitFor([&] { return !slot.running(); }, 3000));
    EXPECT_TRUE(stopped);
}

}  // namespace
}  // namespace nine::app
