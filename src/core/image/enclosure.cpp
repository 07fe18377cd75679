#include "image/enclosure.h"

#include <algorithm>
#include <cmath>
#include <queue>

#include "base/number_text.h"

namespace nine {
namespace {

constexpr double kSmallestBody_mm2 = 80;
constexpr double kThinnestBody_mm = 1.6;  // thinner enclosed things are strokes that cross
constexpr double kLineOfItsOwn_mm = 1.5;  // pieces of the line nearer than this belong together
constexpr double kLeftOut = 0.04;         // of the line: less is a stroke that ran over
constexpr double kSecondBody = 0.25;      // of the first one's area
constexpr double kSearchPerMm = 4;
constexpr double kGaps_mm[] = {0.3, 1.0, 2.0, 3.0, 6.0, 12.0, 20.0, 34.0};

bool atBorder(const Part& part, const PixelSet& box) {
    return part.left == 0 || part.top == 0 || part.right == box.width - 1 || part.bottom == box.height - 1;
}

/// A set at a lower resolution, on where anything is on.
PixelSet coarse(const PixelSet& set, int factor) {
    PixelSet small((set.width + factor - 1) / factor, (set.height + factor - 1) / factor);
    for (int y = 0; y < set.height; ++y)
        for (int x = 0; x < set.width; ++x)
            if (set.at(x, y)) small.set(x / factor, y / factor, true);
    return small;
}

PixelSet within(const Plane& distance, double radius) {
    PixelSet near(distance.width, distance.height);
    for (std::size_t i = 0; i < near.on.size(); ++i)
        near.on[i] = distance.values[i] <= static_cast<float>(radius) ? 1 : 0;
    return near;
}

/// What the border of the box can be reached from without crossing the bridged line.
PixelSet openTo(const PixelSet& bridged) {
    PixelSet outside(bridged.width, bridged.height);
    for (const Part& part : partsOf(inverse(bridged), false))
        if (atBorder(part, bridged))
            for (const std::size_t i : part.pixels) outside.on[i] = 1;
    return outside;
}

/// Things that are enclosed and thicker than strokes, the largest first.
std::vector<Part> bodiesIn(const PixelSet& bridged, double gap_px, double perMm) {
    const PixelSet enclosed = inverse(grown(openTo(bridged), 0.5 * gap_px));
    std::vector<Part> bodies = partsOf(opened(enclosed, 0.5 * kThinnestBody_mm * perMm), false);
    std::erase_if(bodies, [&](const Part& part) {
        return static_cast<double>(part.area()) < kSmallestBody_mm2 * perMm * perMm;
    });
    return bodies;
}

/// How many pixels of the line lie on or in a body.
double lineIn(const PixelSet& body, const PixelSet& line) {
    double count = 0;
    for (std::size_t i = 0; i < line.on.size(); ++i) count += line.on[i] && body.on[i];
    return count;
}

/// The pieces of the line that hang together with those in the body.
PixelSet ownLine(const PixelSet& line, const PixelSet& body, double perMm) {
    PixelSet own(line.width, line.height);
    for (const Part& part : partsOf(grown(line, 0.5 * kLineOfItsOwn_mm * perMm), true)) {
        double inBody = 0, all = 0;
        for (const std::size_t i : part.pixels) {
            all += line.on[i];
            inBody += line.on[i] && body.on[i];
        }
        if (inBody < 0.3 * all) continue;
        for (const std::size_t i : part.pixels) own.on[i] = line.on[i];
    }
    return own;
}

/// A body whose line runs out of the box and comes back: what lies between is cut off by the border.
std::optional<Error> overTheEdge(const PixelSet& line, const std::optional<Part>& body, double perMm,
                                 const std::string& name) {
    const PixelSet bridged = grown(line, 1.0 * perMm);
    std::vector<Part> open = partsOf(inverse(bridged), false);
    std::erase_if(open, [&](const Part& part) { return !atBorder(part, line); });
    const double least =
        std::max(kSmallestBody_mm2 * perMm * perMm, body ? 0.5 * static_cast<double>(body->area()) : 0.0);
    for (std::size_t k = 1; k < open.size(); ++k) {  // the largest is the paper round the body
        const Part& part = open[k];
        if (static_cast<double>(part.area()) < least) continue;
        const bool left = part.left == 0, right = part.right == line.width - 1, top = part.top == 0,
                   bottom = part.bottom == line.height - 1;
        if ((left && right) || (top && bottom)) continue;  // a line drawn across the box
        if (opened(pixelsOf(part, line.width, line.height), 1.5 * perMm).on ==
            PixelSet(line.width, line.height).on)
            continue;
        const bool upright = left || right;
        int from = upright ? line.height : line.width, to = 0;
        const auto w = static_cast<std::size_t>(line.width);
        for (const std::size_t i : part.pixels) {
            const int x = static_cast<int>(i % w), y = static_cast<int>(i / w);
            const bool there = left    ? x == 0
                               : right ? x == line.width - 1
                               : top   ? y == 0
                                       : y == line.height - 1;
            if (!there) continue;
            from = std::min(from, upright ? y : x);
            to = std::max(to, upright ? y : x);
        }
        const Pattern edge = left    ? NINE_WORDS("core", "left")
                             : right ? NINE_WORDS("core", "right")
                             : top   ? NINE_WORDS("core", "upper")
                                     : NINE_WORDS("core", "lower");
        return Error{
            "over_the_edge",
            Words(upright
                      ? NINE_WORDS("core",
                                   "The line of the {name} runs over the {edge} edge of its box, from "
                                   "{from} to {to} below its top. Draw the body again, wholly within the "
                                   "box; a body longer than the box is photographed instead.")
                      : NINE_WORDS("core",
                                   "The line of the {name} runs over the {edge} edge of its box, from "
                                   "{from} to {to} from its left edge. Draw the body again, wholly within "
                                   "the box; a body longer than the box is photographed instead."))
                .name("name", name)
                .words("edge", edge)
                .length("from", from / perMm, 0)
                .length("to", to / perMm, 0),
            name};
    }
    return std::nullopt;
}

/// Lets both regions grow over everything that is not line, nearest first, until they meet; the outside only
/// by `most`, which bridging took from it: through a gap it must not fill what lies behind.
void growTogether(Enclosure& r, const PixelSet& line, double most) {
    const Plane taken = distanceTo(r.outside);
    using Entry = std::pair<float, std::size_t>;
    std::priority_queue<Entry, std::vector<Entry>, std::greater<>> queue;
    std::vector<float> best(line.on.size(), 1e30F);
    std::vector<std::uint8_t> owner(line.on.size(), 0);
    const auto w = static_cast<std::size_t>(line.width);
    for (std::size_t i = 0; i < line.on.size(); ++i) {
        if (!r.outside.on[i] && !r.inside.on[i]) continue;
        owner[i] = r.outside.on[i] ? 1 : 2;
        best[i] = 0;
    }
    for (std::size_t i = 0; i < owner.size(); ++i) {  // only from their borders is there anything to take
        if (owner[i] == 0) continue;
        const std::size_t x = i % w;
        const bool inner = x > 0 && x + 1 < w && i >= w && i + w < owner.size() && owner[i - 1] == owner[i] &&
                           owner[i + 1] == owner[i] && owner[i - w] == owner[i] && owner[i + w] == owner[i];
        if (!inner) queue.emplace(0.0F, i);
    }
    while (!queue.empty()) {
        const auto [distance, i] = queue.top();
        queue.pop();
        if (distance > best[i]) continue;
        const int x = static_cast<int>(i % w), y = static_cast<int>(i / w);
        for (int dy = -1; dy <= 1; ++dy) {
            for (int dx = -1; dx <= 1; ++dx) {
                if ((dx == 0 && dy == 0) || !line.inside(x + dx, y + dy)) continue;
                const std::size_t next = line.index(x + dx, y + dy);
                if (line.on[next]) continue;
                const float d = distance + (dx != 0 && dy != 0 ? 1.41421F : 1.0F);
                if (d >= best[next] || (owner[i] == 1 && taken.values[next] > static_cast<float>(most)))
                    continue;
                best[next] = d;
                owner[next] = owner[i];
                queue.emplace(d, next);
            }
        }
    }
    for (std::size_t i = 0; i < owner.size(); ++i) {
        r.outside.on[i] = owner[i] == 1;
        r.inside.on[i] = owner[i] == 2;
    }
}

/// Both regions at full resolution, for the width of gaps that was chosen and the body found with it.
Enclosure regionsOf(const FlatBox& box, const PixelSet& lines, const PixelSet& body, int factor,
                    double gap_mm) {
    constexpr double kSliver_mm = 0.9;  // narrower between two strokes is part of a double line
    const double perMm = box.pixelsPerMm;
    // The search saw lines fatter by up to a pixel of its own on both sides.
    const double bridge_px = 0.5 * gap_mm * perMm + 0.8 * factor;
    const PixelSet bridged = grown(lines, bridge_px);
    Enclosure r{openTo(bridged), PixelSet(lines.width, lines.height), gap_mm};
    for (const Part& part : partsOf(inverse(bridged), false)) {
        if (atBorder(part, bridged)) continue;
        std::size_t inBody = 0;
        for (const std::size_t i : part.pixels) {
            const int x = static_cast<int>(i % static_cast<std::size_t>(lines.width)),
                      y = static_cast<int>(i / static_cast<std::size_t>(lines.width));
            inBody += body.at(x / factor, y / factor) ? 1 : 0;
        }
        if (2 * inBody < part.area()) continue;
        for (const std::size_t i : part.pixels) r.inside.on[i] = 1;
    }
    const PixelSet broad =
        grown(shrunk(r.inside, std::max(0.0, 0.5 * (kSliver_mm - gap_mm)) * perMm), 0.5 * kSliver_mm * perMm);
    for (std::size_t i = 0; i < broad.on.size(); ++i) r.inside.on[i] = r.inside.on[i] && broad.on[i];
    growTogether(r, lines, bridge_px + 0.7);
    return r;
}

}  // namespace

Result<std::optional<Enclosure>> enclosedIn(const FlatBox& box, const PixelSet& lines, double widest_mm,
                                            const std::string& name, const Task& task) {
    const int factor = std::max(1, static_cast<int>(std::lround(box.pixelsPerMm / kSearchPerMm)));
    const double perMm = box.pixelsPerMm / factor;
    const PixelSet line = coarse(lines, factor);
    const Plane distance = distanceTo(line);
    struct Choice {
        double gap_mm = 0;
        PixelSet body;
        std::vector<Part> bodies;
    };
    std::optional<Choice> chosen;
    PixelSet own = line;  // all of it, as long as gaps are of a width that is bridged anyway
    for (const double gap_mm : kGaps_mm) {
        if (task.cancelled()) return Task::cancelledError();
        std::vector<Part> bodies = bodiesIn(within(distance, 0.5 * gap_mm * perMm), gap_mm * perMm, perMm);
        if (bodies.empty()) continue;
        PixelSet body = grown(pixelsOf(bodies.front(), line.width, line.height), 1.0 * perMm);
        if (gap_mm > widest_mm && chosen) own = ownLine(line, chosen->body, perMm);
        const double encloses = lineIn(body, own);
        const double before = chosen ? lineIn(chosen->body, own) : 0;
        if (chosen && encloses < before + kLeftOut * lineIn(own, line)) continue;
        const double all = lineIn(own, line);
        chosen = Choice{gap_mm, std::move(body), std::move(bodies)};
        if (encloses > (1 - kLeftOut) * all) break;  // nothing is left that a wider bridge could enclose
    }
    std::optional<Part> first;
    if (chosen) first = chosen->bodies.front();
    if (std::optional<Error> over = overTheEdge(line, first, perMm, name)) return *over;
    if (!chosen) return std::optional<Enclosure>();
    if (chosen->bodies.size() > 1) {
        const Part &a = chosen->bodies[0], &b = chosen->bodies[1];
        if (static_cast<double>(b.area()) > kSecondBody * static_cast<double>(a.area()))
            return Error{
                "two_bodies",
                Words(NINE_WORDS(
                          "core",
                          "There are two closed lines in the box of the {name}, from {from} to {to} and from "
                          "{from2} to {to2} from its left edge. One body a box: paint one of them out, or "
                          "rub it out."))
                    .name("name", name)
                    .length("from", a.left / perMm, 0)
                    .length("to", a.right / perMm, 0)
                    .length("from2", b.left / perMm, 0)
                    .length("to2", b.right / perMm, 0),
                name};
    }
    return std::optional<Enclosure>(regionsOf(box, lines, chosen->body, factor, chosen->gap_mm));
}

}  // namespace nine
