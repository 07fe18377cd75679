#include "app/leaves/cut/cut_page.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <set>

#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {
namespace {

const QColor kPenLine("#5A665E");  // pen lines stand on light sheets in both themes
constexpr double kNudge_mm = 0.1;

/// Masks whose pieces stand on the pages; a mask may have several.
std::size_t masksOn(const CutPages& pages) {
    std::set<std::string> masks;
    for (const PlacedPiece& placed : pages.pieces) masks.insert(placed.piece.mask);
    return masks.size();
}

/// Masks of the job that have sheets in this version of the program.
std::size_t masksToCut(const Job& job) {
    const std::vector<MaskSpecPtr> specs = maskSpecs(job);
    return static_cast<std::size_t>(
        std::count_if(specs.begin(), specs.end(), [](const MaskSpecPtr& m) { return m->known(); }));
}

}  // namespace

CutPage::CutPage(LeafContext context) : LeafPage(context) {
    setAccessibleName(tr("The sheet with the pieces to cut"));
    connect(&context_.results, &Results::masksChanged, this, [this] {
        ++revision_;
        if (!dragging_) before_.reset();
        follow();
    });
    connect(&context_.results, &Results::pagesMoved, this, [this] { update(); });
}

void CutPage::showSheet(int sheet) {
    sheet_ = sheet;
    selected_.clear();
    layOut();
}

int CutPage::selectedIn(const std::optional<CutPages>& pages) const {
    for (std::size_t i = 0; pages && i < pages->pieces.size(); ++i)
        if (pages->pieces[i].piece.id == selected_) return static_cast<int>(i);
    return -1;
}

bool CutPage::mayMove() {
    const auto& pages = context_.results.masks().pages;
    const bool all = pages && masksOn(*pages) == masksToCut(context_.document.job());
    refused_ = all ? QString() : tr("Pieces can be moved once all masks are fitted.");
    return all;
}

double CutPage::perMm() const {
    return std::min((width() - 110) / size().width_mm, (height() - 112) / size().height_mm);
}

QPointF CutPage::origin() const {
    const double w = size().width_mm * perMm(), h = size().height_mm * perMm();
    return {0.5 * (width() - w) + 14, 62 + h};
}

QPointF CutPage::at(const Vec2& mm) const {
    return origin() + perMm() * QPointF(mm.x(), -mm.y());
}

QRectF CutPage::sheetBox() const {
    return QRectF(at(Vec2(0, size().height_mm)), at(Vec2(size().width_mm, 0)));
}

QPointF CutPage::pieceCentre(int index) const {
    const auto& pages = context_.results.masks().pages;
    if (!pages || index < 0 || index >= static_cast<int>(pages->pieces.size())) return {};
    const Box2 box = boxAround({pages->pieces[static_cast<std::size_t>(index)].piece.outline});
    return at(0.5 * (box.low + box.high));
}

void CutPage::layOut() {
    const MasksResult& masks = context_.results.masks();
    if (masks.pages && !masks.drawings.empty()) {
        sheet_ = std::min(sheet_, static_cast<int>(masks.drawings.size()) - 1);
        const FootRequest wanted{revision_, sheet_, perMm(), sharpness()};
        if (!(wanted == footFor_)) {
            footFor_ = wanted;
            const Drawing& page = masks.drawings[static_cast<std::size_t>(sheet_)];
            footSlot_.request(
                [wanted, lines = page.layers[2].lines, size = page.size_mm](const Task&) {
                    const double scale = wanted.perMm * wanted.ratio;
                    QImage image(static_cast<int>(size.x() * scale) + 1,
                                 static_cast<int>(size.y() * scale) + 1, QImage::Format_ARGB32_Premultiplied);
                    image.fill(Qt::transparent);
                    QPainter p(&image);
                    p.setRenderHint(QPainter::Antialiasing);
                    p.setPen(QPen(kPenLine, 0.7 * wanted.ratio));
                    for (const DrawnLine& line : lines) {
                        QPolygonF polygon;
                        for (const Vec2& v : line.points)
                            polygon << QPointF(v.x() * scale, image.height() - 1 - v.y() * scale);
                        line.closed ? p.drawPolygon(polygon) : p.drawPolyline(polygon);
                    }
                    p.end();
                    image.setDevicePixelRatio(wanted.ratio);
                    return image;
                },
                [this](QImage image) {
                    foot_ = std::move(image);
                    update();
                });
        }
    }
    update();
}

void CutPage::paintPage(QPainter& p) {
    const Tokens& t = tokens();
    const MasksResult& masks = context_.results.masks();
    if (!masks.pages) {
        const bool pending = context_.results.masksRunning() &&
                             !context_.document.job().get<PatternChapter>().elements.empty();
        const QString why = masks.pagesError && !masks.masks.empty()
                                ? said(*masks.pagesError)
                                : tr("No pieces yet: they come from the masks.");
        ink::text(p, QPointF(18, 26),
                  pending ? tr("Fitting the masks; their pieces appear here as they come ...") : why,
                  inter(12.5), t.muted);
        return;
    }
    const CutPages& pages = *masks.pages;
    const std::size_t all = masksToCut(context_.document.job());
    const std::size_t coming = all - std::min(all, masksOn(pages));
    ink::heading(p, QPointF(18, 26),
                 tr("Sheet %1 of %2, %3 × %4")
                     .arg(QString::number(sheet_ + 1), QString::number(pages.pages),
                          lengthNumber(pages.sheet.width_mm, 0), lengthText(pages.sheet.height_mm, 0)),
                 coming > 0
                     ? tr("%1 of %2 masks so far, the others are being fitted").arg(masksOn(pages)).arg(all)
                     : tr("cut from %1; drag a piece, pieces never overlap")
                           .arg(materialName(materialShown()).toLower()));
    const QColor ground = materialColour(materialShown());
    paintSheet(p, ground);
    paintPieces(p, ground);
    const QString lost = pages.warnings.empty() ? QString() : said(pages.warnings.front());
    if (!refused_.isEmpty() || !lost.isEmpty()) {
        ink::flagShape(p, QPointF(18, height() - 26), ink::Severity::Caution, "");
        ink::text(p, QPointF(46, height() - 13), refused_.isEmpty() ? lost : refused_, inter(12), t.caution);
    } else {
        ink::text(p, QPointF(18, height() - 13),
                  tr("windows first, outlines last: a part never moves while it is being cut"), inter(11),
                  t.muted);
    }
}

std::string CutPage::materialShown() const {
    const MasksResult& masks = context_.results.masks();
    const auto sheet = static_cast<std::size_t>(sheet_);
    if (masks.pages && sheet < masks.pages->stocks.size() && sheet_ >= 0) {
        for (const PlacedPiece& placed : masks.pages->pieces) {
            const int mask = placed.page == sheet ? indexIn(masks, placed.piece.mask) : -1;
            if (mask >= 0) return masks.masks[static_cast<std::size_t>(mask)].spec->wish.material;
        }
    }
    return "paper";
}

void CutPage::paintSheet(QPainter& p, const QColor& ground) const {
    const Tokens& t = tokens();
    const QRectF sheet = sheetBox();
    p.setPen(Qt::NoPen);
    p.setBrush(QColor(0, 0, 0, 30));
    p.drawRect(sheet.translated(3, 4));
    p.setPen(QPen(t.dark ? t.line : QColor("#A39A7E"), 1));
    p.setBrush(ground);
    p.drawRect(sheet);
    // Rulers along the upper and left edge, zero at the sheet's corner.
    for (const bool across : {true, false}) {
        const double length = across ? size().width_mm : size().height_mm;
        for (int mm = 0; mm <= static_cast<int>(length); mm += 10) {
            const bool major = mm % 50 == 0;
            const QPointF edge = across ? sheet.topLeft() + QPointF(mm * perMm(), -6)
                                        : sheet.topLeft() + QPointF(-6, mm * perMm());
            p.setPen(QPen(t.muted, 0.8));
            p.drawLine(edge, edge + (across ? QPointF(0, major ? -6 : -3) : QPointF(major ? -6 : -3, 0)));
            if (!major || (mm == 0 && !across)) continue;
            const QString label = mm == 0 ? tr("0 mm") : QString::number(mm);
            ink::text(p, edge + (across ? QPointF(0, -9) : QPointF(-9, 4)), label, inter(10.5), t.muted,
                      across ? Qt::AlignHCenter : Qt::AlignRight);
        }
    }
    p.drawImage(sheet.topLeft(), foot_);
}

void CutPage::paintPieces(QPainter& p, const QColor& ground) const {
    const CutPages& pages = *context_.results.masks().pages;
    const auto polygonOf = [&](const Polyline2& line) {
        QPolygonF polygon;
        for (const Vec2& v : line) polygon << at(v);
        return polygon;
    };
    for (std::size_t i = 0; i < pages.pieces.size(); ++i) {
        const PlacedPiece& placed = pages.pieces[i];
        if (static_cast<int>(placed.page) != sheet_) continue;
        const bool on = placed.piece.id == selected_;
        QPainterPath path;
        path.addPolygon(polygonOf(placed.piece.outline));
        path.closeSubpath();
        for (const PieceWindow& w : placed.piece.windows) {
            path.addPolygon(polygonOf(w.outline));
            path.closeSubpath();
            for (const Polygon2& island : w.islands) {
                path.addPolygon(polygonOf(island));
                path.closeSubpath();
            }
        }
        path.setFillRule(Qt::OddEvenFill);
        p.setBrush(ground.lighter(106));
        p.setPen(QPen(on ? QColor("#1C6E9C") : inkOnSheet(), on ? 1.8 : 1.1));
        p.drawPath(path);
        p.setPen(QPen(kPenLine, 0.8));
        p.setBrush(Qt::NoBrush);
        for (const Polyline2& stroke : placed.piece.pen) p.drawPolyline(polygonOf(stroke));
    }
}

void CutPage::move(int piece, const Vec2& shift) {
    const auto& pages = context_.results.masks().pages;
    if (!pages || piece < 0 || piece >= static_cast<int>(pages->pieces.size())) return;
    Result<CutPages> moved = movePiece(*pages, static_cast<std::size_t>(piece), shift);
    refused_ = moved ? QString() : said(moved.error());
    if (moved) context_.results.setPages(std::move(*moved));
    update();
}

void CutPage::keep(int piece) {
    const auto& pages = context_.results.masks().pages;
    if (!pages || piece < 0 || piece >= static_cast<int>(pages->pieces.size())) return;
    const auto index = static_cast<std::size_t>(piece);
    context_.document.edit(withPlacesOf(context_.document.job(), *pages, index),
                           tr("Move %1").arg(QString::fromStdString(pages->pieces[index].piece.name)));
}

void CutPage::mousePressEvent(QMouseEvent* event) {
    const auto& pages = context_.results.masks().pages;
    selected_.clear();
    refused_.clear();
    last_ = event->position();
    if (pages) {
        const QPointF mm = (event->position() - origin()) / perMm();
        for (std::size_t i = 0; i < pages->pieces.size(); ++i) {
            if (static_cast<int>(pages->pieces[i].page) == sheet_ &&
                contains(pages->pieces[i].piece.outline, Vec2(mm.x(), -mm.y()))) {
                selected_ = pages->pieces[i].piece.id;
            }
        }
        before_ = pages;
    }
    dragging_ = !selected_.empty() && mayMove();
    update();
}

void CutPage::mouseMoveEvent(QMouseEvent* event) {
    if (!dragging_ || !(event->buttons() & Qt::LeftButton)) return;
    const QPointF by = (event->position() - last_) / perMm();
    const int piece = selectedIn(context_.results.masks().pages);
    const QPointF before = pieceCentre(piece);
    move(piece, Vec2(by.x(), -by.y()));
    // A refused step does not count, so that the piece stays under the pointer.
    if (pieceCentre(piece) != before) last_ = event->position();
}

void CutPage::mouseReleaseEvent(QMouseEvent*) {
    if (!dragging_) return;
    dragging_ = false;
    context_.document.beginGesture();
    const auto& pages = context_.results.masks().pages;
    const int was = selectedIn(before_), is = selectedIn(pages);
    const auto low = [](const CutPages& all, int piece) {
        return all.pieces[static_cast<std::size_t>(piece)].piece.box().low;
    };
    if (was >= 0 && is >= 0 && low(*before_, was) != low(*pages, is)) keep(is);
    before_.reset();
}

void CutPage::keyPressEvent(QKeyEvent* event) {
    const double step = event->modifiers() & Qt::ShiftModifier ? 10 * kNudge_mm : kNudge_mm;
    const auto& pages = context_.results.masks().pages;
    const int count = pages ? static_cast<int>(pages->pieces.size()) : 0;
    Vec2 by = Vec2::Zero();
    switch (event->key()) {
        case Qt::Key_Left:
            by.x() = -step;
            break;
        case Qt::Key_Right:
            by.x() = step;
            break;
        case Qt::Key_Up:
            by.y() = step;
            break;
        case Qt::Key_Down:
            by.y() = -step;
            break;
        case Qt::Key_PageDown:
            if (pages) showSheet(std::min(static_cast<int>(pages->pages) - 1, sheet_ + 1));
            return;
        case Qt::Key_PageUp:
            showSheet(std::max(0, sheet_ - 1));
            return;
        case Qt::Key_Space:  // the next piece
            if (count > 0) {
                const auto next = static_cast<std::size_t>((selectedIn(pages) + 1) % count);
                selected_ = pages->pieces[next].piece.id;
                sheet_ = static_cast<int>(pages->pieces[next].page);
            }
            return layOut();
        case Qt::Key_Escape:
            if (dragging_ && before_) context_.results.setPages(*before_);
            dragging_ = false;
            return update();
        default:
            return LeafPage::keyPressEvent(event);
    }
    if (!event->isAutoRepeat()) context_.document.beginGesture();
    const int piece = selectedIn(pages);
    if (piece < 0 || !mayMove()) return update();
    move(piece, by);
    if (refused_.isEmpty()) keep(piece);
}

}  // namespace nine::app
