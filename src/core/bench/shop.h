// The shop as far as planning a day needs it: hands, guns, places to rest, what cleaning takes, the circuit.
//
// Times and loads are common practice, no published source, or guesses; each shop sets its own.
#pragma once

#include <span>
#include <string>
#include <vector>

#include "base/result.h"
#include "base/units.h"

namespace nine {

/// What dries the bodies.
enum class Dryer {
    Air,    ///< nothing: heat set takes as long as dry to the touch
    Hand,   ///< a hair dryer or heat gun in the hand: takes the painter's time
    Stand,  ///< the same on a stand, or a warm box: nobody holds it
};
/// Whether a cup is cleaned at every colour, or carried on where residue does no harm.
enum class Residue { CleanAlways, CarryOn };

struct ShopWord {
    std::string_view id;
    Pattern name;
};
std::span<const ShopWord> dryerNames();    ///< in the order of Dryer
std::span<const ShopWord> residueNames();  ///< in the order of Residue

struct BenchShop {
    int painters = 1;
    int tray = 8;     ///< bodies in a tray
    int rack = 16;    ///< places where bodies dry
    int turner = 24;  ///< places on the turning motor
    Dryer dryer = Dryer::Stand;
    Residue residue = Residue::CleanAlways;
    int clean_s = 240;   ///< a cup, between two colours
    int needle_s = 300;  ///< another needle and nozzle in a gun
    int fill_s = 60;     ///< mix, strain, fill, test on paper
    int stand_s = 1200;  ///< paint may stand in a gun so long before it dries in the tip
    int opens_min = 8 * 60 + 30, closes_min = 18 * 60;  ///< of the day; the same: day and night
    int break_min = 12 * 60 + 30, breakLong_min = 30;
    Figure circuit_w = 2300, compressor_w = 450, fan_w = 120, lamp_w = 60, dryer_w = 1500;
    std::string unknownJson = {};  ///< keys of the file this version does not know
    bool operator==(const BenchShop&) const = default;
};

/// Errors: out_of_range, `path` + "." + field.
Status checkShop(const BenchShop& shop, const std::string& path);

}  // namespace nine
