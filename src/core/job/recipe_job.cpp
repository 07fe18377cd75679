#include "job/recipe_job.h"

#include <algorithm>
#include <cmath>

#include "base/parallel.h"
#include "job/finish_job.h"
#include "job/net_job.h"
#include "job/net_picture.h"
#include "pattern/fittings.h"

namespace nine {
namespace {

constexpr std::uint32_t kBlack = 0xFF000000, kWhite = 0xFFFFFFFF;

class Coverer {
  public:
    /// `before` is of the same body and marks, or null.
    Coverer(const Job& job, Derivations& derived, RecipeOnBody& on, const Task& task,
            const RecipeOnBody* before)
        : job_(job), derived_(derived), on_(on), fineness_(on.fineness), task_(task), before_(before) {}

    /// Called once for each step, in their order.
    std::optional<CoverWish> wishOf(const Step& step) {
        if (!step.on || !paints(step.act)) return std::nullopt;
        CoverWish wish{step.where};
        wish.where.unknownJson.clear();
        // White under a colour goes through the same windows as that colour.
        if (step.where.reaches == Reaches::Windows || step.where.reaches == Reaches::Negatives) {
            wish.pass = step.act == Act::Base ? passes_[step.where.of] : passes_[step.where.of]++;
            // Sharper ones are narrower than a place of the raster.
            wish.soft_mm = sprayOfMask(job_, step.where.of).soft_mm.value_or(0);
        }
        return wish;
    }

    std::shared_ptr<const Cover> of(const CoverWish& wish) {
        for (const RecipeOnBody* known : {static_cast<const RecipeOnBody*>(&on_), before_})
            for (std::size_t s = 0; known && s < known->covers.size(); ++s)
                if (known->wishes[s] == wish && known->covers[s]) return known->covers[s];
        const Where& where = wish.where;
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
                return masked(wish);
            case Reaches::Net:
            case Reaches::Grazing:
                return netted(where);
        }
        return nullptr;
    }

  private:
    /// The blank's, and a mark a fade goes round as the points of its outlines.
    Landmarks landmarksOf(const Where& where) {
        Landmarks landmarks = job_.get<BlankChapter>().landmarks;
        if (where.from != FadeFrom::Landmark || landmarks.count(where.of)) return landmarks;
        const auto& elements = job_.get<PatternChapter>().elements;
        for (std::size_t i = 0; i < elements.size(); ++i) {
            if (elements[i]->id != where.of) continue;
            const Result<ArtPtr> art = fineness_ == Fineness::Cut
                                           ? derived_.art(job_, i, Side::Left, task_)
                                           : derived_.artAtAGlance(job_, i, Side::Left, task_);
            if (!art) {
                if (art.error().code != "cancelled") on_.warnings.push_back(art.error());
                continue;
            }
            std::vector<Vec2> points;
            for (const Outline& outline : (*art)->outlines())
                points.insert(points.end(), outline.skin.begin(), outline.skin.end());
            // Every place asks every point: some hundreds are as good as all.
            constexpr std::size_t kMostPoints = 400;
            const std::size_t each = points.size() / kMostPoints + 1;
            for (std::size_t k = 0; k < points.size(); k += each)
                landmarks[where.of].points.push_back(points[k]);
        }
        return landmarks;
    }

    std::shared_ptr<const Cover> faded(const Where& where) {
        auto cover = std::make_shared<Cover>();
        cover->thins = true;
        cover->share.resize(on_.raster.places());
        const Landmarks landmarks = landmarksOf(where);
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

    std::shared_ptr<const Cover> masked(const CoverWish& wish) {
        const Where& where = wish.where;
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
        auto windows = painted(elements, left, right, wish.pass, true);
        if (windows && wish.soft_mm > 0) windows = softened(*windows, wish.soft_mm);
        if (!windows || where.reaches == Reaches::Windows) return windows;
        auto rest = std::make_shared<Cover>();
        rest->thins = windows->thins;
        for (const float share : windows->share) rest->share.push_back(1 - share);
        return rest;
    }

    /// Edges so wide: film falls off there as a normal distribution does.
    std::shared_ptr<const Cover> softened(const Cover& sharp, double width_mm) const {
        // In one piece: round the body, then along it.
        constexpr Ratio kWidthOfSigma = 2.563;  // 10 to 90 % of the normal distribution
        const double sigma_mm = width_mm / kWidthOfSigma;
        const int columns = on_.raster.columns, rows = on_.raster.rows;
        double along_mm = 0;
        for (int r = 1; r < rows; ++r) {
            const auto at = [&](int row) {
                return on_.skin->at(on_.body.skinAt({0.0, static_cast<double>(row) / (rows - 1)})).position;
            };
            along_mm += (at(r) - at(r - 1)).norm() / (rows - 1);
        }
        const auto blurred = [&](double spacing_mm, int most, const std::function<float(int)>& read) {
            const double sigma = sigma_mm / std::max(1e-6, spacing_mm);
            const int reach = std::min(most, static_cast<int>(std::ceil(3 * sigma)));
            double sum = 0, all = 0;
            for (int k = -reach; k <= reach; ++k) {
                const double w = std::exp(-0.5 * k * k / std::max(1e-9, sigma * sigma));
                sum += w * read(k);
                all += w;
            }
            return static_cast<float>(sum / all);
        };
        const auto place = [&](int row, int column) {
            return static_cast<std::size_t>(row) * static_cast<std::size_t>(columns) +
                   static_cast<std::size_t>((column % columns + columns) % columns);
        };
        std::vector<float> round(sharp.share.size());
        auto soft = std::make_shared<Cover>();
        soft->thins = true;
        soft->share.resize(sharp.share.size());
        forEachInParallel(static_cast<std::size_t>(rows), [&](std::size_t r) {
            const int row = static_cast<int>(r);
            const SectionArc arc =
                on_.skin->arcAt(on_.body.skinAt({0.0, static_cast<double>(row) / (rows - 1)}).x_mm);
            for (int c = 0; c < columns; ++c) {
                const bool above = 2 * c < columns;
                round[place(row, c)] =
                    blurred(4 * (above ? arc.backArc_mm() : arc.bellyArc_mm()) / columns, columns / 2,
                            [&](int k) { return sharp.share[place(row, c + k)]; });
            }
        });
        forEachInParallel(static_cast<std::size_t>(rows), [&](std::size_t r) {
            const int row = static_cast<int>(r);
            for (int c = 0; c < columns; ++c)
                soft->share[place(row, c)] = blurred(
                    along_mm, rows, [&](int k) { return round[place(std::clamp(row + k, 0, rows - 1), c)]; });
        });
        return soft;
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
    const RecipeOnBody* before_;
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

namespace {

std::ptrdiff_t offsetOf(std::size_t place) {
    return static_cast<std::ptrdiff_t>(place);
}

void drawEyes(RecipeOnBody& on, const Landmarks& landmarks) {
    const std::vector<EyeRing> rings = eyeRings(*on.skin, landmarks);
    if (rings.empty()) return;
    std::vector<PaintedArt> seen, hides;
    for (const EyeRing& ring : rings) {
        seen.push_back({&ring.art->outlines(), ring.colour, true, true});
        hides.push_back({&ring.art->outlines(), kWhite, true, true});
    }
    const auto drawn = [&](const std::vector<PaintedArt>& art) {
        return std::make_shared<const Image>(
            paintSkin(on.body, {kBlack, kBlack, kBlack}, art, on.raster.columns, on.raster.rows, 2));
    };
    on.eyes = drawn(seen);
    on.eyesHide = drawn(hides);
}

void addEyes(Image& image, const Image& eyes, const Image& hides) {
    for (std::size_t p = 0; p < image.pixels.size(); ++p) {
        const double left = 1 - (hides.pixels[p] & 255u) / 255.0;
        if (left >= 1) continue;
        std::uint32_t out = kBlack;
        for (const int shift : {0, 8, 16}) {
            const double value = left * (image.pixels[p] >> shift & 255u) + (eyes.pixels[p] >> shift & 255u);
            out |= static_cast<std::uint32_t>(std::min(255.0, value)) << shift;
        }
        image.pixels[p] = out;
    }
}

/// Paints that are as they were are not fitted again.
Palette paletteWith(const std::vector<Bottle>& paints, const RecipeOnBody* before) {
    if (!before) return paletteOf(paints);
    const auto& known = before->of.get<LayersChapter>().paints;
    Palette palette;
    for (const Bottle& bottle : paints) {
        const Bottle* same = findBottle(known, bottle.id);
        const Sprayable* fitted = before->palette.find(bottle.id);
        palette.ids.push_back(bottle.id);
        palette.paints.push_back(same && fitted && *same == bottle ? *fitted : sprayableOf(bottle));
    }
    return palette;
}

/// Lays the same down, over whatever is beneath.
bool lays(const Step& a, const Step& b) {
    return a.on == b.on && paints(a.act) == paints(b.act) && a.paint == b.paint && a.reducer == b.reducer &&
           a.coats == b.coats && a.mist == b.mist;
}

/// How many steps at the beginning are as they were.
std::size_t sameSteps(const RecipeOnBody& on, const RecipeOnBody& before) {
    const LayersChapter &now = on.of.get<LayersChapter>(), &then = before.of.get<LayersChapter>();
    const std::size_t most =
        std::min({now.recipe.steps.size(), then.recipe.steps.size(), before.painted.after.size()});
    const auto sameBottle = [&](const MixPart& part) {
        const Bottle *a = findBottle(now.paints, part.bottle), *b = findBottle(then.paints, part.bottle);
        return a ? b && *a == *b : !b;
    };
    std::size_t same = 0;
    for (; same < most; ++same) {
        const Step& step = now.recipe.steps[same];
        if (!lays(step, then.recipe.steps[same]) || on.covers[same] != before.covers[same] ||
            !std::all_of(step.paint.begin(), step.paint.end(), sameBottle))
            break;
    }
    return same;
}

}  // namespace

Result<RecipeOnBody> recipeOnBody(const Job& job, Derivations& derived, const SkinRaster& raster,
                                  Fineness fineness, const Task& task, const RecipeOnBody* before) {
    // In one piece: what may be used again, the covers with their areas, then the colours over them.
    const Result<SkinPtr> skin = derived.skin(job);
    if (!skin) return skin.error();
    const LayersChapter& layers = job.get<LayersChapter>();
    if (before && (before->skin != *skin || !(before->raster == raster) || before->fineness != fineness ||
                   before->of.part<PatternChapter>() != job.part<PatternChapter>() ||
                   before->of.part<MasksChapter>() != job.part<MasksChapter>() ||
                   before->of.part<SprayChapter>() != job.part<SprayChapter>() ||
                   before->of.part<ScalesChapter>() != job.part<ScalesChapter>() ||
                   before->of.part<BlankChapter>() != job.part<BlankChapter>()))
        before = nullptr;
    RecipeOnBody on;
    on.of = job;
    on.fineness = fineness;
    on.skin = *skin;
    on.raster = raster;
    on.palette = paletteWith(layers.paints, before);
    on.body = before ? before->body : drawBody(**skin);
    if (before) {
        on.eyes = before->eyes;
        on.eyesHide = before->eyesHide;
    } else {
        drawEyes(on, job.get<BlankChapter>().landmarks);
    }
    Coverer coverer(job, derived, on, task, before);
    const std::vector<RowAreas> rows = areasOf(on);
    const auto areaOf = [&](std::size_t place) {
        const auto columns = static_cast<std::size_t>(raster.columns);
        const RowAreas& row = rows[place / columns];
        return 2 * (place % columns) < columns ? row.above_mm2 : row.below_mm2;
    };
    for (std::size_t p = 0; p < raster.places(); ++p) on.skin_mm2 += areaOf(p);
    for (const Step& step : layers.recipe.steps) {
        if (task.cancelled()) return Task::cancelledError();
        on.wishes.push_back(coverer.wishOf(step));
        on.covers.push_back(on.wishes.back() ? coverer.of(*on.wishes.back()) : nullptr);
        double area = 0;
        if (on.covers.back())
            for (std::size_t p = 0; p < raster.places(); ++p) area += on.covers.back()->share[p] * areaOf(p);
        on.areas_mm2.push_back(area);
    }
    Result<Painted> done =
        painted(layers.recipe.steps, on.palette, on.covers, raster.places(), recipeFacts(job).blank, task,
                before ? PaintedBefore{&before->painted, sameSteps(on, *before)} : PaintedBefore{});
    if (!done) return done.error();
    on.painted = std::move(*done);
    return on;
}

std::size_t placeOf(const RecipeOnBody& on, const SkinPoint& skin) {
    const Vec2 at = on.body.textureOf(skin);
    const auto among = [](double share, int count) {
        return static_cast<std::size_t>(std::clamp(static_cast<int>(share * count), 0, count - 1));
    };
    const double row = at.y() * (on.raster.rows - 1) / on.raster.rows + 0.5 / on.raster.rows;
    return among(row, on.raster.rows) * static_cast<std::size_t>(on.raster.columns) +
           among(at.x(), on.raster.columns);
}

Image colourAfter(const RecipeOnBody& on, std::optional<std::size_t> step) {
    const auto& steps = on.of.get<LayersChapter>().recipe.steps;
    const Dullness dull = step ? dullnessAfter(steps, *step) : kMatt;
    std::vector<std::uint32_t> colours;
    colours.reserve(on.painted.states.size());
    for (const Coated& state : on.painted.states) colours.push_back(shown(srgbOf(state, dull)));
    Image image{on.raster.columns, on.raster.rows, {}};
    image.pixels.reserve(on.raster.places());
    const std::vector<std::uint32_t>& states =
        step && *step < on.painted.after.size() ? *on.painted.after[*step].state : on.painted.bare;
    for (const std::uint32_t state : states) image.pixels.push_back(colours[state]);
    const bool eyed =
        step && std::any_of(steps.begin(), steps.begin() + offsetOf(std::min(*step + 1, steps.size())),
                            [](const Step& s) { return s.on && s.act == Act::Eyes; });
    if (eyed && on.eyes) addEyes(image, *on.eyes, *on.eyesHide);
    return image;
}

namespace {

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
        for (const RuleFinding& finding : findingsOf(*on)) {
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
    Result<Job> begun = withRepairs(job.with(std::move(layers)), derived, shelf, task);
    if (!begun) return begun;
    // Eyes that can be bought, and go in when the paint is on.
    const Result<RecipeOnBody> on = recipeOnBody(*begun, derived, {128, 96}, Fineness::Glance, task);
    if (!on) return on.error();
    LayersChapter eyed = begun->get<LayersChapter>();
    if (const auto advice = eyesFor(*on); advice && advice->eye_mm > 0)
        for (Step& step : eyed.recipe.steps)
            if (step.act == Act::Eyes) step.eye_mm = advice->eye_mm;
    return begun->with(std::move(eyed));
}

Job withPaintsOf(const Job& job, const std::vector<Bottle>& shelf) {
    LayersChapter layers = job.get<LayersChapter>();
    takePaints(layers, shelf);
    return job.with(std::move(layers));
}

Job withRepair(const Job& job, const RuleFinding& finding, const std::vector<Bottle>& shelf) {
    LayersChapter layers = job.get<LayersChapter>();
    layers.recipe = mended(std::move(layers.recipe), finding, recipeFacts(job, shelf));
    takePaints(layers, shelf);
    return job.with(std::move(layers));
}

std::vector<RuleFinding> findingsOf(const RecipeOnBody& on) {
    const LayersChapter& layers = on.of.get<LayersChapter>();
    const RecipeFacts facts = recipeFacts(on.of);
    // Many rules ask for what is beneath the same step.
    const OverWhatAt worked = overWhat(on.painted, on.covers);
    std::vector<std::optional<std::optional<OverWhat>>> known(on.covers.size());
    const OverWhatAt over = [&](std::size_t step) -> std::optional<OverWhat> {
        if (step >= known.size()) return std::nullopt;
        if (!known[step]) known[step] = worked(step);
        return *known[step];
    };
    return checkRecipe({layers.recipe, facts, over, &on.palette}, layers.severities);
}

}  // namespace nine
