// How the step runner looks.
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/leaves/bench/bench_words.h"
#include "app/leaves/bench/runner.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {
namespace {

/// A leaf-shaped body, nose to the left.
QPainterPath bodyPath(const QRectF& box) {
    QPainterPath path;
    path.moveTo(box.left(), box.center().y());
    path.cubicTo(box.left(), box.top() - 0.1 * box.height(), box.left() + 0.62 * box.width(),
                 box.top() - 0.02 * box.height(), box.right(), box.center().y());
    path.cubicTo(box.left() + 0.62 * box.width(), box.bottom() + 0.02 * box.height(), box.left(),
                 box.bottom() + 0.1 * box.height(), box.left(), box.center().y());
    return path;
}

/// A drop of paint.
QPainterPath dropPath(const QRectF& box) {
    QPainterPath path;
    const double r = 0.5 * box.width();
    const QPointF middle(box.center().x(), box.bottom() - r);
    path.moveTo(box.center().x(), box.top());
    path.cubicTo(box.center().x() + 0.2 * r, box.top() + 0.45 * (box.height() - 2 * r) + 0.2 * r,
                 middle.x() + r, middle.y() - 0.9 * r, middle.x() + r, middle.y());
    path.arcTo(QRectF(middle.x() - r, middle.y() - r, 2 * r, 2 * r), 0, -180);
    path.cubicTo(middle.x() - r, middle.y() - 0.9 * r, box.center().x() - 0.2 * r,
                 box.top() + 0.45 * (box.height() - 2 * r) + 0.2 * r, box.center().x(), box.top());
    return path;
}

}  // namespace

double Runner::line(QPainter& p, const QPointF& at, const QString& words, double size, int weight,
                    const QColor& colour, double wide) {
    QFont f = font(size, weight);
    const double used = ink::widthOf(words, f);
    if (used > wide) f = font(std::max(0.93 * size * wide / used, size * 0.45), weight);
    ink::text(p, at, QFontMetricsF(f).elidedText(words, Qt::ElideRight, wide), f, colour);
    return ink::widthOf(words, f);
}

double Runner::paragraph(QPainter& p, const QRectF& box, const QString& words, double size, int weight,
                         const QColor& colour) {
    const QFont f = font(size, weight);
    const QFontMetricsF metrics(f);
    double y = box.top() + metrics.ascent();
    QString rest = words;
    while (!rest.isEmpty() && y < box.bottom()) {
        // As many words as fit on the line.
        QString row;
        while (!rest.isEmpty()) {
            const qsizetype blank = rest.indexOf(' ');
            const QString word = blank < 0 ? rest : rest.left(blank);
            const QString longer = row.isEmpty() ? word : row + " " + word;
            if (!row.isEmpty() && metrics.horizontalAdvance(longer) > box.width()) break;
            row = longer;
            rest = blank < 0 ? QString() : rest.mid(blank + 1);
        }
        if (y + metrics.height() > box.bottom() && !rest.isEmpty())
            row = metrics.elidedText(row + " " + rest, Qt::ElideRight, box.width());
        ink::text(p, {box.left(), y}, metrics.elidedText(row, Qt::ElideRight, box.width()), f, colour);
        y += metrics.lineSpacing();
    }
    return y - metrics.ascent();
}

void Runner::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), tokens().paper);
    bodies_.clear();
    openings_.clear();
    choices_.clear();
    if (!desk_.run().there()) {
        line(p, {kRunnerSide * scale(), 120 * scale()}, tr("No run is being recorded."), 34, QFont::Bold,
             tokens().ink, width() - 2 * kRunnerSide * scale());
        button_ = {};
        return;
    }
    paintHead(p);
    if (mode_ == Mode::Over) {
        paintOver(p);
        paintFoot(p);
        return;
    }
    if (mode_ == Mode::Rescue) {
        paintRescue(p);
        paintTimer(p);
        paintFoot(p);
        return;
    }
    paintTitle(p);
    const Gate* asked = gate();
    if (mode_ == Mode::Mishap) {
        QStringList rows;
        for (const MishapKind& kind : mishaps()) rows << said(Words(kind.name));
        paintList(p, tr("What happened to lure %1?").arg(bodyNow()), rows);
    } else if (mode_ == Mode::Change) {
        QStringList rows;
        for (const BenchKey& key : benchKeys()) rows << said(Words(key.name));
        if (!typed_->isVisible()) paintList(p, tr("What was different?"), rows);
    } else if (asked) {
        paintGates(p);
    } else {
        paintSettings(p);
        paintBodies(p);
    }
    if (typed_->isVisible())
        paragraph(p, QRectF(kRunnerSide * scale(), 400 * scale(), 760 * scale(), 120 * scale()), prompt_, 22,
                  QFont::Normal, tokens().muted);
    paintDrop(p);
    if (asked && asked->openings > 0)
        paintOpenings(p);
    else
        paintPose(p);
    paintTimer(p);
    paintFoot(p);
}

void Runner::paintHead(QPainter& p) {
    // In one piece: the tray, the way along the cups, how far it is.
    const double s = scale();
    const RunState& state = desk_.run().state();
    p.fillRect(QRectF(0, 0, width(), 74 * s), tokens().panel);
    p.setPen(QPen(tokens().line, 1));
    p.drawLine(QPointF(0, 74 * s), QPointF(width(), 74 * s));
    const BenchTask* task = desk_.run().task();
    const BenchTray* tray = task ? trayIn(desk_.run().head().work, task->id) : nullptr;
    double x = 36 * s;
    if (tray) {
        const double room = 0.27 * width();
        x += line(p, {x, 46 * s}, tr("Tray %1").arg(QString::fromStdString(tray->tag)), 26, QFont::Bold,
                  tokens().ink, room) +
             12 * s;
        line(p, {x, 46 * s}, luresText(task->firstLure, task->lures), 20, QFont::Normal, tokens().muted,
             room);
    } else {
        line(p, {x, 46 * s}, QString::fromStdString(desk_.run().head().title), 26, QFont::Bold, tokens().ink,
             0.27 * width());
    }
    const int all = static_cast<int>(state.order.size()), done = state.done();
    const QString count =
        task ? tr("step %1 of %2").arg(done + 1).arg(all) : tr("%1 of %2 steps").arg(done).arg(all);
    ink::text(p, {width() - 36 * s, 46 * s}, count, font(20), tokens().muted, Qt::AlignRight);
    // Every cup once, in the order it comes; those before now are filled leaves.
    const auto& work = desk_.run().head().work;
    std::vector<std::pair<int, int>> cups;  // cup, place of its last task
    const auto places = tasksById(work);
    int at = 0, now = 0;
    for (const std::string& id : state.order) {
        const auto found = places.find(id);
        const BenchTask* t = found == places.end() ? nullptr : found->second.task;
        if (t && t->cup >= 0 && (cups.empty() || cups.back().first != t->cup)) cups.emplace_back(t->cup, at);
        if (task && id == task->id) now = static_cast<int>(cups.size()) - (task->cup >= 0 ? 1 : 0);
        ++at;
    }
    const std::size_t shown = std::min<std::size_t>(cups.size(), 14);
    const std::size_t first =
        cups.size() > shown
            ? static_cast<std::size_t>(std::clamp<int>(now - 4, 0, static_cast<int>(cups.size() - shown)))
            : 0;
    const double left = 0.36 * width(), right = 0.80 * width(), y = 38 * s;
    p.setPen(QPen(tokens().accent, 2.2 * s));
    p.drawLine(QPointF(left, y), QPointF(right, y));
    for (std::size_t i = 0; i < shown; ++i) {
        const int place = static_cast<int>(first + i);
        const double cx =
            left +
            (right - left) * (shown > 1 ? static_cast<double>(i) / static_cast<double>(shown - 1) : 0.5);
        const bool past = place < now, here = place == now && task;
        const double up = i % 2 ? -1 : 1;
        QPainterPath leaf;
        leaf.moveTo(cx, y);
        leaf.cubicTo(cx - 2 * s, y + up * 12 * s, cx + 4 * s, y + up * 24 * s, cx + 15 * s, y + up * 29 * s);
        leaf.cubicTo(cx + 17 * s, y + up * 17 * s, cx + 12 * s, y + up * 6 * s, cx, y);
        p.setPen(QPen(here ? tokens().ink : past ? tokens().accent : tokens().muted, here ? 2 * s : 1.2 * s));
        p.setBrush(past || here ? QBrush(tokens().accent) : QBrush(Qt::NoBrush));
        p.drawPath(leaf);
        p.setPen(QPen(tokens().ink, 1));
        p.setBrush(QColor(
            QString::fromStdString(work.cups[static_cast<std::size_t>(cups[first + i].first)].colour)));
        p.drawEllipse(QPointF(cx, y), 5 * s, 5 * s);
    }
}

void Runner::paintTitle(QPainter& p) {
    const double s = scale();
    const BenchTask* task = desk_.run().task();
    const JobOnBench* job = desk_.jobOfRun();
    if (!task) return;
    if (!job)
        return (void)line(p, {kRunnerSide * s, 230 * s}, QString::fromStdString(task->id), 52, QFont::Bold,
                          tokens().ink, width() - (kRunnerSide + kRunnerRight) * s);
    const TaskWords words = taskWords(*job, *task);
    const double wide = width() - (kRunnerSide + kRunnerRight) * s;
    line(p, {kRunnerSide * s, 152 * s}, said(words.verb), 40, QFont::Normal, tokens().muted, wide);
    line(p, {kRunnerSide * s, 236 * s}, said(words.title), 84, QFont::Bold, tokens().ink, wide);
    paragraph(p, QRectF(kRunnerSide * s, 256 * s, wide, 88 * s), said(words.more),
              ink::widthOf(said(words.more), font(34)) > wide ? 26 : 34, QFont::Normal, tokens().ink);
}

void Runner::paintSettings(QPainter& p) {
    const double s = scale();
    const BenchTask* task = desk_.run().task();
    const JobOnBench* job = desk_.jobOfRun();
    const StepOnBench* on = task && job ? mainOnBench(*job, *task) : nullptr;
    if (!on || !on->set) return;
    GunSetting set = *on->set;
    // What was changed at the gun is what is shown from then on.
    if (const auto changes = desk_.run().state().changes.find(on->step);
        changes != desk_.run().state().changes.end()) {
        for (const auto& [key, value] : changes->second) {
            const double number = QString::fromStdString(value).toDouble();
            if (key == "pressure_kpa") set.pressure_kpa = number;
            if (key == "distance_mm") set.distance_mm = number;
        }
    }
    const std::pair<QString, QString> values[] = {
        {pressureText(set.pressure_kpa), tr("pressure")},
        {QString::number(set.needle_mm, 'f', 2), tr("needle, mm")},
        {lengthText(set.distance_mm, 0), tr("away")},
        {tr("%1°").arg(set.angle_deg, 0, 'f', 0), tr("off straight")},
        {tr("%1 s").arg(set.length_s, 0, 'f', 1), tr("a body length")},
    };
    const double wide = (width() - (kRunnerSide + kRunnerRight) * s) / 5;
    double x = kRunnerSide * s;
    for (const auto& [value, caption] : values) {
        line(p, {x, 436 * s}, value, 46, QFont::Bold, tokens().ink, wide - 14 * s);
        line(p, {x, 472 * s}, caption, 22, QFont::Normal, tokens().muted, wide - 14 * s);
        x += wide;
    }
}

void Runner::paintGates(QPainter& p) {
    // In one piece: what is answered, what is asked, what will be.
    const double s = scale();
    const Gate* asked = gate();
    const BenchTask* task = desk_.run().task();
    const auto of = desk_.run().state().gates.find(task->id);
    const double wide = width() - (kRunnerSide + kRunnerRight) * s;
    double y = 356 * s;
    // The one that is asked is always seen: those long answered make way.
    std::size_t first = 0;
    constexpr std::size_t kShown = 5;
    for (std::size_t i = 0; i < gates_.size(); ++i)
        if (&gates_[i] == asked && i + 1 > kShown) first = i + 1 - kShown;
    for (std::size_t i = first; i < gates_.size() && y < 596 * s; ++i) {
        const Gate& g = gates_[i];
        const bool done = of != desk_.run().state().gates.end() && of->second.count(g.id), now = &g == asked;
        if (g.after && !done && !now) continue;
        const double size = now ? 30 : 22;
        const QPointF ring(kRunnerSide * s + 13 * s, y + size * 0.55 * s);
        p.setPen(QPen(now ? tokens().select : done ? tokens().accent : tokens().muted, (now ? 3 : 1.6) * s));
        p.setBrush(done ? QBrush(tokens().accent) : QBrush(Qt::NoBrush));
        p.drawEllipse(ring, 11 * s, 11 * s);
        if (done) {
            p.setPen(QPen(tokens().onAccent, 2.4 * s));
            p.drawPolyline(
                QPolygonF({ring + QPointF(-5, 0) * s, ring + QPointF(-1, 4) * s, ring + QPointF(5, -4) * s}));
        }
        const QColor colour = now ? (g.hurts ? tokens().caution : tokens().ink) : tokens().muted;
        y = paragraph(p, QRectF(kRunnerSide * s + 40 * s, y, wide - 40 * s, now ? 130 * s : 34 * s),
                      said(g.says), size, now ? QFont::DemiBold : QFont::Normal, colour) +
            9 * s;
    }
}

void Runner::paintBodies(QPainter& p) {
    const double s = scale();
    const BenchTask* task = desk_.run().task();
    const JobOnBench* job = desk_.jobOfRun();
    if (!task) return;
    const StepOnBench* on = job ? mainOnBench(*job, *task) : nullptr;
    const QColor done =
        on && !on->colour.empty() ? QColor(QString::fromStdString(on->colour)) : tokens().accent;
    const QColor todo =
        on && !on->ground.empty() ? QColor(QString::fromStdString(on->ground)) : tokens().deep;
    const double wide = width() - (kRunnerSide + kRunnerRight) * s;
    const int rows = task->lures > 10 ? 2 : 1, inRow = (task->lures + rows - 1) / rows;
    const double step = std::min(98 * s, wide / std::max(1, inRow)), high = (rows == 1 ? 44 : 34) * s;
    const int now = bodyNow();
    for (int i = 0; i < task->lures; ++i) {
        const int lure = task->firstLure + i;
        const QRectF box(kRunnerSide * s + (i % inRow) * step, 520 * s + (i / inRow) * 42 * s,
                         std::min(step - 6 * s, 68 * s * (rows == 1 ? 1 : .9)), high);
        bodies_.emplace_back(lure, box);
        const QColor fill = lure < now ? done : todo;
        p.setPen(QPen(lure == now ? tokens().select : tokens().ink, (lure == now ? 4 : 1.4) * s));
        p.setBrush(fill);
        p.drawPath(bodyPath(box));
        if (box.width() > 20)
            ink::text(p, {box.left() + 0.42 * box.width(), box.center().y() + 7 * s}, QString::number(lure),
                      font(19, QFont::Bold), inkOn(fill), Qt::AlignHCenter);
        // A mishap is marked where it happened.
        for (const RunEvent& e : desk_.run().state().mishapsSeen)
            if (e.lure == lure)
                ink::flag(p, box.topLeft() + QPointF(0.3 * box.width(), 2), ink::Severity::Caution, 0);
    }
}

void Runner::paintDrop(QPainter& p) {
    const double s = scale();
    const BenchTask* task = desk_.run().task();
    const JobOnBench* job = desk_.jobOfRun();
    const StepOnBench* on = task && job ? mainOnBench(*job, *task) : nullptr;
    const Step* step = task && job ? mainStep(*job, *task) : nullptr;
    if (!on || !step || !on->cup) return;
    const QRectF box(width() - 289 * s, 96 * s, 118 * s, 158 * s);
    p.setPen(QPen(tokens().ink, 1.4));
    p.setBrush(QColor(QString::fromStdString(on->cup->colour)));
    p.drawPath(dropPath(box));
    const Words mix = mixWords(*job, *step);
    if (mix.empty()) return;
    const QString words = said(mix);
    const qsizetype comma = words.indexOf(", ");
    const double wide = 380 * s, left = width() - 420 * s;
    ink::text(p, {left + wide / 2, 290 * s}, comma < 0 ? words : words.left(comma), font(28, QFont::Bold),
              tokens().ink, Qt::AlignHCenter);
    if (comma > 0)
        paragraph(p, QRectF(left, 300 * s, wide, 56 * s), words.mid(comma + 2), 18, QFont::Normal,
                  tokens().muted);
    else if (step->paint.size() == 1 && on->cup->name != step->name)
        ink::text(
            p, {left + wide / 2, 318 * s},
            QFontMetricsF(font(18)).elidedText(QString::fromStdString(on->cup->name), Qt::ElideRight, wide),
            font(18), tokens().muted, Qt::AlignHCenter);
}

void Runner::paintPose(QPainter& p) {
    // In one piece: the body as it is held, strokes over it, the gun end on.
    const double s = scale();
    const BenchTask* task = desk_.run().task();
    const JobOnBench* job = desk_.jobOfRun();
    const Step* step = task && job ? mainStep(*job, *task) : nullptr;
    if (!step || !job->on || !posed_.skin) return;
    const auto pose = poseOf(*job, *step);
    const bool belly = pose && pose->view == PoseView::Belly;
    p.save();
    if (belly) {  // belly up, as it is held
        p.translate(0, 2 * poseBox_.center().y());
        p.scale(1, -1);
    }
    pose_->paint(p);
    if (step->where.reaches == Reaches::Net)
        for (const Clip& clip : job->on->of.get<ScalesChapter>().clips) {
            const double z =
                posed_.skin->at({Side::Left, clip.x_mm, -posed_.skin->arcAt(clip.x_mm).bellyArc_mm()})
                    .position.z();
            p.setPen(QPen(tokens().caution, 2.4 * s));
            p.drawLine(pose_->at(clip.x_mm, z), pose_->at(clip.x_mm, z - 4));
        }
    p.restore();
    if (pose) {
        const QRectF body = pose_->bounds();
        const double off = 16 * s;
        p.setBrush(Qt::NoBrush);
        // Where marks are sprayed strokes run over them, else over all of the body that is seen.
        double low = body.top() + 0.12 * body.height(), high = body.top() + 0.88 * body.height();
        if (belly) high = low + 0.3 * body.height();
        if (pose->view == PoseView::Side) {
            QRectF marks;
            for (const QPolygonF& opening : openingsOf(*task)) marks |= opening.boundingRect();
            if (!marks.isEmpty())
                low = std::max(low, marks.top()),
                high = std::min(high, std::max(low + 12 * s, marks.bottom()));
        }
        const int strokes = std::clamp(static_cast<int>((high - low) / (28 * s)), 2, 4);
        for (int i = 0; i < strokes; ++i) {
            const double y = low + (i + 0.5) / strokes * (high - low);
            p.setPen(QPen(tokens().paper, 5 * s, Qt::SolidLine, Qt::RoundCap));
            p.drawLine(QPointF(body.left() - off, y), QPointF(body.right() + off, y));
            p.setPen(QPen(tokens().select, 2.4 * s, Qt::SolidLine, Qt::RoundCap));
            p.drawLine(QPointF(body.left() - off, y), QPointF(body.right() + off, y));
            p.drawPolyline(
                QPolygonF({QPointF(body.right() + off - 8 * s, y - 5 * s), QPointF(body.right() + off, y),
                           QPointF(body.right() + off - 8 * s, y + 5 * s)}));
        }
        // End on: where the gun comes from, and how far off straight.
        const StepOnBench* on = mainOnBench(*job, *task);
        const QPointF middle(width() - 66 * s, 350 * s);
        const double r = 17 * s;
        p.setPen(QPen(tokens().ink, 1.4));
        p.setBrush(tokens().deep);
        p.drawEllipse(middle, r * 0.8, r);
        const double slant = on && on->set ? degToRad(on->set->angle_deg) : 0;
        const double from = (pose->view == PoseView::Side ? kPi : 0.5 * kPi) + slant;
        const QPointF way(std::cos(from), -std::sin(from));
        p.setPen(QPen(tokens().select, 3 * s));
        p.drawLine(middle + way * (r + 34 * s), middle + way * (r + 6 * s));
        p.setBrush(tokens().select);
        p.drawEllipse(middle + way * (r + 36 * s), 4 * s, 4 * s);
        ink::text(p, middle + way * (r + 36 * s) + QPointF(-8 * s, 5 * s), tr("gun"), font(15),
                  tokens().muted, Qt::AlignRight);
    }
    const QString words = pose ? said(pose->says) : QString();
    if (!words.isEmpty())
        paragraph(p, QRectF(width() - 420 * s, 552 * s, 390 * s, 50 * s), words, 18, QFont::Normal,
                  tokens().muted);
}

std::vector<QPolygonF> Runner::openingsOf(const BenchTask& task) const {
    std::vector<QPolygonF> all;
    const JobOnBench* job = desk_.jobOfRun();
    if (!job || !posed_.skin) return all;
    std::vector<std::string> elements;
    for (const std::string& id : task.steps) {
        const std::size_t k = job->place(id);
        if (k >= job->steps.size()) continue;
        const Step& step = job->recipe().steps[k];
        const bool through =
            step.where.reaches == Reaches::Windows || step.where.reaches == Reaches::Negatives;
        const std::string& mask = !step.mask.empty() ? step.mask : through ? step.where.of : std::string();
        for (const MaskFact& m : job->facts.masks)
            if (!mask.empty() && (m.id == mask || m.twin == mask)) elements = m.elements;
    }
    for (const ArtPtr& art : context_.results.body().art) {
        if (!art || std::find(elements.begin(), elements.end(), art->element) == elements.end()) continue;
        for (const Outline& outline : art->outlines()) {
            QPolygonF polygon;
            for (const Vec2& skin : outline.skin)
                polygon << pose_->at(posed_.skin->at({Side::Left, skin.x(), skin.y()}).position);
            all.push_back(std::move(polygon));
        }
    }
    return all;
}

void Runner::paintOpenings(QPainter& p) {
    // In one piece: the body with each opening, to be ticked off.
    const double s = scale();
    const BenchTask* task = desk_.run().task();
    const JobOnBench* job = desk_.jobOfRun();
    const Step* step = task && job ? mainStep(*job, *task) : nullptr;
    if (!step || !posed_.skin) return;
    pose_->paint(p);
    int number = 0;
    for (const QPolygonF& polygon : openingsOf(*task)) {
        ++number;
        const bool on = ticked_.count(number) > 0;
        p.setPen(QPen(on ? tokens().accent : tokens().caution, 1.8 * s));
        QColor fill = on ? tokens().accent : tokens().paper;
        fill.setAlphaF(on ? 0.85f : 0.35f);
        p.setBrush(fill);
        p.drawPolygon(polygon);
        const QRectF box = polygon.boundingRect();
        const double least = 14 * s;  // a finger's, however small the mark
        const double more = std::max(0.0, least - box.width()) / 2,
                     higher = std::max(0.0, least - box.height()) / 2;
        openings_.emplace_back(number, box.adjusted(-more, -higher, more, higher));
    }
    paragraph(p, QRectF(width() - 420 * s, 552 * s, 390 * s, 50 * s),
              tr("%1 of %2 on this side ticked off; Space says all are filled, on both sides")
                  .arg(ticked_.size())
                  .arg(number),
              18, QFont::Normal, tokens().muted);
}

}  // namespace nine::app
