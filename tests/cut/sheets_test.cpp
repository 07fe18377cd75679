// Sheets: one material each, no empty ones, words that stay on the paper; names of files.
#include "cut/layout.h"
#include "geom/stroke_font.h"
#include "job/export.h"
#include "tests/support.h"

namespace nine {
namespace {

using test::need;

Piece of(const std::string& id, const std::string& stock, const Vec2& size = {60, 40}) {
    Piece piece;
    piece.id = piece.name = id;
    piece.stock = stock;
    piece.outline = {{0, 0}, {size.x(), 0}, size, {0, size.y()}};
    return piece;
}

TEST(Sheets, TwoMaterialsNeverShareOne) {
    std::vector<Piece> pieces;
    for (int i = 0; i < 12; ++i) pieces.push_back(of("p" + std::to_string(i), i % 3 == 0 ? "film" : "tape"));
    const std::vector<PiecePlace> places{{"p1", 0, {60, 200}, {}},
                                         {"p3", 0, {150, 100}, {}}};  // tape and film
    const CutPages pages = need(layOutPieces(pieces, {210, 297}, places));
    ASSERT_EQ(pages.stocks.size(), pages.pages);
    for (const PlacedPiece& placed : pages.pieces) EXPECT_EQ(placed.piece.stock, pages.stocks[placed.page]);
    EXPECT_EQ(pages.overlaps(), 0);
    ASSERT_EQ(pages.warnings.size(), 1u);  // p3 cannot lie on the sheet of p1
    EXPECT_EQ(pages.warnings[0].code, "place_lost");
    EXPECT_EQ(pages.pages, 2u);
}

TEST(Sheets, APlaceOnSheetHundredMakesNoEmptyOnes) {
    const std::vector<Piece> pieces{of("a", "film"), of("b", "film")};
    const CutPages pages = need(layOutPieces(pieces, {210, 297}, {{"b", 99, {100, 200}, {}}}));
    EXPECT_EQ(pages.pages, 2u);
    EXPECT_EQ(pages.pieces[0].page, 0u);
    EXPECT_EQ(pages.pieces[1].page, 1u);
    EXPECT_TRUE(pages.pieces[1].byHand);
    EXPECT_EQ(need(layOutPieces({of("b", "film")}, {210, 297}, {{"b", 99, {100, 200}, {}}})).pages, 1u);
}

TEST(Sheets, DraggingAPieceSettlesThePagesOfAll) {
    const CutPages pages = need(layOutPieces({of("a", "film"), of("b", "film"), of("c", "film")}, {210, 297},
                                             {{"b", 99, {100, 200}, {}}, {"c", 50, {100, 200}, {}}}));
    const Job job = withPlacesOf(Job{}, pages, 0);
    ASSERT_EQ(job.cut->places.size(), 3u);
    for (const PiecePlace& place : job.cut->places)
        EXPECT_EQ(place.page, pages.pieces[static_cast<std::size_t>(place.piece[0] - 'a')].page)
            << place.piece;
}

/// Extents of all lettering and lines of the foot.
Box2 footOf(const Drawing& page) {
    PolygonSet lines;
    for (const DrawnLine& line : page.layers[2].lines) lines.push_back(line.points);
    return boxAround(lines);
}

TEST(Sheets, WordsStayOnThePaperAndApart) {
    const std::string longName(200, 'W');
    for (const Vec2& size : {Vec2(120, 200), Vec2(210, 297), Vec2(297, 210)}) {
        const CutPages pages = need(layOutPieces({of("a", "film")}, {size.x(), size.y()}));
        std::vector<std::string> notes;
        for (int i = 0; i < 40; ++i)
            notes.push_back((i % 2 ? longName : "Pale spots") +
                            ": A 12.4 mm behind the gill plate, B 3.0 mm ahead of and "
                            "4.2 mm above the tail root");
        const Drawing page = drawPage(pages, 0, {longName, notes});
        const Box2 foot = footOf(page);
        EXPECT_GE(foot.low.minCoeff(), kPageMargin_mm - 1e-9) << size;
        EXPECT_LE(foot.high.x(), size.x() - kPageMargin_mm + 0.5) << size;
        // Lines of text do not run into each other: strokes of one line lie within its height.
        std::vector<std::pair<double, double>> rows;
        for (const DrawnLine& line : page.layers[2].lines) {
            const Box2 b = boxAround({line.points});
            if (b.low.x() > kPageMargin_mm + kCheckSquare_mm + 1 && b.size().y() < 4)
                rows.emplace_back(b.low.y(), b.high.y());
        }
        EXPECT_GT(rows.size(), 200u);
        for (const auto& [low, high] : rows) EXPECT_GT(low, kPageMargin_mm - 1e-9);
    }
}

/// The page number is drawn whole whatever the name.
TEST(Sheets, ThePageNumberSurvivesALongName) {
    const CutPages pages = need(layOutPieces({of("a", "film")}, {210, 297}));
    const std::string number = ", page 1 of 1";
    const std::size_t strokes = strokeText(number, 3.2).size();
    const double width = strokeTextWidth(number, 3.2);
    const Drawing page = drawPage(pages, 0, {std::string(200, 'M'), {}});
    const Vec2 title(kPageMargin_mm + kCheckSquare_mm + 6, kPageMargin_mm + kCheckSquare_mm - 3.2);
    double right = 0;
    std::size_t behind = 0;
    for (const DrawnLine& line : page.layers[2].lines) {
        const Box2 b = boxAround({line.points});
        if (b.low.y() >= title.y() - 1.2 && b.low.x() >= title.x()) right = std::max(right, b.high.x());
    }
    for (const DrawnLine& line : page.layers[2].lines) {
        const Box2 b = boxAround({line.points});
        if (b.low.y() >= title.y() - 1.2 && b.low.x() >= right - width) ++behind;
    }
    EXPECT_GE(behind + 1, strokes);
    EXPECT_LE(right, 210 - kPageMargin_mm + 1e-9);
}

TEST(Sheets, EverySheetNamesItsMaterial) {
    const CutPages pages = need(layOutPieces({of("a", "film"), of("b", "paper")}, {210, 297}));
    ASSERT_EQ(pages.pages, 2u);
    const auto strokes = [&](std::size_t page) {
        return drawPage(pages, page, {"t", {}}).layers[2].lines.size();
    };
    CutPages bare = pages;
    bare.stocks = {"", ""};
    for (std::size_t page = 0; page < 2; ++page) {
        const std::size_t without = drawPage(bare, page, {"t", {}}).layers[2].lines.size();
        EXPECT_EQ(strokes(page) - without, strokeText("Cut from " + pages.stocks[page], 2).size());
    }
}

TEST(FileNames, AreMadeOfWhatPeopleWrote) {
    EXPECT_EQ(fileStem("Sedge 60 Brook char"), "sedge-60-brook-char");
    EXPECT_EQ(fileStem("../../etc/passwd"), "etc-passwd");
    EXPECT_EQ(fileStem("  a / b : c*?\"<>|\n"), "a-b-c");
    EXPECT_EQ(fileStem("B\u00e4r 3"), "b\u00e4r-3");
    EXPECT_EQ(fileStem(""), "job");
    EXPECT_EQ(fileStem("///"), "job");
    EXPECT_LE(fileStem(std::string(500, 'x')).size(), 80u);
    std::string wide;
    for (int i = 0; i < 100; ++i) wide += "\u00e9";
    EXPECT_EQ(fileStem(wide).size() % 2, 0u);  // not cut within a letter
}

TEST(FileNames, OnlySheetsOfThisJobBeyondTheLastAreLeftovers) {
    const std::vector<std::string> names{"a-sheet-1.svg",     "a-sheet-2.svg",  "a-sheet-3.svg",
                                         "a-sheet-3.dxf",     "b-sheet-3.svg",  "a-sheet-x.svg",
                                         "a-sheet-.svg",      "a-sheet-03.svg", "a-sheet-3.svg.bak",
                                         "a-sheet-99999.svg", "a-sheets.pdf"};
    EXPECT_EQ(sheetsBeyond(names, 2, {true, false, false}, "a"), (std::vector<std::string>{"a-sheet-3.svg"}));
    EXPECT_EQ(sheetsBeyond(names, 0, {true, true, true}, "a").size(), 4u);
    EXPECT_TRUE(sheetsBeyond(names, 0, {false, true, false}, "a").empty());
    EXPECT_EQ(pageFileNames(2, {true, true, true}, "a"),
              (std::vector<std::string>{"a-sheet-1.svg", "a-sheet-1.dxf", "a-sheet-2.svg", "a-sheet-2.dxf",
                                        "a-sheets.pdf"}));
}

}  // namespace
}  // namespace nine
