#include "mask/sticking.h"

#include <Eigen/Dense>
#include <cmath>
#include <memory>

namespace nine {
namespace {

struct LandedAll {
    std::vector<Vec3> miss;  // of each vertex
    double rms_mm;
};

Result<LandedAll> landed(const Skin& skin, const FlatPatch& flat, Laying laying, const Task& task) {
    const SheetMap drawnBy = sheetMapOf(flat);
    std::vector<HeldMark> held;
    for (const SkinPlace& mark : flat.patch.marks) {
        const SurfacePoint at = skin.at({Side::Left, mark.x(), mark.y()});
        if (const auto place = drawnBy.at(mark, at, kRimSlack_mm)) held.push_back({*place, at.position});
    }
    const Result<LaidSheet> laid =
        LaidSheet::lay(skin, flat.patch.pairedWith(flat.map), held, laying, task, flatBorders(flat));
    if (!laid) return laid.error();
    LandedAll all{{}, 0};
    for (std::size_t v = 0; v < flat.map.size(); ++v)
        all.miss.push_back(laid->at(SheetPlace(flat.map[v])) - flat.patch.mesh.vertices[v].position);
    double sum = 0, count = 0;
    const auto add = [&](std::size_t v) {
        sum += all.miss[v].squaredNorm();
        ++count;
    };
    for (const std::vector<int>& rim : flat.patch.rims)
        for (const int v : rim) add(static_cast<std::size_t>(v));
    if (count == 0)
        for (std::size_t v = 0; v < all.miss.size(); ++v) add(v);
    all.rms_mm = std::sqrt(sum / count);
    return all;
}

/// How the flat map turns small ways on the skin into ways on the sheet, at each vertex: least squares over
/// its edges.
std::vector<Eigen::Matrix<double, 2, 3>> slopesOf(const FlatPatch& flat) {
    const std::size_t n = flat.map.size();
    std::vector<Eigen::Matrix3d> squares(n, Eigen::Matrix3d::Zero());
    std::vector<Eigen::Matrix<double, 2, 3>> products(n, Eigen::Matrix<double, 2, 3>::Zero());
    for (const Triangle& t : flat.patch.mesh.triangles)
        for (std::size_t k = 0; k < 3; ++k) {
            const auto a = static_cast<std::size_t>(t[k]), b = static_cast<std::size_t>(t[(k + 1) % 3]);
            const Vec3 way = flat.patch.mesh.vertices[b].position - flat.patch.mesh.vertices[a].position;
            const Vec2 on = flat.map[b] - flat.map[a];
            for (const std::size_t v : {a, b}) {
                squares[v] += way * way.transpose();
                products[v] += on * way.transpose();
            }
        }
    std::vector<Eigen::Matrix<double, 2, 3>> slopes;
    for (std::size_t v = 0; v < n; ++v) {
        // What points off the skin does not move the sheet.
        const Vec3& normal = flat.patch.mesh.vertices[v].normal;
        const Eigen::Matrix3d whole = squares[v] + squares[v].trace() * normal * normal.transpose();
        slopes.push_back(products[v] * whole.inverse());
    }
    return slopes;
}

/// Evened out over a few mm: the lattice that lays the sheet is uneven from node to node, which no knife
/// follows.
void evenOut(std::vector<Vec2>& moves, const FlatPatch& flat) {
    constexpr double kOver_mm = 6;
    const double edge_mm = std::sqrt(flat.rest.area_mm2 / static_cast<double>(flat.map.size()));
    const int rounds = std::clamp(static_cast<int>(std::pow(kOver_mm / edge_mm, 2)), 4, 400);
    for (int round = 0; round < rounds; ++round) {
        std::vector<Vec2> sums(moves.size(), Vec2::Zero());
        std::vector<int> counts(moves.size(), 0);
        for (const Triangle& t : flat.patch.mesh.triangles)
            for (std::size_t k = 0; k < 3; ++k) {
                const auto v = static_cast<std::size_t>(t[k]);
                sums[v] += moves[static_cast<std::size_t>(t[(k + 1) % 3])] +
                           moves[static_cast<std::size_t>(t[(k + 2) % 3])];
                counts[v] += 2;
            }
        for (std::size_t v = 0; v < moves.size(); ++v)
            if (counts[v] > 0) moves[v] = 0.5 * moves[v] + 0.5 * sums[v] / counts[v];
    }
}

bool turnsOver(const FlatPatch& flat) {
    for (const PrincipalStrain& s : strainsOf(flat.rest, flat.map))
        if (!std::isfinite(s.smallest)) return true;
    return false;
}

}  // namespace

Result<Compensated> compensated(const Skin& skin, FlatPatch flat, Laying laying, const Task& task) {
    constexpr int kSteps = 6;
    constexpr double kGoodEnough_mm = 0.01;
    constexpr Ratio kBetter = 0.97;
    double damping = 0.8;
    Result<LandedAll> now = landed(skin, flat, laying, task);
    if (!now) return now.error();
    Compensated result{std::move(flat), now->rms_mm, now->rms_mm};
    // The piece stays one that the material can follow: no step may strain it much more than it was.
    const auto strained = [](const FlatPatch& f) {
        return strainWithin(f.patch.mesh, f.rest, strainsOf(f.rest, f.map));
    };
    const Fraction was = strained(result.flat), most = std::max(1.5 * was, was + 0.01);
    for (int step = 0; step < kSteps && result.after_mm > kGoodEnough_mm; ++step) {
        FlatPatch next = result.flat;
        const auto slopes = slopesOf(result.flat);
        std::vector<Vec2> moves;
        for (std::size_t v = 0; v < next.map.size(); ++v)
            moves.emplace_back(-damping * slopes[v] * now->miss[v]);
        evenOut(moves, result.flat);
        for (std::size_t v = 0; v < next.map.size(); ++v) next.map[v] += moves[v];
        Result<LandedAll> then = turnsOver(next) || strained(next) > most
                                     ? Result<LandedAll>(Error{"cannot_flatten", Words(), ""})
                                     : landed(skin, next, laying, task);
        if (!then && then.error().code == "cancelled") return then.error();
        if (!then || then->rms_mm > kBetter * result.after_mm) {
            damping *= 0.5;
            continue;
        }
        now = std::move(then);
        result.after_mm = now->rms_mm;
        result.flat = std::move(next);
    }
    result.flat.strains = strainsOf(result.flat.rest, result.flat.map);
    result.flat.strain = summarize(result.flat.rest, result.flat.strains);
    return result;
}

double handError_mm(const std::vector<Vec2>& marks, const std::vector<Vec2>& places) {
    // Each mark is off by sigma along each of two ways; of the plane's two-way error 19 in 20 lie within 1.73
    // times its root mean square.
    constexpr double kSigma_mm = 0.15, kNineteenOfTwenty = 1.73;
    if (marks.size() < 2) return 0;
    Vec2 middle = Vec2::Zero();
    for (const Vec2& m : marks) middle += m / static_cast<double>(marks.size());
    double spread = 0, worst = 0;
    for (const Vec2& m : marks) spread += (m - middle).squaredNorm();
    for (const Vec2& p : places)
        worst =
            std::max(worst, 2.0 / static_cast<double>(marks.size()) + (p - middle).squaredNorm() / spread);
    return kNineteenOfTwenty * kSigma_mm * std::sqrt(worst);
}

}  // namespace nine
