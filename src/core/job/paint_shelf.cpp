#include "job/paint_shelf.h"

#include <algorithm>

#include "job/json_fields.h"

namespace nine {
namespace {

/// A row for one that ships and is not on this shelf.
const std::string kNotHere = "{\"not_here\": true}\n";

}  // namespace

Result<std::vector<Bottle>> shelfOf(const Workshop& workshop, Warnings* warnings) {
    std::vector<Bottle> shelf = genericShelf();
    const Result<std::vector<WorkshopRow>> rows = workshop.list(kPaintKind);
    if (!rows) return rows.error();
    for (const WorkshopRow& listed : *rows) {
        const Result<std::optional<WorkshopRow>> row = workshop.get(kPaintKind, listed.id);
        if (!row) return row.error();
        if (!*row) continue;
        const auto same =
            std::find_if(shelf.begin(), shelf.end(), [&](const Bottle& b) { return b.id == listed.id; });
        if ((*row)->json == kNotHere) {
            if (same != shelf.end()) shelf.erase(same);
            continue;
        }
        Result<std::vector<Bottle>> read = parseShelf((*row)->json, "workshop paint " + listed.id);
        if (!read || read->empty()) {
            if (warnings && !read)
                warnings->push_back({read.error().code, read.error().words, read.error().where});
            continue;
        }
        Bottle bottle = std::move(read->front());
        bottle.id = listed.id;
        if (same == shelf.end())
            shelf.push_back(std::move(bottle));
        else
            *same = std::move(bottle);
    }
    return shelf;
}

Result<std::string> putBottle(Workshop& workshop, Bottle bottle) {
    if (bottle.id.empty()) {
        // Not one of those that ship, either.
        std::string name = bottle.name;
        for (int n = 2;; ++n) {
            const Result<std::string> id = workshop.freeId(kPaintKind, name);
            if (!id) return id.error();
            bottle.id = *id;
            if (!findBottle(genericShelf(), bottle.id)) break;
            name = bottle.name + " " + std::to_string(n);
        }
    }
    if (Status ok = checkBottle(bottle, "paint"); !ok) return ok.error();
    if (Status ok =
            workshop.put({kPaintKind, bottle.id, bottle.name, bottle.family, shelfText({bottle}), {}, {}});
        !ok)
        return ok.error();
    return bottle.id;
}

Status takeBottle(Workshop& workshop, const Bottle& bottle) {
    if (!findBottle(genericShelf(), bottle.id)) return workshop.remove(kPaintKind, bottle.id);
    return workshop.put({kPaintKind, bottle.id, bottle.name, bottle.family, kNotHere, {}, {}});
}

}  // namespace nine
