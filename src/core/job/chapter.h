// What the program asks of a chapter of a job, whichever it is: its key in the file, how it is read and
// written, what of it must agree with other chapters. A chapter is one file in job/chapters/ and one word in
// the list of job/job.h; reading, writing, checking, undo and what follows from an edit are loops over that
// list.
//
// Chapters are values that are shared and never changed. Each has `std::string unknownJson`: the keys of its
// object in the file that this version does not know.
#pragma once

#include <memory>
#include <nlohmann/json_fwd.hpp>

#include "base/result.h"

namespace nine {

struct Job;

namespace json {
class Fields;
using Json = nlohmann::ordered_json;
}  // namespace json

/// Specialised beside each chapter's struct. Has, besides what UsualChapter gives:
///   key            in the file and in every place that an error names
///   read(f, w)     from the chapter's object. Throws json::Bad
///   write(json, c) into its object; a chapter that writes nothing is left out of the file
template <typename C>
struct ChapterOf;

/// What most chapters do.
template <typename C>
struct UsualChapter {
    static constexpr bool needed = false;  ///< a file without it is no job
    /// What the numbers cannot say by themselves: that ids are unique, that what it names in other chapters
    /// exists. Errors with field paths.
    static Status check(const Job&) { return Done{}; }
    /// The chapter after edits of those before it in the list; the same value when there is nothing to do.
    static std::shared_ptr<const C> inStep(const Job&, const std::shared_ptr<const C>& now) { return now; }
};

}  // namespace nine
