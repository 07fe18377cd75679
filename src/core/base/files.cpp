#include "base/files.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <filesystem>

namespace nine {
namespace {

namespace fs = std::filesystem;

std::string reason(int errorNumber) {
    switch (errorNumber) {
        case ENOENT:
            return "it does not exist";
        case EACCES:
        case EPERM:
            return "you have no permission";
        case ENOSPC:
        case EDQUOT:
            return "the disk is full";
        case EROFS:
            return "the disk is read-only";
        case EISDIR:
            return "it is a folder";
        case ENOTDIR:
            return "a part of the path is not a folder";
        default:
            return std::strerror(errorNumber);
    }
}

Error cannotWrite(const std::string& path, int errorNumber) {
    return {"cannot_write",
            "Cannot write " + path + ": " + reason(errorNumber) +
                ". The previous file, if there was one, is unchanged; choose another folder or make room.",
            path};
}

class Descriptor {
  public:
    explicit Descriptor(int fd) : fd_(fd) {}
    ~Descriptor() {
        if (fd_ >= 0) ::close(fd_);
    }
    Descriptor(const Descriptor&) = delete;
    Descriptor& operator=(const Descriptor&) = delete;
    int get() const { return fd_; }
    int closeNow() {
        const int fd = fd_;
        fd_ = -1;
        return ::close(fd);
    }

  private:
    int fd_;
};

std::string temporaryName(const std::string& path) {
    return path + ".part" + std::to_string(::getpid());
}

/// Writes and flushes `path`.part<pid>; removes it again on failure.
Status writeTemporary(const std::string& path, std::string_view data) {
    const std::string temporary = temporaryName(path);
    Descriptor file(::open(temporary.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0644));
    if (file.get() < 0) return cannotWrite(path, errno);
    int problem = 0;
    while (!data.empty() && problem == 0) {
        const ssize_t written = ::write(file.get(), data.data(), data.size());
        if (written < 0 && errno != EINTR) problem = errno;
        if (written > 0) data.remove_prefix(static_cast<std::size_t>(written));
    }
    if (problem == 0 && ::fsync(file.get()) != 0 && errno != EINVAL) problem = errno;
    if (file.closeNow() != 0 && problem == 0) problem = errno;
    if (problem == 0) return Done{};
    ::unlink(temporary.c_str());
    return cannotWrite(path, problem);
}

/// After a rename only the folder's own flush makes the new name survive a power cut.
void flushFolder(const std::string& folder) {
    Descriptor dir(::open(folder.empty() ? "." : folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (dir.get() >= 0) ::fsync(dir.get());
}

}  // namespace

Result<std::string> readFile(const std::string& path, std::size_t maxBytes) {
    Descriptor file(::open(path.c_str(), O_RDONLY | O_CLOEXEC));
    const auto cannotRead = [&](int errorNumber) {
        return Error{"cannot_read", "Cannot read " + path + ": " + reason(errorNumber) + ".", path};
    };
    if (file.get() < 0) return cannotRead(errno);
    struct stat info {};
    if (::fstat(file.get(), &info) != 0) return cannotRead(errno);
    if (S_ISDIR(info.st_mode)) return cannotRead(EISDIR);
    const auto tooLarge = [&] {
        return Error{"file_too_large",
                     path + " is larger than " + std::to_string(maxBytes >> 20) +
                         " MB, which no file of this kind is; check that it is the right file.",
                     path};
    };
    if (S_ISREG(info.st_mode) && static_cast<std::size_t>(info.st_size) > maxBytes) return tooLarge();

    std::string data;
    char buffer[65536];
    for (;;) {
        const ssize_t count = ::read(file.get(), buffer, sizeof buffer);
        if (count < 0 && errno == EINTR) continue;
        if (count < 0) return cannotRead(errno);
        if (count == 0) return data;
        data.append(buffer, static_cast<std::size_t>(count));
        if (data.size() > maxBytes) return tooLarge();
    }
}

Status writeFileAtomically(const std::string& path, std::string_view data) {
    if (Status written = writeTemporary(path, data); !written) return written;
    const std::string temporary = temporaryName(path);
    if (::rename(temporary.c_str(), path.c_str()) != 0) {
        const int problem = errno;
        ::unlink(temporary.c_str());
        return cannotWrite(path, problem);
    }
    flushFolder(fs::path(path).parent_path().string());
    return Done{};
}

Status writeFilesAtomically(const std::string& folder, const std::vector<NamedFile>& files) {
    std::error_code problem;
    fs::create_directories(folder, problem);
    if (problem) return cannotWrite(folder, problem.value());

    const auto pathOf = [&](const NamedFile& file) { return (fs::path(folder) / file.name).string(); };
    const auto dropTemporaries = [&] {
        for (const NamedFile& file : files) ::unlink(temporaryName(pathOf(file)).c_str());
    };
    for (const NamedFile& file : files) {
        if (Status written = writeTemporary(pathOf(file), file.data); !written) {
            dropTemporaries();
            return written;
        }
    }
    for (const NamedFile& file : files) {
        if (::rename(temporaryName(pathOf(file)).c_str(), pathOf(file).c_str()) != 0) {
            const Error error = cannotWrite(pathOf(file), errno);
            dropTemporaries();
            return error;
        }
    }
    flushFolder(folder);
    return Done{};
}

}  // namespace nine
