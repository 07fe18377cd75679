// The upper part of the Layers leaf's page: the body after the selected step with the line of the cut and the
// handles of a fade, the colour under the pointer, and what each coat adds.
#include <algorithm>
#include <cmath>

#include "app/leaves/layers/layers_page.h"
#include "app/leaves/layers/step_words.h"
#include "app/leaves/layers/swatches.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "paint/build_up.h"
#include "paint/colour_words.h"

namespace nine::app {

void LayersPage::paintBody(QPainter& p) {
    const Tokens& t = tokens();
    const SkinPtr skin = context_.results.body().skin;
    if (!skin) return;
    view_->paint(p);
    // The line of the cut.
    const double x = desk_.cutAt_mm();
    const SectionArc arc = skin->arcAt(x);
    const QPointF knob = cutKnob();
    const QPointF foot = view_->at(x, skin->at({Side::Left, x, -arc.bellyArc_mm()}).position.z());
    p.setPen(QPen(QColor(255, 255, 255, 200), 3.4));
    p.drawLine(knob + QPointF(0, 6), foot + QPointF(0, 4));
    p.setPen(QPen(t.select, 1.6));
    p.drawLine(knob + QPointF(0, 4), foot + QPointF(0, 4));
    p.setBrush(t.paper);
    p.drawEllipse(knob, 4.5, 4.5);
    paintFade(p);
    paintStep(p, QRectF(bodyBox_.right() + 30, bodyBox_.top() - 4, width() - bodyBox_.right() - 48,
                        rowsBox_.top() - bodyBox_.top() - 22));
}

void LayersPage::paintFade(QPainter& p) {
    const auto handles = fadeHandles();
    if (!handles) return;
    const Tokens& t = tokens();
    const SkinPtr skin = context_.results.body().skin;
    const Where& where = desk_.step()->where;
    const auto line = [&](double far) {
        QPolygonF path;
        constexpr int kSteps = 60;
        for (int i = 0; i <= kSteps; ++i) {
            const double share = static_cast<double>(i) / kSteps;
            double x = std::lerp(skin->noseX_mm() + 0.2, skin->tailX_mm() - 0.2, share), g = 0;
            if (where.from == FadeFrom::Nose || where.from == FadeFrom::Tail) {
                x = where.from == FadeFrom::Nose ? skin->noseX_mm() + far : skin->tailX_mm() - far;
                x = std::clamp(x, skin->noseX_mm(), skin->tailX_mm());
                const SectionArc arc = skin->arcAt(x);
                g = std::lerp(-arc.bellyArc_mm(), arc.backArc_mm(), share);
            } else if (where.from == FadeFrom::Landmark) {
                const auto& marks = context_.document.job().get<BlankChapter>().landmarks;
                const auto found = marks.find(where.of);
                if (found == marks.end() || found->second.points.empty()) return path;
                const double turn = 2 * M_PI * share;
                const Vec2 at = found->second.points.front() + far * Vec2(std::cos(turn), std::sin(turn));
                x = std::clamp(at.x(), skin->noseX_mm(), skin->tailX_mm());
                const SectionArc arc = skin->arcAt(x);
                g = std::clamp(at.y(), -arc.bellyArc_mm(), arc.backArc_mm());
            } else {
                const SectionArc arc = skin->arcAt(x);
                g = where.from == FadeFrom::Back ? arc.backArc_mm() - far : far - arc.bellyArc_mm();
                if (g > arc.backArc_mm() || g < -arc.bellyArc_mm()) continue;
            }
            path << view_->at(skin->at({Side::Left, x, g}).position);
        }
        return path;
    };
    p.setBrush(Qt::NoBrush);
    for (const auto& [colour, width] :
         {std::pair(QColor(255, 255, 255, 190), 3.0), std::pair(t.select, 1.3)}) {
        p.setPen(QPen(colour, width));
        p.drawPolyline(line(where.reach_mm));
    }
    QPen dashed(t.select, 1);
    dashed.setDashPattern({3, 3});
    p.setPen(dashed);
    for (const double by : {-0.5, 0.5}) p.drawPolyline(line(where.reach_mm + by * where.soft_mm));
    ink::diamond(p, handles->reach, 6, t.select);
    ink::diamond(p, handles->soft, 4.5, t.select);
}

void LayersPage::paintStep(QPainter& p, const QRectF& box) {
    const Tokens& t = tokens();
    const LayersStudy& study = desk_.study();
    const auto place = desk_.stepPlace();
    if (!place || box.width() < 120) return;
    const Step& step = desk_.layers().recipe.steps[*place];
    const bool last = *place + 1 == desk_.layers().recipe.steps.size();
    const QString heading = last ? tr("After the last step: %1").arg(stepTitle(step))
                                 : tr("After step %1: %2").arg(*place + 1).arg(stepTitle(step));
    const QFont bold = inter(13, QFont::DemiBold);
    ink::text(p, box.topLeft() + QPointF(0, 14),
              QFontMetricsF(bold).elidedText(heading, Qt::ElideRight, box.width()), bold, t.ink);
    if (const auto over = study.overOf(step.id); paints(step.act) && over) {
        paintBuildUp(p, box.topLeft() + QPointF(0, 26), step, over->groundPlace, box.width());
    } else {
        p.setPen(t.muted);
        p.setFont(inter(12));
        p.drawText(QRectF(box.left(), box.top() + 24, box.width(), 44), Qt::AlignLeft | Qt::TextWordWrap,
                   stepRemark(context_.document.job(), step));
    }
    const double y = box.bottom() - 12;
    if (reading_) {
        const QRectF patch(box.left(), y - 15, 20, 20);
        p.setPen(QPen(t.line, 1));
        p.setBrush(QColor::fromRgb(reading_->shown));
        p.drawRect(patch);
        const Lab& c = reading_->colour;
        const QString words = capital(said(colourWords(c)));
        ink::text(p, {patch.right() + 8, y}, words, inter(12, QFont::DemiBold), t.ink);
        const QString numbers =
            tr("L* %1  a* %2  b* %3  %4, at %5")
                .arg(c.l, 0, 'f', 0)
                .arg(c.a, 0, 'f', 0)
                .arg(c.b, 0, 'f', 0)
                .arg(QColor::fromRgb(reading_->shown).name(), lengthText(reading_->skin.x_mm, 1));
        const double at = patch.right() + 16 + ink::widthOf(words, inter(12, QFont::DemiBold));
        if (at + ink::widthOf(numbers, inter(11.5)) < width())
            ink::text(p, {at, y}, numbers, inter(11.5), t.muted);
    } else {
        const QString hint = tr("Move over the body to read its colour; drag the line to cut elsewhere.");
        ink::text(p, {box.left(), y},
                  QFontMetricsF(inter(11.5)).elidedText(hint, Qt::ElideRight, box.width()), inter(11.5),
                  t.muted);
    }
}

void LayersPage::paintBuildUp(QPainter& p, const QPointF& at, const Step& step, const Coated& ground,
                              double width) {
    const Tokens& t = tokens();
    const LayersStudy& study = desk_.study();
    const auto paint = paintOf(step, study.on->palette);
    if (!paint) return;
    constexpr int kShown = 8;
    const BuildUp up = buildUp(ground, paint->film, 14, kMatt);
    const double side = std::clamp((width - 10) / (kShown + 1) - 4, 12.0, 34.0);
    for (int n = 0; n <= kShown; ++n) {
        const QRectF patch(at.x() + n * (side + 4) + (n > 0 ? 6 : 0), at.y(), side, std::min(side, 28.0));
        p.setPen(QPen(t.line, 1));
        p.setBrush(QColor::fromRgb(shown(srgbOf(up.after[static_cast<std::size_t>(n)], kMatt))));
        p.drawRect(patch);
        const bool now = !step.mist && n > 0 && std::abs(n - step.coats) < 0.5;
        ink::text(p, {patch.center().x(), patch.bottom() + 13}, n == 0 ? tr("ground") : QString::number(n),
                  inter(10.5, now ? QFont::Bold : QFont::Normal), now ? t.select : t.muted, Qt::AlignHCenter);
        if (now) {
            p.setPen(QPen(t.select, 1.6));
            p.setBrush(Qt::NoBrush);
            p.drawRect(patch.adjusted(-2, -2, 2, 2));
        }
    }
    const QString words =
        up.enough > 0 ? tr("Coats of it over what is there: nothing more to see after %1.").arg(up.enough)
                      : tr("Coats of it over what is there: it still deepens after 14.");
    ink::text(p, at + QPointF(0, std::min(side, 28.0) + 30),
              QFontMetricsF(inter(11.5)).elidedText(words, Qt::ElideRight, width), inter(11.5), t.ink);
}

}  // namespace nine::app
