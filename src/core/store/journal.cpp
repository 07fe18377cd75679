#include "store/journal.h"

#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <filesystem>
#include <utility>

namespace nine {
namespace {

Error said(const char* code, Pattern pattern, const std::string& path, int reason) {
    return {code, Words(pattern).name("file", path).name("reason", std::strerror(reason)), path};
}
Error notWritten(const std::string& path, int reason) {
    return said(
        "cannot_write",
        NINE_WORDS(
            "core",
            "{file} cannot be written: {reason}. What happens is kept in memory and written as soon as "
            "it can be."),
        path, reason);
}

/// Whole lines of a text, and how many bytes they are.
std::pair<std::vector<std::string>, long long> wholeLines(const std::string& text) {
    std::vector<std::string> lines;
    std::size_t from = 0;
    for (std::size_t end; (end = text.find('\n', from)) != text.npos; from = end + 1)
        lines.push_back(text.substr(from, end - from));
    return {std::move(lines), static_cast<long long>(from)};
}

bool readAll(int file, std::string& text) {
    char buffer[1 << 16];
    for (ssize_t n; (n = ::read(file, buffer, sizeof buffer)) != 0;) {
        if (n < 0 && errno == EINTR) continue;
        if (n < 0) return false;
        text.append(buffer, static_cast<std::size_t>(n));
    }
    return true;
}

}  // namespace

Result<Journal> Journal::open(const std::string& path) {
    std::error_code ignored;
    std::filesystem::create_directories(std::filesystem::path(path).parent_path(), ignored);
    Journal journal;
    journal.path_ = path;
    journal.file_ = ::open(path.c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0600);
    if (journal.file_ < 0)
        return said("cannot_open", NINE_WORDS("core", "{file} cannot be opened: {reason}."), path, errno);
    if (::flock(journal.file_, LOCK_EX | LOCK_NB) != 0)
        return Error{
            "in_use",
            Words(
                NINE_WORDS("core", "Another window is recording in {file}: go on there, or close it first."))
                .name("file", path),
            path};
    std::string text;
    if (!readAll(journal.file_, text))
        return said("cannot_open", NINE_WORDS("core", "{file} cannot be opened: {reason}."), path, errno);
    std::tie(journal.lines_, journal.size_) = wholeLines(text);
    journal.written_ = journal.lines_.size();
    return journal;
}

Result<std::vector<std::string>> Journal::read(const std::string& path) {
    const int file = ::open(path.c_str(), O_RDONLY | O_CLOEXEC);
    std::string text;
    const bool good = file >= 0 && readAll(file, text);
    const int reason = errno;
    if (file >= 0) ::close(file);
    if (!good)
        return said("cannot_open", NINE_WORDS("core", "{file} cannot be opened: {reason}."), path, reason);
    return wholeLines(text).first;
}

Status Journal::append(const std::string& line) {
    std::string clean = line;
    for (char& c : clean)
        if (c == '\n') c = ' ';
    lines_.push_back(std::move(clean));
    return retry();
}

Status Journal::retry() {
    if (written_ == lines_.size()) return Done{};
    std::string text;
    for (std::size_t i = written_; i < lines_.size(); ++i) text += lines_[i] + "\n";
    // Whatever part of an earlier try got through is written over.
    std::size_t sent = 0;
    while (sent < text.size()) {
        const ssize_t n =
            ::pwrite(file_, text.data() + sent, text.size() - sent, size_ + static_cast<off_t>(sent));
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0) {
            const int reason = n < 0 ? errno : ENOSPC;
            if (::ftruncate(file_, size_) != 0) return notWritten(path_, errno);
            return notWritten(path_, reason);
        }
        sent += static_cast<std::size_t>(n);
    }
    const long long size = size_ + static_cast<long long>(text.size());
    // A line cut off before may have been longer.
    if (::ftruncate(file_, size) != 0 || ::fdatasync(file_) != 0) return notWritten(path_, errno);
    size_ = size;
    written_ = lines_.size();
    return Done{};
}

Journal::Journal(Journal&& other) noexcept
    : path_(std::move(other.path_)),
      file_(std::exchange(other.file_, -1)),
      lines_(std::move(other.lines_)),
      written_(other.written_),
      size_(other.size_) {}

Journal& Journal::operator=(Journal&& other) noexcept {
    if (this == &other) return *this;
    if (file_ >= 0) ::close(file_);
    path_ = std::move(other.path_);
    file_ = std::exchange(other.file_, -1);
    lines_ = std::move(other.lines_);
    written_ = other.written_;
    size_ = other.size_;
    return *this;
}

Journal::~Journal() {
    if (file_ >= 0) ::close(file_);
}

}  // namespace nine
