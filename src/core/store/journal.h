// A file of lines that only grows: each is on the disk when append() says so, whatever happens next.
//
// Opened by one program at a time. A line cut off by a crash is taken off when it is opened again. When the
// disk refuses, lines are kept in memory and written before the next one, in order. Not thread-safe.
#pragma once

#include <string>
#include <vector>

#include "base/result.h"

namespace nine {

class Journal {
  public:
    /// Makes the file, and its folder, where there is none. Errors: cannot_open, cannot_write, in_use.
    static Result<Journal> open(const std::string& path);
    /// The lines of a file nobody need have open; half a line at its end is left out. Errors: cannot_open.
    static Result<std::vector<std::string>> read(const std::string& path);
    Journal(Journal&& other) noexcept;
    Journal& operator=(Journal&& other) noexcept;
    ~Journal();

    const std::vector<std::string>& lines() const { return lines_; }  ///< all, those still to be written too
    /// Without its end of line, and with none in it. Errors: cannot_write; the line is kept and written with
    /// the next.
    Status append(const std::string& line);
    /// Writes what is kept. Errors: cannot_write.
    Status retry();
    std::size_t unwritten() const { return lines_.size() - written_; }
    const std::string& path() const { return path_; }

  private:
    Journal() = default;

    std::string path_;
    int file_ = -1;
    std::vector<std::string> lines_;
    std::size_t written_ = 0;
    long long size_ = 0;  ///< of the whole lines on the disk, bytes
};

}  // namespace nine
