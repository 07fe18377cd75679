#include "app/document/library_store.h"

#include <QDir>
#include <utility>

#include "app/document/data_folder.h"
namespace nine::app {

LibraryStore::LibraryStore(const QString& folder, QObject* parent) : QObject(parent) {
    path_ = inDataFolder(folder, "workshop.sqlite");
}

LibraryStore::~LibraryStore() {
    writer_.drain();
    beside_->reset();
}

void LibraryStore::add(BlankChapter blank) {
    const auto thumbnail = std::make_shared<std::string>();
    const auto kept = std::make_shared<const BlankChapter>(std::move(blank));
    writer_.write(
        [thumbnail, kept]() -> Status {
            const Result<Skin> skin = Skin::of(kept->table);
            if (!skin) return skin.error();
            *thumbnail = thumbnailOf(*skin);
            return Done{};
        },
        // A database connection belongs to one thread, and this one is quick.
        [this, thumbnail, kept](const Status& drawn) {
            const Result<std::string> id =
                drawn ? putInLibrary(*workshop_, *kept, "", *thumbnail) : Result<std::string>(drawn.error());
            if (!id) emit notAdded(id.error());
            emit changed();
        });
}

void LibraryStore::work(std::function<Status(Workshop&)> job, Writer::Ended ended) {
    if (!workshop_) {
        waiting_.push_back({std::move(job), std::move(ended)});
        return open();
    }
    if (!*beside_) {
        Result<Workshop> beside = workshop_->another();
        if (!beside) {
            if (ended) ended(beside.error());
            return;
        }
        *beside_ = std::move(*beside);
    }
    writer_.write([job = std::move(job), beside = beside_] { return job(**beside); }, std::move(ended));
}

void LibraryStore::open() {
    if (workshop_ || opener_.running()) return;
    opener_.request(
        [path = path_.toStdString()](const Task&) {
            auto opened = std::make_shared<Result<Workshop>>(Workshop::open(path));
            if (*opened && !(*opened)->readOnly())
                if (Status seeded = seedLibrary(**opened); !seeded) *opened = seeded.error();
            return opened;
        },
        [this](std::shared_ptr<Result<Workshop>> opened) {
            problem_.reset();
            if (*opened) {
                workshop_ = std::make_shared<Workshop>(std::move(**opened));
            } else {
                problem_ = opened->error();
            }
            for (Waiting& next : std::exchange(waiting_, {})) {
                if (workshop_)
                    work(std::move(next.job), std::move(next.ended));
                else if (next.ended)
                    next.ended(*problem_);
            }
            emit changed();
        });
}

}  // namespace nine::app
