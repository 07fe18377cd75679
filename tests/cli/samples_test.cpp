// The main job on every invented blank: readings and a pattern in, registered masks for both sides out.
#include "tests/cli/run_cli.h"

namespace nine::test {
namespace {

using Json = nlohmann::ordered_json;

/// A job made from the readings as a script would make it, not by the program's own writer.
Json jobOf(const std::string& sample) {
    Json job{{"format", 1}, {"blank", {{"name", sample}, {"stations", Json::array()}}}};
    std::istringstream table(read(example(sample + ".csv")));
    for (std::string line; std::getline(table, line);) {
        if (line.empty() || line[0] == '#' || line[0] == 'x') continue;
        std::istringstream cells(line);
        std::array<double, 5> v{};
        char comma;
        for (double& cell : v) cells >> cell >> comma;
        job["blank"]["stations"].push_back({{"x_mm", v[0]},
                                            {"top_mm", v[1]},
                                            {"bottom_mm", v[2]},
                                            {"half_width_mm", v[3]},
                                            {"section", v[4]}});
    }
    const double length = job["blank"]["stations"].back()["x_mm"];
    job["blank"]["landmarks"] = {{"eye", {{"x_mm", 0.15 * length}, {"g_mm", 2}, {"diameter_mm", 5}}},
                                 {"tail_root", {{"x_mm", 0.93 * length}, {"g_mm", 0}}}};
    job["pattern"]["elements"] = {{{"id", "dots"},
                                   {"kind", "dot_row"},
                                   {"anchor", "eye"},
                                   {"dx_mm", 0.2 * length},
                                   {"dg_mm", -1},
                                   {"count", 6},
                                   {"spacing_mm", 3.5},
                                   {"first_mm", 2},
                                   {"last_mm", 1.2}},
                                  {{"id", "bars"},
                                   {"kind", "bars"},
                                   {"dx_mm", 0.4 * length},
                                   {"dg_mm", 0},
                                   {"count", 3},
                                   {"spacing_mm", 5},
                                   {"width_back_mm", 2},
                                   {"width_belly_mm", 1},
                                   {"g0_mm", -3},
                                   {"g1_mm", 5}}};
    return job;
}

class EveryBlank : public ::testing::TestWithParam<const char*> {};

TEST_P(EveryBlank, FromReadingsToRegisteredMasks) {
    const TemporaryFolder folder;
    Json job = jobOf(GetParam());
    const std::string path = folder / "job.nineleaves.json";
    for (const char* material : {"film", "vinyl"}) {
        job["masks"] = Json::array();
        for (const char* id : {"dots", "bars"}) {
            for (const char* side : {"L", "R"}) {
                job["masks"].push_back({{"id", std::string(id) + side},
                                        {"elements", {id}},
                                        {"side", side},
                                        {"material", material}});
            }
        }
        write(path, job.dump());
        const CliRan fit = cli("fit " + quoted(path) + " --vertices 700 --json");
        ASSERT_TRUE(fit.exitCode == 0 || fit.exitCode == 3) << fit.err;
        bool allFlat = true;
        const auto masks = fit.json()["masks"];
        ASSERT_EQ(masks.size(), 4u);
        for (const auto& mask : masks) {
            allFlat = allFlat && mask["lies_flat"];
            EXPECT_EQ(mask["lies_flat"], mask["strain_feasible_max"] <= mask["strain_limit"]);
            ASSERT_LE(mask["strain_max"], 0.05);
            EXPECT_LE(mask["landing_rms_mm"], 0.02) << mask["id"];
            EXPECT_LE(mask["landing_max_mm"], 0.05) << mask["id"];
            EXPECT_EQ(mask["marks"].size(), 2u);
            for (const auto& mark : mask["marks"]) EXPECT_FALSE(mark["landmark"].get<std::string>().empty());
        }
        EXPECT_EQ(fit.exitCode, allFlat ? 0 : 3);
        if (std::string(material) == "vinyl") {
            EXPECT_TRUE(allFlat);
        }

        const CliRan cut = cli("cut " + quoted(path) + " --out " + quoted(folder / material) + " --json");
        ASSERT_EQ(cut.exitCode, fit.exitCode);
        const auto pages = cut.json();
        EXPECT_EQ(pages["overlaps"], 0);
        ASSERT_EQ(pages["parts"].size(), 4u);
        // Twins are mirror images: the same sizes, the same areas of openings.
        for (std::size_t i = 0; i < 4; i += 2) {
            EXPECT_NEAR(pages["parts"][i]["width_mm"], pages["parts"][i + 1]["width_mm"].get<double>(), 1e-9);
            EXPECT_NE(pages["parts"][i]["side"], pages["parts"][i + 1]["side"]);
            for (std::size_t k = 0; k < pages["parts"][i]["openings"].size(); ++k) {
                EXPECT_NEAR(pages["parts"][i]["openings"][k]["area_mm2"],
                            pages["parts"][i + 1]["openings"][k]["area_mm2"].get<double>(), 1e-9);
            }
        }
        EXPECT_GT(std::filesystem::file_size(folder / (std::string(material) + "/sheets.pdf")), 5000u);
    }
}

TEST_P(EveryBlank, MeasuresAreThoseOfAClosedBody) {
    const auto json =
        cli("blank measure " + quoted(example(std::string(GetParam()) + ".csv")) + " --json").json();
    EXPECT_NEAR(json["curvature_total_rad"], 4 * M_PI, 1e-6);
    // The isoperimetric inequality: no body has less skin than the ball of its volume.
    const double volume = json["volume_mm3"], area = json["area_mm2"];
    EXPECT_GT(area, std::cbrt(36 * M_PI * volume * volume));
    EXPECT_LT(volume, json["length_mm"].get<double>() * json["width_mm"].get<double>() *
                          json["height_mm"].get<double>());
    for (const auto& girth : json["girths"]) {
        EXPECT_LE(girth["girth_mm"], 2 * (json["width_mm"].get<double>() + json["height_mm"].get<double>()));
    }
}

INSTANTIATE_TEST_SUITE_P(Samples, EveryBlank,
                         ::testing::Values("sedge60", "willow104", "dock65", "reed118", "sorrel70"),
                         [](const auto& sample) { return std::string(sample.param); });

TEST(CliFit, ApplicationIsAnInputAndChangesTheLanding) {
    const std::string patch = "fit " + quoted(example("sedge60.csv")) +
                              " --patch L,20,40,-6,6 --material vinyl --vertices 500 --json --apply ";
    const double loose = cli(patch + "loose").json()["landing_max_mm"];
    for (const char* way : {"lateral", "back"}) {
        const auto json = cli(patch + way).json();
        EXPECT_GT(json["landing_max_mm"], loose) << way;  // what has stuck cannot give way any more
        EXPECT_LT(json["landing_max_mm"], 1.0) << way;
    }
    EXPECT_EQ(cli(patch + "glued").exitCode, 1);
}

TEST(CliFit, JobsWithoutMasksGetOnePerElementAndSide) {
    const TemporaryFolder folder;
    write(folder / "j.nineleaves.json", jobOf("reed118").dump());
    const auto masks =
        cli("fit " + quoted(folder / "j.nineleaves.json") + " --vertices 300 --json").json()["masks"];
    ASSERT_EQ(masks.size(), 4u);
    EXPECT_EQ(masks[0]["id"], "dots-L");
    EXPECT_EQ(masks[3]["side"], "R");
    EXPECT_EQ(masks[0]["material"], "film");
}

TEST(CliFit, WrongJobsAreRefusedWithLineAndField) {
    const TemporaryFolder folder;
    const std::string path = folder / "j.nineleaves.json";
    const auto errorOf = [&](const Json& job) {
        write(path, job.dump(1));
        const CliRan ran = cli("fit " + quoted(path) + " --json");
        EXPECT_EQ(ran.exitCode, 1);
        return ran.json()["error"];
    };
    Json job = jobOf("sedge60");
    job["pattern"]["elements"][0]["anchor"] = "fin";
    EXPECT_EQ(errorOf(job)["code"], "unknown_landmark");
    const std::string place = errorOf(job)["where"];
    EXPECT_EQ(place.rfind(path + ":", 0), 0u) << place;  // the line, then the field
    EXPECT_NE(place.find(" pattern.elements[0].anchor"), std::string::npos) << place;
    job = jobOf("sedge60");
    job["pattern"]["elements"][1]["dx_mm"] = 57;
    EXPECT_EQ(errorOf(job)["code"], "off_body");
    job = jobOf("sedge60");
    job["blank"]["stations"][2].erase("top_mm");
    EXPECT_EQ(errorOf(job)["code"], "missing");
    EXPECT_NE(errorOf(job)["where"].get<std::string>().find("blank.stations[2].top_mm"), std::string::npos);
    job = jobOf("sedge60");
    job["blank"]["landmarks"]["eye"]["g_mm"] = 500;
    EXPECT_EQ(errorOf(job)["code"], "off_body");
}

}  // namespace
}  // namespace nine::test
