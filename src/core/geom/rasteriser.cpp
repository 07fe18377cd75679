#include "geom/rasteriser.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "base/parallel.h"

namespace nine {
namespace {

constexpr int kBandRows = 24;

/// The rotation from body coordinates to right, up, towards the viewer.
Eigen::Matrix3d rotationOf(const View3& view) {
    const double c = std::cos(view.yaw_rad), s = std::sin(view.yaw_rad);
    const double p = std::cos(view.pitch_rad), q = std::sin(view.pitch_rad);
    Eigen::Matrix3d reorder, yaw, pitch;
    reorder << 1, 0, 0, 0, 0, 1, 0, 1, 0;  // x, z, y: the body's frame is left-handed, the viewer's is not
    yaw << c, 0, s, 0, 1, 0, -s, 0, c;
    pitch << 1, 0, 0, 0, p, -q, 0, q, p;
    return pitch * yaw * reorder;
}

struct Corner {
    Vec3 eye;     ///< right, up, towards the viewer from the target
    Vec3 normal;  ///< in the same frame
    Vec2 texture;
};

/// A corner on the screen; everything but x, y is divided by depth, so that it is linear there.
struct ScreenCorner {
    double x, y, inverseDepth;
    double nearness;  ///< inverse depth, or height towards the viewer when orthographic
    Vec3 normal;
    Vec2 texture;
};

double depthOf(const View3& view, const Vec3& eye) {
    return view.distance_mm > 0 ? view.distance_mm - eye.z() : 1;
}

Corner between(const Corner& a, const Corner& b, double t) {
    return {a.eye + t * (b.eye - a.eye), a.normal + t * (b.normal - a.normal),
            a.texture + t * (b.texture - a.texture)};
}

/// The part of a triangle in front of the near plane, as a fan of up to four corners.
int clipNear(const View3& view, const std::array<Corner, 3>& in, std::array<Corner, 4>& out) {
    int count = 0;
    const auto inFront = [&](const Corner& c) { return depthOf(view, c.eye) - kNearPlane_mm; };
    for (std::size_t i = 0; i < 3; ++i) {
        const Corner &a = in[i], &b = in[(i + 1) % 3];
        const double da = inFront(a), db = inFront(b);
        if (da >= 0) out[static_cast<std::size_t>(count++)] = a;
        if ((da >= 0) != (db >= 0)) out[static_cast<std::size_t>(count++)] = between(a, b, da / (da - db));
    }
    return count;
}

struct Shaded {
    double light, highlight;
};

/// Light from above the viewer's left shoulder, a weak fill from below, none with a colour of its own.
Shaded shadeOf(const Vec3& normal, double gloss) {
    static const Vec3 key = Vec3(-0.35, 0.75, 0.56).normalized();
    static const Vec3 half = (key + Vec3::UnitZ()).normalized();
    const double lambert = std::max(0.0, normal.dot(key));
    const double sky = 0.5 + 0.5 * normal.y();
    const double h2 = std::pow(std::max(0.0, normal.dot(half)), 2), h8 = h2 * h2 * h2 * h2;
    return {0.64 + 0.10 * sky + 0.33 * lambert, gloss * h8 * h8 * h8};
}

std::uint32_t lit(std::uint32_t colour, const Shaded& shade) {
    const auto channel = [&](int shift) {
        const double value = (colour >> shift & 255u) * shade.light;
        const double with = value + (255 - value) * shade.highlight;
        return static_cast<std::uint32_t>(std::clamp(with, 0.0, 255.0)) << shift;
    };
    return 0xFF000000u | channel(16) | channel(8) | channel(0);
}

/// Bilinear; wraps round across the body, stops at nose and tail.
std::uint32_t sample(const Image& texture, const Vec2& at) {
    const double x = at.x() * texture.width - 0.5, y = std::clamp(at.y(), 0.0, 1.0) * (texture.height - 1);
    const double fx = x - std::floor(x), fy = y - std::floor(y);
    const auto column = [&](int offset) {
        const int c = static_cast<int>(std::floor(x)) + offset;
        return ((c % texture.width) + texture.width) % texture.width;
    };
    const int row = static_cast<int>(y), next = std::min(row + 1, texture.height - 1);
    const std::uint32_t a = texture.at(column(0), row), b = texture.at(column(1), row);
    const std::uint32_t c = texture.at(column(0), next), d = texture.at(column(1), next);
    std::uint32_t out = 0xFF000000u;
    for (const int shift : {0, 8, 16}) {
        const auto part = [&](std::uint32_t v) { return static_cast<double>(v >> shift & 255u); };
        const double top = part(a) + fx * (part(b) - part(a)), bottom = part(c) + fx * (part(d) - part(c));
        out |= static_cast<std::uint32_t>(top + fy * (bottom - top) + 0.5) << shift;
    }
    return out;
}

using Corners = std::array<std::uint32_t, 3>;

struct Canvas {
    int width, height;
    std::vector<double> nearest;  ///< inverse depth, or height towards the viewer when orthographic
    std::vector<std::uint32_t> pixels;
    std::vector<Vec2> texture;
};

/// `over` laid on `under`, premultiplied.
std::uint32_t blended(std::uint32_t under, std::uint32_t over, double opacity) {
    std::uint32_t out = 0;
    for (const int shift : {0, 8, 16, 24}) {
        const double below = under >> shift & 255u, above = over >> shift & 255u;
        out |= static_cast<std::uint32_t>(std::min(255.0, below * (1 - opacity) + above * opacity + 0.5))
               << shift;
    }
    return out;
}

/// What a triangle is drawn with: a texture, or one colour (then nothing is picked there).
struct Stuff {
    const Image* texture;
    std::uint32_t colour;
    double opacity;
};

void fill(const std::array<const ScreenCorner*, 3>& corners, int fromRow, int toRow, const Stuff& stuff,
          const View3& view, Canvas& canvas) {
    const ScreenCorner* const t[3] = {corners[0], corners[1], corners[2]};
    const double area = (t[1]->x - t[0]->x) * (t[2]->y - t[0]->y) - (t[2]->x - t[0]->x) * (t[1]->y - t[0]->y);
    if (area == 0) return;
    const double inverseArea = 1 / area;
    const auto [lowX, highX] = std::minmax({t[0]->x, t[1]->x, t[2]->x});
    const auto [lowY, highY] = std::minmax({t[0]->y, t[1]->y, t[2]->y});
    const int x0 = std::max(0, static_cast<int>(std::floor(std::max(lowX, -1.0))));
    const int x1 = std::min(canvas.width - 1, static_cast<int>(std::ceil(std::min(highX, 1e6))));
    const int y0 = std::max(fromRow, static_cast<int>(std::floor(std::max(lowY, -1.0))));
    const int y1 = std::min(toRow - 1, static_cast<int>(std::ceil(std::min(highY, 1e6))));
    for (int y = y0; y <= y1; ++y) {
        for (int x = x0; x <= x1; ++x) {
            const double px = x + 0.5, py = y + 0.5;
            const double a =
                ((t[1]->x - px) * (t[2]->y - py) - (t[2]->x - px) * (t[1]->y - py)) * inverseArea;
            const double b =
                ((t[2]->x - px) * (t[0]->y - py) - (t[0]->x - px) * (t[2]->y - py)) * inverseArea;
            const double c = 1 - a - b;
            if (a < 0 || b < 0 || c < 0) continue;
            const double height = a * t[0]->nearness + b * t[1]->nearness + c * t[2]->nearness;
            const std::size_t at = static_cast<std::size_t>(y) * static_cast<std::size_t>(canvas.width) +
                                   static_cast<std::size_t>(x);
            if (height <= canvas.nearest[at]) continue;
            if (stuff.opacity >= 1) canvas.nearest[at] = height;
            const double depth =
                1 / (a * t[0]->inverseDepth + b * t[1]->inverseDepth + c * t[2]->inverseDepth);
            const Vec2 uv = (a * t[0]->texture + b * t[1]->texture + c * t[2]->texture) * depth;
            std::uint32_t colour = stuff.texture ? sample(*stuff.texture, uv) : stuff.colour;
            if (view.shaded) {
                const Vec3 normal = (a * t[0]->normal + b * t[1]->normal + c * t[2]->normal).normalized();
                colour = lit(colour, shadeOf(normal, view.gloss));
            }
            canvas.pixels[at] =
                stuff.opacity >= 1 ? colour : blended(canvas.pixels[at], colour, stuff.opacity);
            if (stuff.opacity >= 1) canvas.texture[at] = stuff.texture ? uv : Vec2(-1, -1);
        }
    }
}

/// Averages blocks of samples x samples pixels; the pick of a pixel is that of its first drawn sample.
Rendered reduced(const Canvas& canvas, int width, int height, int samples) {
    Rendered out;
    out.image = {width, height, std::vector<std::uint32_t>(static_cast<std::size_t>(width * height), 0u)};
    out.texture.assign(out.image.pixels.size(), Vec2(-1, -1));
    const int count = samples * samples;
    for (int y = 0; y < height; ++y) {
        for (int x = 0; x < width; ++x) {
            const std::size_t to = static_cast<std::size_t>(y * width + x);
            std::array<unsigned, 4> sum{};
            for (int k = 0; k < count; ++k) {
                const std::size_t from = static_cast<std::size_t>((y * samples + k / samples) * canvas.width +
                                                                  x * samples + k % samples);
                for (unsigned c = 0; c < 4; ++c) sum[c] += canvas.pixels[from] >> (8 * c) & 255u;
                if (out.texture[to].x() < 0) out.texture[to] = canvas.texture[from];
            }
            for (unsigned c = 0; c < 4; ++c) {
                out.image.pixels[to] |= (sum[c] / static_cast<unsigned>(count)) << (8 * c);
            }
        }
    }
    return out;
}

void drawMesh(const TexturedMesh& mesh, const Stuff& stuff, const View3& view, double scale, Canvas& canvas,
              const Task& task) {
    // In one piece: the inner loop of drawing; parts would cost time.
    const Eigen::Matrix3d rotation = rotationOf(view);
    const double focal = view.distance_mm > 0 ? view.distance_mm * scale : scale;
    std::vector<Corner> corners;
    corners.reserve(mesh.points.size());
    for (std::size_t i = 0; i < mesh.points.size(); ++i) {
        corners.push_back({rotation * (mesh.points[i].position - view.target),
                           rotation * mesh.points[i].normal, mesh.texture[i]});
    }
    const auto screenOf = [&](const Corner& c) {
        const double inverse = 1 / depthOf(view, c.eye);
        return ScreenCorner{0.5 * canvas.width + focal * c.eye.x() * inverse,
                            0.5 * canvas.height - focal * c.eye.y() * inverse,
                            inverse,
                            view.distance_mm > 0 ? inverse : c.eye.z(),
                            c.normal * inverse,
                            c.texture * inverse};
    };
    // Shaded bodies are closed: what faces away all round is hidden behind what does not.
    const auto away = [&](const Corner& c) {
        const double toEye =
            view.distance_mm > 0 ? view.distance_mm * c.normal.z() - c.eye.dot(c.normal) : c.normal.z();
        return view.shaded && toEye < 0;
    };
    std::vector<ScreenCorner> screen;
    std::vector<char> behind, hidden;
    screen.reserve(corners.size());
    for (const Corner& c : corners) {
        behind.push_back(depthOf(view, c.eye) < kNearPlane_mm);
        hidden.push_back(away(c));
        screen.push_back(screenOf(c));
    }
    std::vector<Corners> triangles;
    triangles.reserve(mesh.triangles.size());
    for (const Triangle& t : mesh.triangles) {
        const Corners k{static_cast<std::uint32_t>(t[0]), static_cast<std::uint32_t>(t[1]),
                        static_cast<std::uint32_t>(t[2])};
        if (hidden[k[0]] && hidden[k[1]] && hidden[k[2]]) continue;
        if (!behind[k[0]] && !behind[k[1]] && !behind[k[2]]) {
            triangles.push_back(k);
            continue;
        }
        std::array<Corner, 4> clipped;
        const int count = clipNear(view, {corners[k[0]], corners[k[1]], corners[k[2]]}, clipped);
        const auto first = static_cast<std::uint32_t>(screen.size());
        for (int i = 0; i < count; ++i) screen.push_back(screenOf(clipped[static_cast<std::size_t>(i)]));
        for (std::uint32_t i = 2; i < static_cast<std::uint32_t>(count); ++i)
            triangles.push_back({first, first + i - 1, first + i});
    }
    const std::size_t bands = static_cast<std::size_t>((canvas.height + kBandRows - 1) / kBandRows);
    std::vector<std::vector<std::uint32_t>> inBand(bands);
    for (std::size_t i = 0; i < triangles.size(); ++i) {
        const Corners& k = triangles[i];
        const auto [low, high] = std::minmax({screen[k[0]].y, screen[k[1]].y, screen[k[2]].y});
        if (!(high >= 0 && low <= canvas.height)) continue;
        const auto from = static_cast<std::size_t>(std::max(0.0, std::floor(low))) / kBandRows;
        const auto to = static_cast<std::size_t>(std::min(canvas.height - 1.0, std::ceil(high))) / kBandRows;
        for (std::size_t band = from; band <= to; ++band)
            inBand[band].push_back(static_cast<std::uint32_t>(i));
    }
    forEachInParallel(bands, [&](std::size_t band) {
        const int from = static_cast<int>(band) * kBandRows, to = std::min(canvas.height, from + kBandRows);
        if (task.cancelled()) return;
        for (const std::uint32_t i : inBand[band]) {
            const Corners& k = triangles[i];
            fill({&screen[k[0]], &screen[k[1]], &screen[k[2]]}, from, to, stuff, view, canvas);
        }
    });
}

}  // namespace

Rendered render(const TexturedMesh& mesh, const Image& texture, const View3& view, int width, int height,
                int samples, const Task& task) {
    return render(mesh, texture, {}, view, width, height, samples, task);
}

Rendered render(const TexturedMesh& mesh, const Image& texture, const std::vector<Solid>& solids,
                const View3& view, int width, int height, int samples, const Task& task) {
    const double scale = view.pixelsPerMm * samples;
    Canvas canvas{width * samples, height * samples, {}, {}, {}};
    const std::size_t size = static_cast<std::size_t>(canvas.width) * static_cast<std::size_t>(canvas.height);
    canvas.nearest.assign(size, -1e300);
    canvas.pixels.assign(size, 0u);
    canvas.texture.assign(size, Vec2(-1, -1));
    drawMesh(mesh, {&texture, 0, 1}, view, scale, canvas, task);
    for (const bool glass : {false, true})
        for (const Solid& solid : solids)
            if ((solid.opacity < 1) == glass)
                drawMesh(solid.mesh, {nullptr, solid.colour, solid.opacity}, view, scale, canvas, task);
    if (task.cancelled()) return {};
    return reduced(canvas, width, height, samples);
}

Vec2 projected(const View3& view, int width, int height, const Vec3& point) {
    const Vec3 eye = rotationOf(view) * (point - view.target);
    const double scale = view.distance_mm > 0 ? view.pixelsPerMm * view.distance_mm /
                                                    std::max(kNearPlane_mm, depthOf(view, eye))
                                              : view.pixelsPerMm;
    return {0.5 * width + scale * eye.x(), 0.5 * height - scale * eye.y()};
}

double facing(const View3& view, const SurfacePoint& point) {
    const Eigen::Matrix3d rotation = rotationOf(view);
    const Vec3 normal = rotation * point.normal;
    if (view.distance_mm <= 0) return normal.z();
    const Vec3 toEye = Vec3(0, 0, view.distance_mm) - rotation * (point.position - view.target);
    return normal.dot(toEye.normalized());
}

}  // namespace nine
