// Masks: from the outlines of art on the skin to a flat stencil with windows and registration marks.
//
// A mask covers its art and a margin round it. Solved once on the left side; mirrored() gives the right-hand
// one (the sheet seen from outside, turned over along the body).
#pragma once

#include <memory>

#include "blank/landmarks.h"
#include "geom/polygon_set.h"
#include "mask/fit.h"
#include "pattern/art.h"

namespace nine {

enum class Apply { Loose, Lateral, Back };  ///< how the sheet is laid on: see Laying
Laying layingOf(Apply apply);
const char* applyName(Apply apply);

struct MaskSpec {
    std::string id;
    std::string name;                   ///< as shown and written on the sheet
    std::vector<std::string> elements;  ///< ids
    Side side = Side::Left;
    std::string material = "film";
    Apply apply = Apply::Loose;
    double margin_mm = 6;  ///< of sheet round the art, against overspray
    std::string unknownJson;

    const std::string& shownName() const { return name.empty() ? id : name; }
};
using MaskSpecPtr = std::shared_ptr<const MaskSpec>;

constexpr double kMinMargin_mm = 1, kMaxMargin_mm = 60;

/// An opening. Outlines that touch, of whatever elements, are one window; sheet that stands free inside it is
/// an island, which falls out when the window is cut.
struct Window {
    std::string element;  ///< the first of those that made it
    Vec2 centre;          ///< centre of area on the sheet, islands taken out, mm
    double area_mm2;      ///< islands taken out
    Polygon2 outline;     ///< on the sheet, counter-clockwise
    PolygonSet islands;   ///< clockwise
};

/// A place on the sheet that must lie on a known place of the body.
struct RegistrationMark {
    char name;             ///< 'A' at the nose end, 'B' at the tail end
    Vec2 skin;             ///< x, g
    Vec2 flat;             ///< on the sheet
    std::string landmark;  ///< nearest one that can be seen or felt; empty if the blank has none
    double distance_mm;    ///< to it, along the skin
    double behind_mm = 0,
           above_mm = 0;  ///< the same as steps along the body and round it; from nose and axis without
};

struct Mask {
    std::shared_ptr<const FlatPatch> flat;  ///< of the left side; shared by all that came from it
    FlatMap map;                            ///< its map as this sheet lies: turned over on the right
    Polygon2 outline;                       ///< of the sheet, corners rounded
    std::vector<Window> windows;
    std::vector<RegistrationMark> marks;
    double moved_mm = 0;  ///< the sheet is moved so far for its last pass; 0: sprayed once
    FitReport report;
    Warnings warnings;  ///< of the mask itself, its art has its own; places count from the mask
};

/// How good the flat map of a mask is: conformal and rigid, for drawing while something is dragged, or
/// relaxed, as it is cut.
enum class Precision { Preview, Exact };

/// The mask as it is cut, not judged: of the report only vertices, strain and material limit are set.
/// Errors: those of meshPatch and flattenPatch. Cost: 0.1 s at 2000 vertices, a third of it as a preview.
Result<Mask> cutMask(const Skin& skin, const Landmarks& landmarks, const std::vector<const ElementArt*>& art,
                     const MaskSpec& spec, double strainLimit, int vertices, Precision precision,
                     const std::string& where, const Task& task = {});

/// The same mask with its whole report. Errors: those of judgeFit. Cost: 0.5-1 s at 2000 vertices.
Result<Mask> judgedMask(const Skin& skin, const std::vector<const ElementArt*>& art, const MaskSpec& spec,
                        Mask mask, const Task& task = {});

/// The border of a flat patch, counter-clockwise, corners rounded.
Polygon2 borderOf(const FlatPatch& flat);

/// The other side's mask.
Mask mirrored(Mask mask);

/// The patch a mask of this art needs: the box round it and the margin, kept off the tips of the body.
BandPatch patchAround(const Skin& skin, const std::vector<const ElementArt*>& art, double margin_mm,
                      const std::string& where, Warnings& warnings);

}  // namespace nine
