#include "bench/placing.h"

#include <cmath>

#include "bench/residue.h"
#include "bench/workday.h"

namespace nine {
namespace {

constexpr double kSameNeedle_mm = 0.011;

bool sameNeedle(double a_mm, double b_mm) {
    return std::abs(a_mm - b_mm) < kSameNeedle_mm;
}
int copiesFor(const BenchWork& work, const BenchTask& task) {
    return std::min(task.lures, work.tools[static_cast<std::size_t>(task.takes)].copies);
}
template <typename T>
T& at(std::vector<T>& all, int i) {
    return all[static_cast<std::size_t>(i)];
}
template <typename T>
const T& at(const std::vector<T>& all, int i) {
    return all[static_cast<std::size_t>(i)];
}

}  // namespace

Placing::Placing(const BenchWish& wish) : wish_(wish) {
    const BenchWork& work = wish.work;
    painters_.resize(static_cast<std::size_t>(wish.shop.painters));
    guns_.resize(wish.guns.size());
    for (std::size_t g = 0; g < guns_.size(); ++g) {
        guns_[g].needle_mm = wish.guns[g].needles_mm.empty() ? 0 : wish.guns[g].needles_mm.front();
        guns_[g].cup = g < wish.done.cups.size() ? wish.done.cups[g] : -1;
        guns_[g].free_s = wish.done.now_s;
    }
    longestOpen_s_ = longestOpen_s(wish.closed);
    for (const BenchTray& tray : work.trays) bodies_ += tray.lures;
    for (const BenchTool& tool : work.tools)
        toolFree_s_.emplace_back(static_cast<std::size_t>(tool.copies), wish.done.now_s);
    cupLeft_.assign(work.cups.size(), 0);
    for (const TaskLock& lock : wish.locks) lockOf_s_[lock.task] = lock.start_s;
    trays_.resize(work.trays.size());
    schedule_.trayReady_s.assign(work.trays.size(), wish.done.now_s);
    for (std::size_t t = 0; t < trays_.size(); ++t) {
        TrayState& tray = trays_[t];
        tray.ready_s = wish.done.now_s;
        for (const BenchTask& task : work.trays[t].tasks) {
            const auto done = wish.done.ended_s.find(task.id);
            if (done == wish.done.ended_s.end() ||
                tray.next != static_cast<std::size_t>(&task - work.trays[t].tasks.data())) {
                if (task.cup >= 0) ++at(cupLeft_, task.cup);
                continue;
            }
            PlacedTask placed;
            placed.tray = static_cast<int>(t);
            placed.task = static_cast<int>(tray.next);
            placed.end_s = done->second;
            placed.start_s = placed.clean_s = placed.fill_s = placed.end_s - task.hands_s;
            placed.free_s = placed.end_s + task.free_s;
            placed.wasDone = true;
            schedule_.tasks.push_back(placed);
            if (task.takes >= 0) tray.held[task.takes] = copiesFor(work, task);
            if (task.frees >= 0) tray.held.erase(task.frees);
            tray.ready_s = std::max(wish.done.now_s, placed.free_s);
            schedule_.trayReady_s[t] = schedule_.ready_s = std::max(schedule_.ready_s, placed.free_s);
            ++tray.next;
        }
        for (const auto& [tool, copies] : tray.held) {
            std::vector<int>& free = at(toolFree_s_, tool);
            int left = copies;
            for (int& copy : free)
                if (copy != INT_MAX && left-- > 0) copy = INT_MAX;
        }
    }
}

bool Placing::finished(int tray) const {
    return at(trays_, tray).next >= at(wish_.work.trays, tray).tasks.size();
}

const BenchTask& Placing::taskOf(int tray) const {
    return at(wish_.work.trays, tray).tasks[at(trays_, tray).next];
}

int Placing::gap(int painter, int from_s, int work_s, int rest_s) const {
    const std::vector<Busy>& busy = at(painters_, painter);
    for (int start_s = from_s;;) {
        start_s = unbrokenFrom(wish_.closed, start_s, work_s, rest_s, longestOpen_s_);
        const int end_s = nine::finished(wish_.closed, start_s, work_s);
        const auto block = std::upper_bound(busy.begin(), busy.end(), start_s,
                                            [](int s, const Busy& b) { return s < b.to_s; });
        if (block == busy.end() || end_s <= block->from_s) return start_s;
        start_s = block->to_s;
    }
}

int Placing::toolFrom_s(const BenchTask& task) const {
    std::vector<int> free = at(toolFree_s_, task.takes);
    const auto nth = static_cast<std::size_t>(copiesFor(wish_.work, task)) - 1;
    std::nth_element(free.begin(), free.begin() + static_cast<std::ptrdiff_t>(nth), free.end());
    return free[nth];
}

std::vector<int> Placing::waitsFor(int tray) const {
    std::vector<int> holders;
    if (finished(tray) || taskOf(tray).takes < 0) return holders;
    for (std::size_t t = 0; t < trays_.size(); ++t)
        if (static_cast<int>(t) != tray && trays_[t].held.count(taskOf(tray).takes))
            holders.push_back(static_cast<int>(t));
    return holders;
}

/// When the hands may begin so that there is room for the bodies afterwards.
int Placing::rackFrom(const BenchTask& task, int start_s, int painter, int before_s, int rest_s) const {
    if (task.rests == Rests::Nowhere || task.free_s <= 0) return start_s;
    const auto& resting = task.rests == Rests::Rack ? rack_ : turner_;
    const int places = task.rests == Rests::Rack ? wish_.shop.rack : wish_.shop.turner;
    if (bodies_ <= places) return start_s;
    for (;;) {
        const int end_s = nine::finished(wish_.closed, start_s + before_s, task.hands_s);
        int next_s = INT_MAX;
        std::vector<Resting> beside;
        for (const Resting& r : resting) {
            if (r.to_s <= end_s) continue;
            next_s = std::min(next_s, r.to_s);
            if (r.from_s < end_s + task.free_s) beside.push_back(r);
        }
        const auto level = [&](int moment_s) {
            int bodies = 0;
            for (const Resting& r : beside)
                if (r.from_s <= moment_s && moment_s < r.to_s) bodies += r.bodies;
            return bodies;
        };
        // The level only rises where somebody is laid down.
        int worst = level(end_s);
        for (const Resting& r : beside)
            if (r.from_s > end_s) worst = std::max(worst, level(r.from_s));
        if (worst + task.lures <= places || next_s == INT_MAX) return start_s;
        start_s = gap(painter, start_s + (next_s - end_s), before_s + task.hands_s, rest_s);
    }
}

Placing::Readying Placing::readyingOf(const BenchTask& task, const GunState& gun, int from_s) const {
    Readying r;
    r.stood = gun.cup >= 0 && from_s - gun.free_s > wish_.shop.stand_s;
    if (gun.cup != task.cup || r.stood) {
        r.fill = true;
        r.fill_s = wish_.shop.fill_s;
        if (gun.cup >= 0)
            r.clean = r.stood || !carriesOn(wish_.shop.residue, at(wish_.work.cups, gun.cup),
                                            at(wish_.work.cups, task.cup));
    }
    r.needle = task.needle_mm > 0 && !sameNeedle(gun.needle_mm, task.needle_mm);
    if (r.needle && gun.cup >= 0) r.clean = r.fill = true;
    if (r.fill) r.fill_s = wish_.shop.fill_s;
    r.before_s = (r.clean ? wish_.shop.clean_s : 0) + (r.needle ? wish_.shop.needle_s : 0);
    return r;
}

std::optional<PlacedTask> Placing::onGun(int tray, int ready_s, int painter, int gunAt) const {
    const BenchTask& task = taskOf(tray);
    const GunState& gun = at(guns_, gunAt);
    const auto& needles = at(wish_.guns, gunAt).needles_mm;
    if (task.needle_mm > 0 &&
        std::none_of(needles.begin(), needles.end(), [&](double n) { return sameNeedle(n, task.needle_mm); }))
        return std::nullopt;
    Readying readying = readyingOf(task, gun, std::max(ready_s, gun.free_s));
    PlacedTask placed;
    for (int round = 0; round < 2; ++round) {
        int from_s = gun.free_s;
        if (readying.before_s > 0) {
            placed.clean_s = gap(painter, from_s, readying.before_s, kNight_s);
            from_s = nine::finished(wish_.closed, placed.clean_s, readying.before_s);
        }
        placed.fill_s = gap(painter, std::max(from_s, ready_s - readying.fill_s),
                            readying.fill_s + task.hands_s, wish_.shop.stand_s);
        placed.fill_s = rackFrom(task, placed.fill_s, painter, readying.fill_s, wish_.shop.stand_s);
        placed.start_s = openFrom(wish_.closed, nine::finished(wish_.closed, placed.fill_s, readying.fill_s));
        placed.end_s = nine::finished(wish_.closed, placed.start_s, task.hands_s);
        if (readying.before_s == 0) placed.clean_s = placed.fill_s;
        if (readying.fill || gun.cup != task.cup || placed.start_s - gun.free_s <= wish_.shop.stand_s) break;
        // It stands longer than was thought, because hands or rack are busy.
        readying = readyingOf(task, gun, placed.start_s);
    }
    placed.gun = gunAt;
    placed.cleaned = readying.clean;
    placed.needle = readying.needle;
    placed.filled = readying.fill;
    placed.stood = readying.stood && gun.cup == task.cup;
    return placed;
}

PlacedTask Placing::without(int tray, int ready_s, int painter) const {
    const BenchTask& task = taskOf(tray);
    PlacedTask placed;
    if (task.hands_s == 0 && task.rests == Rests::Nowhere) {  // waiting is done by itself, at night too
        placed.clean_s = placed.fill_s = placed.start_s = placed.end_s = ready_s;
        return placed;
    }
    placed.start_s = rackFrom(task, gap(painter, ready_s, task.hands_s, kNight_s), painter, 0, kNight_s);
    placed.clean_s = placed.fill_s = placed.start_s;
    placed.end_s = nine::finished(wish_.closed, placed.start_s, task.hands_s);
    return placed;
}

std::optional<PlacedTask> Placing::next(int tray, int gun) const {
    const BenchTask& task = taskOf(tray);
    int ready_s = at(trays_, tray).ready_s;
    if (!lockOf_s_.empty())
        if (const auto lock = lockOf_s_.find(task.id); lock != lockOf_s_.end())
            ready_s = std::max(ready_s, lock->second);
    if (task.takes >= 0) {
        const int tool_s = toolFrom_s(task);
        if (tool_s == INT_MAX) return std::nullopt;
        ready_s = std::max(ready_s, tool_s);
    }
    std::optional<PlacedTask> best;
    double bestKey = 0;
    for (int painter = 0; painter < static_cast<int>(painters_.size()); ++painter) {
        const auto offer = [&](PlacedTask placed, double key) {
            if (best && key >= bestKey) return;
            placed.painter = painter;
            best = placed;
            bestKey = key;
        };
        if (task.cup < 0) {
            const PlacedTask placed = without(tray, ready_s, painter);
            offer(placed, placed.end_s);
            continue;
        }
        for (int g = 0; g < static_cast<int>(guns_.size()); ++g) {
            if (gun >= 0 && g != gun) continue;
            const auto placed = onGun(tray, ready_s, painter, g);
            if (!placed) continue;
            // Work saved counts as much as time; a cup that is still wanted is given up last.
            const int held = at(guns_, g).cup;
            const bool givenUp = placed->filled && held >= 0 && held != task.cup && at(cupLeft_, held) > 0;
            offer(*placed, placed->end_s + (placed->cleaned ? wish_.shop.clean_s : 0) +
                               (placed->needle ? wish_.shop.needle_s : 0) +
                               (givenUp ? wish_.shop.clean_s : 0));
        }
    }
    if (!best && gun >= 0) return next(tray);
    if (best) {
        best->tray = tray;
        best->task = static_cast<int>(at(trays_, tray).next);
        best->free_s = best->end_s + task.free_s;
    }
    return best;
}

void Placing::occupy(int painter, int from_s, int to_s) {
    if (to_s <= from_s) return;
    std::vector<Busy>& busy = at(painters_, painter);
    const auto block =
        std::lower_bound(busy.begin(), busy.end(), from_s, [](const Busy& b, int s) { return b.from_s < s; });
    busy.insert(block, {from_s, to_s});
}

void Placing::place(const PlacedTask& placed) {
    const BenchTask& task = taskOf(placed.tray);
    TrayState& tray = at(trays_, placed.tray);
    if (placed.gun >= 0) {
        GunState& gun = at(guns_, placed.gun);
        if (placed.stood) schedule_.stood.push_back({placed.gun, gun.cup, gun.free_s, placed.start_s});
        if (placed.cleaned || placed.needle) {
            const int before_s =
                (placed.cleaned ? wish_.shop.clean_s : 0) + (placed.needle ? wish_.shop.needle_s : 0);
            occupy(placed.painter, placed.clean_s, nine::finished(wish_.closed, placed.clean_s, before_s));
        }
        occupy(placed.painter, placed.fill_s, placed.end_s);
        gun.cup = task.cup;
        if (placed.needle) gun.needle_mm = task.needle_mm;
        gun.free_s = placed.end_s;
        --at(cupLeft_, task.cup);
        schedule_.cleanings += placed.cleaned;
        schedule_.needles += placed.needle;
        schedule_.fills += placed.filled;
    } else {
        occupy(placed.painter, placed.start_s, placed.end_s);
    }
    if (task.takes >= 0) {
        std::vector<int>& free = at(toolFree_s_, task.takes);
        std::sort(free.begin(), free.end());
        const int copies = copiesFor(wish_.work, task);
        tray.held[task.takes] = copies;
        for (int n = 0; n < copies; ++n) at(free, n) = INT_MAX;
    }
    if (task.frees >= 0) {
        int& held = tray.held[task.frees];
        for (int& copy : at(toolFree_s_, task.frees))
            if (copy == INT_MAX && held > 0) {
                copy = placed.end_s;
                --held;
            }
        tray.held.erase(task.frees);
    }
    if (task.rests != Rests::Nowhere && task.free_s > 0)
        (task.rests == Rests::Rack ? rack_ : turner_).push_back({placed.end_s, placed.free_s, task.lures});
    if (!lockOf_s_.empty())
        if (const auto lock = lockOf_s_.find(task.id); lock != lockOf_s_.end())
            schedule_.late_s += std::max(0, placed.start_s - lock->second);
    tray.ready_s = placed.free_s;
    ++tray.next;
    at(schedule_.trayReady_s, placed.tray) = placed.free_s;
    schedule_.ready_s = std::max(schedule_.ready_s, placed.free_s);
    if (task.hands_s > 0) schedule_.hands_s = std::max(schedule_.hands_s, placed.end_s);
    schedule_.tasks.push_back(placed);
}

Schedule Placing::take() {
    std::stable_sort(schedule_.tasks.begin(), schedule_.tasks.end(),
                     [](const PlacedTask& a, const PlacedTask& b) { return a.start_s < b.start_s; });
    return std::move(schedule_);
}

}  // namespace nine
