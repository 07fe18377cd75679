#include "mask/mask_spec.h"

#include "mask/lift.h"

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

double pressureOf_kpa(Pressed pressed) {
    switch (pressed) {
        case Pressed::Light:
            return 1;
        case Pressed::Held:
            return 50;
        default:
            return kFingerPressure_kpa;
    }
}

const char* pressedName(Pressed pressed) {
    switch (pressed) {
        case Pressed::Light:
            return "light";
        case Pressed::Held:
            return "held";
        default:
            return "fingertip";
    }
}

const char* cutoutsName(Cutouts cutouts) {
    switch (cutouts) {
        case Cutouts::Kept:
            return "kept";
        case Cutouts::OnCarrier:
            return "carrier";
        default:
            return "dropped";
    }
}

const char* coversName(Covers covers) {
    switch (covers) {
        case Covers::Cutouts:
            return "cutouts";
        case Covers::InTurn:
            return "in_turn";
        default:
            return "sheet";
    }
}

}  // namespace nine
