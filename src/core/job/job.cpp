#include "job/job.h"

#include <algorithm>

namespace nine {

Parts differing(const Job& before, const Job& after) {
    Parts parts;
    Chapters::each([&]<typename C>() {
        if (before.part<C>() != after.part<C>()) parts |= partsOf<C>();
    });
    return parts;
}

Job inStep(const Job& job) {
    Job next = job;
    Chapters::each([&]<typename C>() {
        std::shared_ptr<const C> moved = ChapterOf<C>::inStep(next, next.part<C>());
        if (moved != next.part<C>()) next = next.withPart(std::move(moved));
    });
    return next;
}

Status checkName(const std::string& name, const std::string& path) {
    const auto letters = std::count_if(
        name.begin(), name.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0u) != 0x80u; });
    if (letters <= kMostNameLetters) return Done{};
    return Error{"out_of_range",
                 Words(NINE_WORDS("core",
                                  "This name has {letters} letters; it may have {most}. "
                                  "Shorten it."))
                     .number("letters", letters, 0)
                     .number("most", kMostNameLetters, 0),
                 path};
}

Status checkJob(const Job& job) {
    Status ok = Done{};
    Chapters::each([&]<typename C>() {
        if (ok) ok = ChapterOf<C>::check(job);
    });
    return ok;
}

}  // namespace nine
