// What stands beside the mask: where it lands, how far it stands off, what other sheets would do.
#include <QFontMetricsF>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/leaves/masks/masks_page.h"
#include "app/leaves/masks/slit_edits.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "job/spray_job.h"

namespace nine::app {
namespace {

constexpr double kLandingZoom = 20;
constexpr double kLeastGapDrawn_px = 9;  // a gap is drawn larger than life, and says so

void panelBox(QPainter& p, const QRectF& box) {
    const Tokens& t = tokens();
    p.setPen(QPen(t.line, 1));
    p.setBrush(t.dark ? t.deep : QColor("#FFFDF6"));
    p.drawRoundedRect(box, 4, 4);
}

}  // namespace

QRectF MasksPage::tabBox(int index) const {
    return QRectF(panels_.left() + index * panels_.width() / 3, panels_.top() - 26, panels_.width() / 3 - 8,
                  22);
}

void MasksPage::paintPanels(QPainter& p) const {
    const Tokens& t = tokens();
    if (!tabbed()) {
        ink::heading(p, QPointF(landing_.left(), 26), tr("Where it lands"),
                     tr("+ drawn   • lands, × %1").arg(kLandingZoom));
        ink::heading(p, QPointF(lift_.left(), lift_.top() - 12), tr("Lift"),
                     shown_.spec->wish.pressed == Pressed::Light ? tr("gap under it, pressed lightly")
                     : shown_.spec->wish.pressed == Pressed::Held
                         ? tr("gap under it, held by two fingers")
                         : tr("gap under it, pressed by a fingertip"));
        ink::heading(p, QPointF(sheets_.left(), sheets_.top() - 10), tr("In other sheets"),
                     tr("each a click"));
        paintLanding(p, landing_);
        paintLift(p, lift_);
        paintSheets(p);
        return;
    }
    const QStringList names{tr("Where it lands, × %1").arg(kLandingZoom), tr("Lift"), tr("In other sheets")};
    for (int i = 0; i < 3; ++i) {
        const QRectF box = tabBox(i);
        const bool on = i == panel_;
        ink::text(p, QPointF(box.left(), box.bottom() - 8), names[i],
                  inter(12, on ? QFont::Bold : QFont::Medium), on ? t.ink : t.muted);
        p.setPen(QPen(on ? t.ink : t.line, on ? 1.6 : 1));
        p.drawLine(box.bottomLeft(), box.bottomRight());
    }
    if (panel_ == Landing) paintLanding(p, panels_);
    if (panel_ == Lift) paintLift(p, panels_);
    if (panel_ == Sheets) paintSheets(p);
}

void MasksPage::paintLanding(QPainter& p, const QRectF& box) const {
    const Tokens& t = tokens();
    const Mask& mask = *shown_.mask;
    panelBox(p, box);
    const QPointF corner = box.bottomLeft() + QPointF(12, -10);
    if (!shown_.judged) {
        ink::text(p, corner, tr("wrapping it again ..."), inter(11), t.muted);
        return;
    }
    // The mask's outline, small, with a cross and a dot for each probe of a window's edge.
    const QRectF room = box.adjusted(14, 12, -14, -40);
    const double scale = std::min(room.width() / flat_.width(), room.height() / flat_.height());
    const auto at = [&](const Vec2& v) { return room.center() + scale * (flatAt(v) - flat_.center()); };
    p.setPen(QPen(t.muted, 0.8));
    p.setBrush(Qt::NoBrush);
    for (std::size_t k = 0; k < mask.sheets.size(); ++k) {
        QPolygonF outline;
        for (const Vec2& v : mask.sheets[k].outline) outline << at(v + shifts_[k]);
        p.drawPolygon(outline);
    }
    const FitReport report = mask.report();
    if (drawing_.request.mask == shown_.mask) {
        QVector<QLineF> crosses, moves;
        QVector<QPointF> dots;
        for (const auto& [wanted, landed] : drawing_.landed) {
            const QPointF a = at(wanted), b = a + kLandingZoom * (at(landed) - a);
            crosses << QLineF(a - QPointF(3, 0), a + QPointF(3, 0))
                    << QLineF(a - QPointF(0, 3), a + QPointF(0, 3));
            moves << QLineF(a, b);
            dots << b;
        }
        p.setPen(QPen(t.ink, 0.8));
        p.drawLines(crosses);
        p.setPen(QPen(t.select, 0.9));
        p.drawLines(moves);
        p.setPen(QPen(t.select, 3.4, Qt::SolidLine, Qt::RoundCap));
        p.drawPoints(dots.constData(), static_cast<int>(dots.size()));
    }
    ink::text(p, corner - QPointF(0, 16), tr("worst %1").arg(lengthText(report.landing.max_mm, 2)),
              inter(11, QFont::DemiBold), t.ink);
    ink::text(p, corner,
              tr("traced from the side: %1")
                  .arg(report.tracedKnown ? lengthText(report.traced.max_mm, 2) : tr("off altogether")),
              inter(11), t.muted);
}

void MasksPage::paintLift(QPainter& p, const QRectF& box) const {
    // In one piece: one drawing; its parts share the scale.
    const Tokens& t = tokens();
    const Mask& mask = *shown_.mask;
    // The sheet that stands off most.
    const Sheet& sheet = *std::max_element(
        mask.sheets.begin(), mask.sheets.end(),
        [](const Sheet& a, const Sheet& b) { return a.report.standsOff_mm() < b.report.standsOff_mm(); });
    const Skin& skin = *context_.results.body().skin;
    panelBox(p, box);
    // A cut across the body in the middle of the sheet, the sheet over it; turned so that the sheet is on
    // top.
    const Vec2 low = sheet.flat->patch.low(), high = sheet.flat->patch.high();
    const double x = 0.5 * (low.x() + high.x());
    constexpr int steps = 48;
    std::vector<Vec2> section;
    std::vector<double> lifts;
    for (int i = 0; i <= steps; ++i) {
        const double g = high.y() + (low.y() - high.y()) * i / steps;
        const SkinPoint at{Side::Left, x, g};
        if (!skin.check(at, "")) continue;
        const Vec3 v = skin.at(at).position;
        section.push_back({-v.z(), v.y()});  // back at the left, belly at the right
        lifts.push_back(shown_.judged ? liftAt_mm(mask, {x, g}) : 0);
    }
    if (section.size() < 3) return;
    const Vec2 chord = (section.back() - section.front()).normalized(), up(-chord.y(), chord.x());
    const Vec2 start = section.front();
    const double wide = (section.back() - start).norm();
    double tall = 0;
    for (Vec2& v : section) {
        const Vec2 from = v - start;
        v = {from.dot(chord), from.dot(up)};
    }
    for (const Vec2& v : section) tall = std::max(tall, v.y());
    const QRectF room = box.adjusted(16, 26, -16, -26);
    const double lift = shown_.judged ? sheet.report.standsOff_mm() : 0;
    const double scale = std::min(room.width() / wide, room.height() / std::max(tall + lift, 1e-6));
    const double zoom = lift > 0 ? std::max(1.0, std::ceil(kLeastGapDrawn_px / (lift * scale))) : 1;
    const auto at = [&](const Vec2& v) {
        return QPointF(room.center().x() + scale * (v.x() - 0.5 * wide), room.bottom() - scale * v.y());
    };
    QPolygonF body, laid;
    for (const Vec2& v : section) body << at(v);
    for (int i = 0; i < body.size(); ++i) {
        laid << body[i] - QPointF(0, scale * zoom * lifts[static_cast<std::size_t>(i)] + 1.5);
    }
    QPainterPath inside;
    inside.addPolygon(body);
    inside.lineTo(QPointF(body.last().x(), room.bottom() + 8));
    inside.lineTo(QPointF(body.first().x(), room.bottom() + 8));
    p.setPen(Qt::NoPen);
    p.setBrush(t.dark ? QColor("#5c5a50") : QColor("#cfcabb"));
    p.drawPath(inside);
    if (lift > 0) {
        QPolygonF gap = body;
        for (int i = static_cast<int>(laid.size()) - 1; i >= 0; --i) gap << laid[i];
        p.setBrush(rampColour(Ramp::Lift, 0.35));
        p.drawPolygon(gap);
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.ink, 1.2));
    p.drawPolyline(body);
    p.setPen(QPen(QColor("#b0843a"), 2));
    p.drawPolyline(laid);
    const double y = box.bottom() - 8;
    ink::text(p, QPointF(box.left() + 12, y), tr("back"), inter(10.5), t.muted);
    ink::text(p, QPointF(box.right() - 12, y), tr("belly"), inter(10.5), t.muted, Qt::AlignRight);
    const QString words = !shown_.judged ? tr("under way ...")
                          : lift > 0
                              ? (zoom > 1 ? tr("stands off %1, drawn × %2").arg(lengthText(lift)).arg(zoom)
                                          : tr("stands off %1").arg(lengthText(lift)))
                              : tr("lies down everywhere");
    ink::text(p, QPointF(box.left() + 12, box.top() + 17), words, inter(11, QFont::DemiBold),
              lift > 0 ? t.fault : t.ink);
}

QRectF MasksPage::materialBox(int index) const {
    const double count = static_cast<double>(sheetMaterials().size());
    if (tabbed()) {
        const double wide = sheets_.width() / count;
        return QRectF(sheets_.left() + index * wide, sheets_.top(), wide - 8,
                      std::min(84.0, sheets_.height()));
    }
    const double step = std::min(84.0, (sheets_.height() - 8) / count);
    return QRectF(sheets_.left(), sheets_.top() + index * step, sheets_.width(), step - 8);
}

/// What a sheet of that material would do here. `lies`: in one piece or with a few slits.
QString MasksPage::sheetAnswer(int material, bool& lies) const {
    using How = MaterialAnswer::How;
    const SheetMaterial& m = sheetMaterials()[static_cast<std::size_t>(material)];
    const FitReport report = shown_.mask->report();
    const bool own = shown_.spec->wish.material == m.id;
    std::size_t slits = 0;
    for (const Sheet& sheet : shown_.mask->sheets) slits += sheet.slits.size();
    const auto now = [&](double strain) {
        if (slits == 0) return tr("lies flat: must stretch %1").arg(percentText(strain));
        return tr("%1, must stretch %2").arg(slitCount(static_cast<int>(slits)), percentText(strain));
    };
    lies = report.strainFeasibleMax <= m.strainLimit;
    if (lies && (own || slits == 0)) return now(report.strainFeasibleMax);
    const std::vector<MaterialAnswer>* answers = desk_.answersFor(*shown_.spec);
    if (!answers) {
        if (lies) return now(report.strainFeasibleMax);
        return desk_.running() ? tr("trying slits ...")
                               : tr("cannot: must stretch %1").arg(percentText(report.strainFeasibleMax));
    }
    const MaterialAnswer& answer = (*answers)[static_cast<std::size_t>(material)];
    const int sheets = static_cast<int>(answer.sheets.size());
    // The sheet that is there lies or not; of the others it is told what they could do.
    lies = !own && (answer.how == How::Plain || (answer.how == How::Slits && answer.plan.lies));
    switch (answer.how) {
        case How::Plain:
            return tr("no slits, must stretch %1").arg(percentText(answer.plan.reached));
        case How::Slits:
            return (own ? tr("would with %1, %2") : tr("%1, must stretch %2"))
                .arg(slitCount(answer.slits()), percentText(answer.plan.reached));
        case How::Halves:
            return tr("in two halves, %1").arg(slitCount(2 * answer.slits()));
        case How::Strips:
            return tr("only in %n strips", nullptr, sheets);
        case How::Pieces:
            return tr("only in %n pieces", nullptr, sheets);
        default:
            return tr("only patches of %1").arg(lengthText(answer.patch_mm, 0));
    }
}

void MasksPage::paintSheets(QPainter& p) const {
    const Tokens& t = tokens();
    for (int i = 0; i < static_cast<int>(sheetMaterials().size()); ++i) {
        const SheetMaterial& m = sheetMaterials()[static_cast<std::size_t>(i)];
        const QRectF box = materialBox(i);
        const bool on = shown_.spec->wish.material == m.id;
        bool lies = false;
        const QString answer = shown_.judged ? sheetAnswer(i, lies) : tr("under way ...");
        p.setPen(QPen(on ? t.select : t.line, on ? 1.8 : 1));
        p.setBrush(t.dark ? t.panel : t.sheet);
        p.drawRoundedRect(box, 5, 5);
        const QPointF state(box.right() - 18, tabbed() ? box.top() + 18 : box.center().y());
        if (tabbed()) {
            ink::text(p, QPointF(box.left() + 10, box.top() + 22), materialName(m.id), inter(12, QFont::Bold),
                      t.ink);
            const QFontMetricsF metrics(inter(11));
            ink::text(p, QPointF(box.left() + 10, box.top() + 44),
                      metrics.elidedText(answer, Qt::ElideRight, box.width() - 16), inter(11), t.ink);
            ink::text(p, QPointF(box.left() + 10, box.top() + 62),
                      tr("it takes %1").arg(percentText(m.strainLimit)), inter(11), t.muted);
        } else {
            const double side = std::min(40.0, box.height() - 16);
            const QRectF swatch(box.left() + 10, box.center().y() - 0.5 * side, side, side);
            p.setPen(QPen(inkOnSheet(), 0.9));
            p.setBrush(materialColour(m.id));
            p.drawPolygon(QPolygonF{swatch.topLeft(), swatch.topRight(), swatch.bottomRight() - QPointF(0, 8),
                                    swatch.bottomRight() - QPointF(8, 0), swatch.bottomLeft()});
            const double x = swatch.right() + 12, y = box.center().y() - 5;
            ink::heading(p, QPointF(x, y), materialName(m.id),
                         tr("it takes %1").arg(percentText(m.strainLimit)));
            ink::text(p, QPointF(x, y + 17), answer, inter(11.5), t.ink);
        }
        if (!shown_.judged) continue;
        if (lies) {
            ink::tick(p, state);
        } else {
            ink::flagShape(p, state - QPointF(11, 8), ink::Severity::Fault, "");
        }
    }
}

}  // namespace nine::app
