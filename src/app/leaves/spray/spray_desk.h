// What the Spray leaf works on: the selected mask, what is asked of it, the plan and the edge at the place
// that is looked at. One for the page and the card; both follow changed().
//
// The plan of the selected mask is worked out where it is asked for (2 ms); those of all masks, for stem and
// tell-tale line, in the background.
#pragma once

#include "app/leaves/leaf.h"
#include "job/spray_job.h"

namespace nine::app {

struct SprayStudy {
    MaskSpecPtr spec;  ///< null when no mask is selected
    MaskPtr mask;      ///< null when it cannot be made, or is not judged yet
    std::vector<ArtPtr> art;
    SpraySpec wish;    ///< what was said of the mask
    SpraySpec told;    ///< with what its step of the recipe says of paint, drops and coats
    std::string step;  ///< id of that step; empty without one
    MaskToSpray asked;
    std::optional<SprayPlan> plan;  ///< where pins contradict, without the one that binds
    std::optional<Error> error;     ///< pins that contradict, no gun, no mask
    EdgePlace worst;

    bool ready() const { return mask && plan; }
    std::vector<const ElementArt*> artPointers() const;
};

/// The edge at one place of the mask.
struct EdgeHere {
    double gap_mm = 0;
    EdgeFigures edge{};
};

/// What became of a mask's plan.
struct SprayVerdict {
    MaskSpecPtr spec;
    bool planned = false, meets = false;
    double width_mm = 0;
    Words first;  ///< what to change first, or why there is no plan
};

/// A sprayed step of the recipe that goes through no mask.
struct StepVerdict {
    std::string step, name;
    SprayPins pins;
    Result<SprayPlan> plan;
};

class SprayDesk : public QObject {
    Q_OBJECT
  public:
    SprayDesk(LeafContext context, QObject* parent);

    const SprayStudy& study();
    /// As it was worked out last.
    const SprayStudy& shown() const { return study_; }
    /// The same for another mask, by its id.
    SprayStudy studyOf(const std::string& mask) const;
    const std::vector<SprayVerdict>& verdicts() const { return verdicts_; }
    /// In the order of the recipe; none while its steps only stand for colours.
    const std::vector<StepVerdict>& steps() const { return steps_; }
    Status changeStep(const std::string& step, const QString& label,
                      const std::function<void(SprayPins&)>& edit);
    /// Whether the verdicts are those of the masks as they are now.
    bool settled() const { return !slot_.running() && !stepsSlot_.running(); }

    /// Skin point that is looked at: an edge of the mask, where it stands off most unless moved.
    Vec2 aim();
    void lookAt(const Vec2& skin);
    void lookAtWorst();
    /// The planned edge where the sheet stands off as it does at a skin point; nothing outside the model.
    std::optional<EdgeHere> edgeAt(const Vec2& skin);

    /// An edge kept to compare others with.
    struct Kept {
        QString words;
        EdgeHere here;
    };
    const std::optional<Kept>& kept() const { return kept_; }
    void keep();
    void forget();

    /// While something is dragged views keep their shape and only follow with values.
    bool dragging() const { return dragging_; }
    void setDragging(bool on);

    /// Changes what is said of the selected mask, and of its twin of the other side. Edits of a drag follow
    /// one beginGesture of the document. Nothing happens when the job would not be one any more; the reason
    /// is returned.
    Status change(const QString& label, const std::function<void(SpraySpec&)>& edit) {
        return change(study().spec ? study().spec->id : std::string(), label, edit);
    }
    /// The same of the mask of this id, whatever is selected; nothing when there is none.
    Status change(const std::string& mask, const QString& label, const std::function<void(SpraySpec&)>& edit);

  signals:
    void changed();
    void verdictsChanged();

  private:
    void stale();
    void requestVerdicts();
    void requestSteps();

    LeafContext context_;
    SprayStudy study_;
    bool stale_ = true, dragging_ = false;
    std::optional<Vec2> aim_;
    std::string aimedMask_;
    std::optional<Kept> kept_;
    std::vector<SprayVerdict> verdicts_;
    std::vector<StepVerdict> steps_;
    LatestOnly<std::vector<SprayVerdict>> slot_{this, Urgency::Patient};
    LatestOnly<std::vector<StepVerdict>> stepsSlot_{this, Urgency::Patient};
};

}  // namespace nine::app
