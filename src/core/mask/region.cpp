#include "mask/region.h"

#include <algorithm>
#include <cmath>

#include "blank/walk.h"

namespace nine {
namespace {

constexpr double kMarkZone_mm = 5;       // room at both ends for a cross of 4 mm
constexpr double kNearestToArt_mm = 1;   // margin kept even where the body's tip leaves no more
constexpr double kWidestShare = 0.9;     // of the girth: more, and the sheet's edges meet
constexpr double kMostOfGirth = 0.9995;  // of any sheet: more, and it covers itself
constexpr int kGirthSamples = 24;
constexpr double kSmallest_mm = 0.5;
constexpr double kOnBorder_mm = 1e-6;

struct Segment {
    Vec2 from, to;
};
void addSegments(const Polyline2& line, bool closed, std::vector<Segment>& segments) {
    for (std::size_t i = 0; i + 1 < line.size() + (closed ? 1 : 0); ++i)
        segments.push_back({line[i], line[(i + 1) % line.size()]});
}

bool onBorder(const Region& region, const Vec2& p) {
    const auto near = [&](const Polygon2& ring) { return borderDistance({p}, ring) <= kOnBorder_mm; };
    return near(region.outer) || std::any_of(region.holes.begin(), region.holes.end(), near);
}

bool inSheet(const Region& region, const Vec2& p) {
    return contains(region.outer, p) && std::none_of(region.holes.begin(), region.holes.end(),
                                                     [&](const Polygon2& hole) { return contains(hole, p); });
}

Status checkLines(const Region& region, const std::string& where) {
    const auto wrong = [&](Words words) { return Error{"bad_region", std::move(words), where}; };
    std::vector<Segment> segments;
    addSegments(region.outer, true, segments);
    for (const Polygon2& hole : region.holes) {
        if (hole.size() < 3 || !contains(region.outer, hole.front()))
            return wrong(
                NINE_WORDS("core", "A hole of this sheet does not lie inside its outline; move it."));
        addSegments(hole, true, segments);
    }
    for (const Slit& slit : region.slits) addSegments(slit.line, false, segments);
    for (std::size_t i = 0; i < segments.size(); ++i)
        for (std::size_t j = 0; j < i; ++j)
            if (linesCross(segments[i].from, segments[i].to, segments[j].from, segments[j].to))
                return wrong(
                    NINE_WORDS("core",
                               "Lines of this sheet cross each other: its outline, a hole or a slit. "
                               "Move one of them."));
    for (const Slit& slit : region.slits) {
        if (slit.line.size() < 2) return wrong(NINE_WORDS("core", "A slit needs two points or more."));
        for (std::size_t i = 1; i < slit.line.size(); ++i) {
            const bool last = i + 1 == slit.line.size();
            if (!inSheet(region, slit.line[i]) || (last && onBorder(region, slit.line[i])))
                return wrong(NINE_WORDS("core",
                                        "A slit must run inside its sheet and end there, or the sheet falls "
                                        "apart; shorten it."));
        }
        if (!inSheet(region, slit.line.front()) && !onBorder(region, slit.line.front()))
            return wrong(NINE_WORDS("core", "A slit begins outside its sheet; move its first point."));
    }
    return Done{};
}

}  // namespace

bool linesCross(const Vec2& a, const Vec2& b, const Vec2& c, const Vec2& d) {
    const auto turn = [](const Vec2& p, const Vec2& q, const Vec2& r) {
        return (q - p).x() * (r - p).y() - (q - p).y() * (r - p).x();
    };
    return turn(a, b, c) * turn(a, b, d) < 0 && turn(c, d, a) * turn(c, d, b) < 0;
}

Region bandRegion(const BandPatch& b) {
    return {{{b.x0_mm, b.g0_mm}, {b.x1_mm, b.g0_mm}, {b.x1_mm, b.g1_mm}, {b.x0_mm, b.g1_mm}}, {}, {}};
}

std::optional<BandPatch> bandOf(const Region& region) {
    if (region.outer.size() != 4 || !region.holes.empty() || !region.slits.empty()) return std::nullopt;
    const BandPatch band{region.outer[0].x(), region.outer[2].x(), region.outer[0].y(), region.outer[2].y()};
    return bandRegion(band).outer == region.outer ? std::optional(band) : std::nullopt;
}

Status checkRegion(const Skin& skin, const Region& region, const std::string& where) {
    const Box2 box = region.outer.empty() ? Box2{Vec2::Zero(), Vec2::Zero()} : boxAround({region.outer});
    const Vec2 size = box.size();
    if (region.outer.size() < 3 || !(size.x() >= kSmallest_mm && size.y() >= kSmallest_mm) ||
        !(polygonArea(region.outer) > 0))
        return Error{"empty_patch",
                     Words(NINE_WORDS("core",
                                      "The patch is empty or narrower than {least}; give x and g from the "
                                      "smaller to the larger."))
                         .length("least", kSmallest_mm, 1),
                     where};
    for (const Vec2& p : region.outer)
        if (Status ok = skin.check({Side::Left, p.x(), p.y()}, where); !ok) return ok;
    // More than once round is no patch: the sheet would cover itself.
    constexpr int kSections = 20;
    for (int i = 0; i <= kSections; ++i) {
        const double x = box.low.x() + size.x() * i / kSections;
        double low = 1e300, high = -1e300;
        for (std::size_t k = 0; k < region.outer.size(); ++k) {
            const Vec2 &a = region.outer[k], &b = region.outer[(k + 1) % region.outer.size()];
            if (x < std::min(a.x(), b.x()) || x > std::max(a.x(), b.x())) continue;
            const double t = b.x() == a.x() ? 0 : (x - a.x()) / (b.x() - a.x());
            for (const double g :
                 {a.y() + t * (b.y() - a.y()), b.x() == a.x() ? b.y() : a.y() + t * (b.y() - a.y())}) {
                low = std::min(low, g);
                high = std::max(high, g);
            }
        }
        if (high < low) continue;
        const SectionArc arc = skin.arcAt(x);
        const bool outside = low < -2 * arc.bellyArc_mm() - arc.backArc_mm() ||
                             high > 2 * arc.backArc_mm() + arc.bellyArc_mm();
        if (!outside && high - low <= kMostOfGirth * arc.girth_mm()) continue;
        return Error{
            "off_body",
            Words(NINE_WORDS("core",
                             "At x = {x} the patch is wider than the body allows: the girth there is "
                             "{girth} and the patch is {width} wide."))
                .length("x", x, 1)
                .length("girth", arc.girth_mm(), 1)
                .length("width", high - low, 1),
            where};
    }
    return checkLines(region, where);
}

BandPatch bandAround(const Skin& skin, const Vec2& low, const Vec2& high, double margin_mm,
                     const std::string& where, Warnings& warnings) {
    const double along = std::max(margin_mm, kMarkZone_mm);
    const double middle = 0.5 * (low.y() + high.y());
    bool cut = false;
    const auto endAt = [&](double from, double way, double keepOff, bool closed) {
        const Result<double> walked = walkAlong(skin, from, middle, way * along, where);
        const double end = way < 0 ? skin.noseX_mm() : skin.tailX_mm();
        const double limit = closed ? end - way * keepOff : end;
        double x = walked ? *walked : end;
        if (way * (x - limit) > 0) {
            x = way * (limit - from) > kNearestToArt_mm ? limit : from + way * kNearestToArt_mm;
            cut = true;
        }
        return x;
    };
    const double keepOff = kPoleDoubtful * skin.length_mm();
    BandPatch patch{};
    patch.x0_mm = endAt(low.x(), -1, keepOff, skin.loft().noseClosed());
    patch.x1_mm = endAt(high.x(), 1, keepOff, skin.loft().tailClosed());

    // Where the body is slender the sheet must not meet itself on the far side.
    double roomUp = margin_mm, roomDown = margin_mm;
    for (int i = 0; i <= kGirthSamples; ++i) {
        const SectionArc arc = skin.arcAt(patch.x0_mm + (patch.x1_mm - patch.x0_mm) * i / kGirthSamples);
        const double spare = 0.5 * (kWidestShare * arc.girth_mm() - (high.y() - low.y()));
        roomUp = std::min({roomUp, spare, 2 * kWidestShare * arc.backArc_mm() - high.y()});
        roomDown = std::min({roomDown, spare, low.y() + 2 * kWidestShare * arc.bellyArc_mm()});
    }
    cut = cut || roomUp < margin_mm || roomDown < margin_mm;
    patch.g0_mm = low.y() - std::max(roomDown, 0.0);
    patch.g1_mm = high.y() + std::max(roomUp, 0.0);
    if (cut) {
        warnings.push_back(
            {"margin_cut",
             Words(NINE_WORDS("core",
                              "The body leaves no room for the whole margin of {margin} round this "
                              "art; cover the rest with tape."))
                 .length("margin", margin_mm, 1),
             where});
    }
    return patch;
}

bool fitsRound(const Skin& skin, const BandPatch& band) {
    for (int i = 0; i <= kGirthSamples; ++i) {
        const SectionArc arc = skin.arcAt(band.x0_mm + (band.x1_mm - band.x0_mm) * i / kGirthSamples);
        if (band.g1_mm > 2 * arc.backArc_mm() || band.g0_mm < -2 * arc.bellyArc_mm() ||
            band.g1_mm - band.g0_mm > kMostOfGirth * arc.girth_mm())
            return false;
    }
    return true;
}

Result<Region> regionAround(const Skin& skin, const PolygonSet& art, double margin, const std::string& where,
                            Warnings& warnings) {
    // In one piece: the art closed up, its margin, what the body lets of it.
    constexpr double kFarthestApart_mm = 40, kFirst_mm = 3, kSmooth_mm = 0.4, kApart_mm = 0.2, kJoin_mm = 0.7;
    constexpr double kFar = 0.985;  // of the way to the far datum line
    const double keepOff = kPoleDoubtful * skin.length_mm();
    const double from = skin.noseX_mm() + (skin.loft().noseClosed() ? keepOff : 0.01);
    const double to = skin.tailX_mm() - (skin.loft().tailClosed() ? keepOff : 0.01);
    Polygon2 allowed;
    constexpr int kSteps = 120;
    const auto edge = [&](int k, bool up) {
        const double x = from + (to - from) * k / kSteps;
        const SectionArc arc = skin.arcAt(x);
        return Vec2(x, kFar * 2 * (up ? arc.backArc_mm() : -arc.bellyArc_mm()));
    };
    for (int k = 0; k <= kSteps; ++k) allowed.push_back(edge(k, false));
    for (int k = kSteps; k >= 0; --k) allowed.push_back(edge(k, true));
    PolygonSet whole = united(art);
    // Hundreds of rings that all grow over each other take the library seconds: a first, small step joins
    // neighbours into few.
    constexpr std::size_t kMany = 60;
    const double joined_mm = whole.size() > kMany ? std::min(kJoin_mm, margin) : 0;
    if (joined_mm > 0) {
        whole = withoutCloseCorners(offset(whole, joined_mm), 0.01);
        std::erase_if(whole, [](const Polygon2& ring) { return polygonArea(ring) < 0; });
    }
    for (double apart = kFirst_mm; apart <= kFarthestApart_mm; apart *= 1.5) {
        // Closed so far that it is one piece, then taken back to its margin.
        PolygonSet shape = offset(offset(whole, apart + margin - joined_mm), -apart);
        std::erase_if(shape, [](const Polygon2& ring) { return polygonArea(ring) < 0; });
        if (shape.size() != 1) continue;
        PolygonSet held = intersected(shape, {allowed});
        std::erase_if(held, [](const Polygon2& ring) { return polygonArea(ring) < 1; });
        if (held.size() != 1) continue;
        if (area(shape) - area(held) > 0.5)
            warnings.push_back(
                {"margin_cut",
                 Words(NINE_WORDS("core",
                                  "The body leaves no room for the whole margin of {margin} round this "
                                  "art; cover the rest with tape."))
                     .length("margin", margin, 1),
                 where});
        Region region;
        PolygonSet round = offset(offset(held, -kSmooth_mm), kSmooth_mm);
        std::erase_if(round, [](const Polygon2& ring) { return polygonArea(ring) < 1; });
        if (round.size() != 1) continue;
        for (const Vec2& p : round.front())  // places too near each other make bad triangles
            if (region.outer.empty() || ((p - region.outer.back()).norm() > kApart_mm &&
                                         (p - region.outer.front()).norm() > kApart_mm))
                region.outer.push_back(p);
        return region;
    }
    return Error{
        "off_body",
        NINE_WORDS("core",
                   "These marks lie so far apart that no single sheet goes round all of them; give them "
                   "masks of their own."),
        where};
}

}  // namespace nine
