// What the program knows of the kinds of marks.
#include "cli/args.h"
#include "cli/param_table.h"
#include "cli/verbs.h"
#include "image/picture_file.h"
#include "job/job_file.h"
#include "job/pattern_picture.h"
#include "pattern/kinds.h"

namespace nine::cli {

namespace {

Result<Seen> seenOf(const std::string& side) {
    if (side == "L" || side.empty()) return Seen::Left;
    if (side == "R") return Seen::Right;
    if (side == "back") return Seen::Back;
    if (side == "belly") return Seen::Belly;
    return Error{"usage", NINE_WORDS("cli", "--side is L, R, back or belly."), "--side"};
}

}  // namespace

Result<Reply> patternList(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {}, {}, 0);
    if (!args) return args.error();
    Reply reply;
    Json list = Json::array();
    for (const Kind* kind : kinds()) {
        Json parameters = Json::array();
        for (const Param& p : kind->params()) parameters.push_back(paramJson(p));
        list.push_back({{"kind", std::string(kind->id())},
                        {"family", std::string(idOf(kind->family()))},
                        {"name", kind->name().text()},
                        {"cut", kind->isCut()},
                        {"parameters", std::move(parameters)}});
        reply.text += std::string(idOf(kind->family())) + ": " + std::string(kind->id()) + ", " +
                      kind->name().text() + "\n";
    }
    reply.json = Json{{"kinds", std::move(list)}};
    return reply;
}

Result<Reply> patternRender(const Arguments& words, const Task& task) {
    const Result<Args> args = Args::parse(words, {"png", "side", "per_mm", "background"}, {}, 1);
    if (!args) return args.error();
    if (!args->has("png"))
        return Error{"usage", NINE_WORDS("cli", "pattern render needs --png FILE."), "--png"};
    const Result<Seen> seen = seenOf(args->value("side").value_or("L"));
    if (!seen) return seen.error();
    const Result<double> scale = args->number("per_mm", 12);
    if (!scale) return scale.error();
    if (!(*scale >= 1 && *scale <= 60))
        return Error{"usage", NINE_WORDS("cli", "--per_mm lies between 1 and 60 pixels."), "--per_mm"};
    const Result<LoadedJob> loaded = loadJob(args->word(0));
    if (!loaded) return loaded.error();
    Derivations derived;
    constexpr int kColumns = 2048, kRows = 1800;
    const Result<PatternPicture> picture =
        patternPicture(loaded->job, derived, Fineness::Cut, kColumns, kRows, task);
    if (!picture) return picture.error();
    const Image image =
        drawnPattern(*picture, *seen, *scale, colourOf(args->value("background").value_or(""), 0xFFF6F4EE));
    if (Status ok = writeFileAtomically(*args->value("png"), pngOf(image.width, image.height, image.pixels));
        !ok)
        return ok.error();
    Reply reply;
    Warnings warnings = loaded->warnings;
    warnings.insert(warnings.end(), picture->warnings.begin(), picture->warnings.end());
    Json elements = Json::array(), errors = Json::array();
    const auto& pattern = loaded->job.get<PatternChapter>();
    for (std::size_t i = 0; i < pattern.elements.size(); ++i) {
        const Result<ArtPtr> art = derived.art(loaded->job, i);
        if (!art) continue;
        std::size_t openings = 0;
        for (const Outline& outline : (*art)->outlines()) openings += outline.hole ? 0 : 1;
        elements.push_back({{"id", pattern.elements[i]->id},
                            {"kind", pattern.elements[i]->kind},
                            {"cut", (*art)->cut},
                            {"openings", openings}});
    }
    for (const Error& error : picture->errors) {
        errors.push_back({{"code", error.code}, {"text", error.words.plain()}, {"where", error.where}});
        reply.text += error.words.plain() + " (" + error.where + ")\n";
    }
    reply.exitCode = picture->errors.empty() ? kDone : kFault;
    reply.json = Json{{"file", *args->value("png")}, {"width_px", image.width},
                      {"height_px", image.height},   {"elements", std::move(elements)},
                      {"errors", std::move(errors)}, {"warnings", warningsJson(warnings)}};
    reply.text += "Wrote " + *args->value("png") + ".\n" + warningsText(warnings);
    return reply;
}

Result<Reply> patternKinds(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {}, {"markdown"}, 0);
    if (!args) return args.error();
    const bool markdown = args->has("markdown");
    Reply reply;
    Json list = Json::array();
    if (markdown) reply.text = paramHead();
    for (const Kind* kind : kinds()) {
        Json params = Json::array(), handles = Json::array();
        if (!markdown) reply.text += std::string(kind->id()) + ": " + kind->name().text() + "\n";
        for (const Param& p : kind->params()) {
            params.push_back(paramJson(p));
            reply.text +=
                markdown ? paramRow(kind->id(), p) : "  " + std::string(p.key) + ": " + p.name.text() + "\n";
        }
        for (const Handle& h : kind->handles())
            handles.push_back({{"key", std::string(h.key)}, {"name", h.name.text()}});
        list.push_back({{"id", std::string(kind->id())},
                        {"name", kind->name().text()},
                        {"along_curve", !kind->alongCurve().empty()},
                        {"params", std::move(params)},
                        {"handles", std::move(handles)}});
    }
    reply.json = Json{{"kinds", std::move(list)}};
    return reply;
}

}  // namespace nine::cli
