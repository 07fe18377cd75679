// scales: a net or a cut lattice on a body, the catalogue, choosing, lines for foil.
#include <algorithm>

#include "base/files.h"
#include "base/number_text.h"
#include "cli/args.h"
#include "cli/body.h"
#include "cli/verbs.h"
#include "job/net_catalogue.h"
#include "job/net_job.h"
#include "pattern/cut_scales.h"

namespace nine::cli {
namespace {

Json netJson(const Net& net) {
    return {{"id", net.id},
            {"name", net.name},
            {"weave", std::string(nameOf(net.weave).id)},
            {"along_mm", net.along_mm},
            {"across_mm", net.across_mm},
            {"strand_mm", net.strand_mm},
            {"open", openShare(net)},
            {"stretch_along", net.stretchAlong},
            {"stretch_across", net.stretchAcross},
            {"tear_n_m", net.tear_n_m},
            {"uses", net.uses},
            {"lift_wet", net.liftWet},
            {"doubles", net.doubles}};
}

/// The shop's nets, from the workshop file when one is given, else those that ship.
Result<std::vector<Net>> shopsNets(const Args& args) {
    const auto file = args.value("file");
    if (!file) return netsOfCatalogue();
    const Result<Workshop> workshop = Workshop::open(*file, Workshop::Access::Read);
    if (!workshop) return workshop.error();
    return netsOf(*workshop);
}

Result<Net> netNamed(const Args& args, const Job& job, const std::string& name) {
    const auto& own = job.get<ScalesChapter>().net;
    if (own && (own->name == name || own->id == name)) return *own;
    const Result<std::vector<Net>> nets = shopsNets(args);
    if (!nets) return nets.error();
    std::string all;
    for (const Net& net : *nets) {
        if (net.name == name || net.id == name) return net;
        all += (all.empty() ? "" : ", ") + net.name;
    }
    return Error{"unknown_net",
                 Words(NINE_WORDS("cli", "There is no net \"{name}\"; there are {all}."))
                     .name("name", name)
                     .name("all", all),
                 "--net"};
}

Result<Reply> lattice(const Args& args, const Body& body, const Task& task) {
    const std::string text = *args.value("lattice");
    const std::size_t x = text.find('x');
    const Result<std::vector<double>> pitch = parseNumbers(text.substr(0, x), "--lattice");
    const Result<std::vector<double>> angle =
        parseNumbers(x == text.npos ? "" : text.substr(x + 1), "--lattice");
    if (!pitch || !angle || pitch->size() != 1 || angle->size() != 1 ||
        !((*angle)[0] > 1 && (*angle)[0] < 89))
        return Error{
            "bad_value",
            NINE_WORDS("cli",
                       "A lattice is PITCHxANGLE, such as 4x23: millimetres and degrees off the girth."),
            "--lattice"};
    const Result<double> web = args.number("web", 0.5);
    if (!web) return web.error();
    const Element element = cutScalesElement((*pitch)[0], 1 / std::tan(degToRad((*angle)[0])), *web);
    const Result<CutScales> read =
        readCutScales(body.skin, body.job.get<BlankChapter>().landmarks, element, task);
    if (!read) return read.error();
    Reply reply;
    reply.json = {{"cells_along_lateral", read->cellsAlongLateral},
                  {"cells", read->cells},
                  {"aspect_min", read->aspect_min},
                  {"aspect_max", read->aspect_max},
                  {"opening_min", read->opening_min},
                  {"opening_max", read->opening_max},
                  {"smallest_feature_mm", std::min(read->narrowest_mm, *web)},
                  {"piece_mm", {read->region_mm.x(), read->region_mm.y()}},
                  {"clips", Json::array()}};
    reply.text = std::to_string(read->cells) + " scales, " + std::to_string(read->cellsAlongLateral) +
                 " along the lateral line, smallest measure " +
                 fixedText(std::min(read->narrowest_mm, *web), 2) + " mm.\n";
    return reply;
}

/// The job's scales, or the usual ones, with what the flags say.
Result<ScalesChapter> scalesAsked(const Args& args, const Job& job) {
    ScalesChapter scales = job.get<ScalesChapter>();
    if (const auto name = args.value("net")) {
        const Result<Net> net = netNamed(args, job, *name);
        if (!net) return net.error();
        scales.net = *net;
    }
    const auto take = [&](const char* flag, double& into, double low, double high) -> Status {
        const Result<double> value = args.number(flag, into);
        if (!value) return value.error();
        if (!(*value >= low && *value <= high))
            return Error{"out_of_range",
                         Words(NINE_WORDS("cli", "{flag} is from {low} to {high}."))
                             .name("flag", std::string("--") + flag)
                             .number("low", low, kShortest)
                             .number("high", high, kShortest),
                         std::string("--") + flag};
        into = *value;
        return Done{};
    };
    for (const Status& ok : {take("pull", scales.pull_n_m, kLeastPull_n_m, kMostPull_n_m),
                             take("clip", scales.clip_mm, kNarrowestClip_mm, kWidestClip_mm),
                             take("allowed", scales.allowed_mm, kLeastAllowed_mm, kMostAllowed_mm)})
        if (!ok) return ok.error();
    if (const auto gather = args.value("gather")) {
        if (*gather != "belly" && *gather != "back")
            return Error{"bad_value", NINE_WORDS("cli", "--gather is belly or back."), "--gather"};
        scales.gather = *gather == "belly" ? Gather::Belly : Gather::Back;
    }
    if (args.has("hook")) scales.hook = *args.value("hook");
    if (const auto clips = args.value("clips")) {
        const Result<std::vector<double>> places = parseNumbers(*clips, "--clips");
        if (!places) return places.error();
        scales.clips.clear();
        for (const double x : *places) scales.clips.push_back({x});
    }
    return scales;
}

Result<Reply> net(const Args& args, Body& body, const Task& task) {
    // In one piece: what is asked, the drape, its clips, and the reply field by field.
    const Result<ScalesChapter> scales = scalesAsked(args, body.job);
    if (!scales) return scales.error();
    body.job = body.job.with(*scales);
    const Result<DrapeWish> wish = drapeWishOf(body.job, body.skin);
    if (!wish) return wish.error();
    Result<NetOnBody> laid = netOnBody(body.job, body.skin, kDrapeSpacing_mm, {}, task);
    if (!laid) return laid.error();
    std::optional<ClipPlan> plan;
    if (scales->clips.empty() && wish->reach.whole()) {
        ClipPlanWish asked;
        asked.allowed_mm = scales->allowed_mm;
        asked.clip_mm = scales->clip_mm;
        asked.clear = clearOfFittings(body.job, body.skin);
        const Result<ClipPlan> found =
            planClips(body.skin, *laid->drape, asked, reliefOf(body.job), {}, task);
        if (!found) return found.error();
        plan = *found;
        ScalesChapter clipped = *scales;
        clipped.clips = found->clips;
        body.job = body.job.with(clipped);
        laid = netOnBody(body.job, body.skin, kDrapeSpacing_mm, laid->drape, task);
        if (!laid) return laid.error();
    }
    if (laid->clipError) return *laid->clipError;
    const NetReading& r = laid->reading;
    Json clips = Json::array(), flags = Json::array(), steps = Json::array();
    for (const Clip& clip : body.job.get<ScalesChapter>().clips) clips.push_back({{"x_mm", clip.x_mm}});
    bool fault = false;
    for (const NetFlag& flag : laid->flags) {
        flags.push_back({{"text", flag.words.plain()}, {"fault", flag.fault}, {"x_mm", flag.x_mm}});
        fault = fault || flag.fault;
    }
    for (const Words& step : netSteps(body.job, r)) steps.push_back(step.plain());
    Reply reply;
    reply.json = {{"net", scales->net->name},
                  {"cells_along_lateral", r.cellsAlongLateral},
                  {"aspect_min", r.aspect_min},
                  {"aspect_max", r.aspect_max},
                  {"area_min", r.area_min},
                  {"area_max", r.area_max},
                  {"opening_min", r.opening_min},
                  {"opening_max", r.opening_max},
                  {"piece_mm", {r.piece_mm[0], r.piece_mm[1]}},
                  {"gathered_mm", r.surplus_mm},
                  {"clips", clips},
                  {"flags", flags},
                  {"steps", steps}};
    if (laid->clipped)
        reply.json["stand_off_mm"] = {{"least", laid->clipped->worst.least_mm},
                                      {"most", laid->clipped->worst.most_mm},
                                      {"x_mm", laid->clipped->worst.x_mm},
                                      {"g_mm", laid->clipped->worst.g_mm}};
    if (const Result<NetReading> stiff = fishnetOf(body.job, body.skin, task); stiff) {
        reply.json["fishnet_aspect_min"] = stiff->aspect_min;
        reply.json["fishnet_aspect_max"] = stiff->aspect_max;
    }
    if (plan) reply.json["clips_keep_allowed"] = plan->keeps;
    reply.text = scales->net->name + ": " + fixedText(r.cellsAlongLateral, 0) +
                 " scales along the side, cells " + fixedText(r.aspect_min, 2) + " to " +
                 fixedText(r.aspect_max, 2) + " as high as on the bench; a piece of " +
                 fixedText(r.piece_mm[0], 0) + " x " + fixedText(r.piece_mm[1], 0) + " mm, " +
                 std::to_string(clips.size()) + " clips.\n";
    for (const NetFlag& flag : laid->flags) reply.text += flag.words.plain() + "\n";
    reply.exitCode = fault ? kFault : kDone;
    if (const auto strip = args.value("strip")) {
        const Drawing page = clipStrip(body.job, body.skin);
        const bool pdf = strip->size() > 4 && strip->substr(strip->size() - 4) == ".pdf";
        if (Status ok = writeFileAtomically(*strip, pdf ? pdfText({page}) : svgText(page)); !ok)
            return ok.error();
    }
    return reply;
}

}  // namespace

Result<Reply> scales(const Arguments& words, const Task& task) {
    const Result<Args> args = Args::parse(words,
                                          {"net", "lattice", "side", "pull", "allowed", "clip", "clips",
                                           "gather", "hook", "web", "strip", "file"},
                                          {}, 1);
    if (!args) return args.error();
    if (const auto side = args->value("side"); side && *side != "L" && *side != "R")
        return Error{"bad_value", NINE_WORDS("cli", "--side is L or R; the other side is its mirror image."),
                     "--side"};
    Result<Body> body = loadBody(args->word(0));
    if (!body) return body.error();
    const bool own = body->job.get<ScalesChapter>().net.has_value();
    if (args->has("lattice") == (args->has("net") || (own && !args->has("lattice"))))
        return Error{"usage", NINE_WORDS("cli", "Say which: --net NAME or --lattice PITCHxANGLE."), "--net"};
    return args->has("lattice") ? lattice(*args, *body, task) : net(*args, *body, task);
}

Result<Reply> scalesList(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"file"}, {}, 0);
    if (!args) return args.error();
    const Result<std::vector<Net>> nets = shopsNets(*args);
    if (!nets) return nets.error();
    Reply reply;
    reply.json = {{"nets", Json::array()}};
    for (const Net& net : *nets) {
        reply.json["nets"].push_back(netJson(net));
        reply.text += net.name + ": " + nameOf(net.weave).name.text() + ", " + fixedText(net.along_mm, 2) +
                      " x " + fixedText(net.across_mm, 2) + " mm, strands " + fixedText(net.strand_mm, 2) +
                      " mm\n";
    }
    return reply;
}

Result<Reply> scalesChoose(const Arguments& words, const Task&) {
    const Result<Args> args =
        Args::parse(words, {"fish_mm", "fish_count", "count", "eye_mm", "tolerance", "file"}, {}, 1);
    if (!args) return args.error();
    const Result<Body> body = loadBody(args->word(0));
    if (!body) return body.error();
    ScaleWish wish = body->job.get<ScalesChapter>().wish;
    wish.from = args->has("count")    ? ScaleFrom::Count
                : args->has("eye_mm") ? ScaleFrom::Eye
                                      : ScaleFrom::Fish;
    const Result<double> fish = args->number("fish_mm", wish.fish_mm),
                         eye = args->number("eye_mm", wish.eye_mm),
                         tolerance = args->number("tolerance", wish.tolerance);
    const Result<int> fishCount = args->whole("fish_count", wish.fishCount, 3, 2000),
                      count = args->whole("count", wish.count, 2, 1000);
    for (const Error* e : {fish ? nullptr : &fish.error(), eye ? nullptr : &eye.error(),
                           tolerance ? nullptr : &tolerance.error(), fishCount ? nullptr : &fishCount.error(),
                           count ? nullptr : &count.error()})
        if (e) return *e;
    wish.fish_mm = *fish;
    wish.fishCount = *fishCount;
    wish.count = *count;
    wish.eye_mm = *eye;
    wish.tolerance = *tolerance;
    if (Status ok = checkScaleWish(wish, "--"); !ok) return ok.error();
    const Result<std::vector<Net>> nets = shopsNets(*args);
    if (!nets) return nets.error();
    const NetRanking ranking =
        rankNets(*nets, wantedScale_mm(wish, body->skin.length_mm(), sideForScales_mm(body->job, body->skin)),
                 wish.tolerance);
    Reply reply;
    reply.json = {{"wanted_mm", ranking.wanted_mm},
                  {"too_coarse", ranking.tooCoarse},
                  {"summary", ranking.summary.plain()},
                  {"nets", Json::array()}};
    reply.text = ranking.summary.plain() + "\n";
    for (const NetChoice& c : ranking.choices) {
        reply.json["nets"].push_back({{"name", c.net.name},
                                      {"doubled", c.doubled},
                                      {"scale_mm", c.scale_mm},
                                      {"ratio", c.ratio},
                                      {"good", c.good},
                                      {"reason", c.reason.plain()}});
        reply.text += c.net.name + (c.doubled ? ", double: " : ": ") + c.reason.plain() + "\n";
    }
    return reply;
}

Result<Reply> scalesPut(const Arguments& words, const Task&) {
    const Result<Args> args =
        Args::parse(words, {"file", "remove"}, {}, words.empty() || words[0].rfind("--", 0) == 0 ? 0 : 1);
    if (!args) return args.error();
    const Result<std::string> file = args->need("file");
    if (!file) return file.error();
    constexpr int kPatience_ms = 20'000;
    Result<Workshop> workshop = Workshop::open(*file, Workshop::Access::Write, kPatience_ms);
    if (!workshop) return workshop.error();
    Reply reply;
    if (const auto gone = args->value("remove")) {
        if (Status ok = removeNet(*workshop, *gone); !ok) return ok.error();
        reply.json = {{"removed", *gone}};
        return reply;
    }
    if (words.empty() || words[0].rfind("--", 0) == 0)
        return Error{"usage", NINE_WORDS("cli", "Say which net: a file, or --remove ID."), "NET"};
    const Result<std::string> text = readFile(args->word(0));
    if (!text) return text.error();
    const Result<Net> net = parseNet(*text, args->word(0));
    if (!net) return net.error();
    const Result<std::string> id = putNet(*workshop, *net);
    if (!id) return id.error();
    reply.json = {{"id", *id}};
    reply.text = net->name + " is kept as " + *id + ".\n";
    return reply;
}

Result<Reply> scalesLines(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"width", "lean", "short", "tail", "below", "out"}, {}, 1);
    if (!args) return args.error();
    Result<Body> body = loadBody(args->word(0));
    if (!body) return body.error();
    ScalesChapter scales = body->job.get<ScalesChapter>();
    FoilWish wish = scales.foil.value_or(FoilWish());
    for (const auto& [flag, member] :
         {std::pair("width", &FoilWish::width_mm), std::pair("lean", &FoilWish::lean_deg),
          std::pair("short", &FoilWish::short_mm), std::pair("tail", &FoilWish::tail_mm)}) {
        const Result<double> value = args->number(flag, wish.*member);
        if (!value) return value.error();
        wish.*member = *value;
    }
    if (const auto below = args->value("below")) {
        if (*below != "nothing" && *below != "one_way" && *below != "both_ways")
            return Error{"bad_value",
                         NINE_WORDS("cli", "--below is nothing, one_way (ribs) or both_ways (diamonds)."),
                         "--below"};
        wish.below = *below == "nothing"   ? BelowLateral::Nothing
                     : *below == "one_way" ? BelowLateral::Ribs
                                           : BelowLateral::Diamonds;
    }
    scales.foil = wish;
    body->job = body->job.with(scales);
    const Result<FoilLines> lines =
        foilLines(body->skin, body->job.get<BlankChapter>().landmarks, wish, "--lines");
    if (!lines) return lines.error();
    Reply reply;
    Json stations = Json::array();
    for (std::size_t i = 0; i < lines->ticks_mm.size(); ++i) {
        Json station{{"along_mm", lines->ticks_mm[i]},
                     {"x_mm", lines->tickSkin[i].x()},
                     {"g_mm", lines->tickSkin[i].y()}};
        for (const FoilLine& line : lines->above)
            if (std::abs(line.start_mm - lines->ticks_mm[i]) < 1e-6)
                station[line.toTail ? "to_tail" : "to_head"] = {{"x_mm", line.skin.back().x()},
                                                                {"g_mm", line.skin.back().y()}};
        stations.push_back(std::move(station));
    }
    reply.json = {{"diamonds", lines->diamonds},        {"width_mm", wish.width_mm},
                  {"height_mm", lines->height_mm},      {"lean_deg", wish.lean_deg},
                  {"length_mm", lines->length_mm},      {"lines_above", lines->above.size()},
                  {"lines_below", lines->below.size()}, {"stations", stations}};
    reply.text = std::to_string(lines->diamonds) + " diamonds along the body, " +
                 fixedText(wish.width_mm, 1) + " wide and " + fixedText(lines->height_mm, 1) + " mm high.\n";
    if (const auto out = args->value("out")) {
        const Drawing page = foilStrip(body->job, *lines);
        const bool pdf = out->size() > 4 && out->substr(out->size() - 4) == ".pdf";
        if (Status ok = writeFileAtomically(*out, pdf ? pdfText({page}) : svgText(page)); !ok)
            return ok.error();
    }
    return reply;
}

}  // namespace nine::cli
