// What may follow what in a cup that is not cleaned.
#pragma once

#include <span>

#include "bench/shop.h"
#include "bench/work.h"

namespace nine {

/// The first row that fits decides. Common practice, no published source; the figures are judgements.
struct ResidueRow {
    std::string_view from, to;  ///< paint families; empty: any
    Figure within;              ///< CIEDE2000: colours as near as this are related
    Figure darkerBy;            ///< of L*: or the next is darker by this
    bool carriesOn;
    Pattern why;
};
std::span<const ResidueRow> residueRows();

/// Whether `next` may go into a cup that `before` was in, without cleaning it. The same content always may;
/// water and solvent never.
bool carriesOn(Residue school, const CupContent& before, const CupContent& next);

}  // namespace nine
