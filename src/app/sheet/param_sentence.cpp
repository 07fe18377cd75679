#include "app/sheet/param_sentence.h"

#include <QCoreApplication>
#include <algorithm>

#include "app/sheet/units_text.h"

namespace nine::app {

ValueChip::Kind chipKind(const Param& param) {
    return param.type == Param::Type::Count    ? ValueChip::Kind::Count
           : param.type == Param::Type::Length ? ValueChip::Kind::Length
                                               : ValueChip::Kind::Number;
}

double shownUnits(const Param& param) {
    return param.type == Param::Type::Share ? 100 : 1;
}

void paramSentence(Card& card, const Pattern& sentence, std::span<const Param> params,
                   const std::function<ValueChip*(const Param&)>& chip) {
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
