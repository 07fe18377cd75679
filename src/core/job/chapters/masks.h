// The masks that are asked for.
#pragma once

#include "job/chapter.h"
#include "mask/mask.h"

namespace nine {

/// Given masks; with none, every element gets one on each side it stands on.
struct MasksChapter {
    std::vector<MaskSpecPtr> masks;
    bool billCover = false;  ///< a piece that is folded over the bill is cut with them (job/bill_cover.h)
    std::string unknownJson = {};
};

/// In step with the pattern: elements that are gone, or do not stand on a mask's side, are taken out of it,
/// and masks without any; an element that no mask opens on a side it stands on gets one there, like its mask
/// of the other side. Does nothing to jobs without masks of their own.
template <>
struct ChapterOf<MasksChapter> : UsualChapter<MasksChapter> {
    static constexpr const char* key = "masks";
    static MasksChapter read(json::Fields& fields, Warnings& warnings);
    static void write(json::Json& into, const MasksChapter& masks);
    static Status check(const Job& job);
    static std::shared_ptr<const MasksChapter> inStep(const Job& job,
                                                      const std::shared_ptr<const MasksChapter>& now);
};

Job withMasks(const Job& job, std::vector<MaskSpecPtr> masks);

/// The mask specs in force: those given, or one film mask, held loose, per element and side.
std::vector<MaskSpecPtr> maskSpecs(const Job& job);

/// Where a mask stands in the job file: "masks.masks[2]", or "masks.ID" when the job gives none and it
/// follows from the pattern.
std::string placeOf(const Job& job, const MaskSpec& spec);

}  // namespace nine
