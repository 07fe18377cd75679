#include "app/leaves/blank/picture_page.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "geom/polygon_set.h"
#include "image/tracing_sheet.h"

namespace nine::app {
namespace {

constexpr double kHandle_px = 10;
using Grip = PicturePage::Grip;
constexpr Grip kOrder[] = {Grip::Nose,      Grip::Tail,    Grip::TopNose, Grip::TopTail,
                           Grip::ScaleFrom, Grip::ScaleTo, Grip::Brush};

/// The line on the screen without points that fall on one pixel: pictures have more pixels than it is wide.
template <typename Place>
QPolygonF pointsApart(const Polyline2& line, const Place& place) {
    constexpr double kApart_px = 1.5;
    QPolygonF apart;
    for (const Vec2& point : line) {
        const QPointF there = place(point);
        if (apart.isEmpty() || QLineF(apart.last(), there).length() >= kApart_px) apart << there;
    }
    if (!line.empty()) apart << place(line.back());
    return apart;
}

}  // namespace

PicturePage::PicturePage(LeafContext context, BlankDesk& desk) : LeafPage(context), desk_(desk) {
    setAccessibleName(tr("Picture the body is read from"));
    setMouseTracking(true);
    connect(&desk_, &BlankDesk::changed, this, [this] { follow(); });
}

void PicturePage::layOut() {
    const QImage& shown = desk_.shown().shown;
    const QRectF room = QRectF(rect()).adjusted(18, 48, -18, -18);
    if (!shown.isNull()) {
        const double fit = std::min(room.width() / shown.width(), room.height() / shown.height());
        scale_ = fit / desk_.shown().factor;
        const QSizeF size(shown.width() * fit, shown.height() * fit);
        box_ = QRectF(room.topLeft() + QPointF(0.5 * (room.width() - size.width()), 0), size);
        requestScaled();
    }
    update();
}

void PicturePage::looked() {
    if (!desk_.shown().shown.isNull() && box_.isValid()) requestScaled();
}

/// What is in view is taken from the picture itself, so that from nearer there is more to be seen.
void PicturePage::requestScaled() {
    const BlankDesk::Look& look = desk_.shown();
    if (!look.file) return;
    const QRectF seen = QRectF(toPage({0, 0}), toPage({double(width()), double(height())})).intersected(box_);
    const QRectF source((seen.topLeft() - box_.topLeft()) / scale_, seen.size() / scale_);
    const QRect whole(0, 0, look.file->picture.width, look.file->picture.height);
    const QRect pixels = source.toAlignedRect().adjusted(-1, -1, 1, 1).intersected(whole);
    const Part wanted{look.shown.cacheKey(), pixels,
                      (QSizeF(pixels.size()) * (scale_ * zoom() * devicePixelRatioF())).toSize()};
    if (wanted == wantedPart_ || pixels.isEmpty()) return;
    wantedPart_ = wanted;
    scaler_.request(
        [file = look.file, wanted](const Task&) {
            const Picture& picture = file->picture;
            const QImage all(picture.rgb.data(), picture.width, picture.height, 3 * picture.width,
                             QImage::Format_RGB888);
            return all.copy(wanted.pixels)
                .scaled(wanted.size.expandedTo({1, 1}), Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
        },
        [this, wanted](QImage image) {
            scaled_ = std::move(image);
            scaledPart_ = wanted;
            update();
        });
}

QPointF PicturePage::at(const Vec2& pixel) const {
    return box_.topLeft() + scale_ * QPointF(pixel.x(), pixel.y());
}

Vec2 PicturePage::pixelAt(const QPointF& at) const {
    const QPointF p = (at - box_.topLeft()) / scale_;
    return {p.x(), p.y()};
}

double PicturePage::brush_px() const {
    return desk_.brush() / (scale_ * zoom());
}

bool PicturePage::has(Grip grip) const {
    const bool tracing = desk_.way() == BlankDesk::Way::Tracing;
    const auto& reading = desk_.side().reading;
    switch (grip) {
        case Grip::Nose:
        case Grip::Tail:
            return tracing ? reading && reading->side : desk_.shown().outline.has_value();
        case Grip::TopNose:
        case Grip::TopTail:
            return tracing && reading && reading->top;
        case Grip::ScaleFrom:
        case Grip::ScaleTo:
            return !tracing && desk_.photo().known && !desk_.showsAbove();
        default:
            return grip == Grip::Brush;
    }
}

std::pair<Vec2, Vec2> PicturePage::axis(bool above) const {
    if (draggedAxis_ && draggedAbove_ == above) return *draggedAxis_;
    // Keys may be faster than the looking: each step goes on from the one before.
    if (desk_.running() && desk_.wishedAxis(above)) return *desk_.wishedAxis(above);
    if (const auto& reading = desk_.side().reading; desk_.way() == BlankDesk::Way::Tracing) {
        const auto& box = reading && above ? reading->top : reading ? reading->side : std::nullopt;
        if (!box) return {Vec2::Zero(), Vec2::Zero()};
        const auto pixel = [&](const Vec2& mm) { return reading->page.view.pixelOf(mm / reading->scale); };
        return {pixel(box->axis.nose), pixel(box->axis.tail)};
    }
    if (const auto& outline = desk_.shown().outline) return {outline->axis_px.nose, outline->axis_px.tail};
    return {Vec2::Zero(), Vec2::Zero()};
}

PhotoWish::Known PicturePage::scalePoints() const {
    if (draggedScale_) return *draggedScale_;
    return desk_.photo().known.value_or(PhotoWish::Known{});
}

QPointF PicturePage::handle(Grip grip) const {
    switch (grip) {
        case Grip::Nose:
            return at(axis(false).first);
        case Grip::Tail:
            return at(axis(false).second);
        case Grip::TopNose:
            return at(axis(true).first);
        case Grip::TopTail:
            return at(axis(true).second);
        case Grip::ScaleFrom:
            return at(scalePoints().from_px);
        case Grip::ScaleTo:
            return at(scalePoints().to_px);
        default:
            return at(cursor_);
    }
}

void PicturePage::paintPage(QPainter& p) {
    const bool tracing = desk_.way() == BlankDesk::Way::Tracing;
    const BlankDesk::Look& look = desk_.shown();
    QString remark = look.name;
    if (desk_.running())
        remark = tr("looking at %1 ... %2 %").arg(look.name).arg(std::lround(100 * desk_.progress()));
    ink::heading(p, QPointF(18, 26),
                 tracing              ? tr("Tracing")
                 : desk_.showsAbove() ? tr("Photograph from above")
                                      : tr("Photograph"),
                 remark);
    if (look.shown.isNull()) return paintNothing(p);
    p.drawImage(box_, look.shown);
    if (scaledPart_.of == look.shown.cacheKey())
        p.drawImage(QRectF(at({double(scaledPart_.pixels.left()), double(scaledPart_.pixels.top())}),
                           QSizeF(scaledPart_.pixels.size()) * scale_),
                    scaled_);
    p.setPen(QPen(tokens().line, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(box_);
    p.setClipRect(box_.adjusted(-12, -12, 12, 12));
    paintStrokes(p);
    tracing ? paintTracing(p) : paintPhoto(p);
    paintWorst(p);
    if (desk_.tool() == BlankDesk::Tool::TakeOut || desk_.tool() == BlankDesk::Tool::PutIn) {
        paintBrush(p);
    }
}

void PicturePage::paintPlate(QPainter& p, const QPointF& corner, const QString& words) {
    const double w = ink::widthOf(words, inter(11)) + 12;
    const QRectF plate(corner.x(), corner.y() - 20, w, 20);
    p.setPen(Qt::NoPen);
    p.setBrush(QColor(251, 250, 246, 235));
    p.drawRoundedRect(plate, 3, 3);
    ink::text(p, QPointF(plate.left() + 6, plate.bottom() - 6), words, inter(11), inkOnSheet());
}

void PicturePage::paintBrush(QPainter& p) {
    p.setPen(QPen(tokens().select, 1.4 / zoom()));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(at(cursor_), desk_.brush() / zoom(), desk_.brush() / zoom());
    double mmPerPx = desk_.shown().outline && desk_.photo().length_mm ? desk_.shown().outline->mmPerPx : 0;
    if (const auto& reading = desk_.side().reading; reading && desk_.way() == BlankDesk::Way::Tracing)
        mmPerPx = reading->scale / reading->page.view.pixelsPerMm(0.5 * tracing_sheet::kFrame_mm);
    const QString size = mmPerPx > 0 ? lengthText(2 * brush_px() * mmPerPx, 1)
                                     : tr("%1 pixels").arg(std::lround(2 * brush_px()));
    paintPlate(p, box_.bottomLeft() + QPointF(8, -8), tr("Brush %1 wide; [ and ] change it").arg(size));
}

/// What was taken off is hatched, with its reason under the cursor; what was guessed is dashed.
void PicturePage::paintDoubts(QPainter& p) {
    const auto& silhouette = desk_.shown().silhouette;
    if (!silhouette) return;
    const QColor brown("#8F5500"), blue("#1C6E9C");
    QString reason;
    for (const TakenOff& thing : silhouette->takenOff) {
        const QPolygonF area = pointsApart(thing.outline, [&](const Vec2& v) { return at(v); });
        p.setPen(QPen(thing.back ? blue : brown, 1, thing.doubtful ? Qt::DashLine : Qt::SolidLine));
        p.setBrush(thing.back ? QBrush(Qt::NoBrush) : QBrush(brown, Qt::BDiagPattern));
        p.drawPolygon(area);
        if (!contains(thing.outline, cursor_)) continue;
        const QString what = thing.kind == TakenOff::Kind::Thin   ? tr("A ring, hook or wire")
                             : thing.kind == TakenOff::Kind::Bill ? tr("A bill")
                                                                  : tr("A shadow");
        reason = thing.back ? tr("%1, put back: a click takes it off again").arg(what)
                            : tr("%1, taken off: a click puts it back").arg(what);
    }
    for (const Guessed& guess : silhouette->guessed) {
        const QPolygonF line = pointsApart(guess.line, [&](const Vec2& v) { return at(v); });
        p.setPen(QPen(QColor(255, 255, 255, 200), 3.4));
        p.drawPolyline(line);
        p.setPen(QPen(brown, 1.8, Qt::DotLine));
        p.drawPolyline(line);
    }
    if (!reason.isEmpty() && desk_.tool() != BlankDesk::Tool::TakeOut &&
        desk_.tool() != BlankDesk::Tool::PutIn)
        paintPlate(p, box_.bottomLeft() + QPointF(8, -8), reason);
}

/// A flag where the body that would be made and the picture differ most.
void PicturePage::paintWorst(QPainter& p) {
    constexpr double kWorthAFlag_mm = 0.1;
    if (desk_.showsAbove() || !desk_.made() || !*desk_.made()) return;
    const OutlinedBody& body = (**desk_.made()).body;
    if (body.worst_mm < kWorthAFlag_mm || body.table.stations.empty()) return;
    const auto [nose, tail] = axis(false);
    const Vec2 along = (tail - nose) / body.table.stations.back().x_mm;
    const QPointF foot = at(nose + body.worst_x_mm * along);
    const QString words = tr("farthest off here: %1").arg(lengthText(body.worst_mm, 2));
    const double up = std::max(16.0, foot.y() - box_.top() - 12);
    paintLine(p, QPolygonF() << foot << foot - QPointF(0, up), tokens().select, false);
    paintPlate(p, foot - QPointF(0, up - 20), words);
}

/// A flag where the photo and the body of the job are farthest apart.
void PicturePage::paintFarthest(QPainter& p, const PhotoCheck& check) {
    constexpr double kWorthAFlag_mm = 0.2, kPole_px = 34;
    if (std::abs(check.worst.off_mm) < kWorthAFlag_mm) return;
    const QPointF foot = at(check.worst_px), away(0, check.worst.upper ? -kPole_px : kPole_px);
    const QString off = lengthText(std::abs(check.worst.off_mm), 2);
    paintLine(p, QPolygonF() << foot << foot + away, tokens().select, false);
    paintPlate(p, foot + away + QPointF(4, check.worst.upper ? 10 : 20),
               check.worst.off_mm > 0 ? tr("%1 farther out").arg(off) : tr("%1 farther in").arg(off));
}

void PicturePage::paintStrokes(QPainter& p) {
    const auto paintStroke = [&](const Stroke2& stroke) {
        QPolygonF line;
        for (const Vec2& v : stroke.points) line << at(v);
        if (line.size() == 1) line << line.first();
        const QColor c = stroke.include ? QColor(28, 110, 156, 110) : QColor(163, 38, 59, 110);
        p.setPen(QPen(c, 2 * stroke.radius_px * scale_, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
        p.drawPolyline(line);
    };
    for (const Stroke2& stroke : desk_.strokes()) paintStroke(stroke);
    if (stroke_) paintStroke(*stroke_);
}

/// The axis with a handle and a name at each end.
void PicturePage::paintEnds(QPainter& p, bool above) {
    const auto [nose, tail] = axis(above);
    paintLine(p, QPolygonF() << at(nose) << at(tail), QColor("#1C6E9C"), false);
    const auto end = [&](const QPointF& foot, const QString& words, Grip grip) {
        ink::diamond(p, foot, 5.2, selected_ == grip ? tokens().select : inkOnSheet());
        const double w = ink::widthOf(words, inter(11)) + 10;
        const QRectF plate(foot.x() - 0.5 * w, foot.y() + 9, w, 18);
        p.setPen(Qt::NoPen);
        p.setBrush(QColor(251, 250, 246, 225));
        p.drawRoundedRect(plate, 3, 3);
        ink::text(p, QPointF(plate.center().x(), plate.bottom() - 5), words, inter(11), inkOnSheet(),
                  Qt::AlignHCenter);
    };
    end(at(nose), tr("nose"), above ? Grip::TopNose : Grip::Nose);
    end(at(tail), tr("tail"), above ? Grip::TopTail : Grip::Tail);
}

void PicturePage::paintNothing(QPainter& p) {
    const Tokens& t = tokens();
    const QRectF room = QRectF(rect()).adjusted(18, 48, -18, -18);
    QPen dash(t.line, 1.2);
    dash.setDashPattern({5, 4});
    p.setPen(dash);
    p.drawRoundedRect(room, 6, 6);
    const bool tracing = desk_.way() == BlankDesk::Way::Tracing;
    const QPointF middle = room.center();
    // A faint example: the page with its rings and a drawn body, or a body on plain paper.
    const double w = std::min(420.0, 0.7 * room.width()), h = w * 0.71;
    const QRectF sheet(middle.x() - 0.5 * w, middle.y() - 0.62 * h, w, h);
    p.setPen(QPen(t.muted, 1));
    p.setBrush(t.sheet);
    p.drawRect(sheet);
    const auto body = [&](const QPointF& nose, double length, double high) {
        QPainterPath path(nose);
        path.cubicTo(nose + QPointF(0.05 * length, -0.75 * high), nose + QPointF(0.5 * length, -0.8 * high),
                     nose + QPointF(length, 0));
        path.cubicTo(nose + QPointF(0.5 * length, 0.8 * high), nose + QPointF(0.05 * length, 0.75 * high),
                     nose);
        return path;
    };
    if (tracing) {
        const double s = w / 297;
        const QPointF origin(sheet.left() + 23.5 * s, sheet.bottom() - 15 * s);
        p.setBrush(inkOnSheet());
        p.setPen(Qt::NoPen);
        for (const Vec2& mark : tracing_sheet::kMarks_mm) {
            const QPointF c = origin + s * QPointF(mark.x(), -mark.y());
            p.setBrush(inkOnSheet());
            p.drawEllipse(c, 4 * s, 4 * s);
            p.setBrush(t.sheet);
            p.drawEllipse(c, 2.4 * s, 2.4 * s);
        }
        QPen pencil(QColor("#5A665E"), 1.6);
        p.setPen(pencil);
        p.setBrush(Qt::NoBrush);
        p.drawPath(body(origin + s * QPointF(60, -143), 90 * s, 26 * s));
        p.drawPath(body(origin + s * QPointF(60, -82), 90 * s, 18 * s));
    } else {
        p.setPen(Qt::NoPen);
        p.setBrush(QColor("#B5AF9F"));
        p.drawPath(body(QPointF(sheet.left() + 0.15 * w, sheet.center().y()), 0.7 * w, 0.32 * h));
    }
    ink::text(p, QPointF(middle.x(), sheet.bottom() + 34),
              tracing
                  ? tr("Open a scan or a photo of the sheet, or drop it here.")
                  : tr("Open a photo of the body, seen from its left side on plain paper, or drop it here."),
              inter(13), t.muted, Qt::AlignHCenter);
    if (desk_.shown().error)
        ink::text(p, QPointF(middle.x(), sheet.bottom() + 58), said(*desk_.shown().error),
                  inter(12, QFont::Medium), t.fault, Qt::AlignHCenter);
}

void PicturePage::paintLine(QPainter& p, const QPolygonF& line, const QColor& colour, bool closed) {
    // A light line under a dark one: it is seen on any picture.
    for (const auto& [width, c] : {std::pair{3.4, QColor(255, 255, 255, 170)}, {1.5, colour}}) {
        p.setPen(QPen(c, width, Qt::SolidLine, Qt::FlatCap, Qt::BevelJoin));  // round joins cost most of it
        p.setBrush(Qt::NoBrush);
        closed ? p.drawPolygon(line) : p.drawPolyline(line);
    }
}

void PicturePage::paintTracing(QPainter& p) {
    const auto& reading = desk_.side().reading;
    if (!reading) return;
    const QColor blue("#1C6E9C");
    const auto onPicture = [&](const Vec2& mm) {
        return at(reading->page.view.pixelOf(mm / reading->scale));
    };
    for (const PointPair& mark : reading->page.marks) {
        const QPointF c = at(mark.to);
        const double r = 5.5 * reading->page.view.pixelsPerMm(mark.from) * scale_;
        paintLine(p, QPolygonF() << c - QPointF(r, 0) << c + QPointF(r, 0), blue, false);
        paintLine(p, QPolygonF() << c - QPointF(0, r) << c + QPointF(0, r), blue, false);
    }
    for (const auto& box : {reading->side, reading->top}) {
        if (!box) continue;
        paintLine(p, pointsApart(box->outline, onPicture), blue, true);
        for (const GuideLine& guide : box->guides) {
            paintLine(p, pointsApart(guide.points, onPicture), QColor("#8F5500"), guide.closed);
        }
    }
    for (const bool above : {false, true})
        if (has(above ? Grip::TopNose : Grip::Nose)) paintEnds(p, above);
}

void PicturePage::paintPhoto(QPainter& p) {
    const QColor blue("#1C6E9C"), brown("#8F5500");
    const auto& outline = desk_.shown().outline;
    paintDoubts(p);
    if (const auto& check = desk_.shown().check) {
        paintLine(p, pointsApart(check->body_px, [&](const Vec2& v) { return at(v); }), QColor("#A3263B"),
                  true);
        paintPlate(p, box_.topLeft() + QPointF(8, 28), tr("red: the body of this job; blue: this photo"));
        paintFarthest(p, *check);
    }
    if (outline) {
        paintLine(p, pointsApart(outline->outline_px, [&](const Vec2& v) { return at(v); }), blue, true);
        paintEnds(p, false);
    }
    if (desk_.photo().known && !desk_.showsAbove()) {
        const PhotoWish::Known k = scalePoints();
        paintLine(p, QPolygonF() << at(k.from_px) << at(k.to_px), brown, false);
        ink::diamond(p, at(k.from_px), 5.2, brown);
        ink::diamond(p, at(k.to_px), 5.2, brown);
    }
}

void PicturePage::mousePressEvent(QMouseEvent* event) {
    const QPointF where = event->position();
    if (desk_.shown().shown.isNull()) return emit pictureWanted(false);
    const auto near = [&](Grip g) { return QLineF(handle(g), where).length() < kHandle_px / zoom(); };
    const bool brush = desk_.tool() == BlankDesk::Tool::TakeOut || desk_.tool() == BlankDesk::Tool::PutIn;
    grip_ = Grip::None;
    for (const Grip g : kOrder)
        if (!brush && g != Grip::Brush && has(g) && near(g)) grip_ = g;
    if (brush && box_.contains(where)) {
        grip_ = Grip::Brush;
        stroke_ = Stroke2{{pixelAt(where)}, brush_px(), desk_.tool() == BlankDesk::Tool::PutIn};
    }
    if (grip_ != Grip::None) selected_ = grip_;
    if (grip_ == Grip::None && desk_.way() == BlankDesk::Way::Photo && box_.contains(where)) {
        if (desk_.tool() == BlankDesk::Tool::Coin)
            desk_.pickCoin(pixelAt(where));
        else
            desk_.putBackAt(pixelAt(where));
    }
    update();
}

void PicturePage::moveHandle(Grip grip, const Vec2& to, bool done) {
    if (grip == Grip::Nose || grip == Grip::Tail || grip == Grip::TopNose || grip == Grip::TopTail) {
        const bool above = grip == Grip::TopNose || grip == Grip::TopTail;
        auto ends = axis(above);
        (grip == Grip::Nose || grip == Grip::TopNose ? ends.first : ends.second) = to;
        draggedAxis_ = ends;
        draggedAbove_ = above;
        if (done) {
            desk_.setAxis(ends.first, ends.second, above);
            draggedAxis_.reset();
        }
    } else if (grip == Grip::ScaleFrom || grip == Grip::ScaleTo) {
        PhotoWish::Known known = scalePoints();
        (grip == Grip::ScaleFrom ? known.from_px : known.to_px) = to;
        draggedScale_ = known;
        if (done) {
            desk_.setKnown(known);
            draggedScale_.reset();
        }
    }
    update();
}

void PicturePage::mouseMoveEvent(QMouseEvent* event) {
    cursor_ = pixelAt(event->position());
    if (stroke_ && grip_ == Grip::Brush) stroke_->points.push_back(cursor_);
    if (grip_ != Grip::None && grip_ != Grip::Brush) moveHandle(grip_, cursor_, false);
    update();
}

void PicturePage::mouseReleaseEvent(QMouseEvent* event) {
    if (grip_ == Grip::Brush) endStroke();
    if (grip_ != Grip::None && grip_ != Grip::Brush) moveHandle(grip_, pixelAt(event->position()), true);
    grip_ = Grip::None;
}

void PicturePage::endStroke() {
    if (!stroke_) return;
    Stroke2 done = std::move(*stroke_);
    stroke_.reset();
    desk_.addStroke(std::move(done));
}

void PicturePage::keyPressEvent(QKeyEvent* event) {
    // In one piece: a table of keys.
    if (desk_.shown().shown.isNull()) {
        if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) return emit pictureWanted(false);
        return LeafPage::keyPressEvent(event);
    }
    const double step = event->modifiers() & Qt::ShiftModifier ? 10 : 1;
    Vec2 by = Vec2::Zero();
    switch (event->key()) {
        case Qt::Key_PageDown:
        case Qt::Key_PageUp: {
            // Two points are there for the asking on a photo, unless it is the one from above.
            const auto reachable = [&](Grip g) {
                const bool scale = g == Grip::ScaleFrom || g == Grip::ScaleTo;
                return has(g) || (scale && desk_.way() == BlankDesk::Way::Photo && !desk_.showsAbove());
            };
            constexpr std::size_t count = std::size(kOrder);
            auto found = static_cast<std::size_t>(std::find(std::begin(kOrder), std::end(kOrder), selected_) -
                                                  std::begin(kOrder));
            do found = (found + (event->key() == Qt::Key_PageDown ? 1 : count - 1)) % count;
            while (!reachable(kOrder[found]));
            selected_ = kOrder[found];
            if (selected_ == Grip::ScaleFrom || selected_ == Grip::ScaleTo)
                desk_.setTool(BlankDesk::Tool::Scale);
            if (selected_ == Grip::Brush) desk_.setTool(BlankDesk::Tool::TakeOut);
            if (selected_ < Grip::ScaleFrom) desk_.setTool(BlankDesk::Tool::Axis);
            return update();
        }
        case Qt::Key_Space:
            if (selected_ != Grip::Brush) return;
            if (stroke_) return endStroke();
            stroke_ = Stroke2{{cursor_}, brush_px(), desk_.tool() == BlankDesk::Tool::PutIn};
            return update();
        case Qt::Key_BracketLeft:
            return desk_.setBrush(desk_.brush() / 1.3);
        case Qt::Key_BracketRight:
            return desk_.setBrush(desk_.brush() * 1.3);
        case Qt::Key_Escape:
            stroke_.reset();
            draggedAxis_.reset();
            draggedScale_.reset();
            return update();
        case Qt::Key_Left:
            by = {-step, 0};
            break;
        case Qt::Key_Right:
            by = {step, 0};
            break;
        case Qt::Key_Up:
            by = {0, -step};
            break;
        case Qt::Key_Down:
            by = {0, step};
            break;
        default:
            return LeafPage::keyPressEvent(event);
    }
    if (selected_ == Grip::Brush) {
        cursor_ += by * std::max(1.0, 2 / (scale_ * zoom()));
        if (stroke_) stroke_->points.push_back(cursor_);
        return update();
    }
    if (has(selected_)) moveHandle(selected_, pixelAt(handle(selected_)) + by, true);
}

}  // namespace nine::app
