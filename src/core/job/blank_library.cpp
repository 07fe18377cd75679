#include "job/blank_library.h"

#include <cmath>

#include "base/number_text.h"
#include "blank/families.h"
#include "image/picture_file.h"
#include "job/demo_blanks.h"
#include "job/job_file.h"
#include "pattern/skin_picture.h"

namespace nine {
namespace {

std::string tagsOf(const BlankChapter& blank) {
    const BodyFamily* family = findFamily(blank.family);
    const double length = blank.table.stations.back().x_mm - blank.table.stations.front().x_mm;
    return blank.family + " " + (family ? std::string(family->name.text()) : "") + " " +
           numberText(std::round(100 * length) / 100) + "mm";
}

/// The length is the last word of the tags.
double lengthIn(const std::string& tags) {
    const std::size_t blank = tags.rfind(' ');
    return parseNumber(tags.substr(blank == std::string::npos ? 0 : blank + 1, tags.size() - blank - 3))
        .value_or(0);
}

}  // namespace

std::string blankText(const BlankChapter& blank) {
    return jobText(Job{}.with(blank));
}

Result<BlankChapter> parseBlank(const std::string& text, const std::string& source) {
    const Result<LoadedJob> job = parseJob(text, source);
    if (!job) return job.error();
    return job->job.get<BlankChapter>();
}

std::string thumbnailOf(const Skin& skin) {
    const DrawnBody body = drawBody(skin);
    const Image paint = paintSkin(body, {}, {}, 16, 16);
    double low = 1e18, high = -1e18;
    for (const SurfacePoint& p : body.mesh.points) {
        low = std::min(low, p.position.z());
        high = std::max(high, p.position.z());
    }
    View3 view;
    view.target = Vec3(0.5 * (skin.noseX_mm() + skin.tailX_mm()), 0, 0.5 * (low + high));
    constexpr double kMargin_px = 8;
    view.pixelsPerMm = std::min((kThumbnailWidth - 2 * kMargin_px) / skin.length_mm(),
                                (kThumbnailHeight - 2 * kMargin_px) / (high - low));
    const Image image = render(body.mesh, paint, view, kThumbnailWidth, kThumbnailHeight, 2).image;
    return pngOf(image.width, image.height, image.pixels);
}

Result<std::vector<LibraryBlank>> libraryBlanks(const Workshop& workshop, const std::string& search) {
    const Result<std::vector<WorkshopRow>> rows = workshop.list(kBlankKind, search);
    if (!rows) return rows.error();
    std::vector<LibraryBlank> blanks;
    for (const WorkshopRow& row : *rows)
        blanks.push_back(
            {row.id, row.name, row.tags.substr(0, row.tags.find(' ')), lengthIn(row.tags), row.thumbnail});
    return blanks;
}

Result<BlankChapter> blankFromLibrary(const Workshop& workshop, const std::string& id) {
    const Result<std::optional<WorkshopRow>> row = workshop.get(kBlankKind, id);
    if (!row) return row.error();
    if (!*row)
        return Error{"unknown_row",
                     Words(NINE_WORDS("core", "There is no blank \"{id}\" in the library.")).name("id", id),
                     "library"};
    return parseBlank((*row)->json, "library " + id);
}

Result<std::string> putInLibrary(Workshop& workshop, const BlankChapter& blank, const std::string& id,
                                 std::string thumbnail) {
    const Result<Skin> skin = Skin::of(blank.table);
    if (!skin) return skin.error();
    if (thumbnail.empty()) thumbnail = thumbnailOf(*skin);
    std::string place = id;
    if (place.empty()) {
        const Result<std::string> fresh = workshop.freeId(kBlankKind, blank.name);
        if (!fresh) return fresh.error();
        place = *fresh;
    }
    if (Status ok = workshop.put(
            {kBlankKind, place, blank.name, tagsOf(blank), blankText(blank), std::move(thumbnail), {}});
        !ok)
        return ok.error();
    return place;
}

std::vector<BlankChapter> demoBlanks() {
    std::vector<BlankChapter> blanks;
    for (const auto& [file, text] : kDemoBlanks)
        if (Result<BlankChapter> blank = parseBlank(text, file)) blanks.push_back(std::move(*blank));
    return blanks;
}

Status seedLibrary(Workshop& workshop) {
    const Result<std::vector<WorkshopRow>> rows = workshop.list(kBlankKind);
    if (!rows) return rows.error();
    if (!rows->empty()) return Done{};
    for (const BlankChapter& blank : demoBlanks()) {
        if (Result<std::string> put = putInLibrary(workshop, blank); !put) return put.error();
    }
    return Done{};
}

}  // namespace nine
