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

namespace {

/// The box round a sheet's outline in the colours of its stretch, clear outside the outline.
QImage flatImage(const Sheet& sheet, const std::vector<Vec2>& texture, const MapRequest& request,
                 const Task& task) {
    TexturedMesh mesh;
    for (const Vec2& v : sheet.map) mesh.points.push_back({Vec3(v.x(), 0, v.y()), Vec3::UnitY()});
    mesh.texture = texture;
    mesh.triangles = sheet.flat->rest.triangles;
    const Box2 box = boxAround({sheet.outline});
    View3 view;
    view.target = Vec3(0.5 * (box.low.x() + box.high.x()), 0, 0.5 * (box.low.y() + box.high.y()));
    view.pixelsPerMm = request.view.pixelsPerMm;
    view.shaded = false;
    const Vec2 size = box.size() * request.view.pixelsPerMm;
    const int w = static_cast<int>(std::ceil(size.x())), h = static_cast<int>(std::ceil(size.y()));
    constexpr int kMost_px = 20000;
    if (w < 1 || h < 1 || w > kMost_px || h > kMost_px) return {};
    QImage image = toQImage(render(mesh, rampTexture(), view, w, h, 1, task).image);
    if (task.cancelled() || image.isNull()) return image;
    QPainter p(&image);
    p.setRenderHint(QPainter::Antialiasing);
    QPainterPath outside;  // odd-even: all but the outline
    QPolygonF ring;
    for (const Vec2& v : sheet.outline) {
        const Vec2 at = request.view.pixelsPerMm * (v - 0.5 * (box.low + box.high));
        ring << QPointF(0.5 * w + at.x(), 0.5 * h - at.y());
    }
    outside.addRect(QRectF(0, 0, w, h));
    outside.addPolygon(ring);
    outside.closeSubpath();
    p.setCompositionMode(QPainter::CompositionMode_Clear);
    p.fillPath(outside, Qt::black);
    p.end();
    image.setDevicePixelRatio(request.ratio);
    return image;
}

/// Adds the sheet's skin, where it faces the viewer, to what is drawn on the body.
void addSkin(TexturedMesh& skin, const FlatPatch& flat, const std::vector<Vec2>& texture,
             const MapRequest& request) {
    const auto first = static_cast<int>(skin.points.size());
    std::vector<bool> faces;
    for (std::size_t v = 0; v < texture.size(); ++v) {
        skin.points.push_back(onSide(request.side, flat.patch.mesh.vertices[v]));
        skin.texture.push_back(texture[v]);
        faces.push_back(facing(request.view, skin.points.back()) > 0);
    }
    for (const Triangle& t : flat.rest.triangles) {
        const bool seen =
            std::all_of(t.begin(), t.end(), [&](int v) { return faces[static_cast<std::size_t>(v)]; });
        if (seen) skin.triangles.push_back({t[0] + first, t[1] + first, t[2] + first});
    }
}

}  // namespace

MaskDrawing drawMask(const MapRequest& request, const Task& task) {
    const Mask& mask = *request.mask;
    const std::vector<Vec2> shifts = sideBySide(mask);
    MaskDrawing maps;
    maps.request = request;
    TexturedMesh skin;
    double most = -1;
    for (std::size_t k = 0; k < mask.sheets.size(); ++k) {
        const Sheet& sheet = mask.sheets[k];
        const std::vector<double> stretch = averagedStretch(*sheet.flat);
        std::vector<Vec2> texture;
        for (std::size_t v = 0; v < stretch.size(); ++v) {
            texture.emplace_back(0.5, std::min(1.0, stretch[v] / sheet.report.strainLimit));
            if (stretch[v] <= most) continue;
            most = stretch[v];
            maps.worst = sheet.map[v] + shifts[k];
            maps.worstOnBody = onSide(request.side, sheet.flat->patch.mesh.vertices[v]).position;
        }
        addSkin(skin, *sheet.flat, texture, request);
        maps.flats.push_back(flatImage(sheet, texture, request, task));
        if (task.cancelled() || maps.flats.back().isNull()) return maps;
        if (sheet.report.landed.empty()) continue;
        const SheetCarrier carrier(sheet.flat->patch.pairedWith(sheet.map));
        for (const LandedProbe& probe : sheet.report.landed)
            maps.landed.emplace_back(carrier.at(probe.wanted) + shifts[k],
                                     carrier.at(request.skin->project(probe.landed)) + shifts[k]);
    }
    View3 bodyView = request.view;
    bodyView.shaded = false;
    maps.onBody =
        toQImage(render(skin, rampTexture(), bodyView, request.width, request.height, 1, task).image);
    maps.onBody.setDevicePixelRatio(request.ratio);
    return maps;
}

}  // namespace nine::app
