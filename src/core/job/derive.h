// Everything that follows from a job: skin, art, masks, pieces, pages. Pure functions of what they read,
// remembered by stage, so that moving one dot row solves one mask again and a right-hand mask costs nothing
// beside its left twin.
//
// What is remembered hangs on values alone, never on where they stand in the job: moving, adding or taking
// out one element draws no other again, and places in errors and warnings are put in when they are handed
// out.
//
// One Derivations object serves one document (or one run of the command line) and may be asked from several
// threads. Errors are those of the rooms below, with field paths of the job file.
#pragma once

#include <functional>

#include "base/memo.h"
#include "base/task.h"
#include "base/units.h"
#include "cut/layout.h"
#include "job/job.h"
#include "mask/material_answer.h"

namespace nine {

using SkinPtr = std::shared_ptr<const Skin>;
using ArtPtr = std::shared_ptr<const ElementArt>;
using MaskPtr = std::shared_ptr<const Mask>;

/// One mask of the job and what became of it.
struct MaskResult {
    MaskSpecPtr spec;
    Result<MaskPtr> mask;
    Warnings warnings = {};  ///< of the mask and its art, with their places in this job
};

constexpr int kPreviewVertices = 300;

class Derivations {
  public:
    /// `vertices` of each mask where exactness is asked for; fewer are as good for looking at how things go
    /// together.
    explicit Derivations(int vertices = kFitVertices);
    int vertices() const { return vertices_; }

    Result<SkinPtr> skin(const Job& job);

    /// Art of the element at `index` of the pattern, on the left side; of one whose sides each have their
    /// own, the art of `side`, as it would lie on the left. What it is derived from and keeps clear of is
    /// drawn first. Errors also: circle, cancelled.
    Result<ArtPtr> art(const Job& job, std::size_t index, Side side = Side::Left, const Task& task = {});
    /// The same, sampled for a glance unless the exact one is already there.
    Result<ArtPtr> artAtAGlance(const Job& job, std::size_t index, Side side = Side::Left,
                                const Task& task = {});
    /// Whether the right side has art of its own, which is not the left's mirror image.
    bool differsBySide(const Job& job, std::size_t index) const;
    /// The exact art, if it is remembered.
    ArtPtr artIfKnown(const Job& job, std::size_t index, Side side = Side::Left);

    /// Art of all elements a mask opens.
    Result<std::vector<ArtPtr>> artOf(const Job& job, const MaskSpec& spec);

    Result<MaskPtr> mask(const Job& job, const MaskSpec& spec, int vertices = kFitVertices,
                         const Task& task = {});
    /// Of a mask that was made from this job, and of the art in it, with their places.
    Warnings warnings(const Job& job, const MaskSpec& spec, const Mask& mask);

    /// The mask as it is cut, without its verdict: soon there, for drawing. A preview has kPreviewVertices.
    Result<MaskPtr> cutOnly(const Job& job, const MaskSpec& spec, Precision precision, const Task& task = {});

    /// How each material can lie where this mask is, windows and bare places kept clear of slits; in the
    /// order of sheetMaterials(), on all cores. Empty for a mask whose outline no slits can be planned on.
    /// Cost: up to 3 s of a core for each that cannot lie plain.
    Result<std::vector<MaterialAnswer>> answers(const Job& job, const MaskSpec& spec, const Task& task = {});
    /// The one for the mask's own material.
    Result<MaterialAnswer> answer(const Job& job, const MaskSpec& spec, const Task& task = {});

    /// All masks in force, in order; solved on all cores. Cost: 0.5-1 s a mask on one core. `finished(i,
    /// result)` is called for each as it comes, one at a time, on a worker's thread.
    std::vector<MaskResult> masks(const Job& job, int vertices = kFitVertices, const Task& task = {},
                                  const std::function<void(std::size_t, const MaskResult&)>& finished = {});

  private:
    /// What a mask is solved from besides skin and art. Its side, name and id play no part.
    struct Solved {
        MaskWish wish;
        int vertices;
        bool otherSide;  ///< from art of the right side's own
        bool operator==(const Solved&) const = default;
    };
    struct Sources {  ///< what a mask is made from
        SkinPtr skin;
        std::vector<ArtPtr> art;
        std::vector<std::shared_ptr<const void>> keys;
        Fraction strainLimit;
        bool otherSide;                  ///< the right side's own art
        std::vector<ArtPtr> right = {};  ///< the same elements on the right, of masks for both sides
        PolygonSet uncovered = {};       ///< what no sheet lies over
        std::vector<const ElementArt*> artPointers() const;
        OpenedArt opened() const;
    };
    Result<Sources> sourcesOf(const Job& job, const MaskSpec& spec, Fineness fineness = Fineness::Cut);
    /// Of the left side, whichever side the spec is for.
    Result<MaskPtr> cutLeft(const Job& job, const MaskSpec& spec, const Sources& from, int vertices,
                            Precision precision, const Task& task);
    void makeRoomFor(const Job& job);
    MaskPtr onSideOf(const MaskSpec& spec, const MaskPtr& left);

    struct Drawing {
        bool otherSide;
        bool operator==(const Drawing&) const = default;
    };
    /// Elements that the one at `index` rests on, itself last, each after those it rests on itself.
    Result<std::vector<std::size_t>> needsOf(const Job& job, std::size_t index) const;
    Result<ArtPtr> draw(const Job& job, const std::vector<std::size_t>& needs, Side side, Fineness fineness,
                        const Task& task);
    /// What art is remembered by: the body and all elements it rests on.
    std::vector<std::shared_ptr<const void>> keysOf(const Job& job,
                                                    const std::vector<std::size_t>& needs) const;
    Result<MaterialAnswer> answerFor(const Job& job, const MaskSpec& spec, Fraction limit, const Task& task);
    /// Places no paint goes, on all the skin that art may use.
    std::shared_ptr<const std::vector<BarePlace>> bareOf(const Job& job, const Skin& skin);

    int vertices_;
    Memo<Skin> skins_;
    Memo<std::vector<BarePlace>> bares_;
    Memo<ElementArt, Drawing> arts_, glances_;
    Memo<Mask, Solved> cuts_, masks_;
    Memo<Mask> mirrored_;
};

/// What is solved of a mask: its wish, its bridges as wide as material and tool ask for where nothing is
/// said.
MaskWish wishOf(const Job& job, const MaskSpec& spec);

/// The pieces that a mask is cut from, one a sheet, marked and labelled. The id of the first is the mask's,
/// then "ID/2", "ID/3".
std::vector<Piece> piecesOf(const Job& job, const MaskSpec& spec, const Mask& mask);

/// One sentence on the mask: whether it lies, and where the art lands.
Words verdictOf(const MaskSpec& spec, const FitReport& report);

/// "A 12.4 mm behind the gill plate", "B 3.0 mm ahead of and 4.2 mm above the tail root".
Words markSentence(const RegistrationMark& mark);

}  // namespace nine
