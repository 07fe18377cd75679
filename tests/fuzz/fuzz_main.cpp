// The fuzzer's entry: NINE_FUZZ_TARGET says which reader.
#include "tests/fuzz/targets.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    nine::fuzz::targets().at(NINE_FUZZ_TARGET)(std::string_view(reinterpret_cast<const char*>(data), size));
    return 0;
}
