#include "job/pattern_picture.h"

#include <algorithm>
#include <cmath>

namespace nine {

Result<PatternPicture> patternPicture(const Job& job, Derivations& derived, Fineness fineness, int columns,
                                      int rows, const Task& task) {
    // In one piece: body, art of both sides, paint.
    const Result<SkinPtr> skin = derived.skin(job);
    if (!skin) return skin.error();
    const PatternChapter& pattern = job.get<PatternChapter>();
    PatternPicture result{*skin, drawBody(**skin), {}, {}, {}, {}};
    result.fittings = fittingsOf(**skin, job.get<BlankChapter>().landmarks);
    std::vector<ArtPtr> held;
    std::vector<PaintedArt> painted;
    for (std::size_t i = 0; i < pattern.elements.size(); ++i) {
        if (task.cancelled()) return Task::cancelledError();
        const auto drawn = [&](Side side) {
            return fineness == Fineness::Cut ? derived.art(job, i, side, task)
                                             : derived.artAtAGlance(job, i, side, task);
        };
        const Result<ArtPtr> left = drawn(Side::Left);
        if (!left) {
            result.errors.push_back(left.error());
            continue;
        }
        held.push_back(*left);
        const ElementArt* right = nullptr;
        if (derived.differsBySide(job, i))
            if (const Result<ArtPtr> other = drawn(Side::Right)) {
                held.push_back(*other);
                right = other->get();
            }
        result.warnings.insert(result.warnings.end(), (*left)->warnings.begin(), (*left)->warnings.end());
        addPainted(painted, *pattern.elements[i], i, **left, right);
    }
    const std::vector<EyeRing> eye = eyeRings(**skin, job.get<BlankChapter>().landmarks);
    for (const EyeRing& ring : eye) painted.push_back({&ring.art->outlines(), ring.colour, true, true});
    const Ground bare;
    const Ground ground{colourOf(pattern.groundBack, bare.back), colourOf(pattern.groundSide, bare.side),
                        colourOf(pattern.groundBelly, bare.belly)};
    result.picture =
        paintSkin(result.body, ground, painted, columns, rows, fineness == Fineness::Cut ? 2 : 1);
    return result;
}

Image drawnPattern(const PatternPicture& picture, Seen seen, double pixelsPerMm, std::uint32_t background) {
    constexpr double kRoom_mm = 4;
    Vec3 low(1e9, 1e9, 1e9), high(-1e9, -1e9, -1e9);
    const auto include = [&](const TexturedMesh& mesh) {
        for (const SurfacePoint& p : mesh.points) {
            low = low.cwiseMin(p.position);
            high = high.cwiseMax(p.position);
        }
    };
    include(picture.body.mesh);
    for (const Solid& solid : picture.fittings) include(solid.mesh);
    const bool flat = seen == Seen::Back || seen == Seen::Belly;
    View3 view;
    view.yaw_rad = seen == Seen::Right ? kPi : 0;
    view.pitch_rad = seen == Seen::Back ? 0.5 * kPi : seen == Seen::Belly ? -0.5 * kPi : 0;
    view.target = 0.5 * (low + high);
    view.pixelsPerMm = pixelsPerMm;
    const double wide = high.x() - low.x() + 2 * kRoom_mm;
    const double tall = (flat ? high.y() - low.y() : high.z() - low.z()) + 2 * kRoom_mm;
    Image image = render(picture.body.mesh, picture.picture, picture.fittings, view,
                         static_cast<int>(wide * pixelsPerMm), static_cast<int>(tall * pixelsPerMm), 2)
                      .image;
    if (background == 0) return image;
    for (std::uint32_t& pixel : image.pixels) {
        const std::uint32_t through = 255 - (pixel >> 24);
        std::uint32_t out = 0xFF000000u;
        for (const int shift : {0, 8, 16})
            out |= std::min(255u, (pixel >> shift & 255u) + (background >> shift & 255u) * through / 255)
                   << shift;
        pixel = out;
    }
    return image;
}

}  // namespace nine
