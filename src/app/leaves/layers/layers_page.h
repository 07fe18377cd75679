// The drawing of the Layers leaf: a cut through the skin from the back line to the belly line at a place that
// is dragged along the body, each step a row read upwards as paint goes on, its film in true proportion to
// the others and the colour seen once it is dry; or all films in one stack.
#pragma once

#include "app/leaves/layers/layers_desk.h"
#include "app/leaves/leaf_page.h"
#include "app/sheet/body_view.h"

namespace nine::app {

class LayersPage : public LeafPage {
    Q_OBJECT
  public:
    LayersPage(LeafContext context, LayersDesk& desk);

    bool stacked() const { return stacked_; }
    void setStacked(bool on);
    /// Moves the selected row past the next one up (+1) or down.
    void nudge(int by);
    /// For tests and who drags: where the row of a step lies (empty when it is folded or scrolled away), the
    /// knob of the cut, the handles of a fade (none where the step has none), the switch.
    QRectF rowOf(const std::string& step) const;
    QPointF cutKnob() const;
    struct FadeHandles {
        QPointF reach, soft;
    };
    std::optional<FadeHandles> fadeHandles() const;
    QRectF stackSwitch() const { return switch_; }
    /// What is read under the pointer: the colour after the selected step.
    struct Reading {
        SkinPoint skin;
        Lab colour;
        std::uint32_t shown;
    };
    const std::optional<Reading>& reading() const { return reading_; }
    /// The skin under a pixel of the body; nothing beside it.
    std::optional<Vec2> skinUnder(const QPointF& pixel) const;

  protected:
    void layOut() override;
    void paintPage(QPainter& p) override;
    bool scrolls(const QPointF& page, int steps) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void leaveEvent(QEvent*) override;
    void showEvent(QShowEvent*) override;
    void hideEvent(QHideEvent*) override { desk_.setWatched(false); }

  private:
    /// One row: a step; in a folded group with what is laid on before it and lifted after it.
    struct Row {
        std::size_t step;       ///< the one that is shown
        std::size_t first;      ///< the lowest one
        std::size_t count = 1;  ///< of all that go with it
        bool thin = false;
        QRectF box;
    };
    struct Columns {
        double number, swatch, words, films, filmsEnd, tag, drops, ratio;
    };
    void layOutRows();
    void showSelected();
    bool holds(const Row& row, const std::string& step) const;
    void moveRow(const Row& row, std::size_t to);
    const Row* rowAt(const QPointF& at) const;
    /// Place among the steps where a dragged one would come down.
    std::size_t dropPlace(double y) const;
    double filmX(const RecipeSection& section, double g_mm) const;

    void paintEmpty(QPainter& p);
    void paintBody(QPainter& p);
    void paintFade(QPainter& p);
    void paintStep(QPainter& p, const QRectF& box);
    void paintBuildUp(QPainter& p, const QPointF& at, const Step& step, const Coated& ground, double width);
    void paintRows(QPainter& p);
    void paintRow(QPainter& p, const Row& row);
    void paintFilm(QPainter& p, const FilmInSection& film, const QRectF& box, bool off);
    void paintSeen(QPainter& p, const std::vector<std::uint32_t>& seen, const QRectF& box);
    void paintStack(QPainter& p);
    void paintAxis(QPainter& p, double y);

    void readAt(const QPointF& at);
    void dragFade(const QPointF& at);

    LayersDesk& desk_;
    BodyView* view_;
    bool stacked_ = false;
    QRectF bodyBox_, rowsBox_, switch_;
    Columns columns_{};
    std::vector<Row> rows_;
    double scroll_ = 0, content_ = 0;
    double perMicron_ = 1;
    std::string shown_;  ///< the step that was scrolled to
    std::optional<Reading> reading_;
    QPointF pointer_;
    enum class Hand { Empty, Cut, Reach, Soft, Row };
    Hand hand_ = Hand::Empty;
    std::string held_;  ///< the step in hand
    QPointF pressed_;
    bool moved_ = false;
};

}  // namespace nine::app
