// What wears: how often each mask, net and brush was used, how many uses are left, what one costs.
//
// Uses are those of the recipe cards; a tool's own row only says what cards cannot: how long it lasts here,
// what it cost, when it was new. Usual lives: common practice, no published source, where there is any.
#pragma once

#include "log/card.h"

namespace nine {

struct ToolRow {
    std::string kind, id, name, made;
    int life = 0;         ///< uses until it is worn; 0: as usual for what it is made of
    Figure price = -1;    ///< in the shop's money; below 0: not known
    Moment newSince = 0;  ///< uses before are of the one it replaced
    int cleaned = 0;      ///< times its holes were cleared with a file: each widens them a little
    std::string unknownJson;
};
/// 0: nobody says.
int usualLife(std::string_view kind, std::string_view made);
/// A hole that was cleared with a round file is wider by this (guess).
constexpr double kFiled_mm = 0.01;

struct Wear {
    std::string kind, id, name, made;
    int uses = 0, life = 0;  ///< life 0: not known
    int left() const { return life > uses ? life - uses : 0; }
    bool worn() const { return life > 0 && uses >= life; }
    bool soon() const;
    Figure perUse = -1;   ///< price over life, or over uses where that is not known; below 0: no price
    double wider_mm = 0;  ///< holes, by filing
};
/// The most worn first.
std::vector<Wear> wearOf(const std::vector<RecipeCard>& cards, const std::vector<ToolRow>& rows);

}  // namespace nine
