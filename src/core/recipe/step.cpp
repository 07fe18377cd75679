#include "recipe/step.h"

#include <algorithm>
#include <cmath>

namespace nine {
namespace {

constexpr EnumName<Act> kActs[] = {
    {Act::Prepare, "prepare", NINE_WORDS("core", "prepare")},
    {Act::Cover, "cover", NINE_WORDS("core", "cover")},
    {Act::Base, "base", NINE_WORDS("core", "base")},
    {Act::Colour, "colour", NINE_WORDS("core", "colour")},
    {Act::ByHand, "by_hand", NINE_WORDS("core", "by hand")},
    {Act::NetOn, "net_on", NINE_WORDS("core", "net on")},
    {Act::NetOff, "net_off", NINE_WORDS("core", "net off")},
    {Act::MaskOn, "mask_on", NINE_WORDS("core", "mask on")},
    {Act::MaskOff, "mask_off", NINE_WORDS("core", "mask off")},
    {Act::Eyes, "eyes", NINE_WORDS("core", "eyes")},
    {Act::Lock, "lock", NINE_WORDS("core", "lock coat")},
    {Act::Clear, "clear", NINE_WORDS("core", "clear coat")},
    {Act::Cure, "cure", NINE_WORDS("core", "cure")},
    {Act::Note, "note", NINE_WORDS("core", "note")},
};
constexpr EnumName<Dry> kDries[] = {
    {Dry::Wet, "wet", NINE_WORDS("core", "wet on wet")},
    {Dry::Flash, "flash", NINE_WORDS("core", "flashed off")},
    {Dry::Tacky, "tacky", NINE_WORDS("core", "tacky")},
    {Dry::Touch, "touch", NINE_WORDS("core", "dry to the touch")},
    {Dry::HeatMatt, "heat", NINE_WORDS("core", "warmed until matt")},
    {Dry::Rest, "rest", NINE_WORDS("core", "left to rest")},
    {Dry::Overnight, "overnight", NINE_WORDS("core", "left overnight")},
};
constexpr EnumName<Reaches> kReaches[] = {
    {Reaches::Everything, "everything", NINE_WORDS("core", "everywhere")},
    {Reaches::Fade, "fade", NINE_WORDS("core", "faded")},
    {Reaches::Windows, "windows", NINE_WORDS("core", "through the windows of a mask")},
    {Reaches::Negatives, "negatives", NINE_WORDS("core", "round the cut-outs of a mask")},
    {Reaches::Net, "net", NINE_WORDS("core", "through the net")},
    {Reaches::Grazing, "grazing", NINE_WORDS("core", "grazing over the net")},
    {Reaches::HeldOff, "held_off", NINE_WORDS("core", "past a card held off")},
    {Reaches::Element, "element", NINE_WORDS("core", "one mark, freehand")},
};
constexpr EnumName<FadeFrom> kFades[] = {
    {FadeFrom::Back, "back", NINE_WORDS("core", "from the back")},
    {FadeFrom::Belly, "belly", NINE_WORDS("core", "from the belly")},
    {FadeFrom::Nose, "nose", NINE_WORDS("core", "from the nose")},
    {FadeFrom::Tail, "tail", NINE_WORDS("core", "from the tail")},
    {FadeFrom::Landmark, "landmark", NINE_WORDS("core", "round a landmark")},
};
constexpr WordName kPreparing[] = {
    {"wash", NINE_WORDS("core", "wash")},
    {"sand_seams", NINE_WORDS("core", "sand the seams")},
    {"scuff", NINE_WORDS("core", "scuff")},
    {"dust_off", NINE_WORDS("core", "dust off")},
    {"old_paint", NINE_WORDS("core", "take old paint off")},
    {"paper_test", NINE_WORDS("core", "test on paper")},
};
constexpr WordName kCovering[] = {
    {"bill", NINE_WORDS("core", "bill")},
    {"sockets", NINE_WORDS("core", "eye sockets")},
    {"hook_eyes", NINE_WORDS("core", "hook eyes")},
    {"hinge", NINE_WORDS("core", "hinge")},
};
constexpr WordName kLaying[] = {{"wipe", NINE_WORDS("core", "wipe and dry the sheet first")}};
constexpr WordName kClearing[] = {
    {"hook_eyes", NINE_WORDS("core", "keep off hook eyes")},
    {"hinge", NINE_WORDS("core", "keep off the hinge")},
    {"slits", NINE_WORDS("core", "keep off slits")},
};
constexpr WordName kGlues[] = {
    {"thick", NINE_WORDS("core", "thick glue")},
    {"gel", NINE_WORDS("core", "gel glue")},
    {"epoxy", NINE_WORDS("core", "epoxy")},
    {"foaming", NINE_WORDS("core", "foaming glue")},
    {"none", NINE_WORDS("core", "none: the dip holds them")},
};
constexpr ClearKind kClears[] = {
    {"epoxy", NINE_WORDS("core", "slow epoxy"), 400, 40, 4, 24, 72, false, true, false, false},
    {"epoxy_30", NINE_WORDS("core", "30-minute epoxy"), 400, 20, 4, 24, 72, false, true, false, false},
    {"uv_brush", NINE_WORDS("core", "UV resin by brush"), 300, 0, 4, .2, 2, true, true, false, false},
    {"uv_dip", NINE_WORDS("core", "UV resin by dip"), 250, 0, 2, .3, 2, true, true, false, false},
    {"solvent_dip", NINE_WORDS("core", "solvent clear by dipping"), 120, 0, 2, 24, 96, true, false, false,
     true},
    {"two_part", NINE_WORDS("core", "sprayed two-part clear"), 100, 60, 2, 24, 96, true, false, true, true},
};

template <typename T>
bool among(std::span<const T> all, std::string_view id) {
    return std::any_of(all.begin(), all.end(), [&](const T& w) { return w.id == id; });
}

}  // namespace

bool paints(Act act) {
    return act == Act::Base || act == Act::Colour || act == Act::ByHand;
}
bool holds(Dry dry) {
    return dry == Dry::Touch || dry == Dry::HeatMatt || dry == Dry::Rest || dry == Dry::Overnight;
}
bool heats(Dry dry) {
    return dry == Dry::HeatMatt;
}
bool Step::doing(std::string_view what) const {
    return std::find(does.begin(), does.end(), what) != does.end();
}
std::span<const EnumName<Act>> actNames() {
    return kActs;
}
std::span<const EnumName<Dry>> dryNames() {
    return kDries;
}
std::span<const EnumName<Reaches>> reachNames() {
    return kReaches;
}
std::span<const EnumName<FadeFrom>> fadeNames() {
    return kFades;
}
std::span<const WordName> doingsOf(Act act) {
    switch (act) {
        case Act::Prepare:
            return kPreparing;
        case Act::Cover:
            return kCovering;
        case Act::MaskOn:
            return kLaying;
        case Act::Clear:
            return kClearing;
        default:
            return {};
    }
}
std::span<const WordName> glues() {
    return kGlues;
}
std::span<const ClearKind> clears() {
    return kClears;
}
const ClearKind* findClear(std::string_view id) {
    const auto* found =
        std::find_if(std::begin(kClears), std::end(kClears), [&](const ClearKind& c) { return c.id == id; });
    return found == std::end(kClears) ? nullptr : found;
}

Status checkStep(const Step& s, const std::string& path) {
    // In one piece: every number within its limits, every word one that is known.
    struct Limit {
        const char* field;
        Figure value, low, high;
    };
    const Limit limits[] = {{"coats", s.coats, 0.1, kMostCoats},
                            {"reducer", s.reducer, 0, 1000},
                            {"reach_mm", s.where.reach_mm, -200, 400},
                            {"soft_mm", s.where.soft_mm, 0.1, 400},
                            {"rest_min", s.rest_min, 0, 10080},
                            {"wait_min", s.wait_min, 0, 100000},
                            {"eye_mm", s.eye_mm, 0, 60}};
    for (const Limit& l : limits)
        if (!(l.value >= l.low && l.value <= l.high))
            return Error{
                "out_of_range",
                Words(NINE_WORDS("core",
                                 "The {field} of the step \"{step}\" is {value}; it can be {low} to {high}."))
                    .name("field", l.field)
                    .name("step", s.name.empty() ? s.id : s.name)
                    .number("value", l.value, 2)
                    .number("low", l.low, 2)
                    .number("high", l.high, 2),
                path + "." + l.field};
    Ratio drops = 0;
    for (const MixPart& part : s.paint) {
        if (!(part.drops > 0 && part.drops <= 1000))
            return Error{
                "out_of_range",
                Words(NINE_WORDS(
                          "core",
                          "The step \"{step}\" takes {value} drops of \"{paint}\"; give more than none."))
                    .name("step", s.name.empty() ? s.id : s.name)
                    .number("value", part.drops, 2)
                    .name("paint", part.bottle),
                path + ".paint"};
        drops += part.drops;
    }
    if (paints(s.act) && !(drops > 0))
        return Error{"no_paint",
                     Words(NINE_WORDS("core", "The step \"{step}\" sprays no paint: give it one."))
                         .name("step", s.name.empty() ? s.id : s.name),
                     path + ".paint"};
    const auto unknown = [&](const char* field, const std::string& word) {
        return Error{"unknown_word",
                     Words(NINE_WORDS("core", "\"{word}\" is not known here.")).name("word", word),
                     path + "." + field};
    };
    for (const std::string& what : s.does)
        if (!among(doingsOf(s.act), what)) return unknown("does", what);
    if (!s.clear.empty() && !findClear(s.clear)) return unknown("clear", s.clear);
    if (!s.glue.empty() && !among(glues(), s.glue)) return unknown("glue", s.glue);
    return Done{};
}

}  // namespace nine
