// How masks are sprayed.
#pragma once

#include "job/chapter.h"
#include "spray/plan.h"

namespace nine {

/// How one mask is sprayed: what it shall look like, and what the painter has settled.
struct SpraySpec {
    std::string mask;  ///< id
    std::string paint = "opaque";
    std::optional<double> soft_mm;  ///< an edge of this width; without it a sharp one
    double pads_mm = 0;             ///< held off on purpose
    double relief_mm = 0;           ///< depth of carving under the mask
    SprayPins pins;
    std::string unknownJson, unknownPinsJson;
};

struct SprayChapter {
    std::vector<SpraySpec> masks;  ///< those that differ from the usual
    std::string unknownJson = {};
};

constexpr double kSharp_mm = 0.2, kSoftest_mm = 20, kMostPads_mm = 20, kMostRelief_mm = 5;

/// In step with the masks: what is said of masks that are gone is taken out.
template <>
struct ChapterOf<SprayChapter> : UsualChapter<SprayChapter> {
    static constexpr const char* key = "spray";
    static SprayChapter read(json::Fields& fields, Warnings& warnings);
    static void write(json::Json& into, const SprayChapter& spray);
    static Status check(const Job& job);
    static std::shared_ptr<const SprayChapter> inStep(const Job& job,
                                                      const std::shared_ptr<const SprayChapter>& now);
};

/// What is said of spraying a mask; a spec of its own if nothing was said.
SpraySpec sprayOfMask(const Job& job, const std::string& mask);
/// Replaces what is said of the mask it names.
Job withSpray(const Job& job, SpraySpec spec);

}  // namespace nine
