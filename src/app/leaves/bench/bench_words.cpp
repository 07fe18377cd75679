#include "app/leaves/bench/bench_words.h"

#include <QDateTime>
#include <QLocale>
#include <cmath>

#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "app/theme/theme.h"

namespace nine::app {

QString clockText(Moment moment) {
    return QDateTime::fromSecsSinceEpoch(moment).toString("H:mm");
}

QString dayAndClock(Moment moment, Moment now) {
    const QDateTime at = QDateTime::fromSecsSinceEpoch(moment);
    const bool near = moment - now < 6 * 86400;
    return BenchDesk::tr("%1 %2").arg(QLocale().toString(at.date(), near ? "dddd" : "dddd d MMMM"),
                                      at.toString("H:mm"));
}

QString spanText(int s) {
    if (s < 90) return BenchDesk::tr("%1 s").arg(s);
    const int minutes = (s + 30) / 60;
    if (minutes < 60) return BenchDesk::tr("%1 min").arg(minutes);
    return BenchDesk::tr("%1 h %2").arg(minutes / 60).arg(minutes % 60, 2, 10, QChar('0'));
}

QString timerText(int s) {
    const QString text = QString("%1:%2").arg(std::abs(s) / 60).arg(std::abs(s) % 60, 2, 10, QChar('0'));
    return s < 0 ? "+" + text : text;
}

QString luresText(int first, int lures) {
    return lures == 1 ? BenchDesk::tr("lure %1").arg(first)
                      : BenchDesk::tr("lures %1 to %2").arg(first).arg(first + lures - 1);
}

QString dayTitle(const BenchStudy& study, const QDate& day) {
    int lures = 0;
    for (const BenchTray& tray : study.wish.work.trays) lures += tray.lures;
    const auto trays = study.wish.work.trays.size();
    const QString name = QLocale().toString(day, "dddd d MMMM");
    if (trays == 1)
        return lures == 1 ? BenchDesk::tr("%1, one lure").arg(name)
                          : BenchDesk::tr("%1, %2 lures in one tray").arg(name).arg(lures);
    return BenchDesk::tr("%1, %2 lures in %3 trays").arg(name).arg(lures).arg(trays);
}

const Step* mainStep(const JobOnBench& job, const BenchTask& task) {
    const Step* main = nullptr;
    for (const std::string& id : task.steps)
        if (const std::size_t s = job.place(id); s < job.steps.size()) {
            const Step& step = job.recipe().steps[s];
            if (!main || (!paints(main->act) && paints(step.act))) main = &step;
        }
    return main;
}

const StepOnBench* mainOnBench(const JobOnBench& job, const BenchTask& task) {
    const Step* step = mainStep(job, task);
    return step ? &job.steps[job.place(step->id)] : nullptr;
}

QString taskLetter(const BenchStudy& study, const BenchTask& task) {
    if (study.jobs.empty()) return {};
    const BenchTray* tray = trayIn(study.wish.work, task.id);
    const Step* step = tray ? mainStep(jobOf(study.jobs, *tray), task) : nullptr;
    return step ? said(taskWords(jobOf(study.jobs, *tray), task).title).left(1).toUpper() : QString();
}

QString taskTitle(const JobOnBench& job, const BenchTask& task) {
    const TaskWords words = taskWords(job, task);
    QString text = said(words.verb);
    if (!text.isEmpty()) text += " ";
    text += said(words.title);
    const QString more = said(words.more);
    return more.isEmpty() ? text : text + ", " + more;
}

QString pressureText(double kpa) {
    return BenchDesk::tr("%1 psi").arg(kpa / kKpaPerPsi, 0, 'f', 0);
}

QString settingText(const JobOnBench& job, const BenchTask& task) {
    const StepOnBench* on = mainOnBench(job, task);
    const Step* step = mainStep(job, task);
    if (!on || !on->set || !step) return {};
    QStringList parts{said(mixWords(job, *step)), said(pressureWords(on->set->pressure_kpa)),
                      BenchDesk::tr("%1 needle").arg(lengthText(on->set->needle_mm, 2)),
                      BenchDesk::tr("%1 away").arg(lengthText(on->set->distance_mm, 0))};
    if (on->set->angle_deg > 0.5)
        parts << BenchDesk::tr("%1° off straight").arg(on->set->angle_deg, 0, 'f', 0);
    parts << BenchDesk::tr("%1 s a body length").arg(on->set->length_s, 0, 'f', 1);
    return parts.join(", ");
}

QColor inkOn(const QColor& colour) {
    // Relative luminance of WCAG 2.1; above .18 dark letters have the better contrast.
    const auto linear = [](double v) {
        return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
    };
    const double light =
        0.2126 * linear(colour.redF()) + 0.7152 * linear(colour.greenF()) + 0.0722 * linear(colour.blueF());
    return light > 0.18 ? QColor("#1D2A25") : QColor("#F6F4EE");
}

}  // namespace nine::app
