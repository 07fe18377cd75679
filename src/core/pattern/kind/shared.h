// What several kinds share: of marks derived from another, of fields, of rows.
#pragma once

#include "pattern/field.h"
#include "pattern/kind.h"

namespace nine {

/// Made from another mark, in register with it: it has no place of its own.
class DerivedKind : public Kind {
  public:
    Family family() const override { return Family::Derived; }
    std::span<const Handle> handles() const override { return {}; }
    bool hasOrigin() const override { return false; }
    bool isDerived() const override { return true; }
};

/// Along one side of another mark.
struct LitSide {
    double width_mm, toward_deg;
    /// From the mark towards that side, mm towards the tail and the back.
    Vec2 step_mm() const;
};
std::array<Param, 2> litSideParams(double usual_deg);
LitSide litSideOf(const Values& values);
/// The band as art. Where it runs out it is thinner than any blade cuts; such slivers are taken away. Errors:
/// fits_nowhere.
Result<Drawn> drawnBand(const DrawOn& on, const PolygonSet& band);

/// On all of the body within a reach; moved as a whole.
class FieldKind : public Kind {
  public:
    Family family() const override { return Family::Fields; }
    std::span<const Handle> handles() const override { return handlesOfReach(); }
    bool hasOrigin() const override { return false; }
    bool isSlow() const override { return true; }
    bool isMended(const Values&) const override { return isCut(); }
    bool isCentral(const Values& values) const override { return values.text("across") == "back"; }
    Status check(const Values& values, const std::string& path) const override {
        return checkReach(values, path);
    }
};

/// Of fields that may lie over the back.
inline constexpr Choice kFieldAcross[] = {{"side", NINE_WORDS("core", "on each side")},
                                          {"back", NINE_WORDS("core", "over the back, as one piece")}};
inline constexpr Param kSoftParam{.key = "soft",
                                  .name = NINE_WORDS("core", "Thins out over"),
                                  .type = Param::Type::Share,
                                  .low = 0.01,
                                  .high = 0.5,
                                  .usual = 0.15,
                                  .decimals = 0};
inline constexpr Param kBridgeParam{.key = "bridge_mm",
                                    .name = NINE_WORDS("core", "Bridges"),
                                    .low = 0,
                                    .high = 3,
                                    .usual = 0.62,
                                    .decimals = 2};
inline constexpr Param kAcrossParam{.key = "across",
                                    .name = NINE_WORDS("core", "Across"),
                                    .type = Param::Type::Choice,
                                    .usualText = "side",
                                    .choices = kFieldAcross,
                                    .spare = true};

/// What the cells of a chart are to a field: how far inside its reach, which of them its share is counted
/// over, how far off the back line (mm).
struct FieldCells {
    std::vector<float> inside;
    std::vector<bool> counts;
    std::vector<float> offBack_mm;
};
FieldCells cellsOf(const DrawOn& on, const Chart& chart, const FieldReach& reach, Fraction soft);

/// x, g of `count` places from the origin towards the tail, the same distance apart along the skin at its
/// height. Errors: off_body.
Result<std::vector<Vec2>> placesInRow(const DrawOn& on, std::size_t count, double spacing_mm);

/// The two ends of a row: the first moves its start and the last stays, the last spreads it.
Handle rowStart(Pattern name);
Handle rowEnd(Pattern name);

}  // namespace nine
