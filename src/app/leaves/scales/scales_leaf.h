// Leaf 4, Scales: which net or cut lattice, how it lies on this body, how to put it on.
#pragma once

#include <QTimer>

#include "app/leaves/scales/scales_desk.h"
#include "app/sheet/card.h"

namespace nine::app {

class ScalesPage;

class ScalesLeaf : public Leaf {
    Q_OBJECT
  public:
    ScalesLeaf(LeafContext context, QObject* parent);
    QWidget* page() override;
    QWidget* card() override { return card_; }
    LeafEntry entry() const override;
    std::vector<Flag> flags() override;
    std::vector<MenuEntry> menu() override;
    QString busyWith() const override;
    std::shared_ptr<const Image> wornOnHolder() const override { return desk_.worn(); }

    ScalesDesk& desk() { return desk_; }
    /// Nothing is under way, and the card says what was found.
    bool settled() const override;

  private:
    void rebuildCard() override;
    void sayFish(Card& card);
    void sayNets(Card& card);
    void sayNet(Card& card);
    void sayNetItself(Card& card);
    void sayCells(Card& card);
    void sayClips(Card& card);
    void sayMist(Card& card);
    void sayFoil(Card& card);
    void saySteps(Card& card);
    /// A value of the chapter.
    ValueChip* chip(Card& card, const QString& name, ValueChip::Kind kind, int decimals, double step,
                    double value, std::function<void(ScalesChapter&, double)> set);
    void change(const QString& label, const std::function<void(ScalesChapter&)>& edit);
    void useNet(const Net& net, bool doubled);
    /// The scales as an element of the pattern, so that pictures of the body show them.
    void showInPattern();
    void addStencil();
    void putOutClips(bool print);
    void putOutFoil(bool print);

    bool editing_ = false;  ///< the net itself
    ScalesDesk desk_;
    ScalesPage* page_;
    CardHolder* card_;
    QTimer calm_;
};

/// What the leaf is for, as rich text.
QString helpOnScales();

}  // namespace nine::app
