#include "app/leaves/spray/my_bench.h"

#include <QDialogButtonBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "app/theme/theme.h"

namespace nine::app {
namespace {

enum GunColumn { NameColumn, NeedleColumn, LowestColumn, HighestColumn };
enum PracticeColumn { Pressure, Distance, Reducing, Coats, Passes, Flow, Speed };

QString number(double v) {
    return QString::number(v, 'g', 6);
}

QString rangeText(const PracticeRange& r) {
    return QString("%1 / %2 / %3").arg(number(r.low), number(r.start), number(r.high));
}

QTableWidgetItem* cell(const QString& text) {
    auto* item = new QTableWidgetItem(text);
    item->setTextAlignment(Qt::AlignCenter);
    return item;
}

/// The numbers of a cell, separated by / or : ; an error names row and column as they are headed.
Result<std::vector<double>> numbersIn(const QTableWidget& table, int row, int column, std::size_t count) {
    const QTableWidgetItem* item = table.item(row, column);
    QString text = item ? item->text() : QString();
    text.replace(':', '/').replace(QString::fromUtf8("–"), "/");
    std::vector<double> numbers;
    for (const QString& part : text.split('/')) {
        const auto value = parsePlain(part);
        if (!value) break;
        numbers.push_back(*value);
    }
    if (numbers.size() == count) return numbers;
    const QString row_ =
        table.verticalHeaderItem(row) ? table.verticalHeaderItem(row)->text() : QString::number(row + 1);
    const QString what = table.horizontalHeaderItem(column)->text().simplified();
    return Error{
        "bad_value",
        Words::verbatim((count == 1 ? MyBench::tr("%1, %2: a number is needed here.").arg(row_, what)
                                    : MyBench::tr("%1, %2: %3 numbers are needed here, with / between them.")
                                          .arg(row_, what)
                                          .arg(count))
                            .toStdString()),
        ""};
}

QTableWidget* table(const QStringList& headers, const QString& name) {
    auto* t = new QTableWidget(0, static_cast<int>(headers.size()));
    t->setHorizontalHeaderLabels(headers);
    t->setAccessibleName(name);
    t->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    t->setSelectionMode(QAbstractItemView::SingleSelection);
    t->setTabKeyNavigation(false);
    return t;
}

}  // namespace

MyBench::MyBench(BenchStore& store, QWidget* parent) : QDialog(parent), store_(store) {
    setWindowTitle(tr("My bench"));
    setObjectName("bench");
    resize(880, 580);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(18, 16, 18, 14);
    layout->setSpacing(8);
    const auto heading = [&](const QString& words, const QString& rest) {
        auto* label =
            new QLabel(QString("<b style='font-size:14px'>%1</b> &nbsp; <span style='color:%2'>%3</span>")
                           .arg(words, tokens().muted.name(), rest),
                       this);
        label->setWordWrap(true);
        layout->addWidget(label);
    };
    heading(tr("Guns"),
            tr("only these are planned with; a name that stands twice is one gun with two needles"));
    guns_ = table({tr("name"), tr("needle, mm"), tr("regulator from, psi"), tr("to, psi")}, tr("Guns"));
    guns_->verticalHeader()->hide();
    layout->addWidget(guns_, 2);
    auto* row = new QHBoxLayout;
    const auto button = [&](const QString& words, auto slot) {
        auto* b = new QPushButton(words, this);
        b->setObjectName("second");
        b->setAutoDefault(false);
        connect(b, &QPushButton::clicked, this, slot);
        row->addWidget(b);
    };
    button(tr("Add a gun"), &MyBench::addGun);
    button(tr("Take it off the bench"), &MyBench::removeGun);
    row->addStretch();
    layout->addLayout(row);
    heading(tr("Where work starts"),
            tr("common practice, no published source: least / start / most. Make it your own."));
    practices_ = table({tr("pressure, psi"), tr("distance, mm"), tr("paint : reducer"), tr("coats"),
                        tr("strokes"), tr("flow, mL/min"), tr("hand, mm/s")},
                       tr("Where work starts"));
    layout->addWidget(practices_, 4);
    problem_ = new QLabel(this);
    problem_->setWordWrap(true);
    problem_->setStyleSheet("color: " + tokens().fault.name());
    layout->addWidget(problem_);
    auto* buttons = new QDialogButtonBox(this);
    const auto choice = [&](const QString& words, const char* look, QDialogButtonBox::ButtonRole role) {
        auto* b = new QPushButton(words);
        b->setObjectName(look);
        buttons->addButton(b, role);
        return b;
    };
    QPushButton* back = choice(tr("Put back what ships"), "second", QDialogButtonBox::ResetRole);
    choice(tr("Save"), "primary", QDialogButtonBox::AcceptRole);
    choice(tr("Cancel"), "second", QDialogButtonBox::RejectRole);
    connect(back, &QPushButton::clicked, this, &MyBench::putBack);
    connect(buttons, &QDialogButtonBox::accepted, this, &MyBench::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    layout->addWidget(buttons);
    fill(store_.bench());
    if (store_.problem())
        problem_->setText(said(*store_.problem()) + ' ' + QString::fromStdString(store_.problem()->where));
}

void MyBench::fill(const Workplace& bench) {
    guns_->setRowCount(0);
    for (const Gun& gun : bench.guns) {
        const int r = guns_->rowCount();
        guns_->insertRow(r);
        guns_->setItem(r, NameColumn, cell(QString::fromStdString(gun.name)));
        guns_->item(r, NameColumn)->setData(Qt::UserRole, QString::fromStdString(gun.unknownJson));
        guns_->setItem(r, NeedleColumn, cell(number(gun.needle_mm)));
        guns_->setItem(r, LowestColumn, cell(number(gun.lowest_psi)));
        guns_->setItem(r, HighestColumn, cell(number(gun.highest_psi)));
    }
    practices_->setRowCount(static_cast<int>(bench.practices.size()));
    for (int r = 0; r < practices_->rowCount(); ++r) {
        const SprayPractice& p = bench.practices[static_cast<std::size_t>(r)];
        practices_->setVerticalHeaderItem(r, new QTableWidgetItem(practiceName(p.id)));
        practices_->setItem(r, Pressure, cell(rangeText(p.pressure_psi)));
        practices_->setItem(r, Distance, cell(rangeText(p.distance_mm)));
        practices_->setItem(
            r, Reducing,
            cell(QString("%1 : %2").arg(number(p.reduction.paint), number(p.reduction.reducer))));
        practices_->setItem(r, Coats, cell(QString("%1 / %2").arg(p.leastCoats).arg(p.mostCoats)));
        practices_->setItem(r, Passes, cell(QString::number(p.passes)));
        practices_->setItem(r, Flow, cell(number(p.flow_ml_min)));
        practices_->setItem(r, Speed, cell(number(p.speed_mm_s)));
    }
}

Result<Workplace> MyBench::typed() const {
    Workplace bench = store_.bench();
    bench.guns.clear();
    for (int r = 0; r < guns_->rowCount(); ++r) {
        Gun gun;
        gun.name =
            guns_->item(r, NameColumn) ? guns_->item(r, NameColumn)->text().trimmed().toStdString() : "";
        if (guns_->item(r, NameColumn))
            gun.unknownJson = guns_->item(r, NameColumn)->data(Qt::UserRole).toString().toStdString();
        for (const auto& [column, into] : {std::pair{NeedleColumn, &gun.needle_mm},
                                           {LowestColumn, &gun.lowest_psi},
                                           {HighestColumn, &gun.highest_psi}}) {
            const auto value = numbersIn(*guns_, r, column, 1);
            if (!value) return value.error();
            *into = value->front();
        }
        bench.guns.push_back(std::move(gun));
    }
    for (int r = 0; r < practices_->rowCount(); ++r) {
        SprayPractice& p = bench.practices[static_cast<std::size_t>(r)];
        const std::size_t counts[] = {3, 3, 2, 2, 1, 1, 1};
        std::vector<std::vector<double>> row;
        for (int c = Pressure; c <= Speed; ++c) {
            auto values = numbersIn(*practices_, r, c, counts[c]);
            if (!values) return values.error();
            row.push_back(std::move(*values));
        }
        p.pressure_psi = {row[Pressure][0], row[Pressure][1], row[Pressure][2]};
        p.distance_mm = {row[Distance][0], row[Distance][1], row[Distance][2]};
        p.reduction = {row[Reducing][0], row[Reducing][1]};
        p.leastCoats = static_cast<int>(std::clamp(row[Coats][0], 0.0, 1e6));
        p.mostCoats = static_cast<int>(std::clamp(row[Coats][1], 0.0, 1e6));
        p.passes = static_cast<int>(std::clamp(row[Passes][0], 0.0, 1e6));
        p.flow_ml_min = row[Flow][0];
        p.speed_mm_s = row[Speed][0];
    }
    if (Status ok = checkBench(bench); !ok) return ok.error();
    return bench;
}

void MyBench::accept() {
    const Result<Workplace> bench = typed();
    const Status taken = bench ? store_.edit(*bench) : Status(bench.error());
    if (taken) return QDialog::accept();
    const std::string& where = taken.error().where;
    problem_->setText(said(taken.error()) +
                      (where.empty() ? QString() : " (" + QString::fromStdString(where) + ")"));
}

void MyBench::addGun() {
    const int r = guns_->rowCount();
    guns_->insertRow(r);
    const Gun usual;
    guns_->setItem(r, NameColumn, cell(tr("gun %1").arg(r + 1)));
    guns_->setItem(r, NeedleColumn, cell(number(usual.needle_mm)));
    guns_->setItem(r, LowestColumn, cell(number(usual.lowest_psi)));
    guns_->setItem(r, HighestColumn, cell(number(usual.highest_psi)));
    guns_->setCurrentCell(r, NameColumn);
}

void MyBench::removeGun() {
    const int row = guns_->currentRow() >= 0 ? guns_->currentRow() : guns_->rowCount() - 1;
    if (guns_->rowCount() > 1) {
        guns_->removeRow(row);
    } else {
        problem_->setText(tr("Keep one gun at least on the bench."));
    }
}

void MyBench::putBack() {
    fill(Workplace{});
}

}  // namespace nine::app
