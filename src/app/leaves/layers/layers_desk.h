// What the Layers leaf works on: the recipe laid on the body, what the rules say, amounts, the cut through
// the films, which bottles make a colour; all found in the background and shared by page and card, which
// follow changed().
//
// A changed step is answered coarsely at once and exactly a moment later; steps below it, and paints that
// stayed as they were, are not worked out again.
#pragma once

#include <QTimer>
#include <set>

#include "app/leaves/leaf.h"
#include "job/recipe_section.h"

namespace nine::app {

struct LayersStudy {
    std::shared_ptr<const RecipeOnBody> on;  ///< null without a body or steps
    bool coarse = false;                     ///< a preview
    std::vector<RuleFinding> findings;
    std::vector<StepAmount> amounts;            ///< for the job's number of lures
    std::vector<std::optional<OverWhat>> over;  ///< of each step
    std::optional<Error> error;
    std::shared_ptr<const Image> finished;  ///< the skin after the last step

    /// Whether it was worked out on the body that is shown.
    bool isOf(const BodyResult& body) const { return on && on->of.part<BlankChapter>() == body.blank; }
    /// By the step's id: the steps may have changed since. Null or nothing where it lays nothing down.
    const StepAmount* amountOf(const std::string& step) const;
    std::optional<OverWhat> overOf(const std::string& step) const;
    /// Of its own steps; nothing for one that is not among them.
    std::optional<std::size_t> placeOf(const std::string& step) const;
};

/// A colour that is sought on the shelf, and what was found.
struct SoughtColour {
    std::string step;  ///< for which; empty: for none
    Wanted wanted;
    std::optional<NearestMixes> found;
    std::shared_ptr<const std::vector<Bottle>> shelf;  ///< among these
};

class LayersDesk : public QObject {
    Q_OBJECT
  public:
    LayersDesk(LeafContext context, QObject* parent);

    /// Whether somebody looks: steps that only stand for the colours of the pattern are worked out for nobody
    /// else.
    void setWatched(bool on);

    /// The last that was found; what is drawn while the next is sought. Its steps are those of
    /// study().on->of.
    const LayersStudy& study() const { return study_; }
    const LayersChapter& layers() const { return context_.document.job().get<LayersChapter>(); }
    /// Whether the study is of the steps as they are now.
    bool current() const;
    bool settled() const;
    bool beginning() const { return beginning_.running(); }
    bool seeking() const { return seeking_.running(); }

    /// The selected step; null when none is.
    const Step* step() const;
    /// Its place; the last one when none is selected.
    std::optional<std::size_t> stepPlace() const;
    void select(const std::string& id);
    /// The next one up (+1) or down.
    void selectBeside(int by);

    /// The skin as it looks after the selected step.
    const std::shared_ptr<const Image>& worn() const { return worn_; }
    /// The skin once all is done, if that is known for the job as it stands; else null.
    std::shared_ptr<const Image> finished() const;

    double cutAt_mm() const;
    void cutAt(double x_mm);
    const std::optional<RecipeSection>& section() const { return section_; }

    /// The shop's own paints among those that ship, once the workshop file has been read.
    const std::vector<Bottle>& shelf() const { return *shelf_; }
    /// The job's own first, then those of the shelf.
    std::vector<Bottle> paints() const;
    void readShelf();

    /// One step of the history; edits of a drag follow one beginGesture. The reason when the job would not be
    /// one. Paints that steps name are taken from the shelf.
    Status change(const QString& label, const std::function<void(LayersChapter&)>& edit);
    /// The same of the step of this id; nothing when it is gone. It then is the painter's own.
    Status changeStep(const std::string& id, const QString& label, const std::function<void(Step&)>& edit);
    void repair(const RuleFinding& finding);

    /// A first recipe in the place of what there is; one step of the history.
    void begin(School school);
    void stopBeginning();
    /// Which bottles make the wanted colour; ends with changed().
    void seek(SoughtColour colour);
    const std::optional<SoughtColour>& sought() const { return sought_; }

    /// Groups that show what is sprayed alone, not what is laid on and lifted for it; view state.
    bool folded(const std::string& group) const { return !group.empty() && !unfolded_.count(group); }
    void fold(const std::string& group);

  signals:
    void changed();

  private:
    void request();
    void requestPictures();

    static constexpr int kRest_ms = 250;
    LeafContext context_;
    std::shared_ptr<Derivations> derived_ = std::make_shared<Derivations>();
    LayersStudy study_;
    std::shared_ptr<const RecipeOnBody> coarse_, exactBefore_;  ///< the last of each, for the next one
    std::shared_ptr<const std::vector<Bottle>> shelf_;
    std::shared_ptr<const Image> worn_;
    std::optional<RecipeSection> section_;
    std::optional<double> cut_;
    std::optional<SoughtColour> sought_;
    std::set<std::string> unfolded_;
    bool watched_ = false;
    QTimer rest_;  ///< after changes of body and marks, which are dragged
    struct Pictures {
        std::shared_ptr<const Image> worn;
        std::optional<RecipeSection> section;
    };
    LatestOnly<LayersStudy> preview_{this, Urgency::Now, Overtaken::Shown}, exact_{this, Urgency::Soon};
    LatestOnly<Pictures> pictures_{this, Urgency::Now, Overtaken::Shown};
    LatestOnly<Result<Job>> beginning_{this, Urgency::Soon};
    LatestOnly<SoughtColour> seeking_{this, Urgency::Soon};
};

}  // namespace nine::app
