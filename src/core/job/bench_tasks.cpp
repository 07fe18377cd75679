// From the steps of a recipe to the tasks of trays.
#include <algorithm>
#include <cmath>

#include "job/bench_job.h"

namespace nine {
namespace {

// Seconds of hands for one body (common practice and guesses; docs/MODEL.md).
constexpr int kDoing_s = 25, kCovering_s = 30, kByHand_s = 45;
constexpr int kLayStencil_s = 25, kLayTape_s = 60, kLiftSheet_s = 10, kWipe_s = 10;
constexpr int kNetOn_s = 90, kNetOff_s = 15, kEye_s = 40, kLock_s = 20, kMixClear_s = 300;
// Of warm air in the hand until gloss turns matt; of a whole tray in front of a stand; of air alone.
constexpr int kWarmInHand_s = 30, kWarmOnStand_s = 300, kAirDry_s = 1200;
constexpr int kFlash_s = 60, kTacky_s = 180, kTouch_s = 1200, kBetweenRests_s = 120;
constexpr int kNight_s = 12 * 3600;

/// One piece of a step, on one body.
struct Portion {
    int step = 0;
    int coat = 0, coats = 0;
    int hands_s = 0, free_s = 0;
    int cup = -1;
    double needle_mm = 0;
    bool heated = false, hand = false;  ///< warmed; in the hand
    Rests rests = Rests::Nowhere;
};

/// What a step means for the hands.
class Portions {
  public:
    Portions(const JobOnBench& job, const BenchShop& shop, BenchWork& work)
        : job_(job), shop_(shop), work_(work) {}

    /// `together` bodies go through it at a time; in small numbers they are warmed in the hand.
    std::vector<Portion> of(std::size_t s, bool inHand) {
        const Step& step = job_.recipe().steps[s];
        const StepOnBench& on = job_.steps[s];
        Portion piece;
        piece.step = static_cast<int>(s);
        switch (step.act) {
            case Act::Prepare:
                piece.hands_s = kDoing_s * std::max<int>(1, static_cast<int>(step.does.size()));
                break;
            case Act::Cover:
                piece.hands_s = kCovering_s * std::max<int>(1, static_cast<int>(step.does.size()));
                break;
            case Act::Base:
            case Act::Colour:
            case Act::ByHand:
                return coats(piece, step, on, inHand);
            case Act::MaskOn:
                piece.hands_s = sheets(step) * (tape(step) ? kLayTape_s : kLayStencil_s) +
                                (step.doing("wipe") ? kWipe_s : 0);
                break;
            case Act::MaskOff:
                piece.hands_s = sheets(step) * kLiftSheet_s;
                break;
            case Act::NetOn:
                piece.hands_s = kNetOn_s;
                break;
            case Act::NetOff:
                piece.hands_s = kNetOff_s;
                // Metal mesh comes off wet, for the next body; what was sprayed through it dries then.
                for (std::size_t k = s; k-- > 0 && !job_.facts.fabricNet;)
                    if (liftedWetAfter(k)) {
                        dry(piece, job_.recipe().steps[k], inHand, true);
                        break;
                    }
                break;
            case Act::Eyes:
                piece.hands_s = 2 * kEye_s;
                rest(piece, static_cast<int>(std::lround(60 * step.wait_min)), Rests::Rack);
                break;
            case Act::Lock:
                piece.hands_s = kLock_s;
                piece.cup = cupOf(on);
                rest(piece, kTouch_s, Rests::Rack);
                break;
            case Act::Clear:
                if (const ClearKind* clear = findClear(step.clear)) {
                    piece.hands_s = static_cast<int>(std::lround(60 * clear->spread_min));
                    rest(piece, static_cast<int>(std::lround(3600 * clear->dry_h)), Rests::Turner);
                } else {
                    piece.hands_s = 240;
                }
                break;
            case Act::Cure: {
                // What the clear has dried already counts.
                int dried_s = 0;
                for (std::size_t k = 0; k < s; ++k)
                    if (const Step& before = job_.recipe().steps[k]; before.on && before.act == Act::Clear)
                        if (const ClearKind* clear = findClear(before.clear))
                            dried_s = static_cast<int>(std::lround(3600 * clear->dry_h));
                rest(piece, std::max(0, static_cast<int>(std::lround(60 * step.wait_min)) - dried_s),
                     Rests::Nowhere);
                break;
            }
            case Act::Note:
                break;
        }
        if (step.act != Act::Eyes && step.act != Act::Cure && step.wait_min > 0)
            piece.free_s = std::max(piece.free_s, static_cast<int>(std::lround(60 * step.wait_min)));
        return {piece};
    }

  private:
    static void rest(Portion& piece, int free_s, Rests where) {
        piece.free_s = free_s;
        piece.rests = where;
    }
    int sheets(const Step& step) const {
        for (const MaskFact& m : job_.facts.masks)
            if (m.id == step.mask || m.twin == step.mask) return m.twin.empty() ? 1 : 2;
        return 1;
    }
    bool tape(const Step& step) const {
        for (const MaskFact& m : job_.facts.masks)
            if (m.id == step.mask || m.twin == step.mask) return m.tape;
        return false;
    }
    int cupOf(const StepOnBench& on) {
        if (!on.cup) return -1;
        for (std::size_t c = 0; c < work_.cups.size(); ++c)
            if (work_.cups[c].key == on.cup->key) return static_cast<int>(c);
        work_.cups.push_back(*on.cup);
        return static_cast<int>(work_.cups.size()) - 1;
    }
    /// Whether the next thing done is to lift a net that may be lifted wet.
    bool liftedWetAfter(std::size_t s) const {
        const auto& steps = job_.recipe().steps;
        if (job_.facts.fabricNet || !paints(steps[s].act)) return false;
        for (std::size_t k = s + 1; k < steps.size(); ++k)
            if (steps[k].on) return steps[k].act == Act::NetOff;
        return false;
    }
    void dry(Portion& piece, const Step& step, bool inHand, bool last) const {
        switch (step.dry) {
            case Dry::Wet:
                break;
            case Dry::Flash:
                rest(piece, kFlash_s, Rests::Rack);
                break;
            case Dry::Tacky:
                rest(piece, kTacky_s, Rests::Rack);
                break;
            case Dry::Touch:
                rest(piece, kTouch_s, Rests::Rack);
                break;
            case Dry::HeatMatt:
                if (shop_.dryer == Dryer::Air) {
                    rest(piece, kAirDry_s, Rests::Rack);
                    break;
                }
                piece.heated = true;
                if (inHand || shop_.dryer == Dryer::Hand) {
                    piece.hands_s += kWarmInHand_s;
                    piece.hand = true;
                } else {
                    rest(piece, kWarmOnStand_s, Rests::Rack);
                }
                break;
            case Dry::Rest:
                rest(piece, last ? static_cast<int>(std::lround(60 * step.rest_min)) : kBetweenRests_s,
                     Rests::Rack);
                break;
            case Dry::Overnight:
                rest(piece, last ? kNight_s : kTouch_s, Rests::Rack);
                break;
        }
    }
    std::vector<Portion> coats(Portion piece, const Step& step, const StepOnBench& on, bool inHand) {
        std::vector<Portion> all;
        piece.coats = on.set ? on.set->coats : 1;
        piece.cup = cupOf(on);
        piece.needle_mm = on.set ? on.set->needle_mm : 0;
        for (int c = 1; c <= piece.coats; ++c) {
            Portion coat = piece;
            coat.coat = c;
            coat.hands_s = on.set ? on.set->body_s : kByHand_s;
            if (c < piece.coats || !liftedWetAfter(static_cast<std::size_t>(piece.step)))
                dry(coat, step, inHand, c == piece.coats);
            all.push_back(coat);
        }
        return all;
    }

    const JobOnBench& job_;
    const BenchShop& shop_;
    BenchWork& work_;
};

/// Steps from the one that lays a mask or net on to the one that takes it off.
struct Section {
    std::size_t from, to;  ///< both within
    int tool = -1;
};

class Trays {
  public:
    Trays(const JobOnBench& job, const BenchShop& shop, BenchWork& work)
        : job_(job), shop_(shop), work_(work), pieces_(job, shop, work) {
        findSections();
    }

    BenchTray made(const std::string& tag, int firstLure, int lures) {
        BenchTray tray;
        tray.tag = tag;
        tray.job = job_.key;
        tray.firstLure = firstLure;
        tray.lures = lures;
        const auto& steps = job_.recipe().steps;
        for (std::size_t s = 0; s < steps.size(); ++s) {
            if (!steps[s].on) continue;
            const auto section = std::find_if(sections_.begin(), sections_.end(),
                                              [&](const Section& x) { return x.from == s; });
            if (section == sections_.end()) {
                for (const Portion& piece : pieces_.of(s, false)) add(tray, piece, lures, firstLure, "");
                continue;
            }
            const int copies = work_.tools[static_cast<std::size_t>(section->tool)].copies;
            if (copies >= lures)
                wholeTray(tray, *section);
            else
                inWaves(tray, *section, copies);
            s = section->to;
        }
        return tray;
    }

  private:
    void findSections() {
        const auto& steps = job_.recipe().steps;
        for (std::size_t s = 0; s < steps.size(); ++s) {
            if (!steps[s].on || (steps[s].act != Act::MaskOn && steps[s].act != Act::NetOn)) continue;
            const bool net = steps[s].act == Act::NetOn;
            std::size_t to = s;
            for (std::size_t k = s + 1; k < steps.size(); ++k) {
                if (!steps[k].on) continue;
                if (steps[k].act == (net ? Act::NetOff : Act::MaskOff) &&
                    (net || same(steps[k].mask, steps[s].mask))) {
                    to = k;
                    break;
                }
                if (steps[k].act == Act::Eyes || steps[k].act == Act::Clear) break;
            }
            if (to == s) continue;  // never taken off: the rules say so
            sections_.push_back({s, to, toolOf(net ? kNetTool : idOf(steps[s].mask), net)});
            s = to;  // what lies within another is laid on and off with it
        }
    }
    bool same(const std::string& a, const std::string& b) const { return idOf(a) == idOf(b); }
    std::string idOf(const std::string& mask) const {
        for (const MaskFact& m : job_.facts.masks)
            if (m.id == mask || m.twin == mask) return m.id;
        return mask;
    }
    int toolOf(const std::string& id, bool net) {
        const std::string key = job_.key + "/" + id;
        for (std::size_t t = 0; t < work_.tools.size(); ++t)
            if (work_.tools[t].id == key) return static_cast<int>(t);
        BenchTool tool{key, id, copiesOf(job_.bench, id)};
        for (const MaskFact& m : job_.facts.masks)
            if (m.id == id) tool.name = m.name;
        if (net && job_.on->of.get<ScalesChapter>().net)
            tool.name = job_.on->of.get<ScalesChapter>().net->name;
        work_.tools.push_back(tool);
        return static_cast<int>(work_.tools.size()) - 1;
    }

    BenchTask& add(BenchTray& tray, const Portion& piece, int lures, int firstLure, const std::string& wave) {
        const Step& step = job_.recipe().steps[static_cast<std::size_t>(piece.step)];
        BenchTask task;
        task.id = tray.tag + "/" + step.id + (piece.coats > 1 ? ":" + std::to_string(piece.coat) : "") + wave;
        task.steps = {step.id};
        task.coat = piece.coat;
        task.coats = piece.coats;
        task.firstLure = firstLure;
        task.lures = lures;
        task.hands_s = lures * piece.hands_s + (step.act == Act::Clear ? kMixClear_s : 0);
        task.free_s = piece.free_s;
        task.cup = piece.cup;
        task.needle_mm = piece.needle_mm;
        task.rests = piece.free_s > 0 ? piece.rests : Rests::Nowhere;
        task.heated = piece.heated;
        tray.tasks.push_back(std::move(task));
        return tray.tasks.back();
    }

    void wholeTray(BenchTray& tray, const Section& section) {
        const std::size_t from = tray.tasks.size();
        for (std::size_t s = section.from; s <= section.to; ++s)
            if (job_.recipe().steps[s].on)
                for (const Portion& piece : pieces_.of(s, false))
                    add(tray, piece, tray.lures, tray.firstLure, "");
        tray.tasks[from].takes = section.tool;
        tray.tasks.back().frees = section.tool;
    }

    /// As many bodies at a time as there are masks. Portions with one cup and no rest in between are one
    /// task.
    void inWaves(BenchTray& tray, const Section& section, int copies) {
        std::vector<std::vector<Portion>> tasks;
        for (std::size_t s = section.from; s <= section.to; ++s) {
            if (!job_.recipe().steps[s].on) continue;
            for (const Portion& piece : pieces_.of(s, true)) {
                const bool goesOn =
                    !tasks.empty() && tasks.back().back().free_s == 0 &&
                    (piece.cup < 0 || cupIn(tasks.back()) < 0 || piece.cup == cupIn(tasks.back()));
                if (goesOn)
                    tasks.back().push_back(piece);
                else
                    tasks.push_back({piece});
            }
        }
        if (tasks.size() == 1) {  // the same for one after the other
            BenchTask& task = addMerged(tray, tasks.front(), tray.lures, tray.firstLure, "");
            task.bodyByBody = true;
            task.takes = task.frees = section.tool;
            return;
        }
        for (int done = 0, wave = 1; done < tray.lures; ++wave) {
            const int lures = std::min(copies, tray.lures - done);
            const std::size_t from = tray.tasks.size();
            for (const std::vector<Portion>& merged : tasks)
                addMerged(tray, merged, lures, tray.firstLure + done, "#" + std::to_string(wave));
            tray.tasks[from].takes = section.tool;
            tray.tasks.back().frees = section.tool;
            done += lures;
        }
    }
    static int cupIn(const std::vector<Portion>& pieces) {
        for (const Portion& piece : pieces)
            if (piece.cup >= 0) return piece.cup;
        return -1;
    }
    BenchTask& addMerged(BenchTray& tray, const std::vector<Portion>& pieces, int lures, int firstLure,
                         const std::string& wave) {
        Portion sum = pieces.front();
        sum.cup = cupIn(pieces);
        for (const Portion& piece : pieces) {
            if (piece.needle_mm > 0) sum.needle_mm = piece.needle_mm;
            sum.heated = sum.heated || piece.heated;
        }
        for (std::size_t i = 1; i < pieces.size(); ++i) sum.hands_s += pieces[i].hands_s;
        sum.free_s = pieces.back().free_s;
        sum.rests = pieces.back().rests;
        if (pieces.size() > 1) sum.coat = sum.coats = 0;
        BenchTask& task = add(tray, sum, lures, firstLure, wave);
        for (const Portion& piece : pieces) {
            const std::string& id = job_.recipe().steps[static_cast<std::size_t>(piece.step)].id;
            if (task.steps.back() != id) task.steps.push_back(id);
        }
        return task;
    }

    const JobOnBench& job_;
    const BenchShop& shop_;
    BenchWork& work_;
    Portions pieces_;
    std::vector<Section> sections_;
};

/// A, B, ... Z, AA, AB, ...
std::string tagOf(int n) {
    std::string tag;
    for (++n; n > 0; n = (n - 1) / 26) tag.insert(tag.begin(), static_cast<char>('A' + (n - 1) % 26));
    return tag;
}

}  // namespace

BenchWork workOf(const std::vector<JobOnBench>& jobs, const BenchShop& shop) {
    BenchWork work;
    int next = 0, lure = 1;
    for (const JobOnBench& job : jobs) {
        Trays trays(job, shop, work);
        const int count = (job.lures + shop.tray - 1) / shop.tray;
        for (int t = 0; t < count; ++t) {
            const int lures = job.lures / count + (t < job.lures % count ? 1 : 0);
            work.trays.push_back(trays.made(tagOf(next++), lure, lures));
            lure += lures;
        }
    }
    return work;
}

namespace {

/// Days that are enough for all hands' work one after the other with a gun made ready for each task; rests
/// lie between and are a few days at most.
int daysFor(const BenchWish& wish) {
    constexpr int kRests = 40, kMost = 4000;
    const BenchShop& shop = wish.shop;
    const int day_s = 60 * (shop.closes_min - shop.opens_min - shop.breakLong_min);
    if (day_s <= 0) return kRests;  // day and night
    double work_s = 0;
    for (const BenchTray& tray : wish.work.trays)
        for (const BenchTask& task : tray.tasks)
            work_s += task.hands_s + (task.cup >= 0 ? shop.clean_s + shop.needle_s + shop.fill_s : 0);
    return kRests + static_cast<int>(std::min<double>(kMost, std::ceil(2 * work_s / day_s)));
}

/// A name that stands twice is one gun with two needles.
std::vector<BenchGun> gunsOf(const Workplace& place) {
    std::vector<BenchGun> guns;
    for (const Gun& gun : place.guns) {
        const auto same = std::find_if(guns.begin(), guns.end(), [&](const BenchGun& g) {
            return !gun.name.empty() && g.name == gun.name;
        });
        if (same == guns.end())
            guns.push_back({gun.name, {gun.needle_mm}});
        else
            same->needles_mm.push_back(gun.needle_mm);
    }
    return guns;
}

}  // namespace

BenchWish wishOf(const std::vector<JobOnBench>& jobs, const Workplace& place, Moment start) {
    BenchWish wish;
    wish.work = workOf(jobs, place.shop);
    wish.shop = place.shop;
    wish.guns = gunsOf(place);
    wish.closed = closedFrom(start, place.shop, daysFor(wish));
    for (const JobOnBench& job : jobs)
        if (job.key.empty()) {
            wish.locks = job.bench.locks;
            // They count from the moment the job names, and this plan begins at its own.
            if (const auto begins = parseUtc(job.bench.begins))
                for (TaskLock& lock : wish.locks)
                    lock.start_s = static_cast<int>(std::max<Moment>(0, lock.start_s + *begins - start));
        }
    return wish;
}

}  // namespace nine
