// Leaf 6, Cut: how the masks get out of the sheet.
#pragma once

#include <QLabel>
#include <QVBoxLayout>

#include "app/leaves/leaf.h"

namespace nine::app {

/// The page with its pieces, true to scale with rulers; pieces are dragged and never overlap.
class CutPage : public QWidget {
    Q_OBJECT
  public:
    explicit CutPage(LeafContext context);
    int sheet() const { return sheet_; }
    void showSheet(int sheet);
    QPointF pieceCentre(int index) const;

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    double perMm() const;
    QPointF origin() const;  ///< lower left corner of the sheet
    QPointF at(const Vec2& mm) const;
    void move(int piece, const Vec2& shift);

    LeafContext context_;
    int sheet_ = 0, selected_ = -1;
    bool dragging_ = false;
    QPointF last_;
    QString refused_;
};

class CutLeaf : public Leaf {
    Q_OBJECT
  public:
    CutLeaf(LeafContext context, QObject* parent);
    QWidget* page() override { return page_; }
    QWidget* card() override { return card_; }
    LeafEntry entry() const override;

    /// Writes the files into a folder. Errors: those of writing.
    Status exportTo(const QString& folder, bool svg, bool pdf);

  signals:
    void exportWanted(bool svg, bool pdf);
    void printWanted();

  private:
    void rebuildCard() override;

    CutPage* page_;
    QWidget* card_;
    QVBoxLayout* layout_;
    QWidget* body_ = nullptr;
};

}  // namespace nine::app
