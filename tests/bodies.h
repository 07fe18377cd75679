// Skins of known shape.
#pragma once

#include "base/units.h"
#include "blank/skin.h"
#include "tests/support.h"

namespace nine::test {

inline Station round(double x, double r) {
    return {x, r, r, r, 2, 2, {}};
}

inline Skin skinOf(std::vector<Station> stations) {
    return need(Skin::of(StationTable{std::move(stations)}));
}

inline Skin sampleSkin(const std::string& name) {
    const std::string path = example(name + ".csv");
    return need(Skin::of(need(parseStationTable(need(readFile(path)), path))));
}

inline const char* const kSamples[] = {"sedge60", "willow104", "dock65", "reed118", "sorrel70"};

inline Skin cylinder(double r, double length) {
    return skinOf({round(0, r), round(length / 3, r), round(2 * length / 3, r), round(length, r)});
}
inline Skin cone(double r0, double r1, double length) {
    return skinOf({round(0, r0), round(length / 2, (r0 + r1) / 2), round(length, r1)});
}
/// Spheroid with half axes c along x and a across, from `stations` readings; x from 0 to 2c.
inline Skin spheroid(double a, double c, int stations = 15) {
    std::vector<Station> table;
    for (int i = 0; i < stations; ++i) {
        const double x = c * (1 - std::cos(kPi * i / (stations - 1)));
        const double inside = 1 - (x - c) * (x - c) / (c * c);
        const bool end = i == 0 || i == stations - 1;
        table.push_back(
            round(i + 1 == stations ? 2 * c : x, end ? 0.0 : a * std::sqrt(std::max(0.0, inside))));
    }
    return skinOf(std::move(table));
}
inline Skin sphere(double r) {
    return spheroid(r, r);
}

}  // namespace nine::test
