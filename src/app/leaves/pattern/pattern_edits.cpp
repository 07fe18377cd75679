#include "app/leaves/pattern/pattern_edits.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "job/job_file.h"

namespace nine::app {
namespace {

constexpr double kAside_mm = 1.5;  // of a copy

double hundredth(double v) {
    return std::round(100 * v) / 100;
}

/// Copies of the given elements put behind the last, each under a fresh id; what refers to a copied one
/// refers to its copy.
Job withCopies(const Job& job, const std::vector<Element>& originals, double aside_mm, Ids& made) {
    Job next = job;
    std::map<std::string, std::string> ids;
    for (const Element& original : originals) {
        Element copy = original;
        copy.id = freshId(next, original.id);
        ids[original.id] = copy.id;
        made.insert(copy.id);
        copy.dg_mm += aside_mm;
        copy.home = nullptr;
        next = withAdded(next, std::move(copy));
    }
    return withEach(next, made, [&](Element& e) {
        if (const auto of = ids.find(e.of); of != ids.end()) e.of = of->second;
        for (std::string& id : e.clearOf)
            if (const auto other = ids.find(id); other != ids.end()) id = other->second;
    });
}

}  // namespace

std::string freshId(const Job& job, std::string_view stem) {
    const auto taken = [&](const std::string& id) {
        const auto& elements = job.get<PatternChapter>().elements;
        return std::any_of(elements.begin(), elements.end(),
                           [&](const ElementPtr& e) { return e->id == id; });
    };
    std::string bare(stem);
    std::replace(bare.begin(), bare.end(), '_', '-');
    const std::size_t dash = bare.rfind('-');
    if (dash != bare.npos && dash + 1 < bare.size() &&
        std::all_of(bare.begin() + static_cast<std::ptrdiff_t>(dash) + 1, bare.end(),
                    [](char c) { return c >= '0' && c <= '9'; }))
        bare.resize(dash);
    for (int n = 1;; ++n) {
        const std::string id = bare + "-" + std::to_string(n);
        if (!taken(id)) return id;
    }
}

Element newElement(const Job& job, const Skin& skin, const Kind& kind, const QString& name, const Vec2& at) {
    Element e;
    e.id = freshId(job, kind.id());
    e.name = name.toStdString();
    e.kind = kind.id();
    e.values = usualValues(kind);
    e.linked = !kind.isCentral(e.values);
    if (!kind.hasOrigin()) return e;
    const auto& landmarks = job.get<BlankChapter>().landmarks;
    e.dx_mm = hundredth(at.x());
    e.dg_mm = hundredth(at.y());
    const std::string anchor(kind.usualAnchor());
    if (!kind.alongCurve().empty()) {  // measured from its curve alone
        e.anchor = anchor;
        e.dx_mm = kind.isCut() ? 0.5 : 0;
        e.dg_mm = 0;
    } else if (!anchor.empty() && landmarks.count(anchor)) {  // an eye has its surround, wherever one clicks
        e.anchor = anchor;
        e.dx_mm = e.dg_mm = 0;
    } else if (landmarks.count("gill_plate")) {
        Result<Element> moved = reanchored(skin, landmarks, e, "gill_plate", "");
        if (moved) e = std::move(*moved);
    }
    return e;
}

Job withAdded(const Job& job, Element element) {
    PatternChapter pattern = job.get<PatternChapter>();
    pattern.elements.push_back(std::make_shared<const Element>(std::move(element)));
    return inStep(job.with(std::move(pattern)));
}

Job withRemoved(const Job& job, const Ids& ids) {
    PatternChapter pattern = job.get<PatternChapter>();
    std::erase_if(pattern.elements, [&](const ElementPtr& e) { return ids.count(e->id) > 0; });
    return inStep(job.with(std::move(pattern)));
}

Job withDuplicates(const Job& job, const Ids& ids, Ids& made) {
    std::vector<Element> originals;
    for (const ElementPtr& e : job.get<PatternChapter>().elements)
        if (ids.count(e->id) && e->known()) originals.push_back(*e);
    return withCopies(job, originals, -kAside_mm, made);
}

Job withOrder(const Job& job, const std::string& id, int place) {
    PatternChapter pattern = job.get<PatternChapter>();
    auto& all = pattern.elements;
    const auto from = std::find_if(all.begin(), all.end(), [&](const ElementPtr& e) { return e->id == id; });
    if (from == all.end()) return job;
    const ElementPtr moved = *from;
    const auto now = from - all.begin();
    const auto to = std::clamp<std::ptrdiff_t>(place, 0, static_cast<std::ptrdiff_t>(all.size()) - 1);
    if (now == to) return job;
    all.erase(from);
    all.insert(all.begin() + to, moved);
    return job.with(std::move(pattern));
}

Job withEach(const Job& job, const Ids& ids, const std::function<void(Element&)>& change) {
    PatternChapter pattern = job.get<PatternChapter>();
    for (ElementPtr& held : pattern.elements) {
        if (!ids.count(held->id)) continue;
        Element e = *held;
        change(e);
        held = std::make_shared<const Element>(std::move(e));
    }
    return inStep(job.with(std::move(pattern)));
}

Ids withGroups(const Job& job, const Ids& ids) {
    std::set<std::string> groups;
    Ids all = ids;
    for (const ElementPtr& e : job.get<PatternChapter>().elements)
        if (ids.count(e->id) && !e->group.empty()) groups.insert(e->group);
    for (const ElementPtr& e : job.get<PatternChapter>().elements)
        if (groups.count(e->group)) all.insert(e->id);
    return all;
}

std::string elementsText(const Job& job, const Ids& ids) {
    // A job that holds nothing but these: read and written as jobs are.
    PatternChapter pattern;
    for (const ElementPtr& e : job.get<PatternChapter>().elements)
        if (ids.count(e->id)) pattern.elements.push_back(e);
    return jobText(Job{}.withPart(job.part<BlankChapter>()).with(std::move(pattern)));
}

Result<Job> withPasted(const Job& job, const std::string& text, Ids& made) {
    const Result<LoadedJob> read = parseJob(text, "clipboard");
    if (!read) return read.error();
    std::vector<Element> originals;
    for (const ElementPtr& e : read->job.get<PatternChapter>().elements)
        if (e->known()) originals.push_back(*e);
    return withCopies(job, originals, 0, made);
}

}  // namespace nine::app
