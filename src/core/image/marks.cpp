#include "image/marks.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "image/regions.h"
#include "image/tracing_sheet.h"

namespace nine {
namespace {

constexpr int kLookAt_px = 2400;    // longer side of the picture that is searched
constexpr double kInkShare = 0.75;  // ink is darker than this share of what is round it
constexpr std::size_t kMostRings = 14;
constexpr std::size_t kEnoughToJudge = 6;  // of marks: with fewer none can be told to be wrong

bool looksLikeRing(const Part& part) {
    const double w = part.width(), h = part.height();
    const double fill = static_cast<double>(part.area()) / (w * h);
    return w >= 14 && h >= 14 && w / h < 2 && h / w < 2 && fill > 0.25 && fill < 0.72;
}

/// Centre of darkness within a box, each place weighed against the paper beside it: an edge of shadow across
/// the ring does not draw it aside.
Vec2 centreOfInk(const Picture& picture, const Vec2& middle, double half) {
    const int left = std::max(0, static_cast<int>(middle.x() - half)),
              right = std::min(picture.width - 1, static_cast<int>(middle.x() + half));
    const int top = std::max(0, static_cast<int>(middle.y() - half)),
              bottom = std::min(picture.height - 1, static_cast<int>(middle.y() + half));
    Picture around(right - left + 1, bottom - top + 1);
    for (int y = 0; y < around.height; ++y)
        std::copy_n(picture.at(left, top + y), 3 * around.width, around.at(0, y));
    Plane box = luma(around);
    constexpr double kWiderThanStroke = 0.25;  // of half the box: strokes are filled in with paper
    const Plane paper = closed(box, static_cast<int>(std::ceil(kWiderThanStroke * half)));
    for (std::size_t i = 0; i < box.values.size(); ++i)
        box.values[i] = 1 - box.values[i] / std::max(1e-3F, paper.values[i]);
    const double ink = quantile(box.values, 0.9);
    if (ink < 1e-2) return middle;
    Vec2 sum = Vec2::Zero();
    double all = 0;
    for (int y = 0; y < box.height; ++y) {
        for (int x = 0; x < box.width; ++x) {
            const double weight = std::clamp(box.at(x, y) / ink - 0.1, 0.0, 1.0);
            sum += weight * Vec2(left + x + 0.5, top + y + 0.5);
            all += weight;
        }
    }
    return all > 0 ? Vec2(sum / all) : middle;
}

const Pattern kMarkPlaces[] = {NINE_WORDS("core", "lower left"),
                               NINE_WORDS("core", "lower right"),
                               NINE_WORDS("core", "upper right"),
                               NINE_WORDS("core", "upper left"),
                               NINE_WORDS("core", "top, left of the middle"),
                               NINE_WORDS("core", "bottom, right of the middle"),
                               NINE_WORDS("core", "left edge"),
                               NINE_WORDS("core", "right edge")};

struct Match {
    std::size_t count = 0;
    double miss = 1e18;
    std::vector<PointPair> pairs;
};

/// Pairs every ring with the mark it would fall on, if it is within reach.
Match matched(const Homography& pixelToMm, const std::vector<Vec2>& rings) {
    constexpr double kReach_mm = 3;
    Match m;
    m.miss = 0;
    std::array<bool, tracing_sheet::kMarks_mm.size()> taken{};
    for (const Vec2& ring : rings) {
        const Vec2 at = pixelToMm(ring);
        for (std::size_t k = 0; k < taken.size(); ++k) {
            const double away = (at - tracing_sheet::kMarks_mm[k]).norm();
            if (away > kReach_mm || taken[k]) continue;
            taken[k] = true;
            m.pairs.push_back({tracing_sheet::kMarks_mm[k], ring});
            m.miss += away * away;
            ++m.count;
            break;
        }
    }
    return m;
}

/// The plane map of four pairs in closed form through the unit square would do too; this is called often, so
/// it solves the 8 x 8 system.
bool fourPointMap(const Vec2* px, const Vec2* mm, Homography& out) {
    Eigen::Matrix<double, 8, 8> a;
    Eigen::Matrix<double, 8, 1> b;
    for (int i = 0; i < 4; ++i) {
        const Vec2 &p = px[i], &q = mm[i];
        a.row(2 * i) << p.x(), p.y(), 1, 0, 0, 0, -q.x() * p.x(), -q.x() * p.y();
        a.row(2 * i + 1) << 0, 0, 0, p.x(), p.y(), 1, -q.y() * p.x(), -q.y() * p.y();
        b(2 * i) = q.x();
        b(2 * i + 1) = q.y();
    }
    const Eigen::Matrix<double, 8, 1> h = a.partialPivLu().solve(b);
    if (!h.allFinite()) return false;
    Eigen::Matrix3d m;
    m << h(0), h(1), h(2), h(3), h(4), h(5), h(6), h(7), 1;
    out = Homography(m);
    return true;
}

double signedArea(const Vec2& a, const Vec2& b, const Vec2& c) {
    return cross(b - a, c - a);
}

/// Whether four points keep their turning sense under the map from mm (y up) to pixels (y down), as they do
/// on any page seen from its front.
bool sameTurns(const Vec2* px, const Vec2* mm) {
    static constexpr int kTriples[4][3] = {{0, 1, 2}, {0, 1, 3}, {0, 2, 3}, {1, 2, 3}};
    for (const auto& t : kTriples) {
        const double a = signedArea(px[t[0]], px[t[1]], px[t[2]]),
                     b = signedArea(mm[t[0]], mm[t[1]], mm[t[2]]);
        if (!(a * b < 0)) return false;
    }
    return true;
}

/// Without the mark that does not agree with the others: half in a shadow, or touched by the pencil, its
/// middle is not where it seems.
Result<SeenPage> seenThrough(std::vector<PointPair> pairs, const Vec2& size_px) {
    constexpr double kAgree_mm = 0.03, kDisagrees = 1.0 / 3;
    for (;;) {
        const Result<PlaneView> view = viewThrough(pairs, size_px);
        if (!view) return view.error();
        SeenPage page{*view, pairs, missOf_mm(*view, pairs)};
        if (page.miss_mm < kAgree_mm || pairs.size() <= kEnoughToJudge) return page;
        double least = kDisagrees * page.miss_mm;
        std::optional<std::size_t> odd;
        for (std::size_t i = 0; i < pairs.size(); ++i) {
            std::vector<PointPair> others = pairs;
            others.erase(others.begin() + static_cast<long>(i));
            const Result<PlaneView> without = viewThrough(others, size_px);
            const double miss = without ? missOf_mm(*without, others) : 1e9;
            if (miss >= least) continue;
            least = miss;
            odd = i;
        }
        if (!odd) return page;
        pairs.erase(pairs.begin() + static_cast<long>(*odd));
    }
}

/// Every choice of four rings laid on every four marks: the right one brings the others onto marks too.
Match bestMatch(const std::vector<Vec2>& rings) {
    const auto& marks = tracing_sheet::kMarks_mm;
    const std::size_t n = rings.size(), all = marks.size();
    Match best;
    Vec2 px[4], mm[4];
    for (std::size_t a = 0; a < n; ++a)
        for (std::size_t b = a + 1; b < n; ++b)
            for (std::size_t c = b + 1; c < n; ++c)
                for (std::size_t d = c + 1; d < n; ++d) {
                    px[0] = rings[a];
                    px[1] = rings[b];
                    px[2] = rings[c];
                    px[3] = rings[d];
                    for (std::size_t code = 0; code < all * all * all * all; ++code) {
                        const std::size_t i[4] = {code % all, code / all % all, code / (all * all) % all,
                                                  code / (all * all * all)};
                        if (i[0] == i[1] || i[0] == i[2] || i[0] == i[3] || i[1] == i[2] || i[1] == i[3] ||
                            i[2] == i[3])
                            continue;
                        for (int k = 0; k < 4; ++k) mm[k] = marks[i[k]];
                        Homography map;
                        if (!sameTurns(px, mm) || !fourPointMap(px, mm, map)) continue;
                        Match m = matched(map, rings);
                        if (m.count > best.count || (m.count == best.count && m.miss < best.miss))
                            best = std::move(m);
                    }
                    if (best.count >= std::min(n, all)) return best;  // nothing can be better
                }
    return best;
}

}  // namespace

std::vector<Vec2> findRings(const Picture& picture, const Task& task) {
    const int factor = factorFor(picture, kLookAt_px);
    const Plane grey = luma(reduced(picture, factor));
    const int window = std::max(20, std::max(grey.width, grey.height) / 30);
    const Plane mean = boxMean(grey, window);
    PixelSet ink(grey.width, grey.height);
    for (std::size_t i = 0; i < ink.on.size(); ++i)
        ink.on[i] = grey.values[i] < kInkShare * mean.values[i] ? 1 : 0;
    if (task.cancelled()) return {};
    const std::vector<Part> parts = partsOf(ink, true);
    struct Found {
        Vec2 middle;
        double half, doubt;
    };
    std::vector<Found> found;
    std::vector<const Part*> dots;
    for (const Part& part : parts) {
        if (part.area() >= 6 && part.width() < 200 && part.height() < 200) dots.push_back(&part);
    }
    for (const Part& ring : parts) {
        if (!looksLikeRing(ring)) continue;
        for (const Part* dot : dots) {
            if (dot == &ring || dot->left <= ring.left || dot->right >= ring.right || dot->top <= ring.top ||
                dot->bottom >= ring.bottom)
                continue;
            const double share = static_cast<double>(dot->area()) / static_cast<double>(ring.area());
            const Vec2 a = ring.centroid(grey.width), b = dot->centroid(grey.width);
            const double off = (a - b).norm() / std::max(ring.width(), ring.height());
            if (share < 0.05 || share > 0.35 || off > 0.1) continue;
            found.push_back(
                {a, 0.5 * std::max(ring.width(), ring.height()), std::abs(share - 0.14) + 2 * off});
            break;
        }
    }
    std::sort(found.begin(), found.end(), [](const Found& a, const Found& b) { return a.doubt < b.doubt; });
    if (found.size() > kMostRings) found.resize(kMostRings);
    std::vector<Vec2> rings;
    for (const Found& f : found)
        rings.push_back(centreOfInk(picture, factor * f.middle, factor * (1.15 * f.half + 1)));
    return rings;
}

Result<SeenPage> seePage(const std::vector<Vec2>& rings, const Vec2& size_px) {
    const std::size_t n = rings.size(), all = tracing_sheet::kMarks_mm.size();
    const Error missing{"marks_missing",
                        Words(NINE_WORDS("core",
                                         "Only {seen} of the page's {all} ring marks can be seen; at least "
                                         "{needed} are needed. Take the picture again with the whole page "
                                         "in it, in even light."))
                            .number("seen", std::min(n, all), 0)
                            .number("all", all, 0)
                            .number("needed", kFewestMarks, 0),
                        "marks"};
    if (n < kFewestMarks) return missing;
    const Match best = bestMatch(rings);
    if (best.count < std::min(n, all)) {
        std::vector<Vec2> mirrored = rings;
        for (Vec2& p : mirrored) p.x() = size_px.x() - p.x();
        const Match other = bestMatch(mirrored);
        if (other.count >= kFewestMarks && other.count > best.count)
            return Error{"page_mirrored",
                         NINE_WORDS("core",
                                    "The picture shows the page mirrored, as some cameras and scanners do: "
                                    "left and right are changed over. Turn mirroring off, or flip the "
                                    "picture, and open it again."),
                         "picture"};
    }
    if (best.count < kFewestMarks) return missing;
    Result<SeenPage> page = seenThrough(best.pairs, size_px);
    if (!page) return page;
    if (page->miss_mm > kFlat_mm)
        return Error{"page_not_flat",
                     NINE_WORDS("core",
                                "The page is bent or folded: its marks do not fit a flat page. Lay it "
                                "flat, under glass if need be, and take the picture again."),
                     "marks"};
    return page;
}

bool showsTracingSheet(const Picture& picture, const Task& task) {
    constexpr int kEnough_px = 1500;  // a ring of the sheet is then still 20 pixels across
    const Picture small = reduced(picture, factorFor(picture, kEnough_px));
    const Result<SeenPage> page = seePage(findRings(small, task), Vec2(small.width, small.height));
    return page || page.error().code != "marks_missing";
}

Words missingMarks(const SeenPage& page) {
    std::vector<Words> words;
    for (std::size_t k = 0; k < tracing_sheet::kMarks_mm.size(); ++k) {
        const bool seen = std::any_of(page.marks.begin(), page.marks.end(), [&](const PointPair& p) {
            return p.from == tracing_sheet::kMarks_mm[k];
        });
        if (!seen) words.push_back(kMarkPlaces[k]);
    }
    return listed(words);
}

}  // namespace nine
