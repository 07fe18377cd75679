#include "cli/body.h"

#include <filesystem>

#include "base/files.h"

namespace nine::cli {

bool isJobPath(const std::string& path) {
    return std::filesystem::path(path).extension() == ".json";
}

Result<Body> loadBody(const std::string& path) {
    const std::string ending = std::filesystem::path(path).extension().string();
    for (const char* mesh : {".stl", ".obj", ".ply", ".off"}) {
        if (ending == mesh) {
            return Error{
                "not_yet",
                NINE_WORDS("cli", "Meshes cannot be read yet; measure the blank and give a station table."),
                path};
        }
    }
    LoadedJob loaded;
    if (isJobPath(path)) {
        Result<LoadedJob> job = loadJob(path);
        if (!job) return job.error();
        loaded = std::move(*job);
    } else {
        const Result<std::string> text = readFile(path);
        if (!text) return text.error();
        Result<StationTable> table = parseStationTable(*text, path);
        if (!table) return table.error();
        loaded.warnings = doubtsAbout(*table);
        loaded.job = jobOfBlank(std::filesystem::path(path).stem().string(), std::move(*table));
    }
    Result<Skin> skin = Skin::of(loaded.job.get<BlankChapter>().table);
    if (!skin) {
        Error error = skin.error();
        error.where = path + " " + error.where;
        return error;
    }
    return Body{std::move(loaded.job), std::move(*skin), std::move(loaded.warnings)};
}

}  // namespace nine::cli
