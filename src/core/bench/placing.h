// Puts one task after the other into a plan. Internal to bench/.
#pragma once

#include <climits>

#include "bench/schedule.h"

namespace nine {

/// A plan that is being made: what is busy till when. Copies are cheap enough to try things on.
class Placing {
  public:
    explicit Placing(const BenchWish& wish);

    bool finished(int tray) const;  ///< nothing of it is left
    /// Where the tray's next task would go; nothing while a tool it takes is held by trays that have to go on
    /// first. `gun` -1: the one that suits best.
    std::optional<PlacedTask> next(int tray, int gun = -1) const;
    void place(const PlacedTask& task);
    /// Trays that hold what the next task of this one takes.
    std::vector<int> waitsFor(int tray) const;
    const Schedule& schedule() const { return schedule_; }
    Schedule take();

  private:
    struct Busy {
        int from_s, to_s;
    };
    struct GunState {
        int cup = -1;
        double needle_mm = 0;
        int free_s = 0;
    };
    struct TrayState {
        std::size_t next = 0;
        int ready_s = 0;
        std::map<int, int> held = {};  ///< copies by tool
    };
    struct Readying {
        bool clean = false, needle = false, fill = false, stood = false;
        int before_s = 0;  ///< cleaning and needle: any time before
        int fill_s = 0;    ///< right before
    };
    const BenchTask& taskOf(int tray) const;
    /// `rest_s`: the longest pause it may be left alone in, by breaks and nights.
    int gap(int painter, int from_s, int work_s, int rest_s) const;
    int rackFrom(const BenchTask& task, int start_s, int painter, int before_s, int rest_s) const;
    std::optional<PlacedTask> onGun(int tray, int ready_s, int painter, int gun) const;
    PlacedTask without(int tray, int ready_s, int painter) const;
    int toolFrom_s(const BenchTask& task) const;
    Readying readyingOf(const BenchTask& task, const GunState& gun, int from_s) const;
    void occupy(int painter, int from_s, int to_s);

    const BenchWish& wish_;
    std::vector<std::vector<Busy>> painters_;
    std::vector<GunState> guns_;
    std::vector<TrayState> trays_;
    std::vector<std::vector<int>> toolFree_s_;  ///< of each copy; INT_MAX: held
    struct Resting {
        int from_s, to_s, bodies;
    };
    std::vector<Resting> rack_, turner_;
    int bodies_ = 0;            ///< in all
    int longestOpen_s_ = 0;     ///< what takes longer has to rest somewhere
    std::vector<int> cupLeft_;  ///< tasks that still want each cup
    std::map<std::string, int> lockOf_s_;
    Schedule schedule_;
};

}  // namespace nine
