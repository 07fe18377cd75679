#include "app/leaves/blank/library_dialog.h"

#include <QFileDialog>
#include <QHBoxLayout>
#include <QPainter>
#include <QTimer>
#include <QVBoxLayout>
#include <cmath>

#include "app/sheet/card.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "base/files.h"
#include "job/job_file.h"

namespace nine::app {
namespace {

/// Both outlines with their noses on one line: the library's blank drawn, the open one dashed.
class Overlay : public QWidget {
  public:
    explicit Overlay(QWidget* parent) : QWidget(parent) { setMinimumHeight(220); }
    void set(StationTable chosen, StationTable open) {
        chosen_ = std::move(chosen);
        open_ = std::move(open);
        update();
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        p.fillRect(rect(), tokens().paper);
        double length = 0, tall = 0, wide = 0;
        for (const StationTable* table : {&chosen_, &open_}) {
            if (table->stations.empty()) continue;
            length = std::max(length, table->stations.back().x_mm - table->stations.front().x_mm);
            for (const Station& s : table->stations) {
                tall = std::max({tall, 2 * s.top_mm, 2 * s.bottom_mm});
                wide = std::max(wide, 2 * s.halfWidth_mm);
            }
        }
        if (length == 0) return;
        const double scale = std::min((width() - 40) / length, (height() - 60) / (tall + wide));
        const double left = 0.5 * (width() - scale * length);
        const double side = 26 + 0.5 * scale * tall, above = side + 0.5 * scale * (tall + wide) + 16;
        draw(p, chosen_, left, side, above, scale, QPen(tokens().ink, 1.5), true);
        QPen dash(tokens().select, 1.5);
        dash.setDashPattern({5, 3});
        draw(p, open_, left, side, above, scale, dash, false);
        if (!open_.stations.empty())
            ink::text(p, QPointF(12, height() - 8.0),
                      LibraryDialog::tr("drawn: this blank; dashed: the open one"), inter(11),
                      tokens().muted);
    }

  private:
    void draw(QPainter& p, const StationTable& table, double left, double side, double above, double scale,
              const QPen& pen, bool fill) {
        const Result<Skin> skin = Skin::of(table);
        if (!skin) return;
        QPolygonF a, b;
        const auto x = [&](const Vec2& v) { return left + scale * (v.x() - skin->noseX_mm()); };
        for (const Vec2& v : bodyOutline(*skin, false)) a << QPointF(x(v), side - scale * v.y());
        for (const Vec2& v : bodyOutline(*skin, true)) b << QPointF(x(v), above - scale * v.y());
        p.setPen(pen);
        p.setBrush(fill ? QBrush(tokens().deep) : QBrush(Qt::NoBrush));
        p.drawPolygon(a);
        p.drawPolygon(b);
    }
    StationTable chosen_, open_;
};

}  // namespace

LibraryDialog::LibraryDialog(LibraryStore& store, JobDocument& document, QWidget* parent)
    : QDialog(parent), store_(store), document_(document) {
    // In one piece: a dialog, from top to foot.
    setWindowTitle(tr("My blanks"));
    resize(960, 620);
    search_ = new QLineEdit(this);
    search_->setPlaceholderText(tr("Search by name, kind or length"));
    search_->setAccessibleName(tr("Search"));
    list_ = new QListWidget(this);
    list_->setAccessibleName(tr("Blanks"));
    list_->setViewMode(QListView::IconMode);
    list_->setResizeMode(QListView::Adjust);
    list_->setMovement(QListView::Static);
    list_->setIconSize({kThumbnailWidth * 5 / 8, kThumbnailHeight * 5 / 8});
    list_->setGridSize({kThumbnailWidth * 5 / 8 + 24, kThumbnailHeight * 5 / 8 + 50});
    list_->setTextElideMode(Qt::ElideNone);
    QPalette colours = list_->palette();
    colours.setColor(QPalette::Base, tokens().paper);
    colours.setColor(QPalette::Text, tokens().ink);
    colours.setColor(QPalette::Highlight, tokens().select);
    colours.setColor(QPalette::HighlightedText, tokens().onAccent);
    list_->setPalette(colours);
    overlay_ = new Overlay(this);
    figures_ = new QLabel(this);
    figures_->setWordWrap(true);
    problem_ = new QLabel(this);
    problem_->setWordWrap(true);
    problem_->setStyleSheet("color: " + tokens().fault.name());
    const auto button = [&](const QString& words, const char* look, auto slot) {
        auto* b = new QPushButton(words, this);
        b->setObjectName(look);
        b->setAutoDefault(false);
        connect(b, &QPushButton::clicked, this, slot);
        return b;
    };
    use_ = button(tr("Work on this blank"), "primary", &LibraryDialog::use);
    keep_ = button(tr("Save the open one"), "second", &LibraryDialog::keepOpen);
    duplicate_ = button(tr("Duplicate"), "second", &LibraryDialog::duplicate);
    remove_ = button(tr("Take out"), "second", &LibraryDialog::remove);
    putBack_ = button(tr("Put back"), "second", &LibraryDialog::putBack);
    auto* import = button(tr("Import ..."), "second", &LibraryDialog::importFile);
    export_ = button(tr("Export ..."), "second", &LibraryDialog::exportFile);
    auto* close = button(tr("Close"), "link", &QDialog::reject);

    auto* left = new QVBoxLayout;
    left->addWidget(search_);
    left->addWidget(list_, 1);
    auto* below = new QHBoxLayout;
    for (QPushButton* b : {keep_, import, export_}) below->addWidget(b);
    below->addStretch();
    left->addLayout(below);
    auto* right = new QVBoxLayout;
    right->addWidget(overlay_, 1);
    right->addWidget(figures_);
    right->addWidget(problem_);
    auto* row = new QHBoxLayout;
    for (QPushButton* b : {duplicate_, remove_, putBack_}) row->addWidget(b);
    row->addStretch();
    right->addLayout(row);
    auto* last = new QHBoxLayout;
    last->addWidget(use_);
    last->addStretch();
    last->addWidget(close);
    right->addLayout(last);
    auto* whole = new QHBoxLayout(this);
    whole->addLayout(left, 3);
    whole->addLayout(right, 2);

    connect(search_, &QLineEdit::textChanged, this, &LibraryDialog::fill);
    connect(list_, &QListWidget::itemSelectionChanged, this, &LibraryDialog::select);
    connect(list_, &QListWidget::itemActivated, this, &LibraryDialog::use);
    connect(&store_, &LibraryStore::changed, this, &LibraryDialog::fill);
    connect(&store_, &LibraryStore::notAdded, this, [this](const Error& e) {
        QTimer::singleShot(0, this, [this, e] { say(e); });  // after fill() has cleared the line
    });
    putBack_->hide();
    store_.open();
    fill();
}

void LibraryDialog::say(const Error& error) {
    problem_->setText(said(error));
}

std::string LibraryDialog::selected() const {
    const auto items = list_->selectedItems();
    return items.isEmpty() ? std::string() : items.first()->data(Qt::UserRole).toString().toStdString();
}

void LibraryDialog::fill() {
    const std::string before = selected();
    list_->clear();
    problem_->clear();
    if (store_.problem()) say(*store_.problem());
    const bool writable = store_.ready() && !store_.workshop().readOnly();
    keep_->setEnabled(writable && !document_.empty());
    if (!store_.ready()) {
        figures_->setText(store_.problem() ? QString() : tr("Opening the library ..."));
        return;
    }
    if (!writable)
        problem_->setText(tr("Another window of the program holds the library; here it can only be read."));
    const Result<std::vector<LibraryBlank>> blanks =
        libraryBlanks(store_.workshop(), search_->text().toStdString());
    if (!blanks) return say(blanks.error());
    for (const LibraryBlank& blank : *blanks) {
        QPixmap picture;
        picture.loadFromData(QByteArray::fromStdString(blank.thumbnail), "PNG");
        auto* item = new QListWidgetItem(
            QIcon(picture),
            QString("%1\n%2").arg(QString::fromStdString(blank.name), lengthText(blank.length_mm, 0)));
        item->setData(Qt::UserRole, QString::fromStdString(blank.id));
        item->setToolTip(QString::fromStdString(blank.name));
        list_->addItem(item);
        if (blank.id == before) item->setSelected(true);
    }
    if (list_->selectedItems().isEmpty() && list_->count() > 0) list_->item(0)->setSelected(true);
    select();
}

void LibraryDialog::select() {
    const std::string id = selected();
    const bool writable = store_.ready() && !store_.workshop().readOnly();
    for (QPushButton* b : {use_, export_}) b->setEnabled(!id.empty());
    for (QPushButton* b : {duplicate_, remove_}) b->setEnabled(!id.empty() && writable);
    if (id.empty()) {
        figures_->setText(search_->text().isEmpty()
                              ? tr("No blanks yet: save the open one, or import a file.")
                              : tr("No blank is called that."));
        static_cast<Overlay*>(overlay_)->set({}, {});
        return;
    }
    const Result<std::optional<WorkshopRow>> row = store_.workshop().get(kBlankKind, id);
    if (!row) return say(row.error());
    if (!*row) return;
    // With the pictures a blank may carry, reading its text takes longer than the hand waits.
    comparer_.request(
        [id, text = (*row)->json, open = document_.job().get<BlankChapter>().table](const Task&) {
            Compared c{id, {}, open, {}, {}, {}};
            const Result<BlankChapter> blank = parseBlank(text, "library " + id);
            if (!blank) {
                c.error = blank.error();
                return c;
            }
            c.table = blank->table;
            const Result<Skin> skin = Skin::of(c.table),
                               other = open.stations.empty() ? skin : Skin::of(open);
            if (!skin) return c;
            c.measure = measureBody(*skin);
            if (!open.stations.empty() && other) c.difference = compareBlanks(*other, *skin);
            return c;
        },
        [this](Compared c) {
            compared_ = std::move(c);
            if (compared_.error) return say(*compared_.error);
            static_cast<Overlay*>(overlay_)->set(compared_.table, compared_.open);
            const BodyMeasure& m = compared_.measure;
            QString words = Card::factTable(
                {{tr("Long, high, wide"),
                  QString("%1 · %2 · %3")
                      .arg(lengthNumber(m.length_mm), lengthNumber(m.height_mm), lengthText(m.width_mm))},
                 {tr("Skin"), tr("%1 cm²").arg(m.area_mm2 / 100, 0, 'f', 1)}});
            if (compared_.difference) {
                const BlankDifference& d = *compared_.difference;
                const auto signedLength = [](double v) {
                    return (v < 0 ? "−" : "+") + lengthText(std::abs(v));
                };
                words += Card::factTable({{tr("Against the open one: longer by"), signedLength(d.length_mm)},
                                          {tr("outlines differ by up to"), lengthText(d.outlineWorst_mm)},
                                          {tr("girths differ by up to"), lengthText(d.girthWorst_mm)},
                                          {tr("more skin"), tr("%1 cm²").arg(d.area_mm2 / 100, 0, 'f', 1)}});
            }
            figures_->setText(words);
        });
}

void LibraryDialog::use() {
    const std::string id = selected();
    if (id.empty()) return;
    const Result<BlankChapter> blank = blankFromLibrary(store_.workshop(), id);
    if (!blank) return say(blank.error());
    if (document_.empty()) {
        document_.open(Job{}.with(*blank), {});
    } else {
        document_.beginGesture();
        document_.edit(document_.job().with(*blank), tr("Another blank"));
    }
    accept();
}

void LibraryDialog::keepOpen() {
    if (!document_.empty()) store_.add(document_.job().get<BlankChapter>());
}

void LibraryDialog::duplicate() {
    Result<BlankChapter> blank = blankFromLibrary(store_.workshop(), selected());
    if (!blank) return say(blank.error());
    blank->name = tr("%1, a copy").arg(QString::fromStdString(blank->name)).toStdString();
    store_.add(std::move(*blank));
}

void LibraryDialog::remove() {
    const std::string id = selected();
    if (const Status gone = store_.workshop().remove(kBlankKind, id); !gone) return say(gone.error());
    removed_ = id;
    putBack_->show();
    fill();
}

void LibraryDialog::putBack() {
    if (const Status back = store_.workshop().restore(kBlankKind, removed_); !back) return say(back.error());
    removed_.clear();
    putBack_->hide();
    fill();
}

void LibraryDialog::importFile() {
    const QString path = QFileDialog::getOpenFileName(this, tr("Import a blank"), {},
                                                      tr("Blanks and jobs (*.json);;All files (*)"));
    if (path.isEmpty()) return;
    const Result<LoadedJob> job = loadJob(path.toStdString());
    if (!job) return say(job.error());
    store_.add(job->job.get<BlankChapter>());
}

void LibraryDialog::exportFile() {
    const Result<BlankChapter> blank = blankFromLibrary(store_.workshop(), selected());
    if (!blank) return say(blank.error());
    QString path = QFileDialog::getSaveFileName(this, tr("Export the blank"),
                                                QString::fromStdString(blank->name) + ".nineleaves.json",
                                                tr("Blanks (*.nineleaves.json)"));
    if (path.isEmpty()) return;
    if (!path.endsWith(".json")) path += ".nineleaves.json";
    if (const Status written = writeFileAtomically(path.toStdString(), blankText(*blank)); !written)
        say(written.error());
}

}  // namespace nine::app
