#include "spray/profile.h"

#include <algorithm>

namespace nine {

const std::vector<SprayPractice>& sprayPractices() {
    static const std::vector<SprayPractice> all{
        {SprayWork::Cover, "cover", "Cover coat", {25, 28, 30}, {80, 120, 150}, {4, 1}, 2, 3, 2, 4.0, 200},
        {SprayWork::Stencil,
         "stencil",
         "Through a stencil",
         {13, 15, 20},
         {50, 70, 100},
         {4, 1},
         1,
         2,
         2,
         0.4,
         120},
        {SprayWork::Tape, "tape", "Along tape", {13, 15, 20}, {60, 90, 120}, {4, 1}, 1, 2, 2, 0.4, 120},
        {SprayWork::Net, "net", "Through a net", {15, 16, 17}, {80, 100, 150}, {4, 2}, 1, 2, 1, 1.0, 150},
        {SprayWork::Mist, "mist", "Barrier mist", {10, 12, 15}, {150, 180, 220}, {4, 1}, 1, 1, 1, 1.0, 250},
        {SprayWork::Detail, "detail", "Free detail", {8, 10, 15}, {10, 20, 40}, {3, 2}, 1, 3, 2, 0.2, 80},
    };
    return all;
}

const SprayPractice& practiceFor(SprayWork work) {
    const auto& all = sprayPractices();
    return *std::find_if(all.begin(), all.end(), [&](const SprayPractice& p) { return p.work == work; });
}

const std::vector<CoatRow>& coatRows() {
    static const std::vector<CoatRow> rows{{"opaque white", 2, 2},
                                           {"neon", 2, 3},
                                           {"black through a stencil", 1, 2},
                                           {"transparent blue on silver", 5, 7},
                                           {"barrier white", 1, 1}};
    return rows;
}

std::vector<Gun> usualBench() {
    return {{"fine", 0.2, 8, 45}, {"general", 0.35, 8, 45}};
}

}  // namespace nine
