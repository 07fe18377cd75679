#include "job/recipe_job.h"

#include <algorithm>
#include <cmath>

#include "base/parallel.h"
#include "job/net_job.h"
#include "job/net_picture.h"

namespace nine {
namespace {

constexpr std::uint32_t kBlack = 0xFF000000, kWhite = 0xFFFFFFFF;

class Coverer {
  public:
    Coverer(const Job& job, Derivations& derived, RecipeOnBody& on, Fineness fineness, const Task& task)
        : job_(job), derived_(derived), on_(on), fineness_(fineness), task_(task) {}

    std::shared_ptr<const Cover> of(const Step& step) {
        const Where& where = step.where;
        switch (where.reaches) {
            case Reaches::Everything: {
                auto cover = std::make_shared<Cover>();
                cover->share.assign(on_.raster.places(), 1.f);
                return cover;
            }
            case Reaches::Fade:
            case Reaches::HeldOff:
                return faded(where);
            case Reaches::Element:
                return painted({where.of}, true, true, 0, false);
            case Reaches::Windows:
            case Reaches::Negatives:
                return masked(step);
            case Reaches::Net:
            case Reaches::Grazing:
                return netted(where);
        }
        return nullptr;
    }

  private:
    std::shared_ptr<const Cover> faded(const Where& where) const {
        auto cover = std::make_shared<Cover>();
        cover->thins = true;
        cover->share.resize(on_.raster.places());
        const Landmarks& landmarks = job_.get<BlankChapter>().landmarks;
        const auto columns = static_cast<std::size_t>(on_.raster.columns);
        forEachInParallel(static_cast<std::size_t>(on_.raster.rows), [&](std::size_t row) {
            const double v = on_.raster.rows > 1 ? static_cast<double>(row) / (on_.raster.rows - 1) : 0;
            const SectionArc arc = on_.skin->arcAt(on_.body.skinAt({0.0, v}).x_mm);
            for (std::size_t c = 0; c < columns; ++c) {
                const SkinPoint p =
                    on_.body.skinAt({(static_cast<double>(c) + 0.5) / static_cast<double>(columns), v});
                cover->share[row * columns + c] =
                    static_cast<float>(fadeAt(where, *on_.skin, landmarks, arc, {p.x_mm, p.g_mm}));
            }
        });
        return cover;
    }

    /// Of marks, as they are painted in white on black.
    std::shared_ptr<const Cover> painted(const std::vector<std::string>& ids, bool left, bool right,
                                         std::size_t pass, bool onlyThatPass) {
        const PatternChapter& pattern = job_.get<PatternChapter>();
        std::vector<ArtPtr> held;
        std::vector<PaintedArt> art;
        bool soft = false;
        for (std::size_t i = 0; i < pattern.elements.size(); ++i) {
            const Element& element = *pattern.elements[i];
            if (std::find(ids.begin(), ids.end(), element.id) == ids.end()) continue;
            const auto drawn = [&](Side side) {
                return fineness_ == Fineness::Cut ? derived_.art(job_, i, side, task_)
                                                  : derived_.artAtAGlance(job_, i, side, task_);
            };
            const Result<ArtPtr> own = drawn(Side::Left);
            if (!own) {
                if (own.error().code != "cancelled") on_.warnings.push_back(own.error());
                continue;
            }
            held.push_back(*own);
            const ElementArt* other = nullptr;
            if (derived_.differsBySide(job_, i))
                if (const Result<ArtPtr> twin = drawn(Side::Right)) {
                    held.push_back(*twin);
                    other = twin->get();
                }
            const std::size_t from = art.size();
            addPainted(art, element, i, **own, other);
            const std::size_t passes = (*own)->passes.size();
            if (onlyThatPass && passes > 0) {
                const std::size_t wanted = std::min(pass, passes - 1);
                std::vector<PaintedArt> kept;
                for (std::size_t k = from; k < art.size(); ++k)
                    if ((k - from) % passes == wanted) kept.push_back(art[k]);
                art.resize(from);
                art.insert(art.end(), kept.begin(), kept.end());
            }
            soft = soft || !element.isCut();
        }
        for (PaintedArt& a : art) {
            a.colour = kWhite;
            a.left = a.left && left;
            a.right = a.right && right;
        }
        if (art.empty()) return nullptr;
        auto cover = coverOf(
            paintSkin(on_.body, {kBlack, kBlack, kBlack}, art, on_.raster.columns, on_.raster.rows, 2));
        cover->thins = soft;
        return cover;
    }

    static std::shared_ptr<Cover> coverOf(const Image& image) {
        auto cover = std::make_shared<Cover>();
        cover->share.reserve(image.pixels.size());
        for (const std::uint32_t pixel : image.pixels)
            cover->share.push_back(static_cast<float>(pixel & 0xFF) / 255.f);
        return cover;
    }

    std::shared_ptr<const Cover> masked(const Step& step) {
        const Where& where = step.where;
        // White under a colour goes through the same windows as that colour.
        const std::size_t pass = step.act == Act::Base ? passes_[where.of] : passes_[where.of]++;
        bool left = false, right = false;
        std::vector<std::string> elements;
        // A step on one of two twin masks is for both sides.
        for (const MaskFact& mask : recipeFacts(job_).masks)
            if (mask.id == where.of || mask.twin == where.of) {
                elements = mask.elements;
                left = !mask.right || !mask.twin.empty();
                right = mask.right || !mask.twin.empty();
            }
        if (elements.empty()) return nullptr;
        const auto windows = painted(elements, left, right, pass, true);
        if (!windows || where.reaches == Reaches::Windows) return windows;
        auto rest = std::make_shared<Cover>();
        for (const float share : windows->share) rest->share.push_back(1 - share);
        return rest;
    }

    std::shared_ptr<const Cover> netted(const Where& where) {
        if (!job_.get<ScalesChapter>().net) return nullptr;
        if (!net_) {
            const Result<NetOnBody> laid = netOnBody(job_, *on_.skin, kDrapePreview_mm, {}, task_);
            if (!laid) {
                if (laid.error().code != "cancelled") on_.warnings.push_back(laid.error());
                return nullptr;
            }
            const ScalesChapter& s = job_.get<ScalesChapter>();
            Image black{on_.raster.columns, on_.raster.rows,
                        std::vector<std::uint32_t>(on_.raster.places(), kBlack)};
            net_ =
                coverOf(netSprayed(black, on_.body, *on_.skin, *laid->drape, s.doubled, s.second, kWhite, 1));
        }
        if (where.reaches == Reaches::Net) return net_;
        // Grazing from one side: what comes at that slant falls off round the body.
        const auto side = faded({Reaches::Fade, where.of, where.from, where.reach_mm, where.soft_mm});
        auto cover = std::make_shared<Cover>(*net_);
        for (std::size_t p = 0; p < cover->share.size(); ++p) cover->share[p] *= side->share[p];
        return cover;
    }

    const Job& job_;
    Derivations& derived_;
    RecipeOnBody& on_;
    Fineness fineness_;
    const Task& task_;
    std::map<std::string, std::size_t> passes_;  ///< sprayed so far through each mask
    std::shared_ptr<const Cover> net_;
};

/// Skin of a place in each row of the raster, mm2: above the datum line and below it, where columns are
/// quarters of other arcs.
struct RowAreas {
    double above_mm2, below_mm2;
};
std::vector<RowAreas> areasOf(const RecipeOnBody& on) {
    std::vector<RowAreas> rows;
    const int n = on.raster.rows;
    for (int r = 0; r < n; ++r) {
        const auto xAt = [&](double at) {
            return on.body.skinAt({0.0, std::clamp(at / std::max(1, n - 1), 0.0, 1.0)}).x_mm;
        };
        const double x0 = xAt(r - 0.5), x1 = xAt(r + 0.5);
        const SectionArc from = on.skin->arcAt(x0), to = on.skin->arcAt(x1), here = on.skin->arcAt(xAt(r));
        // Along the skin, not the axis: the mean of three lines of it.
        const auto along = [&](bool above) {
            double sum = 0;
            for (const Fraction share : {0.0, 0.5, 1.0}) {
                const auto at = [&](const SectionArc& arc, double x) {
                    const double g = above ? share * arc.backArc_mm() : -share * arc.bellyArc_mm();
                    return on.skin->at({Side::Left, x, g}).position;
                };
                sum += (at(from, x0) - at(to, x1)).norm() / 3;
            }
            return sum;
        };
        const double quarter = 4.0 / on.raster.columns;
        rows.push_back(
            {along(true) * here.backArc_mm() * quarter, along(false) * here.bellyArc_mm() * quarter});
    }
    return rows;
}

}  // namespace

Fraction fadeAt(const Where& where, const Skin& skin, const Landmarks& landmarks, const SectionArc& arc,
                const SkinPlace& place) {
    double far = 0;
    switch (where.from) {
        case FadeFrom::Back:
            far = arc.backArc_mm() - place.y();
            break;
        case FadeFrom::Belly:
            far = place.y() + arc.bellyArc_mm();
            break;
        case FadeFrom::Nose:
            far = place.x() - skin.noseX_mm();
            break;
        case FadeFrom::Tail:
            far = skin.tailX_mm() - place.x();
            break;
        case FadeFrom::Landmark: {
            const auto found = landmarks.find(where.of);
            if (found == landmarks.end() || found->second.points.empty()) return 0;
            far = 1e9;
            for (const Vec2& p : found->second.points) far = std::min(far, (p - place).norm());
        }
    }
    const Ratio t =
        std::clamp((where.reach_mm + 0.5 * where.soft_mm - far) / std::max(where.soft_mm, 1e-6), 0.0, 1.0);
    return t * t * (3 - 2 * t);
}

Result<RecipeOnBody> recipeOnBody(const Job& job, Derivations& derived, const SkinRaster& raster,
                                  Fineness fineness, const Task& task) {
    const Result<SkinPtr> skin = derived.skin(job);
    if (!skin) return skin.error();
    const LayersChapter& layers = job.get<LayersChapter>();
    RecipeOnBody on{*skin, drawBody(**skin), raster, {}, 0, {}, paletteOf(layers.paints), {}, {}};
    Coverer coverer(job, derived, on, fineness, task);
    const std::vector<RowAreas> rows = areasOf(on);
    const auto areaOf = [&](std::size_t place) {
        const auto columns = static_cast<std::size_t>(raster.columns);
        const RowAreas& row = rows[place / columns];
        return 2 * (place % columns) < columns ? row.above_mm2 : row.below_mm2;
    };
    for (std::size_t p = 0; p < raster.places(); ++p) on.skin_mm2 += areaOf(p);
    for (const Step& step : layers.recipe.steps) {
        if (task.cancelled()) return Task::cancelledError();
        on.covers.push_back(step.on && paints(step.act) ? coverer.of(step) : nullptr);
        double area = 0;
        if (on.covers.back())
            for (std::size_t p = 0; p < raster.places(); ++p) area += on.covers.back()->share[p] * areaOf(p);
        on.areas_mm2.push_back(area);
    }
    Result<Painted> done =
        painted(layers.recipe.steps, on.palette, on.covers, raster.places(), recipeFacts(job).blank, task);
    if (!done) return done.error();
    on.painted = std::move(*done);
    return on;
}

Image colourAfter(const RecipeOnBody& on, const Job& job, std::optional<std::size_t> step) {
    const auto& steps = job.get<LayersChapter>().recipe.steps;
    const Dullness dull = step ? dullnessAfter(steps, *step) : kMatt;
    std::vector<std::uint32_t> colours;
    colours.reserve(on.painted.states.size());
    for (const Coated& state : on.painted.states) colours.push_back(shown(srgbOf(state, dull)));
    Image image{on.raster.columns, on.raster.rows, {}};
    image.pixels.reserve(on.raster.places());
    const std::vector<std::uint32_t>& states =
        step && *step < on.painted.after.size() ? *on.painted.after[*step].state : on.painted.bare;
    for (const std::uint32_t state : states) image.pixels.push_back(colours[state]);
    return image;
}

namespace {

/// The paints its steps name, from the shelf where the job does not have them yet.
void takePaints(LayersChapter& layers, const std::vector<Bottle>& shelf) {
    for (const Step& step : layers.recipe.steps)
        for (const MixPart& part : step.paint)
            if (const Bottle* b = findBottle(shelf, part.bottle); b && !findBottle(layers.paints, b->id))
                layers.paints.push_back(*b);
}

}  // namespace

Result<Job> withRepairs(const Job& job, Derivations& derived, const std::vector<Bottle>& shelf,
                        const Task& task) {
    constexpr int kMostRounds = 12;
    Job next = job;
    for (int round = 0; round < kMostRounds; ++round) {
        const Result<RecipeOnBody> on = recipeOnBody(next, derived, {128, 96}, Fineness::Glance, task);
        if (!on) return on.error();
        LayersChapter layers = next.get<LayersChapter>();
        const Recipe before = layers.recipe;
        // Steps are named by id, so one repair does not move another's; what two would mend is mended once.
        std::vector<std::string> done;
        for (const RuleFinding& finding : findingsOf(next, *on)) {
            if (finding.repair.plain().empty() ||
                std::find(done.begin(), done.end(), finding.step) != done.end())
                continue;
            layers.recipe = mended(std::move(layers.recipe), finding, recipeFacts(next, shelf));
            done.push_back(finding.step);
        }
        if (layers.recipe == before) break;
        takePaints(layers, shelf);
        next = next.with(std::move(layers));
    }
    return next;
}

Result<Job> withBegunRecipe(const Job& job, Derivations& derived, const std::vector<Bottle>& shelf,
                            School school, const Task& task) {
    // Not from paints that only stand for the colours of the design.
    LayersChapter layers = job.get<LayersChapter>();
    std::erase_if(layers.paints, [](const Bottle& b) { return isColourOnly(b); });
    Result<Recipe> recipe = beginRecipe(recipeFacts(job.with(layers), shelf), school, task);
    if (!recipe) return recipe.error();
    layers.recipe = std::move(*recipe);
    layers.school = school;
    takePaints(layers, shelf);
    return withRepairs(job.with(std::move(layers)), derived, shelf, task);
}

std::vector<RuleFinding> findingsOf(const Job& job, const RecipeOnBody& on) {
    const LayersChapter& layers = job.get<LayersChapter>();
    const RecipeFacts facts = recipeFacts(job);
    return checkRecipe({layers.recipe, facts, overWhat(on.painted, on.covers, layers.recipe.steps)},
                       layers.severities);
}

}  // namespace nine
