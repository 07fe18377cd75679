// The net after it was cut off along the gathered line and clipped: where it stands off the skin.
//
// Rows of the pulled net become a membrane in space, held by the clips, at the nose and at the hook, kept out
// of the body by contact; between the clips it is let go, and what is too much of it lengthwise buckles out.
// The threads have no bending stiffness; whether knots resist being pushed together decides the stand-off at
// the gathered line within a factor of two, so it is found for both and told as a range. No friction.
//
// Cost: 0.3-0.5 s for each end of the range, both on two threads.
#pragma once

#include <functional>

#include "scale/drape.h"

namespace nine {

struct Clip {
    double x_mm = 0;  ///< of its middle, from the nose along the axis
    bool operator==(const Clip&) const = default;
};

struct ClipWish {
    std::vector<Clip> clips;  ///< ascending
    double clip_mm = 6;       ///< how much of the line one holds
    double lift_pa = 20;      ///< what lifts the net: air and its own spring
    bool operator==(const ClipWish&) const = default;
};

constexpr double kNarrowestClip_mm = 1, kWidestClip_mm = 40;
constexpr std::size_t kMostClips = 60;

struct StandOff {
    double least_mm = 0, most_mm = 0;  ///< both ends of the range
    double x_mm = 0, g_mm = 0;         ///< where it is greatest
};

struct ClippedNet {
    HalfGrid grid;
    std::vector<Vec2> net_mm;  ///< of each point
    std::vector<Vec3> places;  ///< of each point in space, knots soft: the farther ends of the range
    std::vector<double> least_mm, most_mm;  ///< stand-off of each point
    StandOff worst;
    /// The greatest stand-off on the half towards the gathered line, which clips answer for: from each clip
    /// to the next, before the first (at 0) and behind the last.
    std::vector<StandOff> between;
    StandOff elsewhere;  ///< on the other half: a gather at an end, which no clip mends
};

/// Share of the half girth from which clips are answerable.
constexpr Fraction kClipsFrom = 0.55;

/// Depth of carving at x, g of the left side; null for a smooth body.
using ReliefAt = std::function<double(const Vec2&)>;

/// Errors: out_of_range, clip_off_net (with the clip's place: the net does not lie there), clips_too_close.
Status checkClips(const Drape& drape, const ClipWish& wish, const std::string& path);

/// The drape must be whole (reach.downTo 1); clips must pass checkClips. Errors: cancelled, not_settled.
Result<std::shared_ptr<const ClippedNet>> clipNet(const Skin& skin, const Drape& drape, const ClipWish& wish,
                                                  const ReliefAt& relief = {}, const Task& task = {});

}  // namespace nine
