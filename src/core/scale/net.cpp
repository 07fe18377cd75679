#include "scale/net.h"

#include <algorithm>
#include <cmath>

#include "scale/limits.h"

namespace nine {

const std::vector<Net>& netsOfCatalogue() {
    const auto hexagons = [](const char* id, const char* name, double across, double strand, double k) {
        Net net;
        net.id = id;
        net.name = name;
        net.along_mm = std::round(across * 200 / std::sqrt(3.0)) / 100;
        net.across_mm = across;
        net.strand_mm = strand;
        net.stiffness_n_m = k;
        return net;
    };
    static const std::vector<Net> nets = [&] {
        std::vector<Net> all{hexagons("tulle-1.2", "Tulle 1.2", 1.2, 0.10, 1800),
                             hexagons("tulle-1.6", "Tulle 1.6", 1.6, 0.12, 2000),
                             hexagons("tulle-2.4", "Tulle 2.4", 2.4, 0.16, 2200)};
        const auto add = [&](Net net) { all.push_back(std::move(net)); };
        add({"grid-2.0", "Grid fabric 2.0", Weave::Square, 2, 2, 0.22, 4000, 40, 0.12, 0.12, 0.9, 700, 6,
             false, true});
        add({"diamond-3.0", "Diamond fabric 3.0", Weave::Diamond, 3, 2.4, 0.25, 3500, 30, 0.3, 0.3, 1.0, 600,
             6, false, true});
        add({"bath-4.0", "Bath netting 4.0", Weave::Diamond, 4, 3.2, 0.35, 900, 10, 0.8, 0.8, 1.2, 500, 8,
             false, false});
        add({"craft-1.4", "Craft mesh 1.4", Weave::Square, 1.4, 1.4, 0.25, 9000, 120, 0.06, 0.06, 0.5, 1500,
             6, true, false});
        add({"craft-2.0", "Craft mesh 2.0", Weave::Square, 2, 2, 0.3, 9000, 120, 0.06, 0.06, 0.5, 1500, 7,
             true, false});
        return all;
    }();
    return nets;
}

std::optional<Net> findNet(std::string_view wanted) {
    for (const Net& net : netsOfCatalogue())
        if (net.id == wanted || net.name == wanted) return net;
    return std::nullopt;
}

const std::vector<WeaveName>& weaveNames() {
    static const std::vector<WeaveName> names{{Weave::Hexagon, "hexagon", NINE_WORDS("core", "hexagons")},
                                              {Weave::Square, "square", NINE_WORDS("core", "squares")},
                                              {Weave::Diamond, "diamond", NINE_WORDS("core", "diamonds")}};
    return names;
}

const WeaveName& nameOf(Weave weave) {
    return *std::find_if(weaveNames().begin(), weaveNames().end(),
                         [&](const WeaveName& n) { return n.weave == weave; });
}

Status checkNet(const Net& net, const std::string& path) {
    const auto within = [&](const char* field, double value, double low, double high) {
        return checkWithin(field, value, low, high, path);
    };
    if (net.id.empty() || net.name.empty())
        return Error{"bad_value", NINE_WORDS("core", "A net has an id and a name."), path};
    for (const Status& ok :
         {within("along_mm", net.along_mm, kSmallestCell_mm, kLargestCell_mm),
          within("across_mm", net.across_mm, kSmallestCell_mm, kLargestCell_mm),
          within("strand_mm", net.strand_mm, 0.01, 5), within("stiffness_n_m", net.stiffness_n_m, 10, 1e5),
          within("knot_n_m", net.knot_n_m, 0.1, 1e4), within("stretch_along", net.stretchAlong, 0.005, 5),
          within("stretch_across", net.stretchAcross, 0.005, 5), within("shear", net.shear, 0.01, 5),
          within("tear_n_m", net.tear_n_m, 1, 1e5), within("uses", net.uses, 1, 1000)})
        if (!ok) return ok;
    if (net.strand_mm >= 0.8 * std::min(net.along_mm, net.across_mm) / (net.weave == Weave::Square ? 1 : 1.6))
        return Error{
            "strand_too_thick",
            Words(
                NINE_WORDS("core", "Strands of {strand} leave nothing open in cells of {along} by {across}."))
                .length("strand", net.strand_mm, 2)
                .length("along", net.along_mm, 2)
                .length("across", net.across_mm, 2),
            (path.empty() ? "" : path + ".") + "strand_mm"};
    return Done{};
}

Net asFishnet(Net net) {
    net.stiffness_n_m = std::max(net.stiffness_n_m, 1e5);
    net.knot_n_m = net.stiffness_n_m * 1e-4;
    return net;
}

}  // namespace nine
