// The order of a plan: greedy starts, then local search.
#include <algorithm>
#include <cmath>

#include "base/rng.h"
#include "bench/placing.h"
#include "recipe/amounts.h"

namespace nine {
namespace {

int left(const BenchWish& wish, std::size_t tray) {
    const auto& tasks = wish.work.trays[tray].tasks;
    int n = 0;
    while (n < static_cast<int>(tasks.size()) &&
           wish.done.ended_s.count(tasks[static_cast<std::size_t>(n)].id))
        ++n;
    return static_cast<int>(tasks.size()) - n;
}

/// All trays by turns: task by task.
BenchOrder sweeping(const BenchWish& wish) {
    BenchOrder order;
    std::size_t most = 0;
    for (const BenchTray& tray : wish.work.trays) most = std::max(most, tray.tasks.size());
    for (std::size_t k = 0; k < most; ++k)
        for (std::size_t t = 0; t < wish.work.trays.size(); ++t) {
            const auto& tasks = wish.work.trays[t].tasks;
            if (k < tasks.size() && !wish.done.ended_s.count(tasks[k].id))
                order.push_back(static_cast<int>(t));
        }
    return order;
}

BenchOrder trayByTray(const BenchWish& wish) {
    BenchOrder order;
    for (std::size_t t = 0; t < wish.work.trays.size(); ++t)
        order.insert(order.end(), static_cast<std::size_t>(left(wish, t)), static_cast<int>(t));
    return order;
}

/// What can go on soonest goes on; making a gun ready counts `readying` times, what is left of the tray's
/// own way `behind` times the other way.
std::optional<BenchOrder> dispatched(const BenchWish& wish, double readying, double behind,
                                     const Task& task) {
    std::vector<std::vector<int>> way_s;  // from each task to the end of its tray
    for (const BenchTray& tray : wish.work.trays) {
        std::vector<int> sums(tray.tasks.size() + 1, 0);
        for (std::size_t k = tray.tasks.size(); k-- > 0;)
            sums[k] = sums[k + 1] + tray.tasks[k].hands_s + tray.tasks[k].free_s;
        way_s.push_back(std::move(sums));
    }
    Placing placing(wish);
    BenchOrder order;
    for (;;) {
        std::optional<PlacedTask> best;
        double bestKey = 0;
        bool any = false;
        for (std::size_t t = 0; t < wish.work.trays.size(); ++t) {
            if (placing.finished(static_cast<int>(t))) continue;
            any = true;
            const auto next = placing.next(static_cast<int>(t));
            if (!next) continue;
            const double ready_s = (next->cleaned ? wish.shop.clean_s : 0) +
                                   (next->needle ? wish.shop.needle_s : 0) +
                                   (next->filled ? wish.shop.fill_s : 0);
            const double key =
                next->start_s + readying * ready_s - behind * way_s[t][static_cast<std::size_t>(next->task)];
            if (best && key >= bestKey) continue;
            best = next;
            bestKey = key;
        }
        if (!best) return any ? std::nullopt : std::optional(order);
        if (task.cancelled()) return std::nullopt;
        placing.place(*best);
        order.push_back(best->tray);
    }
}

constexpr double kWarm_s = 20;

/// An order that is as good or better, found by small changes (annealing; Kirkpatrick 1983).
class Search {
  public:
    Search(const BenchWish& wish, BenchPlan start) : wish_(wish), best_(std::move(start)), rng_(1) {
        best_.gunOf.resize(best_.order.size(), -1);
        now_ = best_;
    }

    /// Whether a change was found that is better than all before.
    bool step(Fraction heat) {
        BenchPlan tried;
        tried.order = now_.order;
        tried.gunOf = now_.gunOf;
        change(tried);
        const auto schedule = scheduled(wish_, tried.order, tried.gunOf);
        if (!schedule) return false;
        // Something worse is taken now and then, ever less of it: a plan must often be spoilt to be mended.
        const double heat_s = heat * kWarm_s;
        const double worse_s = schedule->cost() - now_.schedule.cost();
        if (worse_s > 1e-9 && !(heat_s > 0 && rng_.fraction() < std::exp(-worse_s / heat_s))) return false;
        tried.schedule = *schedule;
        tried.bound_s = best_.bound_s;
        now_ = std::move(tried);
        if (now_.schedule.cost() >= best_.schedule.cost() - 1e-9) return false;
        best_ = now_;
        return true;
    }
    const BenchPlan& best() const { return best_; }

  private:
    void change(BenchPlan& plan) {
        const std::size_t n = plan.order.size();
        const auto any = [&](std::size_t count) { return static_cast<std::size_t>(rng_.next() % count); };
        const std::size_t i = any(n);
        const std::size_t reach = std::min<std::size_t>(n, 4 + any(24));
        const std::size_t low = i > reach ? i - reach : 0, high = std::min(n, i + reach + 1);
        const std::size_t j = low + any(high - low);
        const auto p = plan.order.begin();
        const auto from = static_cast<std::ptrdiff_t>(i), to = static_cast<std::ptrdiff_t>(j);
        switch (any(wish_.guns.size() > 1 ? 4 : 3)) {
            case 0:
                std::swap(plan.order[i], plan.order[j]);
                break;
            case 1:  // one task goes elsewhere
                if (i < j)
                    std::rotate(p + from, p + from + 1, p + to + 1);
                else
                    std::rotate(p + to, p + from, p + from + 1);
                break;
            case 2: {  // a run of one tray's tasks goes elsewhere
                std::size_t end = i + 1;
                while (end < n && plan.order[end] == plan.order[i]) ++end;
                const auto last = static_cast<std::ptrdiff_t>(end);
                if (j > end)
                    std::rotate(p + from, p + last, p + to);
                else if (j < i)
                    std::rotate(p + to, p + from, p + last);
                break;
            }
            default:
                plan.gunOf[i] = static_cast<int>(any(wish_.guns.size() + 1)) - 1;
        }
    }

    const BenchWish& wish_;
    BenchPlan best_, now_;
    Rng rng_;
};

}  // namespace

std::size_t BenchWork::count() const {
    std::size_t n = 0;
    for (const BenchTray& tray : trays) n += tray.tasks.size();
    return n;
}

Figure Schedule::cost() const {
    return ready_s + 0.1 * hands_s + cleanings + 0.5 * needles + 0.2 * fills + 2.0 * late_s;
}

std::optional<Schedule> scheduled(const BenchWish& wish, const BenchOrder& order,
                                  const std::vector<int>& gunOf) {
    Placing placing(wish);
    // How many of its turns a tray has had before they came, to make way for another.
    std::vector<int> ahead(wish.work.trays.size(), 0);
    const auto advance = [&](auto&& self, int tray, int gun, std::size_t depth) -> bool {
        while (true) {
            const auto next = placing.next(tray, gun);
            if (next) {
                placing.place(*next);
                return true;
            }
            const std::vector<int> holders = placing.waitsFor(tray);
            if (holders.empty() || depth > wish.work.trays.size()) return false;
            if (placing.finished(holders.front()) || !self(self, holders.front(), -1, depth + 1))
                return false;
            ++ahead[static_cast<std::size_t>(holders.front())];
        }
    };
    for (std::size_t i = 0; i < order.size(); ++i) {
        int& early = ahead[static_cast<std::size_t>(order[i])];
        if (early > 0) {
            --early;
            continue;
        }
        if (placing.finished(order[i])) continue;
        if (!advance(advance, order[i], i < gunOf.size() ? gunOf[i] : -1, 0)) return std::nullopt;
    }
    return placing.take();
}

Result<BenchPlan> planBench(const BenchWish& wish, int tries, const Task& task,
                            const std::function<void(const BenchPlan&)>& better,
                            const std::optional<BenchOrder>& from) {
    if (Status ok = checkWish(wish); !ok) return ok.error();
    BenchPlan best;
    best.bound_s = readyBound_s(wish);
    bool found = false;
    const auto offer = [&](std::optional<BenchOrder> order) {
        if (!order) return;
        auto schedule = scheduled(wish, *order);
        if (!schedule || (found && schedule->cost() >= best.schedule.cost())) return;
        best.schedule = std::move(*schedule);
        best.order = std::move(*order);
        found = true;
        if (better) better(best);
    };
    if (from && from->size() == sweeping(wish).size()) offer(*from);
    offer(sweeping(wish));
    offer(trayByTray(wish));
    for (const double readying : {0.0, 1.0, 3.0})
        for (const double behind : {0.0, 0.05, 0.3})
            if (!found || !task.cancelled()) offer(dispatched(wish, readying, behind, found ? task : Task{}));
    if (!found)
        return Error{
            "waits_for_ever",
            NINE_WORDS("core",
                       "Each tray waits for a mask or a net that another one holds: lay them in the same "
                       "order on all, or have one more of each."),
            "masks"};
    if (best.order.empty()) return best;
    Search search(wish, best);
    for (int n = 0; n < tries; ++n) {
        if (task.cancelled()) break;
        if (search.best().schedule.ready_s <= best.bound_s && search.best().schedule.late_s == 0 &&
            n > tries / 3)
            break;
        if (search.step(1 - static_cast<double>(n) / tries) && better) better(search.best());
        if (n % 50 == 0) task.progress(static_cast<double>(n) / tries);
    }
    return search.best();
}

}  // namespace nine
