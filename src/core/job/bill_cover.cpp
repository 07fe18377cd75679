#include "job/bill_cover.h"

#include <algorithm>

#include "pattern/fittings.h"

namespace nine {
namespace {

const Landmark* billOf(const Job& job) {
    const Landmarks& landmarks = job.get<BlankChapter>().landmarks;
    const auto slot = landmarks.find("bill_slot");
    const bool there = slot != landmarks.end() && slot->second.length_mm > 0 && slot->second.width_mm > 0;
    return there ? &slot->second : nullptr;
}

}  // namespace

bool hasBill(const Job& job) {
    return billOf(job) != nullptr;
}

std::optional<Piece> billCover(const Job& job) {
    const Landmark* slot = billOf(job);
    if (!slot) return std::nullopt;
    constexpr double kRound_mm = 0.5, kDash_mm = 2;  // round_mm: half a bill's thickness, at the tip
    const double fold = slot->length_mm + kRound_mm, far = 1e4;
    const Polygon2 bill = billOutline(*slot);
    const Polygon2 outside{{0, -far}, {fold, -far}, {fold, far}, {0, far}};
    const PolygonSet upper = intersected(offset({bill}, kBillCoverLap_mm), {outside});
    const auto over = [&](PolygonSet rings) {
        for (Polygon2& ring : rings) {
            for (Vec2& p : ring) p.x() = 2 * fold - p.x();
            std::reverse(ring.begin(), ring.end());
        }
        return rings;
    };
    const PolygonSet whole = united(upper, over(upper));
    if (whole.size() != 1) return std::nullopt;
    Piece piece;
    piece.id = kBillCoverId;
    piece.name = "Bill cover";
    piece.stock = "Tape or vinyl";
    piece.outline = whole.front();
    for (Polyline2 line : intersected({bill}, {outside})) {
        line.push_back(line.front());
        piece.pen.push_back(line);
        for (Vec2& p : line) p.x() = 2 * fold - p.x();
        piece.pen.push_back(std::move(line));
    }
    const Box2 leaf = boxAround(upper);
    for (double y = leaf.low.y() + 0.5 * kDash_mm; y < leaf.high.y(); y += 2 * kDash_mm) {
        const Polyline2 dash{Vec2(fold, y), Vec2(fold, std::min(y + kDash_mm, leaf.high.y()))};
        if (contains(piece.outline, dash.front()) && contains(piece.outline, dash.back()))
            piece.pen.push_back(dash);
    }
    writeLabel(piece, {{"BILL", "FOLD"}, Vec2(1, 0)});
    return piece;
}

std::vector<Piece> otherPieces(const Job& job) {
    std::vector<Piece> pieces;
    if (job.get<MasksChapter>().billCover)
        if (std::optional<Piece> cover = billCover(job)) pieces.push_back(std::move(*cover));
    return pieces;
}

}  // namespace nine
