// The drawing of the Pattern leaf: the strip that marks are taken from; art on the side of the body, on both
// sides, on back and belly unrolled and from the nose, with handles wherever a mark shows; the list of marks;
// the mask the selected one needs, followed while it is dragged; the same pattern on other blanks.
#pragma once

#include <map>

#include "app/leaves/leaf_page.h"
#include "app/leaves/pattern/mark_strip.h"
#include "app/leaves/pattern/pattern_edits.h"
#include "app/leaves/pattern/refit_desk.h"
#include "app/leaves/pattern/skin_views.h"
#include "app/sheet/sentence.h"

namespace nine::app {

/// What can be dragged of any element besides the handles of its kind: all of it.
constexpr std::string_view kWholeMark = "whole";

/// A place of a path: "1", "2" and on.
bool isPathKey(std::string_view key);

constexpr double kPatternRow_px = 27;  ///< of the list
class PatternPage : public LeafPage {
    Q_OBJECT
  public:
    PatternPage(LeafContext context, RefitDesk& desk);

    const MarkPictures& pictures() const { return pictures_; }
    MarkStrip& strip() { return strip_; }
    /// Middle of an opening of an element; for tests, like all places below.
    QPointF openingAt(int element, int index) const;
    /// Where a handle of the selected element stands (by its key); a null point if it has none such.
    QPointF handleAt(std::string_view handle) const;
    /// Where the diamond of its anchor stands.
    QPointF anchorAt() const;
    /// The handle that the arrow keys move, and what is spoken of it: "first dot, 3.4 mm behind ...".
    const std::string& handleInHand() const { return inHandKey_; }
    QRectF listRow(int index) const;
    QRectF eyeOfRow(int index) const;
    QRectF lockOfRow(int index) const;
    QRectF previewBox(int index) const;
    QRectF stripBox(bool back) const { return views_.strip(back ? Shown::Back : Shown::Belly); }

  signals:
    void removeWanted();
    void addWanted(const nine::Kind* kind, nine::Vec2 at);
    void kindsWanted();
    void anchorWanted(const std::string& landmark);
    void valueTyped(const std::string& key, double value);

  protected:
    void layOut() override;
    void paintPage(QPainter& p) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    bool scrolls(const QPointF& page, int steps) override;
    void looked() override { closeEditor(); }

  private:
    /// Rows of the list that there is room for.
    int rowsShown() const;
    void scrollList(int rows);
    std::vector<Shown> shown() const;
    /// The view the selected element is drawn and handled in first.
    Shown leading() const;
    /// How a mark shows on a view: as itself, as its mirror image, or not.
    std::vector<bool> copiesOn(Shown where, const Element& element) const;
    /// Outlines as far as they show; kept until the page is laid out anew.
    const QPainterPath& drawn(Shown where, const ElementArt& art, bool twin) const;
    QPainterPath pathOf(Shown where, const std::vector<Outline>& outlines, bool twin) const;
    const ElementArt* artOf(std::size_t index, bool twin) const;

    void paintStray(QPainter& p, Shown where, const ElementArt& art) const;
    void paintSelected(QPainter& p) const;
    void paintHandles(QPainter& p, Shown where, bool twin) const;
    void paintCutAway(QPainter& p, Shown where, const ElementArt& art, bool twin) const;
    void paintTags(QPainter& p) const;
    void paintAnchor(QPainter& p, const QPointF& first, double y) const;
    void paintLandmarks(QPainter& p) const;
    void paintStrip(QPainter& p, Shown where) const;
    void paintList(QPainter& p) const;
    void paintRow(QPainter& p, int index) const;
    void paintMask(QPainter& p) const;
    void paintPreviews(QPainter& p) const;
    void requestStrips();

    bool pressList(const QPointF& at, bool more);
    bool pressHandle(const QPointF& at);
    bool pressMark(const QPointF& at, bool more);
    bool pressPreview(const QPointF& at);
    /// The mark that shows under a pixel, the selected one first.
    struct Hit {
        int element = -1;
        Shown where = Shown::Left;
        bool twin = false;
        bool soft = false;  ///< on its paint, not within an edge
    };
    Hit markAt(const QPointF& at) const;
    void placeNew(const QPointF& at);
    void dropAnchor(const QPointF& at);
    void openEditor(const QPointF& at);
    void closeEditor();
    void orderSelected(int by);
    void copySelected();
    void paste();

    /// Moves a handle of the selected element by mm on the skin; an impossible move is not made.
    void moveHandle(std::string_view handle, double dx, double dg);
    void moveWhole(double dx, double dg);
    /// The next handle of the selected element, or the one before; after the last, all of it.
    void takeHandle(int by);
    void speakHandle();
    std::span<const Handle> handles() const;
    /// Of the element in hand: the kind's handles and the places of its path, by key.
    std::vector<std::string> handleKeys() const;
    std::optional<Vec2> placeOfHandle(std::string_view key) const;
    const std::vector<ElementPtr>& elements() const {
        return context_.document.job().get<PatternChapter>().elements;
    }
    ElementPtr selected() const;
    Ids selectedIds() const;
    const ElementArt* selectedArt() const;
    /// Whether the mark reaches off the body and is shown where it could be.
    bool isStray(const std::string& element) const;
    /// The selected mark as it is shown.
    Element inHand() const;

    RefitDesk& desk_;
    MarkPictures pictures_{this};
    MarkStrip strip_{pictures_};
    SkinViews views_{this};
    mutable std::map<std::tuple<const ElementArt*, Shown, bool>, QPainterPath> drawn_;
    QRectF list_, mask_, noseBox_, previews_;
    int firstRow_ = 0;     ///< of the list, the uppermost that is shown
    std::string listFor_;  ///< what was selected when the list was scrolled to it
    struct Strips {
        std::shared_ptr<const Image> picture;
        QSize size;
        double perMm = 0;
        QImage back, belly;
    };
    Strips strips_;
    LatestOnly<Strips> stripSlot_{this, Urgency::Now, Overtaken::Shown};

    /// What the mouse holds.
    struct Grip {
        std::string key;  ///< of a handle, or kWholeMark
        Shown where = Shown::Left;
        bool twin = false;
    };
    std::optional<Grip> grip_;
    std::optional<QPointF> anchorDrag_;
    std::optional<int> rowDrag_;  ///< where the row in hand would go
    std::string inHandKey_{kWholeMark};
    QPointF last_, pressed_;
    /// Values written on the drawing, and where: a double click types them.
    struct Tag {
        QRectF box;
        std::string key;
    };
    mutable std::vector<Tag> tags_;
    ValueChip* editor_ = nullptr;
    std::string editing_;
};

}  // namespace nine::app
