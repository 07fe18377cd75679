// bench and log on the command line.
#include <set>

#include "tests/cli/run_cli.h"

namespace nine::test {
namespace {

std::string theChar() {
    return quoted(example("sedge60-brook-char.nineleaves.json"));
}

TEST(CliBench, PlansTheDemoForAFewLures) {
    const nlohmann::json one =
        cli("bench plan " + theChar() + " --lures 4 --start 2026-11-30T08:30:00Z --tries 50 --json").json();
    EXPECT_EQ(one.at("start"), "2026-11-30T08:30:00Z");
    EXPECT_EQ(one.at("trays").size(), 1u);
    EXPECT_EQ(one.at("trays")[0].at("lures"), 4);
    EXPECT_GE(one.at("ready_s").get<int>(), one.at("bound_s").get<int>());
    EXPECT_LT(one.at("cleanings").get<int>(), one.at("cleanings_lure_by_lure").get<int>());
    // Tasks of the tray follow one another.
    int ready_s = 0;
    for (const auto& task : one.at("tasks")) {
        EXPECT_GE(task.at("start_s").get<int>(), ready_s) << task.dump();
        ready_s = task.at("rested_s").get<int>();
    }
    EXPECT_EQ(ready_s, one.at("ready_s").get<int>());
    double ml = 0;
    for (const auto& cup : one.at("cups")) ml += cup.at("ml").get<double>();
    EXPECT_GT(ml, 1);
    const nlohmann::json ten =
        cli("bench plan " + theChar() + " --lures 10 --tray 5 --painters 2 --tries 20 --json").json();
    EXPECT_EQ(ten.at("trays").size(), 2u);
    std::set<int> painters;
    for (const auto& task : ten.at("tasks")) painters.insert(task.at("painter").get<int>());
    EXPECT_EQ(painters, (std::set<int>{1, 2}));
    // One gun with two needles is changed now and then, two guns never.
    const std::string few = "bench plan " + theChar() + " --lures 2 --tries 5 --json --guns ";
    const nlohmann::json single = cli(few + "0.35+0.2").json(), pair = cli(few + "0.35,0.2").json();
    EXPECT_GT(single.at("needle_changes").get<int>(), 0);
    EXPECT_EQ(pair.at("needle_changes").get<int>(), 0);
    EXPECT_GE(single.at("cleanings").get<int>(), single.at("needle_changes").get<int>() - 1);
    for (const auto& task : single.at("tasks")) {
        if (task.contains("gun")) {
            EXPECT_EQ(task.at("gun"), "Gun 1");
        }
    }
    // Two jobs on one bench.
    const nlohmann::json both =
        cli("bench plan " + theChar() + " --lures 2 --with " + theChar() + " --tries 5 --json").json();
    EXPECT_EQ(both.at("trays").size(), 4u);  // two lures of the one, three trays of the other
}

TEST(CliBench, StepsComeWithTheirGates) {
    const nlohmann::json json = cli("bench steps " + theChar() + " --json").json();
    std::set<std::string> gates;
    bool sprayed = false;
    for (const auto& step : json.at("steps")) {
        for (const auto& gate : step.at("gates")) {
            if (gate.at("gate") == "bill") {
                EXPECT_FALSE(sprayed) << "the bill is asked for before the first paint";
            }
            gates.insert(gate.at("gate"));
            EXPECT_FALSE(gate.at("text").get<std::string>().empty());
        }
        sprayed = sprayed || step.contains("set");
    }
    for (const char* id : {"bill", "sockets", "hook_eyes", "air", "heat", "dry", "way_up", "sides",
                           "openings", "pressure", "needle", "clipped", "data_sheet", "hook_eyes_free"})
        EXPECT_TRUE(gates.count(id)) << id;
    EXPECT_EQ(json.at("steps").back().at("steps")[0], "cure");
}

TEST(CliBench, WrongWishesAreSentences) {
    const auto codeOf = [](const std::string& words) {
        const CliRan ran = cli(words + " --json");
        EXPECT_NE(ran.exitCode, 0) << words;
        return ran.json().at("error").at("code").get<std::string>();
    };
    const std::string plan = "bench plan " + theChar();
    EXPECT_EQ(codeOf(plan + " --lures 0"), "out_of_range");
    EXPECT_EQ(codeOf(plan + " --lures 501"), "out_of_range");
    EXPECT_EQ(codeOf(plan + " --lures 2.5"), "out_of_range");
    EXPECT_EQ(codeOf(plan + " --start yesterday"), "bad_value");
    EXPECT_EQ(codeOf(plan + " --rack 2"), "too_few_places");
    EXPECT_NE(cli(plan + " --guns abc").exitCode, 0);
    EXPECT_EQ(codeOf("bench plan " + quoted(plainJobPath())), "no_steps");
    EXPECT_EQ(codeOf("bench steps /no/such/file"),
              cli("recipe show /no/such/file --json").json().at("error").at("code").get<std::string>());
    const TemporaryFolder folder;
    write(folder / "bench.json", R"({"format": 1, "guns": []})");
    EXPECT_EQ(codeOf(plan + " --bench " + quoted(folder / "bench.json")), "no_gun");
    write(folder / "bench.json",
          R"({"format": 1, "guns": [{"name": "one", "needle_mm": 0.3}], "shop": {"tray": 0}})");
    EXPECT_EQ(codeOf(plan + " --bench " + quoted(folder / "bench.json")), "out_of_range");
}

std::string cardFile(const std::string& title, const std::string& text) {
    return R"({"format": 1, "cards": [{"format": 1, "id": "2026-11-30-)" + title + R"(", "title": ")" +
           title + R"(", "blank": "Sedge 60",
        "began": "2026-11-30T08:30:00Z", "ended": "2026-11-30T14:22:00Z", "lures": 24, "text": ")" +
           text + R"(",
        "steps": [{"act": "colour", "name": "Olive", "paint": [{"id": "yellow", "name": "Golden yellow", "drops": 5}], "reducer": 3, "coats": 2, "colour": "#808030"}],
        "tools": [{"kind": "net", "id": "mesh", "name": "Craft mesh 2.0", "made": "metal", "uses": 6}], "later_key": {"kept": [1, 2]}}]})";
}

TEST(CliLog, CardsGoInAreFoundShownAndGoOut) {
    const TemporaryFolder folder;
    const std::string file = " --file " + quoted(folder / "w.sqlite");
    write(folder / "in.json", cardFile("char", "Halo reads well"));
    const CliRan in = cli("log import " + quoted(folder / "in.json") + file + " --json");
    EXPECT_EQ(in.exitCode, 0) << in.err;
    EXPECT_EQ(in.json().at("added").size(), 1u);
    EXPECT_EQ(cli("log import " + quoted(folder / "in.json") + file + " --json").json().at("passed_over"), 1);
    write(folder / "more.json", cardFile("smelt", "silver"));
    EXPECT_EQ(cli("log import " + quoted(folder / "more.json") + file).exitCode, 0);
    const auto found = [&](const std::string& words) {
        std::set<std::string> titles;
        const nlohmann::json list = cli("log list" + file + " --search " + quoted(words) + " --json").json();
        for (const auto& card : list.at("cards")) titles.insert(card.at("title"));
        return titles;
    };
    EXPECT_EQ(found("HALO"), (std::set<std::string>{"char"}));
    EXPECT_EQ(found("golden sedge"), (std::set<std::string>{"char", "smelt"}));
    EXPECT_TRUE(found("neon").empty());
    const nlohmann::json list = cli("log list" + file + " --json").json();
    EXPECT_EQ(list.at("wear")[0].at("uses"), 12);
    EXPECT_EQ(list.at("wear")[0].at("left"), 0);
    const nlohmann::json shown = cli("log show 2026-11-30-char" + file + " --json").json();
    EXPECT_EQ(shown.at("later_key").at("kept")[1], 2) << "kept as it stood";
    EXPECT_EQ(
        cli("log export" + file + " --out " + quoted(folder / "out.json") + " --json").json().at("cards"), 2);
    EXPECT_EQ(cli("log import " + quoted(folder / "out.json") + " --file " + quoted(folder / "other.sqlite") +
                  " --json")
                  .json()
                  .at("added")
                  .size(),
              2u);
    EXPECT_EQ(cli("log show nothing" + file + " --json").json().at("error").at("code"), "unknown_card");
    write(folder / "broken.json", "{\"format\": 1, \"cards\": [");
    EXPECT_EQ(cli("log import " + quoted(folder / "broken.json") + file).exitCode, 1);
    EXPECT_EQ(cli("log list --file " + quoted(folder / "no.sqlite")).exitCode, 1);
    EXPECT_EQ(cli("log list").exitCode, 2);
}

}  // namespace
}  // namespace nine::test
