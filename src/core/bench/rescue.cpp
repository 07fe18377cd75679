#include "bench/rescue.h"

#include "bench/gates.h"

namespace nine {
namespace {

/// A pressure a step lower, as far as a stencil still sprays.
constexpr double kStepDown_kpa = 2 * kKpaPerPsi, kLowestStencil_kpa = 11 * kKpaPerPsi;

Rescue creep(const RescueFigures& f) {
    Rescue r{"creep", NINE_WORDS("core", "paint crept under the mask"), {}, {}, {}};
    r.cause = f.gap_mm && f.creep_mm
                  ? Words(NINE_WORDS(
                              "core",
                              "The sheet stands off {gap} at worst; {creep} of creep is expected there, more "
                              "where it was wet or aimed at the edge."))
                        .length("gap", *f.gap_mm, 2)
                        .length("creep", *f.creep_mm, 2)
                  : Words(NINE_WORDS("core",
                                     "The edge stood off, the coat was wet, or the gun was aimed under it."));
    r.now = NINE_WORDS(
        "core",
        "Leave it till it is dry, then wipe the fringe off with cleaner on a stick once the coat below "
        "is dry, or outline it with the dark colour beside it.");
    r.next =
        f.pressure_kpa && *f.pressure_kpa - kStepDown_kpa >= kLowestStencil_kpa
            ? Words(
                  NINE_WORDS(
                      "core",
                      "{pressure} instead of {before}, one coat more but thinner, aimed at the sheet; press "
                      "the edge down where it stands off."))
                  .words("pressure", pressureWords(*f.pressure_kpa - kStepDown_kpa))
                  .words("before", pressureWords(*f.pressure_kpa))
            : Words(NINE_WORDS(
                  "core", "Thinner coats, aimed at the sheet; slit or press the edge where it stands off."));
    return r;
}

Rescue foggy(const RescueFigures& f) {
    Rescue r{"foggy", NINE_WORDS("core", "an opening is foggy or half filled"), {}, {}, {}};
    r.cause = NINE_WORDS("core", "The stencil came off before every opening was filled.");
    r.now = NINE_WORDS(
        "core",
        "Do not lay it on again: it never lies where it lay. Fill the mark freehand with the fine needle, "
        "or cover it with the colour round it.");
    r.next = f.openings && *f.openings > 1
                 ? Words(NINE_WORDS("core",
                                    "Count {openings} openings before it comes off: the gate asks for each."))
                       .number("openings", *f.openings, 0)
                 : Words(NINE_WORDS("core",
                                    "Look through every opening before it comes off: the gate asks for it."));
    return r;
}

Rescue lifted(const RescueFigures& f) {
    Rescue r{"lifted", NINE_WORDS("core", "the mask lifted paint"), {}, {}, {}};
    r.cause = f.mask.empty()
                  ? Words(NINE_WORDS("core", "Something stuck to paint that was not dry through."))
                  : Words(NINE_WORDS("core",
                                     "{mask} stuck to paint that was not dry through, or was peeled "
                                     "upwards."))
                        .name("mask", f.mask);
    r.now = NINE_WORDS(
        "core",
        "Let it dry, take the rim down with fine paper, spray the lower colour thinly through a hole in "
        "card, then the upper one.");
    r.next = NINE_WORDS(
        "core",
        "Wait for matt all over, take tack off tape on cloth, peel low and back; or a lock coat before.");
    return r;
}

Rescue ran(const RescueFigures& f) {
    Rescue r{"run", NINE_WORDS("core", "paint ran"), {}, {}, {}};
    r.cause =
        f.coat_um && f.run_um
            ? Words(NINE_WORDS("core",
                               "A coat lies {coat} µm wet as planned and runs from {run} µm: it was slower, "
                               "nearer or more than that."))
                  .number("coat", *f.coat_um, 0)
                  .number("run", *f.run_um, 0)
            : Words(NINE_WORDS("core", "Too much at once: slow, near, or thinned too far."));
    r.now = NINE_WORDS(
        "core",
        "Tip the body so that it runs back, draw the drop off with the corner of a tissue, let it dry "
        "without heat, level it with fine paper.");
    r.next =
        f.coats
            ? Words(NINE_WORDS("core", "{coats} coats instead of {before}, each thinner, matt in between."))
                  .number("coats", *f.coats + 1, 0)
                  .number("before", *f.coats, 0)
            : Words(NINE_WORDS("core", "One coat more, each thinner, matt in between."));
    return r;
}

Rescue drySpray(const RescueFigures& f) {
    Rescue r{"dry_spray", NINE_WORDS("core", "it is dry and grainy"), {}, {}, {}};
    r.cause =
        f.distance_mm
            ? Words(NINE_WORDS("core",
                               "Drops dried on the way: farther off than {distance}, too much air, or too "
                               "little reducer."))
                  .length("distance", *f.distance_mm, 0)
            : Words(NINE_WORDS("core",
                               "Drops dried on the way: far off, too much air, or too little reducer."));
    r.now = NINE_WORDS("core", "Rub it off dry with a soft cloth, wipe the dust away, go on nearer.");
    r.next =
        NINE_WORDS("core", "Nearer, lower pressure, a drop more reducer; wet the tip with a damp sponge.");
    return r;
}

Rescue unequal(const RescueFigures&) {
    return {
        "unequal", NINE_WORDS("core", "the sides are unequal"),
        NINE_WORDS("core", "One side's mask lay higher or farther back."),
        NINE_WORDS("core",
                   "Bring the back's or the belly's colour over the difference; look at the tilt before the "
                   "next mark goes on."),
        NINE_WORDS("core",
                   "Line both sheets up on the same two landmarks; the Log says which mask it was and by how "
                   "much.")};
}

Rescue colourWrong(const RescueFigures&) {
    return {"colour", NINE_WORDS("core", "the colour is wrong"),
            NINE_WORDS("core",
                       "Another ground than planned, fewer coats, another bottle, or light that deceives."),
            NINE_WORDS(
                "core",
                "Look at it matt and in daylight; a thin coat of what it lacks, or back to white through the "
                "same window."),
            NINE_WORDS(
                "core",
                "Spray the mix over the same ground on paper first; Layers says what it looks like there.")};
}

Rescue clog(const RescueFigures&) {
    return {
        "clog", NINE_WORDS("core", "the gun clogs or spits"),
        NINE_WORDS("core", "Paint dried in the tip, a lump in the cup, or flakes too large for the needle."),
        NINE_WORDS(
            "core",
            "Off the body. Damp sponge over the tip, then empty, strain and fill anew. Air off before a "
            "finger or tool goes near the nozzle; the needle is sharp."),
        NINE_WORDS(
            "core",
            "Strain it, a drop more reducer or flow medium, not longer in the gun than the plan says; for "
            "flakes the larger needle.")};
}

}  // namespace

std::vector<Rescue> rescues(const RescueFigures& f) {
    return {creep(f), foggy(f), lifted(f), ran(f), drySpray(f), unequal(f), colourWrong(f), clog(f)};
}

}  // namespace nine
