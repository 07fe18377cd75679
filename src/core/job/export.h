// From solved masks to the files a painter prints or cuts.
#pragma once

#include "base/files.h"
#include "job/derive.h"

namespace nine {

inline constexpr const char* kPdfFileName = "sheets.pdf";
/// "sheet-1.svg" for page 0; `suffix` "svg" or "dxf". With a stem "stem-sheet-1.svg".
std::string sheetFileName(std::size_t page, const std::string& suffix = "svg", const std::string& stem = {});

/// A name for files from what people wrote: "sedge-60-brook-char" for "Sedge 60" and "Brook char". Letters of
/// all scripts stay; what file systems or shells take for something else becomes a hyphen; up to 80 bytes;
/// never empty.
std::string fileStem(const std::string& words);

/// Pieces of all masks, in their order, laid out as the job says. Errors: those of the masks and of
/// layOutPieces.
Result<CutPages> cutPages(const Job& job, const std::vector<MaskResult>& masks);

/// The pages as lines, with the notes that say where marks belong.
std::vector<Drawing> drawPages(const Job& job, const std::vector<MaskResult>& masks, const CutPages& pages);

struct PageFormats {
    bool svg = false, pdf = false, dxf = false;
};
/// One SVG or DXF a page and one PDF of all pages, as asked.
std::vector<NamedFile> pageFiles(const std::vector<Drawing>& pages, const PageFormats& formats,
                                 const std::string& stem = {});
/// Their names.
std::vector<std::string> pageFileNames(std::size_t pages, const PageFormats& formats,
                                       const std::string& stem = {});
/// Which of the names in a folder are sheets of this stem and these formats beyond `pages`: left by an
/// earlier, longer export.
std::vector<std::string> sheetsBeyond(const std::vector<std::string>& names, std::size_t pages,
                                      const PageFormats& formats, const std::string& stem);

}  // namespace nine
