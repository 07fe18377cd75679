// Steps of a recipe in the words on the screen.
#pragma once

#include <QString>

#include "app/sheet/ink.h"
#include "job/job.h"
#include "recipe/rules.h"

namespace nine::app {

/// Its own name, or what it does.
QString stepTitle(const Step& step);
/// "two coats, warmed until matt"; of steps without paint what is done in them.
QString stepRemark(const Job& job, const Step& step);
/// What it goes through or on: "M-04", "fade from the back", "everywhere"; and of what kind that is.
QString whereTag(const Job& job, const Step& step);
QString whereKind(const Step& step);
QString actName(Act act);
QString dryName(Dry dry);
QString maskName(const Job& job, const std::string& id);
/// Of a mark, a mask or a landmark, whatever has this id.
QString nameOf(const Job& job, const std::string& id);
/// "for one lure", "for 24 lures".
QString forLures(int lures);
/// "one coat", "3 coats".
QString coatCount(int coats);
QString coatsText(const Step& step);
/// "clear", "hardly told apart".
QString apartName(Apart apart);

ink::Severity severityOf(Severity severity);

}  // namespace nine::app
