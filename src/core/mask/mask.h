// Masks: from the outlines of art on the skin to flat stencils with windows and registration marks.
//
// What sheets a mask has and which skin they cover is its kind's to say (mask/mask_kind.h). Solved once on
// the left side; mirrored() gives the right-hand one (the sheets seen from outside, turned over along the
// body).
#pragma once

#include <memory>

#include "base/units.h"
#include "blank/landmarks.h"
#include "geom/polygon_set.h"
#include "mask/fit.h"
#include "mask/mask_spec.h"
#include "pattern/art.h"

namespace nine {

/// An opening. Outlines that touch, of whatever elements, are one window; sheet that stands free inside it is
/// an island, which falls out when the window is cut.
struct Window {
    std::string element;  ///< the first of those that made it
    SheetPlace centre;    ///< centre of area, islands taken out, mm
    double area_mm2;      ///< islands taken out
    Polygon2 outline;     ///< on the sheet, counter-clockwise
    PolygonSet islands;   ///< clockwise
    SkinPlace skin;       ///< the middle of the outlines that made it
    Box2 reach;           ///< of them, in x, g
    int number = 0;       ///< 1 .. n over all sheets of the mask: what is cut out is kept by it
};

/// A strip of sheet left standing in a window.
struct Bridge {
    SkinPlace skin;  ///< its middle
    SheetPlace flat;
};

/// A place on the sheet that must lie on a known place of the body.
struct RegistrationMark {
    char name;  ///< 'A' at the nose end, and on towards the tail
    SkinPlace skin;
    SheetPlace flat;
    std::string landmark;  ///< nearest one that can be seen or felt; empty if the blank has none
    double distance_mm;    ///< to it, along the skin
    double behind_mm = 0,
           above_mm = 0;  ///< the same as steps along the body and round it; from nose and axis without
};

/// A slit as it lies on the sheet: the wedge between its lips is cut away, but for a lap where there is room.
struct SlitOnSheet {
    Slit skin;                ///< as it was asked for, its mouth on the border
    Polyline2 lip, otherLip;  ///< on the sheet, from the mouth to the tip
    double mouth_mm;          ///< how far it opens; negative where the lips would lie over each other
    bool lapped;              ///< kLap_mm of sheet are left beyond `lip`, to go under the other one
};

/// Two fingers hold the sheet down here (mask/press.h), above and below its windows.
struct PressArea {
    int number;                ///< 1 .. n of a sheet, in the order they are pressed
    double x_mm;               ///< along the body
    double width_mm;           ///< tight so far along it
    std::vector<int> windows;  ///< their numbers
    bool part;                 ///< only a part of its window: sprayed in several goes
    struct Finger {
        SkinPlace skin;
        SheetPlace flat = {};
    };
    std::vector<Finger> fingers;  ///< above and below its windows, where there is sheet
};

/// One of the places that a card is laid at.
struct CardStep {
    int number;       ///< 1 .. n from the nose
    SkinPlace first;  ///< the middle of the first of its windows there
    int windows;      ///< how many of its windows are sprayed there
    double off_mm;    ///< how far the rims of its windows lie from those drawn there, at worst, laid best
};

/// One piece of sheet.
struct Sheet {
    std::shared_ptr<const FlatPatch> flat;  ///< of the left side; shared by all that came from it
    FlatMap map;                            ///< its map as this sheet lies: turned over on the right
    Polygon2 outline;                       ///< corners rounded
    PolygonSet holes;                       ///< where no sheet is, clockwise
    std::vector<Window> windows;
    std::vector<RegistrationMark> marks;
    std::vector<SlitOnSheet> slits;
    std::vector<Bridge> bridges;
    std::vector<SheetPlace> ticks;  ///< on its edge: what was painted last must come to lie between them
    std::vector<CardStep> steps;    ///< of a card that is laid several times
    std::vector<PressArea> press;   ///< of a judged sheet that does not stick; else none
    double compensated_mm =
        0;  ///< rms it would land off, stuck on, had it not been changed for that; 0: not changed
    FitReport report;
};

struct Mask {
    std::vector<Sheet> sheets;  ///< at least one
    double moved_mm = 0;        ///< the sheets are moved so far for their last pass; 0: sprayed once
    Warnings warnings;          ///< of the mask itself, its art has its own; places count from the mask

    /// Of all its sheets together: the worst of each figure, without what stands for single places.
    FitReport report() const;
};

/// How good the flat map of a mask is: conformal and rigid, for drawing while something is dragged, or
/// relaxed, as it is cut.
enum class Precision { Preview, Exact };

/// The mask as it is cut, not judged: of the reports only vertices, strain and material limit are set.
/// `vertices` are those of a sheet. Errors: those of its kind, of meshPatch and flattenPatch; unknown_kind;
/// off_sheet, when art reaches beyond its sheet. Cost: 0.3 s a sheet with windows at 2400
/// vertices, 0.1 s without, 0.03 s as a preview.
Result<Mask> cutMask(const Skin& skin, const Landmarks& landmarks, const OpenedArt& art, const MaskWish& wish,
                     Fraction strainLimit, int vertices, Precision precision, const std::string& where,
                     const Task& task = {});

/// The same for sheets that were planned elsewhere.
Result<Mask> cutSheets(const Skin& skin, const Landmarks& landmarks, const std::vector<SheetPlan>& plans,
                       Fraction strainLimit, int vertices, Precision precision, const std::string& where,
                       const Task& task = {}, Laying laying = Laying::Loose);

/// The same mask with its whole reports. Errors: those of judgeFit. Cost: 0.5-1 s a sheet at 2000 vertices.
Result<Mask> judgedMask(const Skin& skin, const std::vector<const ElementArt*>& art, const MaskWish& wish,
                        Mask mask, const Task& task = {});

/// Of an outline: a sharp corner of sheet lifts first.
constexpr double kCornerRadius_mm = 2;

/// A window nearer to the edge than this is open to it.
constexpr double kOpenToEdge_mm = 0.12;

/// The borders of a flat patch: the outer one counter-clockwise with its corners rounded, holes clockwise.
/// Openings that are open to the edge, of those given, are no notches in it.
PolygonSet bordersOf(const FlatPatch& flat, const PolygonSet& openings = {});

/// How far each sheet is moved to draw all of a mask beside one another without touching; nothing for the
/// first.
std::vector<Vec2> sideBySide(const Mask& mask);
/// Around the outlines of all sheets when they are drawn so.
Box2 boxSideBySide(const Mask& mask);

/// The other side's.
Sheet mirrored(Sheet sheet);
Mask mirrored(Mask mask);

}  // namespace nine
