#include "app/document/results.h"

#include <QColor>
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

constexpr int kPictureColumns = 1024, kPictureRows = 900;

/// The eye that will be glued in, for the look of it: rim, iris and pupil, from the outside in.
constexpr std::array<double, 3> kEyeShares{1, 0.84, 0.42};
constexpr std::array<std::uint32_t, 3> kEyeColours{0xFF23241C, 0xFFD0A23C, 0xFF15140F};

std::vector<ArtPtr> eyeOf(const Skin& skin, const BlankChapter& blank) {
    std::vector<ArtPtr> rings;
    const auto eye = blank.landmarks.find("eye");
    if (eye == blank.landmarks.end() || eye->second.diameter_mm <= 0) return rings;
    for (const double share : kEyeShares) {
        const Result<ElementArt> art =
            drawRound(skin, eye->second.points.front(), share * eye->second.diameter_mm);
        if (!art) break;  // too near the edge of the body to be drawn
        rings.push_back(std::make_shared<const ElementArt>(*art));
    }
    return rings;
}

/// Art of a body whose shape alone has changed, for a glance: the outlines as they were, moved with their
/// origin. Null when there is nothing to carry.
ArtPtr carriedArt(const ArtPtr& art, const DrawnBody& body, const Vec2& origin) {
    ElementArt moved = *art;
    const Vec2 shift = origin - art->origin;
    for (Pass& pass : moved.passes) {
        for (Outline& outline : pass.outlines) outline = carried(std::move(outline), body, shift);
    }
    moved.origin = origin;
    moved.low += shift;
    moved.high += shift;
    return std::make_shared<const ElementArt>(std::move(moved));
}

BodyResult computeBody(const Job& job, const BodyResult& before, Derivations& derived, Fineness fineness,
                       const Task& task) {
    // In one piece: skin, art, eyes and picture, each kept from the result before where it is the same.
    BodyResult result;
    result.blank = job.part<BlankChapter>();
    result.pattern = job.part<PatternChapter>();
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
        const Element& e = *pattern.elements[i];
        std::optional<Vec2> origin;
        if (goesAlong && before.art[i]) {
            if (const auto found = originOf(**skin, job.get<BlankChapter>().landmarks, e, ""))
                origin = *found;
        }
        Result<ArtPtr> art = origin                      ? carriedArt(before.art[i], *result.drawn, *origin)
                             : fineness == Fineness::Cut ? derived.art(job, i)
                                                         : derived.artAtAGlance(job, i);
        if (!art) {
            result.artErrors.push_back(art.error());
            result.art.push_back(nullptr);
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
        const bool left = e.standsOn(Side::Left), right = e.standsOn(Side::Right);
        const std::uint32_t colour = colourOf(e, i);
        for (const Pass& pass : (*art)->passes)
            painted.push_back({&pass.outlines, colourOf(pass.colour, colour), left, right});
    }
    const auto eye = job.get<BlankChapter>().landmarks.find("eye");
    if (sameBody && before.blank == result.blank) {
        result.eyes = before.eyes;
    } else if (goesAlong && eye != job.get<BlankChapter>().landmarks.end()) {
        for (const ArtPtr& ring : before.eyes)
            result.eyes.push_back(carriedArt(ring, *result.drawn, eye->second.points.front()));
    } else {
        result.eyes = eyeOf(*result.skin, job.get<BlankChapter>());
    }
    for (std::size_t i = 0; i < result.eyes.size(); ++i)
        painted.push_back({&result.eyes[i]->outlines(), kEyeColours[i], true, true});
    const Ground bare;
    const Ground ground{colourOf(pattern.groundBack, bare.back), colourOf(pattern.groundSide, bare.side),
                        colourOf(pattern.groundBelly, bare.belly)};
    result.picture = std::make_shared<const Image>(
        paintSkin(*result.drawn, ground, painted, kPictureColumns, kPictureRows));
    return result;
}

}  // namespace

std::uint32_t colourOf(const std::string& text, std::uint32_t fallback) {
    const QColor colour(QString::fromStdString(text));
    return text.empty() || !colour.isValid() ? fallback : colour.rgb();
}

std::uint32_t colourOf(const Element& element, std::size_t index) {
    static constexpr std::array<std::uint32_t, 5> choice{0xFF3C4038, 0xFFB4402E, 0xFFD9CFA6, 0xFF33566B,
                                                         0xFF7A5A2B};
    return colourOf(element.colour, choice[index % choice.size()]);
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
        [job = document_.job(), derived = derived_, before = body_](const Task& task) {
            return computeBody(job, before, *derived, Fineness::Glance, task);
        },
        [this](BodyResult glance) {
            takeBody(std::move(glance));
            requestSketch();
            if (!body_.error && !bodySlot_.running()) calm_.start();
        });
}

void Results::requestFineBody() {
    fineSlot_.request(
        [job = document_.job(), derived = derived_, before = body_](const Task& task) {
            return computeBody(job, before, *derived, Fineness::Cut, task);
        },
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
                derived->masks(job, kFitVertices, task, [&](std::size_t i, const MaskResult& mask) {
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
