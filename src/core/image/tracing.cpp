#include "image/tracing.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "base/parallel.h"
#include "image/line_art.h"
#include "image/tracing_sheet.h"

namespace nine {
namespace {

constexpr double kFlatPerMm = 8;         // pixels of a flattened box: a pencil line is four or more wide
constexpr double kCoveredChroma = 17;    // L*a*b*: skin, cloth or wood, not grey shadow on paper
constexpr double kCoveredLight = 0.3;    // of the paper: darker broad things are not paper in shadow
constexpr double kTrustScan = 0.15;      // a density off by more is no scanner's
constexpr double kSquareEnough = 0.01;   // a scanner sees no perspective
constexpr double kStraightLens = 0.003;  // nor a lens
constexpr double kWorthSaying = 0.004;   // a scale that differs by less is within the ruler's own error

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
    Plane chroma(w, h);
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
            const Vec3 lab = labOf(rgb);
            chroma.at(x, y) = static_cast<float>(std::hypot(lab.y(), lab.z()));
        }
    });
    // Broad things that are not paper: strongly coloured or very dark over an area.
    const int reach = static_cast<int>(1.6 * kFlatPerMm);
    const Plane broad = closed(flat.grey, reach);
    const float paper = quantile(broad.values, 0.9), usual = quantile(chroma.values, 0.5);
    const Plane colour = boxMean(chroma, reach / 2);
    for (std::size_t i = 0; i < broad.values.size(); ++i) {
        if (broad.values[i] < kCoveredLight * paper || colour.values[i] > usual + kCoveredChroma)
            flat.covered.on[i] = 1;
    }
    return flat;
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

}  // namespace

Result<TracingReading> readTracing(const Picture& picture, const TracingWish& wish, const Task& task) {
    if (wish.ruler_mm && !(*wish.ruler_mm > 80 && *wish.ruler_mm < 120))
        return Error{"ruler_wrong",
                     "The printed line of 100 mm cannot measure " + fixedText(*wish.ruler_mm, 1) +
                         " mm; measure from its first tick to its last.",
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
        return Error{"page_too_small",
                     "The page is too small in the picture: " + fixedText(perMm, 1) +
                         " pixels for a millimetre. Scan at 150 dpi or more, or go nearer.",
                     "picture"};
    if (const std::string missing = missingMarks(reading.page); !missing.empty())
        reading.warnings.push_back(
            {"marks_missing",
             "These marks are hidden or do not agree with the others, which are enough: " + missing + ".",
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
        reading.warnings.push_back({"printed_at_scale",
                                    "The page was printed at " + fixedText(100 * reading.scale, 1) +
                                        " %: its line of 100 mm measures " +
                                        fixedText(100 * reading.scale, 1) +
                                        " mm. All sizes are corrected for it.",
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
    std::optional<Result<TracedBox>> traced[2];
    forEachInParallel(3, [&](std::size_t i) {
        if (i == 2) {
            reading.rubbing = linesIn(boxes[2]);
        } else {
            traced[i] = outlineIn(boxes[i], i == 0 ? "side tracing" : "top tracing", task);
        }
    });
    if (task.cancelled()) return Task::cancelledError();
    const auto scaled = [&](TracedBox box) {
        for (Vec2& p : box.outline) p *= reading.scale;
        for (GuideLine& g : box.guides)
            for (Vec2& p : g.points) p *= reading.scale;
        box.lineWidth_mm *= reading.scale;
        box.axis = axisOf(box.outline);
        return box;
    };
    if (!*traced[0]) return traced[0]->error();
    reading.side = scaled(std::move(**traced[0]));
    if (*traced[1]) {
        reading.top = scaled(std::move(**traced[1]));
    } else if (traced[1]->error().code != "nothing_drawn") {
        return traced[1]->error();
    }
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
