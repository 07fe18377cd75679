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
        case Param::Type::Colour:
            break;
    }
    return "colour";
}

const char* refitName(Refit refit) {
    return refit == Refit::Fixed        ? "stays"
           : refit == Refit::WithLength ? "with the length"
                                        : "with the girth";
}

}  // namespace

Json paramJson(const Param& p) {
    Json json{{"key", std::string(p.key)}, {"name", p.name.text()}, {"type", typeName(p.type)}};
    if (p.type == Param::Type::Colour) {
        json["usual"] = std::string(p.usualColour);
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
    const bool colour = p.type == Param::Type::Colour;
    const std::string usual = !p.usualFrom.empty() ? "as `" + std::string(p.usualFrom) + "`"
                              : colour             ? std::string(p.usualColour)
                                                   : numberText(p.usual);
    return "| `" + std::string(kind) + "` | `" + std::string(p.key) + "` | " + p.name.text() + " | " +
           typeName(p.type) + " | " + usual + " | " +
           (colour ? "" : numberText(p.low) + " to " + numberText(p.high)) + " | " + refitName(p.refit) +
           " |\n";
}

std::string paramHead() {
    return "| kind | key | what | type | absent means | limits | on another size "
           "|\n|---|---|---|---|---|---|---|\n";
}

}  // namespace nine::cli
