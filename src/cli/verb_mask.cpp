// What the program knows of the kinds of masks.
#include "cli/args.h"
#include "cli/param_table.h"
#include "cli/verbs.h"
#include "mask/mask_kind.h"

namespace nine::cli {

Result<Reply> maskKindsTold(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {}, {"markdown"}, 0);
    if (!args) return args.error();
    const bool markdown = args->has("markdown");
    Reply reply;
    Json list = Json::array();
    if (markdown) reply.text = paramHead();
    for (const MaskKind* kind : maskKinds()) {
        Json params = Json::array();
        if (!markdown) reply.text += std::string(kind->id()) + ": " + kind->name().text() + "\n";
        for (const Param& p : kind->params()) {
            params.push_back(paramJson(p));
            reply.text +=
                markdown ? paramRow(kind->id(), p) : "  " + std::string(p.key) + ": " + p.name.text() + "\n";
        }
        list.push_back(
            {{"id", std::string(kind->id())}, {"name", kind->name().text()}, {"params", std::move(params)}});
    }
    reply.json = Json{{"kinds", std::move(list)}};
    return reply;
}

}  // namespace nine::cli
