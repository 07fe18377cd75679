// The house rules, checked on the sources; each check is shown to fail on a planted case.
#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <map>
#include <regex>
#include <set>
#include <sstream>
#include <utility>
#include "tests/here.h"

namespace {

namespace fs = std::filesystem;

/// Rooms and the rooms below that each may include (docs/ARCHITECTURE.md). A room may include what those
/// include.
const std::map<std::string, std::set<std::string>> kBelow{
    {"base", {}},
    {"geom", {"base"}},
    {"blank", {"geom"}},
    {"pattern", {"blank"}},
    {"mask", {"pattern"}},
    {"paint", {"base"}},
    {"recipe", {"paint"}},
    {"spray", {"paint"}},
    {"scale", {"blank"}},
    {"cut", {"geom"}},
    {"bench", {"recipe"}},
    {"log", {"bench"}},
    {"job", {"mask", "cut", "spray", "scale", "log", "image", "store"}},
    {"image", {"geom"}},
    {"store", {"base"}},
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
    for (const auto& entry : fs::recursive_directory_iterator(nine::sourceDir() + "/src/core")) {
        const std::string ending = entry.path().extension().string();
        if (ending != ".h" && ending != ".cpp") continue;
        ++files;
        const std::string room =
            entry.path().lexically_relative(nine::sourceDir() + "/src/core").begin()->string();
        for (const std::string& fault : check(room, code(text(entry.path())))) {
            all.push_back(entry.path().filename().string() + ": " + fault);
        }
    }
    EXPECT_GT(files, 40);
    return all;
}

/// The kinds of elements, or of masks, by the names they have in their files: "dot_row", and in their code:
/// DotRowKind, dotRowKind.
std::vector<std::regex> namesOfKinds(const std::string& room) {
    static const std::regex told(R"~(id\(\) const override \{\s*return "(\w+)")~"),
        kindClass(R"(class (\w+Kind) )");
    std::vector<std::regex> names;
    for (const auto& entry : fs::directory_iterator(nine::sourceDir() + "/src/core/" + room + "/kind")) {
        const std::string source = text(entry.path());
        std::smatch found;
        if (std::regex_search(source, found, told)) names.emplace_back("\"" + found[1].str() + "\"");
        if (!std::regex_search(source, found, kindClass)) continue;
        std::string function = found[1];
        function[0] = static_cast<char>(std::tolower(function[0]));
        names.emplace_back("\\b(" + found[1].str() + "|" + function + ")\\b");
    }
    return names;
}

Faults namesAKind(const std::vector<std::regex>& names, const std::string& source) {
    static const std::regex comment(R"(//[^\n]*)");
    const std::string bare = std::regex_replace(source, comment, "");
    Faults faults;
    for (const std::regex& name : names) {
        std::smatch found;
        if (std::regex_search(bare, found, name)) faults.push_back(found[0]);
    }
    return faults;
}

std::string planted(const char* name) {
    return code(text(fs::path(nine::sourceDir() + "/tests/arch/planted") / name));
}

TEST(Architecture, RoomsIncludeOnlyRoomsBelow) {
    EXPECT_EQ(checkCore([](const auto& room, const auto& source) { return upwardIncludes(room, source); }),
              Faults{});
    EXPECT_EQ(upwardIncludes("geom", planted("upward_include.txt")).size(), 2u);
}

TEST(Architecture, EveryRoomIsKnown) {
    for (const auto& entry : fs::directory_iterator(nine::sourceDir() + "/src/core")) {
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

/// What is known of a kind stands in its file; the rest of the program reads its table.
void nobodyNamesAKindOf(const std::string& room, const std::string& except) {
    const std::vector<std::regex> names = namesOfKinds(room);
    EXPECT_FALSE(names.empty());
    for (const auto& entry : fs::recursive_directory_iterator(nine::sourceDir() + "/src")) {
        const std::string path = entry.path().string();
        if (!entry.is_regular_file() || path.find("/" + room + "/kind/") != std::string::npos) continue;
        if (!except.empty() && path.find(except) != std::string::npos) continue;
        EXPECT_EQ(namesAKind(names, text(entry.path())), Faults{}) << path;
    }
}

std::string plantedWithComments(const char* name) {
    return text(fs::path(nine::sourceDir() + "/tests/arch/planted") / name);
}

TEST(Architecture, NobodyNamesAKindOfElement) {
    nobodyNamesAKindOf("pattern", "");
    EXPECT_EQ(namesAKind(namesOfKinds("pattern"), plantedWithComments("names_a_kind.txt")).size(), 3u);
}

/// But for the one line that says which kind a mask is of when nobody said.
TEST(Architecture, NobodyNamesAKindOfMask) {
    nobodyNamesAKindOf("mask", "/mask/mask_kind.h");
    EXPECT_EQ(namesAKind(namesOfKinds("mask"), plantedWithComments("names_a_mask_kind.txt")).size(), 2u);
}

/// Chapters are known by the list of job/job.h: nothing else of the room goes through them one by one.
TEST(Architecture, ChaptersAreListedOnce) {
    static const std::regex listed(R"(ChapterList<\w)");
    int lists = 0;
    for (const auto& entry : fs::recursive_directory_iterator(nine::sourceDir() + "/src")) {
        if (entry.is_regular_file() && std::regex_search(code(text(entry.path())), listed)) ++lists;
    }
    EXPECT_EQ(lists, 1);
    static const std::regex key(R"~(static constexpr const char\* key = "(\w+)")~");
    std::set<std::string> keys;
    for (const auto& entry : fs::directory_iterator(nine::sourceDir() + "/src/core/job/chapters")) {
        const std::string source = text(entry.path());
        std::smatch found;
        if (!std::regex_search(source, found, key)) continue;
        EXPECT_TRUE(keys.insert(found[1]).second) << entry.path();
        EXPECT_NE(text(nine::sourceDir() + "/docs/FORMAT.md").find("\"" + found[1].str() + "\""),
                  std::string::npos)
            << found[1] << " is not described";
    }
    EXPECT_GE(keys.size(), 5u);
}

/// The window knows leaves by their list alone.
Faults namesALeaf(const std::string& source) {
    static const std::regex leaf(
        R"(\b(Blank|Pattern|Layers|Scales|Masks|Cut|Spray|Bench|Log)(Leaf|Page|Desk|Number)\b|#\s*include\s*"app/leaves/[a-z]+/)");
    Faults faults;
    for (std::sregex_iterator it(source.begin(), source.end(), leaf), end; it != end; ++it)
        faults.push_back(it->str());
    return faults;
}

TEST(Architecture, TheWindowNamesNoLeaf) {
    int files = 0;
    for (const auto& entry : fs::directory_iterator(nine::sourceDir() + "/src/app/frame")) {
        ++files;
        EXPECT_EQ(namesALeaf(code(text(entry.path()))), Faults{}) << entry.path();
    }
    EXPECT_GT(files, 8);
    EXPECT_EQ(namesALeaf(planted("names_a_leaf.txt")).size(), 3u);
}

/// A double of a header says its unit: in its name, or as a Fraction, a Ratio or a Figure (base/units.h).
Faults doublesWithoutUnit(const std::string& source) {
    static const std::regex declared(
        R"(\bdouble\b[&*]?\s+(\w+)((?:\s*=\s*[^,;()]+)?(?:\s*,\s*\w+(?:\s*=\s*[^,;()]+)?)*)\s*[;,)(=\[])"),
        further(R"(,\s*(\w+))"),
        unit(
            R"((^|_)(mm2?|mm3|rad|deg|px|kpa|psi|um|nm|s|min|h|ml|g|ms|ml_min|m_s|mm_s|pa|mpas|dyn_cm|g_cm3|p|mn|mn_m|kg_m3|l_min|m2_s|n_m|n_mm|1_s|1_mm)_?$|[pP]erMm$|PerPx$)"),
        named("degToRad|radToDeg|double|const|std");
    Faults faults;
    for (std::sregex_iterator it(source.begin(), source.end(), declared), end; it != end; ++it) {
        const std::string more = (*it)[2];
        std::vector<std::string> names{(*it)[1]};
        for (std::sregex_iterator k(more.begin(), more.end(), further), last; k != last; ++k)
            names.push_back((*k)[1]);
        for (const std::string& name : names)
            if (!std::regex_search(name, unit) && !std::regex_match(name, named)) faults.push_back(name);
    }
    return faults;
}

TEST(Architecture, EveryDoubleOfACoreHeaderSaysItsUnit) {
    for (const auto& entry : fs::recursive_directory_iterator(nine::sourceDir() + "/src/core")) {
        if (entry.path().extension() != ".h") continue;
        EXPECT_EQ(doublesWithoutUnit(code(text(entry.path()))), Faults{}) << entry.path();
    }
    EXPECT_EQ(doublesWithoutUnit(planted("double_without_unit.txt")),
              (Faults{"length", "turn", "liftAt", "y"}));
}

/// Functions of more than 60 lines that do not say why they are in one piece: by their first line.
Faults longFunctions(const std::string& source) {
    constexpr std::size_t kMost = 60, kHeadLines = 8;
    std::vector<std::string> lines;
    std::istringstream all(source);
    for (std::string line; std::getline(all, line);) lines.push_back(line);
    const auto endsWith = [](const std::string& line, char c) { return !line.empty() && line.back() == c; };
    static const std::regex noFunction(R"(^($|[ /#{}]|(namespace|struct|class|enum|template|using)\b))");
    Faults faults;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        if (std::regex_search(lines[i], noFunction)) continue;
        std::size_t head = i;
        while (head + 1 < lines.size() && head < i + kHeadLines && !endsWith(lines[head], '{') &&
               !endsWith(lines[head], ';'))
            ++head;
        std::string declared;
        for (std::size_t k = i; k <= head; ++k) declared += lines[k];
        if (!endsWith(lines[head], '{') || declared.find('(') == std::string::npos) continue;
        const std::size_t end = static_cast<std::size_t>(
            std::find(lines.begin() + static_cast<std::ptrdiff_t>(head), lines.end(), "}") - lines.begin());
        const bool told =
            head + 1 < lines.size() && lines[head + 1].find("// In one piece: ") != std::string::npos;
        if (end - i + 1 > kMost && !told) faults.push_back(lines[i]);
        i = end;
    }
    return faults;
}

TEST(Architecture, LongFunctionsSayWhy) {
    for (const auto& entry : fs::recursive_directory_iterator(nine::sourceDir() + "/src")) {
        if (!entry.is_regular_file()) continue;
        EXPECT_EQ(longFunctions(text(entry.path())), Faults{}) << entry.path();
    }
    std::string longer = "int counted(int n) {\n", reasoned = longer + "    // In one piece: a table.\n";
    for (int i = 0; i < 60; ++i) {
        longer += "    ++n;\n";
        reasoned += "    ++n;\n";
    }
    EXPECT_EQ(longFunctions(longer + "}\n"), (Faults{"int counted(int n) {"}));
    EXPECT_EQ(longFunctions(reasoned + "}\n"), Faults{});
}

TEST(Architecture, FilesAreShort) {
    for (const auto& entry : fs::recursive_directory_iterator(nine::sourceDir() + "/src")) {
        if (!entry.is_regular_file()) continue;
        const std::string source = text(entry.path());
        EXPECT_LE(std::count(source.begin(), source.end(), '\n'), 600) << entry.path();
    }
}

/// What ARCHITECTURE.md says of where things are: every file it names is there, every name in backticks
/// occurs in the sources.
std::set<std::string> wordsIn(const std::string& source) {
    std::set<std::string> words;
    std::string word;
    for (const char c : source + " ") {
        if (std::isalnum(static_cast<unsigned char>(c)) || c == '_') {
            word += c;
        } else if (!word.empty()) {
            words.insert(std::exchange(word, {}));
        }
    }
    return words;
}

/// What ARCHITECTURE.md says of where things are: every file it names is there, every name in backticks
/// occurs in the sources.
Faults lostOnTheMap(const std::string& map, const std::set<std::string>& words) {
    static const std::regex row(R"(\n\|[^|\n]*\|([^|\n]*)\|)"), quoted("`([^`]+)`"), word(R"([A-Za-z_]\w+)"),
        path(R"((?:^|[ ,(])((?:[a-z_]+/)+[a-z_]*(?:\.\w+)?))");
    const fs::path root = nine::sourceDir();
    Faults lost;
    for (std::sregex_iterator it(map.begin(), map.end(), row), end; it != end; ++it) {
        std::string cell = (*it)[1];
        for (std::sregex_iterator q(cell.begin(), cell.end(), quoted), last; q != last; ++q) {
            const std::string name = (*q)[1];
            if (name.find("--") != std::string::npos) continue;  // a command
            for (std::sregex_iterator w(name.begin(), name.end(), word); w != last; ++w)
                if (!words.count(w->str())) lost.push_back(w->str());
        }
        cell = std::regex_replace(cell, quoted, "");
        for (std::sregex_iterator f(cell.begin(), cell.end(), path), last; f != last; ++f) {
            const std::string file = (*f)[1];
            const bool there = fs::exists(root / file) || fs::exists(root / "src" / file) ||
                               fs::exists(root / "src/core" / file);
            const bool pattern = cell.find("LEAF") != std::string::npos;
            if (!there && !pattern && file != "scripts/picture") lost.push_back(file);
        }
    }
    return lost;
}

TEST(Architecture, TheMapIsTrue) {
    const std::string map = text(nine::sourceDir() + "/docs/ARCHITECTURE.md");
    const std::string tables =
        map.substr(map.find("## Where is"), map.find("## Choices") - map.find("## Where is"));
    EXPECT_GT(std::count(tables.begin(), tables.end(), '\n'), 100);
    std::string sources;
    for (const char* folder : {"/src", "/scripts", "/tests"})
        for (const auto& entry : fs::recursive_directory_iterator(nine::sourceDir() + folder))
            if (entry.is_regular_file() && entry.file_size() < 100000 &&
                entry.path().filename() != "architecture_test.cpp")
                sources += text(entry.path());
    const std::set<std::string> words = wordsIn(sources);
    EXPECT_EQ(lostOnTheMap(tables, words), Faults{});
    EXPECT_EQ(lostOnTheMap("x\n| a | `drawnByNobody` in mask/mask.h |\n| b | mask/no_such.h |\n", words),
              (Faults{"drawnByNobody", "mask/no_such.h"}));
}

}  // namespace
