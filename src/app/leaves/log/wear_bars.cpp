#include "app/leaves/log/wear_bars.h"

#include <QCoreApplication>
#include <QPainter>
#include <algorithm>

#include "app/leaves/log/log_leaf.h"
#include "app/sheet/ink.h"

namespace nine::app {
namespace {

constexpr int kHigh = 32;

QString countText(const Wear& w) {
    if (w.life > 0) return LogLeaf::tr("%1 of %2").arg(w.uses).arg(w.life);
    return w.uses == 1 ? LogLeaf::tr("one use") : LogLeaf::tr("%1 uses").arg(w.uses);
}
QString remarkText(const Wear& w) {
    if (w.worn()) return LogLeaf::tr("cut a new one");
    if (w.soon()) return w.left() == 1 ? LogLeaf::tr("last use next") : LogLeaf::tr("%1 left").arg(w.left());
    if (w.wider_mm > 0.005) return LogLeaf::tr("holes %1 mm wider").arg(w.wider_mm, 0, 'f', 2);
    if (w.perUse >= 0) return LogLeaf::tr("%1 a use").arg(w.perUse, 0, 'f', 2);
    return {};
}

}  // namespace

WearBars::WearBars(std::vector<Wear> wear) : wear_(std::move(wear)) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    setMinimumHeight(sizeHint().height());
    QStringList spoken;
    for (const Wear& w : wear_)
        spoken << QString::fromStdString(w.name) + " " + countText(w) + " " + remarkText(w);
    setAccessibleName(spoken.join(", "));
}

QSize WearBars::sizeHint() const {
    return {200, static_cast<int>(wear_.size()) * kHigh};
}

void WearBars::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    for (std::size_t i = 0; i < wear_.size(); ++i) {
        const Wear& w = wear_[i];
        const double y = static_cast<double>(i) * kHigh + 14;
        const QString count = countText(w), remark = remarkText(w);
        const double countWide = ink::widthOf(count, inter(11.5, QFont::DemiBold)),
                     remarkWide = ink::widthOf(remark, inter(11));
        const double room = width() - countWide - (remark.isEmpty() ? 0 : remarkWide + 8) - 14;
        const QString name =
            QFontMetricsF(inter(11.5)).elidedText(QString::fromStdString(w.name), Qt::ElideRight, room);
        ink::text(p, {0, y}, name, inter(11.5), tokens().ink);
        const bool warn = w.worn() || w.soon();
        if (!remark.isEmpty())
            ink::text(p, {ink::widthOf(name, inter(11.5)) + 8, y}, remark, inter(11),
                      warn ? tokens().caution : tokens().muted);
        ink::text(p, {width() - 1.0, y}, count, inter(11.5, QFont::DemiBold), tokens().ink, Qt::AlignRight);
        p.setPen(Qt::NoPen);
        p.setBrush(tokens().deep);
        p.drawRoundedRect(QRectF(0, y + 5, width(), 5), 2.5, 2.5);
        if (w.life <= 0) continue;
        p.setBrush(warn ? tokens().caution : tokens().accent);
        p.drawRoundedRect(QRectF(0, y + 5, width() * std::min(1.0, static_cast<double>(w.uses) / w.life), 5),
                          2.5, 2.5);
    }
}

}  // namespace nine::app
