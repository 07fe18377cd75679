#include "log/card.h"

#include <algorithm>

#include "paint/colour_words.h"
#include "paint/paint.h"

namespace nine {
namespace {

constexpr ResultMark kMarks[] = {
    {"crisp", true, NINE_WORDS("core", "crisp edges")},
    {"even", true, NINE_WORDS("core", "sides alike")},
    {"bright", true, NINE_WORDS("core", "colours as wished")},
    {"fuzzy", false, NINE_WORDS("core", "fuzzy edges")},
    {"lifted", false, NINE_WORDS("core", "paint lifted")},
    {"uneven", false, NINE_WORDS("core", "sides unequal")},
    {"dull", false, NINE_WORDS("core", "colours dull")},
    {"ran", false, NINE_WORDS("core", "paint or clear ran")},
    {"bubbles", false, NINE_WORDS("core", "bubbles in the clear")},
};

void add(std::string& text, std::string_view words) {
    if (!words.empty()) text.append(words).append(" \n");
}

}  // namespace

std::span<const ResultMark> resultMarks() {
    return kMarks;
}

Status checkCard(const RecipeCard& card, const std::string& path) {
    if (card.title.empty())
        return Error{"no_name", NINE_WORDS("core", "A recipe card needs a name."), path + ".title"};
    if (card.lures < 1 || card.lures > kMostLures) return luresError(card.lures, path + ".lures");
    if (card.steps.size() > kMostCardSteps)
        return Error{"too_many",
                     Words(NINE_WORDS("core", "A recipe card has up to {most} steps."))
                         .number("most", static_cast<double>(kMostCardSteps), 0),
                     path + ".steps"};
    if (card.text.size() > kMostCardText)
        return Error{"too_long",
                     Words(NINE_WORDS("core", "What came of it can be {most} letters long."))
                         .number("most", static_cast<double>(kMostCardText), 0),
                     path + ".text"};
    if (card.ended < card.began)
        return Error{"out_of_range", NINE_WORDS("core", "The card ends before it begins."), path + ".ended"};
    return Done{};
}

std::string withoutCase(std::string_view in) {
    std::string out;
    out.reserve(in.size());
    for (std::size_t i = 0; i < in.size(); ++i) {
        const auto c = static_cast<unsigned char>(in[i]);
        if (c >= 'A' && c <= 'Z') {
            out.push_back(static_cast<char>(c + 32));
            continue;
        }
        // Two-byte letters with case: Latin-1 (C3), Greek (CE), Cyrillic (D0).
        if ((c == 0xC3 || c == 0xCE || c == 0xD0) && i + 1 < in.size()) {
            unsigned letter = (c & 0x1Fu) << 6 | (static_cast<unsigned char>(in[++i]) & 0x3Fu);
            if ((letter >= 0xC0 && letter <= 0xDE && letter != 0xD7) ||
                (letter >= 0x391 && letter <= 0x3A9) || (letter >= 0x410 && letter <= 0x42F))
                letter += 32;
            else if (letter >= 0x400 && letter <= 0x40F)
                letter += 80;
            out.push_back(static_cast<char>(0xC0 | letter >> 6));
            out.push_back(static_cast<char>(0x80 | (letter & 0x3F)));
            continue;
        }
        out.push_back(in[i]);
    }
    return out;
}

std::string searchTextOf(const RecipeCard& card) {
    std::string text;
    for (const std::string* words :
         {&card.title, &card.blank, &card.job, &card.forWhom, &card.school, &card.text})
        add(text, *words);
    add(text, utcText(card.ended).substr(0, 10));
    for (const LaidStep& step : card.steps) {
        for (const std::string* words : {&step.name, &step.mask, &step.clear, &step.note}) add(text, *words);
        for (const CardPaint& paint : step.paint) add(text, paint.name);
        if (const auto colour = parseColour(step.colour))
            add(text, colourWords(labOf(xyzOf(linearOf(*colour)))).plain());
    }
    for (const CardTool& tool : card.tools) add(text, tool.name);
    for (const CardMishap& mishap : card.mishaps) {
        add(text, mishap.note);
        for (const MishapKind& kind : mishaps())
            if (kind.id == mishap.kind) add(text, kind.name.text());
    }
    for (const ResultMark& mark : kMarks)
        if (std::find(card.seen.begin(), card.seen.end(), mark.id) != card.seen.end())
            add(text, mark.name.text());
    return withoutCase(text);
}

void CardIndex::put(const std::string& id, Moment ended, std::string searchText) {
    take(id);
    const auto at = std::lower_bound(cards_.begin(), cards_.end(), ended,
                                     [](const Entry& e, Moment moment) { return e.ended > moment; });
    cards_.insert(at, {id, ended, std::move(searchText)});
}

void CardIndex::take(const std::string& id) {
    std::erase_if(cards_, [&](const Entry& e) { return e.id == id; });
}

std::vector<std::string> CardIndex::find(std::string_view words) const {
    std::vector<std::string> wanted;
    const std::string small = withoutCase(words);
    for (std::size_t from = 0; (from = small.find_first_not_of(" \t\n", from)) != small.npos;) {
        const std::size_t end = std::min(small.find_first_of(" \t\n", from), small.size());
        wanted.push_back(small.substr(from, end - from));
        from = end;
    }
    std::vector<std::string> found;
    for (const Entry& entry : cards_)
        if (std::all_of(wanted.begin(), wanted.end(),
                        [&](const std::string& word) { return entry.text.find(word) != entry.text.npos; }))
            found.push_back(entry.id);
    return found;
}

}  // namespace nine
