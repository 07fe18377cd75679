#include "app/leaves/log/sides_dialog.h"

#include <QDialogButtonBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QImageReader>
#include <QMessageBox>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>
#include <cmath>

#include "app/sheet/ink.h"
#include "app/theme/theme.h"

namespace nine::app {
namespace {

enum Column { MarkColumn, MaskColumn, PlannedX, PlannedUp, LeftX, LeftUp, RightX, RightUp, Columns };

}  // namespace

SidePhoto::SidePhoto() {
    setMinimumSize(280, 160);
    setCursor(Qt::CrossCursor);
}

void SidePhoto::setPicture(QImage picture, double length_mm) {
    picture_ = std::move(picture);
    length_mm_ = length_mm;
    restart();
}

void SidePhoto::restart() {
    places_.clear();
    marks_.clear();
    update();
    emit changed();
}

double SidePhoto::scale() const {
    return picture_.isNull() ? 1
                             : std::min(width() / static_cast<double>(picture_.width()),
                                        height() / static_cast<double>(picture_.height()));
}

QPointF SidePhoto::pictureToWidget(const QPointF& place) const {
    const double s = scale();
    return QPointF((width() - s * picture_.width()) / 2, (height() - s * picture_.height()) / 2) + s * place;
}

void SidePhoto::mousePressEvent(QMouseEvent* event) {
    if (picture_.isNull()) return;
    const QPointF at = (event->position() - pictureToWidget({0, 0})) / scale();
    if (places_.size() < 3) {
        places_.push_back(at);
        update();
        emit changed();
        return;
    }
    // Along the line from nose to tail, and across it towards the back, whichever way the photo lies.
    const QPointF along = places_[1] - places_[0];
    const double pixels = std::hypot(along.x(), along.y());
    if (pixels < 2) return restart();
    const double mm = length_mm_ / pixels;
    const auto on = [&](const QPointF& p) {
        const QPointF d = p - places_[0];
        return std::pair{(d.x() * along.x() + d.y() * along.y()) / pixels * mm,
                         (d.x() * along.y() - d.y() * along.x()) / pixels * mm};
    };
    const double low = on(places_[2]).second;
    // The lowest point says which way is down.
    const double up = low < 0 ? on(at).second - low : low - on(at).second;
    marks_.push_back(at);
    update();
    emit found(on(at).first, up);
}

void SidePhoto::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), tokens().deep);
    if (picture_.isNull()) {
        ink::text(p, QRectF(rect()).center(), tr("no photo of this side"), inter(12), tokens().muted,
                  Qt::AlignHCenter);
        return;
    }
    p.drawImage(QRectF(pictureToWidget({0, 0}), scale() * QSizeF(picture_.size())), picture_);
    const QString names[] = {tr("nose"), tr("tail"), tr("lowest")};
    for (std::size_t i = 0; i < places_.size(); ++i)
        ink::leader(p, pictureToWidget(places_[i]), pictureToWidget(places_[i]) + QPointF(14, -14), names[i]);
    int number = 0;
    for (const QPointF& mark : marks_) ink::pointOut(p, pictureToWidget(mark), QString::number(++number));
}

SidesDialog::SidesDialog(std::vector<SideReading> readings, int lure, double length_mm, QWidget* parent)
    : QDialog(parent),
      length_mm_(length_mm),
      table_(new QTableWidget(0, Columns)),
      lure_(new QSpinBox),
      hint_(new QLabel),
      left_(new SidePhoto),
      right_(new SidePhoto) {
    // In one piece: photos, table, buttons, from the top down.
    setWindowTitle(tr("Both sides, measured"));
    resize(1100, 680);
    auto* all = new QVBoxLayout(this);
    auto* photos = new QHBoxLayout;
    for (const bool right : {false, true}) {
        auto* side = new QVBoxLayout;
        auto* row = new QHBoxLayout;
        row->addWidget(new QLabel(right ? tr("Right") : tr("Left")));
        auto* open = new QPushButton(tr("Photo ..."));
        auto* again = new QPushButton(tr("Nose again"));
        open->setAutoDefault(false);
        again->setAutoDefault(false);
        row->addWidget(open);
        row->addWidget(again);
        row->addStretch();
        side->addLayout(row);
        side->addWidget(right ? right_ : left_, 1);
        photos->addLayout(side);
        connect(open, &QPushButton::clicked, this, [this, right] { openPhoto(right); });
        connect(again, &QPushButton::clicked, this, [this, right] { photo(right).restart(); });
        connect(right ? right_ : left_, &SidePhoto::found, this,
                [this, right](double x, double up) { take(right, x, up); });
        connect(right ? right_ : left_, &SidePhoto::changed, this, &SidesDialog::sayNext);
    }
    all->addLayout(photos, 1);
    hint_->setWordWrap(true);
    all->addWidget(hint_);
    table_->setHorizontalHeaderLabels({tr("Mark"), tr("Mask"), tr("Planned, mm behind the nose"),
                                       tr("above the lowest point"), tr("Left: behind"), tr("above"),
                                       tr("Right: behind"), tr("above")});
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->verticalHeader()->hide();
    table_->setAccessibleName(tr("Marks of both sides, mm"));
    all->addWidget(table_, 1);
    for (const SideReading& reading : readings) addRow(reading);
    auto* foot = new QHBoxLayout;
    auto* more = new QPushButton(tr("One mark more"));
    more->setAutoDefault(false);
    connect(more, &QPushButton::clicked, this, [this] { addRow({}); });
    foot->addWidget(more);
    foot->addWidget(new QLabel(tr("Lure")));
    lure_->setRange(1, 500);
    lure_->setValue(lure);
    lure_->setAccessibleName(tr("Tag of the lure that was measured"));
    foot->addWidget(lure_);
    foot->addStretch();
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
    connect(buttons, &QDialogButtonBox::accepted, this, &SidesDialog::finish);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    foot->addWidget(buttons);
    all->addLayout(foot);
    if (table_->rowCount() > 0) table_->selectRow(0);
    sayNext();
}

void SidesDialog::addRow(const SideReading& r) {
    const int row = table_->rowCount();
    table_->insertRow(row);
    const auto number = [](const std::optional<double>& v) {
        return v ? QString::number(*v, 'f', 2) : QString();
    };
    const QString cells[] = {QString::fromStdString(r.mark),
                             QString::fromStdString(r.mask),
                             r.mark.empty() ? QString() : number(r.plannedX_mm),
                             r.mark.empty() ? QString() : number(r.plannedUp_mm),
                             number(r.leftX_mm),
                             number(r.leftUp_mm),
                             number(r.rightX_mm),
                             number(r.rightUp_mm)};
    for (int c = 0; c < Columns; ++c) table_->setItem(row, c, new QTableWidgetItem(cells[c]));
}

void SidesDialog::openPhoto(bool right) {
    const QString path = QFileDialog::getOpenFileName(
        this, right ? tr("Photo of the right side") : tr("Photo of the left side"), {},
        tr("Pictures (*.jpg *.jpeg *.png)"));
    if (path.isEmpty()) return;
    QImageReader reader(path);
    reader.setAutoTransform(true);
    QImage image = reader.read();
    if (image.isNull()) {
        QMessageBox::warning(this, windowTitle(), tr("%1 is no picture that can be read.").arg(path));
        return;
    }
    photo(right).setPicture(std::move(image), length_mm_);
}

void SidesDialog::take(bool right, double x_mm, double up_mm) {
    int row = table_->currentRow();
    if (row < 0) {
        addRow({});
        row = table_->rowCount() - 1;
    }
    table_->item(row, right ? RightX : LeftX)->setText(QString::number(x_mm, 'f', 2));
    table_->item(row, right ? RightUp : LeftUp)->setText(QString::number(up_mm, 'f', 2));
    if (row + 1 < table_->rowCount()) table_->selectRow(row + 1);
    sayNext();
}

void SidesDialog::sayNext() {
    const SidePhoto* photo = left_->has() && left_->known() < 3     ? left_
                             : right_->has() && right_->known() < 3 ? right_
                                                                    : nullptr;
    if (photo) {
        const QString steps[] = {tr("Click the nose, then the tail root the length is measured to (%1 mm), "
                                    "then the lowest point of the belly.")
                                     .arg(length_mm_, 0, 'f', 1),
                                 tr("Now the tail."), tr("Now the lowest point of the belly.")};
        hint_->setText(steps[photo->known()]);
        return;
    }
    const int row = table_->currentRow();
    const QString mark =
        row >= 0 && table_->item(row, MarkColumn) ? table_->item(row, MarkColumn)->text() : QString();
    hint_->setText(left_->has() || right_->has()
                       ? tr("Click %1 on the photo, or type what the caliper says.")
                             .arg(mark.isEmpty() ? tr("the mark of the selected row") : mark)
                       : tr("Type what the caliper says, or take a photo of each side, square on."));
}

std::vector<SideReading> SidesDialog::readings() const {
    std::vector<SideReading> all;
    for (int row = 0; row < table_->rowCount(); ++row) {
        const auto number = [&](int c) -> std::optional<double> {
            bool ok = false;
            const double v = table_->item(row, c)->text().replace(',', '.').toDouble(&ok);
            return ok && std::isfinite(v) ? std::optional(v) : std::nullopt;
        };
        SideReading r;
        r.mark = table_->item(row, MarkColumn)->text().toStdString();
        r.mask = table_->item(row, MaskColumn)->text().toStdString();
        r.leftX_mm = number(LeftX);
        r.leftUp_mm = number(LeftUp);
        r.rightX_mm = number(RightX);
        r.rightUp_mm = number(RightUp);
        // Without a plan the left side is what the right is held against.
        r.plannedX_mm = number(PlannedX).value_or(r.leftX_mm.value_or(0));
        r.plannedUp_mm = number(PlannedUp).value_or(r.leftUp_mm.value_or(0));
        if (r.leftX_mm || r.leftUp_mm || r.rightX_mm || r.rightUp_mm) all.push_back(std::move(r));
    }
    return all;
}

void SidesDialog::finish() {
    // Nothing that was typed is passed over in silence.
    for (int row = 0; row < table_->rowCount(); ++row)
        for (int c = PlannedX; c < Columns; ++c) {
            const QString text = table_->item(row, c)->text().trimmed();
            bool ok = false;
            const double v = QString(text).replace(',', '.').toDouble(&ok);
            if (text.isEmpty() || (ok && std::abs(v) <= 1000)) continue;
            QMessageBox::warning(this, windowTitle(),
                                 tr("Row %1 has \"%2\" where millimetres belong.").arg(row + 1).arg(text));
            table_->setCurrentCell(row, c);
            return;
        }
    accept();
}

}  // namespace nine::app
