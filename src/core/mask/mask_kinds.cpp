#include "mask/kind/list.h"
#include "mask/mask_kind.h"

#include <algorithm>

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

SheetPlan sheetOf(const Skin& skin, const Strip& strip, std::vector<const ElementArt*> opens) {
    const std::array<SkinPlace, 2> ends = endMarks(skin, strip);
    return {regionOf(skin, strip), std::move(opens), {ends[0], ends[1]}};
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
