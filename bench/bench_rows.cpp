#include "bench_rows.h"

#include "base/number_text.h"
#include "base/rng.h"
#include "bench/schedule.h"
#include "log/card.h"

namespace nine {
namespace {

/// Trays of so many lures that go through as many steps: coats dried 5 to 7 min, one cup used twice, eyes
/// that wait 20 min, clear that turns a day.
BenchWish usualWork(int lures, int steps) {
    Rng rng(3);
    BenchWish wish;
    wish.guns = {{"one", {0.35}}, {"two", {0.3}}};
    wish.shop.rack = wish.shop.turner = 500;
    const int cups = std::max(1, (steps - 2) * 3 / 4);
    for (int c = 0; c < cups; ++c)
        wish.work.cups.push_back({std::to_string(c), "cup", "#808080", {30.0 + c, 0, 0}, "opaque", false});
    const int trays = (lures + 7) / 8;
    for (int t = 0; t < trays; ++t) {
        BenchTray tray{std::string(1, static_cast<char>('A' + t)), "", t * 8 + 1, lures / trays, {}};
        Rng same(7);
        for (int k = 0; k < steps; ++k) {
            BenchTask task;
            task.id = tray.tag + std::to_string(k);
            task.lures = tray.lures;
            task.hands_s = 180 + 30 * static_cast<int>(same.next() % 9);
            task.free_s = k == steps - 1   ? 86400
                          : k == steps - 2 ? 1200
                                           : 300 + 60 * static_cast<int>(same.next() % 3);
            task.cup = k < steps - 2 ? k % cups : -1;
            task.rests = Rests::Rack;
            tray.tasks.push_back(task);
        }
        wish.work.trays.push_back(std::move(tray));
    }
    return wish;
}

}  // namespace

void benchBenchAndLog(const TableRow& row, const Timed& best) {
    for (const auto& [lures, steps, target] : {std::tuple{20, 12, "50"}, {60, 20, "1000"}}) {
        const BenchWish wish = usualWork(lures, steps);
        Result<BenchPlan> plan = planBench(wish);
        const double seconds = best(3, [&] { plan = planBench(wish); });
        row(std::to_string(lures) + " lures through " + std::to_string(steps) + " steps planned", seconds,
            target,
            "ready " + fixedText(100 * (static_cast<double>(plan->schedule.ready_s) / plan->bound_s - 1), 1) +
                " % after what no plan beats");
    }
    CardIndex index;
    for (int n = 0; n < 2000; ++n) {
        RecipeCard card;
        card.title = "Pattern " + std::to_string(n);
        card.blank = n % 3 ? "Sedge 60" : "Reed 118";
        for (int s = 0; s < 40; ++s) {
            LaidStep step;
            step.name = "Colour " + std::to_string(s * n % 97);
            step.paint = {{"p", "Transparent paint " + std::to_string(s), 4}};
            step.colour = "#808030";
            card.steps.push_back(step);
        }
        index.put(std::to_string(n), n, searchTextOf(card));
    }
    row("2000 recipe cards searched for three words", best(5, [&] { (void)index.find("reed 1999 olive"); }),
        "50", "");
}

}  // namespace nine
