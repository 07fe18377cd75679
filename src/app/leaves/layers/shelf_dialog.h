// The shop's shelf of paints: name, family, swatches (typed, picked, or read off a photo with white beside
// them), rules, what is left; two paints told apart. Every change is a row of the workshop file.
#pragma once

#include <QDialog>
#include <QImage>
#include <QListWidget>

#include "app/leaves/layers/layers_desk.h"
#include "app/sheet/card.h"

namespace nine::app {

/// Puts the paints of a file onto the shelf; how many. Errors: those of the file, of the workshop, not_ready.
Result<int> takeShelf(LeafContext& context, const QString& path);
Status writeShelf(const QString& path, const std::vector<Bottle>& shelf);

/// A photo in which a white patch is clicked, then a swatch.
class SwatchPhoto : public QWidget {
    Q_OBJECT
  public:
    explicit SwatchPhoto(QWidget* parent = nullptr);
    /// False, with the reason told, when it is no picture.
    bool load(const QString& path);
    /// Where a pixel of the picture is drawn.
    QPointF at(const QPointF& pixel) const;

  signals:
    void picked(nine::Srgb colour);
    void refused(const QString& why);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;

  private:
    /// The mean of a few pixels round a place.
    Srgb meanAt(const QPointF& at) const;

    QImage image_;
    double scale_ = 1;
    std::optional<Srgb> white_;
    QPointF whiteAt_;
};

class ShelfDialog : public QDialog {
    Q_OBJECT
  public:
    ShelfDialog(LeafContext context, LayersDesk& desk, QWidget* parent);

  private:
    void fillList();
    void rebuild();
    const Bottle* chosen() const;
    void put(Bottle bottle);
    /// Of the paint of this id, whatever is chosen now: fields finish when their card is already another.
    void edit(const std::string& id, const std::function<void(Bottle&)>& how);
    void saySwatches(Card& card, const Bottle& bottle);
    void sayApart(Card& card, const Bottle& bottle);
    void say(const QString& words);

    LeafContext context_;
    LayersDesk& desk_;
    QListWidget* list_;
    CardHolder* card_;
    SwatchPhoto* photo_;
    QLabel* said_;
    std::string id_;
    std::string other_;  ///< to be told apart from
};

}  // namespace nine::app
