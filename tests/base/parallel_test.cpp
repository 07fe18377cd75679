// Work on all cores, and what becomes of what it throws.
#include "base/parallel.h"

#include <gtest/gtest.h>

#include <atomic>
#include <new>
#include <stdexcept>

#include "base/guarded.h"

namespace nine {
namespace {

TEST(Parallel, TheFirstExceptionComesToTheCaller) {
    for (int round = 0; round < 20; ++round) {
        std::atomic<int> done{0};
        EXPECT_THROW(forEachInParallel(200,
                                       [&](std::size_t i) {
                                           if (i == 50) throw std::runtime_error("x");
                                           ++done;
                                       }),
                     std::runtime_error);
        EXPECT_LT(done, 200);
    }
}

TEST(Guarded, TurnsWhatIsThrownIntoAnError) {
    EXPECT_EQ(*guarded([] { return 5; }), 5);
    const Result<int> memory = guarded([]() -> int { throw std::bad_alloc(); });
    EXPECT_EQ(memory.error().code, "internal");
    EXPECT_NE(memory.error().text().find("memory"), std::string::npos);
    const Result<int> same = guarded([]() -> Result<int> {
        return Error{"x", Words::verbatim("y"), "z"};
    });  // not wrapped twice
    EXPECT_EQ(same.error().code, "x");
    EXPECT_EQ(guarded([]() -> Status { throw 7; }).error().code, "internal");
}

}  // namespace
}  // namespace nine
