// How the Scales leaf's page is painted.
#include <QGuiApplication>
#include <QScreen>
#include <algorithm>
#include <cmath>

#include "app/leaves/scales/scales_page.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {
namespace {

/// Words under a middle, in a box of their own width.
void wrapped(QPainter& p, const QRectF& box, const QString& words) {
    p.setPen(tokens().muted);
    p.setFont(inter(13));
    p.drawText(box, Qt::AlignHCenter | Qt::AlignTop | Qt::TextWordWrap, words);
}

/// A clip seen from the side: two jaws on the line and a handle away from it.
void drawClip(QPainter& p, const QPointF& on, const QPointF& out, bool held) {
    const Tokens& t = tokens();
    const QPointF across(-out.y(), out.x());
    QPolygonF jaw;
    jaw << on - 2 * out + 2 * across << on - 2 * out - 2 * across << on + 8 * out - 3.4 * across
        << on + 22 * out - 5 * across << on + 22 * out + 5 * across << on + 8 * out + 3.4 * across;
    p.setPen(QPen(held ? t.select : t.ink, held ? 2 : 1.2));
    p.setBrush(held ? t.sheet : t.deep);
    p.drawPolygon(jaw);
    p.drawLine(on + 9 * out, on + 22 * out);
}

}  // namespace

void ScalesPage::paintPage(QPainter& p) {
    // In one piece: heading, body, then as many panels as there is room for.
    const Tokens& t = tokens();
    const ScalesStudy& study = desk_.study();
    const ScalesChapter& s = desk_.wish();
    const SkinPtr skin = context_.results.body().skin;
    if (!skin || context_.document.empty() || (!s.net && !s.foil && !stencil())) {
        ink::heading(p, {18, 26}, tr("Scales"), {});
        if (skin && !context_.document.empty()) view_->paint(p);
        wrapped(
            p, QRectF(60, skin && !context_.document.empty() ? floor_ : 0.4 * height(), width() - 120, 90),
            context_.document.empty()
                ? tr("Nothing to put scales on yet: this leaf needs a body.")
                : tr("No scales yet. Choose a net on the card to see how its cells lie on this body, press "
                     "lines into foil, or cut a scale stencil. A leaf left empty is no fault."));
        return;
    }
    QString title = s.net    ? QString::fromStdString(s.net->name)
                    : s.foil ? tr("Lines pressed into foil")
                             : tr("Cut scales");
    if (s.net && s.doubled) title = tr("%1, double").arg(title);
    title = tr("%1 on the %2 side").arg(title, context_.view.side() == Side::Left ? tr("left") : tr("right"));
    ink::heading(p, {18, 26}, title,
                 study.coarse ? tr("being laid ...")
                 : s.net && study.thinned
                     ? tr("cells by how much longer they lie one way; not all threads are drawn")
                 : s.net ? tr("cells by how much longer they lie one way than the other")
                         : QString());
    paintBody(p);
    if (study.error) {
        p.setPen(ink::colourOf(ink::Severity::Fault));
        p.setFont(inter(12.5));
        p.drawText(QRectF(24, floor_ - 44, width() - kSideColumn_px - 40, 40),
                   Qt::AlignLeft | Qt::TextWordWrap, said(*study.error));
    }
    p.setPen(QPen(t.line, 1));
    p.drawLine(QPointF(18, floor_), QPointF(width() - 18, floor_));
    if (study.net) paintScale(p, QRectF(width() - kSideColumn_px - 18, 44, kSideColumn_px, floor_ - 60));
    // As many panels as there is room for.
    using Panel = void (ScalesPage::*)(QPainter&, const QRectF&);
    std::vector<Panel> panels;
    if (study.net) panels = {&ScalesPage::paintPiece, &ScalesPage::paintSection, &ScalesPage::paintNear};
    if (stencil()) panels.push_back(&ScalesPage::paintStencil);
    const QRectF room(18, floor_ + 8, width() - 36, height() - floor_ - 16);
    const auto most = static_cast<std::size_t>(std::max(1.0, std::floor(room.width() / 190)));
    if (panels.size() > most)
        panels.erase(panels.begin() + 1,
                     panels.begin() + 1 + static_cast<std::ptrdiff_t>(panels.size() - most));
    for (std::size_t i = 0; i < panels.size(); ++i) {
        const double w = room.width() / static_cast<double>(panels.size());
        (this->*panels[i])(
            p, QRectF(room.left() + w * static_cast<double>(i), room.top(), w - 14, room.height()));
    }
    if (panels.empty() && study.foil) {
        const FoilLines& f = *study.foil;
        ink::heading(p, room.topLeft() + QPointF(0, 18), tr("To press"),
                     tr("under a raking light, short of the gill cover"));
        const QStringList lines{
            tr("%1 diamonds along the body, %2 wide and %3 high")
                .arg(f.diamonds)
                .arg(lengthText(s.foil->width_mm, 1), lengthText(f.height_mm, 1)),
            tr("%1 lines above the lateral line, %2 below").arg(f.above.size()).arg(f.below.size()),
            tr("they lean %1° off the girth and meet on the lateral line").arg(s.foil->lean_deg, 0, 'f', 0)};
        for (int i = 0; i < lines.size(); ++i)
            ink::text(p, room.topLeft() + QPointF(0, 44 + 20 * i), lines[i], inter(12.5), t.ink);
    }
}

void ScalesPage::paintBody(QPainter& p) {
    const Tokens& t = tokens();
    const ScalesStudy& study = desk_.study();
    view_->paint(p);
    if (study.net && !net_.isNull()) {
        p.save();
        QPainterPath clip = view_->outline();
        p.drawImage(netAt_, net_);
        p.restore();
        p.setPen(QPen(t.ink, 1.4));
        p.setBrush(Qt::NoBrush);
        p.drawPath(clip);
        paintClips(p);
        paintFlags(p);
        // What the magnifier looks at.
        const SurfacePoint at = study.skin->at({Side::Left, desk_.aim().x(), desk_.aim().y()});
        p.setPen(QPen(t.select, 1.6));
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(view_->at(at.position), 9, 9);
    }
    if (study.foil) paintFoil(p);
}

void ScalesPage::paintFoil(QPainter& p) {
    const ScalesStudy& study = desk_.study();
    const auto draw = [&](const std::vector<FoilLine>& lines) {
        for (const FoilLine& line : lines) {
            QPolygonF path;
            for (const Vec2& v : line.skin)
                path << view_->at(study.skin->at({Side::Left, v.x(), v.y()}).position);
            p.drawPolyline(path);
        }
    };
    p.setBrush(Qt::NoBrush);
    for (const auto& [colour, width] :
         {std::pair(QColor(255, 255, 255, 210), 3.0), std::pair(inkOnSheet(), 1.1)}) {
        p.setPen(QPen(colour, width));
        draw(study.foil->above);
        draw(study.foil->below);
    }
    for (const Vec2& tick : study.foil->tickSkin)
        ink::diamond(p, view_->at(study.skin->at({Side::Left, tick.x(), tick.y()}).position), 3,
                     inkOnSheet());
}

void ScalesPage::paintClips(QPainter& p) {
    const Tokens& t = tokens();
    const ScalesStudy& study = desk_.study();
    const std::vector<Clip>& clips = desk_.wish().clips;
    const bool belly = desk_.wish().gather == Gather::Belly;
    for (std::size_t i = 0; i < clips.size(); ++i) {
        const QPointF on = gatheredAt(clips[i].x_mm), hand = clipAt(clips[i].x_mm), out = (hand - on) / 12;
        const bool held = desk_.clip() && std::abs(*desk_.clip() - clips[i].x_mm) < 1e-6;
        drawClip(p, on, out, held);
        ink::text(p, on + 32 * out + QPointF(0, 4), QString::number(i + 1), inter(11, QFont::DemiBold),
                  held ? t.select : t.ink, Qt::AlignHCenter);
    }
    // Places from the nose along the axis, on a line under the body.
    if (belly && !clips.empty()) {
        const double y = floor_ - 14;
        const QPointF nose = view_->at(study.skin->noseX_mm(), 0);
        std::vector<double> xs{nose.x()};
        for (const Clip& clip : clips) xs.push_back(view_->at(clip.x_mm, 0).x());
        p.setPen(QPen(t.muted, 1));
        p.drawLine(QPointF(xs.front(), y), QPointF(xs.back(), y));
        for (const double x : xs) p.drawLine(QPointF(x, y - 4), QPointF(x, y + 4));
        double before = study.skin->noseX_mm();
        for (std::size_t i = 0; i < clips.size(); ++i) {
            const QString words = lengthNumber(clips[i].x_mm - before, 1);
            before = clips[i].x_mm;
            if (std::abs(xs[i + 1] - xs[i]) < ink::widthOf(words, inter(10.5)) + 6) continue;
            ink::text(p, {0.5 * (xs[i] + xs[i + 1]), y - 5}, words, inter(10.5), t.muted, Qt::AlignHCenter);
        }
        const bool leftwards = xs.back() < xs.front();
        ink::text(p, {xs.back() + (leftwards ? -8 : 8), y + 4},
                  tr("%1 between clips, from the nose").arg(lengthUnit()), inter(10.5), t.muted,
                  leftwards ? Qt::AlignRight : Qt::AlignLeft);
    }
    const Drape& drape = *study.net->drape;
    const double hookX = drape.grid.x_mm.back();
    const QPointF hook = view_->at(hookX, 0);
    const double ahead = context_.view.side() == Side::Left ? 1 : -1;
    ink::leader(p, hook, hook + QPointF(8 * ahead, -112), tr("hooked here first"), ahead > 0);
    // How hard it is pulled: an arrow with a ring to drag.
    const QPointF from = pullFrom(), ring = pullRing();
    p.setPen(QPen(t.select, 1.6));
    p.setBrush(t.sheet);
    p.drawLine(from, ring - QPointF(0, 6));
    p.drawLine(from + QPointF(-4, 7), from);
    p.drawLine(from + QPointF(4, 7), from);
    p.drawEllipse(ring, 6, 6);
    ink::text(p, ring + QPointF(0, 20), tr("%1 N/m").arg(desk_.wish().pull_n_m, 0, 'f', 0),
              inter(11, QFont::DemiBold), t.select, Qt::AlignHCenter);
}

void ScalesPage::paintFlags(QPainter& p) {
    const ScalesStudy& study = desk_.study();
    for (std::size_t i = 0; i < study.net->flags.size(); ++i) {
        const NetFlag& flag = study.net->flags[i];
        if (flag.x_mm <= study.skin->noseX_mm() || flag.x_mm >= study.skin->tailX_mm()) continue;
        const SurfacePoint at = study.skin->at({Side::Left, flag.x_mm, flag.g_mm});
        const QPointF foot = view_->at(at.position);
        ink::flag(p, foot, flag.fault ? ink::Severity::Fault : ink::Severity::Caution,
                  static_cast<int>(i) + 1, foot.x() > width() - 60);
    }
}

void ScalesPage::paintScale(QPainter& p, const QRectF& box) {
    const Tokens& t = tokens();
    const ScalesStudy& study = desk_.study();
    const Net& net = study.net->drape->wish.net;
    const auto stretch = stretchAt(*study.skin, *study.net->drape, desk_.aim());
    const Polyline2 corners = cellCorners(net, stretch.value_or(Eigen::Matrix2d::Identity()));
    Vec2 low(1e9, 1e9), high(-1e9, -1e9);
    for (const Vec2& c : corners) {
        low = low.cwiseMin(c);
        high = high.cwiseMax(c);
    }
    const Vec2 size = high - low;
    const double perMm = std::min(84 / size.x(), 70 / size.y());
    const QPointF middle(box.left() + 62, box.top() + 66);
    const double side = context_.view.side() == Side::Left ? 1 : -1;
    const auto at = [&](const Vec2& v) {
        const Vec2 d = v - 0.5 * (low + high);
        return middle + perMm * QPointF(side * d.x(), d.y());
    };
    const double dots = QGuiApplication::primaryScreen()->physicalDotsPerInchX() / 25.4;
    ink::heading(p, box.topLeft() + QPointF(0, 8), tr("One scale"),
                 tr("life × %1").arg(std::max(1.0, perMm / std::max(dots, 1.0)), 0, 'f', 0));
    QPolygonF ring;
    for (const Vec2& c : corners) ring << at(c);
    p.setPen(QPen(t.ink, std::max(1.2, net.strand_mm * perMm)));
    p.setBrush(QColor("#D9BE5B"));
    p.drawPolygon(ring);
    const double below = middle.y() + 0.5 * perMm * size.y() + 16,
                 right = middle.x() + 0.5 * perMm * size.x() + 16;
    ink::dimension(p, {middle.x() - 0.5 * perMm * size.x(), below},
                   {middle.x() + 0.5 * perMm * size.x(), below}, lengthText(size.x(), 2));
    ink::dimension(p, {right, middle.y() - 0.5 * perMm * size.y()},
                   {right, middle.y() + 0.5 * perMm * size.y()}, lengthText(size.y(), 2));
    double y = below + 34;
    ink::text(p, {box.left(), y}, tr("cell longer one way by"), inter(11), t.muted);
    ink::legend(p, QRectF(box.left(), y + 8, box.width() - 30, 9), Ramp::Stretch, "1.0", "1.4", "1.8");
    y += 52;
    if (y + 34 < box.bottom()) {
        p.setPen(QPen(t.ink, 1.4));
        const double x0 = side > 0 ? box.left() : box.left() + 60,
                     x1 = side > 0 ? box.left() + 60 : box.left();
        p.drawLine(QPointF(x0, y), QPointF(x1, y));
        p.drawLine(QPointF(x1, y), QPointF(x1 - 7 * side, y - 4));
        p.drawLine(QPointF(x1, y), QPointF(x1 - 7 * side, y + 4));
        ink::text(p, {box.left(), y + 18}, tr("to the tail"), inter(11), t.muted);
        y += 40;
    }
    if (y + 14 < box.bottom()) {
        ink::text(p, {box.left(), y},
                  tr("%1 along the side").arg(study.net->reading.cellsAlongLateral, 0, 'f', 0),
                  inter(12, QFont::DemiBold), t.ink);
        ink::text(p, {box.left(), y + 17}, tr("scales, end to end, gill to tail"), inter(11), t.muted);
    }
}

void ScalesPage::paintPiece(QPainter& p, const QRectF& box) {
    const Tokens& t = tokens();
    const ScalesStudy& study = desk_.study();
    const NetReading& r = study.net->reading;
    const bool doubled = desk_.wish().doubled;
    ink::heading(p, box.topLeft() + QPointF(0, 18), tr("Net piece to cut"),
                 doubled ? tr("one of two layers") : QString());
    const double along = r.piece_mm[0], across = r.piece_mm[1];
    const QRectF room = box.adjusted(4, 34, -46, -34);
    const double scale = std::min(room.width() / along, room.height() / across);
    const QRectF piece(room.center() - 0.5 * scale * QPointF(along, across),
                       QSizeF(scale * along, scale * across));
    p.setPen(QPen(t.line, 1));
    p.setBrush(t.panel);
    p.drawRect(piece);
    // The net that lies on the skin, both sides, as it is on the flat piece.
    const Drape& drape = *study.net->drape;
    double low = 1e9;
    for (const Vec2& uv : drape.net_mm) low = std::min(low, uv.x());
    const double side = context_.view.side() == Side::Left ? 1 : -1;
    const auto at = [&](const Vec2& uv, double up) {
        return QPointF(piece.center().x() + side * scale * (uv.x() - low + kHeldAtEnds_mm - along / 2),
                       piece.center().y() + up * scale * uv.y());
    };
    QPolygonF shape;
    const HalfGrid& grid = drape.grid;
    for (int row = 0; row < grid.rows; ++row)
        shape << at(drape.net_mm[static_cast<std::size_t>(grid.at(row, grid.columns - 1))], 1);
    for (int row = grid.rows - 1; row >= 0; --row)
        shape << at(drape.net_mm[static_cast<std::size_t>(grid.at(row, grid.columns - 1))], -1);
    p.setPen(QPen(t.ink, 1.2));
    p.setBrush(QBrush(t.muted, Qt::DiagCrossPattern));
    p.drawPolygon(shape);
    p.setPen(QPen(t.ink, 1, Qt::DashLine));
    p.drawLine(QPointF(piece.left(), piece.center().y()), QPointF(piece.right(), piece.center().y()));
    ink::text(p, piece.topLeft() + QPointF(4, 13),
              desk_.wish().gather == Gather::Belly ? tr("back line dashed") : tr("belly line dashed"),
              inter(10.5), t.muted);
    ink::dimension(p, {piece.left(), piece.bottom() + 16}, {piece.right(), piece.bottom() + 16},
                   lengthText(along, 0));
    ink::dimension(p, {piece.right() + 20, piece.top()}, {piece.right() + 20, piece.bottom()},
                   lengthText(across, 0));
}

void ScalesPage::paintSection(QPainter& p, const QRectF& box) {
    // In one piece: the section, the net round it and what is said of it share one scale.
    const Tokens& t = tokens();
    const ScalesStudy& study = desk_.study();
    const std::vector<Clip>& clips = desk_.wish().clips;
    double x = desk_.aim().x();
    QString title = tr("Section, %1 from the nose").arg(lengthText(x, 0));
    for (std::size_t i = 0; i < clips.size(); ++i)
        if (desk_.clip() ? std::abs(clips[i].x_mm - *desk_.clip()) < 1e-6 : i == clips.size() / 2) {
            x = clips[i].x_mm;
            title = tr("At clip %1").arg(i + 1);
        }
    ink::heading(p, box.topLeft() + QPointF(0, 18), title, {});
    const Section section = study.skin->loft().sectionAt(x);
    const QRectF room = box.adjusted(10, 36, -10, -62);
    const double scale = std::min(room.width() / (2 * section.halfWidth_mm),
                                  room.height() / (section.top_mm + section.bottom_mm));
    const QPointF middle(room.center().x(),
                         room.center().y() + 0.5 * scale * (section.top_mm - section.bottom_mm));
    const SectionArc arc = study.skin->arcAt(x);
    QPolygonF ring, net;
    const auto at = [&](const Vec2& yz) { return middle + scale * QPointF(yz.x(), -yz.y()); };
    for (int i = 0; i <= 80; ++i) {
        const double g = arc.backArc_mm() - arc.girth_mm() * i / 80;
        ring << at(arc.point(std::max(g, -2 * arc.bellyArc_mm() - arc.backArc_mm())));
    }
    // The net as far off as it was found to stand, to scale; a hair off where it lies on the skin.
    constexpr double kHair_px = 2;
    std::vector<QPointF> half;
    double most_mm = 0;
    for (const auto& [g, off_mm] : standOffAlong(x)) {
        most_mm = std::max(most_mm, off_mm);
        const Vec3 normal = study.skin->at({Side::Left, x, g}).normal;
        const QPointF out =
            QPointF(normal.y(), -normal.z()) / std::max(1e-6, std::hypot(normal.y(), normal.z()));
        half.push_back(at(arc.point(g)) + (scale * off_mm + kHair_px) * out);
    }
    for (const QPointF& v : half) net << v;
    for (auto v = half.rbegin(); v != half.rend(); ++v) net << QPointF(2 * middle.x() - v->x(), v->y());
    p.setPen(QPen(t.ink, 1.2));
    p.setBrush(t.deep);
    p.drawPolygon(ring);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.ink, 1.4, Qt::DotLine));
    p.drawPolygon(net);
    const bool belly = desk_.wish().gather == Gather::Belly;
    const QPointF tip = half.empty() ? at(arc.point(belly ? -arc.bellyArc_mm() : arc.backArc_mm()))
                                     : QPointF(middle.x(), half.back().y());
    const double out = belly ? 1 : -1;
    p.setPen(QPen(t.ink, 1.2));
    for (const double dx : {-3.0, -1.0, 1.0, 3.0}) p.drawLine(tip, tip + QPointF(1.6 * dx, 12 * out));
    const NetReading& r = study.net->reading;
    ink::text(p, box.bottomLeft() + QPointF(0, -32),
              most_mm > 0.05
                  ? tr("%1 gathered in all; %2 off here")
                        .arg(lengthText(std::max(0.0, r.surplus_mm), 0), lengthText(most_mm, 1))
                  : tr("%1 of net gathered in all").arg(lengthText(std::max(0.0, r.surplus_mm), 0)),
              inter(11), t.ink);
    ink::text(p, box.bottomLeft() + QPointF(0, -14),
              tr("%1 N/m, %2 N a side at a clip")
                  .arg(desk_.wish().pull_n_m, 0, 'f', 0)
                  .arg(desk_.wish().pull_n_m * desk_.wish().clip_mm / 1000, 0, 'f', 1),
              inter(11), t.muted);
}

void ScalesPage::paintNear(QPainter& p, const QRectF& box) {
    const Tokens& t = tokens();
    ink::heading(p, box.topLeft() + QPointF(0, 18), tr("What it prints"), tr("in the ring"));
    const double side = std::min(box.width(), box.height() - 84);
    const QRectF frame(box.left(), box.top() + 30, side, side);
    if (!nearBy_.image.isNull()) {
        const bool right = context_.view.side() == Side::Right;
        p.setRenderHint(QPainter::SmoothPixmapTransform);
        p.drawImage(frame, right ? nearBy_.image.mirrored(true, false) : nearBy_.image);
    }
    p.setPen(QPen(t.ink, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(frame);
    ink::text(p, {box.left(), frame.bottom() + 17},
              tr("%1 across; %2 % of the mist arrives")
                  .arg(lengthText(nearFor_.size_mm, 0))
                  .arg(100 * nearBy_.arrives, 0, 'f', 0),
              inter(11), t.ink);
    ink::text(p, {box.left(), frame.bottom() + 34},
              nearFor_.gap_mm > 0.05
                  ? tr("stands %1 off: blurred over %2")
                        .arg(lengthText(nearFor_.gap_mm, 1), lengthText(blurOf_mm(nearFor_.gap_mm), 1))
                  : tr("lies on the skin: sharp"),
              inter(11), t.muted);
}

void ScalesPage::paintStencil(QPainter& p, const QRectF& box) {
    const Tokens& t = tokens();
    const MaskPtr mask = stencil();
    if (!mask || mask->sheets.empty()) return;
    ink::heading(p, box.topLeft() + QPointF(0, 18), tr("The cut scale stencil"), tr("flat"));
    const QRectF room = box.adjusted(4, 32, -4, -46);
    Vec2 low(1e9, 1e9), high(-1e9, -1e9);
    std::size_t windows = 0;
    for (const Sheet& sheet : mask->sheets) {
        for (const Vec2& v : sheet.outline) {
            low = low.cwiseMin(v);
            high = high.cwiseMax(v);
        }
        windows += sheet.windows.size();
    }
    const double scale = std::min(room.width() / (high - low).x(), room.height() / (high - low).y());
    const auto at = [&](const Vec2& v) {
        const Vec2 d = v - 0.5 * (low + high);
        return room.center() + scale * QPointF(d.x(), -d.y());
    };
    const auto polygon = [&](const Polyline2& line) {
        QPolygonF out;
        for (const Vec2& v : line) out << at(v);
        return out;
    };
    for (const Sheet& sheet : mask->sheets) {
        p.setPen(QPen(t.ink, 1.2));
        p.setBrush(t.sheet);
        p.drawPolygon(polygon(sheet.outline));
        p.setPen(Qt::NoPen);
        p.setBrush(t.ink);
        for (const auto& window : sheet.windows) p.drawPolygon(polygon(window.outline));
    }
    ink::text(p, box.bottomLeft() + QPointF(0, -22), tr("%1 windows").arg(windows), inter(11), t.ink);
    ink::text(p, box.bottomLeft() + QPointF(0, -5), tr("verdict and slits on the Masks leaf"), inter(11),
              t.muted);
}

}  // namespace nine::app
