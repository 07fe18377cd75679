#include "job/blank_from_picture.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "base/units.h"
#include "blank/families.h"
#include "geom/polygon_set.h"
#include "image/end_fit.h"

namespace nine {
namespace {

constexpr int kCopy_px = 1600;  // longer side of the copy kept in a job
constexpr int kCopyQuality = 82;
constexpr double kHeadShare = 0.4;  // of the length: eye and gill plate are looked for here

Polyline2 upright(Polyline2 line) {
    for (Vec2& p : line) p.y() = -p.y();
    return line;
}

/// The distance of the two points of a line that lie farthest apart, to a hundredth of it.
double longestExtent(const Polyline2& line) {
    double longest = 0;
    for (int k = 0; k < 32; ++k) {
        const Vec2 along(std::cos(kPi * k / 32), std::sin(kPi * k / 32));
        double low = 1e18, high = -1e18;
        for (const Vec2& p : line) {
            low = std::min(low, p.dot(along));
            high = std::max(high, p.dot(along));
        }
        longest = std::max(longest, high - low);
    }
    return longest;
}

Vec2 roundedToHundredths(const Vec2& p) {
    return {std::round(100 * p.x()) / 100, std::round(100 * p.y()) / 100};
}

/// A line seen from the side, x and z in mm, as a curve on the skin; points off the body are dropped.
std::vector<Vec2> onSkin(const Skin& skin, const Polyline2& line) {
    std::vector<Vec2> out;
    for (const Vec2& p : line) {
        if (p.x() <= skin.noseX_mm() || p.x() >= skin.tailX_mm()) continue;
        const SkinPoint at = skin.onFlank(p.x(), p.y());
        const Vec2 rounded = roundedToHundredths({at.x_mm, at.g_mm});
        if (skin.check({Side::Left, rounded.x(), rounded.y()}, "")) out.push_back(rounded);
    }
    return out;
}

/// A place along the body, x and z in mm, in words.
Words placeWords(double from, double to, double z, double length) {
    if (to < 0.03 * length) return NINE_WORDS("core", "At the nose");
    if (from > 0.97 * length) return NINE_WORDS("core", "At the tail");
    return Words(z > 0 ? NINE_WORDS("core", "On the upper edge {from} to {to} from the nose")
                       : NINE_WORDS("core", "On the lower edge {from} to {to} from the nose"))
        .length("from", std::max(0.0, from), 0)
        .length("to", std::min(length, to), 0);
}

/// Stretches that were guessed and shadows that may be body, each with its place and how far off it may be.
void tellDoubts(const Silhouette& silhouette, PhotoOutline& out) {
    constexpr double kWorthSaying_mm = 0.25;
    const double length = out.mmPerPx * out.axis_px.length();
    const auto laid = [&](const Vec2& px) {
        BodyAxis up = out.axis_px;
        up.nose.y() = -up.nose.y();
        up.tail.y() = -up.tail.y();
        return Vec2(out.mmPerPx * laidOn(Vec2(px.x(), -px.y()), up));
    };
    const auto spanOf = [&](const Polyline2& line, double& from, double& to, double& z) {
        from = 1e9, to = -1e9, z = 0;
        for (const Vec2& p : line) {
            const Vec2 at = laid(p);
            from = std::min(from, at.x());
            to = std::max(to, at.x());
            z += at.y();
        }
    };
    double from = 0, to = 0, z = 0;
    for (const Guessed& guess : silhouette.guessed) {
        const double likely = guess.likely_px * out.mmPerPx;
        if (likely < kWorthSaying_mm) continue;
        spanOf(guess.line, from, to, z);
        out.warnings.push_back(
            {"outline_guessed",
             Words(NINE_WORDS("core",
                              "{place} something lies over the outline, or nothing sets it off; it "
                              "runs on as it does on both sides and may be off by about {likely}. "
                              "Paint in or out what is wrong."))
                 .words("place", placeWords(from, to, z, length))
                 .length("likely", likely, 1),
             "photo"});
    }
    for (const TakenOff& thing : silhouette.takenOff) {
        if (thing.kind == TakenOff::Kind::Thin && !thing.back) out.hung_mm.push_back(laid(thing.foot));
        if (!thing.doubtful || thing.back) continue;
        spanOf(thing.outline, from, to, z);
        out.warnings.push_back(
            {"shadow_or_body",
             Words(NINE_WORDS("core",
                              "{place} a dark part was taken for shadow. If it is the body, which "
                              "then reaches up to {reach} farther out, put it back with a click on "
                              "the hatching."))
                 .words("place", placeWords(from, to, z, length))
                 .length("reach", thing.reach_px * out.mmPerPx, 1),
             "photo"});
    }
}

/// Blur, and rings, shorten fine ends: such an end is where the heights before it lead. The outline is laid
/// on the axis, and both are changed alike.
void mendEnds(Polyline2& laid, BodyAxis& axis) {
    constexpr double kPointed = 0.62;
    const double length = axis.length();
    const Vec2 along = (axis.tail - axis.nose).normalized();
    double nose = 0;
    for (const bool tail : {true, false}) {
        if (tail ? axis.tailFlat : axis.noseFlat) continue;
        const std::optional<EndFit> fit = fitEnd(laid, length, tail);
        if (!fit || fit->exponent < kPointed) continue;
        laid = withEnd(laid, *fit, tail);
        if (tail) {
            axis.tail += (fit->x_mm - length) * along;
        } else {
            axis.nose += fit->x_mm * along;
            nose = fit->x_mm;
        }
    }
    for (Vec2& p : laid) p.x() -= nose;
}

/// What a scale measured on the table means for an outline that lies higher: both readings of `known` and
/// `length`, or the lens, tell how far away the camera was. Gives the factor for the body, 1 when nothing
/// tells.
double nearerThanTable(const PhotoWish& wish, double tableMmPerPx, double length_px, double height_px,
                       PhotoOutline& out) {
    // In one piece: one derivation, with its doubts.
    constexpr double kWidthShare = 0.7;  // of the height, for the width where nothing shows it
    constexpr double kLeastRatio = 0.99, kMostRatio = 1.12;
    const double table_mm = tableMmPerPx * length_px;
    const double width_px =
        wish.widthOverLength ? *wish.widthOverLength * length_px : kWidthShare * height_px;
    const double above = 0.5 * tableMmPerPx * width_px;
    if (wish.length_mm) {
        const double ratio = table_mm / *wish.length_mm;
        if (ratio < kLeastRatio || ratio > kMostRatio) {
            out.warnings.push_back(
                {"sizes_disagree",
                 Words(NINE_WORDS("core",
                                  "By what is measured on the table the body would be {table} long, typed "
                                  "are {length}: one of them is wrong. The typed length counts."))
                     .length("table", table_mm, 1)
                     .length("length", *wish.length_mm, 1),
                 "scale"});
        } else if (ratio > 1.004) {
            out.camera_mm = above * ratio / (ratio - 1);
            out.warnings.push_back(
                {"camera_near",
                 Words(NINE_WORDS("core",
                                  "Both sizes together say that the camera was about {camera} cm away and "
                                  "the outline, about {above} above the table, is seen {ratio} % too "
                                  "large; corrected by the typed length."))
                     .number("camera", out.camera_mm / 10, 0)
                     .length("above", above, 0)
                     .number("ratio", 100 * (ratio - 1), 1),
                 "scale"});
        }
        return *wish.length_mm / table_mm;
    }
    if (wish.focal_px > 0) {
        out.camera_mm = wish.focal_px * tableMmPerPx;
        const double factor = std::clamp(1 - above / out.camera_mm, 0.85, 1.0);
        out.warnings.push_back(
            {"scale_corrected",
             Words(NINE_WORDS("core",
                              "The scale lies on the table, the outline about {above} above it "
                              "({how}) and, by the lens, {camera} cm from the camera: "
                              "{factor} % were taken off. The length by ruler makes it certain."))
                 .length("above", above, 0)
                 .words("how", (wish.widthOverLength ? NINE_WORDS("core", "half its width")
                                                     : NINE_WORDS("core", "assumed")))
                 .number("camera", out.camera_mm / 10, 0)
                 .number("factor", 100 * (1 - factor), 1),
             "scale"});
        return factor;
    }
    out.warnings.push_back(
        {"scale_lies_lower",
         Words(NINE_WORDS("core",
                          "The scale lies on the table, the outline about {above} above it: from "
                          "30 cm away the body comes out {near} too long, from 1 m {far}. "
                          "Stand a metre away and zoom in, or type its length too."))
             .length("above", above, 0)
             .length("near", table_mm * above / (300 - above), 1)
             .length("far", table_mm * above / (1000 - above), 1),
         "scale"});
    return 1;
}

void addGuides(const Skin& skin, const std::vector<GuideLine>& guides, Landmarks& landmarks) {
    const double head = skin.noseX_mm() + kHeadShare * skin.length_mm();
    int number = 0;
    bool gill = false, eye = false;
    for (const GuideLine& guide : guides) {
        const Box2 box = boxAround({guide.points});
        const Vec2 middle = 0.5 * (box.low + box.high), size = box.size();
        if (guide.closed && !eye && middle.x() < head && size.x() < 1.4 * size.y() &&
            size.y() < 1.4 * size.x()) {
            const std::vector<Vec2> at = onSkin(skin, {middle});
            if (at.empty()) continue;
            Landmark& socket = landmarks["eye"];
            socket.points = at;
            socket.diameter_mm =
                std::round(10 * 2 * std::sqrt(std::abs(polygonArea(guide.points)) / kPi)) / 10;
            socket.assumed = false;
            eye = true;
            continue;
        }
        std::vector<Vec2> curve = onSkin(skin, guide.points);
        if (curve.size() < 2) continue;
        // Five points are enough to drag; the ends stay.
        constexpr std::size_t kMostPoints = 7;
        if (curve.size() > kMostPoints) {
            std::vector<Vec2> fewer;
            for (std::size_t i = 0; i < kMostPoints; ++i)
                fewer.push_back(curve[i * (curve.size() - 1) / (kMostPoints - 1)]);
            curve = fewer;
        }
        if (curve.front().y() < curve.back().y() && size.y() > size.x())
            std::reverse(curve.begin(), curve.end());
        Landmark drawn;
        drawn.points = std::move(curve);
        if (!gill && size.y() > 1.5 * size.x() && middle.x() < head) {
            landmarks["gill_plate"] = std::move(drawn);
            gill = true;
        } else {
            landmarks["guide_" + std::to_string(++number)] = std::move(drawn);
        }
    }
}

/// Where rings and wires hung, line tie and hangers are: the usual ones move there, each to the nearest.
void addHung(const Skin& skin, const std::vector<Vec2>& hung, Landmarks& landmarks) {
    constexpr double kNear = 0.12;  // of the length
    for (const char* name : {"line_tie", "belly_hanger", "tail_hanger"}) {
        const auto usual = landmarks.find(name);
        if (usual == landmarks.end() || usual->second.points.empty()) continue;
        const double x = usual->second.points.front().x();
        std::optional<Vec2> nearest;
        for (const Vec2& place : hung)
            if (std::abs(place.x() - x) < kNear * skin.length_mm() &&
                (!nearest || std::abs(place.x() - x) < std::abs(nearest->x() - x)))
                nearest = place;
        if (!nearest) continue;
        constexpr double kInset_mm = 0.3;
        nearest->x() = std::clamp(nearest->x(), skin.noseX_mm() + kInset_mm, skin.tailX_mm() - kInset_mm);
        const std::vector<Vec2> at = onSkin(skin, {*nearest});
        if (at.empty()) continue;
        usual->second.points = at;
        usual->second.assumed = false;
    }
}

Result<MadeBlank> madeOf(const Outlines& outlines, const BodyWish& wish, const char* source,
                         const std::vector<GuideLine>& guides, const std::vector<Vec2>& hung) {
    if (!wish.family.empty() && !findFamily(wish.family))
        return Error{
            "unknown_family",
            Words(NINE_WORDS("core", "\"{family}\" is not a kind of body.")).name("family", wish.family),
            "family"};
    Outlines o = outlines;
    const Box2 box = boxAround({o.side});
    const double heightShare = box.size().y() / box.size().x();
    double widthShare = heightShare;
    if (o.top) widthShare = boxAround({*o.top}).size().y() / box.size().x();
    MadeBlank made;
    made.familyGuessed = wish.family.empty();
    const std::string family =
        wish.family.empty() ? std::string(likelyFamily(heightShare, o.top ? widthShare : 0.8 * heightShare))
                            : wish.family;
    const BodyFamily& kind = *findFamily(family);
    o.widthShare = kind.widthShare / kind.heightShare;
    o.section = kind.section;
    o.girths = wish.girths;
    Result<OutlinedBody> body = bodyFromOutlines(o);
    if (!body) return body.error();
    const Result<Skin> skin = Skin::of(body->table);
    if (!skin) return skin.error();
    made.body = std::move(*body);
    made.blank.name = wish.name;
    made.blank.table = made.body.table;
    made.blank.family = family;
    made.blank.source = source;
    made.blank.landmarks = usualLandmarks(family, *skin);
    addGuides(*skin, guides, made.blank.landmarks);
    addHung(*skin, hung, made.blank.landmarks);
    // A usual landmark that this body has no room for is left out rather than refused.
    for (auto it = made.blank.landmarks.begin(); it != made.blank.landmarks.end();) {
        const bool fits = static_cast<bool>(checkLandmarks(*skin, {{it->first, it->second}}));
        it = fits ? std::next(it) : made.blank.landmarks.erase(it);
    }
    return made;
}

}  // namespace

Result<PhotoOutline> photoOutline(const Silhouette& silhouette, const PhotoWish& wish) {
    if (!wish.known && !(wish.length_mm && *wish.length_mm > 0)) {
        return Error{"no_scale",
                     NINE_WORDS("core",
                                "A photo has no size of its own: give the length of the body, or two "
                                "points of the picture and how far they are apart."),
                     "scale"};
    }
    double apart = 0;
    if (wish.known) {
        apart = (wish.known->to_px - wish.known->from_px).norm();
        if (!(apart > 5 && wish.known->mm > 0))
            return Error{"no_scale",
                         NINE_WORDS("core",
                                    "Two points of a known distance are needed, well apart, with the "
                                    "distance above 0."),
                         "scale"};
    }
    PhotoOutline out;
    out.warnings = silhouette.warnings;
    out.outline_px = silhouette.outline;
    // The axis is looked for in millimetres, which what is taken for a face or a tip is stated in: at first
    // by the longest extent, which is the length within a few per cent.
    const double extent_px = longestExtent(silhouette.outline);
    if (!(extent_px > 0))
        return Error{"no_scale", NINE_WORDS("core", "There is no outline to measure."), "scale"};
    const double about = wish.length_mm ? *wish.length_mm / extent_px : wish.known->mm / apart;
    Polyline2 up_mm = upright(silhouette.outline);
    for (Vec2& p : up_mm) p *= about;
    BodyAxis axis_mm = axisOf(up_mm, wish.noseLeft);
    if (wish.axis_px) {
        const Result<BodyAxis> given = axisThrough(
            up_mm, about * Vec2(wish.axis_px->first.x(), -wish.axis_px->first.y()),
            about * Vec2(wish.axis_px->second.x(), -wish.axis_px->second.y()), 10 * about, wish.noseLeft);
        if (!given) return given.error();
        axis_mm = *given;
    }
    Polyline2 laid = laidOn(up_mm, axis_mm);
    if (!wish.axis_px) mendEnds(laid, axis_mm);
    double right = wish.length_mm ? *wish.length_mm / axis_mm.length() : 1;
    if (wish.known) {
        const double table = wish.known->mm / apart;
        const double height_px = boxAround({laid}).size().y() / about;
        right = table * nearerThanTable(wish, table, axis_mm.length() / about, height_px, out) / about;
    }
    out.mmPerPx = about * right;
    out.axis_px = axis_mm;
    for (Vec2* end : {&out.axis_px.nose, &out.axis_px.tail}) *end = Vec2(end->x(), -end->y()) / about;
    out.outline = std::move(laid);
    for (Vec2& p : out.outline) p *= right;
    tellDoubts(silhouette, out);
    return out;
}

Result<double> widthOverLength(const Silhouette& above) {
    constexpr double kAny_mm = 100;  // a share is asked for
    PhotoWish wish;
    wish.length_mm = kAny_mm;
    const Result<PhotoOutline> outline = photoOutline(above, wish);
    if (!outline) return outline.error();
    return boxAround({outline->outline}).size().y() / kAny_mm;
}

Result<MadeBlank> blankOfPhotos(const PhotoOutline& side, const std::optional<PhotoOutline>& above,
                                const BodyWish& wish) {
    Outlines o;
    o.side = side.outline;
    if (above) o.top = above->outline;
    o.noseFlat = side.axis_px.noseFlat;
    o.tailFlat = side.axis_px.tailFlat;
    Result<MadeBlank> made = madeOf(o, wish, "photo", {}, side.hung_mm);
    if (!made) return made;
    Warnings& warnings = made->body.warnings;
    warnings.insert(warnings.end(), side.warnings.begin(), side.warnings.end());
    if (above)
        for (Warning w : above->warnings) {
            w.words = Words(NINE_WORDS("core", "From above: {doubt}")).words("doubt", w.words);
            w.where = "top";
            warnings.push_back(std::move(w));
        }
    return made;
}

Result<MadeBlank> blankOfTracing(const TracingReading& reading, const BodyWish& wish) {
    const TracedBox& side = *reading.side;
    Outlines o;
    o.side = laidOn(side.outline, side.axis);
    if (reading.top) o.top = laidOn(reading.top->outline, reading.top->axis);
    o.noseFlat = side.axis.noseFlat;
    o.tailFlat = side.axis.tailFlat;
    std::vector<GuideLine> guides;
    for (GuideLine guide : side.guides) {
        for (Vec2& p : guide.points) p = laidOn(p, side.axis);
        guides.push_back(std::move(guide));
    }
    // A rubbing lies with the nose at the left edge of its box and the axis along its middle.
    for (const GuideLine& guide : reading.rubbing) guides.push_back(guide);
    Result<MadeBlank> made = madeOf(o, wish, "tracing", guides, {});
    if (made)
        made->body.warnings.insert(made->body.warnings.end(), reading.warnings.begin(),
                                   reading.warnings.end());
    return made;
}

BackPicturePtr backPicture(const Picture& picture, const Vec2& nose_px, const Vec2& tail_px, std::string file,
                           std::string hash, bool fromAbove) {
    const int factor = factorFor(picture, kCopy_px);
    BackPicture back;
    back.file = std::move(file);
    back.hash = std::move(hash);
    back.jpeg = jpegOf(reduced(picture, factor), kCopyQuality);
    back.nose_px = roundedToHundredths(nose_px / factor);
    back.tail_px = roundedToHundredths(tail_px / factor);
    back.fromAbove = fromAbove;
    return std::make_shared<const BackPicture>(std::move(back));
}

BackPicturePtr backPicture(const Picture& picture, const TracingReading& reading, std::string file,
                           std::string hash) {
    const Picture flat = flatSide(picture, reading.page);
    const BodyAxis& axis = reading.side->axis;
    return backPicture(flat, onFlatSide(axis.nose / reading.scale), onFlatSide(axis.tail / reading.scale),
                       std::move(file), std::move(hash), false);
}

}  // namespace nine
