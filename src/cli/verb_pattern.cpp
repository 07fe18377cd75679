// What the program knows of the kinds of marks.
#include "cli/args.h"
#include "cli/param_table.h"
#include "cli/verbs.h"
#include "pattern/kinds.h"

namespace nine::cli {

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
