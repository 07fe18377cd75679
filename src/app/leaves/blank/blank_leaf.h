// Leaf 1, Blank: what shape this body is, exactly.
#pragma once

#include <QStackedWidget>

#include "app/leaves/blank/blank_desk.h"
#include "app/leaves/blank/landmark_card.h"
#include "app/leaves/blank/ways_card.h"
#include "app/leaves/leaf.h"
#include "app/sheet/card.h"
#include "blank/string_girth.h"
#include "cut/drawing.h"

namespace nine::app {

class BeginPage;
class BlankPage;
class KindPage;
class PicturePage;

class BlankLeaf : public Leaf {
    Q_OBJECT
  public:
    BlankLeaf(LeafContext context, QObject* parent);
    QWidget* page() override;
    QWidget* card() override { return card_; }
    LeafEntry entry() const override;
    std::vector<Flag> flags() override;
    Standing standing() const override;
    std::vector<MenuEntry> menu() override;
    bool takesFile(const QString& path) override;
    BlankDesk& desk() { return *desk_; }
    PicturePage& picturePage() { return *picturePage_; }
    BeginPage& beginPage() { return *begin_; }
    /// A picture dropped on the window, or chosen: goes on with what was begun, or begins with a photo.
    void openPicture(const QString& path, bool above = false);
    /// The tracing sheet on the paper of the locale.
    void putOutSheet(bool print);

    /// The readings as a table, into a file that is asked for.
    void saveReadings();
    /// The painter's blanks.
    void showLibrary();

  private:
    void rebuildCard() override;
    void refreshValues();
    void showPage();
    void choosePicture(bool above);
    void addTools(Card& card);
    void printTable(bool print);
    QString sourceWords() const;
    ValueChip* chip(Card& card, const QString& name, std::function<Status(Station&, double)> change);

    BlankDesk* desk_;
    QStackedWidget* stack_;
    BlankPage* page_;
    BeginPage* begin_;
    PicturePage* picturePage_;
    KindPage* kindPage_;
    WaysCard* ways_ = nullptr;
    LandmarkCard* landmark_ = nullptr;
    LatestOnly<std::shared_ptr<Drawing>> tableSlot_{this, Urgency::Soon};
    CardHolder* card_;
    QPointer<QLabel> title_, remark_, facts_;
    QPointer<QWidget> section_;
    ValueChip *x_ = nullptr, *top_ = nullptr, *bottom_ = nullptr, *width_ = nullptr, *girth_ = nullptr,
              *along_ = nullptr, *across_ = nullptr, *tailLong_ = nullptr, *tailHigh_ = nullptr;
    Fuller fuller_ = Fuller::Both;  ///< which half the string corrects
    QString shownFor_;
};

/// What the leaf is for, as rich text.
QString helpOnBlank();

}  // namespace nine::app
