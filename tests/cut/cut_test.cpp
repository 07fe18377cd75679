#include <random>

#include "base/units.h"
#include "cut/estimate.h"
#include "cut/free_space.h"
#include "cut/layout.h"
#include "tests/support.h"

namespace nine {
namespace {

using test::need;

Polygon2 box(const Vec2& low, const Vec2& size) {
    return {low, low + Vec2(size.x(), 0), low + size, low + Vec2(0, size.y())};
}

Polygon2 circle(const Vec2& centre, double r) {
    Polygon2 p;
    for (int i = 0; i < 60; ++i)
        p.push_back(centre + r * Vec2(std::cos(kPi * i / 30), std::sin(kPi * i / 30)));
    return p;
}

Piece plain(const std::string& id, const Vec2& size) {
    Piece piece;
    piece.id = piece.name = id;
    piece.outline = box({0, 0}, size);
    return piece;
}

TEST(Layout, RandomPiecesNeverOverlapAndStayInside) {
    std::mt19937 random(99);
    std::uniform_real_distribution<double> side(5, 120);
    for (int round = 0; round < 30; ++round) {
        SCOPED_TRACE("seed 99 round " + std::to_string(round));
        std::vector<Piece> pieces;
        for (int i = 0; i < 25; ++i)
            pieces.push_back(plain("p" + std::to_string(i), {side(random), side(random)}));
        const CutPages pages = need(layOutPieces(pieces, {210, 297}));
        EXPECT_EQ(pages.overlaps(), 0);
        ASSERT_EQ(pages.pieces.size(), pieces.size());
        for (std::size_t i = 0; i < pieces.size(); ++i) {
            const Box2 b = pages.pieces[i].piece.box();
            EXPECT_GE(b.low.minCoeff(), kPageMargin_mm - 1e-9);
            EXPECT_GE(b.low.y(), kPageMargin_mm + kCheckSquare_mm);  // clear of the check square
            EXPECT_LE(b.high.x(), 210 - kPageMargin_mm + 1e-9);
            EXPECT_LE(b.high.y(), 297 - kPageMargin_mm + 1e-9);
            EXPECT_NEAR(polygonArea(pages.pieces[i].piece.outline), polygonArea(pieces[i].outline), 1e-6);
            EXPECT_LT(pages.pieces[i].page, pages.pages);
        }
    }
}

TEST(Layout, TooLargeIsNamed) {
    const Error error =
        layOutPieces({plain("small", {10, 10}), plain("whale", {300, 250})}, {210, 297}).error();
    EXPECT_EQ(error.code, "piece_too_large");
    EXPECT_NE(error.text().find("whale"), std::string::npos);
    EXPECT_EQ(layOutPieces({}, {210, 297}).error().code, "nothing_to_cut");
}

/// Pieces put by hand stand where they were put, the others go round them.
TEST(Layout, PlacesByHandAreKept) {
    std::vector<Piece> pieces;
    for (int i = 0; i < 9; ++i) pieces.push_back(plain("p" + std::to_string(i), {30.0 + 3 * i, 20.0 + i}));
    const std::vector<PiecePlace> places{{"p3", 0, {100, 200}}, {"p5", 1, {60, 150}}, {"gone", 0, {50, 80}}};
    const CutPages pages = need(layOutPieces(pieces, {210, 297}, places));
    EXPECT_EQ(pages.overlaps(), 0);
    EXPECT_TRUE(pages.warnings.empty());
    EXPECT_EQ(pages.pages, 2u);
    for (const PiecePlace& place : {places[0], places[1]}) {
        const PlacedPiece& placed = pages.pieces[static_cast<std::size_t>(place.piece[1] - '0')];
        const Box2 box = placed.piece.box();
        EXPECT_LT((0.5 * (box.low + box.high) - place.middle_mm).norm(), 1e-9);
        EXPECT_EQ(placed.page, place.page);
    }
}

TEST(Layout, ImpossiblePlacesAreToldOrStopAtTheMargin) {
    const std::vector<Piece> pieces{plain("a", {40, 30}), plain("b", {40, 30}), plain("c", {40, 30})};
    const CutPages pages = need(
        layOutPieces(pieces, {210, 297}, {{"a", 0, {100, 200}}, {"b", 0, {110, 205}}, {"c", 0, {900, 150}}}));
    EXPECT_EQ(pages.overlaps(), 0);
    ASSERT_EQ(pages.warnings.size(), 1u);  // b would lie over a
    EXPECT_EQ(pages.warnings[0].code, "place_lost");
    EXPECT_NE(pages.warnings[0].text().find("\"b "), std::string::npos);
    EXPECT_NEAR(pages.pieces[2].piece.box().high.x(), 210 - kPageMargin_mm, 1e-9);
    const CutPages far = need(layOutPieces(pieces, {210, 297}, {{"a", kMaxPages, {100, 200}}}));
    EXPECT_EQ(far.pages, 1u);
    EXPECT_EQ(far.warnings.size(), 1u);
}

TEST(Layout, SheetSizes) {
    EXPECT_EQ(need(parseSheet("Letter")).width_mm, 215.9);
    EXPECT_EQ(need(parseSheet("210x297")).height_mm, 297);
    for (const char* bad : {"", "A9", "210", "x", "10x10", "1e9x297", "nanx297"})
        EXPECT_FALSE(parseSheet(bad)) << bad;
}

TEST(Layout, DraggedPiecesMayNotOverlapOrLeave) {
    const CutPages pages = need(layOutPieces({plain("a", {40, 40}), plain("b", {40, 40})}, {210, 297}));
    EXPECT_EQ(movePiece(pages, 0, {30, 0}).error().code, "overlap");
    EXPECT_NEAR(need(movePiece(pages, 0, {-30, 0})).pieces[0].piece.box().low.x(), kPageMargin_mm,
                1e-9);  // stops
    const CutPages moved = need(movePiece(pages, 0, {0, -60}));
    EXPECT_EQ(moved.overlaps(), 0);
    EXPECT_NEAR(moved.pieces[0].piece.box().low.y(), pages.pieces[0].piece.box().low.y() - 60, 1e-9);
}

TEST(Label, NeverTouchesWindowsOrTheEdge) {
    std::mt19937 random(5);
    std::uniform_real_distribution<double> x(6, 54), y(6, 24), r(1, 4);
    int onPiece = 0;
    for (int round = 0; round < 40; ++round) {
        SCOPED_TRACE("seed 5 round " + std::to_string(round));
        Piece piece = plain("p", {60, 30});
        for (int i = 0; i < 4; ++i) piece.windows.push_back({"e", circle({x(random), y(random)}, r(random))});
        const bool fits = writeLabel(piece, {{"RED DOTS L", "SEDGE 60"}, Vec2(-1, 0)});
        onPiece += fits;
        ASSERT_FALSE(piece.pen.empty());
        for (const Polyline2& stroke : piece.pen) {
            for (const Vec2& p : stroke) {
                EXPECT_EQ(contains(piece.outline, p), fits);
                for (const PieceWindow& w : piece.windows) EXPECT_FALSE(contains(w.outline, p));
            }
        }
    }
    EXPECT_GT(onPiece, 10);
}

TEST(FreeSpace, FindsTheOnlyHole) {
    const PolygonSet ring{box({0, 0}, {40, 20}), box({2, 2}, {20, 16})};  // even-odd: free at the right end
    const auto corner = FreeSpace(ring).place({14, 10}, {0, 0});
    ASSERT_TRUE(corner);
    EXPECT_GE(corner->x(), 22 - 0.3);
    EXPECT_FALSE(FreeSpace(ring).place({19, 10}, {0, 0}));
    EXPECT_FALSE(FreeSpace({}).place({1, 1}, {0, 0}));
}

TEST(Estimate, NarrowestWidth) {
    EXPECT_NEAR(narrowestWidth_mm(box({0, 0}, {5, 0.8})), 0.8, 1e-9);
    EXPECT_NEAR(narrowestWidth_mm(circle({3, 4}, 1.5)), 3, 0.02);
    EXPECT_NEAR(narrowestWidth_mm({{0, 0}, {10, -0.5}, {10, 2.5}, {0, 1}}), 1,
                0.05);  // a taper: its thin end
    Polygon2 clockwise = box({0, 0}, {5, 0.8});
    std::reverse(clockwise.begin(), clockwise.end());
    EXPECT_NEAR(narrowestWidth_mm(clockwise), 0.8, 1e-9);
}

TEST(Estimate, LengthTimeAndSmallestFeature) {
    Piece piece = plain("p", {40, 20});
    piece.windows = {{"e", box({5, 5}, {4, 10})}, {"e", box({9.6, 5}, {4, 10})}};
    const CutEstimate e = estimateCut({&piece});
    EXPECT_NEAR(e.length_mm, 120 + 2 * 28, 1e-9);
    EXPECT_NEAR(e.smallestFeature_mm, 0.6, 1e-9);  // the strip between the windows
    EXPECT_NEAR(e.time_s(*findTool("knife")), 176 / 5.0 + 3 * 2, 1e-9);
    EXPECT_FALSE(findTool("axe"));
}

Drawing sample() {
    return {"A <b> & \xC3\xBC",
            Vec2(210, 297),
            {{"CUT", {{box({10, 20}, {30, 40}), true}}}, {"PEN", {}}, {"TEXT", {}}}};
}

TEST(Svg, IsInMillimetresWithOriginAtTheTop) {
    const std::string svg = svgText(sample());
    EXPECT_NE(svg.find("width=\"210mm\" height=\"297mm\" viewBox=\"0 0 210 297\""), std::string::npos);
    EXPECT_NE(svg.find("M10.0000 277.0000 L40.0000 277.0000 L40.0000 237.0000 L10.0000 237.0000 Z"),
              std::string::npos);
    EXPECT_NE(svg.find("A &lt;b&gt; &amp;"), std::string::npos);
    for (const char* layer : {"<g id=\"CUT\"", "<g id=\"PEN\"", "<g id=\"TEXT\""}) {
        EXPECT_NE(svg.find(layer), std::string::npos);
    }
}

TEST(Pdf, TableOfObjectsPointsAtThem) {
    const std::string pdf = pdfText({sample(), sample()});
    const std::size_t start = std::stoul(pdf.substr(pdf.rfind("startxref") + 10));
    ASSERT_EQ(pdf.substr(start, 4), "xref");
    std::istringstream table(pdf.substr(start));
    std::string word;
    std::size_t first, count;
    table >> word >> first >> count;
    for (std::size_t i = 0; i < count; ++i) {
        std::size_t offset;
        std::string generation, kind;
        table >> offset >> generation >> kind;
        if (i == 0) continue;
        EXPECT_EQ(pdf.substr(offset, std::to_string(i).size() + 6), std::to_string(i) + " 0 obj");
    }
    EXPECT_NE(pdf.find("/Count 2"), std::string::npos);
    EXPECT_NE(pdf.find("/MediaBox [0 0 595.275591 841.889764]"), std::string::npos);
}

}  // namespace
}  // namespace nine
