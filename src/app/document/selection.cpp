#include "app/document/selection.h"

#include <algorithm>

namespace nine::app {
namespace {

template <typename List>
int indexIn(const List& list, const std::string& id) {
    const auto found = std::find_if(list.begin(), list.end(), [&](const auto& one) { return one->id == id; });
    return found == list.end() ? -1 : static_cast<int>(found - list.begin());
}

template <typename List>
std::string beside(const List& list, const std::string& id, int by) {
    if (list.empty()) return {};
    const int at = indexIn(list, id);
    const int next = at < 0 ? 0 : std::clamp(at + by, 0, static_cast<int>(list.size()) - 1);
    return list[static_cast<std::size_t>(next)]->id;
}

}  // namespace

int indexOfElement(const Job& job, const std::string& id) {
    return indexIn(job.get<PatternChapter>().elements, id);
}

int indexOfMask(const Job& job, const std::string& id) {
    return indexIn(maskSpecs(job), id);
}

ElementPtr elementOf(const Job& job, const std::string& id) {
    const int index = indexOfElement(job, id);
    return index < 0 ? nullptr : job.get<PatternChapter>().elements[static_cast<std::size_t>(index)];
}

std::string elementBeside(const Job& job, const std::string& id, int by) {
    return beside(job.get<PatternChapter>().elements, id, by);
}

std::string maskBeside(const Job& job, const std::string& id, int by) {
    return beside(maskSpecs(job), id, by);
}

std::string maskOfElement(const Job& job, const std::string& element, Side side,
                          const std::string& preferred) {
    std::string same, other;
    for (const MaskSpecPtr& spec : maskSpecs(job)) {
        if (std::find(spec->wish.elements.begin(), spec->wish.elements.end(), element) ==
            spec->wish.elements.end())
            continue;
        std::string& found = spec->side == side ? same : other;
        if (found.empty() || spec->id == preferred) found = spec->id;
    }
    return !same.empty() ? same : other;
}

std::string elementOfMask(const Job& job, const std::string& mask) {
    const std::vector<MaskSpecPtr> specs = maskSpecs(job);
    const int index = indexIn(specs, mask);
    if (index < 0) return {};
    const auto& wanted = specs[static_cast<std::size_t>(index)]->wish.elements;
    for (const ElementPtr& element : job.get<PatternChapter>().elements)
        if (std::find(wanted.begin(), wanted.end(), element->id) != wanted.end()) return element->id;
    return {};
}

Selection::Selection(JobDocument& document, ViewState& view, QObject* parent)
    : QObject(parent), document_(document), view_(view) {
    connect(&view, &ViewState::changed, this, [this] { follow(); });
    connect(&document, &JobDocument::changed, this, [this] {
        keepInJob();
        element_.clear();
        follow();
    });
}

void Selection::keepInJob() {
    const auto& elements = document_.job().get<PatternChapter>().elements;
    const auto isThere = [&](const std::string& id) { return indexIn(elements, id) >= 0; };
    if (!elements.empty() && !isThere(view_.element())) {
        // The nearest of those that stood before it, then of those behind it, is still known from the list as
        // it was.
        const auto at = std::find(before_.begin(), before_.end(), view_.element());
        // When nothing is known of it: the first that has a mask, so that every leaf has something to show.
        const auto cut = std::find_if(elements.begin(), elements.end(), [](const auto& e) { return e->isCut(); });
        std::string next = (cut == elements.end() ? elements.front() : *cut)->id;
        for (auto it = at; it != before_.end(); ++it) {
            if (!isThere(*it)) continue;
            next = *it;
            break;
        }
        for (auto it = at; at != before_.end() && it != before_.begin();) {
            if (!isThere(*--it)) continue;
            next = *it;
            break;
        }
        view_.setElement(next);
    }
    before_.clear();
    for (const ElementPtr& element : elements) before_.push_back(element->id);
}

void Selection::follow() {
    if (following_) return;
    const bool elementLeads = view_.element() != element_ || view_.side() != side_;
    const bool maskLeads = !elementLeads && view_.mask() != mask_;
    element_ = view_.element();
    mask_ = view_.mask();
    side_ = view_.side();
    following_ = true;
    if (elementLeads) {
        const std::string mask = maskOfElement(document_.job(), element_, side_, mask_);
        if (!mask.empty()) {
            mask_ = mask;
            view_.setMask(mask);
        }
    } else if (maskLeads) {
        const std::string element = elementOfMask(document_.job(), mask_);
        if (!element.empty()) {
            element_ = element;
            view_.setElement(element);
        }
    }
    following_ = false;
}

}  // namespace nine::app
