// What each material can do where the mask in view is, worked out in the background while it is looked at.
#pragma once

#include <QTimer>

#include "app/document/latest_only.h"
#include "app/leaves/leaf.h"
#include "job/derive.h"

namespace nine::app {

class SlitDesk : public QObject {
    Q_OBJECT
  public:
    SlitDesk(LeafContext context, QObject* parent);

    /// Asks for the answers unless they are there or under way.
    void want(const MaskSpec& spec);
    /// Of sheetMaterials(), in their order; null while they are not known.
    const std::vector<MaterialAnswer>* answersFor(const MaskSpec& spec) const;
    /// Of the mask's own material; null while it is not known.
    const MaterialAnswer* answerFor(const MaskSpec& spec) const;
    bool running() const { return rest_.isActive() || slot_.running(); }

  signals:
    void changed();

  private:
    /// All that answers depend on.
    struct Asked {
        std::shared_ptr<const void> blank, pattern;
        MaskWish wish;  ///< without its material and the slits that may be planned anew
        Side side;
        bool operator==(const Asked&) const = default;
    };
    Asked askedOf(const MaskSpec& spec) const;

    /// Looking through the masks one after the other starts nothing.
    static constexpr int kRest_ms = 350;

    LeafContext context_;
    std::shared_ptr<Derivations> derived_ = std::make_shared<Derivations>();
    std::optional<Asked> wanted_, known_;
    std::optional<MaskSpec> spec_;
    std::optional<std::vector<MaterialAnswer>> answers_;
    QTimer rest_;
    LatestOnly<Result<std::vector<MaterialAnswer>>> slot_{this, Urgency::Patient};
};

}  // namespace nine::app
