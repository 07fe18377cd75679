#include "job/job_file.h"

#include "base/files.h"
#include "base/number_text.h"
#include "job/json_fields.h"
#include "job/json_place.h"
#include "job/migrate.h"

namespace nine {
namespace {

using namespace json;

constexpr int kFirstWithSteps = 3;  // formats before knew colours without steps

LoadedJob readJob(const Value& json) {
    Fields f(json, "");
    LoadedJob loaded;
    f.find("format");
    Chapters::each([&]<typename C>() {
        using Of = ChapterOf<C>;
        const Value* chapter = Of::needed ? &f.need(Of::key) : f.find(Of::key);
        if (!chapter) return;
        Fields fields(*chapter, Of::key);
        C read = Of::read(fields, loaded.warnings);
        read.unknownJson = fields.unknown();
        loaded.job = loaded.job.with(std::move(read));
    });
    loaded.job.unknownJson = f.unknown();
    if (Status ok = checkJob(loaded.job); !ok) throw Bad{ok.error()};
    return loaded;
}

}  // namespace

Result<LoadedJob> parseJob(std::string_view text, const std::string& source) {
    const Result<CurrentText> current = inCurrentFormat(text, source);
    if (!current) return current.error();
    Result<LoadedJob> loaded = readText<LoadedJob>(current->text, source, "job file", readJob);
    const auto placed = [&](Error& about) { about.where = current->placeInFile(about.where); };
    if (!loaded) {
        Error error = loaded.error();
        placed(error);
        return error;
    }
    for (Warning& warning : loaded->warnings) placed(warning);
    if (current->format < kFirstWithSteps) loaded->job = withStepsOfColours(loaded->job);
    return loaded;
}

std::string jobText(const Job& job) {
    Json json{{"format", kJobFormat}};
    Chapters::each([&]<typename C>() {
        Json chapter = Json::object();
        ChapterOf<C>::write(chapter, job.get<C>());
        addUnknown(chapter, job.get<C>().unknownJson);
        if (!chapter.empty()) json[ChapterOf<C>::key] = std::move(chapter);
    });
    addUnknown(json, job.unknownJson);
    return textOf(json);
}

Result<LoadedJob> loadJob(const std::string& path) {
    const Result<std::string> text = readFile(path);
    if (!text) return text.error();
    return parseJob(*text, path);
}

Status saveJob(const Job& job, const std::string& path, Readers readers) {
    const std::string text = jobText(job);
    if (text.size() > kMaxTextFileBytes)
        return Error{"too_large",
                     Words(NINE_WORDS("core",
                                      "The job takes {size} MB, more than the {most} MB that can "
                                      "be read again; nothing was written. Leave out a picture or what was "
                                      "pasted in."))
                         .number("size", text.size() >> 20, 0)
                         .number("most", kMaxTextFileBytes >> 20, 0),
                     path};
    return writeFileAtomically(path, text, readers);
}

Error withLine(Error error, const std::string& path) {
    bool ours = false;
    Chapters::each([&]<typename C>() { ours = ours || error.where.rfind(ChapterOf<C>::key, 0) == 0; });
    const Result<std::string> text = ours ? readFile(path) : Result<std::string>(Error{});
    if (!text) return error;
    if (const Result<CurrentText> current = inCurrentFormat(*text, path)) {
        error.where = path + ":" + std::to_string(lineOfField(current->text, error.where)) + " " +
                      current->placeInFile(error.where);
    }
    return error;
}

}  // namespace nine
