#include "bench/places.h"

#include <climits>
#include <queue>
#include <set>

#include "bench/workday.h"

namespace nine {
namespace {

constexpr std::size_t kLengths = 12;

/// A stay is begun by hands that were at work until then.
int beginsFrom(const std::vector<Span>& closed, int at_s) {
    const int before_s = openFrom(closed, at_s - 1);
    return before_s == at_s - 1 ? at_s : before_s;
}

}  // namespace

int placesBound_s(const std::vector<Stay>& stays, int places, const std::vector<Span>& closed) {
    std::set<int, std::greater<>> lengths;
    for (const Stay& stay : stays)
        if (stay.stay_s > 0) lengths.insert(stay.stay_s);
    int bound_s = INT_MIN;
    std::size_t tried = 0;
    for (const int length_s : lengths) {
        if (++tried > kLengths) break;
        std::vector<int> heads;
        int least = INT_MAX, tail_s = INT_MAX;
        for (const Stay& stay : stays) {
            if (stay.stay_s < length_s) continue;
            heads.push_back(stay.head_s);
            least = std::min(least, stay.places);
            tail_s = std::min(tail_s, stay.tail_s);
        }
        const int turns = places / std::max(1, least);
        if (turns < 1 || static_cast<int>(heads.size()) <= turns) continue;
        std::sort(heads.begin(), heads.end());
        std::priority_queue<int, std::vector<int>, std::greater<>> free;
        for (int i = 0; i < turns; ++i) free.push(INT_MIN);
        int last_s = INT_MIN;
        for (const int head_s : heads) {
            const int end_s = beginsFrom(closed, std::max(head_s, free.top())) + length_s;
            free.pop();
            free.push(end_s);
            last_s = std::max(last_s, end_s);
        }
        bound_s = std::max(bound_s, last_s + tail_s);
    }
    return bound_s;
}

}  // namespace nine
