#include "blank/section_arc.h"

#include <Eigen/Core>
#include <algorithm>
#include <array>
#include <cmath>

#include "base/units.h"
#include "geom/quadrature.h"

namespace nine {
namespace {

constexpr int kInversionSteps = 12;
constexpr double kNewtonStep = 1e-8;  // of t, or of what is left of it: the last step's error is its square
constexpr double kShortStep = 1e-4;   // likewise
constexpr double kAngleStep = 1e-12;  // of t; bisection may take short steps long before the end

std::size_t panelsFor(double exponent) {
    return exponent <= 4 ? 12 : 28;
}

/// Quintic smoothstep: panels shrink towards both ends of the quarter.
double gradedAngle(double t) {
    return 0.5 * kPi * t * t * t * (10 - 15 * t + 6 * t * t);
}
double gradedAngleSlope(double t) {
    return 0.5 * kPi * 30 * t * t * (1 - t) * (1 - t);
}

/// What the arc lengths of all quarters of one exponent have in common: at every node of the quadrature the
/// speed is sqrt(a w^2 + b h^2), the node's weight included.
struct NodeSpeeds {
    double exponent = 0;
    Eigen::ArrayXd a, b;
};

NodeSpeeds nodeSpeeds(double n) {
    const std::size_t panels = panelsFor(n);
    const auto count = static_cast<Eigen::Index>(panels * kGauss6.size());
    NodeSpeeds speeds{n, Eigen::ArrayXd(count), Eigen::ArrayXd(count)};
    const double h = 1.0 / static_cast<double>(panels);
    Eigen::Index i = 0;
    for (std::size_t k = 0; k < panels; ++k) {
        for (const GaussNode& node : kGauss6) {
            const double t = h * (static_cast<double>(k) + node.position), v = gradedAngle(t);
            const double c = std::cos(v), s = std::sin(v);
            // See QuarterArc::arcSpeed_mm.
            const double sn = std::pow(s, n - 1), cn = std::pow(c, n - 1);
            const double all = h * node.weight * gradedAngleSlope(t) * std::pow(cn * c + sn * s, -1 / n - 1);
            speeds.a[i] = all * all * sn * sn;
            speeds.b[i] = all * all * cn * cn;
            ++i;
        }
    }
    return speeds;
}

/// Bodies have one exponent over most of their length, and thousands of sections are asked for: the last few
/// are remembered, by each thread for itself.
const NodeSpeeds& rememberedSpeeds(double exponent) {
    thread_local std::array<NodeSpeeds, 8> last;
    thread_local std::size_t next = 0;
    for (const NodeSpeeds& speeds : last) {
        if (speeds.exponent == exponent) return speeds;
    }
    NodeSpeeds& place = last[next++ % last.size()];
    place = nodeSpeeds(exponent);
    return place;
}

}  // namespace

QuarterArc::QuarterArc(double width, double height, double exponent)
    : width_mm_(width), height_mm_(height), exponent_(exponent) {
    const std::size_t panels = panelsFor(exponent);
    cumulative_mm_.assign(panels + 1, 0.0);
    const NodeSpeeds& speeds = rememberedSpeeds(exponent);
    const Eigen::ArrayXd lengths = (width * width * speeds.a + height * height * speeds.b).sqrt();
    constexpr auto nodes = static_cast<Eigen::Index>(kGauss6.size());
    for (std::size_t k = 0; k < panels; ++k)
        cumulative_mm_[k + 1] =
            cumulative_mm_[k] + lengths.segment(static_cast<Eigen::Index>(k) * nodes, nodes).sum();
}

double QuarterArc::panelStart(std::size_t panel) const {
    return static_cast<double>(panel) / static_cast<double>(panelsFor(exponent_));
}

double QuarterArc::angleOf_rad(double t) {
    return gradedAngle(t);
}

double QuarterArc::arcSpeed_mm(double t) const {
    const double v = gradedAngle(t), dv = gradedAngleSlope(t);
    const double c = std::max(0.0, std::cos(v)), s = std::max(0.0, std::sin(v));
    if (exponent_ == 2) return dv * std::hypot(width_mm_ * s, height_mm_ * c);
    // d(y/w)/dv = -(q / D) s^(n-1), d(z/h)/dv = (q / D) c^(n-1), with D = c^n + s^n, q = D^(-1/n).
    const double sn = std::pow(s, exponent_ - 1), cn = std::pow(c, exponent_ - 1);
    const double D = cn * c + sn * s;
    return dv * std::hypot(width_mm_ * sn, height_mm_ * cn) * std::pow(D, -1 / exponent_ - 1);
}

Vec2 QuarterArc::pointAtAngle(double v) const {
    const double c = std::max(0.0, std::cos(v)), s = std::max(0.0, std::sin(v));
    if (exponent_ == 2) return {width_mm_ * c, height_mm_ * s};
    const double q = std::pow(std::pow(c, exponent_) + std::pow(s, exponent_), -1 / exponent_);
    return {width_mm_ * c * q, height_mm_ * s * q};
}

double QuarterArc::partial_mm(std::size_t panel, double t) const {
    return integrate(panelStart(panel), t, [this](double u) { return arcSpeed_mm(u); });
}

double QuarterArc::firstGuess(std::size_t panel, double share) const {
    const double from = panelStart(panel), to = panelStart(panel + 1);
    // Lengths grow with the cube of t at the ends of the quarter.
    if (panel == 0) return to * std::cbrt(share);
    if (panel + 2 == cumulative_mm_.size()) return 1 - (1 - from) * std::cbrt(1 - share);
    const double length = cumulative_mm_[panel + 1] - cumulative_mm_[panel];
    const double slopeFrom = length / arcSpeed_mm(from),
                 slopeTo = length / arcSpeed_mm(to);  // of t over share
    const double u = 1 - share;
    const double t = u * u * (1 + 2 * share) * from + share * share * (3 - 2 * share) * to +
                     share * u * (u * slopeFrom - share * slopeTo);
    return t > from && t < to ? t : from + share * (to - from);
}

Vec2 QuarterArc::point(double s) const {
    if (s <= 0) return {width_mm_, 0};
    if (s >= length_mm()) return {0, height_mm_};
    const auto above = std::upper_bound(cumulative_mm_.begin() + 1, cumulative_mm_.end() - 1, s);
    const auto panel = static_cast<std::size_t>(above - cumulative_mm_.begin()) - 1;
    const double wanted = s - cumulative_mm_[panel];
    double low = panelStart(panel), high = panelStart(panel + 1);
    double t = firstGuess(panel, wanted / (cumulative_mm_[panel + 1] - cumulative_mm_[panel]));
    double miss = partial_mm(panel, t) - wanted;
    for (int i = 0; i < kInversionSteps; ++i) {
        (miss > 0 ? high : low) = t;
        const double speed = arcSpeed_mm(t);
        double next = speed > 0 ? t - miss / speed : low;
        const bool newton = next >= low && next <= high;
        if (!newton) next = 0.5 * (low + high);
        const double step = next - t;
        // So short a step has the square of its length left to go.
        const bool done = newton && std::abs(step) < kNewtonStep * std::min(t, 1 - t);
        // Between two guesses near each other the middle speed stands for all.
        miss = std::abs(step) < kShortStep * std::min(t, 1 - t) ? miss + step * arcSpeed_mm(t + 0.5 * step)
                                                                : partial_mm(panel, next) - wanted;
        t = next;
        if (done) break;
    }
    return pointAtAngle(gradedAngle(t));
}

double QuarterArc::gAt_mm(const Vec2& point) const {
    if (length_mm() == 0) return 0;
    const double v = std::atan2(point.y() / height_mm_, point.x() / width_mm_);
    if (v <= 0) return 0;
    if (v >= 0.5 * kPi) return length_mm();
    double low = 0, high = 1;
    double t = 0.5;
    for (int i = 0; i < 60; ++i) {
        const double miss = gradedAngle(t) - v;
        (miss > 0 ? high : low) = t;
        const double slope = gradedAngleSlope(t);
        double next = slope > 0 ? t - miss / slope : 0.5 * (low + high);
        if (next <= low || next >= high) next = 0.5 * (low + high);
        const bool done = std::abs(next - t) < kAngleStep;
        t = next;
        if (done) break;
    }
    const auto panels = panelsFor(exponent_);
    const auto panel = std::min(panels - 1, static_cast<std::size_t>(t * static_cast<double>(panels)));
    return cumulative_mm_[panel] + partial_mm(panel, t);
}

SectionArc::SectionArc(const Section& section)
    : upper_(section.halfWidth_mm, section.top_mm, section.exponentUpper),
      lower_(section.halfWidth_mm, section.bottom_mm, section.exponentLower) {}

Vec2 SectionArc::point(double g) const {
    const double over = 2 * backArc_mm(), under = -2 * bellyArc_mm();
    if (g > over || g < under) {  // the far side's other quarter: the mirror image of what lies as far down
        const Vec2 mirror = pointOf(g > over ? lower_ : upper_, (g > over ? over : under) - g);
        return {-mirror.x(), mirror.y()};
    }
    return pointOf(g >= 0 ? upper_ : lower_, g);
}

Vec2 SectionArc::pointOf(const QuarterArc& quarter, double g) {
    const double s = std::abs(g);
    const bool across = s > quarter.length_mm();
    const Vec2 p = quarter.point(across ? 2 * quarter.length_mm() - s : s);
    return {across ? -p.x() : p.x(), g >= 0 ? p.y() : -p.y()};
}

double SectionArc::gAt_mm(const Vec2& yz) const {
    const Vec2 first(std::abs(yz.x()), std::abs(yz.y()));
    return yz.y() >= 0 ? upper_.gAt_mm(first) : -lower_.gAt_mm(first);
}

}  // namespace nine
