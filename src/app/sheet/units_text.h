// Lengths as the painter reads and types them: mm or inches, everywhere at once.
#pragma once

#include <QString>
#include <optional>

namespace nine::app {

bool inches();
void useInches(bool on);

/// "12.5" or "0.492": decimals are those for mm (kShortest: as many as the number has); inches get two more.
QString lengthNumber(double mm, int decimals = 1);
/// "12.5 mm" or "0.492 in".
QString lengthText(double mm, int decimals = 1);
QString lengthUnit();
/// A sentence with its lengths' unit in the places marked %U.
QString withUnit(QString words);

/// A typed length as base/typed_length.h reads it; a bare number is in the unit on the screen.
std::optional<double> parseLength(const QString& typed);
/// The same without units, for counts.
std::optional<double> parsePlain(const QString& typed);

}  // namespace nine::app
