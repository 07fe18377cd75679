// The questions a painter answers before a step goes on: nearly every ruined bait is one of them forgotten.
//
// Gates follow from the recipe and from what is known of body and tools; each is a row of gateRows(). Source:
// common practice, no published source; where it can hurt, they defer to the product's data sheet.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "recipe/recipe.h"

namespace nine {

/// What is set at the gun for a step.
struct GunSetting {
    std::string gun;
    double pressure_kpa = 0, needle_mm = 0, distance_mm = 0, angle_deg = 0;
    int coats = 1;
    double length_s = 0;  ///< a stroke over one body length takes so long
    int body_s = 0;       ///< of spraying, one body and coat
    bool operator==(const GunSetting&) const = default;
};

/// "15 psi (1.0 bar)".
Words pressureWords(double pressure_kpa);

struct GateView {
    const Recipe& recipe;
    const RecipeFacts& facts;
    std::size_t step = 0;
    int coat = 1;              ///< 1 is the first
    bool firstSpray = false;   ///< nothing was sprayed on these bodies before
    bool maskUsed = false;     ///< the mask was on other bodies before, or on the other side
    bool oneSideOnly = false;  ///< its marks stand on both sides, and it is cut for one
    bool scales = false;       ///< it has openings that point somewhere
    int openings = 0, clips = 0;
    Words marks = {};  ///< "A 12.4 mm behind the gill plate, B ...": what the mask is lined up on; or nothing
    std::optional<GunSetting> gun, before;  ///< of this step, and of what was sprayed before it

    const Step& at() const { return recipe.steps[step]; }
    const MaskFact* mask() const;
};

struct Gate {
    std::string id;  ///< of its row
    Words says;
    bool after = false;  ///< asked when the step is done
    bool hurts = false;  ///< a matter of health
    int openings = 0;    ///< to be ticked off, one by one or all at once
};

struct GateRow {
    std::string_view id;
    Pattern name;  ///< in a list, where it can be switched off
    bool after, hurts;
    bool (*asks)(const GateView&);
    Words (*says)(const GateView&);
};
std::span<const GateRow> gateRows();

/// In the order they are asked.
std::vector<Gate> gatesOf(const GateView& view);

}  // namespace nine
