// The card while a body is made from pictures or from a kind: what to do next, what was found, what is told
// by hand.
#pragma once

#include <QLabel>
#include <QObject>
#include <QPointer>

#include "app/leaves/blank/blank_desk.h"
#include "app/sheet/card.h"

namespace nine::app {

class WaysCard : public QObject {
    Q_OBJECT
  public:
    WaysCard(BlankDesk& desk, CardHolder& holder, QObject* parent);

    /// Shows or refreshes the card of the way that is on.
    void show();
    /// The next show() builds the card anew.
    void forget() { shownFor_.clear(); }

  signals:
    void pictureWanted(bool above);
    /// The tracing sheet: printed, or into a file.
    void sheetWanted(bool print);

  private:
    Card* tracingCard();
    Card* photoCard();
    Card* kindCard();
    /// What was found, or that it is being looked for and how to stop that.
    void addState(Card& card);
    void addTools(Card& card);
    void addStandOff(Card& card);
    void addGirths(Card& card, bool above);
    void addFamilies(Card& card);
    void addName(Card& card);
    void addMake(Card& card);
    QString shape() const;
    void refresh();

    BlankDesk& desk_;
    CardHolder& holder_;
    QString shownFor_;
    QPointer<QLabel> state_;
    QPointer<QPushButton> stop_;
    struct Shown {
        QPointer<ValueChip> chip;
        std::function<double()> value;
    };
    std::vector<Shown> chips_;
};

}  // namespace nine::app
