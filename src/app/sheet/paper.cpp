#include "app/sheet/paper.h"

namespace nine::app {
namespace {

constexpr double kPen_mm = 0.15;

}  // namespace

void paintDrawing(QPainter& p, const Drawing& drawing, double perMm) {
    for (const Layer& layer : drawing.layers) {
        for (const DrawnLine& line : layer.lines) {
            const QColor colour =
                line.grey >= 0 ? QColor::fromRgbF(line.grey, line.grey, line.grey) : Qt::black;
            QPolygonF polygon;
            for (const Vec2& v : line.points) polygon << QPointF(v.x(), drawing.size_mm.y() - v.y()) * perMm;
            p.setPen(line.filled ? QPen(Qt::NoPen) : QPen(colour, kPen_mm * perMm));
            p.setBrush(line.filled ? QBrush(colour) : QBrush(Qt::NoBrush));
            line.closed || line.filled ? p.drawPolygon(polygon, Qt::WindingFill) : p.drawPolyline(polygon);
        }
    }
}

}  // namespace nine::app
