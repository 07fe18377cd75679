#include "paint/colour_words.h"

#include <cmath>
#include <numbers>

namespace nine {
namespace {

struct Hue {
    double upTo_deg;  ///< of the angle in Lab
    Pattern dark, plain, pale;
};
constexpr Hue kHues[] = {
    {28, NINE_WORDS("core", "dark crimson"), NINE_WORDS("core", "crimson"), NINE_WORDS("core", "pink")},
    {49, NINE_WORDS("core", "dark red"), NINE_WORDS("core", "red"), NINE_WORDS("core", "salmon")},
    {78, NINE_WORDS("core", "brown"), NINE_WORDS("core", "orange"), NINE_WORDS("core", "peach")},
    {96, NINE_WORDS("core", "dark ochre"), NINE_WORDS("core", "golden yellow"), NINE_WORDS("core", "cream")},
    {110, NINE_WORDS("core", "olive"), NINE_WORDS("core", "yellow"), NINE_WORDS("core", "pale yellow")},
    {126, NINE_WORDS("core", "dark moss green"), NINE_WORDS("core", "lime"), NINE_WORDS("core", "pale lime")},
    {172, NINE_WORDS("core", "dark green"), NINE_WORDS("core", "green"), NINE_WORDS("core", "pale green")},
    {222, NINE_WORDS("core", "dark teal"), NINE_WORDS("core", "turquoise"),
     NINE_WORDS("core", "pale turquoise")},
    {265, NINE_WORDS("core", "dark steel blue"), NINE_WORDS("core", "sky blue"),
     NINE_WORDS("core", "pale blue")},
    {308, NINE_WORDS("core", "dark blue"), NINE_WORDS("core", "blue"), NINE_WORDS("core", "pale blue")},
    {327.5, NINE_WORDS("core", "dark purple"), NINE_WORDS("core", "violet"), NINE_WORDS("core", "lilac")},
    {352, NINE_WORDS("core", "dark crimson"), NINE_WORDS("core", "magenta"), NINE_WORDS("core", "pink")},
    {360, NINE_WORDS("core", "dark crimson"), NINE_WORDS("core", "crimson"), NINE_WORDS("core", "pink")},
};
// L* and C*; between the two lightnesses a hue goes by its plain name.
constexpr Figure kNearBlack = 12, kNearWhite = 93, kGrey = 8, kTinted = 20;

Words greyWords(Figure l) {
    return l < 30   ? NINE_WORDS("core", "near-black grey")
           : l < 48 ? NINE_WORDS("core", "dark grey")
           : l < 72 ? NINE_WORDS("core", "grey")
           : l < 88 ? NINE_WORDS("core", "light grey")
                    : NINE_WORDS("core", "off-white");
}

}  // namespace

Words colourWords(const Lab& colour) {
    const Figure chroma = std::hypot(colour.a, colour.b);
    if (colour.l < kNearBlack && chroma < kTinted) return NINE_WORDS("core", "nearly black");
    if (colour.l > kNearWhite && chroma < kGrey) return NINE_WORDS("core", "white");
    if (chroma < kGrey) return greyWords(colour.l);
    double hue_deg = std::atan2(colour.b, colour.a) * 180 / std::numbers::pi;
    if (hue_deg < 0) hue_deg += 360;
    const Hue* found = kHues;
    while (hue_deg > found->upTo_deg) ++found;
    // Yellows are dark while they are still light, blues are not; reds are pink early.
    const bool yellowish = hue_deg > 49 && hue_deg < 110;
    const bool reddish = hue_deg < 49 || hue_deg > 335;
    const Figure dark = yellowish ? 58 : 38, pale = yellowish ? 88 : reddish ? 63 : 78;
    Pattern name = found->plain;
    if (colour.l < dark) name = found->dark;
    if (colour.l > pale && chroma < 62) name = found->pale;
    if (chroma < kTinted && colour.l >= dark && colour.l <= pale)
        return Words(NINE_WORDS("core", "greyish {colour}")).words("colour", Words(name));
    return name;
}

}  // namespace nine
