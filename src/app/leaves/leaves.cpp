#include "app/leaves/leaves.h"

#include "app/leaves/bench/bench_leaf.h"
#include "app/leaves/blank/blank_leaf.h"
#include "app/leaves/cut/cut_leaf.h"
#include "app/leaves/layers/layers_leaf.h"
#include "app/leaves/log/log_leaf.h"
#include "app/leaves/masks/masks_leaf.h"
#include "app/leaves/pattern/pattern_leaf.h"
#include "app/leaves/scales/scales_leaf.h"
#include "app/leaves/spray/spray_leaf.h"

namespace nine::app {
namespace {

template <typename L>
Leaf* made(LeafContext context, QObject* parent) {
    return new L(context, parent);
}

}  // namespace

const std::vector<LeafPlace>& leafPlaces() {
    static const std::vector<LeafPlace> all{
        {QT_TRANSLATE_NOOP("leaf", "Blank"), "blank", made<BlankLeaf>, helpOnBlank},
        {QT_TRANSLATE_NOOP("leaf", "Pattern"), "pattern", made<PatternLeaf>, helpOnPattern},
        {QT_TRANSLATE_NOOP("leaf", "Layers"), "layers", made<LayersLeaf>, helpOnLayers},
        {QT_TRANSLATE_NOOP("leaf", "Scales"), "scales", made<ScalesLeaf>, helpOnScales},
        {QT_TRANSLATE_NOOP("leaf", "Masks"), "masks", made<MasksLeaf>, helpOnMasks},
        {QT_TRANSLATE_NOOP("leaf", "Cut"), "cut", made<CutLeaf>, helpOnCut},
        {QT_TRANSLATE_NOOP("leaf", "Spray"), "spray", made<SprayLeaf>, helpOnSpray},
        {QT_TRANSLATE_NOOP("leaf", "Bench"), "bench", made<BenchLeaf>, helpOnBench},
        {QT_TRANSLATE_NOOP("leaf", "Log"), "log", made<LogLeaf>, helpOnLog},
    };
    return all;
}

}  // namespace nine::app
