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

constexpr double kInset_px = 110;

/// The section at the selected station, seen from the nose, with its width and height.
class SectionInset : public QWidget {
  public:
    explicit SectionInset(LeafContext context) : context_(context) { setFixedHeight(152); }

  protected:
    void paintEvent(QPaintEvent*) override {
        const auto& stations = context_.document.job().blank->table.stations;
        const auto index = static_cast<std::size_t>(context_.view.station());
        if (index >= stations.size() || stations[index].halfWidth_mm == 0) return;
        const Station& s = stations[index];
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const Tokens& t = tokens();
        const double scale = std::min(kInset_px / (s.top_mm + s.bottom_mm), kInset_px / (2 * s.halfWidth_mm));
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
        ink::text(p, QPointF(width() - 2.0, 12), tr("dashed: an oval"), inter(10.5), t.muted, Qt::AlignRight);
    }

  private:
    LeafContext context_;
};

}  // namespace

BlankLeaf::BlankLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent), page_(new BlankPage(context)), card_(new CardHolder) {
    connect(page_, &BlankPage::openWanted, this, &BlankLeaf::openWanted);
    connect(page_, &BlankPage::demoWanted, this, &BlankLeaf::demoWanted);
    connect(&context_.document, &JobDocument::changed, this, &BlankLeaf::rebuildCard);
    connect(&context_.results, &Results::bodyChanged, this, &BlankLeaf::rebuildCard);
    connect(&context_.view, &ViewState::changed, this, &BlankLeaf::rebuildCard);
}

QWidget* BlankLeaf::page() {
    return page_;
}

ValueChip* BlankLeaf::chip(Card& card, const QString& name, std::function<Status(Station&, double)> change) {
    ValueChip* c = card.chip(name, ValueChip::Kind::Length, 1, 0.1, {});
    connect(c, &ValueChip::committed, this, [this, c, change = std::move(change)](double value) {
        const auto index = static_cast<std::size_t>(context_.view.station());
        if (index >= job().blank->table.stations.size()) return;
        Station s = job().blank->table.stations[index];
        const Status possible = change(s, value);
        const Result<Job> edited = possible ? withStation(job(), index, s) : Result<Job>(possible.error());
        c->setWrong(edited ? QString() : said(edited.error()));
        if (!edited) return;
        context_.document.beginGesture();
        context_.document.edit(*edited, tr("Change station %1").arg(index));
    });
    return c;
}

void BlankLeaf::rebuildCard() {
    if (putOff()) return;
    const bool any = !job().blank->table.stations.empty();
    const QString shownFor = QString("%1 %2 %3")
                                 .arg(any)
                                 .arg(tokens().dark)
                                 .arg(QString::fromStdString(context_.view.material())) +
                             lengthUnit();
    if (shownFor == shownFor_) return refreshValues();
    shownFor_ = shownFor;
    auto* card = new Card;
    if (!any) {
        card->words(tr("No body yet. Begin with readings of your own, or look round in the demo."));
        card->button(tr("Open readings ..."), Card::Look::Primary, [this] { emit openWanted(); });
        card->button(tr("Look at the demo"), Card::Look::Second, [this] { emit demoWanted(); });
        card->finish();
        return card_->show(card);
    }
    const auto set = [](double Station::*member) {
        return [member](Station& s, double v) -> Status {
            s.*member = v;
            return Done{};
        };
    };
    title_ = card->title({});
    remark_ = card->muted({});
    section_ = new SectionInset(context_);
    card->add(section_);
    x_ = chip(*card, tr("Distance from the nose"), set(&Station::x_mm));
    top_ = chip(*card, tr("Height above the axis"), set(&Station::top_mm));
    bottom_ = chip(*card, tr("Depth below the axis"), set(&Station::bottom_mm));
    width_ = chip(*card, tr("Half width"), set(&Station::halfWidth_mm));
    girth_ = chip(*card, tr("String girth"), [](Station& s, double v) -> Status {
        const Result<double> exponent = exponentForGirth(s, v);
        if (!exponent) return exponent.error();
        s.section = s.sectionLower = std::round(100 * *exponent) / 100;
        return Done{};
    });
    card->sentence(withUnit(tr("Calipers read %1 %U above the axis, %2 %U below it and %3 %U to either side, "
                               "%4 %U from the nose.")),
                   {top_, bottom_, width_, x_});
    card->sentence(
        withUnit(tr("A string round it measures %1 %U and makes the section as full as it is drawn.")),
        {girth_});
    facts_ = card->facts({});
    card->muted(tr("How hard to wrap with"));
    QList<Card::Choice> sheets;
    for (const SheetMaterial& m : sheetMaterials()) {
        sheets.append({materialName(m.id), context_.view.material() == m.id,
                       [this, id = std::string(m.id)] { context_.view.setMaterial(id); }});
    }
    card->choices(sheets);
    card->finish();
    card_->show(card);
    refreshValues();
}

void BlankLeaf::refreshValues() {
    const auto& stations = job().blank->table.stations;
    if (stations.empty() || !title_) return;
    const int index = std::clamp(context_.view.station(), 0, static_cast<int>(stations.size()) - 1);
    const Station& s = stations[static_cast<std::size_t>(index)];
    title_->setText(tr("Station %1").arg(index));
    remark_->setText(tr("%1 from the nose, %2 stations in all").arg(lengthText(s.x_mm)).arg(stations.size()));
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
    facts_->setText(Card::factTable({{tr("Skin to paint"), tr("%1 cm²").arg(m.area_mm2 / 100, 0, 'f', 1)},
                                     {tr("Volume"), tr("%1 cm³").arg(m.volume_mm3 / 1000, 0, 'f', 1)}}));
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
