// log: the recipe cards of the workshop file.
#include <algorithm>
#include <map>

#include "base/files.h"
#include "base/number_text.h"
#include "cli/args.h"
#include "cli/verbs.h"
#include "job/log_book.h"
#include "log/sides.h"

namespace nine::cli {
namespace {

constexpr int kPatience_ms = 20'000;

Result<Workshop> workshopOf(const Args& args, bool write) {
    const Result<std::string> file = args.need("file");
    if (!file) return file.error();
    return write ? Workshop::open(*file, Workshop::Access::Write, kPatience_ms)
                 : Workshop::open(*file, Workshop::Access::Read);
}

std::string dayOf(Moment moment) {
    return utcText(moment).substr(0, 10);
}

Json wearJson(const Wear& w) {
    Json json{{"kind", w.kind}, {"id", w.id}, {"name", w.name}, {"uses", w.uses}};
    if (w.life > 0) json.update({{"life", w.life}, {"left", w.left()}});
    if (w.perUse >= 0) json["per_use"] = w.perUse;
    return json;
}

Result<WholeCard> asked(const Workshop& workshop, const std::string& id) {
    auto whole = wholeCard(workshop, id);
    if (!whole) return whole.error();
    if (!*whole)
        return Error{"unknown_card",
                     Words(NINE_WORDS("cli", "There is no card \"{id}\": log list shows those there are."))
                         .name("id", id),
                     id};
    return std::move(**whole);
}

}  // namespace

Result<Reply> logList(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"file", "search"}, {}, 0);
    if (!args) return args.error();
    const Result<Workshop> workshop = workshopOf(*args, false);
    if (!workshop) return workshop.error();
    Warnings warnings;
    const auto cards = cardsOf(*workshop, &warnings);
    if (!cards) return cards.error();
    CardIndex index;
    std::map<std::string, const RecipeCard*> byId;
    for (const RecipeCard& card : *cards) {
        index.put(card.id, card.ended, searchTextOf(card));
        byId[card.id] = &card;
    }
    Reply reply;
    reply.json["cards"] = Json::array();
    for (const std::string& id : index.find(args->value("search").value_or(""))) {
        const RecipeCard& c = *byId.at(id);
        reply.json["cards"].push_back({{"id", id},
                                       {"title", c.title},
                                       {"blank", c.blank},
                                       {"ended", utcText(c.ended)},
                                       {"lures", c.lures}});
        reply.text += dayOf(c.ended) + "  " + id + "  " + c.title + " on " + c.blank + ", " +
                      std::to_string(c.lures) + (c.lures == 1 ? " lure\n" : " lures\n");
    }
    if (reply.text.empty()) reply.text = "No cards.\n";
    const auto rows = toolRows(*workshop, &warnings);
    if (!rows) return rows.error();
    reply.json["wear"] = Json::array();
    for (const Wear& w : wearOf(*cards, *rows)) reply.json["wear"].push_back(wearJson(w));
    reply.json["warnings"] = warningsJson(warnings);
    reply.text += warningsText(warnings);
    return reply;
}

Result<Reply> logShow(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"file"}, {}, 1);
    if (!args) return args.error();
    const Result<Workshop> workshop = workshopOf(*args, false);
    if (!workshop) return workshop.error();
    const Result<WholeCard> whole = asked(*workshop, args->word(0));
    if (!whole) return whole.error();
    const RecipeCard& c = whole->card;
    Reply reply;
    reply.json = Json::parse(cardText(c));
    reply.json["pictures"] = whole->pictures.size();
    reply.json["has_job"] = !whole->jobText.empty();
    reply.text = c.title + " on " + c.blank + ", " + dayOf(c.ended) + ", " + std::to_string(c.lures) +
                 (c.lures == 1 ? " lure\n" : " lures\n");
    for (const LaidStep& s : c.steps) {
        reply.text += (s.skipped ? "- left out: " : "- ") + s.name;
        for (const CardPaint& p : s.paint) reply.text += ", " + p.name + " " + numberText(p.drops);
        if (!s.paint.empty())
            reply.text += " : " + numberText(s.reducer) + " drops, " + numberText(s.coats) +
                          (s.coats == 1 ? " coat" : " coats");
        for (const std::string& change : s.changed) reply.text += " (" + change + ")";
        reply.text += "\n";
    }
    const SideReport sides = compareSides(c.sides);
    reply.json["left_against_right"] = Json::array();
    for (const SideFinding& f : sides.findings) {
        reply.json["left_against_right"].push_back({{"text", f.says.plain()}, {"mend", f.mend.plain()}});
        reply.text += f.says.plain() + " " + f.mend.plain() + "\n";
    }
    if (!c.text.empty()) reply.text += c.text + "\n";
    return reply;
}

Result<Reply> logExport(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"file", "out", "id"}, {}, 0);
    if (!args) return args.error();
    const Result<std::string> out = args->need("out");
    if (!out) return out.error();
    const Result<Workshop> workshop = workshopOf(*args, false);
    if (!workshop) return workshop.error();
    std::vector<std::string> ids;
    if (const auto id = args->value("id")) {
        ids.push_back(*id);
    } else {
        const auto cards = cardsOf(*workshop);
        if (!cards) return cards.error();
        for (const RecipeCard& card : *cards) ids.push_back(card.id);
    }
    std::vector<WholeCard> all;
    for (const std::string& id : ids) {
        Result<WholeCard> whole = asked(*workshop, id);
        if (!whole) return whole.error();
        all.push_back(std::move(*whole));
    }
    if (Status ok = writeFileAtomically(*out, cardsText(all)); !ok) return ok.error();
    Reply reply;
    reply.json = {{"file", *out}, {"cards", all.size()}};
    reply.text =
        std::to_string(all.size()) + (all.size() == 1 ? " card is in " : " cards are in ") + *out + ".\n";
    return reply;
}

Result<Reply> logImport(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"file"}, {}, 1);
    if (!args) return args.error();
    const Result<std::string> text = readFile(args->word(0));
    if (!text) return text.error();
    const Result<std::vector<WholeCard>> cards = parseCards(*text, args->word(0));
    if (!cards) return cards.error();
    Result<Workshop> workshop = workshopOf(*args, true);
    if (!workshop) return workshop.error();
    const auto added = importCards(*workshop, *cards);
    if (!added) return added.error();
    Reply reply;
    reply.json = {{"added", *added}, {"passed_over", cards->size() - added->size()}};
    reply.text = std::to_string(added->size()) + " of " + std::to_string(cards->size()) +
                 " cards were added, the others are here already.\n";
    return reply;
}

}  // namespace nine::cli
