#include "job/export.h"

#include <algorithm>

namespace nine {

std::string sheetFileName(std::size_t page, const std::string& suffix) {
    return "sheet-" + std::to_string(page + 1) + "." + suffix;
}

Result<CutPages> cutPages(const Job& job, const std::vector<MaskResult>& masks) {
    std::vector<Piece> pieces;
    for (const MaskResult& result : masks) {
        if (!result.mask) return result.mask.error();
        pieces.push_back(pieceOf(job, *result.spec, **result.mask));
    }
    return layOutPieces(pieces, job.cut->sheet, job.cut->places);
}

std::vector<Drawing> drawPages(const Job& job, const std::vector<MaskResult>& masks, const CutPages& pages) {
    std::vector<Drawing> drawings;
    for (std::size_t page = 0; page < pages.pages; ++page) {
        PageText words{job.blank->name, {}};
        for (std::size_t i = 0; i < masks.size(); ++i) {
            if (!masks[i].mask || pages.pieces[i].page != page) continue;
            std::string note = pages.pieces[i].piece.name + ": ";
            for (const RegistrationMark& mark : (*masks[i].mask)->marks) {
                note += (mark.name == 'A' ? "" : ", ") + markSentence(mark);
            }
            // The twin of the other side has the same marks.
            if (std::find(words.notes.begin(), words.notes.end(), note) == words.notes.end())
                words.notes.push_back(note);
        }
        drawings.push_back(drawPage(pages, page, words));
    }
    return drawings;
}

std::vector<NamedFile> pageFiles(const std::vector<Drawing>& pages, const PageFormats& formats) {
    std::vector<NamedFile> files;
    for (std::size_t page = 0; page < pages.size(); ++page) {
        if (formats.svg) files.push_back({sheetFileName(page, "svg"), svgText(pages[page])});
        if (formats.dxf) files.push_back({sheetFileName(page, "dxf"), dxfText(pages[page])});
    }
    if (formats.pdf) files.push_back({kPdfFileName, pdfText(pages)});
    return files;
}

}  // namespace nine
