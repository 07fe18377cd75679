#include "tests/fuzz/targets.h"

#include <unistd.h>

#include <cstdio>
#include <cstdlib>

#include "base/number_table.h"
#include "blank/skin.h"
#include "image/picture_file.h"
#include "image/tracing.h"
#include "job/bench_file.h"
#include "job/job_file.h"
#include "store/workshop.h"

namespace nine::fuzz {
namespace {

/// What a reader promises and no answer may break.
void require(bool holds, const char* what) {
    if (holds) return;
    std::fprintf(stderr, "a promise was broken: %s\n", what);
    std::abort();
}

void stations(std::string_view bytes) {
    const Result<StationTable> table = parseStationTable(bytes, "f.csv");
    if (!table) return require(!table.error().text().empty(), "an error has a sentence");
    (void)Skin::of(*table);
    require(bool(parseStationTable(stationTableText(*table, "t"), "f.csv")),
            "what was read is written readable");
}

void job(std::string_view bytes) {
    const Result<LoadedJob> loaded = parseJob(bytes, "f.json");
    if (!loaded) return require(!loaded.error().text().empty(), "an error has a sentence");
    const std::string text = jobText(loaded->job);
    const Result<LoadedJob> again = parseJob(text, "f.json");
    require(bool(again), "what was read is written readable");
    require(jobText(again->job) == text, "writing is canonical");
}

void bench(std::string_view bytes) {
    const Result<Workplace> read = parseBench(bytes, "f.json");
    if (!read) return require(!read.error().text().empty(), "an error has a sentence");
    require(bool(parseBench(benchText(*read), "f.json")), "what was read is written readable");
}

void map(std::string_view bytes) {
    (void)parseNumberTable(bytes, {{"x_mm", "g_mm", "u_mm", "v_mm"}, 4, "flat map"}, "f.csv", 100000);
}

void picture(std::string_view bytes) {
    (void)decodePicture(bytes, "f");
}

void tracing(std::string_view bytes) {
    const auto read = decodePicture(bytes, "f");
    if (read) (void)readTracing(read->picture, {});
}

void workshop(std::string_view bytes) {
    static const std::string path = "/tmp/nine-fuzz-" + std::to_string(::getpid()) + ".sqlite";
    if (std::FILE* file = std::fopen(path.c_str(), "wb")) {
        std::fwrite(bytes.data(), 1, bytes.size(), file);
        std::fclose(file);
    }
    {
        const Result<Workshop> w = Workshop::open(path, Workshop::Access::Read);
        if (w) {
            (void)w->list("blank");
            (void)w->get("blank", "a");
        }
    }
    for (const char* ending : {"", "-wal", "-shm", "-journal"}) ::unlink((path + ending).c_str());
}

}  // namespace

const std::map<std::string, Target>& targets() {
    static const std::map<std::string, Target> all{
        {"stations", stations}, {"job", job},         {"bench", bench},      {"map", map},
        {"picture", picture},   {"tracing", tracing}, {"workshop", workshop}};
    return all;
}

}  // namespace nine::fuzz
