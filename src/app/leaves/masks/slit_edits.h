// Slits of a mask changed by hand: moved, lengthened, added. Pure functions; what is not possible is for the
// verdict to say.
#pragma once

#include <QString>

#include "mask/mask.h"

namespace nine::app {

/// Whether it runs across the body; else along it.
bool isAcross(const Slit& slit);
double lengthOf_mm(const Slit& slit);

/// Moved along the body so that its mouth is at x; g keeps its share of the girth.
Slit movedTo(const Slit& slit, double x_mm, const Skin& skin);
/// Its tip at this place of its line.
Slit endedAt(const Slit& slit, const Vec2& place);
/// So long from its mouth.
Slit ofLength(const Slit& slit, double length_mm);

/// One more, from the high edge of the sheet to half way to its middle, where there is most room between the
/// others; nothing when there is none.
std::optional<Slit> oneMore(const Sheet& sheet, const std::vector<Slit>& slits);

/// "one slit", "4 slits".
QString slitCount(int count);

}  // namespace nine::app
