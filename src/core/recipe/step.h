// One step of a recipe: what is done, with which paint, where on the body, and how dry it must be after it.
//
// Steps are values with ids of their own; masks, elements and paints are named by theirs. What a step cannot
// have (coats of a note) is left as it is and means nothing.
#pragma once

#include <span>
#include <string>
#include <vector>

#include "paint/mix.h"

namespace nine {

enum class Act {
    Prepare,
    Cover,
    Base,
    Colour,
    ByHand,
    NetOn,
    NetOff,
    MaskOn,
    MaskOff,
    Eyes,
    Lock,
    Clear,
    Cure,
    Note
};
/// Lays colour down: base, colour, by hand.
bool paints(Act act);

enum class Dry {
    Wet,       ///< the next step goes on at once, on purpose
    Flash,     ///< a minute of air
    Tacky,     ///< wanted so
    Touch,     ///< dry to the touch
    HeatMatt,  ///< warm air until gloss turns matt
    Rest,      ///< left alone for rest_min, never heated
    Overnight,
};
/// Something may be laid on it.
bool holds(Dry dry);
bool heats(Dry dry);

enum class Reaches {
    Everything,
    Fade,       ///< falls off over skin
    Windows,    ///< of a mask
    Negatives,  ///< all but a mask's windows, whose cut-outs lie there
    Net,        ///< through the net
    Grazing,    ///< over the net, from one side
    HeldOff,    ///< past a card held off the body
    Element     ///< an element of the pattern, without a mask
};
enum class FadeFrom { Back, Belly, Nose, Tail, Landmark };

/// Where a step reaches.
struct Where {
    Reaches reaches = Reaches::Everything;
    std::string of;  ///< id of a mask or an element; for a fade, name of a landmark or id of an element
    FadeFrom from = FadeFrom::Back;
    double reach_mm = 10;  ///< of skin, to where half the film is left
    double soft_mm = 8;    ///< over which the film falls from nearly all to nearly none
    std::string unknownJson = {};
    bool operator==(const Where&) const = default;
};

struct Step {
    std::string id;
    Act act = Act::Note;
    std::string name;
    bool on = true;
    bool made = false;  ///< by the program, and not touched since: it goes with the mark it was made for
    std::string group;  ///< steps with the same word are shown as one

    std::vector<MixPart> paint;
    Ratio reducer = 0;  ///< drops, to the drops of paint
    Ratio coats = 1;
    bool mist = false;  ///< one thin dust from far off instead of a coat
    Where where;
    Dry dry = Dry::HeatMatt;
    double rest_min = 0;

    std::string mask;               ///< laid on or taken off
    std::vector<std::string> does;  ///< of the words of its act: see doingsOf
    double eye_mm = 0;
    std::string glue, clear;  ///< of glues() and clears()
    double wait_min = 0;      ///< before the next step
    std::string note;
    std::string unknownJson;

    bool doing(std::string_view what) const;
    bool operator==(const Step&) const = default;
};

/// A word of a file and how it is said.
struct WordName {
    std::string_view id;
    Pattern name;
};
template <typename E>
struct EnumName {
    E value;
    std::string_view id;
    Pattern name;
};
std::span<const EnumName<Act>> actNames();
std::span<const EnumName<Dry>> dryNames();
std::span<const EnumName<Reaches>> reachNames();
std::span<const EnumName<FadeFrom>> fadeNames();
/// What can be ticked off within a step of this act; empty for most.
std::span<const WordName> doingsOf(Act act);
/// Glues for eyes; those that foam push the eye out.
std::span<const WordName> glues();

/// A kind of clear coat. Hours are usual ranges (common practice, no published source); a product's own data
/// sheet goes before them.
struct ClearKind {
    std::string_view id;
    Pattern name;
    double film_um;      ///< of the cured coat
    double working_min;  ///< of one mix, or of what lies in the tray; 0: no limit
    double spread_min;   ///< to coat one body
    double dry_h;        ///< until it may be handled
    double fish_h;       ///< until it may be fished
    bool dissolvesInk, isResin, isocyanates, solvent;
};
std::span<const ClearKind> clears();
const ClearKind* findClear(std::string_view id);

constexpr Ratio kMostCoats = 40;
constexpr std::size_t kMostRecipeSteps = 2000;  ///< three for each of 600 marks and more
/// Errors: out_of_range, unknown_word; where a file would put it: `path`.field.
Status checkStep(const Step& step, const std::string& path);

}  // namespace nine
