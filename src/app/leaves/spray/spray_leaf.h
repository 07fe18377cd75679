// Leaf 7, Spray: how each stencil is sprayed for the edge that is wanted.
#pragma once

#include <QPointer>

#include "app/document/writer.h"
#include "app/leaves/leaf.h"
#include "app/leaves/spray/spray_card.h"
#include "app/leaves/spray/spray_desk.h"
#include "app/sheet/card.h"

namespace nine::app {

class SprayPage;

class SprayLeaf : public Leaf {
    Q_OBJECT
  public:
    SprayLeaf(LeafContext context, QObject* parent);
    QWidget* page() override;
    QWidget* card() override { return card_; }
    ~SprayLeaf() override { writer_.drain(); }
    LeafEntry entry() const override;
    std::vector<Flag> flags() override;
    std::vector<MenuEntry> menu() override;
    /// Cards for the bench, one for each mask that has a plan; a few milliseconds each.
    std::vector<SprayCard> allCards() const;
    /// Into a file, or printed.
    void putOutCards(bool print);
    void showBench();

    SprayDesk& desk() { return desk_; }
    /// Applies what the plan says to change first; false when that is not a matter of the gun.
    bool applyRemedy();
    /// Takes back the pin that binds.
    void releaseBinding();

  private:
    void rebuildCard() override;
    void refreshValues();
    QString shapeOfCard();
    QString shapeOfSteps();
    void sayPlan(Card& card);
    void sayPaint(Card& card);
    void sayWish(Card& card);
    void sayPins(Card& card);
    void saySteps(Card& card);
    void pin(const QString& what, ValueChip* chip, const std::function<void(SpraySpec&)>& edit);
    /// A value of the plan: typing one pins it.
    ValueChip* chip(Card& card, const QString& name, ValueChip::Kind kind, int decimals, double step,
                    std::function<double(const SprayStudy&)> get,
                    std::function<void(SpraySpec&, double)> set);

    SprayDesk desk_;
    Writer writer_;  ///< of cards
    SprayPage* page_;
    CardHolder* card_;
    QString shape_;
    std::vector<std::pair<QPointer<ValueChip>, std::function<double(const SprayStudy&)>>> chips_;
    QPointer<QLabel> mix_, bar_, pace_, strokes_, edge_, films_, verdict_, why_, warnings_;
    QPointer<QPushButton> repair_;
};

/// What the leaf is for, as rich text.
QString helpOnSpray();

}  // namespace nine::app
