#include "app/leaves/scales/scales_desk.h"

#include <QMetaObject>

#include "app/leaves/scales/scales_edits.h"
#include "job/net_catalogue.h"
#include "job/net_picture.h"

namespace nine::app {
namespace {

constexpr std::size_t kMostThreads = 6000;

/// `before` is what was drawn last: its drape and threads serve again while clips are moved.
ScalesStudy studied(const Job& job, const SkinPtr& skin, const ScalesStudy& before, double spacing_mm,
                    const Task& task) {
    const DrapePtr known = before.skin == skin && before.net ? before.net->drape : nullptr;
    ScalesStudy study;
    study.skin = skin;
    study.coarse = spacing_mm > kDrapeSpacing_mm;
    const ScalesChapter& s = job.get<ScalesChapter>();
    if (s.foil) {
        Result<FoilLines> lines = foilLines(*skin, job.get<BlankChapter>().landmarks, *s.foil, "scales.foil");
        if (lines)
            study.foil = std::move(*lines);
        else
            study.foilError = lines.error();
    }
    if (!s.net) return study;
    study.doubled = s.doubled;
    study.second = s.second;
    Result<NetOnBody> net = netOnBody(job, *skin, spacing_mm, known, task);
    if (!net) {
        study.error = net.error();
        return study;
    }
    study.net = std::move(*net);
    study.steps = netSteps(job, study.net->reading);
    if (study.net->drape == known && before.threads && before.doubled == s.doubled &&
        before.second == s.second) {
        study.threads = before.threads;
        study.thinned = before.thinned;
        return study;
    }
    auto threads = std::make_shared<std::vector<ThreadLine>>();
    const auto add = [&](const NetShift& shift, bool second) {
        const Strands strands = strandsOf(*study.net->drape, shift, kMostThreads, task);
        study.thinned = study.thinned || strands.thinned;
        const auto at = [&](const Vec2& xg) { return skin->at({Side::Left, xg.x(), xg.y()}).position; };
        for (const Strand& strand : strands.all)
            threads->push_back(
                {at(strand.skin[0]), at(strand.skin[1]), at(strand.skin[2]), strand.stretch, second});
    };
    add({}, false);
    if (s.doubled) add(s.second, true);
    study.threads = std::move(threads);
    return study;
}

}  // namespace

ScalesDesk::ScalesDesk(LeafContext context, QObject* parent) : QObject(parent), context_(context) {
    connect(&context_.document, &JobDocument::changed, this, [this](Parts parts) {
        if ((parts & partsOf<ScalesChapter, MasksChapter>()).any()) request();
    });
    connect(&context_.document, &JobDocument::opened, this, [this] {
        plan_.cancel();
        aim_.reset();
        clip_.reset();
        study_ = {};
        fishnet_.reset();
        fishnetFor_.reset();
    });
    connect(&context_.results, &Results::bodyChanged, this, [this] {
        if (context_.results.body().skin != study_.skin)
            request();
        else
            requestWorn();
    });
    connect(&context_.view, &ViewState::changed, this, &ScalesDesk::changed);
    connect(&context_.library, &LibraryStore::changed, this, [this] {
        if (!context_.library.ready()) return;
        Result<std::vector<Net>> nets = netsOf(context_.library.workshop());
        if (!nets || *nets == nets_) return;
        nets_ = std::move(*nets);
        emit changed();
    });
}

void ScalesDesk::request() {
    const SkinPtr skin = context_.results.body().skin;
    const ScalesChapter& s = wish();
    if (!skin || context_.document.empty() || (!s.net && !s.foil)) {
        preview_.cancel();
        exact_.cancel();
        study_ = {};
        study_.skin = skin;
        requestWorn();
        emit changed();
        return;
    }
    const auto take = [this](ScalesStudy study) {
        if (study.error && study.error->code == "cancelled") return;
        // Where the new one failed the last picture stays under its sentence.
        if (study.error && !study.net && study_.skin == study.skin) {
            study.net = study_.net;
            study.threads = study_.threads;
        }
        study_ = std::move(study);
        if (!study_.coarse) requestFishnet();
        if (!study_.coarse) requestWorn();
        emit changed();
    };
    const Job job = context_.document.job();
    const DrapePtr known = study_.skin == skin && study_.net ? study_.net->drape : nullptr;
    const bool sameNet = known && s.net && known->wish.net == *s.net && known->wish.pull_n_m == s.pull_n_m;
    if (!sameNet)
        preview_.request([=, before = study_](
                             const Task& task) { return studied(job, skin, before, kDrapePreview_mm, task); },
                         [this, take](ScalesStudy study) {
                             if (exact_.running()) take(std::move(study));
                         });
    exact_.request(
        [=, before = study_](const Task& task) { return studied(job, skin, before, kDrapeSpacing_mm, task); },
        take);
    emit changed();
}

void ScalesDesk::requestWorn() {
    const BodyResult& body = context_.results.body();
    if (!study_.net || study_.coarse || !wish().net || !body.picture || body.skin != study_.skin) {
        wearing_.cancel();
        worn_.reset();
        return;
    }
    wearing_.request(
        [picture = body.picture, drawn = body.drawn, skin = body.skin, drape = study_.net->drape,
         doubled = wish().doubled, second = wish().second](const Task&) -> std::shared_ptr<const Image> {
            constexpr std::uint32_t kUmber = 0xFF4A3418;  // as the magnifier shows it
            return std::make_shared<const Image>(
                netSprayed(*picture, *drawn, *skin, *drape, doubled, second, kUmber, 0.6));
        },
        [this](std::shared_ptr<const Image> image) {
            worn_ = std::move(image);
            emit changed();
        });
}

void ScalesDesk::requestFishnet() {
    if (!study_.net || study_.error) return;
    const DrapeWish& wish = study_.net->drape->wish;
    if (fishnetFor_ && *fishnetFor_ == wish) return;
    fishnetFor_ = wish;
    fishnet_.reset();
    stiff_.request(
        [job = context_.document.job(), skin = study_.skin](const Task& task) -> std::optional<NetReading> {
            const Result<NetReading> reading = fishnetOf(job, *skin, task);
            if (!reading) return std::nullopt;
            return *reading;
        },
        [this](std::optional<NetReading> reading) {
            fishnet_ = std::move(reading);
            emit changed();
        });
}

NetRanking ScalesDesk::ranking() const {
    const Job& job = context_.document.job();
    const SkinPtr skin = context_.results.body().skin;
    std::vector<Net> nets = nets_;
    if (const auto& own = wish().net;
        own && std::none_of(nets.begin(), nets.end(), [&](const Net& n) { return n.id == own->id; }))
        nets.push_back(*own);
    if (!skin) return rankNets(nets, 1, wish().wish.tolerance);
    return rankNets(nets, wantedScale_mm(wish().wish, skin->length_mm(), sideForScales_mm(job, *skin)),
                    wish().wish.tolerance);
}

void ScalesDesk::keepNet() {
    if (!wish().net) return;
    if (!context_.library.ready()) {
        context_.library.open();
        context_.frame.complain(
            {"not_ready",
             Words::verbatim(tr("The workshop file is still being opened; try again.").toStdString()), ""});
        return;
    }
    Net net = *wish().net;
    const Result<std::string> id = putNet(context_.library.workshop(), net);
    if (!id) return context_.frame.complain(id.error());
    emit context_.library.changed();
}

Vec2 ScalesDesk::aim() const {
    if (aim_) return *aim_;
    const SkinPtr& skin = study_.skin;
    return skin ? Vec2(skin->noseX_mm() + 0.45 * skin->length_mm(), 0) : Vec2(0, 0);
}

void ScalesDesk::lookAt(const Vec2& skin) {
    aim_ = skin;
    emit changed();
}

void ScalesDesk::hold(std::optional<double> clip_mm) {
    if (clip_ == clip_mm) return;
    clip_ = clip_mm;
    emit changed();
}

Status ScalesDesk::change(const QString& label, const std::function<void(ScalesChapter&)>& edit) {
    Result<Job> next = withScales(context_.document.job(), edit);
    if (!next) return next.error();
    context_.document.edit(std::move(*next), label);
    return Done{};
}

void ScalesDesk::takePlan(const ClipPlan& plan) {
    context_.document.beginGesture();
    (void)change(tr("Place the clips"), [&](ScalesChapter& s) { s.clips = plan.clips; });
}

void ScalesDesk::plan() {
    const SkinPtr skin = study_.skin;
    if (!skin || !study_.net || study_.coarse || plan_.running()) return;
    const ScalesChapter s = wish();
    ClipPlanWish asked;
    asked.allowed_mm = s.allowed_mm;
    asked.clip_mm = s.clip_mm;
    asked.clear = clearOfFittings(context_.document.job(), *skin);
    best_.reset();
    plan_.request(
        [=, this, job = context_.document.job(),
         drape = study_.net->drape](const Task& task) -> std::optional<ClipPlan> {
            const Result<ClipPlan> found = planClips(
                *skin, *drape, asked, reliefOf(job),
                [&](const ClipPlan& better) {
                    QMetaObject::invokeMethod(
                        this,
                        [this, better] {
                            if (plan_.running()) best_ = better;
                        },
                        Qt::QueuedConnection);
                },
                task);
            if (!found) return std::nullopt;
            return *found;
        },
        [this](std::optional<ClipPlan> found) {
            if (found)
                takePlan(*found);
            else
                context_.frame.complain(
                    {"not_settled",
                     NINE_WORDS("core", "No clips were found that hold this net; use another net."), ""});
            emit planned();
            emit changed();
        });
    emit changed();
}

void ScalesDesk::stopPlanning() {
    if (!plan_.running()) return;
    plan_.cancel();
    if (best_) takePlan(*best_);
    best_.reset();
    emit planned();
    emit changed();
}

}  // namespace nine::app
