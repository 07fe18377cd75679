#include "app/leaves/masks/mask_paper.h"

#include <QBuffer>
#include <QPagedPaintDevice>
#include <QPainter>
#include <QPdfWriter>
#include <algorithm>

#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "app/theme/theme.h"
#include "base/files.h"

namespace nine::app {
namespace {

constexpr double kPaperMargin_mm = 14, kPaperGap_mm = 6;
constexpr const char *kPaperInk = "#1D2A25", *kPaperMuted = "#5A665E", *kPaperCaution = "#8F5500";

/// Writes from the top of a page to its foot, and on to the next one. Pixels but where it says mm.
class PaperPen {
  public:
    PaperPen(QPagedPaintDevice& device, QPainter& p, double perMm, const QSizeF& page_mm)
        : device_(device), p_(p), perMm_(perMm), page_(page_mm * perMm), y_(kPaperMargin_mm * perMm) {}

    double left() const { return kPaperMargin_mm * perMm_; }
    double wide() const { return page_.width() - 2 * left(); }
    double foot() const { return page_.height() - left(); }
    double room_mm() const { return (foot() - y_) / perMm_; }
    double y() const { return y_; }
    void down(double mm) { y_ += mm * perMm_; }
    void newPage() {
        device_.newPage();
        y_ = kPaperMargin_mm * perMm_;
    }

    void text(const QString& words, double mm, int weight, const QColor& colour, double gap_mm,
              const QString& number = {}) {
        const double indent = number.isEmpty() ? 0 : 8 * perMm_;
        const QRectF box(left() + indent, 0, wide() - indent, 1e6);
        p_.setFont(inter(mm * perMm_, weight));
        const QRectF needed = p_.boundingRect(box, Qt::TextWordWrap | Qt::AlignLeft, words);
        if (y_ + needed.height() > foot()) newPage();
        p_.setPen(colour);
        p_.drawText(box.translated(0, y_), Qt::TextWordWrap | Qt::AlignLeft, words);
        if (!number.isEmpty()) {
            p_.setFont(inter(mm * perMm_, QFont::Bold));
            p_.drawText(QRectF(left(), y_, indent, needed.height()), Qt::AlignLeft, number);
        }
        y_ += needed.height() + gap_mm * perMm_;
    }

    void heading(const QString& words) {
        if (room_mm() < 20) newPage();
        down(2);
        text(words, 4.2, QFont::Bold, QColor(kPaperInk), 1.5);
    }

    void list(const std::vector<Words>& lines, bool numbered) {
        int number = 1;
        for (const Words& line : lines)
            text(said(line), 3.6, QFont::Normal, QColor(kPaperInk), 1.4,
                 numbered ? QString::number(number++) : QString());
    }

    /// In columns, for many short lines.
    void columns(const std::vector<Words>& lines) {
        constexpr int kColumns = 2;
        p_.setFont(inter(2.8 * perMm_, QFont::Normal));
        const double high = 1.45 * 2.8 * perMm_, column = wide() / kColumns;
        for (std::size_t i = 0; i < lines.size(); i += kColumns) {
            if (y_ + high > foot()) newPage();
            for (std::size_t k = 0; k < kColumns && i + k < lines.size(); ++k) {
                p_.setPen(QColor(kPaperInk));
                const QRectF box(left() + static_cast<double>(k) * column, y_, column - 3 * perMm_, high);
                p_.drawText(box, Qt::AlignLeft | Qt::AlignVCenter,
                            QFontMetricsF(p_.font(), &device_)
                                .elidedText(said(lines[i + k]), Qt::ElideRight, box.width()));
            }
            y_ += high;
        }
    }

  private:
    QPagedPaintDevice& device_;
    QPainter& p_;
    double perMm_;
    QSizeF page_;
    double y_;
};

/// One piece with its upper left corner at `at`.
void paintPiece(QPainter& p, const Piece& piece, const QColor& material, const QPointF& at, double scale,
                double hair) {
    const Box2 box = piece.box();
    const auto place = [&](const Vec2& v) {
        return QPointF(at.x() + scale * (v.x() - box.low.x()), at.y() + scale * (box.high.y() - v.y()));
    };
    const auto ring = [&](const std::vector<Vec2>& line) {
        QPolygonF polygon;
        for (const Vec2& v : line) polygon << place(v);
        return polygon;
    };
    p.setPen(QPen(QColor(kPaperInk), 1.6 * hair));
    p.setBrush(material);
    p.drawPolygon(ring(piece.outline));
    p.setPen(QPen(QColor(kPaperInk), hair));
    for (const PieceWindow& window : piece.windows) {
        p.setBrush(Qt::white);
        p.drawPolygon(ring(window.outline));
        p.setBrush(material);
        for (const Polygon2& island : window.islands) p.drawPolygon(ring(island));
    }
    p.setBrush(Qt::NoBrush);
    for (const Polyline2& stroke : piece.pen) p.drawPolyline(ring(stroke));
}

/// In rows, as many beside each other as fit.
void paintPieces(PaperPen& pen, QPainter& p, const MaskPaper& paper, double perMm) {
    const double wide_mm = pen.wide() / perMm, most_mm = pen.foot() / perMm - kPaperMargin_mm - 40;
    double x_mm = 0, row_mm = 0;
    bool smaller = false;
    for (const Piece& piece : paper.pieces) {
        const Vec2 size = piece.box().size();
        const double fits = std::min({1.0, wide_mm / size.x(), most_mm / size.y()});
        smaller = smaller || fits < 1;
        if (x_mm > 0 && x_mm + fits * size.x() > wide_mm) {
            pen.down(row_mm + kPaperGap_mm);
            x_mm = row_mm = 0;
        }
        if (x_mm == 0 && pen.room_mm() < fits * size.y()) pen.newPage();
        paintPiece(p, piece, paper.material, QPointF(pen.left() + x_mm * perMm, pen.y()), fits * perMm,
                   0.2 * perMm);
        x_mm += fits * size.x() + kPaperGap_mm;
        row_mm = std::max(row_mm, fits * size.y());
    }
    pen.down(row_mm + 2);
    pen.text(smaller
                 ? QObject::tr("Drawn smaller than it is where the paper is too small: cut from the pages of "
                               "the Cut leaf.")
                 : QObject::tr("True size when printed at 100 %, seen from the painted side."),
             2.9, QFont::Normal, QColor(kPaperMuted), 2);
}

}  // namespace

void drawMaskPaper(QPagedPaintDevice& device, QPainter& p, const MaskPaper& paper, double perMm) {
    p.setRenderHint(QPainter::Antialiasing);
    PaperPen pen(device, p, perMm, QPageSize(paper.paper).size(QPageSize::Millimeter));
    pen.text(said(paper.words.title), 6.4, QFont::Bold, QColor(kPaperInk), 0.5);
    pen.text(QObject::tr("on %1").arg(paper.blank), 3.6, QFont::Normal, QColor(kPaperMuted), 3);
    paintPieces(pen, p, paper, perMm);
    pen.heading(QObject::tr("Its crosses stand"));
    pen.list(paper.words.marks, false);
    pen.heading(QObject::tr("In this order"));
    pen.list(paper.words.steps, true);
    if (!paper.words.press.empty()) {
        pen.heading(QObject::tr("Held by two fingers, one place after the other"));
        pen.list(paper.words.press, false);
    }
    if (!paper.words.cutouts.empty()) {
        pen.heading(QObject::tr("Its cut-outs"));
        pen.columns(paper.words.cutouts);
    }
    pen.down(2);
    for (const Words& caution : paper.words.cautions)
        pen.text(said(caution), 3.4, QFont::Medium, QColor(kPaperCaution), 1);
}

Status writeMaskPaper(const MaskPaper& paper, const QString& path) {
    constexpr int kDpi = 600;
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter pdf(&buffer);
        pdf.setResolution(kDpi);
        pdf.setTitle(said(paper.words.title));
        pdf.setPageSize(QPageSize(paper.paper));
        pdf.setPageMargins(QMarginsF());
        QPainter p(&pdf);
        drawMaskPaper(pdf, p, paper, kDpi / 25.4);
    }
    return writeFileAtomically(path.toStdString(), bytes.toStdString());
}

}  // namespace nine::app
