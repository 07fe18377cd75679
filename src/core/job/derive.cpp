#include "job/derive.h"

#include <algorithm>
#include <cassert>
#include <cctype>
#include <optional>

#include "base/number_text.h"
#include "base/parallel.h"
#include "base/thread_role.h"

namespace nine {
namespace {

constexpr std::size_t kSkinsKept = 4, kArtsKept = 256, kMasksKept = 64;

/// Lettering longer than this would outgrow the piece it stands on.
constexpr std::size_t kLabelLetters = 22;

/// The first letters of a name (UTF-8), with dots where it goes on.
std::string shortened(const std::string& name) {
    std::size_t end = 0, letters = 0;
    while (end < name.size() && letters < kLabelLetters) {
        ++end;
        while (end < name.size() && (static_cast<unsigned char>(name[end]) & 0xC0u) == 0x80u) ++end;
        ++letters;
    }
    return end == name.size() ? name : name.substr(0, end) + "..";
}

constexpr double kTick_mm = 1.2;  // half the tick that shows how far to move a sheet for a second pass

std::string upperCase(std::string text) {
    for (char& c : text) c = static_cast<char>(std::toupper(static_cast<unsigned char>(c)));
    return text;
}

/// What a mask is solved from, apart from its side, name and id: the memo's key in plain text.
std::string solveKey(const MaskSpec& spec, int vertices) {
    std::string key = spec.material + "|" + applyName(spec.apply) + "|" + numberText(spec.margin_mm) + "|" +
                      std::to_string(vertices);
    return key;
}

/// Depth of the deepest carving under the edges of openings.
double deepestUnder(const std::vector<Zone>& zones, const std::vector<const ElementArt*>& art) {
    double depth = 0;
    for (const ElementArt* element : art)
        for (const Outline& outline : element->outlines)
            for (const Vec2& p : outline.skin) depth = std::max(depth, reliefAt(zones, p));
    return depth;
}

/// Openings that reach over skin no paint goes on.
void warnOfBareSkin(const std::vector<Zone>& zones, ElementArt& art) {
    for (const Zone& zone : zones) {
        if (!zone.noPaint) continue;
        for (std::size_t k = 0; k < art.outlines.size(); ++k) {
            const auto& outline = art.outlines[k].skin;
            const bool over = std::any_of(outline.begin(), outline.end(),
                                          [&](const Vec2& p) { return contains(zone.polygon, p); }) ||
                              std::any_of(zone.polygon.begin(), zone.polygon.end(),
                                          [&](const Vec2& p) { return contains(outline, p); });
            if (!over) continue;
            art.warnings.push_back({"on_bare_skin",
                                    "Opening " + std::to_string(k + 1) + " of " + art.element +
                                        " reaches over the " + zone.name +
                                        ", where no paint goes; move it or cover the place.",
                                    art.element});
            break;
        }
    }
}

}  // namespace

Derivations::Derivations()
    : skins_(kSkinsKept), arts_(kArtsKept), cuts_(kMasksKept), masks_(kMasksKept), mirrored_(kMasksKept) {}

Result<SkinPtr> Derivations::skin(const Job& job) {
    assert(!thisThreadPaints && "derivations belong on a worker thread");
    std::optional<Error> problem;
    SkinPtr skin = skins_.get({job.blank}, "", [&]() -> SkinPtr {
        Result<Skin> made = Skin::of(job.blank->table);
        if (made) return std::make_shared<const Skin>(std::move(*made));
        problem = made.error();
        return nullptr;
    });
    if (problem) return *problem;
    return skin;
}

Result<ArtPtr> Derivations::art(const Job& job, std::size_t index) {
    const Result<SkinPtr> body = skin(job);
    if (!body) return body.error();
    const ElementPtr& element = job.pattern->elements[index];
    std::optional<Error> problem;
    ArtPtr art = arts_.get({job.blank, element}, std::to_string(index), [&]() -> ArtPtr {
        Result<ElementArt> drawn = drawElement(**body, job.blank->landmarks, *element,
                                               "pattern.elements[" + std::to_string(index) + "]");
        if (drawn) {
            warnOfBareSkin(allZones(**body, *job.blank), *drawn);
            return std::make_shared<const ElementArt>(std::move(*drawn));
        }
        problem = drawn.error();
        return nullptr;
    });
    if (problem) return *problem;
    return art;
}

Result<ArtPtr> Derivations::artAtAGlance(const Job& job, std::size_t index) {
    const Result<SkinPtr> body = skin(job);
    if (!body) return body.error();
    const ElementPtr& element = job.pattern->elements[index];
    if (ArtPtr exact = arts_.find({job.blank, element}, std::to_string(index))) return exact;
    Result<ElementArt> drawn =
        drawElement(**body, job.blank->landmarks, *element, "pattern.elements[" + std::to_string(index) + "]",
                    Fineness::Glance);
    if (!drawn) return drawn.error();
    return std::make_shared<const ElementArt>(std::move(*drawn));
}

std::vector<const ElementArt*> Derivations::Sources::artPointers() const {
    std::vector<const ElementArt*> pointers;
    for (const ArtPtr& a : art) pointers.push_back(a.get());
    return pointers;
}

Result<Derivations::Sources> Derivations::sourcesOf(const Job& job, const MaskSpec& spec, Fineness fineness) {
    const Result<SkinPtr> body = skin(job);
    if (!body) return body.error();
    Sources from{*body, {}, {job.blank}, 0};
    for (const std::string& id : spec.elements) {
        const auto& elements = job.pattern->elements;
        const auto found =
            std::find_if(elements.begin(), elements.end(), [&](const auto& e) { return e->id == id; });
        if (found == elements.end()) {
            return Error{"unknown_element", "There is no element \"" + id + "\" in the pattern.",
                         "masks." + spec.id};
        }
        const auto index = static_cast<std::size_t>(found - elements.begin());
        Result<ArtPtr> drawn = fineness == Fineness::Cut ? art(job, index) : artAtAGlance(job, index);
        if (!drawn) return drawn.error();
        from.keys.push_back(*found);
        from.art.push_back(std::move(*drawn));
    }
    const auto material = findMaterial(spec.material);
    if (from.art.empty() || !material) {
        return Error{"bad_value", "The mask \"" + spec.id + "\" has no elements or an unknown material.",
                     "masks." + spec.id};
    }
    from.strainLimit = material->strainLimit;
    return from;
}

Result<std::vector<ArtPtr>> Derivations::artOf(const Job& job, const MaskSpec& spec) {
    Result<Sources> from = sourcesOf(job, spec);
    if (!from) return from.error();
    return std::move(from->art);
}

Result<MaskPtr> Derivations::cutLeft(const Job& job, const MaskSpec& spec, const Sources& from, int vertices,
                                     Precision precision, const Task& task) {
    std::optional<Error> problem;
    const auto cutIt = [&]() -> MaskPtr {
        Result<Mask> made = cutMask(*from.skin, job.blank->landmarks, from.artPointers(), spec,
                                    from.strainLimit, vertices, precision, "masks." + spec.id, task);
        if (made) return std::make_shared<const Mask>(std::move(*made));
        problem = made.error();
        return nullptr;
    };
    // Previews are drawn once, while something is dragged: nobody asks for them again.
    const MaskPtr cut =
        precision == Precision::Preview ? cutIt() : cuts_.get(from.keys, solveKey(spec, vertices), cutIt);
    if (problem) return *problem;
    return cut;
}

MaskPtr Derivations::onSideOf(const MaskSpec& spec, const MaskPtr& left) {
    if (spec.side == Side::Left) return left;
    return mirrored_.get({left}, "", [&] { return std::make_shared<const Mask>(mirrored(*left)); });
}

Result<MaskPtr> Derivations::cutOnly(const Job& job, const MaskSpec& spec, Precision precision,
                                     const Task& task) {
    const Result<Sources> from =
        sourcesOf(job, spec, precision == Precision::Exact ? Fineness::Cut : Fineness::Glance);
    if (!from) return from.error();
    const int vertices = precision == Precision::Exact ? kFitVertices : kPreviewVertices;
    const Result<MaskPtr> left = cutLeft(job, spec, *from, vertices, precision, task);
    if (!left) return left.error();
    return onSideOf(spec, *left);
}

Result<MaskPtr> Derivations::mask(const Job& job, const MaskSpec& spec, int vertices, const Task& task) {
    const Result<Sources> from = sourcesOf(job, spec);
    if (!from) return from.error();
    std::optional<Error> problem;
    MaskPtr left = masks_.get(from->keys, solveKey(spec, vertices), [&]() -> MaskPtr {
        const Result<MaskPtr> cut = cutLeft(job, spec, *from, vertices, Precision::Exact, task);
        Result<Mask> made =
            cut ? judgedMask(*from->skin, from->artPointers(), spec, **cut, task) : Result<Mask>(cut.error());
        if (made) {
            made->report.relief_mm = deepestUnder(job.blank->zones, from->artPointers());
            return std::make_shared<const Mask>(std::move(*made));
        }
        problem = made.error();
        return nullptr;
    });
    if (problem) return *problem;
    return onSideOf(spec, left);
}

std::vector<MaskResult> Derivations::masks(const Job& job, int vertices, const Task& task) {
    std::vector<MaskResult> results;
    for (const MaskSpecPtr& spec : maskSpecs(job)) results.push_back({spec, Task::cancelledError()});
    // Twins of the two sides share one solution: solve one of each first, then the others come from memory.
    std::vector<std::size_t> first, second;
    for (std::size_t i = 0; i < results.size(); ++i) {
        const MaskSpec& spec = *results[i].spec;
        const bool seen = std::any_of(first.begin(), first.end(), [&](std::size_t j) {
            const MaskSpec& other = *results[j].spec;
            return other.elements == spec.elements && solveKey(other, vertices) == solveKey(spec, vertices);
        });
        (seen ? second : first).push_back(i);
    }
    std::atomic<std::size_t> done{0};
    for (const auto& group : {first, second}) {
        forEachInParallel(group.size(), [&](std::size_t k) {
            MaskResult& result = results[group[k]];
            if (!task.cancelled()) result.mask = mask(job, *result.spec, vertices, task);
            task.progress(static_cast<double>(++done) / static_cast<double>(results.size()));
        });
    }
    return results;
}

Piece pieceOf(const Job& job, const MaskSpec& spec, const Mask& mask) {
    Piece piece;
    piece.id = spec.id;
    piece.name = spec.shownName();
    piece.side = sideLetter(spec.side);
    piece.outline = mask.outline;
    for (const Window& window : mask.windows) piece.windows.push_back({window.element, window.outline});
    const Vec2 middle = centroid(mask.outline);
    for (const RegistrationMark& mark : mask.marks) {
        for (Polyline2& stroke : crossMark(mark.flat, mark.name, middle - mark.flat)) {
            piece.pen.push_back(std::move(stroke));
        }
    }
    // Where the crosses' places come to lie when the sheet is moved for a second pass.
    double moved = 0;
    for (const ElementPtr& e : job.pattern->elements) {
        if (std::count(spec.elements.begin(), spec.elements.end(), e->id))
            moved = std::max(moved, pairShift_mm(*e));
    }
    if (moved > 0 && mask.marks.size() > 1) {
        const Vec2 nose = (mask.marks.front().flat - mask.marks.back().flat).normalized();
        const Vec2 across(-nose.y(), nose.x());
        for (const RegistrationMark& mark : mask.marks) {
            const Vec2 at = mark.flat + moved * nose;
            piece.pen.push_back({at - kTick_mm * across, at + kTick_mm * across});
        }
    }
    const std::string side(1, piece.side);
    writeLabel(piece, {{upperCase(shortened(piece.name)) + " " + side, upperCase(shortened(job.blank->name))},
                       Vec2(spec.side == Side::Left ? -1 : 1, 0)});
    return piece;
}

std::string markSentence(const RegistrationMark& mark) {
    const std::string name(1, mark.name);
    if (mark.landmark.empty()) {
        return name + " at x " + fixedText(mark.skin.x(), 1) + " mm, " +
               fixedText(std::abs(mark.skin.y()), 1) + " mm " + (mark.skin.y() >= 0 ? "above" : "below") +
               " the datum line";
    }
    return name + " " + fixedText(mark.distance_mm, 1) + " mm from the " + spokenName(mark.landmark);
}

std::string verdictOf(const MaskSpec& spec, const FitReport& report) {
    const auto percent = [](double v) { return fixedText(100 * v, v < 0.01 ? 2 : 1) + " %"; };
    const std::string name = (spec.shownName()) + " " + sideLetter(spec.side);
    std::string material(findMaterial(spec.material)->name);
    material[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(material[0])));
    const std::string stretch = "stretch " + percent(report.strainFeasibleMax) + ", " + material + " takes " +
                                percent(report.strainLimit);
    if (!report.liesFlat) {
        return name + " cannot lie flat (" + stretch + "); it stands off by up to " +
               fixedText(report.lift_mm, 1) +
               " mm. No relief cuts are planned yet: split the mask or take a softer sheet.";
    }
    const std::string traced = report.tracedKnown
                                   ? "would be off by up to " + fixedText(report.traced.max_mm, 2) + " mm."
                                   : std::string("cannot be laid at all.");
    return name + " lies flat (" + stretch + ") and lands within " +
           fixedText(std::max(0.01, report.landing.max_mm), 2) + " mm; traced from the side it " + traced;
}

}  // namespace nine
