// One selection for all leaves: an element of the pattern and the mask that opens it go together.
//
// Everything is selected by its id: a place in a list means something else once the list has changed.
#pragma once

#include "app/document/job_document.h"
#include "app/document/view_state.h"

namespace nine::app {

/// Where the element stands in the pattern, the mask among those in force; -1 when there is none of this id.
int indexOfElement(const Job& job, const std::string& id);
int indexOfMask(const Job& job, const std::string& id);
/// Null when there is none.
ElementPtr elementOf(const Job& job, const std::string& id);

/// The id `by` places further in the list, stopping at its ends; the first one if `id` is not in it.
std::string elementBeside(const Job& job, const std::string& id, int by);
std::string maskBeside(const Job& job, const std::string& id, int by);

/// The mask that opens an element on a side, else on the other one; empty if none does. Of several the
/// preferred one.
std::string maskOfElement(const Job& job, const std::string& element, Side side,
                          const std::string& preferred = {});
/// The first element a mask opens; empty if there is no such mask.
std::string elementOfMask(const Job& job, const std::string& mask);

/// Keeps element, mask and side of the view in step: what was changed last leads. When what is selected
/// leaves the job, its neighbour is selected; the first one when a job is opened.
class Selection : public QObject {
  public:
    Selection(JobDocument& document, ViewState& view, QObject* parent);

  private:
    void follow();
    void keepInJob();

    JobDocument& document_;
    ViewState& view_;
    std::string element_, mask_;
    Side side_ = Side::Left;
    std::vector<std::string> before_;  ///< ids of the pattern as it was, in order
    bool following_ = false;
};

}  // namespace nine::app
