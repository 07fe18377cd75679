#include "job/derive.h"

#include <algorithm>
#include <cassert>
#include <map>
#include <mutex>
#include <optional>

#include "base/number_text.h"
#include "base/parallel.h"
#include "base/thread_role.h"
#include "mask/bridges.h"

namespace nine {
namespace {

constexpr std::size_t kSkinsKept = 4, kArtsKept = 256, kMasksKept = 64;  // at least
/// This job, the one before the last edit, and that of another window.
constexpr std::size_t kJobsHeld = 3;

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

/// The same places where art of the left side meets them beyond the back or the belly line.
void addMirrored(const Skin& skin, std::vector<BarePlace>& places) {
    const std::vector<BarePlace> left = places;
    for (const bool back : {true, false}) {
        for (BarePlace place : left) {
            for (Vec2& p : place.ring) {
                const double x = std::clamp(p.x(), skin.noseX_mm() + 1e-6, skin.tailX_mm() - 1e-6);
                const SectionArc arc = skin.arcAt(x);
                p.y() = (back ? 2 * arc.backArc_mm() : -2 * arc.bellyArc_mm()) - p.y();
            }
            std::reverse(place.ring.begin(), place.ring.end());
            places.push_back(std::move(place));
        }
    }
}

}  // namespace

Derivations::Derivations(int vertices)
    : vertices_(vertices),
      skins_(kSkinsKept),
      bares_(kSkinsKept),
      arts_(kArtsKept),
      glances_(kArtsKept),
      cuts_(kMasksKept),
      masks_(kMasksKept),
      mirrored_(kMasksKept) {}

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

std::shared_ptr<const std::vector<BarePlace>> Derivations::bareOf(const Job& job, const Skin& skin) {
    return bares_.get({job.part<BlankChapter>()}, {}, [&] {
        std::vector<BarePlace> bare;
        for (const Zone& zone : allZones(skin, job.get<BlankChapter>()))
            if (zone.noPaint) bare.push_back({zone.polygon, spokenName(zone)});
        for (BarePlace& place : bare)
            if (polygonArea(place.ring) < 0) std::reverse(place.ring.begin(), place.ring.end());
        addMirrored(skin, bare);
        return std::make_shared<const std::vector<BarePlace>>(std::move(bare));
    });
}

Result<std::vector<std::size_t>> Derivations::needsOf(const Job& job, std::size_t index) const {
    const PatternChapter& pattern = job.get<PatternChapter>();
    if (const Element& alone = *pattern.elements[index]; alone.of.empty() && alone.clearOf.empty())
        return std::vector<std::size_t>{index};
    const std::map<std::string_view, std::size_t> places = placesOf(pattern);
    std::vector<std::size_t> order, under;
    std::optional<Error> problem;
    const std::function<void(std::size_t)> visit = [&](std::size_t i) {
        if (problem || std::find(order.begin(), order.end(), i) != order.end()) return;
        const Element& e = *pattern.elements[i];
        if (std::find(under.begin(), under.end(), i) != under.end()) {
            problem = Error{"circle",
                            Words(NINE_WORDS("core",
                                             "\"{id}\" rests on itself: it is made from, or keeps clear of, "
                                             "marks that go round to it again. Take one of them off."))
                                .name("id", e.id),
                            placeOfElement(index)};
            return;
        }
        under.push_back(i);
        std::vector<std::string> ids = e.clearOf;
        if (!e.of.empty()) ids.push_back(e.of);
        for (const std::string& id : ids)
            if (const auto found = places.find(id); found != places.end()) visit(found->second);
        under.pop_back();
        order.push_back(i);
    };
    visit(index);
    if (problem) return *problem;
    return order;
}

std::vector<std::shared_ptr<const void>> Derivations::keysOf(const Job& job,
                                                             const std::vector<std::size_t>& needs) const {
    std::vector<std::shared_ptr<const void>> keys{job.part<BlankChapter>()};
    for (const std::size_t i : needs) keys.push_back(job.get<PatternChapter>().elements[i]);
    return keys;
}

Result<ArtPtr> Derivations::draw(const Job& job, const std::vector<std::size_t>& needs, Side side,
                                 Fineness fineness, const Task& task) {
    const Result<SkinPtr> body = skin(job);
    if (!body) return body.error();
    const PatternChapter& pattern = job.get<PatternChapter>();
    const Element& element = *pattern.elements[needs.back()];
    std::vector<ArtPtr> held;
    DrawWith with;
    const auto take = [&](const std::string& id) -> Result<const ElementArt*> {
        for (const std::size_t i : needs) {
            if (pattern.elements[i]->id != id || i == needs.back()) continue;
            Result<ArtPtr> other =
                fineness == Fineness::Cut ? art(job, i, side, task) : artAtAGlance(job, i, side, task);
            if (!other) return other.error();
            held.push_back(*other);
            return other->get();
        }
        return static_cast<const ElementArt*>(nullptr);
    };
    if (!element.of.empty()) {
        const Result<const ElementArt*> source = take(element.of);
        if (!source) return source.error();
        with.source = *source;
    }
    for (const std::string& id : element.clearOf) {
        const Result<const ElementArt*> mark = take(id);
        if (!mark) return mark.error();
        if (*mark) with.clearOf.push_back(*mark);
    }
    const std::shared_ptr<const std::vector<BarePlace>> bare = bareOf(job, **body);
    with.bare = bare.get();
    with.otherSide = side == Side::Right && element.ownSides && element.onBothSides();
    with.task = task;
    Result<ElementArt> drawn =
        drawElement(**body, job.get<BlankChapter>().landmarks, element, "", fineness, with);
    if (!drawn) return drawn.error();
    return std::make_shared<const ElementArt>(std::move(*drawn));
}

namespace {

/// Whether what is drawn differs from side to side: the element's own chance, or that of one it rests on.
bool sidesDiffer(const Job& job, const std::vector<std::size_t>& needs) {
    return std::any_of(needs.begin(), needs.end(), [&](std::size_t i) {
        const Element& e = *job.get<PatternChapter>().elements[i];
        return e.ownSides && e.onBothSides();
    });
}

}  // namespace

bool Derivations::differsBySide(const Job& job, std::size_t index) const {
    const Result<std::vector<std::size_t>> needs = needsOf(job, index);
    return needs && sidesDiffer(job, *needs);
}

ArtPtr Derivations::artIfKnown(const Job& job, std::size_t index, Side side) {
    const Result<std::vector<std::size_t>> needs = needsOf(job, index);
    if (!needs) return nullptr;
    return arts_.find(keysOf(job, *needs), {side == Side::Right && sidesDiffer(job, *needs)});
}

Result<ArtPtr> Derivations::art(const Job& job, std::size_t index, Side side, const Task& task) {
    const Result<SkinPtr> body = skin(job);
    if (!body) return body.error();
    const Result<std::vector<std::size_t>> needs = needsOf(job, index);
    if (!needs) return needs.error();
    arts_.makeRoomFor(2 * kJobsHeld * job.get<PatternChapter>().elements.size());
    std::optional<Error> problem;
    const bool other = side == Side::Right && sidesDiffer(job, *needs);
    ArtPtr art = arts_.get(keysOf(job, *needs), {other}, [&]() -> ArtPtr {
        Result<ArtPtr> drawn = draw(job, *needs, other ? Side::Right : Side::Left, Fineness::Cut, task);
        if (drawn) return *drawn;
        problem = drawn.error();
        return nullptr;
    });
    if (problem) return placed(*problem, placeOfElement(index));
    return art;
}

Result<ArtPtr> Derivations::artAtAGlance(const Job& job, std::size_t index, Side side, const Task& task) {
    const Result<SkinPtr> body = skin(job);
    if (!body) return body.error();
    if (ArtPtr exact = artIfKnown(job, index, side)) return exact;
    const Result<std::vector<std::size_t>> needs = needsOf(job, index);
    if (!needs) return needs.error();
    const bool other = side == Side::Right && sidesDiffer(job, *needs);
    std::optional<Error> problem;
    ArtPtr art = glances_.get(keysOf(job, *needs), {other}, [&]() -> ArtPtr {
        Result<ArtPtr> drawn = draw(job, *needs, other ? Side::Right : Side::Left, Fineness::Glance, task);
        if (drawn) return *drawn;
        problem = drawn.error();
        return nullptr;
    });
    if (problem) return placed(*problem, placeOfElement(index));
    return art;
}

std::vector<const ElementArt*> Derivations::Sources::artPointers() const {
    std::vector<const ElementArt*> pointers;
    for (const ArtPtr& a : art) pointers.push_back(a.get());
    return pointers;
}

OpenedArt Derivations::Sources::opened() const {
    OpenedArt all{artPointers(), {}, uncovered};
    for (const ArtPtr& a : right) all.right.push_back(a.get());
    return all;
}

Result<Derivations::Sources> Derivations::sourcesOf(const Job& job, const MaskSpec& spec, Fineness fineness) {
    const Result<SkinPtr> body = skin(job);
    if (!body) return body.error();
    Sources from{*body, {}, {job.part<BlankChapter>()}, 0, false};
    const MaskKind* kind = findMaskKind(spec.wish.kind);
    for (const BarePlace& place : *bareOf(job, **body)) from.uncovered.push_back(place.ring);
    const std::map<std::string_view, std::size_t> places = placesOf(job.get<PatternChapter>());
    for (const std::string& id : spec.wish.elements) {
        const auto found = places.find(id);
        if (found == places.end())
            return Error{
                "unknown_element",
                Words(NINE_WORDS("core", "There is no element \"{id}\" in the pattern.")).name("id", id),
                placeOf(job, spec)};
        if (!job.get<PatternChapter>().elements[found->second]->isCut()) continue;  // nothing to open
        Result<ArtPtr> drawn = fineness == Fineness::Cut ? art(job, found->second, spec.side)
                                                         : artAtAGlance(job, found->second, spec.side);
        if (!drawn) return drawn.error();
        const Result<std::vector<std::size_t>> needs = needsOf(job, found->second);
        if (!needs) return needs.error();
        from.otherSide = from.otherSide || (spec.side == Side::Right && sidesDiffer(job, *needs));
        if (kind && kind->bothSides() && job.get<PatternChapter>().elements[found->second]->onBothSides()) {
            Result<ArtPtr> right = fineness == Fineness::Cut ? art(job, found->second, Side::Right)
                                                             : artAtAGlance(job, found->second, Side::Right);
            if (!right) return right.error();
            from.right.push_back(std::move(*right));
        }
        for (const std::size_t i : *needs) from.keys.push_back(job.get<PatternChapter>().elements[i]);
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

MaskWish wishOf(const Job& job, const MaskSpec& spec) {
    MaskWish wish = spec.wish;
    if (wish.bridges.width_mm <= 0)
        wish.bridges.width_mm =
            std::max(bridgeWidth_mm(wish.material), toolOf(job.get<CutChapter>()).smallest_mm);
    return wish;
}

Result<MaskPtr> Derivations::cutLeft(const Job& job, const MaskSpec& spec, const Sources& from, int vertices,
                                     Precision precision, const Task& task) {
    std::optional<Error> problem;
    const MaskWish wish = wishOf(job, spec);
    const auto cutIt = [&]() -> MaskPtr {
        Result<Mask> made = cutMask(*from.skin, job.get<BlankChapter>().landmarks, from.opened(), wish,
                                    from.strainLimit, vertices, precision, "", task);
        if (made) return std::make_shared<const Mask>(std::move(*made));
        problem = made.error();
        return nullptr;
    };
    // Previews are drawn once, while something is dragged: nobody asks for them again.
    const MaskPtr cut = precision == Precision::Preview
                            ? cutIt()
                            : cuts_.get(from.keys, Solved{wish, vertices, from.otherSide}, cutIt);
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
    const int vertices = precision == Precision::Exact ? vertices_ : kPreviewVertices;
    const Result<MaskPtr> left = cutLeft(job, spec, *from, vertices, precision, task);
    if (!left) return left.error();
    return onSideOf(spec, *left);
}

Result<MaskPtr> Derivations::mask(const Job& job, const MaskSpec& spec, int vertices, const Task& task) {
    const Result<Sources> from = sourcesOf(job, spec);
    if (!from) return from.error();
    std::optional<Error> problem;
    const MaskWish wish = wishOf(job, spec);
    MaskPtr left = masks_.get(from->keys, Solved{wish, vertices, from->otherSide}, [&]() -> MaskPtr {
        const Result<MaskPtr> cut = cutLeft(job, spec, *from, vertices, Precision::Exact, task);
        Result<Mask> made =
            cut ? judgedMask(*from->skin, from->artPointers(), wish, **cut, task) : Result<Mask>(cut.error());
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
        const Result<ArtPtr> drawn = art(job, found->second, spec.side);
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
    if (!report.liesFlat && report.lift_mm >= kMostLift_mm)
        return said(NINE_WORDS(
                        "core",
                        "{mask} {side} cannot lie flat: it must stretch by {need}, {material} takes {takes}. "
                        "It stands off by {lift} or more. Slit it, split it, or take a softer sheet."))
            .length("lift", kMostLift_mm, 0);
    if (!report.liesFlat)
        return said(NINE_WORDS(
                        "core",
                        "{mask} {side} cannot lie flat: it must stretch by {need}, {material} takes {takes}. "
                        "It stands off by up to {lift}. Slit it, split it, or take a softer sheet."))
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
