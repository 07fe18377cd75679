// Rules of paint: what is under it, heat, rest, what dissolves it.
#include "recipe/rule_parts.h"

namespace nine {

using namespace rule_parts;

namespace {

/// A strong transparent paint that is not yet under a lock coat when the resin goes on.
Steps unlocked(const RuleView& v) {
    return those(v, [&](const Step& clear, std::size_t k) {
        const ClearKind* kind = findClear(clear.clear);
        if (!finishes(clear) || !kind || !kind->isResin) return false;
        bool strong = false, locked = false;
        v.before(k, [&](std::size_t b) {
            const Step& s = v.recipe.steps[b];
            locked = locked || s.act == Act::Lock;
            strong = strong || (!locked && paints(s.act) &&
                                anyBottle(v, s, [](const Bottle& p) { return p.wantsLock; }));
            return !locked;
        });
        return strong;
    });
}

/// What the step's own paint makes of a ground, alone in so many coats; nothing when none of it is known.
std::optional<Lab> alone(const RuleView& v, const Step& s, const Bands& ground, Ratio coats) {
    std::vector<Bottle> own;
    for (const MixPart& part : s.paint)
        if (const Bottle* b = v.palette ? nullptr : v.bottle(part.bottle)) own.push_back(*b);
    const std::optional<Sprayable> paint = paintOf(s, v.palette ? *v.palette : paletteOf(own));
    if (!paint) return std::nullopt;
    return labOf(under(bare(ground), paint->film, coats), kMatt);
}
const Bands kWhiteGround = evenBands(0.93);

/// The first mark that a coat of covering paint all over the body hides.
std::optional<std::size_t> firstBuried(const RuleView& v, const Step& s, std::size_t k) {
    if (!paints(s.act) || s.mist || s.coats < 2 || s.where.reaches != Reaches::Everything ||
        !hasFamily(v, s, {"opaque", "primer", "metallic", "craft"}))
        return std::nullopt;
    std::optional<std::size_t> mark;
    v.before(k, [&](std::size_t b) {
        const Step& m = v.recipe.steps[b];
        const Reaches r = m.where.reaches;
        if (paints(m.act) && m.act != Act::Base &&
            (r == Reaches::Windows || r == Reaches::Element || r == Reaches::Net))
            mark = b;
        return true;
    });
    return mark;
}

/// Left alone as long as its paints ask for.
Recipe rested(Recipe r, std::size_t k, const RecipeFacts& facts) {
    Step& s = at(r, k);
    s.dry = Dry::Rest;
    for (const MixPart& part : s.paint)
        if (const Bottle* b = findBottle(facts.paints, part.bottle))
            s.rest_min = std::max(s.rest_min, b->rest_min);
    return r;
}
Recipe driedByAir(Recipe r, std::size_t k, const RecipeFacts&) {
    at(r, k).dry = Dry::Touch;
    return r;
}

const Rule kPaintRules[] = {
    {"neon_over_dark", Severity::Caution,
     NINE_WORDS("core", "\"{step}\" is fluorescent and goes over a dark ground, where it hardly glows."),
     NINE_WORDS("core", "Put white under it"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             return paints(s.act) && hasFamily(v, s, {"fluorescent"}) && darkUnder(v, k);
         });
     },
     withWhite},
    {"transparent_over_dark", Severity::Hint,
     NINE_WORDS("core", "\"{step}\" is transparent and goes over a dark ground, which swallows it."),
     NINE_WORDS("core", "Put white under it"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             const auto over = v.over ? v.over(k) : std::nullopt;
             // Darkening a dark back with a dark glaze is what glazes are for.
             return paints(s.act) && hasFamily(v, s, {"transparent", "candy"}) && darkUnder(v, k) && over &&
                    difference(over->ground, over->after) < 5;
         });
     },
     withWhite},
    {"bright_over_dark", Severity::Caution,
     NINE_WORDS("core",
                "\"{step}\" is a bright colour that does not cover in so few coats, over a dark ground."),
     NINE_WORDS("core", "Put white under it"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             if (!paints(s.act) || s.mist || !hasFamily(v, s, {"opaque", "craft"}) || !darkUnder(v, k))
                 return false;
             const auto full = alone(v, s, kWhiteGround, 6), over = alone(v, s, evenBands(.1), s.coats);
             return full && chroma(*full) > 45 && full->l > 45 && difference(*full, *over) > 8;
         });
     },
     withWhite},
    {"muddy", Severity::Hint,
     NINE_WORDS("core", "\"{step}\" is transparent over its complement: the two make mud."),
     NINE_WORDS("core", "Put white under it"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             const auto over = v.over ? v.over(k) : std::nullopt;
             if (!paints(s.act) || !hasFamily(v, s, {"transparent", "candy"}) || !over) return false;
             const auto own = alone(v, s, kWhiteGround, s.coats);
             constexpr Figure kColoured = 25;
             if (!own || chroma(*own) < kColoured || chroma(over->ground) < kColoured) return false;
             const Figure turn =
                 (own->a * over->ground.a + own->b * over->ground.b) / (chroma(*own) * chroma(over->ground));
             return turn < -0.75;
         });
     },
     withWhite},
    {"loses_colour", Severity::Caution,
     NINE_WORDS(
         "core",
         "\"{step}\" is a bright mark over a colour that takes most of its own: it comes out far duller "
         "than over white."),
     NINE_WORDS("core", "Put white under it"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             const auto over = v.over ? v.over(k) : std::nullopt;
             const bool mark = s.where.reaches == Reaches::Windows || s.where.reaches == Reaches::Element;
             if (!paints(s.act) || s.mist || !mark || !over || darkUnder(v, k)) return false;
             const auto own = alone(v, s, kWhiteGround, s.coats);
             const auto here = alone(v, s, over->groundPlace.inner, s.coats);
             constexpr Figure kBright = 45, kDuller = 12;
             constexpr Fraction kKeeps = 0.65;
             return own && chroma(*own) > kBright && chroma(*here) < kKeeps * chroma(*own) &&
                    difference(*own, *here) > kDuller;
         });
     },
     withWhite},
    {"painted_over", Severity::Caution,
     NINE_WORDS("core", "\"{step}\" covers marks that were sprayed before it."),
     NINE_WORDS("core", "Spray it before those marks"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) { return firstBuried(v, s, k).has_value(); });
     },
     [](Recipe r, std::size_t k, const RecipeFacts& facts) {
         const auto mark = firstBuried({r, facts}, r.steps[k], k);
         if (!mark) return r;
         // Before all that is laid on for them.
         std::size_t to = *mark;
         while (to > 0 && !r.steps[*mark].group.empty() && r.steps[to - 1].group == r.steps[*mark].group)
             --to;
         return moved(std::move(r), k, to);
     }},
    {"candy_heated", Severity::Fault,
     NINE_WORDS("core", "\"{step}\" must not be warmed: heat clouds it and makes it run."),
     NINE_WORDS("core", "Let it rest instead"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t) {
             return paints(s.act) && heats(s.dry) &&
                    anyBottle(v, s, [](const Bottle& b) { return b.noHeat; });
         });
     },
     rested},
    {"no_rest", Severity::Caution,
     NINE_WORDS("core", "\"{step}\" wants its rest before anything else is done to it."),
     NINE_WORDS("core", "Let it rest"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t) {
             return paints(s.act) && !heats(s.dry) && s.dry != Dry::Overnight &&
                    anyBottle(v, s, [&](const Bottle& b) {
                        return b.rest_min > 0 && (s.dry != Dry::Rest || s.rest_min < b.rest_min);
                    });
         });
     },
     rested},
    {"heat_near_solvent", Severity::Fault,
     NINE_WORDS("core",
                "\"{step}\" holds solvent and is warmed: its vapour can catch fire. Dry it by air; its data "
                "sheet goes before this."),
     NINE_WORDS("core", "Let it dry by air"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t) {
             return paints(s.act) && heats(s.dry) &&
                    anyBottle(v, s, [](const Bottle& b) { return b.solvent; });
         });
     },
     driedByAir},
    {"heat_on_hollow", Severity::Hint,
     NINE_WORDS("core",
                "\"{step}\" is warmed, and the body is hollow: it can swell and split. Keep the gun moving "
                "and far."),
     NINE_WORDS("core", "Let it dry by air"),
     [](const RuleView& v) {
         return those(
             v, [&](const Step& s, std::size_t) { return v.facts.hollow && paints(s.act) && heats(s.dry); });
     },
     driedByAir},
    {"ink_dissolves", Severity::Fault,
     NINE_WORDS("core", "The clear of \"{step}\" dissolves ink and marker under it."),
     NINE_WORDS("core", "Put a lock coat between"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             const ClearKind* kind = findClear(s.clear);
             if (!finishes(s) || !kind || !kind->dissolvesInk) return false;
             bool ink = false, locked = false;
             v.before(k, [&](std::size_t b) {
                 const Step& under = v.recipe.steps[b];
                 locked = locked || under.act == Act::Lock;
                 ink = ink || (!locked && paints(under.act) && hasFamily(v, under, {"ink"}));
                 return !locked;
             });
             return ink;
         });
     },
     [](Recipe r, std::size_t k, const RecipeFacts&) {
         Step lock = coatOf(r, Act::Lock, "lock", "Lock coat");
         lock.dry = Dry::Touch;
         r.steps.insert(r.steps.begin() + static_cast<std::ptrdiff_t>(k), lock);
         return r;
     }},
    {"no_lock", Severity::Caution,
     NINE_WORDS(
         "core",
         "Under the resin of \"{step}\" strong transparent paint runs, unless a lock coat lies between."),
     NINE_WORDS("core", "Put a lock coat between"), unlocked,
     [](Recipe r, std::size_t k, const RecipeFacts&) {
         Step lock = coatOf(r, Act::Lock, "lock", "Lock coat");
         lock.dry = Dry::Touch;
         r.steps.insert(r.steps.begin() + static_cast<std::ptrdiff_t>(k), lock);
         return r;
     }},
    {"needle_too_fine", Severity::Caution,
     NINE_WORDS("core", "\"{step}\" has coarse flakes: through a needle under 0.3 mm they clog."),
     NINE_WORDS("core", "Thin it and note the larger needle"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t) {
             return paints(s.act) && v.facts.needle_mm > 0 && v.facts.needle_mm < kPearlNeedle_mm &&
                    s.note.empty() &&
                    anyBottle(v, s, [](const Bottle& b) { return b.flake_um >= kCoarseFlake_um; });
         });
     },
     [](Recipe r, std::size_t k, const RecipeFacts&) {
         at(r, k).note = "Needle of 0.3 mm or more";
         return r;
     }},
};

}  // namespace

std::span<const Rule> rulesOfPaint() {
    return kPaintRules;
}

}  // namespace nine
