#include "job/json_place.h"

#include <algorithm>

namespace nine {
namespace {

/// Walks over well-formed JSON without building anything.
class Walker {
  public:
    explicit Walker(std::string_view text) : text_(text) {}

    /// Position of the value at `path` below the value at `at`, or of the deepest part found.
    std::size_t find(std::size_t at, std::string_view path) {
        at = skipBlanks(at);
        while (!path.empty() && path.front() == '.') path.remove_prefix(1);
        if (path.empty() || at >= text_.size()) return at;
        const bool index = path.front() == '[';
        const std::size_t end = index ? path.find(']') : path.find_first_of(".[");
        if (index && (end == std::string_view::npos || text_[at] != '[')) return at;
        if (!index && text_[at] != '{') return at;
        const std::string_view step = index ? path.substr(1, end - 1) : path.substr(0, end);
        const std::string_view rest =
            end == std::string_view::npos ? std::string_view() : path.substr(index ? end + 1 : end);
        std::size_t count = 0;
        for (std::size_t p = skipBlanks(at + 1); p < text_.size() && text_[p] != '}' && text_[p] != ']';) {
            bool here = index && std::to_string(count++) == step;
            if (!index) {
                const std::size_t keyEnd = endOfValue(text_, p);
                here = text_.substr(p + 1, keyEnd - p - 2) == step;
                p = skipBlanks(skipBlanks(keyEnd) + 1);  // past the colon
            }
            if (here) return find(p, rest);
            p = skipBlanks(endOfValue(text_, p));
            if (p < text_.size() && text_[p] == ',') p = skipBlanks(p + 1);
        }
        return at;
    }

  private:
    std::size_t skipBlanks(std::size_t at) const {
        return std::min(text_.find_first_not_of(" \t\r\n", at), text_.size());
    }

    std::string_view text_;
};

}  // namespace

std::size_t endOfValue(std::string_view text, std::size_t at) {
    int depth = 0;
    bool inString = false;
    for (; at < text.size(); ++at) {
        const char c = text[at];
        if (inString) {
            if (c == '\\') {
                ++at;
            } else if (c == '"') {
                inString = false;
                if (depth == 0) return at + 1;
            }
        } else if (c == '"') {
            inString = true;
        } else if (c == '{' || c == '[') {
            ++depth;
        } else if (c == '}' || c == ']') {
            if (depth == 0) return at;
            if (--depth == 0) return at + 1;
        } else if (depth == 0 && (c == ',' || c == ':' || c == ' ' || c == '\t' || c == '\r' || c == '\n')) {
            return at;
        }
    }
    return at;
}

std::size_t lineAt(std::string_view text, std::size_t offset) {
    const auto end = text.begin() + static_cast<long>(std::min(offset, text.size()));
    return 1 + static_cast<std::size_t>(std::count(text.begin(), end, '\n'));
}

std::size_t lineOfField(std::string_view text, std::string_view path) {
    return lineAt(text, Walker(text).find(0, path));
}

std::string lastKeyBefore(std::string_view text, std::size_t offset) {
    std::string_view before = text.substr(0, offset);
    for (std::size_t colon = before.rfind(':'); colon != std::string_view::npos && colon > 0;
         colon = before.rfind(':', colon - 1)) {
        const std::size_t close = before.find_last_not_of(" \t\r\n", colon - 1);
        if (close == std::string_view::npos || before[close] != '"' || close == 0) continue;
        const std::size_t open = before.rfind('"', close - 1);
        if (open == std::string_view::npos || close - open > 60) continue;
        return std::string(before.substr(open + 1, close - open - 1));
    }
    return {};
}

}  // namespace nine
