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

/// Replaces the station at `index`. Errors: out_of_range past its neighbours; those of the station table and loft.
Result<Job> withStation(const Job& job, std::size_t index, Station station);

/// A station more at `x_mm`, read off the body as it is there, so that the shape hardly changes. Errors:
/// off_body, or too near another station.
Result<Job> withStationAt(const Job& job, double x_mm);

/// Without the station at `index`. Errors: nose and tail stay; those of the loft.
Result<Job> withoutStation(const Job& job, std::size_t index);

/// The exponent of both halves that gives the section this girth; errors when no section can have it.
Result<double> exponentForGirth(const Station& station, double girth_mm);

/// Moves a landmark, all points of a curve alike, by x and g.
Result<Job> withLandmark(const Job& job, const std::string& name, const Vec2& shift);
/// Moves one point of a landmark to x, g.
Result<Job> withLandmarkPoint(const Job& job, const std::string& name, std::size_t point, const Vec2& to);

/// The same shape at another size: factors along, in height and in width. Landmarks go with it.
struct BodyScale {
    double along = 1, height = 1, width = 1;
};
Result<Job> withScale(const Job& job, const BodyScale& scale);

}  // namespace nine::app
