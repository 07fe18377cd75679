#include "cli/param_table.h"

#include "base/number_text.h"

namespace nine::cli {
namespace {

const char* typeName(Param::Type type) {
    switch (type) {
        case Param::Type::Length:
            return "length";
        case Param::Type::Count:
            return "count";
        case Param::Type::Share:
            return "share";
        case Param::Type::Angle:
            return "angle";
        case Param::Type::Seed:
            return "seed";
        case Param::Type::Choice:
            return "choice";
        case Param::Type::Letters:
            return "letters";
        case Param::Type::Path:
            return "path";
        case Param::Type::Colour:
            break;
    }
    return "colour";
}

const char* refitName(Refit refit) {
    switch (refit) {
        case Refit::WithLength:
            return "with the length";
        case Refit::WithGirth:
            return "with the girth";
        case Refit::WithGirthRoot:
            return "with the root of the girth";
        case Refit::Fixed:
            break;
    }
    return "stays";
}

std::string listed(std::span<const Choice> choices) {
    std::string all;
    for (const Choice& choice : choices) all += (all.empty() ? "" : ", ") + std::string(choice.id);
    return all;
}

std::string pathText(const Param& p) {
    std::string text;
    for (const auto& [x, g] : p.usualPath_mm)
        text += (text.empty() ? "[" : ", [") + numberText(x) + ", " + numberText(g) + "]";
    return "[" + text + "]";
}

}  // namespace

Json paramJson(const Param& p) {
    Json json{{"key", std::string(p.key)}, {"name", p.name.text()}, {"type", typeName(p.type)}};
    if (p.type == Param::Type::Path) {
        json["usual"] = Json::array();
        for (const auto& [x, g] : p.usualPath_mm) json["usual"].push_back({x, g});
        return json;
    }
    for (const Choice& choice : p.choices) json["choices"].push_back(std::string(choice.id));
    if (!p.isNumber()) {
        json["usual"] = std::string(p.usualText);
        return json;
    }
    json["low"] = p.low;
    json["high"] = p.high;
    json["usual"] = p.usual;
    if (!p.usualFrom.empty()) json["usual_from"] = std::string(p.usualFrom);
    json["on_another_size"] = refitName(p.refit);
    return json;
}

std::string paramRow(std::string_view kind, const Param& p) {
    const std::string usual = !p.usualFrom.empty()          ? "as `" + std::string(p.usualFrom) + "`"
                              : p.type == Param::Type::Path ? pathText(p)
                              : p.isNumber()                ? numberText(p.usual)
                                                            : std::string(p.usualText);
    const std::string limits =
        p.isNumber() ? numberText(p.low) + " to " + numberText(p.high) : listed(p.choices);
    return "| `" + std::string(kind) + "` | `" + std::string(p.key) + "` | " + p.name.text() + " | " +
           typeName(p.type) + " | " + usual + " | " + limits + " | " + refitName(p.refit) + " |\n";
}

std::string paramHead() {
    return "| kind | key | what | type | absent means | limits | on another size "
           "|\n|---|---|---|---|---|---|---|\n";
}

}  // namespace nine::cli
