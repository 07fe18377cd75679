#include "paint/build_up.h"

#include <algorithm>

namespace nine {

BuildUp buildUp(const Coated& ground, const Film& film, int coats, Dullness dull) {
    BuildUp all;
    all.after.push_back(ground);
    for (int n = 1; n <= std::clamp(coats, 1, 40); ++n) {
        all.after.push_back(under(ground, film, n));
        const Lab now = labOf(all.after.back(), dull), before = labOf(all.after[all.after.size() - 2], dull);
        all.gains.push_back(difference(before, now));
        if (n > 1 && all.enough == 0 && all.gains.back() < kNothingMore) all.enough = n - 1;
    }
    return all;
}

Figure showsThrough(const Film& film, Ratio coats, Dullness dull) {
    return difference(labOf(under(bare(evenBands(0)), film, coats), dull),
                      labOf(under(bare(evenBands(0.93)), film, coats), dull));
}

}  // namespace nine
