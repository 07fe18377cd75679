// The shop's log: recipe cards, tools, catches and leftovers as rows of the workshop file.
//
// A card is a row of kind "card" (its JSON), with the job it was painted from as a row of kind "card_job" and
// its pictures as rows of kind "card_picture", all under the card's id. What wears is counted from the cards.
#pragma once

#include "job/card_file.h"
#include "job/job.h"
#include "store/workshop.h"

namespace nine {

inline constexpr const char *kCardKind = "card", *kCardJobKind = "card_job",
                            *kCardPictureKind = "card_picture", *kToolKind = "tool", *kCatchKind = "catch",
                            *kLeftoverKind = "leftover";

/// All cards, oldest first; rows that cannot be read are left out and told.
Result<std::vector<RecipeCard>> cardsOf(const Workshop& workshop, Warnings* warnings = nullptr);
/// Nothing when there is none of this id.
Result<std::optional<WholeCard>> wholeCard(const Workshop& workshop, const std::string& id);
/// Adds a card, or replaces the one of its id; an empty id makes one from date and title. What was used is
/// taken off the shelf in the same breath when `used`. Returns the id. Errors: checkCard's, those of the
/// workshop.
Result<std::string> putCard(Workshop& workshop, WholeCard card, bool used);
/// The card of a run, whose id it has: put once, and what was used taken once, however often it is asked for.
/// A card of another run with that id stays, and this one gets an id of its own.
Result<std::string> putRunCard(Workshop& workshop, WholeCard card);
/// The card alone: its words, marks, measurements.
Status changeCard(Workshop& workshop, const RecipeCard& card);
Status takeCard(Workshop& workshop, const std::string& id);
Status addPicture(Workshop& workshop, const std::string& card, const std::string& bytes);

/// Adds cards from a file. Those that are here already, alike, are passed over; of others with the same id
/// both stay. Returns the ids that were added.
Result<std::vector<std::string>> importCards(Workshop& workshop, const std::vector<WholeCard>& cards);

Result<std::vector<ToolRow>> toolRows(const Workshop& workshop, Warnings* warnings = nullptr);
Status putToolRow(Workshop& workshop, const ToolRow& row);

/// A fish, or none, on a pattern and colour: one line.
struct Catch {
    std::string id;
    std::string card;                  ///< id; may be empty
    std::string pattern, colour, day;  ///< day as "2026-11-30"
    int fish = 1;
    std::string words;
};
Result<std::vector<Catch>> catchesOf(const Workshop& workshop, Warnings* warnings = nullptr);
Result<std::string> putCatch(Workshop& workshop, Catch line);
/// Fish by a word of the line: its pattern, or its colour; the most first.
std::vector<std::pair<std::string, int>> fishBy(const std::vector<Catch>& lines, std::string Catch::*word);

/// What is left of a mix, in a bottle of its own.
struct Leftover {
    std::string id, name, mix;
    double left_ml = 0;
    Moment mixed = 0;
};
Result<std::vector<Leftover>> leftoversOf(const Workshop& workshop, Warnings* warnings = nullptr);
Result<std::string> putLeftover(Workshop& workshop, Leftover leftover);

/// For how many lures, painted as the card says, what stands on the shelf lasts: the paint that ends first.
struct StockAnswer {
    int lures = 0;
    std::string paint;  ///< name of the one that ends first; empty: all last for `lures`
};
StockAnswer stockFor(const RecipeCard& card, const std::vector<Bottle>& shelf, int wanted);

/// The job of a card for so many lures, with its steps as they were done. Errors: no_job (the card came
/// without), those of parseJob.
Result<Job> jobOfCard(const WholeCard& card, int lures);

}  // namespace nine
