#include "job/derive.h"

#include <algorithm>
#include <cassert>
#include <map>
#include <mutex>
#include <optional>

#include "base/number_text.h"
#include "base/parallel.h"
#include "base/thread_role.h"

namespace nine {
namespace {

constexpr std::size_t kSkinsKept = 4, kArtsKept = 256, kMasksKept = 64;  // at least
/// This job, the one before the last edit, and that of another window.
constexpr std::size_t kJobsHeld = 3;

/// Lettering longer than this would outgrow the piece it stands on.
constexpr std::size_t kLabelLetters = 22;

/// The first letters of a name (UTF-8), with dots where it goes on.
std::string shortened(const std::string& name) {
    std::size_t end = 0, letters = 0;
    while (end < name.size() && letters < kLabelLetters) {
        ++end;
        while (end < name.size() && (static_cast<unsigned char>(name[end]) & 0xC0u) == 0x80u) ++end;
        ++letters;
    }
    return end == name.size() ? name : name.substr(0, end) + "..";
}

constexpr double kTick_mm = 1.2;  // half the tick that shows how far to move a sheet for a second pass

/// Of plain letters only, in every locale.
std::string upperCase(std::string text) {
    for (char& c : text) c = c >= 'a' && c <= 'z' ? static_cast<char>(c - 'a' + 'A') : c;
    return text;
}

std::string placeOfElement(std::size_t index) {
    return "pattern.elements[" + std::to_string(index) + "]";
}

Error placed(Error error, const std::string& place) {
    error.where = place + error.where;
    return error;
}

/// Ids of a pattern's elements and where they stand.
std::map<std::string_view, std::size_t> placesOf(const PatternChapter& pattern) {
    std::map<std::string_view, std::size_t> places;
    for (std::size_t i = 0; i < pattern.elements.size(); ++i) places.emplace(pattern.elements[i]->id, i);
    return places;
}

/// Depth of the deepest carving under the edges of openings.
double deepestUnder(const std::vector<Zone>& zones, const std::vector<const ElementArt*>& art) {
    double depth = 0;
    for (const ElementArt* element : art)
        for (const Outline& outline : element->outlines())
            for (const Vec2& p : outline.skin) depth = std::max(depth, reliefAt_mm(zones, p));
    return depth;
}

/// Openings that reach over skin no paint goes on.
void warnOfBareSkin(const std::vector<Zone>& zones, ElementArt& art) {
    for (const Zone& zone : zones) {
        if (!zone.noPaint) continue;
        for (std::size_t k = 0; k < art.outlines().size(); ++k) {
            const auto& outline = art.outlines()[k].skin;
            const bool over = std::any_of(outline.begin(), outline.end(),
                                          [&](const Vec2& p) { return contains(zone.polygon, p); }) ||
                              std::any_of(zone.polygon.begin(), zone.polygon.end(),
                                          [&](const Vec2& p) { return contains(outline, p); });
            if (!over) continue;
            art.warnings.push_back(
                {"on_bare_skin",
                 Words(NINE_WORDS(
                           "core",
                           "Opening {opening} of {element} reaches over the {zone}, where no paint goes; "
                           "move it or cover the place."))
                     .number("opening", static_cast<double>(k + 1), 0)
                     .name("element", art.element)
                     .words("zone", spokenName(zone)),
                 ""});
            break;
        }
    }
}

}  // namespace

Derivations::Derivations()
    : skins_(kSkinsKept), arts_(kArtsKept), cuts_(kMasksKept), masks_(kMasksKept), mirrored_(kMasksKept) {}

Result<SkinPtr> Derivations::skin(const Job& job) {
    assert(!thisThreadPaints && "derivations belong on a worker thread");
    std::optional<Error> problem;
    SkinPtr skin = skins_.get({job.part<BlankChapter>()}, {}, [&]() -> SkinPtr {
        Result<Skin> made = Skin::of(job.get<BlankChapter>().table);
        if (made) return std::make_shared<const Skin>(std::move(*made));
        problem = made.error();
        return nullptr;
    });
    if (problem) return *problem;
    return skin;
}

Result<ArtPtr> Derivations::art(const Job& job, std::size_t index) {
    const Result<SkinPtr> body = skin(job);
    if (!body) return body.error();
    const ElementPtr& element = job.get<PatternChapter>().elements[index];
    arts_.makeRoomFor(kJobsHeld * job.get<PatternChapter>().elements.size());
    std::optional<Error> problem;
    ArtPtr art = arts_.get({job.part<BlankChapter>(), element}, {}, [&]() -> ArtPtr {
        Result<ElementArt> drawn = drawElement(**body, job.get<BlankChapter>().landmarks, *element, "");
        if (drawn) {
            warnOfBareSkin(allZones(**body, job.get<BlankChapter>()), *drawn);
            return std::make_shared<const ElementArt>(std::move(*drawn));
        }
        problem = drawn.error();
        return nullptr;
    });
    if (problem) return placed(*problem, placeOfElement(index));
    return art;
}

Result<ArtPtr> Derivations::artAtAGlance(const Job& job, std::size_t index) {
    const Result<SkinPtr> body = skin(job);
    if (!body) return body.error();
    const ElementPtr& element = job.get<PatternChapter>().elements[index];
    if (ArtPtr exact = arts_.find({job.part<BlankChapter>(), element}, {})) return exact;
    Result<ElementArt> drawn = drawElement(**body, job.get<BlankChapter>().landmarks, *element,
                                           placeOfElement(index), Fineness::Glance);
    if (!drawn) return drawn.error();
    return std::make_shared<const ElementArt>(std::move(*drawn));
}

std::vector<const ElementArt*> Derivations::Sources::artPointers() const {
    std::vector<const ElementArt*> pointers;
    for (const ArtPtr& a : art) pointers.push_back(a.get());
    return pointers;
}

Result<Derivations::Sources> Derivations::sourcesOf(const Job& job, const MaskSpec& spec, Fineness fineness) {
    const Result<SkinPtr> body = skin(job);
    if (!body) return body.error();
    Sources from{*body, {}, {job.part<BlankChapter>()}, 0};
    const std::map<std::string_view, std::size_t> places = placesOf(job.get<PatternChapter>());
    for (const std::string& id : spec.wish.elements) {
        const auto found = places.find(id);
        if (found == places.end())
            return Error{
                "unknown_element",
                Words(NINE_WORDS("core", "There is no element \"{id}\" in the pattern.")).name("id", id),
                placeOf(job, spec)};
        if (!job.get<PatternChapter>().elements[found->second]->known()) continue;  // drawn as nothing
        Result<ArtPtr> drawn =
            fineness == Fineness::Cut ? art(job, found->second) : artAtAGlance(job, found->second);
        if (!drawn) return drawn.error();
        from.keys.push_back(job.get<PatternChapter>().elements[found->second]);
        from.art.push_back(std::move(*drawn));
    }
    const auto material = findMaterial(spec.wish.material);
    if (!material)
        return Error{
            "bad_value",
            Words(NINE_WORDS("core", "The mask \"{id}\" has an unknown material.")).name("id", spec.id),
            placeOf(job, spec)};
    if (from.art.empty())
        return Error{
            "nothing_to_open",
            Words(NINE_WORDS("core",
                             "The mask \"{name}\" opens only marks of kinds that this version of the "
                             "program does not know. Open the job with a newer version, or take the "
                             "mask out."))
                .name("name", spec.shownName()),
            placeOf(job, spec)};
    from.strainLimit = material->strainLimit;
    return from;
}

Result<std::vector<ArtPtr>> Derivations::artOf(const Job& job, const MaskSpec& spec) {
    Result<Sources> from = sourcesOf(job, spec);
    if (!from) return from.error();
    return std::move(from->art);
}

Result<MaskPtr> Derivations::cutLeft(const Job& job, const MaskSpec& spec, const Sources& from, int vertices,
                                     Precision precision, const Task& task) {
    std::optional<Error> problem;
    const auto cutIt = [&]() -> MaskPtr {
        Result<Mask> made = cutMask(*from.skin, job.get<BlankChapter>().landmarks, from.artPointers(),
                                    spec.wish, from.strainLimit, vertices, precision, "", task);
        if (made) return std::make_shared<const Mask>(std::move(*made));
        problem = made.error();
        return nullptr;
    };
    // Previews are drawn once, while something is dragged: nobody asks for them again.
    const MaskPtr cut =
        precision == Precision::Preview ? cutIt() : cuts_.get(from.keys, Solved{spec.wish, vertices}, cutIt);
    if (problem) return placed(*problem, placeOf(job, spec));
    return cut;
}

MaskPtr Derivations::onSideOf(const MaskSpec& spec, const MaskPtr& left) {
    if (spec.side == Side::Left) return left;
    return mirrored_.get({left}, {}, [&] { return std::make_shared<const Mask>(mirrored(*left)); });
}

Result<MaskPtr> Derivations::cutOnly(const Job& job, const MaskSpec& spec, Precision precision,
                                     const Task& task) {
    const Result<Sources> from =
        sourcesOf(job, spec, precision == Precision::Exact ? Fineness::Cut : Fineness::Glance);
    if (!from) return from.error();
    const int vertices = precision == Precision::Exact ? kFitVertices : kPreviewVertices;
    const Result<MaskPtr> left = cutLeft(job, spec, *from, vertices, precision, task);
    if (!left) return left.error();
    return onSideOf(spec, *left);
}

Result<MaskPtr> Derivations::mask(const Job& job, const MaskSpec& spec, int vertices, const Task& task) {
    const Result<Sources> from = sourcesOf(job, spec);
    if (!from) return from.error();
    std::optional<Error> problem;
    MaskPtr left = masks_.get(from->keys, Solved{spec.wish, vertices}, [&]() -> MaskPtr {
        const Result<MaskPtr> cut = cutLeft(job, spec, *from, vertices, Precision::Exact, task);
        Result<Mask> made = cut ? judgedMask(*from->skin, from->artPointers(), spec.wish, **cut, task)
                                : Result<Mask>(cut.error());
        if (made) {
            for (Sheet& sheet : made->sheets)
                sheet.report.relief_mm = deepestUnder(job.get<BlankChapter>().zones, from->artPointers());
            return std::make_shared<const Mask>(std::move(*made));
        }
        problem = cut ? placed(made.error(), placeOf(job, spec)) : made.error();
        return nullptr;
    });
    if (problem) return *problem;
    return onSideOf(spec, left);
}

Warnings Derivations::warnings(const Job& job, const MaskSpec& spec, const Mask& mask) {
    Warnings all;
    for (const Warning& w : mask.warnings) all.push_back(placed(w, placeOf(job, spec)));
    const std::map<std::string_view, std::size_t> places = placesOf(job.get<PatternChapter>());
    for (const std::string& id : spec.wish.elements) {
        const auto found = places.find(id);
        if (found == places.end()) continue;
        const Result<ArtPtr> drawn = art(job, found->second);
        if (!drawn) continue;
        for (const Warning& w : (*drawn)->warnings) all.push_back(placed(w, placeOfElement(found->second)));
    }
    return all;
}

void Derivations::makeRoomFor(const Job& job) {
    const std::size_t masks = job.get<MasksChapter>().masks.empty()
                                  ? 2 * job.get<PatternChapter>().elements.size()
                                  : job.get<MasksChapter>().masks.size();
    cuts_.makeRoomFor(kJobsHeld * masks);
    masks_.makeRoomFor(kJobsHeld * masks);
    mirrored_.makeRoomFor(kJobsHeld * masks);
}

std::vector<MaskResult> Derivations::masks(
    const Job& job, int vertices, const Task& task,
    const std::function<void(std::size_t, const MaskResult&)>& finished) {
    makeRoomFor(job);
    std::vector<MaskResult> results;
    for (const MaskSpecPtr& spec : maskSpecs(job)) results.push_back({spec, Task::cancelledError(), {}});
    // Twins of the two sides share one solution: solve one of each first, then the others come from memory.
    std::vector<std::size_t> first, second;
    for (std::size_t i = 0; i < results.size(); ++i) {
        const bool seen = std::any_of(first.begin(), first.end(), [&](std::size_t k) {
            return results[k].spec->wish == results[i].spec->wish;
        });
        (seen ? second : first).push_back(i);
    }
    std::size_t done = 0;
    std::mutex telling;
    for (const auto& group : {first, second}) {
        forEachInParallel(group.size(), [&](std::size_t k) {
            MaskResult& result = results[group[k]];
            if (!task.cancelled()) result.mask = mask(job, *result.spec, vertices, task.silent());
            if (result.mask) result.warnings = warnings(job, *result.spec, **result.mask);
            const std::lock_guard lock(telling);
            ++done;
            if (finished && result.mask) finished(group[k], result);
            task.progress(static_cast<double>(done) / static_cast<double>(results.size()));
        });
    }
    return results;
}

namespace {

Piece pieceOfSheet(const MaskSpec& spec, const Sheet& sheet, double moved_mm) {
    Piece piece;
    piece.mask = spec.id;
    piece.name = spec.shownName();
    piece.side = sideLetter(spec.side);
    if (const auto material = findMaterial(spec.wish.material))
        piece.stock = capitalised(material->name.text());
    piece.outline = sheet.outline;
    for (const Window& window : sheet.windows)
        piece.windows.push_back({window.element, window.outline, window.islands});
    for (Polygon2 hole : sheet.holes) {
        std::reverse(hole.begin(), hole.end());  // as windows run
        piece.windows.push_back({"", std::move(hole), {}});
    }
    const Vec2 middle = centroid(sheet.outline);
    for (const RegistrationMark& mark : sheet.marks) {
        for (Polyline2& stroke : crossMark(mark.flat, mark.name, middle - mark.flat)) {
            piece.pen.push_back(std::move(stroke));
        }
    }
    // Where the crosses' places come to lie when the sheet is moved for a second pass.
    if (moved_mm > 0 && sheet.marks.size() > 1) {
        const Vec2 nose = (sheet.marks.front().flat - sheet.marks.back().flat).normalized();
        const Vec2 across(-nose.y(), nose.x());
        for (const RegistrationMark& mark : sheet.marks) {
            const Vec2 at = mark.flat + moved_mm * nose;
            piece.pen.push_back({at - kTick_mm * across, at + kTick_mm * across});
        }
    }
    return piece;
}

}  // namespace

std::vector<Piece> piecesOf(const Job& job, const MaskSpec& spec, const Mask& mask) {
    std::vector<Piece> pieces;
    const std::string blank = upperCase(shortened(job.get<BlankChapter>().name));
    for (const Sheet& sheet : mask.sheets) {
        Piece piece = pieceOfSheet(spec, sheet, mask.moved_mm);
        piece.sheet = pieces.size();
        const std::string number = std::to_string(piece.sheet + 1);
        piece.id = piece.sheet == 0 ? spec.id : spec.id + "/" + number;
        std::string title = upperCase(shortened(piece.name)) + " " + piece.side;
        if (mask.sheets.size() > 1) title += " " + number + "/" + std::to_string(mask.sheets.size());
        writeLabel(piece, {{title, blank}, Vec2(spec.side == Side::Left ? -1 : 1, 0)});
        pieces.push_back(std::move(piece));
    }
    return pieces;
}

Words markSentence(const RegistrationMark& mark) {
    constexpr double kNone_mm = 0.05;   // rounds to 0.0
    constexpr double kSideways = 0.15;  // of the way: less is not worth a second number
    const double along = std::abs(mark.behind_mm), across = std::abs(mark.above_mm);
    const bool behind = mark.behind_mm > 0, above = mark.above_mm > 0;
    const auto said = [&](Pattern pattern) {
        return Words(pattern)
            .name("mark", std::string(1, mark.name))
            .length("along", along, 1)
            .length("across", across, 1)
            .words("landmark", spokenName(mark.landmark));
    };
    if (mark.landmark.empty()) {
        if (across < kNone_mm)
            return said(behind ? NINE_WORDS("core", "{mark} {along} behind the nose, on the axis")
                               : NINE_WORDS("core", "{mark} {along} ahead of the nose, on the axis"));
        if (behind)
            return said(above
                            ? NINE_WORDS("core", "{mark} {along} behind the nose, {across} above the axis")
                            : NINE_WORDS("core", "{mark} {along} behind the nose, {across} below the axis"));
        return said(above ? NINE_WORDS("core", "{mark} {along} ahead of the nose, {across} above the axis")
                          : NINE_WORDS("core", "{mark} {along} ahead of the nose, {across} below the axis"));
    }
    if (along < kNone_mm && across < kNone_mm) return said(NINE_WORDS("core", "{mark} on the {landmark}"));
    if (across < std::max(kNone_mm, kSideways * along))
        return said(behind ? NINE_WORDS("core", "{mark} {along} behind the {landmark}")
                           : NINE_WORDS("core", "{mark} {along} ahead of the {landmark}"));
    if (along < std::max(kNone_mm, kSideways * across))
        return said(above ? NINE_WORDS("core", "{mark} {across} above the {landmark}")
                          : NINE_WORDS("core", "{mark} {across} below the {landmark}"));
    if (behind)
        return said(above ? NINE_WORDS("core", "{mark} {along} behind and {across} above the {landmark}")
                          : NINE_WORDS("core", "{mark} {along} behind and {across} below the {landmark}"));
    return said(above ? NINE_WORDS("core", "{mark} {along} ahead of and {across} above the {landmark}")
                      : NINE_WORDS("core", "{mark} {along} ahead of and {across} below the {landmark}"));
}

Words verdictOf(const MaskSpec& spec, const FitReport& report) {
    const auto said = [&](Pattern pattern) {
        return Words(pattern)
            .name("mask", spec.shownName())
            .name("side", std::string(1, sideLetter(spec.side)))
            .share("need", report.strainFeasibleMax)
            .words("material", findMaterial(spec.wish.material)->name)
            .share("takes", report.strainLimit);
    };
    if (!report.liesFlat)
        return said(
                   NINE_WORDS(
                       "core",
                       "{mask} {side} cannot lie flat: it must stretch by {need}, {material} takes {takes}. "
                       "It "
                       "stands off by up to {lift}. No relief cuts are planned yet: split the mask or take a "
                       "softer sheet."))
            .length("lift", report.lift_mm, 1);
    return said(report.tracedKnown
                    ? NINE_WORDS(
                          "core",
                          "{mask} {side} lies flat: it must stretch by {need}, {material} takes {takes}. It "
                          "lands within {landing}; traced from the side it would be off by up to {traced}.")
                    : NINE_WORDS(
                          "core",
                          "{mask} {side} lies flat: it must stretch by {need}, {material} takes {takes}. It "
                          "lands within {landing}; traced from the side it cannot be laid at all."))
        .length("landing", std::max(0.01, report.landing.max_mm), 2)
        .length("traced", report.tracedKnown ? report.traced.max_mm : 0, 2);
}

}  // namespace nine
