// The drawing of a leaf. Lays itself out when it is seen, resized, or something it shows has changed while it
// is seen; pages out of sight cost nothing.
#pragma once

#include <QWidget>

#include "app/leaves/leaf.h"

namespace nine::app {

class LeafPage : public QWidget {
  public:
    explicit LeafPage(LeafContext context) : context_(context) {
        setFocusPolicy(Qt::StrongFocus);
        setAttribute(Qt::WA_OpaquePaintEvent);
        connect(&context_.results, &Results::bodyChanged, this, &LeafPage::follow);
        connect(&context_.view, &ViewState::changed, this, &LeafPage::follow);
    }

  protected:
    /// Places what is drawn and asks for pictures; calls update().
    virtual void layOut() = 0;
    void follow() {
        if (isVisible()) layOut();
    }
    void resizeEvent(QResizeEvent*) override { layOut(); }
    void showEvent(QShowEvent*) override { layOut(); }

    LeafContext context_;
};

}  // namespace nine::app
