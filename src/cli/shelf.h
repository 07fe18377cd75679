// The shelf a verb works on: --shelf FILE, else the one that ships.
#pragma once

#include "cli/args.h"
#include "paint/bottle.h"

namespace nine::cli {

/// Errors: those of readFile and parseShelf.
Result<std::vector<Bottle>> shelfAsked(const Args& args);

}  // namespace nine::cli
