#include "app/leaves/layers/shelf_dialog.h"

#include <QCheckBox>
#include <QColorDialog>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QImageReader>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollArea>
#include <QVBoxLayout>
#include <algorithm>

#include "app/leaves/layers/step_words.h"
#include "app/leaves/layers/swatches.h"
#include "app/sheet/names.h"
#include "base/files.h"
#include "job/paint_shelf.h"
#include "paint/colour_words.h"
#include "paint/swatch_photo.h"

namespace nine::app {
namespace {

QColor lookOf(const Bottle& bottle) {
    QColor colour = Qt::transparent;
    for (const Swatch& s : bottle.swatches)
        if (s.overWhite) colour = QColor::fromRgb(shown(s.seen));
    return colour;
}

Error notReady() {
    return {
        "not_ready",
        Words::verbatim(ShelfDialog::tr("The workshop file is still being opened; try again.").toStdString()),
        ""};
}

}  // namespace

Result<int> takeShelf(LeafContext& context, const QString& path) {
    const Result<std::string> text = readFile(path.toStdString());
    if (!text) return text.error();
    const Result<std::vector<Bottle>> paints = parseShelf(*text, path.toStdString());
    if (!paints) return paints.error();
    if (!context.library.ready()) return notReady();
    for (const Bottle& bottle : *paints)
        if (const Result<std::string> id = putBottle(context.library.workshop(), bottle); !id)
            return id.error();
    emit context.library.changed();
    return static_cast<int>(paints->size());
}

Status writeShelf(const QString& path, const std::vector<Bottle>& shelf) {
    return writeFileAtomically(path.toStdString(), shelfText(shelf));
}

SwatchPhoto::SwatchPhoto(QWidget* parent) : QWidget(parent) {
    setMinimumSize(220, 160);
    setAccessibleName(tr("Photo of a swatch with white beside it"));
}

bool SwatchPhoto::load(const QString& path) {
    QImageReader reader(path);
    reader.setAutoTransform(true);
    const QImage image = reader.read();
    if (image.isNull()) {
        emit refused(tr("%1 is no picture that can be read.").arg(path));
        return false;
    }
    image_ = image.convertToFormat(QImage::Format_RGB32);
    white_.reset();
    update();
    return true;
}

QPointF SwatchPhoto::at(const QPointF& pixel) const {
    return pixel * scale_;
}

void SwatchPhoto::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Tokens& t = tokens();
    if (image_.isNull()) {
        p.setPen(t.muted);
        p.setFont(inter(12));
        p.drawText(rect(), Qt::AlignCenter | Qt::TextWordWrap,
                   tr("A photo of the painted card, in daylight, with bare white beside the swatch."));
        return;
    }
    scale_ = std::min(static_cast<double>(width()) / image_.width(),
                      static_cast<double>(height()) / image_.height());
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    p.drawImage(QRectF(0, 0, scale_ * image_.width(), scale_ * image_.height()), image_);
    if (white_) ink::pointOut(p, whiteAt_, tr("white"));
}

Srgb SwatchPhoto::meanAt(const QPointF& at) const {
    constexpr int kRound = 4;
    const int x = static_cast<int>(at.x() / scale_), y = static_cast<int>(at.y() / scale_);
    LinearRgb sum;
    int n = 0;
    for (int v = y - kRound; v <= y + kRound; ++v)
        for (int u = x - kRound; u <= x + kRound; ++u) {
            if (!image_.valid(u, v)) continue;
            const LinearRgb one = linearOf(srgbOf(image_.pixel(u, v)));
            sum = {sum.r + one.r, sum.g + one.g, sum.b + one.b};
            ++n;
        }
    if (n == 0) return {};
    return srgbOf(LinearRgb{sum.r / n, sum.g / n, sum.b / n});
}

void SwatchPhoto::mousePressEvent(QMouseEvent* event) {
    if (image_.isNull()) return;
    const QPointF at = event->position();
    if (at.x() >= scale_ * image_.width() || at.y() >= scale_ * image_.height()) return;
    if (!white_) {
        // Whether it can be white is known at once.
        const Srgb white = meanAt(at);
        const Result<Srgb> tried = colourFromPhoto(white, white);
        if (!tried) return emit refused(said(tried.error()));
        white_ = white;
        whiteAt_ = at;
        emit refused(tr("Now click the swatch."));
        return update();
    }
    const Result<Srgb> colour = colourFromPhoto(meanAt(at), *white_);
    if (!colour) return emit refused(said(colour.error()));
    emit picked(*colour);
}

ShelfDialog::ShelfDialog(LeafContext context, LayersDesk& desk, QWidget* parent)
    : QDialog(parent),
      context_(context),
      desk_(desk),
      list_(new QListWidget(this)),
      card_(new CardHolder),
      photo_(new SwatchPhoto(this)),
      said_(new QLabel(this)) {
    // In one piece: a dialog, from left to right.
    setWindowTitle(tr("Shelf of paints"));
    resize(980, 620);
    auto* row = new QHBoxLayout(this);
    auto* left = new QVBoxLayout;
    list_->setAccessibleName(tr("Paints of the shelf"));
    list_->setIconSize(kChoicePicture);
    list_->setMinimumWidth(220);
    left->addWidget(list_, 1);
    auto* tools = new Card;
    tools->choices({{tr("New paint"), false,
                     [this] {
                         Bottle bottle;
                         bottle.name = tr("New paint").toStdString();
                         bottle.family = "opaque";
                         bottle.swatches = {{1, true, {128, 128, 128}}};
                         put(bottle);
                     }},
                    {tr("Copy it"), false,
                     [this] {
                         if (const Bottle* b = chosen()) {
                             Bottle copy = *b;
                             copy.id.clear();
                             copy.name = tr("%1, copy").arg(QString::fromStdString(b->name)).toStdString();
                             put(copy);
                         }
                     }},
                    {tr("Take it off"), false, [this] {
                         const Bottle* b = chosen();
                         if (!b) return;
                         if (!context_.library.ready()) return say(said(notReady()));
                         if (Status ok = takeBottle(context_.library.workshop(), *b); !ok)
                             return say(said(ok.error()));
                         id_.clear();
                         emit context_.library.changed();
                     }}});
    left->addWidget(tools);
    row->addLayout(left);
    auto* scroll = new QScrollArea(this);
    scroll->setWidgetResizable(true);
    scroll->setWidget(card_);
    scroll->setMinimumWidth(330);
    row->addWidget(scroll, 1);
    auto* right = new QVBoxLayout;
    right->addWidget(photo_, 1);
    said_->setWordWrap(true);
    said_->setMinimumHeight(36);
    said_->setObjectName("said");
    right->addWidget(said_);
    auto* photoTools = new Card;
    photoTools->choices({{tr("Photo of a swatch ..."), false, [this] {
                              const QString path = QFileDialog::getOpenFileName(
                                  this, tr("Photo of a swatch"), {}, tr("Pictures (*.jpg *.jpeg *.png)"));
                              if (!path.isEmpty() && photo_->load(path))
                                  say(tr("Click the white patch first, then the swatch."));
                          }}});
    right->addWidget(photoTools);
    row->addLayout(right, 1);
    connect(photo_, &SwatchPhoto::refused, this, &ShelfDialog::say);
    connect(photo_, &SwatchPhoto::picked, this, [this](Srgb colour) {
        edit(id_, [&](Bottle& b) { b.swatches.push_back({1, true, colour}); });
        say(tr("Added as one coat over white: change coats and ground on the card if it was another."));
    });
    connect(list_, &QListWidget::currentRowChanged, this, [this](int at) {
        const auto& shelf = desk_.shelf();
        if (at < 0 || at >= static_cast<int>(shelf.size())) return;
        id_ = shelf[static_cast<std::size_t>(at)].id;
        rebuild();
    });
    connect(&context_.library, &LibraryStore::changed, this, [this] {
        desk_.readShelf();
        fillList();
        rebuild();
    });
    fillList();
    rebuild();
}

void ShelfDialog::say(const QString& words) {
    said_->setText(words);
}

void ShelfDialog::fillList() {
    const QSignalBlocker quiet(list_);
    list_->clear();
    const auto& shelf = desk_.shelf();
    if (!findBottle(shelf, id_) && !shelf.empty()) id_ = shelf.front().id;
    for (std::size_t i = 0; i < shelf.size(); ++i) {
        list_->addItem(
            new QListWidgetItem(QIcon(patch(lookOf(shelf[i]))), QString::fromStdString(shelf[i].name)));
        if (shelf[i].id == id_) list_->setCurrentRow(static_cast<int>(i));
    }
}

const Bottle* ShelfDialog::chosen() const {
    return findBottle(desk_.shelf(), id_);
}

void ShelfDialog::put(Bottle bottle) {
    if (!context_.library.ready()) {
        context_.library.open();
        return say(said(notReady()));
    }
    const bool fresh = bottle.id.empty();
    const Result<std::string> id = putBottle(context_.library.workshop(), std::move(bottle));
    if (!id) return say(said(id.error()));
    if (fresh) id_ = *id;
    say({});
    emit context_.library.changed();
}

void ShelfDialog::edit(const std::string& id, const std::function<void(Bottle&)>& how) {
    const Bottle* b = findBottle(desk_.shelf(), id);
    if (!b) return;
    Bottle changed = *b;
    how(changed);
    if (changed == *b) return;
    put(std::move(changed));
}

void ShelfDialog::rebuild() {
    // In one piece: the card from top to foot.
    using Kind = ValueChip::Kind;
    auto* card = new Card;
    const Bottle* b = chosen();
    if (!b) {
        card->words(tr("No paint on the shelf."));
        card->finish();
        return card_->show(card);
    }
    auto* name = new QLineEdit(QString::fromStdString(b->name));
    name->setAccessibleName(tr("Name of the paint"));
    name->setProperty(kOwner, QString::fromStdString(b->id));
    name->setMaxLength(60);
    connect(name, &QLineEdit::editingFinished, this, [this, name, of = b->id] {
        const std::string words = name->text().trimmed().toStdString();
        if (!words.empty()) edit(of, [&](Bottle& x) { x.name = words; });
    });
    card->add(name);
    QList<Card::Choice> families;
    for (const PaintFamily& family : paintFamilies())
        families.append({said(Words(family.name)), b->family == family.id,
                         [this, of = b->id, id = std::string(family.id)] {
                             edit(of, [&](Bottle& x) { x.family = id; });
                         }});
    card->menu(paintName(b->family), families);
    saySwatches(*card, *b);
    const auto number = [&](const QString& called, double value, int decimals,
                            std::function<void(Bottle&, double)> set) {
        ValueChip* c = card->chip(called, Kind::Number, decimals, 1, {});
        c->setValue(value);
        c->setOwner(b->id);
        connect(c, &ValueChip::committed, this, [this, c, set = std::move(set)](double v) {
            edit(c->owner(), [&](Bottle& x) { set(x, v); });
        });
        return c;
    };
    card->sentence(tr("%1 ml left; flakes up to %2 µm; rests %3 min; gives off light at %4 nm."),
                   {number(tr("Left"), b->left_ml, 1, [](Bottle& x, double v) { x.left_ml = v; }),
                    number(tr("Flakes"), b->flake_um, 0, [](Bottle& x, double v) { x.flake_um = v; }),
                    number(tr("Rest"), b->rest_min, 0, [](Bottle& x, double v) { x.rest_min = v; }),
                    number(tr("Glow"), b->glow_nm, 0, [](Bottle& x, double v) { x.glow_nm = v; })});
    card->choices({{tr("never heated"), b->noHeat,
                    [this, of = b->id] { edit(of, [](Bottle& x) { x.noHeat = !x.noHeat; }); }},
                   {tr("wants a lock coat"), b->wantsLock,
                    [this, of = b->id] { edit(of, [](Bottle& x) { x.wantsLock = !x.wantsLock; }); }},
                   {tr("thinned with solvent"), b->solvent,
                    [this, of = b->id] { edit(of, [](Bottle& x) { x.solvent = !x.solvent; }); }}});
    if (b->solvent)
        card->caution(tr(
            "Solvent paint: no flame, no heat near it; extraction and a respirator its data sheet names."));
    sayApart(*card, *b);
    card->finish();
    card_->show(card);
}

void ShelfDialog::saySwatches(Card& card, const Bottle& bottle) {
    using Kind = ValueChip::Kind;
    card.title(tr("Swatches"), false);
    for (std::size_t i = 0; i < bottle.swatches.size(); ++i) {
        const Swatch& swatch = bottle.swatches[i];
        ValueChip* coats = card.chip(tr("Coats of swatch %1").arg(i + 1), Kind::Number, 1, 1, {});
        coats->setValue(swatch.coats);
        coats->setOwner(bottle.id);
        connect(coats, &ValueChip::committed, this, [this, coats, i](double v) {
            edit(coats->owner(), [&](Bottle& x) {
                if (i < x.swatches.size()) x.swatches[i].coats = v;
            });
        });
        const QColor colour = QColor::fromRgb(shown(swatch.seen));
        QPushButton* look = card.menuButton(
            colour.name(),
            {{tr("choose the colour ..."), false,
              [this, of = bottle.id, i, colour] {
                  const QColor next = QColorDialog::getColor(colour, this, tr("Colour of the swatch"));
                  if (next.isValid())
                      edit(of, [&](Bottle& x) {
                          if (i < x.swatches.size()) x.swatches[i].seen = srgbOf(next.rgb());
                      });
              }},
             {swatch.overWhite ? tr("it was over black") : tr("it was over white"), false,
              [this, of = bottle.id, i] {
                  edit(of, [&](Bottle& x) {
                      if (i < x.swatches.size()) x.swatches[i].overWhite = !x.swatches[i].overWhite;
                  });
              }},
             {tr("take it out"), false, [this, of = bottle.id, i] {
                  edit(of, [&](Bottle& x) {
                      if (i < x.swatches.size())
                          x.swatches.erase(x.swatches.begin() + static_cast<std::ptrdiff_t>(i));
                  });
              }}});
        look->setIcon(QIcon(patch(colour, swatch.overWhite ? QColor(Qt::white) : QColor(Qt::black))));
        look->setIconSize(kChoicePicture);
        card.sentence(swatch.overWhite ? tr("%1 coats over white: %2") : tr("%1 coats over black: %2"),
                      {coats, look});
    }
    card.choices({{tr("one more over white"), false,
                   [this, of = bottle.id] {
                       edit(of, [](Bottle& x) {
                           x.swatches.push_back(
                               {1, true, x.swatches.empty() ? Srgb{128, 128, 128} : x.swatches.back().seen});
                       });
                   }},
                  {tr("one more over black"), false, [this, of = bottle.id] {
                       edit(of, [](Bottle& x) { x.swatches.push_back({1, false, {60, 60, 60}}); });
                   }}});
    card.muted(tr(
        "Two over white (1 and 4 coats) and one over black say most. What the swatches leave open is taken "
        "from what is usual of the family."));
}

void ShelfDialog::sayApart(Card& card, const Bottle& bottle) {
    card.title(tr("Told apart"), false);
    QList<Card::Choice> others;
    for (const Bottle& b : desk_.shelf())
        if (b.id != bottle.id)
            others.append({QString::fromStdString(b.name), b.id == other_,
                           [this, id = b.id] {
                               other_ = id;
                               rebuild();
                           },
                           QIcon(patch(lookOf(b)))});
    const Bottle* other = findBottle(desk_.shelf(), other_);
    card.menu(other ? tr("from %1").arg(QString::fromStdString(other->name)) : tr("from which other?"),
              others);
    if (!other || other->id == bottle.id) return;
    const Coated white = bare(evenBands(0.93));
    const Film one = filmOf(bottle).film, two = filmOf(*other).film;
    QStringList lines;
    for (const Ratio coats : {1.0, 3.0}) {
        const Lab a = labOf(under(white, one, coats), kMatt);
        const Lab b = labOf(under(white, two, coats), kMatt);
        const ToldApart told = toldApart(a, b, false), small = toldApart(a, b, true);
        lines << tr("%1 coats over white: %2 (%3); as small marks %4 (%5)")
                     .arg(coats)
                     .arg(apartName(told.word))
                     .arg(told.difference, 0, 'f', 1)
                     .arg(apartName(small.word))
                     .arg(small.difference, 0, 'f', 1);
    }
    card.words(lines.join("<br>"));
}

}  // namespace nine::app
