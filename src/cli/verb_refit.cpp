// The same pattern on another blank.
#include "cli/args.h"
#include "cli/body.h"
#include "cli/verbs.h"
#include "job/refit.h"

namespace nine::cli {

Result<Reply> refit(const Arguments& words, const Task& task) {
    const Result<Args> args = Args::parse(words, {"blank", "out"}, {"repair"}, 1);
    if (!args) return args.error();
    const Result<std::string> blankPath = args->need("blank");
    if (!blankPath) return blankPath.error();
    const Result<std::string> out = args->need("out");
    if (!out) return out.error();
    const Result<LoadedJob> loaded = loadJob(args->word(0));
    if (!loaded) return loaded.error();
    const Result<Body> body = loadBody(*blankPath);
    if (!body) return body.error();
    Derivations derived;
    const Result<RefittedJob> fitted = refitJob(loaded->job, body->job.get<BlankChapter>(), derived, task);
    if (!fitted) return fitted.error();
    Reply reply;
    Json elements = Json::array();
    std::vector<std::string> repaired;
    int troubles = 0;
    for (const RefittedElement& e : fitted->elements) {
        const bool mended = args->has("repair") && e.repaired;
        if (mended) repaired.push_back(e.id);
        troubles += isTrouble(e.fate) && !mended ? 1 : 0;
        Json element{{"id", e.id}, {"fate", std::string(idOf(e.fate))}, {"text", e.says.plain()}};
        if (e.repaired) element["repair"] = e.repair.plain();
        if (mended) element["repaired"] = true;
        elements.push_back(std::move(element));
        reply.text +=
            e.says.plain() + (e.repaired ? " (" + e.repair.plain() + (mended ? ": done)" : ")") : "") + "\n";
    }
    const Job job = repaired.empty() ? fitted->job : withRepairs(*fitted, repaired);
    if (Status ok = saveJob(job, *out); !ok) return ok.error();
    Json masks = Json::array();
    for (const MaskSpecPtr& spec : maskSpecs(job))
        masks.push_back({{"id", spec->id}, {"elements", spec->wish.elements}});
    Warnings warnings = loaded->warnings;
    warnings.insert(warnings.end(), body->warnings.begin(), body->warnings.end());
    warnings.insert(warnings.end(), fitted->warnings.begin(), fitted->warnings.end());
    reply.exitCode = troubles > 0 ? kFault : kDone;
    reply.json = Json{{"file", *out},
                      {"elements", std::move(elements)},
                      {"masks", std::move(masks)},
                      {"offered_landmarks", fitted->offered},
                      {"warnings", warningsJson(warnings)}};
    reply.text += "Wrote " + *out + ".\n" + warningsText(warnings);
    return reply;
}

}  // namespace nine::cli
