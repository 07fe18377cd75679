// The pattern: the marks in the order they are drawn, and the ground under them.
#pragma once

#include "job/chapter.h"
#include "pattern/element.h"

namespace nine {

struct PatternChapter {
    std::string name;
    std::string groundBack, groundSide, groundBelly;  ///< "#rrggbb" of the body under the marks; empty: bare
    std::vector<ElementPtr> elements;
    std::string unknownJson, groundUnknownJson;
};
using PatternPtr = std::shared_ptr<const PatternChapter>;

template <>
struct ChapterOf<PatternChapter> : UsualChapter<PatternChapter> {
    static constexpr const char* key = "pattern";
    static PatternChapter read(json::Fields& fields, Warnings& warnings);
    static void write(json::Json& into, const PatternChapter& pattern);
    static Status check(const Job& job);
};

Job withElement(const Job& job, std::size_t index, Element element);

}  // namespace nine
