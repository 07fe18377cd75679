#include "bench/gates.h"

#include <algorithm>

namespace nine {
namespace {

constexpr double kLess_kpa = 3;  // a gauge is not read finer
constexpr double kNeedleAlike_mm = 0.011;

bool covers(const GateView& v, std::string_view what) {
    for (std::size_t k = 0; k < v.step; ++k)
        if (v.recipe.steps[k].on && v.recipe.steps[k].act == Act::Cover && v.recipe.steps[k].doing(what))
            return true;
    return false;
}
bool firstSpray(const GateView& v) {
    return v.firstSpray && v.coat == 1 && paints(v.at().act);
}
bool sprays(const GateView& v) {
    if (v.coat > 1) return false;
    if (paints(v.at().act) || v.at().act == Act::Lock) return true;
    const ClearKind* clear = v.at().act == Act::Clear ? findClear(v.at().clear) : nullptr;
    return clear && clear->isocyanates;
}
bool touches(const GateView& v) {
    switch (v.at().act) {
        case Act::MaskOn:
        case Act::MaskOff:
        case Act::NetOn:
        case Act::Eyes:
        case Act::Clear:
            return true;
        case Act::NetOff:
            return v.facts.fabricNet;
        default:
            return false;
    }
}
/// What is wet or tacky on purpose is not asked for.
bool wantedWet(const GateView& v) {
    for (std::size_t k = v.step; k-- > 0;) {
        const Step& before = v.recipe.steps[k];
        if (!before.on || !paints(before.act)) continue;
        return before.dry == Dry::Wet || before.dry == Dry::Tacky;
    }
    return true;  // nothing was sprayed
}
bool through(const GateView& v) {
    return v.at().where.reaches == Reaches::Net || v.at().where.reaches == Reaches::Grazing;
}
const Bottle* solventIn(const GateView& v, const Step& step) {
    for (const MixPart& part : step.paint)
        if (const Bottle* b = findBottle(v.facts.paints, part.bottle); b && b->solvent) return b;
    return nullptr;
}
bool solventNear(const GateView& v) {
    for (std::size_t k = 0; k <= v.step; ++k) {
        const Step& s = v.recipe.steps[k];
        if (s.on && (s.act == Act::Lock || solventIn(v, s))) return true;
    }
    return false;
}
const ClearKind* clearOf(const GateView& v) {
    return v.at().act == Act::Clear ? findClear(v.at().clear) : nullptr;
}
std::string maskName(const GateView& v) {
    return v.mask() ? v.mask()->name : v.at().name;
}

constexpr GateRow kGateRows[] = {
    {"bill", NINE_WORDS("core", "bill covered"), false, false,
     [](const GateView& v) { return firstSpray(v) && v.facts.bill; },
     [](const GateView& v) {
         return Words(covers(v, "bill")
                          ? NINE_WORDS("core", "The bill is covered.")
                          : NINE_WORDS("core", "The bill is covered: no step of the recipe does it."));
     }},
    {"sockets", NINE_WORDS("core", "eye sockets covered"), false, false,
     [](const GateView& v) { return firstSpray(v) && v.facts.sockets && covers(v, "sockets"); },
     [](const GateView&) { return Words(NINE_WORDS("core", "The eye sockets are covered.")); }},
    {"hook_eyes", NINE_WORDS("core", "hook eyes covered"), false, false,
     [](const GateView& v) { return firstSpray(v) && v.facts.hookEyes; },
     [](const GateView&) { return Words(NINE_WORDS("core", "Hook eyes and line tie are covered.")); }},
    {"air", NINE_WORDS("core", "extraction and respirator"), false, true, sprays,
     [](const GateView&) {
         return Words(
             NINE_WORDS("core", "Extraction runs, the respirator the product's data sheet names is on."));
     }},
    {"data_sheet", NINE_WORDS("core", "what the data sheet asks for"), false, true,
     [](const GateView& v) { return clearOf(v) && (clearOf(v)->isocyanates || clearOf(v)->isResin); },
     [](const GateView& v) {
         return Words(
             clearOf(v)->isocyanates
                 ? NINE_WORDS(
                       "core",
                       "Isocyanates: the data sheet is read, and the breathing protection it and local "
                       "rules ask for is on.")
                 : NINE_WORDS("core", "Resin: the gloves its data sheet names are on, skin is covered."));
     }},
    {"lamp", NINE_WORDS("core", "UV lamp covered"), false, true,
     [](const GateView& v) { return clearOf(v) && clearOf(v)->id.rfind("uv", 0) == 0; },
     [](const GateView&) {
         return Words(
             NINE_WORDS("core", "The lamp has the resin's wavelength, its box is closed, glasses are on."));
     }},
    {"heat", NINE_WORDS("core", "nothing solvent near heat"), false, true,
     [](const GateView& v) {
         return v.coat == 1 && paints(v.at().act) && heats(v.at().dry) && (v.firstSpray || solventNear(v));
     },
     [](const GateView&) {
         return Words(NINE_WORDS("core", "Nothing solvent, no cleaner and no alcohol stands near the heat."));
     }},
    {"vapour", NINE_WORDS("core", "no flame near solvent"), false, true,
     [](const GateView& v) { return clearOf(v) && clearOf(v)->solvent; },
     [](const GateView&) {
         return Words(NINE_WORDS(
             "core", "Solvent vapour: no flame, no heat gun, air is changed as the data sheet asks."));
     }},
    {"dry", NINE_WORDS("core", "dry before anything touches"), false, false,
     [](const GateView& v) { return v.coat <= 1 && touches(v) && !wantedWet(v); },
     [](const GateView&) {
         return Words(NINE_WORDS("core", "It is dry: the gloss has turned matt everywhere."));
     }},
    {"wiped", NINE_WORDS("core", "stencil wiped and dried"), false, false,
     [](const GateView& v) { return v.at().act == Act::MaskOn && (v.maskUsed || v.at().doing("wipe")); },
     [](const GateView& v) {
         return Words(NINE_WORDS("core", "{mask} is wiped and dry, on both faces."))
             .name("mask", maskName(v));
     }},
    {"way_up", NINE_WORDS("core", "stencil the right way up"), false, false,
     [](const GateView& v) { return v.at().act == Act::MaskOn; },
     [](const GateView& v) {
         Words words =
             v.marks.empty()
                 ? Words(NINE_WORDS("core", "{mask}: letters can be read, the arrow points to the nose."))
                 : Words(NINE_WORDS("core",
                                    "{mask}: letters can be read, the arrow points to the nose, {marks}."))
                       .words("marks", v.marks);
         return std::move(words).name("mask", maskName(v));
     }},
    {"sides", NINE_WORDS("core", "the right sheet on each side"), false, false,
     [](const GateView& v) {
         return v.at().act == Act::MaskOn && v.mask() && (v.oneSideOnly || !v.mask()->twin.empty());
     },
     [](const GateView& v) {
         return Words(
                    v.oneSideOnly
                        ? NINE_WORDS(
                              "core",
                              "{mask} is cut for one side: for the other it is wiped, dried and turned over, "
                              "and the body turned with it.")
                        : NINE_WORDS("core",
                                     "{mask}: the left sheet on the fish's left, the right one on its right; "
                                     "the body "
                                     "is dry before it is turned."))
             .name("mask", maskName(v));
     }},
    {"direction", NINE_WORDS("core", "direction of scales"), false, false,
     [](const GateView& v) { return v.at().act == Act::MaskOn && v.scales; },
     [](const GateView&) {
         return Words(
             NINE_WORDS("core", "The open side of each scale points to the tail, on this side too."));
     }},
    {"clipped", NINE_WORDS("core", "net clipped everywhere"), false, false,
     [](const GateView& v) { return paints(v.at().act) && through(v) && v.coat == 1; },
     [](const GateView& v) {
         return v.clips > 0
                    ? Words(
                          NINE_WORDS(
                              "core",
                              "The net lies tight everywhere, {clips} clips on; throat and tail looked at."))
                          .number("clips", v.clips, 0)
                    : Words(NINE_WORDS(
                          "core",
                          "The net lies tight and is clipped everywhere; throat and tail looked at."));
     }},
    {"needle", NINE_WORDS("core", "needle right"), false, false,
     [](const GateView& v) {
         return paints(v.at().act) && v.gun && v.before &&
                std::abs(v.gun->needle_mm - v.before->needle_mm) > kNeedleAlike_mm;
     },
     [](const GateView& v) {
         return Words(NINE_WORDS("core", "{gun} in the hand, with its {needle} mm needle."))
             .name("gun", v.gun->gun)
             .number("needle", v.gun->needle_mm, 2);
     }},
    {"pressure", NINE_WORDS("core", "pressure turned down"), false, false,
     [](const GateView& v) {
         return paints(v.at().act) && v.gun && v.before &&
                v.gun->pressure_kpa < v.before->pressure_kpa - kLess_kpa;
     },
     [](const GateView& v) {
         return Words(NINE_WORDS("core", "Pressure turned down from {before} to {now}, with air flowing."))
             .words("before", pressureWords(v.before->pressure_kpa))
             .words("now", pressureWords(v.gun->pressure_kpa));
     }},
    {"openings", NINE_WORDS("core", "every opening filled"), false, false,
     [](const GateView& v) { return v.at().act == Act::MaskOff; },
     [](const GateView& v) {
         if (v.openings == 1)
             return Words(NINE_WORDS("core", "The opening of {mask} is filled to its edge."))
                 .name("mask", maskName(v));
         return v.openings > 1
                    ? Words(
                          NINE_WORDS("core", "All {openings} openings of {mask} are filled to their edges."))
                          .number("openings", v.openings, 0)
                          .name("mask", maskName(v))
                    : Words(NINE_WORDS("core", "Every opening of {mask} is filled to its edge."))
                          .name("mask", maskName(v));
     }},
    {"hook_eyes_free", NINE_WORDS("core", "hook eyes free of clear"), true, false,
     [](const GateView& v) { return v.at().act == Act::Clear && v.facts.hookEyes; },
     [](const GateView& v) {
         return Words(v.facts.hinge ? NINE_WORDS("core", "Hook eyes, line tie and hinge are free of clear.")
                                    : NINE_WORDS("core", "Hook eyes and line tie are free of clear."));
     }},
};

}  // namespace

Words pressureWords(double pressure_kpa) {
    return Words(NINE_WORDS("core", "{psi} psi ({bar} bar)"))
        .number("psi", pressure_kpa / kKpaPerPsi, 0)
        .number("bar", pressure_kpa / 100, 1);
}

const MaskFact* GateView::mask() const {
    const std::string& id = at().mask;
    for (const MaskFact& fact : facts.masks)
        if (!id.empty() && (fact.id == id || fact.twin == id)) return &fact;
    return nullptr;
}

std::span<const GateRow> gateRows() {
    return kGateRows;
}

std::vector<Gate> gatesOf(const GateView& view) {
    std::vector<Gate> gates;
    for (const GateRow& row : kGateRows) {
        if (!row.asks(view)) continue;
        Gate gate{std::string(row.id), row.says(view), row.after, row.hurts, 0};
        if (row.id == "openings") gate.openings = view.openings;
        gates.push_back(std::move(gate));
    }
    return gates;
}

}  // namespace nine
