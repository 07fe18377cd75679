#include "app/leaves/masks/slit_desk.h"

#include <algorithm>

namespace nine::app {

SlitDesk::SlitDesk(LeafContext context, QObject* parent) : QObject(parent), context_(context) {
    rest_.setSingleShot(true);
    rest_.setInterval(kRest_ms);
    connect(&rest_, &QTimer::timeout, this, [this] {
        slot_.request([job = context_.document.job(), spec = *spec_,
                       derived = derived_](const Task& task) { return derived->answers(job, spec, task); },
                      [this, asked = *wanted_](Result<std::vector<MaterialAnswer>> answers) {
                          known_ = asked;
                          answers_.reset();
                          if (answers) answers_ = std::move(*answers);
                          emit changed();
                      });
    });
}

SlitDesk::Asked SlitDesk::askedOf(const MaskSpec& spec) const {
    const Job& job = context_.document.job();
    Asked asked{job.part<BlankChapter>(), job.part<PatternChapter>(), spec.wish, spec.side};
    asked.wish.material.clear();
    asked.wish.apply = Apply::Loose;
    std::erase_if(asked.wish.slits, [](const Slit& slit) { return !slit.locked; });
    return asked;
}

void SlitDesk::want(const MaskSpec& spec) {
    if (!spec.known()) return;
    const Asked asked = askedOf(spec);
    if (known_ == asked || (wanted_ == asked && running())) return;
    slot_.cancel();
    wanted_ = asked;
    spec_ = spec;
    rest_.start();
}

const std::vector<MaterialAnswer>* SlitDesk::answersFor(const MaskSpec& spec) const {
    return answers_ && known_ == askedOf(spec) ? &*answers_ : nullptr;
}

const MaterialAnswer* SlitDesk::answerFor(const MaskSpec& spec) const {
    const std::vector<MaterialAnswer>* answers = answersFor(spec);
    const auto& all = sheetMaterials();
    for (std::size_t i = 0; answers && i < all.size(); ++i)
        if (all[i].id == spec.wish.material) return &(*answers)[i];
    return nullptr;
}

}  // namespace nine::app
