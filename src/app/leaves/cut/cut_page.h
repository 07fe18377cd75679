// The drawing of the Cut leaf: a sheet with its pieces, true to scale with rulers; pieces are dragged and
// never overlap. One drag is one step of the history.
#pragma once

#include <QImage>

#include "app/leaves/leaf_page.h"

namespace nine::app {

class CutPage : public LeafPage {
    Q_OBJECT
  public:
    explicit CutPage(LeafContext context);
    int sheet() const { return sheet_; }
    void showSheet(int sheet);
    QPointF pieceCentre(int index) const;

  protected:
    void layOut() override;
    void paintPage(QPainter& p) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    struct FootRequest {
        quint64 revision = 0;
        int sheet = -1;
        double perMm = 0, ratio = 1;
        bool operator==(const FootRequest&) const = default;
    };
    const SheetSize& size() const { return context_.document.job().get<CutChapter>().sheet; }
    double perMm() const;
    QPointF origin() const;  ///< lower left corner of the sheet
    QPointF at(const Vec2& mm) const;
    QRectF sheetBox() const;
    /// Of the sheet in view: its id.
    std::string materialShown() const;
    void paintSheet(QPainter& p, const QColor& ground) const;
    void paintPieces(QPainter& p, const QColor& ground) const;
    void move(int piece, const Vec2& shift);
    /// Makes the place of the piece the job's.
    void keep(int piece);

    /// Where the selected piece stands among those of some pages; -1 when it is not there.
    int selectedIn(const std::optional<CutPages>& pages) const;
    /// False, and says so, while pieces are still to come: places are kept for all pieces together.
    bool mayMove();

    int sheet_ = 0;
    std::string selected_;  ///< id of a piece
    bool dragging_ = false;
    QPointF last_;
    QString refused_;
    quint64 revision_ = 0;
    FootRequest footFor_;
    QImage foot_;  ///< check line, square and texts: many strokes, drawn once
    LatestOnly<QImage> footSlot_{this};
    std::optional<CutPages> before_;  ///< the pages as they were when the drag began
};

}  // namespace nine::app
