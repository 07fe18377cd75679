// A recipe card: what was laid down on a finished job, as it really happened.
#pragma once

#include "bench/gates.h"
#include "bench/run.h"
#include "recipe/amounts.h"

namespace nine {

struct CardPaint {
    std::string id, name;
    Ratio drops = 1;
};

struct LaidStep {
    std::string step;  ///< id within the recipe; empty: done besides it
    Act act = Act::Colour;
    std::string name, mask;
    std::vector<CardPaint> paint;
    Ratio reducer = 0;
    Ratio coats = 1;
    std::string colour, ground;  ///< "#rrggbb" as laid on, and what it went over
    GunSetting set;
    std::string clear, glue;
    double wait_min = 0;
    int took_s = 0;
    bool skipped = false;
    std::vector<std::string> changed;  ///< what was done otherwise than planned: keys of RunEvent
    std::string note;
};

struct CardAmount {
    std::string id, name;  ///< of a paint
    double used_ml = 0;
};
/// Something that wears.
struct CardTool {
    std::string kind;            ///< "mask", "net", "brush"
    std::string id, name, made;  ///< made of
    int uses = 0;
};
struct CardMishap {
    Moment at = 0;
    std::string kind, step, note;
    int lure = 0;
};

/// Where a mark was found on each side, mm behind the nose and above the lowest point of the body.
struct SideReading {
    std::string mark, mask;  ///< names
    double plannedX_mm = 0, plannedUp_mm = 0;
    std::optional<double> leftX_mm, leftUp_mm, rightX_mm, rightUp_mm;
    bool operator==(const SideReading&) const = default;
};

struct RecipeCard {
    std::string id;
    std::string title, blank, job, forWhom;
    Moment began = 0, ended = 0;
    int lures = 1, painted_s = 0;
    std::string school;
    std::vector<LaidStep> steps;
    std::vector<CardTool> tools;
    std::vector<CardAmount> amounts;
    std::vector<CardMishap> mishaps;
    std::vector<std::string> seen;  ///< ids of resultMarks()
    std::string text;               ///< what came of it, in the painter's words
    std::vector<SideReading> sides;
    int measuredLure = 0;
    std::string unknownJson;
};

/// What is seen of the result.
struct ResultMark {
    std::string_view id;
    bool good;
    Pattern name;
};
std::span<const ResultMark> resultMarks();

constexpr std::size_t kMostCardSteps = 4000, kMostCardText = 20000;
/// Errors: no_name, too_long, out_of_range, with `path`.
Status checkCard(const RecipeCard& card, const std::string& path);

/// Letters made small and without case where Latin, Greek and Cyrillic have it, for searching.
std::string withoutCase(std::string_view utf8);
/// All that a card can be found by: names, paints, colours in words, dates, mishaps, text; without case.
std::string searchTextOf(const RecipeCard& card);

/// Cards that can be searched. Cost of find(): 2000 cards about 2 ms.
class CardIndex {
  public:
    void put(const std::string& id, Moment ended, std::string searchText);
    void take(const std::string& id);
    /// Those that hold every word, the newest first.
    std::vector<std::string> find(std::string_view words) const;
    std::size_t size() const { return cards_.size(); }

  private:
    struct Entry {
        std::string id;
        Moment ended;
        std::string text;
    };
    std::vector<Entry> cards_;  ///< newest first
};

}  // namespace nine
