// New files under names nobody can guess, in the folder of the file they will replace.
//
// Guarantees: the file did not exist before (O_EXCL), no link was followed to make it, and while its writer
// lives it is held (flock), so that sweepTemporaries() of base/files.h leaves it alone. It is removed with
// its owner unless renamed() was said. Its name is short, so that targets with the longest names work.
#pragma once

#include <sys/types.h>

#include <string>
#include <string_view>
#include <utility>

namespace nine {

/// A file descriptor that is always closed.
class Descriptor {
  public:
    explicit Descriptor(int fd = -1) : fd_(fd) {}
    ~Descriptor() { closeNow(); }
    Descriptor(Descriptor&& other) noexcept : fd_(std::exchange(other.fd_, -1)) {}
    Descriptor& operator=(Descriptor&& other) noexcept {
        std::swap(fd_, other.fd_);
        return *this;
    }
    int get() const { return fd_; }
    int closeNow();

  private:
    int fd_;
};

class TemporaryFile {
  public:
    TemporaryFile() = default;
    TemporaryFile(TemporaryFile&& other) noexcept
        : file_(std::move(other.file_)), name_(std::exchange(other.name_, {})) {}
    ~TemporaryFile();

    /// Makes it in `folder`. Returns 0 or an errno.
    int open(const std::string& folder, mode_t mode);
    /// Writes all and flushes it to the disk. Returns 0 or an errno.
    int write(std::string_view data);

    int fd() const { return file_.get(); }
    const std::string& path() const { return name_; }
    /// It is somebody else's file now.
    void renamed() { name_.clear(); }

    /// A free name of this kind, for a second name of a file.
    static std::string randomPath(const std::string& folder);
    static bool isItsName(std::string_view fileName);

  private:
    Descriptor file_;
    std::string name_;
};

/// "." for a name without a folder.
std::string folderOf(const std::string& path);

}  // namespace nine
