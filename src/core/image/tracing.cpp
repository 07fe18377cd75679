#include "image/tracing.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "base/parallel.h"
#include "image/line_art.h"
#include "image/stand_off.h"
#include "image/tracing_sheet.h"

namespace nine {
namespace {

constexpr double kFlatPerMm = 8;         // pixels of a flattened box: a pencil line is four or more wide
constexpr double kCoveredChroma = 17;    // L*a*b*: skin, cloth or wood, not grey shadow on paper
constexpr double kCoveredLight = 0.3;    // of the paper: darker broad things are not paper in shadow
constexpr double kTrustScan = 0.15;      // a density off by more is no scanner's
constexpr double kSquareEnough = 0.01;   // a scanner sees no perspective
constexpr double kStraightLens = 0.003;  // nor a lens
constexpr double kShortestAxis_mm = 3;
constexpr double kWorthSaying = 0.004;  // a scale that differs by less is within the ruler's own error

/// One box of the page, looked at squarely.
FlatBox flatten(const Picture& picture, int factor, const PlaneView& view, const Box2& box) {
    FlatBox flat;
    flat.pixelsPerMm = kFlatPerMm;
    const Vec2 low = box.low + Vec2::Constant(tracing_sheet::kBorder_mm);
    const Vec2 high = box.high - Vec2::Constant(tracing_sheet::kBorder_mm);
    flat.upperLeft_mm = {low.x(), high.y()};
    const int w = static_cast<int>((high.x() - low.x()) * kFlatPerMm),
              h = static_cast<int>((high.y() - low.y()) * kFlatPerMm);
    flat.grey = Plane(w, h);
    flat.covered = PixelSet(w, h);
    Plane chroma(w / 2, h / 2);
    forEachInParallel(static_cast<std::size_t>(h), [&](std::size_t row) {
        const int y = static_cast<int>(row);
        for (int x = 0; x < w; ++x) {
            const Vec2 pixel = view.pixelOf(flat.mmOf(Vec2(x + 0.5, y + 0.5))) / factor;
            const bool seen =
                pixel.x() >= 0 && pixel.y() >= 0 && pixel.x() < picture.width && pixel.y() < picture.height;
            if (!seen) {
                flat.covered.set(x, y, true);
                flat.grey.at(x, y) = 1;
                continue;
            }
            const Vec3 rgb = sampleRgb(picture, pixel);
            flat.grey.at(x, y) =
                static_cast<float>((0.299 * rgb.x() + 0.587 * rgb.y() + 0.114 * rgb.z()) / 255);
            if (x % 2 == 1 || y % 2 == 1 || x / 2 >= chroma.width || y / 2 >= chroma.height) continue;
            const Vec3 lab = labOf(rgb);
            chroma.at(x / 2, y / 2) = static_cast<float>(std::hypot(lab.y(), lab.z()));
        }
    });
    // Broad things that are not paper: strongly coloured or very dark over an area; looked at by half.
    const int reach = static_cast<int>(1.6 * kFlatPerMm / 2);
    const Plane broad = closed(reduced(flat.grey, 2), reach);
    const float paper = quantile(broad.values, 0.9), usual = quantile(chroma.values, 0.5);
    const Plane colour = boxMean(chroma, reach / 2);
    for (int y = 0; y < h; ++y)
        for (int x = 0; x < w; ++x) {
            const int bx = std::min(x / 2, broad.width - 1), by = std::min(y / 2, broad.height - 1);
            if (broad.at(bx, by) < kCoveredLight * paper || colour.at(bx, by) > usual + kCoveredChroma)
                flat.covered.set(x, y, true);
        }
    return flat;
}

/// What was painted, in mm of the frame.
std::vector<Stroke2> onPage(const std::vector<Stroke2>& strokes, const PlaneView& view) {
    std::vector<Stroke2> there = strokes;
    for (Stroke2& stroke : there) {
        if (stroke.points.empty()) continue;
        for (Vec2& p : stroke.points) p = view.mmOf(p);
        stroke.radius_px /= view.pixelsPerMm(stroke.points.front());
    }
    return there;
}

/// The box with strokes that put in drawn as a pencil would.
FlatBox withPencil(FlatBox box, const std::vector<Stroke2>& strokes) {
    constexpr double kPencil_mm = 0.6, kDark = 0.15;
    for (const Stroke2& stroke : strokes) {
        if (!stroke.include) continue;
        // Piece by piece: a stroke all round the body is a line, and not the area within it.
        for (std::size_t i = 0; i < stroke.points.size(); ++i) {
            const Polygon2 line =
                coveredBy({stroke.points[i > 0 ? i - 1 : 0], stroke.points[i]}, 0.5 * kPencil_mm)[0];
            const Box2 b = boxAround({line});
            const Vec2 from = box.pixelsPerMm *
                              Vec2(b.low.x() - box.upperLeft_mm.x(), box.upperLeft_mm.y() - b.high.y()),
                       to = box.pixelsPerMm *
                            Vec2(b.high.x() - box.upperLeft_mm.x(), box.upperLeft_mm.y() - b.low.y());
            for (int y = std::max(0, static_cast<int>(from.y()));
                 y < std::min(box.grey.height, static_cast<int>(to.y()) + 1); ++y)
                for (int x = std::max(0, static_cast<int>(from.x()));
                     x < std::min(box.grey.width, static_cast<int>(to.x()) + 1); ++x) {
                    if (!contains(line, box.mmOf(Vec2(x + 0.5, y + 0.5)))) continue;
                    box.grey.at(x, y) = static_cast<float>(kDark);
                    box.covered.set(x, y, false);
                }
        }
    }
    return box;
}

/// The box with nothing to be seen where strokes take out.
FlatBox withoutInk(FlatBox box, const std::vector<Stroke2>& strokes) {
    for (const Stroke2& stroke : strokes) {
        if (stroke.include) continue;
        for (const Polygon2& area : coveredBy(stroke.points, stroke.radius_px))
            for (int y = 0; y < box.grey.height; ++y)
                for (int x = 0; x < box.grey.width; ++x)
                    if (contains(area, box.mmOf(Vec2(x + 0.5, y + 0.5)))) box.covered.set(x, y, true);
    }
    return box;
}

/// The outline of a box with what was painted on it.
Result<TracedBox> paintedOutline(const FlatBox& box, const std::string& name, std::vector<Stroke2> strokes,
                                 const Task& task) {
    Result<TracedBox> found = outlineIn(box, name, task);
    const auto putsIn = [](const Stroke2& s) { return s.include; };
    if (!found && std::any_of(strokes.begin(), strokes.end(), putsIn)) {
        Result<TracedBox> closed = outlineIn(withPencil(box, strokes), name, task);
        if (closed) {
            found = std::move(closed);
            std::erase_if(strokes, putsIn);  // they were the line
        }
    }
    if (!found && found.error().code == "two_bodies" && !strokes.empty())
        found = outlineIn(withoutInk(box, strokes), name, task);
    if (!found || strokes.empty()) return found;
    found->outline = withStrokes(found->outline, strokes);
    if (found->outline.empty())
        return Error{"nothing_drawn",
                     Words(NINE_WORDS("core",
                                      "Nothing of the {name} is left when what was painted out is taken off. "
                                      "Take a stroke back."))
                         .name("name", name),
                     name};
    std::erase_if(found->guides, [&](const GuideLine& guide) {
        return !contains(found->outline, guide.points[guide.points.size() / 2]);
    });
    return found;
}

/// Whether the page is seen squarely, as a scanner sees it.
bool seenSquarely(const SeenPage& page) {
    const Vec2 f = tracing_sheet::kFrame_mm;
    double least = 1e18, most = 0;
    for (const Vec2& p : {Vec2(0, 0), Vec2(f.x(), 0), f, Vec2(0, f.y())}) {
        const double s = page.view.pixelsPerMm(p);
        least = std::min(least, s);
        most = std::max(most, s);
    }
    return std::abs(page.view.lens.k) < kStraightLens && most / least < 1 + kSquareEnough;
}

TracedBox inTrueSize(TracedBox box, double scale) {
    for (Vec2& p : box.outline) p *= scale;
    for (GuideLine& g : box.guides)
        for (Vec2& p : g.points) p *= scale;
    box.lineWidth_mm *= scale;
    return box;
}

Result<BodyAxis> axisIn(const TracedBox& box, const std::optional<std::pair<Vec2, Vec2>>& wished_px,
                        bool noseLeft, const TracingReading& reading) {
    if (!wished_px) return axisOf(box.outline, noseLeft);
    const auto onPaper = [&](const Vec2& pixel) -> Vec2 {
        return reading.scale * reading.page.view.mmOf(pixel);
    };
    return axisThrough(box.outline, onPaper(wished_px->first), onPaper(wished_px->second), kShortestAxis_mm,
                       noseLeft);
}

/// A round ring in the tail's third, and none in the head's half.
bool eyeAtTheTail(const TracedBox& box) {
    constexpr double kTailFrom = 0.67;
    bool tail = false, head = false;
    for (const GuideLine& guide : box.guides) {
        const Vec2 size = boxAround({guide.points}).size();
        if (!guide.closed || size.x() > 1.4 * size.y() || size.y() > 1.4 * size.x()) continue;
        const double x = laidOn(centroid(guide.points), box.axis).x();
        tail = tail || x > kTailFrom * box.axis.length();
        head = head || x < 0.5 * box.axis.length();
    }
    return tail && !head;
}

}  // namespace

Result<TracingReading> readTracing(const Picture& picture, const TracingWish& wish, const Task& task) {
    // In one piece: the order of reading: page, scale, boxes, what each leaves in doubt.
    if (wish.ruler_mm && !(*wish.ruler_mm > 80 && *wish.ruler_mm < 120))
        return Error{"ruler_wrong",
                     Words(NINE_WORDS("core",
                                      "The printed line of 100 mm cannot measure {ruler}; measure from its "
                                      "first tick to its last."))
                         .length("ruler", *wish.ruler_mm, 1),
                     "ruler_mm"};
    const std::vector<Vec2> rings = findRings(picture, task);
    if (task.cancelled()) return Task::cancelledError();
    task.progress(0.3);
    Result<SeenPage> page = seePage(rings, Vec2(picture.width, picture.height));
    if (!page) return page.error();
    TracingReading reading;
    reading.page = std::move(*page);
    const double perMm = reading.page.view.pixelsPerMm(0.5 * tracing_sheet::kFrame_mm);
    if (perMm < kFewestPixelsPerMm)
        return Error{
            "page_too_small",
            Words(NINE_WORDS("core",
                             "The page is too small in the picture: {pixels} pixels for a millimetre. "
                             "Scan at 150 dpi or more, or go nearer."))
                .number("pixels", perMm, 1),
            "picture"};
    if (const Words missing = missingMarks(reading.page); !missing.empty())
        reading.warnings.push_back(
            {"marks_missing",
             Words(NINE_WORDS("core",
                              "These marks are hidden or do not agree with the others, which are "
                              "enough: {missing}."))
                 .words("missing", missing),
             "marks"});
    if (wish.ruler_mm) {
        reading.scale = *wish.ruler_mm / tracing_sheet::kRuler_mm;
        reading.scaleMeasured = true;
    } else if (wish.scanPerMm > 0 && seenSquarely(reading.page)) {
        const double scale = perMm / wish.scanPerMm;
        if (std::abs(scale - 1) < kTrustScan) {
            reading.scale = scale;
            reading.scaleMeasured = true;
        }
    }
    if (std::abs(reading.scale - 1) > kWorthSaying)
        reading.warnings.push_back(
            {"printed_at_scale",
             Words(NINE_WORDS("core",
                              "The page was printed at {scale} %: its line of 100 mm measures {scale}. "
                              "All sizes are corrected for it."))
                 .number("scale", 100 * reading.scale, 1)
                 .length("scale", 100 * reading.scale, 1),
             "ruler"});
    // The picture is brought near to what the boxes are read at, so that no pixel is skipped.
    const int factor = std::max(1, static_cast<int>(perMm / kFlatPerMm));
    const Picture small = reduced(picture, factor);
    FlatBox boxes[3];
    const Box2* places[3] = {&tracing_sheet::kSide, &tracing_sheet::kTop, &tracing_sheet::kRubbing};
    for (int i = 0; i < 3; ++i) {
        boxes[i] = flatten(small, factor, reading.page.view, *places[i]);
        if (task.cancelled()) return Task::cancelledError();
    }
    task.progress(0.5);
    const std::vector<Stroke2> strokes = onPage(wish.strokes, reading.page.view);
    std::optional<Result<TracedBox>> traced[2];
    forEachInParallel(3, [&](std::size_t i) {
        if (i == 2) {
            reading.rubbing = linesIn(boxes[2]);
        } else {
            traced[i] = paintedOutline(boxes[i], i == 0 ? "side tracing" : "top tracing", strokes, task);
        }
    });
    if (task.cancelled()) return Task::cancelledError();
    if (!*traced[0]) return traced[0]->error();
    reading.side = inTrueSize(std::move(**traced[0]), reading.scale);
    if (*traced[1]) {
        reading.top = inTrueSize(std::move(**traced[1]), reading.scale);
    } else if (traced[1]->error().code != "nothing_drawn") {
        return traced[1]->error();
    }
    if (Status ok = drawIn(reading, wish); !ok) return ok.error();
    for (const bool above : {false, true}) {
        std::optional<TracedBox>& box = above ? reading.top : reading.side;
        if (!box) continue;
        const Result<BodyAxis> axis =
            axisIn(*box, above ? wish.topAxis_px : wish.sideAxis_px, wish.noseLeft, reading);
        if (!axis) return axis.error();
        box->axis = *axis;
    }
    if (eyeAtTheTail(*reading.side))
        reading.warnings.push_back(
            {"nose_perhaps_other",
             Words(NINE_WORDS("core",
                              "An eye is drawn near the {other} end, but the nose is read at the other one. "
                              "If that is wrong, say "
                              "that the nose is at the {other}."))
                 .words("other", wish.noseLeft ? NINE_WORDS("core", "right") : NINE_WORDS("core", "left")),
             "nose"});
    if (!reading.scaleMeasured)
        reading.warnings.push_back(
            {"scale_unmeasured",
             Words(NINE_WORDS("core",
                              "Whether the page was printed true to size cannot be seen in this "
                              "picture: printed at 97 % it would make the body {length} too long. Lay "
                              "a ruler to the printed line of 100 mm and say what it measures."))
                 .length("length", 0.03 * reading.side->axis.length(), 1),
             "ruler"});
    const Vec2 origin(tracing_sheet::kRubbing.low.x(),
                      0.5 * (tracing_sheet::kRubbing.low.y() + tracing_sheet::kRubbing.high.y()));
    for (GuideLine& g : reading.rubbing)
        for (Vec2& p : g.points) p = reading.scale * (p - origin);
    task.progress(1);
    return reading;
}

Vec2 onFlatSide(const Vec2& mm) {
    const Box2& box = tracing_sheet::kSide;
    return kPicturePerMm * Vec2(mm.x() - box.low.x(), box.high.y() - mm.y());
}

Picture flatSide(const Picture& picture, const SeenPage& page) {
    const Box2& box = tracing_sheet::kSide;
    const Vec2 size = kPicturePerMm * box.size();
    Picture flat(static_cast<int>(size.x()), static_cast<int>(size.y()));
    const int factor =
        std::max(1, static_cast<int>(page.view.pixelsPerMm(0.5 * tracing_sheet::kFrame_mm) / kPicturePerMm));
    const Picture small = reduced(picture, factor);
    forEachInParallel(static_cast<std::size_t>(flat.height), [&](std::size_t row) {
        const int y = static_cast<int>(row);
        for (int x = 0; x < flat.width; ++x) {
            const Vec2 mm(box.low.x() + (x + 0.5) / kPicturePerMm, box.high.y() - (y + 0.5) / kPicturePerMm);
            const Vec3 rgb = sampleRgb(small, page.view.pixelOf(mm) / factor);
            for (int c = 0; c < 3; ++c) flat.at(x, y)[c] = static_cast<std::uint8_t>(std::lround(rgb[c]));
        }
    });
    return flat;
}

}  // namespace nine
