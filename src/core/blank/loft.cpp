#include "blank/loft.h"

#include <algorithm>
#include <cmath>

namespace nine {
namespace {

constexpr double kCollinear_mm = 1e-6;  // readings are typed to 0.01 mm: nearer than this they lie on a line

/// Slope at `at` of the parabola through three points.
double parabolaSlope(const double x[3], const double y[3], double at) {
    const double d01 = (y[1] - y[0]) / (x[1] - x[0]);
    const double d12 = (y[2] - y[1]) / (x[2] - x[1]);
    const double second = (d12 - d01) / (x[2] - x[0]);
    return d01 + second * (2 * at - x[0] - x[1]);
}

std::vector<double> parabolicSlopes(const std::vector<double>& x, const std::vector<double>& y) {
    const std::size_t n = x.size();
    std::vector<double> slopes(n);
    for (std::size_t i = 0; i < n; ++i) {
        const std::size_t first = std::min(i > 0 ? i - 1 : 0, n - 3);
        slopes[i] = parabolaSlope(&x[first], &y[first], x[i]);
    }
    return slopes;
}

/// Fritsch-Carlson slope at node i: zero at an extremum, else the weighted harmonic mean of the secants.
double monotoneSlope(const std::vector<double>& x, const std::vector<double>& y, std::size_t i) {
    const auto secant = [&](std::size_t k) { return (y[k + 1] - y[k]) / (x[k + 1] - x[k]); };
    if (i == 0) return secant(0);
    if (i + 1 == x.size()) return secant(i - 1);
    const double left = secant(i - 1), right = secant(i);
    if (left * right <= 0) return 0;
    const double hl = x[i] - x[i - 1], hr = x[i + 1] - x[i];
    const double wl = 2 * hr + hl, wr = hr + 2 * hl;
    return (wl + wr) / (wl / left + wr / right);
}

struct Hermite {
    double y0, y1, m0, m1, h;
    double at(double t) const {
        const double u = 1 - t;
        return y0 * (1 + 2 * t) * u * u + y1 * t * t * (3 - 2 * t) + h * t * u * (m0 * u - m1 * t);
    }
    /// Smallest and largest value on the segment, from the roots of the derivative.
    std::pair<double, double> range() const {
        const double c1 = h * m0, c2 = 3 * (y1 - y0) - h * (2 * m0 + m1), c3 = 2 * (y0 - y1) + h * (m0 + m1);
        std::pair<double, double> r = std::minmax(y0, y1);
        const auto consider = [&](double t) {
            if (t > 0 && t < 1) r = {std::min(r.first, at(t)), std::max(r.second, at(t))};
        };
        if (c3 == 0) {
            if (c2 != 0) consider(-c1 / (2 * c2));
            return r;
        }
        const double d = c2 * c2 - 3 * c1 * c3;
        if (d < 0) return r;
        consider((-c2 + std::sqrt(d)) / (3 * c3));
        consider((-c2 - std::sqrt(d)) / (3 * c3));
        return r;
    }
};

bool collinear(const std::vector<double>& x, const std::vector<double>& r, std::size_t middle) {
    const double t = (x[middle] - x[middle - 1]) / (x[middle + 1] - x[middle - 1]);
    return std::abs(r[middle] - ((1 - t) * r[middle - 1] + t * r[middle + 1])) <= kCollinear_mm;
}

}  // namespace

Result<SquaredRadius> SquaredRadius::through(const std::vector<double>& x, const std::vector<double>& radii) {
    // In one piece: the slopes of one curve, its ends and its check.
    const std::size_t n = x.size();
    std::vector<double> squares(n);
    for (std::size_t i = 0; i < n; ++i) squares[i] = radii[i] * radii[i];

    std::vector<bool> straight(n - 1, n == 2);
    for (std::size_t i = 1; i + 1 < n; ++i) {
        if (collinear(x, radii, i)) straight[i - 1] = straight[i] = true;
    }

    std::vector<double> slopes(n, 0.0);
    if (n >= 3) slopes = parabolicSlopes(x, squares);
    const auto segment = [&](std::size_t i) {
        return Hermite{squares[i], squares[i + 1], slopes[i], slopes[i + 1], x[i + 1] - x[i]};
    };
    std::vector<bool> damped(n, false);
    for (std::size_t i = 0; i + 1 < n; ++i) {
        if (straight[i]) continue;
        const auto [low, high] = segment(i).range();
        if (low < 0.25 * std::min(squares[i], squares[i + 1]) ||
            high > 1.5 * std::max(squares[i], squares[i + 1])) {
            damped[i] = damped[i + 1] = true;
        }
    }
    for (std::size_t i = 0; i < n; ++i) {
        if (damped[i]) slopes[i] = monotoneSlope(x, squares, i);
    }

    SquaredRadius result;
    result.cubics_.resize(n - 1);
    for (std::size_t i = 0; i + 1 < n; ++i) {
        Cubic& c = result.cubics_[i];
        const bool fromRight = radii[i + 1] == 0;
        const std::size_t origin = fromRight ? i + 1 : i, other = fromRight ? i : i + 1;
        const double h = x[i + 1] - x[i];
        c.from_mm = x[origin];
        c.sign = fromRight ? -1 : 1;
        if (straight[i]) {
            const double slope = (radii[other] - radii[origin]) / h;
            c.a[0] = squares[origin];
            c.a[1] = 2 * radii[origin] * slope;
            c.a[2] = slope * slope;
            c.a[3] = 0;
            c.order = radii[origin] == 0 ? 2 : 0;
            continue;
        }
        const double m0 = c.sign * slopes[origin], m1 = c.sign * slopes[other];
        const double rise = (squares[other] - squares[origin]) / h;
        c.a[0] = squares[origin];
        c.a[1] = m0;
        c.a[2] = (3 * rise - 2 * m0 - m1) / h;
        c.a[3] = (m0 + m1 - 2 * rise) / (h * h);
        c.order = radii[origin] == 0 ? 1 : 0;
        const bool closedEndWrong = c.order == 1 && !(c.a[1] > 0);
        const double lowest = Hermite{squares[origin], squares[other], m0, m1, h}.range().first;
        if (closedEndWrong || lowest < 0 || (lowest == 0 && c.order == 0)) {
            return Error{"no_skin",
                         NINE_WORDS("core", "The outline through these readings would cross the axis."),
                         std::to_string(i)};
        }
    }
    return result;
}

SquaredRadius::Value SquaredRadius::at(std::size_t segment, double x) const {
    const Cubic& c = cubics_[segment];
    const double t = c.sign * (x - c.from_mm);
    return {c.a[0] + t * (c.a[1] + t * (c.a[2] + t * c.a[3])),
            c.sign * (c.a[1] + t * (2 * c.a[2] + t * 3 * c.a[3]))};
}

SquaredRadius::Value SquaredRadius::reduced(std::size_t segment, double x) const {
    const Cubic& c = cubics_[segment];
    const double t = c.sign * (x - c.from_mm);
    double value = 0, slope = 0;
    for (int k = 3; k >= c.order; --k) {
        slope = slope * t + value;
        value = value * t + c.a[k];
    }
    return {value, c.sign * slope};
}

Result<Loft> Loft::through(const std::vector<Station>& stations) {
    Loft loft;
    loft.stations_ = stations;
    std::vector<double> x, width, top, bottom;
    for (const Station& s : stations) {
        x.push_back(s.x_mm);
        width.push_back(s.halfWidth_mm);
        top.push_back(s.top_mm);
        bottom.push_back(s.bottom_mm);
    }
    const struct {
        const std::vector<double>& radii;
        SquaredRadius& target;
        const char* field;
    } parts[] = {{width, loft.width_, "half_width_mm"},
                 {top, loft.top_, "top_mm"},
                 {bottom, loft.bottom_, "bottom_mm"}};
    for (const auto& part : parts) {
        Result<SquaredRadius> squared = SquaredRadius::through(x, part.radii);
        if (!squared) {
            const std::string index = squared.error().where;
            return Error{
                "no_skin",
                Words(NINE_WORDS("core",
                                 "The outline of {field} would cross the axis after station {index}; "
                                 "check that reading and its neighbours, or add one between."))
                    .name("field", part.field)
                    .number("index", std::stoul(index) + 1, 0),
                "blank.stations[" + index + "]." + part.field};
        }
        part.target = *squared;
    }
    return loft;
}

std::size_t Loft::segmentAt(double x) const {
    const auto above = std::upper_bound(stations_.begin() + 1, stations_.end() - 1, x,
                                        [](double value, const Station& s) { return value < s.x_mm; });
    return static_cast<std::size_t>(above - stations_.begin()) - 1;
}

Section Loft::sectionAt(double x) const {
    const std::size_t i = segmentAt(x);
    const auto root = [&](const SquaredRadius& r) { return std::sqrt(std::max(0.0, r.at(i, x).square_mm2)); };
    return {root(width_), root(top_), root(bottom_), profileAt(x, true).exponent,
            profileAt(x, false).exponent};
}

Loft::Profile Loft::profileAt(double x, bool upper) const {
    // Beyond the ends the section keeps its shape and the square goes on along its tangent.
    const double inside = std::clamp(x, noseX_mm(), tailX_mm());
    const std::size_t i = segmentAt(inside);
    const SquaredRadius& height = upper ? top_ : bottom_;
    const SquaredRadius::Value w = width_.at(i, inside);
    Profile p;
    p.square_mm2 = w.square_mm2 + w.slope_mm * (x - inside);
    p.squareSlope_mm = w.slope_mm;
    // With different orders at a pole (a wedge) the ratio has no limit; then the plain quotient is used.
    const bool reduce = width_.order(i) == height.order(i);
    const SquaredRadius::Value num = reduce ? width_.reduced(i, inside) : w;
    const SquaredRadius::Value den = reduce ? height.reduced(i, inside) : height.at(i, inside);
    p.ratio = den.square_mm2 > 0 ? num.square_mm2 / den.square_mm2 : 1.0;
    p.ratioSlope_1_mm = den.square_mm2 > 0 ? (num.slope_mm - p.ratio * den.slope_mm) / den.square_mm2 : 0.0;

    const Station& a = stations_[i];
    const Station& b = stations_[i + 1];
    const double ea = upper ? a.section : a.sectionLower, eb = upper ? b.section : b.sectionLower;
    p.exponentSlope_1_mm = (eb - ea) / (b.x_mm - a.x_mm);
    p.exponent = ea + p.exponentSlope_1_mm * (inside - a.x_mm);
    if (inside != x) p.ratioSlope_1_mm = p.exponentSlope_1_mm = 0;
    return p;
}

}  // namespace nine
