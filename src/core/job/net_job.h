// What follows from the scales chapter of a job: the net as it is draped and clipped, what is read off it,
// what is wrong with it, and the steps of putting it on.
#pragma once

#include "cut/drawing.h"
#include "job/job.h"
#include "scale/clipped.h"

namespace nine {

/// The wish of the job's net on this skin: its hook limits its reach. The job must have a net. Errors: those
/// of checkDrape with paths of the job file.
Result<DrapeWish> drapeWishOf(const Job& job, const Skin& skin);
ClipWish clipWishOf(const ScalesChapter& scales);
/// Of the gathered line: bill and hangers, x of their ends.
KeptClear clearOfFittings(const Job& job, const Skin& skin);
/// Carving of the blank as the net meets it.
ReliefAt reliefOf(const Job& job);

struct NetFlag {
    bool fault = false;  ///< or a caution
    Words words;
    double x_mm = 0, g_mm = 0;  ///< where
    std::optional<Clip> clip;   ///< would mend it
};

struct NetOnBody {
    DrapePtr drape;
    std::shared_ptr<const ClippedNet>
        clipped;  ///< null without clips, for a piece of the body, or when it failed
    std::optional<Error> clipError;
    NetReading reading;
    std::vector<NetFlag> flags;
};

/// The net of the job. `spacing_mm`: of the drape, kDrapePreview_mm for a preview, which is not clipped.
/// `known`: a drape of this skin; it is begun from, or kept when it is the one that is asked for. Clips that
/// cannot hold leave `clipped` null and stand in `clipError`. Errors: no_net, drapeWishOf's, drape's,
/// cancelled.
Result<NetOnBody> netOnBody(const Job& job, const Skin& skin, double spacing_mm = kDrapeSpacing_mm,
                            const DrapePtr& known = {}, const Task& task = {});

/// The same net, were its threads not to stretch at all: the farthest its cells could be changed. Cost: 0.5
/// s. Errors: as netOnBody.
Result<NetReading> fishnetOf(const Job& job, const Skin& skin, const Task& task = {});

/// How fuzzy scales get over a gap.
double blurOf_mm(double gap_mm);

/// Putting it on and taking it off, in order, with what else lies on the body.
std::vector<Words> netSteps(const Job& job, const NetReading& reading);

/// Length along the side from gill to tail root for counting scales.
double sideForScales_mm(const Job& job, const Skin& skin);

/// A strip of paper, true to size: a tick at each place, measured along the skin's middle line from the nose.
struct StripTick {
    double at_mm;
    std::string label;
};
Drawing stripPage(const std::string& title, const std::vector<std::string>& remarks,
                  const std::vector<StripTick>& ticks, double length_mm);
/// The clips along the belly (or back), to be laid along it from the nose.
Drawing clipStrip(const Job& job, const Skin& skin);
/// Ticks along the lateral line and, at each, the two lines as they lean on a flat panel.
Drawing foilStrip(const Job& job, const FoilLines& lines);

}  // namespace nine
