// recipe and paint on the command line.
#include "tests/cli/run_cli.h"

namespace nine::test {
namespace {

std::string plainJobQuoted() {
    return quoted(plainJobPath());
}

TEST(CliRecipe, ShowsEachStepWithWhatItMakesOfWhat) {
    const nlohmann::json json = cli("recipe show " + plainJobQuoted() + " --json").json();
    const auto& steps = json.at("steps");
    EXPECT_EQ(steps.size(), 12u);
    EXPECT_EQ(steps[0].at("id"), "side");
    EXPECT_NEAR(steps[0].at("covers").get<double>(), 1, 1e-6);
    EXPECT_LT(steps[1].at("covers").get<double>(), .6);
    for (const auto& step : steps) EXPECT_EQ(step.contains("paint"), step.contains("colour")) << step.dump();
    EXPECT_EQ(steps[3].at("act"), "mask_on");
}

TEST(CliRecipe, ChecksMendsAndBeginsAnew) {
    const TemporaryFolder folder;
    const CliRan ran = cli("recipe check " + plainJobQuoted() + " --json");
    const nlohmann::json json = ran.json();
    const auto said = [](const nlohmann::json& j, const std::string& rule) {
        for (const auto& f : j.at("findings"))
            if (f.at("rule") == rule) return true;
        return false;
    };
    // The body has an eye, and nothing covers its sockets.
    EXPECT_TRUE(said(json, "sockets_bare"));
    const std::string out = quoted(folder / "mended.nineleaves.json");
    const CliRan mended = cli("recipe check " + plainJobQuoted() + " --mend --out " + out + " --json");
    EXPECT_EQ(mended.exitCode, 0) << mended.err;
    EXPECT_TRUE(cli("recipe check " + out + " --json").json().at("findings").empty());
    EXPECT_EQ(cli("recipe check " + plainJobQuoted() + " --mend").exitCode, 2);

    const std::string begun = quoted(folder / "begun.nineleaves.json");
    const CliRan begin =
        cli("recipe begin " + plainJobQuoted() + " --school back --out " + begun + " --json");
    EXPECT_EQ(begin.exitCode, 0) << begin.err;
    EXPECT_TRUE(begin.json().at("findings").empty());
    EXPECT_GT(begin.json().at("paints").size(), 3u);
    EXPECT_EQ(cli("recipe check " + begun).exitCode, 0);
    EXPECT_EQ(cli("recipe begin " + plainJobQuoted() + " --school none --out " + begun).exitCode, 1);
    EXPECT_EQ(cli("recipe begin " + plainJobQuoted() + " --school light").exitCode, 2);

    const nlohmann::json one = cli("recipe amounts " + begun + " --lures 1 --json").json(),
                         ten = cli("recipe amounts " + begun + " --lures 10 --json").json();
    ASSERT_EQ(one.at("steps").size(), ten.at("steps").size());
    for (std::size_t i = 0; i < one.at("steps").size(); ++i)
        EXPECT_GT(ten.at("steps")[i].at("paint_ml").get<double>(),
                  one.at("steps")[i].at("paint_ml").get<double>());
    for (const char* wrong : {"0", "501", "many", "2.5"})
        EXPECT_NE(cli("recipe amounts " + begun + " --lures " + wrong).exitCode, 0) << wrong;

    const std::string png = folder / "after.png";
    EXPECT_EQ(cli("recipe render " + begun + " --png " + quoted(png) + " --per_mm 4").exitCode, 0);
    const std::string whole = read(png);
    EXPECT_EQ(whole.substr(1, 3), "PNG");
    EXPECT_EQ(cli("recipe render " + begun + " --step prepare --png " + quoted(png) + " --per_mm 4").exitCode,
              0);
    EXPECT_NE(read(png), whole);
    const CliRan lost = cli("recipe render " + begun + " --step nosuch --png " + quoted(png) + " --json");
    EXPECT_EQ(lost.exitCode, 1);
    EXPECT_EQ(lost.json().at("error").at("code"), "unknown_step");
}

TEST(CliPaint, ListsMixesAndSeeksTheNearest) {
    const TemporaryFolder folder;
    EXPECT_GE(cli("paint list --json").json().at("paints").size(), 28u);
    const nlohmann::json mix = cli("paint mix yellow-glaze:1,blue-glaze:1 --reducer 1 --json").json();
    const std::string green = mix.at("colour");
    EXPECT_GT(std::stoi(green.substr(3, 2), nullptr, 16), std::stoi(green.substr(1, 2), nullptr, 16) + 30);
    EXPECT_NEAR(mix.at("reducer_share").get<double>(), 1 / 3.0, 1e-9);
    const nlohmann::json nearest = cli("paint nearest '#8D8748' --json").json();
    const auto& offered = nearest.at("mixes")[nearest.at("offered").get<std::size_t>()];
    EXPECT_LT(offered.at("difference").get<double>(), 3);
    EXPECT_LE(offered.at("parts").size(), 3u);
    for (const char* wrong :
         {"paint nearest red", "paint nearest '#12345'", "paint mix nosuch:1", "paint mix red:0",
          "paint mix red:x", "paint nearest '#102030' --coats 0", "paint nearest '#102030' --over sky"})
        EXPECT_EQ(cli(wrong).exitCode, 1) << wrong;
    write(folder / "shelf.json", R"({"paints": [{"name": "Only red", "family": "opaque",
 "swatches": [{"coats": 2, "over": "white", "seen": "#C03020"}, {"coats": 2, "over": "black", "seen": "#B03020"}]}]})");
    const nlohmann::json own =
        cli("paint nearest '#C03020' --shelf " + quoted(folder / "shelf.json") + " --json").json();
    EXPECT_EQ(own.at("mixes")[0].at("parts")[0].at("of"), "Only red");
    write(folder / "cut.json", "{\"paints\": [{\"name\": \"Only");
    const CliRan cut = cli("paint list --shelf " + quoted(folder / "cut.json") + " --json");
    EXPECT_EQ(cut.exitCode, 1);
    EXPECT_EQ(cut.json().at("error").at("code"), "bad_json");
}

}  // namespace
}  // namespace nine::test
