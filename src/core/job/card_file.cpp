#include "job/card_file.h"

#include <algorithm>

#include "base/base64.h"
#include "job/json_fields.h"

namespace nine {
namespace {

using namespace json;

constexpr int kCardFormat = 1;

std::string wordOf(Act act) {
    for (const EnumName<Act>& name : actNames())
        if (name.value == act) return std::string(name.id);
    return "note";
}

template <typename T, typename Read>
void readList(Fields& f, const char* key, std::vector<T>& into, const Read& read) {
    const Value* list = f.find(key);
    if (!list) return;
    for (const Value& item : needArray(*list, f.at(key))) {
        Fields one(item, indexed(f.at(key), into.size()));
        into.push_back(read(one));
    }
}
Json stepJson(const LaidStep& s) {
    Json json{{"act", wordOf(s.act)}, {"name", s.name}};
    if (!s.step.empty()) json["step"] = s.step;
    if (!s.mask.empty()) json["mask"] = s.mask;
    for (const CardPaint& p : s.paint)
        json["paint"].push_back({{"id", p.id}, {"name", p.name}, {"drops", p.drops}});
    if (!s.paint.empty()) json.update({{"reducer", s.reducer}, {"coats", s.coats}});
    if (!s.colour.empty()) json["colour"] = s.colour;
    if (!s.ground.empty()) json["ground"] = s.ground;
    if (s.set.needle_mm > 0)
        json["set"] = {{"gun", s.set.gun},
                       {"pressure_kpa", s.set.pressure_kpa},
                       {"needle_mm", s.set.needle_mm},
                       {"distance_mm", s.set.distance_mm},
                       {"angle_deg", s.set.angle_deg}};
    if (!s.clear.empty()) json["clear"] = s.clear;
    if (!s.glue.empty()) json["glue"] = s.glue;
    if (s.wait_min > 0) json["wait_min"] = s.wait_min;
    if (s.took_s > 0) json["took_s"] = s.took_s;
    if (s.skipped) json["skipped"] = true;
    if (!s.changed.empty()) json["changed"] = s.changed;
    if (!s.note.empty()) json["note"] = s.note;
    return json;
}

LaidStep readStep(Fields& f) {
    LaidStep s;
    std::string act;
    f.read("act", act);
    s.act = Act::Note;
    for (const EnumName<Act>& name : actNames())
        if (name.id == act) s.act = name.value;
    f.read("name", s.name);
    f.read("step", s.step);
    f.read("mask", s.mask);
    readList(f, "paint", s.paint, [](Fields& p) {
        CardPaint paint;
        p.read("id", paint.id);
        p.read("name", paint.name);
        p.read("drops", paint.drops);
        return paint;
    });
    f.read("reducer", s.reducer);
    f.read("coats", s.coats);
    f.read("colour", s.colour);
    f.read("ground", s.ground);
    if (const Value* set = f.find("set")) {
        Fields g(*set, f.at("set"));
        g.read("gun", s.set.gun);
        g.read("pressure_kpa", s.set.pressure_kpa);
        g.read("needle_mm", s.set.needle_mm);
        g.read("distance_mm", s.set.distance_mm);
        g.read("angle_deg", s.set.angle_deg);
    }
    f.read("clear", s.clear);
    f.read("glue", s.glue);
    f.read("wait_min", s.wait_min);
    f.read("took_s", s.took_s);
    f.read("skipped", s.skipped);
    readTexts(f, "changed", s.changed);
    f.read("note", s.note);
    return s;
}

Json sideJson(const SideReading& r) {
    Json json{{"mark", r.mark},
              {"mask", r.mask},
              {"planned_x_mm", r.plannedX_mm},
              {"planned_up_mm", r.plannedUp_mm}};
    if (r.leftX_mm) json["left_x_mm"] = *r.leftX_mm;
    if (r.leftUp_mm) json["left_up_mm"] = *r.leftUp_mm;
    if (r.rightX_mm) json["right_x_mm"] = *r.rightX_mm;
    if (r.rightUp_mm) json["right_up_mm"] = *r.rightUp_mm;
    return json;
}

Json cardJson(const RecipeCard& c) {
    Json json{{"format", kCardFormat},     {"id", c.id},
              {"title", c.title},          {"blank", c.blank},
              {"began", utcText(c.began)}, {"ended", utcText(c.ended)},
              {"lures", c.lures}};
    if (!c.job.empty()) json["job_name"] = c.job;
    if (!c.forWhom.empty()) json["for"] = c.forWhom;
    if (c.painted_s > 0) json["painted_s"] = c.painted_s;
    if (!c.school.empty()) json["school"] = c.school;
    for (const LaidStep& s : c.steps) json["steps"].push_back(stepJson(s));
    for (const CardTool& t : c.tools)
        json["tools"].push_back(
            {{"kind", t.kind}, {"id", t.id}, {"name", t.name}, {"made", t.made}, {"uses", t.uses}});
    for (const CardAmount& a : c.amounts)
        json["amounts"].push_back({{"id", a.id}, {"name", a.name}, {"used_ml", a.used_ml}});
    for (const CardMishap& m : c.mishaps)
        json["mishaps"].push_back(
            {{"at", utcText(m.at)}, {"kind", m.kind}, {"step", m.step}, {"lure", m.lure}, {"note", m.note}});
    if (!c.seen.empty()) json["seen"] = c.seen;
    if (!c.text.empty()) json["text"] = c.text;
    for (const SideReading& r : c.sides) json["sides"].push_back(sideJson(r));
    if (c.measuredLure > 0) json["measured_lure"] = c.measuredLure;
    addUnknown(json, c.unknownJson);
    return json;
}

RecipeCard readCard(Fields& f) {
    // In one piece: one field after the other.
    int format = 0;
    f.read("format", format);
    if (format > kCardFormat)
        fail(
            "newer_format",
            NINE_WORDS("core", "This recipe card was written by a newer version. Open it with that version."),
            f.at("format"));
    RecipeCard c;
    f.read("id", c.id);
    f.need("title");
    f.read("title", c.title);
    f.read("blank", c.blank);
    c.began = readMoment(f, "began");
    c.ended = readMoment(f, "ended");
    f.read("lures", c.lures);
    f.read("job_name", c.job);
    f.read("for", c.forWhom);
    f.read("painted_s", c.painted_s);
    f.read("school", c.school);
    readList(f, "steps", c.steps, readStep);
    readList(f, "tools", c.tools, [](Fields& t) {
        CardTool tool;
        t.read("kind", tool.kind);
        t.read("id", tool.id);
        t.read("name", tool.name);
        t.read("made", tool.made);
        t.read("uses", tool.uses);
        return tool;
    });
    readList(f, "amounts", c.amounts, [](Fields& a) {
        CardAmount amount;
        a.read("id", amount.id);
        a.read("name", amount.name);
        a.read("used_ml", amount.used_ml);
        return amount;
    });
    readList(f, "mishaps", c.mishaps, [](Fields& m) {
        CardMishap mishap;
        mishap.at = readMoment(m, "at");
        m.read("kind", mishap.kind);
        m.read("step", mishap.step);
        m.read("lure", mishap.lure);
        m.read("note", mishap.note);
        return mishap;
    });
    readTexts(f, "seen", c.seen);
    f.read("text", c.text);
    readList(f, "sides", c.sides, [](Fields& s) {
        SideReading r;
        s.read("mark", r.mark);
        s.read("mask", r.mask);
        s.read("planned_x_mm", r.plannedX_mm);
        s.read("planned_up_mm", r.plannedUp_mm);
        s.read("left_x_mm", r.leftX_mm);
        s.read("left_up_mm", r.leftUp_mm);
        s.read("right_x_mm", r.rightX_mm);
        s.read("right_up_mm", r.rightUp_mm);
        return r;
    });
    f.read("measured_lure", c.measuredLure);
    c.unknownJson = f.unknown();
    if (Status ok = checkCard(c, "card"); !ok) throw Bad{ok.error()};
    return c;
}

}  // namespace

std::string cardText(const RecipeCard& card) {
    return textOf(cardJson(card));
}

Result<RecipeCard> parseCard(std::string_view text, const std::string& source) {
    return readText<RecipeCard>(text, source, "recipe card", [](const Value& value) {
        Fields f(value, "");
        return readCard(f);
    });
}

std::string cardsText(const std::vector<WholeCard>& cards) {
    Json json{{"format", kCardFormat}, {"cards", Json::array()}};
    for (const WholeCard& whole : cards) {
        Json card = cardJson(whole.card);
        // A file ends with a line; what stands within another does not.
        const std::size_t end = whole.jobText.find_last_not_of(" \n\r\t");
        if (end != std::string::npos) card["job"] = asItStood(whole.jobText.substr(0, end + 1));
        for (const std::string& picture : whole.pictures) card["pictures"].push_back(base64Of(picture));
        json["cards"].push_back(std::move(card));
    }
    return textOf(json);
}

Result<std::vector<WholeCard>> parseCards(std::string_view text, const std::string& source) {
    return readText<std::vector<WholeCard>>(text, source, "recipe cards", [](const Value& value) {
        Fields f(value, "");
        std::vector<WholeCard> all;
        int format = 0;
        f.read("format", format);
        if (format > kCardFormat)
            fail("newer_format",
                 NINE_WORDS("core",
                            "This recipe card was written by a newer version. Open it with that version."),
                 "format");
        for (const Value& item : needArray(f.need("cards"), "cards")) {
            Fields c(item, indexed("cards", all.size()));
            WholeCard whole;
            if (const Value* job = c.find("job")) whole.jobText = std::string(job->raw());
            if (const Value* pictures = c.find("pictures"))
                for (const Value& picture : needArray(*pictures, c.at("pictures"))) {
                    auto bytes = bytesOfBase64(picture.text());
                    if (!bytes)
                        fail("bad_value", NINE_WORDS("core", "This picture is not whole."),
                             indexed(c.at("pictures"), whole.pictures.size()));
                    whole.pictures.push_back(std::move(*bytes));
                }
            whole.card = readCard(c);
            all.push_back(std::move(whole));
        }
        return all;
    });
}

std::string toolRowText(const ToolRow& row) {
    Json json{{"kind", row.kind}, {"id", row.id}, {"name", row.name}};
    if (!row.made.empty()) json["made"] = row.made;
    if (row.life > 0) json["life"] = row.life;
    if (row.price >= 0) json["price"] = row.price;
    if (row.newSince > 0) json["new_since"] = utcText(row.newSince);
    if (row.cleaned > 0) json["cleaned"] = row.cleaned;
    addUnknown(json, row.unknownJson);
    return textOf(json);
}

Result<ToolRow> parseToolRow(std::string_view text, const std::string& source) {
    return readText<ToolRow>(text, source, "tool", [](const Value& value) {
        Fields f(value, "");
        ToolRow row;
        f.need("kind");
        f.read("kind", row.kind);
        f.need("id");
        f.read("id", row.id);
        f.read("name", row.name);
        f.read("made", row.made);
        f.read("life", row.life);
        f.read("price", row.price);
        if (f.find("new_since")) row.newSince = readMoment(f, "new_since");
        f.read("cleaned", row.cleaned);
        row.unknownJson = f.unknown();
        if (row.life < 0 || row.cleaned < 0 || row.cleaned > 100000)
            fail("out_of_range", NINE_WORDS("core", "A tool lasts some uses, and was cleaned some times."),
                 "life");
        return row;
    });
}

}  // namespace nine
