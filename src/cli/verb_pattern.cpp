// What the program knows of the kinds of marks.
#include "base/number_text.h"
#include "cli/args.h"
#include "cli/verbs.h"
#include "pattern/kinds.h"

namespace nine::cli {
namespace {

const char* typeName(Param::Type type) {
    switch (type) {
        case Param::Type::Length:
            return "length";
        case Param::Type::Count:
            return "count";
        case Param::Type::Share:
            return "share";
        case Param::Type::Colour:
            break;
    }
    return "colour";
}

const char* refitName(Refit refit) {
    return refit == Refit::Fixed        ? "stays"
           : refit == Refit::WithLength ? "with the length"
                                        : "with the girth";
}

Json paramJson(const Param& p) {
    Json json{{"key", std::string(p.key)}, {"name", p.name.text()}, {"type", typeName(p.type)}};
    if (p.type == Param::Type::Colour) {
        json["usual"] = std::string(p.usualColour);
        return json;
    }
    json["low"] = p.low;
    json["high"] = p.high;
    json["usual"] = p.usual;
    if (!p.usualFrom.empty()) json["usual_from"] = std::string(p.usualFrom);
    json["on_another_size"] = refitName(p.refit);
    return json;
}

std::string row(const Kind& kind, const Param& p) {
    const bool colour = p.type == Param::Type::Colour;
    const std::string usual = !p.usualFrom.empty() ? "as `" + std::string(p.usualFrom) + "`"
                              : colour             ? std::string(p.usualColour)
                                                   : numberText(p.usual);
    return "| `" + std::string(kind.id()) + "` | `" + std::string(p.key) + "` | " + p.name.text() + " | " +
           typeName(p.type) + " | " + usual + " | " +
           (colour ? "" : numberText(p.low) + " to " + numberText(p.high)) + " | " + refitName(p.refit) +
           " |\n";
}

}  // namespace

Result<Reply> patternKinds(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {}, {"markdown"}, 0);
    if (!args) return args.error();
    const bool markdown = args->has("markdown");
    Reply reply;
    Json list = Json::array();
    if (markdown)
        reply.text =
            "| kind | key | what | type | absent means | limits | on another size "
            "|\n|---|---|---|---|---|---|---|\n";
    for (const Kind* kind : kinds()) {
        Json params = Json::array(), handles = Json::array();
        if (!markdown) reply.text += std::string(kind->id()) + ": " + kind->name().text() + "\n";
        for (const Param& p : kind->params()) {
            params.push_back(paramJson(p));
            reply.text += markdown ? row(*kind, p) : "  " + std::string(p.key) + ": " + p.name.text() + "\n";
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
