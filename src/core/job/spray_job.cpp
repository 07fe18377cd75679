#include "job/spray_job.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"

namespace nine {
namespace {

constexpr double kFlank_mm = 4;  // above the datum line

}  // namespace

MaskToSpray sprayOf(const MaskSpec& spec, const FitReport& report, const SpraySpec& spray) {
    const bool tape = spec.wish.material == "tape";
    MaskToSpray mask;
    mask.work = tape ? SprayWork::Tape : SprayWork::Stencil;
    mask.paint = *findPaint(spray.paint);
    mask.contact_mm = tape ? kTapeContact_mm : kSheetContact_mm;
    mask.lift_mm = report.standsOff_mm();
    mask.relief_mm = std::max(spray.relief_mm, report.relief_mm);
    mask.pads_mm = spray.pads_mm;
    mask.sheet_mm = findMaterial(spec.wish.material)->thickness_mm;
    mask.soft = spray.soft_mm.has_value();
    mask.wantedWidth_mm = spray.soft_mm.value_or(kSharp_mm);
    return mask;
}

double liftAt_mm(const Mask& mask, const SkinPlace& skin) {
    for (const Sheet& sheet : mask.sheets) {
        if (!sheet.report.lifted) continue;
        const TriangleFinder& finder = *sheet.report.lifted;
        const auto place = finder.find(skin);
        if (!place) continue;
        double lift = 0;
        for (std::size_t k = 0; k < 3; ++k)
            lift += place->share[static_cast<Eigen::Index>(k)] *
                    sheet.report.lifts_mm[static_cast<std::size_t>(finder.triangles()[place->triangle][k])];
        return lift;
    }
    return 0;
}

EdgePlace worstEdge(const Mask& mask, const std::vector<const ElementArt*>& art) {
    EdgePlace worst;
    bool first = true;
    for (const ElementArt* element : art) {
        for (std::size_t k = 0; k < element->outlines().size(); ++k) {
            for (const Vec2& p : element->outlines()[k].skin) {
                const SkinPlace place(p);
                const double lift = liftAt_mm(mask, place);
                // Where it lies flat one place is as good as another: one that is sprayed from the side.
                const bool nearer = lift == worst.lift_mm && element == art.front() && k == 0 &&
                                    std::abs(p.y() - kFlank_mm) < std::abs(worst.skin.y() - kFlank_mm);
                if (!first && lift <= worst.lift_mm && !nearer) continue;
                worst = {element->element, k, place, lift};
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
