// blank library, blank table
#include "base/files.h"
#include "cli/args.h"
#include "cli/body.h"
#include "cli/verbs.h"
#include "job/blank_library.h"
#include "job/blank_table.h"

namespace nine::cli {

Result<Reply> blankLibrary(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"file", "blank", "id", "out", "search"}, {}, 1);
    if (!args) return args.error();
    const std::string action = args->word(0);
    const bool known = action == "list" || action == "seed" || action == "import" || action == "export" ||
                       action == "remove";
    if (!known)
        return Error{"usage", NINE_WORDS("cli", "Say blank library list, seed, import, export or remove."),
                     action};
    const Result<std::string> file = args->need("file");
    if (!file) return file.error();
    constexpr int kPatience_ms = 20'000;  // many imports at once wait their turn
    Result<Workshop> workshop = action == "list" || action == "export"
                                    ? Workshop::open(*file, Workshop::Access::Read)
                                    : Workshop::open(*file, Workshop::Access::Write, kPatience_ms);
    if (!workshop) return workshop.error();
    Reply reply;
    if (action == "seed") {
        if (Status ok = seedLibrary(*workshop); !ok) return ok.error();
    } else if (action == "import") {
        const Result<std::string> path = args->need("blank");
        if (!path) return path.error();
        const Result<Body> body = loadBody(*path);
        if (!body) return body.error();
        const Result<std::string> id =
            putInLibrary(*workshop, body->job.get<BlankChapter>(), args->value("id").value_or(""));
        if (!id) return id.error();
        reply.json["id"] = *id;
    } else if (action == "export") {
        const Result<std::string> id = args->need("id"), out = args->need("out");
        if (!id) return id.error();
        if (!out) return out.error();
        const Result<BlankChapter> blank = blankFromLibrary(*workshop, *id);
        if (!blank) return blank.error();
        if (Status ok = writeFileAtomically(*out, blankText(*blank)); !ok) return ok.error();
        reply.json["file"] = *out;
    } else if (action == "remove") {
        const Result<std::string> id = args->need("id");
        if (!id) return id.error();
        if (Status ok = workshop->remove(kBlankKind, *id); !ok) return ok.error();
    }
    const Result<std::vector<LibraryBlank>> blanks =
        libraryBlanks(*workshop, args->value("search").value_or(""));
    if (!blanks) return blanks.error();
    reply.json["blanks"] = Json::array();
    for (const LibraryBlank& b : *blanks) {
        reply.json["blanks"].push_back(
            {{"id", b.id}, {"name", b.name}, {"family", b.family}, {"length_mm", b.length_mm}});
        reply.text += b.id + std::string(b.id.size() < 20 ? 20 - b.id.size() : 1, ' ') + b.name + "\n";
    }
    return reply;
}

Result<Reply> blankTable(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"out"}, {}, 1);
    if (!args) return args.error();
    const Result<std::string> out = args->need("out");
    if (!out) return out.error();
    const Result<Body> body = loadBody(args->word(0));
    if (!body) return body.error();
    const bool csv = out->size() > 4 && out->substr(out->size() - 4) == ".csv";
    const std::string text =
        csv ? benchTableText(body->job.get<BlankChapter>(), body->skin)
            : pdfText({benchTable(body->job.get<BlankChapter>(), body->skin, Vec2(210, 297))});
    if (Status ok = writeFileAtomically(*out, text); !ok) return ok.error();
    Reply reply;
    reply.json = Json{{"file", *out}};
    reply.text = "The measures are in " + *out + ".\n";
    return reply;
}

}  // namespace nine::cli
