// Job files of earlier formats, brought to the format of today before they are read. Internal to job/.
//
// Each step is a pure function from text to text. It adds and takes away no line, so that a line number in
// the new text is the line number in the file; field paths are turned back by placeInFile().
#pragma once

#include <string>
#include <string_view>

#include "base/result.h"

namespace nine {

struct CurrentText {
    std::string text;  ///< in kJobFormat
    int format;        ///< of the file
    /// A place of the new text ("file:9 masks.masks[2].side") as it is called in the file ("file:9
    /// masks[2].side").
    std::string placeInFile(std::string place) const;
};

/// Errors: bad_json, too_deep, not_a_job, newer_format; bad_value when a chapter of format 1 is no list.
Result<CurrentText> inCurrentFormat(std::string_view text, const std::string& source);

/// From format 1, where the chapters `masks` and `spray` were lists, to 2, where they are objects that hold
/// the list under `masks` and have room for more. `text` is well-formed.
std::string format2From1(std::string_view text);

}  // namespace nine
