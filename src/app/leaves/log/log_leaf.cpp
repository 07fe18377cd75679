#include "app/leaves/log/log_leaf.h"

#include <QBuffer>
#include <QDateTime>
#include <QFileDialog>
#include <QInputDialog>
#include <QLocale>
#include <QPdfWriter>
#include <QPrintDialog>
#include <QPrinter>
#include <QTextDocument>
#include <algorithm>

#include "app/leaves/leaves.h"
#include "app/leaves/log/log_page.h"
#include "app/leaves/log/sides_dialog.h"
#include "app/leaves/log/wear_bars.h"
#include "app/sheet/names.h"
#include "app/theme/theme.h"
#include "base/files.h"

namespace nine::app {
namespace {

constexpr int kLogCardFollows_ms = 150;
constexpr std::size_t kMostListed = 12;

/// Takes what was typed when the field is left.
class TextField : public QPlainTextEdit {
  public:
    explicit TextField(std::function<void(const QString&)> taken) : taken_(std::move(taken)) {
        setTabChangesFocus(true);
    }
    ~TextField() override = default;

  protected:
    void focusOutEvent(QFocusEvent* event) override {
        QPlainTextEdit::focusOutEvent(event);
        if (document()->isModified()) {
            document()->setModified(false);
            taken_(toPlainText());
        }
    }

  private:
    std::function<void(const QString&)> taken_;
};

}  // namespace

LogLeaf::LogLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent), desk_(context, this), page_(new LogPage(context, desk_)), card_(new CardHolder) {
    calm_.setSingleShot(true);
    calm_.setInterval(kLogCardFollows_ms);
    connect(&calm_, &QTimer::timeout, this, &LogLeaf::rebuildCard);
    connect(&desk_, &LogDesk::changed, this, [this] {
        calm_.start();
        emit restless();
    });
    connect(&desk_, &LogDesk::told, this,
            [this](const QString& sentence) { context_.frame.tell(sentence, {}, {}); });
    connect(page_, &LogPage::pictureWanted, this, &LogLeaf::askPicture);
    connect(&context_.document, &JobDocument::changed, this, [this] { calm_.start(); });
}

QWidget* LogLeaf::page() {
    return page_;
}

LeafEntry LogLeaf::entry() const {
    LeafEntry e;
    if (!desk_.book()) return e;
    if (!desk_.runs().empty()) e.state = LeafState::Begun;
    if (!desk_.book()->cards.empty()) e.state = LeafState::Ready;
    return e;
}

std::vector<Flag> LogLeaf::flags() {
    return {};  // what was found on finished bodies is nothing wrong with the open job
}

QString LogLeaf::busyWith() const {
    return desk_.making() ? tr("Making the recipe card") : QString();
}

std::vector<MenuEntry> LogLeaf::menu() {
    return {{tr("Recipe card as PDF ..."), {}, [this] { printCard(false); }},
            {tr("Print the recipe card ..."), {}, [this] { printCard(true); }},
            {tr("Recipe cards into a file ..."),
             {},
             [this] {
                 const QString path = QFileDialog::getSaveFileName(
                     context_.frame.dialogParent(), tr("Recipe cards into a file"), "recipe-cards.json",
                     tr("Recipe cards (*.json)"));
                 if (!path.isEmpty()) desk_.exportTo(path, true);
             }},
            {tr("Recipe cards from a file ..."), {}, [this] {
                 const QString path = QFileDialog::getOpenFileName(context_.frame.dialogParent(),
                                                                   tr("Recipe cards from a file"), {},
                                                                   tr("Recipe cards (*.json)"));
                 if (!path.isEmpty()) desk_.importFrom(path);
             }}};
}

bool LogLeaf::takesFile(const QString& path) {
    const QString low = path.toLower();
    const bool picture = low.endsWith(".jpg") || low.endsWith(".jpeg") || low.endsWith(".png");
    if (!picture || !page_->isVisible() || !desk_.card()) return false;
    desk_.addPicture(path);
    return true;
}

void LogLeaf::askPicture() {
    const QString path =
        QFileDialog::getOpenFileName(context_.frame.dialogParent(), tr("A photo of the finished lure"), {},
                                     tr("Pictures (*.jpg *.jpeg *.png)"));
    if (!path.isEmpty()) desk_.addPicture(path);
}

void LogLeaf::measure() {
    const RecipeCard* now = desk_.card();
    if (!now) return;
    std::vector<SideReading> readings = now->sides.empty() ? desk_.plannedReadings() : now->sides;
    const double length_mm = context_.results.body().skin ? context_.results.body().skin->length_mm() : 60;
    SidesDialog dialog(std::move(readings), now->measuredLure > 0 ? now->measuredLure : 1, length_mm,
                       context_.frame.dialogParent());
    if (dialog.exec() != QDialog::Accepted) return;
    desk_.change([&](RecipeCard& card) {
        card.sides = dialog.readings();
        card.measuredLure = dialog.lure();
    });
}

void LogLeaf::rebuildCard() {
    if (putOff()) return;
    if (!desk_.book()) desk_.read();
    auto* card = new Card;
    if (desk_.problem()) card->framed(said(*desk_.problem()), true);
    sayRuns(*card);
    sayFind(*card);
    if (const RecipeCard* now = desk_.card()) {
        sayOutcome(*card, *now);
        saySides(*card, *now);
        sayAgain(*card, *now);
        sayCatches(*card, *now);
    }
    if (desk_.book()) {
        sayWear(*card);
        sayLeftovers(*card);
        for (const Warning& warning : desk_.book()->warnings) card->framed(said(warning), false);
    }
    if (desk_.canPutBack())
        card->button(tr("Put the card back that was taken out"), Card::Look::Link,
                     [this] { desk_.putBack(); });
    card->muted(tr(
        "Cards stay in the workshop file on this machine; nothing leaves it but what you put into a file."));
    card->finish();
    card_->show(card);
}

void LogLeaf::sayRuns(Card& card) {
    if (desk_.runs().empty()) return;
    card.title(tr("Recorded at the bench"));
    constexpr std::size_t kShown = 4;
    for (std::size_t i = 0; i < std::min(kShown, desk_.runs().size()); ++i) {
        const KnownRun& run = desk_.runs()[i];
        card.words(
            tr("%1, %2: %3 of %4 steps")
                .arg(QString::fromStdString(run.head.title),
                     QLocale().toString(QDateTime::fromSecsSinceEpoch(run.head.began), QLocale::ShortFormat))
                .arg(run.state.done())
                .arg(run.state.order.size()));
        card.button(tr("Make its recipe card"),
                    i == 0 && !desk_.making() ? Card::Look::Primary : Card::Look::Second,
                    [this, folder = run.folder] { desk_.makeCard(folder); });
    }
}

void LogLeaf::sayFind(Card& card) {
    if (!desk_.book()) return;
    const std::size_t all = desk_.book()->cards.size();
    card.title(tr("Workshop book"), false);
    card.muted(all == 1 ? tr("one card") : tr("%1 cards").arg(all));
    if (all == 0) return;
    auto* search = new QLineEdit(desk_.search());
    search->setObjectName("search");
    search->setAccessibleName(tr("Search the cards"));
    search->setPlaceholderText(tr("any word, colour, paint, blank, date"));
    search->setProperty(kOwner, QString("log"));
    connect(search, &QLineEdit::textEdited, this, [this](const QString& words) { desk_.setSearch(words); });
    card.add(search);
    QList<Card::Choice> rows;
    for (std::size_t i = 0; i < std::min(kMostListed, desk_.found().size()); ++i) {
        const std::string& id = desk_.found()[i];
        for (const RecipeCard& one : desk_.book()->cards)
            if (one.id == id)
                rows.append({tr("%1 on %2, %3")
                                 .arg(QString::fromStdString(one.title), QString::fromStdString(one.blank),
                                      QLocale().toString(QDateTime::fromSecsSinceEpoch(one.ended).date(),
                                                         QLocale::ShortFormat)),
                             desk_.card() && desk_.card()->id == id, [this, id] { desk_.select(id); }});
    }
    card.radio(rows);
    if (desk_.found().size() > kMostListed)
        card.muted(tr("and %1 more; type to find one").arg(desk_.found().size() - kMostListed));
    if (desk_.found().empty()) card.muted(tr("No card holds all of these words."));
}

void LogLeaf::sayOutcome(Card& card, const RecipeCard& now) {
    card.title(tr("What came of it"), false);
    auto* text = new TextField([this, id = now.id](const QString& words) {
        if (desk_.card() && desk_.card()->id == id)
            desk_.change([&](RecipeCard& c) { c.text = words.toStdString(); });
    });
    text->setPlainText(QString::fromStdString(now.text));
    text->setAccessibleName(tr("What came of it"));
    text->setPlaceholderText(tr("in your words"));
    text->setFixedHeight(64);
    card.add(text);
    QList<Card::Choice> marks;
    for (const ResultMark& mark : resultMarks()) {
        const bool on = std::find(now.seen.begin(), now.seen.end(), mark.id) != now.seen.end();
        marks.append({said(Words(mark.name)), on, [this, id = std::string(mark.id), on] {
                          desk_.change([&](RecipeCard& c) {
                              std::erase(c.seen, id);
                              if (!on) c.seen.push_back(id);
                          });
                      }});
    }
    card.choices(marks);
    card.button(tr("Add a photo ..."), Card::Look::Link, [this] { askPicture(); });
    card.button(tr("Take the card out"), Card::Look::Link, [this] { desk_.takeOut(); });
}

void LogLeaf::saySides(Card& card, const RecipeCard& now) {
    card.title(tr("Left against right"), false);
    for (const SideFinding& finding : desk_.sides().findings) {
        card.framed(said(finding.says), false);
        card.words(said(finding.mend));
        if (finding.cause == SideCause::MaskMoved || finding.cause == SideCause::MaskTurned)
            card.button(tr("To the mask"), Card::Look::Second, [this, name = finding.mask] {
                for (const MaskSpecPtr& spec : maskSpecs(job()))
                    if (spec->shownName() == name) {
                        context_.view.setMask(spec->id);
                        return context_.frame.showLeaf(MasksNumber);
                    }
                context_.frame.tell(
                    tr("%1 is not among the masks of the open job.").arg(QString::fromStdString(name)), {},
                    {});
            });
    }
    if (!now.sides.empty() && desk_.sides().findings.empty())
        card.words(tr("No mark is more than %1 off its twin.").arg(tr("0.5 mm")));
    card.button(now.sides.empty() ? tr("Measure both sides ...") : tr("Change what was measured ..."),
                Card::Look::Second, [this] { measure(); });
}

void LogLeaf::sayAgain(Card& card, const RecipeCard& now) {
    card.title(tr("Do it again"), false);
    if (againLures_ < 1) againLures_ = now.lures;
    ValueChip* lures = card.chip(tr("Lures"), ValueChip::Kind::Count, 0, 1, {});
    lures->setValue(againLures_);
    connect(lures, &ValueChip::committed, this, [this, lures](double v) {
        const bool ok = v >= 1 && v <= kMostLures && v == std::floor(v);
        lures->setWrong(ok ? QString()
                           : said(luresError(static_cast<int>(std::clamp(v, -1e6, 1e6)), "lures")));
        if (!ok) return;
        againLures_ = static_cast<int>(v);
        calm_.start();
    });
    QList<Card::Choice> blanks{{QString::fromStdString(now.blank), againBlank_.empty(), [this] {
                                    againBlank_.clear();
                                    calm_.start();
                                }}};
    QString chosen = QString::fromStdString(now.blank);
    if (context_.library.ready())
        if (const auto all = libraryBlanks(context_.library.workshop()))
            for (const LibraryBlank& blank : *all) {
                if (blank.name == now.blank) continue;
                if (blank.id == againBlank_) chosen = QString::fromStdString(blank.name);
                blanks.append(
                    {QString::fromStdString(blank.name), blank.id == againBlank_, [this, id = blank.id] {
                         againBlank_ = id;
                         calm_.start();
                     }});
            }
    card.sentence(tr("The same card for %1 pieces of %2."), {lures, card.menuButton(chosen, blanks)});
    const double each_s = static_cast<double>(now.painted_s) / std::max(1, now.lures);
    double ml = 0;
    for (const CardAmount& amount : now.amounts) ml += amount.used_ml / std::max(1, now.lures);
    const int minutes = static_cast<int>(std::lround(each_s * againLures_ / 60));
    card.words(tr("It took %1 min and %2 ml a piece: %3 h %4 and %5 ml for so many.")
                   .arg(each_s / 60, 0, 'f', 0)
                   .arg(ml, 0, 'f', 2)
                   .arg(minutes / 60)
                   .arg(minutes % 60, 2, 10, QChar('0'))
                   .arg(ml * againLures_, 0, 'f', 1));
    if (desk_.book() && !now.amounts.empty()) {
        const StockAnswer stock = stockFor(now, desk_.book()->shelf, againLures_);
        if (!stock.paint.empty())
            card.framed(tr("%1 on the shelf lasts for %2 of them.")
                            .arg(QString::fromStdString(stock.paint))
                            .arg(stock.lures),
                        false);
    }
    card.button(tr("Start a job from this card"), Card::Look::Primary,
                [this] { desk_.doAgain(againLures_, againBlank_); });
}

void LogLeaf::editTool(const Wear& wear) {
    ToolRow row{wear.kind, wear.id, wear.name, wear.made, 0, -1, 0, 0, {}};
    for (const ToolRow& own : desk_.book()->tools)
        if (own.kind == wear.kind && own.id == wear.id) row = own;
    bool ok = false;
    const int life =
        QInputDialog::getInt(context_.frame.dialogParent(), QString::fromStdString(wear.name),
                             tr("Uses until it is worn (0: as usual)"), row.life, 0, 100000, 1, &ok);
    if (!ok) return;
    const double price = QInputDialog::getDouble(
        context_.frame.dialogParent(), QString::fromStdString(wear.name),
        tr("What it cost, in the shop's money (-1: not known)"), row.price, -1, 1000000, 2, &ok);
    if (!ok) return;
    row.life = life;
    row.price = price;
    desk_.putTool(row);
}

void LogLeaf::sayWear(Card& card) {
    const auto& wear = desk_.book()->wear;
    if (wear.empty()) return;
    card.title(tr("Wear"), false);
    card.muted(tr("uses so far, and how many there are usually"));
    constexpr std::size_t kShown = 8;
    std::vector<Wear> shown(wear.begin(),
                            wear.begin() + static_cast<std::ptrdiff_t>(std::min(kShown, wear.size())));
    card.add(new WearBars(shown));
    QList<Card::Choice> tools;
    for (const Wear& one : shown)
        tools.append({QString::fromStdString(one.name), false, [this, one] { editTool(one); }});
    card.menu(tr("How long one lasts, and its price"), tools);
    QList<Card::Choice> fresh;
    for (const Wear& one : shown)
        fresh.append({QString::fromStdString(one.name), false, [this, one] {
                          ToolRow row{one.kind, one.id, one.name, one.made, 0, -1, 0, 0, {}};
                          for (const ToolRow& own : desk_.book()->tools)
                              if (own.kind == one.kind && own.id == one.id) row = own;
                          row.newSince = desk_.now();
                          row.cleaned = 0;
                          desk_.putTool(row);
                      }});
    card.menu(tr("A new one from now on"), fresh);
    QList<Card::Choice> filed;
    for (const Wear& one : shown)
        if (one.kind == "mask")
            filed.append({QString::fromStdString(one.name), false, [this, one] {
                              ToolRow row{one.kind, one.id, one.name, one.made, 0, -1, 0, 0, {}};
                              for (const ToolRow& own : desk_.book()->tools)
                                  if (own.kind == one.kind && own.id == one.id) row = own;
                              ++row.cleaned;
                              desk_.putTool(row);
                          }});
    if (!filed.isEmpty()) card.menu(tr("Its holes were cleared with a file"), filed);
    // A fitted mask serves one blank; what serves any costs less a use.
    double fitted = 0, any = 0;
    int fittedCount = 0, anyCount = 0;
    for (const Wear& one : wear) {
        if (one.perUse < 0) continue;
        if (one.kind == "mask") fitted += one.perUse, ++fittedCount;
        if (one.kind == "net") any += one.perUse, ++anyCount;
    }
    if (fittedCount > 0 && anyCount > 0)
        card.words(tr("A use of a fitted mask costs %1, of a net that serves any body %2.")
                       .arg(fitted / fittedCount, 0, 'f', 2)
                       .arg(any / anyCount, 0, 'f', 2));
}

void LogLeaf::sayCatches(Card& card, const RecipeCard& now) {
    card.title(tr("Catches"), false);
    auto* line = new QLineEdit;
    line->setObjectName("catch");
    line->setAccessibleName(tr("A catch, one line"));
    line->setPlaceholderText(tr("3 at dusk, off the reeds"));
    line->setProperty(kOwner, QString::fromStdString(now.id));
    connect(line, &QLineEdit::returnPressed, this, [this, line, now] {
        const QString words = line->text().trimmed();
        if (words.isEmpty()) return;
        Catch one;
        one.card = now.id;
        one.pattern = now.title;
        // The colour most of the body has at the end: that of the last step that went all over or on a side.
        for (const LaidStep& step : now.steps)
            if (step.mask.empty() && !step.colour.empty() && paints(step.act)) one.colour = step.name;
        bool number = false;
        const int fish = words.section(' ', 0, 0).toInt(&number);
        one.fish = number ? fish : 1;
        one.words = words.toStdString();
        one.day = QDateTime::fromSecsSinceEpoch(desk_.now()).date().toString(Qt::ISODate).toStdString();
        line->clear();
        desk_.addCatch(std::move(one));
    });
    card.add(line);
    if (!desk_.book() || desk_.book()->catches.empty()) return;
    Card::Facts facts;
    for (const auto& [pattern, fish] : fishBy(desk_.book()->catches, &Catch::pattern))
        facts.append({QString::fromStdString(pattern), fish == 1 ? tr("one fish") : tr("%1 fish").arg(fish)});
    for (const auto& [colour, fish] : fishBy(desk_.book()->catches, &Catch::colour))
        facts.append({tr("with %1").arg(QString::fromStdString(colour)),
                      fish == 1 ? tr("one fish") : tr("%1 fish").arg(fish)});
    card.facts(facts);
}

void LogLeaf::sayLeftovers(Card& card) {
    card.title(tr("Leftovers"), false);
    Card::Facts facts;
    for (const Leftover& left : desk_.book()->leftovers)
        facts.append({QString::fromStdString(left.name),
                      tr("%1 ml, mixed %2")
                          .arg(left.left_ml, 0, 'f', 1)
                          .arg(QLocale().toString(QDateTime::fromSecsSinceEpoch(left.mixed).date(),
                                                  QLocale::ShortFormat))});
    if (!facts.isEmpty()) card.facts(facts);
    const RecipeCard* now = desk_.card();
    if (!now) return;
    QList<Card::Choice> mixes;
    for (const LaidStep& step : now->steps) {
        if (step.paint.empty()) continue;
        mixes.append(
            {QString::fromStdString(step.name), false, [this, step] {
                 bool ok = false;
                 const double ml = QInputDialog::getDouble(
                     context_.frame.dialogParent(), tr("What is left"),
                     tr("ml of %1 left").arg(QString::fromStdString(step.name)), 1, 0, 10000, 1, &ok);
                 if (!ok) return;
                 QStringList mix;
                 for (const CardPaint& paint : step.paint)
                     mix << QString("%1 %2")
                                .arg(QString::fromStdString(paint.name))
                                .arg(paint.drops, 0, 'g', 3);
                 desk_.addLeftover(
                     {{},
                      step.name,
                      (mix.join(", ") + tr(", reducer %1").arg(step.reducer, 0, 'g', 3)).toStdString(),
                      ml,
                      desk_.now()});
             }});
    }
    if (!mixes.isEmpty()) card.menu(tr("Keep what is left of a mix"), mixes);
}

QString LogLeaf::cardHtml(const RecipeCard& card) {
    // In one piece: the card as a page.
    const auto text = [](const std::string& words) { return QString::fromStdString(words).toHtmlEscaped(); };
    QString html = QString("<h2>%1</h2><p>%2</p>")
                       .arg(text(card.title),
                            tr("on %1, %2 lures, %3")
                                .arg(text(card.blank))
                                .arg(card.lures)
                                .arg(QLocale().toString(QDateTime::fromSecsSinceEpoch(card.ended).date(),
                                                        QLocale::LongFormat)));
    if (!card.text.empty()) html += "<p>" + text(card.text).replace("\n", "<br>") + "</p>";
    QStringList seen;
    for (const ResultMark& mark : resultMarks())
        if (std::find(card.seen.begin(), card.seen.end(), mark.id) != card.seen.end())
            seen << said(Words(mark.name));
    if (!seen.isEmpty()) html += "<p>" + tr("Seen: %1").arg(seen.join(", ")) + "</p>";
    html += "<table cellpadding='3' border='0'>";
    int number = 0;
    for (const LaidStep& step : card.steps) {
        QStringList how;
        for (const CardPaint& paint : step.paint)
            how << QString("%1 %2").arg(text(paint.name)).arg(paint.drops, 0, 'g', 3);
        if (!step.paint.empty())
            how << tr("reducer %1").arg(step.reducer, 0, 'g', 3)
                << (step.coats == 1 ? tr("one coat") : tr("%1 coats").arg(step.coats, 0, 'g', 3));
        if (step.set.pressure_kpa > 0)
            how << tr("%1 psi").arg(step.set.pressure_kpa / kKpaPerPsi, 0, 'f', 0)
                << tr("%1 needle").arg(step.set.needle_mm, 0, 'f', 2)
                << tr("%1 mm away").arg(step.set.distance_mm, 0, 'f', 0);
        for (const std::string& change : step.changed) how << tr("otherwise: %1").arg(changeText(change));
        html += QString("<tr><td>%1</td><td><b>%2</b>%3</td><td>%4</td><td>%5</td></tr>")
                    .arg(++number)
                    .arg(text(step.name), step.skipped ? " (" + tr("left out") + ")" : QString(),
                         text(step.mask), how.join(", "));
    }
    html += "</table>";
    if (!card.amounts.empty()) {
        QStringList ml;
        for (const CardAmount& amount : card.amounts)
            ml << tr("%1 %2 ml").arg(text(amount.name)).arg(amount.used_ml, 0, 'f', 1);
        html += "<p>" + tr("Used: %1").arg(ml.join(", ")) + "</p>";
    }
    return html;
}

void LogLeaf::printCard(bool print) {
    const RecipeCard* now = desk_.card();
    if (!now) return context_.frame.tell(tr("There is no card in view."), {}, {});
    const QString html = cardHtml(*now);
    const auto drawn = [html](QPagedPaintDevice& device) {
        QTextDocument document;
        QFont font = inter(11);
        font.setPointSizeF(9.5);
        document.setDefaultFont(font);
        document.setHtml("<body style='color:#000000'>" + html + "</body>");
        document.print(&device);
    };
    if (print) {
        QPrinter printer(QPrinter::HighResolution);
        QPrintDialog dialog(&printer, context_.frame.dialogParent());
        if (dialog.exec() == QDialog::Accepted) drawn(printer);
        return;
    }
    QString path =
        QFileDialog::getSaveFileName(context_.frame.dialogParent(), tr("Recipe card"),
                                     QString::fromStdString(now->title) + ".pdf", tr("PDF (*.pdf)"));
    if (path.isEmpty()) return;
    if (!path.endsWith(".pdf")) path += ".pdf";
    writer_.write(
        [drawn, path]() -> Status {
            QBuffer buffer;
            buffer.open(QIODevice::WriteOnly);
            {
                QPdfWriter pdf(&buffer);
                pdf.setPageSize(QPageSize(QPageSize::A4));
                pdf.setPageMargins(QMarginsF(14, 14, 14, 14), QPageLayout::Millimeter);
                drawn(pdf);
            }
            return writeFileAtomically(path.toStdString(), buffer.data().toStdString());
        },
        [this](const Status& written) {
            if (!written) context_.frame.complain(written.error());
        });
}

}  // namespace nine::app
