// Line numbers for places in JSON text, so that a message can point at the line. Internal to job/.
#pragma once

#include <cstddef>
#include <string>
#include <string_view>

namespace nine {

/// Past the value that begins at `at` of a well-formed text.
std::size_t endOfValue(std::string_view text, std::size_t at);

/// Line (from 1) of the byte at `offset`.
std::size_t lineAt(std::string_view text, std::size_t offset);

/// Line of the value at a path like blank.stations[3].half_width_mm in well-formed JSON, or of its nearest
/// ancestor that exists.
std::size_t lineOfField(std::string_view text, std::string_view path);

/// The last object key that stands before `offset`; empty if there is none.
std::string lastKeyBefore(std::string_view text, std::size_t offset);

}  // namespace nine
