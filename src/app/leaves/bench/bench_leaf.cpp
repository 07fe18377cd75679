#include "app/leaves/bench/bench_leaf.h"

#include <QDateTime>
#include <QFileDialog>
#include <QFileInfo>
#include <algorithm>

#include "app/leaves/bench/bench_page.h"
#include "app/leaves/bench/bench_words.h"
#include "app/leaves/bench/cup_bars.h"
#include "app/leaves/bench/runner.h"
#include "app/leaves/leaves.h"
#include "app/sheet/names.h"

namespace nine::app {
namespace {

constexpr int kBenchCardFollows_ms = 150;

QString wattsText(double w) {
    return BenchLeaf::tr("%1 W").arg(w, 0, 'f', 0);
}

}  // namespace

BenchLeaf::BenchLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent),
      desk_(context, this),
      page_(new BenchPage(context, desk_)),
      card_(new CardHolder),
      runner_(new Runner(context, desk_)) {
    calm_.setSingleShot(true);
    calm_.setInterval(kBenchCardFollows_ms);
    connect(&calm_, &QTimer::timeout, this, [this] {
        emit restless();  // a step of the runner does not wait for the frame
        rebuildCard();
    });
    connect(&desk_, &BenchDesk::changed, this, [this] { calm_.start(); });
    connect(&context_.bench, &BenchStore::changed, this, [this] { calm_.start(); });
    connect(&context_.document, &JobDocument::changed, this, [this] { calm_.start(); });
    desk_.lookForRuns();
}

BenchLeaf::~BenchLeaf() {
    writer_.drain();
    delete runner_;
}

QWidget* BenchLeaf::page() {
    return page_;
}

LeafEntry BenchLeaf::entry() const {
    LeafEntry e;
    if (desk_.run().going()) {
        e.state = LeafState::Begun;
        return e;
    }
    if (context_.document.empty() || isDraft(job().get<LayersChapter>()) ||
        job().get<LayersChapter>().recipe.steps.empty())
        return e;
    e.state = LeafState::Begun;
    if (desk_.study().error) {
        e.state = LeafState::Repair;
        e.flags = 1;
        e.fault = true;
    } else if (desk_.study().planned) {
        e.state = LeafState::Ready;
    }
    return e;
}

std::vector<Flag> BenchLeaf::flags() {
    std::vector<Flag> all;
    const BenchStudy& study = desk_.study();
    if (study.error && study.error->code != "no_steps")
        all.push_back({"bench:" + study.error->code, said(*study.error), true, [] {}});
    return all;
}

Standing BenchLeaf::standing() const {
    if (!desk_.study().planned) return {};
    const BenchStudy& study = desk_.study();
    if (desk_.run().going())
        return {tr("Step %1 of %2 at the bench")
                    .arg(desk_.run().state().done() + 1)
                    .arg(desk_.run().state().order.size()),
                true,
                {}};
    return {tr("Painted by %1").arg(dayAndClock(study.start + study.plan.schedule.hands_s, desk_.now())),
            true,
            {}};
}

QString BenchLeaf::busyWith() const {
    return desk_.planning() ? tr("Putting the steps in order") : QString();
}

std::vector<MenuEntry> BenchLeaf::menu() {
    return {{tr("Step runner"), QKeySequence("Ctrl+R"), [this] { openRunner(); }},
            {tr("Steps for the bench as PDF ..."), {}, [this] { putOutSheet(false); }},
            {tr("Print the steps for the bench ..."), {}, [this] { putOutSheet(true); }}};
}

void BenchLeaf::told(const Status& status) {
    if (!status) context_.frame.complain(status.error());
}

void BenchLeaf::openRunner() {
    if (!desk_.run().there() && !desk_.beginRun()) {
        context_.frame.tell(tr("There is no plan yet to go through."), {}, {});
        return;
    }
    runner_->show();
    runner_->raise();
    runner_->activateWindow();
}

void BenchLeaf::makeItTheRecipe() {
    const JobAsItHappened made = withWhatHappened(job(), desk_.run().head().work, desk_.run().events());
    if (made.changed.empty()) {
        context_.frame.tell(tr("Everything was done as planned: the recipe stays as it is."), {}, {});
        return;
    }
    context_.document.beginGesture();
    context_.document.edit(made.job, tr("Make what happened the recipe"));
    context_.frame.tell(tr("The recipe is now as it was done: %1 changes.").arg(made.changed.size()), {}, {});
}

void BenchLeaf::addOther() {
    const QString path =
        QFileDialog::getOpenFileName(context_.frame.dialogParent(), tr("Another job on the same bench"), {},
                                     tr("Jobs (*.nineleaves.json)"));
    if (path.isEmpty()) return;
    told(desk_.change(tr("Add a job to the bench"),
                      [&](BenchChapter& bench) { bench.others.push_back(path.toStdString()); }));
}

ValueChip* BenchLeaf::shopChip(Card& card, const QString& name, int value,
                               std::function<void(BenchShop&, int)> set) {
    ValueChip* chip = card.chip(name, ValueChip::Kind::Count, 0, 1, {});
    chip->setValue(value);
    connect(chip, &ValueChip::committed, this, [this, chip, set = std::move(set)](double v) {
        const Status ok =
            desk_.changeShop([&](BenchShop& shop) { set(shop, static_cast<int>(std::lround(v))); });
        chip->setWrong(ok ? QString() : said(ok.error()));
    });
    return chip;
}

void BenchLeaf::rebuildCard() {
    if (putOff()) return;
    auto* card = new Card;
    const bool empty = context_.document.empty() && !desk_.run().there();
    if (empty) {
        card->title(tr("Bench"), false);
        card->words(tr("Nothing to paint yet."));
        sayRuns(*card);
    } else {
        sayNow(*card);
        sayRuns(*card);
        sayWrong(*card);
        sayTask(*card);
        sayPlan(*card);
        sayCups(*card);
        sayMasks(*card);
        sayOthers(*card);
        sayGates(*card);
        card->caution(
            tr("Respirator on while spraying: see each paint's data sheet. Hair dryer, compressor and fan: "
               "mind what the circuit bears."));
    }
    card->finish();
    card_->show(card);
}

void BenchLeaf::sayNow(Card& card) {
    BenchRun& run = desk_.run();
    const BenchStudy& study = desk_.study();
    if (!run.there()) {
        card.title(tr("At the bench"));
        if (study.planned && !study.plan.schedule.tasks.empty() && !study.jobs.empty()) {
            const PlacedTask& first = study.plan.schedule.tasks.front();
            card.words(
                tr("First: %1.").arg(taskTitle(jobOf(study.jobs, study.trayOf(first)), study.taskOf(first))));
            card.button(tr("Open the step runner"), Card::Look::Primary, [this] { openRunner(); });
        } else if (study.error) {
            card.words(said(*study.error));
            if (study.error->code == "no_steps")
                card.button(tr("To the Layers leaf"), Card::Look::Primary,
                            [this] { context_.frame.showLeaf(LayersNumber); });
        }
        return;
    }
    const BenchTask* task = run.task();
    card.title(task ? tr("Now, %1").arg(clockText(desk_.now())) : tr("All steps are done"));
    if (task && desk_.jobOfRun())
        card.words(taskTitle(*desk_.jobOfRun(), *task) + ", " + luresText(task->firstLure, task->lures));
    card.muted(tr("step %1 of %2")
                   .arg(std::min<std::size_t>(run.state().order.size(),
                                              static_cast<std::size_t>(run.state().done()) + 1))
                   .arg(run.state().order.size()));
    if (run.trouble()) card.framed(said(*run.trouble()), true);
    if (task) {
        card.button(tr("Open the step runner"), Card::Look::Primary, [this] { openRunner(); });
        card.button(tr("End the run here"), Card::Look::Link, [this] {
            if (context_.frame.ask(tr("End the run here?"),
                                   tr("What was done stays; the Log makes a card of it."), tr("End it")))
                desk_.run().add(Happened::Ended, {}, "early");
        });
        return;
    }
    card.button(tr("Make a recipe card in the Log"), Card::Look::Primary,
                [this] { context_.frame.showLeaf(LogNumber); });
    card.button(tr("Make what happened the recipe"), Card::Look::Second, [this] { makeItTheRecipe(); });
    card.button(tr("Put the run away"), Card::Look::Link, [this] {
        desk_.run().close();
        desk_.lookForRuns();
        desk_.replan();
    });
}

void BenchLeaf::sayWrong(Card& card) {
    const BenchStudy& study = desk_.study();
    if (study.error && study.error->code != "no_steps") card.framed(said(*study.error), true);
    if (!study.plan.schedule.stood.empty()) {  // the plan sees to it; the painter may know better
        const StoodTooLong& stood = study.plan.schedule.stood.front();
        card.framed(
            tr("%1 would stand in the gun \"%2\" from %3 to %4 and dry in the tip: it is cleaned out and "
               "filled anew.")
                .arg(QString::fromStdString(study.wish.work.cups[static_cast<std::size_t>(stood.cup)].name),
                     QString::fromStdString(study.wish.guns[static_cast<std::size_t>(stood.gun)].name),
                     dayAndClock(study.start + stood.from_s, desk_.now()),
                     clockText(study.start + stood.to_s)),
            false);
    }
    const BenchShop& shop = context_.bench.bench().shop;
    if (study.planned && study.load.peak_w > shop.circuit_w)
        card.framed(tr("At %1 compressor, fan and dryer draw %2 together, and the circuit bears %3: put the "
                       "dryer on another one.")
                        .arg(clockText(study.start + study.load.at_s), wattsText(study.load.peak_w),
                             wattsText(shop.circuit_w)),
                    false);
    for (const Warning& warning : study.warnings) card.framed(said(warning), false);
}

void BenchLeaf::sayTask(Card& card) {
    const BenchStudy& study = desk_.study();
    const PlacedTask* placed = study.planned ? study.placed(desk_.task()) : nullptr;
    if (!placed || study.jobs.empty()) return;
    const BenchTask& task = study.taskOf(*placed);
    const BenchTray& tray = study.trayOf(*placed);
    const JobOnBench& job = jobOf(study.jobs, tray);
    card.title(
        tr("Tray %1, %2").arg(QString::fromStdString(tray.tag), clockText(study.start + placed->start_s)),
        false);
    card.words(taskTitle(job, task));
    const QString how = settingText(job, task);
    if (!how.isEmpty()) card.muted(how);
    Card::Facts facts{
        {tr("Hands"), tr("%1, till %2").arg(spanText(task.hands_s), clockText(study.start + placed->end_s))}};
    if (task.free_s > 0)
        facts.append({tr("Rests"), tr("%1, till %2")
                                       .arg(spanText(task.free_s),
                                            dayAndClock(study.start + placed->free_s, desk_.now()))});
    if (placed->cleaned)
        facts.append(
            {tr("Before it"), tr("cup cleaned at %1").arg(clockText(study.start + placed->clean_s))});
    if (task.takes >= 0) {
        const BenchTool& tool = study.wish.work.tools[static_cast<std::size_t>(task.takes)];
        facts.append({QString::fromStdString(tool.name),
                      tool.copies == 1 ? tr("one of it") : tr("%1 of it").arg(tool.copies)});
    }
    card.facts(facts);
    for (const Gate& gate : gatesOf(job, task, {}, false)) card.muted("· " + said(gate.says));
    const auto& locks = desk_.chapter().locks;
    if (std::any_of(locks.begin(), locks.end(), [&](const TaskLock& lock) { return lock.task == task.id; }))
        card.button(tr("Let it go where it suits best"), Card::Look::Link,
                    [this, id = task.id] { told(desk_.lock(id, -1)); });
    else
        card.muted(tr("Drag it along, or Left and Right: it begins no sooner, the rest follows."));
}

void BenchLeaf::sayPlan(Card& card) {
    // In one piece: when all is ready, then what the plan is made with.
    const BenchStudy& study = desk_.study();
    const BenchShop& shop = context_.bench.bench().shop;
    if (study.planned) {
        card.title(tr("The plan"), false);
        card.words(tr("Painted by %1, fished from %2.")
                       .arg(dayAndClock(study.start + study.plan.schedule.hands_s, desk_.now()),
                            dayAndClock(study.start + study.plan.schedule.ready_s, desk_.now())));
        const int colours = static_cast<int>(study.wish.work.cups.size());
        if (colours > 1)
            card.words(tr("%1 colours in %2 cup cleanings; lure by lure it would be %3.")
                           .arg(colours)
                           .arg(study.plan.schedule.cleanings)
                           .arg(study.lureByLure));
        const double over = study.plan.bound_s > 0
                                ? static_cast<double>(study.plan.schedule.ready_s) / study.plan.bound_s - 1
                                : 0;
        card.muted(over < 0.005 ? tr("No order is ready sooner.")
                                : tr("No order can be ready more than %1 sooner.")
                                      .arg(spanText(study.plan.schedule.ready_s - study.plan.bound_s)));
    }
    if (study.planned && study.load.peak_w <= shop.circuit_w)
        card.muted(tr("At most %1 run at one time; the circuit bears %2.")
                       .arg(wattsText(study.load.peak_w), wattsText(shop.circuit_w)));
    if (desk_.run().going()) return;
    ValueChip* lures = card.chip(tr("Lures"), ValueChip::Kind::Count, 0, 1, {});
    lures->setValue(job().get<LayersChapter>().lures);
    connect(lures, &ValueChip::committed, this, [this, lures](double v) {
        const Status ok = desk_.setLures(static_cast<int>(std::clamp(std::round(v), -1e6, 1e6)));
        lures->setWrong(ok ? QString() : said(ok.error()));
    });
    QList<Card::Choice> dryers, residues;
    for (std::size_t i = 0; i < dryerNames().size(); ++i)
        dryers.append(
            {said(Words(dryerNames()[i].name)), static_cast<std::size_t>(shop.dryer) == i,
             [this, i] { told(desk_.changeShop([i](BenchShop& s) { s.dryer = static_cast<Dryer>(i); })); }});
    for (std::size_t i = 0; i < residueNames().size(); ++i)
        residues.append(
            {said(Words(residueNames()[i].name)), static_cast<std::size_t>(shop.residue) == i, [this, i] {
                 told(desk_.changeShop([i](BenchShop& s) { s.residue = static_cast<Residue>(i); }));
             }});
    card.sentence(
        tr("%1 lures in trays of %2, painters: %3, rack for %4, motor turns %5. Dried by %6; the cup is %7."),
        {lures, shopChip(card, tr("Bodies in a tray"), shop.tray, [](BenchShop& s, int v) { s.tray = v; }),
         shopChip(card, tr("Painters"), shop.painters, [](BenchShop& s, int v) { s.painters = v; }),
         shopChip(card, tr("Places on the rack"), shop.rack, [](BenchShop& s, int v) { s.rack = v; }),
         shopChip(card, tr("Places on the turning motor"), shop.turner,
                  [](BenchShop& s, int v) { s.turner = v; }),
         card.menuButton(said(Words(dryerNames()[static_cast<std::size_t>(shop.dryer)].name)), dryers),
         card.menuButton(said(Words(residueNames()[static_cast<std::size_t>(shop.residue)].name)),
                         residues)});
    const auto minutes = [&](const QString& name, int s, std::function<void(BenchShop&, int)> set) {
        return shopChip(card, name, s / 60, std::move(set));
    };
    card.sentence(
        tr("Cleaning a cup takes %1 min, filling one %2 min; paint stands %3 min in a gun before it dries."),
        {minutes(tr("Minutes to clean a cup"), shop.clean_s, [](BenchShop& s, int v) { s.clean_s = 60 * v; }),
         minutes(tr("Minutes to fill a cup"), shop.fill_s, [](BenchShop& s, int v) { s.fill_s = 60 * v; }),
         minutes(tr("Minutes paint may stand"), shop.stand_s,
                 [](BenchShop& s, int v) { s.stand_s = 60 * v; })});
    const auto hours = [&](const QString& name, int min, std::function<void(BenchShop&, int)> set) {
        ValueChip* chip = card.chip(name, ValueChip::Kind::Number, 1, 0.5, {});
        chip->setValue(min / 60.0);
        connect(chip, &ValueChip::committed, this, [this, chip, set = std::move(set)](double v) {
            const Status ok = desk_.changeShop(
                [&](BenchShop& s) { set(s, static_cast<int>(std::clamp(std::round(60 * v), -1e6, 1e6))); });
            chip->setWrong(ok ? QString() : said(ok.error()));
        });
        return chip;
    };
    card.sentence(
        tr("Work from %1 to %2 o'clock, a break at %3 of %4 min. The circuit bears %5 W, the dryer draws %6 "
           "W."),
        {hours(tr("Work begins, o'clock"), shop.opens_min, [](BenchShop& s, int v) { s.opens_min = v; }),
         hours(tr("Work ends, o'clock"), shop.closes_min, [](BenchShop& s, int v) { s.closes_min = v; }),
         hours(tr("Break, o'clock"), shop.break_min, [](BenchShop& s, int v) { s.break_min = v; }),
         shopChip(card, tr("Minutes of the break"), shop.breakLong_min,
                  [](BenchShop& s, int v) { s.breakLong_min = v; }),
         shopChip(card, tr("Watts of the circuit"), static_cast<int>(shop.circuit_w),
                  [](BenchShop& s, int v) { s.circuit_w = v; }),
         shopChip(card, tr("Watts of the dryer"), static_cast<int>(shop.dryer_w),
                  [](BenchShop& s, int v) { s.dryer_w = v; })});
    if (!desk_.chapter().locks.empty())
        card.button(tr("Let all tasks go that were moved by hand"), Card::Look::Link, [this] {
            told(desk_.change(tr("Let all tasks go"), [](BenchChapter& bench) { bench.locks.clear(); }));
        });
}

void BenchLeaf::sayCups(Card& card) {
    const BenchStudy& study = desk_.study();
    if (!study.planned || study.cups.empty()) return;
    int lures = 0;
    for (const BenchTray& tray : study.wish.work.trays) lures += tray.lures;
    card.title(tr("In the cups"), false);
    card.muted(lures == 1 ? tr("ml, one lure") : tr("ml, %1 lures").arg(lures));
    std::vector<CupBar> bars;
    for (const CupOnBench& cup : study.cups)
        if (cup.all_ml > 0)
            bars.push_back({QColor(QString::fromStdString(cup.cup.colour)),
                            QString::fromStdString(cup.cup.name), cup.all_ml});
    card.add(new CupBars(std::move(bars)));
}

void BenchLeaf::sayMasks(Card& card) {
    const BenchStudy& study = desk_.study();
    if (!study.planned || study.wish.work.tools.empty() || desk_.run().going()) return;
    card.title(tr("Masks and nets at hand"), false);
    for (const CopyOffer& offer : study.offers)
        card.button(tr("%1 of %2: %3 sooner")
                        .arg(offer.copies)
                        .arg(QString::fromStdString(offer.name), spanText(offer.sooner_s)),
                    Card::Look::Link, [this, offer] {
                        told(desk_.change(tr("More of a mask"), [&](BenchChapter& bench) {
                            bench = withCopies(std::move(bench), offer.tool, offer.copies);
                        }));
                    });
    for (const BenchTool& tool : study.wish.work.tools) {
        const std::string id = tool.id.substr(tool.id.rfind('/') + 1);
        if (!tool.id.starts_with("/")) continue;  // of another job
        ValueChip* chip = card.chip(tr("How many of %1").arg(QString::fromStdString(tool.name)),
                                    ValueChip::Kind::Count, 0, 1, {});
        chip->setValue(tool.copies);
        chip->setOwner(id);
        connect(chip, &ValueChip::committed, this, [this, chip](double v) {
            const Status ok = desk_.change(tr("How many of a mask"), [&](BenchChapter& bench) {
                bench = withCopies(std::move(bench), chip->owner(),
                                   static_cast<int>(std::clamp(std::round(v), -1e6, 1e6)));
            });
            chip->setWrong(ok ? QString() : said(ok.error()));
        });
        card.sentence(QString::fromStdString(tool.name) + " %1", {chip});
    }
}

void BenchLeaf::sayOthers(Card& card) {
    if (desk_.run().going()) return;
    const auto& others = desk_.chapter().others;
    for (std::size_t i = 0; i < others.size(); ++i)
        card.button(tr("Take %1 off the bench").arg(QFileInfo(QString::fromStdString(others[i])).fileName()),
                    Card::Look::Link, [this, path = others[i]] {
                        told(desk_.change(tr("Take a job off the bench"),
                                          [&](BenchChapter& bench) { std::erase(bench.others, path); }));
                    });
    card.button(tr("Another job on the same bench ..."), Card::Look::Link, [this] { addOther(); });
}

void BenchLeaf::sayGates(Card& card) {
    card.button(allGates_ ? tr("Hide what is checked") : tr("What is checked before steps"), Card::Look::Link,
                [this] {
                    allGates_ = !allGates_;
                    calm_.start();
                });
    if (!allGates_) return;
    QList<Card::Choice> rows;
    for (const GateRow& row : gateRows()) {
        const bool on = asksGate(desk_.chapter(), row.id);
        rows.append({said(Words(row.name)), on, [this, id = std::string(row.id), on] {
                         told(desk_.change(
                             on ? tr("Do not ask a gate") : tr("Ask a gate"),
                             [&](BenchChapter& bench) { bench = withGate(std::move(bench), id, !on); }));
                     }});
    }
    card.choices(rows);
    card.muted(tr("What is switched off is not asked, and still printed."));
}

void BenchLeaf::sayRuns(Card& card) {
    if (desk_.run().there() || desk_.leftRuns().empty()) return;
    card.title(tr("Left in the middle"), false);
    constexpr std::size_t kShown = 4;
    for (std::size_t i = 0; i < std::min(kShown, desk_.leftRuns().size()); ++i) {
        const KnownRun& run = desk_.leftRuns()[i];
        card.button(tr("%1, begun %2: step %3 of %4")
                        .arg(QString::fromStdString(run.head.title),
                             QDateTime::fromSecsSinceEpoch(run.head.began).toString("d.M. H:mm"))
                        .arg(run.state.done())
                        .arg(run.state.order.size()),
                    Card::Look::Link, [this, folder = run.folder] {
                        const Status ok = desk_.run().resume(folder);
                        if (!ok) return context_.frame.complain(ok.error());
                        desk_.replan();
                        openRunner();
                    });
    }
}

}  // namespace nine::app
