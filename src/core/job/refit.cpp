#include "job/refit.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "base/parallel.h"
#include "blank/families.h"
#include "blank/landmark_curve.h"
#include "job/blank_library.h"
#include "pattern/bands.h"
#include "pattern/fitting.h"

namespace nine {
namespace {

constexpr double kSame = 1e-9;         // of a size: the same body again
constexpr double kOverlap_mm2 = 0.05;  // of skin: less is a touch
constexpr double kWeb_mm = 0.5;        // left between marks that are moved apart
constexpr int kRounds = 10;            // places tried round where a mark collides, each way

struct Sizes {
    double length_mm, girth_mm, nose_mm;
};

Sizes sizesOf(const Skin& skin) {
    return {skin.length_mm(), largestGirth_mm(skin), skin.noseX_mm()};
}

bool near(double a, double b) {
    return std::abs(a - b) <= kSame * std::max(std::abs(a), std::abs(b));
}

/// What to start from: the element at the home it remembers, if no hand has changed what came of that.
struct Start {
    Element element;
    Sizes sizes;
};
Start startOf(const Element& e, const Sizes& now) {
    if (!e.home || e.home->seen_dx_mm != e.dx_mm || e.home->seen_dg_mm != e.dg_mm || e.home->seen != e.values)
        return {e, now};
    Element home = e;
    home.dx_mm = e.home->dx_mm;
    home.dg_mm = e.home->dg_mm;
    home.values = e.home->values;
    return {home, {e.home->length_mm, e.home->girth_mm, now.nose_mm}};
}

ElementPtr onSizes(const ElementPtr& before, const Sizes& now, const Sizes& to) {
    if (!before->known()) return before;
    const Start start = startOf(*before, now);
    Element e = refitted(start.element, to.length_mm / start.sizes.length_mm,
                         to.girth_mm / start.sizes.girth_mm, start.sizes.nose_mm, to.nose_mm);
    e.home = nullptr;
    const bool home = near(to.length_mm, start.sizes.length_mm) && near(to.girth_mm, start.sizes.girth_mm);
    if (home) {  // exactly what it was there
        e.dx_mm = start.element.dx_mm;
        e.dg_mm = start.element.dg_mm;
        e.values = start.element.values;
    }
    const bool same =
        e.dx_mm == start.element.dx_mm && e.dg_mm == start.element.dg_mm && e.values == start.element.values;
    if (!home && !same)
        e.home = std::make_shared<const Home>(Home{start.sizes.length_mm, start.sizes.girth_mm,
                                                   start.element.dx_mm, start.element.dg_mm,
                                                   start.element.values, e.dx_mm, e.dg_mm, e.values});
    if (!before->home && !e.home && e.dx_mm == before->dx_mm && e.dg_mm == before->dg_mm &&
        e.values == before->values)
        return before;
    return std::make_shared<const Element>(std::move(e));
}

bool crossesCurve(const ElementArt& art, const Landmark& landmark) {
    if (!landmark.isCurve()) return false;
    const std::vector<Vec2> curve = curveOf(landmark);
    for (const Outline& outline : art.outlines()) {
        bool ahead = false, behind = false;
        for (const Vec2& p : outline.skin) {
            const auto [low, high] = std::minmax(curve.front().y(), curve.back().y());
            if (p.y() < low || p.y() > high) continue;
            const double x = referencePoint(landmark, p.y()).x();
            ahead = ahead || p.x() < x - 0.02;
            behind = behind || p.x() > x + 0.02;
        }
        if (ahead && behind) return true;
    }
    return false;
}

bool overlap(const ElementArt& a, const ElementArt& b) {
    if (apart(Box2{a.low, a.high}, Box2{b.low, b.high}) > 0) return false;
    return std::abs(area(intersected(ringsOf(a.outlines()), ringsOf(b.outlines())))) > kOverlap_mm2;
}

const Warning* warningOf(const ElementArt& art, std::string_view code) {
    const auto found = std::find_if(art.warnings.begin(), art.warnings.end(),
                                    [&](const Warning& w) { return w.code == code; });
    return found == art.warnings.end() ? nullptr : &*found;
}

/// Marks that are looked at together: a derived one goes with what it is made from.
bool belongTogether(const Element& a, const Element& b) {
    return a.of == b.id || b.of == a.id || (!a.of.empty() && a.of == b.of) ||
           (!a.group.empty() && a.group == b.group);
}

class Judge {
  public:
    Judge(const Job& before, const Job& after, Derivations& derived, const Task& task)
        : before_(before), after_(after), derived_(derived), task_(task) {
        const std::size_t n = after.get<PatternChapter>().elements.size();
        std::vector<std::optional<Result<ArtPtr>>> all(2 * n);
        forEachInParallel(2 * n, [&](std::size_t k) { all[k] = glance(k < n ? before : after, k % n); });
        for (std::size_t i = 0; i < n; ++i) {
            was_.push_back(std::move(*all[i]));
            is_.push_back(std::move(*all[n + i]));
        }
    }

    RefittedElement of(std::size_t i) const {
        const Element &was = *element(before_, i), &is = *element(after_, i);
        RefittedElement result;
        result.id = is.id;
        if (!is.known()) {
            result.fate = Fate::Unknown;
            result.says = Words(NINE_WORDS("core",
                                           "{name} is of a kind this version does not know; it is kept as "
                                           "it is."))
                              .name("name", is.shownName());
            return result;
        }
        if (!is_[i]) {
            offTheBody(i, result);
            return result;
        }
        if (collides(i, result) || overlaps(i, result)) return result;
        changed(was, is, result);
        return result;
    }

  private:
    static const ElementPtr& element(const Job& job, std::size_t i) {
        return job.get<PatternChapter>().elements[i];
    }
    Result<ArtPtr> glance(const Job& job, std::size_t i) const {
        return derived_.artAtAGlance(job, i, Side::Left, task_);
    }
    Job with(std::size_t i, const Element& e) const { return withElement(after_, i, e); }

    void offTheBody(std::size_t i, RefittedElement& result) const {
        const Element& e = *element(after_, i);
        const Error& error = is_[i].error();
        const bool anchor = error.code == "unknown_landmark" || error.code == "not_a_curve";
        result.fate = anchor ? Fate::AnchorMissing : Fate::FallsOff;
        result.says = Words(anchor ? NINE_WORDS("core", "{name} has nothing to be measured from: {why}")
                                   : NINE_WORDS("core", "{name} does not lie on this body: {why}"))
                          .name("name", e.shownName())
                          .words("why", error.words);
        const Result<SkinPtr> skin = derived_.skin(after_);
        if (!skin) return;
        Element loose = e;
        if (anchor && findKind(e.kind)->alongCurve().empty() && was_[i]) {
            // Where it was, as a share of the length, in skin coordinates.
            const Result<SkinPtr> old = derived_.skin(before_);
            loose.anchor.clear();
            loose.dx_mm = (*skin)->noseX_mm() + ((*was_[i])->origin.x() - (*old)->noseX_mm()) /
                                                    (*old)->length_mm() * (*skin)->length_mm();
            loose.dg_mm = (*was_[i])->origin.y() / largestGirth_mm(**old) * largestGirth_mm(**skin);
        }
        if (findKind(e.kind)->isDerived()) return;
        const Result<Element> brought =
            broughtOnto(**skin, after_.get<BlankChapter>().landmarks, loose, task_);
        if (!brought) return;
        result.repaired = std::make_shared<const Element>(*brought);
        result.repair = anchor ? Words(NINE_WORDS("core", "measure it from the nose"))
                               : Words(NINE_WORDS("core", "bring it onto the body"));
    }

    /// The nearest place, along and then round the body, where `good` holds.
    ElementPtr nudged(std::size_t i, const std::function<bool(const ElementArt&)>& good) const {
        const Element& e = *element(after_, i);
        if (!findKind(e.kind)->hasOrigin()) return nullptr;
        for (int round = 1; round <= kRounds; ++round) {
            const double far = 0.4 * round;
            for (const Vec2& by : {Vec2(far, 0), Vec2(-far, 0), Vec2(0, far), Vec2(0, -far)}) {
                if (task_.cancelled()) return nullptr;
                Element tried = e;
                tried.dx_mm += by.x();
                tried.dg_mm += by.y();
                const Result<ArtPtr> art = glance(with(i, tried), i);
                if (art && good(**art)) return std::make_shared<const Element>(std::move(tried));
            }
        }
        return nullptr;
    }

    bool collides(std::size_t i, RefittedElement& result) const {
        const Element& e = *element(after_, i);
        const Warning* cut = warningOf(**is_[i], "cut_at_bare");
        const bool newly = cut && !(was_[i] && warningOf(**was_[i], "cut_at_bare"));
        const auto plate = [](const Job& job) {
            const auto& landmarks = job.get<BlankChapter>().landmarks;
            const auto found = landmarks.find("gill_plate");
            return found == landmarks.end() ? Landmark() : found->second;
        };
        const Landmark gill = plate(after_);
        const bool onGill = (*is_[i])->cut && crossesCurve(**is_[i], gill) &&
                            !(was_[i] && crossesCurve(**was_[i], plate(before_)));
        if (!newly && !onGill) return false;
        result.fate = Fate::Collides;
        result.says =
            newly ? Words(NINE_WORDS("core", "{name}: {why}"))
                        .name("name", e.shownName())
                        .words("why", cut->words)
                  : Words(NINE_WORDS("core", "{name} runs over the gill plate, which it did not before."))
                        .name("name", e.shownName());
        result.repaired = nudged(i, [&](const ElementArt& art) {
            return !warningOf(art, "cut_at_bare") && (!onGill || !crossesCurve(art, gill));
        });
        if (result.repaired) result.repair = NINE_WORDS("core", "move it clear");
        return true;
    }

    bool overlaps(std::size_t i, RefittedElement& result) const {
        const Element& e = *element(after_, i);
        if (!(*is_[i])->cut) return false;
        if (warningOf(**is_[i], "windows_merge") && !(was_[i] && warningOf(**was_[i], "windows_merge"))) {
            result.fate = Fate::Overlaps;
            result.says =
                Words(NINE_WORDS("core", "The openings of {name} run into each other on this body."))
                    .name("name", e.shownName());
            result.repaired = withFewer(i);
            if (result.repaired) result.repair = NINE_WORDS("core", "use fewer");
            return true;
        }
        for (std::size_t k = 0; k < is_.size(); ++k) {
            const Element& other = *element(after_, k);
            if (k == i || !is_[k] || !(*is_[k])->cut || belongTogether(e, other)) continue;
            if (!overlap(**is_[i], **is_[k]) || !was_[i] || !was_[k] || overlap(**was_[i], **was_[k]))
                continue;
            result.fate = Fate::Overlaps;
            result.says = Words(NINE_WORDS("core", "{name} overlaps {other}, which it did not before."))
                              .name("name", e.shownName())
                              .name("other", other.shownName());
            const ElementArt& neighbour = **is_[k];
            result.repaired = nudged(i, [&](const ElementArt& art) { return !overlap(art, neighbour); });
            if (result.repaired) result.repair = NINE_WORDS("core", "move it clear");
            return true;
        }
        return false;
    }

    /// As many of the row as leave half a millimetre between them, over the same length.
    ElementPtr withFewer(std::size_t i) const {
        const Element& e = *element(after_, i);
        const double count = e.values.number("count"), spacing = e.values.number("spacing_mm");
        if (!(count > 2 && spacing > 0)) return nullptr;
        for (double n = count - 1; n >= 2; --n) {
            Element tried = e;
            tried.values.set("count", n);
            tried.values.set("spacing_mm", spacing * (count - 1) / (n - 1));
            const Kind& kind = *findKind(e.kind);
            Element wider = tried;  // with what must be left between
            wider.values.set("spacing_mm", tried.values.number("spacing_mm") - kWeb_mm);
            if (!kind.openingsMerge(wider.values)) return std::make_shared<const Element>(std::move(tried));
        }
        return nullptr;
    }

    void changed(const Element& was, const Element& is, RefittedElement& result) const {
        const double before = was.values.number("count"), after = is.values.number("count");
        const auto said = [&](Pattern pattern) { return Words(pattern).name("name", is.shownName()); };
        if (after != before) {
            result.fate = after < before ? Fate::Fewer : Fate::More;
            result.says = said(NINE_WORDS("core", "{name}: {after} in the row instead of {before}."))
                              .number("after", after, 0)
                              .number("before", before, 0);
        } else if (is.values != was.values) {
            result.fate = Fate::Rescaled;
            result.says = said(NINE_WORDS("core", "{name} follows the size of the body."));
        } else if (is.dx_mm != was.dx_mm || is.dg_mm != was.dg_mm) {
            result.fate = Fate::Moved;
            result.says = said(NINE_WORDS("core", "{name} keeps its sizes; its place follows the body."));
        } else {
            result.fate = Fate::Kept;
            result.says = said(NINE_WORDS("core", "{name} stays as it is."));
        }
    }

    const Job &before_, &after_;
    Derivations& derived_;
    const Task& task_;
    std::vector<Result<ArtPtr>> was_, is_;
};

/// Landmarks that marks are measured from and the blank has not, where its kind usually has them.
void offerLandmarks(const PatternChapter& pattern, const Skin& skin, BlankChapter& blank,
                    RefittedJob& refit) {
    const std::string family = !blank.family.empty() ? blank.family : [&] {
        double top = 0, wide = 0;
        for (const Station& s : blank.table.stations) {
            top = std::max(top, s.top_mm + s.bottom_mm);
            wide = std::max(wide, 2 * s.halfWidth_mm);
        }
        return std::string(likelyFamily(top / skin.length_mm(), wide / skin.length_mm()));
    }();
    const Landmarks usual = usualLandmarks(family, skin);
    for (const ElementPtr& e : pattern.elements) {
        if (e->anchor.empty() || blank.landmarks.count(e->anchor)) continue;
        const auto found = usual.find(e->anchor);
        if (found == usual.end()) continue;
        blank.landmarks[e->anchor] = found->second;
        refit.offered.push_back(e->anchor);
        refit.warnings.push_back(
            {"landmark_offered",
             Words(
                 NINE_WORDS("core",
                            "{blank} has no {landmark}; it was laid where such bodies usually have it. Look "
                            "whether it is right."))
                 .name("blank", blank.name)
                 .words("landmark", spokenName(e->anchor)),
             "blank.landmarks." + e->anchor});
    }
}

/// Slits at the same share of the length and of the girth: where they are enough or too many is for the
/// verdict to say.
MaskSpecPtr onSkin(const MaskSpecPtr& mask, const Skin& now, const Skin& then) {
    if (mask->wish.slits.empty() && mask->wish.bridges.at.empty()) return mask;
    MaskSpec spec = *mask;
    std::vector<Vec2*> places;
    for (Slit& slit : spec.wish.slits)
        for (Vec2& p : slit.line) places.push_back(&p);
    for (Vec2& p : spec.wish.bridges.at) places.push_back(&p);
    for (Vec2* place : places) {
        Vec2& p = *place;
        const double share = std::clamp((p.x() - now.noseX_mm()) / now.length_mm(), 0.0, 1.0);
        const double x = then.noseX_mm() + share * then.length_mm();
        const double was = now.arcAt(now.noseX_mm() + share * now.length_mm()).girth_mm();
        p = Vec2(x, was > 0 ? p.y() * then.arcAt(x).girth_mm() / was : 0);
    }
    return std::make_shared<const MaskSpec>(std::move(spec));
}

}  // namespace

std::string_view idOf(Fate fate) {
    static constexpr std::array<std::string_view, 10> kIds{
        "kept",     "moved",     "rescaled", "fewer",          "more",
        "collides", "falls_off", "overlaps", "anchor_missing", "unknown"};
    return kIds[static_cast<std::size_t>(fate)];
}

double largestGirth_mm(const Skin& skin) {
    constexpr int kSteps = 200;
    double largest = 0;
    for (int k = 1; k < kSteps; ++k)
        largest = std::max(largest, skin.arcAt(skin.noseX_mm() + skin.length_mm() * k / kSteps).girth_mm());
    return largest;
}

Result<RefittedJob> refitJob(const Job& job, const BlankChapter& to, Derivations& derived, const Task& task) {
    RefittedJob refit{job, {}, {}, {}};
    const PatternChapter& pattern = job.get<PatternChapter>();
    if (blankText(to) == blankText(job.get<BlankChapter>())) {
        for (const ElementPtr& e : pattern.elements)
            refit.elements.push_back(
                {e->id, e->known() ? Fate::Kept : Fate::Unknown,
                 Words(NINE_WORDS("core", "{name} stays as it is.")).name("name", e->shownName())});
        return refit;
    }
    const Result<SkinPtr> from = derived.skin(job);
    if (!from) return from.error();
    BlankChapter blank = to;
    const Result<Skin> skin = Skin::of(blank.table);
    if (!skin) return skin.error();
    offerLandmarks(pattern, *skin, blank, refit);
    PatternChapter next = pattern;
    const Sizes now = sizesOf(**from), then = sizesOf(*skin);
    for (ElementPtr& e : next.elements) e = onSizes(e, now, then);
    const bool same = next.elements == pattern.elements;
    Job after = job.with(std::move(blank));
    if (!same) after = after.with(std::move(next));
    std::vector<MaskSpecPtr> masks = job.get<MasksChapter>().masks;
    for (MaskSpecPtr& mask : masks) mask = onSkin(mask, **from, *skin);
    if (masks != job.get<MasksChapter>().masks) after = withMasks(after, std::move(masks));
    refit.job = inStep(after);
    if (Status ok = checkJob(refit.job); !ok)
        refit.warnings.push_back({"does_not_go_along", ok.error().words, ok.error().where});
    const Judge judge(job, refit.job, derived, task);
    for (std::size_t i = 0; i < pattern.elements.size(); ++i) {
        if (task.cancelled()) return Task::cancelledError();
        refit.elements.push_back(judge.of(i));
    }
    return refit;
}

Job withRepairs(const RefittedJob& refit, const std::vector<std::string>& ids) {
    PatternChapter pattern = refit.job.get<PatternChapter>();
    for (const RefittedElement& e : refit.elements) {
        if (!e.repaired || std::find(ids.begin(), ids.end(), e.id) == ids.end()) continue;
        for (ElementPtr& held : pattern.elements)
            if (held->id == e.id) held = e.repaired;
    }
    return inStep(refit.job.with(std::move(pattern)));
}

}  // namespace nine
