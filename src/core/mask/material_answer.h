// How one material can cover a strip of the body: in one plain sheet, with slits, in pieces side by side, or
// not at all but by small patches.
#pragma once

#include "mask/mask_kind.h"
#include "mask/material.h"
#include "mask/relief.h"

namespace nine {

struct MaterialAnswer {
    enum class How { Plain, Slits, Halves, Strips, Pieces, Patches };
    How how;
    ReliefPlan plan;  ///< of the one sheet; the slits that were found even where pieces are the better answer
    std::vector<SheetPlan> sheets;  ///< what is laid: one sheet, strips from belly to back, pieces from
                                    ///< nose to tail
    /// A patch of its own may be so wide and long and still lie: w = sqrt(39 e / K) (e the limit, K the mean
    /// Gaussian curvature). Source: a strain law fitted to solved patches, e = K w^2 / (16 + 23 (w / l)^1.5).
    double patch_mm;

    int slits() const;  ///< of all sheets
};

/// Slits are advised up to so many (a judgement: above, laying edge to edge goes wrong), with mouths up to
/// kWidestMouth_mm.
constexpr int kMostSlitsASide = 6;
constexpr int kMostStrips = 10, kMostPieces = 8;

/// Cost: that of planRelief, and 0.2 s where pieces are tried. Errors: those of planRelief.
Result<MaterialAnswer> answerOf(const Skin& skin, const Strip& strip, Fraction limit, const ReliefWish& wish,
                                const Task& task = {});

/// The same of the whole body: one sheet with its edges on the seam where up to kMostSlitsASide slits do,
/// else the answer of one side, twice.
Result<MaterialAnswer> answerOfWrap(const Skin& skin, Seam seam, Fraction limit, ReliefWish wish,
                                    const Task& task = {});

/// What the painter is told of it.
Words answerSentence(const MaterialAnswer& answer, const SheetMaterial& material);

}  // namespace nine
