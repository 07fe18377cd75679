#include "store/workshop.h"

#include <fcntl.h>
#include <sqlite3.h>
#include <sys/file.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <chrono>
#include <ctime>
#include <filesystem>
#include <thread>
#include <utility>

#include "base/files.h"
#include "base/temporary_file.h"

namespace nine {
namespace {

/// A statement that is always finalised, and ends itself when it goes on for ever.
class Query {
  public:
    Query(sqlite3* db, const char* sql) : db_(db) {
        sqlite3_progress_handler(
            db, kStepsAtOnce, [](void* left) { return int(--*static_cast<long*>(left) < 0); }, &left_);
        sqlite3_prepare_v2(db, sql, -1, &statement_, nullptr);
    }
    ~Query() {
        sqlite3_finalize(statement_);
        sqlite3_progress_handler(db_, 0, nullptr, nullptr);
    }
    Query(const Query&) = delete;
    Query& operator=(const Query&) = delete;

    Query& bind(int index, const std::string& text) {
        sqlite3_bind_text(statement_, index, text.data(), static_cast<int>(text.size()), SQLITE_TRANSIENT);
        return *this;
    }
    Query& bindBytes(int index, const std::string& bytes) {
        sqlite3_bind_blob(statement_, index, bytes.data(), static_cast<int>(bytes.size()), SQLITE_TRANSIENT);
        return *this;
    }
    int step() { return statement_ ? sqlite3_step(statement_) : sqlite3_errcode(db_); }
    std::string text(int column) const {
        const void* data = sqlite3_column_blob(statement_, column);
        const int size = sqlite3_column_bytes(statement_, column);
        return data ? std::string(static_cast<const char*>(data), static_cast<std::size_t>(size))
                    : std::string();
    }
    int number(int column) const { return sqlite3_column_int(statement_, column); }

  private:
    static constexpr int kStepsAtOnce = 100'000;
    sqlite3* db_;
    sqlite3_stmt* statement_ = nullptr;
    long left_ = kMostSteps / kStepsAtOnce;
};

constexpr int kApplicationId = 0x4E4C7673;  // tells our files from other databases

const char* const kLayout =
    "CREATE TABLE rows (kind TEXT NOT NULL, id TEXT NOT NULL, name TEXT NOT NULL, tags TEXT NOT NULL,"
    " json TEXT NOT NULL, thumbnail BLOB, changed TEXT NOT NULL, gone INTEGER NOT NULL DEFAULT 0,"
    " PRIMARY KEY (kind, id)) WITHOUT ROWID;"
    "CREATE INDEX rows_by_name ON rows (kind, gone, name COLLATE NOCASE);";

/// What a failure of SQLite means for the painter. A full disk or a folder that cannot be written is no
/// damage.
Error failure(sqlite3* db, int code, const std::string& path) {
    switch (code & 0xFF) {
        case SQLITE_CORRUPT:
        case SQLITE_NOTADB:
        case SQLITE_ERROR:  // a table or column that ours has and this one has not
            return {"not_a_workshop",
                    NINE_WORDS("core",
                               "This file is no Nine Leaves workshop file, or it is damaged; it was "
                               "left as it is. Take a backup of it, or choose another file."),
                    path};
        case SQLITE_FULL:
            return cannotWrite(path, ENOSPC);
        case SQLITE_READONLY:
        case SQLITE_PERM:
        case SQLITE_CANTOPEN:
            return {"cannot_open",
                    NINE_WORDS("core",
                               "The workshop file cannot be opened; check that it and its folder can be "
                               "read and written."),
                    path};
        case SQLITE_BUSY:
        case SQLITE_LOCKED:
            return {
                "read_only",
                NINE_WORDS("core", "Another program is writing the workshop file; try again in a moment."),
                path};
        case SQLITE_INTERRUPT:
            return {"too_much_work",
                    NINE_WORDS("core",
                               "This file makes the program work without end, which no workshop file "
                               "does; it was left as it is. Take a backup of it, or choose another file."),
                    path};
        case SQLITE_TOOBIG:
            return {"too_large",
                    NINE_WORDS("core", "A blank of more than 64 MB cannot be kept; leave its pictures out."),
                    path};
        default:
            return {"cannot_read",
                    Words(NINE_WORDS("core",
                                     "The workshop file could not be used: {reason}. Nothing was changed."))
                        .name("reason", sqlite3_errmsg(db)),
                    path};
    }
}

Status run(sqlite3* db, const std::string& sql, const std::string& path) {
    const int code = sqlite3_exec(db, sql.c_str(), nullptr, nullptr, nullptr);
    if (code == SQLITE_OK) return Done{};
    const Error error = failure(db, code, path);
    if (!sqlite3_get_autocommit(db)) sqlite3_exec(db, "ROLLBACK", nullptr, nullptr, nullptr);
    return error;
}

/// The first number a question gives.
Result<int> ask(sqlite3* db, const char* sql, const std::string& path) {
    Query q(db, sql);
    const int code = q.step();
    if (code == SQLITE_ROW) return q.number(0);
    if (code == SQLITE_DONE) return 0;
    return failure(db, code, path);
}

std::string makingOf() {
    return "BEGIN IMMEDIATE;" + std::string(kLayout) +
           "PRAGMA application_id=" + std::to_string(kApplicationId) +
           "; PRAGMA user_version=" + std::to_string(kWorkshopVersion) + "; COMMIT;";
}

/// A whole new workshop under the path, or nothing there.
Status makeWorkshop(const std::string& path) {
    TemporaryFile fresh;
    if (const int problem = fresh.open(folderOf(path), 0600); problem != 0) return cannotWrite(path, problem);
    sqlite3* db = nullptr;
    int code = sqlite3_open_v2(fresh.path().c_str(), &db, SQLITE_OPEN_READWRITE, nullptr);
    Status made = code == SQLITE_OK
                      ? run(db, "PRAGMA journal_mode=MEMORY; PRAGMA synchronous=FULL;" + makingOf(), path)
                      : Status(failure(db, code, path));
    sqlite3_close(db);
    if (!made) return made;
    if (::rename(fresh.path().c_str(), path.c_str()) != 0) return cannotWrite(path, errno);
    fresh.renamed();
    return Done{};
}

/// Our turn to write; false when another program keeps it longer than we are willing to wait.
bool takeTurn(int lock, int patience_ms) {
    if (lock < 0) return false;
    const auto end = std::chrono::steady_clock::now() + std::chrono::milliseconds(patience_ms);
    while (::flock(lock, LOCK_EX | LOCK_NB) != 0) {
        if (std::chrono::steady_clock::now() >= end) return false;
        std::this_thread::sleep_for(std::chrono::milliseconds(5));
    }
    return true;
}

std::string now() {
    const std::time_t t = std::time(nullptr);
    std::tm utc{};
    ::gmtime_r(&t, &utc);
    char text[32];
    const std::size_t n = std::strftime(text, sizeof text, "%Y-%m-%dT%H:%M:%SZ", &utc);
    return {text, n};
}

std::vector<std::string> wordsOf(const std::string& text) {
    std::vector<std::string> words;
    std::string word;
    for (const char c : text + " ") {
        if (c != ' ') {
            word += c;
        } else if (!word.empty()) {
            words.push_back(std::exchange(word, {}));
        }
    }
    return words;
}

/// For LIKE: what would be read as a wildcard stands for itself.
std::string likeText(const std::string& word) {
    std::string out = "%";
    for (const char c : word) {
        if (c == '%' || c == '_' || c == '\\') out += '\\';
        out += c;
    }
    return out + "%";
}

}  // namespace

Result<Workshop> Workshop::open(const std::string& path, Access access, int patience_ms) {
    Workshop w;
    w.path_ = path;
    std::error_code ignored;
    const auto there = [&](const std::string& name) { return std::filesystem::exists(name, ignored); };
    if (access == Access::Write) {
        if (Status made = makePrivateFolder(folderOf(path)); !made)
            return Error{"cannot_open", made.error().words, path};
        w.lock_ = ::open((path + ".lock").c_str(), O_RDWR | O_CREAT | O_NOFOLLOW | O_CLOEXEC, 0600);
    }
    w.readOnly_ = !takeTurn(w.lock_, patience_ms);
    if (!there(path)) {
        if (w.readOnly_)
            return Error{
                "cannot_open",
                access == Access::Read
                    ? Words(
                          NINE_WORDS("core", "There is no library at {path} yet; put a blank into it first."))
                          .name("path", path)
                    : Words(NINE_WORDS(
                          "core", "The workshop file cannot be made; check that its folder can be written.")),
                path};
        // A journal without its file would be taken for the new file's own: SQLite clears that up in place.
        if (!there(path + "-wal") && !there(path + "-journal")) {
            if (Status made = makeWorkshop(path); !made) return made.error();
        }
    } else if (!std::filesystem::is_regular_file(path, ignored)) {
        return Error{"not_a_workshop",
                     NINE_WORDS("core", "A folder or a device is no workshop file; choose a file."), path};
    }
    const int flags = w.readOnly_ ? SQLITE_OPEN_READONLY : SQLITE_OPEN_READWRITE | SQLITE_OPEN_CREATE;
    if (const int code = sqlite3_open_v2(path.c_str(), &w.db_, flags, nullptr); code != SQLITE_OK)
        return failure(w.db_, code, path);
    if (Status ok = w.prepare(); !ok) {
        // In a folder that cannot be written SQLite has no place for its journal's index; nobody writes
        // there.
        if (!w.readOnly_ || ok.error().code != "cannot_open" || there(path + "-wal")) return ok.error();
        sqlite3_close(std::exchange(w.db_, nullptr));
        std::string uri = "file:";
        for (const char c : path)
            uri += c == '?' ? "%3f" : c == '#' ? "%23" : c == '%' ? "%25" : std::string(1, c);
        if (const int code = sqlite3_open_v2((uri + "?immutable=1").c_str(), &w.db_,
                                             SQLITE_OPEN_READONLY | SQLITE_OPEN_URI, nullptr);
            code != SQLITE_OK)
            return failure(w.db_, code, path);
        if (Status again = w.prepare(); !again) return again.error();
    }
    return w;
}

Result<Workshop> Workshop::another() const {
    Workshop w;
    w.path_ = path_;
    w.readOnly_ = readOnly_;
    const int flags = readOnly_ ? SQLITE_OPEN_READONLY : SQLITE_OPEN_READWRITE;
    if (const int code = sqlite3_open_v2(path_.c_str(), &w.db_, flags, nullptr); code != SQLITE_OK)
        return failure(w.db_, code, path_);
    if (Status ok = w.prepare(); !ok) return ok.error();
    return w;
}

Status Workshop::prepare() {
    constexpr int kBusy_ms = 5000;
    sqlite3_busy_timeout(db_, kBusy_ms);
    sqlite3_db_config(db_, SQLITE_DBCONFIG_DEFENSIVE, 1, nullptr);
    sqlite3_db_config(db_, SQLITE_DBCONFIG_TRUSTED_SCHEMA, 0, nullptr);
    sqlite3_db_config(db_, SQLITE_DBCONFIG_ENABLE_TRIGGER, 0, nullptr);
    sqlite3_db_config(db_, SQLITE_DBCONFIG_ENABLE_VIEW, 0, nullptr);
    sqlite3_limit(db_, SQLITE_LIMIT_LENGTH, kMostRowBytes);
    const Result<int> id = ask(db_, "PRAGMA application_id", path_);
    if (!id) return id.error();
    const Result<int> version = ask(db_, "PRAGMA user_version", path_);
    if (!version) return version.error();
    const Result<int> things = ask(db_, "SELECT count(*) FROM sqlite_schema", path_);
    if (!things) return things.error();
    if (*id == 0 && *version == 0 && *things == 0) {  // made, and ended before anything stood in it
        if (!readOnly_) {
            if (Status made = run(db_, makingOf(), path_); !made) return made;
        }
    } else if (*id != kApplicationId) {
        return failure(db_, SQLITE_NOTADB, path_);
    } else if (*version > kWorkshopVersion) {
        return Error{"newer_format",
                     NINE_WORDS("core",
                                "The workshop file was written by a newer version; open it with that "
                                "version."),
                     path_};
    } else if (*version < kWorkshopVersion &&
               !readOnly_) {  // room for migrations: the old file is kept first
        if (Status kept = backUp(*version); !kept) return kept;
    }
    if (*things > 0) {
        const Result<int> tables =
            ask(db_, "SELECT count(*) FROM sqlite_schema WHERE name = 'rows' AND type = 'table'", path_);
        if (!tables) return tables.error();
        if (*tables != 1) return failure(db_, SQLITE_NOTADB, path_);
    }
    if (readOnly_) return Done{};
    return run(db_, "PRAGMA journal_mode=WAL; PRAGMA foreign_keys=ON;", path_);
}

Status Workshop::backUp(int version) const {
    const std::string backup = path_ + ".v" + std::to_string(version) + ".backup";
    std::error_code ignored;
    if (std::filesystem::exists(backup, ignored)) return Done{};
    TemporaryFile copy;
    if (const int problem = copy.open(folderOf(path_), 0600); problem != 0)
        return cannotWrite(backup, problem);
    sqlite3* to = nullptr;
    int code = sqlite3_open_v2(copy.path().c_str(), &to, SQLITE_OPEN_READWRITE, nullptr);
    if (sqlite3_backup* work = code == SQLITE_OK ? sqlite3_backup_init(to, "main", db_, "main") : nullptr) {
        sqlite3_backup_step(work, -1);
        code = sqlite3_backup_finish(work);
    } else if (code == SQLITE_OK) {
        code = sqlite3_errcode(to);
    }
    // One file, to be read by anything: without a journal beside it.
    if (code == SQLITE_OK) code = sqlite3_exec(to, "PRAGMA journal_mode=DELETE", nullptr, nullptr, nullptr);
    const Status failed = code == SQLITE_OK ? Status(Done{}) : Status(failure(to, code, backup));
    sqlite3_close(to);
    if (!failed) return failed;
    if (::fsync(copy.fd()) != 0 || ::rename(copy.path().c_str(), backup.c_str()) != 0)
        return cannotWrite(backup, errno);
    copy.renamed();
    return Done{};
}

Workshop::Workshop(Workshop&& other) noexcept
    : db_(std::exchange(other.db_, nullptr)),
      lock_(std::exchange(other.lock_, -1)),
      readOnly_(other.readOnly_),
      path_(std::move(other.path_)) {}

Workshop& Workshop::operator=(Workshop&& other) noexcept {
    std::swap(db_, other.db_);
    std::swap(lock_, other.lock_);
    readOnly_ = other.readOnly_;
    path_ = std::move(other.path_);
    return *this;
}

Workshop::~Workshop() {
    sqlite3_close(db_);
    if (lock_ >= 0) ::close(lock_);
}

Result<std::vector<WorkshopRow>> Workshop::list(const std::string& kind, const std::string& search) const {
    std::string sql = "SELECT id, name, tags, thumbnail, changed FROM rows WHERE kind = ?1 AND gone = 0";
    const std::vector<std::string> words = wordsOf(search);
    for (std::size_t i = 0; i < words.size(); ++i)
        sql += " AND (name || ' ' || tags) LIKE ?" + std::to_string(i + 2) + " ESCAPE '\\'";
    sql += " ORDER BY name COLLATE NOCASE, id LIMIT " + std::to_string(kMostRows);
    Query q(db_, sql.c_str());
    q.bind(1, kind);
    for (std::size_t i = 0; i < words.size(); ++i) q.bind(static_cast<int>(i) + 2, likeText(words[i]));
    std::vector<WorkshopRow> rows;
    int end = 0;
    while ((end = q.step()) == SQLITE_ROW)
        rows.push_back({kind, q.text(0), q.text(1), q.text(2), {}, q.text(3), q.text(4)});
    if (end != SQLITE_DONE) return failure(db_, end, path_);
    return rows;
}

Result<std::vector<WorkshopRow>> Workshop::whole(const std::string& kind) const {
    const std::string sql =
        "SELECT id, name, tags, json, changed FROM rows WHERE kind = ?1 AND gone = 0 ORDER BY id LIMIT " +
        std::to_string(kMostRows);
    Query q(db_, sql.c_str());
    q.bind(1, kind);
    std::vector<WorkshopRow> rows;
    int end = 0;
    while ((end = q.step()) == SQLITE_ROW)
        rows.push_back({kind, q.text(0), q.text(1), q.text(2), q.text(3), {}, q.text(4)});
    if (end != SQLITE_DONE) return failure(db_, end, path_);
    return rows;
}

Result<std::optional<WorkshopRow>> Workshop::get(const std::string& kind, const std::string& id) const {
    Query q(db_,
            "SELECT name, tags, json, thumbnail, changed FROM rows WHERE kind = ?1 AND id = ?2 AND gone = 0");
    q.bind(1, kind).bind(2, id);
    const int end = q.step();
    if (end == SQLITE_DONE) return std::optional<WorkshopRow>();
    if (end != SQLITE_ROW) return failure(db_, end, path_);
    return std::optional(WorkshopRow{kind, id, q.text(0), q.text(1), q.text(2), q.text(3), q.text(4)});
}

Status Workshop::put(const WorkshopRow& row) {
    if (readOnly_)
        return Error{"read_only",
                     NINE_WORDS("core",
                                "Another running copy of the program holds the workshop file; this one "
                                "can only read it. Close the other one first."),
                     path_};
    Query q(db_,
            "INSERT INTO rows (kind, id, name, tags, json, thumbnail, changed, gone) VALUES (?1, ?2, ?3, ?4, "
            "?5, ?6, ?7, 0)"
            " ON CONFLICT (kind, id) DO UPDATE SET name = ?3, tags = ?4, json = ?5, thumbnail = ?6, changed "
            "= ?7, gone = 0");
    q.bind(1, row.kind)
        .bind(2, row.id)
        .bind(3, row.name)
        .bind(4, row.tags)
        .bind(5, row.json)
        .bindBytes(6, row.thumbnail);
    q.bind(7, now());
    if (const int end = q.step(); end != SQLITE_DONE) return failure(db_, end, path_);
    return Done{};
}

Status Workshop::put(const std::vector<WorkshopRow>& rows) {
    if (Status begun = run(db_, "BEGIN IMMEDIATE", path_); !begun) return begun;
    for (const WorkshopRow& row : rows)
        if (Status ok = put(row); !ok) {
            (void)run(db_, "ROLLBACK", path_);
            return ok;
        }
    if (Status ended = run(db_, "COMMIT", path_); !ended) {
        (void)run(db_, "ROLLBACK", path_);
        return ended;
    }
    return Done{};
}

Status Workshop::mark(const std::string& kind, const std::string& id, bool gone) {
    if (readOnly_)
        return Error{"read_only",
                     NINE_WORDS("core",
                                "Another running copy of the program holds the workshop file; this one "
                                "can only read it. Close the other one first."),
                     path_};
    Query q(db_, gone ? "UPDATE rows SET gone = 1 WHERE kind = ?1 AND id = ?2"
                      : "UPDATE rows SET gone = 0 WHERE kind = ?1 AND id = ?2");
    q.bind(1, kind).bind(2, id);
    if (const int end = q.step(); end != SQLITE_DONE) return failure(db_, end, path_);
    if (sqlite3_changes(db_) == 0)
        return Error{"unknown_row",
                     Words(NINE_WORDS("core", "There is no \"{id}\" in the workshop file.")).name("id", id),
                     path_};
    return Done{};
}

Status Workshop::remove(const std::string& kind, const std::string& id) {
    return mark(kind, id, true);
}

Status Workshop::restore(const std::string& kind, const std::string& id) {
    return mark(kind, id, false);
}

Result<std::string> Workshop::freeId(const std::string& kind, const std::string& name) const {
    std::string base;
    for (const char c : name) {
        const bool word = (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
        if (word) {
            base += c;
        } else if (c >= 'A' && c <= 'Z') {
            base += static_cast<char>(c - 'A' + 'a');
        } else if (!base.empty() && base.back() != '-') {
            base += '-';
        }
    }
    while (!base.empty() && base.back() == '-') base.pop_back();
    if (base.empty()) base = kind;
    for (int n = 1;; ++n) {
        const std::string id = n == 1 ? base : base + "-" + std::to_string(n);
        Query q(db_, "SELECT 1 FROM rows WHERE kind = ?1 AND id = ?2");  // ids of rows taken out stay theirs
        q.bind(1, kind).bind(2, id);
        const int end = q.step();
        if (end == SQLITE_DONE) return id;
        if (end != SQLITE_ROW) return failure(db_, end, path_);
    }
}

}  // namespace nine
