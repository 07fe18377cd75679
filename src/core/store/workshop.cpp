#include "store/workshop.h"

#include <fcntl.h>
#include <sqlite3.h>
#include <sys/file.h>
#include <unistd.h>

#include <ctime>
#include <filesystem>
#include <utility>

namespace nine {
namespace {

/// A statement that is always finalised.
class Query {
  public:
    Query(sqlite3* db, const char* sql) { sqlite3_prepare_v2(db, sql, -1, &statement_, nullptr); }
    ~Query() { sqlite3_finalize(statement_); }
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
    int step() { return statement_ ? sqlite3_step(statement_) : SQLITE_ERROR; }
    std::string text(int column) const {
        const void* data = sqlite3_column_blob(statement_, column);
        const int size = sqlite3_column_bytes(statement_, column);
        return data ? std::string(static_cast<const char*>(data), static_cast<std::size_t>(size))
                    : std::string();
    }
    int number(int column) const { return sqlite3_column_int(statement_, column); }

  private:
    sqlite3_stmt* statement_ = nullptr;
};

constexpr int kApplicationId = 0x4E4C7673;  // tells our files from other databases

const char* const kLayout =
    "CREATE TABLE rows (kind TEXT NOT NULL, id TEXT NOT NULL, name TEXT NOT NULL, tags TEXT NOT NULL,"
    " json TEXT NOT NULL, thumbnail BLOB, changed TEXT NOT NULL, gone INTEGER NOT NULL DEFAULT 0,"
    " PRIMARY KEY (kind, id)) WITHOUT ROWID;"
    "CREATE INDEX rows_by_name ON rows (kind, gone, name COLLATE NOCASE);";

Status run(sqlite3* db, const std::string& sql) {
    if (sqlite3_exec(db, sql.c_str(), nullptr, nullptr, nullptr) == SQLITE_OK) return Done{};
    return Error{"cannot_write",
                 std::string("The workshop file could not be written: ") + sqlite3_errmsg(db) + ".",
                 "workshop"};
}

int pragma(sqlite3* db, const char* sql) {
    Query q(db, sql);
    return q.step() == SQLITE_ROW ? q.number(0) : 0;
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

Result<Workshop> Workshop::open(const std::string& path) {
    Workshop w;
    w.path_ = path;
    std::error_code ignored;
    std::filesystem::create_directories(std::filesystem::path(path).parent_path(), ignored);
    w.lock_ = ::open((path + ".lock").c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0644);
    w.readOnly_ = w.lock_ < 0 || ::flock(w.lock_, LOCK_EX | LOCK_NB) != 0;
    const bool fresh = !std::filesystem::exists(path);
    const Error cannot{"cannot_open",
                       "The workshop file cannot be opened; check that its folder can be written.", path};
    if (fresh && w.readOnly_) return cannot;
    const int flags = w.readOnly_ ? SQLITE_OPEN_READONLY : SQLITE_OPEN_READWRITE | SQLITE_OPEN_CREATE;
    if (sqlite3_open_v2(path.c_str(), &w.db_, flags, nullptr) != SQLITE_OK) return cannot;
    sqlite3_busy_timeout(w.db_, 2000);
    const int id = pragma(w.db_, "PRAGMA application_id"), version = pragma(w.db_, "PRAGMA user_version");
    const Error foreign{"not_a_workshop",
                        "This file is no Nine Leaves workshop file, or it is damaged; it was left as it is.",
                        path};
    if (fresh) {
        if (Status ok =
                run(w.db_, "PRAGMA journal_mode=WAL; PRAGMA foreign_keys=ON; BEGIN;" + std::string(kLayout) +
                               "PRAGMA application_id=" + std::to_string(kApplicationId) +
                               "; PRAGMA user_version=" + std::to_string(kWorkshopVersion) + "; COMMIT;");
            !ok)
            return ok.error();
        return w;
    }
    if (id != kApplicationId) return foreign;
    if (version > kWorkshopVersion)
        return Error{"newer_format",
                     "The workshop file was written by a newer version; open it with that version.", path};
    if (version < kWorkshopVersion && !w.readOnly_)  // room for migrations: the old file is kept first
        std::filesystem::copy_file(path, path + ".v" + std::to_string(version) + ".backup",
                                   std::filesystem::copy_options::skip_existing, ignored);
    if (!w.readOnly_)
        if (Status ok = run(w.db_, "PRAGMA journal_mode=WAL; PRAGMA foreign_keys=ON;"); !ok) return foreign;
    return w;
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
    sql += " ORDER BY name COLLATE NOCASE, id";
    Query q(db_, sql.c_str());
    q.bind(1, kind);
    for (std::size_t i = 0; i < words.size(); ++i) q.bind(static_cast<int>(i) + 2, likeText(words[i]));
    std::vector<WorkshopRow> rows;
    int end = 0;
    while ((end = q.step()) == SQLITE_ROW)
        rows.push_back({kind, q.text(0), q.text(1), q.text(2), {}, q.text(3), q.text(4)});
    if (end != SQLITE_DONE)
        return Error{"not_a_workshop", "The workshop file is damaged; take its backup.", path_};
    return rows;
}

Result<std::optional<WorkshopRow>> Workshop::get(const std::string& kind, const std::string& id) const {
    Query q(db_,
            "SELECT name, tags, json, thumbnail, changed FROM rows WHERE kind = ?1 AND id = ?2 AND gone = 0");
    q.bind(1, kind).bind(2, id);
    const int end = q.step();
    if (end == SQLITE_DONE) return std::optional<WorkshopRow>();
    if (end != SQLITE_ROW)
        return Error{"not_a_workshop", "The workshop file is damaged; take its backup.", path_};
    return std::optional(WorkshopRow{kind, id, q.text(0), q.text(1), q.text(2), q.text(3), q.text(4)});
}

Status Workshop::put(const WorkshopRow& row) {
    if (readOnly_)
        return Error{
            "read_only",
            "Another running copy of the program holds the workshop file; this one can only read it.", path_};
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
    if (q.step() == SQLITE_DONE) return Done{};
    return Error{"cannot_write",
                 std::string("The workshop file could not be written: ") + sqlite3_errmsg(db_) + ".", path_};
}

Status Workshop::mark(const std::string& kind, const std::string& id, bool gone) {
    if (readOnly_)
        return Error{
            "read_only",
            "Another running copy of the program holds the workshop file; this one can only read it.", path_};
    Query q(db_, gone ? "UPDATE rows SET gone = 1 WHERE kind = ?1 AND id = ?2"
                      : "UPDATE rows SET gone = 0 WHERE kind = ?1 AND id = ?2");
    q.bind(1, kind).bind(2, id);
    if (q.step() != SQLITE_DONE)
        return Error{"cannot_write",
                     std::string("The workshop file could not be written: ") + sqlite3_errmsg(db_) + ".",
                     path_};
    if (sqlite3_changes(db_) == 0)
        return Error{"unknown_row", "There is no \"" + id + "\" in the workshop file.", path_};
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
        if (end != SQLITE_ROW)
            return Error{"not_a_workshop", "The workshop file is damaged; take its backup.", path_};
    }
}

}  // namespace nine
