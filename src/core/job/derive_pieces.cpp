// The pieces that masks are cut from: marked, numbered and labelled.
#include <algorithm>
#include <optional>

#include "base/number_text.h"
#include "job/derive.h"

namespace nine {
namespace {

/// Lettering longer than this would outgrow the piece it stands on.
constexpr std::size_t kLabelLetters = 22;

/// The first letters of a name (UTF-8), with dots where it goes on.
std::string shortened(const std::string& name) {
    std::size_t end = 0, letters = 0;
    while (end < name.size() && letters < kLabelLetters) {
        ++end;
        while (end < name.size() && (static_cast<unsigned char>(name[end]) & 0xC0u) == 0x80u) ++end;
        ++letters;
    }
    return end == name.size() ? name : name.substr(0, end) + "..";
}

constexpr double kTick_mm = 1.2;  // half the tick that shows how far to move a sheet for a second pass

/// Of plain letters only, in every locale.
std::string upperCase(std::string text) {
    for (char& c : text) c = c >= 'a' && c <= 'z' ? static_cast<char>(c - 'a' + 'A') : c;
    return text;
}

/// A nick in the edge above the first mark: seen from either face it shows the same place of the body.
Polygon2 notched(const Sheet& sheet) {
    constexpr double kWide_mm = 1.6, kDeep_mm = 1.2, kClear_mm = 0.8;
    if (sheet.marks.empty()) return sheet.outline;
    const double u = sheet.marks.front().flat.x();
    std::optional<double> top;
    for (std::size_t i = 0; i < sheet.outline.size(); ++i) {
        const Vec2 &a = sheet.outline[i], &b = sheet.outline[(i + 1) % sheet.outline.size()];
        if ((a.x() <= u) == (b.x() <= u)) continue;
        const double v = a.y() + (u - a.x()) / (b.x() - a.x()) * (b.y() - a.y());
        if (v > sheet.marks.front().flat.y() && (!top || v > *top)) top = v;
    }
    if (!top) return sheet.outline;
    const Polygon2 nick{Vec2(u, *top - kDeep_mm), Vec2(u + 0.5 * kWide_mm, *top + kDeep_mm),
                        Vec2(u - 0.5 * kWide_mm, *top + kDeep_mm)};
    for (const Window& window : sheet.windows)
        if (borderDistance(window.outline, nick) < kClear_mm) return sheet.outline;
    const PolygonSet left = subtracted({sheet.outline}, {nick});
    return left.size() == 1 ? left.front() : sheet.outline;
}

Piece pieceOfSheet(const MaskSpec& spec, const Sheet& sheet, double moved_mm) {
    Piece piece;
    piece.mask = spec.id;
    piece.name = spec.shownName();
    piece.side = sideLetter(spec.side);
    if (const auto material = findMaterial(spec.wish.material))
        piece.stock = capitalised(material->name.text());
    piece.outline = notched(sheet);
    for (const Window& window : sheet.windows)
        piece.windows.push_back({window.element, window.outline, window.islands});
    for (Polygon2 hole : sheet.holes) {
        std::reverse(hole.begin(), hole.end());  // as windows run
        piece.windows.push_back({"", std::move(hole), {}});
    }
    // Where the other lip comes to lie over a lap.
    for (const SlitOnSheet& slit : sheet.slits)
        if (slit.lapped) piece.pen.push_back(slit.lip);
    const Vec2 middle = centroid(sheet.outline);
    for (const SheetPlace& tick : sheet.ticks) {
        const double inwards = middle.x() > tick.x() ? 1 : -1;
        piece.pen.push_back({tick, tick + Vec2(inwards * 2 * kTick_mm, 0)});
    }
    for (const RegistrationMark& mark : sheet.marks) {
        for (Polyline2& stroke : crossMark(mark.flat, mark.name, middle - mark.flat)) {
            piece.pen.push_back(std::move(stroke));
        }
    }
    // Where the crosses' places come to lie when the sheet is moved for a second pass.
    if (moved_mm > 0 && sheet.marks.size() > 1) {
        const Vec2 nose = (sheet.marks.front().flat - sheet.marks.back().flat).normalized();
        const Vec2 across(-nose.y(), nose.x());
        for (const RegistrationMark& mark : sheet.marks) {
            const Vec2 at = mark.flat + moved_mm * nose;
            piece.pen.push_back({at - kTick_mm * across, at + kTick_mm * across});
        }
    }
    if (spec.wish.pressed == Pressed::Held)
        for (const PressArea& area : sheet.press)
            for (const PressArea::Finger& finger : area.fingers)
                for (Polyline2& stroke : fingerMark(finger.flat, area.number))
                    piece.pen.push_back(std::move(stroke));
    if (spec.keepsCutouts())
        for (const Window& window : sheet.windows)
            writeIn(piece, window.outline, std::to_string(window.number));
    return piece;
}

}  // namespace

std::vector<Piece> piecesOf(const Job& job, const MaskSpec& spec, const Mask& mask) {
    std::vector<Piece> pieces;
    const std::string blank = upperCase(shortened(job.get<BlankChapter>().name));
    for (const Sheet& sheet : mask.sheets) {
        Piece piece = pieceOfSheet(spec, sheet, mask.moved_mm);
        piece.sheet = pieces.size();
        const std::string number = std::to_string(piece.sheet + 1);
        piece.id = piece.sheet == 0 ? spec.id : spec.id + "/" + number;
        std::string title = upperCase(shortened(piece.name)) + " " + piece.side;
        if (mask.sheets.size() > 1) title += " " + number + "/" + std::to_string(mask.sheets.size());
        writeLabel(piece, {{title, blank}, Vec2(spec.side == Side::Left ? -1 : 1, 0)});
        pieces.push_back(std::move(piece));
    }
    return pieces;
}

}  // namespace nine
