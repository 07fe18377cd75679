// What the Log leaf works on: the recipe cards of the workshop file, what is worn, what is caught; read and
// written in the background and shared by page and card, which follow changed().
#pragma once

#include <QImage>

#include "app/leaves/leaf.h"
#include "job/log_book.h"
#include "job/run_card.h"
#include "log/sides.h"

namespace nine::app {

struct LogBook {
    std::vector<RecipeCard> cards;  ///< oldest first
    CardIndex index;
    std::vector<Wear> wear;
    std::vector<ToolRow> tools;
    std::vector<Catch> catches;
    std::vector<Leftover> leftovers;
    std::vector<Bottle> shelf;
    Warnings warnings;
};

class LogDesk : public QObject {
    Q_OBJECT
  public:
    LogDesk(LeafContext context, QObject* parent);

    void setClock(Clock clock) { clock_ = std::move(clock); }
    Moment now() const { return clock_(); }

    /// Reads the log unless that was done; again after changes.
    void read();
    bool settled() const {
        return !reading_.running() && !context_.library.busy() && !opening_ && !making_.running();
    }
    const std::shared_ptr<const LogBook>& book() const { return book_; }
    const std::optional<Error>& problem() const { return problem_; }

    /// Cards that hold all words, newest first.
    const std::vector<std::string>& found() const { return found_; }
    const QString& search() const { return search_; }
    void setSearch(const QString& words);

    /// The card in view; null when none is.
    const RecipeCard* card() const;
    const std::vector<QImage>& pictures() const { return pictures_; }
    const SideReport& sides() const { return sides_; }
    void select(const std::string& id);
    void selectBeside(int by);

    /// Makes a card of a run that is recorded or was left, and takes what was used off the shelf; ends with
    /// changed().
    void makeCard(const std::string& runFolder);
    bool making() const { return making_.running(); }
    const std::vector<KnownRun>& runs() const { return runs_; }

    /// Changes the card in view; the file follows.
    void change(const std::function<void(RecipeCard&)>& edit);
    void takeOut();
    void putBack();
    bool canPutBack() const { return !taken_.empty(); }
    void addPicture(const QString& path);
    void putTool(ToolRow row);
    void addCatch(Catch line);
    void addLeftover(Leftover leftover);
    void exportTo(const QString& path, bool all);
    void importFrom(const QString& path);
    /// A new job from the card in view, on this blank of the library; an empty id: its own blank.
    void doAgain(int lures, const std::string& blank);

    /// Where marks of the open job would be measured: planned places for the sides table.
    std::vector<SideReading> plannedReadings() const;

    static constexpr int kPictureSide = 900;

  signals:
    void changed();
    /// Something was put out or taken in.
    void told(QString sentence);

  private:
    void take(std::shared_ptr<const LogBook> book);
    void lookAt();
    void say(const Status& status);

    LeafContext context_;
    Clock clock_ = systemClock();
    std::shared_ptr<const LogBook> book_;
    std::optional<Error> problem_;
    QString search_;
    std::vector<std::string> found_;
    std::string card_;
    std::vector<std::string> taken_;
    std::vector<QImage> pictures_;
    std::string picturesOf_;
    SideReport sides_;
    std::vector<KnownRun> runs_;
    bool opening_ = false;
    LatestOnly<std::vector<KnownRun>> reading_{this, Urgency::Soon};
    LatestOnly<std::shared_ptr<Result<WholeCard>>> making_{this, Urgency::Soon};
    LatestOnly<std::shared_ptr<Result<Job>>> again_{this, Urgency::Soon};
};

}  // namespace nine::app
