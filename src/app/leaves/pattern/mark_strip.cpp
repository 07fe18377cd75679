#include "app/leaves/pattern/mark_strip.h"

#include <QCoreApplication>
#include <algorithm>

#include "app/sheet/ink.h"
#include "app/sheet/names.h"

namespace nine::app {
namespace {

constexpr double kGap_px = 6, kWords_px = 20;

QFont familyFont(bool on) {
    return inter(11.5, on ? QFont::Bold : QFont::Normal);
}

}  // namespace

std::vector<Family> families() {
    std::vector<Family> all;
    for (const Kind* kind : kinds())
        if (std::find(all.begin(), all.end(), kind->family()) == all.end()) all.push_back(kind->family());
    return all;
}

std::vector<const Kind*> MarkStrip::shown() const {
    std::vector<const Kind*> all;
    for (const Kind* kind : kinds())
        if (kind->family() == family_) all.push_back(kind);
    return all;
}

QRectF MarkStrip::familyBox(Family family) const {
    double x = box_.left(), y = box_.top();
    for (const Family f : families()) {
        const double w = ink::widthOf(said(nameOf(f)), familyFont(true)) + 13;
        if (x > box_.left() && x + w - 13 > box_.right()) {  // words flow
            x = box_.left();
            y += kWords_px;
        }
        if (f == family) return {x, y, w, kWords_px};
        x += w;
    }
    return {};
}

double MarkStrip::high() const {
    return familyBox(families().back()).bottom() - box_.top() + MarkPictures::kSize.height() + 14;
}

QRectF MarkStrip::tile(const Kind& kind) const {
    double x = box_.left();
    for (const Kind* k : shown()) {
        if (k == &kind)
            return {x, box_.top() + high() - MarkPictures::kSize.height() - 10,
                    MarkPictures::kSize.width() + 8.0, MarkPictures::kSize.height() + 6.0};
        x += MarkPictures::kSize.width() + 8 + kGap_px;
    }
    return {};
}

const Kind* MarkStrip::kindAt(const QPointF& at) const {
    for (const Kind* kind : shown())
        if (tile(*kind).contains(at)) return kind;
    return nullptr;
}

void MarkStrip::take(const Kind* kind) {
    inHand_ = kind;
    if (kind) family_ = kind->family();
}

bool MarkStrip::press(const QPointF& at) {
    if (!QRectF(box_.topLeft(), QSizeF(box_.width(), high())).contains(at)) return false;
    for (const Family f : families())
        if (familyBox(f).contains(at)) {
            family_ = f;
            inHand_ = nullptr;
            return true;
        }
    const Kind* kind = kindAt(at);
    inHand_ = kind == inHand_ ? nullptr : kind;
    return kind != nullptr;
}

bool MarkStrip::hover(const QPointF& at) {
    const Kind* now = kindAt(at);
    return std::exchange(under_, now) != now;
}

void MarkStrip::paint(QPainter& p) const {
    const Tokens& t = tokens();
    for (const Family f : families()) {
        const QRectF box = familyBox(f);
        const bool on = f == family_;
        ink::text(p, QPointF(box.left(), box.top() + 13), said(nameOf(f)), familyFont(on),
                  on ? t.ink : t.muted);
        if (!on) continue;
        p.setPen(QPen(t.accent, 2));
        p.drawLine(QPointF(box.left(), box.bottom() - 1), QPointF(box.right() - 13, box.bottom() - 1));
    }
    double right = box_.left();
    for (const Kind* kind : shown()) {
        const QRectF box = tile(*kind);
        right = box.right();
        const bool inHand = kind == inHand_;
        p.setPen(QPen(inHand ? t.select : t.line, inHand ? 1.6 : 1));
        p.setBrush(kind == under_ || inHand ? t.sheet : t.panel);
        p.drawRoundedRect(box, 5, 5);
        const QImage picture = pictures_.of(*kind, t.ink);
        if (!picture.isNull()) p.drawImage(box.topLeft() + QPointF(4, 3), picture);
    }
    const Kind* told = under_ ? under_ : inHand_;
    const QString words =
        !told ? QCoreApplication::translate("MarkStrip", "click a mark, then the body")
        : told == inHand_ && told != under_
            ? QCoreApplication::translate("MarkStrip", "%1: click where it is to start; Esc puts it back")
                  .arg(said(told->name()))
        : told->isCut()
            ? said(told->name())
            : QCoreApplication::translate("MarkStrip", "%1 (sprayed, never cut)").arg(said(told->name()));
    const double room = box_.right() - right - 14;
    const QFont f = inter(11);
    ink::text(p, QPointF(right + 14, box_.top() + high() - 20),
              QFontMetricsF(f).elidedText(words, Qt::ElideRight, room), f, t.muted);
}

}  // namespace nine::app
