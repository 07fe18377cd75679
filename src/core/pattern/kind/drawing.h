// What kinds are drawn with.
#pragma once

#include <functional>

#include "pattern/kind.h"

/// At the end of a kind's file, in namespace nine: what list.h looks for.
#define NINE_KIND(name, Class)   \
    const Kind& name##Kind();    \
    const Kind& name##Kind() {   \
        static const Class kind; \
        return kind;             \
    }

namespace nine {

/// Spacing of points.
struct ArtSteps {
    double edge_mm;   ///< along edges that are nearly straight on the sheet
    double shoot_mm;  ///< a disc's radius in steps; second order, 1e-4 mm for 3 mm discs at 0.25
    double chord_mm;
    int leastRim;
};
ArtSteps artSteps(Fineness fineness);

/// A geodesic circle whose polygon has the circle's area. Errors: off_body when its middle lies off the body
/// or its rim goes over an end. About 1 ms.
Result<Outline> drawDisc(const Skin& skin, const Vec2& centre, double radius_mm, Fineness fineness,
                         const std::string& path);

/// The same of any shape: `reach` gives the distance from the middle, mm, in a direction (0 towards the tail,
/// 90 degrees towards the back), never more than `most_mm`.
Result<Outline> drawBlob(const Skin& skin, const Vec2& centre, const std::function<double(double)>& reach,
                         double most_mm, Fineness fineness, const std::string& path);

/// Reach of an oval with half axes along and across, leant back by an angle at its upper end, in a direction.
double ovalReach_mm(double along_mm, double across_mm, double lean_rad, double direction_rad);

/// `count` outlines on all cores. The first that cannot be drawn is the error.
Result<std::vector<Outline>> drawAll(std::size_t count,
                                     const std::function<Result<Outline>(std::size_t)>& draw);

/// x, g of a place so many mm of skin towards the tail and of girth towards the back from another. Errors:
/// off_body.
Result<Vec2> placeFrom(const Skin& skin, const Vec2& from, const Vec2& by_mm, const std::string& path);
/// The same for a closed line; straight edges of the shape are walked too, every `edge_mm`.
Result<Polygon2> shapeFrom(const Skin& skin, const Vec2& from, const Polygon2& shape_mm, double edge_mm,
                           const std::string& path);

/// A strip of sheet of `width_mm` by the shortest way from each island to the sheet round it; unchanged for
/// 0.
Result<PolygonSet> withBridges(const DrawOn& on, PolygonSet rings, double width_mm);

/// Handles "first", "middle" and "last" at middles of openings; the last only with two, the middle with
/// three.
std::vector<std::pair<std::string_view, Vec2>> placesOfRow(const std::vector<Vec2>& centres);

/// Spreads a row: the last opening goes along, the first stays where it is.
void spreadRow(Element& element, double by_mm);
/// Moves its first opening; the last stays.
void moveRowStart(Element& element, const Vec2& by_mm);

/// The smallest area worth cutting of a mark that is derived from another, and half the width of what is
/// taken away where it runs out.
constexpr Figure kLeastDerived_mm2 = 0.03;
constexpr double kSliver_mm = 0.1;
/// Half the finest opening and strip of derived marks (0.5 mm: common practice, no published source).
constexpr double kHalfFine_mm = 0.26;

/// Half girths along the body, looked up: for covers, which are asked a million times.
class HalfGirths {
  public:
    explicit HalfGirths(const Skin& skin);
    /// Share of the way from the back line (0) to the belly line (1), whichever side.
    Fraction shareAt(double x_mm, double g_mm) const;
    double widest_mm() const;
    /// Length of skin along the side from the nose to x.
    double skinAlong_mm(double x_mm) const;

  private:
    double from_mm_, step_mm_;
    std::vector<double> back_mm_, half_mm_, along_mm_;
};

/// Whole within an oval about a place (half axes along and across, leant by an angle), none `soft_mm` beyond
/// it. Straight through space; about 0.2 us a place.
SoftCover roundCover(const Skin& skin, const Vec2& centre, double along_mm, double across_mm, double lean_rad,
                     double soft_mm);

}  // namespace nine
