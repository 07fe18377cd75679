#include "app/document/results.h"

#include <algorithm>
#include <array>

#include "app/document/coming_masks.h"
#include "app/document/selection.h"

namespace nine::app {
namespace {

// What each product is made from: a part that none of them names starts nothing.
const Parts kBodyReads = partsOf<BlankChapter, PatternChapter>();
const Parts kMasksRead = kBodyReads | partsOf<MasksChapter>();
const Parts kPagesRead = kMasksRead | partsOf<CutChapter>();

/// Of the painted skin: while something is dragged, and at rest.
constexpr int kGlanceColumns = 720, kGlanceRows = 640, kRestColumns = 1536, kRestRows = 1350;

/// Art of a body whose shape alone has changed, for a glance: the outlines as they were, moved with their
/// origin. Null when there is nothing to carry.
ArtPtr carriedArt(const ArtPtr& art, const DrawnBody& body, const Vec2& origin) {
    ElementArt moved = *art;
    const Vec2 shift = origin - art->origin;
    for (Pass& pass : moved.passes) {
        for (Outline& outline : pass.outlines) outline = carried(std::move(outline), body, shift);
    }
    for (auto& [key, place] : moved.places) place += shift;
    moved.origin = origin;
    moved.low += shift;
    moved.high += shift;
    return std::make_shared<const ElementArt>(std::move(moved));
}

/// The origin an element's art of before is moved to for a glance; nothing when it is drawn anew. While the
/// body is dragged all go along; a slow one goes along with the hand that moves it.
std::optional<Vec2> wentAlong(const Skin& skin, const Job& job, const Element& e, std::size_t index,
                              const BodyResult& before, bool goesAlong, Fineness fineness,
                              Derivations& derived) {
    if (fineness == Fineness::Cut || index >= before.art.size() || !before.art[index] ||
        before.art[index]->element != e.id)
        return std::nullopt;
    const Kind* kind = findKind(e.kind);
    const bool slow = kind && (kind->isSlow() || kind->isDerived()) && !derived.artIfKnown(job, index);
    if (!goesAlong && !slow) return std::nullopt;
    if (!kind || !kind->hasOrigin()) return before.art[index]->origin;
    const Result<Vec2> origin = originOf(skin, job.get<BlankChapter>().landmarks, e, "");
    return origin ? std::optional(*origin) : std::nullopt;
}

BodyResult computeBody(const Job& job, const std::set<std::string>& hidden, const BodyResult& before,
                       Derivations& derived, Fineness fineness, const Task& task) {
    // In one piece: skin, art, eyes and picture, each kept from the result before where it is the same.
    BodyResult result;
    result.blank = job.part<BlankChapter>();
    result.pattern = job.part<PatternChapter>();
    result.hidden = hidden;
    Result<SkinPtr> skin = derived.skin(job);
    if (!skin) {
        result.error = skin.error();
        return result;
    }
    result.skin = *skin;
    const bool sameBody = before.skin == result.skin && before.drawn;
    if (sameBody) {
        result.drawn = before.drawn;
        result.bare = before.bare;
    } else {
        result.drawn = std::make_shared<const DrawnBody>(drawBody(**skin));
        result.bare = std::make_shared<const Image>(paintSkin(*result.drawn, {}, {}, 8, 8));
    }
    const PatternChapter& pattern = job.get<PatternChapter>();
    // While only the body is dragged, what lies on it goes along; it is drawn exactly a moment later.
    const bool goesAlong = fineness == Fineness::Glance && !sameBody && before.pattern == result.pattern &&
                           before.art.size() == pattern.elements.size();
    std::vector<PaintedArt> painted;
    for (std::size_t i = 0; i < pattern.elements.size(); ++i) {
        if (task.cancelled()) break;
        const Element& e = *pattern.elements[i];
        const auto drawn = [&](Side side) {
            return fineness == Fineness::Cut ? derived.art(job, i, side, task)
                                             : derived.artAtAGlance(job, i, side, task);
        };
        std::optional<Vec2> origin = wentAlong(**skin, job, e, i, before, goesAlong, fineness, derived);
        Result<ArtPtr> art = origin ? carriedArt(before.art[i], *result.drawn, *origin) : drawn(Side::Left);
        if (!art) {
            result.artErrors.push_back(art.error());
            result.art.push_back(nullptr);
            result.rightArt.push_back(nullptr);
            if (const Result<Element> brought =
                    broughtOnto(**skin, job.get<BlankChapter>().landmarks, e, task)) {
                Result<ElementArt> there =
                    drawElement(**skin, job.get<BlankChapter>().landmarks, *brought, "", fineness);
                if (there)
                    result.strays[e.id] = {*brought, std::make_shared<const ElementArt>(std::move(*there))};
            }
            continue;
        }
        result.art.push_back(*art);
        ArtPtr right;
        if (!origin && derived.differsBySide(job, i))
            if (Result<ArtPtr> other = drawn(Side::Right)) right = std::move(*other);
        result.rightArt.push_back(right);
        if (!result.hidden.count(e.id)) addPainted(painted, e, i, **art, result.rightArt.back().get());
    }
    const auto eye = job.get<BlankChapter>().landmarks.find("eye");
    if (sameBody && before.blank == result.blank) {
        result.eyes = before.eyes;
    } else if (goesAlong && eye != job.get<BlankChapter>().landmarks.end()) {
        for (const EyeRing& ring : before.eyes)
            result.eyes.push_back(
                {carriedArt(ring.art, *result.drawn, eye->second.points.front()), ring.colour});
    } else {
        result.eyes = eyeRings(*result.skin, job.get<BlankChapter>().landmarks);
    }
    for (const EyeRing& ring : result.eyes)
        painted.push_back({&ring.art->outlines(), ring.colour, true, true});
    result.fittings = sameBody && before.blank == result.blank
                          ? before.fittings
                          : std::make_shared<const std::vector<Solid>>(
                                fittingsOf(*result.skin, job.get<BlankChapter>().landmarks));
    const Ground bare;
    const Ground ground{colourOf(pattern.groundBack, bare.back), colourOf(pattern.groundSide, bare.side),
                        colourOf(pattern.groundBelly, bare.belly)};
    const bool rest = fineness == Fineness::Cut;
    result.picture = std::make_shared<const Image>(paintSkin(*result.drawn, ground, painted,
                                                             rest ? kRestColumns : kGlanceColumns,
                                                             rest ? kRestRows : kGlanceRows, rest ? 2 : 1));
    return result;
}

}  // namespace

std::shared_ptr<const std::vector<Solid>> noFittings() {
    static const auto none = std::make_shared<const std::vector<Solid>>();
    return none;
}

ArtPtr BodyResult::artOrStray(std::size_t index) const {
    if (index >= art.size()) return nullptr;
    if (art[index] || !pattern || index >= pattern->elements.size()) return art[index];
    const auto stray = strays.find(pattern->elements[index]->id);
    return stray == strays.end() ? nullptr : stray->second.art;
}

int indexIn(const MasksResult& masks, const std::string& mask) {
    const auto found = std::find_if(masks.masks.begin(), masks.masks.end(),
                                    [&](const MaskResult& m) { return m.spec->id == mask; });
    return found == masks.masks.end() ? -1 : static_cast<int>(found - masks.masks.begin());
}

Results::Results(JobDocument& document, ViewState& view, std::shared_ptr<Derivations> derived,
                 QObject* parent)
    : QObject(parent), document_(document), view_(view), derived_(std::move(derived)) {
    connect(&document, &JobDocument::changed, this, [this](Parts parts) { onChanged(parts); });
    connect(&document, &JobDocument::opened, this, [this] { masks_ = {}; });  // never those of another job
    connect(&view, &ViewState::changed, this, [this] {
        if (view_.hidden() != body_.hidden && body_.skin && !document_.empty()) requestBody();
        if (view_.mask() != sketched_ && !document_.empty()) requestSketch();
    });
    calm_.setSingleShot(true);
    calm_.setInterval(kCalm_ms);
    connect(&calm_, &QTimer::timeout, this, &Results::requestFineBody);
    quiet_.setSingleShot(true);
    quiet_.setInterval(kQuiet_ms);
    connect(&quiet_, &QTimer::timeout, this, &Results::requestMasks);
}

void Results::onChanged(Parts parts) {
    if (document_.empty()) {
        bodySlot_.cancel();
        fineSlot_.cancel();
        calm_.stop();
        measureSlot_.cancel();
        masksSlot_.cancel();
        sketchSlot_.cancel();
        exactSlot_.cancel();
        quiet_.stop();
        body_ = {};
        masks_ = {};
        sketch_.reset();
        emit bodyChanged();
        emit masksChanged();
        return;
    }
    if ((parts & kPagesRead).none()) return;
    if ((parts & kMasksRead).none()) {
        masksAreOld();
        return requestMasks();  // all are remembered; only the pages are new
    }
    exactSlot_.cancel();
    if ((parts & kBodyReads).any()) {
        requestBody();  // and the sketch after it: what follows the hand has the processors first
    } else {
        requestSketch();
    }
    masksSlot_.cancel();
    masksAreOld();
    progress_ = 0;
    quiet_.start();
    emit progressChanged();
}

void Results::requestSketch() {
    const std::vector<MaskSpecPtr> specs = maskSpecs(document_.job());
    sketched_ = view_.mask();
    const int index = indexOfMask(document_.job(), sketched_);
    exactSlot_.cancel();
    if (index < 0) {
        sketchSlot_.cancel();
        sketch_.reset();
        emit sketchChanged();
        return;
    }
    const MaskSpecPtr spec = specs[static_cast<std::size_t>(index)];
    const auto cut = [job = document_.job(), spec, derived = derived_](Precision precision,
                                                                       const Task& task) {
        const Result<MaskPtr> mask = derived->cutOnly(job, *spec, precision, task);
        MaskSketch sketch{spec, mask ? *mask : nullptr, {}, precision};
        if (sketch.mask && precision == Precision::Exact) sketch.pieces = piecesOf(job, *spec, **mask);
        return sketch;
    };
    const auto take = [this](MaskSketch sketch) {
        sketch_ = sketch.mask ? std::optional(std::move(sketch)) : std::nullopt;
        emit sketchChanged();
    };
    sketchSlot_.request([cut](const Task& task) { return cut(Precision::Preview, task); },
                        [this, cut, take](MaskSketch sketch) {
                            take(std::move(sketch));
                            if (sketchSlot_.running()) return;
                            exactSlot_.request(
                                [cut](const Task& task) { return cut(Precision::Exact, task); }, take);
                        });
}

void Results::requestBody() {
    fineSlot_.cancel();
    calm_.stop();
    bodySlot_.request(
        [job = document_.job(), hidden = view_.hidden(), derived = derived_, before = body_](
            const Task& task) { return computeBody(job, hidden, before, *derived, Fineness::Glance, task); },
        [this](BodyResult glance) {
            takeBody(std::move(glance));
            requestSketch();
            if (!body_.error && !bodySlot_.running()) calm_.start();
        });
}

void Results::requestFineBody() {
    fineSlot_.request(
        [job = document_.job(), hidden = view_.hidden(), derived = derived_, before = body_](
            const Task& task) { return computeBody(job, hidden, before, *derived, Fineness::Cut, task); },
        [this](BodyResult fine) {
            takeBody(std::move(fine));
            if (!body_.skin) return;
            measureSlot_.request(
                [skin = body_.skin, blank = body_.blank](const Task&) {
                    const BodyMeasure measure = measureBody(*skin);
                    Measured measured{
                        measure, paintedArea_mm2(*skin, measure.area_mm2, allZones(*skin, *blank)), {}};
                    for (const Zone& zone : blank->zones)
                        measured.zones[zone.id] = zoneArea_mm2(*skin, zone.polygon);
                    return measured;
                },
                [this](Measured measured) {
                    measured_ = std::move(measured);
                    emit bodyChanged();
                });
        });
}

void Results::takeBody(BodyResult result) {
    if (result.error) {  // keep the last good body on the screen beside the sentence
        body_.error = result.error;
    } else {
        body_ = std::move(result);
    }
    emit bodyChanged();
}

void Results::masksAreOld() {
    masks_.whole = false;
    for (const MaskResult& m : masks_.masks) masks_.waiting.insert(m.spec->id);
}

void Results::requestMasks() {
    const Job job = document_.job();
    const quint64 number = ++asked_;
    const auto show = [this, number](MasksResult partial) {
        QMetaObject::invokeMethod(
            this,
            [this, number, partial = std::move(partial)]() mutable {
                if (number != asked_ || !masksSlot_.running()) return;
                masks_ = std::move(partial);
                emit masksChanged();
            },
            Qt::QueuedConnection);
    };
    masksSlot_.request(
        [job, derived = derived_, before = masks_, show](const Task& task) {
            ComingMasks coming(job, before);
            std::vector<MaskResult> all =
                derived->masks(job, derived->vertices(), task, [&](std::size_t i, const MaskResult& mask) {
                    coming.take(i, mask);
                    if (coming.worthShowing() && !task.cancelled()) show(coming.soFar());
                });
            if (task.cancelled()) return MasksResult{job, {}};
            return coming.allOf(std::move(all));
        },
        [this](MasksResult result) {
            masks_ = std::move(result);
            progress_ = 1;
            emit masksChanged();
            emit progressChanged();
        },
        [this](double share) {
            progress_ = share;
            emit progressChanged();
        });
}

void Results::cancelMasks() {
    masksSlot_.cancel();
    quiet_.stop();
    progress_ = 1;
    emit progressChanged();
}

void Results::setPages(CutPages pages) {
    masks_.pages = std::move(pages);
    emit pagesMoved();
}

}  // namespace nine::app
