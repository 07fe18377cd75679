// Values of nets, wishes and lines within their limits, said the same way everywhere.
#pragma once

#include <string>

#include "base/result.h"
#include "base/units.h"

namespace nine {

/// Errors: out_of_range, with `path` + "." + field (the field alone without a path).
Status checkWithin(const std::string& field, Figure value, Figure low, Figure high, const std::string& path);

}  // namespace nine
