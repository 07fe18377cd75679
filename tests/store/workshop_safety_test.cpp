// The workshop file under bad luck and bad will: kills, full disks, planted schemas, many writers.
#include <fcntl.h>
#include <sqlite3.h>
#include <sys/fsuid.h>
#include <sys/mount.h>
#include <sys/stat.h>
#include <unistd.h>
#include <csignal>

#include <thread>

#include "base/temporary_file.h"
#include "store/workshop.h"
#include "tests/support.h"

namespace nine {
namespace {

namespace fs = std::filesystem;
using test::need;

WorkshopRow row(const std::string& id) {
    return {"blank", id, "Name of " + id, "minnow 104mm", "{}", {}, {}};
}

void sql(const std::string& path, const std::string& statements) {
    sqlite3* db = nullptr;
    ASSERT_EQ(sqlite3_open(path.c_str(), &db), SQLITE_OK);
    EXPECT_EQ(sqlite3_exec(db, statements.c_str(), nullptr, nullptr, nullptr), SQLITE_OK)
        << sqlite3_errmsg(db);
    sqlite3_close(db);
}

const char* const kOurs = "PRAGMA application_id=1313633907; PRAGMA user_version=1;";  // 0x4E4C7673

TEST(WorkshopSafety, AFileThatWasOnlyBegunIsFinished) {
    const test::TemporaryFolder folder;
    sql(folder / "begun", "PRAGMA journal_mode=WAL;");  // what a kill during the making used to leave
    test::write(folder / "empty", "");
    for (const char* name : {"begun", "empty"}) {
        Workshop w = need(Workshop::open(folder / name));
        ASSERT_TRUE(w.put(row("a")));
        EXPECT_EQ(need(w.list("blank")).size(), 1u);
    }
    sql(folder / "theirs", "CREATE TABLE accounts (a);");  // id 0, but it holds something: not ours
    EXPECT_EQ(Workshop::open(folder / "theirs").error().code, "not_a_workshop");
}

TEST(WorkshopSafety, AFullDiskIsNoDamageAndLeavesNothing) {
    const test::TemporaryFolder folder;
    if (::mount("none", folder.path().c_str(), "tmpfs", 0, "size=16k") != 0)
        GTEST_SKIP() << "a small tmpfs cannot be mounted here (not root)";
    test::write(folder / "fill", std::string(8000, 'x'));
    const auto opened = Workshop::open(folder / "w.sqlite");
    ASSERT_FALSE(opened);
    EXPECT_NE(opened.error().text().find("full"), std::string::npos) << opened.error().text();
    EXPECT_FALSE(fs::exists(folder / "w.sqlite"));
    ::umount(folder.path().c_str());
}

TEST(WorkshopSafety, TheBackupHoldsWhatStandsInTheJournal) {
    const test::TemporaryFolder folder;
    const std::string path = folder / "w.sqlite";
    { Workshop w = need(Workshop::open(path)); }
    // An older layout, and a row that is still in the journal: another program holds the file open.
    sqlite3* db = nullptr;
    ASSERT_EQ(sqlite3_open(path.c_str(), &db), SQLITE_OK);
    sqlite3_exec(db,
                 "PRAGMA user_version=0; PRAGMA wal_checkpoint; PRAGMA wal_autocheckpoint=0;"
                 "INSERT INTO rows VALUES ('blank','late','Late','','{}',NULL,'now',0);",
                 nullptr, nullptr, nullptr);
    { Workshop w = need(Workshop::open(path)); }
    const std::string backup = path + ".v0.backup";
    ASSERT_TRUE(fs::exists(backup));
    sqlite3_close(db);
    fs::create_directory(folder / "elsewhere");
    fs::copy_file(backup, folder / "elsewhere/w.sqlite");
    const Workshop kept = need(Workshop::open(folder / "elsewhere/w.sqlite", Workshop::Access::Read));
    EXPECT_EQ(need(kept.list("blank")).size(), 1u);
}

TEST(WorkshopSafety, AnEndlessViewIsRefused) {
    const test::TemporaryFolder folder;
    sql(folder / "view",
        std::string(
            "CREATE VIEW rows AS WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n) SELECT "
            "'blank' AS kind, i AS id, i AS name, '' AS tags, '' AS json, NULL AS thumbnail, '' AS changed, "
            "0 AS gone FROM n;") +
            kOurs);
    EXPECT_EQ(Workshop::open(folder / "view").error().code, "not_a_workshop");
    // Endless in a column that is worked out when it is read.
    sql(folder / "column",
        std::string(
            "CREATE TABLE rows (kind, id, tags, json, thumbnail, changed, gone, name AS "
            "(zeroblob(200000000)));"
            "INSERT INTO rows (kind, id, tags, json, changed, gone) VALUES ('blank','a','','','',0);") +
            kOurs);
    const auto opened = Workshop::open(folder / "column", Workshop::Access::Read);
    EXPECT_FALSE(opened && opened->list("blank"));
    sql(folder / "columns", std::string("CREATE TABLE rows (kind, id);") + kOurs);
    EXPECT_EQ(need(Workshop::open(folder / "columns")).list("blank").error().code, "not_a_workshop");
}

TEST(WorkshopSafety, ReadingMakesNothing) {
    const test::TemporaryFolder folder;
    EXPECT_EQ(Workshop::open(folder / "none/w.sqlite", Workshop::Access::Read).error().code, "cannot_open");
    EXPECT_TRUE(fs::is_empty(folder.path()));
}

TEST(WorkshopSafety, AReaderInAFolderThatCannotBeWritten) {
    if (::geteuid() != 0) GTEST_SKIP() << "needs root to give up its rights";
    const test::TemporaryFolder folder;
    {
        Workshop w = need(Workshop::open(folder / "w.sqlite"));
        ASSERT_TRUE(w.put(row("a")));
    }
    fs::remove(folder / "w.sqlite.lock");
    ASSERT_EQ(::chmod(folder.path().c_str(), 0555), 0);
    ASSERT_EQ(::chmod((folder / "w.sqlite").c_str(), 0444), 0);
    std::string code;
    std::thread([&] {  // the rights of this thread alone (Linux)
        ::setfsuid(65534);
        const auto opened = Workshop::open(folder / "w.sqlite", Workshop::Access::Write);
        code = !opened               ? opened.error().code
               : !opened->readOnly() ? "may write"
                                     : std::to_string(need(opened->list("blank")).size());
    })
        .join();
    ASSERT_EQ(::chmod(folder.path().c_str(), 0755), 0);
    EXPECT_EQ(code, "1");
}

TEST(WorkshopSafety, WritersWaitTheirTurn) {
    const test::TemporaryFolder folder;
    std::vector<std::thread> writers;
    for (int t = 0; t < 4; ++t) {
        writers.emplace_back([&, t] {
            for (int i = 0; i < 25; ++i) {
                Result<Workshop> w = Workshop::open(folder / "w.sqlite", Workshop::Access::Write, 20'000);
                if (w) (void)w->put(row(std::to_string(t) + "-" + std::to_string(i)));
            }
        });
    }
    for (std::thread& t : writers) t.join();
    EXPECT_EQ(need(need(Workshop::open(folder / "w.sqlite")).list("blank")).size(), 100u);
}

TEST(WorkshopSafety, OnlyItsOwnerReadsIt) {
    const test::TemporaryFolder folder;
    Workshop w = need(Workshop::open(folder / "deep/w.sqlite"));
    ASSERT_TRUE(w.put(row("a")));
    for (const auto& entry : fs::directory_iterator(folder / "deep"))
        EXPECT_EQ(static_cast<int>(entry.status().permissions()) & 077, 0) << entry.path();
    EXPECT_EQ(static_cast<int>(fs::status(folder / "deep").permissions()) & 077, 0);
}

/// A program that is killed while it makes the file, at many moments.
TEST(WorkshopSafety, AKillWhileItIsMadeLeavesAWholeOneOrNone) {
    int whole = 0;
    for (int moment = 0; moment < 40; ++moment) {
        const test::TemporaryFolder folder;
        const pid_t child = ::fork();
        if (child == 0) {
            const auto made = Workshop::open(folder / "w.sqlite");
            ::_exit(made ? 0 : 1);
        }
        ::usleep(static_cast<useconds_t>(moment * 150));
        ::kill(child, SIGKILL);
        ::waitpid(child, nullptr, 0);
        if (fs::exists(folder / "w.sqlite")) ++whole;
        const Result<Workshop> after = Workshop::open(folder / "w.sqlite");
        ASSERT_TRUE(after) << "at " << moment << ": " << after.error().text();
        EXPECT_TRUE(after->list("blank"));
    }
    RecordProperty("whole", whole);
}

}  // namespace
}  // namespace nine
