// How the Blank page is painted; what it does is in blank_page.cpp.
#include <QPainterPath>
#include <cmath>

#include "app/leaves/blank/blank_page.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {

void BlankPage::paintPage(QPainter& p) {
    const Tokens& t = tokens();
    const BodyResult& body = context_.results.body();
    if (context_.document.empty()) return;
    if (!body.skin) {
        ink::text(p, QPointF(18, 26), body.error ? said(*body.error) : tr("Working out the body ..."),
                  inter(12.5), t.muted);
        return;
    }
    paintFilm(p);
    const bool under = !layers_.picture().isNull();
    if (under) {
        p.setClipRect(QRectF(0, 34, width(), strip_.top() - 60));
        p.setOpacity(0.75);
        p.drawImage(0, 0, layers_.picture());
        p.setOpacity(1);
        p.setClipping(false);
    }
    paintHeading(p);
    paintBill(p);
    paintSoftTail(p);
    p.setOpacity(under ? 0.4 : 1);
    side_.paint(p);
    p.setOpacity(1);
    above_.paint(p);
    paintZones(p);
    const QRectF a = above_.bounds();
    ink::text(p, QPointF(18, a.top() + 6), tr("From above"), inter(12, QFont::Bold), t.ink);
    p.setPen(QPen(t.muted, 0.8, Qt::CustomDashLine));
    QPen dash(t.muted, 0.8);
    dash.setDashPattern({9, 3, 2, 3});
    p.setPen(dash);
    p.drawLine(QPointF(a.left() - 22, a.center().y()), QPointF(a.right() + 22, a.center().y()));
    ink::text(p, QPointF(a.right() + 12, a.center().y() - 10), tr("right"), inter(11), t.muted);
    ink::text(p, QPointF(a.right() + 12, a.center().y() + 18), tr("left"), inter(11), t.muted);

    paintDimensions(p);
    paintStations(p);
    paintLandmarks(p);
    paintWrapStrip(p);
    paintTools(p);
    if (!wrong_.isEmpty() || body.error) {
        const QString words = wrong_.isEmpty() ? said(*body.error) : wrong_;
        ink::flagShape(p, QPointF(18, 36), ink::Severity::Fault, "");
        ink::text(p, QPointF(46, 49), words, inter(12, QFont::Medium), t.fault);
    }
}

void BlankPage::paintDimensions(QPainter& p) {
    const Tokens& t = tokens();
    const QRectF s = side_.bounds(), a = above_.bounds();
    const double topY = s.top() - 22, rightX = s.right() + 100;
    p.setPen(QPen(t.muted, 0.6));
    for (const double x : {s.left(), s.right()}) p.drawLine(QPointF(x, topY - 4), QPointF(x, s.center().y()));
    const auto typed = [&](Typed which, const QPointF& from, const QPointF& to) {
        const QRectF box = ink::dimension(p, from, to, lengthText(typedValue(which)));
        typedBoxes_[which] = box;
        p.setPen(QPen(t.accent, 1));  // values that can be typed are underlined everywhere
        if (box.width() > box.height()) {
            p.drawLine(box.bottomLeft() + QPointF(3, -2), box.bottomRight() + QPointF(-3, -2));
        } else {
            p.drawLine(box.topRight() + QPointF(-2, 3), box.bottomRight() + QPointF(-2, -3));
        }
    };
    typed(Typed::Length, QPointF(s.left(), topY), QPointF(s.right(), topY));
    typed(Typed::Height, QPointF(rightX, s.top()), QPointF(rightX, s.bottom()));
    typed(Typed::Width, QPointF(rightX, a.top()), QPointF(rightX, a.bottom()));
}

void BlankPage::paintFilm(QPainter& p) const {
    // Crosses every 10 mm, not smoothed: they are many, and lie on whole pixels.
    p.setRenderHint(QPainter::Antialiasing, false);
    const double grid = 10 * side_.perMm();
    QVector<QLineF> crosses;
    for (double x = std::fmod(side_.at(0, 0).x(), grid); x < width(); x += grid) {
        for (double y = std::fmod(side_.at(0, 0).y(), grid); y < height() - 96; y += grid) {
            const QPointF c(std::floor(x), std::floor(y));
            crosses << QLineF(c - QPointF(2, 0), c + QPointF(2, 0))
                    << QLineF(c - QPointF(0, 2), c + QPointF(0, 2));
        }
    }
    p.setPen(QPen(tokens().hair, 1));
    p.drawLines(crosses);
    p.setRenderHint(QPainter::Antialiasing);
}

void BlankPage::paintStations(QPainter& p) {
    const Tokens& t = tokens();
    const int selected = context_.view.station();
    const auto& all = stations();
    for (int i = 0; i < static_cast<int>(all.size()); ++i) {
        const Station& s = all[static_cast<std::size_t>(i)];
        if (s.halfWidth_mm == 0) continue;
        const bool on = i == selected;
        QPen pen(on ? t.select : t.muted, on ? 1.4 : 0.7);
        if (!on) pen.setDashPattern({2, 3});
        const QPointF top = side_.at(s.x_mm, s.top_mm), bottom = side_.at(s.x_mm, -s.bottom_mm);
        const QPointF l = above_.at(s.x_mm, s.halfWidth_mm), r = above_.at(s.x_mm, -s.halfWidth_mm);
        p.setPen(pen);
        p.setRenderHint(QPainter::Antialiasing,
                        on);  // upright dashes need no smoothing, which is slow for them
        p.drawLine(top, bottom);
        p.drawLine(l, r);
        p.setRenderHint(QPainter::Antialiasing);
        // Values nobody has measured are hollow and thin.
        const auto point = [&](const QPointF& at, unsigned value) {
            if (!(s.assumed & value)) return ink::stationPoint(p, at, on);
            p.setPen(QPen(on ? t.select : t.muted, 1.2));
            p.setBrush(Qt::NoBrush);
            p.drawEllipse(at, 3.6, 3.6);
        };
        point(top, kAssumedTop);
        point(bottom, kAssumedBottom);
        point(l, kAssumedWidth);
        point(r, kAssumedWidth);
        ink::text(p, top + QPointF(0, -9), QString::number(i), inter(11, on ? QFont::Bold : QFont::Medium),
                  on ? t.select : t.ink, Qt::AlignHCenter);
        if (on) {
            const QRectF b = side_.bounds();
            const double y = b.bottom() + 16;
            p.setPen(QPen(t.select, 0.6));
            p.drawLine(bottom, QPointF(bottom.x(), y + 4));
            const QPointF nose = side_.at(context_.results.body().skin->noseX_mm(), 0);
            const QString words = tr("station %1 at %2").arg(QString::number(i), lengthText(s.x_mm));
            typedBoxes_[Typed::Station] =
                ink::dimension(p, QPointF(nose.x(), y), QPointF(bottom.x(), y), words, true);
        }
    }
}

void BlankPage::paintLandmarks(QPainter& p) {
    // In one piece: one drawing; its parts share the scale.
    const Tokens& t = tokens();
    int labelled = 0;
    const std::string& held = context_.view.landmark();
    // The map is darker than the ink in places: there lines and words bring some paper with them.
    const bool overMap = context_.view.wrapMap() && layers_.wrap().colours;
    QColor paper = t.paper;
    paper.setAlpha(170);
    for (const auto& [name, landmark, points, line, quiet] : landmarks_) {
        const bool on = name == held;
        const QColor line_ = on ? t.select : landmark.assumed || quiet ? t.muted : t.ink;
        QPen pen(line_, quiet && !on ? 0.8 : 1.1);
        if (landmark.assumed) pen.setDashPattern({3, 3});
        if (name == "lateral_line") pen.setDashPattern({9, 3, 2, 3});
        p.setPen(pen);
        p.setBrush(Qt::NoBrush);
        if (landmark.isCurve()) {
            QPainterPath path;
            path.addPolygon(line);
            if (overMap) p.strokePath(path, QPen(paper, 3.5));
            p.drawPath(path);
        }
        const QPointF at = landmarkHandle(name);
        if (landmark.diameter_mm > 0) {
            QPainterPath ring;
            const double radius = 0.5 * landmark.diameter_mm * side_.perMm();
            ring.addEllipse(at, radius, radius);
            if (overMap) p.strokePath(ring, QPen(paper, 3.5));
            p.drawPath(ring);
        }
        if (landmark.isCurve() && on) {
            for (const QPointF& point : points) ink::diamond(p, point, 3.4, t.select);
        }
        ink::diamond(p, at, quiet && !on ? 3.4 : 4.6, line_);
        if (quiet && !on) continue;
        QString words = landmarkName(name);
        if (landmark.diameter_mm > 0) words += " " + lengthText(landmark.diameter_mm);
        if (landmark.angle_deg > 0) words += QString(" %1°").arg(landmark.angle_deg, 0, 'f', 0);
        // Labels outside the body on the nearer side, staggered so that leaders do not cross.
        const QRectF b = side_.bounds();
        const bool toLeft = at.x() < b.left() + 0.33 * b.width();
        const bool above = at.y() < b.center().y();
        if (landmark.isCurve() && !landmark.isOutline()) {
            const bool steep =
                std::abs(line.last().y() - line.first().y()) > std::abs(line.last().x() - line.first().x());
            const QPointF foot = steep ? line.last() + QPointF(8, 6) : at + QPointF(9, -7);
            if (overMap)
                p.fillRect(QRectF(foot.x() - 3, foot.y() - 11, ink::widthOf(words, inter(11)) + 6, 15),
                           paper);
            ink::text(p, foot, words, inter(11), t.ink);
            continue;
        }
        // A bill hangs below the nose: labels there stay close to their places.
        const double y = above    ? at.y() - 30 - 16 * (labelled % 3)
                         : toLeft ? at.y() - 8 - 6 * (labelled % 2)
                                  : b.bottom() - 6 - 14 * (labelled % 3);
        ++labelled;
        const bool toRight = at.x() > b.right() - 0.33 * b.width();
        const double x = toLeft    ? std::min(b.left() - 14, at.x() - 40)
                         : toRight ? std::max(b.right() + 12, at.x() + 30)
                                   : std::max(at.x() + 30, b.left() + 0.62 * b.width());
        ink::leader(p, at, QPointF(x, y), words, toLeft);
    }
}

void BlankPage::paintWrapStrip(QPainter& p) {
    const BodyResult& body = context_.results.body();
    const Tokens& t = tokens();
    if (context_.view.wrapMap() && layers_.wrap().colours) paintMapLegend(p);
    ink::heading(p, QPointF(18, strip_.top() - 12), tr("How hard to wrap"),
                 tr("widest strip of %1, %2 long, that lies flat; at most half round")
                     .arg(materialName(context_.view.material()).toLower(), lengthText(kStripLength_mm, 0)));
    const auto& widths = layers_.wrap().widths;
    if (widths.empty()) return;
    const auto at = [&](double x) { return strip_.left() + (x - body.skin->noseX_mm()) * side_.perMm(); };
    const auto shade = [](double w) {
        return 1 - std::clamp(std::log(w / 6) / std::log(10.0), 0.0, 1.0);
    };  // 60 easy, 6 hard
    p.fillRect(strip_, rampColour(Ramp::Stretch, 1));
    QLinearGradient gradient(QPointF(at(widths.front().x_mm), 0), QPointF(at(widths.back().x_mm), 0));
    const double span = widths.back().x_mm - widths.front().x_mm;
    for (const WrapWidth& w : widths)
        gradient.setColorAt((w.x_mm - widths.front().x_mm) / span,
                            rampColour(Ramp::Stretch, shade(w.width_mm)));
    p.fillRect(QRectF(at(widths.front().x_mm), strip_.top(), span * side_.perMm(), strip_.height()),
               gradient);
    p.setPen(QPen(t.ink, 0.8));
    p.setBrush(Qt::NoBrush);
    p.drawRect(strip_);
    double next = std::max(strip_.left(), at(widths.front().x_mm)) + 12;
    for (const WrapWidth& w : widths) {
        if (at(w.x_mm) < next || at(w.x_mm) > std::min(strip_.right(), at(widths.back().x_mm)) - 12) continue;
        next = at(w.x_mm) + 62;
        ink::text(p, QPointF(at(w.x_mm), strip_.center().y() + 4), lengthNumber(w.width_mm, 0),
                  inter(12, QFont::DemiBold), shade(w.width_mm) > 0.5 ? QColor("#FBFAF6") : inkOnSheet(),
                  Qt::AlignHCenter);
    }
    ink::text(p, QPointF(strip_.left() - 8, strip_.center().y() + 4), tr("%1 wide").arg(lengthUnit()),
              inter(11), t.muted, Qt::AlignRight);
    ink::ruler(p, QPointF(strip_.left(), strip_.bottom() + 5), body.skin->length_mm(), side_.perMm());
    const QRectF bar(std::min(strip_.right() + 22, width() - 128.0), strip_.top() + 8, 108, 7);
    ink::legend(p, bar, Ramp::Stretch, lengthNumber(60, 0), lengthNumber(20, 0), lengthText(6, 0));
    ink::text(p, QPointF(bar.left(), bar.top() - 5), tr("easy"), inter(11), t.muted);
    ink::text(p, QPointF(bar.right(), bar.top() - 5), tr("hard"), inter(11), t.muted, Qt::AlignRight);
}

void BlankPage::paintMapLegend(QPainter& p) {
    const Tokens& t = tokens();
    const BlankLayers::WrapAnswer& wrap = layers_.wrap();
    const double y = strip_.top() - 34;
    const QString words = tr("A sheet of %1 × %2 lies flat on %3 % of the skin")
                              .arg(lengthNumber(wrap.along, 0), lengthText(wrap.across, 0))
                              .arg(std::lround(100 * wrap.map.share));
    ink::text(p, QPointF(18, y), words, inter(11.5, QFont::Medium), t.ink);
    const double zero = 18 + ink::widthOf(words, inter(11.5, QFont::Medium)) + 16;
    ink::text(p, QPointF(zero, y), "0", inter(11), t.muted);
    const QRectF bar(zero + 12, y - 8, 80, 9);
    const double limit = 0.75 * bar.width();
    for (int i = 0; i < static_cast<int>(bar.width()); ++i)
        p.fillRect(QRectF(bar.left() + i, bar.top(), 1.5, bar.height()),
                   rampColour(Ramp::Stretch, i < limit ? BlankLayers::kLimitOfRamp * i / limit : 1));
    p.fillRect(QRectF(bar.left() + limit, bar.top() - 2, 1, bar.height() + 4), t.ink);
    ink::text(p, QPointF(bar.right() + 8, y), tr("tick: all that it can stretch"), inter(11), t.muted);
}

void BlankPage::paintHeading(QPainter& p) {
    const ViewState::BlankTool tool = context_.view.blankTool();
    const QString title = context_.view.sides() == Sides::Both ? tr("Both sides, which are alike")
                          : context_.view.side() == Side::Left ? tr("Left side")
                                                               : tr("Right side");
    const QString remark =
        tool == ViewState::BlankTool::Measure ? tr("click two points, or arrows and Space; Esc ends")
        : tool == ViewState::BlankTool::Zone  ? tr("click the corners, or arrows and Space; Enter closes it")
                                              : tr("drag the points; double-click adds a station");
    ink::heading(p, QPointF(18, 26), title, remark);
}

void BlankPage::paintBill(QPainter& p) const {
    const auto found = context_.document.job().get<BlankChapter>().landmarks.find("bill_slot");
    if (found == context_.document.job().get<BlankChapter>().landmarks.end() || found->second.length_mm <= 0)
        return;
    const Landmark& bill = found->second;
    const Skin& skin = *context_.results.body().skin;
    double x = 0;
    for (const Vec2& v : bill.points) x += v.x() / static_cast<double>(bill.points.size());
    const Section s = skin.loft().sectionAt(std::clamp(x, skin.noseX_mm(), skin.tailX_mm()));
    const double v = bill.angle_deg * M_PI / 180;
    constexpr double kThick_mm = 1.6, kInside_mm = 3;
    const Vec2 root(x, -0.85 * s.bottom_mm), along(-std::cos(v), -std::sin(v)),
        across(std::sin(v), -std::cos(v));
    QPolygonF edge;
    for (const auto& [l, w] :
         {std::pair{-kInside_mm, 0.5}, {bill.length_mm, 0.5}, {bill.length_mm, -0.5}, {-kInside_mm, -0.5}}) {
        const Vec2 c = root + l * along + w * kThick_mm * across;
        edge << side_.at(c.x(), c.y());
    }
    p.setPen(QPen(tokens().ink, 1));
    p.setBrush(tokens().glass);
    p.drawPolygon(edge);
    // From above it reaches as far forward as its slant lets it.
    const double forward = bill.length_mm * std::cos(v), half = 0.5 * bill.width_mm;
    QPainterPath top(above_.at(x, 0.45 * half));
    top.lineTo(above_.at(x - 0.5 * forward, half));
    top.cubicTo(above_.at(x - 0.9 * forward, half), above_.at(x - forward, 0.8 * half),
                above_.at(x - forward, 0));
    top.cubicTo(above_.at(x - forward, -0.8 * half), above_.at(x - 0.9 * forward, -half),
                above_.at(x - 0.5 * forward, -half));
    top.lineTo(above_.at(x, -0.45 * half));
    top.closeSubpath();
    p.drawPath(top);
}

void BlankPage::paintSoftTail(QPainter& p) const {
    const SoftTail& tail = context_.document.job().get<BlankChapter>().softTail;
    if (tail.length_mm <= 0) return;
    const double x = context_.results.body().skin->tailX_mm();
    QPainterPath path(side_.at(x - 1, 1));
    path.quadTo(side_.at(x + 0.4 * tail.length_mm, 0.15 * tail.height_mm),
                side_.at(x + tail.length_mm, 0.5 * tail.height_mm));
    path.quadTo(side_.at(x + 0.7 * tail.length_mm, 0), side_.at(x + tail.length_mm, -0.5 * tail.height_mm));
    path.quadTo(side_.at(x + 0.4 * tail.length_mm, -0.15 * tail.height_mm), side_.at(x - 1, -1));
    path.closeSubpath();
    QPen dash(tokens().muted, 1);
    dash.setDashPattern({4, 3});
    p.setPen(dash);
    p.setBrush(tokens().glass);
    p.drawPath(path);
}

void BlankPage::paintZones(QPainter& p) const {
    const Skin& skin = *context_.results.body().skin;
    for (const Zone& zone : context_.document.job().get<BlankChapter>().zones) {
        QPolygonF corners;
        for (const Vec2& v : zone.polygon)
            corners << side_.at(skin.at({context_.view.side(), v.x(), v.y()}).position);
        const bool on = context_.view.landmark() == "zone:" + zone.id;
        const QColor c = on ? tokens().select : inkOnSheet();
        p.setPen(QPen(c, on ? 1.6 : 1));
        p.setBrush(QBrush(c, zone.noPaint ? Qt::BDiagPattern : Qt::Dense6Pattern));
        p.drawPolygon(corners);
    }
}

void BlankPage::paintTools(QPainter& p) {
    const Tokens& t = tokens();
    const Skin& skin = *context_.results.body().skin;
    const auto on = [&](const SkinPoint& point) { return side_.at(skin.at(point).position); };
    if (toolCursor_ && context_.view.blankTool() != ViewState::BlankTool::Stations) {
        const QPointF c = on(*toolCursor_);
        p.setPen(QPen(t.select, 1.4));
        p.drawLine(c - QPointF(9, 0), c + QPointF(9, 0));
        p.drawLine(c - QPointF(0, 9), c + QPointF(0, 9));
    }
    if (measuredFrom_) {
        ink::diamond(p, on(*measuredFrom_), 5, t.select);
        const double x = measuredFrom_->x_mm;
        const Section s = skin.loft().sectionAt(x);
        p.setPen(QPen(t.select, 1));
        p.drawLine(side_.at(x, s.top_mm), side_.at(x, -s.bottom_mm));
        const QString words = tr("girth %1 at %2").arg(lengthText(skin.arcAt(x).girth_mm()), lengthText(x));
        const double w = ink::widthOf(words, inter(12, QFont::Bold)) + 12;
        const QPointF foot = side_.at(x, -s.bottom_mm) + QPointF(0, 6);
        p.setBrush(t.paper);
        p.drawRoundedRect(QRectF(foot.x() - 0.5 * w, foot.y(), w, 20), 4, 4);
        ink::text(p, foot + QPointF(0, 15), words, inter(12, QFont::Bold), t.select, Qt::AlignHCenter);
    }
    if (!corners_.empty()) {
        QPolygonF line;
        for (const Vec2& v : corners_) line << on({context_.view.side(), v.x(), v.y()});
        p.setPen(QPen(t.select, 1.6));
        p.setBrush(Qt::NoBrush);
        p.drawPolyline(line);
        for (const QPointF& c : line) ink::diamond(p, c, 4, t.select);
    }
    const BlankLayers::Way& way = layers_.way();
    if (!way.found || way.skin != context_.results.body().skin) return;
    if (!*way.found) {
        ink::text(p, QPointF(18, 66), said(way.found->error()), inter(12, QFont::Medium), t.fault);
        return;
    }
    for (const BodyView* view : {&side_, &above_}) {
        QPolygonF line;
        for (const SurfacePoint& point : (*way.found)->path) line << view->at(point.position);
        p.setPen(QPen(t.select, 1.8));
        p.setBrush(Qt::NoBrush);
        p.drawPolyline(line);
        if (view != &side_) continue;
        ink::diamond(p, line.first(), 5, t.select);
        ink::diamond(p, line.last(), 5, t.select);
        const QString words = lengthText((*way.found)->length_mm, 2);
        const double w = ink::widthOf(words, inter(12, QFont::Bold)) + 12;
        const QPointF middle = line[line.size() / 2];
        p.setPen(QPen(t.select, 1));
        p.setBrush(t.paper);
        p.drawRoundedRect(QRectF(middle.x() - 0.5 * w, middle.y() - 30, w, 20), 4, 4);
        ink::text(p, QPointF(middle.x(), middle.y() - 15), words, inter(12, QFont::Bold), t.select,
                  Qt::AlignHCenter);
    }
}

}  // namespace nine::app
