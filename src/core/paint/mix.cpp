#include "paint/mix.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace nine {
namespace {

/// Adds a share of a paint to a sum for one micrometre of film.
void add(Sprayable& sum, const Sprayable& paint, Fraction share) {
    const Ratio each = share / paint.wet_um;
    for (std::size_t i = 0; i < kBands; ++i) {
        sum.film.body.k[i] += each * paint.film.body.k[i];
        sum.film.body.s[i] += each * paint.film.body.s[i];
        sum.film.face[i] += each * paint.film.flakeCover * paint.film.face[i];
        sum.film.side[i] += each * paint.film.flakeCover * paint.film.side[i];
    }
    sum.film.flakeCover += each * paint.film.flakeCover;
    sum.film.lobe_deg += each * paint.film.flakeCover * paint.film.lobe_deg;
    sum.film.glow_nm += share * paint.film.glow * paint.film.glow_nm;
    sum.film.glow += share * paint.film.glow;
    sum.wet_um += share * paint.wet_um;
    sum.solids += share * paint.solids;
}

/// From sums for one micrometre to one reference coat.
void finish(Sprayable& sum) {
    const Ratio cover = sum.film.flakeCover;
    for (std::size_t i = 0; i < kBands; ++i) {
        sum.film.body.k[i] *= sum.wet_um;
        sum.film.body.s[i] *= sum.wet_um;
        if (cover > 0) {
            sum.film.face[i] /= cover;
            sum.film.side[i] /= cover;
        }
    }
    sum.film.lobe_deg = cover > 0 ? sum.film.lobe_deg / cover : 20;
    if (sum.film.glow > 0) sum.film.glow_nm /= sum.film.glow;
    sum.film.flakeCover *= sum.wet_um;
}

Sprayable nothing() {
    Sprayable sum;
    sum.film.lobe_deg = sum.wet_um = sum.solids = 0;
    return sum;
}

using Ratios = std::vector<std::array<int, 3>>;

/// Whole drops without a common divisor, kMostDrops at most; `bottles` of them not 0.
Ratios ratiosOf(int bottles) {
    Ratios all;
    for (int a = 1; a <= kMostDrops; ++a)
        for (int b = bottles > 1 ? 1 : 0; b <= (bottles > 1 ? kMostDrops - a : 0); ++b)
            for (int c = bottles > 2 ? 1 : 0; c <= (bottles > 2 ? kMostDrops - a - b : 0); ++c)
                if (std::gcd(std::gcd(a, b), c) == 1) all.push_back({a, b, c});
    return all;
}

class Finder {
  public:
    Finder(const Palette& palette, const Wanted& wanted) : palette_(palette), wanted_(wanted) {}
    std::size_t size() const { return palette_.paints.size(); }

    struct Candidate {
        std::array<std::size_t, 3> bottle{};
        std::array<int, 3> drops{};
        Figure difference = 1e300;
    };

    /// The difference, or more than `most` where it cannot be less than that.
    Figure judged(const std::array<std::size_t, 3>& bottle, const std::array<int, 3>& drops,
                  Figure most) const {
        Sprayable sum = nothing();
        const Ratio all = drops[0] + drops[1] + drops[2];
        for (std::size_t k = 0; k < 3; ++k)
            if (drops[k] > 0) add(sum, palette_.paints[bottle[k]], drops[k] / all);
        finish(sum);
        const Lab seen = labOver(sum.film);
        // Lightness alone: the formula's weight of it is at most 1.75.
        constexpr Figure kMostWeight = 1.76;
        if (std::abs(seen.l - wanted_.colour.l) > kMostWeight * most) return 1e300;
        return difference(seen, wanted_.colour);
    }
    void tryAt(Candidate& best, const std::array<std::size_t, 3>& bottle,
               const std::array<int, 3>& drops) const {
        const Figure d = judged(bottle, drops, best.difference);
        if (d < best.difference) best = {bottle, drops, d};
    }
    FoundMix mixOf(const Candidate& c) const {
        FoundMix mix;
        std::vector<std::pair<const Sprayable*, Ratio>> parts;
        for (std::size_t k = 0; k < 3; ++k)
            if (c.drops[k] > 0) {
                mix.parts.push_back({palette_.ids[c.bottle[k]], static_cast<Ratio>(c.drops[k])});
                parts.emplace_back(&palette_.paints[c.bottle[k]], static_cast<Ratio>(c.drops[k]));
            }
        mix.colour = labOver(mixed(parts).film);
        mix.difference = c.difference;
        return mix;
    }

  private:
    Lab labOver(const Film& film) const {
        if (film.glow > 0 || film.flakeCover > 0)
            return labOf(under(bare(wanted_.ground), film, wanted_.coats), wanted_.dull);
        return labOf(xyzOf(lookOf(reflected(film.body, wanted_.coats, wanted_.ground), wanted_.dull)));
    }

    const Palette& palette_;
    const Wanted& wanted_;
};

/// What is offered of the best of one, two and three bottles.
NearestMixes offeredOf(const Finder& finder, const std::array<Finder::Candidate, 3>& best) {
    constexpr Figure kWithin = 1;
    NearestMixes nearest;
    for (const Finder::Candidate& candidate : best)
        if (candidate.difference < 1e200 &&
            (nearest.found.empty() || candidate.difference < nearest.found.back().difference - 1e-9))
            nearest.found.push_back(finder.mixOf(candidate));
    while (!nearest.found.empty() &&
           nearest.found[nearest.offered].difference > nearest.found.back().difference + kWithin)
        ++nearest.offered;
    return nearest;
}

}  // namespace

Sprayable sprayableOf(const Bottle& bottle) {
    const std::optional<PaintFamily> family = findPaint(bottle.family);
    return {filmOf(bottle).film, colourOfFamily(bottle.family, bottle.glow_nm).wet_um,
            family ? family->solids : 0.3};
}

Sprayable mixed(const std::vector<std::pair<const Sprayable*, Ratio>>& parts) {
    Ratio all = 0;
    for (const auto& [paint, drops] : parts) all += drops;
    Sprayable sum = nothing();
    for (const auto& [paint, drops] : parts) add(sum, *paint, drops / all);
    finish(sum);
    return sum;
}

Palette paletteOf(const std::vector<Bottle>& shelf) {
    Palette palette;
    for (const Bottle& bottle : shelf) {
        palette.ids.push_back(bottle.id);
        palette.paints.push_back(sprayableOf(bottle));
    }
    return palette;
}

const Sprayable* Palette::find(std::string_view id) const {
    const auto found = std::find(ids.begin(), ids.end(), id);
    return found == ids.end() ? nullptr : &paints[static_cast<std::size_t>(found - ids.begin())];
}

Result<Sprayable> mixed(const Palette& palette, const std::vector<MixPart>& parts, const std::string& where) {
    std::vector<std::pair<const Sprayable*, Ratio>> shares;
    Ratio all = 0;
    for (const MixPart& part : parts) {
        const Sprayable* paint = palette.find(part.bottle);
        if (!paint)
            return Error{"unknown_bottle",
                         Words(NINE_WORDS("core", "There is no paint \"{paint}\" on the shelf."))
                             .name("paint", part.bottle),
                         where};
        if (!(part.drops >= 0 && part.drops <= 1000))
            return Error{"out_of_range", NINE_WORDS("core", "Drops of a paint are 0 to 1000."), where};
        shares.emplace_back(paint, part.drops);
        all += part.drops;
    }
    if (!(all > 0))
        return Error{"out_of_range", NINE_WORDS("core", "There is no paint in this mix: add a drop."), where};
    return mixed(shares);
}

Result<NearestMixes> nearestMixes(const Palette& palette, const Wanted& wanted, const Task& task) {
    // In one piece: singles, pairs, a third bottle for the best pairs, all drops for the best three.
    constexpr std::size_t kBestPairs = 40, kBestTriples = 60;
    static const Ratios two = ratiosOf(2), three = ratiosOf(3);
    constexpr std::array<std::array<int, 3>, 9> kFew{
        {{1, 1, 1}, {2, 1, 1}, {1, 2, 1}, {1, 1, 2}, {6, 3, 1}, {3, 6, 1}, {4, 4, 1}, {5, 1, 5}, {1, 5, 5}}};
    using Candidate = Finder::Candidate;
    const Finder finder(palette, wanted);
    std::array<Candidate, 3> best;
    for (std::size_t a = 0; a < finder.size(); ++a) finder.tryAt(best[0], {a, 0, 0}, {1, 0, 0});
    const auto nearer = [](const Candidate& p, const Candidate& q) { return p.difference < q.difference; };
    const auto keep = [&](std::vector<Candidate>& all, std::size_t most) {
        const std::size_t kept = std::min(most, all.size());
        std::partial_sort(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(kept), all.end(), nearer);
        all.resize(kept);
    };
    std::vector<Candidate> pairs, triples;
    for (std::size_t a = 0; a < finder.size(); ++a) {
        if (task.cancelled()) return Task::cancelledError();
        for (std::size_t b = a + 1; b < finder.size(); ++b) {
            Candidate pair;
            for (const auto& drops : two) finder.tryAt(pair, {a, b, 0}, drops);
            if (pair.difference < best[1].difference) best[1] = pair;
            pairs.push_back(pair);
        }
    }
    keep(pairs, kBestPairs);
    for (const Candidate& pair : pairs) {
        if (task.cancelled()) return Task::cancelledError();
        for (std::size_t c = 0; c < finder.size(); ++c) {
            if (c == pair.bottle[0] || c == pair.bottle[1]) continue;
            std::array<std::size_t, 3> bottles{pair.bottle[0], pair.bottle[1], c};
            std::sort(bottles.begin(), bottles.end());
            if (std::any_of(triples.begin(), triples.end(),
                            [&](const Candidate& t) { return t.bottle == bottles; }))
                continue;
            Candidate triple;
            for (const auto& drops : kFew) finder.tryAt(triple, bottles, drops);
            triple.bottle = bottles;
            triples.push_back(triple);
        }
    }
    keep(triples, kBestTriples);
    for (const Candidate& triple : triples)
        for (const auto& drops : three) finder.tryAt(best[2], triple.bottle, drops);
    return offeredOf(finder, best);
}

Result<NearestMixes> nearestByTryingAll(const Palette& palette, const Wanted& wanted) {
    const Ratios two = ratiosOf(2), three = ratiosOf(3);
    const Finder finder(palette, wanted);
    std::array<Finder::Candidate, 3> best;
    for (std::size_t a = 0; a < finder.size(); ++a) {
        finder.tryAt(best[0], {a, 0, 0}, {1, 0, 0});
        for (std::size_t b = a + 1; b < finder.size(); ++b) {
            for (const auto& drops : two) finder.tryAt(best[1], {a, b, 0}, drops);
            for (std::size_t c = b + 1; c < finder.size(); ++c)
                for (const auto& drops : three) finder.tryAt(best[2], {a, b, c}, drops);
        }
    }
    return offeredOf(finder, best);
}

}  // namespace nine
