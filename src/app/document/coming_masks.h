// Masks of a job as they come, one by one, with the pieces and pages that can be shown of them meanwhile.
//
// On a worker's thread; one at a time.
#pragma once

#include <QElapsedTimer>

#include "app/document/results.h"

namespace nine::app {

class ComingMasks {
  public:
    /// `before`: what was there, shown in place of what has not come yet.
    ComingMasks(Job job, MasksResult before);

    void take(std::size_t index, const MaskResult& mask);
    /// Not more often than the eye follows: laying out pages takes its time as well.
    bool worthShowing() const { return !shown_.isValid() || shown_.elapsed() > kBetween_ms; }
    MasksResult soFar();
    /// The end: pieces that are there are not made again.
    MasksResult allOf(std::vector<MaskResult> masks);

  private:
    static constexpr qint64 kBetween_ms = 200;
    Job job_;
    MasksResult before_;
    std::vector<std::optional<MaskResult>> come_;
    std::vector<std::vector<Piece>> pieces_;
    QElapsedTimer shown_;
};

}  // namespace nine::app
