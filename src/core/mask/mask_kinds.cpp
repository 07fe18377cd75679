#include "mask/kind/list.h"
#include "mask/mask_kind.h"

#include <algorithm>
#include <cmath>

namespace nine {

#define NINE_DECLARED(kind) const MaskKind& kind##MaskKind();
NINE_MASK_KINDS(NINE_DECLARED)
#undef NINE_DECLARED

std::span<const MaskKind* const> maskKinds() {
#define NINE_LISTED(kind) &kind##MaskKind(),
    static const std::vector<const MaskKind*> all{NINE_MASK_KINDS(NINE_LISTED)};
#undef NINE_LISTED
    return all;
}

namespace {

bool clearOf(const std::vector<const ElementArt*>& opens, const Vec2& place, double distance_mm) {
    for (const ElementArt* art : opens)
        for (const Outline& outline : art->outlines()) {
            if (contains(outline.skin, place)) return false;
            for (const Vec2& p : outline.skin)
                if ((p - place).norm() < distance_mm) return false;
        }
    return true;
}

}  // namespace

SheetPlan sheetOf(const Skin& skin, const Strip& strip, std::vector<const ElementArt*> opens) {
    // A long sheet swings between its ends: marks between them, beside its windows.
    constexpr double kLongest_mm = 40, kClear_mm = 3, kAside_mm = 4;
    const std::array<SkinPlace, 2> ends = endMarks(skin, strip);
    SheetPlan plan{regionOf(skin, strip), std::move(opens), {ends[0]}};
    const double length = strip.x1_mm - strip.x0_mm;
    const int stretches = static_cast<int>(std::ceil(length / kLongest_mm));
    for (int k = 1; k < stretches; ++k) {
        const double x = strip.x0_mm + length * k / stretches;
        const Crossing c = strip.at(skin.arcAt(x));
        for (int aside = 0; aside < 9; ++aside) {
            const double g = c.core_mm + (aside % 2 ? 1 : -1) * kAside_mm * ((aside + 1) / 2);
            if (g < c.low_mm + kClear_mm || g > c.high_mm - kClear_mm) {
                if (aside > 0) continue;
            }
            if (!clearOf(plan.opens, Vec2(x, g), kClear_mm)) continue;
            plan.marks.emplace_back(x, g);
            break;
        }
    }
    // A sheet wider than it is long swings about its middle line: marks towards its edges.
    constexpr Ratio kWide = 1.2;
    const double middle = 0.5 * (strip.x0_mm + strip.x1_mm);
    const Crossing across = strip.at(skin.arcAt(middle));
    if (across.high_mm - across.low_mm > kWide * length)
        for (const double way : {-1.0, 1.0}) {
            const double edge = way < 0 ? across.low_mm : across.high_mm;
            for (double in = kMarkInset_mm; in < std::abs(edge - across.core_mm); in += 1) {
                const Vec2 at(middle, edge - way * in);
                if (!clearOf(plan.opens, at, kClear_mm)) continue;
                plan.marks.emplace_back(at);
                break;
            }
        }
    plan.marks.push_back(ends[1]);
    plan.marksOnLine = true;
    return plan;
}

namespace {

constexpr double kMarksApart_mm = 4;

bool crosses(const Polyline2& line, const Polygon2& ring) {
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        if (contains(ring, line[i]) || contains(ring, line[i + 1])) return true;
        for (std::size_t k = 0; k < ring.size(); ++k)
            if (linesCross(line[i], line[i + 1], ring[k], ring[(k + 1) % ring.size()])) return true;
    }
    return false;
}

Status checkSlits(const SheetPlan& plan, const std::vector<Slit>& slits, const std::string& where) {
    for (std::size_t s = 0; s < slits.size(); ++s)
        for (const ElementArt* art : plan.opens)
            for (const Outline& outline : art->outlines()) {
                if (outline.hole || !crosses(slits[s].line, outline.skin)) continue;
                return Error{
                    "slit_crosses_window",
                    Words(NINE_WORDS(
                              "core",
                              "The slit {x} from the nose runs through a window of \"{element}\". Move or "
                              "shorten it, or have the slits planned anew."))
                        .length("x", slits[s].line.front().x(), 0)
                        .name("element", art->element),
                    where};
            }
    return Done{};
}

}  // namespace

Result<std::vector<SheetPlan>> slitted(std::vector<SheetPlan> plans, const std::vector<Slit>& slits,
                                       const std::string& where) {
    std::vector<bool> used(slits.size(), false);
    for (SheetPlan& plan : plans) {
        std::vector<Slit> here;
        for (std::size_t s = 0; s < slits.size(); ++s) {
            if (slits[s].line.size() < 2 || !contains(plan.region.outer, slits[s].line.back())) continue;
            here.push_back(slits[s]);
            used[s] = true;
        }
        if (here.empty()) continue;
        plan.region = withSlits(std::move(plan.region), here);
        if (Status ok = checkSlits(plan, plan.region.slits, where); !ok) return ok.error();
        const SkinPlace last = plan.marks.back();
        plan.marks.pop_back();
        const std::vector<SkinPlace> before = plan.marks;
        for (const SkinPlace& mark : panelMarks(plan.region)) {
            const auto near = [&](const SkinPlace& m) { return (m - mark).norm() < kMarksApart_mm; };
            if (!near(last) && std::none_of(before.begin(), before.end(), near)) plan.marks.push_back(mark);
        }
        plan.marks.push_back(last);
    }
    for (std::size_t s = 0; s < slits.size(); ++s) {
        if (used[s]) continue;
        const double x = slits[s].line.empty() ? 0 : slits[s].line.front().x();
        return Error{
            "slit_lost",
            Words(NINE_WORDS("core",
                             "The slit {x} from the nose lies on no sheet of this mask. Take it out, or "
                             "have the slits planned anew."))
                .length("x", x, 0),
            where};
    }
    return plans;
}

const MaskKind* findMaskKind(std::string_view id) {
    for (const MaskKind* kind : maskKinds())
        if (kind->id() == id) return kind;
    return nullptr;
}

}  // namespace nine
