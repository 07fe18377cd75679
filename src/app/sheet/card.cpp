#include "app/sheet/card.h"

#include <QEvent>
#include <QHash>
#include <QLineEdit>
#include <QMenu>
#include <QTimer>

#include "app/theme/theme.h"

namespace nine::app {
namespace {

QString coloured(const QColor& colour) {
    return "color: " + colour.name();
}

}  // namespace

namespace {

/// A label that remembers how high it is at a width: layouts ask often, and words take long to be broken.
class WrappedLabel : public QLabel {
  public:
    using QLabel::QLabel;
    int heightForWidth(int width) const override {
        if (text() != measured_) {
            heights_.clear();
            measured_ = text();
        }
        const auto known = heights_.constFind(width);
        if (known != heights_.constEnd()) return *known;
        return *heights_.insert(width, QLabel::heightForWidth(width));
    }

  protected:
    void changeEvent(QEvent* event) override {
        heights_.clear();  // another font or style
        QLabel::changeEvent(event);
    }

  private:
    mutable QString measured_;
    mutable QHash<int, int> heights_;
};

}  // namespace

CardHolder::CardHolder() {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(16, 14, 16, 12);
}

void CardHolder::show(QWidget* card) {
    QWidget* focused = shown_ ? shown_->focusWidget() : nullptr;
    const bool had = focused && focused->hasFocus() && shown_->isAncestorOf(focused);
    QWidget* heir = nullptr;
    if (had && !focused->accessibleName().isEmpty()) {
        for (QWidget* w : card->findChildren<QWidget*>())
            if (w->accessibleName() == focused->accessibleName() && w->metaObject() == focused->metaObject() &&
                w->property(kOwner) == focused->property(kOwner))
                heir = w;
    }
    auto* typed = qobject_cast<QLineEdit*>(focused);
    auto* next = qobject_cast<QLineEdit*>(heir);
    if (next && typed->isModified()) {
        next->setText(typed->text());
        next->setCursorPosition(typed->cursorPosition());
        next->setModified(true);
        typed->setModified(false);  // it is not taken where it was
    }
    if (shown_) {
        layout()->removeWidget(shown_);
        shown_->hide();
        shown_->deleteLater();
    }
    shown_ = card;
    layout()->addWidget(card);
    if (heir) {
        card->show();
        heir->setFocus();
        if (next && !next->isModified()) next->selectAll();
    }
    // Sizes are right once the style sheet has reached the new widgets.
    QTimer::singleShot(0, card, [this] {
        layout()->invalidate();
        updateGeometry();
    });
}

Card::Card() : layout_(new QVBoxLayout(this)) {
    layout_->setContentsMargins(0, 0, 0, 0);
    layout_->setSpacing(8);
}

QLabel* Card::words(const QString& words) {
    auto* label = new WrappedLabel(words, this);
    label->setWordWrap(true);
    layout_->addWidget(label);
    return label;
}

QLabel* Card::title(const QString& text, bool selected) {
    QLabel* label = words(text);
    label->setStyleSheet("font-size: 15px; font-weight: 700; " +
                         coloured(selected ? tokens().select : tokens().ink));
    return label;
}

QLabel* Card::muted(const QString& text) {
    QLabel* label = words(text);
    label->setStyleSheet(coloured(tokens().muted));
    return label;
}

QLabel* Card::caution(const QString& text) {
    QLabel* label = words(text);
    label->setStyleSheet(coloured(tokens().caution));
    return label;
}

QLabel* Card::framed(const QString& text, bool fault) {
    QLabel* label = words(text);
    label->setStyleSheet(QString("border: 1px solid %1; border-radius: 6px; padding: 8px; font-size: 12px;")
                             .arg((fault ? tokens().fault : tokens().line).name()));
    return label;
}

QString Card::factTable(const Facts& rows) {
    QString table = "<table width='100%'>";
    for (const auto& [what, value] : rows) {
        table += QString(
                     "<tr><td style='padding-right:18px; padding-bottom:5px; color:%1'>%2</td><td "
                     "align='right'><b>%3</b></td></tr>")
                     .arg(tokens().muted.name(), what, value);
    }
    return table + "</table>";
}

Sentence* Card::sentence(const QString& text, const QList<QWidget*>& values) {
    auto* sentence = new Sentence(text, values, this);
    layout_->addWidget(sentence);
    // What was refused is said under the numbers it was typed among.
    QList<ValueChip*> chips;
    for (QWidget* value : values)
        if (auto* one = qobject_cast<ValueChip*>(value)) chips.append(one);
    if (chips.isEmpty()) return sentence;
    QLabel* refused = words({});
    refused->setObjectName("refused");
    refused->setStyleSheet(coloured(tokens().fault) + "; font-size: 12px;");
    refused->hide();
    for (ValueChip* one : chips) {
        connect(one, &ValueChip::wrongChanged, refused, [refused, chips] {
            QStringList sentences;
            for (const ValueChip* c : chips)
                if (!c->wrong().isEmpty()) sentences << c->wrong();
            refused->setText(sentences.join(' '));
            refused->setVisible(!sentences.isEmpty());
        });
    }
    return sentence;
}

ValueChip* Card::chip(const QString& name, ValueChip::Kind kind, int decimals, double step,
                      std::function<void(double)> committed) {
    auto* chip = new ValueChip(kind, decimals, step, this);
    chip->setAccessibleName(name);
    if (committed) connect(chip, &ValueChip::committed, this, std::move(committed));
    return chip;
}

QPushButton* Card::button(const QString& text, Look look, std::function<void()> clicked) {
    auto* button = new QPushButton(text, this);
    button->setAutoDefault(false);
    button->setObjectName(look == Look::Primary ? "primary" : look == Look::Second ? "second" : "link");
    connect(button, &QPushButton::clicked, this, std::move(clicked));
    layout_->addWidget(button, 0, Qt::AlignLeft);
    return button;
}

void Card::choices(const QList<Choice>& all) {
    auto* row = new QWidget(this);
    auto* flow = new FlowLayout(row, 30);
    for (const Choice& choice : all) {
        auto* button = new QPushButton(choice.words, row);
        button->setAutoDefault(false);  // Return in a field of a dialog presses nothing
        button->setObjectName(choice.on ? "primary" : "second");
        if (!choice.picture.isNull()) {
            button->setIcon(choice.picture);
            button->setIconSize(kChoicePicture);
        }
        connect(button, &QPushButton::clicked, this, choice.chosen);
        flow->addWidget(button);
    }
    QSizePolicy policy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    policy.setHeightForWidth(true);
    row->setSizePolicy(policy);
    layout_->addWidget(row);
}

QPushButton* Card::menuButton(const QString& words, const QList<Choice>& all) {
    auto* button = new QPushButton(words, this);
    button->setAutoDefault(false);
    button->setObjectName("link");
    auto* menu = new QMenu(button);
    menu->setStyleSheet("QMenu { menu-scrollable: 1; }");
    for (const Choice& choice : all) {
        QAction* action = menu->addAction(choice.words, this, choice.chosen);
        action->setIcon(choice.picture);
        action->setCheckable(choice.on);
        action->setChecked(choice.on);
    }
    button->setMenu(menu);
    return button;
}

void Card::menu(const QString& words, const QList<Choice>& all) {
    QPushButton* button = menuButton(words, all);
    button->setObjectName("second");
    layout_->addWidget(button, 0, Qt::AlignLeft);
}

void Card::radio(const QList<Choice>& all) {
    for (const Choice& choice : all) {
        QPushButton* b =
            button((choice.on ? QString::fromUtf8("● ") : QString::fromUtf8("○ ")) + choice.words, Look::Link,
                   choice.chosen);
        b->setStyleSheet("border: none;");
        b->setAccessibleName(choice.words);
    }
}

}  // namespace nine::app
