#include "app/leaves/bench/bench_desk.h"

#include <QElapsedTimer>
#include <QFileInfo>
#include <QPointer>
#include <algorithm>
#include <map>

namespace nine::app {
namespace {

constexpr SkinRaster kRaster{256, 160};
constexpr int kOfferTries = 0;
constexpr std::size_t kMostOffers = 3;

/// What is in the cups today.
std::vector<CupOnBench> cupsOf(const std::vector<JobOnBench>& jobs, const BenchWork& work) {
    std::map<std::string, double> ml;
    for (const JobOnBench& job : jobs)
        if (const auto amounts = amountsOf(job.recipe(), job.on->palette, job.on->areas_mm2, job.lures))
            for (const StepAmount& a : *amounts)
                if (const std::size_t s = job.place(a.step); s < job.steps.size() && job.steps[s].cup)
                    ml[job.steps[s].cup->key] += a.paint_ml + a.reducer_ml;
    std::vector<CupOnBench> cups;
    for (const CupContent& cup : work.cups) cups.push_back({cup, ml[cup.key]});
    return cups;
}

/// Another job on the same bench.
Result<JobOnBench> otherJob(const std::string& path, const Workplace& place, const Task& task) {
    const Result<LoadedJob> loaded = loadJob(path);
    if (!loaded) return loaded.error();
    Derivations derived;
    Result<RecipeOnBody> on = recipeOnBody(loaded->job, derived, kRaster, Fineness::Glance, task);
    if (!on) return on.error();
    Result<JobOnBench> made =
        jobOnBench(std::make_shared<const RecipeOnBody>(std::move(*on)), derived, place, {}, task);
    if (made) made->key = path;
    return made;
}

/// What one more of each mask would save, where it is worth an hour's cutting.
std::vector<CopyOffer> offersOf(const BenchStudy& study, const Workplace& place, const Task& task) {
    std::vector<CopyOffer> offers;
    const Result<BenchPlan> plain = planBench(study.wish, kOfferTries, task);
    if (!plain) return offers;
    std::size_t looked = 0;
    constexpr std::size_t kMostLooked = 16;
    for (const BenchTool& tool : study.wish.work.tools) {
        if (task.cancelled() || ++looked > kMostLooked) break;
        std::vector<JobOnBench> jobs = study.jobs;
        const std::string id = tool.id.substr(tool.id.rfind('/') + 1);
        const int most = place.shop.tray;
        if (tool.copies >= most) continue;
        for (JobOnBench& job : jobs) job.bench = withCopies(job.bench, id, std::min(most, 2 * tool.copies));
        BenchWish wish = wishOf(jobs, place, study.start);
        wish.closed = study.wish.closed;
        const Result<BenchPlan> with = planBench(wish, kOfferTries, task);
        if (!with) continue;
        const int sooner_s = plain->schedule.ready_s - with->schedule.ready_s;
        constexpr int kWorth_s = 900;
        if (sooner_s >= kWorth_s)
            offers.push_back({id, tool.name, std::min(most, 2 * tool.copies), sooner_s});
    }
    std::stable_sort(offers.begin(), offers.end(),
                     [](const CopyOffer& a, const CopyOffer& b) { return a.sooner_s > b.sooner_s; });
    if (offers.size() > kMostOffers) offers.resize(kMostOffers);
    return offers;
}

/// A file as it is seen from a folder.
std::string beside(const QString& folder, const std::string& path) {
    const QString name = QString::fromStdString(path);
    return QFileInfo(name).isAbsolute() ? path : (folder + "/" + name).toStdString();
}

constexpr qint64 kSeen_ms = 400;  // a plan is looked at so long before a better one takes its place

struct Asked {
    Job job;
    Workplace place;
    std::vector<MaskResult> masks;
    std::shared_ptr<const RecipeOnBody> before;
    std::vector<std::string> others;
    Moment start;
    std::optional<BenchDone> done;  ///< of a run that goes on
    std::optional<BenchWork> work;  ///< likewise
};

/// `show` gets a plan to look at while better ones are sought and offers are worked out, if that takes a
/// while.
BenchStudy studied(const Asked& asked, Derivations& derived, const Task& task,
                   const std::function<void(const BenchStudy&)>& show) {
    BenchStudy study;
    study.of = asked.job;
    study.start = asked.start;
    const auto failed = [&](const Error& error) {
        study.error = error;
        return study;
    };
    Result<RecipeOnBody> on =
        recipeOnBody(asked.job, derived, kRaster, Fineness::Glance, task, asked.before.get());
    if (!on) return failed(on.error());
    Result<JobOnBench> made = jobOnBench(std::make_shared<const RecipeOnBody>(std::move(*on)), derived,
                                         asked.place, asked.masks, task);
    if (!made) return failed(made.error());
    study.jobs.push_back(std::move(*made));
    for (const std::string& path : asked.others) {
        Result<JobOnBench> other = otherJob(path, asked.place, task);
        if (other)
            study.jobs.push_back(std::move(*other));
        else
            study.warnings.push_back(other.error());
    }
    for (const JobOnBench& job : study.jobs)
        study.warnings.insert(study.warnings.end(), job.warnings.begin(), job.warnings.end());
    study.wish = wishOf(study.jobs, asked.place, asked.start);
    if (asked.work) study.wish.work = *asked.work;
    if (asked.done) study.wish.done = *asked.done;
    study.cups = cupsOf(study.jobs, study.wish.work);
    study.lureByLure = cleaningsLureByLure(study.wish);
    constexpr int kTries = 800;
    const auto take = [&](const BenchPlan& plan) {
        study.plan = plan;
        study.planned = true;
        study.load = loadOf(study.wish, plan.schedule);
    };
    QElapsedTimer since;
    since.start();
    const Result<BenchPlan> plan = planBench(study.wish, kTries, task, [&](const BenchPlan& better) {
        if (since.elapsed() < kSeen_ms) return;
        take(better);
        show(study);
        since.start();
    });
    if (!plan) return failed(plan.error());
    take(*plan);
    if (asked.done) return study;
    show(study);
    study.offers = offersOf(study, asked.place, task);
    return study;
}

}  // namespace

const PlacedTask* BenchStudy::placed(const std::string& task) const {
    for (const PlacedTask& p : plan.schedule.tasks)
        if (taskOf(p).id == task) return &p;
    return nullptr;
}

BenchDesk::BenchDesk(LeafContext context, QObject* parent)
    : QObject(parent),
      context_(context),
      run_(QFileInfo(context.bench.path()).absolutePath() + "/runs", this) {
    rest_.setSingleShot(true);
    rest_.setInterval(kRest_ms);
    connect(&rest_, &QTimer::timeout, this, &BenchDesk::request);
    const auto soon = [this] {
        stale_ = true;
        if (watched_ || run_.going()) rest_.start();
    };
    connect(&context_.document, &JobDocument::changed, this, soon);
    connect(&context_.document, &JobDocument::opened, this, [this, soon] {
        study_ = {};
        before_.reset();
        task_.clear();
        soon();
        emit changed();
    });
    connect(&context_.bench, &BenchStore::changed, this, soon);
    // Lift and marks of masks come a little after the rest.
    connect(&context_.results, &Results::masksChanged, this, [this, soon] {
        if (context_.results.masks().whole) soon();
    });
    connect(&run_, &BenchRun::changed, this, [this] {
        stale_ = true;
        if (watched_) rest_.start();
        emit changed();
    });
}

void BenchDesk::setWatched(bool on) {
    watched_ = on;
    if (on && stale_) rest_.start();
}

void BenchDesk::setClock(Clock clock) {
    run_.setClock(std::move(clock));
}

void BenchDesk::select(const std::string& task) {
    if (task == task_) return;
    task_ = task;
    emit changed();
}

void BenchDesk::request() {
    stale_ = false;
    if (context_.document.empty() && !run_.going()) {
        study_ = {};
        emit changed();
        return;
    }
    Asked asked{context_.document.job(), context_.bench.bench(), {}, before_, {}, now(), {}, {}};
    if (const auto begins = parseUtc(chapter().begins); begins && *begins > now()) asked.start = *begins;
    // Minutes are enough, and the plan stays where it is for a while.
    constexpr Moment kGrain_s = 300;
    asked.start -= asked.start % kGrain_s;
    if (context_.results.masks().whole) asked.masks = context_.results.masks().masks;
    const QString folder = QFileInfo(context_.document.path()).absolutePath();
    for (const std::string& other : chapter().others) asked.others.push_back(beside(folder, other));
    if (run_.going()) {
        asked.job = run_.job();  // whatever is open now
        asked.others.clear();
        const QString home = QFileInfo(QString::fromStdString(run_.head().jobPath)).absolutePath();
        for (const std::string& other : asked.job.get<BenchChapter>().others)
            asked.others.push_back(beside(home, other));
        asked.start = run_.state().began.value_or(asked.start);
        asked.work = run_.head().work;
        BenchDone done;
        done.now_s = static_cast<int>(std::clamp<Moment>(now() - asked.start, 0, 365 * 86400));
        for (const auto& [task, fate] : run_.state().fates)
            if (fate != TaskFate::Waiting)
                done.ended_s[task] =
                    static_cast<int>(std::max<Moment>(0, run_.state().ended.at(task) - asked.start));
        asked.done = std::move(done);
    }
    const auto take = [this](BenchStudy study) {
        if (!study.jobs.empty()) before_ = study.jobs.front().on;
        study_ = std::move(study);
        if (!task_.empty() && study_.planned && !study_.placed(task_)) task_.clear();
        emit changed();
    };
    const auto show = [this, take, number = ++requests_](const BenchStudy& study) {
        QMetaObject::invokeMethod(
            this,
            [=, this] {
                if (number != requests_ || !slot_.running()) return;  // overtaken
                BenchStudy shown = study;
                shown.offers = study_.offers;  // stay until there are new ones
                take(std::move(shown));
            },
            Qt::QueuedConnection);
    };
    slot_.request([=, asked = std::move(asked),
                   derived = derived_](const Task& task) { return studied(asked, *derived, task, show); },
                  take);
    emit changed();
}

Status BenchDesk::change(const QString& label, const std::function<void(BenchChapter&)>& edit) {
    BenchChapter next = chapter();
    edit(next);
    const Job job = context_.document.job().with(std::move(next));
    if (Status ok = ChapterOf<BenchChapter>::check(job); !ok) return ok;
    context_.document.beginGesture();
    context_.document.edit(job, label);
    return Done{};
}

Status BenchDesk::setLures(int lures) {
    if (lures < 1 || lures > kMostLures) return luresError(lures, "layers.lures");
    LayersChapter layers = context_.document.job().get<LayersChapter>();
    layers.lures = lures;
    context_.document.beginGesture();
    context_.document.edit(context_.document.job().with(std::move(layers)), tr("Change the number of lures"));
    return Done{};
}

Status BenchDesk::changeShop(const std::function<void(BenchShop&)>& edit) {
    Workplace place = context_.bench.bench();
    edit(place.shop);
    return context_.bench.edit(std::move(place));
}

Status BenchDesk::lock(const std::string& task, int start_s) {
    return change(start_s < 0 ? tr("Let a task go") : tr("Move a task"), [&](BenchChapter& bench) {
        // Plans begin ever later; what was put at two o'clock stays there.
        const auto begins = parseUtc(bench.begins);
        if (!begins) bench.begins = utcText(study_.start);
        const Moment at = start_s + study_.start - begins.value_or(study_.start);
        bench =
            withLock(std::move(bench), task, start_s < 0 ? -1 : static_cast<int>(std::max<Moment>(0, at)));
    });
}

void BenchDesk::lookForRuns() {
    runs_.request([folder = run_.folder().toStdString()](const Task&) { return runsIn(folder); },
                  [this](std::vector<KnownRun> runs) {
                      std::erase_if(runs, [](const KnownRun& run) { return run.head.carded; });
                      left_ = std::move(runs);
                      emit changed();
                  });
}

bool BenchDesk::beginRun() {
    if (!study_.planned || study_.jobs.empty() || run_.going()) return false;
    RunHead head;
    const Job& job = study_.of;
    head.title = job.get<PatternChapter>().name.empty() ? job.get<BlankChapter>().name
                                                        : job.get<PatternChapter>().name;
    head.jobPath = context_.document.path().toStdString();
    for (const JobOnBench& one : study_.jobs) head.lures = one.key.empty() ? one.lures : head.lures;
    head.work = study_.wish.work;
    std::vector<std::string> order;
    for (const PlacedTask& placed : study_.plan.schedule.tasks) order.push_back(study_.taskOf(placed).id);
    run_.begin(std::move(head), job, order);
    request();
    return true;
}

const JobOnBench* BenchDesk::jobOfRun() const {
    if (!run_.there() || study_.jobs.empty()) return nullptr;
    const BenchTask* task = run_.task();
    const BenchTray* tray = task ? trayIn(run_.head().work, task->id) : nullptr;
    return tray ? &jobOf(study_.jobs, *tray) : &study_.jobs.front();
}

std::vector<Gate> BenchDesk::gatesOfRun(const BenchTask& task) const {
    const BenchTray* tray = trayIn(run_.head().work, task.id);
    if (!tray || study_.jobs.empty()) return {};
    const JobOnBench& job = jobOf(study_.jobs, *tray);
    // What was sprayed last, on whatever tray, is what the gun is set to; a mask that was on others is not
    // clean.
    std::optional<GunSetting> before;
    bool maskUsed = false;
    const auto places = tasksById(run_.head().work);
    for (const std::string& id : run_.state().past) {
        const auto place = places.find(id);
        if (place == places.end()) continue;
        const auto [done, its] = place->second;
        if (task.takes >= 0 && done->frees == task.takes) maskUsed = true;
        const JobOnBench& other = jobOf(study_.jobs, *its);
        for (const std::string& step : done->steps)
            if (const std::size_t s = other.place(step); s < other.steps.size() && other.steps[s].set)
                before = other.steps[s].set;
    }
    return gatesOf(job, task, before, maskUsed);
}

}  // namespace nine::app
