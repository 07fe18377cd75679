#include "scale/clip_plan.h"

#include <algorithm>
#include <cmath>

namespace nine {
namespace {

constexpr int kMostTrials = 16;

/// Clips of which some stay where they are, with a number of others spread evenly in each span between them.
struct Layout {
    std::vector<double> fixed_mm;
    std::vector<int> between;  ///< one fewer than fixed

    std::vector<Clip> clips() const {
        std::vector<Clip> all;
        for (std::size_t i = 0; i < fixed_mm.size(); ++i) {
            all.push_back({fixed_mm[i]});
            if (i + 1 == fixed_mm.size()) break;
            const double step = (fixed_mm[i + 1] - fixed_mm[i]) / (between[i] + 1);
            for (int k = 1; k <= between[i]; ++k)
                all.push_back({std::round(10 * (fixed_mm[i] + k * step)) / 10});
        }
        return all;
    }
    /// The span that the gap behind the clip of this index lies in.
    std::size_t spanOf(std::size_t clip) const {
        std::size_t i = 0, last = 0;
        for (; i < between.size(); ++i) {
            last += 1 + static_cast<std::size_t>(between[i]);
            if (clip < last) return i;
        }
        return between.empty() ? 0 : between.size() - 1;
    }
    int most(std::size_t span, double clip_mm) const {
        return static_cast<int>((fixed_mm[span + 1] - fixed_mm[span]) / (clip_mm * 1.02)) - 1;
    }
};

struct Trial {
    ClipPlan plan;
    std::vector<double> spans_mm;  ///< worst stand-off of each span
};

class Planner {
  public:
    Planner(const Skin& skin, const Drape& drape, const ClipPlanWish& wish, const ReliefAt& relief,
            const Task& task)
        : skin_(skin), drape_(drape), wish_(wish), relief_(relief), task_(task) {}

    Layout first() const {
        const double half = wish_.clip_mm / 2;
        const double low = std::ceil(10 * (drape_.grid.x_mm.front() + half)) / 10,
                     high = std::floor(10 * (drape_.grid.x_mm.back() - half)) / 10;
        std::vector<double> places{low, high};
        for (const auto& [from, to] : wish_.clear) {
            places.push_back(std::floor(10 * (from - half)) / 10);
            places.push_back(std::ceil(10 * (to + half)) / 10);
        }
        std::sort(places.begin(), places.end());
        Layout layout;
        for (const double x : places) {
            const bool off = x < low || x > high ||
                             std::any_of(wish_.clear.begin(), wish_.clear.end(), [&](const auto& c) {
                                 return x > c.first - half + 1e-6 && x < c.second + half - 1e-6;
                             });
            if (off) continue;
            if (!layout.fixed_mm.empty() && x - layout.fixed_mm.back() < wish_.clip_mm) continue;
            layout.fixed_mm.push_back(x);
        }
        // Free gaps of about 4 mm stand off 0.5 mm, longer ones by the power of 1.5.
        const double pitch = wish_.clip_mm + 4 * std::pow(wish_.allowed_mm / 0.5, 2.0 / 3);
        for (std::size_t i = 0; i + 1 < layout.fixed_mm.size(); ++i) {
            const double span = layout.fixed_mm[i + 1] - layout.fixed_mm[i];
            layout.between.push_back(spansClear(layout, i)
                                         ? 0
                                         : std::clamp(static_cast<int>(span / pitch), 0,
                                                      std::max(0, layout.most(i, wish_.clip_mm))));
        }
        return layout;
    }

    /// Whether something that must be kept clear lies between two fixed clips: then no other goes there.
    bool spansClear(const Layout& layout, std::size_t span) const {
        return std::any_of(wish_.clear.begin(), wish_.clear.end(), [&](const auto& c) {
            return c.second > layout.fixed_mm[span] && c.first < layout.fixed_mm[span + 1];
        });
    }

    Result<Trial> tried(const Layout& layout) {
        ++trials_;
        ClipWish clips{layout.clips(), wish_.clip_mm, wish_.lift_pa};
        const auto net = clipNet(skin_, drape_, clips, relief_, task_);
        if (!net) return net.error();
        Trial trial;
        trial.spans_mm.assign(layout.between.size(), 0);
        const std::vector<StandOff>& parts = (*net)->between;
        for (std::size_t i = 0; i < parts.size(); ++i) {
            double& span = trial.spans_mm[layout.spanOf(i ? i - 1 : 0)];
            span = std::max(span, parts[i].most_mm);
            trial.plan.standOff_mm = std::max(trial.plan.standOff_mm, parts[i].most_mm);
        }
        trial.plan.clips = std::move(clips.clips);
        trial.plan.keeps = trial.plan.standOff_mm <= wish_.allowed_mm;
        trial.plan.trials = trials_;
        return trial;
    }
    int trials() const { return trials_; }
    bool more() const { return trials_ < kMostTrials && !task_.cancelled(); }

  private:
    const Skin& skin_;
    const Drape& drape_;
    const ClipPlanWish& wish_;
    const ReliefAt& relief_;
    const Task& task_;
    int trials_ = 0;
};

bool isBetter(const ClipPlan& plan, const ClipPlan& than) {
    if (than.clips.empty()) return true;
    if (plan.keeps != than.keeps) return plan.keeps;
    return plan.keeps ? plan.clips.size() < than.clips.size() : plan.standOff_mm < than.standOff_mm;
}

}  // namespace

Result<ClipPlan> planClips(const Skin& skin, const Drape& drape, const ClipPlanWish& wish,
                           const ReliefAt& relief, const std::function<void(const ClipPlan&)>& better,
                           const Task& task) {
    // In one piece: more clips until all gaps keep, then fewer as long as they do.
    if (!(wish.allowed_mm >= kLeastAllowed_mm && wish.allowed_mm <= kMostAllowed_mm))
        return Error{"out_of_range", NINE_WORDS("core", "The gap allowed under a net is 0.05 to 20 mm."),
                     "allowed_mm"};
    if (Status ok = checkClips(drape, {{}, wish.clip_mm, wish.lift_pa}, "scales"); !ok) return ok.error();
    Planner planner(skin, drape, wish, relief, task);
    Layout layout = planner.first();
    if (layout.fixed_mm.size() < 2)
        return Error{"out_of_range", NINE_WORDS("core", "The net is too short for two clips of this width."),
                     "clip_mm"};
    ClipPlan best;
    Layout kept;
    std::vector<double> spans;
    std::optional<Error> failed;
    const auto take = [&](const Layout& tried) -> bool {
        const Result<Trial> trial = planner.tried(tried);
        if (!trial) {
            failed = trial.error();
            return false;
        }
        spans = trial->spans_mm;
        if (!isBetter(trial->plan, best)) return false;
        best = trial->plan;
        kept = tried;
        if (better) better(best);
        return true;
    };
    while (planner.more()) {
        failed.reset();
        take(layout);
        if (failed && failed->code == "cancelled") break;
        bool added = false;
        for (std::size_t i = 0; i < layout.between.size(); ++i) {
            const bool loose = failed || spans[i] > wish.allowed_mm;
            if (!loose || planner.spansClear(layout, i) || layout.between[i] >= layout.most(i, wish.clip_mm))
                continue;
            ++layout.between[i];
            added = true;
        }
        if (!added || best.keeps) break;
    }
    // Fewer: first between, then those that stand beside what is kept clear.
    for (std::size_t i = 0; best.keeps && i < kept.between.size() && planner.more();) {
        Layout fewer = kept;
        if (fewer.between[i] > 0) {
            --fewer.between[i];
            if (!take(fewer)) ++i;
        } else {
            ++i;
        }
    }
    for (std::size_t i = 1; best.keeps && i + 1 < kept.fixed_mm.size() && planner.more();) {
        Layout fewer = kept;
        const int joined = fewer.between[i - 1] + fewer.between[i];
        if (joined > 0) {  // only a gap without others can become one across
            ++i;
            continue;
        }
        fewer.fixed_mm.erase(fewer.fixed_mm.begin() + static_cast<std::ptrdiff_t>(i));
        fewer.between.erase(fewer.between.begin() + static_cast<std::ptrdiff_t>(i));
        if (!take(fewer)) ++i;
    }
    best.trials = planner.trials();
    if (best.clips.empty() && task.cancelled()) return Task::cancelledError();
    if (best.clips.empty())
        return failed ? *failed
                      : Error{"not_settled",
                              NINE_WORDS("core", "No clips were found that hold this net; use another net."),
                              "clips"};
    return best;
}

}  // namespace nine
