#include "job/run_file.h"

#include <algorithm>
#include <filesystem>

#include "base/files.h"
#include "job/export.h"
#include "job/json_fields.h"

namespace nine {
namespace {

using namespace json;
namespace fs = std::filesystem;

constexpr int kRunFormat = 1;
constexpr const char *kHeadFile = "run.json", *kJobFile = "job.nineleaves.json",
                     *kEventsFile = "events.ndjson";

Json taskJson(const BenchTask& t) {
    Json json{{"id", t.id},
              {"steps", t.steps},
              {"first_lure", t.firstLure},
              {"lures", t.lures},
              {"hands_s", t.hands_s}};
    if (t.coats > 0) json.update({{"coat", t.coat}, {"coats", t.coats}});
    if (t.bodyByBody) json["body_by_body"] = true;
    if (t.free_s > 0)
        json.update({{"free_s", t.free_s},
                     {"rests", t.rests == Rests::Rack     ? "rack"
                               : t.rests == Rests::Turner ? "turner"
                                                          : "nowhere"}});
    if (t.cup >= 0) json["cup"] = t.cup;
    if (t.needle_mm > 0) json["needle_mm"] = t.needle_mm;
    if (t.takes >= 0) json["takes"] = t.takes;
    if (t.frees >= 0) json["frees"] = t.frees;
    if (t.heated) json["heated"] = true;
    return json;
}

BenchTask readTask(const Value& value, const std::string& path) {
    Fields f(value, path);
    BenchTask t;
    f.need("id");
    f.read("id", t.id);
    for (const Value& step : needArray(f.need("steps"), f.at("steps"))) t.steps.push_back(step.text());
    f.read("first_lure", t.firstLure);
    f.read("lures", t.lures);
    f.read("hands_s", t.hands_s);
    f.read("coat", t.coat);
    f.read("coats", t.coats);
    f.read("body_by_body", t.bodyByBody);
    f.read("free_s", t.free_s);
    std::string rests;
    f.read("rests", rests);
    t.rests = rests == "rack" ? Rests::Rack : rests == "turner" ? Rests::Turner : Rests::Nowhere;
    f.read("cup", t.cup);
    f.read("needle_mm", t.needle_mm);
    f.read("takes", t.takes);
    f.read("frees", t.frees);
    f.read("heated", t.heated);
    return t;
}

void checkWork(const BenchWork& work) {
    const auto within = [](int i, std::size_t n) { return i >= -1 && i < static_cast<int>(n); };
    for (const BenchTray& tray : work.trays)
        for (const BenchTask& t : tray.tasks)
            if (!within(t.cup, work.cups.size()) || !within(t.takes, work.tools.size()) ||
                !within(t.frees, work.tools.size()) || t.lures < 1 || t.hands_s < 0 || t.free_s < 0)
                fail("bad_value",
                     Words(NINE_WORDS("core", "The task {task} names a cup or a mask that is not there."))
                         .name("task", t.id),
                     "trays");
}

}  // namespace

std::string eventLine(const RunEvent& e) {
    Json json{{"at", utcText(e.at)}};
    for (const HappenedName& name : happenedNames())
        if (name.what == e.what) json["what"] = std::string(name.id);
    if (!e.task.empty()) json["task"] = e.task;
    if (!e.step.empty()) json["step"] = e.step;
    if (e.lure > 0) json["lure"] = e.lure;
    if (!e.key.empty()) json["key"] = e.key;
    if (!e.value.empty()) json["value"] = e.value;
    if (e.clockWentBack) json["clock_went_back"] = true;
    return json.dump(-1, ' ', false, Json::error_handler_t::replace);
}

Result<RunEvent> parseEvent(std::string_view line, const std::string& source) {
    return readText<RunEvent>(line, source, "run", [](const Value& value) {
        Fields f(value, "");
        RunEvent e;
        e.at = readMoment(f, "at");
        std::string what;
        f.read("what", what);
        const auto names = happenedNames();
        const auto name =
            std::find_if(names.begin(), names.end(), [&](const HappenedName& n) { return n.id == what; });
        if (name == names.end())
            fail("newer_format",
                 Words(NINE_WORDS("core",
                                  "What happened is called \"{what}\", which this version does not know."))
                     .name("what", what),
                 "what");
        e.what = name->what;
        f.read("task", e.task);
        f.read("step", e.step);
        f.read("lure", e.lure);
        f.read("key", e.key);
        f.read("value", e.value);
        f.read("clock_went_back", e.clockWentBack);
        return e;
    });
}

std::string runHeadText(const RunHead& head) {
    Json json{
        {"format", kRunFormat},         {"id", head.id},       {"title", head.title},  {"job", head.jobPath},
        {"began", utcText(head.began)}, {"lures", head.lures}, {"carded", head.carded}};
    for (const CupContent& cup : head.work.cups)
        json["cups"].push_back({{"key", cup.key},
                                {"name", cup.name},
                                {"colour", cup.colour},
                                {"family", cup.family},
                                {"lab", {cup.lab.l, cup.lab.a, cup.lab.b}},
                                {"solvent", cup.solvent}});
    for (const BenchTool& tool : head.work.tools)
        json["tools"].push_back({{"id", tool.id}, {"name", tool.name}, {"copies", tool.copies}});
    for (const BenchTray& tray : head.work.trays) {
        Json entry{{"tag", tray.tag},
                   {"job", tray.job},
                   {"first_lure", tray.firstLure},
                   {"lures", tray.lures},
                   {"tasks", Json::array()}};
        for (const BenchTask& task : tray.tasks) entry["tasks"].push_back(taskJson(task));
        json["trays"].push_back(std::move(entry));
    }
    addUnknown(json, head.unknownJson);
    return textOf(json);
}

Result<RunHead> parseRunHead(std::string_view text, const std::string& source) {
    return readText<RunHead>(text, source, "run", [](const Value& value) {
        // In one piece: one field after the other.
        Fields f(value, "");
        int format = 0;
        f.read("format", format);
        if (format > kRunFormat)
            fail("newer_format",
                 NINE_WORDS("core", "This run was recorded by a newer version. Open it with that version."),
                 "format");
        RunHead head;
        f.need("id");
        f.read("id", head.id);
        f.read("title", head.title);
        f.read("job", head.jobPath);
        head.began = readMoment(f, "began");
        f.read("lures", head.lures);
        f.read("carded", head.carded);
        if (const Value* cups = f.find("cups"))
            for (const Value& item : needArray(*cups, "cups")) {
                Fields c(item, indexed("cups", head.work.cups.size()));
                CupContent cup;
                c.read("key", cup.key);
                c.read("name", cup.name);
                c.read("colour", cup.colour);
                c.read("family", cup.family);
                c.read("solvent", cup.solvent);
                if (const Value* lab = c.find("lab"))
                    if (const auto three = numbersIn(*lab, 3))
                        cup.lab = {(*three)[0], (*three)[1], (*three)[2]};
                head.work.cups.push_back(std::move(cup));
            }
        if (const Value* tools = f.find("tools"))
            for (const Value& item : needArray(*tools, "tools")) {
                Fields t(item, indexed("tools", head.work.tools.size()));
                BenchTool tool;
                t.read("id", tool.id);
                t.read("name", tool.name);
                t.read("copies", tool.copies);
                head.work.tools.push_back(std::move(tool));
            }
        for (const Value& item : needArray(f.need("trays"), "trays")) {
            const std::string path = indexed("trays", head.work.trays.size());
            Fields t(item, path);
            BenchTray tray;
            t.read("tag", tray.tag);
            t.read("job", tray.job);
            t.read("first_lure", tray.firstLure);
            t.read("lures", tray.lures);
            for (const Value& task : needArray(t.need("tasks"), t.at("tasks")))
                tray.tasks.push_back(readTask(task, indexed(t.at("tasks"), tray.tasks.size())));
            head.work.trays.push_back(std::move(tray));
        }
        checkWork(head.work);
        head.unknownJson = f.unknown();
        return head;
    });
}

Result<RunFile> RunFile::begin(const std::string& runs, RunHead head, const Job& job) {
    std::error_code failed;
    fs::create_directories(runs, failed);
    const std::string stem = utcText(head.began).substr(0, 10) + "-" + fileStem(head.title);
    // The first name that is free, taken at once: another window may begin a run too.
    std::string folder;
    for (int n = 1;; ++n) {
        head.id = n == 1 ? stem : stem + "-" + std::to_string(n);
        folder = runs + "/" + head.id;
        if (fs::create_directory(folder, failed)) break;
        if (failed || n > 10000)
            return Error{"cannot_write",
                         Words(NINE_WORDS("core", "{file} cannot be made: {reason}."))
                             .name("file", folder)
                             .name("reason", failed.message()),
                         folder};
    }
    if (Status ok = saveJob(job, folder + "/" + kJobFile, Readers::Owner); !ok) return ok.error();
    if (Status ok = writeFileAtomically(folder + "/" + kHeadFile, runHeadText(head)); !ok) return ok.error();
    Result<Journal> journal = Journal::open(folder + "/" + kEventsFile);
    if (!journal) return journal.error();
    RunFile file(std::move(*journal));
    file.folder_ = folder;
    file.head_ = std::move(head);
    return file;
}

Result<RunFile> RunFile::open(const std::string& folder, Warnings* warnings) {
    const Result<std::string> text = readFile(folder + "/" + kHeadFile);
    if (!text) return text.error();
    Result<RunHead> head = parseRunHead(*text, folder + "/" + kHeadFile);
    if (!head) return head.error();
    Result<Journal> journal = Journal::open(folder + "/" + kEventsFile);
    if (!journal) return journal.error();
    RunFile file(std::move(*journal));
    file.folder_ = folder;
    file.head_ = std::move(*head);
    for (const std::string& line : file.journal_.lines()) {
        const Result<RunEvent> event = parseEvent(line, folder + "/" + kEventsFile);
        if (event)
            file.events_.push_back(*event);
        else if (warnings)
            warnings->push_back(event.error());
    }
    return file;
}

Result<Job> RunFile::job() const {
    const Result<LoadedJob> loaded = loadJob(folder_ + "/" + kJobFile);
    if (!loaded) return loaded.error();
    return loaded->job;
}

Status RunFile::add(const RunEvent& event) {
    events_.push_back(event);
    return journal_.append(eventLine(event));
}

Status markCarded(const std::string& folder) {
    const std::string path = folder + "/" + kHeadFile;
    const Result<std::string> text = readFile(path);
    if (!text) return text.error();
    Result<RunHead> head = parseRunHead(*text, path);
    if (!head) return head.error();
    head->carded = true;
    return writeFileAtomically(path, runHeadText(*head));
}

Result<RunOnDisk> readRun(const std::string& folder, Warnings* warnings) {
    const Result<std::string> text = readFile(folder + "/" + kHeadFile),
                              job = readFile(folder + "/" + kJobFile);
    if (!text) return text.error();
    if (!job) return job.error();
    Result<RunHead> head = parseRunHead(*text, folder + "/" + kHeadFile);
    if (!head) return head.error();
    const auto lines = Journal::read(folder + "/" + kEventsFile);
    if (!lines) return lines.error();
    RunOnDisk run{std::move(*head), *job, {}};
    for (const std::string& line : *lines) {
        const Result<RunEvent> event = parseEvent(line, folder + "/" + kEventsFile);
        if (event)
            run.events.push_back(*event);
        else if (warnings)
            warnings->push_back(event.error());
    }
    return run;
}

std::vector<KnownRun> runsIn(const std::string& runs, Warnings* warnings) {
    std::vector<KnownRun> found;
    std::error_code ignored;
    for (const auto& entry : fs::directory_iterator(runs, ignored)) {
        const std::string folder = entry.path().string();
        if (!fs::exists(folder + "/" + kHeadFile, ignored)) continue;  // being made, or no run
        const Result<RunOnDisk> read = readRun(folder, warnings);
        if (!read) {
            if (warnings) warnings->push_back(read.error());
            continue;
        }
        KnownRun run{folder, read->head, folded(read->events)};
        found.push_back(std::move(run));
    }
    std::sort(found.begin(), found.end(),
              [](const KnownRun& a, const KnownRun& b) { return a.head.began > b.head.began; });
    return found;
}

}  // namespace nine
