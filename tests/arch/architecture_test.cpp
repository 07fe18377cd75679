// The house rules, checked on the sources; each check is shown to fail on a planted case.
#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <map>
#include <regex>
#include <set>
#include <sstream>

namespace {

namespace fs = std::filesystem;

/// Rooms and the rooms below that each may include (docs/ARCHITECTURE.md). A room may include what those
/// include.
const std::map<std::string, std::set<std::string>> kBelow{
    {"base", {}},           {"geom", {"base"}},    {"blank", {"geom"}},
    {"pattern", {"blank"}}, {"mask", {"pattern"}}, {"paint", {"base"}},
    {"spray", {"paint"}},   {"cut", {"geom"}},     {"job", {"mask", "cut", "spray", "image", "store"}},
    {"image", {"geom"}},    {"store", {"base"}},
};

std::set<std::string> reachable(const std::string& room) {
    std::set<std::string> all{room};
    for (const std::string& below : kBelow.at(room)) all.merge(reachable(below));
    return all;
}

std::string text(const fs::path& path) {
    std::ostringstream out;
    out << std::ifstream(path).rdbuf();
    return out.str();
}

/// Comments and string literals blanked, so that only code is searched. Includes keep their names.
std::string code(const std::string& source) {
    static const std::regex noise(R"(//[^\n]*|/\*[\s\S]*?\*/|R"~+\([\s\S]*?\)~+")");
    return std::regex_replace(source, noise, "");
}

using Faults = std::vector<std::string>;

Faults upwardIncludes(const std::string& room, const std::string& source) {
    static const std::regex include(R"(#\s*include\s*"([a-z]+)/)");
    const std::set<std::string> allowed = reachable(room);
    Faults faults;
    for (std::sregex_iterator it(source.begin(), source.end(), include), end; it != end; ++it) {
        if (allowed.count((*it)[1]) == 0) faults.push_back(room + " includes " + (*it)[1].str());
    }
    return faults;
}

Faults qtIn(const std::string& source) {
    static const std::regex qt(
        R"(#\s*include\s*[<"](Q[A-Z]|Qt)|\bQ(String|Object|Image|Point|Rect|Color)\b)");
    return std::regex_search(source, qt) ? Faults{"Qt"} : Faults{};
}

/// Anything that writes or reads numbers by the locale.
Faults localeText(const std::string& source) {
    static const std::regex bad(
        R"(\b(s?n?printf|fprintf|sscanf|fscanf|scanf|strto[dfl]d?|ato[fil]l?|setlocale)\s*\(|std::(stod|stof|stold|locale|imbue)\b|\b[io]?stringstream\b|<iomanip>|<locale>)");
    Faults faults;
    for (std::sregex_iterator it(source.begin(), source.end(), bad), end; it != end; ++it)
        faults.push_back(it->str());
    return faults;
}

template <typename Check>
Faults checkCore(const Check& check) {
    Faults all;
    int files = 0;
    for (const auto& entry : fs::recursive_directory_iterator(NINE_SOURCE_DIR "/src/core")) {
        const std::string ending = entry.path().extension().string();
        if (ending != ".h" && ending != ".cpp") continue;
        ++files;
        const std::string room = entry.path().parent_path().filename().string();
        for (const std::string& fault : check(room, code(text(entry.path())))) {
            all.push_back(entry.path().filename().string() + ": " + fault);
        }
    }
    EXPECT_GT(files, 40);
    return all;
}

std::string planted(const char* name) {
    return code(text(fs::path(NINE_SOURCE_DIR "/tests/arch/planted") / name));
}

TEST(Architecture, RoomsIncludeOnlyRoomsBelow) {
    EXPECT_EQ(checkCore([](const auto& room, const auto& source) { return upwardIncludes(room, source); }),
              Faults{});
    EXPECT_EQ(upwardIncludes("geom", planted("upward_include.txt")).size(), 2u);
}

TEST(Architecture, EveryRoomIsKnown) {
    for (const auto& entry : fs::directory_iterator(NINE_SOURCE_DIR "/src/core")) {
        if (!entry.is_directory()) continue;
        EXPECT_EQ(kBelow.count(entry.path().filename().string()), 1u) << entry.path();
    }
}

TEST(Architecture, NoQtInTheCore) {
    EXPECT_EQ(checkCore([](const auto&, const auto& source) { return qtIn(source); }), Faults{});
    EXPECT_FALSE(qtIn(planted("qt_include.txt")).empty());
}

TEST(Architecture, NoNumberTextThatDependsOnTheLocale) {
    EXPECT_EQ(checkCore([](const auto&, const auto& source) { return localeText(source); }), Faults{});
    EXPECT_EQ(localeText(planted("locale_text.txt")).size(), 5u);
}

TEST(Architecture, FilesAreShort) {
    for (const auto& entry : fs::recursive_directory_iterator(NINE_SOURCE_DIR "/src")) {
        if (!entry.is_regular_file()) continue;
        const std::string source = text(entry.path());
        EXPECT_LE(std::count(source.begin(), source.end(), '\n'), 600) << entry.path();
    }
}

}  // namespace
