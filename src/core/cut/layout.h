// Pieces laid out on pages of the printer's sheet, true to size, without overlap.
//
// Every page is of one stock: pieces of film and of paper never share one. A simple layout: boxes from the
// top left corner on, tall ones first, each upright or turned by a quarter; pieces whose place is given stand
// there, the others round them. Every page has a 100 mm check line and a 50 mm check square along its lower
// edge, so that the print can be measured before cutting.
#pragma once

#include "base/result.h"
#include "base/units.h"
#include "cut/drawing.h"
#include "cut/piece.h"

namespace nine {

struct SheetSize {
    double width_mm = 210, height_mm = 297;
};
constexpr double kMinSheet_mm = 120, kMaxSheet_mm = 2000;
constexpr double kPageMargin_mm = 8;  // what most printers cannot reach
constexpr double kPieceGap_mm = 4;    // room for fingers and a knife between pieces
constexpr double kCheckLine_mm = 100, kCheckSquare_mm = 50;

/// A piece moved to its place on a page.
struct PlacedPiece {
    std::size_t page = 0;
    Piece piece;          ///< in page coordinates, y up from the lower left corner
    bool byHand = false;  ///< stands where it was put
};

/// Where a piece was put by hand.
struct PiecePlace {
    std::string piece;  ///< its id
    std::size_t page = 0;
    Vec2 middle_mm = Vec2::Zero();  ///< of the piece's box on the page
    std::string unknownJson = {};   ///< keys of the file this version does not know
    bool operator==(const PiecePlace&) const = default;
};
constexpr std::size_t kMaxPages = 100;

struct CutPages {
    SheetSize sheet;
    std::size_t pages = 0;
    std::vector<PlacedPiece> pieces;  ///< in the order given
    Warnings warnings;                ///< place_lost: a given place that had to be given up
    std::vector<std::string> stocks;  ///< of each page

    /// Pairs of pieces whose areas overlap; 0 unless something is wrong.
    int overlaps() const;
    /// Share of the page taken up by sheet that is kept.
    Fraction utilisation(std::size_t page) const;
};

/// Errors: bad_sheet.
Status checkSheet(const SheetSize& sheet, const std::string& where);

/// "210x297" or "A4", "Letter". Errors: bad_sheet.
Result<SheetSize> parseSheet(const std::string& text);

/// A place off the page stops at its margin; one where the piece would lie over a piece placed before is
/// given up, with a warning. Pages that would stay empty are left out and the others counted on: a piece put
/// on page 100 of a job that needs two stands on the second. Errors: piece_too_large (names the piece),
/// nothing_to_cut.
Result<CutPages> layOutPieces(const std::vector<Piece>& pieces, const SheetSize& sheet,
                              const std::vector<PiecePlace>& places = {});

/// What stands at the foot of every page besides the checks and the cautions.
struct PageText {
    std::string title;
    std::vector<std::string> notes;  ///< where marks belong; as many as fit, then a line that says more
                                     ///< follow. Long ones are broken.
};

/// The page as lines: pieces, check line and square, text.
Drawing drawPage(const CutPages& pages, std::size_t page, const PageText& words);

/// One piece by itself on a page just large enough.
Drawing drawPiece(const Piece& piece, const std::string& title);

/// A piece of `pages` moved by `shift` on its page, for dragging; it stops at the margin. Errors: overlap.
Result<CutPages> movePiece(CutPages pages, std::size_t piece, const Vec2& shift);

}  // namespace nine
