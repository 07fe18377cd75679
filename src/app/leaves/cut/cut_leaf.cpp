#include "app/leaves/cut/cut_leaf.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QPushButton>

#include "app/sheet/ink.h"
#include "app/sheet/sentence.h"
#include "app/sheet/units_text.h"
#include "cut/estimate.h"

namespace nine::app {

CutPage::CutPage(LeafContext context) : context_(context) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("The sheet with the pieces to cut"));
    connect(&context_.results, &Results::masksChanged, this, [this] { update(); });
    connect(&context_.results, &Results::pagesMoved, this, [this] { update(); });
    connect(&context_.view, &ViewState::changed, this, [this] { update(); });
}

void CutPage::showSheet(int sheet) {
    sheet_ = sheet;
    selected_ = -1;
    update();
}

double CutPage::perMm() const {
    const SheetSize& s = context_.results.sheet();
    return std::min((width() - 110) / s.width_mm, (height() - 112) / s.height_mm);
}

QPointF CutPage::origin() const {
    const SheetSize& s = context_.results.sheet();
    const double w = s.width_mm * perMm(), h = s.height_mm * perMm();
    return {0.5 * (width() - w) + 14, 62 + h};
}

QPointF CutPage::at(const Vec2& mm) const {
    return origin() + perMm() * QPointF(mm.x(), -mm.y());
}

QPointF CutPage::pieceCentre(int index) const {
    const auto& pages = context_.results.masks().pages;
    if (!pages || index >= static_cast<int>(pages->pieces.size())) return {};
    const Box2 box = boxAround({pages->pieces[static_cast<std::size_t>(index)].piece.outline});
    return at(0.5 * (box.low + box.high));
}

void CutPage::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    const MasksResult& masks = context_.results.masks();
    if (!masks.pages) {
        const QString why = masks.pagesError && !masks.masks.empty()
                                ? QString::fromStdString(masks.pagesError->text)
                                : tr("No pieces yet: they come from the masks.");
        ink::text(p, QPointF(18, 26), context_.results.masksRunning() ? tr("Laying out the pieces ...") : why,
                  inter(12.5), t.muted);
        return;
    }
    const CutPages& pages = *masks.pages;
    sheet_ = std::min(sheet_, static_cast<int>(pages.pages) - 1);
    const SheetSize& s = pages.sheet;
    ink::heading(p, QPointF(18, 26),
                 tr("Sheet %1 of %2, %3 × %4")
                     .arg(sheet_ + 1)
                     .arg(pages.pages)
                     .arg(lengthNumber(s.width_mm, 0), lengthText(s.height_mm, 0)),
                 tr("drag a piece; pieces never overlap"));
    const QRectF sheet(at(Vec2(0, s.height_mm)), at(Vec2(s.width_mm, 0)));
    p.setPen(Qt::NoPen);
    p.setBrush(QColor(0, 0, 0, 30));
    p.drawRect(sheet.translated(3, 4));
    p.setPen(QPen(t.dark ? t.line : QColor("#A39A7E"), 1));
    const std::string material = masks.masks.empty() ? "paper" : masks.masks.front().spec->material;
    const QColor ground = materialColour(material);
    p.setBrush(ground);
    p.drawRect(sheet);
    // Rulers along the upper and left edge, zero at the sheet's corner.
    for (const bool across : {true, false}) {
        const double length = across ? s.width_mm : s.height_mm;
        for (int mm = 0; mm <= static_cast<int>(length); mm += 10) {
            const bool major = mm % 50 == 0;
            const QPointF edge = across ? sheet.topLeft() + QPointF(mm * perMm(), -6)
                                        : sheet.topLeft() + QPointF(-6, mm * perMm());
            p.setPen(QPen(t.muted, 0.8));
            p.drawLine(edge, edge + (across ? QPointF(0, major ? -6 : -3) : QPointF(major ? -6 : -3, 0)));
            if (!major) continue;
            if (across)
                ink::text(p, edge + QPointF(0, -9), QString::number(mm), inter(10.5), t.muted,
                          Qt::AlignHCenter);
            else
                ink::text(p, edge + QPointF(-9, 4), QString::number(mm), inter(10.5), t.muted,
                          Qt::AlignRight);
        }
    }
    const std::vector<Drawing> drawings = drawPages(masks.job, masks.masks, pages);
    const Drawing& page = drawings[static_cast<std::size_t>(sheet_)];
    for (const DrawnLine& line : page.layers[2].lines) {
        QPolygonF polygon;
        for (const Vec2& v : line.points) polygon << at(v);
        p.setPen(QPen(QColor("#5A665E"), 0.7));
        p.setBrush(Qt::NoBrush);
        line.closed ? p.drawPolygon(polygon) : p.drawPolyline(polygon);
    }
    for (std::size_t i = 0; i < pages.pieces.size(); ++i) {
        const PlacedPiece& placed = pages.pieces[i];
        if (static_cast<int>(placed.page) != sheet_) continue;
        const bool on = static_cast<int>(i) == selected_;
        QPainterPath path;
        QPolygonF outline;
        for (const Vec2& v : placed.piece.outline) outline << at(v);
        path.addPolygon(outline);
        path.closeSubpath();
        for (const PieceWindow& w : placed.piece.windows) {
            QPolygonF hole;
            for (const Vec2& v : w.outline) hole << at(v);
            path.addPolygon(hole);
            path.closeSubpath();
        }
        path.setFillRule(Qt::OddEvenFill);
        p.setBrush(ground.lighter(106));
        p.setPen(QPen(on ? QColor("#1C6E9C") : inkOnSheet(), on ? 1.8 : 1.1));
        p.drawPath(path);
        p.setPen(QPen(QColor("#5A665E"), 0.8));
        p.setBrush(Qt::NoBrush);
        for (const Polyline2& stroke : placed.piece.pen) {
            QPolygonF polygon;
            for (const Vec2& v : stroke) polygon << at(v);
            p.drawPolyline(polygon);
        }
    }
    if (!refused_.isEmpty()) {
        ink::flagShape(p, QPointF(18, height() - 26), ink::Severity::Caution, "");
        ink::text(p, QPointF(46, height() - 13), refused_, inter(12), t.caution);
    } else {
        ink::text(p, QPointF(18, height() - 13),
                  tr("windows first, outlines last: a part never moves while it is being cut"), inter(11),
                  t.muted);
    }
}

void CutPage::move(int piece, const Vec2& shift) {
    const auto& pages = context_.results.masks().pages;
    if (!pages || piece < 0) return;
    Result<CutPages> moved = movePiece(*pages, static_cast<std::size_t>(piece), shift);
    refused_ = moved ? QString() : QString::fromStdString(moved.error().text);
    if (moved) context_.results.setPages(std::move(*moved));
    update();
}

void CutPage::mousePressEvent(QMouseEvent* event) {
    const auto& pages = context_.results.masks().pages;
    selected_ = -1;
    refused_.clear();
    last_ = event->position();
    if (pages) {
        const QPointF mm = (event->position() - origin()) / perMm();
        for (std::size_t i = 0; i < pages->pieces.size(); ++i) {
            if (static_cast<int>(pages->pieces[i].page) == sheet_ &&
                contains(pages->pieces[i].piece.outline, Vec2(mm.x(), -mm.y()))) {
                selected_ = static_cast<int>(i);
            }
        }
    }
    dragging_ = selected_ >= 0;
    update();
}

void CutPage::mouseMoveEvent(QMouseEvent* event) {
    if (!dragging_ || !(event->buttons() & Qt::LeftButton)) return;
    const QPointF by = (event->position() - last_) / perMm();
    const QPointF before = pieceCentre(selected_);
    move(selected_, Vec2(by.x(), -by.y()));
    // A refused step does not count, so that the piece stays under the pointer.
    if (pieceCentre(selected_) != before) last_ = event->position();
}

void CutPage::mouseReleaseEvent(QMouseEvent*) {
    dragging_ = false;
}

void CutPage::keyPressEvent(QKeyEvent* event) {
    const double step = event->modifiers() & Qt::ShiftModifier ? 1 : 0.1;
    const auto& pages = context_.results.masks().pages;
    switch (event->key()) {
        case Qt::Key_Left:
            move(selected_, Vec2(-step, 0));
            break;
        case Qt::Key_Right:
            move(selected_, Vec2(step, 0));
            break;
        case Qt::Key_Up:
            move(selected_, Vec2(0, step));
            break;
        case Qt::Key_Down:
            move(selected_, Vec2(0, -step));
            break;
        case Qt::Key_PageDown:
            if (pages) showSheet(std::min(static_cast<int>(pages->pages) - 1, sheet_ + 1));
            break;
        case Qt::Key_PageUp:
            showSheet(std::max(0, sheet_ - 1));
            break;
        default:
            QWidget::keyPressEvent(event);
    }
}

CutLeaf::CutLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent),
      page_(new CutPage(context)),
      card_(new QWidget),
      layout_(new QVBoxLayout(card_)) {
    layout_->setContentsMargins(16, 14, 16, 12);
    connect(&context_.results, &Results::masksChanged, this, &CutLeaf::rebuildCard);
    connect(&context_.view, &ViewState::changed, this, &CutLeaf::rebuildCard);
}

Status CutLeaf::exportTo(const QString& folder, bool svg, bool pdf) {
    const MasksResult& masks = context_.results.masks();
    if (!masks.pages)
        return Error{"nothing_to_cut", tr("There are no pieces to write yet.").toStdString(), "masks"};
    return writeFilesAtomically(folder.toStdString(),
                                pageFiles(drawPages(masks.job, masks.masks, *masks.pages), svg, pdf));
}

void CutLeaf::rebuildCard() {
    if (putOff()) return;
    discard(layout_, body_);
    body_ = new QWidget(card_);
    layout_->addWidget(body_);
    auto* layout = new QVBoxLayout(body_);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(8);
    const auto words = [&](const QString& text, const QString& style = {}) {
        auto* label = new QLabel(text, body_);
        label->setWordWrap(true);
        label->setStyleSheet(style);
        layout->addWidget(label);
    };
    words(tr("To cut"), "font-size: 15px; font-weight: 700");
    const auto& pages = context_.results.masks().pages;
    if (!pages) {
        words(tr("Nothing to cut yet."));
        layout->addStretch();
        return;
    }
    std::vector<const Piece*> pieces;
    for (const PlacedPiece& p : pages->pieces) pieces.push_back(&p.piece);
    const CutEstimate e = estimateCut(pieces, *findTool("knife"));
    const auto row = [](const QString& what, const QString& value) {
        return QString(
                   "<tr><td style='padding-bottom:5px; color:%1'>%2</td><td "
                   "align='right'><b>%3</b></td></tr>")
            .arg(tokens().muted.name(), what, value);
    };
    double used = 0;
    for (std::size_t i = 0; i < pages->pages; ++i)
        used += pages->utilisation(i) / static_cast<double>(pages->pages);
    words("<table width='100%'>" + row(tr("Pieces"), QString::number(pages->pieces.size())) +
          row(tr("Sheets"), tr("%1, %2 % used").arg(pages->pages).arg(100 * used, 0, 'f', 0)) +
          row(tr("To cut"), tr("%1 m").arg(e.length_mm / 1000, 0, 'f', 2)) +
          row(tr("By craft knife"), tr("about %1 min").arg(e.time_s / 60, 0, 'f', 0)) +
          row(tr("Narrowest feature"), lengthText(e.smallestFeature_mm, 2)) + "</table>");
    words(tr("Sheet"), "color: " + tokens().muted.name());
    auto* sizes = new QWidget(body_);
    auto* flow = new FlowLayout(sizes, 30);
    for (const auto& [name, size] :
         {std::pair{tr("A4"), SheetSize{210, 297}}, {tr("Letter"), SheetSize{215.9, 279.4}}}) {
        const SheetSize& now = context_.results.sheet();
        auto* pick = new QPushButton(name, sizes);
        pick->setObjectName(now.width_mm == size.width_mm ? "primary" : "second");
        connect(pick, &QPushButton::clicked, this, [this, size = size] { context_.results.setSheet(size); });
        flow->addWidget(pick);
    }
    layout->addWidget(sizes);
    words(tr("Write for the machine, or print and cut by hand"), "color: " + tokens().muted.name());
    auto* outputs = new QWidget(body_);
    auto* out = new FlowLayout(outputs, 32);
    const auto button = [&](const QString& name, const char* kind, auto slot) {
        auto* b = new QPushButton(name, outputs);
        b->setObjectName(kind);
        connect(b, &QPushButton::clicked, this, slot);
        out->addWidget(b);
    };
    button(tr("SVG 1:1"), "primary", [this] { emit exportWanted(true, false); });
    button(tr("PDF"), "second", [this] { emit exportWanted(false, true); });
    button(tr("Print ..."), "second", [this] { emit printWanted(); });
    for (QWidget* w : {sizes, outputs}) {
        QSizePolicy policy(QSizePolicy::Preferred, QSizePolicy::Fixed);
        policy.setHeightForWidth(true);
        w->setSizePolicy(policy);
    }
    layout->addWidget(outputs);
    words(tr("Print at 100 % and measure the 100 mm line and the 50 mm square before you cut."));
    words(tr("Blade: cut away from the holding hand, cap the knife. Vinyl or PVC is never cut hot or with a "
             "laser."),
          "color: " + tokens().caution.name());
    layout->addStretch();
}

LeafEntry CutLeaf::entry() const {
    LeafEntry e;
    e.built = true;
    const MasksResult& masks = context_.results.masks();
    if (masks.pages) e.state = LeafState::Ready;
    if (masks.pagesError && !masks.masks.empty()) {
        e.state = LeafState::Repair;
        e.flags = 1;
        e.fault = true;
    }
    return e;
}

}  // namespace nine::app
