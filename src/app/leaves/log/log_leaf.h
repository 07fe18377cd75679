// Leaf 9, Log: what worked, and how to do it again.
#pragma once

#include <QPlainTextEdit>

#include "app/leaves/log/log_desk.h"
#include "app/sheet/card.h"

namespace nine::app {

class LogPage;

class LogLeaf : public Leaf {
    Q_OBJECT
  public:
    LogLeaf(LeafContext context, QObject* parent);
    QWidget* page() override;
    QWidget* card() override { return card_; }
    LeafEntry entry() const override;
    std::vector<Flag> flags() override;
    std::vector<MenuEntry> menu() override;
    QString busyWith() const override;
    bool settled() const override { return desk_.settled() && !calm_.isActive(); }
    /// A photo is taken onto the card in view, a file of cards into the log.
    bool takesFile(const QString& path) override;

    LogDesk& desk() { return desk_; }
    /// The card in view as a page. On a worker's thread where it is written.
    static QString cardHtml(const RecipeCard& card);

  private:
    void rebuildCard() override;
    void sayRuns(Card& card);
    void sayFind(Card& card);
    void sayOutcome(Card& card, const RecipeCard& now);
    void saySides(Card& card, const RecipeCard& now);
    void sayAgain(Card& card, const RecipeCard& now);
    void sayWear(Card& card);
    void sayCatches(Card& card, const RecipeCard& now);
    void sayLeftovers(Card& card);
    void askPicture();
    void measure();
    void printCard(bool print);
    void editTool(const Wear& wear);

    LogDesk desk_;
    LogPage* page_;
    CardHolder* card_;
    QTimer calm_;
    Writer writer_;
    int againLures_ = 0;
    std::string againBlank_;
};

/// What the leaf is for, as rich text.
QString helpOnLog();

}  // namespace nine::app
