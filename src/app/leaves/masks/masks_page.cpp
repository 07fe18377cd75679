#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "app/leaves/masks/masks_leaf.h"
#include "app/leaves/masks/stretch_map.h"
#include "app/sheet/ink.h"
#include "app/sheet/units_text.h"

namespace nine::app {
namespace {

constexpr double kLandingZoom = 20;

QPolygonF polygonOf(const Polygon2& outline, const std::function<QPointF(const Vec2&)>& at) {
    QPolygonF polygon;
    for (const Vec2& p : outline) polygon << at(p);
    return polygon;
}

/// A point of the left side as it stands on `side`.
SurfacePoint onSide(Side side, SurfacePoint point) {
    if (side == Side::Right) {
        point.position.y() = -point.position.y();
        point.normal.y() = -point.normal.y();
    }
    return point;
}

QString percent(double v) {
    return QString::number(100 * v, 'f', v < 0.01 ? 2 : 1) + " %";
}

}  // namespace

MasksPage::MasksPage(LeafContext context) : context_(context) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("The selected mask on the body and flat"));
    connect(&side_, &BodyView::redrawn, this, [this] { update(); });
    connect(&context_.results, &Results::bodyChanged, this, [this] { layOut(); });
    connect(&context_.results, &Results::masksChanged, this, [this] { layOut(); });
    connect(&context_.view, &ViewState::changed, this, [this] { layOut(); });
}

const MaskResult* MasksPage::shown() const {
    const auto& masks = context_.results.masks().masks;
    const auto index = static_cast<std::size_t>(context_.view.mask());
    return index < masks.size() ? &masks[index] : nullptr;
}

void MasksPage::layOut() {
    const BodyResult& body = context_.results.body();
    const MaskResult* result = shown();
    if (body.skin) {
        const double w = width(), h = height();
        const double column = std::min(252.0, 0.3 * w);
        const double bodyWide = w - column - 90;
        // One scale for both drawings: the body above and the flat piece below it.
        double flatTall = 20, flatWide = 40;
        if (result && result->mask) {
            const Vec2 size =
                context_.results.masks().pieces[static_cast<std::size_t>(context_.view.mask())].box().size();
            flatWide = size.x();
            flatTall = size.y();
        }
        const double bodyScale =
            BodyView::fittingScale(*body.skin, BodyView::From::Along, QSizeF(bodyWide, 1e6));
        double top = 0, bottom = 0;
        for (const Station& s : body.skin->loft().stations()) {
            top = std::max(top, s.top_mm);
            bottom = std::max(bottom, s.bottom_mm);
        }
        const double roomTall = h - 232;
        const double perMm = std::min({bodyScale, bodyWide / flatWide, roomTall / (top + bottom + flatTall)});
        const double bodyTall = (top + bottom) * perMm, len = body.skin->length_mm() * perMm;
        const double left = 46 + 0.5 * (bodyWide - len);
        const Side side = result ? result->spec->side : context_.view.side();
        side_.place(body, QRectF(left - 8, 40, len + 16, bodyTall + 16), perMm, side, devicePixelRatioF());
        const double spare = std::max(0.0, roomTall - bodyTall - flatTall * perMm);
        if (result &&
            result->mask) {  // the drawing's box is that of the sheet; lettering beside it hangs below
            const Vec2 size = boxAround({(*result->mask)->outline}).size();
            flatWide = size.x();
            flatTall = size.y();
        }
        flat_ = QRectF(left + 0.5 * (len - flatWide * perMm), 40 + bodyTall + 66 + 0.3 * spare,
                       flatWide * perMm, flatTall * perMm);
        landing_ = QRectF(w - column - 8, 40, column, std::min(190.0, 0.27 * h));
        materials_ = QRectF(w - column - 8, landing_.bottom() + 34, column, h - landing_.bottom() - 50);
        drawStretch();
    }
    update();
}

QPointF MasksPage::flatAt(const Vec2& p) const {
    const Vec2 from = p - flatMiddle_;
    return flat_.center() + side_.perMm() * QPointF(from.x(), -from.y());
}

void MasksPage::drawStretch() {
    const MaskResult* result = shown();
    if (!result || !result->mask) {
        drawnFor_ = nullptr;
        return;
    }
    const MaskPtr mask = *result->mask;
    const Box2 box = boxAround({mask->outline});
    flatMiddle_ = 0.5 * (box.low + box.high);
    const double ratio = devicePixelRatioF();
    if (mask == drawnFor_ && ratio == drawnRatio_ && side_.perMm() == drawnScale_ && drawnSize_ == size())
        return;
    drawnSize_ = size();
    drawnFor_ = mask;
    drawnRatio_ = ratio;
    drawnScale_ = side_.perMm();
    stretch_ = QImage((flat_.size() * ratio).toSize() + QSize(2, 2), QImage::Format_ARGB32_Premultiplied);
    stretch_.setDevicePixelRatio(ratio);
    stretch_.fill(Qt::transparent);
    QPainter p(&stretch_);
    p.translate(-flat_.topLeft());
    QPainterPath clip;
    clip.addPolygon(polygonOf(mask->outline, [&](const Vec2& v) { return flatAt(v); }));
    p.setClipPath(clip);
    const std::vector<double> stretch = averagedStretch(mask->flat);
    for (std::size_t t = 0; t < stretch.size(); ++t) {
        QPolygonF triangle;
        for (const int v : mask->flat.rest.triangles[t])
            triangle << flatAt(mask->flat.map[static_cast<std::size_t>(v)]);
        const QColor colour = rampColour(Ramp::Stretch, stretch[t] / mask->report.strainLimit);
        p.setPen(QPen(colour, 0.6));
        p.setBrush(colour);
        p.drawPolygon(triangle);
    }
    onBody_ = QImage((QSizeF(size()) * ratio).toSize(), QImage::Format_ARGB32_Premultiplied);
    onBody_.setDevicePixelRatio(ratio);
    onBody_.fill(Qt::transparent);
    QPainter q(&onBody_);
    for (std::size_t t = 0; t < stretch.size(); ++t) {
        QPolygonF triangle;
        bool faces = true;
        for (const int v : mask->flat.rest.triangles[t]) {
            const SurfacePoint point =
                onSide(result->spec->side, mask->flat.patch.mesh.vertices[static_cast<std::size_t>(v)]);
            faces = faces && side_.faces(point);
            triangle << side_.at(point.position);
        }
        if (!faces) continue;
        QColor colour = rampColour(Ramp::Stretch, stretch[t] / mask->report.strainLimit);
        q.setPen(QPen(colour, 0.7));
        q.setBrush(colour);
        q.drawPolygon(triangle);
    }
}

void MasksPage::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    const BodyResult& body = context_.results.body();
    const MaskResult* result = shown();
    if (!body.skin || !result) {
        const bool running =
            context_.results.masksRunning() && !context_.document.job().pattern->elements.empty();
        ink::text(p, QPointF(18, 26),
                  running ? tr("Fitting the masks ...")
                          : tr("No masks yet: add a mark on the Pattern leaf and it gets one for each side."),
                  inter(12.5), t.muted);
        return;
    }
    const auto material = findMaterial(result->spec->material);
    const QString applied = result->spec->apply == Apply::Loose     ? tr("held loose at its marks")
                            : result->spec->apply == Apply::Lateral ? tr("smoothed from the middle line")
                                                                    : tr("smoothed down from the back");
    ink::heading(
        p, QPointF(18, 26), tr("On the body"),
        QString("%1, %2").arg(
            QString::fromUtf8(material->name.data(), static_cast<int>(material->name.size())).toLower(),
            applied));
    side_.paint(p);
    if (!result->mask) {
        ink::flagShape(p, QPointF(18, flat_.top()), ink::Severity::Fault, "1");
        ink::text(p, QPointF(48, flat_.top() + 13), QString::fromStdString(result->mask.error().text),
                  inter(12), t.fault);
        return;
    }
    paintOnBody(p, *result);
    paintFlat(p, *result);
    paintLanding(p, **result->mask);
    paintMaterials(p, *result);
}

void MasksPage::paintOnBody(QPainter& p, const MaskResult& result) {
    const Mask& mask = **result.mask;
    p.drawImage(QPointF(0, 0), onBody_);
    const BodyResult& body = context_.results.body();
    for (std::size_t i = 0; i < body.art.size(); ++i) {
        const auto& elements = body.pattern->elements;
        if (!body.art[i] || std::find(result.spec->elements.begin(), result.spec->elements.end(),
                                      elements[i]->id) == result.spec->elements.end())
            continue;
        for (const Outline& outline : body.art[i]->outlines) {
            QPolygonF polygon;
            for (const SurfacePoint& point : outline.points)
                polygon << side_.at(onSide(result.spec->side, point).position);
            p.setPen(QPen(inkOnSheet(), 1));
            p.setBrush(QColor::fromRgb(colourOf(*elements[i], i)));
            p.drawPolygon(polygon);
        }
    }
    for (const RegistrationMark& mark : mask.marks) {
        const QPointF at =
            side_.at(body.skin->at({result.spec->side, mark.skin.x(), mark.skin.y()}).position);
        p.setPen(QPen(inkOnSheet(), 1.1));
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(at, 3.6, 3.6);
        p.drawLine(at - QPointF(6, 0), at + QPointF(6, 0));
        p.drawLine(at - QPointF(0, 6), at + QPointF(0, 6));
        ink::text(p, at + QPointF(5, -6), QString(QChar(mark.name)), inter(11, QFont::Bold), inkOnSheet());
    }
}

void MasksPage::paintFlat(QPainter& p, const MaskResult& result) {
    const Mask& mask = **result.mask;
    const Tokens& t = tokens();
    ink::heading(p, QPointF(18, flat_.top() - 34), tr("Flat, to cut"),
                 tr("same scale as above, seen from the painted side"));
    p.drawImage(flat_.topLeft(), stretch_);
    const auto at = [&](const Vec2& v) { return flatAt(v); };
    p.setPen(QPen(t.ink, 1.5));
    p.setBrush(Qt::NoBrush);
    p.drawPolygon(polygonOf(mask.outline, at));
    p.setPen(QPen(inkOnSheet(), 1));
    p.setBrush(t.dark ? QColor("#FBFAF6") : t.paper);
    for (const Window& window : mask.windows) p.drawPolygon(polygonOf(window.outline, at));
    const Piece& piece = context_.results.masks().pieces[static_cast<std::size_t>(context_.view.mask())];
    p.setPen(QPen(inkOnSheet(), 0.9));
    p.setBrush(Qt::NoBrush);
    const Box2 sheet = boxAround({mask.outline});
    for (const Polyline2& stroke : piece.pen) {
        const bool beside = boxAround({stroke}).high.y() < sheet.low.y();
        p.setPen(QPen(beside ? t.ink : inkOnSheet(), 0.9));
        p.drawPolyline(polygonOf(stroke, at));
    }
    const Box2 box = boxAround({mask.outline});
    const Vec2 size = box.size();
    const double below = flatAt(piece.box().low).y();  // lettering may stand beside the piece
    ink::dimension(p, QPointF(flat_.left(), below + 18), QPointF(flat_.right(), below + 18),
                   lengthText(size.x()));
    ink::dimension(p, QPointF(flat_.left() - 22, flat_.top()), QPointF(flat_.left() - 22, flat_.bottom()),
                   lengthText(size.y()));
    const QRectF bar(18, height() - 34, 130, 8);
    ink::text(p, QPointF(bar.left(), bar.top() - 6),
              tr("stretch over 1 mm; the sheet takes %1").arg(percent(mask.report.strainLimit)), inter(11),
              t.muted);
    ink::legend(p, bar, Ramp::Stretch, "0", QString::number(50 * mask.report.strainLimit, 'g', 2),
                QString::number(100 * mask.report.strainLimit, 'g', 2) + " %");
}

void MasksPage::paintLanding(QPainter& p, const Mask& mask) {
    const Tokens& t = tokens();
    const BodyResult& body = context_.results.body();
    ink::heading(
        p, QPointF(landing_.left(), 26), tr("Where it lands"),
        width() < 720 ? tr("× %1").arg(kLandingZoom) : tr("+ drawn   • lands, × %1").arg(kLandingZoom));
    p.setPen(QPen(t.line, 1));
    p.setBrush(t.dark ? t.deep : QColor("#FFFDF6"));
    p.drawRoundedRect(landing_, 4, 4);
    // The outline of the mask in the body's side view, small, with a cross and a dot for each window probe.
    const QRectF room = landing_.adjusted(14, 12, -14, -40);
    const double scale = std::min(room.width() / flat_.width(), room.height() / flat_.height());
    const auto at = [&](const Vec2& v) {
        const QPointF f = flatAt(v) - flat_.center();
        return room.center() + scale * f;
    };
    p.setPen(QPen(t.muted, 0.8));
    p.setBrush(Qt::NoBrush);
    p.drawPolygon(polygonOf(mask.outline, at));
    const SheetCarrier carrier(FlatPairs{mask.flat.map, mask.flat.patch.mesh.vertices});
    const double perMm = side_.perMm() * scale;
    for (const LandedProbe& probe : mask.report.landed) {
        const Vec2 wanted = carrier.at(probe.wanted);
        const Vec2 landed = carrier.at(body.skin->project(probe.landed));
        const QPointF a = at(wanted);
        const QPointF by =
            kLandingZoom * perMm * QPointF(landed.x() - wanted.x(), -(landed.y() - wanted.y()));
        p.setPen(QPen(t.ink, 0.8));
        p.drawLine(a - QPointF(3, 0), a + QPointF(3, 0));
        p.drawLine(a - QPointF(0, 3), a + QPointF(0, 3));
        p.setPen(QPen(t.select, 0.9));
        p.drawLine(a, a + by);
        p.setPen(Qt::NoPen);
        p.setBrush(t.select);
        p.drawEllipse(a + by, 1.7, 1.7);
    }
    const QPointF corner = landing_.bottomLeft() + QPointF(12, -10);
    ink::text(p, corner - QPointF(0, 16), tr("worst %1").arg(lengthText(mask.report.landing.max_mm, 2)),
              inter(11, QFont::DemiBold), t.ink);
    ink::text(
        p, corner,
        tr("traced from the side: %1")
            .arg(mask.report.tracedKnown ? lengthText(mask.report.traced.max_mm, 2) : tr("off altogether")),
        inter(11), t.muted);
}

QRectF MasksPage::materialBox(int index) const {
    const double step =
        std::min(84.0, (materials_.height() - 8) / static_cast<double>(sheetMaterials().size()));
    return QRectF(materials_.left(), materials_.top() + index * step, materials_.width(), step - 8);
}

void MasksPage::paintMaterials(QPainter& p, const MaskResult& result) {
    const Tokens& t = tokens();
    const FitReport& report = (*result.mask)->report;
    ink::heading(p, QPointF(materials_.left(), materials_.top() - 10), tr("In other sheets"),
                 tr("each a click"));
    for (int i = 0; i < static_cast<int>(sheetMaterials().size()); ++i) {
        const SheetMaterial& m = sheetMaterials()[static_cast<std::size_t>(i)];
        const QRectF box = materialBox(i);
        const bool on = result.spec->material == m.id, lies = report.strainFeasibleMax <= m.strainLimit;
        p.setPen(QPen(on ? t.select : t.line, on ? 1.8 : 1));
        p.setBrush(t.dark ? t.panel : t.sheet);
        p.drawRoundedRect(box, 5, 5);
        const double side = std::min(40.0, box.height() - 16);
        const QRectF swatch(box.left() + 10, box.center().y() - 0.5 * side, side, side);
        p.setPen(QPen(inkOnSheet(), 0.9));
        p.setBrush(materialColour(m.id));
        p.drawPolygon(QPolygonF{swatch.topLeft(), swatch.topRight(), swatch.bottomRight() - QPointF(0, 8),
                                swatch.bottomRight() - QPointF(8, 0), swatch.bottomLeft()});
        const QString name = QString::fromUtf8(m.name.data(), static_cast<int>(m.name.size()));
        const double x = swatch.right() + 12;
        ink::heading(p, QPointF(x, box.top() + 0.42 * box.height()), name,
                     box.width() < 220 ? QString() : tr("takes %1").arg(percent(m.strainLimit)));
        const QString needs = percent(report.strainFeasibleMax);
        const QString words = box.width() < 220 ? tr("%1 of %2").arg(needs, percent(m.strainLimit))
                              : lies            ? tr("lies flat: needs %1").arg(needs)
                                                : tr("cannot: needs %1").arg(needs);
        ink::text(p, QPointF(x, box.top() + 0.42 * box.height() + 17), words, inter(11.5), t.ink);
        if (lies) {
            ink::tick(p, QPointF(box.right() - 18, box.center().y()));
        } else {
            ink::flagShape(p, QPointF(box.right() - 29, box.center().y() - 8), ink::Severity::Fault, "");
        }
    }
}

void MasksPage::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < static_cast<int>(sheetMaterials().size()); ++i) {
        if (materialBox(i).contains(event->position())) emit materialWanted(i);
    }
}

void MasksPage::keyPressEvent(QKeyEvent* event) {
    const int count = static_cast<int>(context_.results.masks().masks.size());
    switch (event->key()) {
        case Qt::Key_PageDown:
            context_.view.setMask(std::min(count - 1, context_.view.mask() + 1));
            break;
        case Qt::Key_PageUp:
            context_.view.setMask(std::max(0, context_.view.mask() - 1));
            break;
        default:
            QWidget::keyPressEvent(event);
    }
}

}  // namespace nine::app
