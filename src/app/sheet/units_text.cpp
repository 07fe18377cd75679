#include "app/sheet/units_text.h"

#include <QObject>
#include <atomic>

#include "base/number_text.h"
#include "base/typed_length.h"
#include "base/units.h"
#include "base/words.h"

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
    if (decimals == kShortest) {
        const std::string text = numberText(mm);
        if (!inches()) return QString::fromStdString(text);
        const std::size_t point = text.find('.');
        decimals = point == text.npos ? 0 : static_cast<int>(text.size() - point - 1);
    }
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

}  // namespace nine::app
