// The drawing of the Blank leaf: side and top outline true to scale, stations and landmarks to drag, the
// strip that says how hard the body is to wrap.
#pragma once

#include <QWidget>

#include "app/leaves/blank/blank_layers.h"
#include "app/leaves/leaf_page.h"
#include "app/sheet/body_view.h"
#include "app/sheet/sentence.h"

namespace nine::app {

class BlankPage : public LeafPage {
    Q_OBJECT
  public:
    explicit BlankPage(LeafContext context);
    /// Whether the map of how hard to wrap lies on the body.
    bool mapShown() const { return context_.view.wrapMap() && layers_.wrap().colours != nullptr; }

    /// Where handles stand, for tests and accessibility.
    QPointF stationHandle(int index, bool top) const;
    QPointF landmarkHandle(const std::string& name) const;
    QPointF landmarkPoint(const std::string& name, int point) const;
    /// Dimensions whose value is typed on their line.
    enum class Typed { Length, Height, Width, Station };
    QRectF typedBox(Typed which) const;
    /// Opens the field on the line; Enter takes the value, Esc leaves it.
    void typeInto(Typed which);

    BlankLayers& layers() { return layers_; }
    /// Measures along the skin between two points of the drawn side.
    void measure(const SkinPoint& from, const SkinPoint& to);
    /// Makes a bare zone of the corners clicked so far.
    void closeZone();

  protected:
    void layOut() override;
    void paintPage(QPainter& p) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    enum class Grip { None, Top, Bottom, Width, Line, Landmark, LandmarkPoint };
    struct Extent2 {
        double tall, wide;
    };
    Extent2 extents(const Skin& skin) const;
    void placeLandmarks();
    void requestLayers();
    /// The skin under a place of the side view, on the side that is drawn.
    SkinPoint skinAt(const QPointF& at) const;
    bool pressTool(const QPointF& at);
    /// The tool in hand is used at a point of the skin.
    void setToolPoint(const SkinPoint& point);
    /// Arrows move the tool along the skin, Space uses it. False when no tool is in hand or it is another
    /// key.
    bool keyForTool(const QKeyEvent& event);
    void paintDimensions(QPainter& p);
    double typedValue(Typed which) const;
    void takeTyped(double value);
    void paintFilm(QPainter& p) const;
    void paintBill(QPainter& p) const;
    void paintSoftTail(QPainter& p) const;
    void paintZones(QPainter& p) const;
    void paintTools(QPainter& p);
    void paintHeading(QPainter& p);
    void paintMapLegend(QPainter& p);
    void paintStations(QPainter& p);
    void paintLandmarks(QPainter& p);
    void paintWrapStrip(QPainter& p);
    void drag(const QPointF& to);
    void apply(const Result<Job>& job, const QString& label);
    const std::vector<Station>& stations() const {
        return context_.document.job().get<BlankChapter>().table.stations;
    }

    BodyView side_{BodyView::From::Along, this}, above_{BodyView::From::Above, this};
    BlankLayers layers_{this};
    std::map<Typed, QRectF> typedBoxes_;
    ValueChip* editor_;
    Typed typing_ = Typed::Length;
    double typingStation_mm_ = 0;  ///< where the station stood that is typed for
    QRectF strip_;
    /// Where landmarks stand, worked out once for each layout.
    struct DrawnLandmark {
        std::string name;
        Landmark landmark;
        QPolygonF points;    ///< those that are on the body
        QPolygonF line;      ///< the curve through them
        bool quiet = false;  ///< named only when selected, or the drawing would be full of words
    };
    std::vector<DrawnLandmark> landmarks_;
    Grip grip_ = Grip::None;
    int landmarkPoint_ = 0;
    QPointF last_;
    QString wrong_;
    std::optional<SkinPoint> measuredFrom_, toolCursor_;
    std::vector<Vec2> corners_;  ///< of the zone that is being drawn: x, g
};

}  // namespace nine::app
