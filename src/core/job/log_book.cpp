#include "job/log_book.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "job/job_file.h"
#include "job/json_fields.h"
#include "job/paint_shelf.h"

namespace nine {
namespace {

using namespace json;

constexpr int kMostPictures = 12;

/// Reads all rows of a kind; those that cannot be read are told.
template <typename T, typename Parse>
Result<std::vector<T>> readRows(const Workshop& workshop, const char* kind, Warnings* warnings,
                                const Parse& parse) {
    const auto rows = workshop.whole(kind);
    if (!rows) return rows.error();
    std::vector<T> all;
    for (const WorkshopRow& row : *rows) {
        Result<T> one = parse(row.json, std::string("workshop ") + kind + " " + row.id);
        if (one) {
            one->id = row.id;
            all.push_back(std::move(*one));
        } else if (warnings) {
            warnings->push_back(one.error());
        }
    }
    return all;
}

std::string pictureId(const std::string& card, int n) {
    return card + "-picture-" + std::to_string(n);
}

/// Paints of the shelf with less in them, as rows; nothing for what is not there.
Result<std::vector<WorkshopRow>> lessOnShelf(const Workshop& workshop, const RecipeCard& card) {
    const auto shelf = shelfOf(workshop);
    if (!shelf) return shelf.error();
    std::vector<WorkshopRow> rows;
    for (const CardAmount& amount : card.amounts)
        if (const Bottle* found = findBottle(*shelf, amount.id); found && amount.used_ml > 0) {
            Bottle bottle = *found;
            bottle.left_ml = std::max(0.0, std::round(100 * (bottle.left_ml - amount.used_ml)) / 100);
            rows.push_back({kPaintKind, bottle.id, bottle.name, bottle.family, shelfText({bottle}), {}, {}});
        }
    return rows;
}

WorkshopRow cardRow(const RecipeCard& card) {
    return {kCardKind, card.id, card.title, card.blank, cardText(card), {}, {}};
}

}  // namespace

Result<std::vector<RecipeCard>> cardsOf(const Workshop& workshop, Warnings* warnings) {
    auto cards = readRows<RecipeCard>(workshop, kCardKind, warnings, parseCard);
    if (cards)
        std::stable_sort(cards->begin(), cards->end(),
                         [](const RecipeCard& a, const RecipeCard& b) { return a.ended < b.ended; });
    return cards;
}

Result<std::optional<WholeCard>> wholeCard(const Workshop& workshop, const std::string& id) {
    const auto row = workshop.get(kCardKind, id);
    if (!row) return row.error();
    if (!*row) return std::optional<WholeCard>();
    Result<RecipeCard> card = parseCard((*row)->json, "workshop card " + id);
    if (!card) return card.error();
    WholeCard whole{std::move(*card), {}, {}};
    whole.card.id = id;
    const auto job = workshop.get(kCardJobKind, id);
    if (!job) return job.error();
    if (*job) whole.jobText = (*job)->json;
    for (int n = 1; n <= kMostPictures; ++n) {
        const auto picture = workshop.get(kCardPictureKind, pictureId(id, n));
        if (!picture) return picture.error();
        if (!*picture) break;
        whole.pictures.push_back((*picture)->thumbnail);
    }
    return std::optional(std::move(whole));
}

Result<std::string> putCard(Workshop& workshop, WholeCard whole, bool used) {
    if (Status ok = checkCard(whole.card, "card"); !ok) return ok.error();
    if (whole.card.id.empty()) {
        const auto id =
            workshop.freeId(kCardKind, utcText(whole.card.ended).substr(0, 10) + " " + whole.card.title);
        if (!id) return id.error();
        whole.card.id = *id;
    }
    std::vector<WorkshopRow> rows{cardRow(whole.card)};
    if (!whole.jobText.empty())
        rows.push_back({kCardJobKind, whole.card.id, whole.card.title, {}, whole.jobText, {}, {}});
    for (std::size_t n = 0; n < whole.pictures.size() && n < kMostPictures; ++n)
        rows.push_back({kCardPictureKind,
                        pictureId(whole.card.id, static_cast<int>(n) + 1),
                        whole.card.title,
                        {},
                        "{}",
                        whole.pictures[n],
                        {}});
    if (used) {
        auto less = lessOnShelf(workshop, whole.card);
        if (!less) return less.error();
        rows.insert(rows.end(), less->begin(), less->end());
    }
    if (Status ok = workshop.put(rows); !ok) return ok.error();
    return whole.card.id;
}

Result<std::string> putRunCard(Workshop& workshop, WholeCard whole) {
    const auto there = workshop.get(kCardKind, whole.card.id);
    if (!there) return there.error();
    if (*there) {
        const Result<RecipeCard> card = parseCard((*there)->json, whole.card.id);
        if (card && card->began == whole.card.began && card->job == whole.card.job) return whole.card.id;
        whole.card.id.clear();
    }
    return putCard(workshop, std::move(whole), true);
}

Status changeCard(Workshop& workshop, const RecipeCard& card) {
    if (Status ok = checkCard(card, "card"); !ok) return ok;
    return workshop.put(cardRow(card));
}

Status takeCard(Workshop& workshop, const std::string& id) {
    return workshop.remove(kCardKind, id);
}

Status addPicture(Workshop& workshop, const std::string& card, const std::string& bytes) {
    for (int n = 1; n <= kMostPictures; ++n) {
        const auto there = workshop.get(kCardPictureKind, pictureId(card, n));
        if (!there) return there.error();
        if (!*there) return workshop.put({kCardPictureKind, pictureId(card, n), card, {}, "{}", bytes, {}});
    }
    return Error{
        "too_many",
        Words(NINE_WORDS("core", "A card holds up to {most} pictures.")).number("most", kMostPictures, 0),
        "card.pictures"};
}

Result<std::vector<std::string>> importCards(Workshop& workshop, const std::vector<WholeCard>& cards) {
    std::vector<std::string> added;
    for (WholeCard whole : cards) {
        if (!whole.card.id.empty()) {
            const auto there = workshop.get(kCardKind, whole.card.id);
            if (!there) return there.error();
            if (*there && (*there)->json == cardText(whole.card)) continue;
            if (*there) whole.card.id.clear();
        }
        const auto id = putCard(workshop, std::move(whole), false);
        if (!id) return id.error();
        added.push_back(*id);
    }
    return added;
}

Result<std::vector<ToolRow>> toolRows(const Workshop& workshop, Warnings* warnings) {
    const auto rows = workshop.whole(kToolKind);
    if (!rows) return rows.error();
    std::vector<ToolRow> all;
    for (const WorkshopRow& row : *rows) {
        Result<ToolRow> one = parseToolRow(row.json, "workshop tool " + row.id);
        if (one)
            all.push_back(std::move(*one));
        else if (warnings)
            warnings->push_back(one.error());
    }
    return all;
}

Status putToolRow(Workshop& workshop, const ToolRow& row) {
    return workshop.put({kToolKind, row.kind + "/" + row.id, row.name, row.kind, toolRowText(row), {}, {}});
}

Result<std::vector<Catch>> catchesOf(const Workshop& workshop, Warnings* warnings) {
    return readRows<Catch>(workshop, kCatchKind, warnings,
                           [](const std::string& text, const std::string& source) {
                               return readText<Catch>(text, source, "catch", [](const Value& value) {
                                   Fields f(value, "");
                                   Catch line;
                                   f.read("card", line.card);
                                   f.read("pattern", line.pattern);
                                   f.read("colour", line.colour);
                                   f.read("day", line.day);
                                   f.read("fish", line.fish);
                                   f.read("words", line.words);
                                   return line;
                               });
                           });
}

Result<std::string> putCatch(Workshop& workshop, Catch line) {
    if (line.fish < 0 || line.fish > 10000)
        return Error{"out_of_range",
                     Words(NINE_WORDS("core", "{fish} fish were given; count 0 to 10000."))
                         .number("fish", line.fish, 0),
                     "catch.fish"};
    if (line.id.empty()) {
        const auto id = workshop.freeId(kCatchKind, line.day + " " + line.pattern);
        if (!id) return id.error();
        line.id = *id;
    }
    const Json json{{"card", line.card}, {"pattern", line.pattern}, {"colour", line.colour},
                    {"day", line.day},   {"fish", line.fish},       {"words", line.words}};
    if (Status ok = workshop.put({kCatchKind, line.id, line.pattern, line.colour, textOf(json), {}, {}}); !ok)
        return ok.error();
    return line.id;
}

std::vector<std::pair<std::string, int>> fishBy(const std::vector<Catch>& lines, std::string Catch::*word) {
    std::map<std::string, int> fish;
    for (const Catch& line : lines)
        if (!(line.*word).empty()) fish[line.*word] += line.fish;
    std::vector<std::pair<std::string, int>> sorted(fish.begin(), fish.end());
    std::stable_sort(sorted.begin(), sorted.end(),
                     [](const auto& a, const auto& b) { return a.second > b.second; });
    return sorted;
}

Result<std::vector<Leftover>> leftoversOf(const Workshop& workshop, Warnings* warnings) {
    return readRows<Leftover>(workshop, kLeftoverKind, warnings,
                              [](const std::string& text, const std::string& source) {
                                  return readText<Leftover>(text, source, "leftover", [](const Value& value) {
                                      Fields f(value, "");
                                      Leftover left;
                                      f.read("name", left.name);
                                      f.read("mix", left.mix);
                                      f.read("left_ml", left.left_ml);
                                      std::string mixed;
                                      f.read("mixed", mixed);
                                      left.mixed = parseUtc(mixed).value_or(0);
                                      return left;
                                  });
                              });
}

Result<std::string> putLeftover(Workshop& workshop, Leftover left) {
    if (!(left.left_ml >= 0 && left.left_ml <= 10000))
        return Error{"out_of_range",
                     Words(NINE_WORDS("core", "{ml} ml were given; a leftover is 0 to 10000 ml."))
                         .number("ml", left.left_ml, 1),
                     "leftover.left_ml"};
    if (left.id.empty()) {
        const auto id = workshop.freeId(kLeftoverKind, left.name);
        if (!id) return id.error();
        left.id = *id;
    }
    const Json json{
        {"name", left.name}, {"mix", left.mix}, {"left_ml", left.left_ml}, {"mixed", utcText(left.mixed)}};
    if (Status ok = workshop.put({kLeftoverKind, left.id, left.name, {}, textOf(json), {}, {}}); !ok)
        return ok.error();
    return left.id;
}

StockAnswer stockFor(const RecipeCard& card, const std::vector<Bottle>& shelf, int wanted) {
    StockAnswer answer{wanted, {}};
    for (const CardAmount& amount : card.amounts) {
        const double each_ml = amount.used_ml / std::max(1, card.lures);
        if (each_ml <= 0) continue;
        const Bottle* bottle = findBottle(shelf, amount.id);
        const int lasts = bottle ? static_cast<int>(std::floor(bottle->left_ml / each_ml + 1e-9)) : 0;
        if (lasts < answer.lures) answer = {lasts, amount.name};
    }
    return answer;
}

Result<Job> jobOfCard(const WholeCard& whole, int lures) {
    if (whole.jobText.empty())
        return Error{
            "no_job",
            NINE_WORDS("core",
                       "This card came without its job: it can be read, but no new job can be made from it."),
            "card.job"};
    if (lures < 1 || lures > kMostLures) return luresError(lures, "lures");
    Result<LoadedJob> loaded = parseJob(whole.jobText, "card " + whole.card.id);
    if (!loaded) return loaded.error();
    LayersChapter layers = loaded->job.get<LayersChapter>();
    layers.lures = lures;
    BenchChapter bench = loaded->job.get<BenchChapter>();
    bench.locks.clear();
    bench.begins.clear();
    return loaded->job.with(std::move(layers)).with(std::move(bench));
}

}  // namespace nine
