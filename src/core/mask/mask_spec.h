// What the painter asks of one mask.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "blank/skin.h"
#include "geom/rewrap.h"
#include "mask/mask_kind.h"

namespace nine {

enum class Apply { Loose, Lateral, Back };      ///< how the sheet is laid on: see Laying
enum class Pressed { Light, Fingertip, Held };  ///< what holds the sheet down while it is sprayed
double pressureOf_kpa(Pressed pressed);
const char* pressedName(Pressed pressed);
Laying layingOf(Apply apply);
const char* applyName(Apply apply);

/// How what would fall out of a window (a ring's core, the inside of a letter) is held.
struct BridgeWish {
    bool loose = false;         ///< not at all: it is laid by itself, by its number
    double width_mm = 0;        ///< of a bridge; 0: what material and tool ask for
    std::vector<Vec2> at = {};  ///< x, g: islands near these are held there, the others where it costs least

    bool operator==(const BridgeWish&) const = default;
};
constexpr double kNarrowestBridge_mm = 0.2, kWidestBridge_mm = 10;

/// Whether what is cut out of the windows is kept, and on what.
enum class Cutouts { Dropped, Kept, OnCarrier };
const char* cutoutsName(Cutouts cutouts);
/// What covers the skin while it is sprayed: the sheet, what was cut out of it, or first one and then the
/// other.
enum class Covers { Sheet, Cutouts, InTurn };
const char* coversName(Covers covers);

/// All that solving a mask reads, and nothing else. What is remembered of a mask is found again by comparing
/// wishes whole, so that a new field cannot be forgotten.
struct MaskWish {
    std::string kind = kUsualMaskKind;  ///< of maskKinds(), or one this version does not know: no sheet
    std::vector<std::string> elements;  ///< ids
    std::string material = "film";
    Apply apply = Apply::Loose;
    Pressed pressed = Pressed::Fingertip;
    Values values = usualValues(findMaskKind(kUsualMaskKind)->params());  ///< of its kind
    std::vector<Slit> slits = {};  ///< in the chart of its sheets; mouths are led on to the border
    BridgeWish bridges = {};

    bool operator==(const MaskWish&) const = default;
};

struct MaskSpec {
    std::string id;
    std::string name;  ///< as shown and written on the sheet
    Side side = Side::Left;
    MaskWish wish;
    Cutouts cutouts = Cutouts::Dropped;
    Covers covers = Covers::Sheet;
    std::string unknownJson;  ///< keys of the file this version does not know; of an unknown kind all of it

    const std::string& shownName() const { return name.empty() ? id : name; }
    /// Cut-outs that cover are kept whatever was said of them.
    bool keepsCutouts() const { return cutouts != Cutouts::Dropped || covers != Covers::Sheet; }
    bool known() const { return findMaskKind(wish.kind) != nullptr; }
};
using MaskSpecPtr = std::shared_ptr<const MaskSpec>;

}  // namespace nine
