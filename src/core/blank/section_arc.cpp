#include "blank/section_arc.h"

#include <algorithm>
#include <cmath>

#include "base/units.h"

namespace nine {
namespace {

constexpr int kInversionSteps = 12;

std::size_t panelsFor(double exponent) {
    return exponent <= 4 ? 12 : 28;
}

}  // namespace

QuarterArc::QuarterArc(double width, double height, double exponent)
    : width_(width), height_(height), exponent_(exponent) {
    const std::size_t panels = panelsFor(exponent);
    cumulative_.assign(panels + 1, 0.0);
    const double h = 1.0 / static_cast<double>(panels);
    for (std::size_t k = 0; k < panels; ++k)
        cumulative_[k + 1] = cumulative_[k] + partial(k, panelStart(k) + h);
}

double QuarterArc::panelStart(std::size_t panel) const {
    return static_cast<double>(panel) / static_cast<double>(panelsFor(exponent_));
}

/// Quintic smoothstep: panels shrink towards both ends of the quarter.
double QuarterArc::angleOf(double t) const {
    return 0.5 * kPi * t * t * t * (10 - 15 * t + 6 * t * t);
}

double QuarterArc::arcSpeed(double t) const {
    const double v = angleOf(t);
    const double dv = 0.5 * kPi * 30 * t * t * (1 - t) * (1 - t);
    const double c = std::max(0.0, std::cos(v)), s = std::max(0.0, std::sin(v));
    if (exponent_ == 2) return dv * std::hypot(width_ * s, height_ * c);
    // d(y/w)/dv = -(q / D) s^(n-1), d(z/h)/dv = (q / D) c^(n-1), with D = c^n + s^n, q = D^(-1/n).
    const double sn = std::pow(s, exponent_ - 1), cn = std::pow(c, exponent_ - 1);
    const double D = cn * c + sn * s;
    return dv * std::hypot(width_ * sn, height_ * cn) * std::pow(D, -1 / exponent_ - 1);
}

Vec2 QuarterArc::pointAtAngle(double v) const {
    const double c = std::max(0.0, std::cos(v)), s = std::max(0.0, std::sin(v));
    if (exponent_ == 2) return {width_ * c, height_ * s};
    const double q = std::pow(std::pow(c, exponent_) + std::pow(s, exponent_), -1 / exponent_);
    return {width_ * c * q, height_ * s * q};
}

double QuarterArc::partial(std::size_t panel, double t) const {
    return integrate(panelStart(panel), t, [this](double u) { return arcSpeed(u); });
}

Vec2 QuarterArc::point(double s) const {
    if (s <= 0) return {width_, 0};
    if (s >= length()) return {0, height_};
    const auto above = std::upper_bound(cumulative_.begin() + 1, cumulative_.end() - 1, s);
    const auto panel = static_cast<std::size_t>(above - cumulative_.begin()) - 1;
    const double wanted = s - cumulative_[panel];
    const double from = panelStart(panel), to = panelStart(panel + 1);
    double low = from, high = to;
    double t = from + (to - from) * wanted / (cumulative_[panel + 1] - cumulative_[panel]);
    for (int i = 0; i < kInversionSteps; ++i) {
        const double miss = partial(panel, t) - wanted;
        (miss > 0 ? high : low) = t;
        const double speed = arcSpeed(t);
        double next = speed > 0 ? t - miss / speed : 0.5 * (low + high);
        if (next < low || next > high) next = 0.5 * (low + high);
        const bool done = std::abs(next - t) < 1e-14;
        t = next;
        if (done) break;
    }
    return pointAtAngle(angleOf(t));
}

double QuarterArc::arcAt(const Vec2& point) const {
    if (length() == 0) return 0;
    const double v = std::atan2(point.y() / height_, point.x() / width_);
    if (v <= 0) return 0;
    if (v >= 0.5 * kPi) return length();
    double low = 0, high = 1;
    double t = 0.5;
    for (int i = 0; i < 60; ++i) {
        const double miss = angleOf(t) - v;
        (miss > 0 ? high : low) = t;
        const double slope = 0.5 * kPi * 30 * t * t * (1 - t) * (1 - t);
        double next = slope > 0 ? t - miss / slope : 0.5 * (low + high);
        if (next <= low || next >= high) next = 0.5 * (low + high);
        const bool done = std::abs(next - t) < 1e-15;
        t = next;
        if (done) break;
    }
    const auto panels = panelsFor(exponent_);
    const auto panel = std::min(panels - 1, static_cast<std::size_t>(t * static_cast<double>(panels)));
    return cumulative_[panel] + partial(panel, t);
}

SectionArc::SectionArc(const Section& section)
    : upper_(section.halfWidth, section.top, section.exponentUpper),
      lower_(section.halfWidth, section.bottom, section.exponentLower) {}

Vec2 SectionArc::pointOf(const QuarterArc& quarter, double g) {
    const double s = std::abs(g);
    const bool across = s > quarter.length();
    const Vec2 p = quarter.point(across ? 2 * quarter.length() - s : s);
    return {across ? -p.x() : p.x(), g >= 0 ? p.y() : -p.y()};
}

double SectionArc::arcAt(const Vec2& yz) const {
    const Vec2 first(std::abs(yz.x()), std::abs(yz.y()));
    return yz.y() >= 0 ? upper_.arcAt(first) : -lower_.arcAt(first);
}

}  // namespace nine
