// cut, demo: from a job to pages
#include <algorithm>
#include <filesystem>
#include <map>

#include "base/files.h"
#include "base/number_text.h"
#include "cli/args.h"
#include "cli/body.h"
#include "cli/fit_json.h"
#include "cut/estimate.h"
#include "job/demo_job.h"
#include "job/export.h"
#include "job/net_job.h"

namespace nine::cli {
namespace {

constexpr const char* kKnownFormats[] = {"svg", "pdf", "dxf"};
constexpr const char* kComingFormats[] = {"hpgl"};

Result<std::vector<std::string>> parseFormats(const std::string& text) {
    std::vector<std::string> formats;
    for (std::size_t from = 0; from <= text.size();) {
        const std::size_t end = std::min(text.find(',', from), text.size());
        const std::string format = text.substr(from, end - from);
        const auto among = [&](const auto& list) {
            return std::find(std::begin(list), std::end(list), format) != std::end(list);
        };
        if (among(kComingFormats)) {
            return Error{
                "not_yet",
                Words(NINE_WORDS("cli", "The format {format} cannot be written yet; use svg, pdf or dxf."))
                    .name("format", format),
                "--format"};
        }
        if (!among(kKnownFormats))
            return Error{"usage", NINE_WORDS("cli", "--format takes svg, pdf and dxf."), "--format"};
        formats.push_back(format);
        from = end + 1;
    }
    return formats;
}

struct CutReply {
    Reply reply;
    std::vector<NamedFile> files;
};

Result<CutReply> cutJob(const Job& job, const std::vector<std::string>& formats, const CutTool& tool,
                        Derivations& derived, const Task& task) {
    // In one piece: the reply, field by field.
    const std::vector<MaskResult> masks = derived.masks(job, kFitVertices, task);
    Result<MaskReplies> described = describeMasks(masks);
    if (!described) return described.error();
    const Result<CutPages> pages = cutPages(job, masks);
    if (!pages) return pages.error();
    const auto wants = [&](const char* format) {
        return std::find(formats.begin(), formats.end(), format) != formats.end();
    };

    CutReply result;
    const std::vector<Drawing> drawings = drawPages(job, masks, *pages);
    result.files = pageFiles(drawings, {wants("svg"), wants("pdf"), wants("dxf")});
    Json sheets = Json::array();
    for (std::size_t page = 0; page < pages->pages; ++page) {
        Json ids = Json::array();
        for (const PlacedPiece& p : pages->pieces) {
            if (p.page == page) ids.push_back(p.piece.id);
        }
        const std::string own = sheetFileName(page, wants("svg") ? "svg" : "dxf");
        sheets.push_back({{"file", wants("svg") || wants("dxf") ? own : kPdfFileName},
                          {"parts", std::move(ids)},
                          {"utilisation", pages->utilisation(page)}});
    }
    Json parts = Json::array();
    std::vector<const Piece*> pieces;
    for (const PlacedPiece& placed : pages->pieces) {
        pieces.push_back(&placed.piece);
        Json openings = Json::array();
        for (const PieceWindow& window : placed.piece.windows) {
            if (window.element.empty()) continue;  // a hole
            PolygonSet open{window.outline};
            open.insert(open.end(), window.islands.begin(), window.islands.end());
            const Vec2 at = svgPoint(drawings[placed.page], centroid(open));
            openings.push_back({{"element", window.element},
                                {"x_mm", at.x()},
                                {"y_mm", at.y()},
                                {"area_mm2", area(open)},
                                {"islands", window.islands.size()}});
        }
        // Of the piece as it was drawn, before the layout turned it.
        const auto of = std::find_if(masks.begin(), masks.end(),
                                     [&](const MaskResult& m) { return m.spec->id == placed.piece.mask; });
        const Polygon2& outline =
            of == masks.end() ? placed.piece.outline : (*of->mask)->sheets[placed.piece.sheet].outline;
        const Vec2 size = boxAround({outline}).size();
        parts.push_back({{"id", placed.piece.id},
                         {"name", placed.piece.name},
                         {"side", std::string(1, placed.piece.side)},
                         {"sheet", placed.page + 1},
                         {"width_mm", size.x()},
                         {"height_mm", size.y()},
                         {"openings", std::move(openings)}});
    }
    described->warnings.insert(described->warnings.end(), pages->warnings.begin(), pages->warnings.end());
    const CutEstimate estimate = estimateCut(pieces);
    if (estimate.smallestFeature_mm > 0 && estimate.smallestFeature_mm < tool.smallest_mm) {
        described->warnings.push_back(
            {"too_fine",
             Words(NINE_WORDS("cli",
                              "The narrowest window or strip is {smallestFeature}; with this tool "
                              "{smallest} is about the least. Widen it or take a finer tool."))
                 .length("smallestFeature", estimate.smallestFeature_mm, 2)
                 .length("smallest", tool.smallest_mm, 1),
             "--tool"});
    }
    Reply& reply = result.reply;
    reply.json = Json{{"sheets", std::move(sheets)},
                      {"parts", std::move(parts)},
                      {"overlaps", pages->overlaps()},
                      {"smallest_feature_mm", estimate.smallestFeature_mm},
                      {"cut_length_mm", estimate.length_mm},
                      {"cut_time_s", estimate.time_s(tool)},
                      {"warnings", warningsJson(described->warnings)}};
    reply.text = described->text + std::to_string(pages->pieces.size()) + " pieces on " +
                 std::to_string(pages->pages) + (pages->pages == 1 ? " sheet; " : " sheets; ") +
                 fixedText(estimate.length_mm / 1000, 2) + " m to cut, about " +
                 fixedText(estimate.time_s(tool) / 60, 0) + " min; narrowest feature " +
                 fixedText(estimate.smallestFeature_mm, 2) + " mm.\n" + warningsText(described->warnings);
    reply.exitCode = described->allLieFlat ? kDone : kFault;
    return result;
}

}  // namespace

namespace {

/// Sheets of an earlier, longer run that would be taken for this one's.
std::vector<std::string> leftoversIn(const std::string& folder, const Reply& reply,
                                     const std::vector<std::string>& formats) {
    std::vector<std::string> names;
    std::error_code none;
    for (const auto& entry : std::filesystem::directory_iterator(folder, none))
        names.push_back(entry.path().filename().string());
    std::sort(names.begin(), names.end());
    const auto wants = [&](const char* format) {
        return std::find(formats.begin(), formats.end(), format) != formats.end();
    };
    return sheetsBeyond(names, reply.json["sheets"].size(), {wants("svg"), wants("pdf"), wants("dxf")}, "");
}

Warning leftoverWarning(const std::vector<std::string>& names, const std::string& folder) {
    std::string some;
    for (std::size_t i = 0; i < std::min<std::size_t>(4, names.size()); ++i)
        some += (i > 0 ? ", " : "") + names[i];
    if (names.size() > 4) some += " and " + std::to_string(names.size() - 4) + " more";
    return {"old_pages",
            Words(NINE_WORDS("cli",
                             "The folder still holds {some}, which do not belong to these pages. Take "
                             "them away, or cut with --tidy."))
                .name("some", some),
            folder};
}

}  // namespace

Result<Reply> cut(const Arguments& words, const Task& task) {
    const Result<Args> args = Args::parse(words, {"sheet", "out", "format", "tool"}, {"tidy"}, 1);
    if (!args) return args.error();
    const Result<std::string> folder = args->need("out");
    if (!folder) return folder.error();
    const auto sheet = args->value("sheet");
    const Result<SheetSize> size = parseSheet(sheet.value_or("A4"));
    if (!size) return size.error();
    const Result<std::vector<std::string>> formats = parseFormats(args->value("format").value_or("svg,pdf"));
    if (!formats) return formats.error();
    const std::string toolId = args->value("tool").value_or("");
    auto tool = findTool(toolId);
    if (!tool && args->has("tool")) {
        return Error{
            "bad_value",
            Words(NINE_WORDS("cli", "\"{toolId}\" is not a tool; choose knife, scissors, plotter or hot."))
                .name("toolId", toolId),
            "--tool"};
    }
    const Result<LoadedJob> loaded = loadJob(args->word(0));
    if (!loaded) return loaded.error();
    Job job = loaded->job;
    if (sheet) {  // places by hand belong to the sheet they were made on
        const SheetSize& own = job.get<CutChapter>().sheet;
        const bool same = own.width_mm == size->width_mm && own.height_mm == size->height_mm;
        if (!same) {
            CutChapter cut = job.get<CutChapter>();
            cut.sheet = *size;
            cut.places.clear();
            job = job.with(std::move(cut));
        }
    }
    if (!tool) tool = toolOf(job.get<CutChapter>());
    Derivations derived;
    Result<CutReply> result = cutJob(job, *formats, *tool, derived, task);
    if (!result) return withLine(result.error(), args->word(0));
    const std::vector<std::string> leftovers = leftoversIn(*folder, result->reply, *formats);
    const bool tidy = args->has("tidy");
    if (Status written =
            writeFilesAtomically(*folder, result->files, tidy ? leftovers : std::vector<std::string>{});
        !written)
        return written.error();
    if (!leftovers.empty() && !tidy)
        result->reply.json["warnings"].push_back(warningsJson({leftoverWarning(leftovers, *folder)})[0]);
    for (const Warning& w : loaded->warnings) result->reply.json["warnings"].push_back(warningsJson({w})[0]);
    return std::move(result->reply);
}

Result<Reply> demo(const Arguments& words, const Task& task) {
    const Result<Args> args = Args::parse(words, {"out"}, {}, 0);
    if (!args) return args.error();
    const Result<std::string> folder = args->need("out");
    if (!folder) return folder.error();
    const Result<Job> job = demoJob();
    if (!job) return job.error();
    Derivations derived;
    Result<CutReply> result = cutJob(*job, {"svg", "pdf"}, *findTool("knife"), derived, task);
    if (!result) return result.error();
    const Result<MaskReplies> fits = describeMasks(derived.masks(*job));
    if (!fits) return fits.error();

    result->files.insert(result->files.begin(), {kDemoFileName, jobText(*job)});
    result->files.push_back({"fit.json", fits->masks.dump(1) + "\n"});
    const BlankChapter& blank = job->get<BlankChapter>();
    result->files.push_back({"readings.csv", stationTableText(blank.table, blank.name + " (invented)")});
    if (const Result<SkinPtr> skin = derived.skin(*job); skin && !job->get<ScalesChapter>().clips.empty())
        result->files.push_back({"clips.pdf", pdfText({clipStrip(*job, **skin)})});
    if (Status written = writeFilesAtomically(*folder, result->files); !written) return written.error();
    Reply reply = std::move(result->reply);
    Json files = Json::array();
    reply.text += "Written to " + *folder + ":\n";
    for (const NamedFile& file : result->files) {
        files.push_back(file.name);
        reply.text += "  " + file.name + "\n";
    }
    reply.json["files"] = std::move(files);
    return reply;
}

}  // namespace nine::cli
