// The seven usual kinds of lure bodies: a normalised shape each, with its usual landmarks.
//
//     Result<FamilyBody> body = bodyOfFamily("minnow", {104, 17.5, 13.6, {{43.7, 17.5, 13.6, {}}}});
//
// A body begins as the kind's shape at the given length, height and width; readings then pull it to what was
// measured. Values nobody measured are marked as assumed. The shapes are invented from common practice, no
// published source: a start to be corrected, not data.
#pragma once

#include <optional>

#include "base/units.h"
#include "blank/landmarks.h"

namespace nine {

struct BodyFamily {
    std::string_view id;
    Pattern name, about;
    Ratio heightShare, widthShare;  ///< of the length, where nothing is known
    Ratio section;
};
const std::vector<BodyFamily>& bodyFamilies();
const BodyFamily* findFamily(std::string_view id);

/// What was measured at one place; any of the sizes may be missing.
struct FamilyReading {
    double x_mm = 0;
    std::optional<double> height_mm, width_mm, girth_mm;
};

struct FamilyReadings {
    double length_mm = 0;
    std::optional<double> height_mm, width_mm;  ///< the largest of the body
    std::vector<FamilyReading> places;
};

struct FamilyBody {
    StationTable table;
    Landmarks landmarks;
};

/// Errors: unknown_family, missing (no length), contradiction (a reading above the largest, beyond the body,
/// twice at one place, a size of 0), girth_impossible.
Result<FamilyBody> bodyOfFamily(std::string_view family, const FamilyReadings& readings);

/// The kind's landmarks laid on any body, all marked as assumed.
Landmarks usualLandmarks(std::string_view family, const Skin& skin);

/// The kind whose proportions are nearest: of height and width over length.
std::string_view likelyFamily(Ratio heightShare, Ratio widthShare);

}  // namespace nine
