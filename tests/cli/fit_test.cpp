#include <fstream>
#include <map>
#include <set>

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
    EXPECT_NE(ran.out.find("Slit it, split it, or take a softer sheet"), std::string::npos);
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

TEST(CliFit, AWholeSideIsSlitAsItsMaterialNeeds) {
    const std::string side = "fit " + sedge() + " --kind side --vertices 1200 --json --material ";
    const CliRan tape = cli(side + "tape");
    EXPECT_EQ(tape.exitCode, 0) << tape.err;
    const auto json = tape.json();
    EXPECT_EQ(json["answer"], "slits");
    EXPECT_GE(json["relief_cuts"], 4);
    EXPECT_LE(json["relief_cuts"], 6);
    EXPECT_EQ(json["pieces"], 1);
    EXPECT_EQ(json["sheets"][0]["slits"].size(), json["relief_cuts"]);
    EXPECT_GT(json["strain_plain"], 0.08);
    EXPECT_LE(json["strain_feasible_max"], 0.03);
    EXPECT_LE(json["landing_max_mm"], 0.08);
    EXPECT_TRUE(json["press"].empty());
    const CliRan none = cli(side + "tape --relief none");
    EXPECT_EQ(none.exitCode, 3);
    EXPECT_EQ(none.json()["relief_cuts"], 0);
    EXPECT_GE(none.json()["press"].size(), 5u);
    const CliRan two = cli(side + "tape --relief 2");
    EXPECT_EQ(two.json()["relief_cuts"], 2);
    EXPECT_LT(two.json()["strain_feasible_max"], none.json()["strain_feasible_max"]);
    EXPECT_GT(cli(side + "paper").json()["pieces"], 1);
    EXPECT_EQ(cli(side + "vinyl").json()["answer"], "plain");
    EXPECT_EQ(cli("fit " + sedge() + " --patch L,15,45,-7,7 --relief 3 --json").json()["error"]["code"],
              "usage");
    EXPECT_EQ(cli(side + "tape --relief many").json()["error"]["code"], "bad_value");
    EXPECT_EQ(cli("fit " + sedge() + " --kind half --json").json()["error"]["code"], "bad_value");
    EXPECT_EQ(cli("fit " + sedge() + " --kind wrap --seam nose --json").json()["error"]["code"], "bad_value");
}

/// The map of a slit sheet with its borders lands; with one lip 0.3 mm off it is told, and by how much.
TEST(CliLand, AWrongLipIsTold) {
    const TemporaryFolder folder;
    const std::string map = folder / "map.csv", borders = folder / "borders.csv";
    const auto fit = cli("fit " + sedge() + " --kind side --material tape --vertices 1200 --json --map " +
                         quoted(map) + " --borders " + quoted(borders))
                         .json();
    std::string marks;
    for (const auto& mark : fit["sheets"][0]["marks"])
        marks += (marks.empty() ? "" : ";") + mark["x_mm"].dump() + "," + mark["g_mm"].dump();
    const auto land = [&] {
        return cli("land " + sedge() + " --map " + quoted(map) + " --borders " + quoted(borders) +
                   " --marks \"" + marks + "\" --json");
    };
    const CliRan right = land();
    EXPECT_EQ(right.exitCode, 0) << right.err;
    EXPECT_LE(right.json()["landing_max_mm"], 0.1);
    // One lip of the first slit: of each pair of points at one place the one nearer to the nose.
    const double x = fit["sheets"][0]["slits"][0][0][0];
    std::map<std::string, std::vector<std::array<double, 4>>> places;
    std::istringstream in(read(map));
    std::string line;
    std::getline(in, line);
    std::vector<std::array<double, 4>> rows;
    while (std::getline(in, line)) {
        std::array<double, 4> r{};
        ASSERT_EQ(std::sscanf(line.c_str(), "%lf,%lf,%lf,%lf", &r[0], &r[1], &r[2], &r[3]), 4);
        rows.push_back(r);
        places[std::to_string(r[0]) + " " + std::to_string(r[1])].push_back(r);
    }
    std::set<std::pair<double, double>> moved;
    for (const auto& [place, points] : places)
        if (points.size() == 2 && std::abs(points[0][0] - x) < 1e-3 && points[0][1] < 0) {
            const auto& lip = points[0][2] < points[1][2] ? points[0] : points[1];
            moved.insert({lip[2], lip[3]});
        }
    ASSERT_GE(moved.size(), 5u);
    const auto shifted = [&](double u, double v) { return moved.count({u, v}) ? u - 0.3 : u; };
    std::ostringstream wrongMap, wrongBorders;
    wrongMap.precision(17);
    wrongBorders.precision(17);
    wrongMap << "x_mm,g_mm,u_mm,v_mm\n";
    for (const auto& r : rows)
        wrongMap << r[0] << ',' << r[1] << ',' << shifted(r[2], r[3]) << ',' << r[3] << '\n';
    std::istringstream loops(read(borders));
    std::getline(loops, line);
    wrongBorders << line << '\n';
    while (std::getline(loops, line)) {
        double loop, u, v;
        ASSERT_EQ(std::sscanf(line.c_str(), "%lf,%lf,%lf", &loop, &u, &v), 3);
        wrongBorders << loop << ',' << shifted(u, v) << ',' << v << '\n';
    }
    std::ofstream(map) << wrongMap.str();
    std::ofstream(borders) << wrongBorders.str();
    const CliRan wrong = land();
    EXPECT_GT(wrong.json()["landing_max_mm"], 0.25);
    EXPECT_LT(wrong.json()["landing_max_mm"], 0.45);
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
