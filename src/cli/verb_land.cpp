// land: lays any flat map back on the body and says where it lands
#include "base/files.h"
#include "base/number_table.h"
#include "base/number_text.h"
#include "cli/args.h"
#include "cli/body.h"
#include "cli/verbs.h"
#include "mask/landing.h"
#include "mask/mask.h"

namespace nine::cli {
namespace {

/// The best a steady hand does (0.3-1 mm, common practice): a map that is worse is the cause of what goes
/// wrong.
constexpr double kSpoils_mm = 0.3;

Result<std::vector<SurfacePoint>> parseMarks(const std::string& text, const Skin& skin) {
    std::vector<SurfacePoint> marks;
    for (std::size_t from = 0; from <= text.size();) {
        const std::size_t end = std::min(text.find(';', from), text.size());
        const Result<std::vector<double>> pair = parseNumbers(text.substr(from, end - from), "--marks");
        if (!pair) return pair.error();
        if (pair->size() != 2) {
            return Error{"bad_value",
                         NINE_WORDS("cli", "A mark is two numbers x,g; marks are separated by semicolons."),
                         "--marks"};
        }
        const SkinPoint at{Side::Left, (*pair)[0], (*pair)[1]};
        if (Status ok = skin.check(at, "--marks"); !ok) return ok.error();
        marks.push_back(skin.at(at));
        from = end + 1;
    }
    return marks;
}

/// Border loops of a flat map, lips of slits among them: nothing pulls straight across them.
Result<std::shared_ptr<const Borders>> readBorders(const std::string& path) {
    const Result<std::string> text = readFile(path, std::size_t{64} << 20);
    if (!text) return text.error();
    const Result<NumberTable> table =
        parseNumberTable(*text, {{"loop", "u_mm", "v_mm"}, 3, "table of borders"}, path, kMaxMapPoints);
    if (!table) return table.error();
    PolygonSet rings;
    double loop = 0;
    for (const std::vector<double>& row : table->rows) {
        if (rings.empty() || row[0] != loop) rings.emplace_back();
        loop = row[0];
        rings.back().emplace_back(row[1], row[2]);
    }
    std::erase_if(rings, [](const Polygon2& ring) { return ring.size() < 3; });
    if (rings.empty())
        return Error{"bad_map", NINE_WORDS("cli", "The borders need a loop of three points or more."), path};
    return std::make_shared<const Borders>(rings);
}

/// With borders: what is asked is where the map's own points come to lie, so that nothing is worked out
/// across a slit, and a lip that is in the wrong place is found.
Result<std::vector<LandedProbe>> landOwnPoints(const Skin& skin, const FlatPairs& pairs,
                                               const std::vector<Vec2>& skinPoints,
                                               const std::vector<SurfacePoint>& marks, Laying laying,
                                               std::shared_ptr<const Borders> borders, const Task& task) {
    constexpr std::size_t kMostProbes = 600;
    constexpr double kAtBorder_mm = 0.02;
    std::vector<HeldMark> held;
    const SheetCarrier carrier(pairs);
    for (const SurfacePoint& mark : marks) {
        std::size_t nearest = 0;
        for (std::size_t i = 1; i < pairs.skin.size(); ++i)
            if ((pairs.skin[i].position - mark.position).norm() <
                (pairs.skin[nearest].position - mark.position).norm())
                nearest = i;
        const bool there = (pairs.skin[nearest].position - mark.position).norm() < 1e-6;
        held.push_back({there ? SheetPlace(pairs.flat[nearest]) : carrier.at(mark), mark.position});
    }
    std::vector<Probe> asked;
    std::vector<SheetPlace> drawn;
    const std::size_t stride = std::max<std::size_t>(1, pairs.flat.size() / kMostProbes);
    for (std::size_t i = 0; i < pairs.flat.size(); ++i) {
        const bool lip = borders->distance_mm(pairs.flat[i]) < kAtBorder_mm;
        if (i % stride != 0 && !lip) continue;
        asked.push_back({pairs.skin[i], SkinPlace(skinPoints[i])});
        drawn.emplace_back(pairs.flat[i]);
    }
    return landProbes(skin, pairs, held, asked, drawn, laying, task, std::move(borders));
}

}  // namespace

Result<Reply> land(const Arguments& words, const Task& task) {
    // In one piece: flags, the map, the reply.
    const Result<Args> args = Args::parse(words, {"map", "side", "marks", "apply", "borders"}, {}, 1);
    if (!args) return args.error();
    const Result<std::string> mapPath = args->need("map");
    if (!mapPath) return mapPath.error();
    const Result<std::string> marksText = args->need("marks");
    if (!marksText) return marksText.error();
    const std::string side = args->value("side").value_or("L");
    if (side != "L" && side != "R")
        return Error{"bad_value", NINE_WORDS("cli", "--side must be L or R."), "--side"};
    Apply apply = Apply::Loose;
    for (const Apply a : {Apply::Lateral, Apply::Back}) {
        if (args->value("apply") == applyName(a)) apply = a;
    }
    const Result<Body> body = loadBody(args->word(0));
    if (!body) return body.error();
    const Result<std::vector<SurfacePoint>> marks = parseMarks(*marksText, body->skin);
    if (!marks) return marks.error();

    const Result<std::string> text = readFile(*mapPath, std::size_t{64} << 20);
    if (!text) return text.error();
    const Result<NumberTable> table =
        parseNumberTable(*text, {{"x_mm", "g_mm", "u_mm", "v_mm"}, 4, "flat map"}, *mapPath, kMaxMapPoints);
    if (!table) return table.error();
    // Either side is the mirror image of the other, so the left one serves for both.
    FlatPairs pairs;
    std::vector<Vec2> skinPoints;
    for (std::size_t i = 0; i < table->rows.size(); ++i) {
        const std::vector<double>& row = table->rows[i];
        const SkinPoint at{Side::Left, row[0], row[1]};
        if (Status ok = body->skin.check(at, table->placeOf(*mapPath, i)); !ok) return ok.error();
        pairs.skin.push_back(body->skin.at(at));
        pairs.flat.emplace_back(row[2], row[3]);
        skinPoints.emplace_back(row[0], row[1]);
    }
    if (pairs.skin.empty()) return Error{"bad_map", NINE_WORDS("cli", "The map has no points."), *mapPath};
    Result<std::vector<LandedProbe>> probes = Task::cancelledError();
    if (const auto bordersPath = args->value("borders")) {
        const auto borders = readBorders(*bordersPath);
        if (!borders) return borders.error();
        probes = landOwnPoints(body->skin, pairs, skinPoints, *marks, layingOf(apply), *borders, task);
    } else {
        const SheetCarrier sheet(std::move(pairs));
        probes =
            landProbes(body->skin, sheet, *marks, probeDots(body->skin, skinPoints), layingOf(apply), task);
    }
    if (!probes) return probes.error();
    const Landing landing = landingOf(*probes);
    const bool lands = landing.max_mm <= kSpoils_mm;
    Reply reply;
    reply.json = Json{{"landing_rms_mm", landing.rms_mm},
                      {"landing_max_mm", landing.max_mm},
                      {"probes", probes->size()},
                      {"lands", lands},
                      {"warnings", warningsJson(body->warnings)}};
    reply.text = lands ? "The map lands within " + fixedText(landing.max_mm, 3) + " mm (rms " +
                             fixedText(landing.rms_mm, 3) + ").\n"
                       : "This map is wrong for this body: what is cut from it lands up to " +
                             fixedText(landing.max_mm, 2) + " mm off (rms " + fixedText(landing.rms_mm, 2) +
                             "). Flatten the patch instead of tracing it.\n";
    reply.text += warningsText(body->warnings);
    reply.exitCode = lands ? kDone : kFault;
    return reply;
}

}  // namespace nine::cli
