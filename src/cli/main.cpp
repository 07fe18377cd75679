// nine-leaves-cli: everything the program computes, on the command line. docs/CLI.md lists verbs and flags.
#include <unistd.h>

#include <cstdio>
#include <exception>
#include <iostream>

#include "base/number_text.h"
#include "cli/verbs.h"

namespace nine::cli {
namespace {

constexpr const char* kHelp =
    R"(nine-leaves-cli: fitted stencils for lure painters

  blank measure BLANK [--at x1,x2,...] [--zone x,g,x,g,...]
                                                  length, girths, area, volume, area of a zone
  blank distance BLANK --from L,x,g --to R,x,g    shortest way along the skin
  blank sheet --out F.pdf|F.svg [--paper A4|Letter]
                                                  the page to trace a blank on
  blank trace IMAGE --out JOB [--girth "x,mm;x,mm"] [--ruler_mm MM] [--family KIND] [--name TEXT]
              [--axis "x,y,x,y"] [--top_axis ...] [--include "x,y,..."] [--exclude "x,y,..."] [--brush PX]
              [--nose left|right] [--known_length MM] [--known_height MM] [--traced_with edge|leaning|upright]
                                                  a body from a scan or photo of that page
  blank photo IMAGE --out JOB --length MM | --scale x0,y0,x1,y1,mm | --coin x,y,mm [--top IMAGE]
          [--axis x0,y0,x1,y1] [--top_axis ...] [--top_exclude ...] [--nose left|right] [--exclude "x,y,x,y;..."]
          [--include ...] [--brush PX] [--put_back "x,y;..."] [--outline F.csv] [--thin PX] [--girth ...]
          [--family KIND] [--name TEXT]           a body from photos; pixels of the picture as it is seen
  blank check BLANK IMAGE [--length MM | --scale ... | --coin ...] [--above] [--out F.csv] [as for photo]
                                                  a new photo laid over a body: what is different, in mm
  blank family KIND --length MM [--height MM] [--width MM] [--readings "x,height,width,girth;..."]
          | --on BLANK, [--name TEXT] --out JOB
                                                  a body from a kind and readings, 0 for what was not measured
  blank string BLANK --at MM --girth MM [--half both|upper|lower] [--out JOB]
                                                  the section a string proves
  blank compare BLANK BLANK                       what is different
  blank wrap BLANK [--material tape] [--sheet 20x20]
                                                  where a sheet lies flat without a cut
  blank table BLANK --out F.pdf|F.csv             its measures, for the bench
  blank library list|seed|import|export|remove --file WORKSHOP [--blank BLANK] [--id ID] [--out JOB] [--search WORDS]
                                                  the blanks of a workshop file
  fit BLANK --patch side,x0,x1,g0,g1 | --disc side,x,g,r
            [--material paper|card|film|tape|vinyl] [--strain 0.01] [--vertices N]
            [--relief auto|none] [--apply loose|lateral|back] [--svg F]
            [--map F.csv [--points F.csv]]        does a sheet lie there, where does art land
  fit JOB                                         the same for every mask of a job
  land BLANK --map F.csv --side L --marks "x,g;x,g" [--apply ...]
                                                  lays any flat map back on the body
  cut JOB --out DIR [--sheet A4|Letter|210x297] [--format svg,pdf,dxf]
          [--tool knife|scissors|plotter|hot] [--tidy]   true-size pages of all masks; --tidy takes away
                                                  sheets of an earlier, longer run
  spray edge --gap MM --distance MM --pressure KPA --needle MM [--angle DEG] [--paint opaque] [--reduction 4:1]
          [--flow_ml_min 0.4] [--speed_mm_s 120] [--film UM] [--stroke along|across] [--aim_mm 0] [--thickness MM]
                                                  how wide an edge is and how far paint creeps
  spray plan JOB [--paint opaque] [--width 0.2] [--needles 0.2,0.35]
                                                  settings for every mask, with their reasons
  demo --out DIR                                  the demo job and all that comes of it

BLANK is a station table (.csv) or a job (*.nineleaves.json). x runs from the nose, g is the
arc along the girth from the datum line, + towards the back; mm. L and R are the fish's own.
--json prints one JSON object. Exit: 0 done, 1 wrong input, 2 wrong usage, 3 done with a fault.
)";

using Verb = Result<Reply> (*)(const Arguments&, const Task&);

struct Named {
    const char* first;
    const char* second;  ///< or null
    Verb run;
};
constexpr Named kVerbs[] = {{"blank", "measure", blankMeasure},
                            {"blank", "distance", blankDistance},
                            {"blank", "string", blankString},
                            {"blank", "compare", blankCompare},
                            {"blank", "wrap", blankWrap},
                            {"blank", "table", blankTable},
                            {"blank", "library", blankLibrary},
                            {"blank", "sheet", blankSheet},
                            {"blank", "trace", blankTrace},
                            {"blank", "photo", blankPhoto},
                            {"blank", "check", blankCheck},
                            {"blank", "family", blankFamily},
                            {"fit", nullptr, fit},
                            {"land", nullptr, land},
                            {"cut", nullptr, cut},
                            {"spray", "edge", sprayEdge},
                            {"spray", "plan", sprayPlan},
                            {"demo", nullptr, demo}};

Task progressTask() {
    if (::isatty(STDERR_FILENO) == 0) return Task::make();
    return Task::make([](double share) {
        std::fputs(("\r" + fixedText(100 * share, 0) + " %  " + (share >= 1 ? "\r" : "")).c_str(), stderr);
    });
}

int complain(const Error& error, bool json) {
    if (json) {
        const Json object{{"error", {{"code", error.code}, {"text", error.text()}, {"where", error.where}}}};
        std::cout << object.dump(-1, ' ', false, Json::error_handler_t::replace) << '\n';
    }
    std::cerr << (error.where.empty() ? "" : error.where + ": ") << error.text() << '\n';
    return error.code == "usage" ? kWrongUsage : kWrongInput;
}

int run(Arguments words) {
    const bool json = std::find(words.begin(), words.end(), "--json") != words.end();
    if (words.empty() || words[0] == "--help" || words[0] == "help") {
        (words.empty() ? std::cerr : std::cout) << kHelp;
        return words.empty() ? kWrongUsage : kDone;
    }
    if (words[0] == "--version") {
        std::cout << "nine-leaves-cli " NINE_VERSION "\n";
        return kDone;
    }
    for (const Named& verb : kVerbs) {
        const std::size_t length = verb.second ? 2 : 1;
        if (words.size() < length || words[0] != verb.first || (verb.second && words[1] != verb.second))
            continue;
        words.erase(words.begin(), words.begin() + static_cast<long>(length));
        Result<Reply> reply = verb.run(words, progressTask());
        if (!reply) return complain(reply.error(), json);
        std::cout << (json ? reply->json.dump(-1, ' ', false, Json::error_handler_t::replace) + "\n"
                           : reply->text);
        std::cout.flush();
        return std::cout ? reply->exitCode : kWrongInput;
    }
    return complain({"usage",
                     Words(NINE_WORDS("cli", "There is no command \"{words}\"; --help lists them."))
                         .name("words", words[0]),
                     ""},
                    json);
}

}  // namespace

Json warningsJson(const Warnings& warnings) {
    Json list = Json::array();
    for (const Warning& w : warnings)
        list.push_back({{"code", w.code}, {"text", w.text()}, {"where", w.where}});
    return list;
}

std::string warningsText(const Warnings& warnings) {
    std::string text;
    for (const Warning& w : warnings) text += "Note: " + w.text() + "\n";
    return text;
}

}  // namespace nine::cli

int main(int count, char** words) {
    try {
        return nine::cli::run({words + 1, words + count});
    } catch (const std::exception& problem) {
        // Library exceptions end here; ours are Results.
        std::cerr << "Something went wrong inside the program (" << problem.what()
                  << "). Nothing was written.\n";
        return nine::cli::kWrongInput;
    }
}
