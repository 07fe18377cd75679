// blank measure, blank distance
#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "blank/compare.h"
#include "blank/measure.h"
#include "blank/string_girth.h"
#include "blank/wrap.h"
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

Result<Reply> blankMeasure(const Arguments& words, const Task&) {
    // In one piece: the reply, field by field.
    const Result<Args> args = Args::parse(words, {"at", "zone"}, {}, 1);
    if (!args) return args.error();
    const Result<Body> body = loadBody(args->word(0));
    if (!body) return body.error();

    std::vector<double> places;
    if (const auto at = args->value("at")) {
        Result<std::vector<double>> numbers = parseNumbers(*at, "--at");
        if (!numbers) return numbers.error();
        places = std::move(*numbers);
    } else {
        for (const Station& s : body->job.get<BlankChapter>().table.stations) places.push_back(s.x_mm);
    }
    const BodyMeasure m = measureBody(body->skin);
    Reply reply;
    reply.json = Json{{"length_mm", m.length_mm},   {"height_mm", m.height_mm},
                      {"width_mm", m.width_mm},     {"area_mm2", m.area_mm2},
                      {"volume_mm3", m.volume_mm3}, {"curvature_total_rad", m.curvatureTotal_rad},
                      {"girths", Json::array()},    {"sections", Json::array()}};
    reply.text = figure("length", m.length_mm, 2, "mm") + figure("height", m.height_mm, 2, "mm") +
                 figure("width", m.width_mm, 2, "mm") + figure("skin area", m.area_mm2, 1, "mm2") +
                 figure("volume", m.volume_mm3, 1, "mm3") +
                 figure("total curvature", m.curvatureTotal_rad, 4, "rad");
    for (const double x : places) {
        const Result<double> girth = girthAt(body->skin, x, "--at");
        if (!girth) return girth.error();
        reply.json["girths"].push_back({{"x_mm", x}, {"girth_mm", *girth}});
        const Section s = body->skin.loft().sectionAt(x);
        reply.json["sections"].push_back({{"x_mm", x},
                                          {"top_mm", s.top_mm},
                                          {"bottom_mm", s.bottom_mm},
                                          {"half_width_mm", s.halfWidth_mm}});
        reply.text += figure("girth at " + fixedText(x, 1), *girth, 2, "mm");
    }
    // What the skin carries besides its own shape.
    const BlankChapter& blank = body->job.get<BlankChapter>();
    const std::vector<Zone> zones = allZones(body->skin, blank);
    reply.json["painted_mm2"] = paintedArea_mm2(body->skin, m.area_mm2, zones);
    reply.json["zones"] = Json::array();
    for (const Zone& z : zones)
        reply.json["zones"].push_back({{"name", z.name},
                                       {"kind", z.kind},
                                       {"no_paint", z.noPaint},
                                       {"relief_mm", z.relief_mm},
                                       {"area_mm2", zoneArea_mm2(body->skin, z.polygon)}});
    if (!zones.empty()) reply.text += figure("skin to paint", reply.json["painted_mm2"], 1, "mm2");
    if (const auto text = args->value("zone")) {
        const Result<std::vector<double>> n = parseNumbers(*text, "--zone");
        if (!n) return n.error();
        if (n->size() < 6 || n->size() % 2 != 0)
            return Error{"bad_value", NINE_WORDS("cli", "A zone is x,g,x,g,x,g ...: three corners or more."),
                         "--zone"};
        Zone zone;
        for (std::size_t i = 0; i + 1 < n->size(); i += 2) zone.polygon.emplace_back((*n)[i], (*n)[i + 1]);
        if (Status ok = checkZones(body->skin, {zone}); !ok)
            return Error{ok.error().code, ok.error().words, "--zone"};
        reply.json["zone_mm2"] = zoneArea_mm2(body->skin, zone.polygon);
        reply.text += figure("zone", reply.json["zone_mm2"], 2, "mm2");
    }
    for (const Station& s : blank.table.stations) {
        if (s.girth_mm == 0) continue;
        reply.json["strings"].push_back(
            {{"x_mm", s.x_mm}, {"girth_mm", s.girth_mm}, {"residual_mm", girthResidual_mm(s)}});
        reply.text += figure("string at " + fixedText(s.x_mm, 1), girthResidual_mm(s), 2, "mm off");
    }
    reply.json["warnings"] = warningsJson(body->warnings);
    reply.text += warningsText(body->warnings);
    return reply;
}

Result<Reply> blankDistance(const Arguments& words, const Task&) {
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

Result<Reply> blankString(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"at", "girth", "half", "out"}, {}, 1);
    if (!args) return args.error();
    for (const char* flag : {"at", "girth"})
        if (const Result<std::string> given = args->need(flag); !given) return given.error();
    const Result<double> at = args->number("at", 0), girth = args->number("girth", 0);
    if (!at) return at.error();
    if (!girth) return girth.error();
    const std::string half = args->value("half").value_or("both");
    if (half != "both" && half != "upper" && half != "lower")
        return Error{"bad_value", NINE_WORDS("cli", "A string corrects both halves, the upper or the lower."),
                     "--half"};
    Result<Body> body = loadBody(args->word(0));
    if (!body) return body.error();
    if (!(*at > body->skin.noseX_mm() && *at < body->skin.tailX_mm()))
        return Error{"off_body", Words(NINE_WORDS("cli", "There is no body at {at}.")).length("at", *at, 1),
                     "--at"};
    BlankChapter blank = body->job.get<BlankChapter>();
    auto& stations = blank.table.stations;
    auto station = std::find_if(stations.begin(), stations.end(),
                                [&](const Station& s) { return s.x_mm > *at - 0.005; });
    if (std::abs(station->x_mm - *at) > 0.005) {  // a station more, read off the body as it is
        const Section s = body->skin.loft().sectionAt(*at);
        station = stations.insert(
            station, {*at, s.top_mm, s.bottom_mm, s.halfWidth_mm, s.exponentUpper, s.exponentLower, {}});
    }
    const Result<Station> fuller = withGirth(*station, *girth,
                                             half == "both"    ? Fuller::Both
                                             : half == "upper" ? Fuller::Upper
                                                               : Fuller::Lower,
                                             "--girth");
    if (!fuller) return fuller.error();
    const double before = girthOf_mm(*station);
    *station = *fuller;
    Reply reply;
    reply.json = Json{{"x_mm", *at},
                      {"girth_before_mm", before},
                      {"girth_mm", girthOf_mm(*fuller)},
                      {"section", fuller->section},
                      {"section_lower", fuller->sectionLower},
                      {"residual_mm", girthResidual_mm(*fuller)}};
    reply.text = "Calipers alone gave " + fixedText(before, 2) + " mm; with a section exponent of " +
                 fixedText(half == "lower" ? fuller->sectionLower : fuller->section, 3) +
                 " the body measures " + fixedText(girthOf_mm(*fuller), 2) + " mm round.\n";
    if (const auto out = args->value("out")) {
        if (const Result<Skin> skin = Skin::of(blank.table); !skin) return skin.error();
        if (Status ok = saveJob(body->job.with(std::move(blank)), *out); !ok) return ok.error();
    }
    return reply;
}

Result<Reply> blankCompare(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {}, {}, 2);
    if (!args) return args.error();
    const Result<Body> first = loadBody(args->word(0)), second = loadBody(args->word(1));
    if (!first) return first.error();
    if (!second) return second.error();
    const BlankDifference d = compareBlanks(first->skin, second->skin);
    Reply reply;
    reply.json = Json{{"length_mm", d.length_mm},
                      {"area_mm2", d.area_mm2},
                      {"volume_mm3", d.volume_mm3},
                      {"outline_rms_mm", d.outlineRms_mm},
                      {"outline_max_mm", d.outlineWorst_mm},
                      {"girth_max_mm", d.girthWorst_mm},
                      {"places", Json::array()}};
    for (const auto& at : d.places)
        reply.json["places"].push_back({{"x_mm", at.x_mm},
                                        {"top_mm", at.top_mm},
                                        {"bottom_mm", at.bottom_mm},
                                        {"width_mm", at.width_mm},
                                        {"girth_mm", at.girth_mm}});
    reply.text = "The second less the first:\n" + figure("length", d.length_mm, 2, "mm") +
                 figure("skin area", d.area_mm2, 1, "mm2") + figure("volume", d.volume_mm3, 1, "mm3") +
                 figure("outline, most", d.outlineWorst_mm, 2, "mm") +
                 figure("outline, rms", d.outlineRms_mm, 2, "mm") +
                 figure("girth, most", d.girthWorst_mm, 2, "mm");
    return reply;
}

Result<Reply> blankWrap(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"material", "sheet"}, {}, 1);
    if (!args) return args.error();
    const std::string id = args->value("material").value_or("tape");
    const std::optional<SheetMaterial> material = findMaterial(id);
    if (!material)
        return Error{
            "bad_value",
            Words(NINE_WORDS("cli", "\"{id}\" is no sheet material this version knows.")).name("id", id),
            "--material"};
    double along = 20, across = 20;
    if (const auto sheet = args->value("sheet")) {
        const std::size_t by = sheet->find('x');
        const Result<std::vector<double>> n = parseNumbers(
            by == std::string::npos ? *sheet : sheet->substr(0, by) + "," + sheet->substr(by + 1), "--sheet");
        if (!n) return n.error();
        if (n->size() != 2 || !((*n)[0] > 0 && (*n)[1] > 0))
            return Error{"bad_value", NINE_WORDS("cli", "A sheet is LENGTHxWIDTH in mm, such as 30x12."),
                         "--sheet"};
        along = (*n)[0];
        across = (*n)[1];
    }
    const Result<Body> body = loadBody(args->word(0));
    if (!body) return body.error();
    const WrapField field(body->skin, makeSkinGrid(body->skin, 100, 48));
    const WrapMap map = wrapMap(field, material->strainLimit, along, across);
    Reply reply;
    reply.json = Json{{"material", id},
                      {"strain_limit", material->strainLimit},
                      {"lies_share", map.share},
                      {"strip_length_mm", kStripLength_mm},
                      {"strips", Json::array()}};
    for (const WrapWidth& w : wrapWidths(field, material->strainLimit)) {
        reply.json["strips"].push_back({{"x_mm", w.x_mm}, {"width_mm", w.width_mm}, {"whole_side", w.whole}});
    }
    reply.text = "A sheet of " + fixedText(along, 0) + " x " + fixedText(across, 0) + " mm lies flat on " +
                 fixedText(100 * map.share, 0) + " % of the skin.\n";
    return reply;
}

}  // namespace nine::cli
