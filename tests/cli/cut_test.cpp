// From the demo job to files, read back by programs we did not write.
#include <sys/mount.h>
#include <unistd.h>

#include <regex>

#include "tests/cli/run_cli.h"
#include "tests/here.h"

namespace nine::test {
namespace {

std::string plainJob() {
    return quoted(plainJobPath());
}

struct Point {
    double x, y;
};

/// Closed paths of one layer of an SVG of ours: M and L with absolute numbers, Z.
std::vector<std::vector<Point>> closedPaths(const std::string& svg, const std::string& layer) {
    const auto from = svg.find("<g id=\"" + layer + "\"");
    const std::string group = svg.substr(from, svg.find("</g>", from) - from);
    std::vector<std::vector<Point>> paths;
    static const std::regex path("d=\"([^\"]*)Z\""), point("[ML]([-0-9.]+) ([-0-9.]+)");
    for (std::sregex_iterator it(group.begin(), group.end(), path), end; it != end; ++it) {
        const std::string d = (*it)[1];
        paths.emplace_back();
        for (std::sregex_iterator p(d.begin(), d.end(), point); p != end; ++p) {
            paths.back().push_back({std::stod((*p)[1]), std::stod((*p)[2])});
        }
    }
    return paths;
}

/// Area and centre by the shoelace formula, written apart from the program's own.
std::array<double, 3> areaAndCentre(const std::vector<Point>& p) {
    double twice = 0, mx = 0, my = 0;
    for (std::size_t i = 0; i < p.size(); ++i) {
        const Point &a = p[i], &b = p[(i + 1) % p.size()];
        const double c = a.x * b.y - b.x * a.y;
        twice += c;
        mx += c * (a.x + b.x);
        my += c * (a.y + b.y);
    }
    return {std::abs(twice) / 2, mx / (3 * twice), my / (3 * twice)};
}

class Demo : public ::testing::Test {
  protected:
    static void SetUpTestSuite() {
        folder_ = new TemporaryFolder;
        ran_ = new CliRan(cli("demo --out " + quoted(folder_->path()) + " --json"));
    }
    static void TearDownTestSuite() {
        delete folder_;
        delete ran_;
    }
    static std::string file(const std::string& name) { return *folder_ / name; }
    static TemporaryFolder* folder_;
    static CliRan* ran_;
};
TemporaryFolder* Demo::folder_ = nullptr;
CliRan* Demo::ran_ = nullptr;

TEST_F(Demo, WritesAllItNames) {
    ASSERT_EQ(ran_->exitCode, 0) << ran_->err;
    const auto json = ran_->json();
    for (const auto& name : json["files"]) EXPECT_GT(std::filesystem::file_size(file(name)), 100u) << name;
    EXPECT_EQ(json["overlaps"], 0);
    EXPECT_EQ(json["parts"].size(), 26u);
    EXPECT_GT(json["smallest_feature_mm"], 0.2);
    // The job it wrote is the one it ships, and can be cut again.
    EXPECT_EQ(
        cli("fit " + quoted(file("sedge60-brook-char.nineleaves.json")) + " --vertices 200 --json").exitCode,
        0);
}

TEST_F(Demo, OpeningsInTheFileHaveTheAreasAndCentresItReports) {
    const auto json = ran_->json();
    std::vector<std::vector<Point>> paths;
    for (const char* sheet : {"sheet-1.svg", "sheet-2.svg"})
        for (auto& path : closedPaths(read(file(sheet)), "CUT")) paths.push_back(path);
    std::size_t openings = 0;
    for (const auto& part : json["parts"]) {
        for (const auto& opening : part["openings"]) {
            ++openings;
            bool found = false;
            for (const auto& path : paths) {
                const auto [area, x, y] = areaAndCentre(path);
                if (std::hypot(x - opening["x_mm"].get<double>(), y - opening["y_mm"].get<double>()) > 0.02)
                    continue;
                if (std::abs(area - opening["area_mm2"].get<double>()) > 0.001 * area) continue;
                found = true;
            }
            EXPECT_TRUE(found) << part["id"] << " " << opening;
        }
    }
    // Thirteen masks a side; dots and lines by their number, tracks and spots by chance.
    EXPECT_GT(openings, 2u * (9 + 9 + 5 + 5 + 7 + 60));
    EXPECT_EQ(paths.size(), openings + 26);
}

/// The dots of the demo are asked for as 2.2 to 1.3 mm: on tape that stretches 2 % the windows must have
/// those areas.
TEST_F(Demo, DotsHaveTheAreasAskedFor) {
    for (const auto& part : ran_->json()["parts"]) {
        if (part["name"] != "Red dots") continue;
        for (std::size_t i = 0; i < 8; ++i) {
            const double r = (2.2 - 0.9 * static_cast<double>(i) / 7) / 2;
            EXPECT_NEAR(part["openings"][i]["area_mm2"], M_PI * r * r, 0.06 * M_PI * r * r);
        }
    }
}

TEST_F(Demo, SvgIsA4InRsvg) {
    NINE_NEED_PROGRAM("rsvg-convert");
    ASSERT_EQ(shell("rsvg-convert -d 254 -p 254 -o " + file("s.png") + " " + file("sheet-1.svg")).exitCode,
              0);
    const std::string png = read(file("s.png"));  // width and height stand in the header of a PNG
    const auto number = [&](std::size_t at) {
        unsigned value = 0;
        for (std::size_t i = 0; i < 4; ++i) value = value << 8 | static_cast<unsigned char>(png[at + i]);
        return value;
    };
    EXPECT_EQ(number(16), 2100u);
    EXPECT_EQ(number(20), 2970u);
}

TEST_F(Demo, PdfPageIsA4) {
    NINE_NEED_PROGRAM("pdfinfo");
    const Ran info = shell("pdfinfo " + file("sheets.pdf"));
    EXPECT_EQ(info.exitCode, 0);
    EXPECT_NE(info.out.find("595.276 x 841.89 pts (A4)"), std::string::npos) << info.out;
}

/// At 254 dpi a pixel is 0.1 mm: the 100 mm line must be 1000 pixels long, the square 500 wide, give or take
/// one.
TEST_F(Demo, PdfCheckLineIsTrueToSize) {
    NINE_NEED_PROGRAM("pdftoppm");
    ASSERT_EQ(shell("pdftoppm -r 254 -gray " + file("sheets.pdf") + " " + file("page")).exitCode, 0);
    const std::string pgm = read(file("page-1.pgm"));
    std::istringstream header(pgm);
    std::string magic;
    int width, height, depth;
    header >> magic >> width >> height >> depth;
    header.get();
    ASSERT_EQ(magic, "P5");
    const auto base = static_cast<std::size_t>(header.tellg());
    const auto dark = [&](int x, int y) {
        return static_cast<unsigned char>(pgm[base + static_cast<std::size_t>(y * width + x)]) < 200;
    };
    int longest = 0, squareWide = 0;
    for (int y = height - 600; y < height; ++y) {
        int run = 0;
        for (int x = 0; x < width; ++x) {
            run = dark(x, y) ? run + 1 : 0;
            longest = std::max(longest, run);
            if (x < 650) squareWide = std::max(squareWide, run);
        }
    }
    EXPECT_NEAR(longest, 1000, 3);  // line width and round ends add 0.2 mm
    EXPECT_NEAR(squareWide, 500, 3);
    // The ticks at both ends of the line, measured from centre to centre.
    std::vector<int> ticks;
    const int y = height - static_cast<int>(254 / 25.4 * (8 + 2 + 1.2));
    for (int x = 620; x < 1700; ++x) {
        if (dark(x, y) && !dark(x - 1, y)) ticks.push_back(x);
    }
    ASSERT_GE(ticks.size(), 2u);
    EXPECT_NEAR(ticks.back() - ticks.front(), 1000, 1);
}

/// DXF read by ezdxf: millimetres, our layers, no audit errors, the openings where the report has them.
TEST_F(Demo, DxfIsCleanInEzdxf) {
    const std::string python = "/usr/bin/python3";  // Debian's, which has Debian's packages
    if (shell(python + " -c 'import ezdxf' 2>/dev/null").exitCode != 0) GTEST_SKIP() << "ezdxf is not there";
    const TemporaryFolder folder;
    const CliRan ran = cli("cut " + plainJob() + " --format dxf --out " + quoted(folder.path()) + " --json");
    ASSERT_EQ(ran.exitCode, 0) << ran.err;
    const auto json = ran.json();
    EXPECT_EQ(json["sheets"][0]["file"], "sheet-1.dxf");
    const Ran read =
        shell(python + " " + nine::sourceDir() + "/tests/oracles/read_dxf.py " + (folder / "sheet-1.dxf"));
    ASSERT_EQ(read.exitCode, 0);
    const auto says = [&](const std::string& line) { return read.out.find(line) != std::string::npos; };
    EXPECT_TRUE(says("version AC1015\n")) << read.out.substr(0, 400);
    EXPECT_TRUE(says("units 4\n"));
    EXPECT_TRUE(says("errors 0\n")) << read.out.substr(0, 400);
    EXPECT_TRUE(says("fixes 0\n")) << read.out.substr(0, 400);
    EXPECT_TRUE(says("extents 210.0 297.0\n"));
    EXPECT_TRUE(says("layers 0 CUT PEN SCORE TEXT\n")) << read.out.substr(0, 400);
    std::vector<std::array<double, 3>> cut;
    std::istringstream lines(read.out);
    for (std::string word; lines >> word;) {
        if (word != "cut") continue;
        std::array<double, 3> one{};
        lines >> one[0] >> one[1] >> one[2];
        cut.push_back(one);
    }
    std::size_t openings = 0;
    for (const auto& part : json["parts"]) {
        for (const auto& opening : part["openings"]) {
            ++openings;
            const double x = opening["x_mm"], y = 297 - opening["y_mm"].get<double>(),
                         area = opening["area_mm2"];
            EXPECT_TRUE(std::any_of(cut.begin(), cut.end(), [&](const auto& c) {
                return std::hypot(c[0] - x, c[1] - y) < 0.02 && std::abs(c[2] - area) < 0.001 * area;
            })) << opening;
        }
    }
    EXPECT_EQ(openings, 40u);
    EXPECT_EQ(cut.size(), openings + 6);
}

TEST_F(Demo, BytesAreTheSameUnderAGermanLocale) {
    if (shell("locale -a").out.find("de_DE.utf8") == std::string::npos)
        GTEST_SKIP() << "locale de_DE.UTF-8 is not there";
    const TemporaryFolder german;
    ASSERT_EQ(cli("demo --out " + quoted(german.path()), "LC_ALL=de_DE.UTF-8").exitCode, 0);
    for (const auto& name : ran_->json()["files"]) EXPECT_EQ(read(german / name), read(file(name))) << name;
    for (const std::string& arguments :
         {"blank measure " + quoted(example("willow104.csv")) + " --json",
          "blank measure " + quoted(data("bad-text.csv")) + " --json",
          "blank distance " + quoted(example("dock65.csv")) + " --from L,20.5,3 --to R,40,1 --json"}) {
        EXPECT_EQ(cli(arguments, "LC_ALL=de_DE.UTF-8").out, cli(arguments, "LC_ALL=C").out);
    }
}

TEST(CliCut, LetterAndSeveralPages) {
    const TemporaryFolder folder;
    const auto json =
        cli("cut " + plainJob() + " --sheet 130x130 --out " + quoted(folder.path()) + " --format svg --json")
            .json();
    EXPECT_GT(json["sheets"].size(), 1u);
    EXPECT_EQ(json["overlaps"], 0);
    for (const auto& sheet : json["sheets"]) EXPECT_TRUE(std::filesystem::exists(folder / sheet["file"]));
    EXPECT_FALSE(std::filesystem::exists(folder / "sheets.pdf"));
    const auto letter =
        cli("cut " + plainJob() + " --sheet Letter --out " + quoted(folder / "l") + " --json").json();
    EXPECT_NE(read(folder / "l/sheet-1.svg").find("width=\"215.9mm\" height=\"279.4mm\""), std::string::npos);
    EXPECT_EQ(letter["sheets"][0]["parts"].size(), 6u);
}

TEST(CliCut, MasksThatCannotLieAreToldAndStillWritten) {
    const TemporaryFolder folder;
    std::string job = read(plainJobPath());
    for (std::size_t at; (at = job.find("\"tape\"")) != std::string::npos;) job.replace(at, 6, "\"film\"");
    write(folder / "film.nineleaves.json", job);
    const CliRan ran =
        cli("cut " + quoted(folder / "film.nineleaves.json") + " --out " + quoted(folder / "o"));
    EXPECT_EQ(ran.exitCode, 3);
    EXPECT_NE(ran.out.find("cannot lie flat"), std::string::npos);
    EXPECT_TRUE(std::filesystem::exists(folder / "o/sheets.pdf"));
}

TEST(CliCut, WrongInputWritesNothing) {
    const TemporaryFolder folder;
    const std::string good = read(plainJobPath());
    write(folder / "cut.nineleaves.json", good.substr(0, good.size() / 2));
    write(folder / "newer.nineleaves.json",
          std::regex_replace(good, std::regex("\"format\": \\d"), "\"format\": 9"));
    const std::string out = " --out " + quoted(folder / "o") + " --json";
    const auto error = [&](const std::string& arguments) { return cli(arguments + out).json()["error"]; };
    EXPECT_EQ(error("cut " + quoted(folder / "cut.nineleaves.json"))["code"], "bad_json");
    EXPECT_EQ(error("cut " + quoted(folder / "newer.nineleaves.json"))["code"], "newer_format");
    EXPECT_EQ(error("cut " + quoted(folder / "none.nineleaves.json"))["code"], "cannot_read");
    EXPECT_EQ(error("cut " + plainJob() + " --sheet 5x5")["code"], "bad_sheet");
    EXPECT_EQ(error("cut " + plainJob() + " --format hpgl")["code"], "not_yet");
    EXPECT_EQ(error("cut " + plainJob() + " --tool axe")["code"], "bad_value");
    EXPECT_FALSE(std::filesystem::exists(folder / "o"));
}

TEST(CliCut, UnwritableFolderAndFullDiskKeepWhatWasThere) {
    const CliRan unwritable = cli("demo --out /proc/nine-leaves --json");
    EXPECT_EQ(unwritable.exitCode, 1);
    EXPECT_EQ(unwritable.json()["error"]["code"], "cannot_write");
    const TemporaryFolder folder;
    if (::mount("none", folder.path().c_str(), "tmpfs", 0, "size=64k") != 0) {
        GTEST_SKIP() << "a small tmpfs cannot be mounted here (not root)";
    }
    write(folder / "sheets.pdf", "previous");
    const CliRan full = cli("demo --out " + quoted(folder.path()) + " --json");
    EXPECT_EQ(full.exitCode, 1);
    EXPECT_NE(full.err.find("full"), std::string::npos) << full.err;
    EXPECT_EQ(read(folder / "sheets.pdf"), "previous");
    EXPECT_EQ(std::distance(std::filesystem::directory_iterator(folder.path()), {}), 1);
    ::umount(folder.path().c_str());
}

/// Small sheets first, then a large one: what is left of the first run is told, and taken away when asked.
TEST(CutCli, SheetsOfALongerRunAreToldOrTakenAway) {
    namespace fs = std::filesystem;
    const TemporaryFolder folder;
    const std::string out = " --out " + quoted(folder.path()) + " --format svg --json";
    const auto sheets = [&] {
        std::vector<std::string> names;
        for (const auto& entry : fs::directory_iterator(folder.path()))
            names.push_back(entry.path().filename());
        std::sort(names.begin(), names.end());
        return names;
    };
    ASSERT_EQ(cli("cut " + plainJob() + " --sheet 130x130" + out).exitCode, 0);
    ASSERT_GE(sheets().size(), 2u);
    write(folder / "sheet-notes.svg", "mine");
    const CliRan told = cli("cut " + plainJob() + " --sheet A4" + out);
    ASSERT_EQ(told.exitCode, 0);
    EXPECT_NE(told.out.find("old_pages"), std::string::npos);
    EXPECT_NE(told.out.find("sheet-2.svg"), std::string::npos);
    EXPECT_GE(sheets().size(), 3u);
    const CliRan tidied = cli("cut " + plainJob() + " --sheet A4 --tidy" + out);
    ASSERT_EQ(tidied.exitCode, 0);
    EXPECT_EQ(tidied.out.find("old_pages"), std::string::npos);
    EXPECT_EQ(sheets(), (std::vector<std::string>{"sheet-1.svg", "sheet-notes.svg"}));
}

}  // namespace
}  // namespace nine::test
