// A shelf of paints as a JSON file: {"paints": [...]}, each as in a job's `layers`.
#pragma once

#include "job/chapters/layers.h"

namespace nine {

/// Errors: bad_json, missing, bad_value, duplicate_id, those of checkBottle, with "file:line field".
Result<std::vector<Bottle>> parseShelf(std::string_view text, const std::string& source);
std::string shelfText(const std::vector<Bottle>& shelf);

}  // namespace nine
