// Leaf 3, Layers: what goes on in which order and what it will look like, from the bare blank to the clear.
#pragma once

#include "app/leaves/layers/layers_desk.h"
#include "app/sheet/card.h"
#include "paint/cup.h"

namespace nine::app {

class LayersPage;

class LayersLeaf : public Leaf {
    Q_OBJECT
  public:
    LayersLeaf(LeafContext context, QObject* parent);
    QWidget* page() override;
    QWidget* card() override { return card_; }
    LeafEntry entry() const override;
    std::vector<Flag> flags() override;
    std::vector<MenuEntry> menu() override;
    QString busyWith() const override;
    std::shared_ptr<const Image> wornOnHolder() const override { return desk_.worn(); }
    QString wornWords() const override;
    std::shared_ptr<const Image> bodyAsPainted() const override;

    LayersDesk& desk() { return desk_; }
    /// Nothing is under way, and the card says what was found.
    bool settled() const override { return desk_.settled() && !calm_.isActive(); }
    /// What is in the cup while it is tried out for a step.
    const std::optional<Cup>& cup() const { return cup_; }

  private:
    void rebuildCard() override;
    void sayBegin(Card& card);
    void sayStep(Card& card, const Step& step);
    void sayPaint(Card& card, const Step& step);
    void sayWhere(Card& card, const Step& step);
    void sayDry(Card& card, const Step& step);
    void sayFigures(Card& card, const Step& step);
    void sayNearest(Card& card, const Step& step);
    /// What was found for the sought colour, to be used in a step; none: only told.
    void sayFound(Card& card, const std::string& step);
    /// A colour of one's own, as of a fish on a photo.
    void seekColour();
    void sayCup(Card& card, const Step& step);
    void sayDoings(Card& card, const Step& step);
    void sayEyes(Card& card, const Step& step);
    void sayClear(Card& card, const Step& step);
    void sayHands(Card& card, const Step& step);
    void sayFinding(Card& card, const RuleFinding& finding);
    void sayRecipe(Card& card);
    void sayAdd(Card& card);
    QList<Card::Choice> paintChoices(const std::string& now, std::function<void(const Bottle&)> chosen);
    /// Changes the step of this id.
    void change(const std::string& step, const QString& label, const std::function<void(Step&)>& edit);
    ValueChip* chip(Card& card, const std::string& step, const QString& name, ValueChip::Kind kind,
                    int decimals, double by, double value, std::function<void(Step&, double)> set);
    void add(Act act);
    void openShelf();
    void importShelf();
    void exportShelf();
    /// Steps that only stand for the colours of the pattern: nobody has made a recipe yet.
    bool draft() const;

    LayersDesk desk_;
    LayersPage* page_;
    CardHolder* card_;
    QTimer calm_;
    /// Drawings of the pattern show the finished skin too.
    void showEverywhere(bool on);

    bool everywhere_ = false;
    std::optional<Cup> cup_;
    std::string cupOf_;  ///< id of the step
};

/// What the leaf is for, as rich text.
QString helpOnLayers();

}  // namespace nine::app
