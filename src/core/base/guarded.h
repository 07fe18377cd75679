// The edge of a thread: what work throws there becomes an error instead of the end of the program.
//
// Our own code throws nothing across functions; libraries and an exhausted memory do. The job is a value that
// nobody changes, so it is intact whatever was thrown.
#pragma once

#include <exception>
#include <new>
#include <string>
#include <type_traits>

#include "base/result.h"

namespace nine {

inline Error internalError(const std::string& what) {
    return {"internal",
            what.empty()
                ? Words(NINE_WORDS(
                      "core",
                      "The memory was not enough for this. Your job is untouched: save it, close other "
                      "programs or make the job smaller, and try again."))
                : Words(NINE_WORDS(
                            "core",
                            "Something went wrong inside the program ({what}). Your job is untouched: save "
                            "it, and try again."))
                      .name("what", what),
            ""};
}

/// What `work()` gives, or internal. A Result is handed on as it is, not wrapped in another.
template <typename Work>
auto guarded(const Work& work) {
    using Value = std::invoke_result_t<Work>;
    using Guarded = std::conditional_t<std::is_constructible_v<Value, Error>, Value, Result<Value>>;
    try {
        return Guarded(work());
    } catch (const std::bad_alloc&) {
        return Guarded(internalError({}));
    } catch (const std::exception& problem) {
        return Guarded(internalError(problem.what()));
    } catch (...) {
        return Guarded(internalError("of an unknown kind"));
    }
}

}  // namespace nine
