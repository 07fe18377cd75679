#include "image/shadow.h"

#include <algorithm>
#include <cmath>

#include "base/parallel.h"

namespace nine {
namespace {

constexpr double kSoftEdge_px = 14;    // of the picture worked on: wider borders are those of shadows
constexpr double kSmallShare = 0.012;  // of the picture: rings and hooks enclose no more than that across
constexpr double kOpenShare = 1.2;     // of the root of its area: a square open to one side has 1
constexpr double kThickShare = 0.25;   // of a part: a thick piece that large may be body
constexpr double kWireShare = 0.0045;  // of the picture: half a wire is thinner

/// How steeply the colour changes, L*a*b* units a pixel, lightness counting for less.
Plane steepness(const std::vector<Plane>& lab) {
    std::vector<Plane> calm;
    for (const Plane& plane : lab) calm.push_back(smoothed(plane, 1.2));
    Plane steep(lab[0].width, lab[0].height);
    forEachInParallel(static_cast<std::size_t>(steep.height), [&](std::size_t row) {
        const int y = static_cast<int>(row);
        if (y < 2 || y + 2 >= steep.height) return;
        for (int x = 2; x + 2 < steep.width; ++x) {
            double squares = 0;
            for (std::size_t c = 0; c < 3; ++c) {
                const Plane& p = calm[c];
                const double weight = c == 0 ? kLightWeight : 1;
                squares +=
                    weight * weight *
                    Vec2(p.at(x + 2, y) - p.at(x - 2, y), p.at(x, y + 2) - p.at(x, y - 2)).squaredNorm();
            }
            steep.at(x, y) = static_cast<float>(std::sqrt(squares) / 4);
        }
    });
    return steep;
}

/// How wide the border of a part is where it meets the ground, pixels: the change within reach on both sides,
/// over the slope. A body's edge is as wide as the lens and the smoothing, a shadow's much wider.
struct EdgeWidth {
    double median = 0;
    std::size_t count = 0;
};
EdgeWidth edgeWidth(const std::vector<std::size_t>& pixels, const PixelSet& mask, const Plane& soft) {
    constexpr int kReach_px = 14;
    std::vector<float> widths;
    EdgeWidth edge;
    const auto w = static_cast<std::size_t>(mask.width);
    for (const std::size_t i : pixels) {
        const int x = static_cast<int>(i % w), y = static_cast<int>(i / w);
        if (x < 3 || y < 3 || x + 3 >= mask.width || y + 3 >= mask.height) continue;
        if (mask.at(x - 1, y) && mask.at(x + 1, y) && mask.at(x, y - 1) && mask.at(x, y + 1)) continue;
        const Vec2 gradient(soft.at(x + 2, y) - soft.at(x - 2, y), soft.at(x, y + 2) - soft.at(x, y - 2));
        const double slope = gradient.norm() / 4;
        if (slope < 1e-3) continue;
        const Vec2 p(x + 0.5, y + 0.5), step = kReach_px * gradient.normalized();
        widths.push_back(static_cast<float>(std::abs(soft.sample(p + step) - soft.sample(p - step)) / slope));
    }
    edge.count = widths.size();
    edge.median = quantile(std::move(widths), 0.5);
    return edge;
}

/// How much of the border between a dark part and the rest of the mask is sharp. A shadow meets the body at
/// the body's edge; a dark part of the body itself goes over into its other colours as it was painted.
double sharpShare(const std::vector<std::size_t>& pixels, const PixelSet& mask, const PixelSet& dark,
                  const Plane& steep, float sharp) {
    constexpr int kStep_px = 2;
    const auto w = static_cast<std::size_t>(mask.width);
    std::size_t all = 0, sharpOnes = 0;
    for (const std::size_t i : pixels) {
        const int x = static_cast<int>(i % w), y = static_cast<int>(i / w);
        for (const auto& [dx, dy] : {std::pair{kStep_px, 0}, {-kStep_px, 0}, {0, kStep_px}, {0, -kStep_px}}) {
            if (!mask.inside(x + dx, y + dy)) continue;
            const std::size_t next = mask.index(x + dx, y + dy);
            if (!mask.on[next] || dark.on[next]) continue;
            ++all;
            sharpOnes += steep.values[next] >= sharp;
        }
    }
    return all == 0 ? 1 : static_cast<double>(sharpOnes) / static_cast<double>(all);
}

}  // namespace

ShadowReading takeShadowOff(PixelSet& mask, const std::vector<Plane>& lab, const Difference& d,
                            const Plane& soft, float level, const WholePicture& picture) {
    // In one piece: signs for and against a shadow are weighed together.
    constexpr double kNoColour = 4, kColourNoiseTimes = 4, kMostShadow = 0.6, kSharp = 1.2,
                     kSharpShare = 0.035, kSharpBorder = 0.75;
    constexpr float kFainter = 0.6F;
    const Plane colour = smoothed(d.colour, 1.2), steep = steepness(lab);
    const double wire = kWireShare * picture.diagonal_px;
    const double side = kSmallShare * picture.diagonal_px, smallest = side * side;
    const auto none = static_cast<float>(std::max(kNoColour, kColourNoiseTimes * picture.colourNoise));
    // What is sharp is so against how much this picture's body stands out.
    const auto sharp = static_cast<float>(std::max(kSharp, kSharpShare * picture.most));
    PixelSet dark(mask.width, mask.height), shadow(mask.width, mask.height);
    for (std::size_t i = 0; i < mask.on.size(); ++i)
        dark.on[i] = mask.on[i] && d.darker.on[i] && colour.values[i] < none && steep.values[i] < sharp;
    constexpr std::size_t kSpeck_px = 60, kLeastBorder_px = 12;
    const auto whole = static_cast<double>(std::count(mask.on.begin(), mask.on.end(), 1));
    bool merged = false;  // body and shadow in one, which cannot be told apart by what is looked at here
    // A shadow goes over into the ground along a good part of its border; what a sharp rim parts from the
    // ground nearly all round is body, lying in the shadow.
    const auto isRimmed = [&](const Part& part, const EdgeWidth& edge) {
        const double size = std::sqrt(static_cast<double>(part.area()));
        return size > 2 * side && static_cast<double>(edge.count) < kOpenShare * size;
    };
    // The thick piece of a part that is so, if there is one; empty otherwise.
    const auto rimmedWithin = [&](const Part& part) {
        const PixelSet one = pixelsOf(part, mask.width, mask.height);
        const std::vector<Part> thick = partsOf(opened(one, side), false);
        if (thick.empty() ||
            static_cast<double>(thick.front().area()) < kThickShare * static_cast<double>(part.area()))
            return PixelSet();
        PixelSet piece = grown(pixelsOf(thick.front(), mask.width, mask.height), 0.5 * side);
        Part there;
        for (std::size_t i = 0; i < piece.on.size(); ++i) {
            piece.on[i] = piece.on[i] && one.on[i];
            if (piece.on[i]) there.pixels.push_back(i);
        }
        return isRimmed(there, edgeWidth(there.pixels, mask, soft)) ? piece : PixelSet();
    };
    // Body and shadow may hang together where the edge between them is faint or something blurs it: what goes
    // over into the body without an edge is parted once more, at fainter edges.
    PixelSet rest = dark;
    for (const float share : {1.0F, kFainter}) {
        PixelSet mixed(mask.width, mask.height);
        for (std::size_t i = 0; i < rest.on.size(); ++i)
            rest.on[i] = rest.on[i] && steep.values[i] < share * sharp;
        const auto judge = [&](const Part& part) {
            const EdgeWidth edge = edgeWidth(part.pixels, mask, soft);
            if (edge.count < kLeastBorder_px || edge.median < kSoftEdge_px) return false;
            if (isRimmed(part, edge)) return false;
            const bool large = static_cast<double>(part.area()) > kMostShadow * whole;
            const bool goesOver = sharpShare(part.pixels, mask, rest, steep, share * sharp) < kSharpBorder;
            merged = merged || large || (goesOver && share < 1);
            // Body and shadow may hang together where the rim between them is faint.
            const PixelSet rimmed = large || goesOver ? PixelSet() : rimmedWithin(part);
            merged = merged || !rimmed.on.empty();
            for (const std::size_t i : part.pixels)
                if (rimmed.on.empty() || !rimmed.on[i]) (large || goesOver ? mixed : shadow).on[i] = 1;
            return true;
        };
        for (const Part& part : partsOf(opened(rest, 3), false)) {
            if (part.area() < kSpeck_px) break;
            if (judge(part)) continue;
            // Hooks and wires of the shadow's colour lie in it, with sharp borders of their own. What is left
            // without them is a strip beside the body; a thick part is body.
            const PixelSet one = pixelsOf(part, mask.width, mask.height);
            for (const Part& broad : partsOf(opened(one, wire), false)) {
                if (broad.area() < kSpeck_px) break;
                const PixelSet thick = opened(pixelsOf(broad, mask.width, mask.height), side);
                const auto left = std::count(thick.on.begin(), thick.on.end(), 1);
                if (2 * left < static_cast<long>(broad.area())) judge(broad);
            }
        }
        rest = mixed;
    }
    const PixelSet around = grown(shadow, 5);  // what opening left of it
    for (std::size_t i = 0; i < mask.on.size(); ++i)
        shadow.on[i] = shadow.on[i] || (around.on[i] && dark.on[i]);
    // Shaded ground that a ring or a hook encloses: small, and nowhere as different as the body is.
    PixelSet weak(mask.width, mask.height);
    for (std::size_t i = 0; i < mask.on.size(); ++i)
        weak.on[i] = mask.on[i] && !shadow.on[i] && soft.values[i] < level && d.darker.on[i] &&
                     colour.values[i] < none;
    PixelSet body = mask;
    for (std::size_t i = 0; i < body.on.size(); ++i) body.on[i] = body.on[i] && !shadow.on[i];
    const PixelSet sturdy = opened(body, side);
    for (const Part& part : partsOf(weak, false)) {
        if (static_cast<double>(part.area()) > smallest) continue;
        const auto within = std::count_if(part.pixels.begin(), part.pixels.end(),
                                          [&](std::size_t i) { return sturdy.on[i] != 0; });
        if (2 * within > static_cast<long>(part.area())) continue;  // a dull place of the body
        for (const std::size_t i : part.pixels) shadow.on[i] = 1;
    }
    for (std::size_t i = 0; i < mask.on.size(); ++i) mask.on[i] = mask.on[i] && !shadow.on[i];
    PixelSet like(mask.width, mask.height);
    for (std::size_t i = 0; i < like.on.size(); ++i)
        like.on[i] = shadow.on[i] || (d.darker.on[i] && colour.values[i] < none && soft.values[i] < level);
    return {std::move(shadow), std::move(like), merged};
}

}  // namespace nine
