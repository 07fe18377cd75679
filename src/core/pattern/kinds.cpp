#include "pattern/kinds.h"

#include <algorithm>
#include <cmath>

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

Values usualValues(const Kind& kind) {
    return usualValues(kind.params());
}

Status checkValues(const Kind& kind, const Values& values, const std::string& path) {
    if (Status ok = checkValues(kind.params(), values, path); !ok) return ok;
    return kind.check(values, path);
}

Values refitted(const Kind& kind, Values values, double length, double girth) {
    for (const Param& p : kind.params()) {
        if (p.refit == Refit::Fixed) continue;
        values.set(p.key, values.number(p.key) * (p.refit == Refit::WithLength ? length : girth));
    }
    return values;
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
