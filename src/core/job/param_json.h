// The parameters of a kind, of elements or of masks, in job files. Internal to job/.
#pragma once

#include <span>

#include "job/json_fields.h"
#include "pattern/param.h"

namespace nine {

/// In their declared order; what is absent is as usual. Throws json::Bad: bad_value.
Values readParams(json::Fields& fields, std::span<const Param> params);
void writeParams(json::Json& into, std::span<const Param> params, const Values& values);

}  // namespace nine
