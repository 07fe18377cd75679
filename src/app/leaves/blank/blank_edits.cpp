#include "app/leaves/blank/blank_edits.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"

namespace nine::app {
namespace {

constexpr double kNearestStations_mm = 0.2;
constexpr double kLeastScale = 0.1;
constexpr double kLongestBody_mm = 1000;

double girthOf(Station station, double exponent) {
    return SectionArc(Section{station.halfWidth_mm, station.top_mm, station.bottom_mm, exponent, exponent})
        .girth();
}

/// The job with this blank, if the blank is one.
Result<Job> checked(const Job& job, BlankChapter blank) {
    const Result<Skin> skin = Skin::of(blank.table);
    if (!skin) return skin.error();
    if (Status ok = checkLandmarks(*skin, blank.landmarks); !ok) return ok.error();
    return withBlank(job, std::move(blank));
}

}  // namespace

Range roomForStation(const Job& job, std::size_t index) {
    const auto& stations = job.blank->table.stations;
    const double own = stations[index].x_mm;
    return {index == 0 ? own : stations[index - 1].x_mm + kNearestStations_mm,
            index + 1 < stations.size() ? stations[index + 1].x_mm - kNearestStations_mm : kLongestBody_mm};
}

Result<Job> withStation(const Job& job, std::size_t index, Station station) {
    BlankChapter blank = *job.blank;
    auto& stations = blank.table.stations;
    const Range room = roomForStation(job, index);
    if (!(station.x_mm >= room.low && station.x_mm <= room.high)) {
        return Error{"out_of_range",
                     "A station lies between its neighbours, here from " + fixedText(room.low, 1) + " to " +
                         fixedText(room.high, 1) + " mm from the nose.",
                     "blank.stations"};
    }
    stations[index] = station;
    return checked(job, std::move(blank));
}

Result<Job> withStationAt(const Job& job, double x_mm) {
    BlankChapter blank = *job.blank;
    const Result<Skin> skin = Skin::of(blank.table);
    if (!skin) return skin.error();
    auto& stations = blank.table.stations;
    const auto after =
        std::find_if(stations.begin(), stations.end(), [&](const Station& s) { return s.x_mm > x_mm; });
    const bool inside = after != stations.begin() && after != stations.end();
    if (!inside || after->x_mm - x_mm < kNearestStations_mm ||
        x_mm - (after - 1)->x_mm < kNearestStations_mm) {
        return Error{"off_body", "A station needs a place of its own between nose and tail.",
                     "blank.stations"};
    }
    const Section s = skin->loft().sectionAt(x_mm);
    const auto hundredth = [](double v) { return std::round(100 * v) / 100; };
    stations.insert(after, {hundredth(x_mm),
                            hundredth(s.top),
                            hundredth(s.bottom),
                            hundredth(s.halfWidth),
                            hundredth(s.exponentUpper),
                            hundredth(s.exponentLower),
                            {}});
    if (const Result<Skin> next = Skin::of(blank.table); !next) return next.error();
    return withBlank(job, std::move(blank));
}

Result<Job> withoutStation(const Job& job, std::size_t index) {
    BlankChapter blank = *job.blank;
    auto& stations = blank.table.stations;
    if (index == 0 || index + 1 >= stations.size()) {
        return Error{"out_of_range", "Nose and tail cannot be taken out.", "blank.stations"};
    }
    stations.erase(stations.begin() + static_cast<long>(index));
    return checked(job, std::move(blank));
}

Result<double> exponentForGirth(const Station& station, double girth_mm) {
    double low = kMinSectionExponent, high = kMaxSectionExponent;
    const double least = girthOf(station, low), most = girthOf(station, high);
    if (!(girth_mm >= least && girth_mm <= most)) {
        return Error{"out_of_range",
                     "With these calipers a string can only measure from " + fixedText(least, 1) + " to " +
                         fixedText(most, 1) + " mm round; measure again.",
                     "girth_mm"};
    }
    for (int i = 0; i < 60; ++i) {  // girth grows with the exponent
        const double middle = 0.5 * (low + high);
        (girthOf(station, middle) < girth_mm ? low : high) = middle;
    }
    return 0.5 * (low + high);
}

Result<Job> withLandmark(const Job& job, const std::string& name, const Vec2& shift) {
    BlankChapter blank = *job.blank;
    for (Vec2& p : blank.landmarks[name].points) p += shift;
    return checked(job, std::move(blank));
}

Result<Job> withLandmarkPoint(const Job& job, const std::string& name, std::size_t point, const Vec2& to) {
    BlankChapter blank = *job.blank;
    blank.landmarks[name].points.at(point) = to;
    return checked(job, std::move(blank));
}

Result<Job> withScale(const Job& job, const BodyScale& scale) {
    for (const double factor : {scale.along, scale.height, scale.width}) {
        if (!(factor >= kLeastScale && factor <= 1 / kLeastScale)) {
            return Error{"out_of_range", "That is more than ten times or less than a tenth of what it was.",
                         "blank.stations"};
        }
    }
    BlankChapter blank = *job.blank;
    const auto hundredth = [](double v) { return std::round(100 * v) / 100; };
    auto& stations = blank.table.stations;
    const double nose = stations.front().x_mm;
    for (Station& s : stations) {
        s.x_mm = hundredth(nose + scale.along * (s.x_mm - nose));
        s.top_mm = hundredth(scale.height * s.top_mm);
        s.bottom_mm = hundredth(scale.height * s.bottom_mm);
        s.halfWidth_mm = hundredth(scale.width * s.halfWidth_mm);
    }
    // A landmark keeps its share of the way along and of the girth above or below the datum line.
    const Result<Skin> before = Skin::of(job.blank->table), after = Skin::of(blank.table);
    if (!before) return before.error();
    if (!after) return after.error();
    for (auto& [name, landmark] : blank.landmarks) {
        for (Vec2& p : landmark.points) {
            const double x = nose + scale.along * (p.x() - nose);
            const SectionArc was = before->arcAt(p.x()), is = after->arcAt(std::min(x, after->tailX()));
            const double share = p.y() >= 0 ? is.backArc() / was.backArc() : is.bellyArc() / was.bellyArc();
            p = {hundredth(x), hundredth(p.y() * share)};
        }
    }
    return checked(job, std::move(blank));
}

}  // namespace nine::app
