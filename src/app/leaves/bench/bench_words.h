// Words of the Bench leaf: times of day, tasks, settings.
#pragma once

#include <QColor>
#include <QDate>
#include <QString>

#include "app/leaves/bench/bench_desk.h"

namespace nine::app {

/// "10:50", by the wall's clock.
QString clockText(Moment moment);
/// "Saturday 14:22"; "Saturday 5 December 14:22" beyond a week.
QString dayAndClock(Moment moment, Moment now);
/// "5 h 52", "40 min", "25 s".
QString spanText(int seconds);
/// "0:25".
QString timerText(int seconds);
/// "lures 9 to 16", "lure 9".
QString luresText(int first, int lures);
/// "Monday, 24 lures in 3 trays".
QString dayTitle(const BenchStudy& study, const QDate& day);
/// A letter for what has no cup: E for eyes.
QString taskLetter(const BenchStudy& study, const BenchTask& task);
/// "Spray Transparent olive, coat 2 of 2".
QString taskTitle(const JobOnBench& job, const BenchTask& task);
/// "4 : 1 drops, 15 psi, 0.20 needle, 70 mm away, 8 degrees off"; empty for what is not sprayed.
QString settingText(const JobOnBench& job, const BenchTask& task);
/// The step of a task that is sprayed; the first one without.
const Step* mainStep(const JobOnBench& job, const BenchTask& task);
const StepOnBench* mainOnBench(const JobOnBench& job, const BenchTask& task);
QString pressureText(double kpa);
/// Dark or light, whatever can be read on a colour.
QColor inkOn(const QColor& colour);

}  // namespace nine::app
