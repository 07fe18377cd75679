#include "pattern/noise.h"

#include <cmath>

#include "base/rng.h"

namespace nine {
namespace {

/// Towards the middles of the twelve edges of a cube.
double slope(std::uint64_t hash, double x, double y, double z) {
    const unsigned h = static_cast<unsigned>(hash >> 59) % 12;
    const double u = h < 8 ? x : y, v = h < 4 ? y : z;
    return (h & 1u ? -u : u) + (h & 2u ? -v : v);
}

double faded(double t) {
    return t * t * t * (t * (t * 6 - 15) + 10);
}

}  // namespace

Noise::Noise(double size_mm, std::uint64_t seed, int octaves)
    : perMm_(1 / size_mm), seed_(seed), octaves_(octaves) {}

double Noise::octave(const Vec3& p, std::uint64_t seed) const {
    const Vec3 floor(std::floor(p.x()), std::floor(p.y()), std::floor(p.z()));
    const Vec3 in = p - floor;
    const double u = faded(in.x()), v = faded(in.y()), w = faded(in.z());
    double sum = 0;
    for (int corner = 0; corner < 8; ++corner) {
        const int i = corner & 1, j = corner >> 1 & 1, k = corner >> 2;
        const auto cell = [&](double at, int step) {
            return static_cast<std::uint64_t>(static_cast<std::int64_t>(at) + step);
        };
        const std::uint64_t hash = scrambled(
            seed + scrambled(cell(floor.x(), i) +
                             scrambled(cell(floor.y(), j) + scrambled(cell(floor.z(), k) + 0x51ED2705))));
        const double weight = (i ? u : 1 - u) * (j ? v : 1 - v) * (k ? w : 1 - w);
        sum += weight * slope(hash, in.x() - i, in.y() - j, in.z() - k);
    }
    return sum;
}

double Noise::at(const Vec3& p) const {
    // Off the lattice, where gradient noise is always zero.
    Vec3 q = perMm_ * p + Vec3(0.37, 0.61, 0.23);
    double sum = 0, height = 1, most = 0;
    for (int k = 0; k < octaves_; ++k) {
        sum += height * octave(q, scrambled(seed_ + static_cast<std::uint64_t>(k)));
        most += height * height;
        height *= 0.5;
        q *= 2.03;
    }
    return sum / std::sqrt(most);
}

}  // namespace nine
