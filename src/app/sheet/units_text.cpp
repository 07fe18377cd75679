#include "app/sheet/units_text.h"

#include <QObject>
#include <cmath>

#include "base/number_text.h"
#include "base/units.h"

namespace nine::app {
namespace {

bool& inchesOn() {
    static bool on = false;
    return on;
}

/// Sums of products of numbers with units; `bare` is what a number without unit is multiplied by.
class Reader {
  public:
    Reader(std::string text, double bare, bool units) : text_(std::move(text)), bare_(bare), units_(units) {}

    std::optional<double> all() {
        const auto value = sum();
        skip();
        return at_ == text_.size() ? value : std::nullopt;
    }

  private:
    void skip() {
        while (at_ < text_.size() && text_[at_] == ' ') ++at_;
    }
    bool take(char c) {
        skip();
        if (at_ >= text_.size() || text_[at_] != c) return false;
        ++at_;
        return true;
    }
    std::optional<double> sum() {
        auto value = product();
        while (value) {
            const double sign = take('+') ? 1 : take('-') ? -1 : 0;
            if (sign == 0) break;
            const auto next = product();
            if (!next) return std::nullopt;
            *value += sign * *next;
        }
        return value;
    }
    std::optional<double> product() {
        // A factor without unit scales, so the unit of "3*4.5" is applied once, at the end.
        bool unitSeen = false;
        auto value = factor(unitSeen);
        while (value) {
            const bool times = take('*');
            if (!times && !take('/')) break;
            const auto next = factor(unitSeen);
            if (!next || (!times && *next == 0)) return std::nullopt;
            *value = times ? *value * *next : *value / *next;
        }
        if (value && !unitSeen) *value *= bare_;
        return value;
    }
    std::optional<double> factor(bool& unitSeen) {
        skip();
        const std::size_t from = at_;
        if (at_ < text_.size() && (text_[at_] == '-' || text_[at_] == '+')) ++at_;
        while (at_ < text_.size() &&
               ((text_[at_] >= '0' && text_[at_] <= '9') || text_[at_] == '.' || text_[at_] == ','))
            ++at_;
        std::string digits = text_.substr(from, at_ - from);
        for (char& c : digits) c = c == ',' ? '.' : c;
        const auto number = parseNumber(digits);
        if (!number) return std::nullopt;
        skip();
        if (!units_) return number;
        for (const auto& [name, factor] :
             {std::pair{"mm", 1.0}, {"cm", 10.0}, {"in", kMmPerInch}, {"\"", kMmPerInch}}) {
            if (text_.compare(at_, std::char_traits<char>::length(name), name) != 0) continue;
            at_ += std::char_traits<char>::length(name);
            unitSeen = true;
            return *number * factor;
        }
        return number;
    }

    std::string text_;
    double bare_;
    bool units_;
    std::size_t at_ = 0;
};

}  // namespace

bool inches() {
    return inchesOn();
}
void useInches(bool on) {
    inchesOn() = on;
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
    return Reader(typed.trimmed().toLower().toStdString(), inches() ? kMmPerInch : 1.0, true).all();
}

std::optional<double> parsePlain(const QString& typed) {
    return Reader(typed.trimmed().toStdString(), 1.0, false).all();
}

}  // namespace nine::app
