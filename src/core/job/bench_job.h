// A job as it goes over the bench: each step with its cup, its setting at the gun and its gates, and the
// tasks of trays that a plan is made of.
//
// Times of hands and rests are common practice, no published source, or guesses (docs/MODEL.md); spraying
// takes what the amounts take at the gun's flow.
#pragma once

#include "base/calendar.h"
#include "bench/day.h"
#include "bench/gates.h"
#include "bench/rescue.h"
#include "job/bench_file.h"
#include "job/recipe_job.h"

namespace nine {

struct StepOnBench {
    std::string step;               ///< id
    std::optional<GunSetting> set;  ///< of what is sprayed
    std::optional<CupContent> cup;  ///< likewise
    std::string colour, ground;  ///< "#rrggbb" as it looks laid on, and what is under it; empty: nothing is
    double coat_ml = 0;          ///< sprayed for one body and coat, with what flies past
    int openings = 0;            ///< of the mask it lays on or takes off, both sides
    Words marks = {};            ///< what that mask is lined up on; nothing where it is not solved
    bool oneSideOnly = false, scales = false;
    RescueFigures figures;
};

/// One of the jobs on a bench.
struct JobOnBench {
    std::string name;  ///< "Brook char on Sedge 60"
    std::string key;   ///< told apart by it; "" is the open job
    std::shared_ptr<const RecipeOnBody> on;
    RecipeFacts facts;
    std::vector<StepOnBench> steps;  ///< of each step of the recipe
    int lures = 1;
    BenchChapter bench;
    Warnings warnings;  ///< one_side_only, no_paint, and those of settings
    const Recipe& recipe() const { return on->of.get<LayersChapter>().recipe; }
    std::size_t place(const std::string& step) const { return placeOf(recipe(), step); }
};

/// `masks` solved masks of the job, for lift and openings; empty: what lies flat is taken, openings are
/// counted in the art. Settings that cannot be had are told in the warnings, their steps have none. Errors:
/// those of recipeOnBody, no_steps (there is nothing to do).
Result<JobOnBench> jobOnBench(std::shared_ptr<const RecipeOnBody> on, Derivations& derived,
                              const Workplace& place, const std::vector<MaskResult>& masks = {},
                              const Task& task = {});

/// The tasks of all jobs in trays, tagged A, B, ... on. `lures` counts go on from job to job.
BenchWork workOf(const std::vector<JobOnBench>& jobs, const BenchShop& shop);
BenchWish wishOf(const std::vector<JobOnBench>& jobs, const Workplace& place, Moment start);

/// Where a task comes from.
const JobOnBench& jobOf(const std::vector<JobOnBench>& jobs, const BenchTray& tray);

/// What is asked before (and after) a task, of all its steps in their order. `before` is the last setting at
/// a gun; `maskUsed`: the mask was on other bodies before. Gates the job has switched off are left out unless
/// `all`.
std::vector<Gate> gatesOf(const JobOnBench& job, const BenchTask& task,
                          const std::optional<GunSetting>& before, bool maskUsed, bool all = false);

/// What a task is called: "spray", "Transparent olive", "coat 2 of 2, both sides, through Bars".
struct TaskWords {
    Words verb, title, more;
};
TaskWords taskWords(const JobOnBench& job, const BenchTask& task);
/// "4 : 2 drops, Opaque white 4, Cream 1"; nothing for what is not sprayed.
Words mixWords(const JobOnBench& job, const Step& step);

/// How the body is held and from where the gun comes.
enum class PoseView { Side, Back, Belly };
struct Pose {
    PoseView view = PoseView::Side;
    bool turned = true;  ///< the other side comes after it
    Words says;          ///< "nose to tail, start and stop off the body"
};
/// Nothing for what is not sprayed.
std::optional<Pose> poseOf(const JobOnBench& job, const Step& step);

}  // namespace nine
