// The shop's nets: those that ship, and rows of kind "net" in the workshop file, each a net as JSON. A row of
// the same id takes the place of one that ships. A job holds its own net whole, so it needs none of this.
#pragma once

#include <string_view>

#include "scale/net.h"
#include "store/workshop.h"

namespace nine {

inline constexpr const char* kNetKind = "net";

/// As in job files. Errors: those of the chapter's net, with `source` and line.
std::string netText(const Net& net);
Result<Net> parseNet(std::string_view text, const std::string& source);

/// Rows that cannot be read are left out and told in `warnings`.
Result<std::vector<Net>> netsOf(const Workshop& workshop, Warnings* warnings = nullptr);
/// Adds the net, or replaces the row of its id; an empty id makes one from its name, which is returned.
/// Errors: checkNet's, those of the workshop.
Result<std::string> putNet(Workshop& workshop, Net net);
/// The one that ships is back, if there is one of this id.
Status removeNet(Workshop& workshop, const std::string& id);

}  // namespace nine
