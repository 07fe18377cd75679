#include "job/json_fields.h"

namespace nine::json {
namespace {

constexpr auto kReplace = Json::error_handler_t::replace;

std::string plain(const Json& json) {
    return json.dump(-1, ' ', false, kReplace);
}

std::string rawOf(const Json& json) {
    const auto& bytes = json.get_binary();
    return {bytes.begin(), bytes.end()};
}

void append(std::string& out, const Json& json, std::size_t depth) {
    const auto line = [&](std::size_t at, bool first) {
        out += first ? "\n" : ",\n";
        out.append(at, ' ');
    };
    if (json.is_binary()) {
        out += rawOf(json);
    } else if (json.is_object() && !json.empty()) {
        out += '{';
        bool first = true;
        for (const auto& [key, value] : json.items()) {
            if (value.is_binary() && !value.get_binary().has_subtype()) {
                const std::string raw = rawOf(value);
                for (const Member& member : Value(raw).members()) {
                    line(depth + 1, std::exchange(first, false));
                    out.append(member.rawKey).append(": ").append(member.value.raw());
                }
                continue;
            }
            line(depth + 1, std::exchange(first, false));
            out += plain(Json(key)) + ": ";
            append(out, value, depth + 1);
        }
        out += '\n';
        out.append(depth, ' ');
        out += '}';
    } else if (json.is_array() && !json.empty()) {
        out += '[';
        bool first = true;
        for (const Json& value : json) {
            line(depth + 1, std::exchange(first, false));
            append(out, value, depth + 1);
        }
        out += '\n';
        out.append(depth, ' ');
        out += ']';
    } else {
        out += plain(json);
    }
}

}  // namespace

std::string textOf(const Json& json) {
    std::string out;
    append(out, json, 0);
    return out + "\n";
}

}  // namespace nine::json
