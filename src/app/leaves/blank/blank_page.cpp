#include "app/leaves/blank/blank_page.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "app/leaves/blank/blank_edits.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {
namespace {

constexpr double kGrip_px = 9;
constexpr int kWrapRows = 100, kWrapColumns = 48;

}  // namespace

BlankPage::BlankPage(LeafContext context)
    : LeafPage(context), editor_(new ValueChip(ValueChip::Kind::Length, 1, 0.1, this)) {
    editor_->hide();
    editor_->setAccessibleName(tr("Dimension"));
    connect(editor_, &ValueChip::committed, this, &BlankPage::takeTyped);
    connect(editor_, &ValueChip::finished, editor_, &QWidget::hide);
    setMouseTracking(true);
    setAccessibleName(tr("Outline of the blank with its stations"));
    connect(&side_, &BodyView::redrawn, this, [this] { update(); });
    connect(&above_, &BodyView::redrawn, this, [this] { update(); });
}

void BlankPage::layOut() {
    const BodyResult& body = context_.results.body();
    if (body.skin) {
        const double w = width(), h = height();
        const double stripHeight = 92;
        const QSizeF room(w - 250, h - stripHeight - 148);
        const Extent2 e = extents(*body.skin);
        const double perMm =
            std::min(room.width() / body.skin->length_mm(), room.height() / (e.tall + e.wide));
        const double tall = e.tall * perMm, wide = e.wide * perMm, len = body.skin->length_mm() * perMm;
        const double left = std::max(110.0, 0.5 * (w - len) - 20);
        const double spare = std::max(0.0, h - stripHeight - 134 - tall - wide);
        const double y0 = 62 + 0.3 * spare, y1 = y0 + tall + 50 + 0.4 * spare;
        const double ratio = devicePixelRatioF();
        side_.place(body, QRectF(left - 8, y0 - 8, len + 16, tall + 16), perMm, context_.view.side(), ratio,
                    false);
        above_.place(body, QRectF(left - 8, y1 - 8, len + 16, wide + 16), perMm, Side::Left, ratio, false);
        strip_ = QRectF(left, h - stripHeight + 16, len, 30);
        placeLandmarks();
        requestWrap();
    }
    update();
}

BlankPage::Extent2 BlankPage::extents(const Skin& skin) const {
    Extent2 e{0, 0};
    double top = 0, bottom = 0;
    for (int i = 0; i <= 200; ++i) {
        const Section s = skin.loft().sectionAt(skin.noseX() + skin.length_mm() * i / 200);
        top = std::max(top, s.top);
        bottom = std::max(bottom, s.bottom);
        e.wide = std::max(e.wide, 2 * s.halfWidth);
    }
    e.tall = top + bottom;
    return e;
}

QPointF BlankPage::stationHandle(int index, bool top) const {
    const Station& s = stations()[static_cast<std::size_t>(index)];
    return side_.at(s.x_mm, top ? s.top_mm : -s.bottom_mm);
}

QPointF BlankPage::landmarkPoint(const std::string& name, int point) const {
    for (const DrawnLandmark& drawn : landmarks_) {
        if (drawn.name == name && point < drawn.points.size()) return drawn.points[point];
    }
    return {};
}

QPointF BlankPage::landmarkHandle(const std::string& name) const {
    for (const DrawnLandmark& drawn : landmarks_) {
        if (drawn.name == name) return drawn.points[drawn.points.size() / 2];
    }
    return {};
}

void BlankPage::placeLandmarks() {
    const Skin& skin = *context_.results.body().skin;
    landmarks_.clear();
    for (const auto& [name, landmark] : context_.document.job().blank->landmarks) {
        DrawnLandmark drawn{name, landmark, {}};
        for (const Vec2& v : landmark.points) {
            if (!skin.check({Side::Left, v.x(), v.y()}, "")) continue;
            drawn.points << side_.at(skin.at({context_.view.side(), v.x(), v.y()}).position);
        }
        if (!drawn.points.isEmpty()) landmarks_.push_back(std::move(drawn));
    }
}

void BlankPage::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    const BodyResult& body = context_.results.body();
    if (context_.document.empty()) {
        paintEmpty(p);
        return;
    }
    if (!body.skin) {
        ink::text(p, QPointF(18, 26), body.error ? said(*body.error) : tr("Working out the body ..."),
                  inter(12.5), t.muted);
        return;
    }
    paintFilm(p);
    ink::heading(p, QPointF(18, 26),
                 context_.view.sides() == Sides::Both ? tr("Both sides, which are alike")
                 : context_.view.side() == Side::Left ? tr("Left side")
                                                      : tr("Right side"),
                 tr("drag the points; double-click adds a station"));
    side_.paint(p);
    above_.paint(p);
    const QRectF a = above_.bounds();
    ink::text(p, QPointF(18, a.top() - 8), tr("From above"), inter(12, QFont::Bold), t.ink);
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
    if (!wrong_.isEmpty() || body.error) {
        const QString words = wrong_.isEmpty() ? said(*body.error) : wrong_;
        ink::flagShape(p, QPointF(18, 36), ink::Severity::Fault, "");
        ink::text(p, QPointF(46, 49), words, inter(12, QFont::Medium), t.fault);
    }
}

void BlankPage::requestWrap() {
    const BodyResult& body = context_.results.body();
    const std::string& material = context_.view.material();
    if (wrap_.skin == body.skin && wrap_.material == material) return;
    const double limit = findMaterial(material)->strainLimit;
    wrapSlot_.request(
        [skin = body.skin, material, limit](const Task&) {
            const SkinGrid grid = makeSkinGrid(*skin, kWrapRows, kWrapColumns);
            return WrapStrip{skin, material, wrapWidths(*skin, grid, limit)};
        },
        [this](WrapStrip strip) {
            wrap_ = std::move(strip);
            update();
        });
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

QRectF BlankPage::typedBox(Typed which) const {
    const auto found = typedBoxes_.find(which);
    return found == typedBoxes_.end() ? QRectF() : found->second;
}

double BlankPage::typedValue(Typed which) const {
    const Skin& skin = *context_.results.body().skin;
    if (which == Typed::Length) return skin.length_mm();
    if (which == Typed::Station) {
        const auto index = static_cast<std::size_t>(context_.view.station());
        return index < stations().size() ? stations()[index].x_mm : 0;
    }
    const Extent2 e = extents(skin);
    return which == Typed::Height ? e.tall : e.wide;
}

void BlankPage::typeInto(Typed which) {
    const QRectF box = typedBox(which);
    if (box.isNull()) return;
    typing_ = which;
    editor_->setWrong({});
    editor_->setValue(typedValue(which));
    editor_->move((box.center() - QPointF(0.5 * editor_->width(), 0.5 * editor_->height())).toPoint());
    editor_->show();
    editor_->setFocus();
    editor_->selectAll();
}

void BlankPage::takeTyped(double value) {
    const double before = typedValue(typing_);
    BodyScale scale;
    const auto index = static_cast<std::size_t>(context_.view.station());
    context_.document.beginGesture();
    Result<Job> edited = Error{};
    if (typing_ == Typed::Station) {
        Station s = stations()[index];
        s.x_mm = value;
        edited = withStation(context_.document.job(), index, s);
    } else {
        (typing_ == Typed::Length   ? scale.along
         : typing_ == Typed::Height ? scale.height
                                    : scale.width) = value / before;
        edited = withScale(context_.document.job(), scale);
    }
    editor_->setWrong(edited ? QString() : said(edited.error()));
    apply(edited, typing_ == Typed::Station ? tr("Move station %1").arg(index) : tr("Resize the body"));
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

void BlankPage::paintEmpty(QPainter& p) {
    const Tokens& t = tokens();
    const double x = 0.5 * width() - 230, y = 0.30 * height();
    ink::text(p, QPointF(x, y), tr("Start with a body"), inter(24, QFont::Bold), t.ink);
    ink::text(p, QPointF(x, y + 32), tr("Every mask is fitted to the blank it is made for."), inter(13),
              t.muted);
    struct Choice {
        QString title, words;
        bool ready;
    };
    const Choice choices[] = {
        {tr("Readings"), tr("a table of caliper stations, or a saved job"), true},
        {tr("The demo"), tr("Sedge 60 wears Brook char, ready to look at"), true},
        {tr("Trace it"), tr("a scan of its outline on paper: comes in a later version"), false},
        {tr("Photograph it"), tr("a photo with a scale beside it: comes in a later version"), false}};
    for (int i = 0; i < 4; ++i) {
        const QRectF box(x, y + 58 + 62 * i, 460, 52);
        p.setPen(QPen(choices[i].ready ? t.ink : t.line, 1));
        p.setBrush(choices[i].ready ? t.sheet : t.paper);
        p.drawRoundedRect(box, 6, 6);
        ink::text(p, box.topLeft() + QPointF(16, 22), choices[i].title, inter(13, QFont::Bold),
                  choices[i].ready ? t.accent : t.muted);
        ink::text(p, box.topLeft() + QPointF(16, 40), choices[i].words, inter(12), t.muted);
        if (i == 0) openBox_ = box;
        if (i == 1) demoBox_ = box;
    }
    ink::text(p, QPointF(x, y + 330), tr("Or drop a file on the window."), inter(12), t.muted);
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
        for (const QPointF& at : {top, bottom, l, r}) ink::stationPoint(p, at, on);
        ink::text(p, top + QPointF(0, -9), QString::number(i), inter(11, on ? QFont::Bold : QFont::Medium),
                  on ? t.select : t.ink, Qt::AlignHCenter);
        if (on) {
            const QRectF b = side_.bounds();
            const double y = b.bottom() + 16;
            p.setPen(QPen(t.select, 0.6));
            p.drawLine(bottom, QPointF(bottom.x(), y + 4));
            const QPointF nose = side_.at(context_.results.body().skin->noseX(), 0);
            const QString words = tr("station %1 at %2").arg(QString::number(i), lengthText(s.x_mm));
            typedBoxes_[Typed::Station] =
                ink::dimension(p, QPointF(nose.x(), y), QPointF(bottom.x(), y), words, true);
        }
    }
}

void BlankPage::paintLandmarks(QPainter& p) {
    const Tokens& t = tokens();
    int labelled = 0;
    for (const auto& [name, landmark, line] : landmarks_) {
        QPen pen(t.ink, landmark.isCurve() ? 1.1 : 1);
        if (name == "lateral_line") pen.setDashPattern({9, 3, 2, 3});
        p.setPen(pen);
        p.setBrush(Qt::NoBrush);
        if (landmark.isCurve()) {
            QPainterPath path(line.first());
            for (int i = 1; i < line.size(); ++i) {  // through the points, smoothly
                const QPointF before = line[std::max(0, i - 2)], a = line[i - 1], b = line[i],
                              after = line[std::min<int>(line.size() - 1, i + 1)];
                path.cubicTo(a + (b - before) / 6, b - (after - a) / 6, b);
            }
            p.drawPath(path);
        }
        const QPointF at = landmarkHandle(name);
        if (landmark.diameter_mm > 0) {
            p.drawEllipse(at, 0.5 * landmark.diameter_mm * side_.perMm(),
                          0.5 * landmark.diameter_mm * side_.perMm());
        }
        if (landmark.isCurve() && name == landmark_) {
            for (const QPointF& point : line) ink::diamond(p, point, 3.4, t.select);
        }
        ink::diamond(p, at, 4.6, name == landmark_ ? t.select : t.ink);
        QString words = landmarkName(name);
        if (landmark.diameter_mm > 0) words += " " + lengthText(landmark.diameter_mm);
        // Labels outside the body on the nearer side, staggered so that leaders do not cross.
        const QRectF b = side_.bounds();
        const bool toLeft = at.x() < b.left() + 0.33 * b.width();
        const bool above = at.y() < b.center().y();
        if (landmark.isCurve()) {
            const bool steep =
                std::abs(line.last().y() - line.first().y()) > std::abs(line.last().x() - line.first().x());
            ink::text(p, steep ? line.last() + QPointF(8, 6) : at + QPointF(9, -7), words, inter(11), t.ink);
            continue;
        }
        const double y = above ? at.y() - 34 - 8 * (labelled % 2) : b.bottom() - 6 - 14 * (labelled % 3);
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
    ink::heading(
        p, QPointF(18, strip_.top() - 12), tr("How hard to wrap"),
        tr("widest strip of %1 that lies flat").arg(materialName(context_.view.material()).toLower()));
    const auto& widths = wrap_.widths;
    if (widths.empty()) return;
    const auto at = [&](double x) { return strip_.left() + (x - body.skin->noseX()) * side_.perMm(); };
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
    double next = strip_.left() + 18;
    for (const WrapWidth& w : widths) {
        if (at(w.x_mm) < next || at(w.x_mm) > strip_.right() - 16) continue;
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

void BlankPage::mousePressEvent(QMouseEvent* event) {
    const QPointF at = event->position();
    if (context_.document.empty()) {
        if (openBox_.contains(at)) emit openWanted();
        if (demoBox_.contains(at)) emit demoWanted();
        return;
    }
    if (!context_.results.body().skin) return;
    const auto near = [&](const QPointF& p) { return std::hypot(p.x() - at.x(), p.y() - at.y()) < kGrip_px; };
    grip_ = Grip::None;
    last_ = at;
    wrong_.clear();
    context_.document.beginGesture();
    for (const auto& [which, box] : typedBoxes_) {
        if (box.adjusted(-4, -4, 4, 4).contains(at)) return typeInto(which);
    }
    editor_->hide();
    for (const DrawnLandmark& drawn : landmarks_) {
        // All of it by its middle; single points of the curve that is selected.
        if (near(landmarkHandle(drawn.name))) {
            grip_ = Grip::Landmark;
            landmark_ = drawn.name;
            return update();
        }
        for (int i = 0; drawn.landmark.isCurve() && drawn.name == landmark_ && i < drawn.points.size(); ++i) {
            if (!near(drawn.points[i])) continue;
            grip_ = Grip::LandmarkPoint;
            landmarkPoint_ = i;
            return;
        }
    }
    landmark_.clear();
    const auto& all = stations();
    for (int i = 0; i < static_cast<int>(all.size()); ++i) {
        const Station& s = all[static_cast<std::size_t>(i)];
        if (s.halfWidth_mm == 0) continue;
        if (near(stationHandle(i, true)))
            grip_ = Grip::Top;
        else if (near(stationHandle(i, false)))
            grip_ = Grip::Bottom;
        else if (near(above_.at(s.x_mm, s.halfWidth_mm)) || near(above_.at(s.x_mm, -s.halfWidth_mm)))
            grip_ = Grip::Width;
        else if (std::abs(at.x() - stationHandle(i, true).x()) < 4 &&
                 (side_.bounds().contains(at) || above_.bounds().contains(at)))
            grip_ = Grip::Line;
        if (grip_ == Grip::None) continue;
        context_.view.setStation(i);
        return;
    }
}

void BlankPage::mouseMoveEvent(QMouseEvent* event) {
    if (grip_ != Grip::None && (event->buttons() & Qt::LeftButton)) drag(event->position());
}

void BlankPage::mouseReleaseEvent(QMouseEvent*) {
    grip_ = Grip::None;
}

void BlankPage::mouseDoubleClickEvent(QMouseEvent* event) {
    if (context_.document.empty() || !context_.results.body().skin) return;
    context_.document.beginGesture();
    apply(withStationAt(context_.document.job(), side_.bodyAt(event->position()).x()), tr("Add a station"));
}

void BlankPage::drag(const QPointF& to) {
    const Vec2 side = side_.bodyAt(to), above = above_.bodyAt(to), before = side_.bodyAt(last_);
    last_ = to;
    if (grip_ == Grip::Landmark || grip_ == Grip::LandmarkPoint) {
        const Skin& skin = *context_.results.body().skin;
        const SkinPoint is = skin.onFlank(side.x(), side.y()), was = skin.onFlank(before.x(), before.y());
        const Job& job = context_.document.job();
        const Vec2 at(is.x_mm, is.g_mm);
        apply(grip_ == Grip::Landmark
                  ? withLandmark(job, landmark_, at - Vec2(was.x_mm, was.g_mm))
                  : withLandmarkPoint(job, landmark_, static_cast<std::size_t>(landmarkPoint_), at),
              tr("Move %1").arg(landmarkName(landmark_)));
        return;
    }
    const auto index = static_cast<std::size_t>(context_.view.station());
    Station s = stations()[index];
    constexpr double least_mm = 0.3;
    if (grip_ == Grip::Top) s.top_mm = std::max(least_mm, side.y());
    if (grip_ == Grip::Bottom) s.bottom_mm = std::max(least_mm, -side.y());
    if (grip_ == Grip::Width) s.halfWidth_mm = std::max(least_mm, std::abs(above.y()));
    if (grip_ == Grip::Line) s.x_mm = side.x();
    const Range room = roomForStation(context_.document.job(), index);
    const auto tenth = [](double v) { return std::round(20 * v) / 20; };  // a caliper reads no finer
    s.top_mm = tenth(s.top_mm);
    s.bottom_mm = tenth(s.bottom_mm);
    s.halfWidth_mm = tenth(s.halfWidth_mm);
    s.x_mm = std::clamp(tenth(s.x_mm), room.low, room.high);  // a line dragged past its neighbour stops there
    apply(withStation(context_.document.job(), index, s), tr("Move station %1").arg(index));
}

void BlankPage::apply(const Result<Job>& job, const QString& label) {
    if (job) {
        if (!wrong_.isEmpty()) update();
        wrong_.clear();
        context_.document.edit(*job, label);  // drawn once the new body is there, a moment later
    } else {
        wrong_ = said(job.error());
        update();
    }
}

void BlankPage::keyPressEvent(QKeyEvent* event) {
    if (context_.document.empty()) return QWidget::keyPressEvent(event);
    const int count = static_cast<int>(stations().size());
    const double step = event->modifiers() & Qt::ShiftModifier ? 1 : 0.1;
    const auto index = static_cast<std::size_t>(std::clamp(context_.view.station(), 0, count - 1));
    Station s = stations()[index];
    switch (event->key()) {
        case Qt::Key_PageDown:
            context_.view.setStation(std::min(count - 2, context_.view.station() + 1));
            return;
        case Qt::Key_PageUp:
            context_.view.setStation(std::max(1, context_.view.station() - 1));
            return;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            return typeInto(event->modifiers() & Qt::ShiftModifier ? Typed::Length : Typed::Station);
        case Qt::Key_Escape:
            if (grip_ != Grip::None) context_.document.cancelGesture();
            grip_ = Grip::None;
            return;
        case Qt::Key_Delete:
            context_.document.beginGesture();
            apply(withoutStation(context_.document.job(), index), tr("Take out station %1").arg(index));
            return;
        case Qt::Key_Up:
            s.top_mm += step;
            break;
        case Qt::Key_Down:
            s.top_mm = std::max(0.3, s.top_mm - step);
            break;
        case Qt::Key_Right:
            s.x_mm += step;
            break;
        case Qt::Key_Left:
            s.x_mm -= step;
            break;
        default:
            QWidget::keyPressEvent(event);
            return;
    }
    if (!event->isAutoRepeat()) context_.document.beginGesture();
    if (s.halfWidth_mm > 0)
        apply(withStation(context_.document.job(), index, s), tr("Move station %1").arg(index));
}

}  // namespace nine::app
