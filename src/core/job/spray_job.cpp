#include "job/spray_job.h"

namespace nine {

MaskToSpray sprayOf(const MaskSpec& spec, const FitReport& report, const PaintFamily& paint,
                    double wantedWidth_mm) {
    const bool tape = spec.material == "tape";
    MaskToSpray mask;
    mask.work = tape ? SprayWork::Tape : SprayWork::Stencil;
    mask.paint = paint;
    mask.contact_mm = tape ? kTapeContact_mm : kSheetContact_mm;
    mask.lift_mm = report.lift_mm;
    mask.wantedWidth_mm = wantedWidth_mm;
    return mask;
}

}  // namespace nine
