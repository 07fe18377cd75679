// The sheet pieces are cut from, what they are cut with, and where they were put by hand.
#pragma once

#include "cut/estimate.h"
#include "cut/layout.h"
#include "job/chapter.h"

namespace nine {

struct CutChapter {
    SheetSize sheet;
    std::string tool = "knife";  ///< id of a CutTool; one that this version does not know is kept
    std::vector<PiecePlace> places;
    std::string unknownJson, sheetUnknownJson;
};

template <>
struct ChapterOf<CutChapter> : UsualChapter<CutChapter> {
    static constexpr const char* key = "cut";
    static CutChapter read(json::Fields& fields, Warnings& warnings);
    static void write(json::Json& into, const CutChapter& cut);
};

/// The knife, when the tool is not known.
const CutTool& toolOf(const CutChapter& cut);

/// The piece stands where it is given; a place given before is replaced.
Job withPlace(const Job& job, PiecePlace place);
/// All pieces put by hand stand where these pages have them, the piece of this index too: page numbers of the
/// job and of the pages are the same then.
Job withPlacesOf(const Job& job, const CutPages& pages, std::size_t index);

}  // namespace nine
