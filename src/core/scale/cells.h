// What is read off a draped net: its cells, its threads, how many scales it gives and the piece to cut.
#pragma once

#include <array>

#include "blank/landmarks.h"
#include "scale/drape.h"

namespace nine {

/// A cell as it lies.
struct CellLie {
    Ratio aspect;              ///< height over length, 1 as on the bench
    Ratio area;                ///< to that on the bench
    double long_mm, short_mm;  ///< the cell's two axes where it is stretched most and least
    double direction_deg;      ///< of the long one, from along the body towards the gathered line
    Fraction open;             ///< between strands
    Fraction strain;           ///< of the thread that is stretched most; negative when all are slack
};
CellLie cellAt(const Net& net, const Eigen::Matrix2d& stretch);

/// Share of a net that is open when its lattice vectors lie so; exact for straight strands of one thickness.
/// Of rectangles (1 - d/p)(1 - d/q), the figure for woven screens.
Fraction openShare(const Net& net, const Eigen::Matrix2d& stretch = Eigen::Matrix2d::Identity());

/// Corners of a cell by stretch, round from the node, mm; the last is not the first again.
Polyline2 cellCorners(const Net& net, const Eigen::Matrix2d& stretch);

struct NetTrouble {
    enum class Kind { Tears, Overstretched, Slips } kind;
    Fraction strain;  ///< what it would need; of Tears the pull over what it bears
    Fraction bears;
    double x_mm;
};

struct NetReading {
    Ratio cellsAlongLateral = 0;  ///< cells end to end along the lateral line
    Ratio aspect_min = 1,
          aspect_max = 1;  ///< but for the hundredth part at either end; from 6 to 94 % of the length
    Ratio area_min = 1, area_max = 1;           ///< the same
    Fraction opening_min = 0, opening_max = 0;  ///< the same
    std::array<double, 2> piece_mm{};  ///< along, across; of one layer, both sides, with what the hand holds
    double surplus_mm = 0;             ///< net along the gathered line less the line: what the clips gather
    double line_mm = 0;                ///< arc of that line
    std::vector<NetTrouble> troubles;  ///< at most one of each kind, the worst
};
/// `lateral`: x, g of the lateral line from nose to tail; empty: the datum line.
NetReading readNet(const Skin& skin, const Drape& drape, const std::vector<Vec2>& lateral = {});

/// How much net stands over the pulled piece at its ends and below its border.
constexpr double kHeldAtEnds_mm = 8, kHeldAtBorder_mm = 10;

/// A thread of the net as it lies, x, g of the left side; its ends and its middle.
struct Strand {
    std::array<Vec2, 3> skin;
    float stretch = 1;  ///< length of the cell's long axis over the short, 1 as on the bench
};

struct NetShift {
    double along_mm = 0, across_mm = 0;  ///< of a second layer against the first
    double angle_deg = 0;
    bool operator==(const NetShift&) const = default;
};

/// All threads of one layer on the left side, at most `most` (then every n-th row is left out and `thinned`
/// says so). Cost: 2 us each.
struct Strands {
    std::vector<Strand> all;
    bool thinned = false;
};
Strands strandsOf(const Drape& drape, const NetShift& shift, std::size_t most, const Task& task = {});

/// Where on the net (mm along, across) a place on the skin lies; nothing where no net is.
std::optional<Vec2> netAt(const Skin& skin, const Drape& drape, const Vec2& xg);
/// How the net lies there.
std::optional<Eigen::Matrix2d> stretchAt(const Skin& skin, const Drape& drape, const Vec2& xg);

}  // namespace nine
