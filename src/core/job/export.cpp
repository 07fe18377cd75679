#include "job/export.h"

namespace nine {

std::string sheetFileName(std::size_t page) { return "sheet-" + std::to_string(page + 1) + ".svg"; }

Result<CutPages> cutPages(const Job& job, const std::vector<MaskResult>& masks, const SheetSize& sheet) {
    std::vector<Piece> pieces;
    for (const MaskResult& result : masks) {
        if (!result.mask) return result.mask.error();
        pieces.push_back(pieceOf(job, *result.spec, **result.mask));
    }
    return layOutPieces(pieces, sheet);
}

std::vector<NamedFile> pageFiles(const Job& job, const CutPages& pages, bool svg, bool pdf) {
    std::vector<NamedFile> files;
    std::vector<Drawing> drawings;
    for (std::size_t page = 0; page < pages.pages; ++page) {
        drawings.push_back(drawPage(pages, page, job.blank->name));
        if (svg) files.push_back({sheetFileName(page), svgText(drawings.back())});
    }
    if (pdf) files.push_back({kPdfFileName, pdfText(drawings)});
    return files;
}

}  // namespace nine
