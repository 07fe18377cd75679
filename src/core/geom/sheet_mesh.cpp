#include "geom/sheet_mesh.h"

#include <cmath>

namespace nine {
namespace {

double distance(const SheetMesh& mesh, int a, int b) {
    return (mesh.vertices[static_cast<std::size_t>(a)].position -
            mesh.vertices[static_cast<std::size_t>(b)].position)
        .norm();
}

RestTriangle layFlat(double ab, double bc, double ca) {
    const double x = (ab * ab + ca * ca - bc * bc) / (2 * ab);
    const double y = std::sqrt(std::max(0.0, ca * ca - x * x));
    const std::array<Vec2, 3> corner{Vec2(0, 0), Vec2(ab, 0), Vec2(x, y)};
    RestTriangle rest;
    rest.area_mm2 = 0.5 * ab * y;
    for (std::size_t i = 0; i < 3; ++i) {
        const Vec2& p = corner[i];
        const Vec2& q = corner[(i + 1) % 3];
        const Vec2& r = corner[(i + 2) % 3];
        const Vec2 opposite = r - q;
        rest.shapeGradient[i] = Vec2(-opposite.y(), opposite.x()) / (2 * rest.area_mm2);
        rest.cotangent[i] = (q - p).dot(r - p) / (2 * rest.area_mm2);
    }
    return rest;
}

}  // namespace

void zipRows(SheetMesh& mesh, const std::vector<int>& lower, const std::vector<int>& upper, bool closed) {
    const std::size_t lowerEnd = closed ? lower.size() : lower.size() - 1;
    const std::size_t upperEnd = closed ? upper.size() : upper.size() - 1;
    std::size_t i = 0, j = 0;
    while (i < lowerEnd || j < upperEnd) {
        const int a = lower[i % lower.size()];
        const int b = upper[j % upper.size()];
        const int nextA = lower[(i + 1) % lower.size()];
        const int nextB = upper[(j + 1) % upper.size()];
        bool advanceLower = j >= upperEnd;
        if (!advanceLower && i < lowerEnd) advanceLower = distance(mesh, nextA, b) < distance(mesh, a, nextB);
        if (advanceLower) {
            mesh.triangles.push_back({a, nextA, b});
            ++i;
        } else {
            mesh.triangles.push_back({a, nextB, b});
            ++j;
        }
    }
}

RestMesh restMesh(const SheetMesh& mesh) {
    RestMesh rest;
    rest.vertexCount = static_cast<int>(mesh.vertices.size());
    rest.triangles = mesh.triangles;
    rest.shapes.reserve(mesh.triangles.size());
    for (const Triangle& t : mesh.triangles) {
        const SurfacePoint& a = mesh.vertices[static_cast<std::size_t>(t[0])];
        const SurfacePoint& b = mesh.vertices[static_cast<std::size_t>(t[1])];
        const SurfacePoint& c = mesh.vertices[static_cast<std::size_t>(t[2])];
        rest.shapes.push_back(layFlat(arcLength_mm(a, b), arcLength_mm(b, c), arcLength_mm(c, a)));
        rest.area_mm2 += rest.shapes.back().area_mm2;
    }
    return rest;
}

}  // namespace nine
