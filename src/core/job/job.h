// The job: one immutable value that holds all a painter has decided, in chapters.
//
// Chapters, elements and mask specs are shared and never changed: an edit makes a new Job that shares all it
// did not touch, so what changed between two jobs is pointer inequality.
//
//     Job next = job.with(cut);                      // a CutChapter
//     const SheetSize sheet = next.get<CutChapter>().sheet;
#pragma once

#include <bitset>
#include <tuple>

#include "job/chapters/bench.h"
#include "job/chapters/blank.h"
#include "job/chapters/cut.h"
#include "job/chapters/layers.h"
#include "job/chapters/masks.h"
#include "job/chapters/pattern.h"
#include "job/chapters/scales.h"
#include "job/chapters/spray.h"

namespace nine {

constexpr int kJobFormat = 3;

template <typename... C>
struct ChapterList {
    static constexpr std::size_t count = sizeof...(C);
    std::tuple<std::shared_ptr<const C>...> all{std::make_shared<const C>()...};

    bool operator==(const ChapterList&) const = default;
    template <typename Wanted>
    static constexpr std::size_t placeOf() {
        std::size_t place = 0, at = 0;
        ((std::is_same_v<Wanted, C> ? (at = place) : place, ++place), ...);
        return at;
    }
    /// Calls `f.template operator()<C>()` for each chapter, in order.
    template <typename F>
    static void each(F&& f) {
        (f.template operator()<C>(), ...);
    }
};

/// The chapters of a job in the order of the file; each may only rest on those before it.
using Chapters = ChapterList<BlankChapter, PatternChapter, MasksChapter, CutChapter, SprayChapter,
                             ScalesChapter, LayersChapter, BenchChapter>;

struct Job {
    Chapters chapters;
    std::string unknownJson;

    template <typename C>
    const std::shared_ptr<const C>& part() const {
        return std::get<std::shared_ptr<const C>>(chapters.all);
    }
    template <typename C>
    const C& get() const {
        return *part<C>();
    }
    template <typename C>
    Job withPart(std::shared_ptr<const C> chapter) const {
        Job next = *this;
        std::get<std::shared_ptr<const C>>(next.chapters.all) = std::move(chapter);
        return next;
    }
    template <typename C>
    Job with(C chapter) const {
        return withPart(std::make_shared<const C>(std::move(chapter)));
    }
    bool operator==(const Job&) const = default;  ///< the same values shared, not merely equal ones
};

/// A set of chapters: what differs between two jobs, what something is computed from.
using Parts = std::bitset<Chapters::count>;
template <typename... C>
Parts partsOf() {
    Parts parts;
    (parts.set(Chapters::placeOf<C>()), ...);
    return parts;
}
inline Parts allParts() {
    return ~Parts();
}
Parts differing(const Job& before, const Job& after);

/// Chapters brought in step with those before them (ChapterOf::inStep). Call after elements or masks were
/// added, taken out, linked or unlinked.
Job inStep(const Job& job);

constexpr std::ptrdiff_t kMostNameLetters = 200;
/// Names go on sheets and cards: longer ones are a mistake, and would be written a thousand times.
Status checkName(const std::string& name, const std::string& path);

/// What the numbers cannot say by themselves: ids unique, masks name elements and sprays masks that exist.
/// Errors with field paths.
Status checkJob(const Job& job);

}  // namespace nine
