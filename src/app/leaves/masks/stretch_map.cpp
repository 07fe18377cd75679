#include "app/leaves/masks/stretch_map.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/holder/holder.h"
#include "app/theme/theme.h"

namespace nine::app {
namespace {

constexpr int kRampRows = 256;

/// The ramp as a texture: the limit is the last row.
Image rampTexture() {
    Image image{1, kRampRows, {}};
    for (int row = 0; row < kRampRows; ++row)
        image.pixels.push_back(rampColour(Ramp::Stretch, row / (kRampRows - 1.0)).rgb());
    return image;
}

}  // namespace

SurfacePoint onSide(Side side, SurfacePoint point) {
    if (side == Side::Right) {
        point.position.y() = -point.position.y();
        point.normal.y() = -point.normal.y();
    }
    return point;
}

std::vector<double> averagedStretch(const FlatPatch& flat) {
    const std::size_t vertices = flat.map.size();
    const auto& triangles = flat.rest.triangles;
    std::vector<double> value(triangles.size()), atVertex(vertices, 0.0);
    for (std::size_t t = 0; t < triangles.size(); ++t) value[t] = flat.strains[t].worst();
    // Passing through the vertices and back averages over about one spacing each time; passes add up like a
    // walk.
    const double spacing = std::sqrt(flat.rest.area_mm2 / static_cast<double>(vertices));
    const int passes =
        std::max(1, static_cast<int>(std::lround(std::pow(0.5 * kAveragedOver_mm / spacing, 2) * 2)));
    for (int pass = 0; pass < passes; ++pass) {
        std::vector<double> sum(vertices, 0.0), weight(vertices, 0.0);
        for (std::size_t t = 0; t < triangles.size(); ++t) {
            for (const int v : triangles[t]) {
                sum[static_cast<std::size_t>(v)] += flat.rest.shapes[t].area_mm2 * value[t];
                weight[static_cast<std::size_t>(v)] += flat.rest.shapes[t].area_mm2;
            }
        }
        for (std::size_t v = 0; v < vertices; ++v) atVertex[v] = weight[v] > 0 ? sum[v] / weight[v] : 0;
        for (std::size_t t = 0; t < triangles.size(); ++t) {
            value[t] = 0;
            for (const int v : triangles[t]) value[t] += atVertex[static_cast<std::size_t>(v)] / 3;
        }
    }
    return atVertex;
}

MaskDrawing drawMask(const MapRequest& request, const Task& task) {
    const Mask& mask = *request.mask;
    const FlatPatch& flat = *mask.flat;
    const std::vector<double> stretch = averagedStretch(flat);
    const Image ramp = rampTexture();
    MaskDrawing maps;
    maps.request = request;

    TexturedMesh sheet, skin;
    std::vector<bool> faces;
    for (std::size_t v = 0; v < stretch.size(); ++v) {
        const Vec2 texture(0.5, std::min(1.0, stretch[v] / mask.report.strainLimit));
        sheet.points.push_back({Vec3(mask.map[v].x(), 0, mask.map[v].y()), Vec3::UnitY()});
        sheet.texture.push_back(texture);
        skin.points.push_back(onSide(request.side, flat.patch.mesh.vertices[v]));
        skin.texture.push_back(texture);
        faces.push_back(facing(request.view, skin.points.back()) > 0);
    }
    sheet.triangles = flat.rest.triangles;
    for (const Triangle& t : flat.rest.triangles) {
        const bool seen =
            std::all_of(t.begin(), t.end(), [&](int v) { return faces[static_cast<std::size_t>(v)]; });
        if (seen) skin.triangles.push_back(t);
    }
    const auto worst = std::max_element(stretch.begin(), stretch.end()) - stretch.begin();
    maps.worst = mask.map[static_cast<std::size_t>(worst)];
    maps.worstOnBody = skin.points[static_cast<std::size_t>(worst)].position;

    const Box2 box = boxAround({mask.outline});
    View3 flatView;
    flatView.target = Vec3(0.5 * (box.low.x() + box.high.x()), 0, 0.5 * (box.low.y() + box.high.y()));
    flatView.pixelsPerMm = request.view.pixelsPerMm;
    flatView.shaded = false;
    const Vec2 size = box.size() * request.view.pixelsPerMm;
    const int w = static_cast<int>(std::ceil(size.x())), h = static_cast<int>(std::ceil(size.y()));
    if (w < 1 || h < 1 || w > 20000 || h > 20000) return maps;
    maps.flat = toQImage(render(sheet, ramp, flatView, w, h, 1, task).image);
    if (task.cancelled() || maps.flat.isNull()) return maps;
    QPainter p(&maps.flat);
    p.setRenderHint(QPainter::Antialiasing);
    QPainterPath outside;  // odd-even: all but the outline
    QPolygonF ring;
    for (const Vec2& v : mask.outline) {
        const Vec2 at = request.view.pixelsPerMm * (v - 0.5 * (box.low + box.high));
        ring << QPointF(0.5 * w + at.x(), 0.5 * h - at.y());
    }
    outside.addRect(QRectF(0, 0, w, h));
    outside.addPolygon(ring);
    outside.closeSubpath();
    p.setCompositionMode(QPainter::CompositionMode_Clear);
    p.fillPath(outside, Qt::black);
    p.end();
    maps.flat.setDevicePixelRatio(request.ratio);

    View3 bodyView = request.view;
    bodyView.shaded = false;
    maps.onBody = toQImage(render(skin, ramp, bodyView, request.width, request.height, 1, task).image);
    maps.onBody.setDevicePixelRatio(request.ratio);

    if (!mask.report.landed.empty()) {
        const SheetCarrier carrier(flat.patch.pairedWith(mask.map));
        for (const LandedProbe& probe : mask.report.landed)
            maps.landed.emplace_back(carrier.at(probe.wanted),
                                     carrier.at(request.skin->project(probe.landed)));
    }
    return maps;
}

}  // namespace nine::app
