#include "app/leaves/scales/scales_leaf.h"

#include <algorithm>
#include <cmath>

#include "app/leaves/leaves.h"
#include "app/leaves/scales/scales_edits.h"
#include "app/leaves/scales/scales_page.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "pattern/cut_scales.h"

namespace nine::app {
namespace {

constexpr int kCardFollows_ms = 120;

/// The name of an id that is not taken yet.
std::string freeId(const Job& job, const std::string& stem) {
    const auto& elements = job.get<PatternChapter>().elements;
    for (int i = 1;; ++i) {
        const std::string id = i == 1 ? stem : stem + "-" + std::to_string(i);
        if (std::none_of(elements.begin(), elements.end(), [&](const ElementPtr& e) { return e->id == id; }))
            return id;
    }
}

}  // namespace

ScalesLeaf::ScalesLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent),
      desk_(context, this),
      page_(new ScalesPage(context, desk_)),
      card_(new CardHolder) {
    calm_.setSingleShot(true);
    calm_.setInterval(kCardFollows_ms);
    connect(&calm_, &QTimer::timeout, this, &ScalesLeaf::rebuildCard);
    connect(&desk_, &ScalesDesk::changed, this, [this] {
        calm_.start();  // a drag is not followed step by step
        emit restless();
    });
    connect(&desk_, &ScalesDesk::planned, this, &ScalesLeaf::restless);
    connect(&context_.results, &Results::bodyChanged, this, [this] { calm_.start(); });
}

QWidget* ScalesLeaf::page() {
    return page_;
}

bool ScalesLeaf::settled() const {
    return desk_.settled() && page_->picturesSettled() && !calm_.isActive();
}

void ScalesLeaf::change(const QString& label, const std::function<void(ScalesChapter&)>& edit) {
    context_.document.beginGesture();
    const Status ok = desk_.change(label, edit);
    if (!ok) context_.frame.complain(ok.error());
}

void ScalesLeaf::useNet(const Net& net, bool doubled) {
    change(tr("Choose a net"), [&](ScalesChapter& s) {
        s.net = net;
        s.doubled = doubled;
        s.second = {net.along_mm / 2, 0, 0};
        s.liftWet = net.liftWet;
        s.usesLeft = net.uses;
    });
}

void ScalesLeaf::rebuildCard() {
    if (putOff()) return;
    context_.library.open();
    auto* card = new Card;
    if (context_.document.empty()) {
        card->title(tr("Scales"), false);
        card->words(tr("Nothing to put scales on yet."));
        card->finish();
        return card_->show(card);
    }
    sayFish(*card);
    sayNets(*card);
    if (desk_.wish().net) {
        sayNet(*card);
        sayCells(*card);
        sayClips(*card);
        sayMist(*card);
    }
    sayFoil(*card);
    saySteps(*card);
    card->finish();
    card_->show(card);
}

void ScalesLeaf::showInPattern() {
    const ScalesStudy& study = desk_.study();
    if (!study.net) return;
    const Net& net = study.net->drape->wish.net;
    const Eigen::Matrix2d F =
        stretchAt(*study.skin, *study.net->drape, desk_.aim()).value_or(Eigen::Matrix2d::Identity());
    const double layers = desk_.wish().doubled ? std::sqrt(2.0) : 1;
    Element element =
        netScalesElement(net.along_mm * F.col(0).norm() / layers, net.across_mm * F.col(1).norm() / layers,
                         std::clamp(1 - std::sqrt(openShare(net, F)), 0.05, 0.6));
    element.id = freeId(job(), element.id);
    element.name = net.name;
    PatternChapter pattern = job().get<PatternChapter>();
    pattern.elements.push_back(std::make_shared<const Element>(std::move(element)));
    context_.document.beginGesture();
    context_.document.edit(inStep(job().with(std::move(pattern))), tr("Show the net's scales"));
}

void ScalesLeaf::addStencil() {
    Element element = cutScalesElement(3.2, 1.3, 0.7);
    element.values = usualValues(*findKind(element.kind));
    element.id = freeId(job(), element.id);
    element.name = tr("Cut scales").toStdString();
    context_.view.setElement(element.id);
    PatternChapter pattern = job().get<PatternChapter>();
    pattern.elements.push_back(std::make_shared<const Element>(std::move(element)));
    context_.document.beginGesture();
    context_.document.edit(inStep(job().with(std::move(pattern))), tr("Cut a scale stencil"));
    context_.view.setElement(job().get<PatternChapter>().elements.back()->id);
}

void ScalesLeaf::putOutClips(bool print) {
    const SkinPtr skin = context_.results.body().skin;
    if (!skin || desk_.wish().clips.empty())
        return context_.frame.complain(
            {"no_clips",
             Words::verbatim(tr("There are no clips to print yet: place them first.").toStdString()), ""});
    context_.frame.putOut(clipStrip(job(), *skin), tr("clips"), print);
}

void ScalesLeaf::putOutFoil(bool print) {
    if (!desk_.study().foil)
        return context_.frame.complain(
            {"no_lines", Words::verbatim(tr("There are no lines to print yet.").toStdString()), ""});
    context_.frame.putOut(foilStrip(job(), *desk_.study().foil), tr("foil-lines"), print);
}

std::vector<MenuEntry> ScalesLeaf::menu() {
    return {{tr("Strip of clips ..."), {}, [this] { putOutClips(false); }},
            {tr("Strip for lines on foil ..."), {}, [this] { putOutFoil(false); }}};
}

LeafEntry ScalesLeaf::entry() const {
    LeafEntry e;
    const ScalesChapter& s = desk_.wish();
    const ScalesStudy& study = desk_.study();
    if (context_.document.empty() || (!s.net && !s.foil)) return e;
    e.state = LeafState::Ready;
    if (s.net && s.clips.empty() && s.reach.whole()) e.state = LeafState::Begun;
    int flags = 0;
    if (study.error || study.foilError || (study.net && study.net->clipError)) {
        ++flags;
        e.fault = true;
    }
    if (study.net)
        for (const NetFlag& flag : study.net->flags) {
            ++flags;
            e.fault = e.fault || flag.fault;
        }
    e.flags = flags;
    if (flags) e.state = LeafState::Repair;
    return e;
}

std::vector<Flag> ScalesLeaf::flags() {
    std::vector<Flag> all;
    const ScalesStudy& study = desk_.study();
    if (!desk_.wish().net) return all;
    const auto plain = [&](const Error& e) { all.push_back({"scales:" + e.code, said(e), true, [] {}}); };
    if (study.error) plain(*study.error);
    if (!study.net) return all;
    if (study.net->clipError) plain(*study.net->clipError);
    int number = 0;
    for (const NetFlag& flag : study.net->flags) {
        Flag f{"scales:" + std::to_string(number++), said(flag.words), flag.fault,
               [this, at = Vec2(flag.x_mm, flag.g_mm)] { desk_.lookAt(at); }};
        if (flag.clip) {
            f.repairName = tr("Add a clip");
            f.repair = [this, x = flag.clip->x_mm] {
                change(tr("One more clip"), [&](ScalesChapter& s) { s = withClip(std::move(s), x); });
            };
        }
        all.push_back(std::move(f));
    }
    return all;
}

QString ScalesLeaf::busyWith() const {
    if (desk_.planning()) return tr("Seeking the fewest clips");
    return desk_.settled() || !desk_.wish().net ? QString() : tr("Laying the net");
}

}  // namespace nine::app
