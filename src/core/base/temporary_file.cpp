#include "base/temporary_file.h"

#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <filesystem>
#include <random>

namespace nine {
namespace {

constexpr std::string_view kStart = ".nine-leaves-", kEnd = ".part";
constexpr int kMostTries = 16;  // of random names, each taken by accident once in 2^64

}  // namespace

int Descriptor::closeNow() {
    const int fd = std::exchange(fd_, -1);
    return fd < 0 ? 0 : ::close(fd);
}

TemporaryFile::~TemporaryFile() {
    if (!name_.empty()) ::unlink(name_.c_str());
}

int TemporaryFile::open(const std::string& folder, mode_t mode) {
    for (int i = 0; i < kMostTries; ++i) {
        std::string name = randomPath(folder);
        Descriptor file(::open(name.c_str(), O_RDWR | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, mode));
        if (file.get() < 0) {
            if (errno == EEXIST) continue;
            return errno;
        }
        // Somebody may have swept it away in the moment before it was held; then try again.
        struct stat info {};
        const bool held = ::flock(file.get(), LOCK_EX | LOCK_NB) == 0;
        if (!held || ::fstat(file.get(), &info) != 0 || info.st_nlink == 0) {
            ::unlink(name.c_str());
            continue;
        }
        file_ = std::move(file);
        name_ = std::move(name);
        return 0;
    }
    return EEXIST;
}

int TemporaryFile::write(std::string_view data) {
    while (!data.empty()) {
        const ssize_t written = ::write(file_.get(), data.data(), data.size());
        if (written < 0 && errno != EINTR) return errno;
        if (written > 0) data.remove_prefix(static_cast<std::size_t>(written));
    }
    return ::fsync(file_.get()) != 0 && errno != EINVAL ? errno : 0;
}

std::string TemporaryFile::randomPath(const std::string& folder) {
    static constexpr char digits[] = "0123456789abcdef";
    std::random_device random;
    std::string name;
    for (int i = 0; i < 16; ++i) name += digits[random() % 16];
    return folder + "/" + std::string(kStart) + name + std::string(kEnd);
}

bool TemporaryFile::isItsName(std::string_view name) {
    return name.size() > kStart.size() + kEnd.size() && name.substr(0, kStart.size()) == kStart &&
           name.substr(name.size() - kEnd.size()) == kEnd;
}

std::string folderOf(const std::string& path) {
    const std::string folder = std::filesystem::path(path).parent_path().string();
    return folder.empty() ? "." : folder;
}

}  // namespace nine
