#include "job/shelf_file.h"

#include "job/json_fields.h"

namespace nine {

using namespace json;

Result<std::vector<Bottle>> parseShelf(std::string_view text, const std::string& source) {
    return readText<std::vector<Bottle>>(text, source, "shelf of paints", [](const Value& value) {
        Fields f(value, "");
        std::vector<Bottle> shelf;
        std::size_t i = 0;
        for (const Value& item : needArray(f.need("paints"), "paints")) {
            const std::string path = indexed("paints", i++);
            Fields b(item, path);
            Bottle bottle = readBottle(b, path);
            if (findBottle(shelf, bottle.id))
                fail("duplicate_id",
                     Words(NINE_WORDS("core", "The id \"{id}\" stands twice.")).name("id", bottle.id),
                     path + ".id");
            shelf.push_back(std::move(bottle));
        }
        return shelf;
    });
}

std::string shelfText(const std::vector<Bottle>& shelf) {
    Json paints = Json::array();
    for (const Bottle& bottle : shelf) paints.push_back(bottleJson(bottle));
    return textOf(Json{{"paints", std::move(paints)}});
}

}  // namespace nine
