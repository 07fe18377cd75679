// paint: the shelf, what drops make, which bottles come nearest to a colour.
#include "base/files.h"
#include "base/number_text.h"
#include "cli/shelf.h"
#include "cli/verbs.h"
#include "job/shelf_file.h"
#include "paint/build_up.h"

namespace nine::cli {

Result<std::vector<Bottle>> shelfAsked(const Args& args) {
    const auto file = args.value("shelf");
    if (!file) return genericShelf();
    const Result<std::string> text = readFile(*file);
    if (!text) return text.error();
    return parseShelf(*text, *file);
}

namespace {

Result<Srgb> colourAsked(const std::string& text, const std::string& where) {
    const std::optional<Srgb> colour = parseColour(text);
    if (colour) return *colour;
    return Error{"bad_value",
                 Words(NINE_WORDS("cli", "\"{text}\" is no colour; write it as #rrggbb.")).name("text", text),
                 where};
}

/// A ground of that colour: bands whose look it is, as even as they can be.
Result<Bands> groundAsked(const Args& args) {
    const Result<Srgb> colour = colourAsked(args.value("over").value_or("#F6F6F6"), "--over");
    if (!colour) return colour.error();
    Bottle paint;
    paint.family = "opaque";
    paint.swatches = {{6, true, *colour}, {6, false, *colour}};
    return under(bare(evenBands(0.5)), filmOf(paint).film, 12).inner;
}

Json mixJson(const std::vector<MixPart>& parts) {
    Json list = Json::array();
    for (const MixPart& part : parts) list.push_back({{"of", part.bottle}, {"drops", part.drops}});
    return list;
}

std::string colourOver(const Film& film, Ratio coats, const Bands& ground) {
    return colourText(srgbOf(under(bare(ground), film, coats), kMatt));
}

}  // namespace

Result<Reply> paintList(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"shelf"}, {}, 0);
    if (!args) return args.error();
    const Result<std::vector<Bottle>> shelf = shelfAsked(*args);
    if (!shelf) return shelf.error();
    Reply reply;
    Json list = Json::array();
    for (const Bottle& b : *shelf) {
        const FittedFilm fit = filmOf(b);
        const std::string white = colourOver(fit.film, 3, evenBands(.93)),
                          black = colourOver(fit.film, 3, evenBands(.04));
        list.push_back({{"id", b.id},
                        {"name", b.name},
                        {"family", b.family},
                        {"colour", white},
                        {"over_black", black},
                        {"misfit_steps", fit.misfit_steps}});
        reply.text +=
            b.id + ": " + b.name + ", " + b.family + ", " + white + " over white, " + black + " over black\n";
    }
    reply.json = {{"paints", std::move(list)}};
    return reply;
}

Result<Reply> paintMix(const Arguments& words, const Task&) {
    const Result<Args> args = Args::parse(words, {"shelf", "reducer", "over", "coats"}, {}, 1);
    if (!args) return args.error();
    const Result<std::vector<Bottle>> shelf = shelfAsked(*args);
    if (!shelf) return shelf.error();
    std::vector<MixPart> parts;
    const std::string& text = args->word(0);
    for (std::size_t at = 0; at <= text.size();) {
        const std::size_t end = std::min(text.find(',', at), text.size());
        const std::string part = text.substr(at, end - at);
        const std::size_t colon = part.find(':');
        const auto drops = parseNumber(colon == part.npos ? "1" : part.substr(colon + 1));
        if (part.empty() || !drops)
            return Error{"bad_value",
                         NINE_WORDS("cli", "A mix is ID:DROPS,ID:DROPS, such as red:2,yellow:1."), "mix"};
        parts.push_back({part.substr(0, colon), *drops});
        at = end + 1;
    }
    const Result<double> reducer = args->number("reducer", 0), coats = args->number("coats", 4);
    if (!reducer) return reducer.error();
    if (!coats) return coats.error();
    if (!(*reducer >= 0 && *reducer <= 1000 && *coats > 0 && *coats <= 40))
        return Error{"out_of_range",
                     NINE_WORDS("cli", "--reducer is 0 to 1000 drops, --coats above 0, up to 40."),
                     "--coats"};
    const Result<Bands> ground = groundAsked(*args);
    if (!ground) return ground.error();
    const Result<Sprayable> paint = mixed(paletteOf(*shelf), parts, "mix");
    if (!paint) return paint.error();
    Ratio drops = 0;
    for (const MixPart& part : parts) drops += part.drops;
    const BuildUp up = buildUp(bare(*ground), paint->film, 20, kMatt);
    Reply reply;
    reply.json = {{"parts", mixJson(parts)},
                  {"colour", colourOver(paint->film, *coats, *ground)},
                  {"over_white", colourOver(paint->film, *coats, evenBands(.93))},
                  {"over_black", colourOver(paint->film, *coats, evenBands(.04))},
                  {"reducer_share", *reducer / (drops + *reducer)},
                  {"enough", up.enough}};
    reply.text =
        colourOver(paint->film, *coats, *ground) + " after " + fixedText(*coats, 0) + " coats; " +
        (up.enough ? "nothing more changes after " + std::to_string(up.enough) : "it goes on changing") +
        ".\n";
    return reply;
}

Result<Reply> paintNearest(const Arguments& words, const Task& task) {
    const Result<Args> args = Args::parse(words, {"shelf", "over", "coats"}, {}, 1);
    if (!args) return args.error();
    const Result<std::vector<Bottle>> shelf = shelfAsked(*args);
    if (!shelf) return shelf.error();
    const Result<Srgb> colour = colourAsked(args->word(0), "colour");
    if (!colour) return colour.error();
    const Result<double> coats = args->number("coats", 4);
    if (!coats) return coats.error();
    if (!(*coats > 0 && *coats <= 40))
        return Error{"out_of_range", NINE_WORDS("cli", "--coats is above 0, up to 40."), "--coats"};
    const Result<Bands> ground = groundAsked(*args);
    if (!ground) return ground.error();
    Wanted wanted;
    wanted.colour = labOf(xyzOf(linearOf(*colour)));
    wanted.ground = *ground;
    wanted.coats = *coats;
    const Palette palette = paletteOf(*shelf);
    const Result<NearestMixes> nearest = nearestMixes(palette, wanted, task);
    if (!nearest) return nearest.error();
    Reply reply;
    Json mixes = Json::array();
    for (const FoundMix& mix : nearest->found) {
        const Result<Sprayable> paint = mixed(palette, mix.parts, "mix");
        const std::string made = paint ? colourOver(paint->film, *coats, *ground) : "";
        mixes.push_back({{"parts", mixJson(mix.parts)}, {"colour", made}, {"difference", mix.difference}});
        for (const MixPart& part : mix.parts)
            reply.text += fixedText(part.drops, 0) + " " + part.bottle + "  ";
        reply.text += made + ", differs by " + fixedText(mix.difference, 1) + "\n";
    }
    reply.json = {{"mixes", std::move(mixes)}, {"offered", nearest->offered}};
    return reply;
}

}  // namespace nine::cli
