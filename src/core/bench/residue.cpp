#include "bench/residue.h"

namespace nine {
namespace {

constexpr Figure kAnything = 1000, kNothing = -1;
constexpr ResidueRow kResidueRows[] = {
    {"pearl", "pearl", 25, kAnything, true, NINE_WORDS("core", "flakes among flakes")},
    {"metallic", "metallic", 25, kAnything, true, NINE_WORDS("core", "flakes among flakes")},
    {"pearl", "", kNothing, kAnything, false, NINE_WORDS("core", "flakes stay in the cup")},
    {"metallic", "", kNothing, kAnything, false, NINE_WORDS("core", "flakes stay in the cup")},
    {"", "fluorescent", kNothing, kAnything, false, NINE_WORDS("core", "a trace of anything dulls a neon")},
    {"", "pearl", kNothing, kAnything, false, NINE_WORDS("core", "a trace of colour shows in pearl")},
    {"", "candy", 12, kAnything, true, NINE_WORDS("core", "candies take only their own kin")},
    {"", "", 15, 12, true, NINE_WORDS("core", "related, or darker than what was in it")},
};

}  // namespace

std::span<const ResidueRow> residueRows() {
    return kResidueRows;
}

bool carriesOn(Residue school, const CupContent& before, const CupContent& next) {
    if (before.key == next.key) return true;
    if (school == Residue::CleanAlways || before.solvent != next.solvent) return false;
    for (const ResidueRow& row : kResidueRows) {
        if (!row.from.empty() && row.from != before.family) continue;
        if (!row.to.empty() && row.to != next.family) continue;
        const bool related = difference(before.lab, next.lab) <= row.within;
        const bool darker = before.lab.l - next.lab.l >= row.darkerBy;
        return row.carriesOn && (related || darker);
    }
    return false;
}

}  // namespace nine
