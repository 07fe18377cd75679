#include "mask/kind/list.h"
#include "mask/mask_kind.h"

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

const MaskKind* findMaskKind(std::string_view id) {
    for (const MaskKind* kind : maskKinds())
        if (kind->id() == id) return kind;
    return nullptr;
}

}  // namespace nine
