// The same pattern on another blank: what becomes of each mark, and what mends it.
//
// Marks are measured from landmarks; sizes follow the body by the rule of each parameter (pattern/param.h:
// stays, with the length, with the girth, with its root), which a painter may change for one element. An
// element remembers the body it was made for (Home): going on to another body and back changes nothing, and
// going by way of a third is the same as going straight. Masks, sprays and places on the sheet go along by
// id.
//
// To the blank it already wears a job is handed back as it is, with the same chapters. Cost: 1 to 3 ms a mark
// at a glance, a tenth of a second a field.
#pragma once

#include "job/derive.h"

namespace nine {

enum class Fate {
    Kept,           ///< as it was
    Moved,          ///< only its place
    Rescaled,       ///< sizes followed the body
    Fewer,          ///< in the row
    More,           ///< in the row
    Collides,       ///< with an eye, a hook eye, the bill or the gill plate, as it did not before
    FallsOff,       ///< the body, or finds no room on it
    Overlaps,       ///< a neighbour, or itself, as it did not before
    AnchorMissing,  ///< the new blank has no such landmark and its kind usually has none
    Unknown         ///< a kind this version does not know: kept as it is
};
/// "kept", "falls_off", as on the command line.
std::string_view idOf(Fate fate);
/// Whether something is to be done about it.
inline bool isTrouble(Fate fate) {
    return fate == Fate::Collides || fate == Fate::FallsOff || fate == Fate::Overlaps ||
           fate == Fate::AnchorMissing;
}

struct RefittedElement {
    std::string id;
    Fate fate = Fate::Kept;
    Words says;  ///< a sentence on it
    ElementPtr repaired =
        {};             ///< as it would be mended; null when there is nothing to mend or no way was found
    Words repair = {};  ///< what that would do
};

struct RefittedJob {
    Job job;  ///< wearing the new blank; marks in trouble are there as they came out
    std::vector<RefittedElement> elements;  ///< of each element, in order
    std::vector<std::string> offered;       ///< landmarks that were laid where its kind usually has them
    Warnings warnings;                      ///< landmark_offered; what of masks and sheets does not go along
};

/// Errors: those of the blank; cancelled.
Result<RefittedJob> refitJob(const Job& job, const BlankChapter& blank, Derivations& derived,
                             const Task& task = {});

/// The refit with one element mended, or all of them.
Job withRepairs(const RefittedJob& refit, const std::vector<std::string>& ids);

/// Largest girth of a body, mm.
double largestGirth_mm(const Skin& skin);

}  // namespace nine
