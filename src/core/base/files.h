// Whole files in and out.
//
// Reading is bounded, so that a mistaken 100 MB file is refused before it fills the memory.
// Writing is atomic: the data goes to a temporary file in the same folder, is flushed to the disk and then
// renamed over the target. If anything fails, the previous file is untouched and the temporary is removed.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "base/result.h"

namespace nine {

/// Largest station table or job file read, bytes: a thousand times a large real one.
constexpr std::size_t kMaxTextFileBytes = 16u << 20;

Result<std::string> readFile(const std::string& path, std::size_t maxBytes = kMaxTextFileBytes);

Status writeFileAtomically(const std::string& path, std::string_view data);

struct NamedFile {
    std::string name;  ///< relative to the folder it is written to
    std::string data;
};

/// Writes all or none: every file to its temporary first, then all are renamed. Creates `folder` (one
/// level deep or more) if it is missing. Errors: the folder cannot be made or written, the disk is full.
Status writeFilesAtomically(const std::string& folder, const std::vector<NamedFile>& files);

}  // namespace nine
