#include "mask/card_steps.h"

#include <algorithm>
#include <cmath>

#include "geom/borders.h"

namespace nine {
namespace {

std::vector<const Window*> inOrder(const Sheet& sheet) {
    std::vector<const Window*> all;
    for (const Window& window : sheet.windows) all.push_back(&window);
    std::sort(all.begin(), all.end(), [](const Window* a, const Window* b) { return a->number < b->number; });
    return all;
}

/// The rigid motion that takes `from` nearest to `to`, pair by pair; one pair is only shifted.
struct Motion {
    double turn_rad = 0;
    Vec2 from = Vec2::Zero(), to = Vec2::Zero();
    Vec2 operator()(const Vec2& p) const {
        const Vec2 d = p - from;
        const double c = std::cos(turn_rad), s = std::sin(turn_rad);
        return to + Vec2(c * d.x() - s * d.y(), s * d.x() + c * d.y());
    }
};
Motion bestMotion(const std::vector<Vec2>& from, const std::vector<Vec2>& to) {
    Motion motion;
    const auto n = static_cast<double>(from.size());
    for (const Vec2& p : from) motion.from += p / n;
    for (const Vec2& p : to) motion.to += p / n;
    double along = 0, across = 0;
    for (std::size_t i = 0; i < from.size(); ++i) {
        const Vec2 a = from[i] - motion.from, b = to[i] - motion.to;
        along += a.dot(b);
        across += a.x() * b.y() - a.y() * b.x();
    }
    if (from.size() > 1) motion.turn_rad = std::atan2(across, along);
    return motion;
}

}  // namespace

Result<std::vector<CardStep>> cardSteps(const Skin& skin, const Landmarks& landmarks, const SheetPlan& plan,
                                        const Sheet& card, double strainLimit, int vertices,
                                        const std::string& where, const Task& task) {
    const std::vector<const Window*> own = inOrder(card);
    std::vector<CardStep> steps;
    for (const std::shared_ptr<const SheetPlan>& place : plan.laidAt) {
        const Result<Mask> there =
            cutSheets(skin, landmarks, {*place}, strainLimit, vertices, Precision::Exact, where, task);
        if (!there) return there.error();
        const std::vector<const Window*> drawn = inOrder(there->sheets.front());
        const std::size_t count = std::min(own.size(), drawn.size());
        if (count == 0) continue;
        std::vector<Vec2> from, to;
        for (std::size_t i = 0; i < count; ++i) {
            from.emplace_back(drawn[i]->centre);
            to.emplace_back(own[i]->centre);
        }
        const Motion motion = bestMotion(from, to);
        double off = 0;
        for (std::size_t i = 0; i < count; ++i) {
            const Borders rim({own[i]->outline});
            for (const Vec2& p : drawn[i]->outline) off = std::max(off, rim.distance_mm(motion(p)));
        }
        steps.push_back(
            {static_cast<int>(steps.size()) + 1, drawn.front()->skin, static_cast<int>(count), off});
    }
    return steps;
}

void warnOfMisfit(const std::vector<CardStep>& steps, const std::string& where, Warnings& warnings) {
    const auto worst = std::max_element(
        steps.begin(), steps.end(), [](const CardStep& a, const CardStep& b) { return a.off_mm < b.off_mm; });
    if (worst == steps.end() || worst->off_mm <= kSeen_mm) return;
    warnings.push_back(
        {"card_misfit",
         Words(NINE_WORDS("core",
                          "Laid for the {step}. time the card's windows are up to {off} off what is "
                          "drawn there, which is seen. Its marks differ too much for one card: make "
                          "them alike, or lay it fewer times."))
             .number("step", worst->number, 0)
             .length("off", worst->off_mm, 1),
         where});
}

}  // namespace nine
