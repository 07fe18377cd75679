#include "paint/swatch_photo.h"

#include <algorithm>

namespace nine {

Result<Srgb> colourFromPhoto(const Srgb& patch, const Srgb& white) {
    const auto refused = [](Pattern why) { return Error{"no_white", why, "white"}; };
    const LinearRgb light = linearOf(white), seen = linearOf(patch);
    const auto [low, high] = std::minmax({light.r, light.g, light.b});
    if (std::max({white.r, white.g, white.b}) > 252)
        return refused(NINE_WORDS("core",
                                  "The white patch is overexposed, so nothing can be read from it: take the "
                                  "photo darker."));
    if (high < 0.15)
        return refused(NINE_WORDS("core",
                                  "What was picked as white is dark: pick the white patch, or take the photo "
                                  "in more light."));
    if (low < 0.35 * high)
        return refused(NINE_WORDS("core",
                                  "What was picked as white is coloured: pick the white patch beside the "
                                  "swatch, in the same light."));
    const auto mended = [](Ratio one, Ratio of) { return std::clamp(one / of * kPatchWhite, 0.0, 1.0); };
    return srgbOf(LinearRgb{mended(seen.r, light.r), mended(seen.g, light.g), mended(seen.b, light.b)});
}

}  // namespace nine
