// The shade round an eye, sprayed free-hand before the eye is set.
#include <algorithm>
#include <cmath>

#include "geom/geodesic.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"

namespace nine {
namespace eye_surround {
namespace {

using Type = Param::Type;

struct Surround {
    double width_mm, soft_mm;
};

constexpr Bound<Surround> kSizes[] = {
    {{.key = "width_mm",
      .name = NINE_WORDS("core", "Wider than the eye by"),
      .low = 0,
      .high = 20,
      .usual = 0.7,
      .decimals = 1},
     &Surround::width_mm},
    {{.key = "soft_mm",
      .name = NINE_WORDS("core", "Fades out over"),
      .low = 0.2,
      .high = 20,
      .usual = 1.2,
      .decimals = 1},
     &Surround::soft_mm},
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    {"last", NINE_WORDS("core", "edge of the shade"), {}, {{{"width_mm", 1, 0}}}},
};

class EyeSurroundKind : public Kind {
  public:
    std::string_view id() const override { return "eye_surround"; }
    Family family() const override { return Family::Head; }
    Pattern name() const override { return NINE_WORDS("core", "eye surround"); }
    Pattern onMask() const override { return NINE_WORDS("core", "eye surround"); }
    std::string_view usualAnchor() const override { return "eye"; }
    bool isCut() const override { return false; }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "A shade {width_mm} wider than the eye, fading out over another {soft_mm}; sprayed "
                       "free-hand.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Surround s = sizesOf(kSizes, element.values);
        const auto eye = on.landmarks.find(element.anchor);
        const double radius = (eye == on.landmarks.end() ? 0 : 0.5 * eye->second.diameter_mm) + s.width_mm;
        const SoftCover cover = roundCover(on.skin, on.origin, radius, radius, 0, s.soft_mm);
        const Result<Vec2> edge = placeFrom(on.skin, on.origin, Vec2(radius, 0), on.path);
        if (!edge) return edge.error();
        return Drawn{{{.outlines = {}, .cover = cover}}, {{"last", *edge}}};
    }
};

}  // namespace
}  // namespace eye_surround

NINE_KIND(eyeSurround, eye_surround::EyeSurroundKind)

}  // namespace nine
