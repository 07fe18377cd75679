// The card of a leaf: titles, sentences with values, facts, choices and buttons, one below the other.
//
// A card is built anew when what it shows changes its shape; show() puts the new one in the place of the old.
#pragma once

#include <QIcon>
#include <QLabel>
#include <QPointer>
#include <QPushButton>
#include <QVBoxLayout>
#include <functional>

#include "app/sheet/sentence.h"

namespace nine::app {

/// Room for the picture of a choice, pixels.
constexpr QSize kChoicePicture(30, 14);

/// Property of a plain field on a card: the id of what its words are of. What is half typed for one thing is
/// never taken over by the field of another.
constexpr const char* kOwner = "owner";

/// The place of a leaf's card in the window.
class CardHolder : public QWidget {
  public:
    CardHolder();
    /// Replaces what was shown. The old card is deleted once nothing in it is running any more. The field
    /// that had the focus has it in the new card too, with what was half typed, if there is one of the same
    /// name.
    void show(QWidget* card);
    QSize minimumSizeHint() const override { return {0, layout()->heightForWidth(width())}; }

  private:
    QPointer<QWidget> shown_;
};

class Card : public QWidget {
  public:
    Card();

    QLabel* title(const QString& words, bool selected = true);
    QLabel* words(const QString& words);
    QLabel* muted(const QString& words);
    /// A short line of caution, in its colour.
    QLabel* caution(const QString& words);
    /// A problem in a frame, with its number if it stands on the drawing too.
    QLabel* framed(const QString& words, bool fault);
    using Facts = QList<QPair<QString, QString>>;
    QLabel* facts(const Facts& rows) { return words(factTable(rows)); }
    static QString factTable(const Facts& rows);
    Sentence* sentence(const QString& words, const QList<QWidget*>& values);
    /// A value of a sentence; `committed` gets what was typed.
    ValueChip* chip(const QString& name, ValueChip::Kind kind, int decimals, double step,
                    std::function<void(double)> committed);

    enum class Look { Primary, Second, Link };
    QPushButton* button(const QString& words, Look look, std::function<void()> clicked);
    struct Choice {
        QString words;
        bool on;
        std::function<void()> chosen;
        QIcon picture = {};  ///< beside the words
    };
    /// Buttons that flow like words; the chosen one is filled.
    void choices(const QList<Choice>& all);
    /// A button that opens the choices as a menu, for a sentence.
    QPushButton* menuButton(const QString& words, const QList<Choice>& all);
    /// The same on a line of its own: for many of them.
    void menu(const QString& words, const QList<Choice>& all);
    /// One below the other, for longer words.
    void radio(const QList<Choice>& all);
    void add(QWidget* widget) { layout_->addWidget(widget); }
    /// Call last.
    void finish() { layout_->addStretch(); }

  private:
    QVBoxLayout* layout_;
};

}  // namespace nine::app
