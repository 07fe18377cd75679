#include "log/sides.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace nine {
namespace {

/// How a stiff sheet lay against where it should have: its marks moved by these.
struct Lay {
    double along_mm = 0, up_mm = 0, turned_rad = 0;
    double reach_mm = 0;  ///< from the middle of its marks to the farthest
    int marks = 0;
};

struct Found {
    const SideReading* reading;
    double along_mm, up_mm;  ///< off the plan
    bool hasAlong, hasUp;
};

/// Small turns: along += -turn * up', up += turn * along', about the middle of the marks.
Lay layOf(const std::vector<Found>& marks) {
    Lay lay;
    double midX_mm = 0, midUp_mm = 0, alongs = 0, ups = 0;
    for (const Found& f : marks) {
        midX_mm += f.reading->plannedX_mm / static_cast<double>(marks.size());
        midUp_mm += f.reading->plannedUp_mm / static_cast<double>(marks.size());
        if (f.hasAlong) lay.along_mm += f.along_mm, ++alongs;
        if (f.hasUp) lay.up_mm += f.up_mm, ++ups;
    }
    if (alongs > 0) lay.along_mm /= alongs;
    if (ups > 0) lay.up_mm /= ups;
    double turn = 0, arm = 0;
    for (const Found& f : marks) {
        const double x = f.reading->plannedX_mm - midX_mm, up = f.reading->plannedUp_mm - midUp_mm;
        lay.reach_mm = std::max(lay.reach_mm, std::hypot(x, up));
        if (f.hasUp) turn += x * (f.up_mm - lay.up_mm), arm += x * x;
        if (f.hasAlong) turn -= up * (f.along_mm - lay.along_mm), arm += up * up;
    }
    lay.marks = static_cast<int>(marks.size());
    // Two marks close together say nothing of a turn.
    if (lay.marks > 1 && arm > 4) lay.turned_rad = turn / arm;
    return lay;
}

std::vector<Found> foundOn(const std::vector<const SideReading*>& readings, bool right) {
    std::vector<Found> found;
    for (const SideReading* r : readings) {
        const auto& x = right ? r->rightX_mm : r->leftX_mm;
        const auto& up = right ? r->rightUp_mm : r->leftUp_mm;
        if (!x && !up) continue;
        found.push_back(
            {r, x ? *x - r->plannedX_mm : 0, up ? *up - r->plannedUp_mm : 0, x.has_value(), up.has_value()});
    }
    return found;
}

Words placeWords(double along_mm, double up_mm) {
    const Pattern along = along_mm > 0 ? NINE_WORDS("core", "{mm} towards the tail")
                                       : NINE_WORDS("core", "{mm} towards the nose");
    const Pattern up = up_mm > 0 ? NINE_WORDS("core", "{mm} higher") : NINE_WORDS("core", "{mm} lower");
    std::vector<Words> parts;
    constexpr double kSaid_mm = 0.15;
    if (std::abs(along_mm) >= kSaid_mm) parts.push_back(Words(along).length("mm", std::abs(along_mm), 1));
    if (std::abs(up_mm) >= kSaid_mm) parts.push_back(Words(up).length("mm", std::abs(up_mm), 1));
    return listed(parts);
}

Words sideWords(bool right) {
    return right ? NINE_WORDS("core", "right") : NINE_WORDS("core", "left");
}

double weight(const SideFinding& f) {
    return std::hypot(f.along_mm, f.up_mm) + std::abs(f.turned_deg) * 0.2;
}

}  // namespace

bool MarkDifference::seen() const {
    return std::abs(along_mm.value_or(0)) > kSeen_mm || std::abs(up_mm.value_or(0)) > kSeen_mm;
}

SideReport compareSides(const std::vector<SideReading>& readings) {
    // In one piece: differences, each mask as a stiff sheet, then what all have in common.
    SideReport report;
    std::map<std::string, std::vector<const SideReading*>> byMask;
    for (const SideReading& r : readings) {
        MarkDifference d{r.mark, r.mask, {}, {}};
        if (r.leftX_mm && r.rightX_mm) d.along_mm = *r.rightX_mm - *r.leftX_mm;
        if (r.leftUp_mm && r.rightUp_mm) d.up_mm = *r.rightUp_mm - *r.leftUp_mm;
        if (!d.along_mm && !d.up_mm) continue;
        report.differences.push_back(d);
        byMask[r.mask].push_back(&r);
    }
    struct Sheet {
        std::string mask;
        Lay left, right;
    };
    std::vector<Sheet> sheets;
    for (const auto& [mask, marks] : byMask)
        sheets.push_back({mask, layOf(foundOn(marks, false)), layOf(foundOn(marks, true))});

    // All masks moved alike, by more than is seen: not the masks.
    constexpr double kAlike_mm = 0.35;
    double along_mm = 0, up_mm = 0;
    for (const Sheet& s : sheets) {
        along_mm += (s.right.along_mm - s.left.along_mm) / static_cast<double>(sheets.size());
        up_mm += (s.right.up_mm - s.left.up_mm) / static_cast<double>(sheets.size());
    }
    const bool whole = sheets.size() > 1 && std::hypot(along_mm, up_mm) > kSeen_mm &&
                       std::all_of(sheets.begin(), sheets.end(), [&](const Sheet& s) {
                           return std::hypot(s.right.along_mm - s.left.along_mm - along_mm,
                                             s.right.up_mm - s.left.up_mm - up_mm) < kAlike_mm;
                       });
    if (whole) {
        SideFinding f{SideCause::WholeSide, "", "", true, along_mm, up_mm, 0, {}, {}};
        f.says =
            Words(NINE_WORDS(
                      "core",
                      "Every mask's marks lie {where} on the right: they cannot all have slipped alike."))
                .words("where", placeWords(along_mm, up_mm));
        f.mend =
            NINE_WORDS("core", "Measure both sides from the same nose point, or take both photos square on.");
        report.findings.push_back(std::move(f));
    }
    for (const Sheet& s : sheets) {
        SideFinding f;
        f.mask = s.mask;
        f.along_mm = s.right.along_mm - s.left.along_mm - (whole ? along_mm : 0);
        f.up_mm = s.right.up_mm - s.left.up_mm - (whole ? up_mm : 0);
        f.turned_deg = radToDeg(s.right.turned_rad - s.left.turned_rad);
        f.right =
            std::hypot(s.right.along_mm, s.right.up_mm) + std::abs(s.right.turned_rad) * s.right.reach_mm >=
            std::hypot(s.left.along_mm, s.left.up_mm) + std::abs(s.left.turned_rad) * s.left.reach_mm;
        const double askew_mm =
            std::abs(s.right.turned_rad - s.left.turned_rad) * std::max(s.left.reach_mm, s.right.reach_mm);
        const bool moved =
            !s.mask.empty() && (std::abs(f.along_mm) > kSeen_mm || std::abs(f.up_mm) > kSeen_mm);
        if (moved) {
            f.cause = SideCause::MaskMoved;
            const double sign = f.right ? 1 : -1;
            f.says =
                Words(NINE_WORDS("core", "{mask} lay {where} on the {side}, all {marks} of its marks alike."))
                    .name("mask", s.mask)
                    .words("where", placeWords(sign * f.along_mm, sign * f.up_mm))
                    .words("side", sideWords(f.right))
                    .number("marks", std::min(s.left.marks, s.right.marks), 0);
            f.mend = std::abs(f.along_mm) >= std::abs(f.up_mm)
                         ? Words(NINE_WORDS(
                               "core", "Give it a mark on a landmark near its front, and line up on that."))
                         : Words(NINE_WORDS("core",
                                            "Give it a mark on a landmark in height, and line up on that."));
            report.findings.push_back(f);
        }
        if (!s.mask.empty() && askew_mm > kSeen_mm) {
            f.cause = SideCause::MaskTurned;
            f.says =
                Words(NINE_WORDS("core", "{mask} lay askew on the {side}, by {degrees}°: {mm} at its ends."))
                    .name("mask", s.mask)
                    .words("side", sideWords(f.right))
                    .number("degrees", std::abs(f.turned_deg), 1)
                    .length("mm", askew_mm, 1);
            f.mend = NINE_WORDS("core",
                                "Line up on two landmarks far apart, and look at the tilt before spraying.");
            report.findings.push_back(f);
        }
        // What a stiff sheet does not explain is the mark's own.
        for (const SideReading* r : byMask[s.mask]) {
            const double turned = s.right.turned_rad - s.left.turned_rad;
            double midX_mm = 0, midUp_mm = 0;
            for (const SideReading* other : byMask[s.mask]) {
                midX_mm += other->plannedX_mm / static_cast<double>(byMask[s.mask].size());
                midUp_mm += other->plannedUp_mm / static_cast<double>(byMask[s.mask].size());
            }
            SideFinding one;
            const bool sheet = !s.mask.empty();
            const double sheetAlong =
                s.right.along_mm - s.left.along_mm - turned * (r->plannedUp_mm - midUp_mm);
            const double sheetUp = s.right.up_mm - s.left.up_mm + turned * (r->plannedX_mm - midX_mm);
            if (r->leftX_mm && r->rightX_mm)
                one.along_mm = *r->rightX_mm - *r->leftX_mm - (sheet ? sheetAlong : 0);
            if (r->leftUp_mm && r->rightUp_mm)
                one.up_mm = *r->rightUp_mm - *r->leftUp_mm - (sheet ? sheetUp : 0);
            if (std::hypot(one.along_mm, one.up_mm) <= kSeen_mm) continue;
            one.cause = SideCause::OneMark;
            one.mask = s.mask;
            one.mark = r->mark;
            one.right = true;
            one.says =
                Words(sheet ? NINE_WORDS("core",
                                         "{mark} alone lies {where} on the right; the rest of {mask} fits.")
                            : NINE_WORDS("core", "{mark} lies {where} on the right."))
                    .name("mark", r->mark)
                    .name("mask", s.mask)
                    .words("where", placeWords(one.along_mm, one.up_mm));
            one.mend =
                sheet ? Words(NINE_WORDS(
                            "core", "Press the sheet down there, or slit it: it stood off or was stretched."))
                      : Words(NINE_WORDS(
                            "core", "Cut a mask for it, or measure it on both sides before it is sprayed."));
            report.findings.push_back(std::move(one));
        }
    }
    std::stable_sort(report.findings.begin(), report.findings.end(),
                     [](const SideFinding& a, const SideFinding& b) {
                         return (a.cause == SideCause::WholeSide) != (b.cause == SideCause::WholeSide)
                                    ? a.cause == SideCause::WholeSide
                                    : weight(a) > weight(b);
                     });
    return report;
}

}  // namespace nine
