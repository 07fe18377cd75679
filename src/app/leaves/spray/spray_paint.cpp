// How the Spray leaf's page is painted.
#include <QPainterPath>
#include <QRegularExpression>
#include <algorithm>
#include <cmath>

#include "app/leaves/spray/gun_drawing.h"
#include "app/leaves/spray/spray_page.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "base/units.h"

namespace nine::app {
namespace {

constexpr double kSheetDrawn_px = 3.4;  // thicker than it is: said beside it

QString psiText(double kpa) {
    return QString::number(kpa / kKpaPerPsi, 'f', 1).remove(QRegularExpression("\\.0$")) + " psi";
}

}  // namespace

void SprayPage::paintPage(QPainter& p) {
    const Tokens& t = tokens();
    const SprayStudy& s = desk_.study();
    if (!s.ready()) {
        const QString why =
            context_.document.empty()         ? tr("Nothing to spray yet: this leaf needs a body and a mask.")
            : s.error                         ? said(*s.error)
            : context_.results.masksRunning() ? tr("Fitting the masks ...")
                                              : tr("Nothing to spray yet: place a mark on the Pattern leaf.");
        ink::heading(p, {18, 26}, tr("Spray"), {});
        p.setPen(t.muted);
        p.setFont(inter(13));
        p.drawText(QRectF(18, 0.4 * height(), width() - 36, 80), Qt::AlignHCenter | Qt::TextWordWrap, why);
        return;
    }
    paintScene(p);
    p.setPen(QPen(t.line, 1));
    p.drawLine(QPointF(18, edgeBox_.top() - 6), QPointF(width() - 18, edgeBox_.top() - 6));
    if (tabbed()) paintTabs(p);
    if (!tabbed() || !showMap_) paintEdge(p);
    if (!tabbed() || showMap_) paintMap(p);
    for (const SprayHandle handle : kSprayHandles) paintHandle(p, handle);
}

void SprayPage::paintTabs(QPainter& p) const {
    const Tokens& t = tokens();
    const QString names[] = {tr("The edge this gives"), tr("Edges on the body")};
    for (int i = 0; i < 2; ++i) {
        const bool on = (i == 1) == showMap_;
        const QRectF box = tabBox(i);
        ink::text(p, box.center() + QPointF(0, 4), names[i], inter(12, on ? QFont::Bold : QFont::Normal),
                  on ? t.ink : t.muted, Qt::AlignHCenter);
        if (!on) continue;
        p.setPen(QPen(t.accent, 2));
        p.drawLine(box.bottomLeft(), box.bottomRight());
    }
}

void SprayPage::paintScene(QPainter& p) const {
    const SprayStudy& s = desk_.study();
    const QColor paint = paintColour();
    p.save();
    p.setClipRect(QRectF(0, 0, width(), sceneBox_.bottom()));
    const QPointF aim = at(scene_.aim);
    const double half_px = 2.146 * sprayWidth_mm(valueOf(SprayHandle::Distance)) * perMm_;
    drawSpray(p, tip(), aim, half_px, paint);
    paintSection(p);
    gun_.paint(p, tip(), awayDegrees(), perMm_, valueOf(SprayHandle::Trigger), paint);
    p.restore();
    paintDimensions(p);
    paintControls(p);
    // Over the gun, where it reaches so far.
    const QFont bold = inter(12, QFont::Bold), plain = inter(11);
    const QString title = QFontMetricsF(bold).elidedText(
        QString("%1 %2").arg(QString::fromStdString(s.spec->shownName()), QChar(sideLetter(s.spec->side))),
        Qt::ElideMiddle, 0.36 * width());
    const QString side = s.spec->side == Side::Left ? tr("left side") : tr("right side");
    const QString remark = tr("section at %1, all at one scale; %2").arg(lengthText(desk_.aim().x()), side);
    p.setPen(Qt::NoPen);
    p.setBrush(tokens().paper);
    const double wide = ink::widthOf(title, bold) + ink::widthOf(remark, plain) + 20;
    p.drawRoundedRect(QRectF(12, 12, wide, 20), 4, 4);
    ink::heading(p, {18, 26}, title, remark);
}

void SprayPage::paintSection(QPainter& p) const {
    const Tokens& t = tokens();
    const SprayStudy& s = desk_.study();
    QPolygonF body;
    for (const Vec2& v : scene_.outline) body << at(v);
    const QRectF box = body.boundingRect();
    QLinearGradient shade(box.topLeft(), box.bottomLeft());
    shade.setColorAt(0, t.dark ? "#6a675c" : "#e4e0d5");
    shade.setColorAt(1, t.dark ? "#4b4942" : "#b9b4a5");
    p.setPen(QPen(t.ink, 1.5));
    p.setBrush(shade);
    p.drawPolygon(body);

    // The sheet, on what holds it off; thicker than it is.
    const QColor sheet = materialColour(s.spec->wish.material);
    for (const auto& strip : scene_.sheet) {
        QPolygonF low, high;
        for (std::size_t i = 0; i < strip.points.size(); ++i) {
            const double off = s.asked.pads_mm + std::max(strip.lift_mm[i], s.asked.relief_mm);
            const QPointF n(strip.normals[i].x(), -strip.normals[i].y());
            low << at(strip.points[i] + off * strip.normals[i]) + 1.2 * n;
            high.prepend(low.back() + kSheetDrawn_px * n);
        }
        p.setPen(QPen(t.caution, 1));
        p.setBrush(sheet.darker(t.dark ? 130 : 112));
        p.drawPolygon(low + high);
    }
    // The marked circle: the place of the curve below.
    p.setPen(QPen(t.ink, 1.3));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(at(scene_.aim), 19, 19);
    if (scene_.sheet.empty()) return;
    const double off = std::max(s.asked.lift_mm, s.asked.relief_mm);
    QString gap = off > 0.004 ? tr("stands off up to %1").arg(lengthText(off, 2)) : tr("lies on the skin");
    if (s.asked.pads_mm > 0) {
        gap = tr("on pads of %1").arg(lengthText(s.asked.pads_mm));
        if (off > 0.004) gap += tr(" and up to %1 more").arg(lengthText(off, 2));
    }
    const QString words = tr("%1, %2; drawn too thick").arg(materialName(s.spec->wish.material), gap);
    const auto& strip = scene_.sheet.front();  // the lowest
    const QPointF on = at(strip.points.front() + s.asked.pads_mm * strip.normals.front());
    const QPointF text(std::max(18.0, box.left() - 40), sceneBox_.bottom() - 8);
    p.setPen(QPen(t.muted, 0.7));
    p.drawLine(on, QPointF(std::min(on.x(), text.x() + 0.7 * ink::widthOf(words, inter(11))), text.y() - 12));
    ink::text(p, text, words, inter(11, QFont::Medium), t.muted);
}

void SprayPage::paintDimensions(QPainter& p) const {
    const Tokens& t = tokens();
    const SprayStudy& s = desk_.study();
    const QPointF aim = at(scene_.aim), gun = tip(), along = gun - aim;
    const double length = std::max(1.0, std::hypot(along.x(), along.y()));
    const QPointF unit = along / length, below = QPointF(-unit.y(), unit.x()) * (unit.x() >= 0 ? 1 : -1);
    QPen dash(t.select, 0.9);
    dash.setDashPattern({9, 3, 2, 3});
    p.setPen(dash);
    p.drawLine(aim, gun);
    const QPointF normal(scene_.normal.x(), -scene_.normal.y());
    QPen dots(t.muted, 0.9, Qt::DotLine);
    p.setPen(dots);
    p.drawLine(aim, aim + normal * 0.75 * length);

    // Distance, beside the axis.
    p.setPen(QPen(t.select, 0.6));
    p.drawLine(aim + below * 20, aim + below * 48);
    p.drawLine(gun + below * 6, gun + below * 48);
    const QPointF a = aim + below * 44, b = gun + below * 44;
    p.setPen(QPen(t.select, 1));
    p.drawLine(a, b);
    p.setPen(QPen(t.select, 1.3));
    p.drawLine(a + QPointF(-3.2, 3.2), a + QPointF(3.2, -3.2));
    p.save();
    p.translate(0.5 * (a + b));
    double turn = radToDeg(std::atan2(unit.y(), unit.x()));
    if (turn > 90 || turn < -90) turn += 180;
    p.rotate(turn);
    const QString distance = lengthText(s.plan->setting.distance_mm, 0);
    const QFont bold = inter(13, QFont::Bold);
    const double w = ink::widthOf(distance, bold) + 10;
    p.fillRect(QRectF(-0.5 * w, -9, w, 18), t.paper);
    ink::text(p, {0, 5}, distance, bold, t.select, Qt::AlignHCenter);
    p.restore();

    // Angle, from the straight line to the axis.
    const double angle = s.plan->setting.angle_deg;
    const QPointF handle = handleAt(SprayHandle::Angle);
    const double r = 0.62 * length;
    QPolygonF arc;
    for (int i = 0; i <= 16; ++i) {
        const Vec2 d = scene_.towardsGun(degToRad(angle * i / 16.0));
        arc << aim + r * QPointF(d.x(), -d.y());
    }
    p.setPen(QPen(t.select, 1));
    p.setBrush(Qt::NoBrush);
    p.drawPolyline(arc);
    const QString words = angle < 0.5 ? tr("straight on") : tr("%1° off straight").arg(angle, 0, 'f', 0);
    const QPointF above = handle - below * 20;
    ink::text(p, above, words, inter(11, QFont::DemiBold), t.select,
              above.x() + 0.5 * ink::widthOf(words, inter(11, QFont::DemiBold)) > width() - 8
                  ? Qt::AlignRight
                  : Qt::AlignHCenter);
}

void SprayPage::paintControls(QPainter& p) const {
    // In one piece: one drawing; its parts share the scale.
    const Tokens& t = tokens();
    const SprayStudy& s = desk_.study();
    const SpraySetting& setting = s.plan->setting;
    const SprayPractice& practice = s.plan->practice;
    const QFont small = inter(11), bold = inter(12.5, QFont::Bold);

    // Speed of the hand.
    ink::text(p, {18, speed_.top() - 14}, tr("stroke"), small, t.muted);
    p.setPen(QPen(t.select, 1.1));
    p.drawLine(QPointF(18, speed_.center().y()), QPointF(speed_.right() + 12, speed_.center().y()));
    p.drawLine(QPointF(speed_.right() + 6, speed_.center().y() - 4),
               QPointF(speed_.right() + 12, speed_.center().y()));
    p.drawLine(QPointF(speed_.right() + 6, speed_.center().y() + 4),
               QPointF(speed_.right() + 12, speed_.center().y()));
    p.setPen(QPen(t.select, 0.7));
    for (int i = 0; i <= 8; ++i) {
        const double x = speed_.left() + speed_.width() * i / 8;
        p.drawLine(QPointF(x, speed_.center().y() - 3), QPointF(x, speed_.center().y() + 3));
    }
    ink::text(p, {18, speed_.bottom() + 22}, tr("%1 mm/s").arg(setting.speed_mm_s, 0, 'f', 0), bold, t.ink);
    const double length = context_.results.body().skin->length_mm();
    ink::text(p, {18, speed_.bottom() + 37},
              tr("one body length in %1 s").arg(length / setting.speed_mm_s, 0, 'f', 1), small, t.muted);

    // Needles on the bench.
    const auto& guns = context_.bench.bench().guns;
    ink::text(p, {trigger_.left(), needleBox(0).top() - 6}, tr("needles on the bench, mm"), small, t.muted);
    for (int i = 0; i < static_cast<int>(guns.size()) && i < 4; ++i) {
        const Gun& gun = guns[static_cast<std::size_t>(i)];
        const QRectF box = needleBox(i);
        const bool on = std::abs(gun.needle_mm - setting.needle_mm) < 1e-6;
        p.setPen(QPen(on ? t.select : t.line, on ? 1.5 : 1));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(box, 4, 4);
        const double half = 2 + 7 * gun.needle_mm;
        const QPointF top(box.center().x(), box.top() + 8);
        p.setPen(Qt::NoPen);
        p.setBrush(on ? t.ink : t.muted);
        p.drawPolygon(QPolygonF{top + QPointF(-half, 0), top + QPointF(half, 0),
                                top + QPointF(0.45 * half, 26), top + QPointF(0, 38),
                                top + QPointF(-0.45 * half, 26)});
        ink::text(p, QPointF(box.center().x(), box.bottom() - 6), QString::number(gun.needle_mm, 'f', 2),
                  inter(10.5, on ? QFont::Bold : QFont::Normal), on ? t.ink : t.muted, Qt::AlignHCenter);
    }

    // Trigger.
    ink::text(p, {trigger_.left(), trigger_.top() - 12}, tr("trigger, share of travel"), small, t.muted);
    p.setPen(Qt::NoPen);
    p.setBrush(t.deep);
    p.drawRoundedRect(trigger_, 2.5, 2.5);
    p.setBrush(t.ink);
    const double back = std::min(1.0, valueOf(SprayHandle::Trigger));
    p.drawRoundedRect(QRectF(trigger_.topLeft(), QSizeF(trigger_.width() * back, trigger_.height())), 2.5,
                      2.5);
    const QString share = QString::number(back, 'f', 2);
    ink::text(p, {trigger_.left(), trigger_.bottom() + 20}, share, bold, t.ink);
    ink::text(p, {trigger_.left() + ink::widthOf(share, bold) + 7, trigger_.bottom() + 20},
              tr("%1 mL/min").arg(setting.flow_ml_min, 0, 'f', 2), small, t.muted);

    // Pressure: practice as a band on the column.
    const auto yOf = [&](double psi) {
        return pressure_.bottom() - pressure_.height() * std::clamp(psi / 45, 0.0, 1.0);
    };
    ink::text(p, {pressure_.left(), pressure_.top() - 10}, tr("pressure"), small, t.muted);
    p.setPen(Qt::NoPen);
    p.setBrush(t.deep);
    p.drawRoundedRect(pressure_, 4, 4);
    const double psi = setting.gauge_kpa / kKpaPerPsi;
    QColor usual = t.accent;
    usual.setAlpha(110);
    p.setBrush(t.muted);
    p.drawRoundedRect(QRectF(QPointF(pressure_.left(), yOf(psi)), pressure_.bottomRight()), 4, 4);
    p.setBrush(usual);
    const double bandTop = yOf(practice.pressure_psi.high), bandEnd = yOf(practice.pressure_psi.low);
    p.drawRect(QRectF(QPointF(pressure_.left(), bandTop), QPointF(pressure_.right(), bandEnd)));
    const double x = pressure_.right() + 14, y = yOf(psi);
    ink::text(p, {x, y + 4}, psiText(setting.gauge_kpa), bold, t.ink);
    ink::text(p, {x, y + 19}, tr("%1 bar").arg(setting.gauge_kpa / 100, 0, 'f', 2), small, t.muted);
    const double beside = std::min(bandTop - 4, y - 16);
    ink::text(p, {x, beside},
              tr("usual %1–%2").arg(practice.pressure_psi.low).arg(practice.pressure_psi.high), inter(10.5),
              t.accent);
}

void SprayPage::paintHandle(QPainter& p, SprayHandle handle) const {
    const QPointF at = handleAt(handle);
    if (at.isNull()) return;
    const Tokens& t = tokens();
    const bool on = handle == selected_;
    if (handle == SprayHandle::Section) {
        const double x = at.x();
        const QRectF body = side_.bounds();
        p.setPen(QPen(t.select, on ? 1.6 : 1));
        p.drawLine(QPointF(x, at.y()), QPointF(x, body.bottom() + 6));
    }
    p.setPen(QPen(t.select, on ? 2.4 : 1.6));
    p.setBrush(t.paper);
    p.drawEllipse(at, handle == SprayHandle::Aim ? 4.4 : 6.0, handle == SprayHandle::Aim ? 4.4 : 6.0);
    if (on && hasFocus()) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(t.select, 1, Qt::DotLine));
        p.drawEllipse(at, 10, 10);
    }
    if (handle == SprayHandle::Distance) {
        p.setPen(QPen(t.select, 1.2));
        const QPointF along = tip() - this->at(scene_.aim);
        const QPointF unit = along / std::max(1.0, std::hypot(along.x(), along.y()));
        p.drawLine(at - unit * 3, at + unit * 3);
    }
    if (handle == SprayHandle::Pads && (on || valueOf(handle) > 0))
        ink::text(p, at + QPointF(10, 4), tr("pads %1").arg(lengthText(valueOf(handle))),
                  inter(10.5, QFont::Medium), t.select);
}

void SprayPage::paintCurve(QPainter& p, const EdgeHere& here, const QPen& pen, bool filled) const {
    const SprayStudy& s = desk_.study();
    const Mixture mixture = *mixed(s.plan->setting.paint, s.plan->setting.reduction);
    const double dry = s.plan->coats * s.plan->coat_um * mixture.solids;
    QPolygonF curve;
    constexpr int kSteps = 160;
    for (int i = 0; i <= kSteps; ++i) {
        const double x = halfSpan_mm_ * (2.0 * i / kSteps - 1);
        const double film = dry * here.edge.profileAt(x);
        curve << QPointF(plot_.left() + plot_.width() * i / kSteps,
                         plot_.bottom() - plot_.height() * film / tallest_um_);
    }
    if (filled) {
        QPolygonF area = curve;
        area << plot_.bottomRight() << plot_.bottomLeft();
        QColor paint = paintColour();
        paint.setAlpha(120);
        p.setPen(Qt::NoPen);
        p.setBrush(paint);
        p.drawPolygon(area);
    }
    p.setPen(pen);
    p.setBrush(Qt::NoBrush);
    p.drawPolyline(curve);
}

void SprayPage::paintEdge(QPainter& p) const {
    const Tokens& t = tokens();
    const SprayStudy& s = desk_.study();
    if (!tabbed())
        ink::heading(p, {18, edgeBox_.top() + 16}, tr("The edge this gives"),
                     tr("dry film across the edge, in the circle"));
    if (!here_ || plot_.width() < 80 || plot_.height() < 40) return;
    const double middle = plot_.center().x(), perMm = 0.5 * plot_.width() / halfSpan_mm_;

    // Skin, and the mask on the right half, as far off as it is against the width of the plot.
    p.setPen(Qt::NoPen);
    p.setBrush(t.dark ? QColor("#4b4942") : QColor("#d3cec0"));
    p.drawRect(QRectF(plot_.bottomLeft(), QSizeF(plot_.width(), 14)));
    const double off = std::min(here_->gap_mm * perMm, 0.3 * plot_.height());
    const QRectF mask(QPointF(middle, plot_.bottom() - off - 9), QSizeF(0.5 * plot_.width(), 9));
    QColor sheet = materialColour(s.spec->wish.material);
    sheet.setAlpha(215);

    paintCurve(p, *here_, QPen(paintColour().darker(t.dark ? 80 : 150), 1.8), true);
    p.setPen(QPen(t.caution, 1));
    p.setBrush(sheet);
    p.drawRect(mask);
    ink::text(p, mask.center() + QPointF(0.1 * mask.width(), 3.8),
              materialName(s.spec->wish.material).toLower(), inter(10.5), inkOnSheet(), Qt::AlignHCenter);
    const bool elsewhere = worst_ && worst_->gap_mm > here_->gap_mm + 0.005;
    if (elsewhere) paintCurve(p, *worst_, QPen(t.caution, 1.4, Qt::DashLine), false);
    if (desk_.kept()) paintCurve(p, desk_.kept()->here, QPen(t.select, 1.3, Qt::DotLine), false);

    paintAxes(p);
    paintWidthAndCreep(p);
    paintCurveNotes(p, elsewhere);
}

void SprayPage::paintAxes(QPainter& p) const {
    const Tokens& t = tokens();
    p.setPen(QPen(t.ink, 1));
    p.drawLine(plot_.bottomLeft(), plot_.bottomRight());
    p.drawLine(plot_.topLeft(), plot_.bottomLeft());
    const QFont f = inter(10.5);
    for (int i = 0; i <= 2; ++i) {
        const double y = plot_.bottom() - plot_.height() * i / 2;
        ink::text(p, {plot_.left() - 8, y + 4}, QString::number(0.5 * i * tallest_um_), f, t.muted,
                  Qt::AlignRight);
    }
    ink::text(p, {plot_.left() - 8, plot_.top() + 0.25 * plot_.height() + 4}, QString::fromUtf8("µm"), f,
              t.muted, Qt::AlignRight);
    for (int i = -2; i <= 2; ++i) {
        const double x = plot_.left() + plot_.width() * (i + 2) / 4;
        p.setPen(QPen(t.muted, 0.8));
        p.drawLine(QPointF(x, plot_.bottom() + 14), QPointF(x, plot_.bottom() + 18));
        const double mm = 0.5 * i * halfSpan_mm_;
        ink::text(p, {x, plot_.bottom() + 60},
                  i == 0 ? QString("0 %1").arg(lengthUnit()) : lengthNumber(mm, 2), f, t.muted,
                  i == -2  ? Qt::AlignLeft
                  : i == 2 ? Qt::AlignRight
                           : Qt::AlignHCenter);
    }
}

/// Width from 10 to 90 %, and creep to 5 % with what is drawn in.
void SprayPage::paintWidthAndCreep(QPainter& p) const {
    const Tokens& t = tokens();
    const double middle = plot_.center().x(), perMm = 0.5 * plot_.width() / halfSpan_mm_;
    const auto xOf = [&](double mm) { return std::clamp(middle + mm * perMm, plot_.left(), plot_.right()); };
    const EdgeFigures& e = here_->edge;
    double from = e.shift_mm, to = e.shift_mm;
    for (double x = -halfSpan_mm_; x <= halfSpan_mm_; x += halfSpan_mm_ / 400) {
        if (e.profileAt(x) >= 0.9) from = x;
        if (e.profileAt(x) >= 0.1) to = x;
    }
    const double above = plot_.top() - 8;
    p.setPen(QPen(t.ink, 0.7));
    for (const double x : {from, to}) p.drawLine(QPointF(xOf(x), above - 5), QPointF(xOf(x), plot_.bottom()));
    p.setPen(QPen(t.ink, 1.1));
    p.drawLine(QPointF(xOf(from), above), QPointF(xOf(to), above));
    const QFont bold = inter(12, QFont::Bold);
    ink::text(p, {xOf(to) + 8, above + 4}, tr("edge %1").arg(lengthText(e.width_mm, 2)), bold, t.ink);
    const double under = plot_.bottom() + 32;
    p.setPen(QPen(t.ink, 0.7));
    for (const double x : {0.0, e.creep_mm})
        p.drawLine(QPointF(xOf(x), plot_.bottom()), QPointF(xOf(x), under + 5));
    p.setPen(QPen(t.ink, 1.1));
    p.drawLine(QPointF(xOf(0), under), QPointF(xOf(e.creep_mm), under));
    const QString liquid =
        e.liquid_mm >= 0.005 ? tr(" (%1 wet)").arg(lengthNumber(e.liquid_mm, 2)) : QString();
    const QString creep = tr("creep %1%2").arg(lengthText(e.creep_mm, 2), liquid);
    const double at = xOf(e.creep_mm) + 8;
    const bool fits = at + ink::widthOf(creep, bold) < edgeBox_.right() - 6;
    ink::text(p, {fits ? at : xOf(0) - 8, under + 4}, creep, bold, t.ink,
              fits ? Qt::AlignLeft : Qt::AlignRight);
}

/// What the other curves are.
void SprayPage::paintCurveNotes(QPainter& p, bool elsewhere) const {
    const Tokens& t = tokens();
    double y = plot_.top() + 14;
    const auto note = [&](const QString& words, const QPen& pen) {
        const double right = plot_.right();
        ink::text(p, {right, y}, words, inter(11, QFont::DemiBold), pen.color(), Qt::AlignRight);
        const double left = right - ink::widthOf(words, inter(11, QFont::DemiBold)) - 6;
        p.setPen(pen);
        p.drawLine(QPointF(left - 22, y - 4), QPointF(left, y - 4));
        y += 16;
    };
    if (elsewhere)
        note(tr("off %1: %2 wide, creep %3")
                 .arg(lengthText(worst_->gap_mm, 2), lengthNumber(worst_->edge.width_mm, 2),
                      lengthText(worst_->edge.creep_mm, 2)),
             QPen(t.caution, 1.4, Qt::DashLine));
    if (desk_.kept()) {
        const EdgeHere& kept = desk_.kept()->here;
        note(tr("kept: %1 wide, creep %2")
                 .arg(lengthNumber(kept.edge.width_mm, 2), lengthText(kept.edge.creep_mm, 2)),
             QPen(t.select, 1.3, Qt::DotLine));
        note(desk_.kept()->words, QPen(t.select, 0));
    }
}

void SprayPage::paintMap(QPainter& p) const {
    const Tokens& t = tokens();
    const SprayStudy& s = desk_.study();
    if (!tabbed())
        ink::heading(p, {mapBox_.left() + 18, mapBox_.top() + 16}, tr("Edges on the body"),
                     tr("drag the section along it"));
    if (edges_.empty()) return;
    side_.paint(p);
    const double limit = s.asked.soft ? 1.5 * s.asked.wantedWidth_mm : s.asked.wantedWidth_mm;
    constexpr int kShades = 24;  // runs of one shade are drawn in one stroke
    const auto shadeOf = [&](double width) {
        return width > limit ? kShades : static_cast<int>(kShades * width / limit * 0.999);
    };
    for (const ColouredEdge& edge : edges_) {
        const qsizetype count = edge.ring.size();
        QPolygonF run;
        for (qsizetype i = 0; i < count; ++i) {
            const int shade = shadeOf(edge.width_mm[static_cast<std::size_t>(i)]);
            const bool last = i + 1 == count;
            run << edge.ring[i];
            if (!last && shadeOf(edge.width_mm[static_cast<std::size_t>(i + 1)]) == shade) continue;
            run << edge.ring[(i + 1) % count];
            const QColor colour =
                shade == kShades ? t.fault : rampColour(Ramp::Lift, (shade + 0.5) / kShades);
            p.setPen(QPen(colour, 2.6, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
            p.drawPolyline(run);
            run.clear();
        }
    }
    if (!s.plan->meetsWish) ink::flag(p, worstAt_, ink::Severity::Caution, 1);
    const QRectF bar(mapBox_.left() + 24, mapBox_.bottom() - 34, 150, 8);
    ink::text(p, bar.topLeft() - QPointF(0, 6),
              s.asked.soft ? tr("width of the edge; wanted %1").arg(lengthText(s.asked.wantedWidth_mm))
                           : tr("width of the edge, up to what is wanted"),
              inter(11), t.muted);
    ink::legend(p, bar, Ramp::Lift, "0", lengthNumber(0.5 * limit, 2), lengthText(limit, 2));
    const QString widest = tr("widest %1").arg(lengthText(widest_mm_, 2));
    const QString where =
        s.worst.lift_mm > 0
            ? tr("opening %1 of %2").arg(s.worst.opening + 1).arg(QString::fromStdString(s.worst.element))
            : tr("the same everywhere: it lies flat");
    const QPointF right(mapBox_.right() - 18, bar.bottom() - 2);
    ink::text(p, right, widest, inter(12, QFont::Bold), widest_mm_ > limit ? t.fault : t.ink, Qt::AlignRight);
    ink::text(p, right + QPointF(0, 16), where, inter(11), t.muted, Qt::AlignRight);
}

}  // namespace nine::app
