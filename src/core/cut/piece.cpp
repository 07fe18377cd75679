#include "cut/piece.h"

#include <algorithm>
#include <cmath>

#include "cut/free_space.h"
#include "geom/stroke_font.h"

namespace nine {
namespace {

constexpr double kClearOfEdge_mm = 0.8;  // a pen line nearer to a cut is cut away or painted over
constexpr double kLetterHeights_mm[] = {3.2, 2.6, 2.1, 1.7};
constexpr double kSmallestBeside_mm = 1.4;
constexpr double kLineStep = 1.6;                       // of the letter height
constexpr double kArrowLength = 3.0, kArrowHead = 0.9;  // of the letter height
constexpr double kMarkArm_mm = 2, kMarkLetter_mm = 1.5, kFingerRing_mm = 1;

struct Block {
    std::vector<Polyline2> strokes;
    Vec2 size;
};

void append(std::vector<Polyline2>& to, std::vector<Polyline2> strokes, const Vec2& shift) {
    for (Polyline2& stroke : strokes) {
        for (Vec2& p : stroke) p += shift;
        to.push_back(std::move(stroke));
    }
}

/// An arrow in a box of its length and one letter height, pointing along `direction`.
std::vector<Polyline2> arrow(double height, const Vec2& direction) {
    const double length = kArrowLength * height, head = kArrowHead * height, middle = 0.5 * height;
    const double tip = direction.x() < 0 ? 0 : length, way = direction.x() < 0 ? 1 : -1;
    return {{Vec2(length - tip, middle), Vec2(tip, middle)},
            {Vec2(tip + way * head, middle + 0.5 * head), Vec2(tip, middle),
             Vec2(tip + way * head, middle - 0.5 * head)}};
}

/// The label with `perLine` texts on a line; the arrow leads the first or last line on the nose's side.
Block layOut(const PieceLabel& label, double height, bool oneLine) {
    std::vector<std::string> lines = label.lines;
    if (oneLine) {
        std::string joined;
        for (const std::string& line : lines) joined += (joined.empty() ? "" : "  ") + line;
        lines = {joined};
    }
    const bool noseLeft = label.towardsNose.x() < 0;
    const double gap = 0.8 * height, arrowWidth = kArrowLength * height + gap;
    double textWidth = 0;
    for (const std::string& line : lines) textWidth = std::max(textWidth, strokeTextWidth_mm(line, height));
    const double descent = 0.34 * height;  // of g, p, y and commas
    Block block;
    block.size = Vec2(textWidth + arrowWidth,
                      descent + height * (1 + kLineStep * static_cast<double>(lines.size() - 1)));
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const double y = block.size.y() - height * (1 + kLineStep * static_cast<double>(i));
        append(block.strokes, strokeText(lines[i], height), Vec2(noseLeft ? arrowWidth : 0, y));
    }
    append(block.strokes, arrow(height, label.towardsNose),
           Vec2(noseLeft ? 0 : textWidth + gap, 0.5 * (block.size.y() + descent - height)));
    return block;
}

}  // namespace

Box2 Piece::box() const {
    Box2 box = boxAround({outline});
    if (!pen.empty()) {
        const Box2 inked = boxAround(pen);
        box = {box.low.cwiseMin(inked.low), box.high.cwiseMax(inked.high)};
    }
    return box;
}

bool writeLabel(Piece& piece, const PieceLabel& label) {
    PolygonSet taken;
    for (const PieceWindow& window : piece.windows) taken.push_back(window.outline);
    taken = offset(taken, kClearOfEdge_mm);
    for (const Polyline2& line : piece.pen) {
        const Box2 b = boxAround({line});
        const Vec2 low = b.low - Vec2(0.5, 0.5), high = b.high + Vec2(0.5, 0.5);
        taken = united(taken, {{low, Vec2(high.x(), low.y()), high, Vec2(low.x(), high.y())}});
    }
    const FreeSpace space(subtracted(offset({piece.outline}, -kClearOfEdge_mm), taken));
    const Box2 outlineBox = boxAround({piece.outline});
    const Vec2 wish(0.5 * (outlineBox.low.x() + outlineBox.high.x()), outlineBox.low.y());
    for (const double height : kLetterHeights_mm) {
        for (const bool oneLine : {true, false}) {
            Block block = layOut(label, height, oneLine);
            if (const auto corner = space.place(block.size, wish)) {
                append(piece.pen, std::move(block.strokes), *corner);
                return true;
            }
        }
    }
    // Beside the piece it should not be wider than the piece, as far as it stays legible.
    double height = kLetterHeights_mm[1];
    const double share = outlineBox.size().x() / layOut(label, height, false).size.x();
    height = std::max(kSmallestBeside_mm, height * std::min(1.0, share));
    Block block = layOut(label, height, false);
    append(piece.pen, std::move(block.strokes),
           Vec2(outlineBox.low.x(), outlineBox.low.y() - block.size.y() - 1.5));
    return false;
}

std::vector<Polyline2> crossMark(const Vec2& at, char letter, const Vec2& inward) {
    std::vector<Polyline2> strokes{{at - Vec2(kMarkArm_mm, 0), at + Vec2(kMarkArm_mm, 0)},
                                   {at - Vec2(0, kMarkArm_mm), at + Vec2(0, kMarkArm_mm)}};
    const std::string text(1, letter);
    const double width = strokeTextWidth_mm(text, kMarkLetter_mm);
    append(strokes, strokeText(text, kMarkLetter_mm), at + Vec2(inward.x() < 0 ? -0.3 - width : 0.3, 0.5));
    return strokes;
}

std::vector<Polyline2> fingerMark(const Vec2& at, int number) {
    constexpr int kCorners = 16;
    Polyline2 ring;
    for (int k = 0; k <= kCorners; ++k) {
        const double a = 2 * kPi * k / kCorners;
        ring.push_back(at + kFingerRing_mm * Vec2(std::cos(a), std::sin(a)));
    }
    std::vector<Polyline2> strokes{std::move(ring)};
    const std::string text = std::to_string(number);
    append(strokes, strokeText(text, kMarkLetter_mm), at + Vec2(kFingerRing_mm + 0.4, -0.5 * kMarkLetter_mm));
    return strokes;
}

bool writeIn(Piece& piece, const Polygon2& window, const std::string& letters) {
    constexpr double kClear_mm = 0.2;
    const PolygonSet inside = offset({window}, -kClear_mm);
    if (inside.empty()) return false;
    const FreeSpace space(inside);
    for (const double height : {2.6, 2.1, 1.7, 1.4, 1.2, 1.0}) {
        const Vec2 size(strokeTextWidth_mm(letters, height), height);
        if (const auto corner = space.place(size, centroid(window))) {
            append(piece.pen, strokeText(letters, height), *corner);
            return true;
        }
    }
    return false;
}

}  // namespace nine
