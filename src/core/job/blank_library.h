// The painter's library of blanks: rows of kind "blank" in the workshop file, each a blank chapter as JSON
// with a small picture. In and out as job files that hold nothing but a blank.
#pragma once

#include "job/job.h"
#include "store/workshop.h"

namespace nine {

inline constexpr const char* kBlankKind = "blank";

struct LibraryBlank {
    std::string id, name, family;
    double length_mm = 0;
    std::string thumbnail;  ///< PNG, kThumbnailWidth x kThumbnailHeight, seen from the left
};
constexpr int kThumbnailWidth = 240, kThumbnailHeight = 120;

/// The blank's JSON and back. Errors of parseJob.
std::string blankText(const BlankChapter& blank);
Result<BlankChapter> parseBlank(const std::string& text, const std::string& source);

/// The blank seen from its left, on nothing; PNG. About 60 ms.
std::string thumbnailOf(const Skin& skin);

/// Blanks whose name or kind holds every word of `search`.
Result<std::vector<LibraryBlank>> libraryBlanks(const Workshop& workshop, const std::string& search = "");
Result<BlankChapter> blankFromLibrary(const Workshop& workshop, const std::string& id);
/// Adds the blank, or replaces the one of this id; an empty id makes a new one, which is returned. Pictures
/// that lie under it are kept. The thumbnail is drawn unless it is handed in.
Result<std::string> putInLibrary(Workshop& workshop, const BlankChapter& blank, const std::string& id = "",
                                 std::string thumbnail = {});

/// The seven blanks of the demo, each with all its landmarks.
std::vector<BlankChapter> demoBlanks();
/// Puts the demo's blanks into a library that has none.
Status seedLibrary(Workshop& workshop);

}  // namespace nine
