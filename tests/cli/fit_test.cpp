#include "tests/cli/run_cli.h"

namespace nine::test {
namespace {

std::string sedge() {
    return quoted(example("sedge60.csv"));
}

TEST(CliFit, VerdictFollowsTheMaterial) {
    const std::string patch = "fit " + sedge() + " --patch L,15,45,-7,7 --vertices 800 --json";
    const CliRan film = cli(patch), tape = cli(patch + " --material tape");
    EXPECT_EQ(film.exitCode, 3);
    EXPECT_FALSE(film.json()["lies_flat"]);
    EXPECT_GT(film.json()["lift_mm"], 0);
    EXPECT_EQ(tape.exitCode, 0);
    EXPECT_EQ(tape.json()["lift_mm"], 0);
    EXPECT_EQ(film.json()["strain_feasible_max"], tape.json()["strain_feasible_max"]);
    EXPECT_LE(tape.json()["landing_max_mm"], 0.05);
    EXPECT_GT(tape.json()["traced_max_mm"], 0.3);
    EXPECT_EQ(cli(patch + " --strain 0.02").exitCode, 0);
    EXPECT_EQ(cli(patch + " --relief none").exitCode, 3);
}

TEST(CliFit, PlainTextNamesVerdictAndRepair) {
    const CliRan ran = cli("fit " + sedge() + " --patch L,15,45,-7,7 --vertices 400");
    EXPECT_NE(ran.out.find("cannot lie flat"), std::string::npos);
    EXPECT_NE(ran.out.find("split the mask"), std::string::npos);
}

TEST(CliFit, LeftAndRightAreMirrorImages) {
    const TemporaryFolder folder;
    const auto figures = [&](const std::string& side) {
        auto json = cli("fit " + sedge() + " --disc " + side + ",30,2,7 --vertices 400 --json --map " +
                        quoted(folder / (side + ".csv")) + " --svg " + quoted(folder / (side + ".svg")))
                        .json();
        json.erase("time_ms");
        return json;
    };
    EXPECT_EQ(figures("L"), figures("R"));
    std::istringstream left(read(folder / "L.csv")), right(read(folder / "R.csv"));
    std::string a, b;
    std::getline(left, a);
    std::getline(right, b);
    EXPECT_EQ(a, "x_mm,g_mm,u_mm,v_mm");
    double x, g, u, v, xr, gr, ur, vr;
    char c;
    int rows = 0;
    while (left >> x >> c >> g >> c >> u >> c >> v && right >> xr >> c >> gr >> c >> ur >> c >> vr) {
        ASSERT_EQ(u, -ur);
        ASSERT_EQ(v, vr);
        ASSERT_EQ(x, xr);
        ++rows;
    }
    EXPECT_GT(rows, 300);
    EXPECT_NE(read(folder / "L.svg").find("<g id=\"CUT\""), std::string::npos);
}

TEST(CliLand, OwnMapLandsAndASideViewDoesNot) {
    const TemporaryFolder folder;
    const std::string map = folder / "own.csv", traced = folder / "traced.csv";
    ASSERT_EQ(
        cli("fit " + sedge() + " --patch L,20,40,-10,10 --material tape --vertices 900 --map " + quoted(map))
            .exitCode,
        0);
    const std::string rest = " --side L --marks '20,0;40,0' --json";
    const CliRan own = cli("land " + sedge() + " --map " + quoted(map) + rest);
    EXPECT_EQ(own.exitCode, 0);
    EXPECT_LE(own.json()["landing_rms_mm"], 0.02);
    EXPECT_LE(own.json()["landing_max_mm"], 0.05);

    // The same points as a painter traces them: height above the axis instead of arc along the girth. On an
    // ellipse-like section of half width 13.8 that is about r sin(g / r).
    std::istringstream in(read(map));
    std::string line, out;
    std::getline(in, line);
    out = line + "\n";
    double x, g, u, v;
    char c;
    while (in >> x >> c >> g >> c >> u >> c >> v) {
        out += numberText(x) + "," + numberText(g) + "," + numberText(x) + "," +
               numberText(13.8 * std::sin(g / 13.8)) + "\n";
    }
    write(traced, out);
    const CliRan wrong = cli("land " + sedge() + " --map " + quoted(traced) + rest);
    EXPECT_EQ(wrong.exitCode, 3);
    EXPECT_FALSE(wrong.json()["lands"]);
    EXPECT_GT(wrong.json()["landing_max_mm"], 0.4);
}

TEST(CliFit, PointsAreCarriedByTheMap) {
    const TemporaryFolder folder;
    write(folder / "p.csv", "x_mm,g_mm\n25,0\n30,3.5\n");
    ASSERT_EQ(cli("fit " + sedge() + " --patch L,20,40,-10,10 --material tape --vertices 400 --map " +
                  quoted(folder / "m.csv") + " --points " + quoted(folder / "p.csv"))
                  .exitCode,
              0);
    const std::string text = read(folder / "m.csv");
    EXPECT_NE(text.find("\n25,0,"), std::string::npos);
    EXPECT_NE(text.find("\n30,3.5,"), std::string::npos);
}

TEST(CliFit, WrongPatchesAreRefused) {
    for (const auto& [patch, code] : {std::pair{"--patch L,50,80,-3,3", "off_body"},
                                      {"--patch L,0,20,-3,3", "off_body"},
                                      {"--patch L,0.2,20,-1,1", "over_pole"},
                                      {"--patch L,30,20,-3,3", "empty_patch"},
                                      {"--patch L,20,50,-30,45", "off_body"},
                                      {"--patch X,20,30,-3,3", "bad_value"},
                                      {"--patch L,20,30,-3", "bad_value"},
                                      {"--disc L,1,0,5", "over_pole"},
                                      {"--disc L,30,0,-5", "empty_patch"},
                                      {"--patch L,20,30,-3,3 --material jelly", "unknown_material"},
                                      {"--patch L,20,30,-3,3 --strain 0", "out_of_range"},
                                      {"--patch L,20,30,-3,3 --vertices 5", "out_of_range"}}) {
        const CliRan ran = cli("fit " + sedge() + " " + patch + " --json");
        EXPECT_EQ(ran.exitCode, 1) << patch;
        EXPECT_EQ(ran.json()["error"]["code"], code) << patch;
    }
    EXPECT_EQ(cli("fit " + sedge() + " --json").exitCode, 2);
}

}  // namespace
}  // namespace nine::test
