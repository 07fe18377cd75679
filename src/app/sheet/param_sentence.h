// A sentence of a kind, of marks or of masks, on a card: with a field for each value it names.
#pragma once

#include <functional>

#include "app/sheet/card.h"
#include "pattern/param.h"

namespace nine::app {

/// How a parameter is typed and shown; shares are shown in per cent.
ValueChip::Kind chipKind(const Param& param);
double shownUnits(const Param& param);

/// What a parameter that is one of several is chosen with: a word that opens a menu.
QPushButton* choiceChip(const Param& param, std::function<void(const std::string&)> chosen);
/// The word of what is chosen.
QString choiceWord(const Param& param, const std::string& value);

/// `sentence` names parameters by their keys in braces, in the order the language wants; `chip` makes the
/// field of each.
void paramSentence(Card& card, const Pattern& sentence, std::span<const Param> params,
                   const std::function<QWidget*(const Param&)>& chip);

}  // namespace nine::app
