#include "app/leaves/blank/blank_leaf.h"

#include <QPainter>
#include <QPainterPath>
#include <QVBoxLayout>
#include <cmath>

#include "app/leaves/blank/blank_edits.h"
#include "app/leaves/blank/blank_page.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {
namespace {

/// The section at the selected station, seen from the nose, with its width and height.
class SectionInset : public QWidget {
  public:
    explicit SectionInset(LeafContext context) : context_(context) { setFixedHeight(196); }

  protected:
    void paintEvent(QPaintEvent*) override {
        const auto& stations = context_.document.job().blank->table.stations;
        const auto index = static_cast<std::size_t>(context_.view.station());
        if (index >= stations.size() || stations[index].halfWidth_mm == 0) return;
        const Station& s = stations[index];
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const Tokens& t = tokens();
        const double scale = std::min(150.0 / (s.top_mm + s.bottom_mm), 150.0 / (2 * s.halfWidth_mm));
        const QPointF axis(0.5 * width() + 8, 12 + s.top_mm * scale);
        const auto outline = [&](double upper, double lower) {
            QPolygonF ring;
            for (int i = 0; i < 240; ++i) {
                const double v = 2 * M_PI * i / 240, c = std::cos(v), q = std::sin(v);
                const double n = q >= 0 ? upper : lower, h = q >= 0 ? s.top_mm : s.bottom_mm;
                const double r = std::pow(std::pow(std::abs(c), n) + std::pow(std::abs(q), n), -1 / n);
                ring << axis + scale * QPointF(s.halfWidth_mm * c * r, -h * q * r);
            }
            return ring;
        };
        const QPolygonF solid = outline(s.section, s.sectionLower);
        QLinearGradient body(axis - QPointF(0, 80), axis + QPointF(0, 80));
        body.setColorAt(0, t.dark ? QColor("#6d6a5f") : QColor("#d9d5c8"));
        body.setColorAt(1, t.dark ? QColor("#4b4a42") : QColor("#a9a595"));
        p.setPen(QPen(t.ink, 1.4));
        p.setBrush(body);
        p.drawPolygon(solid);
        QPen dash(t.muted, 0.8);
        dash.setDashPattern({2, 3});
        p.setPen(dash);
        p.setBrush(Qt::NoBrush);
        p.drawPolygon(outline(2, 2));
        QPen datum(t.ink, 0.8);
        datum.setDashPattern({9, 3, 2, 3});
        p.setPen(datum);
        const QRectF b = solid.boundingRect();
        p.drawLine(QPointF(b.left() - 4, axis.y()), QPointF(b.right() + 4, axis.y()));
        ink::dimension(p, QPointF(b.left() - 24, b.top()), QPointF(b.left() - 24, b.bottom()),
                       lengthNumber(s.top_mm + s.bottom_mm), true);
        ink::dimension(p, QPointF(b.left(), b.bottom() + 16), QPointF(b.right(), b.bottom() + 16),
                       lengthNumber(2 * s.halfWidth_mm), true);
        ink::text(p, QPointF(width() - 2.0, height() - 4.0), tr("dashed: an oval"), inter(10.5), t.muted,
                  Qt::AlignRight);
    }

  private:
    LeafContext context_;
};

}  // namespace

BlankLeaf::BlankLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent), page_(new BlankPage(context)) {
    buildCard();
    connect(page_, &BlankPage::openWanted, this, &BlankLeaf::openWanted);
    connect(page_, &BlankPage::demoWanted, this, &BlankLeaf::demoWanted);
    connect(&context_.document, &JobDocument::changed, this, &BlankLeaf::rebuildCard);
    connect(&context_.results, &Results::bodyChanged, this, &BlankLeaf::rebuildCard);
    connect(&context_.view, &ViewState::changed, this, &BlankLeaf::rebuildCard);
}

QWidget* BlankLeaf::page() {
    return page_;
}

void BlankLeaf::buildCard() {
    card_ = new QWidget;
    auto* layout = new QVBoxLayout(card_);
    layout->setContentsMargins(16, 14, 16, 12);
    layout->setSpacing(8);
    title_ = new QLabel(card_);
    title_->setFont(inter(15, QFont::Bold));
    remark_ = new QLabel(card_);
    section_ = new SectionInset(context_);
    const auto newChip = [&](ValueChip::Kind kind, int decimals, const QString& name) {
        auto* c = new ValueChip(kind, decimals, 0.1, card_);
        c->setAccessibleName(name);
        return c;
    };
    x_ = newChip(ValueChip::Kind::Length, 1, tr("Distance from the nose"));
    top_ = newChip(ValueChip::Kind::Length, 1, tr("Height above the axis"));
    bottom_ = newChip(ValueChip::Kind::Length, 1, tr("Depth below the axis"));
    width_ = newChip(ValueChip::Kind::Length, 1, tr("Half width"));
    girth_ = newChip(ValueChip::Kind::Length, 1, tr("String girth"));
    facts_ = new QLabel(card_);
    facts_->setTextFormat(Qt::RichText);
    facts_->setWordWrap(true);
    layout->addWidget(title_);
    layout->addWidget(remark_);
    layout->addWidget(section_);
    layout->addWidget(new Sentence(
        tr("Calipers read %1 above the axis, %2 below it and %3 to either side, %4 from the nose."),
        {top_, bottom_, width_, x_}, card_));
    layout->addWidget(new Sentence(
        tr("A string round it measures %1 and makes the section as full as it is drawn."), {girth_}, card_));
    layout->addWidget(facts_);
    layout->addStretch();

    const auto editStation = [this](ValueChip* chip, auto change) {
        connect(chip, &ValueChip::committed, this, [this, chip, change](double value) {
            const auto index = static_cast<std::size_t>(context_.view.station());
            Station s = job().blank->table.stations[index];
            const Status possible = change(s, value);
            const Result<Job> edited =
                possible ? withStation(job(), index, s) : Result<Job>(possible.error());
            chip->setWrong(edited ? QString() : said(edited.error()));
            if (!edited) return;
            context_.document.beginGesture();
            context_.document.edit(*edited, tr("Change station %1").arg(index));
        });
    };
    editStation(x_, [](Station& s, double v) -> Status {
        s.x_mm = v;
        return Done{};
    });
    editStation(top_, [](Station& s, double v) -> Status {
        s.top_mm = v;
        return Done{};
    });
    editStation(bottom_, [](Station& s, double v) -> Status {
        s.bottom_mm = v;
        return Done{};
    });
    editStation(width_, [](Station& s, double v) -> Status {
        s.halfWidth_mm = v;
        return Done{};
    });
    editStation(girth_, [](Station& s, double v) -> Status {
        const Result<double> exponent = exponentForGirth(s, v);
        if (!exponent) return exponent.error();
        s.section = s.sectionLower = std::round(100 * *exponent) / 100;
        return Done{};
    });
}

void BlankLeaf::rebuildCard() {
    if (putOff()) return;
    const auto& stations = job().blank->table.stations;
    const bool any = !stations.empty();
    for (QWidget* w : card_->findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly))
        w->setVisible(any);
    if (!any) return;
    const int index = std::clamp(context_.view.station(), 0, static_cast<int>(stations.size()) - 1);
    const Station& s = stations[static_cast<std::size_t>(index)];
    title_->setText(tr("Station %1").arg(index));
    title_->setStyleSheet("font-size: 15px; font-weight: 700; color: " + tokens().select.name());
    remark_->setText(tr("%1 from the nose, %2 stations in all").arg(lengthText(s.x_mm)).arg(stations.size()));
    remark_->setStyleSheet("color: " + tokens().muted.name());
    const bool closed = s.halfWidth_mm == 0;
    for (ValueChip* c : {x_, top_, bottom_, width_, girth_}) c->setEnabled(!closed);
    x_->setValue(s.x_mm);
    top_->setValue(s.top_mm);
    bottom_->setValue(s.bottom_mm);
    width_->setValue(s.halfWidth_mm);
    girth_->setValue(
        closed
            ? 0
            : SectionArc(Section{s.halfWidth_mm, s.top_mm, s.bottom_mm, s.section, s.sectionLower}).girth());
    const BodyMeasure& m = context_.results.measure();
    const auto row = [](const QString& what, const QString& value) {
        return QString(
                   "<tr><td style='padding-right:18px; padding-bottom:5px; color:%1'>%2</td><td "
                   "align='right'><b>%3</b></td></tr>")
            .arg(tokens().muted.name(), what, value);
    };
    facts_->setText(
        "<table width='100%'>" + row(tr("Skin to paint"), tr("%1 cm²").arg(m.area_mm2 / 100, 0, 'f', 1)) +
        row(tr("Volume"), tr("%1 cm³").arg(m.volume_mm3 / 1000, 0, 'f', 1)) +
        row(tr("Widest"), lengthText(m.width_mm)) + row(tr("Highest"), lengthText(m.height_mm)) + "</table>");
    section_->update();
}

LeafEntry BlankLeaf::entry() const {
    LeafEntry e;
    e.built = true;
    const BodyResult& body = context_.results.body();
    if (context_.document.empty()) return e;
    e.state = body.error ? LeafState::Repair : LeafState::Ready;
    e.flags = body.error ? 1 : 0;
    e.fault = body.error.has_value();
    return e;
}

}  // namespace nine::app
