// Steps of a recipe moved, copied, added, taken out, grouped by hand. Pure functions; steps are named by id,
// and one that is gone changes nothing.
#pragma once

#include "job/chapters/layers.h"

namespace nine::app {

/// The step of this id and those above it, `count` in all, stand from `to` on in the list without them.
Recipe withMoved(Recipe recipe, const std::string& id, std::size_t count, std::size_t to);
/// A copy above it; its id is given back.
Recipe withCopy(Recipe recipe, const std::string& id, std::string& copy);
Recipe without(Recipe recipe, const std::string& id);
/// A step of this act above `below` (at the end when that is gone), with what is usual of it; paint is the
/// first of `paints`, white where it is there. Its id is given back.
Recipe withNew(Recipe recipe, Act act, const std::string& below, const std::vector<Bottle>& paints,
               std::string& added);
/// In the group of the step below, which gets one if it has none; `name` is a new group's.
Recipe withGroupedBelow(Recipe recipe, const std::string& id, const std::string& name);

/// "4:1", with drops as they are: "3 + 1 : 1" stays three and one.
std::string ratioText(const Step& step);

}  // namespace nine::app
