// How scales are put on: the net, how it is pulled and clipped, what it is hung under or over, and the lines
// pressed into foil. Cut lattices are elements of the pattern and masks as any other.
#pragma once

#include "job/chapter.h"
#include "scale/cells.h"
#include "scale/choose.h"
#include "scale/clip_plan.h"
#include "scale/foil_lines.h"
#include "scale/light.h"

namespace nine {

struct ScalesChapter {
    std::optional<Net> net;  ///< as it was when it was chosen; nothing: no net is used
    bool doubled = false;
    NetShift second{0.92, 0, 0};  ///< of the second layer when it is doubled
    ScaleWish wish;
    double pull_n_m = 60;
    Gather gather = Gather::Belly;
    std::string hook = "tail";  ///< or a landmark: the net is held there and ends there
    NetReach reach;
    std::vector<Clip> clips;
    double clip_mm = 6, allowed_mm = 0.5;
    int usesLeft = -1;  ///< of this piece; -1: as new
    bool liftWet = false;
    std::string mask;                     ///< id of a mask on the body with the net; empty for none
    bool netUnder = true;                 ///< the net lies under that mask, which then comes off first
    double slant_deg = 0, from_deg = 90;  ///< of the mist: off the normal, and where it comes from
    std::optional<FoilWish> foil;
    std::string unknownJson, unknownWishJson, unknownFoilJson;
};

constexpr double kMostSlant_deg = 80;

namespace json {
/// A net as an object of a file. Throws Bad: missing, bad_value, those of checkNet.
Net readNet(Fields& fields, const std::string& path);
Json netJson(const Net& net);
}  // namespace json

template <>
struct ChapterOf<ScalesChapter> : UsualChapter<ScalesChapter> {
    static constexpr const char* key = "scales";
    static ScalesChapter read(json::Fields& fields, Warnings& warnings);
    static void write(json::Json& into, const ScalesChapter& scales);
    /// Errors: unknown_mask, no_hanger (the hook is a landmark the blank does not have).
    static Status check(const Job& job);
    /// What names a mask or a landmark that is gone names none.
    static std::shared_ptr<const ScalesChapter> inStep(const Job& job,
                                                       const std::shared_ptr<const ScalesChapter>& now);
};

}  // namespace nine
