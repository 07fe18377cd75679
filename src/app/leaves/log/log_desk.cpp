#include "app/leaves/log/log_desk.h"

#include <QBuffer>
#include <QFileInfo>
#include <QImageReader>
#include <algorithm>

#include "app/leaves/leaves.h"
#include "app/sheet/names.h"
#include "base/files.h"
#include "job/paint_shelf.h"
#include "job/refit.h"

namespace nine::app {
namespace {

constexpr SkinRaster kRaster{256, 160};

Status readBook(Workshop& workshop, const std::shared_ptr<LogBook>& book) {
    auto cards = cardsOf(workshop, &book->warnings);
    if (!cards) return cards.error();
    book->cards = std::move(*cards);
    auto tools = toolRows(workshop, &book->warnings);
    if (!tools) return tools.error();
    book->tools = std::move(*tools);
    book->wear = wearOf(book->cards, book->tools);
    auto catches = catchesOf(workshop, &book->warnings);
    if (!catches) return catches.error();
    book->catches = std::move(*catches);
    auto leftovers = leftoversOf(workshop, &book->warnings);
    if (!leftovers) return leftovers.error();
    book->leftovers = std::move(*leftovers);
    auto shelf = shelfOf(workshop, &book->warnings);
    if (!shelf) return shelf.error();
    book->shelf = std::move(*shelf);
    for (const RecipeCard& card : book->cards) book->index.put(card.id, card.ended, searchTextOf(card));
    return Done{};
}

/// The card of a run, with its job.
Result<WholeCard> cardOfRun(const std::string& folder, const Workplace& place, const Task& task) {
    const Result<RunOnDisk> run = readRun(folder);
    if (!run) return run.error();
    const Result<LoadedJob> loaded = parseJob(run->jobText, folder);
    if (!loaded) return loaded.error();
    Derivations derived;
    Result<RecipeOnBody> on = recipeOnBody(loaded->job, derived, kRaster, Fineness::Glance, task);
    if (!on) return on.error();
    Result<JobOnBench> job =
        jobOnBench(std::make_shared<const RecipeOnBody>(std::move(*on)), derived, place, {}, task);
    if (!job) return job.error();
    // The card's job paints what was painted.
    const JobAsItHappened happened = withWhatHappened(loaded->job, run->head.work, run->events);
    return WholeCard{cardOf(*job, run->head, run->events), jobText(happened.job), {}};
}

}  // namespace

LogDesk::LogDesk(LeafContext context, QObject* parent) : QObject(parent), context_(context) {}

void LogDesk::say(const Status& status) {
    if (!status) context_.frame.complain(status.error());
}

void LogDesk::read() {
    opening_ = true;
    const auto book = std::make_shared<LogBook>();
    context_.library.work([book](Workshop& workshop) { return readBook(workshop, book); },
                          [this, book](const Status& status) {
                              opening_ = false;
                              problem_ = status ? std::optional<Error>() : status.error();
                              if (status)
                                  take(book);
                              else
                                  emit changed();
                          });
    const std::string folder = (QFileInfo(context_.bench.path()).absolutePath() + "/runs").toStdString();
    reading_.request(
        [folder](const Task&) { return runsIn(folder); },
        [this](std::vector<KnownRun> runs) {
            std::erase_if(runs, [](const KnownRun& run) { return run.head.carded || run.state.done() == 0; });
            runs_ = std::move(runs);
            emit changed();
        });
}

void LogDesk::take(std::shared_ptr<const LogBook> book) {
    book_ = std::move(book);
    found_ = book_->index.find(search_.toStdString());
    if (!card() && !found_.empty()) card_ = found_.front();
    lookAt();
    emit changed();
}

void LogDesk::setSearch(const QString& words) {
    search_ = words;
    if (book_) found_ = book_->index.find(search_.toStdString());
    if (!found_.empty() && std::find(found_.begin(), found_.end(), card_) == found_.end()) {
        card_ = found_.front();
        lookAt();
    }
    emit changed();
}

const RecipeCard* LogDesk::card() const {
    if (book_)
        for (const RecipeCard& card : book_->cards)
            if (card.id == card_) return &card;
    return nullptr;
}

void LogDesk::select(const std::string& id) {
    card_ = id;
    lookAt();
    emit changed();
}

void LogDesk::selectBeside(int by) {
    const auto at = std::find(found_.begin(), found_.end(), card_);
    if (found_.empty()) return;
    const auto now = at == found_.end() ? 0 : at - found_.begin();
    select(found_[static_cast<std::size_t>(
        std::clamp<std::ptrdiff_t>(now + by, 0, static_cast<std::ptrdiff_t>(found_.size()) - 1))]);
}

void LogDesk::lookAt() {
    const RecipeCard* now = card();
    sides_ = now ? compareSides(now->sides) : SideReport{};
    if (!now || picturesOf_ == now->id) return;
    picturesOf_ = now->id;
    pictures_.clear();
    const auto found = std::make_shared<std::vector<QImage>>();
    context_.library.work(
        [found, id = now->id](Workshop& workshop) -> Status {
            const auto whole = wholeCard(workshop, id);
            if (!whole) return whole.error();
            if (!*whole) return Done{};
            for (const std::string& bytes : (*whole)->pictures)
                if (QImage image = QImage::fromData(QByteArray::fromStdString(bytes)); !image.isNull())
                    found->push_back(std::move(image));
            return Done{};
        },
        [this, found, id = now->id](const Status&) {
            if (picturesOf_ != id) return;
            pictures_ = std::move(*found);
            emit changed();
        });
}

void LogDesk::makeCard(const std::string& folder) {
    making_.request(
        [folder, place = context_.bench.bench()](const Task& task) {
            return std::make_shared<Result<WholeCard>>(cardOfRun(folder, place, task));
        },
        [this, folder](std::shared_ptr<Result<WholeCard>> made) {
            if (!*made) return say(made->error());
            const auto id = std::make_shared<std::string>();
            context_.library.work(
                [made, id, folder](Workshop& workshop) -> Status {
                    const auto put = putRunCard(workshop, std::move(**made));
                    if (!put) return put.error();
                    *id = *put;
                    // Only now is the run done with.
                    return markCarded(folder);
                },
                [this, id](const Status& status) {
                    say(status);
                    if (!id->empty()) card_ = *id;
                    read();
                });
        });
    emit changed();
}

void LogDesk::change(const std::function<void(RecipeCard&)>& edit) {
    const RecipeCard* now = card();
    if (!now) return;
    RecipeCard next = *now;
    edit(next);
    if (Status ok = checkCard(next, "card"); !ok) return say(ok);
    // Seen at once; the file follows.
    auto book = std::make_shared<LogBook>(*book_);
    for (RecipeCard& card : book->cards)
        if (card.id == next.id) card = next;
    book->index.put(next.id, next.ended, searchTextOf(next));
    take(std::move(book));
    context_.library.work([next](Workshop& workshop) { return changeCard(workshop, next); },
                          [this](const Status& status) {
                              say(status);
                              if (!status) read();
                          });
}

void LogDesk::takeOut() {
    if (!card()) return;
    taken_.push_back(card_);
    context_.library.work([id = card_](Workshop& workshop) { return takeCard(workshop, id); },
                          [this](const Status& status) {
                              if (!status) taken_.pop_back();
                              say(status);
                              card_.clear();
                              read();
                          });
}

void LogDesk::putBack() {
    if (taken_.empty()) return;
    const std::string id = taken_.back();
    taken_.pop_back();
    context_.library.work([id](Workshop& workshop) { return workshop.restore(kCardKind, id); },
                          [this, id](const Status& status) {
                              say(status);
                              card_ = id;
                              read();
                          });
}

void LogDesk::addPicture(const QString& path) {
    if (!card()) return;
    context_.library.work(
        [id = card_, path](Workshop& workshop) -> Status {
            QImageReader reader(path);
            reader.setAutoTransform(true);
            QImage image = reader.read();
            if (image.isNull())
                return Error{"not_a_picture",
                             Words(NINE_WORDS("core", "{file} is no picture that can be read."))
                                 .name("file", path.toStdString()),
                             path.toStdString()};
            if (image.width() > kPictureSide || image.height() > kPictureSide)
                image =
                    image.scaled(kPictureSide, kPictureSide, Qt::KeepAspectRatio, Qt::SmoothTransformation);
            QByteArray bytes;
            QBuffer buffer(&bytes);
            buffer.open(QIODevice::WriteOnly);
            image.save(&buffer, "JPEG", 88);
            return nine::addPicture(workshop, id, bytes.toStdString());
        },
        [this](const Status& status) {
            say(status);
            picturesOf_.clear();
            lookAt();
        });
}

void LogDesk::putTool(ToolRow row) {
    context_.library.work([row = std::move(row)](Workshop& workshop) { return putToolRow(workshop, row); },
                          [this](const Status& status) {
                              say(status);
                              read();
                          });
}

void LogDesk::addCatch(Catch line) {
    context_.library.work(
        [line = std::move(line)](Workshop& workshop) -> Status {
            const auto put = putCatch(workshop, line);
            return put ? Status(Done{}) : Status(put.error());
        },
        [this](const Status& status) {
            say(status);
            read();
        });
}

void LogDesk::addLeftover(Leftover leftover) {
    context_.library.work(
        [leftover = std::move(leftover)](Workshop& workshop) -> Status {
            const auto put = putLeftover(workshop, leftover);
            return put ? Status(Done{}) : Status(put.error());
        },
        [this](const Status& status) {
            say(status);
            read();
        });
}

void LogDesk::exportTo(const QString& path, bool all) {
    std::vector<std::string> ids;
    if (all && book_)
        for (const RecipeCard& one : book_->cards) ids.push_back(one.id);
    else if (card())
        ids.push_back(card_);
    context_.library.work(
        [ids, path](Workshop& workshop) -> Status {
            std::vector<WholeCard> cards;
            for (const std::string& id : ids) {
                auto whole = wholeCard(workshop, id);
                if (!whole) return whole.error();
                if (*whole) cards.push_back(std::move(**whole));
            }
            return writeFileAtomically(path.toStdString(), cardsText(cards));
        },
        [this, path, count = ids.size()](const Status& status) {
            say(status);
            if (status)
                emit told(count == 1 ? tr("One card is in %1.").arg(path)
                                     : tr("%1 cards are in %2.").arg(count).arg(path));
        });
}

void LogDesk::importFrom(const QString& path) {
    const auto counts = std::make_shared<std::pair<std::size_t, std::size_t>>();
    context_.library.work(
        [path, counts](Workshop& workshop) -> Status {
            const Result<std::string> text = readFile(path.toStdString());
            if (!text) return text.error();
            const auto cards = parseCards(*text, path.toStdString());
            if (!cards) return cards.error();
            const auto added = importCards(workshop, *cards);
            if (!added) return added.error();
            *counts = {added->size(), cards->size() - added->size()};
            return Done{};
        },
        [this, counts](const Status& status) {
            say(status);
            if (status)
                emit told(tr("Cards taken in: %1; here already: %2.").arg(counts->first).arg(counts->second));
            read();
        });
}

void LogDesk::doAgain(int lures, const std::string& blank) {
    if (!card()) return;
    const auto whole = std::make_shared<std::optional<WholeCard>>();
    const auto other = std::make_shared<std::optional<BlankChapter>>();
    context_.library.work(
        [whole, other, blank, id = card_](Workshop& workshop) -> Status {
            auto found = wholeCard(workshop, id);
            if (!found) return found.error();
            *whole = std::move(*found);
            if (blank.empty()) return Done{};
            auto read = blankFromLibrary(workshop, blank);
            if (!read) return read.error();
            *other = std::move(*read);
            return Done{};
        },
        [this, whole, other, lures](const Status& status) {
            if (!status || !*whole) return say(status);
            again_.request(
                [whole, other, lures](const Task& task) {
                    Result<Job> job = jobOfCard(**whole, lures);
                    if (job && *other) {
                        Derivations derived;
                        Result<RefittedJob> refit = refitJob(*job, **other, derived, task);
                        job = refit ? Result<Job>(refit->job) : Result<Job>(refit.error());
                    }
                    return std::make_shared<Result<Job>>(std::move(job));
                },
                [this](std::shared_ptr<Result<Job>> job) {
                    if (!*job) return say(job->error());
                    context_.frame.openAsNew(std::move(**job));
                    context_.frame.showLeaf(BlankNumber);
                });
        });
}

std::vector<SideReading> LogDesk::plannedReadings() const {
    // First and last opening of each row of the open job's pattern, mask by mask: what a caliper reaches.
    std::vector<SideReading> all;
    const BodyResult& body = context_.results.body();
    if (!body.skin) return all;
    const Job& job = context_.document.job();
    double lowest_mm = 0;
    for (const Station& station : job.get<BlankChapter>().table.stations)
        lowest_mm = std::max(lowest_mm, station.bottom_mm);
    constexpr std::size_t kMost = 12;
    std::set<std::string> seen;
    for (const MaskSpecPtr& spec : maskSpecs(job)) {
        if (spec->side != Side::Left) continue;
        for (const ArtPtr& art : body.art) {
            if (!art || art->outlines().empty() || all.size() >= kMost) continue;
            const auto& opened = spec->wish.elements;
            if (std::find(opened.begin(), opened.end(), art->element) == opened.end() ||
                !seen.insert(art->element).second)
                continue;
            std::string name = art->element;
            for (const ElementPtr& e : job.get<PatternChapter>().elements)
                if (e->id == art->element) name = e->shownName();
            const auto& outlines = art->outlines();
            for (const std::size_t i : {std::size_t{0}, outlines.size() - 1}) {
                if (i > 0 && outlines.size() == 1) break;
                Vec2 middle = Vec2::Zero();
                for (const Vec2& point : outlines[i].skin)
                    middle += point / static_cast<double>(outlines[i].skin.size());
                const Vec3 at = body.skin->at({Side::Left, middle.x(), middle.y()}).position;
                SideReading reading;
                reading.mark = outlines.size() == 1
                                   ? name
                                   : name + (i == 0 ? " 1" : " " + std::to_string(outlines.size()));
                reading.mask = spec->shownName();
                reading.plannedX_mm = std::round(100 * (at.x() - body.skin->noseX_mm())) / 100;
                reading.plannedUp_mm = std::round(100 * (at.z() + lowest_mm)) / 100;
                all.push_back(std::move(reading));
            }
        }
    }
    return all;
}

}  // namespace nine::app
