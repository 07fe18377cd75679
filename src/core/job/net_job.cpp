#include "job/net_job.h"

#include <algorithm>
#include <cmath>

#include "blank/landmark_curve.h"
#include "geom/stroke_font.h"

namespace nine {
namespace {

/// How near to the gathered line something is in a clip's way.
constexpr double kBesideClip_mm = 1.5;
/// Places are written to a tenth: so much over a border is on it.
constexpr double kTouches_mm = 0.11;

/// "throat", "belly", "tail": where on the gathered line.
Words placeOnLine(const Skin& skin, Gather gather, double x_mm) {
    const double share = (x_mm - skin.noseX_mm()) / skin.length_mm();
    if (share < 0.3)
        return gather == Gather::Belly ? Words(NINE_WORDS("core", "at the throat"))
                                       : Words(NINE_WORDS("core", "at the nape"));
    if (share > 0.75) return NINE_WORDS("core", "towards the tail");
    return gather == Gather::Belly ? Words(NINE_WORDS("core", "at the belly"))
                                   : Words(NINE_WORDS("core", "at the back"));
}

Words rangeOf(const StandOff& off) {
    if (off.most_mm - off.least_mm < 0.15)
        return Words(NINE_WORDS("core", "{most}")).length("most", off.most_mm, 1);
    return Words(NINE_WORDS("core", "{least} to {most}"))
        .length("least", off.least_mm, 1)
        .length("most", off.most_mm, 1);
}

Words troubleWords(const NetTrouble& t, const Net& net) {
    switch (t.kind) {
        case NetTrouble::Kind::Tears:
            return Words(NINE_WORDS("core",
                                    "Pulled with {pull} N/m, {net} tears: it bears {bears} N/m. Pull less."))
                .number("pull", t.strain, 0)
                .name("net", net.name)
                .number("bears", t.bears, 0);
        case NetTrouble::Kind::Overstretched:
            return Words(NINE_WORDS("core",
                                    "{net} would have to stretch by {need} {at} from the nose and bears "
                                    "{bears}: it tears "
                                    "there or stands off. Take a more elastic net, or cover less."))
                .name("net", net.name)
                .share("need", t.strain)
                .length("at", t.x_mm, 0)
                .share("bears", t.bears);
        case NetTrouble::Kind::Slips:
            break;
    }
    return Words(
               NINE_WORDS(
                   "core",
                   "Cells of {net} lean by {need}° {at} from the nose, more than its knots hold ({bears}°): "
                   "they slip."))
        .name("net", net.name)
        .number("need", radToDeg(t.strain), 0)
        .length("at", t.x_mm, 0)
        .number("bears", radToDeg(t.bears), 0);
}

/// A clip in the middle of the gap that holds x, if it fits there.
std::optional<Clip> clipFor(const Drape& drape, const ScalesChapter& scales, const KeptClear& clear,
                            double x_mm) {
    const double half = scales.clip_mm / 2, low = drape.grid.x_mm.front() + half,
                 high = drape.grid.x_mm.back() - half;
    double before = low - scales.clip_mm, after = high + scales.clip_mm;
    for (const Clip& clip : scales.clips)
        (clip.x_mm <= x_mm ? before : after) =
            clip.x_mm <= x_mm ? std::max(before, clip.x_mm) : std::min(after, clip.x_mm);
    const double x = std::clamp(std::round(5 * (before + after)) / 10, low, high);
    if (x - before < scales.clip_mm || after - x < scales.clip_mm) return std::nullopt;
    for (const auto& [from, to] : clear)
        if (x > from - half && x < to + half) return std::nullopt;
    return Clip{x};
}

}  // namespace

Result<DrapeWish> drapeWishOf(const Job& job, const Skin& skin) {
    const ScalesChapter& s = job.get<ScalesChapter>();
    if (!s.net)
        return Error{"no_net", NINE_WORDS("core", "No net has been chosen for this job."), "scales.net"};
    DrapeWish wish{*s.net, s.pull_n_m, s.gather, s.reach};
    if (s.hook != "tail") {
        const auto found = job.get<BlankChapter>().landmarks.find(s.hook);
        if (found == job.get<BlankChapter>().landmarks.end())
            return Error{
                "no_hanger",
                Words(NINE_WORDS("core", "The blank has no {hook} to hook the net on; hook it at the tail."))
                    .words("hook", spokenName(s.hook)),
                "scales.hook"};
        const double x = found->second.points.front().x();
        const double to = wish.reach.whole() ? skin.tailX_mm() : wish.reach.toX_mm;
        if (wish.reach.whole()) wish.reach.fromX_mm = skin.noseX_mm() + kEndsLeftOut * skin.length_mm();
        wish.reach.toX_mm = std::min(to, x);
    }
    if (Status ok = checkDrape(skin, wish, "scales"); !ok) return ok.error();
    return wish;
}

ClipWish clipWishOf(const ScalesChapter& s) {
    ClipWish wish;
    wish.clips = s.clips;
    wish.clip_mm = s.clip_mm;
    return wish;
}

KeptClear clearOfFittings(const Job& job, const Skin& skin) {
    KeptClear clear;
    const bool belly = job.get<ScalesChapter>().gather == Gather::Belly;
    for (const Zone& zone : zonesOfLandmarks(skin, job.get<BlankChapter>().landmarks)) {
        // Those that reach the gathered line, with what a clip needs beside them.
        double low = 1e9, high = -1e9;
        bool reaches = false;
        for (const Vec2& p : zone.polygon) {
            low = std::min(low, p.x());
            high = std::max(high, p.x());
            if (p.x() <= skin.noseX_mm() || p.x() >= skin.tailX_mm()) continue;
            const SectionArc arc = skin.arcAt(p.x());
            reaches = reaches || (belly ? p.y() < -arc.bellyArc_mm() + kBesideClip_mm
                                        : p.y() > arc.backArc_mm() - kBesideClip_mm);
        }
        if (reaches) clear.emplace_back(low, high);
    }
    std::sort(clear.begin(), clear.end());
    return clear;
}

ReliefAt reliefOf(const Job& job) {
    const std::vector<Zone>& zones = job.get<BlankChapter>().zones;
    if (std::none_of(zones.begin(), zones.end(), [](const Zone& z) { return z.relief_mm > 0; })) return {};
    return [zones](const Vec2& xg) { return reliefAt_mm(zones, xg); };
}

double blurOf_mm(double gap_mm) {
    return 2.56 * MistFrom().spread * gap_mm;  // from 10 to 90 % of a Gaussian
}

/// Errors: checkClips', clip_in_the_way.
static Status checkClipsOn(const Drape& drape, const ScalesChapter& s, const KeptClear& clear) {
    if (Status ok = checkClips(drape, clipWishOf(s), "scales"); !ok) return ok;
    for (std::size_t i = 0; i < s.clips.size(); ++i)
        for (const auto& [from, to] : clear)
            if (s.clips[i].x_mm > from - s.clip_mm / 2 + kTouches_mm &&
                s.clips[i].x_mm < to + s.clip_mm / 2 - kTouches_mm)
                return Error{
                    "clip_in_the_way",
                    Words(NINE_WORDS(
                              "core",
                              "A clip at {x} would sit on the bill or a hanger; move it off {from} to {to}."))
                        .length("x", s.clips[i].x_mm)
                        .length("from", from)
                        .length("to", to),
                    "scales.clips[" + std::to_string(i) + "]"};
    return Done{};
}

Result<NetOnBody> netOnBody(const Job& job, const Skin& skin, double spacing_mm, const DrapePtr& known,
                            const Task& task) {
    // In one piece: drape, readings, clips, and what is wrong with each.
    const ScalesChapter& s = job.get<ScalesChapter>();
    const Result<DrapeWish> wish = drapeWishOf(job, skin);
    if (!wish) return wish.error();
    const bool same = known && known->wish.gather == wish->gather && known->wish.reach == wish->reach;
    const bool kept = same && known->wish == *wish && known->spacing_mm == spacing_mm;
    Result<DrapePtr> laid =
        kept ? Result<DrapePtr>(known) : drape(skin, *wish, spacing_mm, same ? known.get() : nullptr, task);
    if (!laid) return laid.error();
    NetOnBody net;
    net.drape = *laid;
    net.reading = readNet(skin, *net.drape, lateralLine(skin, job.get<BlankChapter>().landmarks));
    for (const NetTrouble& t : net.reading.troubles)
        net.flags.push_back({t.kind == NetTrouble::Kind::Tears, troubleWords(t, *s.net), t.x_mm, 0, {}});
    if (s.doubled && std::hypot(s.second.along_mm, s.second.across_mm) < s.net->strand_mm &&
        std::abs(s.second.angle_deg) < 0.5)
        net.flags.push_back(
            {false,
             NINE_WORDS(
                 "core",
                 "The second layer lies exactly on the first: scales stay as they are. Move it by half "
                 "a cell, or turn it."),
             0.5 * (skin.noseX_mm() + skin.tailX_mm()),
             0,
             {}});
    if (s.slant_deg > 5 &&
        std::tan(degToRad(s.slant_deg)) > std::min(s.net->along_mm, s.net->across_mm) / s.net->strand_mm)
        net.flags.push_back(
            {false,
             NINE_WORDS("core", "At this slant the strands' shadows meet: nothing reaches the skin."),
             0,
             0,
             {}});
    if (s.clips.empty() || !s.reach.whole() || spacing_mm > kDrapeSpacing_mm) return net;
    const KeptClear clear = clearOfFittings(job, skin);
    if (Status ok = checkClipsOn(*net.drape, s, clear); !ok) {
        net.clipError = ok.error();
        return net;
    }
    auto clipped = clipNet(skin, *net.drape, clipWishOf(s), reliefOf(job), task);
    if (!clipped && clipped.error().code == "cancelled") return clipped.error();
    if (!clipped) {
        net.clipError = clipped.error();
        return net;
    }
    net.clipped = *clipped;
    std::vector<StandOff> loose;
    for (const StandOff& off : net.clipped->between)
        if (off.most_mm > s.allowed_mm) loose.push_back(off);
    std::sort(loose.begin(), loose.end(),
              [](const StandOff& a, const StandOff& b) { return a.most_mm > b.most_mm; });
    if (loose.size() > 4) loose.resize(4);
    for (const StandOff& off : loose)
        net.flags.push_back({true,
                             Words(NINE_WORDS("core",
                                              "The net stands {off} off {place}, {at} from the nose; scales "
                                              "there are blurred over up to "
                                              "{blur}."))
                                 .words("off", rangeOf(off))
                                 .words("place", placeOnLine(skin, s.gather, off.x_mm))
                                 .length("at", off.x_mm)
                                 .length("blur", blurOf_mm(off.most_mm), 1),
                             off.x_mm, off.g_mm, clipFor(*net.drape, s, clear, off.x_mm)});
    if (net.clipped->elsewhere.most_mm > s.allowed_mm)
        net.flags.push_back(
            {false,
             Words(NINE_WORDS("core",
                              "The net gathers at {at} from the nose and stands {off} off there; no clip "
                              "mends that: keep scales clear of it, or hook it farther in."))
                 .length("at", net.clipped->elsewhere.x_mm)
                 .words("off", rangeOf(net.clipped->elsewhere)),
             net.clipped->elsewhere.x_mm,
             net.clipped->elsewhere.g_mm,
             {}});
    std::stable_sort(net.flags.begin(), net.flags.end(),
                     [](const NetFlag& a, const NetFlag& b) { return a.fault && !b.fault; });
    return net;
}

Result<NetReading> fishnetOf(const Job& job, const Skin& skin, const Task& task) {
    Result<DrapeWish> wish = drapeWishOf(job, skin);
    if (!wish) return wish.error();
    wish->net = asFishnet(std::move(wish->net));
    const Result<DrapePtr> laid = drape(skin, *wish, kDrapeSpacing_mm, nullptr, task);
    if (!laid) return laid.error();
    return readNet(skin, **laid, lateralLine(skin, job.get<BlankChapter>().landmarks));
}

std::vector<Words> netSteps(const Job& job, const NetReading& reading) {
    const ScalesChapter& s = job.get<ScalesChapter>();
    std::vector<Words> steps;
    if (!s.net) return steps;
    const MaskSpecPtr* over = nullptr;
    const std::vector<MaskSpecPtr> specs = maskSpecs(job);
    for (const MaskSpecPtr& m : specs)
        if (m->id == s.mask) over = &m;
    const auto mask = [&](Pattern words) { return Words(words).name("mask", (*over)->shownName()); };
    steps.push_back(
        Words(NINE_WORDS("core", "Cut {net}, {length} by {width}{doubled}."))
            .name("net", s.net->name)
            .length("length", reading.piece_mm[0], 0)
            .length("width", reading.piece_mm[1] * (s.doubled ? 2 : 1), 0)
            .words("doubled", s.doubled ? Words(NINE_WORDS("core", ", and fold it double")) : Words()));
    if (over && !s.netUnder) steps.push_back(mask(NINE_WORDS("core", "Lay the mask {mask} on first.")));
    steps.push_back(
        Words(
            NINE_WORDS("core",
                       "Hook it at the {hook}, pull it over to the nose, and gather it along the {middle}."))
            .words("hook", s.hook == "tail" ? Words(NINE_WORDS("core", "tail")) : spokenName(s.hook))
            .words("middle", s.gather == Gather::Belly ? Words(NINE_WORDS("core", "belly"))
                                                       : Words(NINE_WORDS("core", "back"))));
    if (!s.clips.empty())
        steps.push_back(Words(NINE_WORDS("core", "Clip it in {count} places, from the nose to the tail."))
                            .number("count", static_cast<double>(s.clips.size()), 0));
    if (over && s.netUnder) steps.push_back(mask(NINE_WORDS("core", "Lay the mask {mask} over it.")));
    steps.push_back(NINE_WORDS(
        "core",
        "Spray in mist coats: heavy paint creeps along the strands. Wear a respirator made for the "
        "paint and work with an extractor, as its data sheet says."));
    if (over && s.netUnder)
        steps.push_back(mask(NINE_WORDS("core", "Take the mask {mask} off first, then the net.")));
    steps.push_back(
        s.liftWet && s.net->liftWet
            ? Words(NINE_WORDS("core", "Lift the net off while the paint is wet, straight up."))
            : Words(NINE_WORDS("core", "Let it dry, then pull the net off briskly: paint glues it down.")));
    if (over && !s.netUnder) steps.push_back(mask(NINE_WORDS("core", "Take the mask {mask} off last.")));
    return steps;
}

double sideForScales_mm(const Job& job, const Skin& skin) {
    const Landmarks& landmarks = job.get<BlankChapter>().landmarks;
    const std::vector<Vec2> line = lateralLine(skin, landmarks);
    const std::vector<double> arc = lengthsAlong(skin, line);
    double from = arc.front(), to = arc.back();
    const auto at = [&](double x) {
        for (std::size_t i = 0; i < line.size(); ++i)
            if (line[i].x() >= x) return arc[i];
        return arc.back();
    };
    if (const auto plate = landmarks.find("gill_plate"); plate != landmarks.end())
        from = at(referencePoint(plate->second, line.front().y()).x());
    if (const auto root = landmarks.find("tail_root"); root != landmarks.end())
        to = at(root->second.points.front().x());
    return std::max(1.0, to - from);
}

Drawing stripPage(const std::string& title, const std::vector<std::string>& remarks,
                  const std::vector<StripTick>& ticks, double length_mm) {
    constexpr double kMargin_mm = 10, kStrip_mm = 12;
    Drawing page;
    page.title = title;
    page.size_mm = {std::max(210.0, length_mm + 2 * kMargin_mm),
                    60.0 + 5 * static_cast<double>(remarks.size())};
    Layer cut{"CUT", {}}, pen{"PEN", {}}, text{"TEXT", {}};
    const auto write = [&](const std::string& words, const Vec2& at, double height) {
        for (Polyline2& stroke : strokeText(words, height)) {
            for (Vec2& p : stroke) p += at;
            text.lines.push_back({std::move(stroke), false});
        }
    };
    const Vec2 foot(kMargin_mm, page.size_mm.y() - 34);
    write(title, foot + Vec2(0, kStrip_mm + 7), 4);
    cut.lines.push_back(
        {{foot, foot + Vec2(length_mm, 0), foot + Vec2(length_mm, kStrip_mm), foot + Vec2(0, kStrip_mm)},
         true});
    write("nose", foot + Vec2(1, kStrip_mm + 1.2), 2);
    for (const StripTick& tick : ticks) {
        pen.lines.push_back({{foot + Vec2(tick.at_mm, 0), foot + Vec2(tick.at_mm, 6)}, false});
        write(tick.label, foot + Vec2(tick.at_mm + 0.6, 7.5), 2);
    }
    double y = foot.y() - 7;
    for (const std::string& remark : remarks) {
        write(remark, {kMargin_mm, y}, 2.3);
        y -= 5;
    }
    // To measure the print by.
    const Vec2 check(kMargin_mm, 6);
    pen.lines.push_back({{check, check + Vec2(100, 0)}, false});
    for (const double x : {0.0, 50.0, 100.0})
        pen.lines.push_back({{check + Vec2(x, 0), check + Vec2(x, 2)}, false});
    write("100 mm: measure it", check + Vec2(103, 0), 2);
    page.layers = {std::move(cut), std::move(pen), std::move(text)};
    return page;
}

Drawing clipStrip(const Job& job, const Skin& skin) {
    const ScalesChapter& s = job.get<ScalesChapter>();
    const bool belly = s.gather == Gather::Belly;
    // Arc along the middle line from the nose.
    std::vector<Vec2> line;
    for (int i = 0; i <= 200; ++i) {
        const double x = skin.noseX_mm() + skin.length_mm() * (0.5 - 0.5 * std::cos(kPi * i / 200));
        const SectionArc arc = skin.arcAt(x);
        line.emplace_back(x, belly ? -arc.bellyArc_mm() : arc.backArc_mm());
    }
    const std::vector<double> arcs = lengthsAlong(skin, line);
    const auto at = [&](double x) {
        for (std::size_t i = 1; i < line.size(); ++i)
            if (line[i].x() >= x) {
                const double t = (x - line[i - 1].x()) / std::max(1e-9, line[i].x() - line[i - 1].x());
                return arcs[i - 1] + std::clamp(t, 0.0, 1.0) * (arcs[i] - arcs[i - 1]);
            }
        return arcs.back();
    };
    std::vector<StripTick> ticks;
    for (std::size_t i = 0; i < s.clips.size(); ++i)
        ticks.push_back({at(s.clips[i].x_mm), std::to_string(i + 1)});
    return stripPage(job.get<BlankChapter>().name + ": clips",
                     {std::string("Cut out and lay along the ") + (belly ? "belly" : "back") +
                          " from the nose; a clip sits at each tick.",
                      s.net ? "Net: " + s.net->name : ""},
                     ticks, arcs.back());
}

Drawing foilStrip(const Job& job, const FoilLines& lines) {
    std::vector<StripTick> ticks;
    for (std::size_t i = 0; i < lines.ticks_mm.size(); ++i)
        ticks.push_back({lines.ticks_mm[i], i % 5 ? "" : std::to_string(i + 1)});
    Drawing page = stripPage(job.get<BlankChapter>().name + ": lines on foil",
                             {"Wrap it along the lateral line from its nose end; press where the ticks are, "
                              "to the lean drawn on them.",
                              "A blunted blade, under a raking light; stop short of the gill cover. Blades "
                              "slip: cut away from the hand."},
                             ticks, lines.ticks_mm.back() + 5);
    // The lean of both families at each tick, in the strip's upper half.
    const double lean = std::tan(degToRad(job.get<ScalesChapter>().foil.value_or(FoilWish()).lean_deg));
    Layer& pen = page.layers[1];
    const std::size_t count = ticks.size();
    for (std::size_t i = 0; i < count; ++i) {
        const Vec2 foot = pen.lines[i].points.front();
        for (const double side : {-1.0, 1.0})
            pen.lines.push_back({{foot, foot + Vec2(side * lean * 12, 12)}, false});
    }
    return page;
}

}  // namespace nine
