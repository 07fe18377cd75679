#include "job/chapters/pattern.h"

#include <set>

#include "job/element_json.h"
#include "job/job.h"

namespace nine {

using namespace json;

PatternChapter ChapterOf<PatternChapter>::read(Fields& f, Warnings& warnings) {
    PatternChapter pattern;
    f.read("name", pattern.name);
    if (const Value* ground = f.find("ground")) {
        Fields g(*ground, f.at("ground"));
        g.read("back", pattern.groundBack);
        g.read("side", pattern.groundSide);
        g.read("belly", pattern.groundBelly);
        pattern.groundUnknownJson = g.unknown();
    }
    if (const Value* elements = f.find("elements")) {
        for (const Value& element : needArray(*elements, f.at("elements")))
            pattern.elements.push_back(std::make_shared<const Element>(
                readElement(element, indexed(f.at("elements"), pattern.elements.size()), warnings)));
    }
    return pattern;
}

void ChapterOf<PatternChapter>::write(Json& json, const PatternChapter& pattern) {
    if (!pattern.name.empty()) json["name"] = pattern.name;
    if (!(pattern.groundSide + pattern.groundBack + pattern.groundBelly + pattern.groundUnknownJson)
             .empty()) {
        json["ground"] = {
            {"back", pattern.groundBack}, {"side", pattern.groundSide}, {"belly", pattern.groundBelly}};
        addUnknown(json["ground"], pattern.groundUnknownJson);
    }
    json["elements"] = Json::array();
    for (const ElementPtr& e : pattern.elements) json["elements"].push_back(writeElement(*e));
}

Status ChapterOf<PatternChapter>::check(const Job& job) {
    const PatternChapter& pattern = job.get<PatternChapter>();
    if (Status ok = checkName(pattern.name, "pattern.name"); !ok) return ok;
    std::set<std::string_view> ids;
    for (std::size_t i = 0; i < pattern.elements.size(); ++i) {
        const Element& e = *pattern.elements[i];
        const std::string path = indexed("pattern.elements", i);
        if (Status ok = checkName(e.name, path + ".name"); !ok) return ok;
        if (Status ok = checkName(e.id, path + ".id"); !ok) return ok;
        if (e.id.empty())
            return Error{"bad_id", NINE_WORDS("core", "Every element needs an id."), path + ".id"};
        if (!ids.insert(e.id).second)
            return Error{"bad_id",
                         Words(NINE_WORDS("core", "The id \"{id}\" is used twice.")).name("id", e.id),
                         path + ".id"};
        if (Status ok = checkElement(e, path); !ok) return ok;
    }
    return Done{};
}

Job withElement(const Job& job, std::size_t index, Element element) {
    PatternChapter pattern = job.get<PatternChapter>();
    pattern.elements[index] = std::make_shared<const Element>(std::move(element));
    return job.with(std::move(pattern));
}

}  // namespace nine
