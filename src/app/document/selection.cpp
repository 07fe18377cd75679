#include "app/document/selection.h"

#include <algorithm>

namespace nine::app {

int maskOfElement(const Job& job, int element, Side side, int preferred) {
    const auto& elements = job.pattern->elements;
    if (element < 0 || element >= static_cast<int>(elements.size())) return -1;
    const std::string& id = elements[static_cast<std::size_t>(element)]->id;
    const std::vector<MaskSpecPtr> specs = maskSpecs(job);
    int same = -1, other = -1;
    for (int i = 0; i < static_cast<int>(specs.size()); ++i) {
        const MaskSpec& spec = *specs[static_cast<std::size_t>(i)];
        if (std::find(spec.elements.begin(), spec.elements.end(), id) == spec.elements.end()) continue;
        int& found = spec.side == side ? same : other;
        if (found < 0 || i == preferred) found = i;
    }
    return same >= 0 ? same : other;
}

int elementOfMask(const Job& job, int mask) {
    const std::vector<MaskSpecPtr> specs = maskSpecs(job);
    if (mask < 0 || mask >= static_cast<int>(specs.size())) return -1;
    const auto& wanted = specs[static_cast<std::size_t>(mask)]->elements;
    const auto& elements = job.pattern->elements;
    for (int i = 0; i < static_cast<int>(elements.size()); ++i) {
        if (std::find(wanted.begin(), wanted.end(), elements[static_cast<std::size_t>(i)]->id) !=
            wanted.end())
            return i;
    }
    return -1;
}

Selection::Selection(JobDocument& document, ViewState& view, QObject* parent)
    : QObject(parent), document_(document), view_(view) {
    connect(&view, &ViewState::changed, this, [this] { follow(); });
    connect(&document, &JobDocument::changed, this, [this] {
        element_ = -1;
        follow();
    });
}

void Selection::follow() {
    const bool elementLeads = view_.element() != element_ || view_.side() != side_;
    const bool maskLeads = !elementLeads && view_.mask() != mask_;
    element_ = view_.element();
    mask_ = view_.mask();
    side_ = view_.side();
    if (elementLeads) {
        const int mask = maskOfElement(document_.job(), element_, side_, mask_);
        if (mask < 0) return;
        mask_ = mask;
        view_.setMask(mask);
    } else if (maskLeads) {
        const int element = elementOfMask(document_.job(), mask_);
        if (element < 0) return;
        element_ = element;
        view_.setElement(element);
    }
}

}  // namespace nine::app
