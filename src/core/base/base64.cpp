#include "base/base64.h"

#include <array>
#include <cstdint>

namespace nine {
namespace {
constexpr std::string_view kLetters = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
}

std::string base64Of(std::string_view bytes) {
    std::string out;
    out.reserve((bytes.size() + 2) / 3 * 4);
    for (std::size_t i = 0; i < bytes.size(); i += 3) {
        const auto byte = [&](std::size_t k) {
            return i + k < bytes.size() ? static_cast<unsigned char>(bytes[i + k]) : 0u;
        };
        const unsigned group = byte(0) << 16 | byte(1) << 8 | byte(2);
        out += kLetters[group >> 18];
        out += kLetters[group >> 12 & 63u];
        out += i + 1 < bytes.size() ? kLetters[group >> 6 & 63u] : '=';
        out += i + 2 < bytes.size() ? kLetters[group & 63u] : '=';
    }
    return out;
}

std::optional<std::string> bytesOfBase64(std::string_view text) {
    if (text.size() % 4 != 0) return std::nullopt;
    std::array<int, 256> value;
    value.fill(-1);
    for (std::size_t i = 0; i < kLetters.size(); ++i)
        value[static_cast<unsigned char>(kLetters[i])] = static_cast<int>(i);
    std::size_t padding = 0;
    while (padding < 2 && padding < text.size() && text[text.size() - 1 - padding] == '=') ++padding;
    std::string out;
    out.reserve(text.size() / 4 * 3);
    for (std::size_t i = 0; i < text.size(); i += 4) {
        unsigned group = 0;
        for (std::size_t k = 0; k < 4; ++k) {
            const bool pad = i + k >= text.size() - padding;
            const int v = pad ? 0 : value[static_cast<unsigned char>(text[i + k])];
            if (v < 0) return std::nullopt;
            group = group << 6 | static_cast<unsigned>(v);
        }
        for (int shift = 16; shift >= 0; shift -= 8) out += static_cast<char>(group >> shift & 255u);
    }
    out.resize(out.size() - padding);
    return out;
}

std::string fingerprintOf(std::string_view bytes) {
    std::uint64_t hash = 0xcbf29ce484222325ULL;
    for (const char c : bytes) {
        hash ^= static_cast<unsigned char>(c);
        hash *= 0x100000001b3ULL;
    }
    std::string out;
    for (int shift = 60; shift >= 0; shift -= 4) out += "0123456789abcdef"[hash >> shift & 15u];
    return out;
}

}  // namespace nine
