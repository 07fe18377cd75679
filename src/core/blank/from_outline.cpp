#include "blank/from_outline.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "base/units.h"
#include "blank/string_girth.h"

namespace nine {
namespace {

constexpr double kShortest_mm = 10;
constexpr double kThinnest_mm = 0.05;   // of a size between nose and tail
constexpr double kLengthsAgree = 0.03;  // of the length, between the two outlines
constexpr double kEndInset_mm = 0.2;    // where the size of a flat end is read
constexpr double kTip_mm = 0.4;
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

/// Sizes of the body as the outlines show them, by x from the nose.
class Shown {
  public:
    Shown(const Outlines& o, double length, double topStretch)
        : o_(o), length_(length), stretch_(topStretch) {}

    Station at(double x) const {
        const double inside =
            std::clamp(x, o_.noseFlat ? kEndInset_mm : 0.01, length_ - (o_.tailFlat ? kEndInset_mm : 0.01));
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
        } else {
            s.halfWidth_mm = 0.5 * widthShare(x) * (s.top_mm + s.bottom_mm);
            s.assumed =
                o_.girths.empty() ? kAssumedWidth | kAssumedSection : static_cast<unsigned>(kAssumedSection);
        }
        return s;
    }
    bool closed(bool nose) const { return nose ? !o_.noseFlat : !o_.tailFlat; }

    /// Without an outline from above: width over height at the places of the strings, straight between.
    std::vector<std::pair<double, double>> shares;

  private:
    double widthShare(double x) const {
        if (shares.empty()) return o_.widthShare;
        if (x <= shares.front().first) return shares.front().second;
        if (x >= shares.back().first) return shares.back().second;
        std::size_t i = 1;
        while (shares[i].first < x) ++i;
        const auto &a = shares[i - 1], &b = shares[i];
        const double t = (x - a.first) / (b.first - a.first);
        return (1 - t) * a.second + t * b.second;
    }

    const Outlines& o_;
    double length_, stretch_;
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
    double roomWorst = 0;  ///< the worst where there is room for a station more, at x
};

/// Two stations are not nearer than this, so that slopes between them are not noise; closer near the ends,
/// where the outline turns.
double leastStep(double x, double length) {
    return std::clamp(0.25 * std::min(x, length - x), 0.3, std::max(0.3, 0.012 * length));
}
/// Loft against outlines, measured across the outline, so that steep ends count as what they are.
Miss missOf(const Loft& loft, const Shown& shown, double length) {
    Miss miss;
    double sum = 0;
    int count = 0;
    for (int i = 1; i < kProbes; ++i) {
        const double x = 0.5 * length * (1 - std::cos(kPi * i / kProbes));
        const std::size_t segment = loft.segmentAt(x);
        const double step0 = leastStep(x, length);
        const bool room = x - loft.stations()[segment].x_mm > 0.9 * step0 &&
                          loft.stations()[segment + 1].x_mm - x > 0.9 * step0;
        const Section is = loft.sectionAt(x);
        const Station want = shown.at(x);
        const double step = std::min({0.05, x, length - x});
        const Station before = shown.at(x - step), after = shown.at(x + step);
        const auto across = [&](double have, double wanted, double a, double b) {
            const double slope = (b - a) / (2 * step);
            return std::abs(have - wanted) / std::sqrt(1 + slope * slope);
        };
        for (const double d :
             {across(is.top, want.top_mm, before.top_mm, after.top_mm),
              across(is.bottom, want.bottom_mm, before.bottom_mm, after.bottom_mm),
              across(is.halfWidth, want.halfWidth_mm, before.halfWidth_mm, after.halfWidth_mm)}) {
            sum += d * d;
            ++count;
            // The very tips are as round as the picture is sharp.
            if (std::min(x, length - x) > kTip_mm) miss.worst = std::max(miss.worst, d);
            if (room && d > miss.roomWorst) {
                miss.roomWorst = d;
                miss.x = x;
            }
        }
    }
    miss.rms = std::sqrt(sum / count);
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

}  // namespace

Result<OutlinedBody> bodyFromOutlines(const Outlines& outlines) {
    constexpr std::size_t kFewestPoints = 20;
    const Error none{"no_outline", "There is no outline to make a body from, or it is shorter than 10 mm.",
                     "outline"};
    if (outlines.side.size() < kFewestPoints) return none;
    Outlines o = outlines;
    const Extent along = extentAlong(o.side);
    const double length = std::round(100 * (along.high - along.low)) / 100;
    if (!(length >= kShortest_mm)) return none;
    for (Vec2& p : o.side) p.x() -= along.low;
    OutlinedBody body;
    double stretch = 1;
    if (o.top) {
        const Extent other = extentAlong(*o.top);
        for (Vec2& p : *o.top) p.x() -= other.low;
        stretch = length / (other.high - other.low);
        if (std::abs(stretch - 1) > kLengthsAgree)
            return Error{"lengths_differ",
                         "Seen from the side the body is " + fixedText(length, 1) + " mm long, from above " +
                             fixedText(other.high - other.low, 1) +
                             " mm; these are not the same body, or one of them lay at a slant. Do the "
                             "shorter one again.",
                         "top"};
        body.asymmetry_mm = asymmetryOf(*o.top, other.high - other.low);
    }
    Shown shown(o, length, stretch);
    if (!o.top) {
        std::vector<StringReading> girths = o.girths;
        std::sort(girths.begin(), girths.end(), [](const auto& a, const auto& b) { return a.x_mm < b.x_mm; });
        for (const StringReading& g : girths) {
            const std::string where = "girth at " + fixedText(g.x_mm, 1);
            if (!(g.x_mm > 0 && g.x_mm < length))
                return Error{"off_body",
                             "The string lies at " + fixedText(g.x_mm, 1) + " mm, the body ends at " +
                                 fixedText(length, 1) + " mm.",
                             where};
            const Station s = shown.at(g.x_mm);
            const Result<double> half = halfWidthForGirth(s, g.girth_mm, where);
            if (!half) return half.error();
            shown.shares.emplace_back(g.x_mm, 2 * *half / (s.top_mm + s.bottom_mm));
        }
    }
    // Some to begin with, closer at the ends; then one more where the loft misses most.
    std::vector<Station>& stations = body.table.stations;
    constexpr int kFirst = 8;
    for (int i = 0; i <= kFirst; ++i) {
        const double x = 0.5 * length * (1 - std::cos(kPi * i / kFirst));
        Station s = rounded(shown.at(x));
        const bool end = i == 0 || i == kFirst;
        if (end && shown.closed(i == 0)) s.top_mm = s.bottom_mm = s.halfWidth_mm = 0;
        if (i == kFirst) s.x_mm = length;
        stations.push_back(s);
    }
    for (;;) {
        for (std::size_t i = 0; i < stations.size(); ++i) {
            Station& s = stations[i];
            const bool end =
                (i == 0 && shown.closed(true)) || (i + 1 == stations.size() && shown.closed(false));
            if (!end &&
                (s.top_mm < kThinnest_mm || s.bottom_mm < kThinnest_mm || s.halfWidth_mm < kThinnest_mm))
                return Error{
                    "zero_inside",
                    "At " + fixedText(s.x_mm, 1) +
                        " mm from the nose the outline touches or leaves the axis. Draw the axis so that it "
                        "runs inside the body from nose to tail.",
                    "axis"};
        }
        const Result<Loft> loft = Loft::through(stations);
        if (!loft) return loft.error();
        const Miss miss = missOf(*loft, shown, length);
        body.miss_mm = miss.rms;
        body.worst_mm = miss.worst;
        if (miss.roomWorst <= kOutlineFit_mm || stations.size() >= kMostOutlineStations) break;
        const auto after =
            std::find_if(stations.begin(), stations.end(), [&](const Station& s) { return s.x_mm > miss.x; });
        stations.insert(after, rounded(shown.at(miss.x)));
    }
    for (const StringReading& g : o.girths) {  // with both outlines a string tells how full the section is
        const std::string where = "girth at " + fixedText(g.x_mm, 1);
        if (!(g.x_mm > 0 && g.x_mm < length))
            return Error{"off_body",
                         "The string lies at " + fixedText(g.x_mm, 1) + " mm, the body ends at " +
                             fixedText(length, 1) + " mm.",
                         where};
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
            const Result<Station> fuller = withGirth(*near, g.girth_mm, Fuller::Both, where);
            if (!fuller) return fuller.error();
            *near = *fuller;
            near->section = near->sectionLower = std::round(1000 * near->section) / 1000;
        } else {
            near->girth_mm = g.girth_mm;
        }
    }
    if (o.top && !o.girths.empty()) {  // sections between the strings are as full as the strings say
        std::vector<std::pair<double, double>> known;
        for (const Station& s : stations)
            if (s.girth_mm > 0) known.emplace_back(s.x_mm, s.section);
        for (Station& s : stations) {
            if (s.girth_mm > 0) continue;
            std::size_t i = 0;
            while (i < known.size() && known[i].first < s.x_mm) ++i;
            if (i == 0 || i == known.size()) {
                s.section = known[i == 0 ? 0 : i - 1].second;
            } else {
                const double t = (s.x_mm - known[i - 1].first) / (known[i].first - known[i - 1].first);
                s.section = std::round(1000 * ((1 - t) * known[i - 1].second + t * known[i].second)) / 1000;
            }
            s.sectionLower = s.section;
        }
    }
    if (!o.top && o.girths.empty())
        body.warnings.push_back(
            {"widths_assumed",
             "Nothing tells how wide the body is; " + fixedText(100 * o.widthShare, 0) +
                 " % of its height is assumed. Lay a string round it, or trace it from above.",
             "blank.stations"});
    if (body.worst_mm > 4 * kOutlineFit_mm)
        body.warnings.push_back({"outline_rough",
                                 "The outline has corners that the body smooths by up to " +
                                     fixedText(body.worst_mm, 2) +
                                     " mm; add stations there if they are real.",
                                 "blank.stations"});
    return body;
}

}  // namespace nine
