#include "scale/choose.h"

#include <algorithm>
#include <cmath>

#include "scale/limits.h"

namespace nine {

Status checkScaleWish(const ScaleWish& wish, const std::string& path) {
    const auto within = [&](const char* field, double value, double low, double high) {
        return checkWithin(field, value, low, high, path);
    };
    for (const Status& ok :
         {within("fish_mm", wish.fish_mm, 10, 5000), within("fish_count", wish.fishCount, 3, 2000),
          within("count", wish.count, 2, 1000), within("eye_mm", wish.eye_mm, 0.1, 40),
          within("tolerance", wish.tolerance, 0.01, 1)})
        if (!ok) return ok;
    return Done{};
}

double wantedScale_mm(const ScaleWish& wish, double body_mm, double side_mm) {
    switch (wish.from) {
        case ScaleFrom::Fish:
            return wish.fish_mm / wish.fishCount * body_mm / wish.fish_mm;
        case ScaleFrom::Count:
            return side_mm / wish.count;
        case ScaleFrom::Eye:
            break;
    }
    return wish.eye_mm;
}

NetRanking rankNets(const std::vector<Net>& nets, double wanted_mm, Fraction tolerance) {
    NetRanking ranking;
    ranking.wanted_mm = wanted_mm;
    for (const Net& net : nets) {
        for (const bool doubled : {false, true}) {
            if (doubled && !net.doubles) continue;
            NetChoice choice;
            choice.net = net;
            choice.doubled = doubled;
            choice.scale_mm = net.along_mm / (doubled ? std::sqrt(2.0) : 1);
            choice.ratio = choice.scale_mm / wanted_mm;
            choice.good = choice.ratio <= 1 + tolerance && choice.ratio >= 1 / (1 + tolerance);
            const double off = std::abs(choice.ratio - 1);
            choice.reason =
                choice.ratio >= 2
                    ? Words(NINE_WORDS("core", "scales of {scale}, {times} times as large as wanted"))
                          .length("scale", choice.scale_mm, 2)
                          .number("times", choice.ratio, 1)
                : off < 0.005 ? Words(NINE_WORDS("core", "scales of {scale}, as wanted"))
                                    .length("scale", choice.scale_mm, 2)
                : choice.ratio > 1 ? Words(NINE_WORDS("core", "scales of {scale}, {off} larger than wanted"))
                                         .length("scale", choice.scale_mm, 2)
                                         .share("off", off)
                                   : Words(NINE_WORDS("core", "scales of {scale}, {off} smaller than wanted"))
                                         .length("scale", choice.scale_mm, 2)
                                         .share("off", off);
            ranking.choices.push_back(std::move(choice));
        }
    }
    std::stable_sort(ranking.choices.begin(), ranking.choices.end(),
                     [](const NetChoice& a, const NetChoice& b) {
                         return std::abs(std::log(a.ratio)) < std::abs(std::log(b.ratio));
                     });
    ranking.tooCoarse =
        !ranking.choices.empty() && std::all_of(ranking.choices.begin(), ranking.choices.end(),
                                                [&](const NetChoice& c) { return c.ratio > 1 + tolerance; });
    if (ranking.choices.empty())
        ranking.summary = NINE_WORDS("core", "There is no net to choose from.");
    else if (ranking.tooCoarse)
        ranking.summary =
            Words(NINE_WORDS("core", "Scales of {wanted} are finer than any net: use one as a hint only."))
                .length("wanted", wanted_mm, 2);
    else if (ranking.choices.front().good)
        ranking.summary = Words(NINE_WORDS("core", "Scales of {wanted} are wanted: {net} comes nearest."))
                              .length("wanted", wanted_mm, 2)
                              .name("net", ranking.choices.front().net.name);
    else
        ranking.summary =
            Words(NINE_WORDS("core", "No net is near scales of {wanted}; {net} is the nearest."))
                .length("wanted", wanted_mm, 2)
                .name("net", ranking.choices.front().net.name);
    return ranking;
}

const std::vector<FishCount>& fishCounts() {
    // From memory of field guides, no source at hand: counts vary between waters.
    static const std::vector<FishCount> counts{
        {"brook_char", NINE_WORDS("core", "brook char"), 210, 215, 250, 180},
        {"grayling", NINE_WORDS("core", "grayling"), 75, 85, 98, 300},
        {"ruffe", NINE_WORDS("core", "ruffe"), 35, 38, 40, 120},
    };
    return counts;
}

}  // namespace nine
