#include "job/chapters/bench.h"

#include <algorithm>

#include "base/calendar.h"
#include "job/job.h"
#include "job/json_fields.h"

namespace nine {

using namespace json;

BenchChapter ChapterOf<BenchChapter>::read(Fields& f, Warnings&) {
    BenchChapter bench;
    if (const Value* copies = f.find("copies"))
        for (const Value& item : needArray(*copies, f.at("copies"))) {
            Fields c(item, indexed(f.at("copies"), bench.copies.size()));
            ToolCopies tool;
            c.need("of");
            c.read("of", tool.tool);
            c.read("copies", tool.copies);
            tool.unknownJson = c.unknown();
            bench.copies.push_back(std::move(tool));
        }
    readTexts(f, "gates_off", bench.gatesOff);
    if (const Value* locks = f.find("locks"))
        for (const Value& item : needArray(*locks, f.at("locks"))) {
            Fields l(item, indexed(f.at("locks"), bench.locks.size()));
            TaskLock lock;
            l.need("task");
            l.read("task", lock.task);
            l.read("start_s", lock.start_s);
            bench.locks.push_back(std::move(lock));
        }
    f.read("begins", bench.begins);
    readTexts(f, "others", bench.others);
    return bench;
}

void ChapterOf<BenchChapter>::write(Json& json, const BenchChapter& bench) {
    for (const ToolCopies& tool : bench.copies) {
        Json entry{{"of", tool.tool}, {"copies", tool.copies}};
        addUnknown(entry, tool.unknownJson);
        json["copies"].push_back(std::move(entry));
    }
    if (!bench.gatesOff.empty()) json["gates_off"] = bench.gatesOff;
    for (const TaskLock& lock : bench.locks)
        json["locks"].push_back({{"task", lock.task}, {"start_s", lock.start_s}});
    if (!bench.begins.empty()) json["begins"] = bench.begins;
    if (!bench.others.empty()) json["others"] = bench.others;
}

Status ChapterOf<BenchChapter>::check(const Job& job) {
    const BenchChapter& bench = job.get<BenchChapter>();
    for (std::size_t i = 0; i < bench.copies.size(); ++i)
        if (bench.copies[i].copies < 1 || bench.copies[i].copies > kMostCopies)
            return Error{
                "out_of_range",
                Words(NINE_WORDS("core", "{copies} copies of one mask were given; there can be 1 to {most}."))
                    .number("copies", bench.copies[i].copies, 0)
                    .number("most", kMostCopies, 0),
                "bench." + indexed("copies", i) + ".copies"};
    constexpr int kMonth_s = 31 * 86400;
    for (std::size_t i = 0; i < bench.locks.size(); ++i)
        if (bench.locks[i].start_s < 0 || bench.locks[i].start_s > kMonth_s)
            return Error{
                "out_of_range",
                NINE_WORDS("core", "A task can be put between the start of the plan and a month after it."),
                "bench." + indexed("locks", i) + ".start_s"};
    if (!bench.begins.empty() && !parseUtc(bench.begins))
        return Error{"bad_value",
                     Words(NINE_WORDS("core", "\"{date}\" is no moment; write it as 2026-11-30T08:30:00Z."))
                         .name("date", bench.begins),
                     "bench.begins"};
    if (bench.others.size() > kMostOthers)
        return Error{"too_many",
                     Words(NINE_WORDS("core", "Up to {most} other jobs go over the bench together."))
                         .number("most", static_cast<double>(kMostOthers), 0),
                     "bench.others"};
    return Done{};
}

int copiesOf(const BenchChapter& bench, const std::string& tool) {
    for (const ToolCopies& own : bench.copies)
        if (own.tool == tool) return own.copies;
    return 1;
}

BenchChapter withCopies(BenchChapter bench, const std::string& tool, int copies) {
    const auto own = std::find_if(bench.copies.begin(), bench.copies.end(),
                                  [&](const ToolCopies& c) { return c.tool == tool; });
    if (own != bench.copies.end())
        own->copies = copies;
    else if (copies != 1)
        bench.copies.push_back({tool, copies});
    std::erase_if(bench.copies, [](const ToolCopies& c) { return c.copies == 1 && c.unknownJson.empty(); });
    return bench;
}

BenchChapter withLock(BenchChapter bench, const std::string& task, int start_s) {
    std::erase_if(bench.locks, [&](const TaskLock& lock) { return lock.task == task; });
    if (start_s >= 0) bench.locks.push_back({task, start_s});
    return bench;
}

bool asksGate(const BenchChapter& bench, std::string_view gate) {
    return std::find(bench.gatesOff.begin(), bench.gatesOff.end(), gate) == bench.gatesOff.end();
}

BenchChapter withGate(BenchChapter bench, const std::string& gate, bool asked) {
    std::erase(bench.gatesOff, gate);
    if (!asked) bench.gatesOff.push_back(gate);
    return bench;
}

}  // namespace nine
