// The step runner below the step: the time, the keys, lists to choose from, the table of rescues, the end.
#include <QPainter>
#include <algorithm>

#include "app/leaves/bench/bench_words.h"
#include "app/leaves/bench/runner.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"

namespace nine::app {
void Runner::paintTimer(QPainter& p) {
    // In one piece: the time, what it is till, what comes next.
    const double s = scale();
    const double top = 608 * s, high = 118 * s;
    const BenchTask* task = desk_.run().task();
    const RunState& state = desk_.run().state();
    p.fillRect(QRectF(0, top, width(), high), tokens().panel);
    p.fillRect(QRectF(0, top, 0.62 * width(), high), tokens().deep);
    p.setPen(QPen(tokens().line, 1));
    p.drawLine(QPointF(0, top), QPointF(width(), top));
    if (!task) return;
    const int left_s = secondsLeft();
    const QString time = timerText(left_s);
    const double used = line(p, {kRunnerSide * s, top + 92 * s}, time, 86, QFont::Bold,
                             left_s < 0 ? tokens().caution : tokens().ink, 330 * s);
    const double x = kRunnerSide * s + used + 28 * s, wide = 0.62 * width() - x - 16 * s;
    QString till = left_s < 0 ? tr("longer than planned")
                              : tr("till lure %1 is done").arg(task->firstLure + task->lures - 1);
    if (task->lures > 1 && left_s >= 0)
        till = tr("lure %1 in hand, till %2 is done").arg(bodyNow()).arg(task->firstLure + task->lures - 1);
    if (task->hands_s == 0) till = tr("nothing to do but wait");
    if (gate()) till = tr("checks first: %1 of %2").arg(answered() + 1).arg(gates_.size());
    if (state.paused()) till = tr("paused; any key goes on");
    line(p, {x, top + 52 * s}, till, 26, QFont::DemiBold, tokens().ink, wide);
    QString rest;
    if (task->free_s > 0)
        rest = task->heated ? tr("then %1 in warm air, until it is matt").arg(spanText(task->free_s))
                            : tr("then %1 of rest").arg(spanText(task->free_s));
    line(p, {x, top + 88 * s}, rest, 20, QFont::Normal, tokens().muted, wide);
    // What comes next, on whatever tray.
    bool passed = false;
    for (const std::string& id : state.order) {
        const auto fate = state.fates.find(id);
        if (id == task->id) {
            passed = true;
            continue;
        }
        if (!passed || (fate != state.fates.end() && fate->second != TaskFate::Waiting)) continue;
        const BenchTask* next = taskIn(desk_.run().head().work, id);
        const BenchTray* tray = trayIn(desk_.run().head().work, id);
        if (!next || !tray || desk_.study().jobs.empty()) break;
        const double wide2 = 0.38 * width() - 50 * s;
        ink::text(p, {width() - 30 * s, top + 46 * s},
                  tr("then, tray %1").arg(QString::fromStdString(tray->tag)), font(20), tokens().muted,
                  Qt::AlignRight);
        const QFont f = font(25, QFont::DemiBold);
        ink::text(p, {width() - 30 * s, top + 86 * s},
                  QFontMetricsF(f).elidedText(taskTitle(jobOf(desk_.study().jobs, *tray), *next),
                                              Qt::ElideRight, wide2),
                  f, tokens().ink, Qt::AlignRight);
        break;
    }
}

void Runner::paintFoot(QPainter& p) {
    // In one piece: the large button, the keys, what must not be forgotten.
    const double s = scale();
    const double top = 726 * s;
    const bool over = mode_ == Mode::Over, paused = desk_.run().state().paused();
    const QString words = paused                          ? tr("Go on")
                          : over                          ? tr("End the run")
                          : gate() && mode_ == Mode::Step ? tr("It is so")
                          : mode_ == Mode::Step           ? tr("Done")
                                                          : tr("Back to the step");
    const double high = std::min(64 * s, height() - top - 14 * s);
    button_ = QRectF(width() - 310 * s, top + (height() - top - high) / 2, 280 * s, high);
    p.setPen(Qt::NoPen);
    p.setBrush(tokens().accent);
    p.drawRoundedRect(button_, button_.height() / 2, button_.height() / 2);
    const QString onIt = words + "  " + tr("Space");
    const double wide = ink::widthOf(onIt, font(26, QFont::Bold)), room = button_.width() - 30 * s;
    ink::text(p, {button_.center().x(), button_.center().y() + 9 * s}, onIt,
              font(wide > room ? 26 * room / wide : 26, QFont::Bold), tokens().onAccent, Qt::AlignHCenter);
    QString trouble;
    if (fault(trouble)) {
        paragraph(p, QRectF(kRunnerSide * s, top + 8 * s, width() - 400 * s, height() - top - 10 * s),
                  trouble, 18, QFont::DemiBold, tokens().fault);
        return;
    }
    const std::pair<QString, QString> keys[] = {{tr("Backspace"), tr("back")},
                                                {"P", tr("pause")},
                                                {"M", tr("mishap")},
                                                {"C", tr("changed")},
                                                {"I", tr("insert")},
                                                {"S", tr("leave out")},
                                                {"R", tr("again")},
                                                {"H", tr("rescue")},
                                                {"Esc", tr("plan")}};
    double x = kRunnerSide * s;
    for (const auto& [key, what] : keys) {
        const QFont bold = font(17, QFont::Bold), plain = font(17);
        const double takes = ink::widthOf(key, bold) + 6 * s + ink::widthOf(what, plain) + 20 * s;
        if (x + takes > button_.left() - 10 * s) break;
        ink::text(p, {x, top + 30 * s}, key, bold, tokens().ink);
        ink::text(p, {x + ink::widthOf(key, bold) + 6 * s, top + 30 * s}, what, plain, tokens().muted);
        x += takes;
    }
    const BenchTask* task = desk_.run().task();
    const JobOnBench* job = desk_.jobOfRun();
    const Step* step = task && job ? mainStep(*job, *task) : nullptr;
    if (!step) return;
    QString caution;
    if (paints(step->act) || step->act == Act::Lock)
        caution =
            tr("Mist: extraction on, the respirator the paint's data sheet names. Clog: air off first, never "
               "a finger over the nozzle.");
    else if (step->act == Act::Clear)
        caution =
            tr("As the product's data sheet and local rules say; what it asks for goes before this program.");
    else if (step->act == Act::Eyes)
        caution = tr("Instant glue: away from face and eyes, as its data sheet says.");
    else if (step->act == Act::Prepare)
        caution = tr("Sanding dust and old paint: a mask for dust; old paint may hold lead.");
    if (!caution.isEmpty())
        line(p, {kRunnerSide * s, top + 58 * s}, caution, 17, QFont::Normal, tokens().caution,
             button_.left() - kRunnerSide * s - 16 * s);
}

void Runner::paintList(QPainter& p, const QString& title, const QStringList& rows) {
    const double s = scale();
    const double wide = width() - (kRunnerSide + kRunnerRight) * s;
    line(p, {kRunnerSide * s, 352 * s}, title, 26, QFont::DemiBold, tokens().ink, wide);
    for (qsizetype i = 0; i < rows.size(); ++i) {
        const double x = kRunnerSide * s + (i / 5) * wide / 2,
                     y = 368 * s + static_cast<double>(i % 5) * 44 * s;
        const QRectF box(x, y, wide / 2 - 12 * s, 40 * s);
        choices_.emplace_back(static_cast<int>(i) + 1, box);
        p.setPen(Qt::NoPen);
        p.setBrush(tokens().deep);
        p.drawRoundedRect(box, 6, 6);
        ink::text(p, {box.left() + 14 * s, box.center().y() + 8 * s}, QString::number(i + 1),
                  font(24, QFont::Bold), tokens().select);
        line(p, {box.left() + 44 * s, box.center().y() + 8 * s}, rows[i], 22, QFont::Normal, tokens().ink,
             box.width() - 56 * s);
    }
}

void Runner::paintRescue(QPainter& p) {
    // In one piece: a table of causes and ways out.
    const double s = scale();
    const BenchTask* task = desk_.run().task();
    const JobOnBench* job = desk_.jobOfRun();
    const StepOnBench* on = task && job ? mainOnBench(*job, *task) : nullptr;
    const double left = 30 * s, wide = width() - 60 * s;
    const double columns[] = {0, 0.16, 0.42, 0.72, 1.0};
    const QString heads[] = {tr("Seen"), tr("It comes from"), tr("Now"), tr("Next time")};
    for (int c = 0; c < 4; ++c)
        ink::text(p, {left + columns[c] * wide, 100 * s}, heads[c], font(18, QFont::Bold), tokens().muted);
    double y = 112 * s;
    const auto table = rescues(on ? on->figures : RescueFigures{});
    const double high = (600 * s - y) / static_cast<double>(table.size());
    for (const Rescue& r : table) {
        p.setPen(QPen(tokens().hair, 1));
        p.drawLine(QPointF(left, y), QPointF(left + wide, y));
        const QString cells[] = {capital(said(Words(r.name))), said(r.cause), said(r.now), said(r.next)};
        for (int c = 0; c < 4; ++c)
            paragraph(p,
                      QRectF(left + columns[c] * wide, y + 4 * s,
                             (columns[c + 1] - columns[c]) * wide - 12 * s, high - 4 * s),
                      cells[c], c == 0 ? 15 : 13.5, c == 0 || c == 2 ? QFont::DemiBold : QFont::Normal,
                      tokens().ink);
        y += high;
    }
}

void Runner::paintOver(QPainter& p) {
    const double s = scale();
    const RunState& state = desk_.run().state();
    const double wide = width() - 2 * kRunnerSide * s;
    line(p, {kRunnerSide * s, 180 * s}, tr("All steps are done"), 64, QFont::Bold, tokens().ink, wide);
    const int took_s = state.began ? static_cast<int>(state.last - *state.began) - state.paused_s : 0;
    double y = 220 * s;
    QStringList lines{tr("%1 steps in %2.").arg(state.done()).arg(spanText(took_s))};
    if (!state.changes.empty()) lines << tr("Changed at the gun: %1.").arg(state.changes.size());
    if (!state.inserted.empty()) lines << tr("Done besides: %1.").arg(state.inserted.size());
    if (!state.mishapsSeen.empty()) lines << tr("Mishaps: %1.").arg(state.mishapsSeen.size());
    lines << tr("The Log makes a recipe card of it; what was done otherwise can become the recipe.");
    for (const QString& words : lines)
        y = paragraph(p, QRectF(kRunnerSide * s, y, wide, 90 * s), words, 30, QFont::Normal, tokens().ink) +
            10 * s;
}

}  // namespace nine::app
