// From solved masks to the files a painter prints or cuts.
#pragma once

#include "base/files.h"
#include "job/derive.h"

namespace nine {

inline constexpr const char* kPdfFileName = "sheets.pdf";
/// "sheet-1.svg" for page 0; `suffix` "svg" or "dxf".
std::string sheetFileName(std::size_t page, const std::string& suffix = "svg");

/// Pieces of all masks, in their order, laid out as the job says. Errors: those of the masks and of
/// layOutPieces.
Result<CutPages> cutPages(const Job& job, const std::vector<MaskResult>& masks);

/// The pages as lines, with the notes that say where marks belong.
std::vector<Drawing> drawPages(const Job& job, const std::vector<MaskResult>& masks, const CutPages& pages);

struct PageFormats {
    bool svg = false, pdf = false, dxf = false;
};
/// One SVG or DXF a page and one PDF of all pages, as asked.
std::vector<NamedFile> pageFiles(const std::vector<Drawing>& pages, const PageFormats& formats);

}  // namespace nine
