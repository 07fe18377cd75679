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

    bool operator==(const MaskWish&) const = default;
};

struct MaskSpec {
    std::string id;
    std::string name;  ///< as shown and written on the sheet
    Side side = Side::Left;
    MaskWish wish;
    std::string unknownJson;  ///< keys of the file this version does not know; of an unknown kind all of it

    const std::string& shownName() const { return name.empty() ? id : name; }
    bool known() const { return findMaskKind(wish.kind) != nullptr; }
};
using MaskSpecPtr = std::shared_ptr<const MaskSpec>;

}  // namespace nine
