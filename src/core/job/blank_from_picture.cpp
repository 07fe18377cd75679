#include "job/blank_from_picture.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "base/units.h"
#include "blank/families.h"
#include "geom/polygon_set.h"

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
        if (p.x() <= skin.noseX() || p.x() >= skin.tailX()) continue;
        const SkinPoint at = skin.onFlank(p.x(), p.y());
        const Vec2 rounded = roundedToHundredths({at.x_mm, at.g_mm});
        if (skin.check({Side::Left, rounded.x(), rounded.y()}, "")) out.push_back(rounded);
    }
    return out;
}

void addGuides(const Skin& skin, const std::vector<GuideLine>& guides, Landmarks& landmarks) {
    const double head = skin.noseX() + kHeadShare * skin.length_mm();
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

Result<MadeBlank> madeOf(const Outlines& outlines, const BodyWish& wish, const char* source,
                         const std::vector<GuideLine>& guides) {
    if (!wish.family.empty() && !findFamily(wish.family))
        return Error{"unknown_family", "\"" + wish.family + "\" is not a kind of body.", "family"};
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
        return Error{
            "no_scale",
            "A photo has no size of its own: give the length of the body, or two points of the picture and "
            "how far they are apart.",
            "scale"};
    }
    double apart = 0;
    if (wish.known) {
        apart = (wish.known->to_px - wish.known->from_px).norm();
        if (!(apart > 5 && wish.known->mm > 0))
            return Error{"no_scale",
                         "Two points of a known distance are needed, well apart, with the distance above 0.",
                         "scale"};
    }
    PhotoOutline out;
    out.warnings = silhouette.warnings;
    out.outline_px = silhouette.outline;
    // The axis is looked for in millimetres, which what is taken for a face or a tip is stated in: at first
    // by the longest extent, which is the length within a few per cent.
    const double extent_px = longestExtent(silhouette.outline);
    if (!(extent_px > 0)) return Error{"no_scale", "There is no outline to measure.", "scale"};
    const double about = wish.known ? wish.known->mm / apart : *wish.length_mm / extent_px;
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
    const double right = wish.known ? 1 : *wish.length_mm / axis_mm.length();
    out.mmPerPx = about * right;
    out.axis_px = axis_mm;
    for (Vec2* end : {&out.axis_px.nose, &out.axis_px.tail}) *end = Vec2(end->x(), -end->y()) / about;
    out.outline = laidOn(up_mm, axis_mm);
    for (Vec2& p : out.outline) p *= right;
    return out;
}

Result<MadeBlank> blankOfPhotos(const PhotoOutline& side, const std::optional<PhotoOutline>& above,
                                const BodyWish& wish) {
    Outlines o;
    o.side = side.outline;
    if (above) o.top = above->outline;
    o.noseFlat = side.axis_px.noseFlat;
    o.tailFlat = side.axis_px.tailFlat;
    Result<MadeBlank> made = madeOf(o, wish, "photo", {});
    if (!made) return made;
    Warnings& warnings = made->body.warnings;
    warnings.insert(warnings.end(), side.warnings.begin(), side.warnings.end());
    if (above)
        for (Warning w : above->warnings) {
            w.text = "From above: " + w.text;
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
    Result<MadeBlank> made = madeOf(o, wish, "tracing", guides);
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
