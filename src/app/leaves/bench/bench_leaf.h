// Leaf 8, Bench: what to do next and with which colour in the cup, what must not be forgotten, and what
// really happened.
#pragma once

#include "app/leaves/bench/bench_desk.h"
#include "app/sheet/card.h"

namespace nine::app {

class BenchPage;
class Runner;

class BenchLeaf : public Leaf {
    Q_OBJECT
  public:
    BenchLeaf(LeafContext context, QObject* parent);
    ~BenchLeaf() override;
    QWidget* page() override;
    QWidget* card() override { return card_; }
    LeafEntry entry() const override;
    std::vector<Flag> flags() override;
    Standing standing() const override;
    std::vector<MenuEntry> menu() override;
    QString busyWith() const override;
    bool settled() const override { return desk_.settled() && !calm_.isActive(); }

    BenchDesk& desk() { return desk_; }
    Runner& runner() { return *runner_; }
    /// Begins a run where none goes on, and shows the runner.
    void openRunner();
    /// Pages with all steps, for the wall of the bench.
    void putOutSheet(bool print);

  private:
    void rebuildCard() override;
    void sayNow(Card& card);
    void sayPlan(Card& card);
    void sayTask(Card& card);
    void sayWrong(Card& card);
    void sayCups(Card& card);
    void sayMasks(Card& card);
    void sayGates(Card& card);
    void sayOthers(Card& card);
    void sayRuns(Card& card);
    ValueChip* shopChip(Card& card, const QString& name, int value, std::function<void(BenchShop&, int)> set);
    void told(const Status& status);
    void makeItTheRecipe();
    void addOther();

    BenchDesk desk_;
    BenchPage* page_;
    CardHolder* card_;
    Runner* runner_;
    QTimer calm_;
    Writer writer_;
    bool allGates_ = false;
};

/// What the leaf is for, as rich text.
QString helpOnBench();

}  // namespace nine::app
