#include "scale/clip_plan.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace nine {
namespace {

constexpr int kRounds = 3, kMostTrials = 12;

class Planner {
  public:
    Planner(const Skin& skin, const Drape& drape, const ClipPlanWish& wish, const ReliefAt& relief,
            const Task& task)
        : skin_(skin), drape_(drape), wish_(wish), relief_(relief), task_(task) {
        low_ = drape.grid.x_mm.front() + wish.clip_mm / 2;
        high_ = drape.grid.x_mm.back() - wish.clip_mm / 2;
        most_ = std::min(static_cast<int>(kMostClips),
                         1 + static_cast<int>((high_ - low_) / (wish.clip_mm * 1.05)));
    }

    /// The best of a few rounds with so many clips.
    Result<ClipPlan> withCount(int count) {
        std::vector<double> gaps(static_cast<std::size_t>(count - 1), (high_ - low_) / (count - 1));
        ClipPlan best;
        best.standOff_mm = 1e9;
        for (int round = 0; round < kRounds && trials_ < kMostTrials; ++round) {
            ClipWish clips;
            clips.clip_mm = wish_.clip_mm;
            clips.lift_pa = wish_.lift_pa;
            double x = low_;
            clips.clips.push_back({clearOf(x)});
            for (const double gap : gaps) {
                x += gap;
                clips.clips.push_back({behind(clips.clips.back().x_mm + wish_.clip_mm, clearOf(x))});
            }
            if (clips.clips.back().x_mm > high_ + wish_.clip_mm / 4) break;
            ++trials_;
            const auto net = clipNet(skin_, drape_, clips, relief_, task_);
            if (!net) {
                if (net.error().code == "cancelled") return net.error();
                break;  // this one does not come to rest
            }
            const std::vector<double> off = standOffs(**net);
            const double worst = *std::max_element(off.begin(), off.end());
            if (worst < best.standOff_mm) best = {clips.clips, worst, worst <= wish_.allowed_mm, trials_};
            if (worst <= wish_.allowed_mm) break;
            const double sum = std::accumulate(gaps.begin(), gaps.end(), 0.0);
            for (std::size_t i = 0; i < gaps.size(); ++i)
                gaps[i] *= std::clamp(std::sqrt(0.5 * wish_.allowed_mm / std::max(off[i], 1e-3)), 0.65, 1.5);
            const double scale = sum / std::accumulate(gaps.begin(), gaps.end(), 0.0);
            for (double& gap : gaps) gap = std::max(gap * scale, wish_.clip_mm * 1.02);
            const double over = std::accumulate(gaps.begin(), gaps.end(), 0.0) - sum;
            if (over > 0) *std::max_element(gaps.begin(), gaps.end()) -= over;
        }
        return best;
    }

    int firstGuess() const {
        // Free gaps of about 4 mm stand off 0.7 mm; the stand-off grows with the gap to the power of 1.5.
        const double freeGap = 4 * std::pow(wish_.allowed_mm / 0.5, 2.0 / 3);
        return std::clamp(2 + static_cast<int>((high_ - low_) / (wish_.clip_mm + freeGap)), 2, most_);
    }
    int most() const { return most_; }
    int trials() const { return trials_; }

  private:
    /// To a tenth of a millimetre, moved off what has to be kept clear to the nearer side where the net still
    /// lies.
    double clearOf(double x) const {
        const double half = wish_.clip_mm / 2, low = drape_.grid.x_mm.front(), high = drape_.grid.x_mm.back();
        for (const auto& [from, to] : wish_.clear) {
            const double a = from - half, b = to + half;
            if (x > a && x < b) x = (x - a < b - x && a >= low + half) || b > high - half ? a : b;
        }
        return std::clamp(std::round(10 * x) / 10, low, high);
    }

    /// x, or if that is before `least` the first place from there on that need not be kept clear.
    double behind(double least, double x) const {
        if (x >= least) return x;
        for (const auto& [from, to] : wish_.clear)
            if (least > from - wish_.clip_mm / 2 && least < to + wish_.clip_mm / 2)
                least = to + wish_.clip_mm / 2;
        return std::ceil(10 * least - 1e-6) / 10;
    }

    /// Of each gap the farther end of the range; before the first clip and behind the last with the gap
    /// beside it.
    static std::vector<double> standOffs(const ClippedNet& net) {
        std::vector<double> off(net.between.size() - 2, 0);
        for (std::size_t i = 0; i < net.between.size(); ++i) {
            double& gap = off[std::min(i ? i - 1 : 0, off.size() - 1)];
            gap = std::max(gap, net.between[i].most_mm);
        }
        return off;
    }

    const Skin& skin_;
    const Drape& drape_;
    const ClipPlanWish& wish_;
    const ReliefAt& relief_;
    const Task& task_;
    double low_, high_;
    int most_, trials_ = 0;
};

}  // namespace

Result<ClipPlan> planClips(const Skin& skin, const Drape& drape, const ClipPlanWish& wish,
                           const ReliefAt& relief, const std::function<void(const ClipPlan&)>& better,
                           const Task& task) {
    if (!(wish.allowed_mm >= kLeastAllowed_mm && wish.allowed_mm <= kMostAllowed_mm))
        return Error{"out_of_range", NINE_WORDS("core", "The gap allowed under a net is 0.05 to 20 mm."),
                     "allowed_mm"};
    ClipWish none;
    none.clip_mm = wish.clip_mm;
    if (Status ok = checkClips(drape, none, "scales"); !ok) return ok.error();
    Planner planner(skin, drape, wish, relief, task);
    ClipPlan best;
    best.standOff_mm = 1e9;
    const auto take = [&](const ClipPlan& plan) {
        const bool takes = plan.keeps != best.keeps ? plan.keeps
                           : plan.keeps             ? plan.clips.size() < best.clips.size()
                                                    : plan.standOff_mm < best.standOff_mm;
        if (!takes) return;
        best = plan;
        if (better) better(best);
    };
    int count = planner.firstGuess();
    bool grew = false, shrank = false;
    while (planner.trials() < kMostTrials && count >= 2 && count <= planner.most()) {
        const Result<ClipPlan> plan = planner.withCount(count);
        if (!plan) {
            if (best.clips.empty()) return plan.error();
            break;
        }
        take(*plan);
        if (plan->keeps ? grew : shrank) break;  // one fewer did not do
        (plan->keeps ? shrank : grew) = true;
        count += plan->keeps ? -1 : 1;
    }
    best.trials = planner.trials();
    if (best.clips.empty())
        return Error{"not_settled",
                     NINE_WORDS("core", "No clips were found that hold this net; use another net."), "clips"};
    return best;
}

}  // namespace nine
