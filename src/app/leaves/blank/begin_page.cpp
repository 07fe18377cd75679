#include "app/leaves/blank/begin_page.h"

#include <QFileInfo>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

#include "app/document/safekeeping.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "blank/measure.h"

namespace nine::app {
namespace {

/// The shape of a kind without any reading, for its tile.
StationTable usualShape(std::string_view id) {
    FamilyReadings r;
    r.length_mm = 100;
    const Result<FamilyBody> body = bodyOfFamily(id, r);
    return body ? body->table : StationTable{};
}

void paintTracingArt(QPainter& p, const QRectF& box) {
    const Tokens& t = tokens();
    p.setPen(QPen(t.muted, 1));
    p.setBrush(t.sheet);
    p.drawRect(box);
    for (const QPointF& c :
         {box.topLeft() + QPointF(9, 9), box.topRight() + QPointF(-9, 9), box.bottomLeft() + QPointF(9, -9),
          box.bottomRight() + QPointF(-9, -9), QPointF(box.left() + 0.36 * box.width(), box.top() + 9)}) {
        p.setPen(QPen(t.dark ? inkOnSheet() : t.ink, 2));
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(c, 3.6, 3.6);
    }
    const QRectF body =
        box.adjusted(0.18 * box.width(), 0.2 * box.height(), -0.2 * box.width(), -0.2 * box.height());
    p.setPen(QPen(t.dark ? inkOnSheet() : t.ink, 1.8));
    QPainterPath path(QPointF(body.left(), body.center().y()));
    path.cubicTo(QPointF(body.left(), body.top() - 4), QPointF(body.center().x(), body.top() - 8),
                 QPointF(body.right(), body.center().y()));
    path.cubicTo(QPointF(body.center().x(), body.bottom() + 10), QPointF(body.left(), body.bottom() + 6),
                 QPointF(body.left(), body.center().y()));
    p.drawPath(path);
    // The pencil.
    const QPointF tip(body.right() - 0.2 * body.width(), body.top() + 0.12 * body.height());
    p.setPen(QPen(t.accent, 5, Qt::SolidLine, Qt::RoundCap));
    p.drawLine(tip + QPointF(5, -5), tip + QPointF(26, -26));
    p.setPen(QPen(t.dark ? inkOnSheet() : t.ink, 1.6));
    p.drawLine(tip, tip + QPointF(5, -5));
}

void paintPhotoArt(QPainter& p, const QRectF& box) {
    const Tokens& t = tokens();
    p.setPen(QPen(t.muted, 1));
    p.setBrush(t.sheet);
    p.drawRect(box);
    const QRectF body =
        box.adjusted(0.18 * box.width(), 0.24 * box.height(), -0.18 * box.width(), -0.3 * box.height());
    QPainterPath path(QPointF(body.left(), body.center().y()));
    path.cubicTo(QPointF(body.left(), body.top() - 4), QPointF(body.center().x(), body.top() - 8),
                 QPointF(body.right(), body.center().y()));
    path.cubicTo(QPointF(body.center().x(), body.bottom() + 10), QPointF(body.left(), body.bottom() + 6),
                 QPointF(body.left(), body.center().y()));
    p.setPen(Qt::NoPen);
    p.setBrush(QColor("#B5AF9F"));
    p.drawPath(path);
    p.setPen(QPen(t.select, 1.2));
    const double y = box.bottom() - 12;
    p.drawLine(QPointF(body.left(), y), QPointF(body.right(), y));
    for (const double x : {body.left(), body.right()}) p.drawLine(QPointF(x, y - 5), QPointF(x, y + 5));
    p.setPen(QPen(t.dark ? inkOnSheet() : t.ink, 2));
    for (const auto& [corner, dx, dy] : {std::tuple{box.topLeft(), 1, 1},
                                         {box.topRight(), -1, 1},
                                         {box.bottomLeft(), 1, -1},
                                         {box.bottomRight(), -1, -1}}) {
        const QPointF c = corner + QPointF(6 * dx, 6 * dy);
        p.drawLine(c, c + QPointF(10 * dx, 0));
        p.drawLine(c, c + QPointF(0, 10 * dy));
    }
}

}  // namespace

void paintOutline(QPainter& p, const QRectF& box, const StationTable& table, const Landmarks& landmarks,
                  bool points) {
    // In one piece: one drawing; its parts share the scale.
    const Result<Skin> skin = Skin::of(table);
    if (!skin) return;
    const Tokens& t = tokens();
    double top = 0, bottom = 0, half = 0;
    for (const Station& s : table.stations) {
        top = std::max(top, s.top_mm);
        bottom = std::max(bottom, s.bottom_mm);
        half = std::max(half, s.halfWidth_mm);
    }
    // The bill needs room before and below the nose.
    double before = 0, below = 0;
    const auto bill = landmarks.find("bill_slot");
    const bool hasBill = bill != landmarks.end() && bill->second.length_mm > 0;
    const double slant = hasBill ? bill->second.angle_deg * M_PI / 180 : 0;
    if (hasBill) {
        before = std::max(0.0, bill->second.length_mm * std::cos(slant) -
                                   (bill->second.points.front().x() - skin->noseX_mm()));
        below = std::max(0.0, 0.8 * bottom + bill->second.length_mm * std::sin(slant) - bottom);
    }
    const double gap = points ? 6 : 0, tall = top + bottom + below + (points ? gap + 2 * half : 0);
    const double scale = std::min(box.width() / (skin->length_mm() + before), box.height() / tall);
    const double left = box.center().x() - 0.5 * scale * (skin->length_mm() + before) + scale * before;
    const double upper0 = box.center().y() - 0.5 * scale * tall;
    const QPointF nose(left, upper0 + scale * top),
        noseAbove(left, upper0 + scale * (top + bottom + below + gap + half));
    const auto at = [&](double x, double z) { return nose + scale * QPointF(x - skin->noseX_mm(), -z); };
    const auto atAbove = [&](double x, double y) {
        return noseAbove + scale * QPointF(x - skin->noseX_mm(), -y);
    };
    QPolygonF line, above;
    for (const Vec2& v : bodyOutline(*skin, false)) line << at(v.x(), v.y());
    for (const Vec2& v : bodyOutline(*skin, true)) above << atAbove(v.x(), v.y());
    if (hasBill) {
        const double x = bill->second.points.front().x();
        const QPointF root = at(x + 2, -0.75 * skin->loft().sectionAt(x).bottom_mm);
        const QPointF tip =
            root + scale * (bill->second.length_mm + 2) * QPointF(-std::cos(slant), std::sin(slant));
        p.setPen(QPen(t.ink, std::max(3.0, 1.6 * scale), Qt::SolidLine, Qt::FlatCap));
        p.drawLine(root, tip);
        p.setPen(QPen(t.glass, std::max(1.5, 1.6 * scale - 1.5), Qt::SolidLine, Qt::FlatCap));
        p.drawLine(root, tip);
    }
    p.setPen(QPen(t.ink, 1.4));
    p.setBrush(t.dark ? QColor("#4b4a42") : QColor("#D9D5C8"));
    p.drawPolygon(line);
    if (points) p.drawPolygon(above);
    const auto eye = landmarks.find("eye");
    if (eye != landmarks.end()) {
        const SurfacePoint on =
            skin->at({Side::Left, eye->second.points.front().x(), eye->second.points.front().y()});
        const double r = 0.5 * scale * eye->second.diameter_mm;
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(at(on.position.x(), on.position.z()), r, r);
    }
    if (!points) return;
    const auto pair = [&](const QPointF& a, const QPointF& b, bool assumed) {
        QPen pen(assumed ? t.muted : t.select, assumed ? 0.8 : 1.4);
        if (assumed) pen.setDashPattern({2, 3});
        p.setPen(pen);
        p.drawLine(a, b);
        for (const QPointF& c : {a, b}) {
            if (!assumed) {
                ink::stationPoint(p, c, true);
                continue;
            }
            p.setPen(QPen(t.ink, 1.1));
            p.setBrush(t.paper);
            p.drawEllipse(c, 3.6, 3.6);
        }
    };
    for (const Station& s : table.stations) {
        if (s.halfWidth_mm == 0) continue;
        pair(at(s.x_mm, s.top_mm), at(s.x_mm, -s.bottom_mm),
             (s.assumed & (kAssumedTop | kAssumedBottom)) != 0);
        pair(atAbove(s.x_mm, s.halfWidth_mm), atAbove(s.x_mm, -s.halfWidth_mm),
             (s.assumed & kAssumedWidth) != 0);
    }
    const double y = at(0, top).y() - 18;
    ink::dimension(p, QPointF(at(skin->noseX_mm(), 0).x(), y), QPointF(at(skin->tailX_mm(), 0).x(), y),
                   lengthText(skin->length_mm()));
}

Tile::Tile(const QString& title, const QString& words, Art art, QWidget* parent)
    : QAbstractButton(parent), words_(words), art_(std::move(art)) {
    setText(title);
    setAccessibleName(title);
    setAccessibleDescription(words);
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
}

void Tile::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    const QRectF frame = QRectF(rect()).adjusted(1, 1, -1, -1);
    const bool on = isChecked();
    p.setPen(QPen(on || hasFocus() ? t.accent : underMouse() ? t.ink : t.line, on || hasFocus() ? 2 : 1));
    p.setBrush(underMouse() || on ? t.sheet : t.paper);
    if (t.dark) p.setBrush(underMouse() || on ? t.deep : t.paper);
    p.drawRoundedRect(frame, 6, 6);
    const bool tall = height() > 130;
    const double textTop = words_.isEmpty() ? height() - 12.0 : height() - 30.0;
    if (art_) {
        const QRectF box =
            tall ? frame.adjusted(24, 18, -24, -(height() - textTop) - 22) : frame.adjusted(10, 8, -10, -26);
        p.save();
        art_(p, box);
        p.restore();
    }
    if (tall || words_.isEmpty()) {
        ink::text(p, QPointF(0.5 * width(), textTop), text(), inter(words_.isEmpty() ? 11 : 15, QFont::Bold),
                  t.ink, Qt::AlignHCenter);
        if (!words_.isEmpty())
            ink::text(p, QPointF(0.5 * width(), textTop + 19), words_, inter(12), t.muted, Qt::AlignHCenter);
    } else {
        ink::text(p, QPointF(14, 23), text(), inter(13, QFont::Bold), t.ink);
        ink::text(p, QPointF(14, 41), words_, inter(11.5), t.muted);
    }
}

BeginPage::BeginPage(QWidget* parent) : QWidget(parent) {
    const auto tile = [&](std::vector<Tile*>& group, const QString& title, const QString& words,
                          Tile::Art art, auto signal) {
        auto* t = new Tile(title, words, std::move(art), this);
        connect(t, &Tile::clicked, this, signal);
        group.push_back(t);
    };
    tile(large_, tr("Trace it"), tr("a pencil, the printed sheet, a scan or phone photo"), paintTracingArt,
         &BeginPage::tracingWanted);
    tile(large_, tr("Photograph it"), tr("on plain paper, with its length or a ruler"), paintPhotoArt,
         &BeginPage::photoWanted);
    tile(small_, tr("Kind and readings"), tr("length, height, width; more where you measured"), {},
         &BeginPage::kindWanted);
    tile(small_, tr("From my blanks"), tr("one that is in the library"), {}, &BeginPage::libraryWanted);
    tile(small_, tr("Open a file"), tr("a job, or a table of stations"), {}, &BeginPage::openWanted);
    tile(small_, tr("The demo"), tr("Sedge 60 wears Brook char"), {}, &BeginPage::demoWanted);
}

void BeginPage::resizeEvent(QResizeEvent*) {
    const double w = std::min(760.0, width() - 60.0), left = 0.5 * (width() - w), top = 0.14 * height() + 56;
    const double half = 0.5 * (w - 20), tall = std::clamp(0.38 * height(), 190.0, 300.0);
    for (std::size_t i = 0; i < large_.size(); ++i)
        large_[i]->setGeometry(QRectF(left + static_cast<double>(i) * (half + 20), top, half, tall).toRect());
    for (std::size_t i = 0; i < small_.size(); ++i)
        small_[i]->setGeometry(QRectF(left + static_cast<double>(i % 2) * (half + 20),
                                      top + tall + 20 + static_cast<double>(i / 2) * 66, half, 54)
                                   .toRect());
    double x = left + ink::widthOf(tr("Worked on last:"), inter(12)) + 10;
    for (QPushButton* b : recent_) {
        b->adjustSize();
        b->move(static_cast<int>(x), small_.back()->geometry().bottom() + 38);
        x += b->width() + 8;
        b->setVisible(x < left + w);
    }
}

void BeginPage::showEvent(QShowEvent* event) {
    constexpr qsizetype kShown = 4;
    for (QPushButton* b : recent_) delete b;
    recent_.clear();
    for (const QString& file : Safekeeping::recentFiles().mid(0, kShown)) {
        QString name = QFileInfo(file).fileName();
        if (name.endsWith(".nineleaves.json")) name.chop(static_cast<int>(qstrlen(".nineleaves.json")));
        auto* b = new QPushButton(QFontMetrics(font()).elidedText(name, Qt::ElideMiddle, 160), this);
        b->setObjectName("link");
        b->setToolTip(file);
        b->setAccessibleName(tr("Open %1").arg(name));
        connect(b, &QPushButton::clicked, this, [this, file] { emit recentWanted(file); });
        b->show();
        recent_.push_back(b);
    }
    resizeEvent(nullptr);
    QWidget::showEvent(event);
}

void BeginPage::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    const double left = large_.front()->x(), top = large_.front()->y();
    ink::text(p, QPointF(left, top - 44), tr("What shape is this body?"), inter(24, QFont::Bold), t.ink);
    ink::text(p, QPointF(left, top - 18),
              tr("Every mask is fitted to the blank it is made for. Ten minutes with a pencil are enough."),
              inter(13), t.muted);
    ink::text(p, QPointF(left, small_.back()->geometry().bottom() + 28),
              tr("Or drop a picture, a job or a table on the window."), inter(12), t.muted);
    if (!recent_.empty())
        ink::text(p, QPointF(left, recent_.front()->geometry().center().y() + 5), tr("Worked on last:"),
                  inter(12), t.muted);
}

KindPage::KindPage(BlankDesk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setAccessibleName(tr("Kinds of bodies"));
    for (const BodyFamily& family : bodyFamilies()) {
        auto* t = new Tile(
            said(family.name), {},
            [shape = usualShape(family.id)](QPainter& p, const QRectF& box) {
                paintOutline(p, box, shape, {}, false);
            },
            this);
        t->setCheckable(true);
        connect(t, &Tile::clicked, this, [this, id = std::string(family.id)] { desk_.setFamily(id); });
        kinds_.push_back(t);
    }
    connect(&desk_, &BlankDesk::changed, this, [this] {
        for (std::size_t i = 0; i < kinds_.size(); ++i)
            kinds_[i]->setChecked(bodyFamilies()[i].id == desk_.family());
        update();
    });
}

void KindPage::resizeEvent(QResizeEvent*) {
    const double w = (width() - 36.0 - 3 * 10) / 4;
    for (std::size_t i = 0; i < kinds_.size(); ++i)
        kinds_[i]->setGeometry(
            QRectF(18 + static_cast<double>(i % 4) * (w + 10), 44 + static_cast<double>(i / 4) * 112, w, 104)
                .toRect());
}

void KindPage::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    ink::heading(p, QPointF(18, 26), tr("Which kind is it?"),
                 tr("its shape is the start, your readings pull it to what it is"));
    const QRectF room(60, 44 + 2 * 112 + 40, width() - 120.0, height() - (44 + 2 * 112 + 40) - 60.0);
    const Result<FamilyBody> body = desk_.familyBody();
    if (body) {
        paintOutline(p, room, body->table, body->landmarks, true);
        ink::text(p, QPointF(18, height() - 18.0), tr("filled points are measured, hollow ones assumed"),
                  inter(11), t.muted);
        return;
    }
    const BodyFamily* family = findFamily(desk_.family());
    if (!family) return;
    p.setOpacity(0.45);
    paintOutline(p, room, usualShape(family->id), {}, false);
    p.setOpacity(1);
    const bool nothing = desk_.readings().length_mm <= 0;
    ink::text(p, room.center(),
              nothing ? tr("%1: type its length on the right").arg(said(family->about)) : said(body.error()),
              inter(13), nothing ? t.muted : t.fault, Qt::AlignHCenter);
}

}  // namespace nine::app
