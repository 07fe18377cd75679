#include "mask/mask_spec.h"

namespace nine {

Laying layingOf(Apply apply) {
    switch (apply) {
        case Apply::Lateral:
            return Laying::FromMidline;
        case Apply::Back:
            return Laying::FromTopEdge;
        default:
            return Laying::Loose;
    }
}

const char* applyName(Apply apply) {
    switch (apply) {
        case Apply::Lateral:
            return "lateral";
        case Apply::Back:
            return "back";
        default:
            return "loose";
    }
}

}  // namespace nine
