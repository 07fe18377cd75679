#include "app/frame/tell_tale.h"

#include <QFontMetricsF>
#include <QMouseEvent>
#include <QPainter>

namespace nine::app {

TellTale::TellTale(QWidget* parent)
    : QWidget(parent), repair_(new QPushButton(this)), cancel_(new QPushButton(tr("stop"), this)) {
    setFixedHeight(30);
    setAttribute(Qt::WA_OpaquePaintEvent);
    repair_->setObjectName("link");
    repair_->hide();
    cancel_->setObjectName("link");
    cancel_->setToolTip(tr("Stop working out the masks"));
    cancel_->hide();
    connect(repair_, &QPushButton::clicked, this, [this] {
        if (notice_.isEmpty()) return emit repairWanted(verdict_.leaf);
        const std::function<void()> act = noticeAct_;
        setNotice({});
        if (act) act();
    });
    connect(cancel_, &QPushButton::clicked, this, &TellTale::cancelWanted);
}

void TellTale::setVerdict(const Verdict& verdict) {
    if (verdict == verdict_) return;
    verdict_ = verdict;
    if (notice_.isEmpty()) setAccessibleName(verdict.sentence);
    setToolTip(verdict.figures);
    if (notice_.isEmpty()) {
        repair_->setText(verdict.repair);
        repair_->setVisible(!verdict.repair.isEmpty());
    }
    resizeEvent(nullptr);
    update();
}

void TellTale::setNotice(const QString& sentence, const QString& action, std::function<void()> act) {
    notice_ = sentence;
    noticeAct_ = std::move(act);
    setAccessibleName(notice_.isEmpty() ? verdict_.sentence : notice_);
    repair_->setText(notice_.isEmpty() ? verdict_.repair : action);
    repair_->setVisible(!repair_->text().isEmpty());
    resizeEvent(nullptr);
    update();
}

void TellTale::setRunning(const QString& what, double share) {
    if (running_ == what && share_ == share) return;
    running_ = what;
    share_ = share;
    cancel_->setVisible(share < 1);
    update();
}

void TellTale::resizeEvent(QResizeEvent*) {
    const QFontMetricsF metrics(inter(12, QFont::DemiBold));
    const QString shown = !notice_.isEmpty() ? notice_ : unfolded_ ? verdict_.figures : verdict_.sentence;
    const double x = 42 + std::min(metrics.horizontalAdvance(shown), width() - 420.0) + 14;
    repair_->adjustSize();
    repair_->move(static_cast<int>(x), (height() - repair_->height()) / 2);
    cancel_->adjustSize();
    cancel_->move(width() - cancel_->width() - 14, (height() - cancel_->height()) / 2);
}

void TellTale::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.panel);
    p.setPen(QPen(t.line, 1));
    p.drawLine(QPointF(0, 0.5), QPointF(width(), 0.5));
    if (!notice_.isEmpty()) {
        if (!noticeAct_) ink::flagShape(p, QPointF(18, 7), ink::Severity::Caution, "");
        const QFont f = inter(12, QFont::DemiBold);
        ink::text(p, QPointF(42, 19.5),
                  QFontMetricsF(f).elidedText(notice_, Qt::ElideMiddle, width() - 420.0), f,
                  noticeAct_ ? t.ink : t.caution);
        ink::text(p, QPointF(width() - 16.0, 19.5), tr("click to put this away"), inter(11), t.muted,
                  Qt::AlignRight);
        return;
    }
    if (verdict_.kind == Verdict::Kind::Fine) ink::tick(p, QPointF(26, 15));
    if (verdict_.kind == Verdict::Kind::Caution)
        ink::flagShape(p, QPointF(18, 7), ink::Severity::Caution, "");
    if (verdict_.kind == Verdict::Kind::Fault) ink::flagShape(p, QPointF(18, 7), ink::Severity::Fault, "");
    const QFont f = inter(12, QFont::DemiBold);
    const QString shown = unfolded_ ? verdict_.figures : verdict_.sentence;
    const QString fitting = QFontMetricsF(f).elidedText(shown, Qt::ElideRight, width() - 420.0);
    ink::text(p, QPointF(42, 19.5), fitting, f, t.ink);
    const double right = width() - 16 - (cancel_->isVisible() ? cancel_->width() + 8 : 0);
    if (share_ < 1) {
        const QRectF bar(right - 90, 14, 90, 3.5);
        p.setPen(Qt::NoPen);
        p.setBrush(t.line);
        p.drawRoundedRect(bar, 1.7, 1.7);
        p.setBrush(t.accent);
        p.drawRoundedRect(QRectF(bar.left(), bar.top(), std::max(4.0, bar.width() * share_), bar.height()),
                          1.7, 1.7);
        ink::text(p, QPointF(bar.left() - 10, 19.5), running_, inter(12), t.muted, Qt::AlignRight);
    } else {
        ink::text(p, QPointF(right, 19.5), running_, inter(12), t.muted, Qt::AlignRight);
    }
}

void TellTale::mousePressEvent(QMouseEvent* event) {
    if (!notice_.isEmpty()) {
        setNotice({});
    } else if (event->position().x() < 36 && !verdict_.figures.isEmpty()) {
        unfolded_ = !unfolded_;
        resizeEvent(nullptr);
        update();
    } else if (event->position().x() < repair_->x() && verdict_.leaf >= 0) {
        emit causeWanted(verdict_.leaf);
    }
}

}  // namespace nine::app
