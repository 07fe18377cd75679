#include "paint/cup.h"

#include <algorithm>

namespace nine {
namespace {

constexpr double kCup_ml = 30;

Status checkDrops(const Cup& cup, Ratio drops) {
    if (!(drops > 0))
        return Error{"out_of_range",
                     NINE_WORDS("core", "Nothing would go into the cup: give half a drop or more."), "drops"};
    if ((cup.drops() + drops) * kDrop_ml > kCup_ml)
        return Error{"out_of_range", NINE_WORDS("core", "A cup holds 30 ml, 600 drops; this would run over."),
                     "drops"};
    return Done{};
}

}  // namespace

Ratio Cup::paintDrops() const {
    Ratio all = 0;
    for (const MixPart& part : parts) all += part.drops;
    return all;
}

Result<Cup> withDrops(Cup cup, const std::string& bottle, Ratio drops) {
    if (Status ok = checkDrops(cup, drops); !ok) return ok.error();
    const auto found = std::find_if(cup.parts.begin(), cup.parts.end(),
                                    [&](const MixPart& part) { return part.bottle == bottle; });
    if (found == cup.parts.end())
        cup.parts.push_back({bottle, drops});
    else
        found->drops += drops;
    return cup;
}

Result<Cup> thinned(Cup cup, Ratio drops) {
    if (Status ok = checkDrops(cup, drops); !ok) return ok.error();
    cup.reducer += drops;
    return cup;
}

Cup used(Cup cup, Fraction share) {
    const Fraction left = 1 - std::clamp(share, 0.0, 1.0);
    for (MixPart& part : cup.parts) part.drops *= left;
    cup.reducer *= left;
    if (left == 0) cup.parts.clear();
    return cup;
}

Ratio reducerFor(const Cup& cup, Fraction share) {
    return std::max(0.0, share * cup.paintDrops() / (1 - share) - cup.reducer);
}

}  // namespace nine
