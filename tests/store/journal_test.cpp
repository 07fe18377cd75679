// A journal: killed, cut off, out of disk, opened twice.
#include "store/journal.h"

#include <gtest/gtest.h>
#include <signal.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include "base/rng.h"
#include "tests/support.h"

namespace nine {
namespace {

using namespace test;

TEST(Journal, KeepsWhatItSaysAndGoesOn) {
    const TemporaryFolder folder;
    const std::string path = folder / "runs/one/events";
    {
        Journal journal = need(Journal::open(path));
        EXPECT_TRUE(journal.append("first"));
        EXPECT_TRUE(journal.append("second, in\ntwo"));
    }
    Journal again = need(Journal::open(path));
    EXPECT_EQ(again.lines(), (std::vector<std::string>{"first", "second, in two"}));
    EXPECT_TRUE(again.append("third"));
    EXPECT_EQ(read(path), "first\nsecond, in two\nthird\n");
}

TEST(Journal, HalfALineIsWrittenOver) {
    const TemporaryFolder folder;
    const std::string path = folder / "events";
    write(path, "first\nsecond but cut off in the mid");
    EXPECT_EQ(need(Journal::read(path)).size(), 1u);
    Journal journal = need(Journal::open(path));
    EXPECT_TRUE(journal.append("s"));
    EXPECT_EQ(read(path), "first\ns\n");
}

TEST(Journal, IsOpenedByOneAtATime) {
    const TemporaryFolder folder;
    const Journal one = need(Journal::open(folder / "events"));
    const auto two = Journal::open(folder / "events");
    ASSERT_FALSE(two);
    EXPECT_EQ(two.error().code, "in_use");
}

/// What the child has been told is on the disk, by its own count, when it is killed.
TEST(Journal, TwoHundredKillsLoseNothingThatWasSaidToBeWritten) {
    const TemporaryFolder folder;
    Rng rng(7);
    for (int round = 0; round < 200; ++round) {
        const std::string path = folder / ("events-" + std::to_string(round));
        int pipe[2];
        ASSERT_EQ(::pipe(pipe), 0);
        const pid_t child = ::fork();
        if (child == 0) {
            ::close(pipe[0]);
            Result<Journal> journal = Journal::open(path);
            for (int n = 0; journal; ++n) {
                if (!journal->append("step " + std::to_string(n) +
                                     std::string(static_cast<std::size_t>(n % 300), 'x')))
                    break;
                if (::write(pipe[1], &n, sizeof n) < 0) break;
            }
            ::_exit(0);
        }
        ::close(pipe[1]);
        ::usleep(static_cast<useconds_t>(200 + rng.next() % 3000));
        ::kill(child, SIGKILL);
        ::waitpid(child, nullptr, 0);
        int said = -1;
        for (int n = 0; ::read(pipe[0], &n, sizeof n) == sizeof n;) said = n;
        ::close(pipe[0]);
        if (said < 0) continue;  // killed before its first step
        const auto lines = need(Journal::open(path)).lines();
        ASSERT_GE(static_cast<int>(lines.size()), said + 1) << round;
        ASSERT_LE(static_cast<int>(lines.size()), said + 2) << "at most the step in hand";
        for (int n = 0; n <= said; ++n)
            ASSERT_EQ(
                lines[static_cast<std::size_t>(n)].substr(0, lines[static_cast<std::size_t>(n)].find('x')),
                "step " + std::to_string(n));
    }
}

TEST(Journal, ADiskThatIsFullIsToldAndCaughtUp) {
    const TemporaryFolder folder;
    const std::string path = folder / "events";
    Journal journal = need(Journal::open(path));
    EXPECT_TRUE(journal.append("first"));
    // No file may grow beyond 10 bytes: a part of the next line gets through, then nothing.
    ::signal(SIGXFSZ, SIG_IGN);
    rlimit before{};
    ASSERT_EQ(::getrlimit(RLIMIT_FSIZE, &before), 0);
    rlimit small = before;
    small.rlim_cur = 10;
    ASSERT_EQ(::setrlimit(RLIMIT_FSIZE, &small), 0);
    const Status second = journal.append("second line");
    const Status third = journal.append("third");
    ASSERT_EQ(::setrlimit(RLIMIT_FSIZE, &before), 0);
    ASSERT_FALSE(second);
    EXPECT_EQ(second.error().code, "cannot_write");
    EXPECT_FALSE(third);
    EXPECT_EQ(journal.unwritten(), 2u);
    EXPECT_EQ(read(path), "first\n") << "nothing half written stays";
    EXPECT_TRUE(journal.retry());
    EXPECT_EQ(read(path), "first\nsecond line\nthird\n");
    EXPECT_EQ(journal.unwritten(), 0u);
}

}  // namespace
}  // namespace nine
