#include "app/document/coming_masks.h"

#include <algorithm>

#include "job/bill_cover.h"

namespace nine::app {
namespace {

void layOutPages(MasksResult& result) {
    std::vector<Piece> all;
    for (const std::vector<Piece>& pieces : result.pieces)
        all.insert(all.end(), pieces.begin(), pieces.end());
    for (Piece& piece : otherPieces(result.job)) all.push_back(std::move(piece));
    const CutChapter& cut = result.job.get<CutChapter>();
    Result<CutPages> pages = layOutPieces(all, cut.sheet, cut.places);
    if (pages) {
        result.drawings = drawPages(result.job, result.masks, *pages);
        result.pages = std::move(*pages);
    } else {
        result.pagesError = pages.error();
    }
}

}  // namespace

ComingMasks::ComingMasks(Job job, MasksResult before) : job_(std::move(job)), before_(std::move(before)) {
    const std::size_t count = maskSpecs(job_).size();
    come_.resize(count);
    pieces_.resize(count);
}

void ComingMasks::take(std::size_t index, const MaskResult& mask) {
    come_[index] = mask;
    if (mask.mask) pieces_[index] = piecesOf(job_, *mask.spec, **mask.mask);
}

MasksResult ComingMasks::soFar() {
    MasksResult result{job_, {}};
    const std::vector<MaskSpecPtr> specs = maskSpecs(job_);
    bool complete = true;
    for (std::size_t i = 0; i < specs.size(); ++i) {
        const int old = indexIn(before_, specs[i]->id);
        const auto k = static_cast<std::size_t>(std::max(0, old));
        const bool usable = old >= 0 && before_.masks[k].mask && k < before_.pieces.size();
        if (come_[i] && come_[i]->mask) {
            result.masks.push_back(*come_[i]);
            result.pieces.push_back(pieces_[i]);
        } else if (!come_[i] && usable) {
            result.waiting.insert(specs[i]->id);
            result.masks.push_back(before_.masks[k]);
            result.pieces.push_back(before_.pieces[k]);
        } else {
            result.waiting.insert(specs[i]->id);
            complete = false;
        }
    }
    const auto same = [](const MaskResult& a, const MaskResult& b) { return a.spec->id == b.spec->id; };
    if (complete && before_.pages &&
        std::equal(result.masks.begin(), result.masks.end(), before_.masks.begin(), before_.masks.end(),
                   same)) {
        // Nothing jumps about on the pages while a change is being worked out.
        result.pages = before_.pages;
        result.drawings = before_.drawings;
        result.toCut = before_.toCut;
    } else {
        layOutPages(result);
    }
    shown_.start();
    return result;
}

MasksResult ComingMasks::allOf(std::vector<MaskResult> masks) {
    MasksResult result{job_, std::move(masks)};
    result.whole = true;
    for (std::size_t i = 0; i < result.masks.size(); ++i) {
        const MaskResult& m = result.masks[i];
        if (!m.mask && m.spec->known()) result.pagesError = m.mask.error();
        result.pieces.push_back(std::move(pieces_[i]));
    }
    if (!result.pagesError) layOutPages(result);
    if (result.pages) {
        std::vector<const Piece*> all;
        for (const PlacedPiece& placed : result.pages->pieces) all.push_back(&placed.piece);
        result.toCut = estimateCut(all);
    }
    return result;
}

}  // namespace nine::app
