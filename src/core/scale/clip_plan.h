// The fewest clips that keep a net close enough.
//
// The allowed gap is an input: what the wanted edge bears. Only the half of the net towards the gathered line
// counts, since what stands off elsewhere no clip can help. Clips begin at both ends and beside what must be
// kept clear, with others spread evenly between; where a gap stands off too far it gets one more, and when
// all keep, clips are taken out again one by one as long as all still keep.
//
// Cost: one clipped net a trial, at most 16 trials; what has been found so far is handed out as it comes.
#pragma once

#include <functional>

#include "scale/clipped.h"

namespace nine {

/// Of the gathered line: where no clip may sit (the bill, hangers), x of its ends.
using KeptClear = std::vector<std::pair<double, double>>;

constexpr double kLeastAllowed_mm = 0.05, kMostAllowed_mm = 20;

struct ClipPlanWish {
    double allowed_mm = 0.5;  ///< stand-off the wanted edge bears
    double clip_mm = 6;
    double lift_pa = 20;
    KeptClear clear;
};

struct ClipPlan {
    std::vector<Clip> clips;
    double standOff_mm = 0;  ///< the worst that is left, farther end of the range
    bool keeps = false;      ///< within what is allowed
    int trials = 0;
};

/// The plan handed to `better` is always at least as good as the one before: it keeps what is allowed with
/// fewer clips, or does not keep it but comes nearer. Errors: out_of_range, cancelled (only before the first
/// plan).
Result<ClipPlan> planClips(const Skin& skin, const Drape& drape, const ClipPlanWish& wish,
                           const ReliefAt& relief = {},
                           const std::function<void(const ClipPlan&)>& better = {}, const Task& task = {});

}  // namespace nine
