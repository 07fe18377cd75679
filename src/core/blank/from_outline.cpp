#include "blank/from_outline.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "base/units.h"
#include "blank/string_girth.h"

namespace nine {
namespace {

constexpr double kShortest_mm = 10;
constexpr double kFineTipShare = 0.025;
constexpr double kThinnest_mm = 0.05;   // of a size between nose and tail
constexpr double kLengthsAgree = 0.03;  // of the length, between the two outlines
constexpr double kEndInset_mm = 0.2;    // where the size of a flat end is read
constexpr double kLeanSaid_mm = 0.5;
constexpr double kTip_mm = 0.4;
constexpr double kFineTip_mm = 1;
constexpr double kNearestStrings_mm = 0.5;
constexpr int kProbes = 240;

struct Extent {
    double low, high;
};

/// The crossings of the line at x, by x; nothing beyond the ends.
std::optional<Extent> crossing(const Polyline2& outline, double x) {
    Extent e{1e18, -1e18};
    for (std::size_t i = 0; i < outline.size(); ++i) {
        const Vec2 &a = outline[i], &b = outline[(i + 1) % outline.size()];
        if ((a.x() - x) * (b.x() - x) > 0 || a.x() == b.x()) continue;
        const double z = a.y() + (x - a.x()) / (b.x() - a.x()) * (b.y() - a.y());
        e.low = std::min(e.low, z);
        e.high = std::max(e.high, z);
    }
    if (e.low > e.high) return std::nullopt;
    return e;
}

using Table = std::vector<std::pair<double, double>>;  ///< ascending

/// Straight between the entries of a table, level beyond them.
double between(const Table& table, double x) {
    if (x <= table.front().first) return table.front().second;
    if (x >= table.back().first) return table.back().second;
    std::size_t i = 1;
    while (table[i].first < x) ++i;
    const auto &a = table[i - 1], &b = table[i];
    const double t = (x - a.first) / (b.first - a.first);
    return (1 - t) * a.second + t * b.second;
}

/// How far the face at an end leans: from its farthest corner to where it crosses the axis, along the axis.
double leanOf(const Polyline2& side, bool nose, double length) {
    double farthest = 0;
    for (std::size_t i = 0; i < side.size(); ++i) {
        const Vec2 &a = side[i], &b = side[(i + 1) % side.size()];
        if ((a.y() > 0) == (b.y() > 0)) continue;
        const double x = a.x() + a.y() / (a.y() - b.y()) * (b.x() - a.x());
        if (nose == (x < 0.5 * length)) farthest = std::max(farthest, std::abs(x - 0.5 * length));
    }
    return std::max(0.0, 0.5 * length - farthest);
}

/// Sizes of the body as the outlines show them, by x from the nose.
class Shown {
  public:
    Shown(const Outlines& o, double length, double topStretch)
        : o_(o), length_(length), stretch_(topStretch) {
        // Within twice its lean a leaning face has only one side of the body.
        if (o.noseFlat) noseInset_ = kEndInset_mm + 2 * leanOf(o.side, true, length);
        if (o.tailFlat) tailInset_ = kEndInset_mm + 2 * leanOf(o.side, false, length);
    }

    Station at(double x) const {
        const double inside = std::clamp(x, noseInset_, length_ - tailInset_);
        const double beyond = x - inside;  // what lies on a face runs on as it came
        Station s = seenAt(x, inside);
        if (std::abs(beyond) <= kEndInset_mm) return s;
        const double back = inside - std::copysign(1.0, beyond);
        const Station before = seenAt(back, back);
        for (double Station::*size : {&Station::top_mm, &Station::bottom_mm, &Station::halfWidth_mm})
            s.*size = std::max(kThinnest_mm, s.*size + std::abs(beyond) * (s.*size - before.*size));
        return s;
    }
    bool closed(bool nose) const { return nose ? !o_.noseFlat : !o_.tailFlat; }

    /// Without an outline from above: width over height at the places of the strings, straight between.
    Table shares;

  private:
    Station seenAt(double x, double inside) const {
        Station s;
        s.x_mm = x;
        s.section = s.sectionLower = o_.section;
        if (const auto side = crossing(o_.side, inside)) {
            s.top_mm = side->high;
            s.bottom_mm = -side->low;
        }
        if (o_.top) {
            if (const auto top = crossing(*o_.top, inside / stretch_))
                s.halfWidth_mm = 0.5 * (top->high - top->low);
            if (o_.girths.empty()) s.assumed = kAssumedSection;
        } else {
            s.halfWidth_mm = 0.5 * widthShare(x) * (s.top_mm + s.bottom_mm);
            s.assumed = kAssumedWidth | kAssumedSection;  // where a string lies, its width is not
        }
        // The last of a pointed tip is finer than the axis is drawn.
        const double fromTip = std::min(closed(true) ? x : length_, closed(false) ? length_ - x : length_);
        if (fromTip < std::max(kFineTip_mm, kFineTipShare * length_))
            for (double* size : {&s.top_mm, &s.bottom_mm, &s.halfWidth_mm})
                *size = std::max(*size, kThinnest_mm);
        return s;
    }
    double widthShare(double x) const { return shares.empty() ? o_.widthShare : between(shares, x); }

    const Outlines& o_;
    double length_, stretch_;
    double noseInset_ = 0.01, tailInset_ = 0.01;  // nearer to the ends nothing is read
};

Station rounded(Station s) {
    const auto hundredth = [](double v) { return std::round(100 * v) / 100; };
    s.x_mm = hundredth(s.x_mm);
    s.top_mm = hundredth(s.top_mm);
    s.bottom_mm = hundredth(s.bottom_mm);
    s.halfWidth_mm = hundredth(s.halfWidth_mm);
    return s;
}

struct Miss {
    double x = 0, worst = 0, rms = 0;
    double worstX = 0;     ///< where the worst is
    double roomWorst = 0;  ///< the worst where there is room for a station more, at x
};

/// Two stations are not nearer than this, so that slopes between them are not noise; closer near the ends,
/// where the outline turns.
double leastStep(double x, double length) {
    return std::clamp(0.25 * std::min(x, length - x), 0.3, std::max(0.3, 0.012 * length));
}

/// What the outlines show at one place: sizes, and how steeply they change along the body.
struct Probe {
    double x;
    Vec3 size, slope;  ///< of top, bottom, half width
};
std::vector<Probe> probesAlong(const Shown& shown, double length) {
    const auto sizes = [&](double x) {
        const Station s = shown.at(x);
        return Vec3(s.top_mm, s.bottom_mm, s.halfWidth_mm);
    };
    std::vector<Probe> probes;
    for (int i = 1; i < kProbes; ++i) {
        const double x = 0.5 * length * (1 - std::cos(kPi * i / kProbes)),
                     step = std::min({0.05, x, length - x});
        probes.push_back({x, sizes(x), (sizes(x + step) - sizes(x - step)) / (2 * step)});
    }
    return probes;
}

/// Loft against outlines, measured across the outline, so that steep ends count as what they are.
Miss missOf_mm(const Loft& loft, const std::vector<Probe>& probes, double length,
               const std::vector<double>& eases) {
    Miss miss;
    double sum = 0;
    for (const Probe& probe : probes) {
        const double x = probe.x, least = 0.9 * leastStep(x, length);
        const std::size_t segment = loft.segmentAt(x);
        const bool tried = std::any_of(eases.begin(), eases.end(), [&](double place) {
            return std::abs(x - place) < 2 * leastStep(x, length);
        });
        const bool room = !tried && x - loft.stations()[segment].x_mm > least &&
                          loft.stations()[segment + 1].x_mm - x > least;
        const Section s = loft.sectionAt(x);
        const Vec3 off = Vec3(s.top_mm, s.bottom_mm, s.halfWidth_mm) - probe.size;
        for (int k = 0; k < 3; ++k) {
            const double d = std::abs(off[k]) / std::sqrt(1 + probe.slope[k] * probe.slope[k]);
            sum += d * d;
            // The very tips are as round as the picture is sharp.
            if (std::min(x, length - x) > kTip_mm && d > miss.worst) {
                miss.worst = d;
                miss.worstX = x;
            }
            if (room && d > miss.roomWorst) {
                miss.roomWorst = d;
                miss.x = x;
            }
        }
    }
    miss.rms = std::sqrt(sum / (3.0 * static_cast<double>(probes.size())));
    return miss;
}

Extent extentAlong(const Polyline2& line) {
    Extent e{1e18, -1e18};
    for (const Vec2& p : line) {
        e.low = std::min(e.low, p.x());
        e.high = std::max(e.high, p.x());
    }
    return e;
}

double asymmetryOf(const Polyline2& top, double length) {
    double worst = 0;
    for (int i = 2; i < 40; ++i) {
        if (const auto e = crossing(top, length * i / 41))
            worst = std::max(worst, std::abs(e->high + e->low));
    }
    return 0.5 * worst;
}

/// Outlines from two sides leave open how full the sections are: how far that may put the girth off at the
/// thickest place, and what settles it.
Warning sectionsAssumed(const std::vector<Station>& stations) {
    const Station& thickest =
        *std::max_element(stations.begin(), stations.end(), [](const Station& a, const Station& b) {
            return a.halfWidth_mm * (a.top_mm + a.bottom_mm) < b.halfWidth_mm * (b.top_mm + b.bottom_mm);
        });
    const double girth = girthOf_mm(thickest);
    constexpr double kUsualSpread = 0.3;  // of exponents among bodies of one kind; estimated, no source
    double off = 0;
    for (const double by : {-kUsualSpread, kUsualSpread}) {
        Station other = thickest;
        other.section = other.sectionLower = std::max(kMinSectionExponent, thickest.section + by);
        off = std::max(off, std::abs(girthOf_mm(other) - girth));
    }
    return {"sections_assumed",
            Words(NINE_WORDS("core",
                             "How full the sections are is assumed from the kind of body; the girth "
                             "at the thickest place, {girth}, may well be off by {off}. Lay one "
                             "string round the body at {x} from the nose and type it in."))
                .length("girth", girth, 1)
                .length("off", off, 1)
                .length("x", thickest.x_mm, 1),
            "blank.stations"};
}

/// Near a tip the noise of an outline can ask for what no smooth curve does. Takes out the one of the two
/// readings, between which the loft failed, that is nearer the tip, and tells its place; nothing where it
/// failed elsewhere.
std::optional<double> eased(std::vector<Station>& stations, const Error& failure) {
    constexpr double kNearTip = 0.15;  // of the length
    const std::size_t bracket = failure.where.find('[');
    if (failure.code != "no_skin" || bracket == std::string::npos || stations.size() < 6) return std::nullopt;
    const std::size_t last = stations.size() - 1,
                      at = std::min<std::size_t>(std::stoul(failure.where.substr(bracket + 1)), last);
    const double x = stations[at].x_mm, length = stations.back().x_mm;
    if (x > kNearTip * length && x < (1 - kNearTip) * length) return std::nullopt;
    const bool nose = x < 0.5 * length;
    const std::size_t out = std::clamp<std::size_t>(nose ? at : at + 1, 1, last - 1);
    const double place = stations[out].x_mm;
    stations.erase(stations.begin() + static_cast<std::ptrdiff_t>(out));
    return place;
}

std::string placeOf(const StringReading& g) {
    return "girth at " + fixedText(g.x_mm, 1);
}

/// The outlines from the nose on, with the body's length.
struct LaidAlong {
    Outlines o;
    double length = 0, stretch = 1;  ///< of the view from above, to the length seen from the side
};

Result<LaidAlong> laidFromNose(const Outlines& outlines, OutlinedBody& body) {
    constexpr std::size_t kFewestPoints = 20;
    const Error none{
        "no_outline",
        Words(NINE_WORDS("core", "There is no outline to make a body from, or it is shorter than {least}."))
            .length("least", kShortest_mm, 0),
        "outline"};
    if (outlines.side.size() < kFewestPoints) return none;
    LaidAlong laid{outlines};
    Outlines& o = laid.o;
    const Extent along = extentAlong(o.side);
    const double length = laid.length = std::round(100 * (along.high - along.low)) / 100;
    if (!(length >= kShortest_mm)) return none;
    for (Vec2& p : o.side) p.x() -= along.low;
    if (o.top) {
        const Extent other = extentAlong(*o.top);
        for (Vec2& p : *o.top) p.x() -= other.low;
        laid.stretch = length / (other.high - other.low);
        if (std::abs(laid.stretch - 1) > kLengthsAgree)
            return Error{
                "lengths_differ",
                Words(NINE_WORDS("core",
                                 "Seen from the side the body is {length} long, from above {low}; these "
                                 "are not the same body, or one of them lay at a slant. Do the shorter "
                                 "one again."))
                    .length("length", length, 1)
                    .length("low", other.high - other.low, 1),
                "top"};
        body.asymmetry_mm = asymmetryOf(*o.top, other.high - other.low);
    }
    return laid;
}

/// Strings in order along the body, each on it and apart from the next.
Status sortGirths(Outlines& o, double length) {
    std::sort(o.girths.begin(), o.girths.end(), [](const auto& a, const auto& b) { return a.x_mm < b.x_mm; });
    for (const StringReading& g : o.girths) {
        if (!(g.x_mm > 0 && g.x_mm < length))
            return Error{"off_body",
                         Words(NINE_WORDS("core", "The string lies at {x}, the body ends at {length}."))
                             .length("x", g.x_mm, 1)
                             .length("length", length, 1),
                         placeOf(g)};
    }
    for (std::size_t i = 1; i < o.girths.size(); ++i) {
        if (o.girths[i].x_mm - o.girths[i - 1].x_mm < kNearestStrings_mm)
            return Error{"contradiction",
                         Words(NINE_WORDS("core", "Two strings lie at {x}; keep one."))
                             .length("x", o.girths[i].x_mm, 1),
                         placeOf(o.girths[i])};
    }
    return Done{};
}

/// What strings tell of the widths where nothing shows them from above.
Status learnWidths(Shown& shown, const Outlines& o) {
    if (o.top) return Done{};
    for (const StringReading& g : o.girths) {
        const std::string where = placeOf(g);
        const Station s = shown.at(g.x_mm);
        const Result<double> half = halfWidthForGirth(s, g.girth_mm, where);
        if (!half) return half.error();
        shown.shares.emplace_back(g.x_mm, 2 * *half / (s.top_mm + s.bottom_mm));
    }
    return Done{};
}

/// Some to begin with, closer at the ends.
std::vector<Station> firstStations(Shown& shown, double length) {
    std::vector<Station> stations;
    constexpr int kFirst = 8;
    for (int i = 0; i <= kFirst; ++i) {
        const double x = 0.5 * length * (1 - std::cos(kPi * i / kFirst));
        Station s = rounded(shown.at(x));
        const bool end = i == 0 || i == kFirst;
        if (end && shown.closed(i == 0)) {
            s.top_mm = s.bottom_mm = s.halfWidth_mm = 0;
            s.assumed = 0;
        }
        if (i == kFirst) s.x_mm = length;
        stations.push_back(s);
    }
    return stations;
}

Status checkThickness(const std::vector<Station>& stations, const Shown& shown) {
    for (std::size_t i = 0; i < stations.size(); ++i) {
        const Station& s = stations[i];
        const bool end = (i == 0 && shown.closed(true)) || (i + 1 == stations.size() && shown.closed(false));
        if (!end && (s.top_mm < kThinnest_mm || s.bottom_mm < kThinnest_mm || s.halfWidth_mm < kThinnest_mm))
            return Error{
                "zero_inside",
                Words(NINE_WORDS("core",
                                 "At {x} from the nose the outline touches or leaves the axis. Draw the "
                                 "axis so that it runs inside the body from nose to tail."))
                    .length("x", s.x_mm, 1),
                "axis"};
    }
    return Done{};
}

/// One station more where the loft misses most, until it misses nowhere by more than kOutlineFit_mm.
Status refine(OutlinedBody& body, Shown& shown, double length) {
    std::vector<Station>& stations = body.table.stations;
    const std::vector<Probe> probes = probesAlong(shown, length);
    std::vector<double> eases;  // no more is asked there; elsewhere refining goes on
    for (;;) {
        if (Status ok = checkThickness(stations, shown); !ok) return ok;
        const Result<Loft> loft = Loft::through(stations);
        if (!loft) {
            const std::optional<double> place = eased(stations, loft.error());
            if (!place || eases.size() >= kMostOutlineStations) return loft.error();
            eases.push_back(*place);
            continue;
        }
        const Miss miss = missOf_mm(*loft, probes, length, eases);
        body.miss_mm = miss.rms;
        body.worst_mm = miss.worst;
        body.worst_x_mm = miss.worstX;
        if (miss.roomWorst <= kOutlineFit_mm || stations.size() >= kMostOutlineStations) return Done{};
        const auto after =
            std::find_if(stations.begin(), stations.end(), [&](const Station& s) { return s.x_mm > miss.x; });
        stations.insert(after, rounded(shown.at(miss.x)));
    }
}

/// Sections as full as strings round them say; without an outline from above, the girths themselves.
Status heedStrings(std::vector<Station>& stations, Shown& shown, const Outlines& o) {
    for (const StringReading& g : o.girths) {  // with both outlines a string tells how full the section is
        auto near =
            std::min_element(stations.begin(), stations.end(), [&](const Station& a, const Station& b) {
                return std::abs(a.x_mm - g.x_mm) < std::abs(b.x_mm - g.x_mm);
            });
        if (std::abs(near->x_mm - g.x_mm) > 0.02 || near->halfWidth_mm == 0) {
            const auto after = std::find_if(stations.begin(), stations.end(),
                                            [&](const Station& s) { return s.x_mm > g.x_mm; });
            near = stations.insert(after, rounded(shown.at(g.x_mm)));
        }
        if (o.top) {
            const Result<Station> fuller = withGirth(*near, g.girth_mm, Fuller::Both, placeOf(g));
            if (!fuller) return fuller.error();
            *near = *fuller;
            near->section = near->sectionLower = std::round(1000 * near->section) / 1000;
        } else {
            near->girth_mm = g.girth_mm;
            near->assumed &= ~static_cast<unsigned>(kAssumedWidth);
        }
    }
    if (o.top && !o.girths.empty()) {  // sections between the strings are as full as the strings say
        Table known;
        for (const Station& s : stations)
            if (s.girth_mm > 0) known.emplace_back(s.x_mm, s.section);
        for (Station& s : stations)
            if (s.girth_mm == 0)
                s.section = s.sectionLower = std::round(1000 * between(known, s.x_mm)) / 1000;
    }
    return Done{};
}

void tellDoubts(OutlinedBody& body, const Outlines& o, double length) {
    const std::vector<Station>& stations = body.table.stations;
    if (!o.top && o.girths.empty())
        body.warnings.push_back(
            {"widths_assumed",
             Words(NINE_WORDS("core",
                              "Nothing tells how wide the body is; {share} % of its height is "
                              "assumed. Lay a string round it, or trace it from above."))
                 .number("share", 100 * o.widthShare, 0),
             "blank.stations"});
    if (o.top && o.girths.empty()) body.warnings.push_back(sectionsAssumed(stations));
    for (const bool nose : {true, false}) {
        const double lean = (nose ? o.noseFlat : o.tailFlat) ? leanOf(o.side, nose, length) : 0;
        if (lean > kLeanSaid_mm)
            body.warnings.push_back(
                {"end_leans",
                 Words(NINE_WORDS("core",
                                  "The {nose} is cut at a slant; here it ends square, so that its corners "
                                  "are up to {lean} off. Keep masks clear of them."))
                     .words("nose", (nose ? NINE_WORDS("core", "nose") : NINE_WORDS("core", "tail")))
                     .length("lean", lean, 1),
                 "blank.stations"});
    }
    if (body.worst_mm > 4 * kOutlineFit_mm)
        body.warnings.push_back(
            {"outline_rough",
             Words(NINE_WORDS("core",
                              "The outline has corners that the body smooths by up to {worst}; add "
                              "stations there if they are real."))
                 .length("worst", body.worst_mm, 2),
             "blank.stations"});
}

}  // namespace

Result<OutlinedBody> bodyFromOutlines(const Outlines& outlines) {
    OutlinedBody body;
    Result<LaidAlong> laid = laidFromNose(outlines, body);
    if (!laid) return laid.error();
    Outlines& o = laid->o;
    if (Status ok = sortGirths(o, laid->length); !ok) return ok.error();
    Shown shown(o, laid->length, laid->stretch);
    if (Status ok = learnWidths(shown, o); !ok) return ok.error();
    body.table.stations = firstStations(shown, laid->length);
    if (Status ok = refine(body, shown, laid->length); !ok) return ok.error();
    if (Status ok = heedStrings(body.table.stations, shown, o); !ok) return ok.error();
    tellDoubts(body, o, laid->length);
    return body;
}

}  // namespace nine
