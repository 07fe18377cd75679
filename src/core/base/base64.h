// Bytes as text: base64 with padding (RFC 4648, section 4).
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace nine {

std::string base64Of(std::string_view bytes);
/// Nothing when the text is not base64.
std::optional<std::string> bytesOfBase64(std::string_view text);

/// 64-bit FNV-1a of the bytes as 16 hexadecimal digits: tells whether a file is still the same, no more.
std::string fingerprintOf(std::string_view bytes);

}  // namespace nine
