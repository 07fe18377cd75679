#include "mask/relief.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "mask/fit.h"
#include "mask/relief_grid.h"

namespace nine {
namespace {

constexpr double kPlanned_mm = 1.5, kProved_mm = 1.0;
constexpr int kRounds = 7;             // of moving slits; four gave six slits where seven gave four
constexpr Ratio kSteering = 0.5;       // how far a panel's width follows its strain
constexpr Ratio kBestRound = 0.95;     // no round was seen to do more for the strain
constexpr Fraction kPanelShare = 0.9;  // of a panel's area is strained less: tips would steer a maximum
constexpr Fraction kSpare = 0.97;      // of the limit: tips are not shortened above
constexpr Ratio kAcross = 2.5, kLengthwise = 1.6;  // strain falls with (slits + 1)^2 by these (tried)

constexpr double kShortest_mm = 6;  // a slit shorter than this takes up next to nothing
// What a family is worth in slits: cuts from one edge cross the flank, lengthwise ones fan out and miss.
// Up to kFewEnough from both edges nothing else is tried.
constexpr int kFewEnough = 6, kCrossesFlank = 2, kFansOut = 4, kWideMouth = 8;

struct Tried {
    std::vector<GridSlit> slits;
    Fraction strain = 1e9;         // the largest mean within 1 mm
    std::vector<Fraction> panels;  // what kPanelShare of each stays below
    double mouth_mm = 0;
    Vec2 worst = Vec2::Zero();  // x, g
};

class Planner {
  public:
    Planner(const Skin& skin, const Strip& strip, double limit, const ReliefWish& wish, double step_mm,
            const Task& task)
        : grid_(skin, strip, step_mm), limit_(limit), wish_(wish), task_(task) {
        const PolygonSet kept = wish.keepOff.empty() ? PolygonSet{} : offset(wish.keepOff, kKeptOff_mm);
        const std::size_t n = grid_.skin().size();
        forbidden_.assign(n, false);
        for (std::size_t v = 0; v < n && !kept.empty(); ++v)
            for (const Polygon2& ring : kept)
                if (polygonArea(ring) > 0 && contains(ring, grid_.skin()[v])) forbidden_[v] = true;
        for (const Slit& slit : wish.kept)
            if (std::optional<GridSlit> here = inGrid(slit)) own_.push_back(*here);
    }
    /// The slits that stay, which every trial begins with.
    const std::vector<GridSlit>& own() const { return own_; }

    const ReliefGrid& grid() const { return grid_; }

    Result<Tried> tried(std::vector<GridSlit> slits, const std::vector<double>& panelEnds = {},
                        Effort effort = Effort::Comparison) const {
        if (task_.cancelled()) return Task::cancelledError();
        Tried result;
        const CutGrid cut = grid_.cut(slits);
        const RestMesh rest = restMesh(cut.mesh);
        // From the cut sheet's own conformal map: slits that open wide are too far from the uncut one.
        Result<FlatMap> map = conformalMap(rest, task_);
        if (map) map = rigidMap(rest, std::move(*map), task_);
        if (map) map = feasibleMap(rest, std::move(*map), task_, effort);
        if (!map) return map.error();
        const std::vector<PrincipalStrain> strains = strainsOf(rest, *map);
        const std::vector<Fraction> means = strainsWithin(cut.mesh, rest, strains);
        const std::size_t at =
            static_cast<std::size_t>(std::max_element(means.begin(), means.end()) - means.begin());
        result.strain = means[at];
        for (const int v : rest.triangles[at])
            result.worst +=
                grid_.skin()[static_cast<std::size_t>(cut.source[static_cast<std::size_t>(v)])] / 3;
        for (const auto& [one, other] : cut.mouths)
            result.mouth_mm = std::max(
                result.mouth_mm,
                ((*map)[static_cast<std::size_t>(one)] - (*map)[static_cast<std::size_t>(other)]).norm());
        if (!panelEnds.empty()) result.panels = strainOfPanels(cut, rest, strains, slits, panelEnds);
        result.slits = std::move(slits);
        return result;
    }

    /// The fewest that do, from `least` lines on; where none do, the best.
    Result<Tried> family(ReliefFamily family, bool fromLow, Fraction uncut, int least, int most) const;
    Result<Tried> exactly(int count) const;
    Result<Tried> singly(Tried best, int most) const;
    Result<Tried> shortened(Tried plan) const;
    /// The same slits on this grid, made longer until they do or cannot be longer.
    Result<Tried> proved(const std::vector<GridSlit>& planned, const ReliefGrid& from) const;

  private:
    std::vector<Fraction> strainOfPanels(const CutGrid& cut, const RestMesh& rest,
                                         const std::vector<PrincipalStrain>& strains,
                                         const std::vector<GridSlit>& slits,
                                         const std::vector<double>& ends) const;
    Result<Tried> balanced(ReliefFamily family, bool fromLow, int count) const;
    std::vector<GridSlit> slitsAt(ReliefFamily family, bool fromLow, const std::vector<double>& at) const;
    std::optional<GridSlit> acrossAt(double row, bool fromLow, int farthest) const;
    std::vector<double> curvatureWay(bool across) const;
    int freeTip(int row, bool fromLow, int farthest) const;
    int farthestColumn(ReliefFamily family, bool fromLow, int row) const;
    double length_mm(const GridSlit& slit) const;
    std::optional<GridSlit> inGrid(const Slit& slit) const;
    bool allowed(const std::vector<GridSlit>& slits, double row, bool fromLow) const;

    ReliefGrid grid_;
    Fraction limit_;
    const ReliefWish& wish_;
    const Task& task_;
    std::vector<bool> forbidden_;  // vertices
    std::vector<GridSlit> own_;
};

std::vector<Fraction> Planner::strainOfPanels(const CutGrid& cut, const RestMesh& rest,
                                              const std::vector<PrincipalStrain>& strains,
                                              const std::vector<GridSlit>& slits,
                                              const std::vector<double>& ends) const {
    const bool across = slits.front().across;
    std::vector<std::vector<std::pair<double, double>>> of(ends.size() + 1);
    for (std::size_t t = 0; t < rest.triangles.size(); ++t) {
        double at = 0;
        for (const int v : rest.triangles[t]) {
            const int source = cut.source[static_cast<std::size_t>(v)];
            at += (across ? source / grid_.columns() : source % grid_.columns()) / 3.0;
        }
        const auto panel =
            static_cast<std::size_t>(std::upper_bound(ends.begin(), ends.end(), at) - ends.begin());
        of[panel].emplace_back(strains[t].worst(), rest.shapes[t].area_mm2);
    }
    std::vector<Fraction> result;
    for (auto& panel : of) {
        std::sort(panel.begin(), panel.end());
        double all = 0, sum = 0;
        for (const auto& [strain, size] : panel) all += size;
        Fraction here = 0;
        for (const auto& [strain, size] : panel) {
            sum += size;
            here = strain;
            if (sum >= kPanelShare * all) break;
        }
        result.push_back(std::max(here, 1e-6));
    }
    return result;
}

int Planner::farthestColumn(ReliefFamily family, bool fromLow, int row) const {
    // Both edges: not nearer to the core than kSlitCore_mm. One edge: not nearer to the other edge.
    const int end = family == ReliefFamily::BothEdges || family == ReliefFamily::Single
                        ? grid_.coreColumn()
                        : (fromLow ? grid_.columns() - 1 : 0);
    const int way = fromLow ? -1 : 1;
    int column = end;
    while (column > 0 && column + 1 < grid_.columns() && grid_.across_mm(row, column, end) < kSlitCore_mm)
        column += way;
    if (column == end) column += way;
    while (column > 0 && column + 1 < grid_.columns() && grid_.across_mm(row, column, end) < kSlitCore_mm)
        column += way;
    return column;
}

int Planner::freeTip(int row, bool fromLow, int farthest) const {
    const int from = fromLow ? 0 : grid_.columns() - 1, way = fromLow ? 1 : -1;
    int tip = from;
    for (int c = from; c != farthest + way; c += way) {
        if (forbidden_[static_cast<std::size_t>(grid_.at(row, c))]) break;
        tip = c;
    }
    return tip;
}

double Planner::length_mm(const GridSlit& slit) const {
    if (slit.across) {
        const int row = static_cast<int>(std::lround(slit.line));
        return grid_.across_mm(row, slit.fromLow ? 0 : grid_.columns() - 1, slit.tip);
    }
    return grid_.rowStep_mm() * (slit.fromLow ? slit.tip : grid_.rows() - 1 - slit.tip);
}

std::optional<GridSlit> Planner::inGrid(const Slit& slit) const {
    const Vec2 mouth = slit.line.front(), tip = slit.line.back();
    if (std::abs(tip.x() - mouth.x()) > std::abs(tip.y() - mouth.y())) return std::nullopt;
    const double line = std::clamp(grid_.rowAt(mouth.x()), 1.0, grid_.rows() - 2.0);
    const int row = static_cast<int>(std::lround(line));
    int nearest = 0;
    for (int c = 0; c < grid_.columns(); ++c) {
        const auto off = [&](int at) {
            return std::abs(grid_.skin()[static_cast<std::size_t>(grid_.at(row, at))].y() - tip.y());
        };
        if (off(c) < off(nearest)) nearest = c;
    }
    nearest = std::clamp(nearest, 1, grid_.columns() - 2);
    return GridSlit{true, tip.y() > mouth.y(), line, nearest, true};
}

bool Planner::allowed(const std::vector<GridSlit>& slits, double row, bool fromLow) const {
    const double apart = kSlitsApart_mm / grid_.rowStep_mm();
    if (row < apart || row > grid_.rows() - 1 - apart) return false;
    return std::none_of(slits.begin(), slits.end(), [&](const GridSlit& s) {
        return s.across && s.fromLow == fromLow && std::abs(s.line - row) < apart;
    });
}

std::optional<GridSlit> Planner::acrossAt(double row, bool fromLow, int farthest) const {
    const bool free = wish_.keepOff.empty();
    const int nearest = static_cast<int>(std::lround(row));
    if (free) return GridSlit{true, fromLow, row, farthest};
    // The row near by whose slit is longest: being elsewhere costs.
    constexpr double kMayMove_mm = 8, kCostOfMoving = 0.6;
    const int reach = static_cast<int>(kMayMove_mm / grid_.rowStep_mm());
    std::optional<GridSlit> best;
    double bestScore = 0;
    for (int r = nearest - reach; r <= nearest + reach; ++r) {
        if (r < 1 || r > grid_.rows() - 2) continue;
        const GridSlit slit{true, fromLow, static_cast<double>(r), freeTip(r, fromLow, farthest)};
        const double length = length_mm(slit);
        if (length < kShortest_mm) continue;
        const double score = length - kCostOfMoving * std::abs(r - row) * grid_.rowStep_mm();
        if (!best || score > bestScore) {
            best = slit;
            bestScore = score;
        }
    }
    return best;
}

/// Cumulative integral of the root of the Gaussian curvature along rows (or columns), from 0 to 1.
std::vector<double> Planner::curvatureWay(bool across) const {
    const std::vector<double> curvature = grid_.curvature_rad();
    const int lines = across ? grid_.rows() : grid_.columns();
    std::vector<double> sums(static_cast<std::size_t>(lines), 0);
    for (int r = 0; r < grid_.rows(); ++r)
        for (int c = 0; c < grid_.columns(); ++c)
            sums[static_cast<std::size_t>(across ? r : c)] +=
                curvature[static_cast<std::size_t>(grid_.at(r, c))];
    std::vector<double> way(sums.size(), 0);
    for (std::size_t i = 1; i < sums.size(); ++i) {
        const double mean = std::max(0.0, 0.5 * (sums[i - 1] + sums[i]));
        way[i] = way[i - 1] + std::sqrt(mean) + 1e-6;
    }
    for (double& w : way) w /= way.back();
    return way;
}

std::vector<GridSlit> Planner::slitsAt(ReliefFamily family, bool fromLow,
                                       const std::vector<double>& at) const {
    std::vector<GridSlit> slits = own_;
    for (const double line : at) {
        if (family == ReliefFamily::Lengthwise) {
            const int core = std::max(1, static_cast<int>(std::ceil(kSlitCore_mm / grid_.rowStep_mm())));
            slits.push_back({false, fromLow, line, fromLow ? grid_.rows() - 1 - core : core});
            continue;
        }
        const int row = std::clamp(static_cast<int>(std::lround(line)), 1, grid_.rows() - 2);
        for (const bool low : {true, false}) {
            if (family == ReliefFamily::OneEdge && low != fromLow) continue;
            const auto slit = acrossAt(line, low, farthestColumn(family, low, row));
            if (slit && allowed(slits, slit->line, low)) slits.push_back(*slit);
        }
    }
    return slits;
}

Result<Tried> Planner::balanced(ReliefFamily family, bool fromLow, int count) const {
    const bool across = family != ReliefFamily::Lengthwise;
    const std::vector<double> way = curvatureWay(across);
    const double last = static_cast<double>(way.size() - 1);
    const auto lineAt = [&](double share) {
        const auto above = std::upper_bound(way.begin() + 1, way.end() - 1, share);
        const auto k = static_cast<std::size_t>(above - way.begin());
        return static_cast<double>(k) - 1 + (share - way[k - 1]) / (way[k] - way[k - 1]);
    };
    std::vector<double> widths;  // of the panels, in lines
    double before = 0;
    for (int i = 1; i <= count + 1; ++i) {
        const double end = i == count + 1 ? last : lineAt(static_cast<double>(i) / (count + 1));
        widths.push_back(std::max(end - before, 0.5));
        before = end;
    }
    Tried best;
    for (int round = 0; round < kRounds; ++round) {
        const double all = std::accumulate(widths.begin(), widths.end(), 0.0);
        std::vector<double> at;
        double sum = 0;
        for (std::size_t i = 0; i + 1 < widths.size(); ++i) {
            sum += widths[i] / all * last;
            at.push_back(sum);
        }
        const std::vector<GridSlit> slits = slitsAt(family, fromLow, at);
        if (slits.empty()) return best;
        Result<Tried> now = tried(slits, at);
        if (!now) {
            if (now.error().code == "cancelled") return now.error();
            return best;
        }
        if (now->strain < best.strain) best = *now;
        if (best.strain <= kSpare * limit_) break;
        if (best.strain * std::pow(kBestRound, kRounds - 1 - round) > limit_) break;
        double mean = 0;
        for (const Fraction p : now->panels) mean += std::log(p) / static_cast<double>(now->panels.size());
        for (std::size_t i = 0; i < widths.size(); ++i)
            widths[i] *= std::pow(std::exp(mean) / now->panels[i], kSteering);
    }
    return best;
}

Result<Tried> Planner::family(ReliefFamily family, bool fromLow, Fraction uncut, int least, int most) const {
    const Ratio gain = family == ReliefFamily::Lengthwise ? kLengthwise : kAcross;
    const int each = family == ReliefFamily::BothEdges ? 2 : 1;
    const int guess = std::max(least, static_cast<int>(std::ceil(std::sqrt(gain * uncut / limit_))) - 1);
    Tried best;
    for (int count = guess; count * each <= most; ++count) {
        Result<Tried> now = balanced(family, fromLow, count);
        if (!now) return now.error();
        const bool better = now->strain < best.strain;
        if (better) best = *now;
        if (best.strain <= limit_) break;
        if (count > guess + 1 && !better) break;  // more do not help
    }
    for (int count = guess - 1; count >= least && best.strain <= limit_; --count) {
        if (static_cast<int>(best.slits.size()) < count * each) break;
        Result<Tried> fewer = balanced(family, fromLow, count);
        if (!fewer) return fewer.error();
        if (fewer->strain > limit_) break;
        best = *fewer;
    }
    return best;
}

Result<Tried> Planner::exactly(int count) const {
    if (count % 2 == 0) return balanced(ReliefFamily::BothEdges, true, count / 2);
    Result<Tried> low = balanced(ReliefFamily::OneEdge, true, count);
    if (!low) return low.error();
    Result<Tried> high = balanced(ReliefFamily::OneEdge, false, count);
    if (!high) return high.error();
    return low->strain < high->strain ? *low : *high;
}

Result<Tried> Planner::singly(Tried best, int most) const {
    // In one piece: where windows leave no room for a family, one slit at a time near the worst place; then
    // those are taken out that do nothing.
    constexpr double kNear_mm = 12;
    constexpr std::size_t kCandidates = 3;
    while (best.strain > limit_ && static_cast<int>(best.slits.size()) < most) {
        struct Candidate {
            GridSlit slit;
            double score;
        };
        std::vector<Candidate> candidates;
        const double worstRow = grid_.rowAt(best.worst.x());
        for (int r = 1; r < grid_.rows() - 1; ++r) {
            const double off = std::abs(r - worstRow) * grid_.rowStep_mm();
            if (off > kNear_mm) continue;
            for (const bool low : {true, false}) {
                if (!allowed(best.slits, r, low)) continue;
                const GridSlit slit{true, low, static_cast<double>(r),
                                    freeTip(r, low, farthestColumn(ReliefFamily::Single, low, r))};
                if (length_mm(slit) < kShortest_mm) continue;
                const double tipAway = std::abs(
                    grid_.skin()[static_cast<std::size_t>(grid_.at(r, slit.tip))].y() - best.worst.y());
                candidates.push_back({slit, off + 0.5 * tipAway - 0.3 * length_mm(slit)});
            }
        }
        std::sort(candidates.begin(), candidates.end(),
                  [](const Candidate& a, const Candidate& b) { return a.score < b.score; });
        std::vector<Candidate> few;
        for (const Candidate& c : candidates) {
            const bool near = std::any_of(few.begin(), few.end(), [&](const Candidate& f) {
                return f.slit.fromLow == c.slit.fromLow && std::abs(f.slit.line - c.slit.line) < 2.5;
            });
            if (!near) few.push_back(c);
            if (few.size() == kCandidates) break;
        }
        Tried next;
        for (const Candidate& c : few) {
            std::vector<GridSlit> slits = best.slits;
            slits.push_back(c.slit);
            Result<Tried> now = tried(std::move(slits));
            if (!now && now.error().code == "cancelled") return now.error();
            if (now && now->strain < next.strain) next = *now;
        }
        if (next.slits.empty() || next.strain > 0.995 * best.strain) return best;
        best = next;
    }
    for (std::size_t i = 0; i < best.slits.size() && best.strain <= limit_;) {
        std::vector<GridSlit> slits = best.slits;
        if (slits[i].kept) {
            ++i;
            continue;
        }
        slits.erase(slits.begin() + static_cast<std::ptrdiff_t>(i));
        Result<Tried> without = tried(std::move(slits));
        if (!without) return without.error();
        if (without->strain <= limit_) {
            best = *without;
        } else {
            ++i;
        }
    }
    return best;
}

Result<Tried> Planner::shortened(Tried plan) const {
    // All alike first, by halving; a slit is not made shorter than is worth cutting.
    const auto shorter = [&](const std::vector<GridSlit>& slits, int by) {
        std::vector<GridSlit> result = slits;
        for (GridSlit& s : result) {
            if (s.kept) continue;
            const GridSlit cut{s.across, s.fromLow, s.line, s.tip + (s.fromLow ? -by : by)};
            const int edge = s.fromLow ? 0 : (s.across ? grid_.columns() : grid_.rows()) - 1;
            if ((s.fromLow ? cut.tip > edge : cut.tip < edge) && length_mm(cut) >= kShortest_mm) s = cut;
        }
        return result;
    };
    for (int by = 8; by >= 1 && plan.strain < kSpare * limit_; by /= 2) {
        const std::vector<GridSlit> slits = shorter(plan.slits, by);
        if (slits == plan.slits) continue;
        Result<Tried> now = tried(slits);
        if (!now) return now.error();
        if (now->strain <= kSpare * limit_) plan = *now;
    }
    return plan;
}

Result<Tried> Planner::proved(const std::vector<GridSlit>& planned, const ReliefGrid& from) const {
    std::vector<GridSlit> slits;
    std::vector<int> farthest;
    slits = own_;
    for (const GridSlit& s : own_) farthest.push_back(s.tip);
    for (const GridSlit& s : planned) {
        if (s.kept) continue;
        GridSlit here = s;
        const double finer = static_cast<double>(grid_.rows() - 1) / (from.rows() - 1);
        const auto columnHere = [&](double c) {
            const double core = from.coreColumn(),
                         share = c <= core ? c / core - 1 : (c - core) / (from.columns() - 1 - core);
            return share <= 0 ? (share + 1) * grid_.coreColumn()
                              : grid_.coreColumn() + share * (grid_.columns() - 1 - grid_.coreColumn());
        };
        if (s.across) {
            here.line = s.line * finer;
            here.tip = static_cast<int>(std::lround(columnHere(s.tip)));
            const int row = std::clamp(static_cast<int>(std::lround(here.line)), 1, grid_.rows() - 2);
            const ReliefFamily kind = (s.fromLow ? s.tip > from.coreColumn() : s.tip < from.coreColumn())
                                          ? ReliefFamily::OneEdge
                                          : ReliefFamily::BothEdges;
            farthest.push_back(freeTip(row, s.fromLow, farthestColumn(kind, s.fromLow, row)));
            if (s.fromLow ? here.tip > farthest.back() : here.tip < farthest.back())
                here.tip = farthest.back();
        } else {
            here.line = columnHere(s.line);
            here.tip = static_cast<int>(std::lround(s.tip * finer));
            const int core = std::max(1, static_cast<int>(std::ceil(kSlitCore_mm / grid_.rowStep_mm())));
            farthest.push_back(s.fromLow ? grid_.rows() - 1 - core : core);
        }
        slits.push_back(here);
    }
    // Half the steps read up to 3 % high: where that decides, all of them.
    constexpr Ratio kReadsHigh = 1.04;
    const auto sure = [&]() -> Result<Tried> {
        Result<Tried> quick = tried(slits);
        const bool close = quick && quick->strain > limit_ && quick->strain <= kReadsHigh * limit_;
        return close ? tried(slits, {}, Effort::Verdict) : quick;
    };
    Result<Tried> now = sure();
    while (now && now->strain > limit_) {
        bool longer = false;
        for (std::size_t i = 0; i < slits.size(); ++i) {
            if (slits[i].tip == farthest[i]) continue;
            slits[i].tip += slits[i].fromLow ? 1 : -1;
            longer = true;
        }
        if (!longer) break;
        now = sure();
    }
    return now;
}

/// Rows or columns with a slit on them.
int linesOf(const std::vector<GridSlit>& slits) {
    std::vector<double> lines;
    for (const GridSlit& s : slits) lines.push_back(s.line);
    std::sort(lines.begin(), lines.end());
    return static_cast<int>(std::unique(lines.begin(), lines.end()) - lines.begin());
}

int costOf(const Tried& plan, ReliefFamily family) {
    return static_cast<int>(plan.slits.size()) + (plan.mouth_mm > kWidestMouth_mm ? kWideMouth : 0) +
           (family == ReliefFamily::OneEdge      ? kCrossesFlank
            : family == ReliefFamily::Lengthwise ? kFansOut
                                                 : 0);
}

}  // namespace

Result<ReliefPlan> planRelief(const Skin& skin, const Strip& strip, Fraction limit, const ReliefWish& wish,
                              const Task& task) {
    // In one piece: families are tried in turn and proved on the finer mesh.
    Planner planner(skin, strip, limit, wish, kPlanned_mm, task);
    Result<Tried> uncut = planner.tried(planner.own());
    constexpr Ratio kClose = 1.15;
    if (uncut && uncut->strain > limit && uncut->strain < kClose * limit)
        uncut = planner.tried(planner.own(), {}, Effort::Verdict);
    if (!uncut) return uncut.error();
    ReliefPlan plan;
    plan.before = plan.reached = uncut->strain;
    plan.lies = uncut->strain <= limit;
    plan.slits = wish.kept;
    if (plan.lies && wish.exactly == 0) return plan;

    std::optional<Planner> fine;
    const auto take = [&](const Tried& tried, ReliefFamily family, const ReliefGrid& grid) {
        plan.slits = wish.kept;
        for (const GridSlit& slit : tried.slits)
            if (!slit.kept) plan.slits.push_back(grid.onSkin(slit));
        plan.family = family;
        plan.reached = tried.strain;
        plan.widestMouth_mm = tried.mouth_mm;
        plan.lies = tried.strain <= limit;
    };
    const auto prove = [&](Result<Tried> tried) -> Result<Tried> {
        if (!tried || tried->slits.empty() || tried->strain > limit) return tried;
        Result<Tried> shorter = planner.shortened(*tried);
        if (!shorter) return shorter.error();
        if (!fine) fine.emplace(skin, strip, limit, wish, kProved_mm, task);
        return fine->proved(shorter->slits, planner.grid());
    };
    if (wish.exactly > 0) {
        const Result<Tried> as = planner.exactly(wish.exactly);
        if (!as) return as.error();
        take(*as, wish.exactly % 2 ? ReliefFamily::OneEdge : ReliefFamily::BothEdges, planner.grid());
        return plan;
    }

    struct Option {
        ReliefFamily family;
        bool fromLow;
    };
    int cheapest = 1 << 20;
    std::optional<Tried> nearMiss;
    ReliefFamily nearMissFamily = ReliefFamily::None;
    for (const Option& option : {Option{ReliefFamily::BothEdges, true}, Option{ReliefFamily::OneEdge, true},
                                 Option{ReliefFamily::OneEdge, false}, Option{ReliefFamily::Lengthwise, true},
                                 Option{ReliefFamily::Lengthwise, false}}) {
        if (option.family == ReliefFamily::Lengthwise && !(wish.keepOff.empty() && wish.kept.empty()))
            continue;
        if (option.family != ReliefFamily::BothEdges && wish.mirrored) continue;
        const int dearer = costOf({}, option.family);
        const int most = std::min(wish.most, cheapest - dearer - 1);
        if (most < 1) continue;
        // What passes on the coarse mesh may fail on the fine one; then one line more.
        for (int least = 1; least <= most;) {
            Result<Tried> found = planner.family(option.family, option.fromLow, uncut->strain, least, most);
            if (!found) return found.error();
            if (found->slits.empty()) break;
            if (found->strain > limit) {
                if (!nearMiss || found->strain < nearMiss->strain) {
                    nearMiss = *found;
                    nearMissFamily = option.family;
                }
                break;
            }
            Result<Tried> sure = prove(found);
            if (!sure) return sure.error();
            if (sure->strain <= limit) {
                if (costOf(*sure, option.family) < cheapest) {
                    cheapest = costOf(*sure, option.family);
                    take(*sure, option.family, fine->grid());
                }
                break;
            }
            least = linesOf(found->slits) + 1;
        }
        if (plan.lies && plan.family == ReliefFamily::BothEdges && cheapest <= kFewEnough) break;
    }
    if (plan.lies) return plan;
    if (!wish.keepOff.empty()) {
        Tried from = nearMiss ? *nearMiss : *uncut;
        Result<Tried> single = planner.singly(from, wish.most);
        if (!single) return single.error();
        Result<Tried> sure = prove(single);
        if (!sure) return sure.error();
        const bool proved = single->strain <= limit;
        if (sure->strain < plan.before)
            take(*sure, ReliefFamily::Single, proved ? fine->grid() : planner.grid());
        return plan;
    }
    if (nearMiss) take(*nearMiss, nearMissFamily, planner.grid());
    return plan;
}

}  // namespace nine
