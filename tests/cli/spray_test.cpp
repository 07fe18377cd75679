// spray edge on the command line.
#include "base/files.h"
#include "tests/cli/run_cli.h"

namespace nine::test {
namespace {

const std::string kUsual =
    "spray edge --distance 70 --pressure 103.42 --needle 0.20 --reduction 4:1 --flow_ml_min 0.4 ";

double widthOf(const std::string& more) {
    return cli(kUsual + more + " --json").json().at("edge_width_mm").get<double>();
}

TEST(SprayEdge, FiguresWorkedOutBeforehand) {
    EXPECT_NEAR(widthOf("--gap 1"), 0.390, 0.0005);
    EXPECT_NEAR(widthOf("--gap 1 --stroke across"), 0.891, 0.0005);
    EXPECT_NEAR(widthOf("--gap 3"), 1.166, 0.0005);
    EXPECT_NEAR(widthOf("--gap 3 --stroke across"), 2.671, 0.001);
    EXPECT_NEAR(widthOf("--gap 0"), 0.036, 0.0005);
}

TEST(SprayEdge, SaysWhereTheFiguresComeFromAndTheCaution) {
    const CliRan ran = cli(kUsual + "--gap 1");
    EXPECT_EQ(ran.exitCode, 0);
    EXPECT_NE(ran.out.find("model"), std::string::npos);
    EXPECT_NE(ran.out.find("extraction"), std::string::npos);
    EXPECT_EQ(ran.out.find("safe"), std::string::npos);
}

TEST(SprayEdge, WrongInputIsNamedAndNothingComputed) {
    const std::pair<const char*, const char*> wrong[] = {{"--gap 1 --pressure 0", "--pressure"},
                                                         {"--gap 1 --pressure 1379", "--pressure"},
                                                         {"--gap 1 --distance 3", "--distance"},
                                                         {"--gap 1 --angle 89", "--angle"},
                                                         {"--gap -1", "--gap"},
                                                         {"--gap 1 --paint mud", "--paint"},
                                                         {"--gap 1 --reduction 0:4", "--reduction"},
                                                         {"--gap 1 --needle nan", "--needle"},
                                                         {"--gap 1 --speed_mm_s 0", "--speed_mm_s"},
                                                         {"--gap 1 --stroke round", "--stroke"},
                                                         {"--gap 1 --thickness -1", "--thickness"},
                                                         {"--gap 1 --film 1e9", "--film"},
                                                         {"--gap 1 --flow_ml_min 1e3", "--flow_ml_min"}};
    for (const auto& [words, where] : wrong) {
        std::string usual = kUsual;
        const std::string flag = std::string(words).substr(std::string(words).rfind("--"));
        const std::string name = flag.substr(0, flag.find(' ') + 1);
        if (const auto at = usual.find(name); at != std::string::npos)  // given once
            usual.erase(at, usual.find(' ', usual.find(' ', at) + 1) + 1 - at);
        const CliRan ran = cli(usual + words + " --json");
        EXPECT_EQ(ran.exitCode, 1) << words;
        EXPECT_EQ(ran.json().at("error").at("where").get<std::string>(), where) << words;
        EXPECT_GT(ran.json().at("error").at("text").get<std::string>().size(), 20u) << words;
    }
    EXPECT_EQ(cli("spray edge --gap 1").exitCode, 2);
}

TEST(SprayPlanCli, EveryMaskOfTheDemoGetsSettingsAndReasons) {
    const std::string job = quoted(plainJobPath());
    const CliRan ran = cli("spray plan " + job + " --json");
    ASSERT_EQ(ran.exitCode, 0) << ran.err;
    const auto layers = ran.json().at("layers");
    ASSERT_EQ(layers.size(), 6u);
    for (const auto& layer : layers) {
        const double psi = layer.at("pressure_kpa").get<double>() / 6.894757;
        EXPECT_TRUE(psi >= 13 && psi <= 20) << psi;
        // Common practice: opaque through a stencil 1 to 2, transparent over silver about 6.
        const bool clear = layer.at("paint") == "transparent";
        EXPECT_TRUE(layer.at("coats") >= (clear ? 5 : 1) && layer.at("coats") <= (clear ? 8 : 2)) << layer;
        EXPECT_NEAR(layer.at("film_um").get<double>(),
                    layer.at("passes").get<double>() * layer.at("pass_film_um").get<double>(), 1e-9);
        EXPECT_LE(layer.at("edge_width_mm").get<double>(), 0.2);
        EXPECT_GE(layer.at("reasons").size(), 2u);
        EXPECT_EQ(layer.at("reduction").size(), 2u);
    }
    // A wider needle than practice wants for an edge is used when it is the only one.
    EXPECT_EQ(cli("spray plan " + job + " --needles 0.5 --json").json()["layers"][0]["needle_mm"], 0.5);
    EXPECT_EQ(cli("spray plan " + job + " --width 0.01 --json").exitCode, 3);
    for (const auto& [words, where] : {std::pair{"--paint mud", "--paint"},
                                       {"--needles 7", "--needles"},
                                       {"--width 0", "--width"},
                                       {"--needles a", "--needles"}})
        EXPECT_EQ(cli("spray plan " + job + " " + words + " --json").json()["error"]["where"], where)
            << words;
}

/// The job's own wishes, and the shop's own bench.
TEST(SprayPlanCli, PinsOfTheJobAndABenchFileAreKept) {
    const TemporaryFolder folder;
    auto job = nlohmann::json::parse(need(readFile(plainJobPath())));
    const auto planOf = [&](const nlohmann::json& spray, const std::string& more = "") {
        job["spray"]["masks"] = spray;
        (void)writeFileAtomically(folder.path() + "/job.nineleaves.json", job.dump(1));
        return cli("spray plan " + quoted(folder.path() + "/job.nineleaves.json") + " --json" + more);
    };
    const auto plain =
        planOf({{{"mask", "parr-bars-L"}, {"pins", {{"distance_mm", 75}, {"pressure_kpa", 110}}}}});
    ASSERT_EQ(plain.exitCode, 0) << plain.err;
    EXPECT_EQ(plain.json()["layers"][0]["distance_mm"], 75);
    EXPECT_EQ(plain.json()["layers"][0]["pressure_kpa"], 110);
    EXPECT_EQ(plain.json()["layers"][1]["distance_mm"], 90);
    EXPECT_EQ(plain.json()["layers"][0]["worst_place"]["element"], "parr-bars");

    const auto clash = planOf({{{"mask", "red-dots-L"}, {"pins", {{"needle_mm", 0.2}, {"flow_ml_min", 3}}}}});
    EXPECT_EQ(clash.exitCode, 1);
    EXPECT_EQ(clash.json()["error"]["code"], "pins_contradict");
    EXPECT_NE(clash.json()["error"]["where"].get<std::string>().find("spray.masks[0].pins.needle_mm"),
              std::string::npos)
        << clash.json()["error"]["where"];

    (void)writeFileAtomically(folder.path() + "/bench.json",
                              R"({"format": 1, "guns": [{"name": "large", "needle_mm": 0.5}]})");
    const auto own = planOf(nlohmann::json::array(), " --bench " + quoted(folder.path() + "/bench.json"));
    EXPECT_EQ(own.json()["layers"][0]["needle_mm"], 0.5);
    (void)writeFileAtomically(folder.path() + "/bench.json", R"({"format": 1, "guns": [{"name": "large"}]})");
    EXPECT_EQ(planOf(nlohmann::json::array(), " --bench " + quoted(folder.path() + "/bench.json")).exitCode,
              1);
}

}  // namespace
}  // namespace nine::test
