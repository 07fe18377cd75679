// Elements as tests write and read them: the values of the kinds by name.
#pragma once

#include "pattern/element.h"

namespace nine::test {

struct DotRow {
    int count = 8;
    double spacing_mm = 4, first_mm = 2, last_mm = 2, bow_mm = 0;
};

struct Bars {
    int count = 5;
    double spacing_mm = 6, widthBack_mm = 2, widthBelly_mm = 1, g0_mm = -4, g1_mm = 8;
};

struct GillMark {
    double width_mm = 2.5, from = 0.1, to = 0.9, pair_mm = 0;
    std::string pairColour = "#f2efe2";
};

inline void shape(Element& e, const DotRow& row) {
    e.kind = "dot_row";
    e.values = usualValues(*findKind("dot_row"));
    e.values.set("count", double(row.count));
    e.values.set("spacing_mm", row.spacing_mm);
    e.values.set("first_mm", row.first_mm);
    e.values.set("last_mm", row.last_mm);
    e.values.set("bow_mm", row.bow_mm);
}

inline void shape(Element& e, const Bars& bars) {
    e.kind = "bars";
    e.values = usualValues(*findKind("bars"));
    e.values.set("count", double(bars.count));
    e.values.set("spacing_mm", bars.spacing_mm);
    e.values.set("width_back_mm", bars.widthBack_mm);
    e.values.set("width_belly_mm", bars.widthBelly_mm);
    e.values.set("g0_mm", bars.g0_mm);
    e.values.set("g1_mm", bars.g1_mm);
}

inline void shape(Element& e, const GillMark& mark) {
    e.kind = "gill_mark";
    e.values = usualValues(*findKind("gill_mark"));
    e.values.set("width_mm", mark.width_mm);
    e.values.set("from", mark.from);
    e.values.set("to", mark.to);
    e.values.set("pair_mm", mark.pair_mm);
    e.values.set("pair_colour", mark.pairColour);
}

inline DotRow dotRow(const Element& e) {
    const auto v = [&](const char* key) { return e.values.number(key); };
    return {int(v("count")), v("spacing_mm"), v("first_mm"), v("last_mm"), v("bow_mm")};
}

inline Bars bars(const Element& e) {
    const auto v = [&](const char* key) { return e.values.number(key); };
    return {int(v("count")),     v("spacing_mm"), v("width_back_mm"),
            v("width_belly_mm"), v("g0_mm"),      v("g1_mm")};
}

inline GillMark gillMark(const Element& e) {
    const auto v = [&](const char* key) { return e.values.number(key); };
    const ParamValue* colour = e.values.find("pair_colour");
    return {v("width_mm"), v("from"), v("to"), v("pair_mm"), colour ? std::get<std::string>(*colour) : ""};
}

}  // namespace nine::test
