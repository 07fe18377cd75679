#include "job/chapters/cut.h"

#include "job/job.h"
#include "job/json_fields.h"

namespace nine {

using namespace json;

CutChapter ChapterOf<CutChapter>::read(Fields& f, Warnings&) {
    CutChapter cut;
    if (const Value* sheet = f.find("sheet")) {
        Fields s(*sheet, f.at("sheet"));
        cut.sheet = {s.number("width_mm"), s.number("height_mm")};
        if (Status ok = checkSheet(cut.sheet, f.at("sheet")); !ok) throw Bad{ok.error()};
        cut.sheetUnknownJson = s.unknown();
    }
    f.read("tool", cut.tool);
    if (const Value* places = f.find("places")) {
        for (const Value& item : needArray(*places, f.at("places"))) {
            Fields p(item, indexed(f.at("places"), cut.places.size()));
            PiecePlace place;
            p.need("mask");
            p.read("mask", place.piece);
            int page = 1;
            p.read("sheet", page);
            if (page < 1 || page > static_cast<int>(kMaxPages))
                fail("bad_value",
                     Words(NINE_WORDS("core", "Sheets count from 1 to {most}.")).number("most", kMaxPages, 0),
                     p.at("sheet"));
            place.page = static_cast<std::size_t>(page - 1);
            place.middle_mm = {p.number("x_mm"), p.number("y_mm")};
            place.unknownJson = p.unknown();
            cut.places.push_back(std::move(place));
        }
    }
    return cut;
}

void ChapterOf<CutChapter>::write(Json& json, const CutChapter& cut) {
    const SheetSize usual;
    if (cut.sheet.width_mm != usual.width_mm || cut.sheet.height_mm != usual.height_mm ||
        !cut.sheetUnknownJson.empty()) {
        json["sheet"] = {{"width_mm", cut.sheet.width_mm}, {"height_mm", cut.sheet.height_mm}};
        addUnknown(json["sheet"], cut.sheetUnknownJson);
    }
    if (cut.tool != CutChapter().tool) json["tool"] = cut.tool;
    for (const PiecePlace& place : cut.places) {
        Json entry{{"mask", place.piece},
                   {"sheet", place.page + 1},
                   {"x_mm", place.middle_mm.x()},
                   {"y_mm", place.middle_mm.y()}};
        addUnknown(entry, place.unknownJson);
        json["places"].push_back(std::move(entry));
    }
}

const CutTool& toolOf(const CutChapter& cut) {
    for (const CutTool& tool : cutTools())
        if (tool.id == cut.tool) return tool;
    return cutTools().front();
}

Job withPlace(const Job& job, PiecePlace place) {
    CutChapter cut = job.get<CutChapter>();
    for (const PiecePlace& before : cut.places)
        if (before.piece == place.piece && place.unknownJson.empty()) place.unknownJson = before.unknownJson;
    std::erase_if(cut.places, [&](const PiecePlace& p) { return p.piece == place.piece; });
    cut.places.push_back(std::move(place));
    return job.with(std::move(cut));
}

Job withPlacesOf(const Job& job, const CutPages& pages, std::size_t index) {
    Job next = job;
    for (std::size_t i = 0; i < pages.pieces.size(); ++i) {
        const PlacedPiece& placed = pages.pieces[i];
        if (!placed.byHand && i != index) continue;
        const Box2 box = placed.piece.box();
        // Not rounded: pieces may stand edge to edge.
        next = withPlace(next, {placed.piece.id, placed.page, 0.5 * (box.low + box.high), {}});
    }
    return next;
}

}  // namespace nine
