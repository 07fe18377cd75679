// Elements of any kind in job files: what is common to all, then the parameters of the kind in their order.
// Internal to job/.
#pragma once

#include "job/json_fields.h"
#include "pattern/element.h"

namespace nine {

/// Of a kind that is not known the whole object is kept, and `warnings` says so. Throws json::Bad: missing,
/// bad_value.
Element readElement(const json::Value& json, const std::string& path, Warnings& warnings);

json::Json writeElement(const Element& element);

}  // namespace nine
