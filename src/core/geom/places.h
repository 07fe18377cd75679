// Places in the two planes everything goes between: the skin's own coordinates and the flat sheet.
//
// Both are two numbers in mm; as types of their own they cannot be taken for each other. A place turns into a
// plain Vec2 by itself, for arithmetic; the way back must be said: SheetPlace(v).
#pragma once

#include "geom/vec.h"

namespace nine {

template <typename Plane>
class Place : public Vec2 {
  public:
    Place() : Vec2(Vec2::Zero()) {}
    Place(double first_mm, double second_mm) : Vec2(first_mm, second_mm) {}
    explicit Place(const Vec2& v) : Vec2(v) {}
    template <typename Other>
    Place(const Place<Other>&) = delete;
};

/// x along the axis, g along the girth from the datum line; of the left side.
using SkinPlace = Place<struct OfTheSkin>;
/// u towards the tail, v towards the back, on the flat sheet as it is seen from the painted side.
using SheetPlace = Place<struct OfTheSheet>;

}  // namespace nine
