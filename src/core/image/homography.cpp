#include "image/homography.h"

#include <Eigen/SVD>
#include <cmath>

namespace nine {
namespace {

/// Moves the centroid to the origin and the mean distance to sqrt(2) (Hartley and Zisserman 4.4.4).
Eigen::Matrix3d normaliser(const std::vector<PointPair>& pairs, bool from) {
    Vec2 mean = Vec2::Zero();
    for (const PointPair& p : pairs) mean += from ? p.from : p.to;
    mean /= static_cast<double>(pairs.size());
    double spread = 0;
    for (const PointPair& p : pairs) spread += ((from ? p.from : p.to) - mean).norm();
    spread /= static_cast<double>(pairs.size());
    const double s = spread > 0 ? std::sqrt(2.0) / spread : 1;
    Eigen::Matrix3d t;
    t << s, 0, -s * mean.x(), 0, s, -s * mean.y(), 0, 0, 1;
    return t;
}

constexpr double kFlattest = 1e-9;  // singular value ratio of pairs that lie in one line

}  // namespace

Result<Homography> Homography::through(const std::vector<PointPair>& pairs) {
    const Error bad{
        "bad_points",
        NINE_WORDS("core", "Four points, no three of them in one line, fix a page; these do not."), ""};
    if (pairs.size() < 4) return bad;
    const Eigen::Matrix3d a = normaliser(pairs, true), b = normaliser(pairs, false);
    Eigen::MatrixXd rows = Eigen::MatrixXd::Zero(std::max<long>(9, 2 * static_cast<long>(pairs.size())), 9);
    for (std::size_t i = 0; i < pairs.size(); ++i) {
        const Vec3 p = a * pairs[i].from.homogeneous();
        const Vec2 q = (b * pairs[i].to.homogeneous()).hnormalized();
        const long r = 2 * static_cast<long>(i);
        rows.row(r) << 0, 0, 0, -p.transpose(), q.y() * p.transpose();
        rows.row(r + 1) << p.transpose(), 0, 0, 0, -q.x() * p.transpose();
    }
    const Eigen::JacobiSVD<Eigen::MatrixXd> svd(rows, Eigen::ComputeFullV);
    if (!(svd.singularValues()(7) > kFlattest * svd.singularValues()(0))) return bad;
    const Eigen::Matrix<double, 9, 1> h = svd.matrixV().col(8);
    Eigen::Matrix3d m;
    m << h(0), h(1), h(2), h(3), h(4), h(5), h(6), h(7), h(8);
    m = b.inverse() * m * a;
    if (!m.allFinite() || std::abs(m.determinant()) < 1e-300) return bad;
    if (m(2, 2) != 0) m /= m(2, 2);
    return Homography(m);
}

double Homography::areaRatio(const Vec2& p) const {
    const double w = matrix_.row(2).dot(p.homogeneous());
    return matrix_.determinant() / (w * w * w);
}

Vec2 Lens::bent(const Vec2& straight) const {
    if (k == 0) return straight;
    const Vec2 d = (straight - centre_px) / scale_px;
    return centre_px + scale_px * d * (1 + k * d.squaredNorm());
}

Vec2 Lens::straightened(const Vec2& bent) const {
    if (k == 0) return bent;
    const Vec2 d = (bent - centre_px) / scale_px;
    Vec2 s = d;
    for (int i = 0; i < 12; ++i) s = d / (1 + k * s.squaredNorm());  // contracts: k is a few per cent
    return centre_px + scale_px * s;
}

double PlaneView::pixelsPerMm(const Vec2& mm) const {
    return std::sqrt(std::abs(flat.areaRatio(mm)));
}

double missOf_mm(const PlaneView& view, const std::vector<PointPair>& pairs) {
    double sum = 0;
    for (const PointPair& p : pairs) sum += (view.mmOf(p.to) - p.from).squaredNorm();
    return std::sqrt(sum / static_cast<double>(pairs.size()));
}

Result<PlaneView> viewThrough(const std::vector<PointPair>& pairs, const Vec2& size_px) {
    const auto with = [&](double k) -> Result<PlaneView> {
        PlaneView view;
        view.lens = {0.5 * size_px, 0.5 * size_px.norm(), k};
        std::vector<PointPair> straight = pairs;
        for (PointPair& p : straight) p.to = view.lens.straightened(p.to);
        const Result<Homography> h = Homography::through(straight);
        if (!h) return h.error();
        view.flat = *h;
        return view;
    };
    const Result<PlaneView> plain = with(0);
    constexpr std::size_t kEnoughForLens = 6;
    if (!plain || pairs.size() < kEnoughForLens) return plain;
    // The misses are smooth in k with one valley: golden section.
    constexpr double kStrongest = 0.25, kGolden = 0.6180339887498949;
    double low = -kStrongest, high = kStrongest;
    const auto missAt = [&](double k) {
        const Result<PlaneView> view = with(k);
        return view ? missOf_mm(*view, pairs) : 1e9;
    };
    double a = high - kGolden * (high - low), b = low + kGolden * (high - low);
    double atA = missAt(a), atB = missAt(b);
    while (high - low > 1e-5) {
        if (atA < atB) {
            high = b;
            b = a;
            atB = atA;
            a = high - kGolden * (high - low);
            atA = missAt(a);
        } else {
            low = a;
            a = b;
            atA = atB;
            b = low + kGolden * (high - low);
            atB = missAt(b);
        }
    }
    const Result<PlaneView> bent = with(0.5 * (low + high));
    const double before = missOf_mm(*plain, pairs);
    // One parameter more: it must explain far more than its share of the misses (an F test). Misses of the
    // marks are small even where the lens moves what lies between them by several times as much.
    constexpr double kLeastMiss_mm = 0.012, kF = 20;
    const double after = bent ? missOf_mm(*bent, pairs) : before;
    const double freedom = 2 * static_cast<double>(pairs.size()) - 9;
    if (before > kLeastMiss_mm && (before * before - after * after) * freedom > kF * after * after)
        return bent;
    return plain;
}

}  // namespace nine
