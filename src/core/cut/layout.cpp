#include "cut/layout.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <optional>
#include <utility>

#include "base/number_text.h"
#include "geom/stroke_font.h"

namespace nine {
namespace {

constexpr double kFootHeight_mm = kCheckSquare_mm + 6;  // strip of the check square
constexpr double kOverlap_mm2 = 1e-6;
constexpr double kSmallText_mm = 2, kTextStep_mm = 3.6;

struct Area {
    Vec2 low, high;
};

Area usable(const SheetSize& sheet) {
    return {Vec2(kPageMargin_mm, kPageMargin_mm + kFootHeight_mm),
            Vec2(sheet.width_mm - kPageMargin_mm, sheet.height_mm - kPageMargin_mm)};
}

template <typename F>
void transform(Piece& piece, F f) {
    const auto all = [&](Polyline2& line) {
        for (Vec2& p : line) p = f(p);
    };
    all(piece.outline);
    for (PieceWindow& w : piece.windows) {
        all(w.outline);
        for (Polyline2& island : w.islands) all(island);
    }
    for (Polyline2& line : piece.pen) all(line);
}

bool overlapping(const Piece& a, const Piece& b) {
    return area(intersected({a.outline}, {b.outline})) > kOverlap_mm2;
}

void addPiece(const Piece& piece, Layer& cut, Layer& pen) {
    // Windows first: a piece that has been cut free cannot be held while its windows are cut.
    for (const PieceWindow& w : piece.windows) {
        for (const Polygon2& island : w.islands) cut.lines.push_back({island, true});
        cut.lines.push_back({w.outline, true});
    }
    cut.lines.push_back({piece.outline, true});
    for (const Polyline2& line : piece.pen) pen.lines.push_back({line, false});
}

void addText(Layer& layer, const std::string& text, double height, const Vec2& at) {
    for (Polyline2& stroke : strokeText(text, height)) {
        for (Vec2& p : stroke) p += at;
        layer.lines.push_back({std::move(stroke), false});
    }
}

}  // namespace

int CutPages::overlaps() const {
    int count = 0;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        for (std::size_t j = i + 1; j < pieces.size(); ++j) {
            if (pieces[i].page == pieces[j].page && overlapping(pieces[i].piece, pieces[j].piece)) ++count;
        }
    }
    return count;
}

double CutPages::utilisation(std::size_t page) const {
    double used = 0;
    for (const PlacedPiece& placed : pieces) {
        if (placed.page == page) used += polygonArea(placed.piece.outline);
    }
    return used / (sheet.width_mm * sheet.height_mm);
}

Status checkSheet(const SheetSize& sheet, const std::string& where) {
    const auto fits = [](double v) { return v >= kMinSheet_mm && v <= kMaxSheet_mm; };
    if (fits(sheet.width_mm) && fits(sheet.height_mm)) return Done{};
    return Error{"bad_sheet",
                 Words(NINE_WORDS("core", "A sheet is {least} to {most} wide and high."))
                     .length("least", kMinSheet_mm, 0)
                     .length("most", kMaxSheet_mm, 0),
                 where};
}

Result<SheetSize> parseSheet(const std::string& text) {
    if (text == "A4" || text == "a4") return SheetSize{210, 297};              // ISO 216
    if (text == "Letter" || text == "letter") return SheetSize{215.9, 279.4};  // ANSI/ASME Y14.1, 8.5 x 11 in
    const auto cross = text.find('x');
    const auto width = parseNumber(text.substr(0, cross));
    const auto height = cross == std::string::npos ? std::nullopt : parseNumber(text.substr(cross + 1));
    if (!width || !height || !checkSheet({*width, *height}, "sheet")) {
        return Error{"bad_sheet",
                     Words(NINE_WORDS("core",
                                      "\"{text}\" is not a sheet size; write for example 210x297 (mm, 120 to "
                                      "2000 each), A4 or Letter."))
                         .name("text", text),
                     "sheet"};
    }
    return SheetSize{*width, *height};
}

namespace {

bool inside(const Box2& box, const Area& area) {
    constexpr double slack = 1e-9;
    return (box.low - area.low).minCoeff() >= -slack && (area.high - box.high).minCoeff() >= -slack;
}

/// Boxes that stand on one page.
using Taken = std::vector<Box2>;

/// Upper left corner of the highest, then leftmost room for a box of `size` on a page, a gap away from the
/// others.
std::optional<Vec2> roomOn(const Taken& taken, const Area& area, const Vec2& size) {
    std::vector<double> tops{area.high.y()}, lefts{area.low.x()};
    for (const Box2& box : taken) {
        tops.push_back(box.low.y() - kPieceGap_mm);
        lefts.push_back(box.high.x() + kPieceGap_mm);
    }
    std::sort(tops.begin(), tops.end(), std::greater<>());
    std::sort(lefts.begin(), lefts.end());
    for (const double top : tops) {
        for (const double left : lefts) {
            const Box2 box{Vec2(left, top - size.y()), Vec2(left + size.x(), top)};
            if (!inside(box, area)) continue;
            const bool free = std::none_of(taken.begin(), taken.end(), [&](const Box2& other) {
                constexpr double gap = kPieceGap_mm - 1e-9;
                return box.low.x() < other.high.x() + gap && other.low.x() < box.high.x() + gap &&
                       box.low.y() < other.high.y() + gap && other.low.y() < box.high.y() + gap;
            });
            if (free) return Vec2(left, top);
        }
    }
    return std::nullopt;
}

/// Puts the pieces whose place is given there; true for each that stands now.
std::vector<bool> placeByHand(CutPages& pages, const std::vector<PiecePlace>& places, const Area& area) {
    std::vector<bool> stands(pages.pieces.size(), false);
    for (const PiecePlace& place : places) {
        const auto found = std::find_if(pages.pieces.begin(), pages.pieces.end(),
                                        [&](const PlacedPiece& p) { return p.piece.id == place.piece; });
        if (found == pages.pieces.end()) continue;  // its mask is gone
        const Box2 box = found->piece.box();
        const Vec2 by = (place.middle_mm - 0.5 * (box.low + box.high))
                            .cwiseMax(area.low - box.low)
                            .cwiseMin(area.high - box.high);
        Piece moved = found->piece;
        transform(moved, [&](const Vec2& p) { return Vec2(p + by); });
        bool fits = place.page < kMaxPages;
        for (std::size_t i = 0; fits && i < pages.pieces.size();
             ++i)  // the first one says what the page is of
            fits = !stands[i] || pages.pieces[i].page != place.page ||
                   pages.pieces[i].piece.stock == moved.stock;
        for (std::size_t i = 0; fits && i < pages.pieces.size(); ++i) {
            fits = !stands[i] || pages.pieces[i].page != place.page ||
                   !overlapping(pages.pieces[i].piece, moved);
        }
        if (!fits) {
            pages.warnings.push_back(
                {"place_lost",
                 Words(NINE_WORDS("core",
                                  "The piece \"{name} {side}\" no longer fits where it was put and was "
                                  "laid out anew."))
                     .name("name", moved.name)
                     .name("side", std::string(1, moved.side)),
                 "cut.places"});
            continue;
        }
        found->piece = std::move(moved);
        found->page = place.page;
        found->byHand = true;
        stands[static_cast<std::size_t>(found - pages.pieces.begin())] = true;
    }
    return stands;
}

}  // namespace

Result<CutPages> layOutPieces(const std::vector<Piece>& pieces, const SheetSize& sheet,
                              const std::vector<PiecePlace>& places) {
    // In one piece: pieces by hand, then the rest, in one pass over the pages.
    if (pieces.empty()) {
        return Error{"nothing_to_cut",
                     NINE_WORDS("core", "There are no masks to cut: add an element to the pattern first."),
                     "masks"};
    }
    const Area area = usable(sheet);
    const Vec2 room = area.high - area.low;
    CutPages result{sheet, 0, std::vector<PlacedPiece>(pieces.size()), {}, {}};

    // Lay each piece on its longer side if it fits so: low pieces fill a page better.
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        Piece piece = pieces[i];
        const Vec2 size = piece.box().size();
        const auto fits = [&](double w, double h) { return w <= room.x() && h <= room.y(); };
        const bool flat = size.x() >= size.y();
        const bool upright = fits(size.x(), size.y()), turned = fits(size.y(), size.x());
        if (!upright && !turned) {
            return Error{
                "piece_too_large",
                Words(NINE_WORDS(
                          "core",
                          "The mask \"{name} {side}\" is {x} x {y}; on this sheet {roomWide} x {roomHigh} "
                          "can be used. Take a larger sheet or split the mask."))
                    .name("name", piece.name)
                    .name("side", std::string(1, piece.side))
                    .length("x", size.x(), 0)
                    .length("y", size.y(), 0)
                    .length("roomWide", room.x(), 0)
                    .length("roomHigh", room.y(), 0),
                "masks." + piece.id};
        }
        if (!upright || (!flat && turned))
            transform(piece, [](const Vec2& p) { return Vec2(-p.y(), p.x()); });
        result.pieces[i].piece = std::move(piece);
    }

    const std::vector<bool> stands = placeByHand(result, places, area);
    std::vector<Taken> taken;
    const auto take = [&](const PlacedPiece& placed) {
        if (taken.size() <= placed.page) {
            taken.resize(placed.page + 1);
            result.stocks.resize(placed.page + 1);
        }
        taken[placed.page].push_back(placed.piece.box());
        result.stocks[placed.page] = placed.piece.stock;
    };
    std::vector<std::size_t> order;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        if (stands[i])
            take(result.pieces[i]);
        else
            order.push_back(i);
    }
    // One stock after the other, in the order they come; within it tall ones first.
    std::vector<std::string> stocks;
    for (const Piece& piece : pieces)
        if (std::find(stocks.begin(), stocks.end(), piece.stock) == stocks.end())
            stocks.push_back(piece.stock);
    const auto stockOf = [&](std::size_t i) {
        return std::find(stocks.begin(), stocks.end(), pieces[i].stock) - stocks.begin();
    };
    const auto heightOf = [&](std::size_t i) { return result.pieces[i].piece.box().size().y(); };
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        return stockOf(a) != stockOf(b) ? stockOf(a) < stockOf(b)
                                        : std::floor(2 * heightOf(a)) > std::floor(2 * heightOf(b));
    });
    for (const std::size_t i : order) {
        PlacedPiece& placed = result.pieces[i];
        const Box2 box = placed.piece.box();
        std::optional<Vec2> corner;
        for (placed.page = 0; !corner; placed.page += corner ? 0 : 1) {
            const bool used = placed.page < taken.size() && !taken[placed.page].empty();
            if (used && result.stocks[placed.page] != placed.piece.stock) continue;
            corner = roomOn(used ? taken[placed.page] : Taken(), area, box.size());
        }
        const Vec2 by = *corner - Vec2(box.low.x(), box.high.y());
        transform(placed.piece, [&](const Vec2& p) { return Vec2(p + by); });
        take(placed);
    }
    // Pages that stayed empty are left out.
    std::vector<std::size_t> number(taken.size(), 0);
    for (std::size_t page = 0; page < taken.size(); ++page) {
        number[page] = result.pages;
        if (taken[page].empty()) continue;
        result.stocks[result.pages++] = result.stocks[page];
    }
    result.stocks.resize(result.pages);
    for (PlacedPiece& placed : result.pieces) placed.page = number[placed.page];
    return result;
}

/// As much of the text as fits, with dots where it goes on.
std::string fitting(const std::string& text, double height, double width) {
    if (strokeTextWidth_mm(text, height) <= width) return text;
    std::string shorter = text;
    while (!shorter.empty() && strokeTextWidth_mm(shorter + "..", height) > width) {
        while (!shorter.empty() && (static_cast<unsigned char>(shorter.back()) & 0xC0u) == 0x80u)
            shorter.pop_back();
        if (!shorter.empty()) shorter.pop_back();
    }
    return shorter + "..";
}

/// Broken at blanks into lines that fit.
std::vector<std::string> broken(const std::string& text, double height, double width) {
    std::vector<std::string> lines;
    std::string line;
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t end = std::min(text.find(' ', from), text.size());
        const std::string word = fitting(text.substr(from, end - from), height, width);
        const std::string longer = line.empty() ? word : line + " " + word;
        if (!line.empty() && strokeTextWidth_mm(longer, height) > width) {
            lines.push_back(line);
            line = word;
        } else {
            line = longer;
        }
        from = end + 1;
    }
    if (!line.empty()) lines.push_back(line);
    return lines;
}

Result<CutPages> movePiece(CutPages pages, std::size_t index, const Vec2& shift) {
    PlacedPiece& moved = pages.pieces[index];
    const Box2 box = moved.piece.box();
    const Area area = usable(pages.sheet);
    const Vec2 stopped = shift.cwiseMax(area.low - box.low).cwiseMin(area.high - box.high);
    transform(moved.piece, [&](const Vec2& p) { return Vec2(p + stopped); });
    for (std::size_t i = 0; i < pages.pieces.size(); ++i) {
        const PlacedPiece& other = pages.pieces[i];
        if (i != index && other.page == moved.page && overlapping(other.piece, moved.piece)) {
            return Error{"overlap",
                         Words(NINE_WORDS("core", "The piece would lie over \"{name} {side}\"."))
                             .name("name", other.piece.name)
                             .name("side", std::string(1, other.piece.side)),
                         moved.piece.id};
        }
    }
    return pages;
}

Drawing drawPiece(const Piece& piece, const std::string& title) {
    constexpr double rim_mm = 5;
    Piece moved = piece;
    const Box2 box = piece.box();
    transform(moved, [&](const Vec2& p) { return Vec2(p - box.low + Vec2(rim_mm, rim_mm)); });
    Drawing drawing{title, box.size() + 2 * Vec2(rim_mm, rim_mm), {{"CUT", {}}, {"PEN", {}}, {"TEXT", {}}}};
    addPiece(moved, drawing.layers[0], drawing.layers[1]);
    return drawing;
}

Drawing drawPage(const CutPages& pages, std::size_t page, const PageText& words) {
    Drawing drawing;
    drawing.title = words.title;
    drawing.size_mm = Vec2(pages.sheet.width_mm, pages.sheet.height_mm);
    Layer cut{"CUT", {}}, pen{"PEN", {}}, text{"TEXT", {}};
    for (const PlacedPiece& placed : pages.pieces) {
        if (placed.page == page) addPiece(placed.piece, cut, pen);
    }

    const Vec2 corner(kPageMargin_mm, kPageMargin_mm);
    const double side = kCheckSquare_mm;
    text.lines.push_back(
        {{corner, corner + Vec2(side, 0), corner + Vec2(side, side), corner + Vec2(0, side)}, true});
    addText(text, "50 mm square", kSmallText_mm, corner + Vec2(2, 2));
    const Vec2 line = corner + Vec2(side + 6, 2);
    const auto tick = [&](double x) {
        text.lines.push_back({{line + Vec2(x, -1.5), line + Vec2(x, 1.5)}, false});
    };
    // On narrow sheets as many centimetres as there is room for.
    const double roomForLine = pages.sheet.width_mm - kPageMargin_mm - line.x();
    const int centimetres =
        std::min(static_cast<int>(kCheckLine_mm / 10), static_cast<int>(roomForLine / 10));
    text.lines.push_back({{line, line + Vec2(10 * centimetres, 0)}, false});
    for (int k = 0; k <= centimetres; ++k) tick(10 * k);
    addText(text, std::to_string(10 * centimetres) + " mm from end to end", kSmallText_mm,
            line + Vec2(0, 2.5));

    Vec2 at = corner + Vec2(side + 6, side - 3.2);
    const double room = pages.sheet.width_mm - kPageMargin_mm - at.x();
    const std::string number = ", page " + std::to_string(page + 1) + " of " + std::to_string(pages.pages);
    const std::string stock = page < pages.stocks.size() ? pages.stocks[page] : std::string();
    addText(text, fitting(words.title, 3.2, room - strokeTextWidth_mm(number, 3.2)) + number, 3.2, at);
    const auto next = [&](const std::string& sentence, double step) {
        for (const std::string& part : broken(sentence, kSmallText_mm, room)) {
            at.y() -= std::exchange(step, kTextStep_mm);
            addText(text, part, kSmallText_mm, at);
        }
    };
    if (!stock.empty()) next(fitting("Cut from " + stock, kSmallText_mm, room), 5.5);
    next("Print at 100 %. Measure line and square before you cut.", stock.empty() ? 5.5 : kTextStep_mm);
    next("Pieces are seen from the painted side.", kTextStep_mm);
    next("Blades: cut away from your fingers; cap the knife.", kTextStep_mm);
    next("Vinyl or PVC: never cut hot or with a laser.", kTextStep_mm);
    double step = 5.5;
    const double lowest = line.y() + 8;  // the check line and its words
    for (std::size_t i = 0; i < words.notes.size(); ++i) {
        const std::vector<std::string> lines = broken(words.notes[i], kSmallText_mm, room);
        const bool last = i + 1 == words.notes.size();
        // Room for this note, and for the line that says how many follow.
        const double needs = step + kTextStep_mm * (static_cast<double>(lines.size()) - (last ? 1 : 0));
        if (at.y() - needs < lowest) {
            next(std::to_string(words.notes.size() - i) + " more marks: see the fit report.", step);
            break;
        }
        for (const std::string& part : lines) next(part, std::exchange(step, kTextStep_mm));
    }
    drawing.layers = {std::move(cut), std::move(pen), std::move(text)};
    return drawing;
}

}  // namespace nine
