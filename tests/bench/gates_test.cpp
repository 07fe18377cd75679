// Each gate: asked where it matters, and not where it does not.
#include "bench/gates.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <set>

#include "bench/rescue.h"
#include "bench/run.h"
#include "tests/support.h"

namespace nine {
namespace {

RecipeFacts gateFacts() {
    RecipeFacts f;
    f.bill = f.sockets = f.hookEyes = true;
    f.fabricNet = f.net = true;
    f.masks = {{"bars-L", "Bars", {"bars"}, {"#303020"}, false, false, {}, false, "bars-R"}};
    f.paints = genericShelf();
    return f;
}
Step gateStep(Act act, const std::string& id) {
    Step s;
    s.act = act;
    s.id = s.name = id;
    return s;
}
Step gateSpray(const std::string& id, Where where = {}) {
    Step s = gateStep(Act::Colour, id);
    s.paint = {{"white", 4}};
    s.where = std::move(where);
    return s;
}
Recipe gateRecipe() {
    Recipe r;
    r.steps = {gateStep(Act::Cover, "cover"),
               gateSpray("base"),
               gateStep(Act::MaskOn, "on"),
               gateSpray("bars", {Reaches::Windows, "bars-L"}),
               gateStep(Act::MaskOff, "off"),
               gateStep(Act::NetOn, "net"),
               gateSpray("scales", {Reaches::Net, ""}),
               gateStep(Act::NetOff, "net-off"),
               gateStep(Act::Eyes, "eyes"),
               gateStep(Act::Clear, "clear")};
    r.steps[0].does = {"bill", "sockets", "hook_eyes"};
    r.steps[2].mask = r.steps[4].mask = "bars-L";
    r.steps[9].clear = "epoxy";
    return r;
}

std::set<std::string> gateIds(const GateView& view) {
    std::set<std::string> ids;
    for (const Gate& gate : gatesOf(view)) ids.insert(gate.id);
    return ids;
}
GateView viewAt(const Recipe& r, const RecipeFacts& f, const std::string& id) {
    return {.recipe = r, .facts = f, .step = placeOf(r, id), .gun = {}, .before = {}};
}

using Ids = std::set<std::string>;

TEST(Gates, EachStepAsksWhatIsForgottenThere) {
    const Recipe r = gateRecipe();
    const RecipeFacts f = gateFacts();
    GateView base = viewAt(r, f, "base");
    base.firstSpray = true;
    EXPECT_EQ(gateIds(base), (Ids{"bill", "sockets", "hook_eyes", "air", "heat"}));
    base.coat = 2;
    EXPECT_EQ(gateIds(base), Ids{});
    EXPECT_EQ(gateIds(viewAt(r, f, "cover")), Ids{});
    EXPECT_EQ(gateIds(viewAt(r, f, "on")), (Ids{"dry", "way_up", "sides"}));
    EXPECT_EQ(gateIds(viewAt(r, f, "bars")), (Ids{"air"}));
    EXPECT_EQ(gateIds(viewAt(r, f, "off")), (Ids{"dry", "openings"}));
    EXPECT_EQ(gateIds(viewAt(r, f, "net")), (Ids{"dry"}));
    EXPECT_EQ(gateIds(viewAt(r, f, "scales")), (Ids{"air", "clipped"}));
    EXPECT_EQ(gateIds(viewAt(r, f, "net-off")), (Ids{"dry"}));
    EXPECT_EQ(gateIds(viewAt(r, f, "eyes")), (Ids{"dry"}));
    EXPECT_EQ(gateIds(viewAt(r, f, "clear")), (Ids{"dry", "data_sheet", "hook_eyes_free"}));
}

TEST(Gates, FollowWhatIsKnownOfBodyAndTools) {
    Recipe r = gateRecipe();
    RecipeFacts f = gateFacts();
    f.bill = f.hookEyes = false;
    GateView base = viewAt(r, f, "base");
    base.firstSpray = true;
    EXPECT_EQ(gateIds(base), (Ids{"sockets", "air", "heat"}));
    GateView on = viewAt(r, f, "on");
    on.maskUsed = true;
    on.scales = true;
    EXPECT_EQ(gateIds(on), (Ids{"dry", "wiped", "way_up", "sides", "direction"}));
    f.masks[0].twin.clear();
    EXPECT_EQ(gateIds(viewAt(r, f, "on")), (Ids{"dry", "way_up"}));
    on.maskUsed = on.scales = false;
    on.oneSideOnly = true;
    EXPECT_EQ(gateIds(on), (Ids{"dry", "way_up", "sides"}));
    // Metal mesh may come off wet; what is wet on purpose is not asked to be dry.
    f.fabricNet = false;
    EXPECT_EQ(gateIds(viewAt(r, f, "net-off")), Ids{});
    r.steps[1].dry = Dry::Tacky;
    EXPECT_EQ(gateIds(viewAt(r, f, "on")), (Ids{"way_up"}));
}

TEST(Gates, PressureAndNeedleAreAskedWhenTheyHaveToBeChanged) {
    const Recipe r = gateRecipe();
    const RecipeFacts f = gateFacts();
    GateView bars = viewAt(r, f, "bars");
    bars.before = GunSetting{"Gun 1", 190, 0.35, 120, 0, 2, 10};
    bars.gun = GunSetting{"Gun 2", 103, 0.2, 70, 0, 1, 10};
    EXPECT_EQ(gateIds(bars), (Ids{"air", "needle", "pressure"}));
    bars.gun->needle_mm = 0.35;
    EXPECT_EQ(gateIds(bars), (Ids{"air", "pressure"}));
    bars.gun->pressure_kpa = 220;  // up is seen at once, nobody forgets it to a bait's harm
    EXPECT_EQ(gateIds(bars), (Ids{"air"}));
    for (const Gate& gate : gatesOf(bars)) EXPECT_EQ(gate.hurts, gate.id == "air");
}

TEST(Gates, ClearsAskForWhatTheirDataSheetsName) {
    Recipe r = gateRecipe();
    const RecipeFacts f = gateFacts();
    const auto of = [&](const std::string& clear) {
        r.steps.back().clear = clear;
        return gateIds(viewAt(r, f, "clear"));
    };
    EXPECT_EQ(of("two_part"), (Ids{"air", "data_sheet", "vapour", "dry", "hook_eyes_free"}));
    EXPECT_EQ(of("uv_brush"), (Ids{"data_sheet", "lamp", "dry", "hook_eyes_free"}));
    EXPECT_EQ(of("solvent_dip"), (Ids{"vapour", "dry", "hook_eyes_free"}));
    // Never that a thing is safe.
    for (const GateRow& row : gateRows())
        EXPECT_EQ(std::string(row.name.text()).find("safe"), std::string::npos);
}

TEST(Gates, AnOpeningIsCountedWhereTheNumberIsKnown) {
    const Recipe r = gateRecipe();
    const RecipeFacts f = gateFacts();
    GateView off = viewAt(r, f, "off");
    off.openings = 12;
    for (const Gate& gate : gatesOf(off)) {
        if (gate.id != "openings") continue;
        EXPECT_EQ(gate.openings, 12);
        EXPECT_EQ(gate.says.plain(), "All 12 openings of Bars are filled to their edges.");
    }
    EXPECT_EQ(gatesOf(off).size(), 2u);
}

RunEvent runEvent(Moment at, Happened what, const std::string& task = "") {
    RunEvent e;
    e.at = at;
    e.what = what;
    e.task = task;
    return e;
}

TEST(Run, StandsWhereItsEventsSay) {
    RunEvent order = runEvent(100, Happened::Order);
    order.value = "a one\nb\nc";
    RunEvent gate = runEvent(110, Happened::Gate, "a one");
    gate.key = "air";
    RunEvent changed = runEvent(120, Happened::Changed, "a one");
    changed.step = "olive";
    changed.key = "coats";
    changed.value = "3";
    std::vector<RunEvent> events{runEvent(100, Happened::Began), order, gate, changed};
    RunState s = folded(events);
    EXPECT_EQ(s.current(), "a one");
    EXPECT_EQ(s.gates["a one"].count("air"), 1u);
    EXPECT_EQ(s.changes["olive"]["coats"], "3");
    events.push_back(runEvent(200, Happened::Done, "a one"));
    events.push_back(runEvent(220, Happened::Skipped, "b"));
    EXPECT_EQ(folded(events).current(), "c");
    EXPECT_EQ(folded(events).done(), 2);
    events.push_back(runEvent(230, Happened::Back));
    EXPECT_EQ(folded(events).current(), "b");
    events.push_back(runEvent(231, Happened::Back));
    s = folded(events);
    EXPECT_EQ(s.current(), "a one");
    EXPECT_TRUE(s.gates["a one"].empty()) << "it is asked again";
    events.push_back(runEvent(232, Happened::Back));  // nothing left to take back
    EXPECT_EQ(folded(events).current(), "a one");
}

TEST(Run, APauseDoesNotCount) {
    std::vector<RunEvent> events{runEvent(1000, Happened::Began), runEvent(1100, Happened::Paused),
                                 runEvent(1150, Happened::Paused)};
    EXPECT_TRUE(folded(events).paused());
    events.push_back(runEvent(1700, Happened::Resumed));
    const RunState s = folded(events);
    EXPECT_FALSE(s.paused());
    EXPECT_EQ(s.paused_s, 600);
    EXPECT_EQ(s.taskBegan, 1600);  // as if begun after it
}

TEST(Run, AClockSetBackNeverMakesTimeFall) {
    Moment now = 5000;
    const Clock clock = [&] { return now; };
    RunState s = after({}, runEvent(5000, Happened::Began));
    now = 4000;
    const RunEvent late = eventNow(clock, s, Happened::Note);
    EXPECT_EQ(late.at, 5000);
    EXPECT_TRUE(late.clockWentBack);
    now = 5003;
    EXPECT_EQ(eventNow(clock, after(s, late), Happened::Note).at, 5003);
}

TEST(Rescue, EveryFaultOfTheListHasOneAndTakesTheJobsFigures) {
    const auto plain = rescues({});
    std::set<std::string_view> faults;
    for (const Rescue& r : plain) {
        faults.insert(r.fault);
        for (const Words* words : {&r.cause, &r.now, &r.next})
            EXPECT_GT(words->plain().size(), 20u) << r.fault;
    }
    for (const MishapKind& kind : mishaps())
        if (kind.id != "dropped") {
            EXPECT_TRUE(faults.count(kind.id)) << kind.id;
        }
    RescueFigures figures;
    figures.gap_mm = 0.42;
    figures.creep_mm = 0.31;
    figures.pressure_kpa = 15 * kKpaPerPsi;
    const auto figured = rescues(figures);
    EXPECT_NE(figured[0].cause.plain().find("0.42 mm"), std::string::npos);
    EXPECT_NE(figured[0].next.plain().find("13 psi"), std::string::npos) << figured[0].next.plain();
    // No lower than a stencil sprays.
    figures.pressure_kpa = 12 * kKpaPerPsi;
    EXPECT_EQ(rescues(figures)[0].next.plain().find("10 psi"), std::string::npos);
}

}  // namespace
}  // namespace nine
