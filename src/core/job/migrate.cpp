#include "job/migrate.h"

#include <array>

#include "job/job.h"
#include "job/json_fields.h"

namespace nine {
namespace {

using namespace json;

/// Chapters that were lists in format 1.
constexpr std::array<std::string_view, 2> kLists{"masks", "spray"};
constexpr std::string_view kByteOrderMark = "\xEF\xBB\xBF";

int formatOf(const Value& json) {
    Fields f(json, "");
    const Value* format = f.find("format");
    if (!format || !format->isNumber())
        fail("not_a_job", NINE_WORDS("core", "This is not a Nine Leaves job: it has no format number."),
             "format");
    const auto version = format->whole();
    const auto about = format->number();  // of one beyond 64 bits
    if (version ? *version > kJobFormat : about && *about > kJobFormat) {
        fail("newer_format",
             Words(NINE_WORDS("core",
                              "This job was written by a newer version (format {format}; this one knows "
                              "up to {known}). Open it with that version."))
                 .name("format", std::string(format->raw()))
                 .number("known", kJobFormat, 0),
             "format");
    }
    if (!version || *version < 1)
        fail("not_a_job", NINE_WORDS("core", "The format number must be a whole one from 1 on."), "format");
    if (*version == 1) {
        for (const std::string_view key : kLists)
            if (const Value* list = f.find(std::string(key).c_str())) needArray(*list, std::string(key));
    }
    return static_cast<int>(*version);
}

}  // namespace

std::string CurrentText::placeInFile(std::string place) const {
    if (format >= 2) return place;
    for (const std::string_view key : kLists) {
        const std::string now = std::string(key) + ".masks[";
        const std::size_t at = place.find(now);
        // The place begins the text or follows the file's name.
        if (at == std::string::npos || (at > 0 && place[at - 1] != ' ')) continue;
        return place.replace(at, now.size(), std::string(key) + "[");
    }
    return place;
}

std::string format2From1(std::string_view text) {
    std::string out;
    std::size_t copied = 0;
    const auto put = [&](std::string_view raw, const std::string& instead) {
        const auto at = static_cast<std::size_t>(raw.data() - text.data());
        out.append(text.substr(copied, at - copied)).append(instead);
        copied = at + raw.size();
    };
    for (const Member& member : Value(text).members()) {
        const std::string_view raw = member.value.raw();
        if (member.key == "format") put(raw, "2");
        for (const std::string_view key : kLists)
            if (member.key == key) put(raw, "{\"masks\": " + std::string(raw) + "}");
    }
    return out.append(text.substr(copied));
}

Result<CurrentText> inCurrentFormat(std::string_view text, const std::string& source) {
    const Result<int> format = readText<int>(text, source, "job file", formatOf);
    if (!format) return format.error();
    if (text.substr(0, kByteOrderMark.size()) == kByteOrderMark) text.remove_prefix(kByteOrderMark.size());
    // From 2 to 3 nothing moved: steps follow from what was read (withStepsOfColours).
    return CurrentText{*format == 1 ? format2From1(text) : std::string(text), *format};
}

}  // namespace nine
