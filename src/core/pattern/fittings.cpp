#include "pattern/fittings.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace nine {
namespace {

constexpr std::array<double, 3> kEyeShares{1, 0.86, 0.46};  // rim, iris, pupil
constexpr std::array<std::uint32_t, 3> kEyeColours{0xFF23241C, 0xFFD0A23C, 0xFF15140F};
constexpr double kRing_mm = 1.6, kWire_mm = 0.32;  // radii of a hook eye and of its wire
constexpr double kBillThick_mm = 1;
constexpr std::uint32_t kWireColour = 0xFFA9ADB0, kGlassColour = 0xFFBFD9DD;

void addPoint(TexturedMesh& mesh, const Vec3& at, const Vec3& normal) {
    mesh.points.push_back({at, normal.normalized()});
    mesh.texture.emplace_back(0, 0);
}

/// A ring of wire that stands on the skin in the plane along the body, half sunk.
Solid wireRing(const SurfacePoint& on) {
    constexpr int kAround = 28, kAcross = 8;
    Solid ring;
    ring.colour = kWireColour;
    Vec3 out = on.normal;
    out.y() = 0;  // hook eyes stand upright in the middle plane
    if (out.squaredNorm() < 1e-6) out = Vec3::UnitZ();
    out.normalize();
    const Vec3 along = Vec3::UnitY().cross(out).normalized(), side = Vec3::UnitY();
    const Vec3 middle(on.position.x() + 0.75 * kRing_mm * out.x(), 0,
                      on.position.z() + 0.75 * kRing_mm * out.z());
    for (int i = 0; i < kAround; ++i) {
        const double a = 2 * kPi * i / kAround;
        const Vec3 radial = std::cos(a) * out + std::sin(a) * along;
        for (int k = 0; k < kAcross; ++k) {
            const double b = 2 * kPi * k / kAcross;
            const Vec3 normal = std::cos(b) * radial + std::sin(b) * side;
            addPoint(ring.mesh, middle + kRing_mm * radial + kWire_mm * normal, normal);
        }
    }
    for (int i = 0; i < kAround; ++i) {
        for (int k = 0; k < kAcross; ++k) {
            const int n = (i + 1) % kAround, m = (k + 1) % kAcross;
            const int a = i * kAcross + k, b = n * kAcross + k, c = n * kAcross + m, d = i * kAcross + m;
            ring.mesh.triangles.push_back({a, b, c});
            ring.mesh.triangles.push_back({a, c, d});
        }
    }
    return ring;
}

/// A plate rounded at its far end, from the slot forwards and down.
Solid billPlate(const Skin& skin, const Landmark& slot) {
    Solid bill;
    bill.colour = kGlassColour;
    bill.opacity = 0.55;
    Vec2 from = Vec2::Zero();
    for (const Vec2& p : slot.points) from += p / static_cast<double>(slot.points.size());
    Vec3 root = skin.at({Side::Left, from.x(), from.y()}).position;
    root.y() = 0;
    const double angle = degToRad(slot.angle_deg);
    const Vec3 ahead(-std::cos(angle), 0, -std::sin(angle)), up(-std::sin(angle), 0, std::cos(angle));
    const Polygon2 rim = billOutline(slot);
    const auto at = [&](const Vec2& p, double lift) {
        return Vec3(root + p.x() * ahead + p.y() * Vec3::UnitY() + lift * up);
    };
    const auto n = static_cast<int>(rim.size());
    for (const double way : {0.5, -0.5}) {
        const int first = static_cast<int>(bill.mesh.points.size());
        for (const Vec2& p : rim) addPoint(bill.mesh, at(p, way * kBillThick_mm), way * up);
        for (int k = 1; k + 1 < n; ++k) bill.mesh.triangles.push_back({first, first + k, first + k + 1});
    }
    for (int k = 0; k < n; ++k) {  // the edge, which shows from the side
        const Vec2 &a = rim[static_cast<std::size_t>(k)], &b = rim[static_cast<std::size_t>((k + 1) % n)];
        const Vec2 out(a.y() - b.y(), b.x() - a.x());
        const Vec3 normal = -out.x() * ahead - out.y() * Vec3::UnitY();
        const int first = static_cast<int>(bill.mesh.points.size());
        for (const Vec2& p : {a, b})
            for (const double way : {0.5, -0.5}) addPoint(bill.mesh, at(p, way * kBillThick_mm), normal);
        bill.mesh.triangles.push_back({first, first + 1, first + 3});
        bill.mesh.triangles.push_back({first, first + 3, first + 2});
    }
    return bill;
}

}  // namespace

Polygon2 billOutline(const Landmark& slot) {
    constexpr int kSteps = 24;
    constexpr double kInSlot_mm = 2, kRootWidth = 0.32;  // of the width, on both sides
    Polygon2 rim;
    const double round = std::min(0.5 * slot.width_mm, 0.45 * slot.length_mm);
    const double straight = slot.length_mm - round;
    rim.emplace_back(-kInSlot_mm, kRootWidth * slot.width_mm);
    for (int k = 0; k <= kSteps; ++k) {
        const double a = kPi * k / kSteps;
        rim.emplace_back(straight + round * std::sin(a), 0.5 * slot.width_mm * std::cos(a));
    }
    rim.emplace_back(-kInSlot_mm, -kRootWidth * slot.width_mm);
    return rim;
}

std::vector<EyeRing> eyeRings(const Skin& skin, const Landmarks& landmarks) {
    std::vector<EyeRing> rings;
    const auto eye = landmarks.find("eye");
    if (eye == landmarks.end() || eye->second.diameter_mm <= 0) return rings;
    for (std::size_t k = 0; k < kEyeShares.size(); ++k) {
        Result<ElementArt> art =
            drawRound(skin, eye->second.points.front(), kEyeShares[k] * eye->second.diameter_mm);
        if (!art) break;
        rings.push_back({std::make_shared<const ElementArt>(std::move(*art)), kEyeColours[k]});
    }
    return rings;
}

std::vector<Solid> fittingsOf(const Skin& skin, const Landmarks& landmarks) {
    std::vector<Solid> fittings;
    for (const char* name : {"line_tie", "belly_hanger", "tail_hanger"}) {
        const auto found = landmarks.find(name);
        if (found == landmarks.end() || found->second.points.empty()) continue;
        const Vec2& at = found->second.points.front();
        if (skin.check({Side::Left, at.x(), at.y()}, ""))
            fittings.push_back(wireRing(skin.at({Side::Left, at.x(), at.y()})));
    }
    const auto slot = landmarks.find("bill_slot");
    if (slot != landmarks.end() && slot->second.length_mm > 0 && slot->second.width_mm > 0)
        fittings.push_back(billPlate(skin, slot->second));
    return fittings;
}

}  // namespace nine
