#include "job/spray_job.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"

namespace nine {
namespace {

constexpr double kFlank_mm = 4;  // above the datum line

}  // namespace

MaskToSpray sprayOf(const MaskSpec& spec, const FitReport& report, const SpraySpec& spray) {
    const bool tape = spec.material == "tape";
    MaskToSpray mask;
    mask.work = tape ? SprayWork::Tape : SprayWork::Stencil;
    mask.paint = *findPaint(spray.paint);
    mask.contact_mm = tape ? kTapeContact_mm : kSheetContact_mm;
    mask.lift_mm = report.lift_mm;
    mask.relief_mm = std::max(spray.relief_mm, report.relief_mm);
    mask.pads_mm = spray.pads_mm;
    mask.sheet_mm = findMaterial(spec.material)->thickness_mm;
    mask.soft = spray.soft_mm.has_value();
    mask.wantedWidth_mm = spray.soft_mm.value_or(kSharp_mm);
    return mask;
}

double liftAt(const Mask& mask, const Vec2& skin) {
    const PatchMesh& patch = mask.flat->patch;
    const bool across = patch.turnAcross_rad * patch.width_mm <= patch.turnAlong_rad * patch.length_mm;
    const double low = across ? patch.low.y() : patch.low.x(),
                 high = across ? patch.high.y() : patch.high.x();
    if (!(high > low)) return 0;
    const double s = (2 * (across ? skin.y() : skin.x()) - low - high) / (high - low);
    return mask.report.lift_mm * std::max(0.0, 1 - s * s);
}

EdgePlace worstEdge(const Mask& mask, const std::vector<const ElementArt*>& art) {
    EdgePlace worst;
    bool first = true;
    for (const ElementArt* element : art) {
        for (std::size_t k = 0; k < element->outlines().size(); ++k) {
            for (const Vec2& p : element->outlines()[k].skin) {
                const double lift = liftAt(mask, p);
                // Where it lies flat one place is as good as another: one that is sprayed from the side.
                const bool nearer = lift == worst.lift_mm && element == art.front() && k == 0 &&
                                    std::abs(p.y() - kFlank_mm) < std::abs(worst.skin.y() - kFlank_mm);
                if (!first && lift <= worst.lift_mm && !nearer) continue;
                worst = {element->element, k, p, lift};
                first = false;
            }
        }
    }
    return worst;
}

Words placeSentence(const EdgePlace& place) {
    return Words(NINE_WORDS("core", "opening {opening} of {element}, {x} from the nose"))
        .number("opening", static_cast<double>(place.opening + 1), 0)
        .name("element", place.element)
        .length("x", place.skin.x(), 0);
}

}  // namespace nine
