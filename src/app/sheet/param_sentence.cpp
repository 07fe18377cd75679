#include "app/sheet/param_sentence.h"

#include <QCoreApplication>
#include <QMenu>
#include <algorithm>

#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {

ValueChip::Kind chipKind(const Param& param) {
    return param.isWhole()                     ? ValueChip::Kind::Count
           : param.type == Param::Type::Length ? ValueChip::Kind::Length
                                               : ValueChip::Kind::Number;
}

double shownUnits(const Param& param) {
    return param.type == Param::Type::Share ? 100 : 1;
}

QString choiceWord(const Param& param, const std::string& value) {
    for (const Choice& choice : param.choices)
        if (choice.id == value) return said(choice.name);
    return QString::fromStdString(value);
}

QPushButton* choiceChip(const Param& param, std::function<void(const std::string&)> chosen) {
    auto* button = new QPushButton;
    button->setObjectName("word");
    button->setAccessibleName(said(param.name));
    auto* menu = new QMenu(button);
    for (const Choice& choice : param.choices)
        menu->addAction(said(choice.name), button, [chosen, id = std::string(choice.id)] { chosen(id); });
    button->setMenu(menu);
    return button;
}

void paramSentence(Card& card, const Pattern& sentence, std::span<const Param> params,
                   const std::function<QWidget*(const Param&)>& chip) {
    QString words = QCoreApplication::translate("core", sentence.text());
    QList<QWidget*> values;
    for (qsizetype open = words.indexOf('{'); open >= 0; open = words.indexOf('{', open)) {
        const qsizetype close = words.indexOf('}', open);
        const std::string key = words.mid(open + 1, close - open - 1).toStdString();
        const auto param =
            std::find_if(params.begin(), params.end(), [&](const Param& p) { return p.key == key; });
        if (close < 0 || param == params.end()) break;
        values.append(chip(*param));
        QString place = '%' + QString::number(values.size());
        if (param->type == Param::Type::Length) place += ' ' + lengthUnit();
        words.replace(open, close - open + 1, place);
    }
    card.sentence(words, values);
}

}  // namespace nine::app
