// Settings for one mask: where practice starts, moved only as far as the guns at hand and what the painter
// has pinned ask, what the edge will be like, and what the next step in each direction would spoil.
#pragma once

#include "spray/edge.h"
#include "spray/profile.h"

namespace nine {

/// Settings the painter has decided; the plan keeps them as they are.
struct SprayPins {
    std::optional<double> pressure_kpa, needle_mm, distance_mm, angle_deg, flow_ml_min, speed_mm_s, aim_mm;
    std::optional<Reduction> reduction;
    std::optional<int> coats;
    std::optional<Stroke> stroke;
    bool empty() const;
    bool operator==(const SprayPins&) const = default;
};

/// What a mask asks of the spray.
struct MaskToSpray {
    SprayWork work = SprayWork::Stencil;
    PaintFamily paint = *findPaint("opaque");
    double contact_mm = 0.03;  ///< gap where the sheet lies down
    double lift_mm = 0;        ///< where it stands off most
    double relief_mm = 0;      ///< of carving under it: it cannot lie nearer
    double pads_mm = 0;        ///< held off on purpose
    double sheet_mm = 0;       ///< thickness of the mask
    double wantedWidth_mm = 0.2;
    bool soft = false;  ///< an edge as wide as wanted, instead of that or sharper
    double gap_mm() const { return contact_mm + std::max(lift_mm, relief_mm) + pads_mm; }
};

/// What a step away from the plan does.
struct SprayStep {
    enum class Way { LowerPressure, HigherPressure, Closer, Farther, SmallerNeedle, LargerNeedle, Thinner };
    Way way;
    Words words;  ///< "at 11 psi drops are 21 um: the grain shows (limit 18)"
    bool spoils;  ///< false when nothing is spoilt up to the end of practice
};

/// What to change first when an edge misses the wish, and what the edge is then.
struct SprayRemedy {
    Words words;                     ///< "hold the sheet off on pads of 4.6 mm"
    std::optional<double> width_mm;  ///< then
    std::optional<double> pads_mm;   ///< change the pads to this
    std::optional<SprayPins> pins;   ///< pin this; without both it is a matter of the mask, not of the gun
};

struct SprayPlan {
    SpraySetting setting;
    SprayPractice practice;
    Gun gun;
    int coats = 1, passes = 1;
    double gap_mm = 0;
    double coat_um = 0, run_um = 0;  ///< wet film of a coat at the middle of the spray, and where it runs
    EdgeFigures edge{}, along{}, across{};  ///< as planned; strokes along the edge, and across it
    bool meetsWish = false;
    std::optional<SprayRemedy> remedy;  ///< when it misses the wish and something was found
    /// What comes from practice, what was computed, and what to change first.
    std::vector<Words> reasons;
    std::vector<SprayStep> steps;
    Warnings warnings;  ///< those of the edge; outside_practice, runs
};

/// Of the guns the smallest needle that gives the flow with the trigger at most nearly full back, unless
/// pinned. Errors: no_gun; pins_contradict, whose place names the pin that binds ("pins.needle_mm") and whose
/// text what it asks for against what; those of edgeFigures. Cost: 2 ms.
Result<SprayPlan> planSpray(const MaskToSpray& mask, const SprayBench& bench, const SprayPins& pins = {});

/// Without the pin that is written in a field ("needle_mm").
SprayPins released(const SprayPins& pins, const std::string& field);

/// Whether each pin by itself is inside the model. Errors: out_of_range, `path` + "." + field.
Status checkPins(const SprayPins& pins, const std::string& path);

}  // namespace nine
