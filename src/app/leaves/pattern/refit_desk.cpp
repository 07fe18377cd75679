#include "app/leaves/pattern/refit_desk.h"

#include <algorithm>

#include "app/document/library_store.h"
#include "app/holder/holder.h"
#include "job/pattern_picture.h"

namespace nine::app {
namespace {

constexpr int kColumns = 360, kRows = 320;  // of the painted skin: previews are small
constexpr std::size_t kMostBlanks = 8;

QImage pictureOf(const Job& job, Derivations& derived, double perMm, double ratio, const Task& task) {
    const Result<PatternPicture> picture =
        patternPicture(job, derived, Fineness::Glance, kColumns, kRows, task);
    if (!picture) return {};
    QImage image = toQImage(drawnPattern(*picture, Seen::Left, perMm * ratio, 0));
    image.setDevicePixelRatio(ratio);
    return image;
}

}  // namespace

int RefitPreview::troubles() const {
    if (!refit) return 0;
    return static_cast<int>(std::count_if(refit->elements.begin(), refit->elements.end(),
                                          [](const RefittedElement& e) { return isTrouble(e.fate); }));
}

RefitDesk::RefitDesk(LeafContext context, QObject* parent) : QObject(parent), context_(context) {
    rest_.setSingleShot(true);
    rest_.setInterval(kRest_ms);
    connect(&rest_, &QTimer::timeout, this, &RefitDesk::work);
    connect(&context_.library, &LibraryStore::changed, this, [this] {
        blanks_.reset();
        shown_.pattern = nullptr;  // what is shown is of the blanks there were
    });
}

void RefitDesk::want(double perMm, double ratio) {
    const Job& job = context_.document.job();
    if (context_.document.empty() || perMm <= 0) return;
    if (shown_.pattern == job.part<PatternChapter>() && shown_.blank == job.part<BlankChapter>() &&
        shown_.perMm == perMm)
        return;
    perMm_ = perMm;
    ratio_ = ratio;
    rest_.start();
}

void RefitDesk::readLibrary() {
    LibraryStore& library = context_.library;
    if (!library.ready()) return;
    blanks_.emplace();
    if (const auto rows = libraryBlanks(library.workshop()))
        for (const LibraryBlank& row : *rows)
            if (Result<BlankChapter> blank = blankFromLibrary(library.workshop(), row.id))
                blanks_->push_back(std::move(*blank));
}

void RefitDesk::work() {
    const Job job = context_.document.job();
    if (!blanks_) readLibrary();
    slot_.request(
        [job, blanks = blanks_.value_or(std::vector<BlankChapter>()), perMm = perMm_, ratio = ratio_,
         derived = derived_](const Task& task) mutable {
            Shown shown{{}, job.part<PatternChapter>(), job.part<BlankChapter>(), perMm};
            if (blanks.empty()) blanks = demoBlanks();
            for (BlankChapter& blank : blanks) {
                if (shown.previews.size() == kMostBlanks || task.cancelled()) break;
                if (blank.name == job.get<BlankChapter>().name) continue;
                RefitPreview preview{std::move(blank), {}, {}};
                if (Result<RefittedJob> refit = refitJob(job, preview.blank, *derived, task)) {
                    preview.picture = pictureOf(refit->job, *derived, perMm, ratio, task);
                    preview.refit = std::move(*refit);
                }
                shown.previews.push_back(std::move(preview));
            }
            return shown;
        },
        [this](Shown shown) {
            shown_ = std::move(shown);
            if (!chosenPreview()) chosen_.clear();
            ++revision_;
            emit changed();
        });
}

const RefitPreview* RefitDesk::chosenPreview() const {
    for (const RefitPreview& preview : shown_.previews)
        if (!chosen_.empty() && preview.blank.name == chosen_) return &preview;
    return nullptr;
}

void RefitDesk::mend(const std::vector<std::string>& ids) {
    const RefitPreview* preview = chosenPreview();
    if (!preview || !preview->refit) return;
    mendSlot_.request(
        [mended = *preview, ids, perMm = shown_.perMm, ratio = ratio_,
         derived = derived_](const Task& task) mutable {
            mended.refit->job = withRepairs(*mended.refit, ids);
            for (RefittedElement& e : mended.refit->elements) {
                if (!e.repaired || std::find(ids.begin(), ids.end(), e.id) == ids.end()) continue;
                e.fate = Fate::Moved;
                e.says = Words(NINE_WORDS("core", "{id} was mended.")).name("id", e.id);
                e.repaired = nullptr;
            }
            mended.picture = pictureOf(mended.refit->job, *derived, perMm, ratio, task);
            return mended;
        },
        [this](RefitPreview mended) {
            for (RefitPreview& shown : shown_.previews)
                if (shown.blank.name == mended.blank.name) shown = mended;
            ++revision_;
            emit changed();
        });
}

void RefitDesk::choose(const std::string& blank) {
    if (chosen_ == blank) return;
    chosen_ = blank;
    emit changed();
}

}  // namespace nine::app
