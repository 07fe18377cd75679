#include "app/sheet/units_text.h"

#include <QObject>
#include <QRegularExpression>
#include <atomic>

#include "base/number_text.h"
#include "base/typed_length.h"
#include "base/units.h"

namespace nine::app {
namespace {

/// Pictures drawn in the background have numbers on them too.
std::atomic<bool> inchesOn{false};

}  // namespace

bool inches() {
    return inchesOn;
}
void useInches(bool on) {
    inchesOn = on;
}

QString lengthUnit() {
    return inches() ? QObject::tr("in") : QObject::tr("mm");
}

QString withUnit(QString words) {
    return words.replace("%U", lengthUnit());
}

QString lengthNumber(double mm, int decimals) {
    return QString::fromStdString(inches() ? fixedText(mm / kMmPerInch, decimals + 2)
                                           : fixedText(mm, decimals));
}

QString lengthText(double mm, int decimals) {
    return lengthNumber(mm, decimals) + " " + lengthUnit();
}

std::optional<double> parseLength(const QString& typed) {
    return typedLength(typed.toStdString(), inches() ? kMmPerInch : 1.0);
}

std::optional<double> parsePlain(const QString& typed) {
    return typedNumber(typed.toStdString());
}

QString lengthsInUnits(const QString& sentence) {
    if (!inches()) return sentence;
    // "0.03 mm", "38 x 21 mm", "0.2 to 20 mm"; not mm/s, not mm2, nothing that is part of a word.
    static const QRegularExpression lengths(
        QStringLiteral("(?<![\\w.])([0-9]+(?:\\.[0-9]+)?)(?:( x | to | and |, )([0-9]+(?:\\.[0-9]+)?))? "
                       "mm(?![\\w/^\u00b2\u00b3])"));
    QString out;
    qsizetype end = 0;
    for (auto it = lengths.globalMatch(sentence); it.hasNext();) {
        const QRegularExpressionMatch m = it.next();
        const auto number = [](const QString& mm) {
            const qsizetype point = mm.indexOf('.');
            return lengthNumber(mm.toDouble(), point < 0 ? 0 : static_cast<int>(mm.size() - point - 1));
        };
        out += sentence.mid(end, m.capturedStart() - end) + number(m.captured(1));
        if (m.capturedLength(3) > 0) out += m.captured(2) + number(m.captured(3));
        out += ' ' + lengthUnit();
        end = m.capturedEnd();
    }
    return out + sentence.mid(end);
}

}  // namespace nine::app
