#include "bench/workday.h"

#include <climits>

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

std::optional<int> restsTill(const std::vector<Span>& closed, int from_s, int to_s, int most_s) {
    for (auto span = spanAfter(closed, from_s); span != closed.end() && span->from_s < to_s; ++span)
        if (span->to_s - span->from_s > most_s) return span->to_s;
    return std::nullopt;
}

int unbrokenFrom(const std::vector<Span>& closed, int from_s, int work_s, int most_s, int longest_s) {
    for (int start_s = openFrom(closed, from_s);;) {
        if (work_s > longest_s) return start_s;
        const auto till_s = restsTill(closed, start_s, finished(closed, start_s, work_s), most_s);
        if (!till_s) return start_s;
        start_s = openFrom(closed, *till_s);
    }
}

int longestOpen_s(const std::vector<Span>& closed) {
    if (closed.empty()) return INT_MAX;
    int longest_s = closed.front().from_s;
    for (std::size_t i = 1; i < closed.size(); ++i)
        longest_s = std::max(longest_s, closed[i].from_s - closed[i - 1].to_s);
    return longest_s;
}

}  // namespace nine
