#include "bench/workday.h"

namespace nine {
namespace {

/// The first span that ends after a moment.
auto spanAfter(const std::vector<Span>& closed, int at_s) {
    return std::upper_bound(closed.begin(), closed.end(), at_s,
                            [](int at, const Span& span) { return at < span.to_s; });
}

}  // namespace

int openFrom(const std::vector<Span>& closed, int at_s) {
    for (auto span = spanAfter(closed, at_s); span != closed.end() && span->from_s <= at_s; ++span)
        at_s = span->to_s;
    return at_s;
}

int finished(const std::vector<Span>& closed, int from_s, int work_s) {
    int end_s = from_s + work_s;
    for (auto span = spanAfter(closed, from_s); span != closed.end() && span->from_s < end_s; ++span)
        end_s += span->to_s - std::max(span->from_s, from_s);
    return end_s;
}

}  // namespace nine
