// JSON as it stands in its text. Internal to job/; only files that read or write JSON include this.
//
// A reader that turns text into trees of values forgets how a number was written (integers beyond 64 bits,
// -0) and in which order keys stood; what this version does not know must be written back as it was. So
// values are views of the text, decoded where they are asked for. The library checks once that the text is
// well-formed. Limits: kMostDepth brackets within each other. Cost: a walk over the text for each level that
// is opened.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "base/result.h"

namespace nine::json {

/// Deeper than any file of ours by ten times; more would end in the stack of whoever reads it next.
constexpr int kMostDepth = 100;

struct Member;

/// Of a well-formed text, which must live as long.
class Value {
  public:
    explicit Value(std::string_view text);
    std::string_view raw() const { return raw_; }

    bool isObject() const { return raw_.front() == '{'; }
    bool isArray() const { return raw_.front() == '['; }
    bool isText() const { return raw_.front() == '"'; }
    bool isBool() const { return raw_.front() == 't' || raw_.front() == 'f'; }
    bool isNumber() const { return raw_.front() == '-' || (raw_.front() >= '0' && raw_.front() <= '9'); }

    /// The nearest double; nothing for what is no number or larger than any.
    std::optional<double> number() const;
    /// The exact value of a number written without point and exponent; nothing beyond 64 bits.
    std::optional<std::int64_t> whole() const;
    std::string text() const;
    bool truth() const { return raw_.front() == 't'; }
    std::vector<Value> items() const;
    std::vector<Member> members() const;

  private:
    std::string_view raw_;
};

struct Member {
    std::string key;
    std::string_view rawKey;  ///< with its quotes
    Value value;
};

/// The text as a value. `what` names the file to people: "job file". Errors: bad_json, too_deep, with
/// "source:line" and the key before the place.
Result<Value> parseText(std::string_view text, const std::string& source, const std::string& what);

}  // namespace nine::json
