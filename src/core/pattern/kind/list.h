// The kinds of elements there are, in the order they are offered: one line each.
//
// A list, not registration by static objects: a linker drops an object of a static library that nothing
// names.
#pragma once

#define NINE_KINDS(kind) kind(dotRow) kind(bars) kind(gillMark)
