#include "blank/families.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "base/number_text.h"
#include "blank/string_girth.h"

namespace nine {
namespace {

/// Along the length; above and below the axis over the height; half width over half the width.
using Shape = std::vector<std::array<double, 4>>;

/// A landmark by its share of the length and of the arc to the back line (+) or belly line (-). Diameters are
/// shares of the height, sizes of the bill shares of the length.
struct UsualPlace {
    const char* name;
    std::vector<Vec2> points;
    double diameter = 0, angle_deg = 0, length = 0, width = 0;
};

struct Kind {
    BodyFamily family;
    Shape shape;
    std::vector<UsualPlace> places;
};

/// Invented shapes; common practice, no published source.
const std::vector<Kind>& kinds() {
    // In one piece: a table.
    static const std::vector<Kind> all{
        {{"minnow", NINE_WORDS("core", "slim minnow with bill"),
          NINE_WORDS("core", "long and slim, dives by its bill"), 0.168, 0.131, 2.1},
         {{0, 0, 0, 0},
          {0.03, 0.229, 0.223, 0.515},
          {0.08, 0.326, 0.343, 0.75},
          {0.16, 0.406, 0.446, 0.897},
          {0.28, 0.451, 0.52, 1},
          {0.42, 0.457, 0.543, 1},
          {0.56, 0.417, 0.514, 0.912},
          {0.7, 0.349, 0.434, 0.735},
          {0.82, 0.269, 0.326, 0.544},
          {0.91, 0.183, 0.229, 0.368},
          {0.97, 0.097, 0.12, 0.176},
          {1, 0, 0, 0}},
         {{"nose", {{0, 0}}},
          {"line_tie", {{0.018, -0.35}}},
          {"bill_slot",
           {{0.045, -0.78}, {0.067, -0.86}, {0.075, -1}, {0.037, -1}, {0.033, -0.86}, {0.045, -0.78}},
           0,
           24,
           0.17,
           0.13},
          {"mouth_corner", {{0.055, -0.28}}},
          {"eye", {{0.082, 0.22}}, 0.3},
          {"gill_plate", {{0.155, 0.78}, {0.172, 0.4}, {0.178, 0}, {0.172, -0.4}, {0.155, -0.8}}},
          {"pectoral_root", {{0.185, -0.55}, {0.2, -0.68}}},
          {"dorsal_root", {{0.46, 1}, {0.58, 1}}},
          {"pelvic_root", {{0.46, -0.75}, {0.48, -0.85}}},
          {"anal_root", {{0.66, -1}, {0.76, -1}}},
          {"lateral_line", {{0.178, 0.22}, {0.45, 0.12}, {0.7, 0.05}, {0.95, 0}}},
          {"fish_line", {{0.178, 0.28}, {0.45, 0.17}, {0.7, 0.07}, {0.95, 0}}},
          {"back_line", {{0.06, 1}, {0.25, 1}, {0.5, 1}, {0.75, 1}, {0.94, 1}}},
          {"belly_line", {{0.08, -1}, {0.25, -1}, {0.5, -1}, {0.75, -1}, {0.94, -1}}},
          {"belly_hanger", {{0.36, -1}}},
          {"tail_hanger", {{0.985, 0}}},
          {"tail_root", {{0.93, 0}}},
          {"seam", {{0.03, 1}, {0.25, 1}, {0.5, 1}, {0.75, 1}, {0.97, 1}}}}},
        {{"round", NINE_WORDS("core", "fat round crankbait"),
          NINE_WORDS("core", "short and round, deep belly, bill"), 0.512, 0.46, 2.2},
         {{0, 0, 0, 0},
          {0.03, 0.166, 0.208, 0.399},
          {0.08, 0.264, 0.329, 0.623},
          {0.16, 0.349, 0.443, 0.826},
          {0.28, 0.414, 0.534, 0.964},
          {0.42, 0.43, 0.57, 1},
          {0.56, 0.401, 0.541, 0.913},
          {0.7, 0.339, 0.463, 0.754},
          {0.82, 0.254, 0.349, 0.551},
          {0.91, 0.163, 0.231, 0.355},
          {0.97, 0.085, 0.121, 0.167},
          {1, 0, 0, 0}},
         {{"nose", {{0, 0}}},
          {"line_tie", {{0.043, -0.3}}},
          {"bill_slot",
           {{0.1, -0.78}, {0.122, -0.86}, {0.13, -1}, {0.092, -1}, {0.088, -0.86}, {0.1, -0.78}},
           0,
           38,
           0.32,
           0.25},
          {"mouth_corner", {{0.09, -0.22}}},
          {"eye", {{0.158, 0.22}}, 0.195},
          {"gill_plate", {{0.235, 0.72}, {0.268, 0.4}, {0.285, 0}, {0.276, -0.3}, {0.24, -0.68}}},
          {"pectoral_root", {{0.3, -0.5}, {0.33, -0.62}}},
          {"dorsal_root", {{0.42, 1}, {0.6, 1}}},
          {"pelvic_root", {{0.52, -0.72}, {0.55, -0.82}}},
          {"anal_root", {{0.7, -1}, {0.83, -1}}},
          {"lateral_line", {{0.274, 0.22}, {0.45, 0.12}, {0.7, 0.05}, {0.95, 0}}},
          {"fish_line", {{0.274, 0.28}, {0.45, 0.17}, {0.7, 0.07}, {0.95, 0}}},
          {"back_line", {{0.06, 1}, {0.25, 1}, {0.5, 1}, {0.75, 1}, {0.94, 1}}},
          {"belly_line", {{0.08, -1}, {0.25, -1}, {0.5, -1}, {0.75, -1}, {0.94, -1}}},
          {"belly_hanger", {{0.45, -1}}},
          {"tail_hanger", {{0.97, 0}}},
          {"tail_root", {{0.94, 0}}},
          {"seam", {{0.03, 1}, {0.25, 1}, {0.5, 1}, {0.75, 1}, {0.97, 1}}}}},
        {{"flat", NINE_WORDS("core", "flat-sided crankbait"),
          NINE_WORDS("core", "tall, flat cheeks and sides, bill"), 0.46, 0.194, 4},
         {{0, 0, 0, 0},
          {0.029, 0.174, 0.174, 0.508},
          {0.08, 0.274, 0.284, 0.698},
          {0.16, 0.368, 0.395, 0.841},
          {0.28, 0.445, 0.492, 0.968},
          {0.42, 0.468, 0.532, 1},
          {0.56, 0.445, 0.505, 0.968},
          {0.7, 0.381, 0.438, 0.889},
          {0.82, 0.284, 0.334, 0.73},
          {0.909, 0.194, 0.224, 0.54},
          {0.969, 0.104, 0.117, 0.333},
          {1, 0, 0, 0}},
         {{"nose", {{0, 0}}},
          {"line_tie", {{0.04, -0.28}}},
          {"bill_slot",
           {{0.09, -0.78}, {0.112, -0.86}, {0.12, -1}, {0.082, -1}, {0.078, -0.86}, {0.09, -0.78}},
           0,
           34,
           0.27,
           0.2},
          {"mouth_corner", {{0.085, -0.2}}},
          {"eye", {{0.15, 0.24}}, 0.19},
          {"gill_plate", {{0.225, 0.74}, {0.255, 0.4}, {0.27, 0}, {0.262, -0.35}, {0.23, -0.72}}},
          {"pectoral_root", {{0.29, -0.5}, {0.32, -0.6}}},
          {"dorsal_root", {{0.4, 1}, {0.6, 1}}},
          {"pelvic_root", {{0.5, -0.74}, {0.53, -0.84}}},
          {"anal_root", {{0.68, -1}, {0.82, -1}}},
          {"lateral_line", {{0.261, 0.22}, {0.45, 0.12}, {0.7, 0.05}, {0.95, 0}}},
          {"fish_line", {{0.261, 0.28}, {0.45, 0.17}, {0.7, 0.07}, {0.95, 0}}},
          {"back_line", {{0.06, 1}, {0.25, 1}, {0.5, 1}, {0.75, 1}, {0.94, 1}}},
          {"belly_line", {{0.08, -1}, {0.25, -1}, {0.5, -1}, {0.75, -1}, {0.94, -1}}},
          {"belly_hanger", {{0.43, -1}}},
          {"tail_hanger", {{0.97, 0}}},
          {"tail_root", {{0.94, 0}}},
          {"seam", {{0.03, 1}, {0.25, 1}, {0.5, 1}, {0.75, 1}, {0.97, 1}}}}},
        {{"cigar", NINE_WORDS("core", "cigar topwater"),
          NINE_WORDS("core", "round and slender, no bill, floats"), 0.167, 0.168, 2},
         {{0, 0, 0, 0},
          {0.031, 0.193, 0.183, 0.384},
          {0.08, 0.284, 0.284, 0.586},
          {0.16, 0.371, 0.386, 0.768},
          {0.28, 0.457, 0.467, 0.939},
          {0.42, 0.487, 0.513, 1},
          {0.56, 0.472, 0.513, 0.97},
          {0.7, 0.416, 0.457, 0.859},
          {0.82, 0.335, 0.371, 0.687},
          {0.91, 0.244, 0.259, 0.505},
          {0.969, 0.137, 0.147, 0.293},
          {1, 0, 0, 0}},
         {{"nose", {{0, 0}}},
          {"line_tie", {{0.02, 0}}},
          {"mouth_corner", {{0.05, -0.2}}},
          {"eye", {{0.085, 0.3}}, 0.3},
          {"gill_plate", {{0.15, 0.75}, {0.165, 0.4}, {0.17, 0}, {0.165, -0.4}, {0.15, -0.75}}},
          {"pectoral_root", {{0.18, -0.5}, {0.195, -0.62}}},
          {"dorsal_root", {{0.48, 1}, {0.58, 1}}},
          {"pelvic_root", {{0.5, -0.72}, {0.52, -0.8}}},
          {"anal_root", {{0.7, -1}, {0.8, -1}}},
          {"lateral_line", {{0.171, 0.22}, {0.45, 0.12}, {0.7, 0.05}, {0.95, 0}}},
          {"fish_line", {{0.171, 0.28}, {0.45, 0.17}, {0.7, 0.07}, {0.95, 0}}},
          {"back_line", {{0.06, 1}, {0.25, 1}, {0.5, 1}, {0.75, 1}, {0.94, 1}}},
          {"belly_line", {{0.08, -1}, {0.25, -1}, {0.5, -1}, {0.75, -1}, {0.94, -1}}},
          {"belly_hanger", {{0.33, -1}}},
          {"tail_hanger", {{0.985, 0}}},
          {"tail_root", {{0.94, 0}}},
          {"seam", {{0.03, 1}, {0.25, 1}, {0.5, 1}, {0.75, 1}, {0.97, 1}}}}},
        {{"lipless", NINE_WORDS("core", "lipless vibrating"),
          NINE_WORDS("core", "flat and deep, back hump, no bill"), 0.393, 0.171, 2.6},
         {{0, 0, 0, 0},
          {0.03, 0.258, 0.153, 0.45},
          {0.08, 0.385, 0.24, 0.633},
          {0.16, 0.484, 0.338, 0.85},
          {0.28, 0.556, 0.415, 0.967},
          {0.42, 0.56, 0.44, 1},
          {0.56, 0.513, 0.422, 0.95},
          {0.7, 0.422, 0.353, 0.833},
          {0.82, 0.313, 0.262, 0.617},
          {0.91, 0.204, 0.167, 0.45},
          {0.97, 0.102, 0.076, 0.217},
          {1, 0, 0, 0}},
         {{"nose", {{0, 0}}},
          {"line_tie", {{0.3, 1}}},
          {"mouth_corner", {{0.075, -0.2}}},
          {"eye", {{0.14, 0.25}}, 0.2},
          {"gill_plate", {{0.22, 0.76}, {0.25, 0.4}, {0.262, 0}, {0.255, -0.38}, {0.225, -0.76}}},
          {"pectoral_root", {{0.28, -0.5}, {0.31, -0.62}}},
          {"dorsal_root", {{0.4, 1}, {0.56, 1}}},
          {"pelvic_root", {{0.5, -0.74}, {0.53, -0.84}}},
          {"anal_root", {{0.68, -1}, {0.8, -1}}},
          {"lateral_line", {{0.256, 0.22}, {0.45, 0.12}, {0.7, 0.05}, {0.95, 0}}},
          {"fish_line", {{0.256, 0.28}, {0.45, 0.17}, {0.7, 0.07}, {0.95, 0}}},
          {"back_line", {{0.06, 1}, {0.25, 1}, {0.5, 1}, {0.75, 1}, {0.94, 1}}},
          {"belly_line", {{0.08, -1}, {0.25, -1}, {0.5, -1}, {0.75, -1}, {0.94, -1}}},
          {"belly_hanger", {{0.38, -1}}},
          {"tail_hanger", {{0.975, 0}}},
          {"tail_root", {{0.94, 0}}},
          {"seam", {{0.03, 1}, {0.25, 1}, {0.5, 1}, {0.75, 1}, {0.97, 1}}}}},
        {{"popper", NINE_WORDS("core", "popper with cup face"),
          NINE_WORDS("core", "cut-off hollow face that splashes"), 0.26, 0.24, 2},
         {{0, 0.4, 0.42, 0.8},
          {0.03, 0.425, 0.45, 0.87},
          {0.1, 0.45, 0.48, 0.94},
          {0.22, 0.475, 0.52, 1},
          {0.36, 0.48, 0.515, 0.985},
          {0.5, 0.45, 0.475, 0.9},
          {0.64, 0.385, 0.405, 0.76},
          {0.78, 0.295, 0.31, 0.57},
          {0.9, 0.19, 0.2, 0.36},
          {0.97, 0.1, 0.105, 0.19},
          {1, 0, 0, 0}},
         {{"nose", {{0, 0}}},
          {"line_tie", {{0.004, 0}}},
          {"mouth_corner", {{0.03, -0.5}}},
          {"eye", {{0.12, 0.3}}, 0.24},
          {"gill_plate", {{0.2, 0.75}, {0.22, 0.4}, {0.228, 0}, {0.222, -0.4}, {0.2, -0.75}}},
          {"pectoral_root", {{0.24, -0.5}, {0.27, -0.62}}},
          {"dorsal_root", {{0.46, 1}, {0.58, 1}}},
          {"pelvic_root", {{0.5, -0.72}, {0.53, -0.8}}},
          {"anal_root", {{0.68, -1}, {0.78, -1}}},
          {"lateral_line", {{0.226, 0.22}, {0.45, 0.12}, {0.7, 0.05}, {0.95, 0}}},
          {"fish_line", {{0.226, 0.28}, {0.45, 0.17}, {0.7, 0.07}, {0.95, 0}}},
          {"back_line", {{0.06, 1}, {0.25, 1}, {0.5, 1}, {0.75, 1}, {0.94, 1}}},
          {"belly_line", {{0.08, -1}, {0.25, -1}, {0.5, -1}, {0.75, -1}, {0.94, -1}}},
          {"belly_hanger", {{0.4, -1}}},
          {"tail_hanger", {{0.98, 0}}},
          {"tail_root", {{0.93, 0}}},
          {"seam", {{0.03, 1}, {0.25, 1}, {0.5, 1}, {0.75, 1}, {0.97, 1}}}}},
        {{"wake", NINE_WORDS("core", "wake bait"),
          NINE_WORDS("core", "stout, with a steep bill near the nose"), 0.28, 0.22, 2.2},
         {{0, 0, 0, 0},
          {0.03, 0.22, 0.2, 0.38},
          {0.08, 0.31, 0.31, 0.6},
          {0.16, 0.39, 0.42, 0.82},
          {0.28, 0.435, 0.53, 0.97},
          {0.42, 0.44, 0.56, 1},
          {0.56, 0.415, 0.525, 0.92},
          {0.7, 0.36, 0.44, 0.76},
          {0.82, 0.285, 0.33, 0.56},
          {0.91, 0.2, 0.22, 0.37},
          {0.97, 0.12, 0.125, 0.2},
          {1, 0, 0, 0}},
         {{"nose", {{0, 0}}},
          {"line_tie", {{0.02, 0.05}}},
          {"bill_slot",
           {{0.05, -0.78}, {0.072, -0.86}, {0.08, -1}, {0.042, -1}, {0.038, -0.86}, {0.05, -0.78}},
           0,
           68,
           0.12,
           0.17},
          {"mouth_corner", {{0.06, -0.2}}},
          {"eye", {{0.115, 0.24}}, 0.21},
          {"gill_plate", {{0.2, 0.75}, {0.222, 0.4}, {0.232, 0}, {0.225, -0.38}, {0.2, -0.74}}},
          {"pectoral_root", {{0.245, -0.5}, {0.27, -0.62}}},
          {"dorsal_root", {{0.42, 1}, {0.58, 1}}},
          {"pelvic_root", {{0.5, -0.73}, {0.53, -0.82}}},
          {"anal_root", {{0.68, -1}, {0.8, -1}}},
          {"lateral_line", {{0.228, 0.22}, {0.45, 0.12}, {0.7, 0.05}, {0.95, 0}}},
          {"fish_line", {{0.228, 0.28}, {0.45, 0.17}, {0.7, 0.07}, {0.95, 0}}},
          {"back_line", {{0.06, 1}, {0.25, 1}, {0.5, 1}, {0.75, 1}, {0.94, 1}}},
          {"belly_line", {{0.08, -1}, {0.25, -1}, {0.5, -1}, {0.75, -1}, {0.94, -1}}},
          {"belly_hanger", {{0.36, -1}}},
          {"tail_hanger", {{0.975, 0}}},
          {"tail_root", {{0.93, 0}}},
          {"seam", {{0.03, 1}, {0.25, 1}, {0.5, 1}, {0.75, 1}, {0.97, 1}}}}}};
    return all;
}

const Kind* kindOf(std::string_view id) {
    for (const Kind& kind : kinds())
        if (kind.family.id == id) return &kind;
    return nullptr;
}

double hundredth(double v) {
    return std::round(100 * v) / 100;
}

/// The kind's sizes at a share of the length, straight in the squares between its stations.
std::array<double, 3> sizesAt(const Shape& shape, double share) {
    std::size_t i = 1;
    while (i + 1 < shape.size() && shape[i][0] < share) ++i;
    const auto &a = shape[i - 1], &b = shape[i];
    const double t = std::clamp((share - a[0]) / (b[0] - a[0]), 0.0, 1.0);
    std::array<double, 3> out;
    for (std::size_t k = 0; k < 3; ++k)
        out[k] = std::sqrt((1 - t) * a[k + 1] * a[k + 1] + t * b[k + 1] * b[k + 1]);
    return out;
}

/// Factors at places, straight between them and level beyond.
double factorAt(const std::vector<std::pair<double, double>>& factors, double x) {
    if (factors.empty()) return 1;
    if (x <= factors.front().first) return factors.front().second;
    if (x >= factors.back().first) return factors.back().second;
    std::size_t i = 1;
    while (factors[i].first < x) ++i;
    const auto &a = factors[i - 1], &b = factors[i];
    const double s = (x - a.first) / (b.first - a.first),
                 t = s * s * (3 - 2 * s);  // no kinks at the readings
    return (1 - t) * a.second + t * b.second;
}

Error contradiction(Words words, std::string where) {
    return {"contradiction", std::move(words), std::move(where)};
}

Status checkReadings(const FamilyReadings& r) {
    if (!(r.length_mm > 0))
        return Error{"missing",
                     NINE_WORDS("core", "How long is the body, nose to tail without bill and rings?"),
                     "length_mm"};
    if (r.length_mm > kMaxBody_mm)
        return Error{
            "out_of_range",
            Words(NINE_WORDS("core", "A body up to {most} can be handled.")).length("most", kMaxBody_mm, 0),
            "length_mm"};
    const auto positive = [](const std::optional<double>& v) { return !v || (*v > 0 && *v < kMaxBody_mm); };
    if (!positive(r.height_mm))
        return contradiction(NINE_WORDS("core", "A height must be above 0."), "height_mm");
    if (!positive(r.width_mm))
        return contradiction(NINE_WORDS("core", "A width must be above 0."), "width_mm");
    for (std::size_t i = 0; i < r.places.size(); ++i) {
        const FamilyReading& p = r.places[i];
        const std::string where = "readings[" + std::to_string(i) + "]";
        const auto here = [&](Pattern pattern) { return Words(pattern).length("x", p.x_mm, 1); };
        if (!(p.x_mm > 0 && p.x_mm < r.length_mm))
            return contradiction(
                here(NINE_WORDS("core", "A reading at {x} is not between nose and tail ({length})."))
                    .length("length", r.length_mm, 1),
                where + ".x_mm");
        if (!positive(p.height_mm) || !positive(p.width_mm) || !positive(p.girth_mm))
            return contradiction(
                here(NINE_WORDS(
                    "core", "At {x} a size is 0 or less; the body is there all the way from nose to tail.")),
                where);
        if (p.height_mm && r.height_mm && *p.height_mm > *r.height_mm + 1e-9)
            return contradiction(
                here(NINE_WORDS(
                         "core",
                         "At {x} the body is {height} high, but {most} at most; one of the two is wrong."))
                    .length("height", *p.height_mm, 1)
                    .length("most", *r.height_mm, 1),
                where + ".height_mm");
        if (p.width_mm && r.width_mm && *p.width_mm > *r.width_mm + 1e-9)
            return contradiction(
                here(NINE_WORDS(
                         "core",
                         "At {x} the body is {width} wide, but {most} at most; one of the two is wrong."))
                    .length("width", *p.width_mm, 1)
                    .length("most", *r.width_mm, 1),
                where + ".width_mm");
        for (std::size_t k = 0; k < i; ++k) {
            if (std::abs(r.places[k].x_mm - p.x_mm) < 0.2)
                return contradiction(here(NINE_WORDS("core", "At {x} there are two readings; keep one.")),
                                     where + ".x_mm");
        }
    }
    return Done{};
}

}  // namespace

const std::vector<BodyFamily>& bodyFamilies() {
    static const std::vector<BodyFamily> list = [] {
        std::vector<BodyFamily> out;
        for (const Kind& kind : kinds()) out.push_back(kind.family);
        return out;
    }();
    return list;
}

const BodyFamily* findFamily(std::string_view id) {
    const Kind* kind = kindOf(id);
    return kind ? &kind->family : nullptr;
}

std::string_view likelyFamily(double heightShare, double widthShare) {
    const Kind* best = nullptr;
    double least = 1e18;
    for (const Kind& kind : kinds()) {
        const double a = std::log(heightShare / kind.family.heightShare),
                     b = std::log(widthShare / kind.family.widthShare);
        if (a * a + b * b < least) {
            least = a * a + b * b;
            best = &kind;
        }
    }
    return best->family.id;
}

Result<FamilyBody> bodyOfFamily(std::string_view family, const FamilyReadings& readings) {
    // In one piece: each block fills in what the one before left open, in the order readings are trusted.
    const Kind* kind = kindOf(family);
    if (!kind) {
        std::string known;
        for (const Kind& k : kinds()) known += (known.empty() ? "" : ", ") + std::string(k.family.id);
        return Error{"unknown_family",
                     Words(NINE_WORDS("core", "\"{family}\" is not a kind of body; there are {known}."))
                         .name("family", std::string(family))
                         .name("known", known),
                     "family"};
    }
    if (Status ok = checkReadings(readings); !ok) return ok.error();
    const double length = readings.length_mm;
    double tallest = 0, widest = 0;
    for (const FamilyReading& p : readings.places) {
        tallest = std::max(tallest, p.height_mm.value_or(0));
        widest = std::max(widest, p.width_mm.value_or(0));
    }
    const double height = readings.height_mm.value_or(std::max(tallest, kind->family.heightShare * length));
    const double width = readings.width_mm.value_or(std::max(widest, kind->family.widthShare * length));

    // Where readings stand, factors pull the kind's shape to them. The kind's own fullest place counts as
    // read when the largest sizes were.
    std::vector<std::pair<double, double>> tall, wide;
    const auto shapeAt = [&](double x) { return sizesAt(kind->shape, x / length); };
    double fullestX = 0, fullest = 0, widestX = 0, widestShare = 0;
    for (const auto& row : kind->shape) {
        if (row[1] + row[2] > fullest) {
            fullest = row[1] + row[2];
            fullestX = row[0] * length;
        }
        if (row[3] > widestShare) {
            widestShare = row[3];
            widestX = row[0] * length;
        }
    }
    for (const FamilyReading& p : readings.places) {
        const auto s = shapeAt(p.x_mm);
        if (p.height_mm) tall.emplace_back(p.x_mm, *p.height_mm / (height * (s[0] + s[1])));
        if (p.width_mm) wide.emplace_back(p.x_mm, *p.width_mm / (width * s[2]));
    }
    const auto settle = [](std::vector<std::pair<double, double>>& factors, double x, bool known) {
        const bool near = std::any_of(factors.begin(), factors.end(),
                                      [&](const auto& f) { return std::abs(f.first - x) < 2; });
        if (known && !near) factors.emplace_back(x, 1.0);
        std::sort(factors.begin(), factors.end());
    };
    settle(tall, fullestX, readings.height_mm.has_value());
    settle(wide, widestX, readings.width_mm.has_value());

    std::vector<double> xs;
    for (const auto& row : kind->shape) xs.push_back(hundredth(row[0] * length));
    for (const FamilyReading& p : readings.places) {
        // A reading takes the place of a station of the kind that stands close by.
        const double reach = 0.02 * length;
        xs.erase(std::remove_if(xs.begin() + 1, xs.end() - 1,
                                [&](double x) { return std::abs(x - p.x_mm) < reach; }),
                 xs.end() - 1);
        xs.insert(std::lower_bound(xs.begin(), xs.end(), p.x_mm), p.x_mm);
    }
    FamilyBody body;
    for (const double x : xs) {
        const auto s = shapeAt(x);
        const FamilyReading* read = nullptr;
        for (const FamilyReading& p : readings.places)
            if (p.x_mm == x) read = &p;
        Station station;
        station.x_mm = x;
        const double h =
            read && read->height_mm ? *read->height_mm : height * (s[0] + s[1]) * factorAt(tall, x);
        const double share = s[0] + s[1] > 0 ? s[0] / (s[0] + s[1]) : 0;
        station.top_mm = hundredth(h * share);
        station.bottom_mm = hundredth(h - station.top_mm);
        station.halfWidth_mm = hundredth(read && read->width_mm ? 0.5 * *read->width_mm
                                                                : 0.5 * width * s[2] * factorAt(wide, x));
        station.section = station.sectionLower = kind->family.section;
        const bool closed = s[0] == 0 && s[1] == 0;
        station.assumed = closed ? 0u : kAssumedAll;
        if (read && read->height_mm) station.assumed &= ~(kAssumedTop | kAssumedBottom);
        if (read && read->width_mm) station.assumed &= ~static_cast<unsigned>(kAssumedWidth);
        if (readings.height_mm && x == hundredth(fullestX))
            station.assumed &= ~(kAssumedTop | kAssumedBottom);
        if (readings.width_mm && x == hundredth(widestX))
            station.assumed &= ~static_cast<unsigned>(kAssumedWidth);
        if (read && read->girth_mm) {
            const Result<Station> fuller =
                withGirth(station, *read->girth_mm, Fuller::Both, "girth at " + fixedText(x, 1));
            if (!fuller) return fuller.error();
            station = *fuller;
            station.section = station.sectionLower = std::round(1000 * station.section) / 1000;
        }
        body.table.stations.push_back(station);
    }
    const Result<Skin> skin = Skin::of(body.table);
    if (!skin) {
        Error error = skin.error();
        error.code = "contradiction";
        error.text() = "These readings do not make a body: " + error.text();
        return error;
    }
    body.landmarks = usualLandmarks(family, *skin);
    return body;
}

Landmarks usualLandmarks(std::string_view family, const Skin& skin) {
    const Kind* kind = kindOf(family);
    Landmarks landmarks;
    if (!kind) return landmarks;
    double height = 0;
    for (const Station& s : skin.loft().stations()) height = std::max(height, s.top_mm + s.bottom_mm);
    for (const UsualPlace& place : kind->places) {
        Landmark landmark;
        for (const Vec2& p : place.points) {
            const double x = hundredth(skin.noseX_mm() + p.x() * skin.length_mm());
            const SectionArc arc = skin.arcAt(x);
            const double g = p.y() >= 0 ? p.y() * arc.backArc_mm() : p.y() * arc.bellyArc_mm();
            // Rounded towards the datum line, so that a point of the back line is not beyond it.
            landmark.points.emplace_back(x, std::trunc(100 * g) / 100);
        }
        landmark.diameter_mm = std::round(2 * place.diameter * height) / 2;
        landmark.angle_deg = place.angle_deg;
        landmark.length_mm = std::round(2 * place.length * skin.length_mm()) / 2;
        landmark.width_mm = std::round(2 * place.width * skin.length_mm()) / 2;
        landmark.assumed = true;
        landmarks[place.name] = std::move(landmark);
    }
    return landmarks;
}

}  // namespace nine
