#include "image/ring.h"

#include <algorithm>
#include <cmath>
#include <mutex>
#include <numbers>
#include <optional>
#include <tuple>

#include "base/parallel.h"

namespace nine {
namespace {

constexpr int kSectors = Ring::kSectors;
constexpr double kLeastRadius = 0.006,
                 kMostRadius = 0.045;  // of the body's length, to the middle of the wall
constexpr double kLeastRadius_px = 4;
constexpr double kRadiusStep = 1.11;
constexpr double kWalls[] = {0.2, 0.3, 0.42};  // half of the wall for the radius: to where no wall is left
constexpr double kCore = 0.045;       // of the length: what a ball of this radius rolls through is body
constexpr double kBeyondCore = 0.25;  // of the length: so far out rings are looked for
constexpr double kSunkIn = 0.02;      // of the length: a middle no deeper in what looks like body
constexpr double kLeastRingContrast = 3, kRingNoiseTimes = 2.5;  // L*a*b*; deviations of the ground
constexpr double kBlur_px = 3;        // a ring is in what leaves the ground, its rim no farther out
constexpr double kEdgeShare = 0.5;    // of the contrast, over two pixels
constexpr double kVotes = 0.35;       // of the pixels round a circle, on nine places together
constexpr double kSectorShare = 0.4;  // of the usual contrast
constexpr double kSame = 0.7;         // of it: how far hole and outside may differ
constexpr int kFewestSectors = 12;
constexpr double kGroundShare = 0.6;
constexpr double kChain = 0.75;  // of both radii: nearer are two readings of one ring

Vec2 towards(double sector) {
    const double a = 2 * std::numbers::pi * (sector + 0.5) / kSectors;
    return {std::cos(a), std::sin(a)};
}

struct Reading {
    Ring ring;
    double score = 0;
};

/// What a ring of this place and size would have for it; nothing when it is none.
class Sight {
  public:
    Sight(const std::vector<Plane>& lab, const PixelSet& groundLike, double least)
        : lab_(lab), groundLike_(groundLike), least_(least) {
        for (int s = 0; s < kSectors; ++s) ways_[static_cast<std::size_t>(s)] = towards(s);
    }

    std::optional<Reading> at(const Vec2& middle, double radius, double wall, const Vec2& outward) const {
        const double in = radius - wall, out = radius + wall;
        const auto& plane = lab_[0];
        if (middle.x() - out < 1 || middle.y() - out < 1 || middle.x() + out > plane.width - 2 ||
            middle.y() + out > plane.height - 2)
            return std::nullopt;
        std::array<Vec3, kSectors> step;  // from both sides to the wall
        std::array<double, kSectors> apart;
        std::array<bool, kSectors> looked{};
        const auto look = [&](int s) {
            const auto k = static_cast<std::size_t>(s);
            if (looked[k]) return;
            looked[k] = true;
            const Vec3 a = colour(middle + in * ways_[k]), b = colour(middle + radius * ways_[k]),
                       c = colour(middle + out * ways_[k]);
            step[k] = b - 0.5 * (a + c);
            apart[k] = (a - c).norm();
        };
        // The side away from the body is seen whatever hides the rest.
        const int away = static_cast<int>(
            std::lround(std::atan2(outward.y(), outward.x()) / (2 * std::numbers::pi) * kSectors - 0.5) +
            2 * kSectors);
        constexpr std::size_t kFirst = 7;
        std::array<std::array<double, kFirst>, 3> first;
        for (std::size_t k = 0; k < kFirst; ++k) {
            const int s = (away + 2 * static_cast<int>(k) - 6) % kSectors;
            look(s);
            for (int c = 0; c < 3; ++c)
                first[static_cast<std::size_t>(c)][k] = step[static_cast<std::size_t>(s)](c);
        }
        Vec3 usual;  // medians: a link of a chain may lie across some
        for (int c = 0; c < 3; ++c) {
            auto& values = first[static_cast<std::size_t>(c)];
            std::nth_element(values.begin(), values.begin() + kFirst / 2, values.end());
            usual(c) = values[kFirst / 2];
        }
        if (usual.norm() < least_) return std::nullopt;
        Reading reading;
        for (int round = 0; round < 2; ++round) {
            const double contrast = usual.norm();
            if (contrast < least_) return std::nullopt;
            const Vec3 way = usual / contrast;
            int seen = 0, ground = 0;
            Vec3 sum = Vec3::Zero();
            reading.score = 0;
            for (int s = 0; s < kSectors; ++s) {
                const auto k = static_cast<std::size_t>(s);
                look(s);
                const double along = step[k].dot(way);
                const bool is = along > kSectorShare * contrast && apart[k] < kSame * contrast;
                reading.ring.seen[k] = is;
                reading.score += is ? std::min(along, 1.5 * contrast) - 0.5 * apart[k] : -0.3 * contrast;
                if (!is) continue;
                ++seen;
                sum += step[k];
                const Vec2 beyond = middle + (out + 1) * ways_[k];
                const int x = static_cast<int>(beyond.x()), y = static_cast<int>(beyond.y());
                ground += groundLike_.inside(x, y) && groundLike_.at(x, y);
            }
            if (seen < kFewestSectors || ground < kGroundShare * seen) return std::nullopt;
            usual = sum / seen;
        }
        reading.ring.middle = middle;
        reading.ring.inner_px = in;
        reading.ring.outer_px = out;
        return reading;
    }

  private:
    Vec3 colour(const Vec2& p) const {
        const auto i = lab_[0].index(static_cast<int>(p.x()), static_cast<int>(p.y()));
        return {lab_[0].values[i], lab_[1].values[i], lab_[2].values[i]};
    }
    const std::vector<Plane>& lab_;
    const PixelSet& groundLike_;
    double least_;
    std::array<Vec2, kSectors> ways_;
};

/// The same ring placed and sized finer.
Reading refined(Reading best, const Sight& sight, const Vec2& outward) {
    for (double step = 1; step > 0.3; step /= 2) {
        bool better = true;
        for (int round = 0; better && round < 8; ++round) {
            better = false;
            const Ring& r = best.ring;
            const double radius = 0.5 * (r.inner_px + r.outer_px), wall = 0.5 * (r.outer_px - r.inner_px);
            const Vec2 middle = r.middle;
            for (const auto& [dx, dy, dr, dw] : {std::array{1.0, 0.0, 0.0, 0.0},
                                                 {-1.0, 0.0, 0.0, 0.0},
                                                 {0.0, 1.0, 0.0, 0.0},
                                                 {0.0, -1.0, 0.0, 0.0},
                                                 {0.0, 0.0, 1.0, 0.0},
                                                 {0.0, 0.0, -1.0, 0.0},
                                                 {0.0, 0.0, 0.0, 0.5},
                                                 {0.0, 0.0, 0.0, -0.5}}) {
                const double w = wall + step * dw;
                if (w < 1.5 || w > 0.5 * radius) continue;
                const auto other = sight.at(middle + step * Vec2(dx, dy), radius + step * dr, w, outward);
                if (!other || other->score <= best.score) continue;
                best = *other;
                better = true;
            }
        }
    }
    return best;
}

struct Candidate {
    Reading reading;
    Vec2 outward;
};

/// The best first; of two that are readings of one ring the better.
std::vector<Candidate> clearest(std::vector<Candidate> all) {
    std::sort(all.begin(), all.end(), [](const Candidate& a, const Candidate& b) {
        const auto key = [](const Candidate& c) {
            return std::tuple(-c.reading.score, c.reading.ring.middle.x(), c.reading.ring.middle.y());
        };
        return key(a) < key(b);
    });
    std::vector<Candidate> kept;
    for (const Candidate& c : all) {
        const Ring& one = c.reading.ring;
        const bool again = std::any_of(kept.begin(), kept.end(), [&](const Candidate& k) {
            const Ring& other = k.reading.ring;
            return (other.middle - one.middle).norm() < kChain * (other.outer_px + one.outer_px);
        });
        if (!again) kept.push_back(c);
    }
    return kept;
}

/// A place where the picture changes, and the direction across it.
struct Edge {
    Vec2 at, across;
};

std::vector<Edge> edgesNear(const std::vector<Plane>& lab, const PixelSet& beside, const Plane& away,
                            double length, double least) {
    const auto beyond = static_cast<float>((kBeyondCore + kMostRadius) * length),
               within = static_cast<float>(-(kSunkIn + kMostRadius) * length);
    std::vector<Edge> edges;
    for (int y = 2; y + 2 < away.height; ++y)
        for (int x = 2; x + 2 < away.width; ++x) {
            if (!beside.at(x, y) || away.at(x, y) < within || away.at(x, y) > beyond) continue;
            Vec2 most = Vec2::Zero();
            for (const Plane& plane : lab) {
                const Vec2 change(plane.at(x + 1, y) - plane.at(x - 1, y),
                                  plane.at(x, y + 1) - plane.at(x, y - 1));
                if (change.squaredNorm() > most.squaredNorm()) most = change;
            }
            if (most.norm() > kEdgeShare * least)
                edges.push_back({Vec2(x + 0.5, y + 0.5), most.normalized()});
        }
    return edges;
}

/// The pixels near the body that many edges lie round at this distance, facing them (Hough's transform for
/// circles; Duda and Hart 1972, Use of the Hough Transformation to Detect Lines and Curves in Pictures).
std::vector<std::size_t> middlesOf(const std::vector<Edge>& edges, double radius, const Plane& away,
                                   double length) {
    const auto beyond = static_cast<float>(kBeyondCore * length),
               within = static_cast<float>(-kSunkIn * length);
    const int w = away.width, h = away.height;
    std::vector<std::uint16_t> votes(away.values.size(), 0);
    std::vector<std::size_t> touched;
    for (const Edge& edge : edges)
        for (const double side : {radius, -radius}) {
            const Vec2 p = edge.at + side * edge.across;
            const int x = static_cast<int>(p.x()), y = static_cast<int>(p.y());
            if (x < 3 || y < 3 || x + 3 >= w || y + 3 >= h) continue;
            const std::size_t i = away.index(x, y);
            if (away.values[i] < within || away.values[i] > beyond) continue;
            if (votes[i]++ == 0) touched.push_back(i);
        }
    std::vector<std::size_t> middles;
    const auto row = static_cast<std::size_t>(w);
    for (const std::size_t i : touched) {
        unsigned near = 0, most = 0;
        for (const std::size_t above : {i - row, i, i + row})
            for (const std::size_t j : {above - 1, above, above + 1}) {
                near += votes[j];
                most = std::max<unsigned>(most, votes[j]);
            }
        if (votes[i] < most || near < kVotes * 2 * std::numbers::pi * radius) continue;
        middles.push_back(i);
    }
    return middles;
}

}  // namespace

std::vector<Ring> ringsOn(const std::vector<Plane>& lab, const PixelSet& body, const PixelSet& groundLike,
                          double noise) {
    const std::vector<Part> parts = partsOf(body, false);
    if (parts.empty()) return {};
    const double across = std::hypot(parts.front().width(), parts.front().height());
    const std::vector<Part> cores =
        partsOf(opened(filled(pixelsOf(parts.front(), body.width, body.height)), kCore * across), false);
    if (cores.empty()) return {};
    const double length = std::hypot(cores.front().width(), cores.front().height());
    const PixelSet core = pixelsOf(cores.front(), body.width, body.height);
    Plane away = distanceTo(core);  // and within it less than nothing
    const Plane depth = distanceTo(inverse(core));
    for (std::size_t i = 0; i < away.values.size(); ++i) away.values[i] -= depth.values[i];
    const double least = std::max(kLeastRingContrast, kRingNoiseTimes * noise);
    const std::vector<Edge> edges = edgesNear(lab, grown(body, kBlur_px), away, length, least);
    std::vector<double> radii;
    for (double r = std::max(kLeastRadius_px, kLeastRadius * length); r < kMostRadius * length;
         r *= kRadiusStep)
        radii.push_back(r);
    const Sight sight(lab, groundLike, least);
    std::vector<Candidate> found;
    std::mutex adding;
    forEachInParallel(radii.size(), [&](std::size_t k) {
        std::vector<Candidate> here;
        for (const std::size_t i : middlesOf(edges, radii[k], away, length)) {
            const int x = static_cast<int>(i % static_cast<std::size_t>(away.width)),
                      y = static_cast<int>(i / static_cast<std::size_t>(away.width));
            const Vec2 outward(away.at(x + 2, y) - away.at(x - 2, y), away.at(x, y + 2) - away.at(x, y - 2));
            std::optional<Reading> best;
            for (const double wall : kWalls)
                for (const double edge : {1 - 0.6 * wall, 1 + 0.6 * wall}) {  // the inner or the outer one
                    const double r = radii[k] / edge;
                    if (wall * r < 1.5) continue;
                    const auto reading = sight.at(Vec2(x + 0.5, y + 0.5), r, wall * r, outward);
                    if (reading && (!best || reading->score > best->score)) best = reading;
                }
            if (best) here.push_back({*best, outward});
        }
        const std::lock_guard lock(adding);
        found.insert(found.end(), here.begin(), here.end());
    });
    // Every ring is read at many places near its own: only the clearest is worth placing finely.
    found = clearest(std::move(found));
    for (Candidate& c : found) c.reading = refined(c.reading, sight, c.outward);
    std::vector<Ring> rings;
    for (const Candidate& c : clearest(std::move(found))) rings.push_back(c.reading.ring);
    return rings;
}

PixelSet pixelsOf(const std::vector<Ring>& rings, int width, int height, double margin) {
    PixelSet set(width, height);
    for (const Ring& ring : rings) {
        const double reach = ring.outer_px + margin;
        for (int y = static_cast<int>(ring.middle.y() - reach);
             y <= static_cast<int>(ring.middle.y() + reach); ++y)
            for (int x = static_cast<int>(ring.middle.x() - reach);
                 x <= static_cast<int>(ring.middle.x() + reach); ++x) {
                const Vec2 d = Vec2(x + 0.5, y + 0.5) - ring.middle;
                if (!set.inside(x, y) || d.norm() > reach) continue;
                const double turn = std::atan2(d.y(), d.x()) / (2 * std::numbers::pi);
                const auto sector =
                    static_cast<std::size_t>(static_cast<int>(std::floor((turn + 1) * kSectors)) % kSectors);
                if (ring.seen[sector]) set.set(x, y, true);
            }
    }
    return set;
}

}  // namespace nine
