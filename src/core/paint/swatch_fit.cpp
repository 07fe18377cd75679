#include "paint/swatch_fit.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>

namespace nine {
namespace {

using Vector = Eigen::VectorXd;
using Matrix = Eigen::MatrixXd;

constexpr Eigen::Index kN = static_cast<Eigen::Index>(kBands);
constexpr Figure kSpreadLnK = 1.2, kStepLnS = 0.10;
constexpr Ratio kAlike = 0.85;  // ln K of neighbouring bands
constexpr Figure kStepFace = 1.0, kSpreadFace = 2.5, kSpreadCover = 0.8;
constexpr Figure kStep = 1.5;  // longest of one unknown

Vector unknownsOf(const FilmPrior& prior) {
    Vector x(prior.sought == FilmPrior::Sought::Body ? 2 * kN : 2 * kN + 1);
    if (prior.sought == FilmPrior::Sought::Body) {
        x.head(kN).setConstant(prior.meanLnK);
        x.tail(kN).setConstant(prior.meanLnS);
    } else {
        x.head(kN).setConstant(0);
        x.tail(kN).setConstant(prior.meanLnK);
        x[kN] = std::log(prior.usual.flakeCover);
    }
    return x;
}

Film filmOf(const Vector& x, const FilmPrior& prior) {
    Film film = prior.usual;
    for (std::size_t i = 0; i < kBands; ++i) {
        const auto k = static_cast<Eigen::Index>(i);
        if (prior.sought == FilmPrior::Sought::Body) {
            film.body.k[i] = std::exp(std::clamp(x[k], -14.0, 5.0));
            film.body.s[i] = std::exp(std::clamp(x[kN + k], -14.0, 5.0));
        } else {
            constexpr Ratio kSide = 0.35;  // of the face's, until a second photo says so (guess)
            film.face[i] = 1 / (1 + std::exp(-x[k]));
            film.side[i] = kSide * film.face[i];
            film.body.k[i] = std::exp(std::clamp(x[kN + 1 + k], -14.0, 5.0));
            film.flakeCover = std::exp(std::clamp(x[kN], -8.0, 3.0));
        }
    }
    return film;
}

struct Problem {
    const std::vector<Swatch>& swatches;
    const SwatchCard& card;
    const FilmPrior& prior;
    Matrix whiten;  // of ln K

    Problem(const std::vector<Swatch>& s, const SwatchCard& c, const FilmPrior& p)
        : swatches(s), card(c), prior(p) {
        Matrix covariance(kN, kN);
        for (Eigen::Index i = 0; i < kN; ++i)
            for (Eigen::Index j = 0; j < kN; ++j)
                covariance(i, j) = kSpreadLnK * kSpreadLnK * std::pow(kAlike, std::abs(i - j));
        whiten = Eigen::LLT<Matrix>(covariance).matrixL().solve(Matrix::Identity(kN, kN));
    }

    Srgb predicted(const Film& film, const Swatch& swatch) const {
        const Coated ground = bare(evenBands(swatch.overWhite ? card.white : card.black));
        return srgbOf(under(ground, film, swatch.coats), Dullness{card.dull});
    }

    /// Steps by which a channel is off; a value at the end of the range says only that it lies beyond.
    static Figure off(Figure predicted, Figure given) {
        if (given >= 255 && predicted >= 255) return 0;
        if (given <= 0 && predicted <= 0) return 0;
        return predicted - given;
    }

    Vector residuals(const Vector& x, Figure sigma) const {
        const Film film = filmOf(x, prior);
        std::vector<double> all;
        for (const Swatch& swatch : swatches) {
            const Srgb p = predicted(film, swatch);
            all.push_back(off(p.r, swatch.seen.r) / sigma);
            all.push_back(off(p.g, swatch.seen.g) / sigma);
            all.push_back(off(p.b, swatch.seen.b) / sigma);
        }
        const auto push = [&](const Vector& v) { all.insert(all.end(), v.data(), v.data() + v.size()); };
        if (prior.sought == FilmPrior::Sought::Body) {
            push(whiten * (x.head(kN).array() - prior.meanLnK).matrix());
            push((x.segment(kN + 1, kN - 1) - x.segment(kN, kN - 1)) / kStepLnS);
            all.push_back((x.tail(kN).mean() - prior.meanLnS) / prior.spreadLnS);
        } else {
            push(whiten * (x.tail(kN).array() - prior.meanLnK).matrix());
            push((x.segment(1, kN - 1) - x.head(kN - 1)) / kStepFace);
            push(x.head(kN) / kSpreadFace);
            all.push_back((x[kN] - std::log(prior.usual.flakeCover)) / kSpreadCover);
        }
        return Eigen::Map<Vector>(all.data(), static_cast<Eigen::Index>(all.size()));
    }
};

/// Levenberg and Marquardt, from a loose reading of the swatches to a close one: starting close gets stuck.
Vector solved(const Problem& problem) {
    Vector x = unknownsOf(problem.prior);
    constexpr int kRounds = 40;
    constexpr double kSlope = 1e-5, kDone = 1e-7;
    for (const Ratio loose : {12.0, 4.0, 1.0}) {
        const Figure sigma = loose * problem.card.readTo;
        double damping = 1e-2;
        Vector r = problem.residuals(x, sigma);
        for (int round = 0; round < kRounds; ++round) {
            Matrix slopes(r.size(), x.size());
            for (Eigen::Index k = 0; k < x.size(); ++k) {
                Vector ahead = x;
                ahead[k] += kSlope;
                slopes.col(k) = (problem.residuals(ahead, sigma) - r) / kSlope;
            }
            const Matrix square = slopes.transpose() * slopes;
            const Vector down = slopes.transpose() * r;
            bool better = false;
            double gained = 0;
            while (!better && damping < 1e8) {
                Matrix damped = square;
                damped.diagonal() += damping * (square.diagonal().array() + 1e-6).matrix();
                Vector move = -damped.ldlt().solve(down);
                const double longest = move.cwiseAbs().maxCoeff();
                if (longest > kStep) move *= kStep / longest;
                const Vector next = x + move;
                const Vector there = problem.residuals(next, sigma);
                better = there.squaredNorm() < r.squaredNorm();
                if (better) {
                    gained = r.squaredNorm() - there.squaredNorm();
                    x = next;
                    r = there;
                }
                damping *= better ? 0.3 : 4;
            }
            if (!better || gained < kDone * r.squaredNorm()) break;
        }
    }
    return x;
}

}  // namespace

Status checkSwatches(const std::vector<Swatch>& swatches, const SwatchCard& card) {
    constexpr Ratio kMostCoats = 40;
    if (swatches.empty())
        return Error{"out_of_range",
                     NINE_WORDS("core", "A paint needs a swatch: one coat over white is worth most."),
                     "swatches"};
    if (!(card.white > card.black && card.white < 1 && card.black >= 0))
        return Error{"out_of_range",
                     NINE_WORDS("core", "The white half of a card must be lighter than its black half."),
                     "card"};
    for (const Swatch& s : swatches) {
        if (!(s.coats > 0 && s.coats <= kMostCoats))
            return Error{
                "out_of_range",
                Words(NINE_WORDS("core", "A swatch has {coats} coats; between 0 and 40 can be fitted."))
                    .number("coats", s.coats, 1),
                "swatches"};
        for (const Figure v : {s.seen.r, s.seen.g, s.seen.b})
            if (!(v >= 0 && v <= 255))
                return Error{"out_of_range", NINE_WORDS("core", "A swatch's colour is no colour."),
                             "swatches"};
    }
    // Nothing that lies on white is darker than the same on black.
    bool swapped = false, right = false;
    for (const Swatch& a : swatches)
        for (const Swatch& b : swatches)
            if (a.coats == b.coats && a.overWhite && !b.overWhite) {
                constexpr Figure kSeen = 3;
                const Figure by = labOf(xyzOf(linearOf(a.seen))).l - labOf(xyzOf(linearOf(b.seen))).l;
                swapped = swapped || by < -kSeen;
                right = right || by > kSeen;
            }
    if (swapped && !right)
        return Error{"swatches_swapped",
                     NINE_WORDS("core",
                                "The swatches are darker over white than over black: they were swapped, or "
                                "read off the wrong half."),
                     "swatches"};
    return Done{};
}

Result<FittedFilm> fittedFilm(const std::vector<Swatch>& swatches, const SwatchCard& card,
                              const FilmPrior& prior) {
    if (Status ok = checkSwatches(swatches, card); !ok) return ok.error();
    const Problem problem(swatches, card, prior);
    FittedFilm fitted;
    fitted.film = filmOf(solved(problem), prior);
    for (const Swatch& swatch : swatches) {
        const Srgb p = problem.predicted(fitted.film, swatch);
        for (const Figure d : {Problem::off(p.r, swatch.seen.r), Problem::off(p.g, swatch.seen.g),
                               Problem::off(p.b, swatch.seen.b)})
            fitted.misfit_steps = std::max(fitted.misfit_steps, std::abs(d));
    }
    return fitted;
}

}  // namespace nine
