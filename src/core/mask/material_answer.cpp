#include "mask/material_answer.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "mask/fit.h"
#include "mask/relief_grid.h"

namespace nine {
namespace {

constexpr double kTriedOn_mm = 1.5;

Result<Fraction> strainOf(const Skin& skin, const Strip& strip, const Task& task) {
    const ReliefGrid grid(skin, strip, kTriedOn_mm);
    const RestMesh rest = restMesh(grid.mesh());
    Result<FlatMap> map = conformalMap(rest, task);
    if (map) map = rigidMap(rest, std::move(*map), task);
    if (map) map = feasibleMap(rest, std::move(*map), task, Effort::Comparison);
    if (!map) return map.error();
    return strainWithin(grid.mesh(), rest, strainsOf(rest, *map));
}

/// Shares of the strip's width (lengthwise) or length at which it is parted.
Strip partOf(const Strip& strip, bool lengthwise, double from, double to) {
    if (!lengthwise) {
        const double length = strip.x1_mm - strip.x0_mm;
        return {strip.x0_mm + from * length, strip.x0_mm + to * length, strip.at};
    }
    return {strip.x0_mm, strip.x1_mm, [at = strip.at, from, to](const SectionArc& arc) {
                const Crossing c = at(arc);
                const double width = c.high_mm - c.low_mm;
                return Crossing{c.low_mm + from * width, c.low_mm + 0.5 * (from + to) * width,
                                c.low_mm + to * width};
            }};
}

/// Parts strained alike, from nose to tail or from belly to back; none when one stays above the limit.
Result<std::vector<Strip>> partsOf(const Skin& skin, const Strip& strip, bool lengthwise, int count,
                                   Fraction limit, const Task& task) {
    constexpr int kRounds = 4;
    constexpr Ratio kSteering = 0.5, kHopeless = 2;
    std::vector<double> shares(static_cast<std::size_t>(count), 1.0 / count);
    for (int round = 0; round < kRounds; ++round) {
        std::vector<Fraction> strains;
        std::vector<Strip> parts;
        double from = 0;
        for (const double share : shares) {
            parts.push_back(partOf(strip, lengthwise, from, std::min(1.0, from + share)));
            Result<Fraction> strain = strainOf(skin, parts.back(), task);
            if (!strain && strain.error().code == "cancelled") return strain.error();
            strains.push_back(strain ? std::max(*strain, 1e-6) : 10 * limit);
            from += share;
        }
        const Fraction worst = *std::max_element(strains.begin(), strains.end());
        if (worst <= limit) return parts;
        double mean = 0;
        for (const Fraction s : strains) mean += std::log(s) / count;
        if (std::exp(mean) > kHopeless * limit) break;
        for (std::size_t i = 0; i < shares.size(); ++i)
            shares[i] *= std::pow(std::exp(mean) / strains[i], kSteering);
        const double all = std::accumulate(shares.begin(), shares.end(), 0.0);
        for (double& share : shares) share /= all;
    }
    return std::vector<Strip>{};
}

}  // namespace

Result<MaterialAnswer> answerOf(const Skin& skin, const Strip& strip, Fraction limit, const ReliefWish& wish,
                                const Task& task) {
    Result<ReliefPlan> plan = planRelief(skin, strip, limit, wish, task);
    if (!plan) return plan.error();
    const ReliefGrid grid(skin, strip, kTriedOn_mm);
    const std::vector<double> curvature = grid.curvature_rad();
    const double total = std::max(std::accumulate(curvature.begin(), curvature.end(), 0.0), 1e-9);
    const double each = total / restMesh(grid.mesh()).area_mm2;
    MaterialAnswer answer{MaterialAnswer::How::Plain, std::move(*plan), {}, std::sqrt(39 * limit / each)};
    answer.sheets = {sheetOf(skin, strip)};
    if (answer.plan.lies && answer.plan.slits.empty()) return answer;
    answer.how = MaterialAnswer::How::Slits;
    const bool few = static_cast<int>(answer.plan.slits.size()) <= kMostSlitsASide;
    if (wish.exactly > 0 || (answer.plan.lies && few && answer.plan.widestMouth_mm <= kWidestMouth_mm)) {
        Result<std::vector<SheetPlan>> sheets = slitted({sheetOf(skin, strip)}, answer.plan.slits, "");
        if (!sheets) return sheets.error();
        answer.sheets = std::move(*sheets);
        return answer;
    }
    // A part cut off whole gains by its width squared; fewer than that need not be tried.
    const int first = std::max(2, static_cast<int>(std::sqrt(answer.plan.before / limit)));
    for (const bool lengthwise : {true, false}) {
        for (int count = first; count <= (lengthwise ? kMostStrips : kMostPieces); ++count) {
            Result<std::vector<Strip>> parts = partsOf(skin, strip, lengthwise, count, limit, task);
            if (!parts) return parts.error();
            if (parts->empty()) continue;
            answer.how = lengthwise ? MaterialAnswer::How::Strips : MaterialAnswer::How::Pieces;
            answer.sheets.clear();
            for (const Strip& part : *parts) answer.sheets.push_back(sheetOf(skin, part));
            return answer;
        }
    }
    answer.how = MaterialAnswer::How::Patches;
    return answer;
}

int MaterialAnswer::slits() const {
    std::size_t count = 0;
    for (const SheetPlan& sheet : sheets) count += sheet.region.slits.size();
    return static_cast<int>(count);
}

Result<MaterialAnswer> answerOfWrap(const Skin& skin, Seam seam, Fraction limit, ReliefWish wish,
                                    const Task& task) {
    const Strip whole = wrapStrip(skin, seam);
    wish.mirrored = true;
    wish.most = std::min(wish.most, kMostSlitsASide);
    if (wish.exactly > 0) return answerOf(skin, whole, limit, wish, task);
    Result<ReliefPlan> plan = planRelief(skin, whole, limit, wish, task);
    if (!plan) return plan.error();
    if (plan->lies && plan->widestMouth_mm <= kWidestMouth_mm) {
        Result<std::vector<SheetPlan>> sheets = slitted({sheetOf(skin, whole)}, plan->slits, "");
        if (!sheets) return sheets.error();
        const auto how = plan->slits.empty() ? MaterialAnswer::How::Plain : MaterialAnswer::How::Slits;
        return MaterialAnswer{how, std::move(*plan), std::move(*sheets), 0};
    }
    wish.mirrored = false;
    Result<MaterialAnswer> side = answerOf(skin, sideStrip(skin), limit, wish, task);
    if (!side) return side.error();
    const bool alone = side->how == MaterialAnswer::How::Plain || side->how == MaterialAnswer::How::Slits;
    if (alone) side->how = MaterialAnswer::How::Halves;
    return side;
}

Words answerSentence(const MaterialAnswer& answer, const SheetMaterial& material) {
    using How = MaterialAnswer::How;
    const int slits = answer.slits();
    const auto said = [&](Pattern pattern) {
        return Words(pattern)
            .words("material", material.name)
            .share("takes", material.strainLimit)
            .share("plain", answer.plan.before)
            .share("cut", answer.plan.reached)
            .number("slits", slits, 0)
            .number("pieces", static_cast<double>(answer.sheets.size()), 0)
            .length("patch", answer.patch_mm, 0);
    };
    if (answer.how == How::Plain)
        return said(NINE_WORDS(
            "core", "{material} lies in one plain sheet: it must stretch by {plain} and takes {takes}."));
    if (answer.how == How::Slits && !answer.plan.lies)
        return said(
            NINE_WORDS("core",
                       "{material} does not lie with {slits} slits either: it must stretch by {cut} and "
                       "takes {takes}."));
    if (answer.how == How::Slits)
        return said(
            NINE_WORDS("core",
                       "{material} lies with {slits} slits: it must stretch by {cut} instead of {plain} "
                       "and takes {takes}."));
    if (answer.how == How::Halves && slits == 0)
        return said(NINE_WORDS("core", "{material} lies in two halves, one a side, without a slit."));
    if (answer.how == How::Halves)
        return said(
            NINE_WORDS("core", "{material} lies in two halves, one a side, with {slits} slits together."));
    if (answer.how == How::Strips)
        return said(
            NINE_WORDS("core",
                       "{material} lies in {pieces} strips along the body, each held at its own marks; in "
                       "one it would have to stretch by {plain} and takes {takes}."));
    if (answer.how == How::Pieces)
        return said(
            NINE_WORDS("core",
                       "{material} lies in {pieces} pieces laid edge to edge; in one it would have to "
                       "stretch by {plain} and takes {takes}."));
    return said(
        NINE_WORDS("core",
                   "{material} cannot cover this in one sheet or a few: it takes {takes}. Patches of up to "
                   "{patch} lie, one for each mark; or take a softer sheet."));
}

}  // namespace nine
