// Leaf 5, Masks: does it lie flat and land where it was drawn?
#pragma once

#include <QImage>
#include <QLabel>
#include <QVBoxLayout>

#include "app/leaves/leaf.h"
#include "app/sheet/body_view.h"
#include "app/sheet/sentence.h"

namespace nine::app {

/// The drawing: the patch on the body above, the flat piece to the same scale below, landing and materials
/// beside.
class MasksPage : public QWidget {
    Q_OBJECT
  public:
    explicit MasksPage(LeafContext context);
    QRectF materialBox(int index) const;

  signals:
    void materialWanted(int index);

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override { layOut(); }
    void mousePressEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    void layOut();
    void drawStretch();
    const MaskResult* shown() const;
    void paintOnBody(QPainter& p, const MaskResult& result);
    void paintFlat(QPainter& p, const MaskResult& result);
    void paintLanding(QPainter& p, const Mask& mask);
    void paintMaterials(QPainter& p, const MaskResult& result);
    QPointF flatAt(const Vec2& p) const;

    LeafContext context_;
    BodyView side_{BodyView::From::Along, this};
    QRectF flat_, landing_, materials_;
    Vec2 flatMiddle_ = Vec2::Zero();
    MaskPtr drawnFor_;
    double drawnRatio_ = 0, drawnScale_ = 0;
    QSize drawnSize_;
    QImage stretch_, onBody_;  ///< the maps, drawn once for each result
};

class MasksLeaf : public Leaf {
    Q_OBJECT
  public:
    MasksLeaf(LeafContext context, QObject* parent);
    QWidget* page() override { return page_; }
    QWidget* card() override { return card_; }
    LeafEntry entry() const override;

    void useMaterial(int index);

  private:
    void rebuildCard() override;
    void changeSpec(const QString& label, const std::function<void(MaskSpec&)>& edit);

    MasksPage* page_;
    QWidget* card_;
    QVBoxLayout* layout_;
    QWidget* body_ = nullptr;
};

}  // namespace nine::app
