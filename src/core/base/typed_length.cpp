#include "base/typed_length.h"

#include <algorithm>
#include <cmath>
#include <string>

#include "base/number_text.h"
#include "base/units.h"

namespace nine {
namespace {

/// A value and whether it is a length already.
struct Quantity {
    double value = 0;
    bool length = false;
};

class Reader {
  public:
    Reader(std::string text, double bare, bool units) : text_(std::move(text)), bare_(bare), units_(units) {}

    std::optional<double> all() {
        const auto value = sum();
        skip();
        return at_ == text_.size() && value && std::isfinite(*value) ? value : std::nullopt;
    }

  private:
    void skip() {
        while (at_ < text_.size() && (text_[at_] == ' ' || text_[at_] == '\t')) ++at_;
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
        auto value = factor();
        while (value) {
            const bool times = take('*');
            if (!times && !take('/')) break;
            const auto next = factor();
            // A length by a length is an area, a number by a length is nothing at all.
            if (!next || (times ? value->length && next->length : next->length) ||
                (!times && next->value == 0))
                return std::nullopt;
            value = Quantity{times ? value->value * next->value : value->value / next->value,
                             value->length || next->length};
        }
        if (!value) return std::nullopt;
        return value->length ? value->value : value->value * bare_;
    }
    std::optional<Quantity> factor() {
        skip();
        double sign = 1;
        if (at_ < text_.size() && (text_[at_] == '-' || text_[at_] == '+'))
            sign = text_[at_++] == '-' ? -1 : 1;
        auto number = mixed();
        if (!number) return std::nullopt;
        Quantity quantity{sign * *number, false};
        if (!units_) return quantity;
        skip();
        for (const auto& [name, mm] : {std::pair{"mm", 1.0},
                                       {"cm", 10.0},
                                       {"inches", kMmPerInch},
                                       {"inch", kMmPerInch},
                                       {"in", kMmPerInch},
                                       {"\"", kMmPerInch},
                                       {"\u2033", kMmPerInch},
                                       {"\u201d", kMmPerInch}}) {
            const std::string_view word = name;
            if (text_.compare(at_, word.size(), word) != 0) continue;
            at_ += word.size();
            return Quantity{quantity.value * mm, true};
        }
        return quantity;
    }
    /// "1 1/2", "3/8" or a plain number.
    std::optional<double> mixed() {
        const std::size_t start = at_;
        if (const auto whole = digits()) {
            if (const auto part = fractionFrom(*whole)) return part;
            const std::size_t after = at_;
            skip();
            if (at_ > after) {
                const auto above = digits();
                const auto part = above ? fractionFrom(*above) : std::nullopt;
                if (part && *part < 1) return *whole + *part;
            }
        }
        at_ = start;
        return decimal();
    }
    /// What stands behind the numerator, if it is a slash and whole digits that end there.
    std::optional<double> fractionFrom(double above) {
        const std::size_t start = at_;
        if (at_ < text_.size() && text_[at_] == '/') {
            ++at_;
            const auto below = digits();
            if (below && *below > 0) return above / *below;
        }
        at_ = start;
        return std::nullopt;
    }
    /// Whole digits with no decimal sign behind them.
    std::optional<double> digits() {
        std::size_t end = at_;
        while (end < text_.size() && text_[end] >= '0' && text_[end] <= '9') ++end;
        if (end == at_ || (end < text_.size() && (text_[end] == '.' || text_[end] == ',')))
            return std::nullopt;
        const auto value = parseNumber(std::string_view(text_).substr(at_, end - at_));
        at_ = end;
        return value;
    }
    std::optional<double> decimal() {
        const std::size_t from = at_;
        while (at_ < text_.size() &&
               ((text_[at_] >= '0' && text_[at_] <= '9') || text_[at_] == '.' || text_[at_] == ','))
            ++at_;
        std::string number = text_.substr(from, at_ - from);
        std::replace(number.begin(), number.end(), ',', '.');
        return parseNumber(number);
    }

    std::string text_;
    double bare_;
    bool units_;
    std::size_t at_ = 0;
};

std::string lowered(std::string_view text) {
    std::string lower(text);
    for (char& c : lower) c = c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c;
    return lower;
}

}  // namespace

std::optional<double> typedLength(std::string_view text, double bare_mm) {
    return Reader(lowered(text), bare_mm, true).all();
}

std::optional<double> typedNumber(std::string_view text) {
    return Reader(std::string(text), 1.0, false).all();
}

}  // namespace nine
