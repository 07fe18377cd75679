// A net hooked on at the tail, pulled over half the body and gathered: where each of its threads comes to
// lie.
//
// The unknown is the place on the flat net (along, across, mm) of each point of a grid on the skin: the net
// slides on the skin without friction until its threads, its knots and the pull along its free border are in
// balance; what is too much of it leaves over the border. It neither lifts nor tears here: see clipped.h for
// where it stands off and cells.h for strain.
//
// Accuracy (bench/accuracy, sedge 60): cell sizes with half the spacing differ by 0.3 % (median), 3 % (95 of
// 100) between 15 and 85 % of the length. Cost: 0.2-0.4 s at 2 mm, a preview at 4 mm 0.07 s.
// Source: energy of an elastic lattice on a surface, minimised by Newton's method with the indefinite part of
// each triangle left out (Teran et al. 2005, Robust Quasistatic Finite Elements and Flesh Simulation, sec.
// 5).
#pragma once

#include <memory>

#include "base/task.h"
#include "scale/half_grid.h"
#include "scale/net_law.h"

namespace nine {

struct DrapeWish {
    Net net;
    double pull_n_m = 60;  ///< along the free border, each side
    Gather gather = Gather::Belly;
    NetReach reach;
    bool operator==(const DrapeWish&) const = default;
};

constexpr double kLeastPull_n_m = 1, kMostPull_n_m = 1000;
constexpr double kDrapeSpacing_mm = 2, kDrapePreview_mm = 4;

/// Of a net pulled tight. Shared: it is never changed.
struct Drape {
    DrapeWish wish;
    double spacing_mm = 0;
    HalfGrid grid;
    std::vector<Vec2>
        net_mm;  ///< of each point: along from the hook's end (towards the tail), across from the whole line
    int steps = 0;
    double lastStep_mm = 0;  ///< below 0.02 when it has settled
    bool settled() const { return lastStep_mm < 0.02; }
};
using DrapePtr = std::shared_ptr<const Drape>;

/// Errors: out_of_range (pull), empty_reach (less than two cells of skin), net_too_coarse (a cell larger than
/// a quarter of the girth), checkNet's, cancelled. `path` is that of the wish, for errors.
Status checkDrape(const Skin& skin, const DrapeWish& wish, const std::string& path);

/// The wish must pass checkDrape. `start`: of the same skin, gathering and reach, to begin from. Errors:
/// cancelled, not_settled.
Result<DrapePtr> drape(const Skin& skin, const DrapeWish& wish, double spacing_mm = kDrapeSpacing_mm,
                       const Drape* start = nullptr, const Task& task = {});

/// How a triangle of the net lies: maps flat net vectors (along, across) to vectors of the skin, the first
/// axis along a line of constant share of the girth towards the tail, the second towards the gathered line.
Eigen::Matrix2d stretchOf(const Drape& drape, const Triangle& triangle);

/// The map on another grid of the same reach, a few steps nearer to balance.
Result<std::vector<Vec2>> drapedOn(const HalfGrid& grid, const Drape& from, int steps, const Task& task);

}  // namespace nine
