#include <cmath>

#include "tests/cli/run_cli.h"
#include "tests/here.h"

namespace nine::test {
namespace {

TEST(CliMeasure, SaysWhatACaliperWouldSay) {
    const auto json = cli("blank measure " + quoted(example("sedge60.csv")) + " --at 9.6,30 --json").json();
    EXPECT_DOUBLE_EQ(json["length_mm"], 60);
    EXPECT_NEAR(json["height_mm"], 30.7, 0.05);  // 13.2 + 17.5 at the fourth station
    EXPECT_NEAR(json["curvature_total_rad"], 4 * M_PI, 1e-6);
    ASSERT_EQ(json["girths"].size(), 2u);
    EXPECT_GT(json["girths"][1]["girth_mm"], json["girths"][0]["girth_mm"]);
    EXPECT_TRUE(json["warnings"].empty());
}

TEST(CliMeasure, JobAndTableGiveTheSame) {
    const auto table = cli("blank measure " + quoted(example("sedge60.csv")) + " --json");
    const auto job = cli("blank measure " + quoted(plainJobPath()) + " --json");
    // The job's landmarks keep skin bare; all else is the same body.
    nlohmann::json of[] = {table.json(), job.json()};
    EXPECT_LT(of[1]["painted_mm2"], of[1]["area_mm2"]);
    for (nlohmann::json& j : of) {
        j.erase("painted_mm2");
        j.erase("zones");
    }
    EXPECT_EQ(of[0], of[1]);
}

TEST(CliMeasure, InchesAreDoubtedNotRefused) {
    const CliRan ran = cli("blank measure " + quoted(data("inches.csv")) + " --json");
    EXPECT_EQ(ran.exitCode, 0);
    EXPECT_EQ(ran.json()["warnings"][0]["code"], "units_suspicious");
}

TEST(CliMeasure, OffTheBodyIsWrongInput) {
    const CliRan ran = cli("blank measure " + quoted(example("sedge60.csv")) + " --at 61 --json");
    EXPECT_EQ(ran.exitCode, 1);
    EXPECT_EQ(ran.json()["error"]["code"], "off_body");
    EXPECT_NE(ran.err.find("61"), std::string::npos);
}

struct Bad {
    const char* name;
    std::string bytes;
    const char* code;
    const char* where;  ///< end of the place
};

TEST(CliMeasure, BadTablesGiveASentenceWithLineAndField) {
    const TemporaryFolder folder;
    const std::string head = "x_mm,top_mm,bottom_mm,half_width_mm,section\n";
    for (const Bad& bad :
         {Bad{"order", read(data("bad-order.csv")), "not_ascending", ":4 x_mm"},
          {"negative", read(data("bad-negative.csv")), "negative", ":3 half_width_mm"},
          {"text", read(data("bad-text.csv")), "bad_number", ":3 top_mm"},
          {"empty", "", "bad_header", ":1"},
          {"random", std::string("\x00\xff\x13\x37garbage\n\x01", 15), "bad_header", ":1"},
          {"nan", head + "0,0,0,0,2\n9,nan,4,3,2\n40,0,0,0,2\n", "bad_number", ":3 top_mm"},
          {"huge", head + "0,0,0,0,2\n9,1e308,4,3,2\n40,0,0,0,2\n", "out_of_range", ":3 top_mm"},
          {"columns", "x_mm,top_mm\n0,0\n", "missing_column", ":1"},
          {"short-row", head + "0,0,0,0,2\n9,4\n", "missing_column", ":3 bottom_mm"}}) {
        const std::string path = folder / (std::string(bad.name) + ".csv");
        write(path, bad.bytes);
        const CliRan ran = cli("blank measure " + quoted(path) + " --json");
        EXPECT_EQ(ran.exitCode, 1) << bad.name;
        const auto error = ran.json()["error"];
        EXPECT_EQ(error["code"], bad.code) << bad.name;
        EXPECT_EQ(error["where"], path + bad.where) << bad.name;
        EXPECT_NE(ran.err.find(error["text"].get<std::string>()), std::string::npos) << bad.name;
    }
}

TEST(CliMeasure, AHundredMegabytesAreRefusedAtOnce) {
    const TemporaryFolder folder;
    const std::string path = folder / "big.csv";
    write(path, "x_mm,top_mm\n");
    std::filesystem::resize_file(path, 100u << 20);
    const CliRan ran = cli("blank measure " + quoted(path) + " --json");
    EXPECT_EQ(ran.exitCode, 1);
    EXPECT_EQ(ran.json()["error"]["code"], "file_too_large");
}

TEST(CliMeasure, SemicolonsAndDecimalCommasMeanTheSame) {
    const TemporaryFolder folder;
    std::string text = read(example("sedge60.csv"));
    for (char& c : text) c = c == ',' ? ';' : c == '.' ? ',' : c;
    std::string crlf = "\xEF\xBB\xBF";
    for (const char c : text) crlf += c == '\n' ? "\r\n" : std::string(1, c);
    write(folder / "sedge60.csv", crlf);
    EXPECT_EQ(cli("blank measure " + quoted(folder / "sedge60.csv") + " --json").out,
              cli("blank measure " + quoted(example("sedge60.csv")) + " --json").out);
}

TEST(CliDistance, IsSymmetricAndRefusesBadPoints) {
    const std::string body = quoted(example("willow104.csv"));
    const auto there = cli("blank distance " + body + " --from L,20,3 --to R,80,-2 --json").json();
    const auto back = cli("blank distance " + body + " --from R,80,-2 --to L,20,3 --json").json();
    EXPECT_NEAR(there["distance_mm"], back["distance_mm"].get<double>(), 1e-5);
    EXPECT_GT(there["distance_mm"], 60);
    EXPECT_EQ(cli("blank distance " + body + " --from L,20 --to R,80,-2 --json").exitCode, 1);
    EXPECT_EQ(cli("blank distance " + body + " --from L,20,x --to R,80,-2 --json").exitCode, 1);
    EXPECT_EQ(cli("blank distance " + body + " --from L,20,3 --to R,800,-2 --json").json()["error"]["code"],
              "off_body");
}

TEST(CliUsage, IsTwoAndSaysHow) {
    EXPECT_EQ(cli("").exitCode, 2);
    EXPECT_EQ(cli("paint").exitCode, 2);
    EXPECT_EQ(cli("blank measure").exitCode, 2);
    EXPECT_EQ(cli("blank measure x --colour red").exitCode, 2);
    EXPECT_EQ(cli("blank distance " + quoted(example("willow104.csv"))).exitCode, 2);
    EXPECT_EQ(cli("--help").exitCode, 0);
    EXPECT_NE(cli("--help").out.find("blank measure"), std::string::npos);
    EXPECT_EQ(cli("cut x.json --json").json()["error"]["code"], "usage");
}

/// docs/ holds what the program says of itself; scripts/docs puts it there.
TEST(CliUsage, TheDocumentsHoldItsTables) {
    for (const auto& [file, words] : {std::pair{"CLI.md", "help --markdown"},
                                      {"FORMAT.md", "pattern kinds --markdown"},
                                      {"FORMAT.md", "mask kinds --markdown"}}) {
        const CliRan table = cli(words);
        EXPECT_EQ(table.exitCode, 0);
        EXPECT_GT(table.out.size(), 150u);
        EXPECT_NE(read(nine::sourceDir() + "/docs/" + file).find(table.out), std::string::npos) << file;
    }
    // Every verb of the help is one that runs: asked without words it says how it is used, or does its work.
    const std::string help = cli("--help").out;
    for (std::size_t at = help.find("\n  "); at != help.npos; at = help.find("\n  ", at + 1)) {
        if (help[at + 3] == ' ') continue;
        std::istringstream words(help.substr(at + 3, 60));
        std::string first, second;
        words >> first >> second;
        const bool two = second.find_first_not_of("abcdefghijklmnopqrstuvwxyz") == second.npos;
        EXPECT_EQ(cli(first + (two ? " " + second : "") + " --no_such_flag").exitCode, 2)
            << first << " " << second;
    }
}

TEST(CliMask, KindsTellTheirLimits) {
    const auto kinds = cli("mask kinds --json").json()["kinds"];
    ASSERT_GE(kinds.size(), 1u);
    EXPECT_EQ(kinds[0]["id"], "fitted");
    EXPECT_EQ(kinds[0]["params"][0]["key"], "margin_mm");
    EXPECT_EQ(kinds[0]["params"][0]["low"], 1);
    EXPECT_EQ(kinds[0]["params"][0]["usual"], 6);
}

TEST(CliPattern, KindsTellTheirLimits) {
    const auto kinds = cli("pattern kinds --json").json()["kinds"];
    ASSERT_GE(kinds.size(), 3u);
    EXPECT_EQ(kinds[0]["id"], "dot_row");
    EXPECT_EQ(kinds[0]["params"][1]["key"], "spacing_mm");
    EXPECT_EQ(kinds[0]["params"][1]["high"], 200);
    EXPECT_EQ(kinds[0]["params"][3]["usual_from"], "first_mm");
    EXPECT_EQ(kinds[0]["params"][4]["on_another_size"], "with the girth");
}

}  // namespace
}  // namespace nine::test
