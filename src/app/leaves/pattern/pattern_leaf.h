// Leaf 2, Pattern: what is wanted on the body, the same on both sides, and on the next blank.
#pragma once

#include "app/leaves/leaf.h"
#include "app/leaves/pattern/refit_desk.h"
#include "app/sheet/card.h"
#include "pattern/curve.h"
#include "pattern/features.h"

namespace nine::app {

class CurveField;
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
    std::vector<MenuEntry> menu() override;

    /// A new element of a kind with its usual values, at a sensible place on the flank or at x, g.
    void addElement(const Kind& kind);
    void addElementAt(const Kind& kind, const Vec2& at);
    void removeSelected();
    /// Puts a mark that reaches off the body to where it is shown. False when it lies on it.
    bool putBack(const std::string& element);
    /// Looks at the same pattern on a blank; wears it with its troubles mended; takes it as a job of its own.
    RefitDesk& refitDesk() { return desk_; }
    void makeJobOfRefit();

  private:
    /// A height on the flank from x on where no mark stands yet; 0 when there is none.
    double freeHeight(double x_mm) const;
    void rebuildCard() override;
    void refreshValues();
    QString cardShape() const;
    /// A value of the selected element: how it is read and set, with the name it has in the history.
    ValueChip* chip(Card& card, const QString& name, ValueChip::Kind kind, int decimals,
                    std::function<double(const Element&)> get, std::function<void(Element&, double)> set);
    /// What a parameter is set with: a number to type, a word to choose, letters.
    QWidget* paramChip(Card& card, const Param& param);
    /// Measured from another landmark; the element stays where it is.
    void anchorTo(const std::string& landmark);
    void placeSentence(Card& card, const Element& e);
    void curvesOf(Card& card, const Kind& kind);
    /// Set by dragging one of its points; stays within its limits.
    void setCurve(const std::string& id, const Curve& curve, int point, double mm);
    void sidesOf(Card& card, const Element& e);
    void oneMore(Card& card, const Element& e);
    void naturalOf(Card& card, const Element& e);
    void fineness(Card& card, const Element& e);
    void derivedOf(Card& card, const Element& e);
    void neighboursOf(Card& card, const Element& e);
    void rulesOf(Card& card, const Element& e);
    void refitCard(Card& card, const RefitPreview& preview);
    void showKinds();
    void addDerived(const Kind& kind);
    ElementPtr selected() const;
    /// Changes the element of this id, or nothing when it is gone.
    void change(const std::string& id, const QString& label, const std::function<void(Element&)>& edit,
                ValueChip* chip = nullptr);
    void requestFeatures();

    RefitDesk desk_;
    PatternPage* page_;
    CardHolder* card_;
    std::vector<std::pair<ValueChip*, std::function<double(const Element&)>>> chips_;
    std::vector<std::pair<CurveField*, const Curve*>> curves_;
    QString shownFor_;
    /// How fine the selected mark is, and of which art that was found.
    struct Found {
        ArtPtr art;
        Features features;
    };
    Found found_;
    LatestOnly<Found> featuresSlot_{this, Urgency::Patient};
};

/// What the leaf is for, as rich text.
QString helpOnPattern();

}  // namespace nine::app
