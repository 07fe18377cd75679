#include "blank/compare.h"

#include <algorithm>
#include <cmath>

namespace nine {

BlankDifference compareBlanks(const Skin& first, const Skin& second, int count) {
    const BodyMeasure a = measureBody(first), b = measureBody(second);
    BlankDifference d{
        b.length_mm - a.length_mm, b.area_mm2 - a.area_mm2, b.volume_mm3 - a.volume_mm3, {}, 0, 0, 0};
    const double shared = std::min(a.length_mm, b.length_mm);
    double sum = 0;
    for (int i = 0; i < count; ++i) {
        const double x = shared * i / (count - 1);
        const Section p = first.loft().sectionAt(first.noseX_mm() + x),
                      q = second.loft().sectionAt(second.noseX_mm() + x);
        const auto girth = [](const Section& s) {
            return s.halfWidth_mm > 0 ? SectionArc(s).girth_mm() : 0.0;
        };
        const BlankDifference::At at{x, q.top_mm - p.top_mm, q.bottom_mm - p.bottom_mm,
                                     2 * (q.halfWidth_mm - p.halfWidth_mm), girth(q) - girth(p)};
        for (const double v : {at.top_mm, at.bottom_mm, 0.5 * at.width_mm}) {
            d.outlineWorst_mm = std::max(d.outlineWorst_mm, std::abs(v));
            sum += v * v;
        }
        d.girthWorst_mm = std::max(d.girthWorst_mm, std::abs(at.girth_mm));
        d.places.push_back(at);
    }
    d.outlineRms_mm = std::sqrt(sum / (3.0 * count));
    return d;
}

}  // namespace nine
