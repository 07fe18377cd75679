// Walking on the skin along a line of constant g (parallel to the datum line), measured along the skin.
//
// Offsets of art are millimetres of skin, not of the axis: on a steep nose 4 mm of skin may be 2 mm of x.
#pragma once

#include "blank/skin.h"

namespace nine {

/// x after walking `distance_mm` (towards the tail if positive) from `x_mm` along the line of constant
/// `g_mm`; exact to 1e-6 mm. Errors: off_body when an end of the body is reached first; `where` as given.
Result<double> walkAlong(const Skin& skin, double x_mm, double g_mm, double distance_mm,
                         const std::string& where);

/// What walkAlong has to walk to get from one x to the other (negative towards the nose), right to 1e-5 mm.
/// Errors: off_body.
Result<double> distanceAlong(const Skin& skin, double from_mm, double to_mm, double g_mm,
                             const std::string& where);

/// Points of a line g(s) = g_mm + rise(s), starting at x_mm, at the given ascending arc lengths (mm, from 0)
/// along the skin. Returns x, g of each. Errors: off_body.
template <typename Rise>
Result<std::vector<Vec2>> walkLine(const Skin& skin, double x_mm, double g_mm, const Rise& rise,
                                   const std::vector<double>& at_mm, const std::string& where);

namespace detail {
/// One step: x of the point at girth `toG` whose distance along the skin from (x, g) is `step_mm`.
Result<double> stepTo(const Skin& skin, double x_mm, double g_mm, double toG_mm, double step_mm,
                      const std::string& where);
constexpr double kWalkStep_mm = 1;  // arcLength is then right to 1e-5 mm at a radius of 3 mm
}  // namespace detail

template <typename Rise>
Result<std::vector<Vec2>> walkLine(const Skin& skin, double x_mm, double g_mm, const Rise& rise,
                                   const std::vector<double>& at_mm, const std::string& where) {
    std::vector<Vec2> line;
    double at_x_mm = x_mm, s_mm = 0;
    for (const double target : at_mm) {
        const int steps = static_cast<int>(std::ceil((target - s_mm) / detail::kWalkStep_mm));
        const double h_mm = steps > 0 ? (target - s_mm) / steps : 0;
        for (int i = 0; i < steps; ++i) {
            const double from_mm = g_mm + rise(s_mm + i * h_mm), to_mm = g_mm + rise(s_mm + (i + 1) * h_mm);
            const Result<double> next = detail::stepTo(skin, at_x_mm, from_mm, to_mm, h_mm, where);
            if (!next) return next.error();
            at_x_mm = *next;
        }
        s_mm = target;
        line.emplace_back(at_x_mm, g_mm + rise(s_mm));
    }
    return line;
}

}  // namespace nine
