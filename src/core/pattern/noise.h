// Smooth noise in space, from a seed: the same on every machine, no texture file.
//
// Gradient noise on the lattice of whole multiples of `size_mm`, faded by a quintic (Perlin: Improving noise,
// SIGGRAPH 2002), gradients hashed from the cell and the seed. About -1..1, mean 0, standard deviation 0.26.
// Taken at points of space, not at skin coordinates, it does not tear or crowd at noses and tails. Cost: 0.1
// us a point and octave.
#pragma once

#include <cstdint>

#include "base/units.h"
#include "geom/vec.h"

namespace nine {

class Noise {
  public:
    Noise(double size_mm, std::uint64_t seed, int octaves = 1);
    Figure at(const Vec3& p) const;

  private:
    Figure octave(const Vec3& p, std::uint64_t seed) const;
    Ratio perMm_;
    std::uint64_t seed_;
    int octaves_;
};

}  // namespace nine
