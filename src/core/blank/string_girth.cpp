#include "blank/string_girth.h"

#include "base/number_text.h"
#include "blank/section_arc.h"

namespace nine {
namespace {

Station withExponent(Station s, double exponent, Fuller fuller) {
    if (fuller != Fuller::Lower) s.section = exponent;
    if (fuller != Fuller::Upper) s.sectionLower = exponent;
    return s;
}

Error impossible(const GirthRange& range, double girth, const std::string& what, const std::string& where) {
    return {"girth_impossible",
            Words(NINE_WORDS("core",
                             "A string of {girth} cannot lie round this section: with {what} it "
                             "measures from {least} to {most}. Measure again, width and height too."))
                .length("girth", girth, 1)
                .name("what", what)
                .length("least", range.least_mm, 1)
                .length("most", range.most_mm, 1),
            where};
}

/// The argument between low and high at which the growing function passes `wanted`.
template <typename F>
double bisect(double low, double high, double wanted, const F& f) {
    for (int i = 0; i < 60; ++i) {
        const double middle = 0.5 * (low + high);
        (f(middle) < wanted ? low : high) = middle;
    }
    return 0.5 * (low + high);
}

}  // namespace

double girthOf_mm(const Station& s) {
    if (s.halfWidth_mm <= 0) return 0;
    return SectionArc(Section{s.halfWidth_mm, s.top_mm, s.bottom_mm, s.section, s.sectionLower}).girth_mm();
}

GirthRange possibleGirths(const Station& station, Fuller fuller) {
    return {girthOf_mm(withExponent(station, kMinSectionExponent, fuller)),
            girthOf_mm(withExponent(station, kMaxSectionExponent, fuller))};
}

Result<Station> withGirth(Station station, double girth_mm, Fuller fuller, const std::string& where) {
    if (station.halfWidth_mm <= 0)
        return Error{"zero_inside",
                     NINE_WORDS("core", "At a closed end there is nothing to lay a string round."), where};
    const GirthRange range = possibleGirths(station, fuller);
    if (!(girth_mm >= range.least_mm && girth_mm <= range.most_mm))
        return impossible(range, girth_mm, "this width and height", where);
    const double exponent = bisect(kMinSectionExponent, kMaxSectionExponent, girth_mm,
                                   [&](double n) { return girthOf_mm(withExponent(station, n, fuller)); });
    station = withExponent(station, exponent, fuller);
    station.girth_mm = girth_mm;
    station.assumed &= ~static_cast<unsigned>(kAssumedSection);
    return station;
}

Result<double> halfWidthForGirth(const Station& station, double girth_mm, const std::string& where) {
    Station s = station;
    const double height = s.top_mm + s.bottom_mm;
    const auto at = [&](double halfWidth) {
        s.halfWidth_mm = halfWidth;
        return girthOf_mm(s);
    };
    // From a blade to a body three times as wide as high.
    const double thinnest = 0.02 * height, widest = 1.5 * height;
    const GirthRange range{at(thinnest), at(widest)};
    if (!(girth_mm >= range.least_mm && girth_mm <= range.most_mm))
        return impossible(range, girth_mm, "this height", where);
    return bisect(thinnest, widest, girth_mm, at);
}

}  // namespace nine
