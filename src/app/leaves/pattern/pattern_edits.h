// What the Pattern leaf does to a job: pure functions, each one step of the history.
#pragma once

#include <QString>
#include <functional>
#include <set>
#include <string>

#include "job/job.h"
#include "pattern/art.h"

namespace nine::app {

using Ids = std::set<std::string>;

/// An id no element has yet, from a stem.
std::string freshId(const Job& job, std::string_view stem);

/// A new element of a kind, its origin at x, g (mm) of the left side where it has one; from the landmark its
/// kind is usually measured from where that is near or the kind needs it.
Element newElement(const Job& job, const Skin& skin, const Kind& kind, const QString& name, const Vec2& at);
Job withAdded(const Job& job, Element element);
Job withRemoved(const Job& job, const Ids& ids);
/// Copies behind the originals, shifted a little; those derived from a copied one belong to the copy. `made`
/// takes their ids.
Job withDuplicates(const Job& job, const Ids& ids, Ids& made);
/// The element at another place of the list.
Job withOrder(const Job& job, const std::string& id, int place);
/// What `change` does to each.
Job withEach(const Job& job, const Ids& ids, const std::function<void(Element&)>& change);

/// The selected ones and all that are in a group with one of them.
Ids withGroups(const Job& job, const Ids& ids);

/// Elements as text for the clipboard and back, with ids of their own. Errors: bad_value.
std::string elementsText(const Job& job, const Ids& ids);
Result<Job> withPasted(const Job& job, const std::string& text, Ids& made);

}  // namespace nine::app
