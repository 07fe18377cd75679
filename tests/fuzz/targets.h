// One function for every reader of files: it reads any bytes and may only answer with a value or an error.
// The fuzzer runs them, and so do the ordinary tests on what it has found.
#pragma once

#include <cstdint>
#include <functional>
#include <map>
#include <string>
#include <string_view>

namespace nine::fuzz {

using Target = std::function<void(std::string_view)>;

/// By name, as the folders of seeds are called: stations, job, bench, map, picture, tracing, workshop.
const std::map<std::string, Target>& targets();

}  // namespace nine::fuzz
