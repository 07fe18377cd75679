// The job: one immutable value that holds all a painter has decided, in chapters.
//
// Chapters, elements and mask specs are shared and never changed: an edit makes a new Job that shares all it
// did not touch, so what changed between two jobs is pointer inequality.
#pragma once

#include <memory>

#include "blank/zones.h"
#include "cut/layout.h"
#include "mask/mask.h"
#include "spray/plan.h"

namespace nine {

constexpr int kJobFormat = 1;

/// The picture a body was read from, to be laid under its drawing: a reduced copy, and where it lies.
struct BackPicture {
    std::string file;       ///< name of the file it came from, for people
    std::string hash;       ///< of that file's bytes, to tell whether it is still the same
    std::string jpeg;       ///< the copy, up to kMostPictureBytes
    Vec2 nose_px, tail_px;  ///< of the copy, where the ends of the body lie
    bool fromAbove = false;
    std::string unknownJson = {};
};
using BackPicturePtr = std::shared_ptr<const BackPicture>;
constexpr std::size_t kMostPictureBytes = 2u << 20;

/// A part of rubber that is put on later: never painted, in no area, no mask reaches over it.
struct SoftTail {
    double length_mm = 0, height_mm = 0;
    std::string unknownJson = {};
};

struct BlankChapter {
    std::string name;
    StationTable table;
    Landmarks landmarks;
    std::string unknownJson;  ///< keys of the file that this version does not know; also below
    std::vector<Zone> zones;
    std::string family;  ///< of bodyFamilies(); empty when nobody said
    std::string source;  ///< "tracing", "photo", "family", "readings"; empty when nobody said
    std::vector<BackPicturePtr> pictures;
    SoftTail softTail;
};

/// What no paint and no mask may disregard: the zones drawn, and those that follow from landmarks.
std::vector<Zone> allZones(const Skin& skin, const BlankChapter& blank);

struct PatternChapter {
    std::string name;
    std::string groundBack, groundSide, groundBelly;  ///< "#rrggbb" of the body under the marks; empty: bare
    std::vector<ElementPtr> elements;
    std::string unknownJson, groundUnknownJson;
};

/// Given masks; with none, every element gets one on each side it stands on.
struct MasksChapter {
    std::vector<MaskSpecPtr> masks;
};

/// The sheet pieces are cut from, and where they were put by hand.
struct CutChapter {
    SheetSize sheet;
    std::vector<PiecePlace> places;
    std::string unknownJson, sheetUnknownJson;
};

/// How one mask is sprayed: what it shall look like, and what the painter has settled.
struct SpraySpec {
    std::string mask;  ///< id
    std::string paint = "opaque";
    std::optional<double> soft_mm;  ///< an edge of this width; without it a sharp one
    double pads_mm = 0;             ///< held off on purpose
    double relief_mm = 0;           ///< depth of carving under the mask
    SprayPins pins;
    std::string unknownJson, unknownPinsJson;
};

struct SprayChapter {
    std::vector<SpraySpec> masks;  ///< those that differ from the usual
};

constexpr std::ptrdiff_t kMostNameLetters = 200;
constexpr double kSharp_mm = 0.2, kSoftest_mm = 20, kMostPads_mm = 20, kMostRelief_mm = 5;

using CutPtr = std::shared_ptr<const CutChapter>;
using BlankPtr = std::shared_ptr<const BlankChapter>;
using PatternPtr = std::shared_ptr<const PatternChapter>;
using SprayPtr = std::shared_ptr<const SprayChapter>;
using MasksPtr = std::shared_ptr<const MasksChapter>;

struct Job {
    BlankPtr blank = std::make_shared<const BlankChapter>();
    PatternPtr pattern = std::make_shared<const PatternChapter>();
    MasksPtr masks = std::make_shared<const MasksChapter>();
    CutPtr cut = std::make_shared<const CutChapter>();
    SprayPtr spray = std::make_shared<const SprayChapter>();
    std::string unknownJson;

    bool operator==(const Job&) const = default;  ///< the same values shared, not merely equal ones
};

Job withBlank(Job job, BlankChapter blank);
Job withElement(Job job, std::size_t index, Element element);
Job withCut(Job job, CutChapter cut);
/// The piece stands where it is given; a place given before is replaced.
Job withPlace(const Job& job, PiecePlace place);
/// All pieces put by hand stand where these pages have them, the piece of this index too: page numbers of the
/// job and of the pages are the same then.
Job withPlacesOf(const Job& job, const CutPages& pages, std::size_t index);
Job withMasks(Job job, std::vector<MaskSpecPtr> masks);

/// What is said of spraying a mask; a spec of its own if nothing was said.
SpraySpec sprayOfMask(const Job& job, const std::string& mask);
/// Replaces what is said of the mask it names.
Job withSpray(const Job& job, SpraySpec spec);
/// Given masks brought in step with the pattern: elements that are gone, or do not stand on a mask's side,
/// are taken out of it, masks without any and what is said of spraying them too; an element that no mask
/// opens on a side it stands on gets one there, like its mask of the other side. Call after elements were
/// added, taken out, linked or unlinked. Does nothing to jobs without masks of their own, but for lost
/// sprays.
Job withMasksInStep(const Job& job);

/// The mask specs in force: those given, or one film mask, held loose, per element and side.
std::vector<MaskSpecPtr> maskSpecs(const Job& job);

/// What the numbers cannot say by themselves: ids unique, masks name elements and sprays masks that exist.
/// Errors with field paths.
Status checkJob(const Job& job);

}  // namespace nine
