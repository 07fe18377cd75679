// blank measure, blank distance
#include "base/number_text.h"
#include "blank/measure.h"
#include "cli/args.h"
#include "cli/body.h"
#include "cli/verbs.h"

namespace nine::cli {
namespace {

std::string figure(const std::string& name, double value, int decimals, const std::string& unit) {
    std::string number = fixedText(value, decimals);
    if (number.size() < 12) number.insert(0, 12 - number.size(), ' ');
    return name + std::string(name.size() < 18 ? 18 - name.size() : 1, ' ') + number + " " + unit + "\n";
}

}  // namespace

Result<Reply> blankMeasure(const Words& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"at"}, {}, 1);
    if (!args) return args.error();
    const Result<Body> body = loadBody(args->word(0));
    if (!body) return body.error();

    std::vector<double> places;
    if (const auto at = args->value("at")) {
        Result<std::vector<double>> numbers = parseNumbers(*at, "--at");
        if (!numbers) return numbers.error();
        places = std::move(*numbers);
    } else {
        for (const Station& s : body->job.blank->table.stations) places.push_back(s.x_mm);
    }
    const BodyMeasure m = measureBody(body->skin);
    Reply reply;
    reply.json = Json{{"length_mm", m.length_mm},   {"height_mm", m.height_mm},
                      {"width_mm", m.width_mm},     {"area_mm2", m.area_mm2},
                      {"volume_mm3", m.volume_mm3}, {"curvature_total_rad", m.curvatureTotal_rad},
                      {"girths", Json::array()}};
    reply.text = figure("length", m.length_mm, 2, "mm") + figure("height", m.height_mm, 2, "mm") +
                 figure("width", m.width_mm, 2, "mm") + figure("skin area", m.area_mm2, 1, "mm2") +
                 figure("volume", m.volume_mm3, 1, "mm3") +
                 figure("total curvature", m.curvatureTotal_rad, 4, "rad");
    for (const double x : places) {
        const Result<double> girth = girthAt(body->skin, x, "--at");
        if (!girth) return girth.error();
        reply.json["girths"].push_back({{"x_mm", x}, {"girth_mm", *girth}});
        reply.text += figure("girth at " + fixedText(x, 1), *girth, 2, "mm");
    }
    reply.json["warnings"] = warningsJson(body->warnings);
    reply.text += warningsText(body->warnings);
    return reply;
}

Result<Reply> blankDistance(const Words& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"from", "to"}, {}, 1);
    if (!args) return args.error();
    std::vector<SkinPoint> points;
    for (const char* flag : {"from", "to"}) {
        const Result<std::string> text = args->need(flag);
        if (!text) return text.error();
        const Result<SideNumbers> point = parseSideNumbers(*text, 2, std::string("--") + flag);
        if (!point) return point.error();
        points.push_back(
            {point->side == 'L' ? Side::Left : Side::Right, point->numbers[0], point->numbers[1]});
    }
    const Result<Body> body = loadBody(args->word(0));
    if (!body) return body.error();
    const Result<Geodesic> way = shortestWay(body->skin, points[0], points[1]);
    if (!way) return way.error();
    Reply reply;
    reply.json = Json{{"distance_mm", way->length_mm}, {"warnings", warningsJson(body->warnings)}};
    reply.text =
        "Along the skin it is " + fixedText(way->length_mm, 3) + " mm.\n" + warningsText(body->warnings);
    return reply;
}

}  // namespace nine::cli
