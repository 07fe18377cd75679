// Edits of a blank as pure functions of the job. Each returns the new job, or what is wrong; nothing is
// clamped.
#pragma once

#include "job/job.h"

namespace nine::app {

struct Range {
    double low, high;
};
/// From where to where a station can go, mm: its neighbours stay. The nose stays where it is.
Range roomForStation(const Job& job, std::size_t index);

/// Replaces the station at `index`. Errors: out_of_range past its neighbours; those of the station table and
/// loft.
Result<Job> withStation(const Job& job, std::size_t index, Station station);

/// A station more at `x_mm`, read off the body as it is there, so that the shape hardly changes. Errors:
/// off_body, or too near another station.
Result<Job> withStationAt(const Job& job, double x_mm);

/// Without the station at `index`. Errors: nose and tail stay; those of the loft.
Result<Job> withoutStation(const Job& job, std::size_t index);

/// Moves a landmark, all points of a curve alike, by x and g.
Result<Job> withLandmark(const Job& job, const std::string& name, const Vec2& shift);
/// Moves one point of a landmark to x, g.
Result<Job> withLandmarkPoint(const Job& job, const std::string& name, std::size_t point, const Vec2& to);

/// The same shape at another size: factors along, in height and in width. Landmarks go with it.
struct BodyScale {
    double along = 1, height = 1, width = 1;
};
Result<Job> withScale(const Job& job, const BodyScale& scale);

/// Adds a landmark where lures of this kind usually have it, marked as assumed.
Result<Job> withNewLandmark(const Job& job, const std::string& name);
/// Errors: in_use when an element is anchored to it.
Result<Job> withoutLandmark(const Job& job, const std::string& name);
/// Replaces it by one that somebody has looked at. Errors of checkLandmarks.
Result<Job> withLandmarkAs(const Job& job, const std::string& name, Landmark landmark);

/// Replaces the zone of its id, or adds it; an empty id gets one. Errors of checkZones.
Result<Job> withZone(const Job& job, Zone zone);
Result<Job> withoutZone(const Job& job, const std::string& id);
/// 0 x 0 takes it away.
Result<Job> withSoftTail(const Job& job, SoftTail tail);

}  // namespace nine::app
