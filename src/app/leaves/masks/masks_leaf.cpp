#include "app/leaves/masks/masks_leaf.h"

#include <QPushButton>

#include "app/sheet/units_text.h"

namespace nine::app {

MasksLeaf::MasksLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent),
      page_(new MasksPage(context)),
      card_(new QWidget),
      layout_(new QVBoxLayout(card_)) {
    layout_->setContentsMargins(16, 14, 16, 12);
    connect(page_, &MasksPage::materialWanted, this, &MasksLeaf::useMaterial);
    connect(&context_.results, &Results::masksChanged, this, &MasksLeaf::rebuildCard);
    connect(&context_.view, &ViewState::changed, this, &MasksLeaf::rebuildCard);
}

void MasksLeaf::changeSpec(const QString& label, const std::function<void(MaskSpec&)>& edit) {
    // The twin of the other side follows: masks are wanted the same on both sides.
    std::vector<MaskSpecPtr> specs = maskSpecs(job());
    const auto index = static_cast<std::size_t>(context_.view.mask());
    if (index >= specs.size()) return;
    const std::vector<std::string> elements = specs[index]->elements;
    for (MaskSpecPtr& spec : specs) {
        if (spec->elements != elements) continue;
        MaskSpec changed = *spec;
        edit(changed);
        spec = std::make_shared<const MaskSpec>(std::move(changed));
    }
    const Job next = withMasks(job(), std::move(specs));
    if (!checkJob(next)) return;
    context_.document.beginGesture();
    context_.document.edit(next, label);
}

void MasksLeaf::useMaterial(int index) {
    changeSpec(tr("Change the sheet"), [&](MaskSpec& spec) {
        spec.material = std::string(sheetMaterials()[static_cast<std::size_t>(index)].id);
    });
}

void MasksLeaf::rebuildCard() {
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
        return label;
    };
    const auto& masks = context_.results.masks().masks;
    const auto index = static_cast<std::size_t>(context_.view.mask());
    if (index >= masks.size()) {
        words(tr("No mask is selected."));
        layout->addStretch();
        return;
    }
    const MaskSpec& spec = *masks[index].spec;
    words(QString("%1 %2")
              .arg(QString::fromStdString(spec.name.empty() ? spec.id : spec.name))
              .arg(QChar(sideLetter(spec.side))),
          "font-size: 15px; font-weight: 700; color: " + tokens().select.name());
    auto* margin = new ValueChip(ValueChip::Kind::Length, 1, 0.5, body_);
    margin->setAccessibleName(tr("Margin"));
    margin->setValue(spec.margin_mm);
    connect(margin, &ValueChip::committed, this, [this, margin](double v) {
        const bool fits = v >= kMinMargin_mm && v <= kMaxMargin_mm;
        margin->setWrong(fits ? QString() : tr("A margin lies between 1 and 60 mm."));
        if (fits) changeSpec(tr("Change the margin"), [&](MaskSpec& s) { s.margin_mm = v; });
    });
    layout->addWidget(new Sentence(tr("A margin of %1 stays round the windows against overspray. It goes on"),
                                   {margin}, body_));
    const std::pair<Apply, QString> ways[] = {{Apply::Loose, tr("held loose at its marks")},
                                              {Apply::Lateral, tr("smoothed from the middle line")},
                                              {Apply::Back, tr("smoothed down from the back")}};
    for (const auto& [apply, text] : ways) {
        auto* way = new QPushButton(
            (spec.apply == apply ? QString::fromUtf8("● ") : QString::fromUtf8("○ ")) + text, body_);
        way->setObjectName("link");
        way->setStyleSheet("border: none;");
        way->setAccessibleName(text);
        connect(way, &QPushButton::clicked, this, [this, apply = apply] {
            changeSpec(tr("Change how it is laid on"), [&](MaskSpec& s) { s.apply = apply; });
        });
        layout->addWidget(way, 0, Qt::AlignLeft);
    }
    if (masks[index].mask) {
        const Mask& mask = **masks[index].mask;
        auto* verdict =
            words(QString::fromStdString(verdictOf(spec, mask.report)),
                  QString("border: 1px solid %1; border-radius: 6px; padding: 8px; font-size: 12px;")
                      .arg((mask.report.liesFlat ? tokens().line : tokens().fault).name()));
        verdict->setAccessibleName(tr("Verdict"));
        if (!mask.report.liesFlat) {
            words(tr("Where it stands off, paint creeps under the edge and the line goes soft."));
            for (int m = 0; m < static_cast<int>(sheetMaterials().size()); ++m) {
                const SheetMaterial& material = sheetMaterials()[static_cast<std::size_t>(m)];
                if (material.strainLimit < mask.report.strainFeasibleMax) continue;
                auto* repair = new QPushButton(
                    tr("Take %1").arg(QString::fromUtf8(material.name.data()).toLower()), body_);
                repair->setObjectName("primary");
                connect(repair, &QPushButton::clicked, this, [this, m] { useMaterial(m); });
                layout->addWidget(repair, 0, Qt::AlignLeft);
                break;
            }
        }
        for (const RegistrationMark& mark : mask.marks) {
            words(tr("Mark %1").arg(QString::fromStdString(markSentence(mark))),
                  "color: " + tokens().muted.name());
        }
        for (const Warning& w : mask.warnings)
            words(QString::fromStdString(w.text), "color: " + tokens().caution.name());
    }
    words(tr("Masks of this pattern"), "color: " + tokens().muted.name());
    auto* list = new QWidget(body_);
    auto* flow = new FlowLayout(list, 28);
    for (std::size_t i = 0; i < masks.size(); ++i) {
        const MaskSpec& other = *masks[i].spec;
        const bool fault = !masks[i].mask || !(*masks[i].mask)->report.liesFlat;
        auto* pick =
            new QPushButton(QString("%1 %2%3")
                                .arg(QString::fromStdString(other.name.empty() ? other.id : other.name))
                                .arg(QChar(sideLetter(other.side)))
                                .arg(fault ? QString::fromUtf8("  ⚑") : QString()),
                            list);
        pick->setObjectName(i == index ? "primary" : "second");
        connect(pick, &QPushButton::clicked, this, [this, i] { context_.view.setMask(static_cast<int>(i)); });
        flow->addWidget(pick);
    }
    QSizePolicy policy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    policy.setHeightForWidth(true);
    list->setSizePolicy(policy);
    layout->addWidget(list);
    layout->addStretch();
}

LeafEntry MasksLeaf::entry() const {
    LeafEntry e;
    e.built = true;
    const auto& masks = context_.results.masks().masks;
    if (masks.empty()) return e;
    e.state = LeafState::Ready;
    for (const MaskResult& m : masks) {
        if (m.mask && (*m.mask)->report.liesFlat) continue;
        ++e.flags;
        e.fault = true;
        e.state = LeafState::Repair;
    }
    return e;
}

}  // namespace nine::app
