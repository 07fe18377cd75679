// What kinds that are fields have in common: how far they reach, how density changes over the body, and how a
// field becomes art.
#pragma once

#include "pattern/chart.h"
#include "pattern/kind.h"
#include "pattern/natural.h"
#include "pattern/noise.h"

namespace nine {

/// Where a field lies: from x0 to x1 as shares of the body's length, from one share of the half girth (0
/// back, 1 belly) to another. It thins out over the last part of each side.
struct FieldReach {
    Fraction fromLength, toLength;
    Fraction fromGirth, toGirth;
    bool overBack = false;  ///< one piece over the back, to as far down on the other side
};

inline constexpr std::array<Param, 5> kReachParams{
    Param{.key = "from_length",
          .name = NINE_WORDS("core", "Begins along the body"),
          .type = Param::Type::Share,
          .low = 0,
          .high = 1,
          .usual = 0.12,
          .decimals = 0},
    Param{.key = "to_length",
          .name = NINE_WORDS("core", "Ends along the body"),
          .type = Param::Type::Share,
          .low = 0,
          .high = 1,
          .usual = 0.94,
          .decimals = 0},
    Param{.key = "from_girth",
          .name = NINE_WORDS("core", "Begins down the side"),
          .type = Param::Type::Share,
          .low = 0,
          .high = 1,
          .usual = 0.08,
          .decimals = 0},
    Param{.key = "to_girth",
          .name = NINE_WORDS("core", "Ends down the side"),
          .type = Param::Type::Share,
          .low = 0,
          .high = 1,
          .usual = 0.5,
          .decimals = 0},
    Param{.key = "seed",
          .name = NINE_WORDS("core", "Seed"),
          .type = Param::Type::Seed,
          .low = 0,
          .high = 9999,
          .usual = 1,
          .decimals = 0},
};
FieldReach reachOf(const Values& values);
Status checkReach(const Values& values, const std::string& path);

/// Moved as a whole by the element's dx_mm, dg_mm.
Chart::Wish wishOf(const DrawOn& on, const FieldReach& reach, double cell_mm);

/// 1 well inside its reach, falling to 0 at its edges over `soft` of the half girth and of the length.
Fraction insideOf(const FieldReach& reach, const Skin& skin, double x_mm, Fraction share, Fraction soft);

/// Corners of the reach for handles: "upper", "lower", "first", "last".
std::vector<std::pair<std::string_view, Vec2>> placesOfReach(const DrawOn& on, const FieldReach& reach);
std::span<const Handle> handlesOfReach();

/// Noise that is the same on both sides but for the back, where each has its own (mixed over 2.5 to 6 mm off
/// the back line): flanks are mirrored, and the back shows no mirror. Common practice, no published source.
class SidedNoise {
  public:
    SidedNoise(double size_mm, std::uint64_t seed, int octaves = 1);
    Figure at(const Vec3& p, double fromBack_mm) const;

  private:
    Noise both_, own_;
};

/// The labyrinth that `start` grows into: tanh(7 (near - far) + bias), repeated, near and far being
/// diffusions of sigma wavelength / 6.1 and 1.8 times that; so that it is positive on a share of the cells
/// that `counts` marks. `inside` (0..1) takes it back where the field thins out. About 0.2 us a cell and
/// round. Errors: cancelled.
struct Labyrinth {
    double wavelength_mm;
    Fraction cover;
    Ratio pull;  ///< longer along the body
    int rounds;
};
Result<Field> grownLabyrinth(const Chart& chart, Field start, const Labyrinth& wish,
                             const std::vector<float>& inside, const std::vector<bool>& counts,
                             const Task& task);

/// The field cut off at the height where, once cleaned (Chart::cleaned), it covers a share of the cells that
/// `counts` marks, within half a per cent where the field allows it; cleaned, without islands smaller than a
/// dot of `least_mm`. Cost: a few cleanings.
Field cleanedToCover(const Chart& chart, const Field& field, Fraction cover, const std::vector<bool>& counts,
                     double close_mm, double open_mm, double least_mm);

/// Art of a field: cut clean of necks and slivers below `least_mm`, islands joined to the sheet by a bridge
/// of `bridge_mm` (0: none). Errors: fits_nowhere.
Result<Drawn> drawnField(const DrawOn& on, const Chart& chart, const Field& field, double least_mm,
                         double bridge_mm);

}  // namespace nine
