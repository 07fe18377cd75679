// Leaf 1, Blank: what shape this body is, exactly.
#pragma once

#include "app/leaves/leaf.h"
#include "app/sheet/card.h"

namespace nine::app {

class BlankPage;

class BlankLeaf : public Leaf {
    Q_OBJECT
  public:
    BlankLeaf(LeafContext context, QObject* parent);
    QWidget* page() override;
    QWidget* card() override { return card_; }
    LeafEntry entry() const override;

  signals:
    void openWanted();
    void demoWanted();

  private:
    void rebuildCard() override;
    void refreshValues();
    ValueChip* chip(Card& card, const QString& name, std::function<Status(Station&, double)> change);

    BlankPage* page_;
    CardHolder* card_;
    QPointer<QLabel> title_, remark_, facts_;
    QPointer<QWidget> section_;
    ValueChip *x_ = nullptr, *top_ = nullptr, *bottom_ = nullptr, *width_ = nullptr, *girth_ = nullptr;
    QString shownFor_;
};

}  // namespace nine::app
