// The kinds of elements there are, in the order they are offered: one line each.
//
// A list, not registration by static objects: a linker drops an object of a static library that nothing
// names.
#pragma once

#define NINE_KINDS(kind)                                                                                  \
    kind(dotRow) kind(chain) kind(saddles) kind(bars) kind(stripe) kind(line) kind(spots) kind(mottle)    \
        kind(tracks) kind(flecks) kind(netCells) kind(scaleLattice) kind(gillMark) kind(ovalPatch)        \
            kind(throat) kind(mouthLine) kind(faceMask) kind(eyeSurround) kind(shellArcs) kind(fin)       \
                kind(finRays) kind(wound) kind(bones) kind(ribs) kind(freeShape) kind(lettering)          \
                    kind(innerFill) kind(rim) kind(castShadow) kind(highlight) kind(glow) kind(girthFade) \
                        kind(edgeShade) kind(blush)
