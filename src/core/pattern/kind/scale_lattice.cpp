// Scales as a cut lattice: cells in rows that follow the lateral line, smaller to the tail, the nape and the
// belly.
//
// The lattice is laid out along the skin: rows count girth from the lateral line, columns arc along it. The
// round edge of a scale points to the tail on both sides, because the right side is the mirror image. Cells
// share their corners and are then moved in by half the web, so the web is as wide as asked wherever the
// lattice is graded.
#include <algorithm>
#include <cmath>

#include "base/parallel.h"
#include "blank/landmark_curve.h"
#include "pattern/art.h"
#include "pattern/bands.h"
#include "pattern/cut_scales.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"

namespace nine {
namespace scale_lattice {
namespace {

using Type = Param::Type;

struct ScaleLattice {
    std::string shape;
    double pitch_mm, tall, tail, rim, web_mm;
    std::string edge;
    double soft, split;
    std::string second;
};

constexpr Choice kShapes[] = {{"lozenge", NINE_WORDS("core", "lozenges")},
                              {"rounded", NINE_WORDS("core", "rounded lozenges")},
                              {"half_moon", NINE_WORDS("core", "half-moons")},
                              {"hexagon", NINE_WORDS("core", "hexagons")}};
constexpr Choice kEdges[] = {{"whole", NINE_WORDS("core", "whole cells only")},
                             {"fading", NINE_WORDS("core", "fading to none")}};

constexpr Bound<ScaleLattice> kSizes[] = {
    {{.key = "shape",
      .name = NINE_WORDS("core", "Shape of a scale"),
      .type = Type::Choice,
      .usualText = "rounded",
      .choices = kShapes},
     &ScaleLattice::shape},
    {{.key = "pitch_mm",
      .name = NINE_WORDS("core", "From scale to scale at the shoulder"),
      .low = 0.8,
      .high = 25,
      .usual = 3.2,
      .decimals = 2,
      .refit = Refit::WithLength},
     &ScaleLattice::pitch_mm},
    {{.key = "tall",
      .name = NINE_WORDS("core", "Height over length"),
      .type = Type::Share,
      .low = 0.4,
      .high = 3,
      .usual = 1.3,
      .decimals = 0},
     &ScaleLattice::tall},
    {{.key = "tail",
      .name = NINE_WORDS("core", "Size at the tail"),
      .type = Type::Share,
      .low = 0.3,
      .high = 1.3,
      .usual = 0.75,
      .decimals = 0},
     &ScaleLattice::tail},
    {{.key = "rim",
      .name = NINE_WORDS("core", "Height at nape and belly"),
      .type = Type::Share,
      .low = 0.4,
      .high = 1,
      .usual = 0.8,
      .decimals = 0},
     &ScaleLattice::rim},
    {{.key = "web_mm", .name = NINE_WORDS("core", "Web"), .low = 0.2, .high = 5, .usual = 0.7, .decimals = 2},
     &ScaleLattice::web_mm},
    {{.key = "edge",
      .name = NINE_WORDS("core", "At the edge"),
      .type = Type::Choice,
      .usualText = "fading",
      .choices = kEdges},
     &ScaleLattice::edge},
    {{.key = "soft",
      .name = NINE_WORDS("core", "Fades over"),
      .type = Type::Share,
      .low = 0.01,
      .high = 0.5,
      .usual = 0.12,
      .decimals = 0},
     &ScaleLattice::soft},
    {{.key = "split",
      .name = NINE_WORDS("core", "Second colour from"),
      .type = Type::Share,
      .low = 0,
      .high = 1,
      .usual = 1,
      .decimals = 0},
     &ScaleLattice::split},
    {{.key = "second_colour",
      .name = NINE_WORDS("core", "Second colour"),
      .type = Type::Colour,
      .usualText = "#d8b45a"},
     &ScaleLattice::second},
};
constexpr std::array<Param, 4> kWhere{kReachParams[0], kReachParams[1], kReachParams[2], kReachParams[3]};
constexpr auto kParams = joined(paramsOf(kSizes), kWhere);

/// Lattice coordinates: U columns along the lateral line, V rows of girth from it, both in cells.
class Lattice {
  public:
    Lattice(const DrawOn& on, const ScaleLattice& s, const FieldReach& reach) : skin_(on.skin), s_(s) {
        const auto lateral = on.landmarks.find("lateral_line");
        if (lateral != on.landmarks.end() && lateral->second.isCurve()) line_ = curveOf(lateral->second);
        const HalfGirths girths(on.skin);
        const double x0 = on.skin.noseX_mm() + reach.fromLength * on.skin.length_mm() + on.shift_mm.x(),
                     x1 = on.skin.noseX_mm() + reach.toLength * on.skin.length_mm() + on.shift_mm.x();
        double u = 0, before = 0;
        for (int i = 0; i <= kSteps; ++i) {
            const double x = std::clamp(x0 + (x1 - x0) * i / kSteps, on.skin.noseX_mm(), on.skin.tailX_mm());
            const double along = girths.skinAlong_mm(x);
            if (i) u += (along - before) / pitchAt(x, x0, x1);
            before = along;
            x_.push_back(x);
            u_.push_back(u);
            pitch_.push_back(pitchAt(x, x0, x1));
        }
    }
    double columns() const { return u_.back(); }
    /// Rows above (and below) the lateral line that may touch the skin.
    int rows() const {
        double widest = 0;
        for (const double x : {x_[kSteps / 4], x_[kSteps / 2], x_[3 * kSteps / 4]})
            widest = std::max(widest, skin_.arcAt(x).girth_mm() / 2);
        return static_cast<int>(2 * widest / (s_.pitch_mm * s_.tall * std::min(s_.tail, 1.0) * s_.rim)) + 4;
    }
    /// x, g; nothing beyond the columns or off the skin.
    std::optional<Vec2> at(double U, double V) const {
        if (U < 0 || U > u_.back()) return std::nullopt;
        const auto after = std::upper_bound(u_.begin() + 1, u_.end() - 1, U);
        const auto i = static_cast<std::size_t>(after - u_.begin());
        const double t = (U - u_[i - 1]) / std::max(u_[i] - u_[i - 1], 1e-12);
        const double x = x_[i - 1] + t * (x_[i] - x_[i - 1]);
        const double height = (pitch_[i - 1] + t * (pitch_[i] - pitch_[i - 1])) * s_.tall;
        const SectionArc arc = skin_.arcAt(x);
        const double middle = lateralAt(x);
        const double room = V > 0 ? arc.backArc_mm() - middle : arc.bellyArc_mm() + middle;
        // Rows get lower towards nape and belly: dv/dV = height (1 - c (v/room)^2), solved.
        const double c = 1 - s_.rim, root = std::sqrt(c);
        const double v =
            c < 1e-6 || room <= 0 ? V * height : room / root * std::tanh(root * V * height / room);
        const double g = middle + v;
        if (g > arc.backArc_mm() || g < -arc.bellyArc_mm()) return std::nullopt;
        return Vec2(x, g);
    }

  private:
    static constexpr int kSteps = 240;
    double pitchAt(double x, double x0, double x1) const {
        const double t = std::clamp((x - x0) / std::max(x1 - x0, 1e-9), 0.0, 1.0);
        return s_.pitch_mm * (1 - t * (1 - s_.tail));
    }
    double lateralAt(double x) const {
        if (line_.size() < 2) return 0;
        for (std::size_t i = 1; i < line_.size(); ++i)
            if (line_[i].x() >= x || i + 1 == line_.size()) {
                const double t = (x - line_[i - 1].x()) / std::max(line_[i].x() - line_[i - 1].x(), 1e-9);
                return line_[i - 1].y() + std::clamp(t, 0.0, 1.0) * (line_[i].y() - line_[i - 1].y());
            }
        return 0;
    }
    const Skin& skin_;
    const ScaleLattice& s_;
    std::vector<Vec2> line_;
    std::vector<double> x_, u_, pitch_;
};

/// A cell about its middle, in cells; counter-clockwise.
Polygon2 cellShape(const std::string& shape) {
    Polygon2 ring;
    if (shape == "hexagon")
        return {{0.5, 0}, {0.25, 0.5}, {-0.25, 0.5}, {-0.5, 0}, {-0.25, -0.5}, {0.25, -0.5}};
    if (shape == "half_moon") {
        constexpr int n = 12;
        for (int i = 0; i <= n; ++i) {
            const double a = kPi * (static_cast<double>(i) / n - 0.5);
            ring.emplace_back(0.68 * std::cos(a), 0.5 * std::sin(a));
        }
        for (int i = n - 1; i > 0; --i) {
            const double a = kPi * (static_cast<double>(i) / n - 0.5);
            ring.emplace_back(0.16 * std::cos(a), 0.5 * std::sin(a));
        }
        return ring;
    }
    if (shape == "rounded") {
        constexpr int n = 24;
        for (int i = 0; i < n; ++i) {
            const double a = 2 * kPi * i / n, c = std::cos(a), s = std::sin(a);
            const double r =
                0.5 / std::pow(std::pow(std::abs(c), 1.35) + std::pow(std::abs(s), 1.35), 1 / 1.35);
            ring.emplace_back(r * c, r * s);
        }
        return ring;
    }
    const Vec2 corner[] = {{0.5, 0}, {0, 0.5}, {-0.5, 0}, {0, -0.5}};
    for (int k = 0; k < 4; ++k)
        for (int i = 0; i < 3; ++i) ring.push_back(corner[k] + (corner[(k + 1) % 4] - corner[k]) * (i / 3.0));
    return ring;
}

class ScaleLatticeKind : public FieldKind {
  public:
    std::string_view id() const override { return "scale_lattice"; }
    Pattern name() const override { return NINE_WORDS("core", "cut scales"); }
    Pattern onMask() const override { return NINE_WORDS("core", "scales"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS(
                "core",
                "{shape}, {pitch_mm} from one to the next at the shoulder, {tall} % as high as long, {tail} "
                "% "
                "as large at the tail and {rim} % as high at nape and belly, {web_mm} of web between; {edge} "
                "over {soft} %."),
            NINE_WORDS(
                "core",
                "From {from_length} to {to_length} % of the length and from {from_girth} to {to_girth} % of "
                "the way from back to belly; from {split} % down the second colour, {second_colour}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    bool isMended(const Values&) const override { return false; }  // the painter sets it: told, not mended
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        // In one piece: cells laid out, moved in by the web, left out at the edge, sorted by colour.
        const ScaleLattice s = sizesOf(kSizes, element.values);
        const FieldReach reach = reachOf(element.values);
        const Lattice lattice(on, s, reach);
        const HalfGirths girths(on.skin);
        const bool hexagon = s.shape == "hexagon", fading = s.edge == "fading";
        const Polygon2 shape = cellShape(s.shape);
        const Vec2 shift = on.shift_mm;

        std::vector<Vec2> middles;  // in cells
        const double across = hexagon ? 0.75 : 1, up = hexagon ? 1 : 0.5;
        const int columns = static_cast<int>(lattice.columns() / across) + 1,
                  rows = lattice.rows() * (hexagon ? 1 : 2);
        for (int i = 0; i <= columns; ++i)
            for (int j = -rows; j <= rows; ++j)
                middles.emplace_back(hexagon ? 0.75 * i : i + (j % 2 ? 0.5 : 0),
                                     hexagon ? j + (i % 2 ? 0.5 : 0) : up * j);
        struct Cell {
            PolygonSet rings;
            Fraction down = 0;
        };
        std::vector<Cell> cells(middles.size());
        const auto inside = [&](const Vec2& xg, Fraction soft) {
            return insideOf(reach, on.skin, xg.x() - shift.x(), girths.shareAt(xg.x(), xg.y() - shift.y()),
                            soft);
        };
        forEachInParallel(middles.size(), [&](std::size_t k) {
            if (on.task.cancelled()) return;
            const auto middle = lattice.at(middles[k].x(), middles[k].y());
            if (!middle) return;
            const double within = inside(*middle, fading ? s.soft : 0.01);
            if (within <= 0) return;
            // On the skin, in millimetres about the middle.
            const double h = 1e-3;
            const Vec3 ahead =
                           on.skin
                               .at({Side::Left, std::min(middle->x() + h, on.skin.tailX_mm()), middle->y()})
                               .position,
                       behind =
                           on.skin
                               .at({Side::Left, std::max(middle->x() - h, on.skin.noseX_mm()), middle->y()})
                               .position;
            const double perX = std::max(1.0, (ahead - behind).norm() / (2 * h));
            Polygon2 ring;
            for (const Vec2& p : shape) {
                const auto at = lattice.at(middles[k].x() + p.x(), middles[k].y() + p.y());
                if (!at || (!fading && inside(*at, 0.01) <= 0)) return;  // only whole cells
                ring.emplace_back((at->x() - middle->x()) * perX, at->y() - middle->y());
            }
            PolygonSet open = offset({ring}, -0.5 * s.web_mm);
            if (fading && within < 1) {
                for (Polygon2& r : open)
                    for (Vec2& p : r) p *= std::sqrt(within);
                open = withoutSlivers(open, 2 * kSliver_mm);
            }
            for (Polygon2& r : open)
                for (Vec2& p : r) p = Vec2(p.x() / perX, p.y()) + *middle;
            cells[k] = {std::move(open), girths.shareAt(middle->x(), middle->y())};
        });
        if (on.task.cancelled()) return Task::cancelledError();
        PolygonSet all, below;
        for (Cell& cell : cells) {
            for (Polygon2& ring : cell.rings) {
                if (polygonArea(ring) < kLeastScale_mm2) continue;
                if (cell.down > s.split) below.push_back(ring);
                all.push_back(std::move(ring));
            }
        }
        if (all.size() > kMostScales)
            return Error{
                "too_many",
                Words(NINE_WORDS("core",
                                 "{count} scales are more than {most}; make them larger or cover less."))
                    .number("count", static_cast<double>(all.size()), 0)
                    .number("most", kMostScales, 0),
                on.path + ".pitch_mm"};
        if (all.empty())
            return Error{
                "fits_nowhere",
                NINE_WORDS("core",
                           "No scale is left: they are smaller than the web, or their reach is too small."),
                on.path + ".pitch_mm"};
        const double edge = 2 * artSteps(on.fineness).edge_mm;
        Drawn drawn{{{outlinesOf(on.skin, subdivided(all, edge))}}, placesOfReach(on, reach)};
        // The second colour goes through the same sheet, not moved: what is above is covered then.
        if (!below.empty() && below.size() < all.size()) {
            Pass second{outlinesOf(on.skin, subdivided(below, edge))};
            second.colour = s.second;
            drawn.passes.push_back(std::move(second));
        } else if (!below.empty()) {
            drawn.passes[0].colour = s.second;
        }
        return drawn;
    }

  private:
    static constexpr Figure kLeastScale_mm2 = 0.12;
    static constexpr std::size_t kMostScales = 4000;
};

}  // namespace
}  // namespace scale_lattice

NINE_KIND(scaleLattice, scale_lattice::ScaleLatticeKind)

Element cutScalesElement(double pitch_mm, Ratio tall, double web_mm) {
    Element element;
    element.id = "scales";
    element.kind = std::string(scaleLatticeKind().id());
    element.values = usualValues(scaleLatticeKind());
    element.values.set("shape", std::string("lozenge"));
    element.values.set("pitch_mm", pitch_mm);
    element.values.set("tall", tall);
    element.values.set("web_mm", web_mm);
    element.values.set("edge", std::string("whole"));
    for (const char* even : {"tail", "rim"}) element.values.set(even, 1.0);
    for (const char* from : {"from_length", "from_girth"}) element.values.set(from, 0.0);
    for (const char* to : {"to_length", "to_girth"}) element.values.set(to, 1.0);
    return element;
}

bool isCutScales(const Element& element) {
    return element.kind == scaleLatticeKind().id();
}

Result<CutScales> readCutScales(const Skin& skin, const Landmarks& landmarks, const Element& element,
                                const Task& task) {
    if (Status ok = checkElement(element, "scales"); !ok) return ok.error();
    const DrawOn on{.skin = skin,
                    .landmarks = landmarks,
                    .origin = Vec2::Zero(),
                    .shift_mm = Vec2::Zero(),
                    .fineness = Fineness::Cut,
                    .path = "scales",
                    .task = task};
    const Result<Drawn> drawn = scaleLatticeKind().draw(on, element);
    if (!drawn) return drawn.error();
    const double pitch = element.values.number("pitch_mm"), tall = element.values.number("tall"),
                 web = element.values.number("web_mm");
    CutScales read;
    read.aspect_min = read.opening_min = read.narrowest_mm = 1e9;
    read.aspect_max = 0;
    Vec2 low(1e9, 1e9), high(-1e9, -1e9);
    // The web stands off all sides of a lozenge alike, so its length grows by web / sin and its height by web
    // / cos of the half angle at its ends.
    const double half = std::atan(tall);
    for (const Outline& outline : drawn->passes.front().outlines) {
        double x0 = 1e9, x1 = -1e9, g0 = 1e9, g1 = -1e9;
        SurfacePoint first{}, last{};
        for (std::size_t i = 0; i < outline.skin.size(); ++i) {
            const Vec2& p = outline.skin[i];
            if (p.x() < x0) x0 = p.x(), first = outline.points[i];
            if (p.x() > x1) x1 = p.x(), last = outline.points[i];
            g0 = std::min(g0, p.y());
            g1 = std::max(g1, p.y());
        }
        const double length = arcLength_mm(first, last) + web / std::sin(half),
                     height = g1 - g0 + web / std::cos(half);
        const double aspect = height / length / tall;
        read.aspect_min = std::min(read.aspect_min, aspect);
        read.aspect_max = std::max(read.aspect_max, aspect);
        // Round the girth g is arc; along the body x is, by the length of the opening over its reach in x.
        const double cell_mm2 =
            polygonArea(outline.skin) * arcLength_mm(first, last) / std::max(x1 - x0, 1e-9);
        const double open = cell_mm2 / (0.5 * length * height);
        read.opening_min = std::min(read.opening_min, open);
        read.opening_max = std::max(read.opening_max, open);
        read.narrowest_mm = std::min({read.narrowest_mm, x1 - x0, g1 - g0});
        low = low.cwiseMin(Vec2(x0, g0));
        high = high.cwiseMax(Vec2(x1, g1));
        if (std::abs(outline.centre.y()) < 0.25 * pitch * tall) ++read.cellsAlongLateral;
        ++read.cells;
    }
    read.region_mm = high - low;
    return read;
}

}  // namespace nine
