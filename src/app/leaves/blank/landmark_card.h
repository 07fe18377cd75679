// The card of the landmark or zone in hand.
#pragma once

#include "app/leaves/leaf.h"
#include "app/sheet/card.h"

namespace nine::app {

class LandmarkCard : public QObject {
    Q_OBJECT
  public:
    LandmarkCard(LeafContext context, CardHolder& holder, QObject* parent);

    /// Whether the selection is one of ours; then its card is shown or refreshed.
    bool show();
    void forget() { shownFor_.clear(); }

  private:
    void landmarkCard(const std::string& name);
    void zoneCard(const std::string& id);
    void take(const Result<Job>& job, const QString& label, ValueChip* typed = nullptr);
    const Landmark* landmark() const;
    const Zone* zone() const;
    const Job& job() const { return context_.document.job(); }

    LeafContext context_;
    CardHolder& holder_;
    QString shownFor_;
    struct Shown {
        QPointer<ValueChip> chip;
        std::function<double()> value;
    };
    std::vector<Shown> chips_;
    QPointer<QLabel> facts_, wrong_;
};

}  // namespace nine::app
