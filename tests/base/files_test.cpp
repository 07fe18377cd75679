// Files: whole or not at all, links and modes kept, nothing written that was not meant.
#include "base/files.h"

#include <sys/mount.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>

#include "base/temporary_file.h"
#include "tests/support.h"

namespace nine {
namespace {

namespace fs = std::filesystem;
using test::TemporaryFolder;

int modeOf(const std::string& path) {
    struct stat info {};
    return ::stat(path.c_str(), &info) == 0 ? static_cast<int>(info.st_mode & 07777) : -1;
}

std::vector<std::string> namesIn(const std::string& folder) {
    std::vector<std::string> names;
    for (const auto& entry : fs::directory_iterator(folder)) names.push_back(entry.path().filename());
    std::sort(names.begin(), names.end());
    return names;
}

TEST(Files, WriteReplacesWholeFile) {
    const TemporaryFolder folder;
    const std::string path = folder / "a.txt";
    ASSERT_TRUE(writeFileAtomically(path, "first"));
    ASSERT_TRUE(writeFileAtomically(path, "2"));
    EXPECT_EQ(test::read(path), "2");
    EXPECT_EQ(std::distance(std::filesystem::directory_iterator(folder.path()), {}), 1);  // no temporary left
}

TEST(Files, MissingFolderIsSaidAndNothingIsMade) {
    const TemporaryFolder folder;
    const Status written = writeFileAtomically(folder / "none/a.txt", "x");
    ASSERT_FALSE(written);
    EXPECT_EQ(written.error().code, "cannot_write");
    EXPECT_NE(written.error().text().find("the folder " + folder / "none"), std::string::npos)
        << written.error().text();
    EXPECT_FALSE(std::filesystem::exists(folder / "none"));
}

TEST(Files, SeveralAreWrittenAllOrNone) {
    const TemporaryFolder folder;
    test::write(folder / "a", "old");
    // The second name lies in a folder that does not exist, so neither may change.
    EXPECT_FALSE(writeFilesAtomically(folder.path(), {{"a", "new"}, {"none/b", "new"}}));
    EXPECT_EQ(test::read(folder / "a"), "old");
    EXPECT_TRUE(writeFilesAtomically(folder / "deep/er", {{"a", "1"}, {"b", "2"}}));
    EXPECT_EQ(test::read(folder / "deep/er/b"), "2");
}

TEST(Files, WhatWasReplacedIsPutBackWhenALaterOneFails) {
    const TemporaryFolder folder;
    for (const char* name : {"a", "b", "c", "gone"}) test::write(folder / name, std::string("old ") + name);
    // A file that something is mounted on can be written beside, but not replaced: the failure comes late.
    if (::mount((folder / "b").c_str(), (folder / "b").c_str(), "", MS_BIND, nullptr) != 0)
        GTEST_SKIP() << "nothing can be mounted here (not root)";
    const Status written = writeFilesAtomically(
        folder.path(), {{"a", "new"}, {"fresh", "new"}, {"b", "new"}, {"c", "new"}}, {"gone"});
    ::umount((folder / "b").c_str());
    EXPECT_FALSE(written);
    EXPECT_EQ(namesIn(folder.path()), (std::vector<std::string>{"a", "b", "c", "gone"}));
    for (const char* name : {"a", "b", "c", "gone"})
        EXPECT_EQ(test::read(folder / name), std::string("old ") + name);
}

TEST(Files, ASetTakesAwayWhatIsObsolete) {
    const TemporaryFolder folder;
    for (const char* name : {"1", "2", "3", "other"}) test::write(folder / name, "old");
    ASSERT_TRUE(writeFilesAtomically(folder.path(), {{"1", "new"}}, {"1", "2", "3", "never there"}));
    EXPECT_EQ(namesIn(folder.path()), (std::vector<std::string>{"1", "other"}));
    EXPECT_EQ(test::read(folder / "1"), "new");
}

TEST(Files, TwoNamesOfOneFileAreRefused) {
    const TemporaryFolder folder;
    test::write(folder / "a", "old");
    fs::create_symlink("a", folder / "b");
    EXPECT_EQ(writeFilesAtomically(folder.path(), {{"a", "1"}, {"b", "2"}}).error().code, "cannot_write");
    EXPECT_EQ(test::read(folder / "a"), "old");
}

TEST(Files, LinksAreFollowedAndStayLinks) {
    const TemporaryFolder folder;
    fs::create_directory(folder / "far");
    test::write(folder / "far/job", "old");
    fs::create_symlink("far/job", folder / "link");
    fs::create_symlink("link", folder / "chain");
    ASSERT_TRUE(writeFileAtomically(folder / "chain", "new"));
    EXPECT_TRUE(fs::is_symlink(folder / "chain"));
    EXPECT_TRUE(fs::is_symlink(folder / "link"));
    EXPECT_EQ(test::read(folder / "far/job"), "new");
    fs::create_symlink("far/later", folder / "dangling");  // a link to a file that is not there yet makes it
    ASSERT_TRUE(writeFileAtomically(folder / "dangling", "made"));
    EXPECT_EQ(test::read(folder / "far/later"), "made");
    fs::create_symlink("round", folder / "round");
    EXPECT_EQ(writeFileAtomically(folder / "round", "x").error().code, "cannot_write");
}

TEST(Files, AFileThatIsReplacedKeepsItsMode) {
    const TemporaryFolder folder;
    for (const int mode : {0600, 0640, 0444, 0755}) {
        test::write(folder / "a", "old");
        ASSERT_EQ(::chmod((folder / "a").c_str(), static_cast<mode_t>(mode)), 0);
        ASSERT_TRUE(writeFileAtomically(folder / "a", "new"));
        EXPECT_EQ(modeOf(folder / "a"), mode);
        fs::remove(folder / "a");
    }
    ASSERT_TRUE(writeFileAtomically(folder / "mine", "x", Readers::Owner));
    EXPECT_EQ(modeOf(folder / "mine"), 0600);
    ASSERT_TRUE(makePrivateFolder(folder / "p/q"));
    EXPECT_EQ(modeOf(folder / "p"), 0700);
    EXPECT_EQ(modeOf(folder / "p/q"), 0700);
}

TEST(Files, WhatIsNoFileIsRefused) {
    const TemporaryFolder folder;
    ASSERT_EQ(::mkfifo((folder / "pipe").c_str(), 0600), 0);
    fs::create_directory(folder / "dir");
    fs::create_symlink("/dev/null", folder / "null");
    for (const char* name : {"pipe", "dir", "null"}) {
        EXPECT_EQ(writeFileAtomically(folder / name, "x").error().code, "cannot_write") << name;
        EXPECT_FALSE(writeFilesAtomically(folder.path(), {{"a", "x"}, {name, "x"}})) << name;
    }
    EXPECT_EQ(namesIn(folder.path()), (std::vector<std::string>{"dir", "null", "pipe"}));
    EXPECT_TRUE(fs::is_fifo(folder / "pipe"));
    EXPECT_TRUE(fs::is_symlink(folder / "null"));
}

TEST(Files, APlantedLinkAtATemporaryNameIsNotWrittenThrough) {
    const TemporaryFolder folder;
    test::write(folder / "victim", "precious");
    // The names that could be guessed: of the process, and without a number.
    for (const std::string& name : {"a.part" + std::to_string(::getpid()), std::string("a.part")})
        fs::create_symlink("victim", folder / name);
    ASSERT_TRUE(writeFileAtomically(folder / "a", "new"));
    ASSERT_TRUE(writeFilesAtomically(folder.path(), {{"a", "newer"}}));
    EXPECT_EQ(test::read(folder / "victim"), "precious");
    EXPECT_EQ(test::read(folder / "a"), "newer");
}

TEST(Files, TheLongestNamesCanBeWritten) {
    const TemporaryFolder folder;
    const std::string name(255, 'n');
    ASSERT_TRUE(writeFileAtomically(folder / name, "x"));
    ASSERT_TRUE(writeFilesAtomically(folder.path(), {{name, "y"}, {"a", "z"}}));
    EXPECT_EQ(test::read(folder / name), "y");
    EXPECT_NE(writeFileAtomically(folder / (name + "n"), "x").error().text().find("too long"),
              std::string::npos);
}

TEST(Files, TemporariesOfTheDeadAreSweptThoseOfTheLivingAreNot) {
    const TemporaryFolder folder;
    TemporaryFile living;
    ASSERT_EQ(living.open(folder.path(), 0600), 0);
    const std::string dead = TemporaryFile::randomPath(folder.path());
    test::write(dead, "half");
    test::write(folder / ".nine-leaves-notes", "the user's own");
    ASSERT_TRUE(writeFileAtomically(folder / "a", "x"));
    EXPECT_FALSE(fs::exists(dead));
    EXPECT_TRUE(fs::exists(living.path()));
    EXPECT_TRUE(fs::exists(folder / ".nine-leaves-notes"));
}

TEST(Files, FullDiskKeepsThePreviousFile) {
    const TemporaryFolder folder;
    if (::mount("none", folder.path().c_str(), "tmpfs", 0, "size=64k") != 0) {
        GTEST_SKIP() << "a small tmpfs cannot be mounted here (not root)";
    }
    const std::string path = folder / "job.json";
    ASSERT_TRUE(writeFileAtomically(path, "previous"));
    const Status written = writeFileAtomically(path, std::string(1 << 20, 'x'));
    ASSERT_FALSE(written);
    EXPECT_NE(written.error().text().find("full"), std::string::npos) << written.error().text();
    EXPECT_EQ(test::read(path), "previous");
    EXPECT_EQ(std::distance(std::filesystem::directory_iterator(folder.path()), {}), 1);
    ::umount(folder.path().c_str());
}

TEST(Files, TooLargeAndFoldersAreRefused) {
    const TemporaryFolder folder;
    test::write(folder / "big", std::string(2000, 'x'));
    EXPECT_EQ(readFile(folder / "big", 1000).error().code, "file_too_large");
    EXPECT_EQ(readFile(folder.path()).error().code, "cannot_read");
    EXPECT_EQ(readFile(folder / "none").error().code, "cannot_read");
}

}  // namespace
}  // namespace nine
