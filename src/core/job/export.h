// From solved masks to the files a painter prints or cuts.
#pragma once

#include "base/files.h"
#include "job/derive.h"

namespace nine {

inline constexpr const char* kPdfFileName = "sheets.pdf";
/// "sheet-1.svg" for page 0.
std::string sheetFileName(std::size_t page);

/// Pieces of all masks, in their order, laid out. Errors: those of the masks and of layOutPieces.
Result<CutPages> cutPages(const Job& job, const std::vector<MaskResult>& masks, const SheetSize& sheet);

/// One SVG a page and one PDF of all pages, as asked.
std::vector<NamedFile> pageFiles(const Job& job, const CutPages& pages, bool svg, bool pdf);

}  // namespace nine
