// The verbs of the command line, each said once: what runs, `--help` and docs/CLI.md all come from this
// table.
#pragma once

#include "cli/verbs.h"

namespace nine::cli {

struct VerbEntry {
    std::string_view first, second;  ///< second may be empty
    Result<Reply> (*run)(const Arguments&, const Task&);
    const char* usage;    ///< all of its words and flags
    const char* about;    ///< a line for --help
    const char* details;  ///< what it prints and writes, for docs/CLI.md
};

/// In the order they are told. A verb with two ways of use stands twice.
const std::vector<VerbEntry>& verbTable();

std::string helpText();
/// The table of docs/CLI.md.
std::string helpMarkdown();

}  // namespace nine::cli
