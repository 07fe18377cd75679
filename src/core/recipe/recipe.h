// A recipe: the ordered steps, and what is known of the body and its tools when it is judged.
#pragma once

#include <functional>
#include <optional>

#include "recipe/painted.h"

namespace nine {

enum class School { LightToDark, BackFirst };

struct Recipe {
    std::vector<Step> steps;
    std::vector<std::string> accepted;  ///< rules the painter has read and lets stand, by id
    bool operator==(const Recipe&) const = default;
};

/// An id no step has yet, from a word: "base", "base-2", ...
std::string freshId(const Recipe& recipe, const std::string& word);
std::size_t placeOf(const Recipe& recipe, std::string_view id);  ///< steps.size() when there is none

/// A mask that is laid on the body.
struct MaskFact {
    std::string id, name;
    std::vector<std::string> elements;
    std::vector<std::string> colours;  ///< of the passes sprayed through it, "#rrggbb"
    bool keepsCutouts = false, tape = false;
    Lab colour;
    bool right = false;  ///< of the right side
    std::string twin;    ///< id of the same mask of the other side
};
/// A mark that no mask is cut for: a fade, a shade, a line drawn by hand.
struct SoftFact {
    std::string id, name, colour;
};

struct RecipeFacts {
    bool bill = false, sockets = false, hookEyes = false, hinge = false, slits = false, hollow = false;
    double socket_mm = 0;
    std::vector<MaskFact> masks;        ///< in the order they are drawn
    std::vector<SoftFact> soft;         ///< likewise
    std::vector<std::string> elements;  ///< all ids
    std::vector<std::string> drawn;  ///< ids of soft elements and masks as the pattern has them, lowest first
    bool net = false, fabricNet = false;
    double needle_mm = 0.3;                           ///< of the gun; 0: not known
    std::string groundBack, groundSide, groundBelly;  ///< the design's ground, "#rrggbb"; empty: bare
    Bands blank = evenBands(0.45);
    std::vector<Bottle> paints;  ///< those the job knows
};

/// What is under a step where it reaches, before it, averaged over its cover; and what it makes of it.
struct OverWhat {
    Lab ground, after;
    Coated groundPlace = {}, afterPlace = {};  ///< one place that looks like them
};
using OverWhatAt = std::function<std::optional<OverWhat>(std::size_t step)>;
/// From colours worked out for the whole body. Cost of a call: a pass over its places.
OverWhatAt overWhat(const Painted& painted, const std::vector<std::shared_ptr<const Cover>>& covers);

}  // namespace nine
