#include "base/files.h"

#include <dirent.h>
#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <cstdio>
#include <cstring>
#include <filesystem>
#include <memory>
#include <optional>

#include "base/temporary_file.h"

namespace nine {
namespace {

namespace fs = std::filesystem;

constexpr int kMostLinks = 40;  // as the kernel follows

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
        case ENAMETOOLONG:
            return "its name is too long";
        case ELOOP:
            return "it is a link that leads to itself";
        default:
            return std::strerror(errorNumber);
    }
}

/// In a folder as people name it: a missing one is the folder's fault, not the file's.
Error cannotWriteIn(const std::string& path, int errorNumber) {
    std::error_code ignored;
    const std::string folder = folderOf(path);
    if (errorNumber == ENOENT && !fs::exists(folder, ignored))
        return {"cannot_write",
                Words(NINE_WORDS("core",
                                 "Cannot write {path}: the folder {folder} does not exist. Make it first, "
                                 "or choose another folder."))
                    .name("path", path)
                    .name("folder", folder),
                path};
    return cannotWrite(path, errorNumber);
}

/// The file that a path means in the end, links followed; it need not exist. Errors: cannot_write for what is
/// no regular file.
Result<std::string> targetOf(const std::string& path) {
    std::string at = path;
    for (int links = 0; links < kMostLinks; ++links) {
        struct stat info {};
        if (::lstat(at.c_str(), &info) != 0) {
            if (errno == ENOENT) return at;
            return cannotWriteIn(path, errno);
        }
        if (S_ISDIR(info.st_mode)) return cannotWrite(path, EISDIR);
        if (S_ISREG(info.st_mode)) return at;
        if (!S_ISLNK(info.st_mode))
            return Error{
                "cannot_write",
                Words(NINE_WORDS("core",
                                 "Cannot write {path}: it is a device or a pipe, not a file. Nothing was "
                                 "written; choose another name."))
                    .name("path", path),
                path};
        std::error_code problem;
        const fs::path next = fs::read_symlink(at, problem);
        if (problem) return cannotWrite(path, problem.value());
        at = (next.is_absolute() ? next : fs::path(folderOf(at)) / next).string();
    }
    return cannotWrite(path, ELOOP);
}

/// After a rename only the folder's own flush makes the new name survive a power cut.
void flushFolder(const std::string& folder) {
    const Descriptor dir(::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (dir.get() >= 0) ::fsync(dir.get());
}

/// One file of a set: made beside its target, put in its place, and taken back if a later one fails.
class Replacement {
  public:
    static Result<Replacement> prepare(const std::string& path, std::string_view data, Readers readers) {
        const Result<std::string> target = targetOf(path);
        if (!target) return target.error();
        Replacement r;
        r.path_ = path;
        r.target_ = *target;
        const std::string folder = folderOf(r.target_);
        sweepTemporaries(folder);
        struct stat before {};
        r.replaces_ = ::stat(r.target_.c_str(), &before) == 0;
        int problem = r.fresh_.open(folder, readers == Readers::Owner ? 0600 : 0666);
        if (problem != 0) return cannotWriteIn(path, problem);
        if (r.replaces_) {
            // Another owner's file stays theirs if we may say so; and the mode last, for chown clears bits of
            // it.
            const bool owned = ::fchown(r.fresh_.fd(), before.st_uid, before.st_gid) == 0 ||
                               ::fchown(r.fresh_.fd(), static_cast<uid_t>(-1), before.st_gid) == 0;
            (void)owned;
            if (::fchmod(r.fresh_.fd(), before.st_mode & 07777) != 0) problem = errno;
        }
        if (problem == 0) problem = r.fresh_.write(data);
        if (problem != 0) return cannotWrite(path, problem);
        return r;
    }
    /// A file that is only taken away; nothing if it is not there.
    static Result<std::optional<Replacement>> removal(const std::string& path) {
        const Result<std::string> target = targetOf(path);
        if (!target) return target.error();
        struct stat before {};
        if (::lstat(path.c_str(), &before) != 0) return std::optional<Replacement>();
        Replacement r;
        r.path_ = path;
        r.target_ = path;  // of a link the link goes, not what it names
        r.replaces_ = true;
        r.removes_ = true;
        return std::optional<Replacement>(std::move(r));
    }

    Status apply(bool mayHaveToGoBack) {
        if (removes_) {
            old_ = TemporaryFile::randomPath(folderOf(target_));
            held_ = Descriptor(::open(target_.c_str(), O_RDONLY | O_NOFOLLOW | O_NONBLOCK | O_CLOEXEC));
            if (held_.get() >= 0) ::flock(held_.get(), LOCK_EX | LOCK_NB);
            if (::rename(target_.c_str(), old_.c_str()) != 0) {
                const int problem = errno;
                old_.clear();
                return cannotWrite(path_, problem);
            }
            return Done{};
        }
        if (replaces_ && mayHaveToGoBack) {
            if (const int problem = keepOld(); problem != 0) return cannotWrite(path_, problem);
        }
        if (::rename(fresh_.path().c_str(), target_.c_str()) != 0) return cannotWrite(path_, errno);
        fresh_.renamed();
        applied_ = true;
        return Done{};
    }
    void undo() {
        if (removes_ ? !old_.empty() : applied_ && replaces_) {
            ::rename(old_.c_str(), target_.c_str());
        } else if (applied_) {
            ::unlink(target_.c_str());
        } else if (!old_.empty()) {
            ::unlink(old_.c_str());  // a second name of what is still in its place
        }
        old_.clear();
    }
    void finish() {
        if (!old_.empty()) ::unlink(old_.c_str());
        old_.clear();
    }
    const std::string& target() const { return target_; }

    Replacement(Replacement&&) = default;

  private:
    Replacement() = default;

    /// A second name for the old file, or a copy on file systems that know no second names.
    int keepOld() {
        held_ = Descriptor(::open(target_.c_str(), O_RDONLY | O_CLOEXEC));
        if (held_.get() >= 0) ::flock(held_.get(), LOCK_EX | LOCK_NB);  // nobody sweeps it away meanwhile
        const std::string name = TemporaryFile::randomPath(folderOf(target_));
        if (::link(target_.c_str(), name.c_str()) == 0) {
            old_ = name;
            return 0;
        }
        std::error_code problem;
        fs::copy_file(target_, name, problem);
        if (problem) {
            ::unlink(name.c_str());
            return problem.value();
        }
        old_ = name;
        return 0;
    }

    std::string path_, target_, old_;
    TemporaryFile fresh_;
    Descriptor held_;
    bool replaces_ = false, removes_ = false, applied_ = false;
};

Status applyAll(std::vector<Replacement>& all) {
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (Status ok = all[i].apply(all.size() > 1); !ok) {
            for (std::size_t k = i + 1; k-- > 0;) all[k].undo();
            return ok;
        }
    }
    for (Replacement& r : all) r.finish();
    std::string flushed;
    for (const Replacement& r : all) {
        const std::string folder = folderOf(r.target());
        if (folder != flushed) flushFolder(folder);
        flushed = folder;
    }
    return Done{};
}

}  // namespace

Error cannotWrite(const std::string& path, int errorNumber) {
    return {"cannot_write",
            Words(NINE_WORDS("core",
                             "Cannot write {path}: {reason}. The previous file, if there was "
                             "one, is unchanged; choose another folder or make room."))
                .name("path", path)
                .name("reason", reason(errorNumber)),
            path};
}

Result<std::string> readFile(const std::string& path, std::size_t maxBytes) {
    Descriptor file(::open(path.c_str(), O_RDONLY | O_CLOEXEC));
    const auto cannotRead = [&](int errorNumber) {
        return Error{"cannot_read",
                     Words(NINE_WORDS("core", "Cannot read {path}: {reason}."))
                         .name("path", path)
                         .name("reason", reason(errorNumber)),
                     path};
    };
    if (file.get() < 0) return cannotRead(errno);
    struct stat info {};
    if (::fstat(file.get(), &info) != 0) return cannotRead(errno);
    if (S_ISDIR(info.st_mode)) return cannotRead(EISDIR);
    const auto tooLarge = [&] {
        return Error{"file_too_large",
                     Words(NINE_WORDS("core",
                                      "{path} is larger than {most} MB, which no file of this kind is; "
                                      "check that it is the right file."))
                         .name("path", path)
                         .number("most", maxBytes >> 20, 0),
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

Status writeFileAtomically(const std::string& path, std::string_view data, Readers readers) {
    Result<Replacement> prepared = Replacement::prepare(path, data, readers);
    if (!prepared) return prepared.error();
    std::vector<Replacement> one;
    one.push_back(std::move(*prepared));
    return applyAll(one);
}

Status writeFilesAtomically(const std::string& folder, const std::vector<NamedFile>& files,
                            const std::vector<std::string>& obsolete) {
    std::error_code problem;
    fs::create_directories(folder, problem);
    if (problem) return cannotWrite(folder, problem.value());
    const auto pathOf = [&](const std::string& name) { return (fs::path(folder) / name).string(); };
    std::vector<Replacement> all;
    for (const NamedFile& file : files) {
        Result<Replacement> prepared = Replacement::prepare(pathOf(file.name), file.data, Readers::Everyone);
        if (!prepared) return prepared.error();
        for (const Replacement& other : all) {
            if (!fs::equivalent(other.target(), prepared->target(), problem) &&
                other.target() != prepared->target())
                continue;
            return Error{"cannot_write",
                         Words(NINE_WORDS("core",
                                          "Cannot write {name}: another file of this set is the same file "
                                          "({target}). Nothing was written; choose another folder."))
                             .name("name", pathOf(file.name))
                             .name("target", other.target()),
                         pathOf(file.name)};
        }
        all.push_back(std::move(*prepared));
    }
    for (const std::string& name : obsolete) {
        if (std::any_of(files.begin(), files.end(), [&](const NamedFile& f) { return f.name == name; }))
            continue;
        Result<std::optional<Replacement>> removal = Replacement::removal(pathOf(name));
        if (!removal) return removal.error();
        if (*removal) all.push_back(std::move(**removal));
    }
    return applyAll(all);
}

void sweepTemporaries(const std::string& folder) {
    const std::unique_ptr<DIR, int (*)(DIR*)> dir(::opendir(folder.c_str()), ::closedir);
    if (!dir) return;
    while (const dirent* entry = ::readdir(dir.get())) {
        if (!TemporaryFile::isItsName(entry->d_name)) continue;
        const int at = ::dirfd(dir.get());
        const Descriptor file(::openat(at, entry->d_name, O_RDONLY | O_NOFOLLOW | O_NONBLOCK | O_CLOEXEC));
        struct stat info {};
        if (file.get() < 0 || ::fstat(file.get(), &info) != 0 || !S_ISREG(info.st_mode)) continue;
        if (::flock(file.get(), LOCK_EX | LOCK_NB) == 0) ::unlinkat(at, entry->d_name, 0);
    }
}

Status makePrivateFolder(const std::string& folder) {
    std::string made;
    for (const fs::path& part : fs::path(folder)) {
        made = made.empty() ? part.string() : (fs::path(made) / part).string();
        if (::mkdir(made.c_str(), 0700) != 0 && errno != EEXIST) {
            const int problem = errno;
            std::error_code ignored;
            if (!fs::is_directory(made, ignored)) return cannotWrite(folder, problem);
        }
    }
    std::error_code problem;
    if (!fs::is_directory(folder, problem)) return cannotWrite(folder, ENOTDIR);
    return Done{};
}

}  // namespace nine
