// scales on the command line: a net and a cut lattice on a body, the catalogue, choosing, lines for foil.
#include "tests/cli/run_cli.h"

namespace nine::test {
namespace {

std::string body(const std::string& name) {
    return quoted(example(name + ".csv"));
}
/// A cylinder as a station table.
std::string cylinderIn(const TemporaryFolder& folder) {
    const std::string path = folder / "cylinder.csv";
    write(path, "x_mm,top_mm,bottom_mm,half_width_mm\n0,11,11,11\n30,11,11,11\n60,11,11,11\n90,11,11,11\n");
    return quoted(path);
}

TEST(CliScales, ANetHasAllItsKeysAndThePrototypesFigures) {
    const CliRan ran = cli("scales " + body("sedge60") + " --net 'Tulle 1.6' --side L --json");
    EXPECT_TRUE(ran.exitCode == 0 || ran.exitCode == 3) << ran.err;
    const nlohmann::json json = ran.json();
    EXPECT_NEAR(json.at("piece_mm")[0].get<double>(), 79, 1);
    EXPECT_NEAR(json.at("piece_mm")[1].get<double>(), 105, 1);
    EXPECT_NEAR(json.at("aspect_min").get<double>(), 0.53, 0.03);
    EXPECT_NEAR(json.at("aspect_max").get<double>(), 1.38, 0.03);
    EXPECT_GT(json.at("opening_min").get<double>(), 0.75);
    EXPECT_LT(json.at("opening_max").get<double>(), 0.9);
    EXPECT_NEAR(json.at("gathered_mm").get<double>(), 14.8, 0.8);
    double before = -1;
    for (const auto& clip : json.at("clips")) {
        EXPECT_GT(clip.at("x_mm").get<double>(), before);
        before = clip.at("x_mm").get<double>();
    }
    EXPECT_GE(json.at("clips").size(), 5u);
    EXPECT_GE(json.at("steps").size(), 5u);
}

TEST(CliScales, OnACylinderNetAndLatticeAreCounted) {
    const TemporaryFolder folder;
    const std::string cylinder = cylinderIn(folder);
    const nlohmann::json net =
        cli("scales " + cylinder + " --net grid-2.0 --pull 1 --clips 10,45,80 --json").json();
    EXPECT_NEAR(net.at("cells_along_lateral").get<double>(), 90 * 0.976 / 2, 0.1);
    EXPECT_NEAR(net.at("opening_min").get<double>(), std::pow(1 - 0.22 / 2, 2), 1e-3);
    const nlohmann::json lattice = cli("scales " + cylinder + " --lattice 4x23 --json").json();
    EXPECT_NEAR(lattice.at("cells_along_lateral").get<double>(), 90 / 4.0, 1.6);
    EXPECT_NEAR(lattice.at("aspect_min").get<double>(), 1, 3e-3);
    EXPECT_NEAR(lattice.at("aspect_max").get<double>(), 1, 3e-3);
    EXPECT_TRUE(lattice.at("clips").empty());
}

TEST(CliScales, TheCatalogueAndItsOwnNets) {
    const TemporaryFolder folder;
    const std::string file = quoted(folder / "workshop.sqlite");
    const nlohmann::json ships = cli("scales list --json").json().at("nets");
    EXPECT_GE(ships.size(), 8u);
    for (const auto& net : ships) EXPECT_FALSE(net.at("name").get<std::string>().empty());
    write(
        folder / "net.json",
        R"({"name": "Curtain 5", "weave": "square", "along_mm": 5, "across_mm": 4, "strand_mm": 0.3, "hue": 7})");
    const CliRan put = cli("scales put " + quoted(folder / "net.json") + " --file " + file + " --json");
    ASSERT_EQ(put.exitCode, 0) << put.err;
    const std::string id = put.json().at("id");
    EXPECT_EQ(cli("scales list --file " + file + " --json").json().at("nets").size(), ships.size() + 1);
    EXPECT_EQ(cli("scales " + body("dock65") + " --net 'Curtain 5' --clips 20,40 --file " + file + " --json")
                  .json()
                  .at("net"),
              "Curtain 5");
    EXPECT_EQ(cli("scales put --remove " + quoted(id) + " --file " + file).exitCode, 0);
    EXPECT_EQ(cli("scales list --file " + file + " --json").json().at("nets").size(), ships.size());
    write(folder / "bad.json", R"({"name": "Bad", "strand_mm": -1})");
    const CliRan bad = cli("scales put " + quoted(folder / "bad.json") + " --file " + file + " --json");
    EXPECT_EQ(bad.exitCode, 1);
    EXPECT_NE(bad.err.find("bad.json:1"), std::string::npos) << bad.err;
    EXPECT_NE(bad.err.find("strand_mm"), std::string::npos) << bad.err;
}

TEST(CliScales, ChoosingSaysWhenEveryNetIsTooCoarse) {
    const nlohmann::json char_ =
        cli("scales choose " + body("sedge60") + " --fish_mm 180 --fish_count 215 --json").json();
    EXPECT_NEAR(char_.at("wanted_mm").get<double>(), 60.0 / 215, 1e-6);
    EXPECT_TRUE(char_.at("too_coarse").get<bool>());
    const nlohmann::json eye = cli("scales choose " + body("sedge60") + " --eye_mm 2 --json").json();
    EXPECT_FALSE(eye.at("too_coarse").get<bool>());
    EXPECT_TRUE(eye.at("nets")[0].at("good").get<bool>());
}

TEST(CliScales, LinesForFoilAndTheirStrip) {
    const TemporaryFolder folder;
    const std::string strip = folder / "strip.svg";
    const CliRan ran = cli("scales lines " + cylinderIn(folder) + " --width 4 --short 0 --tail 0 --out " +
                           quoted(strip) + " --json");
    ASSERT_EQ(ran.exitCode, 0) << ran.err;
    EXPECT_NEAR(ran.json().at("height_mm").get<double>(), 4 * 2.356, 0.02);
    EXPECT_EQ(ran.json().at("stations").size(), ran.json().at("diamonds").get<std::size_t>() + 1);
    EXPECT_NE(read(strip).find("<svg"), std::string::npos);
}

TEST(CliScales, WrongInputIsNamedAndNothingIsWritten) {
    const TemporaryFolder folder;
    const std::string strip = folder / "strip.svg";
    const std::pair<const char*, const char*> wrong[] = {
        {"--net Nobody", "--net"},
        {"--net tulle-1.6 --pull 0", "--pull"},
        {"--net tulle-1.6 --clip -2", "--clip"},
        {"--net tulle-1.6 --clips 3,4", "scales.clips[1]"},
        {"--net tulle-1.6 --clips 900", "scales.clips[0]"},
        {"--net tulle-1.6 --gather side", "--gather"},
        {"--net tulle-1.6 --hook third_hanger", "scales.hook"},
        {"--net tulle-1.6 --side Q", "--side"},
        {"--lattice 4", "--lattice"},
        {"--lattice 4x95", "--lattice"},
        {"--lattice 0.2x23", "pitch_mm"}};
    for (const auto& [words, where] : wrong) {
        const CliRan ran =
            cli("scales " + body("sedge60") + " " + words + " --strip " + quoted(strip) + " --json");
        EXPECT_EQ(ran.exitCode, 1) << words;
        EXPECT_NE(ran.json().at("error").at("where").get<std::string>().find(where), std::string::npos)
            << words << ran.out;
        EXPECT_FALSE(std::filesystem::exists(strip)) << words;
    }
    EXPECT_EQ(cli("scales " + body("sedge60")).exitCode, 2);
}

}  // namespace
}  // namespace nine::test
