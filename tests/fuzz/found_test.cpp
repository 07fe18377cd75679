// Seeds and what fuzzing has found, read once more: files named TARGET/anything in tests/fuzz/seeds and
// tests/fuzz/found.
#include "tests/fuzz/targets.h"
#include "tests/here.h"
#include "tests/support.h"

namespace nine {
namespace {

namespace fs = std::filesystem;

TEST(FuzzCorpus, EverySeedAndEveryFindIsRead) {
    int files = 0;
    for (const char* folder : {"seeds", "found"}) {
        for (const auto& entry :
             fs::recursive_directory_iterator(nine::sourceDir() + "/tests/fuzz/" + std::string(folder))) {
            if (!entry.is_regular_file() || entry.path().filename() == "README") continue;
            const std::string target = entry.path().parent_path().filename();
            SCOPED_TRACE(entry.path());
            ASSERT_TRUE(fuzz::targets().count(target));
            fuzz::targets().at(target)(test::read(entry.path()));
            ++files;
        }
    }
    EXPECT_GE(files, 20);
}

}  // namespace
}  // namespace nine
