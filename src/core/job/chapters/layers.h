// What goes on in which order: the recipe, and the paints it uses as they were when they were chosen, so that
// a job needs no shelf.
#pragma once

#include "job/chapter.h"
#include "recipe/amounts.h"
#include "recipe/rules.h"
#include "spray/plan.h"

namespace nine {

/// What the painter has settled at the gun for a step that goes through no mask (of masks it stands in
/// chapter `spray`). One of a step that is gone is not written.
struct StepSpray {
    std::string step;  ///< id
    SprayPins pins;
    std::string unknownJson = {}, unknownPinsJson = {};
};

struct LayersChapter {
    Recipe recipe;
    School school = School::LightToDark;
    int lures = 1;               ///< to be painted alike
    std::vector<Bottle> paints;  ///< those of the steps, and those the painter put beside them
    std::vector<StepSpray> sprays;
    Severities severities;  ///< of rules, where not as usual
    std::string unknownSeveritiesJson = {};
    std::string unknownJson = {};
};

constexpr std::size_t kMostPaints = 400;

namespace json {
/// Pins as they stand in chapters `spray` and `layers`. Throws Bad.
SprayPins readPins(Fields& fields);
Json pinsJson(const SprayPins& pins);

/// A paint as an object of a file. Throws Bad: missing, bad_value, those of checkBottle.
Bottle readBottle(Fields& fields, const std::string& path);
Json bottleJson(const Bottle& bottle);
}  // namespace json

template <>
struct ChapterOf<LayersChapter> : UsualChapter<LayersChapter> {
    static constexpr const char* key = "layers";
    static LayersChapter read(json::Fields& fields, Warnings& warnings);
    static void write(json::Json& into, const LayersChapter& layers);
    /// Errors: those of checkStep and checkBottle, duplicate_id, too_many. What a step names may be gone:
    /// that is told (rules), never dropped.
    static Status check(const Job& job);
    /// An element that no step paints gets one, before eyes and clear, once there is a recipe; steps that
    /// were made so, and that nobody touched, go with their mark. All others stay, and what they miss is
    /// told.
    static std::shared_ptr<const LayersChapter> inStep(const Job& job,
                                                       const std::shared_ptr<const LayersChapter>& now);
};

SprayPins pinsOfStep(const LayersChapter& layers, const std::string& step);
/// Replaces what is settled for a step; empty pins say nothing.
LayersChapter withStepPins(LayersChapter layers, const std::string& step, const SprayPins& pins);

/// A paint that was made for a colour of the design, and is no bottle.
bool isColourOnly(const Bottle& bottle);

/// Steps that only stand for the colours of the pattern: nobody has made a recipe yet.
bool isDraft(const LayersChapter& layers);

/// The colours of a job of an earlier format, which knew no steps, as steps and paints of their own: ground,
/// back and belly, then each mark in its order, through its mask where one is cut. A job that has steps, or
/// no colours, as it is.
Job withStepsOfColours(const Job& job);

}  // namespace nine
