#include "job/export.h"

#include <algorithm>

#include "job/bill_cover.h"

namespace nine {

std::string sheetFileName(std::size_t page, const std::string& suffix, const std::string& stem) {
    return (stem.empty() ? "" : stem + "-") + "sheet-" + std::to_string(page + 1) + "." + suffix;
}

std::string fileStem(const std::string& words) {
    constexpr std::size_t kMostBytes = 80;
    std::string stem;
    for (const char c : words) {
        const bool upper = c >= 'A' && c <= 'Z';
        const bool word = upper || (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') ||
                          (static_cast<unsigned char>(c) & 0x80u) != 0;
        if (word) {
            stem += upper ? static_cast<char>(c - 'A' + 'a') : c;
        } else if (!stem.empty() && stem.back() != '-') {
            stem += '-';
        }
    }
    if (stem.size() > kMostBytes) {
        std::size_t end = kMostBytes;
        while (end > 0 && (static_cast<unsigned char>(stem[end]) & 0xC0u) == 0x80u) --end;
        stem.resize(end);
    }
    while (!stem.empty() && stem.back() == '-') stem.pop_back();
    return stem.empty() ? "job" : stem;
}

Result<CutPages> cutPages(const Job& job, const std::vector<MaskResult>& masks) {
    std::vector<Piece> pieces;
    for (const MaskResult& result : masks) {
        if (!result.spec->known()) continue;  // kept, told, and never cut
        if (!result.mask) return result.mask.error();
        for (Piece& piece : piecesOf(job, *result.spec, **result.mask)) pieces.push_back(std::move(piece));
    }
    for (Piece& piece : otherPieces(job)) pieces.push_back(std::move(piece));
    return layOutPieces(pieces, job.get<CutChapter>().sheet, job.get<CutChapter>().places);
}

std::vector<Drawing> drawPages(const Job& job, const std::vector<MaskResult>& masks, const CutPages& pages) {
    std::vector<Drawing> drawings;
    for (std::size_t page = 0; page < pages.pages; ++page) {
        PageText words{job.get<BlankChapter>().name, {}};
        for (const PlacedPiece& placed : pages.pieces) {
            const Piece& piece = placed.piece;
            const auto of = std::find_if(masks.begin(), masks.end(),
                                         [&](const MaskResult& m) { return m.spec->id == piece.mask; });
            if (placed.page != page || of == masks.end() || !of->mask) continue;
            const std::vector<Sheet>& sheets = (*of->mask)->sheets;
            if (piece.sheet >= sheets.size()) continue;
            std::string note =
                piece.name + (piece.sheet == 0 ? "" : " " + std::to_string(piece.sheet + 1)) + ": ";
            for (const RegistrationMark& mark : sheets[piece.sheet].marks) {
                note += (mark.name == 'A' ? "" : ", ") + markSentence(mark).plain();
            }
            // The twin of the other side has the same marks.
            if (std::find(words.notes.begin(), words.notes.end(), note) == words.notes.end())
                words.notes.push_back(note);
        }
        drawings.push_back(drawPage(pages, page, words));
    }
    return drawings;
}

std::vector<std::string> pageFileNames(std::size_t pages, const PageFormats& formats,
                                       const std::string& stem) {
    std::vector<std::string> names;
    for (std::size_t page = 0; page < pages; ++page) {
        if (formats.svg) names.push_back(sheetFileName(page, "svg", stem));
        if (formats.dxf) names.push_back(sheetFileName(page, "dxf", stem));
    }
    if (formats.pdf) names.push_back((stem.empty() ? "" : stem + "-") + kPdfFileName);
    return names;
}

std::vector<NamedFile> pageFiles(const std::vector<Drawing>& pages, const PageFormats& formats,
                                 const std::string& stem) {
    std::vector<NamedFile> files;
    for (const std::string& name : pageFileNames(pages.size(), formats, stem)) files.push_back({name, {}});
    std::size_t at = 0;
    for (const Drawing& page : pages) {
        if (formats.svg) files[at++].data = svgText(page);
        if (formats.dxf) files[at++].data = dxfText(page);
    }
    if (formats.pdf) files[at].data = pdfText(pages);
    return files;
}

std::vector<std::string> sheetsBeyond(const std::vector<std::string>& names, std::size_t pages,
                                      const PageFormats& formats, const std::string& stem) {
    const std::string start = (stem.empty() ? "" : stem + "-") + "sheet-";
    std::vector<std::string> beyond;
    for (const std::string& name : names) {
        if (name.rfind(start, 0) != 0) continue;
        const std::size_t point = name.find_last_of('.');
        if (point == std::string::npos || point <= start.size()) continue;
        const std::string digits = name.substr(start.size(), point - start.size()),
                          suffix = name.substr(point + 1);
        const bool asked = (formats.svg && suffix == "svg") || (formats.dxf && suffix == "dxf");
        const bool number = digits.find_first_not_of("0123456789") == std::string::npos && digits.size() <= 4;
        if (asked && number && digits[0] != '0' && std::stoul(digits) > pages) beyond.push_back(name);
    }
    return beyond;
}

}  // namespace nine
