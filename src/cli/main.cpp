// nine-leaves-cli: everything the program computes, on the command line. docs/CLI.md lists verbs and flags.
#include <unistd.h>

#include <cstdio>
#include <exception>
#include <iostream>

#include "base/number_text.h"
#include "cli/verb_table.h"

namespace nine::cli {
namespace {

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
        const bool markdown = words.size() > 1 && words[1] == "--markdown";
        (words.empty() ? std::cerr : std::cout) << (markdown ? helpMarkdown() : helpText());
        return words.empty() ? kWrongUsage : kDone;
    }
    if (words[0] == "--version") {
        std::cout << "nine-leaves-cli " NINE_VERSION "\n";
        return kDone;
    }
    for (const VerbEntry& verb : verbTable()) {
        const std::size_t length = verb.second.empty() ? 1 : 2;
        if (words.size() < length || words[0] != verb.first || (length > 1 && words[1] != verb.second))
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
