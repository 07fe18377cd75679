#include "app/leaves/bench/bench_page.h"

#include <QDateTime>
#include <QKeyEvent>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>

#include "app/leaves/bench/bench_words.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"

namespace nine::app {
namespace {

constexpr double kMargin = 18, kLeft = 96, kTop = 62;
constexpr double kRowHeight = 21;
constexpr int kHour_s = 3600, kStep_s = 300;

const CupContent* cupOf(const BenchStudy& study, const BenchTask& task) {
    return task.cup >= 0 ? &study.wish.work.cups[static_cast<std::size_t>(task.cup)] : nullptr;
}

}  // namespace

BenchPage::BenchPage(LeafContext context, BenchDesk& desk) : LeafPage(context), desk_(desk) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAccessibleName(tr("Plan of the bench"));
    connect(&desk_, &BenchDesk::changed, this, [this] { follow(); });
    minute_.setInterval(20000);
    connect(&minute_, &QTimer::timeout, this, [this] { update(); });
}

void BenchPage::showEvent(QShowEvent* event) {
    LeafPage::showEvent(event);
    desk_.setWatched(true);
    minute_.start();
}

void BenchPage::showDay(int day) {
    if (days_.empty()) return;
    day_ = std::clamp(day, 0, static_cast<int>(days_.size()) - 1);
    layOut();
}

double BenchPage::xAt(int s) const {
    return chart_.left() + chart_.width() * (s - from_s_) / std::max(1, to_s_ - from_s_);
}
int BenchPage::secondAt(double x) const {
    return from_s_ + static_cast<int>(std::lround((x - chart_.left()) / chart_.width() * (to_s_ - from_s_)));
}

void BenchPage::layOut() {
    const BenchStudy& study = desk_.study();
    const QDate shown =
        day_ < static_cast<int>(days_.size()) ? days_[static_cast<std::size_t>(day_)] : QDate();
    days_.clear();
    boxes_.clear();
    rows_.clear();
    if (study.planned) {
        for (const PlacedTask& p : study.plan.schedule.tasks) {
            const QDate day = QDateTime::fromSecsSinceEpoch(study.start + p.start_s).date();
            if (days_.empty() || days_.back() < day) days_.push_back(day);
        }
        const auto same = std::find(days_.begin(), days_.end(), shown);
        day_ = same != days_.end() ? static_cast<int>(same - days_.begin()) : 0;
        if (!shown.isValid()) {
            const QDate today = QDateTime::fromSecsSinceEpoch(desk_.now()).date();
            if (const auto now = std::find(days_.begin(), days_.end(), today); now != days_.end())
                day_ = static_cast<int>(now - days_.begin());
        }
        layOutDay();
    }
    update();
}

void BenchPage::layOutDay() {
    // In one piece: the hours of the day, its lanes, then every task of it.
    const BenchStudy& study = desk_.study();
    const QDate day = days_[static_cast<std::size_t>(day_)];
    int first_s = INT_MAX, last_s = 0;
    const auto onDay = [&](const PlacedTask& p) {
        return QDateTime::fromSecsSinceEpoch(study.start + p.start_s).date() == day;
    };
    for (const PlacedTask& p : study.plan.schedule.tasks) {
        if (!onDay(p)) continue;
        first_s = std::min({first_s, p.start_s, p.clean_s});
        last_s = std::max(last_s, p.end_s + std::min(p.free_s - p.end_s, kHour_s / 2));
    }
    // From a whole half hour to a whole one.
    const Moment begin = (study.start + first_s) / (kHour_s / 2) * (kHour_s / 2);
    from_s_ = static_cast<int>(begin - study.start);
    // What goes on over the night is seen till midnight.
    const int midnight_s = static_cast<int>(day.addDays(1).startOfDay().toSecsSinceEpoch() - study.start);
    to_s_ = std::max(std::min(last_s, midnight_s), from_s_ + 2 * kHour_s);
    chart_ = QRectF(kMargin + kLeft, kTop + 16, std::max(80.0, width() - 2 * kMargin - kLeft),
                    std::max(120.0, height() - kTop - 70.0));
    const double guns = static_cast<double>(std::max<std::size_t>(1, study.wish.guns.size()));
    const double trays = static_cast<double>(std::max<std::size_t>(1, study.wish.work.trays.size()));
    constexpr double kRack = 62;
    const double room = chart_.height() - kRack - 14;
    gunHeight_ = std::clamp(room * 0.3 / guns, 22.0, 46.0);
    trayHeight_ = std::clamp((room - guns * gunHeight_) / trays, 26.0, 150.0);
    scrollMost_ = std::max(0.0, guns * gunHeight_ + trays * trayHeight_ - room);
    scroll_ = std::clamp(scroll_, 0.0, scrollMost_);
    rack_ = QRectF(chart_.left(), chart_.bottom() - kRack + 14, chart_.width(), kRack - 20);
    const double trayTop = chart_.top() + guns * gunHeight_ + 10 - scroll_;
    for (std::size_t i = 0; i < study.plan.schedule.tasks.size(); ++i) {
        const PlacedTask& p = study.plan.schedule.tasks[i];
        if (!onDay(p)) continue;
        Box box;
        box.task = study.taskOf(p).id;
        box.placed = static_cast<int>(i);
        const double top = trayTop + p.tray * trayHeight_, high = trayHeight_;
        box.band = QRectF(QPointF(xAt(p.start_s), top + 0.3 * high),
                          QPointF(std::max(xAt(p.end_s), xAt(p.start_s) + 2), top + 0.82 * high));
        if (p.free_s > p.end_s)
            box.rest = QRectF(QPointF(box.band.right(), top + 0.42 * high),
                              QPointF(std::min(chart_.right(), xAt(p.free_s)), top + 0.70 * high));
        if (p.gun >= 0) {
            const double gunTop = chart_.top() + p.gun * gunHeight_ - std::min(scroll_, 0.0);
            box.gun = QRectF(QPointF(box.band.left(), gunTop + 5),
                             QPointF(box.band.right(), gunTop + gunHeight_ - 4));
        }
        boxes_.push_back(std::move(box));
    }
}

QRectF BenchPage::boxOf(const std::string& task) const {
    for (const Box& box : boxes_)
        if (box.task == task) return box.band;
    return {};
}
QRectF BenchPage::dayTab(int day) const {
    return day >= 0 && day < static_cast<int>(tabs_.size()) ? tabs_[static_cast<std::size_t>(day)] : QRectF();
}

void BenchPage::paintPage(QPainter& p) {
    const BenchStudy& study = desk_.study();
    if (!study.planned)
        paintEmpty(p);
    else if (study.isShort() && !desk_.run().going())
        paintList(p);
    else
        paintChart(p);
}

void BenchPage::paintEmpty(QPainter& p) {
    const BenchStudy& study = desk_.study();
    ink::heading(p, {kMargin, 30}, tr("What to do next"), {});
    QString words = tr("Nothing to paint yet: a blank, a pattern and a recipe come first.");
    if (study.error)
        words = said(*study.error);
    else if (desk_.planning())
        words = tr("Putting the steps in order ...");
    const QFont font = inter(13);
    p.setFont(font);
    p.setPen(tokens().ink);
    const QRectF box(kMargin, 52, std::min(620.0, width() - 2 * kMargin), 200);
    p.drawText(box, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, words);
}

void BenchPage::paintChart(QPainter& p) {
    // In one piece: title, days, hours, then the lanes from the top down.
    const BenchStudy& study = desk_.study();
    const QDate day = days_[static_cast<std::size_t>(day_)];
    const double used = ink::heading(p, {kMargin, 30}, dayTitle(study, day), {});
    const QString remark =
        desk_.planning() ? tr("looking for a better order ...")
                         : tr("one colour goes over every tray that needs it before the cup is cleaned");
    const double room = width() - 2 * kMargin - used - 20;
    if (ink::widthOf(remark, inter(11)) < room)
        ink::text(p, {kMargin + used + 12, 30}, remark, inter(11), tokens().muted);
    tabs_.clear();
    double x = kMargin;
    if (days_.size() > 1)
        for (std::size_t d = 0; d < days_.size(); ++d) {
            const QString name = locale().toString(days_[d], "ddd d");
            const bool on = static_cast<int>(d) == day_;
            const QFont font = inter(11, on ? QFont::DemiBold : QFont::Normal);
            const QRectF tab(x, 40, ink::widthOf(name, font) + 20, 20);
            p.setPen(Qt::NoPen);
            p.setBrush(on ? tokens().ink : tokens().deep);
            p.drawRoundedRect(tab, 10, 10);
            ink::text(p, {tab.center().x(), tab.bottom() - 6}, name, font, on ? tokens().paper : tokens().ink,
                      Qt::AlignHCenter);
            tabs_.push_back(tab);
            x = tab.right() + 6;
            if (x > width() - 90) break;
        }
    paintLanes(p);
    p.save();
    p.setClipRect(
        QRectF(chart_.left() - 2, chart_.top(), chart_.width() + 4, rack_.top() - 16 - chart_.top()));
    for (const Box& box : boxes_) paintTask(p, box);
    p.restore();
    paintRack(p);
    paintLegend(p);
    // Now, across all.
    const Moment now = desk_.now();
    const int now_s = static_cast<int>(std::clamp<Moment>(now - study.start, INT_MIN / 2, INT_MAX / 2));
    if (now_s >= from_s_ && now_s <= to_s_) {
        const double at = xAt(now_s);
        p.setPen(QPen(tokens().select, 1.6));
        p.drawLine(QPointF(at, chart_.top() - 2), QPointF(at, rack_.bottom() + 4));
        const QString words = clockText(now);
        const double wide = ink::widthOf(words, inter(11, QFont::Bold)) + 16;
        const QRectF badge(std::clamp(at - wide / 2, kMargin, width() - kMargin - wide), rack_.bottom() + 3,
                           wide, 18);
        p.setPen(Qt::NoPen);
        p.setBrush(tokens().select);
        p.drawRoundedRect(badge, 9, 9);
        ink::text(p, {badge.center().x(), badge.bottom() - 5}, words, inter(11, QFont::Bold),
                  tokens().onAccent, Qt::AlignHCenter);
    }
}

void BenchPage::paintLanes(QPainter& p) {
    const BenchStudy& study = desk_.study();
    // Hours, as many as have room.
    const double hour = chart_.width() * kHour_s / std::max(1, to_s_ - from_s_);
    const int every_s = hour > 70 ? kHour_s : hour > 35 ? 2 * kHour_s : 3 * kHour_s;
    for (Moment at = (study.start + from_s_ + every_s - 1) / every_s * every_s; at - study.start <= to_s_;
         at += every_s) {
        const double x = xAt(static_cast<int>(at - study.start));
        p.setPen(QPen(tokens().hair, 1));
        p.drawLine(QPointF(x, chart_.top() - 4), QPointF(x, rack_.bottom()));
        if (x < chart_.right() - 14)
            ink::text(p, {x, chart_.top() - 8}, clockText(at), inter(10.5), tokens().muted, Qt::AlignHCenter);
    }
    for (const Span& span : study.wish.closed) {
        const double from = std::max(chart_.left(), xAt(span.from_s)),
                     to = std::min(chart_.right(), xAt(span.to_s));
        if (to <= from) continue;
        QColor shade = tokens().deep;
        shade.setAlphaF(0.6f);
        p.fillRect(QRectF(QPointF(from, chart_.top()), QPointF(to, rack_.bottom())), shade);
    }
    const auto name = [&](double y, const QString& title, const QString& more, double high) {
        ink::text(p, {kMargin, y}, title, inter(12, QFont::Bold), tokens().ink);
        if (high > 30 && !more.isEmpty())
            ink::text(p, {kMargin, y + 15},
                      QFontMetricsF(inter(10.5)).elidedText(more, Qt::ElideRight, kLeft - 8), inter(10.5),
                      tokens().muted);
    };
    for (std::size_t g = 0; g < study.wish.guns.size(); ++g) {
        const double top = chart_.top() + static_cast<double>(g) * gunHeight_;
        const BenchGun& gun = study.wish.guns[g];
        name(top + std::min(18.0, gunHeight_ * 0.6),
             QFontMetricsF(inter(12, QFont::Bold))
                 .elidedText(capital(QString::fromStdString(gun.name)), Qt::ElideRight, kLeft - 8),
             gun.needles_mm.empty() ? QString() : tr("%1 mm needle").arg(gun.needles_mm.front(), 0, 'f', 2),
             gunHeight_);
        p.setPen(QPen(tokens().hair, 1));
        p.drawLine(QPointF(chart_.left(), top + gunHeight_), QPointF(chart_.right(), top + gunHeight_));
    }
    p.save();
    const double trayTop =
        chart_.top() + static_cast<double>(study.wish.guns.size()) * gunHeight_ + 10 - scroll_;
    p.setClipRect(
        QRectF(0, chart_.top() + static_cast<double>(study.wish.guns.size()) * gunHeight_ + 1, width(),
               rack_.top() - 16 - chart_.top() - static_cast<double>(study.wish.guns.size()) * gunHeight_));
    for (std::size_t t = 0; t < study.wish.work.trays.size(); ++t) {
        const BenchTray& tray = study.wish.work.trays[t];
        const double top = trayTop + static_cast<double>(t) * trayHeight_, middle = top + 0.56 * trayHeight_;
        p.setPen(QPen(tokens().hair, 1));
        p.drawLine(QPointF(chart_.left(), middle), QPointF(chart_.right(), middle));
        name(trayHeight_ > 44 ? middle - 6 : middle + 4, tr("Tray %1").arg(QString::fromStdString(tray.tag)),
             luresText(tray.firstLure, tray.lures), trayHeight_ > 44 ? trayHeight_ : 0);
    }
    p.restore();
}

/// Work rests while it is closed.
void BenchPage::restInBreaks(QPainter& p, const QRectF& band) const {
    for (const Span& span : desk_.study().wish.closed) {
        const double from = std::max(band.left(), xAt(span.from_s)),
                     to = std::min(band.right(), xAt(span.to_s));
        if (to > from)
            p.fillRect(QRectF(QPointF(from, band.top() + 1), QPointF(to, band.bottom() - 1)), tokens().deep);
    }
}

void BenchPage::paintTask(QPainter& p, const Box& box) {
    // In one piece: the task on its tray, then on its gun.
    const BenchStudy& study = desk_.study();
    const PlacedTask& placed = study.plan.schedule.tasks[static_cast<std::size_t>(box.placed)];
    const BenchTask& task = study.taskOf(placed);
    const CupContent* cup = cupOf(study, task);
    const QColor colour = cup ? QColor(QString::fromStdString(cup->colour)) : tokens().sheet;
    QRectF band = box.band, gun = box.gun;
    if (drag_ && drag_->task == box.task && drag_->to_s) {
        const double by = xAt(*drag_->to_s) - xAt(placed.start_s);
        band.translate(by, 0);
        gun.translate(by, 0);
    }
    if (!box.rest.isEmpty()) {
        // Hatched in the paint's colour, or a darker twin of what would not be seen.
        QColor hatch = cup ? colour : tokens().muted;
        if (tokens().dark == (hatch.lightnessF() < 0.4f)) hatch = tokens().dark ? hatch.lighter(190) : hatch;
        if (!tokens().dark && hatch.lightnessF() > 0.75f) hatch = hatch.darker(150);
        p.fillRect(box.rest, QBrush(hatch, Qt::BDiagPattern));
        p.setPen(QPen(tokens().muted, 0.8));
        p.drawLine(box.rest.topRight(), box.rest.bottomRight());
    }
    const bool chosen = task.id == desk_.task();
    const QPen outline(chosen ? tokens().select : tokens().ink, chosen ? 2.2 : 0.8);
    p.setBrush(placed.wasDone ? tokens().deep : colour);
    p.setPen(outline);
    p.drawRoundedRect(band, std::min(3.0, band.width() / 3), 3);
    restInBreaks(p, band);
    const QColor ink = placed.wasDone ? tokens().muted : inkOn(colour);
    const QString letter =
        cup ? QString::fromStdString(cup->name).left(1).toUpper() : taskLetter(study, task);
    if (band.width() > 9 && band.height() > 13)
        ink::text(p, {band.center().x(), band.center().y() + 4}, letter, inter(10.5, QFont::DemiBold), ink,
                  Qt::AlignHCenter);
    if (placed.gun >= 0 && trayHeight_ > 44) {
        p.setPen(QPen(tokens().ink, 1));
        p.setBrush(placed.gun == 0 ? QBrush(Qt::NoBrush) : QBrush(tokens().ink));
        p.drawEllipse(QPointF(band.center().x(), band.bottom() + 6), 2.2, 2.2);
    }
    if (task.takes >= 0 && trayHeight_ > 44) {  // a mask goes on
        p.setPen(QPen(tokens().ink, 1));
        p.setBrush(Qt::NoBrush);
        const double y = band.top() - 6;
        p.drawPolyline(
            QPolygonF({{band.left(), y + 4}, {band.left(), y}, {band.right(), y}, {band.right(), y + 4}}));
    }
    if (gun.isEmpty()) return;
    p.setPen(outline);
    p.setBrush(placed.wasDone ? tokens().deep : colour);
    p.drawRoundedRect(gun, std::min(3.0, gun.width() / 3), 3);
    restInBreaks(p, gun);
    if (gun.width() > 9) {
        const QFont font = inter(10.5, QFont::DemiBold);
        const QString name = QString::fromStdString(cup->name);
        ink::text(p, {gun.center().x(), gun.center().y() + 4},
                  ink::widthOf(name, font) < gun.width() - 6 ? name : letter, font, ink, Qt::AlignHCenter);
    }
    if (placed.cleaned) {
        p.setPen(QPen(tokens().ink, 1));
        const double at = xAt(placed.clean_s);
        for (const double by : {0.0, 4.0})
            p.drawPolyline(QPolygonF({{at + by, gun.center().y() - 6},
                                      {at + by + 4, gun.center().y()},
                                      {at + by, gun.center().y() + 6}}));
    }
}

void BenchPage::paintRack(QPainter& p) {
    const BenchStudy& study = desk_.study();
    const int places = study.wish.shop.rack;
    ink::text(p, {kMargin, rack_.top() + 14}, tr("Drying rack"), inter(12, QFont::Bold), tokens().ink);
    ink::text(p, {kMargin, rack_.top() + 29}, tr("%1 places").arg(places), inter(10.5), tokens().muted);
    QPolygonF steps;
    const auto y = [&](int bodies) {
        return rack_.bottom() - rack_.height() * std::min(1.0, bodies / std::max(1.0, double(places)));
    };
    int before = 0;
    steps << QPointF(rack_.left(), rack_.bottom());
    for (const RackLevel& level : rackOf(study.wish, study.plan.schedule, Rests::Rack)) {
        const double x = std::clamp(xAt(level.from_s), rack_.left(), rack_.right());
        steps << QPointF(x, y(before)) << QPointF(x, y(level.bodies));
        before = level.bodies;
    }
    steps << QPointF(rack_.right(), y(before)) << QPointF(rack_.right(), rack_.bottom());
    QColor fill = tokens().accent;
    fill.setAlphaF(0.22f);
    p.setPen(Qt::NoPen);
    p.setBrush(fill);
    p.drawPolygon(steps);
    p.setPen(QPen(tokens().accent, 1.2));
    p.setBrush(Qt::NoBrush);
    p.drawPolyline(steps);
    p.setPen(QPen(tokens().caution, 1, Qt::DashLine));
    p.drawLine(rack_.topLeft(), rack_.topRight());
    ink::text(p, {rack_.right(), rack_.top() - 4}, tr("full"), inter(10.5), tokens().caution, Qt::AlignRight);
}

void BenchPage::paintLegend(QPainter& p) {
    double x = kMargin;
    const double y = height() - 14;
    const auto item = [&](const QString& words, double wide, const std::function<void(double)>& drawn) {
        if (x + wide + 6 + ink::widthOf(words, inter(10.5)) > width() - kMargin) return;
        p.setPen(QPen(tokens().ink, 1));
        p.setBrush(Qt::NoBrush);
        drawn(x);
        ink::text(p, {x + wide + 6, y}, words, inter(10.5), tokens().muted);
        x += wide + 6 + ink::widthOf(words, inter(10.5)) + 22;
    };
    item(tr("at work, in the cup's colour and with its letter"), 12, [&](double at) {
        p.setBrush(QColor("#8C8B3C"));
        p.drawRect(QRectF(at, y - 10, 12, 12));
    });
    item(tr("drying"), 22,
         [&](double at) { p.fillRect(QRectF(at, y - 9, 22, 10), QBrush(tokens().muted, Qt::BDiagPattern)); });
    item(tr("first gun"), 6, [&](double at) { p.drawEllipse(QPointF(at + 3, y - 4), 2.6, 2.6); });
    item(tr("another gun"), 6, [&](double at) {
        p.setBrush(tokens().ink);
        p.drawEllipse(QPointF(at + 3, y - 4), 2.6, 2.6);
    });
    item(tr("mask on"), 16, [&](double at) {
        p.drawPolyline(QPolygonF({{at, y - 4}, {at, y - 9}, {at + 16, y - 9}, {at + 16, y - 4}}));
    });
    item(tr("clean the cup"), 9, [&](double at) {
        for (const double by : {0.0, 4.0})
            p.drawPolyline(QPolygonF({{at + by, y - 10}, {at + by + 4, y - 4}, {at + by, y + 2}}));
    });
    item(tr("closed"), 14, [&](double at) { p.fillRect(QRectF(at, y - 10, 14, 12), tokens().deep); });
}

void BenchPage::paintList(QPainter& p) {
    // In one piece: each step with its gates, one below the other.
    const BenchStudy& study = desk_.study();
    const JobOnBench& job = study.jobs.front();
    ink::heading(p, {kMargin, 30}, tr("One lure, step by step"), {});
    p.save();
    p.setClipRect(QRectF(0, 44, width(), height() - 44));
    double y = 66 - scroll_;
    rows_.clear();
    std::optional<GunSetting> before;
    int number = 0;
    for (const BenchTask& task : study.wish.work.trays.front().tasks) {
        const double top = y - 16;
        const CupContent* cup = cupOf(study, task);
        p.setPen(QPen(tokens().ink, 1));
        p.setBrush(cup ? QColor(QString::fromStdString(cup->colour)) : tokens().sheet);
        p.drawEllipse(QPointF(kMargin + 9, y - 4), 8, 8);
        ink::text(p, {kMargin + 26, y}, QString::number(++number), inter(13, QFont::Bold), tokens().ink);
        const double wide = width() - kMargin - 70;
        ink::text(
            p, {kMargin + 52, y},
            QFontMetricsF(inter(13, QFont::DemiBold)).elidedText(taskTitle(job, task), Qt::ElideRight, wide),
            inter(13, QFont::DemiBold), tokens().ink);
        y += kRowHeight;
        const QString how = settingText(job, task);
        if (!how.isEmpty()) {
            ink::text(p, {kMargin + 52, y - 3},
                      QFontMetricsF(inter(11.5)).elidedText(how, Qt::ElideRight, wide), inter(11.5),
                      tokens().muted);
            y += kRowHeight - 3;
        }
        for (const Gate& gate : gatesOf(job, task, before, false)) {
            p.setPen(QPen(gate.hurts ? tokens().caution : tokens().muted, 1.2));
            p.setBrush(Qt::NoBrush);
            p.drawRect(QRectF(kMargin + 54, y - 11, 9, 9));
            ink::text(p, {kMargin + 70, y - 2},
                      QFontMetricsF(inter(11.5)).elidedText(said(gate.says), Qt::ElideRight, wide - 18),
                      inter(11.5), tokens().ink);
            y += kRowHeight - 3;
        }
        for (const std::string& id : task.steps)
            if (const std::size_t s = job.place(id); s < job.steps.size() && job.steps[s].set)
                before = job.steps[s].set;
        y += 8;
        rows_.emplace_back(task.id, QRectF(kMargin, top, width() - 2 * kMargin, y - top - 8));
        if (task.id == desk_.task()) {
            p.setPen(QPen(tokens().select, 1.6));
            p.setBrush(Qt::NoBrush);
            p.drawRoundedRect(rows_.back().second.adjusted(-4, -4, 4, 0), 6, 6);
        }
    }
    p.restore();
    scrollMost_ = std::max(0.0, y + scroll_ - height() + 20);
}

bool BenchPage::scrolls(const QPointF&, int steps) {
    if (scrollMost_ <= 0) return false;
    scroll_ = std::clamp(scroll_ - 30.0 * steps, 0.0, scrollMost_);
    layOut();
    return true;
}

std::string BenchPage::taskAt(const QPointF& at) const {
    constexpr double kNear = 3;  // bands may be narrower than a pointer
    for (const Box& box : boxes_)
        if (box.band.adjusted(-kNear, -kNear, kNear, kNear).contains(at) ||
            box.gun.adjusted(-kNear, 0, kNear, 0).contains(at))
            return box.task;
    for (const auto& [task, row] : rows_)
        if (row.contains(at)) return task;
    return {};
}

void BenchPage::mousePressEvent(QMouseEvent* event) {
    const QPointF at = event->position();
    for (std::size_t d = 0; d < tabs_.size(); ++d)
        if (tabs_[d].contains(at)) return showDay(static_cast<int>(d));
    const std::string task = taskAt(at);
    desk_.select(task);
    if (task.empty() || desk_.study().isShort()) return;
    if (const PlacedTask* placed = desk_.study().placed(task); placed && !placed->wasDone)
        drag_ = {task, at.x(), static_cast<double>(placed->start_s), {}};
}

void BenchPage::mouseMoveEvent(QMouseEvent* event) {
    if (!drag_) {
        setCursor(taskAt(event->position()).empty() ? Qt::ArrowCursor : Qt::PointingHandCursor);
        return;
    }
    constexpr double kMeant = 4;
    if (!drag_->to_s && std::abs(event->position().x() - drag_->from) < kMeant) return;
    const double by_s = secondAt(event->position().x()) - secondAt(drag_->from);
    drag_->to_s = std::max(0, static_cast<int>(std::lround((drag_->grabbed_s + by_s) / 60) * 60));
    update();
}

void BenchPage::mouseReleaseEvent(QMouseEvent*) {
    if (!drag_) return;
    const Drag drag = *drag_;
    drag_.reset();
    if (drag.to_s)
        if (const Status ok = desk_.lock(drag.task, *drag.to_s); !ok) context_.frame.complain(ok.error());
    update();
}

void BenchPage::nudge(int by_s) {
    const PlacedTask* placed = desk_.study().placed(desk_.task());
    if (!placed || placed->wasDone) return;
    if (const Status ok = desk_.lock(desk_.task(), std::max(0, placed->start_s + by_s)); !ok)
        context_.frame.complain(ok.error());
}

void BenchPage::selectBeside(int by) {
    const auto& tasks = desk_.study().plan.schedule.tasks;
    if (tasks.empty()) return;
    int now = by > 0 ? -1 : static_cast<int>(tasks.size());
    for (std::size_t i = 0; i < tasks.size(); ++i)
        if (desk_.study().taskOf(tasks[i]).id == desk_.task()) now = static_cast<int>(i);
    const int next = std::clamp(now + by, 0, static_cast<int>(tasks.size()) - 1);
    const PlacedTask& placed = tasks[static_cast<std::size_t>(next)];
    const QDate day = QDateTime::fromSecsSinceEpoch(desk_.study().start + placed.start_s).date();
    const auto on = std::find(days_.begin(), days_.end(), day);
    desk_.select(desk_.study().taskOf(placed).id);
    if (on != days_.end()) showDay(static_cast<int>(on - days_.begin()));
}

void BenchPage::keyPressEvent(QKeyEvent* event) {
    if (!desk_.study().planned || event->modifiers() & Qt::ControlModifier)
        return LeafPage::keyPressEvent(event);
    switch (event->key()) {
        case Qt::Key_Up:
            return selectBeside(-1);
        case Qt::Key_Down:
            return selectBeside(1);
        case Qt::Key_Left:
            return nudge(-kStep_s);
        case Qt::Key_Right:
            return nudge(kStep_s);
        case Qt::Key_Delete:
            if (!desk_.task().empty()) (void)desk_.lock(desk_.task(), -1);
            return;
        case Qt::Key_Comma:
            return showDay(day_ - 1);
        case Qt::Key_Period:
            return showDay(day_ + 1);
        default:
            LeafPage::keyPressEvent(event);
    }
}

}  // namespace nine::app
