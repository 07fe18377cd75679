// Leaf 1, Blank: what shape this body is, exactly.
#pragma once

#include <QLabel>

#include "app/leaves/leaf.h"
#include "app/sheet/sentence.h"

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
    void buildCard();
    void rebuildCard() override;

    BlankPage* page_;
    QWidget* card_;
    QLabel *title_, *remark_, *facts_;
    QWidget* section_;
    ValueChip *x_, *top_, *bottom_, *width_, *girth_;
};

}  // namespace nine::app
