// The workshop file: what outlives a job, in one SQLite database of rows.
//
// A row has a kind ("blank"), an id, a name, tags, a JSON document and a thumbnail. Nothing is ever erased:
// taking a row out marks it, so it can be put back. The first program that opens the file to write may write;
// a second one waits its turn as long as it is willing to, then reads (a lock file beside it, released when
// the program ends, however it ends). A new file is made under another name and renamed, so a kill leaves a
// whole one or none. Before the layout is brought up to date, the file is copied to a backup, what stands in
// its journal included. A file from elsewhere is trusted with nothing: no views, no triggers, no longer work
// than kMostSteps, no more than kMostRows. Readable by its owner alone. Not thread-safe: one Workshop a
// thread.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "base/result.h"

struct sqlite3;

namespace nine {

constexpr int kWorkshopVersion = 1;
constexpr int kMostRows = 20000;          ///< of one list: hundreds of times a large shop
constexpr long kMostSteps = 200'000'000;  ///< of SQLite's machine for one question: some seconds
constexpr int kMostRowBytes = 64 << 20;   ///< of one field: a blank with its pictures takes up to ten

struct WorkshopRow {
    std::string kind, id;
    std::string name;
    std::string tags;  ///< words parted by blanks
    std::string json;
    std::string thumbnail;  ///< PNG, may be empty
    std::string changed;    ///< UTC, "2026-11-25T18:00:00Z"; set by put()
};

class Workshop {
  public:
    enum class Access {
        Read,  ///< nothing is made or changed
        Write  ///< made if it is missing; readOnly() when another program holds it
    };
    /// `patience_ms` is how long to wait for another program that writes. Errors: cannot_open, cannot_write,
    /// not_a_workshop, newer_format.
    static Result<Workshop> open(const std::string& path, Access access = Access::Write, int patience_ms = 0);
    /// The same file for another thread, with the same right to write; not to outlive this one. Errors:
    /// cannot_open.
    Result<Workshop> another() const;
    Workshop(Workshop&&) noexcept;
    Workshop& operator=(Workshop&&) noexcept;
    ~Workshop();

    bool readOnly() const { return readOnly_; }

    /// Rows of a kind whose name or tags hold every word of `search` (any case), by name; without JSON.
    /// Errors, also of what follows: not_a_workshop, too_much_work, cannot_read.
    Result<std::vector<WorkshopRow>> list(const std::string& kind, const std::string& search = "") const;
    /// All rows of a kind whole but for their thumbnails, by id.
    Result<std::vector<WorkshopRow>> whole(const std::string& kind) const;
    /// Nothing when there is no such row, or it was taken out.
    Result<std::optional<WorkshopRow>> get(const std::string& kind, const std::string& id) const;
    /// Adds the row or replaces the one of the same kind and id. Errors: read_only, cannot_write.
    Status put(const WorkshopRow& row);
    /// All of them or none.
    Status put(const std::vector<WorkshopRow>& rows);
    Status remove(const std::string& kind, const std::string& id);
    /// Puts back what remove() took out.
    Status restore(const std::string& kind, const std::string& id);
    /// An id no row of this kind has, made from a name: "willow-104", "willow-104-2".
    Result<std::string> freeId(const std::string& kind, const std::string& name) const;

  private:
    Workshop() = default;
    Status prepare();
    Status backUp(int version) const;
    Status mark(const std::string& kind, const std::string& id, bool gone);

    sqlite3* db_ = nullptr;
    int lock_ = -1;
    bool readOnly_ = false;
    std::string path_;
};

}  // namespace nine
