// A sentence before its values are in it.
//
// A sentence with a number in it cannot be looked up in a list of translations, and its millimetres cannot
// become inches. So the core says the pattern and the values apart; whoever shows it looks the pattern up,
// writes the values in its own units and puts them in. The command line, files and logs take plain(): English
// and millimetres.
//
//     Words(NINE_WORDS("core", "The string lies at {x}, the body ends at {length}."))
//         .length("x", x_mm, 1)
//         .length("length", length_mm, 1)
//
// Patterns can only be made by NINE_WORDS, which lupdate knows (scripts/words): a sentence that no translator
// will ever see does not compile. A key may stand in the pattern any number of times, in any order.
#pragma once

#include <functional>
#include <memory>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "base/units.h"

namespace nine {

/// A literal that stands in the translators' list. Lives as long as the program.
class Pattern {
  public:
    constexpr Pattern() = default;
    constexpr explicit Pattern(const char* literal) : text_(literal) {}
    constexpr const char* text() const { return text_; }
    constexpr bool empty() const { return *text_ == 0; }
    bool operator==(const Pattern& other) const { return std::string_view(text_) == other.text_; }

  private:
    const char* text_ = "";
};

/// `context` is the list's own heading: "core" for what the window may show, "cli" for the command line.
#define NINE_WORDS(context, text) ::nine::Pattern(text)

/// How a value is shown.
enum class Measure {
    Length,  ///< mm, shown with its unit, mm or inches
    Number,  ///< as it is; its unit, if it has one, stands in the pattern
    Share,   ///< a fraction, shown as "2.7 %", finer below one per cent
};

constexpr int kShortest = -1;  ///< as many decimals as the number has

class Words;

/// One value of a sentence.
struct Said {
    std::string key;
    /// A number, a name that is nobody's language, or words with values of their own.
    std::variant<double, std::string, std::shared_ptr<const Words>> value;
    Measure measure = Measure::Number;
    int decimals = kShortest;
};

class Words {
  public:
    Words() = default;
    Words(Pattern pattern) : pattern_(pattern) {}
    /// What comes from outside as it stands: a name somebody gave, what another library says.
    static Words verbatim(std::string text);

    Words length(std::string key, double mm, int decimals = 1) &&;
    Words number(std::string key, Figure value, int decimals) &&;
    Words share(std::string key, Fraction fraction) &&;
    Words name(std::string key, std::string text) &&;
    Words words(std::string key, Words value) &&;

    Pattern pattern() const { return pattern_; }
    const std::vector<Said>& values() const { return values_; }
    bool empty() const { return pattern_.empty(); }
    /// English, in millimetres.
    std::string plain() const;

  private:
    Words with(Said said);

    Pattern pattern_;
    std::vector<Said> values_;
};

/// `pattern`, a translation of that of `words`, with each {key} replaced by what `show` makes of the value.
/// A key that has no value stays as it stands.
std::string filled(std::string_view pattern, const Words& words,
                   const std::function<std::string(const Said&)>& show);

/// "Masking tape" for "masking tape": English, for what is printed.
std::string capitalised(std::string text);

/// "a, b and c"; nothing for nothing.
Words listed(const std::vector<Words>& items);
/// "a, b, c".
Words parted(const std::vector<Words>& items);

/// "2.7 %", "0.34 %".
std::string shareText(Fraction fraction);

}  // namespace nine
