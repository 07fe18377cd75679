// blank sheet, blank trace, blank photo, blank family: the ways to a body
#include <filesystem>

#include "base/base64.h"
#include "base/files.h"
#include "base/number_text.h"
#include "blank/families.h"
#include "blank/measure.h"
#include "cli/args.h"
#include "cli/body.h"
#include "cli/verbs.h"
#include "image/coin.h"
#include "job/blank_from_picture.h"
#include "job/job_file.h"
#include "job/photo_check.h"
#include "job/tracing_page.h"

namespace nine::cli {
namespace {

struct LoadedPicture {
    PictureFile file;
    std::string name, hash;
};

Result<LoadedPicture> loadPicture(const std::string& path, const Task& task) {
    const Result<std::string> bytes = readFile(path, kMaxPictureFileBytes);
    if (!bytes) return bytes.error();
    Result<PictureFile> file = decodePicture(*bytes, path, task);
    if (!file) return file.error();
    return LoadedPicture{std::move(*file), std::filesystem::path(path).filename().string(),
                         fingerprintOf(*bytes)};
}

/// Groups of numbers parted by ';', each of `count` (any even number if 0).
Result<std::vector<std::vector<double>>> groups(const std::string& text, std::size_t count,
                                                const std::string& where) {
    std::vector<std::vector<double>> out;
    for (std::size_t from = 0; from <= text.size();) {
        const std::size_t end = std::min(text.find(';', from), text.size());
        Result<std::vector<double>> numbers = parseNumbers(text.substr(from, end - from), where);
        if (!numbers) return numbers.error();
        if (count > 0 ? numbers->size() != count : numbers->size() < 2 || numbers->size() % 2 != 0)
            return Error{
                "bad_value",
                Words(NINE_WORDS("cli", "Here should stand groups of {count} numbers parted by ';'."))
                    .name("count", count > 0 ? std::to_string(count) : "x,y"),
                where};
        out.push_back(std::move(*numbers));
        from = end + 1;
    }
    return out;
}

Result<BodyWish> bodyWish(const Args& args, const std::string& path) {
    BodyWish wish;
    wish.name = args.value("name").value_or(std::filesystem::path(path).stem().string());
    wish.family = args.value("family").value_or("");
    if (const auto text = args.value("girth")) {
        const auto pairs = groups(*text, 2, "--girth");
        if (!pairs) return pairs.error();
        for (const auto& p : *pairs) wish.girths.push_back({p[0], p[1]});
    }
    return wish;
}

Result<Reply> replyWith(MadeBlank made, const std::string& out) {
    Job job = Job{}.with(made.blank);
    const Result<Skin> skin = Skin::of(made.blank.table);
    if (!skin) return skin.error();
    if (Status saved = saveJob(job, out); !saved) return saved.error();
    const BodyMeasure m = measureBody(*skin);
    Reply reply;
    reply.json = Json{{"file", out},
                      {"length_mm", m.length_mm},
                      {"height_mm", m.height_mm},
                      {"width_mm", m.width_mm},
                      {"area_mm2", m.area_mm2},
                      {"volume_mm3", m.volume_mm3},
                      {"stations", made.blank.table.stations.size()},
                      {"family", made.blank.family},
                      {"family_guessed", made.familyGuessed},
                      {"outline_miss_mm", made.body.miss_mm},
                      {"outline_worst_mm", made.body.worst_mm},
                      {"asymmetry_mm", made.body.asymmetry_mm},
                      {"landmarks", Json::array()},
                      {"warnings", warningsJson(made.body.warnings)}};
    for (const auto& [name, landmark] : made.blank.landmarks)
        reply.json["landmarks"].push_back({{"name", name}, {"assumed", landmark.assumed}});
    reply.text = "A body " + fixedText(m.length_mm, 1) + " mm long, " + fixedText(m.height_mm, 1) +
                 " mm high and " + fixedText(m.width_mm, 1) + " mm wide, with " +
                 std::to_string(made.blank.table.stations.size()) + " stations, is in " + out + ".\n" +
                 warningsText(made.body.warnings);
    return reply;
}

Result<std::pair<Vec2, Vec2>> twoPoints(const std::string& text, const std::string& where) {
    const auto numbers = parseNumbers(text, where);
    if (!numbers) return numbers.error();
    if (numbers->size() != 4)
        return Error{"bad_value",
                     NINE_WORDS("cli", "Here should stand x0,y0,x1,y1 in pixels of the picture."), where};
    return std::pair(Vec2((*numbers)[0], (*numbers)[1]), Vec2((*numbers)[2], (*numbers)[3]));
}

Result<bool> noseAtLeft(const Args& args) {
    const std::string nose = args.value("nose").value_or("left");
    if (nose != "left" && nose != "right")
        return Error{"bad_value", NINE_WORDS("cli", "The nose points left or right."), "--nose"};
    return nose == "left";
}

/// Flags --exclude and --include, with `prefix` before their names.
Status readStrokes(const Args& args, const std::string& prefix, std::vector<Stroke2>& strokes) {
    const Result<double> brush = args.number("brush", 12);
    if (!brush) return brush.error();
    for (const bool include : {true, false}) {
        const std::string flag = prefix + (include ? "include" : "exclude");
        const auto text = args.value(flag);
        if (!text) continue;
        const auto lines = groups(*text, 0, "--" + flag);
        if (!lines) return lines.error();
        for (const auto& line : *lines) {
            Stroke2 stroke;
            stroke.radius_px = *brush;
            stroke.include = include;
            for (std::size_t i = 0; i + 1 < line.size(); i += 2)
                stroke.points.emplace_back(line[i], line[i + 1]);
            strokes.push_back(std::move(stroke));
        }
    }
    return Done{};
}

const char* takenOffName(TakenOff::Kind kind) {
    switch (kind) {
        case TakenOff::Kind::Thin:
            return "thin";
        case TakenOff::Kind::Bill:
            return "bill";
        case TakenOff::Kind::Shadow:
            break;
    }
    return "shadow";
}

/// What was found on a photo, in its own pixels, whether a body can be made of it or not.
Status writeOutline(const Polyline2& outline_px, const std::string& file) {
    std::string text = "x_px,y_px\n";
    for (const Vec2& p : outline_px) text += fixedText(p.x(), 3) + "," + fixedText(p.y(), 3) + "\n";
    return writeFileAtomically(file, text);
}

}  // namespace

Result<Reply> blankSheet(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"out", "paper"}, {}, 0);
    if (!args) return args.error();
    const Result<std::string> out = args->need("out");
    if (!out) return out.error();
    const std::string paper = args->value("paper").value_or("A4");
    if (paper != "A4" && paper != "Letter")
        return Error{"bad_value", NINE_WORDS("cli", "The sheet is made for A4 or Letter."), "--paper"};
    const Drawing page = tracingPage(paper == "A4" ? kTracingA4_mm : kTracingLetter_mm);
    const bool svg = out->size() > 4 && out->substr(out->size() - 4) == ".svg";
    if (Status ok = writeFileAtomically(*out, svg ? svgText(page) : pdfText({page})); !ok) return ok.error();
    Reply reply;
    reply.json = Json{
        {"file", *out}, {"width_mm", page.size_mm.x()}, {"height_mm", page.size_mm.y()}, {"ruler_mm", 100}};
    reply.text = "The tracing sheet is in " + *out + ". Print it at 100 %.\n";
    return reply;
}

Result<Reply> blankTrace(const Arguments& words, const Task& task) {
    // In one piece: the flags, then the reply field by field.
    const Result<Args> args =
        Args::parse(words,
                    {"out", "name", "family", "girth", "ruler_mm", "axis", "top_axis", "exclude", "include",
                     "brush", "nose", "traced_with", "known_length", "known_height"},
                    {}, 1);
    if (!args) return args.error();
    const Result<std::string> out = args->need("out");
    if (!out) return out.error();
    const Result<BodyWish> wish = bodyWish(*args, args->word(0));
    if (!wish) return wish.error();
    TracingWish tracing;
    if (args->has("ruler_mm")) {
        const Result<double> ruler = args->number("ruler_mm", 0);
        if (!ruler) return ruler.error();
        tracing.ruler_mm = *ruler;
    }
    for (const auto& [flag, axis] :
         {std::pair{"axis", &tracing.sideAxis_px}, {"top_axis", &tracing.topAxis_px}}) {
        const auto text = args->value(flag);
        if (!text) continue;
        const auto ends = twoPoints(*text, std::string("--") + flag);
        if (!ends) return ends.error();
        *axis = *ends;
    }
    const Result<bool> noseLeft = noseAtLeft(*args);
    if (!noseLeft) return noseLeft.error();
    tracing.noseLeft = *noseLeft;
    const std::string with = args->value("traced_with").value_or("edge");
    if (with != "edge" && with != "leaning" && with != "upright")
        return Error{"bad_value",
                     NINE_WORDS("cli",
                                "The line is the edge itself, or that of a pencil held leaning or "
                                "upright: edge, leaning, upright."),
                     "--traced_with"};
    tracing.tracedWith = with == "leaning"   ? TracedWith::Leaning
                         : with == "upright" ? TracedWith::Upright
                                             : TracedWith::Edge;
    for (const auto& [flag, size] :
         {std::pair{"known_length", &tracing.knownLength_mm}, {"known_height", &tracing.knownHeight_mm}}) {
        if (!args->has(flag)) continue;
        const Result<double> mm = args->number(flag, 0);
        if (!mm) return mm.error();
        if (!(*mm > 0))
            return Error{"bad_value", NINE_WORDS("cli", "A size by ruler is above 0."),
                         std::string("--") + flag};
        *size = *mm;
    }
    if (Status ok = readStrokes(*args, "", tracing.strokes); !ok) return ok.error();
    const Result<LoadedPicture> picture = loadPicture(args->word(0), task);
    if (!picture) return picture.error();
    tracing.scanPerMm = picture->file.perMm;
    const Result<TracingReading> reading = readTracing(picture->file.picture, tracing, task);
    if (!reading) return reading.error();
    Result<MadeBlank> made = blankOfTracing(*reading, *wish);
    if (!made) return made.error();
    made->blank.pictures.push_back(
        backPicture(picture->file.picture, *reading, picture->name, picture->hash));
    Result<Reply> reply = replyWith(std::move(*made), *out);
    if (!reply) return reply;
    reply->json["marks"] = reading->page.marks.size();
    reply->json["page_miss_mm"] = reading->page.miss_mm;
    reply->json["scale"] = reading->scale;
    reply->json["scale_measured"] = reading->scaleMeasured;
    reply->json["top_traced"] = reading->top.has_value();
    reply->json["line_width_mm"] = reading->side->lineWidth_mm;
    reply->json["stand_off_mm"] = reading->sideStandOff_mm;
    if (reading->top) reply->json["top_stand_off_mm"] = reading->topStandOff_mm;
    reply->json["guides"] = reading->side->guides.size() + reading->rubbing.size();
    return reply;
}

namespace {

/// Words that tell how a body lies in a photo, and what of it was found.
const std::vector<std::string> kPhotoWords{"length", "scale",   "coin",    "outline", "put_back", "axis",
                                           "nose",   "exclude", "include", "brush",   "thin"};
struct SeenBody {
    LoadedPicture picture;
    PhotoWish wish;
    std::optional<SeenCoin> coin;
    Silhouette silhouette;
    PhotoOutline outline;
};

/// `usualLength_mm` where nothing else tells the scale.
Result<SeenBody> seenBody(const Args& args, const std::string& path, std::optional<double> usualLength_mm,
                          const Task& task) {
    // In one piece: the flags of a photo, one after the other.
    PhotoWish wish;
    if (args.has("length")) {
        const Result<double> length = args.number("length", 0);
        if (!length) return length.error();
        if (!(*length > 0))
            return Error{"bad_value", NINE_WORDS("cli", "The length of a body is above 0."), "--length"};
        wish.length_mm = *length;
    }
    if (const auto text = args.value("scale")) {
        const auto n = parseNumbers(*text, "--scale");
        if (!n) return n.error();
        if (n->size() != 5)
            return Error{
                "bad_value",
                NINE_WORDS("cli", "Here should stand x0,y0,x1,y1,mm: two pixels and their distance."),
                "--scale"};
        wish.known = PhotoWish::Known{{(*n)[0], (*n)[1]}, {(*n)[2], (*n)[3]}, (*n)[4]};
    }
    if (const auto text = args.value("axis")) {
        const auto ends = twoPoints(*text, "--axis");
        if (!ends) return ends.error();
        wish.axis_px = *ends;
    }
    const Result<bool> noseLeft = noseAtLeft(args);
    if (!noseLeft) return noseLeft.error();
    wish.noseLeft = *noseLeft;
    if (Status ok = readStrokes(args, "", wish.silhouette.strokes); !ok) return ok.error();
    if (args.has("thin")) {
        const Result<double> thin = args.number("thin", 0);
        if (!thin) return thin.error();
        wish.silhouette.thin_px = *thin;
    }
    if (const auto text = args.value("put_back")) {
        const auto places = groups(*text, 2, "--put_back");
        if (!places) return places.error();
        for (const auto& p : *places) wish.silhouette.putBack.emplace_back(p[0], p[1]);
    }
    std::optional<std::vector<double>> coin;  // x, y, diameter
    if (const auto text = args.value("coin")) {
        const auto n = parseNumbers(*text, "--coin");
        if (!n) return n.error();
        if (n->size() != 3 || !((*n)[2] > 0))
            return Error{
                "bad_value",
                NINE_WORDS("cli", "Here should stand x,y,mm: a pixel within the coin and its diameter."),
                "--coin"};
        if (wish.known)
            return Error{"bad_value",
                         NINE_WORDS("cli", "Two points or a coin tell the scale on the table, not both."),
                         "--coin"};
        coin = *n;
    }
    if (!wish.length_mm && !wish.known && !coin) {
        if (!usualLength_mm) return photoOutline({}, wish).error();
        wish.length_mm = usualLength_mm;
    }
    Result<LoadedPicture> picture = loadPicture(path, task);
    if (!picture) return picture.error();
    wish.focal_px = picture->file.focal_px();
    std::optional<SeenCoin> seenCoin;
    if (coin) {
        const Result<SeenCoin> seen = coinAt(picture->file.picture, {(*coin)[0], (*coin)[1]});
        if (!seen) return seen.error();
        seenCoin = *seen;
        wish.known = PhotoWish::Known{seen->middle - seen->half_px, seen->middle + seen->half_px, (*coin)[2]};
    }
    Result<Silhouette> silhouette = silhouetteOf(picture->file.picture, wish.silhouette, task);
    if (!silhouette) return silhouette.error();
    if (const auto file = args.value("outline"))
        if (Status ok = writeOutline(silhouette->outline, *file); !ok) return ok.error();
    Result<PhotoOutline> outline = photoOutline(*silhouette, wish);
    if (!outline) return outline.error();
    return SeenBody{std::move(*picture), std::move(wish), seenCoin, std::move(*silhouette),
                    std::move(*outline)};
}

/// What was taken off, for the reply.
Json takenOffJson(const SeenBody& seen) {
    Json list = Json::array();
    for (const TakenOff& thing : seen.silhouette.takenOff)
        list.push_back({{"kind", takenOffName(thing.kind)},
                        {"x_px", thing.foot.x()},
                        {"y_px", thing.foot.y()},
                        {"reach_mm", thing.reach_px * seen.outline.mmPerPx},
                        {"doubtful", thing.doubtful},
                        {"back", thing.back}});
    return list;
}

}  // namespace

Result<Reply> blankPhoto(const Arguments& words, const Task& task) {
    // In one piece: the flags, then the reply field by field.
    std::vector<std::string> known = kPhotoWords;
    known.insert(known.end(),
                 {"out", "name", "family", "girth", "top", "top_axis", "top_exclude", "top_include"});
    const Result<Args> args = Args::parse(words, known, {}, 1);
    if (!args) return args.error();
    const Result<std::string> out = args->need("out");
    if (!out) return out.error();
    const Result<BodyWish> body = bodyWish(*args, args->word(0));
    if (!body) return body.error();
    Result<SeenBody> seen = seenBody(*args, args->word(0), std::nullopt, task);
    if (!seen) return seen.error();
    PhotoOutline& side = seen->outline;
    std::optional<PhotoOutline> above;
    std::optional<LoadedPicture> topPicture;
    if (const auto path = args->value("top")) {
        Result<LoadedPicture> loaded = loadPicture(*path, task);
        if (!loaded) return loaded.error();
        PhotoWish topWish;
        if (Status ok = readStrokes(*args, "top_", topWish.silhouette.strokes); !ok) return ok.error();
        const Result<Silhouette> top = silhouetteOf(loaded->file.picture, topWish.silhouette, task);
        if (!top) return top.error();
        if (seen->wish.known) {  // a scale on the table lies lower than the outline, by half the width
            const Result<double> width = widthOverLength(*top);
            if (!width) return width.error();
            seen->wish.widthOverLength = *width;
            Result<PhotoOutline> again = photoOutline(seen->silhouette, seen->wish);
            if (!again) return again.error();
            side = std::move(*again);
        }
        topWish.noseLeft = seen->wish.noseLeft;
        topWish.length_mm = side.mmPerPx * side.axis_px.length();  // the same body at another scale
        if (const auto text = args->value("top_axis")) {
            const auto ends = twoPoints(*text, "--top_axis");
            if (!ends) return ends.error();
            topWish.axis_px = *ends;
        }
        const Result<PhotoOutline> outline = photoOutline(*top, topWish);
        if (!outline) return outline.error();
        above = *outline;
        topPicture = std::move(*loaded);
    }
    Result<MadeBlank> made = blankOfPhotos(side, above, *body);
    if (!made) return made.error();
    if (seen->coin && slantWarning(*seen->coin)) made->body.warnings.push_back(*slantWarning(*seen->coin));
    made->blank.pictures.push_back(backPicture(seen->picture.file.picture, side.axis_px.nose,
                                               side.axis_px.tail, seen->picture.name, seen->picture.hash,
                                               false));
    if (topPicture)
        made->blank.pictures.push_back(backPicture(topPicture->file.picture, above->axis_px.nose,
                                                   above->axis_px.tail, topPicture->name, topPicture->hash,
                                                   true));
    Result<Reply> reply = replyWith(std::move(*made), *out);
    if (!reply) return reply;
    reply->json["mm_per_px"] = side.mmPerPx;
    reply->json["axis_px"] = {side.axis_px.nose.x(), side.axis_px.nose.y(), side.axis_px.tail.x(),
                              side.axis_px.tail.y()};
    reply->json["orientation"] = seen->picture.file.orientation;
    reply->json["contrast"] = seen->silhouette.contrast;
    if (side.camera_mm > 0) reply->json["camera_mm"] = side.camera_mm;
    if (seen->coin) reply->json["coin_px"] = 2 * seen->coin->half_px.norm();
    reply->json["taken_off"] = takenOffJson(*seen);
    return reply;
}

Result<Reply> blankCheck(const Arguments& words, const Task& task) {
    std::vector<std::string> known = kPhotoWords;
    known.emplace_back("out");
    const Result<Args> args = Args::parse(words, known, {"above"}, 2);
    if (!args) return args.error();
    const Result<Body> body = loadBody(args->word(0));
    if (!body) return body.error();
    const Result<SeenBody> seen = seenBody(*args, args->word(1), body->skin.length_mm(), task);
    if (!seen) return seen.error();
    const bool ownScale = args->has("length") || args->has("scale") || args->has("coin"),
               above = args->has("above");
    const PhotoCheck check = checkPhoto(body->skin, seen->outline, ownScale, above);
    if (const auto file = args->value("out")) {
        std::string rows = "x_mm,edge,off_mm\n";
        for (const PhotoCheck::At& at : check.places)
            rows +=
                fixedText(at.x_mm, 3) + (at.upper ? ",upper," : ",lower,") + fixedText(at.off_mm, 3) + "\n";
        if (Status ok = writeFileAtomically(*file, rows); !ok) return ok.error();
    }
    Reply reply;
    reply.json = {{"rms_mm", check.rms_mm},
                  {"worst_mm", check.worst.off_mm},
                  {"worst_x_mm", check.worst.x_mm},
                  {"worst_edge", check.worst.upper ? "upper" : "lower"},
                  {"scale", check.scale},
                  {"warnings", warningsJson(seen->outline.warnings)},
                  {"taken_off", takenOffJson(*seen)}};
    reply.text = checkSentence(check, above).text() + "\n" + warningsText(seen->outline.warnings);
    return reply;
}

Result<Reply> blankFamily(const Arguments& words, const Task&) {
    const Result<Args> args =
        Args::parse(words, {"out", "name", "length", "height", "width", "readings", "on"}, {}, 1);
    if (!args) return args.error();
    const Result<std::string> out = args->need("out");
    if (!out) return out.error();
    if (const auto on = args->value("on")) {  // the kind's landmarks on a body that is there already
        if (!findFamily(args->word(0))) return bodyOfFamily(args->word(0), {}).error();
        const Result<Body> given = loadBody(*on);
        if (!given) return given.error();
        MadeBlank made;
        made.blank = given->job.get<BlankChapter>();
        made.blank.name = args->value("name").value_or(made.blank.name);
        made.blank.family = args->word(0);
        for (auto& [name, landmark] : usualLandmarks(args->word(0), given->skin))
            made.blank.landmarks.emplace(name, landmark);
        return replyWith(std::move(made), *out);
    }
    FamilyReadings readings;
    for (const auto& [flag, into] :
         {std::pair{"height", &readings.height_mm}, {"width", &readings.width_mm}}) {
        if (!args->has(flag)) continue;
        const Result<double> value = args->number(flag, 0);
        if (!value) return value.error();
        *into = *value;
    }
    const Result<double> length = args->number("length", 0);
    if (!length) return length.error();
    readings.length_mm = *length;
    if (const auto text = args->value("readings")) {  // x,height,width,girth; 0 where nothing was measured
        const auto rows = groups(*text, 4, "--readings");
        if (!rows) return rows.error();
        for (const auto& r : *rows) {
            FamilyReading reading;
            reading.x_mm = r[0];
            if (r[1] != 0) reading.height_mm = r[1];
            if (r[2] != 0) reading.width_mm = r[2];
            if (r[3] != 0) reading.girth_mm = r[3];
            readings.places.push_back(reading);
        }
    }
    Result<FamilyBody> body = bodyOfFamily(args->word(0), readings);
    if (!body) return body.error();
    MadeBlank made;
    made.blank.name = args->value("name").value_or(std::string(findFamily(args->word(0))->name.text()));
    made.blank.family = args->word(0);
    made.blank.source = "family";
    made.blank.table = std::move(body->table);
    made.blank.landmarks = std::move(body->landmarks);
    return replyWith(std::move(made), *out);
}

}  // namespace nine::cli
