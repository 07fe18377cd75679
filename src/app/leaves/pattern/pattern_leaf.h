// Leaf 2, Pattern: what is wanted on the body, the same on both sides.
#pragma once

#include <QLabel>
#include <QVBoxLayout>

#include "app/leaves/leaf.h"
#include "app/sheet/sentence.h"

namespace nine::app {

class PatternPage;

class PatternLeaf : public Leaf {
    Q_OBJECT
  public:
    PatternLeaf(LeafContext context, QObject* parent);
    QWidget* page() override;
    QWidget* card() override { return card_; }
    LeafEntry entry() const override;

    /// A new element of a kind, at a sensible place on the flank.
    void addElement(bool bars);
    void removeSelected();

  private:
    void rebuildCard() override;
    void refreshValues();
    const Element* selected() const;
    void change(const QString& label, const std::function<void(Element&)>& edit, ValueChip* chip = nullptr);

    PatternPage* page_;
    QWidget* card_;
    QVBoxLayout* layout_;
    QWidget* body_ = nullptr;
    std::vector<std::pair<ValueChip*, std::function<double(const Element&)>>> chips_;
    QString shownFor_;
};

}  // namespace nine::app
