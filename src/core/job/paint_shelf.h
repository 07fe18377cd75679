// The shop's shelf of paints: those that ship, and rows of kind "paint" in the workshop file, each a paint as
// JSON. A row of the same id takes the place of one that ships, or says that it is not on this shelf. A job
// holds the paints it uses whole, so it needs none of this.
#pragma once

#include "job/shelf_file.h"
#include "store/workshop.h"

namespace nine {

inline constexpr const char* kPaintKind = "paint";

/// Rows that cannot be read are left out and told in `warnings`.
Result<std::vector<Bottle>> shelfOf(const Workshop& workshop, Warnings* warnings = nullptr);
/// Adds the paint, or replaces the row of its id; an empty id makes one from its name, which is returned.
/// Errors: checkBottle's, those of the workshop.
Result<std::string> putBottle(Workshop& workshop, Bottle bottle);
/// Takes it off the shelf; one that ships comes back by putting it there again.
Status takeBottle(Workshop& workshop, const Bottle& bottle);

}  // namespace nine
