// Whole files in and out.
//
// Reading is bounded, so that a mistaken 100 MB file is refused before it fills the memory.
//
// Writing guarantees: the data goes to a new file of a name nobody can guess in the same folder, is flushed
// to the disk and then renamed over the target. If anything fails, all previous files are as they were and
// nothing is left beside them. A target that is a link stays one: the file it names is written. A file that
// is replaced keeps its mode and, where that is allowed, its owner. What is no regular file (a folder, a
// device, a pipe) is refused. A program killed in between leaves a temporary behind that the next write into
// that folder sweeps away; a kill between the renames of a set leaves some of its files new and the others as
// they were, each of them whole. Cost: the data, a flush, and a look through the folder.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "base/result.h"

namespace nine {

/// Largest station table or job file read, bytes: a thousand times a large real one.
constexpr std::size_t kMaxTextFileBytes = 16u << 20;

/// Errors: cannot_read, file_too_large.
Result<std::string> readFile(const std::string& path, std::size_t maxBytes = kMaxTextFileBytes);

/// Who may read a file that did not exist before. One that did keeps its mode.
enum class Readers {
    Everyone,  ///< as the user's umask says
    Owner      ///< mode 0600: what the program keeps for the user without being asked
};

/// Errors: cannot_write.
Status writeFileAtomically(const std::string& path, std::string_view data,
                           Readers readers = Readers::Everyone);

struct NamedFile {
    std::string name;  ///< relative to the folder it is written to
    std::string data;
};

/// Writes all of `files` and takes away all of `obsolete` (names, those that are not there are passed over),
/// or changes nothing: what had been replaced when something failed is put back. Creates `folder` (one level
/// deep or more) if it is missing. Errors: cannot_write: the folder cannot be made or written, the disk is
/// full, two names mean one file.
Status writeFilesAtomically(const std::string& folder, const std::vector<NamedFile>& files,
                            const std::vector<std::string>& obsolete = {});

/// Takes away temporaries whose writer is not running any more. Writing does this to its own folder.
void sweepTemporaries(const std::string& folder);

/// Makes the folder and those above it, the new ones readable by the owner alone (0700). Errors:
/// cannot_write.
Status makePrivateFolder(const std::string& folder);

/// A sentence on why a path could not be written: for writers of other rooms.
Error cannotWrite(const std::string& path, int errorNumber);

}  // namespace nine
