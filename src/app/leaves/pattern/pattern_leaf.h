// Leaf 2, Pattern: what is wanted on the body, the same on both sides.
#pragma once

#include "app/leaves/leaf.h"
#include "app/sheet/card.h"

namespace nine::app {

class PatternPage;

class PatternLeaf : public Leaf {
    Q_OBJECT
  public:
    PatternLeaf(LeafContext context, QObject* parent);
    QWidget* page() override;
    QWidget* card() override { return card_; }
    LeafEntry entry() const override;
    std::vector<Flag> flags() override;
    Standing standing() const override;

    /// A new element of a kind with its usual values, at a sensible place on the flank.
    void addElement(const Kind& kind);
    void removeSelected();
    /// Puts a mark that reaches off the body to where it is shown. False when it lies on it.
    bool putBack(const std::string& element);

  private:
    /// A height on the flank from x on where no mark stands yet; 0 when there is none.
    double freeHeight(double x_mm) const;
    void rebuildCard() override;
    void refreshValues();
    /// A value of the selected element: how it is read and set, with the name it has in the history.
    ValueChip* chip(Card& card, const QString& name, ValueChip::Kind kind, int decimals,
                    std::function<double(const Element&)> get, std::function<void(Element&, double)> set);
    /// A sentence of the kind, with a value to type in the place of each key, in the translator's order.
    ValueChip* paramChip(Card& card, const Param& param);
    /// Measured from another landmark; the element stays where it is.
    void anchorTo(const std::string& landmark);
    void placeSentence(Card& card, const Element& e);
    ElementPtr selected() const;
    /// Changes the element of this id, or nothing when it is gone.
    void change(const std::string& id, const QString& label, const std::function<void(Element&)>& edit,
                ValueChip* chip = nullptr);

    PatternPage* page_;
    CardHolder* card_;
    std::vector<std::pair<ValueChip*, std::function<double(const Element&)>>> chips_;
    QString shownFor_;
};

/// What the leaf is for, as rich text.
QString helpOnPattern();

}  // namespace nine::app
