#include "pattern/kinds.h"

#include <algorithm>
#include <cmath>

#include "base/rng.h"
#include "pattern/element.h"
#include "pattern/kind/list.h"

namespace nine {

#define NINE_DECLARED(kind) const Kind& kind##Kind();
NINE_KINDS(NINE_DECLARED)
#undef NINE_DECLARED

std::span<const Kind* const> kinds() {
#define NINE_LISTED(kind) &kind##Kind(),
    static const std::vector<const Kind*> all{NINE_KINDS(NINE_LISTED)};
#undef NINE_LISTED
    return all;
}

const Kind* findKind(std::string_view id) {
    for (const Kind* kind : kinds())
        if (kind->id() == id) return kind;
    return nullptr;
}

const Param* findParam(const Kind& kind, std::string_view key) {
    for (const Param& p : kind.params())
        if (p.key == key) return &p;
    return nullptr;
}

std::uint64_t DrawOn::seedOf(double seed) const {
    return scrambled(static_cast<std::uint64_t>(seed) + (otherSide ? 100003 : 0));
}

void moveHandle(const Handle& handle, Element& element, const Vec2& by, const MoveOn& on) {
    if (handle.move) return handle.move(element, by, on);
    for (const HandleMove& move : handle.moves) {
        const double step = move.perAhead * by.x() + move.perUp * by.y();
        if (move.key.empty() || step == 0) continue;
        if (move.key == "dx_mm")
            element.dx_mm += step;
        else if (move.key == "dg_mm")
            element.dg_mm += step;
        else
            element.values.set(move.key, element.values.number(move.key) + step);
    }
}

namespace {

struct FamilyName {
    std::string_view id;
    Pattern name;
};
constexpr FamilyName kFamilies[] = {{"rows", NINE_WORDS("core", "Rows")},
                                    {"crossbars", NINE_WORDS("core", "Bars")},
                                    {"lines", NINE_WORDS("core", "Lines and bands")},
                                    {"fields", NINE_WORDS("core", "Fields")},
                                    {"head", NINE_WORDS("core", "Head")},
                                    {"crayfish", NINE_WORDS("core", "Crayfish")},
                                    {"fins", NINE_WORDS("core", "Fins")},
                                    {"wounds", NINE_WORDS("core", "Wounds and bones")},
                                    {"own", NINE_WORDS("core", "Your own")},
                                    {"derived", NINE_WORDS("core", "Round a mark")},
                                    {"fades", NINE_WORDS("core", "Fades")}};

}  // namespace

Pattern nameOf(Family family) {
    return kFamilies[static_cast<std::size_t>(family)].name;
}

std::string_view idOf(Family family) {
    return kFamilies[static_cast<std::size_t>(family)].id;
}

Values usualValues(const Kind& kind) {
    return usualValues(kind.params());
}

Status checkValues(const Kind& kind, const Values& values, const std::string& path) {
    if (Status ok = checkValues(kind.params(), values, path); !ok) return ok;
    return kind.check(values, path);
}

double factorOf(Refit refit, double length, double girth) {
    switch (refit) {
        case Refit::WithLength:
            return length;
        case Refit::WithGirth:
            return girth;
        case Refit::WithGirthRoot:
            return std::sqrt(girth);
        case Refit::Fixed:
            break;
    }
    return 1;
}

Values lessened(const Kind& kind, Values values, double height, double count, double size) {
    for (const Param& p : kind.params()) {
        const double v = values.number(p.key);
        if (p.lessen == Lessen::Fewer) values.set(p.key, std::max(p.low, std::floor(count * v)));
        if (p.lessen == Lessen::Smaller) values.set(p.key, std::max(p.low, std::round(100 * size * v) / 100));
        if (p.lessen == Lessen::Lower) values.set(p.key, std::round(100 * size * height * v) / 100);
    }
    return values;
}

}  // namespace nine
