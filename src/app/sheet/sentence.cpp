#include "app/sheet/sentence.h"

#include <QFontMetrics>
#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPointer>
#include <QRegularExpression>
#include <QStyle>
#include <QWheelEvent>
#include <cmath>

#include "app/sheet/units_text.h"
#include "app/theme/theme.h"
#include "base/number_text.h"

namespace nine::app {

ValueChip::ValueChip(Kind kind, int decimals, double step, QWidget* parent)
    : QLineEdit(parent), kind_(kind), decimals_(decimals), step_(step) {
    setObjectName("chip");
    setAlignment(Qt::AlignHCenter);
    setFont(inter(13, QFont::DemiBold));
    setFixedHeight(21);
}

void ValueChip::setLarge() {
    setFont(inter(16, QFont::Bold));
    setFixedHeight(26);
}

void ValueChip::display(double value) {
    const QString text = kind_ == Kind::Count    ? QString::number(std::lround(value))
                         : kind_ == Kind::Number ? QString::number(value, 'f', decimals_)
                                                 : lengthNumber(value, decimals_);
    if (text != this->text()) setText(text);
    setFixedWidth(sizeHint().width());
}

void ValueChip::setValue(double value) {
    value_ = value;
    if (!hasFocus() || !isModified()) display(value);
}

void ValueChip::setWrong(const QString& why) {
    if (wrong_ == why) return;
    wrong_ = why;
    setProperty("wrong", !why.isEmpty());
    setToolTip(why);
    style()->unpolish(this);
    style()->polish(this);
    emit wrongChanged();
}

void ValueChip::setOwner(const std::string& id) {
    nextOwner_ = id;
    if (!isModified()) owner_ = id;
}

QSize ValueChip::sizeHint() const {
    return {QFontMetrics(font()).horizontalAdvance(text().isEmpty() ? "0" : text()) + 14, height()};
}

void ValueChip::commit() {
    constexpr double kMostCount = 1e6;
    const auto typed = kind_ == Kind::Length ? parseLength(text()) : parsePlain(text());
    if (!typed || (kind_ == Kind::Count && (*typed != std::round(*typed) || std::abs(*typed) > kMostCount))) {
        setWrong(
            kind_ == Kind::Count ? tr("\u201c%1\u201d is no whole number, such as 8.").arg(text())
            : kind_ == Kind::Number
                ? tr("\u201c%1\u201d is no number, such as 12 or 2.5.").arg(text())
                : tr("\u201c%1\u201d is no length, such as 2.4, 2.4 mm, 3/8 in or 1 1/2 in.").arg(text()));
        return;
    }
    const QPointer<ValueChip> alive(this);
    setWrong({});
    setModified(false);
    if (*typed != value_) emit committed(*typed);
    if (!alive) return;
    if (!wrong_.isEmpty()) return setModified(true);  // refused: what was typed stays, to be mended
    owner_ = nextOwner_;
    display(value_);
    emit finished();
}

void ValueChip::restore() {
    setWrong({});
    setModified(false);
    owner_ = nextOwner_;
    display(value_);
    emit finished();
}

void ValueChip::step(double by) {
    setModified(false);
    setWrong({});
    owner_ = nextOwner_;
    emit committed(value_ + by);
}

bool ValueChip::event(QEvent* event) {
    // Undo and redo belong to the job unless a half typed number could be meant.
    if (event->type() == QEvent::ShortcutOverride && !isModified()) {
        const auto* key = static_cast<QKeyEvent*>(event);
        const bool redo =
            key->key() == Qt::Key_Z && key->modifiers() == (Qt::ControlModifier | Qt::ShiftModifier);
        if (redo || key->matches(QKeySequence::Undo) || key->matches(QKeySequence::Redo)) {
            event->ignore();
            return true;
        }
    }
    return QLineEdit::event(event);
}

void ValueChip::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
        const QPointer<ValueChip> alive(this);
        commit();  // and nobody else's key
        if (alive && wrong_.isEmpty()) selectAll();
    } else if (event->key() == Qt::Key_Escape) {
        restore();
        selectAll();
    } else if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) {
        const double way = event->key() == Qt::Key_Up ? 1 : -1;
        step(way * (kind_ == Kind::Count ? 1 : event->modifiers() & Qt::ShiftModifier ? 10 * step_ : step_));
    } else {
        QLineEdit::keyPressEvent(event);
        setFixedWidth(sizeHint().width());
    }
}

void ValueChip::focusInEvent(QFocusEvent* event) {
    QLineEdit::focusInEvent(event);
    if (!isModified()) selectAll();
}

void ValueChip::focusOutEvent(QFocusEvent* event) {
    const QPointer<ValueChip> alive(this);
    if (isModified()) commit();
    if (!alive) return;
    QLineEdit::focusOutEvent(event);
    deselect();
    if (!isModified()) emit finished();
}

void ValueChip::mousePressEvent(QMouseEvent* event) {
    QLineEdit::mousePressEvent(event);
    if (!isModified()) selectAll();
}

void ValueChip::mouseDoubleClickEvent(QMouseEvent*) {
    selectAll();
}

void ValueChip::wheelEvent(QWheelEvent* event) {
    if (!hasFocus()) {
        event->ignore();
        return;
    }
    step((event->angleDelta().y() > 0 ? 1 : -1) * (kind_ == Kind::Count ? 1 : step_));
    event->accept();
}

FlowLayout::FlowLayout(QWidget* parent, int lineStep) : QLayout(parent), lineStep_(lineStep) {
    setContentsMargins(0, 0, 0, 0);
}

FlowLayout::~FlowLayout() {
    qDeleteAll(items_);
}

void FlowLayout::setGeometry(const QRect& rect) {
    QLayout::setGeometry(rect);
    arrange(rect, true);
}

int FlowLayout::arrange(const QRect& rect, bool apply) const {
    constexpr int space = 4;
    int x = rect.x(), y = rect.y();
    for (QLayoutItem* item : items_) {
        const QSize size = item->sizeHint();
        const bool gluesLeft = item->widget() && item->widget()->property("glue").toBool();
        if (gluesLeft && x > rect.x()) x -= space;
        if (x + size.width() > rect.x() + rect.width() && x > rect.x() && !gluesLeft) {
            x = rect.x();
            y += lineStep_;
        }
        if (apply)
            item->setGeometry(QRect(x, y + (lineStep_ - size.height()) / 2, size.width(), size.height()));
        x += size.width() + space;
    }
    return y + lineStep_ - rect.y();
}

Sentence::Sentence(const QString& words, const QList<QWidget*>& values, QWidget* parent) : QWidget(parent) {
    auto* flow = new FlowLayout(this);
    QSizePolicy policy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
    static const QRegularExpression token("(%\\d)|(\\S+?)(?=\\s|%\\d|$)");
    bool spaceBefore = true;
    int end = 0;
    for (auto it = token.globalMatch(words); it.hasNext();) {
        const QRegularExpressionMatch match = it.next();
        spaceBefore = match.capturedStart() > end || end == 0;
        end = match.capturedEnd();
        QWidget* piece = nullptr;
        if (!match.captured(1).isEmpty()) {
            piece = values.value(match.captured(1).mid(1).toInt() - 1);
            if (!piece) continue;
            piece->setParent(this);
        } else {
            auto* label = new QLabel(match.captured(2), this);
            label->setFont(inter(12.5));
            label->setStyleSheet("font-size: 13px");
            piece = label;
        }
        piece->setProperty("glue", !spaceBefore);
        flow->addWidget(piece);
    }
}

}  // namespace nine::app
