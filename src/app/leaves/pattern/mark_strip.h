// The strip that marks are taken from: families in words, the kinds of one of them as small pictures. A click
// takes a kind in hand; the next click on the body puts it there.
#pragma once

#include <QPainter>

#include "app/leaves/pattern/mark_pictures.h"

namespace nine::app {

class MarkStrip {
  public:
    explicit MarkStrip(const MarkPictures& pictures) : pictures_(pictures) {}
    /// Upper left corner and width; how high it is follows from that.
    void place(const QRectF& box) { box_ = box; }
    double high() const;
    void paint(QPainter& p) const;
    /// True when the click was taken.
    bool press(const QPointF& at);
    /// Over which kind the pointer is; null for none. True when that changed.
    bool hover(const QPointF& at);

    /// In hand; null for none.
    const Kind* inHand() const { return inHand_; }
    void take(const Kind* kind);
    QRectF tile(const Kind& kind) const;
    QRectF familyBox(Family family) const;

  private:
    std::vector<const Kind*> shown() const;
    const Kind* kindAt(const QPointF& at) const;

    const MarkPictures& pictures_;
    QRectF box_;
    Family family_ = Family::Rows;
    const Kind *inHand_ = nullptr, *under_ = nullptr;
};

/// The families there are kinds of, in order.
std::vector<Family> families();

}  // namespace nine::app
