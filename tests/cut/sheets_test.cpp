// Sheets: one material each, no empty ones, words that stay on the paper; names of files.
#include <algorithm>

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
    ASSERT_EQ(job.get<CutChapter>().places.size(), 3u);
    for (const PiecePlace& place : job.get<CutChapter>().places)
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

/// Whether every stroke of the text stands on the page, moved as a whole.
bool isWritten(const Drawing& page, const std::string& text, double height) {
    const std::vector<Polyline2> strokes = strokeText(text, height);
    for (const DrawnLine& first : page.layers[2].lines) {
        if (first.points.size() != strokes[0].size()) continue;
        const Vec2 moved = first.points[0] - strokes[0][0];
        const auto stands = [&](const Polyline2& stroke) {
            return std::any_of(page.layers[2].lines.begin(), page.layers[2].lines.end(),
                               [&](const DrawnLine& line) {
                                   if (line.points.size() != stroke.size()) return false;
                                   for (std::size_t k = 0; k < stroke.size(); ++k)
                                       if ((line.points[k] - stroke[k] - moved).norm() > 1e-6) return false;
                                   return true;
                               });
        };
        if (std::all_of(strokes.begin(), strokes.end(), stands)) return true;
    }
    return false;
}

/// The page number is drawn whole whatever the name.
TEST(Sheets, ThePageNumberSurvivesALongName) {
    const CutPages pages = need(layOutPieces({of("a", "film")}, {210, 297}));
    const Drawing page = drawPage(pages, 0, {std::string(200, 'M'), {}});
    EXPECT_TRUE(isWritten(page, ", page 1 of 1", 3.2));
    EXPECT_FALSE(isWritten(page, ", page 2 of 1", 3.2));
    EXPECT_LE(footOf(page).high.x(), 210 - kPageMargin_mm + 0.5);
}

/// Pieces keep 4 mm apart, also beside ones laid by hand at odd places.
TEST(Sheets, ThereIsRoomForFingersBetweenPieces) {
    std::vector<Piece> pieces;
    std::vector<PiecePlace> places;
    const std::vector<Vec2> byHand{{41.3, 230.7}, {97.9, 201.1}, {160.4, 251.6}, {70.2, 141.9}};
    for (std::size_t i = 0; i < byHand.size(); ++i) {
        pieces.push_back(of("h" + std::to_string(i), "film", {31, 22}));
        places.push_back({pieces.back().id, 0, byHand[i], {}});
    }
    for (int i = 0; i < 30; ++i)
        pieces.push_back(of("p" + std::to_string(i), "film", {9.0 + i % 7 * 5, 8.0 + i % 5 * 6}));
    const CutPages pages = need(layOutPieces(pieces, {210, 297}, places));
    double nearest = 1e9;
    for (std::size_t i = 0; i < pages.pieces.size(); ++i) {
        for (std::size_t k = 0; k < i; ++k) {
            if (pages.pieces[i].page != pages.pieces[k].page) continue;
            const Box2 a = pages.pieces[i].piece.box(), b = pages.pieces[k].piece.box();
            const double apart =
                std::max((a.low - b.high).maxCoeff(), (b.low - a.high).maxCoeff());  // along one axis
            nearest = std::min(nearest, apart);
        }
    }
    EXPECT_GE(nearest, 4 - 1e-6);
}

/// A cutter follows the order of the file: once its outline is cut the piece is loose, so that comes last.
TEST(Sheets, WindowsAreCutBeforeTheOutline) {
    std::vector<Piece> pieces{of("a", "film"), of("b", "film")};
    for (Piece& piece : pieces) {
        PieceWindow window{"dots", {{20, 10}, {30, 10}, {30, 20}, {20, 20}}};
        window.islands.push_back({{23, 13}, {27, 13}, {27, 17}, {23, 17}});
        piece.windows.push_back(window);
    }
    const Drawing page = drawPage(need(layOutPieces(pieces, {210, 297})), 0, {"t", {}});
    std::vector<double> areas;
    for (const DrawnLine& line : page.layers[0].lines) areas.push_back(std::abs(polygonArea(line.points)));
    ASSERT_EQ(page.layers[0].name, "CUT");
    ASSERT_EQ(areas.size(), 6u);
    for (const std::size_t piece : {0u, 3u}) {
        EXPECT_NEAR(areas[piece], 16, 1e-6);  // what stands free inside, then its window, then all
        EXPECT_NEAR(areas[piece + 1], 100, 1e-6);
        EXPECT_NEAR(areas[piece + 2], 2400, 1e-6);
    }
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
