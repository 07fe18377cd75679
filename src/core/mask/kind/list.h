// Every kind of mask, in the order they are offered: one line here and one file in this folder.
#pragma once

#define NINE_MASK_KINDS(kind) \
    kind(fitted) kind(full_side) kind(full_body) kind(butted) kind(small_sheets) kind(stepped)
