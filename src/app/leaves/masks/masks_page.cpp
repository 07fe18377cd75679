#include "app/leaves/masks/masks_page.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "app/document/selection.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {
namespace {

constexpr double kTabbedBelow_px = 760;
const QColor kHalo(251, 250, 246, 150);

template <typename At>
QPolygonF polygonOf(const Polygon2& outline, const At& at) {
    QPolygonF polygon;
    for (const Vec2& p : outline) polygon << at(p);
    return polygon;
}

bool sameRequest(const MapRequest& a, const MapRequest& b) {
    return a.mask == b.mask && a.skin == b.skin && a.side == b.side && a.view.target == b.view.target &&
           a.view.pixelsPerMm == b.view.pixelsPerMm && a.width == b.width && a.height == b.height;
}

}  // namespace

MasksPage::MasksPage(LeafContext context, const SlitDesk& desk) : LeafPage(context), desk_(desk) {
    setAccessibleName(tr("The selected mask on the body and flat"));
    connect(&side_, &BodyView::redrawn, this, [this] { update(); });
    connect(&context_.results, &Results::masksChanged, this, &MasksPage::follow);
    connect(&context_.results, &Results::masksChanged, this, &MasksPage::selectFirst);
    connect(&context_.results, &Results::sketchChanged, this, &MasksPage::follow);
    connect(&desk, &SlitDesk::changed, this, [this] { update(); });
}

void MasksPage::showEvent(QShowEvent* event) {
    LeafPage::showEvent(event);
    selectFirst();
}

void MasksPage::selectFirst() {
    if (!isVisible() || !context_.view.mask().empty()) return;
    const std::vector<MaskSpecPtr> specs = maskSpecs(context_.document.job());
    if (!specs.empty()) context_.view.setMask(specs.front()->id);
}

bool MasksPage::tabbed() const {
    return width() < kTabbedBelow_px;
}

void MasksPage::showPanel(Panel panel) {
    panel_ = panel;
    update();
}

MaskInView MasksPage::find() const {
    const MasksResult& all = context_.results.masks();
    const auto& sketch = context_.results.sketch();
    if (!isCurrent(all, context_.view.mask()) && sketch && sketch->spec->id == context_.view.mask())
        return {sketch->spec, sketch->mask, sketch->pieces, false, {}};
    const int found = indexIn(all, context_.view.mask());
    if (found < 0) return {};
    const auto index = static_cast<std::size_t>(found);
    const MaskResult& result = all.masks[index];
    if (!result.mask) return {result.spec, nullptr, {}, true, said(result.mask.error())};
    return {result.spec,
            *result.mask,
            index < all.pieces.size() ? all.pieces[index] : std::vector<Piece>{},
            true,
            {}};
}

void MasksPage::layOut() {
    const BodyResult& body = context_.results.body();
    shown_ = find();
    if (slit_ >= 0 && (slitOf_ != context_.view.mask() || slitsThen_ != slits().size())) {
        slit_ = -1;
        grip_.reset();
    }
    if (!body.skin) return update();
    const double w = width(), h = height();
    const bool narrow = tabbed();
    const double column = narrow ? 0 : std::min(252.0, 0.3 * w), strip = narrow ? 196 : 0;
    const double bodyWide = w - column - 90;
    // One scale for both drawings: the body above and the flat piece below it.
    double flatTall = 20, flatWide = 40;
    if (shown_.mask) {
        const Vec2 size = flatBox().size();
        flatWide = size.x();
        flatTall = size.y();
    }
    const double bodyScale = BodyView::fittingScale(*body.skin, BodyView::From::Along, QSizeF(bodyWide, 1e6));
    double top = 0, bottom = 0;
    for (const Station& s : body.skin->loft().stations()) {
        top = std::max(top, s.top_mm);
        bottom = std::max(bottom, s.bottom_mm);
    }
    const double roomTall = h - strip - (narrow ? 196 : 232);
    const double perMm = std::min({bodyScale, bodyWide / flatWide, roomTall / (top + bottom + flatTall)});
    const double bodyTall = (top + bottom) * perMm, len = body.skin->length_mm() * perMm;
    const double left = 46 + 0.5 * (bodyWide - len);
    const Side side = shown_.spec ? shown_.spec->side : context_.view.side();
    side_.place(body, QRectF(left - 8, 40, len + 16, bodyTall + 16), perMm, side, sharpness());
    const double spare = std::max(0.0, roomTall - bodyTall - flatTall * perMm);
    if (shown_.mask) {  // the drawing's box is that of the sheet; lettering beside it hangs below
        const Vec2 size = boxSideBySide(*shown_.mask).size();
        flatWide = size.x();
        flatTall = size.y();
    }
    flat_ = QRectF(left + 0.5 * (len - flatWide * perMm), 40 + bodyTall + (narrow ? 62 : 66) + 0.3 * spare,
                   flatWide * perMm, flatTall * perMm);
    if (narrow) {
        panels_ = QRectF(18, h - strip + 36, w - 36, strip - 46);
        landing_ = lift_ = sheets_ = panels_;
    } else {
        landing_ = QRectF(w - column - 8, 40, column, std::min(170.0, 0.23 * h));
        lift_ = QRectF(landing_.left(), landing_.bottom() + 38, column, std::min(100.0, 0.14 * h));
        sheets_ = QRectF(landing_.left(), lift_.bottom() + 34, column, h - lift_.bottom() - 46);
    }
    requestDrawing();
    update();
}

void MasksPage::requestDrawing() {
    if (!shown_.mask) return;
    const Box2 box = boxSideBySide(*shown_.mask);
    shifts_ = sideBySide(*shown_.mask);
    flatMiddle_ = 0.5 * (box.low + box.high);
    const double ratio = sharpness();
    const MapRequest wanted{shown_.mask,
                            context_.results.body().skin,
                            shown_.spec->side,
                            side_.view3(),
                            static_cast<int>(side_.box().width() * ratio),
                            static_cast<int>(side_.box().height() * ratio),
                            ratio};
    if (sameRequest(wanted, requested_)) return;
    requested_ = wanted;
    drawer_.request([wanted](const Task& task) { return drawMask(wanted, task); },
                    [this](MaskDrawing drawing) {
                        drawing_ = std::move(drawing);
                        update();
                    });
}

QPointF MasksPage::flatAt(const Vec2& p) const {
    const Vec2 from = p - flatMiddle_;
    return flat_.center() + side_.perMm() * QPointF(from.x(), -from.y());
}

QPointF MasksPage::flatAt(std::size_t sheet, const Vec2& p) const {
    return flatAt(p + shifts_[sheet]);
}

/// With lettering that stands beside the pieces.
Box2 MasksPage::flatBox() const {
    Box2 box = boxSideBySide(*shown_.mask);
    const std::vector<Vec2> shifts = sideBySide(*shown_.mask);
    for (std::size_t k = 0; k < shown_.pieces.size(); ++k) {
        const Box2 piece = shown_.pieces[k].box();
        box.low = box.low.cwiseMin(piece.low + shifts[k]);
        box.high = box.high.cwiseMax(piece.high + shifts[k]);
    }
    return box;
}

void MasksPage::paintPage(QPainter& p) {
    const Tokens& t = tokens();
    const BodyResult& body = context_.results.body();
    if (!body.skin || !shown_.spec) {
        const bool running = context_.results.masksRunning() &&
                             !context_.document.job().get<PatternChapter>().elements.empty();
        ink::text(p, QPointF(18, 26),
                  running ? tr("Fitting the masks ...")
                  : maskSpecs(context_.document.job()).empty()
                      ? tr("No masks yet: add a mark on the Pattern leaf and it gets one for each side.")
                      : tr("No mask is selected. Page Down selects the next one."),
                  inter(12.5), t.muted);
        return;
    }
    const auto material = findMaterial(shown_.spec->wish.material);
    const QString applied = shown_.spec->wish.apply == Apply::Loose     ? tr("held loose at its marks")
                            : shown_.spec->wish.apply == Apply::Lateral ? tr("smoothed from the middle line")
                                                                        : tr("smoothed down from the back");
    ink::heading(p, QPointF(18, 26), tr("On the body"),
                 QString("%1, %2").arg(materialName(material->id).toLower(), applied));
    side_.paint(p);
    if (!shown_.mask) {
        paintSlits(p);  // to be dragged out of what is wrong
        ink::flagShape(p, QPointF(18, flat_.top()), ink::Severity::Fault, "1");
        ink::text(p, QPointF(48, flat_.top() + 13), shown_.error, inter(12), t.fault);
        return;
    }
    paintOnBody(p);
    paintFlat(p);
    paintPanels(p);
}

void MasksPage::paintOnBody(QPainter& p) const {
    const Mask& mask = *shown_.mask;
    const BodyResult& body = context_.results.body();
    if (drawing_.request.mask == shown_.mask) {
        p.drawImage(side_.box().topLeft(), drawing_.onBody);
        p.setBrush(Qt::NoBrush);  // the picture's edge is not to be seen
        p.setPen(QPen(tokens().ink, 1.5));
        p.drawPath(side_.outline());
    }
    const std::vector<std::string>& opened = shown_.spec->wish.elements;
    for (std::size_t i = 0; i < body.art.size(); ++i) {
        const auto& elements = body.pattern->elements;
        if (!body.art[i] || std::find(opened.begin(), opened.end(), elements[i]->id) == opened.end())
            continue;
        p.setPen(QPen(inkOnSheet(), 1));
        p.setBrush(QColor::fromRgb(colourOf(*elements[i], i)));
        for (const Outline& outline : body.art[i]->outlines()) {
            QPolygonF polygon;
            bool faces = true;
            for (const SurfacePoint& left : outline.points) {
                const SurfacePoint point = onSide(shown_.spec->side, left);
                faces = faces && side_.faces(point);
                polygon << side_.at(point.position);
            }
            if (faces) p.drawPolygon(polygon);
        }
    }
    paintFingers(p);
    paintSlits(p);
    paintHandles(p);
    for (const Sheet& sheet : mask.sheets)
        for (const RegistrationMark& mark : sheet.marks) paintMark(p, mark);
    if (shown_.judged && !mask.report().liesFlat && drawing_.request.mask == shown_.mask)
        ink::flag(p, side_.at(drawing_.worstOnBody), ink::Severity::Fault, 1);
}

void MasksPage::paintMark(QPainter& p, const RegistrationMark& mark) const {
    const BodyResult& body = context_.results.body();
    {
        const QPointF at =
            side_.at(body.skin->at({shown_.spec->side, mark.skin.x(), mark.skin.y()}).position);
        p.setBrush(Qt::NoBrush);
        for (const QPen& pen : {QPen(kHalo, 3), QPen(inkOnSheet(), 1.1)}) {  // to be seen on dark maps too
            p.setPen(pen);
            p.drawEllipse(at, 3.6, 3.6);
            p.drawLine(at - QPointF(6, 0), at + QPointF(6, 0));
            p.drawLine(at - QPointF(0, 6), at + QPointF(0, 6));
        }
        const QPointF beside = at + QPointF(6, -6);
        p.setPen(Qt::NoPen);
        p.setBrush(kHalo);
        p.drawEllipse(beside + QPointF(4, -4), 7, 7);
        ink::text(p, beside, QString(QChar(mark.name)), inter(11, QFont::Bold), inkOnSheet());
    }
}

void MasksPage::paintFlat(QPainter& p) const {
    // In one piece: one drawing, sheet by sheet from the bottom up.
    const Mask& mask = *shown_.mask;
    const Tokens& t = tokens();
    ink::heading(p, QPointF(18, flat_.top() - 34), tr("Flat, to cut"),
                 shown_.judged ? tr("same scale as above, seen from the painted side")
                               : tr("as it would be cut now, its verdict is under way"));
    const bool mapped = drawing_.request.mask == shown_.mask;
    double below = flat_.bottom();
    for (std::size_t k = 0; k < mask.sheets.size(); ++k) {
        const Sheet& sheet = mask.sheets[k];
        const auto at = [&](const Vec2& v) { return flatAt(k, v); };
        const Box2 box = boxAround({sheet.outline});
        // With the nick of the piece, once it is lettered.
        const QPolygonF cut =
            polygonOf(k < shown_.pieces.size() ? shown_.pieces[k].outline : sheet.outline, at);
        QPainterPath within;
        within.addPolygon(cut);
        p.save();
        p.setClipPath(within);
        // Laps are no part of what was mapped.
        p.setPen(Qt::NoPen);
        p.setBrush(materialColour(shown_.spec->wish.material));
        p.drawPolygon(polygonOf(sheet.outline, at));
        if (mapped && k < drawing_.flats.size())
            p.drawImage(at(Vec2(box.low.x(), box.high.y())), drawing_.flats[k]);
        p.restore();
        p.setBrush(mapped ? QBrush(Qt::NoBrush) : QBrush(materialColour(shown_.spec->wish.material)));
        p.setPen(QPen(t.ink, 1.5));
        p.drawPolygon(cut);
        p.setPen(QPen(inkOnSheet(), 1));
        p.setBrush(t.dark ? QColor("#FBFAF6") : t.paper);
        for (const Window& window : sheet.windows) p.drawPolygon(polygonOf(window.outline, at));
        for (const Polygon2& hole : sheet.holes) p.drawPolygon(polygonOf(hole, at));
        p.setBrush(materialColour(shown_.spec->wish.material));
        for (const Window& window : sheet.windows)
            for (const Polygon2& island : window.islands) p.drawPolygon(polygonOf(island, at));
        p.setBrush(Qt::NoBrush);
        if (k >= shown_.pieces.size()) continue;
        for (const Polyline2& stroke : shown_.pieces[k].pen) {
            const Box2 around = boxAround({stroke});
            const bool beside = around.high.y() < box.low.y();
            below = std::max(below, at(around.low).y());  // lettering may stand beside the piece
            if (!beside) {
                p.setPen(QPen(kHalo, 2.4));
                p.drawPolyline(polygonOf(stroke, at));
            }
            p.setPen(QPen(beside ? t.ink : inkOnSheet(), 0.9));
            p.drawPolyline(polygonOf(stroke, at));
        }
    }
    paintMouths(p);
    const Vec2 size = boxSideBySide(mask).size();
    const FitReport report = mask.report();
    ink::dimension(p, QPointF(flat_.left(), below + 18), QPointF(flat_.right(), below + 18),
                   lengthText(size.x()));
    ink::dimension(p, QPointF(flat_.left() - 22, flat_.top()), QPointF(flat_.left() - 22, flat_.bottom()),
                   lengthText(size.y()));
    if (shown_.judged && !report.liesFlat && mapped)
        ink::flag(p, flatAt(drawing_.worst), ink::Severity::Fault, 1);
    // The legend stands under the flat piece where there is room for it, else beside it.
    const double foot = (tabbed() ? panels_.top() - 58 : height() - 34.0);
    const QRectF bar(18, foot, 130, 8);
    ink::text(p, QPointF(bar.left(), bar.top() - 6),
              tr("stretch; the sheet takes %1").arg(percentText(report.strainLimit)), inter(11), t.muted);
    ink::legend(p, bar, Ramp::Stretch, "0", QString::number(50 * report.strainLimit, 'g', 2),
                QString::number(100 * report.strainLimit, 'g', 2) + " %");
}

void MasksPage::mousePressEvent(QMouseEvent* event) {
    if (event->button() == Qt::LeftButton && grab(event->position())) return;
    if (tabbed()) {
        for (int i = 0; i < 3; ++i) {
            if (tabBox(i).contains(event->position())) return showPanel(static_cast<Panel>(i));
        }
        if (panel_ != Sheets) return;
    }
    for (int i = 0; i < static_cast<int>(sheetMaterials().size()); ++i) {
        if (shown_.mask && materialBox(i).contains(event->position())) emit materialWanted(i);
    }
}

void MasksPage::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Escape:
            if (grip_ || edge_ || bridge_) {
                grip_.reset();
                edge_.reset();
                bridge_.reset();
                context_.document.cancelGesture();
            }
            selectSlit(-1);
            break;
        case Qt::Key_Delete:
        case Qt::Key_Backspace: {
            std::vector<Slit> left = slits();
            if (slit_ < 0 || slit_ >= static_cast<int>(left.size())) break;
            left.erase(left.begin() + slit_);
            context_.document.beginGesture();
            emit slitsWanted(std::move(left));
            selectSlit(-1);
            break;
        }
        case Qt::Key_PageDown:
            context_.view.setMask(maskBeside(context_.document.job(), context_.view.mask(), 1));
            break;
        case Qt::Key_PageUp:
            context_.view.setMask(maskBeside(context_.document.job(), context_.view.mask(), -1));
            break;
        case Qt::Key_Left:
        case Qt::Key_Right:
            showPanel(static_cast<Panel>((panel_ + (event->key() == Qt::Key_Right ? 1 : 2)) % 3));
            break;
        case Qt::Key_Up:
        case Qt::Key_Down: {  // the next stiffer or softer sheet
            if (!shown_.spec) break;
            const auto& all = sheetMaterials();
            for (int i = 0; i < static_cast<int>(all.size()); ++i) {
                if (all[static_cast<std::size_t>(i)].id != shown_.spec->wish.material) continue;
                const int next = i + (event->key() == Qt::Key_Down ? 1 : -1);
                if (next >= 0 && next < static_cast<int>(all.size())) emit materialWanted(next);
                break;
            }
            break;
        }
        default:
            QWidget::keyPressEvent(event);
    }
}

}  // namespace nine::app
