// The invented blanks of the demo, built in from examples/blanks/: file name and text.
#pragma once

#include <string>
#include <utility>
#include <vector>

namespace nine {

extern const std::vector<std::pair<std::string, std::string>> kDemoBlanks;

}  // namespace nine
