#include "app/leaves/blank/blank_leaf.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QLocale>
#include <QPainter>
#include <QPainterPath>
#include <QVBoxLayout>
#include <cmath>

#include "app/leaves/blank/begin_page.h"
#include "app/leaves/blank/blank_edits.h"
#include "app/leaves/blank/blank_page.h"
#include "app/leaves/blank/library_dialog.h"
#include "app/leaves/blank/picture_page.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "blank/string_girth.h"
#include "job/blank_table.h"
#include "job/tracing_page.h"

#include "base/files.h"
#include "base/number_text.h"

namespace nine::app {
namespace {

constexpr double kInset_px = 110;
constexpr double kLargestSheet_mm = 1000;

/// The section at the selected station, seen from the nose, with its width and height.
class SectionInset : public QWidget {
  public:
    explicit SectionInset(LeafContext context) : context_(context) { setFixedHeight(152); }

  protected:
    void paintEvent(QPaintEvent*) override {
        const auto& stations = context_.document.job().get<BlankChapter>().table.stations;
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
        // How full it is nobody has measured: hollow and thin, as assumed values are.
        const bool assumed = (s.assumed & kAssumedSection) != 0;
        p.setPen(assumed ? QPen(t.muted, 1.2) : QPen(t.ink, 1.4));
        p.setBrush(assumed ? QBrush(Qt::NoBrush) : QBrush(body));
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
        const auto beside = [&](double y, const QString& words) {
            ink::text(p, QPointF(width() - 2.0, y), words, inter(10.5), t.muted, Qt::AlignRight);
        };
        beside(12, assumed ? BlankLeaf::tr("hollow:") : BlankLeaf::tr("dashed: an oval"));
        if (assumed) beside(26, BlankLeaf::tr("assumed"));
    }

  private:
    LeafContext context_;
};

}  // namespace

BlankLeaf::BlankLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent),
      desk_(new BlankDesk(context.document, this)),
      stack_(new QStackedWidget),
      page_(new BlankPage(context)),
      begin_(new BeginPage),
      picturePage_(new PicturePage(context, *desk_)),
      kindPage_(new KindPage(*desk_)),
      card_(new CardHolder) {
    for (QWidget* page : std::initializer_list<QWidget*>{page_, begin_, picturePage_, kindPage_})
        stack_->addWidget(page);
    ways_ = new WaysCard(*desk_, *card_, this);
    landmark_ = new LandmarkCard(context, *card_, this);
    connect(&context_.document, &JobDocument::changed, this, [this] {
        showPage();
        rebuildCard();
    });
    connect(&context_.results, &Results::bodyChanged, this, &BlankLeaf::rebuildCard);
    connect(&context_.view, &ViewState::changed, this, &BlankLeaf::rebuildCard);
    connect(&page_->layers(), &BlankLayers::changed, this, &BlankLeaf::rebuildCard);
    connect(desk_, &BlankDesk::changed, this, [this] {
        showPage();
        rebuildCard();
    });
    connect(begin_, &BeginPage::openWanted, this, [this] { context_.frame.openWithDialog(); });
    connect(begin_, &BeginPage::demoWanted, this, [this] { context_.frame.openDemo(); });
    connect(begin_, &BeginPage::recentWanted, this,
            [this](const QString& file) { context_.frame.openInstead(file); });
    connect(begin_, &BeginPage::libraryWanted, this, &BlankLeaf::showLibrary);
    connect(begin_, &BeginPage::tracingWanted, this, [this] { desk_->start(BlankDesk::Way::Tracing); });
    connect(begin_, &BeginPage::photoWanted, this, [this] { desk_->start(BlankDesk::Way::Photo); });
    connect(begin_, &BeginPage::kindWanted, this, [this] { desk_->start(BlankDesk::Way::Kind); });
    connect(ways_, &WaysCard::pictureWanted, this, &BlankLeaf::choosePicture);
    connect(picturePage_, &PicturePage::pictureWanted, this, &BlankLeaf::choosePicture);
    connect(ways_, &WaysCard::sheetWanted, this, &BlankLeaf::putOutSheet);
    showPage();
}

QWidget* BlankLeaf::page() {
    return stack_;
}

void BlankLeaf::showPage() {
    using Way = BlankDesk::Way;
    QWidget* page = desk_->way() == Way::Kind   ? static_cast<QWidget*>(kindPage_)
                    : desk_->way() != Way::None ? static_cast<QWidget*>(picturePage_)
                    : context_.document.empty() ? static_cast<QWidget*>(begin_)
                                                : static_cast<QWidget*>(page_);
    if (stack_->currentWidget() == page) return;
    stack_->setCurrentWidget(page);
    stack_->setFocusProxy(page);
}

void BlankLeaf::openPicture(const QString& path, bool above) {
    if (desk_->way() != BlankDesk::Way::Tracing && desk_->way() != BlankDesk::Way::Photo)
        desk_->start(BlankDesk::Way::Photo);
    desk_->openPicture(path, above);
}

void BlankLeaf::choosePicture(bool above) {
    const QString path =
        QFileDialog::getOpenFileName(stack_, above ? tr("Photo from above") : tr("Open a picture"), {},
                                     tr("Pictures (*.jpg *.jpeg *.png);;All files (*)"));
    if (!path.isEmpty()) openPicture(path, above);
}

void BlankLeaf::putOutSheet(bool print) {
    // Letter where the locale's ruler is in inches.
    const bool letter = QLocale().measurementSystem() != QLocale::MetricSystem;
    context_.frame.putOut(tracingPage(letter ? kTracingLetter_mm : kTracingA4_mm), tr("Tracing sheet"),
                          print);
}

void BlankLeaf::printTable(bool print) {
    const SkinPtr skin = context_.results.body().skin;
    if (!skin) return;
    tableSlot_.request(
        [skin, blank = job().part<BlankChapter>()](const Task&) {
            return std::make_shared<Drawing>(benchTable(*blank, *skin, Vec2(210, 297)));
        },
        [this, print,
         name = QString::fromStdString(job().get<BlankChapter>().name)](std::shared_ptr<Drawing> table) {
            context_.frame.putOut(*table, tr("%1, measures").arg(name), print);
        });
}

ValueChip* BlankLeaf::chip(Card& card, const QString& name, std::function<Status(Station&, double)> change) {
    ValueChip* c = card.chip(name, ValueChip::Kind::Length, 1, 0.1, {});
    connect(c, &ValueChip::committed, this, [this, c, change = std::move(change)](double value) {
        const auto& all = job().get<BlankChapter>().table.stations;
        const auto found = std::find_if(all.begin(), all.end(), [&](const Station& station) {
            return numberText(station.x_mm) == c->owner();  // two never stand at one place
        });
        if (found == all.end()) return;
        const auto index = static_cast<std::size_t>(found - all.begin());
        Station s = job().get<BlankChapter>().table.stations[index];
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
    // In one piece: a card, from top to foot.
    if (putOff()) return;
    if (desk_->way() != BlankDesk::Way::None) {
        shownFor_.clear();
        landmark_->forget();
        return ways_->show();
    }
    ways_->forget();
    if (landmark_->show()) {
        shownFor_.clear();
        return;
    }
    landmark_->forget();
    const bool any = !job().get<BlankChapter>().table.stations.empty();
    QString shownFor = QString("%1 %2 %3")
                           .arg(any)
                           .arg(tokens().dark)
                           .arg(QString::fromStdString(context_.view.material())) +
                       lengthUnit() +
                       QString("%1%2%3%4%5")
                           .arg(context_.view.wrapMap())
                           .arg(context_.view.pictureUnder())
                           .arg(static_cast<int>(context_.view.blankTool()))
                           .arg(static_cast<int>(fuller_))
                           .arg(job().get<BlankChapter>().pictures.size());
    for (const auto& [name, mark] : job().get<BlankChapter>().landmarks)
        shownFor += QString::fromStdString("|" + name);
    if (shownFor == shownFor_) return refreshValues();
    shownFor_ = shownFor;
    auto* card = new Card;
    if (!any) {
        card->words(tr("No body yet. Begin with a tracing or a photo; or look round in the demo."));
        card->button(tr("Trace it"), Card::Look::Primary, [this] { desk_->start(BlankDesk::Way::Tracing); });
        card->button(tr("Photograph it"), Card::Look::Second,
                     [this] { desk_->start(BlankDesk::Way::Photo); });
        card->button(tr("Kind and readings"), Card::Look::Second,
                     [this] { desk_->start(BlankDesk::Way::Kind); });
        card->button(tr("From my blanks"), Card::Look::Second, [this] { showLibrary(); });
        card->button(tr("Open a file ..."), Card::Look::Second, [this] { context_.frame.openWithDialog(); });
        card->button(tr("Look at the demo"), Card::Look::Second, [this] { context_.frame.openDemo(); });
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
    girth_ = chip(*card, tr("String girth"), [this](Station& s, double v) -> Status {
        const Result<Station> fuller = withGirth(s, v, fuller_, "girth_mm");
        if (!fuller) return fuller.error();
        s = *fuller;
        const auto fine = [](double n) { return std::round(1000 * n) / 1000; };
        s.section = fine(s.section);
        s.sectionLower = fine(s.sectionLower);
        return Done{};
    });
    card->sentence(withUnit(tr("Calipers read %1 %U above the axis, %2 %U below it and %3 %U to either side, "
                               "%4 %U from the nose.")),
                   {top_, bottom_, width_, x_});
    card->sentence(
        withUnit(tr("A string round it measures %1 %U and makes the section as full as it is drawn.")),
        {girth_});
    QList<Card::Choice> halves;
    for (const auto& [half, words] : {std::pair{Fuller::Both, tr("All round")},
                                      {Fuller::Upper, tr("Above the axis")},
                                      {Fuller::Lower, tr("Below it")}})
        halves.append({words, fuller_ == half, [this, half = half] {
                           fuller_ = half;
                           rebuildCard();
                       }});
    card->choices(halves);
    facts_ = card->facts({});
    addTools(*card);
    card->finish();
    card_->show(card);
    refreshValues();
}

void BlankLeaf::addTools(Card& card) {
    // In one piece: a card, from top to foot.
    const ViewState& view = context_.view;
    card.muted(tr("How hard to wrap with"));
    QList<Card::Choice> sheets;
    for (const SheetMaterial& m : sheetMaterials()) {
        sheets.append({materialName(m.id), view.material() == m.id,
                       [this, id = std::string(m.id)] { context_.view.setMaterial(id); }});
    }
    sheets.append({tr("Map on the body"), view.wrapMap(),
                   [this] { context_.view.setWrapMap(!context_.view.wrapMap()); }});
    card.choices(sheets);
    if (view.wrapMap()) {
        const auto sheet = [&](const QString& name, void (ViewState::*set)(double)) {
            ValueChip* c = card.chip(name, ValueChip::Kind::Length, 0, 1, {});
            connect(c, &ValueChip::committed, this, [this, c, set](double v) {
                const bool possible = v > 0 && v <= kLargestSheet_mm;
                c->setWrong(
                    possible ? QString()
                             : tr("A sheet is up to %1 long and wide.").arg(lengthText(kLargestSheet_mm, 0)));
                if (possible) (context_.view.*set)(v);
            });
            return c;
        };
        along_ = sheet(tr("Sheet along the body"), &ViewState::setSheetAlong);
        across_ = sheet(tr("Sheet round the body"), &ViewState::setSheetAcross);
        card.sentence(withUnit(tr("for a sheet %1 %U along and %2 %U round the body, without a cut.")),
                      {along_, across_});
    }
    card.muted(tr("Measure and mark"));
    const auto tool = [&](ViewState::BlankTool t, const QString& words) {
        return Card::Choice{words, view.blankTool() == t, [this, t] {
                                const bool on = context_.view.blankTool() == t;
                                context_.view.setBlankTool(on ? ViewState::BlankTool::Stations : t);
                                page_->setFocus();
                            }};
    };
    QList<Card::Choice> tools{tool(ViewState::BlankTool::Measure, tr("Along the skin")),
                              tool(ViewState::BlankTool::Zone, tr("Draw a bare area")),
                              {tr("Table ..."), false, [this] { printTable(false); }},
                              {tr("Print the table ..."), false, [this] { printTable(true); }},
                              {tr("Lay a photo over it ..."), false, [this] { choosePicture(false); }}};
    if (!job().get<BlankChapter>().pictures.empty())
        tools.append({tr("Picture under it"), view.pictureUnder(),
                      [this] { context_.view.setPictureUnder(!context_.view.pictureUnder()); }});
    card.choices(tools);
    QList<Card::Choice> marks;
    for (const auto& [name, mark] : job().get<BlankChapter>().landmarks)
        marks.append({landmarkName(name), false, [this, name = name] { context_.view.setLandmark(name); }});
    if (!marks.isEmpty()) card.menu(tr("Landmarks"), marks);
    QList<Card::Choice> missing;
    for (const LandmarkKind& kind : landmarkKinds()) {
        const std::string name(kind.name);
        if (job().get<BlankChapter>().landmarks.count(name) > 0) continue;
        missing.append({landmarkName(name), false, [this, name] {
                            const Result<Job> edited = withNewLandmark(job(), name);
                            if (!edited) return context_.frame.complain(edited.error());
                            context_.document.beginGesture();
                            context_.document.edit(*edited, tr("Add %1").arg(landmarkName(name)));
                            context_.view.setLandmark(name);
                        }});
    }
    if (!missing.isEmpty()) card.menu(tr("Mark another"), missing);
    const auto tail = [&](const QString& name, double SoftTail::*size, double SoftTail::*other) {
        ValueChip* c = card.chip(name, ValueChip::Kind::Length, 0, 1, {});
        connect(c, &ValueChip::committed, this, [this, c, size, other](double v) {
            SoftTail t = job().get<BlankChapter>().softTail;
            t.*size = v;
            // Half of a size is not a tail yet: the other one starts alike.
            if (v > 0 && t.*other == 0) t.*other = v;
            if (v == 0) t = SoftTail();
            const Result<Job> edited = withSoftTail(job(), t);
            c->setWrong(edited ? QString() : said(edited.error()));
            if (!edited) return;
            context_.document.beginGesture();
            context_.document.edit(*edited, tr("Soft tail"));
        });
        return c;
    };
    tailLong_ = tail(tr("Length of the soft tail"), &SoftTail::length_mm, &SoftTail::height_mm);
    tailHigh_ = tail(tr("Height of the soft tail"), &SoftTail::height_mm, &SoftTail::length_mm);
    card.sentence(
        withUnit(tr("A soft tail is put on later: %1 %U long, %2 %U high; 0 for none. It is never painted.")),
        {tailLong_, tailHigh_});
    card.muted(tr("The shape comes from %1. Take it from another").arg(sourceWords()));
    card.choices({{tr("Tracing"), false, [this] { desk_->start(BlankDesk::Way::Tracing); }},
                  {tr("Photo"), false, [this] { desk_->start(BlankDesk::Way::Photo); }},
                  {tr("Kind"), false, [this] { desk_->start(BlankDesk::Way::Kind); }},
                  {tr("My blanks ..."), false, [this] { showLibrary(); }}});
}

QString BlankLeaf::sourceWords() const {
    const std::string& source = job().get<BlankChapter>().source;
    return source == "tracing"  ? tr("a tracing")
           : source == "photo"  ? tr("a photo")
           : source == "family" ? tr("its kind and readings")
                                : tr("readings");
}

void BlankLeaf::refreshValues() {
    const auto& stations = job().get<BlankChapter>().table.stations;
    if (stations.empty() || !title_) return;
    const int index = std::clamp(context_.view.station(), 0, static_cast<int>(stations.size()) - 1);
    const Station& s = stations[static_cast<std::size_t>(index)];
    title_->setText(tr("Station %1").arg(index));
    remark_->setText(tr("%1 from the nose, %2 stations in all").arg(lengthText(s.x_mm)).arg(stations.size()));
    const bool closed = s.halfWidth_mm == 0;
    for (ValueChip* c : {x_, top_, bottom_, width_, girth_}) {
        c->setEnabled(!closed);
        c->setOwner(numberText(s.x_mm));
    }
    x_->setValue(s.x_mm);
    top_->setValue(s.top_mm);
    bottom_->setValue(s.bottom_mm);
    width_->setValue(s.halfWidth_mm);
    girth_->setValue(
        closed ? 0
               : SectionArc(Section{s.halfWidth_mm, s.top_mm, s.bottom_mm, s.section, s.sectionLower})
                     .girth_mm());
    if (context_.view.wrapMap() && along_ && across_) {
        along_->setValue(context_.view.sheetAlong_mm());
        across_->setValue(context_.view.sheetAcross_mm());
    }
    tailLong_->setValue(job().get<BlankChapter>().softTail.length_mm);
    tailHigh_->setValue(job().get<BlankChapter>().softTail.height_mm);
    const BodyMeasure& m = context_.results.measure();
    const bool known = m.area_mm2 > 0;
    const QString dash = QString::fromUtf8("–");
    Card::Facts rows{{tr("Skin to paint"),
                      known ? tr("%1 cm²").arg(context_.results.painted_mm2() / 100, 0, 'f', 1) : dash},
                     {tr("Skin in all"), known ? tr("%1 cm²").arg(m.area_mm2 / 100, 0, 'f', 1) : dash},
                     {tr("Volume"), known ? tr("%1 cm³").arg(m.volume_mm3 / 1000, 0, 'f', 1) : dash}};
    if (s.girth_mm > 0)
        rows.prepend({tr("String measured %1, drawn body is off by").arg(lengthText(s.girth_mm)),
                      lengthText(girthResidual_mm(s), 2)});
    if (s.assumed != 0) rows.prepend({tr("This station"), tr("assumed in part, not measured")});
    facts_->setText(Card::factTable(rows));
    section_->update();
}

void BlankLeaf::showLibrary() {
    LibraryDialog dialog(context_.library, context_.document, context_.frame.dialogParent());
    dialog.exec();
}

void BlankLeaf::saveReadings() {
    if (context_.document.empty()) return;
    const BlankChapter& blank = job().get<BlankChapter>();
    QString path = QFileDialog::getSaveFileName(context_.frame.dialogParent(), tr("Save the readings"),
                                                QString::fromStdString(blank.name) + ".csv",
                                                tr("Station tables (*.csv)"));
    if (path.isEmpty()) return;
    if (!path.endsWith(".csv")) path += ".csv";
    const Status saved = writeFileAtomically(path.toStdString(), stationTableText(blank.table, blank.name));
    if (!saved) context_.frame.complain(saved.error());
}

std::vector<MenuEntry> BlankLeaf::menu() {
    return {{tr("Save the readings ..."), {}, [this] { saveReadings(); }},
            {tr("My blanks ..."), QKeySequence("Ctrl+L"), [this] { showLibrary(); }},
            {tr("Print the tracing sheet ..."), {}, [this] { putOutSheet(true); }}};
}

/// A picture; the open job stays until a body is made of it.
bool BlankLeaf::takesFile(const QString& path) {
    const QString suffix = QFileInfo(path).suffix().toLower();
    if (suffix != "jpg" && suffix != "jpeg" && suffix != "png") return false;
    openPicture(path);
    return true;
}

std::vector<Flag> BlankLeaf::flags() {
    const auto& error = context_.results.body().error;
    if (context_.document.empty() || !error) return {};
    return {{"blank", said(*error), true, [] {}}};
}

Standing BlankLeaf::standing() const {
    if (!context_.document.empty()) return {};
    return {tr("Start with a body: trace it, photograph it, or look at the demo.")};
}

LeafEntry BlankLeaf::entry() const {
    LeafEntry e;
    const BodyResult& body = context_.results.body();
    if (context_.document.empty()) return e;
    e.state = body.error ? LeafState::Repair : LeafState::Ready;
    e.flags = body.error ? 1 : 0;
    e.fault = body.error.has_value();
    return e;
}

}  // namespace nine::app
