// The ways to a body on the command line, from files to files.
#include <gtest/gtest.h>

#include "tests/cli/run_cli.h"

namespace nine::test {
namespace {

std::string picture(const std::string& name) {
    return quoted(example("pictures/" + name));
}

TEST(BlankSheetCli, RingsAreWhereTheLayoutSaysInAnIndependentRenderer) {
    NINE_NEED_PROGRAM("pdftoppm");
    const TemporaryFolder folder;
    ASSERT_EQ(cli("blank sheet --out " + (folder / "s.pdf")).exitCode, 0);
    ASSERT_EQ(shell("pdftoppm -r 254 -gray " + (folder / "s.pdf") + " " + (folder / "s")).exitCode, 0);
    // A portable grey map: 254 dpi are 10 pixels a millimetre.
    std::istringstream pgm(read(folder / "s-1.pgm"));
    std::string magic;
    int width = 0, height = 0, most = 0;
    pgm >> magic >> width >> height >> most;
    pgm.get();
    EXPECT_NEAR(width, 2970, 1);
    EXPECT_NEAR(height, 2100, 1);
    std::string grey(static_cast<std::size_t>(width) * static_cast<std::size_t>(height), '\0');
    pgm.read(grey.data(), static_cast<std::streamsize>(grey.size()));
    const auto dark = [&](double x_mm, double y_mm) {
        const auto x = static_cast<std::size_t>(10 * x_mm), y = static_cast<std::size_t>(10 * (210 - y_mm));
        return static_cast<unsigned char>(grey[y * static_cast<std::size_t>(width) + x]) < 100;
    };
    // Frame 250 x 180 mm in the middle of the paper: rings of radii 2.4 to 4 mm round dots of 1.2 mm.
    const double marks[][2] = {{0, 0},    {250, 0}, {250, 180}, {0, 180},
                               {85, 180}, {150, 0}, {0, 60},    {250, 135}};
    for (const auto& mark : marks) {
        const double x = 23.5 + mark[0], y = 15 + mark[1];
        EXPECT_TRUE(dark(x, y));
        EXPECT_FALSE(dark(x + 1.8, y));
        EXPECT_TRUE(dark(x + 3.2, y));
        EXPECT_TRUE(dark(x, y - 3.9));
        EXPECT_FALSE(dark(x, y - 4.2));
    }
    // The line to measure: 100 mm from tick to tick.
    int first = -1, last = -1;
    for (int i = 0; i < 1400; ++i) {
        const double x = 30 + 0.1 * i;
        if (!dark(x, 15 + 5.5)) continue;
        if (first < 0) first = i;
        last = i;
    }
    EXPECT_NEAR(last - first, 1000, 3);
    EXPECT_EQ(cli("blank sheet --out " + (folder / "l.svg") + " --paper Letter").exitCode, 0);
    EXPECT_EQ(cli("blank sheet --out " + (folder / "x.pdf") + " --paper A5").exitCode, 1);
}

TEST(BlankCheckCli, ThePhotoOfTheBodyLiesOnItAndAnotherBodyDoesNot) {
    const TemporaryFolder folder;
    ASSERT_EQ(cli("blank photo " + picture("sedge60-photo.jpg") + " --length 60 --out " +
                  (folder / "b.nineleaves.json"))
                  .exitCode,
              0);
    const auto check = [&](const std::string& body, const std::string& more) {
        return cli("blank check " + body + " " + picture("sedge60-photo.jpg") + more + " --json");
    };
    const CliRan same = check((folder / "b.nineleaves.json"), " --out " + (folder / "c.csv"));
    ASSERT_EQ(same.exitCode, 0) << same.err;
    EXPECT_LT(same.json().at("rms_mm"), 0.05);
    EXPECT_EQ(read(folder / "c.csv").rfind("x_mm,edge,off_mm\n", 0), 0u);
    EXPECT_NEAR(same.json().at("scale"), 1, 0.01);
    // Two mm longer by ruler: the ends are a millimetre off.
    const CliRan longer = check((folder / "b.nineleaves.json"), " --length 62");
    EXPECT_NEAR(longer.json().at("worst_mm"), 1, 0.35);
    EXPECT_EQ(check("nothing.csv", "").exitCode, 1);
}

TEST(BlankTraceCli, TheDemosTracingBecomesTheDemosBody) {
    const TemporaryFolder folder;
    const CliRan ran = cli("blank trace " + picture("sedge60-tracing.jpg") + " --out " +
                           (folder / "b.nineleaves.json") + " --json");
    ASSERT_EQ(ran.exitCode, 0) << ran.err;
    EXPECT_NEAR(ran.json()["length_mm"].get<double>(), 60, 0.1);
    EXPECT_EQ(ran.json()["marks"], 8);
    EXPECT_EQ(ran.json()["guides"], 2);
    EXPECT_TRUE(ran.json()["top_traced"].get<bool>());
    const CliRan compared = cli("blank compare " + quoted(example("sedge60.csv")) + " " +
                                (folder / "b.nineleaves.json") + " --json");
    EXPECT_LT(compared.json()["outline_rms_mm"].get<double>(), 0.2);
    for (const char* x : {"10", "25", "45"}) {
        const auto girth = [&](const std::string& body) {
            return cli("blank measure " + body + " --at " + x + " --json")
                .json()["girths"][0]["girth_mm"]
                .get<double>();
        };
        EXPECT_NEAR(girth(folder / "b.nineleaves.json") / girth(quoted(example("sedge60.csv"))), 1, 0.01)
            << x;
    }
    // The job holds the picture, and works.
    EXPECT_NE(read(folder / "b.nineleaves.json").find("\"jpeg\""), std::string::npos);
    EXPECT_EQ(cli("blank measure " + (folder / "b.nineleaves.json") + " --json").exitCode, 0);
}

TEST(BlankPhotoCli, TwoPhotosMakeABody) {
    const TemporaryFolder folder;
    const CliRan ran =
        cli("blank photo " + picture("sedge60-photo.jpg") + " --top " + picture("sedge60-above.jpg") +
            " --length 60 --out " + (folder / "b.nineleaves.json") + " --json");
    ASSERT_EQ(ran.exitCode, 0) << ran.err;
    EXPECT_NEAR(ran.json()["length_mm"].get<double>(), 60, 0.1);
    EXPECT_NEAR(ran.json()["width_mm"].get<double>(), 27.66, 0.3);
    EXPECT_NEAR(ran.json()["height_mm"].get<double>(), 30.7, 0.4);
    // The same with two points of known distance: the ends the program found, 60 mm apart.
    const auto ends = ran.json()["axis_px"];
    std::string scale;
    for (const auto& v : ends) scale += std::to_string(v.get<double>()) + ",";
    const CliRan points = cli("blank photo " + picture("sedge60-photo.jpg") + " --scale " + scale +
                              "60 --girth '25,93;45,65' --out " + (folder / "c.nineleaves.json") + " --json");
    ASSERT_EQ(points.exitCode, 0) << points.err;
    EXPECT_NEAR(points.json()["length_mm"].get<double>(), 60, 0.1);
    const CliRan measured = cli("blank measure " + (folder / "c.nineleaves.json") + " --at 25 --json");
    EXPECT_NEAR(measured.json()["girths"][0]["girth_mm"].get<double>(), 93, 0.5);
    EXPECT_EQ(measured.json()["strings"].size(), 2u);
}

TEST(BlankPhotoCli, StrokesReachBothPictures) {
    const TemporaryFolder folder;
    const std::string base = "blank photo " + picture("sedge60-photo.jpg") + " --top " +
                             picture("sedge60-above.jpg") + " --length 60 --brush 40 --out " +
                             (folder / "b.nineleaves.json") + " --json";
    const double wide = cli(base).json()["width_mm"].get<double>();
    // A line along one flank of the body from above, in pixels of that picture (1600 wide, body about 830
    // long).
    const CliRan narrower = cli(base + " --top_exclude '400,745,1200,690'");
    ASSERT_EQ(narrower.exitCode, 0) << narrower.err;
    EXPECT_LT(narrower.json()["width_mm"].get<double>(), wide - 0.5);
    EXPECT_EQ(cli(base + " --top_exclude '400'").exitCode, 1);
}

TEST(WaysCli, WrongInputWritesNothing) {
    const TemporaryFolder folder;
    write(folder / "no.jpg", "not a picture");
    const std::string out = " --out " + (folder / "b.nineleaves.json") + " --json";
    const std::pair<std::string, const char*> cases[] = {
        {"blank trace " + (folder / "no.jpg") + out, "not_a_picture"},
        {"blank trace " + (folder / "missing.jpg") + out, ""},
        {"blank trace " + picture("sedge60-photo.jpg") + out, "marks_missing"},
        {"blank trace " + picture("sedge60-tracing.jpg") + " --ruler_mm 40" + out, "ruler_wrong"},
        {"blank trace " + picture("sedge60-tracing.jpg") + " --girth 25,300" + out, "girth_impossible"},
        {"blank trace " + picture("sedge60-tracing.jpg") + " --family shark" + out, "unknown_family"},
        {"blank photo " + picture("sedge60-photo.jpg") + out, "no_scale"},
        {"blank photo " + picture("sedge60-photo.jpg") + " --length -3" + out, "bad_value"},
        {"blank photo " + picture("sedge60-photo.jpg") + " --scale 1,1,1,1,60" + out, "no_scale"},
        {"blank photo " + picture("sedge60-photo.jpg") + " --length 60 --nose up" + out, "bad_value"},
        {"blank family minnow" + out, "missing"},
        {"blank family minnow --length 90 --height 15 --readings 40,18,0,0" + out, "contradiction"},
        {"blank string " + quoted(example("sedge60.csv")) + " --at 25 --girth 200" + out, "girth_impossible"},
        {"blank string " + quoted(example("sedge60.csv")) + " --at 99 --girth 90" + out, "off_body"}};
    for (const auto& [command, code] : cases) {
        const CliRan ran = cli(command);
        ASSERT_EQ(ran.exitCode, 1) << command;
        if (*code) {
            EXPECT_EQ(ran.json()["error"]["code"], code) << command;
        }
        EXPECT_FALSE(std::filesystem::exists(folder / "b.nineleaves.json")) << command;
    }
}

TEST(WaysCli, FamilyStringWrapAndTable) {
    const TemporaryFolder folder;
    const std::string job = folder / "m.nineleaves.json";
    ASSERT_EQ(cli("blank family minnow --length 104 --height 17.5 --width 13.6 --out " + job).exitCode, 0);
    const CliRan string = cli("blank string " + job + " --at 43.7 --girth 50 --out " + job + " --json");
    ASSERT_EQ(string.exitCode, 0) << string.err;
    EXPECT_NEAR(string.json()["residual_mm"].get<double>(), 0, 1e-6);
    EXPECT_NEAR(
        cli("blank measure " + job + " --at 43.7 --json").json()["girths"][0]["girth_mm"].get<double>(), 50,
        1e-3);
    const CliRan flat = cli("blank wrap " + job + " --sheet 30x12 --json"),
                 wide = cli("blank wrap " + job + " --sheet 60x40 --json");
    EXPECT_GT(flat.json()["lies_share"].get<double>(), wide.json()["lies_share"].get<double>());
    ASSERT_EQ(cli("blank table " + job + " --out " + (folder / "t.pdf")).exitCode, 0);
    EXPECT_EQ(read(folder / "t.pdf").substr(0, 5), "%PDF-");
    ASSERT_EQ(cli("blank table " + job + " --out " + (folder / "t.csv")).exitCode, 0);
    EXPECT_EQ(read(folder / "t.csv").substr(0, 9), "x_mm,heig");
}

TEST(WaysCli, BlanksGoInAndOutOfTheLibrary) {
    const TemporaryFolder folder;
    const std::string file = " --file " + (folder / "w.sqlite") + " --json";
    EXPECT_EQ(cli("blank library seed" + file).json()["blanks"].size(), 7u);
    const CliRan in = cli("blank library import --blank " + quoted(example("reed118.csv")) + file);
    ASSERT_EQ(in.exitCode, 0) << in.err;
    EXPECT_EQ(in.json()["blanks"].size(), 8u);
    const std::string id = in.json()["id"];
    ASSERT_EQ(
        cli("blank library export --id " + id + " --out " + (folder / "r.nineleaves.json") + file).exitCode,
        0);
    const CliRan same = cli("blank compare " + quoted(example("reed118.csv")) + " " +
                            (folder / "r.nineleaves.json") + " --json");
    EXPECT_EQ(same.json()["outline_max_mm"], 0);
    EXPECT_EQ(cli("blank library remove --id " + id + file).json()["blanks"].size(), 7u);
    EXPECT_EQ(cli("blank library export --id " + id + " --out " + (folder / "x.json") + file).exitCode, 1);
    EXPECT_EQ(cli("blank library list --search popper" + file).json()["blanks"][0]["id"], "burdock-78");
    EXPECT_EQ(cli("blank library dance" + file).exitCode, 2);
}

}  // namespace
}  // namespace nine::test
