// Recipe cards as JSON: as rows of the workshop file have them, and as files to hand on.
#pragma once

#include "log/card.h"
#include "log/wear.h"

namespace nine {

std::string cardText(const RecipeCard& card);
/// Errors: bad_json, bad_value, newer_format, those of checkCard.
Result<RecipeCard> parseCard(std::string_view text, const std::string& source);

/// A card with all that belongs to it.
struct WholeCard {
    RecipeCard card;
    std::string jobText;                ///< the job it was painted from; may be empty
    std::vector<std::string> pictures;  ///< PNG or JPEG
};
std::string cardsText(const std::vector<WholeCard>& cards);
/// Errors: as parseCard, with the place of the card.
Result<std::vector<WholeCard>> parseCards(std::string_view text, const std::string& source);

std::string toolRowText(const ToolRow& row);
Result<ToolRow> parseToolRow(std::string_view text, const std::string& source);

}  // namespace nine
