#include "app/leaves/bench/cup_bars.h"

#include <QPainter>
#include <algorithm>

#include "app/sheet/ink.h"

namespace nine::app {
namespace {

constexpr int kRow = 21;

}  // namespace

CupBars::CupBars(std::vector<CupBar> bars) : bars_(std::move(bars)) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    setMinimumHeight(sizeHint().height());
    QStringList spoken;
    for (const CupBar& bar : bars_) spoken << QString("%1 %2 ml").arg(bar.name).arg(bar.ml, 0, 'f', 1);
    setAccessibleName(spoken.join(", "));
}

QSize CupBars::sizeHint() const {
    return {200, static_cast<int>(bars_.size()) * kRow};
}

void CupBars::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    double most = 0;
    for (const CupBar& bar : bars_) most = std::max(most, bar.ml);
    const double longest = 0.42 * width();
    for (std::size_t i = 0; i < bars_.size(); ++i) {
        const double y = static_cast<double>(i) * kRow + 3;
        const QRectF box(1, y, std::max(6.0, longest * bars_[i].ml / most), kRow - 7);
        p.setPen(QPen(tokens().ink, 0.8));
        p.setBrush(bars_[i].colour);
        p.drawRoundedRect(box, 3, 3);
        const double room = width() - box.right() - 52;
        ink::text(p, {box.right() + 8, y + 11},
                  QFontMetricsF(inter(11.5)).elidedText(bars_[i].name, Qt::ElideRight, room), inter(11.5),
                  tokens().ink);
        ink::text(p, {width() - 2.0, y + 11}, QString::number(bars_[i].ml, 'f', 1),
                  inter(11.5, QFont::DemiBold), tokens().ink, Qt::AlignRight);
    }
}

}  // namespace nine::app
