#include "app/leaves/blank/blank_edits.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "blank/families.h"

namespace nine::app {
namespace {

constexpr double kNearestStations_mm = 0.2;
constexpr double kLeastScale = 0.1;
constexpr double kLongestBody_mm = 1000;

/// The job with this blank, if the blank is one.
Result<Job> checked(const Job& job, BlankChapter blank) {
    const Result<Skin> skin = Skin::of(blank.table);
    if (!skin) return skin.error();
    if (Status ok = checkLandmarks(*skin, blank.landmarks); !ok) return ok.error();
    if (Status ok = checkZones(*skin, blank.zones); !ok) return ok.error();
    return job.with(std::move(blank));
}

}  // namespace

Range roomForStation(const Job& job, std::size_t index) {
    const auto& stations = job.get<BlankChapter>().table.stations;
    const double own = stations[index].x_mm;
    return {index == 0 ? own : stations[index - 1].x_mm + kNearestStations_mm,
            index + 1 < stations.size() ? stations[index + 1].x_mm - kNearestStations_mm : kLongestBody_mm};
}

Result<Job> withStation(const Job& job, std::size_t index, Station station) {
    BlankChapter blank = job.get<BlankChapter>();
    auto& stations = blank.table.stations;
    const Range room = roomForStation(job, index);
    if (!(station.x_mm >= room.low && station.x_mm <= room.high)) {
        return Error{"out_of_range",
                     Words(NINE_WORDS("core",
                                      "A station lies between its neighbours, here from {low} to {high} from "
                                      "the nose."))
                         .length("low", room.low, 1)
                         .length("high", room.high, 1),
                     "blank.stations"};
    }
    // What somebody changes, somebody has measured.
    const Station& before = stations[index];
    if (station.top_mm != before.top_mm) station.assumed &= ~static_cast<unsigned>(kAssumedTop);
    if (station.bottom_mm != before.bottom_mm) station.assumed &= ~static_cast<unsigned>(kAssumedBottom);
    if (station.halfWidth_mm != before.halfWidth_mm) station.assumed &= ~static_cast<unsigned>(kAssumedWidth);
    if (station.section != before.section || station.sectionLower != before.sectionLower)
        station.assumed &= ~static_cast<unsigned>(kAssumedSection);
    stations[index] = station;
    return checked(job, std::move(blank));
}

Result<Job> withStationAt(const Job& job, double x_mm) {
    BlankChapter blank = job.get<BlankChapter>();
    const Result<Skin> skin = Skin::of(blank.table);
    if (!skin) return skin.error();
    auto& stations = blank.table.stations;
    const auto after =
        std::find_if(stations.begin(), stations.end(), [&](const Station& s) { return s.x_mm > x_mm; });
    const bool inside = after != stations.begin() && after != stations.end();
    if (!inside || after->x_mm - x_mm < kNearestStations_mm ||
        x_mm - (after - 1)->x_mm < kNearestStations_mm) {
        return Error{"off_body",
                     NINE_WORDS("core", "A station needs a place of its own between nose and tail."),
                     "blank.stations"};
    }
    const Section s = skin->loft().sectionAt(x_mm);
    const auto hundredth = [](double v) { return std::round(100 * v) / 100; };
    stations.insert(after, {hundredth(x_mm),
                            hundredth(s.top_mm),
                            hundredth(s.bottom_mm),
                            hundredth(s.halfWidth_mm),
                            hundredth(s.exponentUpper),
                            hundredth(s.exponentLower),
                            {}});
    if (const Result<Skin> next = Skin::of(blank.table); !next) return next.error();
    return job.with(std::move(blank));
}

Result<Job> withoutStation(const Job& job, std::size_t index) {
    BlankChapter blank = job.get<BlankChapter>();
    auto& stations = blank.table.stations;
    if (index == 0 || index + 1 >= stations.size()) {
        return Error{"out_of_range", NINE_WORDS("core", "Nose and tail cannot be taken out."),
                     "blank.stations"};
    }
    stations.erase(stations.begin() + static_cast<long>(index));
    return checked(job, std::move(blank));
}

Result<Job> withLandmark(const Job& job, const std::string& name, const Vec2& shift) {
    BlankChapter blank = job.get<BlankChapter>();
    for (Vec2& p : blank.landmarks[name].points) p += shift;
    blank.landmarks[name].assumed = false;
    return checked(job, std::move(blank));
}

Result<Job> withLandmarkPoint(const Job& job, const std::string& name, std::size_t point, const Vec2& to) {
    BlankChapter blank = job.get<BlankChapter>();
    Landmark& landmark = blank.landmarks[name];
    const bool outline = landmark.isOutline();
    landmark.points.at(point) = to;
    // The first corner of an outline is its last too.
    if (outline && point == 0) landmark.points.back() = to;
    if (outline && point + 1 == landmark.points.size()) landmark.points.front() = to;
    landmark.assumed = false;
    return checked(job, std::move(blank));
}

Result<Job> withScale(const Job& job, const BodyScale& scale) {
    for (const double factor : {scale.along, scale.height, scale.width}) {
        if (!(factor >= kLeastScale && factor <= 1 / kLeastScale)) {
            return Error{
                "out_of_range",
                NINE_WORDS("core", "That is more than ten times or less than a tenth of what it was."),
                "blank.stations"};
        }
    }
    BlankChapter blank = job.get<BlankChapter>();
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
    const Result<Skin> before = Skin::of(job.get<BlankChapter>().table), after = Skin::of(blank.table);
    if (!before) return before.error();
    if (!after) return after.error();
    const auto carry = [&](std::vector<Vec2>& points) {
        for (Vec2& p : points) {
            const double x = nose + scale.along * (p.x() - nose);
            const SectionArc was = before->arcAt(p.x()), is = after->arcAt(std::min(x, after->tailX_mm()));
            const double share =
                p.y() >= 0 ? is.backArc_mm() / was.backArc_mm() : is.bellyArc_mm() / was.bellyArc_mm();
            p = {hundredth(x), hundredth(p.y() * (std::isfinite(share) ? share : 0))};
            const double low = -2 * is.bellyArc_mm(), high = 2 * is.backArc_mm();
            p.y() = std::clamp(p.y(), low, high);
        }
    };
    for (auto& [name, landmark] : blank.landmarks) carry(landmark.points);
    for (Zone& zone : blank.zones) carry(zone.polygon);
    return checked(job, std::move(blank));
}

Result<Job> withNewLandmark(const Job& job, const std::string& name) {
    BlankChapter blank = job.get<BlankChapter>();
    const Result<Skin> skin = Skin::of(blank.table);
    if (!skin) return skin.error();
    double height = 0, width = 0;
    for (const Station& s : blank.table.stations) {
        height = std::max(height, s.top_mm + s.bottom_mm);
        width = std::max(width, 2 * s.halfWidth_mm);
    }
    const std::string family =
        blank.family.empty()
            ? std::string(likelyFamily(height / skin->length_mm(), width / skin->length_mm()))
            : blank.family;
    Landmarks usual = usualLandmarks(family, *skin);
    const auto found = usual.find(name);
    if (found != usual.end()) {
        blank.landmarks[name] = found->second;
    } else {  // this kind has none: in the middle of the flank, to be dragged
        const double x = std::round(skin->noseX_mm() + 0.4 * skin->length_mm());
        Landmark landmark;
        landmark.points = {Vec2(x, 0)};
        const LandmarkKind* kind = landmarkKind(name);
        if (name == "bill_slot") {
            landmark.points = {Vec2(x, -2), Vec2(x + 2, -2), Vec2(x + 2, -4), Vec2(x, -4), Vec2(x, -2)};
            landmark.angle_deg = 35;
        } else if (!kind || kind->curve) {
            landmark.points = {Vec2(x, 3), Vec2(x + 1, 0), Vec2(x, -3)};
        }
        landmark.assumed = true;
        blank.landmarks[name] = std::move(landmark);
    }
    return checked(job, std::move(blank));
}

Result<Job> withoutLandmark(const Job& job, const std::string& name) {
    for (const ElementPtr& e : job.get<PatternChapter>().elements) {
        if (e->anchor == name)
            return Error{
                "in_use",
                Words(NINE_WORDS("core",
                                 "\"{name}\" is anchored to the {landmark}; anchor it elsewhere first."))
                    .name("name", (e->name.empty() ? e->id : e->name))
                    .words("landmark", spokenName(name)),
                "blank.landmarks." + name};
    }
    BlankChapter blank = job.get<BlankChapter>();
    blank.landmarks.erase(name);
    return checked(job, std::move(blank));
}

Result<Job> withLandmarkAs(const Job& job, const std::string& name, Landmark landmark) {
    BlankChapter blank = job.get<BlankChapter>();
    landmark.assumed = false;
    blank.landmarks[name] = std::move(landmark);
    return checked(job, std::move(blank));
}

Result<Job> withZone(const Job& job, Zone zone) {
    BlankChapter blank = job.get<BlankChapter>();
    if (zone.id.empty()) {
        std::size_t n = blank.zones.size() + 1;
        const auto taken = [&](const std::string& id) {
            return std::any_of(blank.zones.begin(), blank.zones.end(),
                               [&](const Zone& z) { return z.id == id; });
        };
        while (taken("zone-" + std::to_string(n))) ++n;
        zone.id = "zone-" + std::to_string(n);
    }
    const auto found =
        std::find_if(blank.zones.begin(), blank.zones.end(), [&](const Zone& z) { return z.id == zone.id; });
    if (found == blank.zones.end()) {
        blank.zones.push_back(std::move(zone));
    } else {
        *found = std::move(zone);
    }
    return checked(job, std::move(blank));
}

Result<Job> withoutZone(const Job& job, const std::string& id) {
    BlankChapter blank = job.get<BlankChapter>();
    std::erase_if(blank.zones, [&](const Zone& z) { return z.id == id; });
    return checked(job, std::move(blank));
}

Result<Job> withSoftTail(const Job& job, SoftTail tail) {
    constexpr double kLongestSoftTail_mm = 200;
    if (!(tail.length_mm >= 0 && tail.length_mm <= kLongestSoftTail_mm && tail.height_mm >= 0 &&
          tail.height_mm <= kLongestSoftTail_mm))
        return Error{"out_of_range",
                     Words(NINE_WORDS("core", "A soft tail is up to {most} long and high."))
                         .length("most", kLongestSoftTail_mm, 0),
                     "blank.soft_tail"};
    if (tail.length_mm == 0 || tail.height_mm == 0) tail = {};
    BlankChapter blank = job.get<BlankChapter>();
    blank.softTail = tail;
    return job.with(std::move(blank));
}

}  // namespace nine::app
