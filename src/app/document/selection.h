// One selection for all leaves: an element of the pattern and the mask that opens it go together.
#pragma once

#include "app/document/job_document.h"
#include "app/document/view_state.h"

namespace nine::app {

/// The mask that opens an element on a side, else on the other one; -1 if none does. Of several the preferred
/// one.
int maskOfElement(const Job& job, int element, Side side, int preferred = -1);
/// The first element a mask opens; -1 if there is no such mask.
int elementOfMask(const Job& job, int mask);

/// Keeps element, mask and side of the view in step: what was changed last leads.
class Selection : public QObject {
  public:
    Selection(JobDocument& document, ViewState& view, QObject* parent);

  private:
    void follow();

    JobDocument& document_;
    ViewState& view_;
    int element_ = -1, mask_ = -1;
    Side side_ = Side::Left;
};

}  // namespace nine::app
