// Leaf 5, Masks: does it lie flat and land where it was drawn?
#pragma once

#include <QIcon>
#include <QTimer>
#include <map>

#include "app/document/writer.h"
#include "app/leaves/leaf.h"
#include "app/leaves/masks/mask_paper.h"
#include "app/leaves/masks/slit_desk.h"
#include "app/sheet/card.h"

namespace nine::app {

class MasksPage;

class MasksLeaf : public Leaf {
    Q_OBJECT
  public:
    MasksLeaf(LeafContext context, QObject* parent);
    QWidget* page() override;
    QWidget* card() override { return card_; }
    LeafEntry entry() const override;
    std::vector<Flag> flags() override;
    Standing standing() const override;

    ~MasksLeaf() override { writer_.drain(); }
    std::vector<MenuEntry> menu() override;
    std::vector<PointOnBody> pointedOut() const override;

    void useMaterial(int index);
    /// The printed sheet of the selected mask; nothing while it is not judged.
    std::optional<MaskPaper> paperOfSelected() const;
    const SlitDesk& desk() const { return desk_; }
    /// Gives the worst mask the stiffest sheet that lies flat there; false when none does.
    bool repairWorst();

  private:
    void rebuildCard() override;
    /// Of the mask and its twin of the other side. Errors: those of checkJob; nothing is changed then.
    Status changeSpec(const std::string& mask, const QString& label,
                      const std::function<void(MaskSpec&)>& edit, bool ownStep = true);
    QWidget* paramChip(Card& card, const Param& param, const MaskSpec& spec);
    void useKind(const std::string& mask, const std::string& kind);
    void useSlits(const std::string& mask, std::vector<Slit> slits, bool ownStep);
    void cutouts(Card& card, const MaskSpec& spec);
    void bridges(Card& card, const MaskSpec& spec, const Mask& mask);
    void pressPlaces(Card& card, const MaskSpec& spec, const Mask& mask);
    void billCover(Card& card);
    void putOutPaper(bool print);
    void kindAndSlits(Card& card, const MaskSpec& spec, const Mask* mask);
    void slitInHand(Card& card, const MaskSpec& spec);
    void changeSlit(const std::string& mask, const Slit& was, const QString& label,
                    const std::function<void(Slit&)>& edit);

    SlitDesk desk_;
    MasksPage* page_;
    CardHolder* card_;
    QTimer calm_;
    Writer writer_;                      ///< of printed sheets
    std::map<MaskPtr, QIcon> pictures_;  ///< of the masks the card lists
};

/// The mask that stands off most, or -1 when all lie flat.
int worstMask(const MasksResult& masks);
/// The stiffest sheet that takes a strain, or -1.
int stiffestSheetFor(double strain);

/// What the leaf is for, as rich text.
QString helpOnMasks();

}  // namespace nine::app
