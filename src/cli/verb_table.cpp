#include "cli/verb_table.h"

#include <sstream>

namespace nine::cli {
namespace {

constexpr std::size_t kWidest = 100;

/// The words of a usage in lines of the screen's width.
std::string wrapped(const std::string& words) {
    std::istringstream in(words);
    std::string line = "  ", text, word;
    for (std::string more; in >> word;) {
        while (word.front() == '[' && word.back() != ']' && in >> more)
            word += " " + more;  // a flag with its value
        if (line.size() + word.size() + 1 > kWidest) {
            text += line + "\n";
            line = "          ";
        }
        line += (line.find_first_not_of(' ') == line.npos ? "" : " ") + word;
    }
    return text + line + "\n";
}

}  // namespace

const std::vector<VerbEntry>& verbTable() {
    // In one piece: a table.
    static const std::vector<VerbEntry> all{
        {"blank", "measure", blankMeasure, "blank measure BLANK [--at x1,x2,...] [--zone x,g,x,g,...]",
         "length, girths, area, volume, area of a zone",
         "length, height, width, area, volume, total curvature, girths and `sections` (top, "
         "bottom, half width; at the stations without `--at`), `painted_mm2` (area less what "
         "zones and landmarks keep bare), `zones` with their areas, `strings` with their "
         "residuals, warnings. `--zone x,g,x,g,x,g,...`: `zone_mm2`, the skin within a polygon"},
        {"blank", "distance", blankDistance, "blank distance BLANK --from L,x,g --to R,x,g",
         "shortest way along the skin", "`distance_mm`, the shortest way along the skin"},
        {"blank", "sheet", blankSheet, "blank sheet --out F.pdf|F.svg [--paper A4|Letter]",
         "the page to trace a blank on", "the page to trace a blank on; `--paper A4` or `Letter`"},
        {"blank", "trace", blankTrace,
         "blank trace IMAGE --out JOB [--girth \"x,mm;x,mm\"] [--ruler_mm MM] [--family KIND] "
         "[--name TEXT] [--axis \"x,y,x,y\"] [--top_axis ...] [--include \"x,y,...\"] [--exclude "
         "\"x,y,...\"] [--brush PX] [--nose left|right] [--known_length MM] [--known_height MM] "
         "[--traced_with edge|leaning|upright]",
         "a body from a scan or photo of that page",
         "a body from a scan or photo of that page (JPEG, PNG): `marks` seen, `page_miss_mm`, "
         "`scale` (0.97: printed at 97 %) and whether it was measured, `guides`, "
         "`outline_miss_mm`. Widths come from the tracing from above, else from `--girth "
         "\"x,mm;x,mm\"`, else they are assumed and said. `--ruler_mm` what the printed 100 mm "
         "measure; a scan's own density is used where the file has one. `--family`, `--name`; "
         "`--axis`, `--top_axis` and `--include`, `--exclude`, `--brush` as for a photo (an "
         "included stroke along an open line closes it); `--nose left` or `right`. How far "
         "the line stands off the body: `--known_length MM`, `--known_height MM` by ruler, or "
         "`--traced_with edge` (default), `leaning`, `upright`; `stand_off_mm`, "
         "`top_stand_off_mm` say what was taken off, `line_width_mm` how wide the line is"},
        {"blank", "photo", blankPhoto,
         "blank photo IMAGE --out JOB --length MM | --scale x0,y0,x1,y1,mm | --coin x,y,mm "
         "[--top IMAGE] [--axis x0,y0,x1,y1] [--top_axis ...] [--top_exclude ...] [--nose "
         "left|right] [--exclude \"x,y,x,y;...\"] [--include ...] [--brush PX] [--put_back "
         "\"x,y;...\"] [--outline F.csv] [--thin PX] [--girth ...] [--family KIND] [--name TEXT]",
         "a body from photos; pixels of the picture as it is seen",
         "a body from a photo on plain ground. Scale: `--length MM`, or on the table `--scale "
         "x0,y0,x1,y1,mm` or `--coin x,y,mm` (a pixel within it, its diameter); with both the "
         "length counts and `camera_mm` says how far the camera was. `taken_off` lists rings, "
         "bills and shadows with their `reach_mm`; `--put_back \"x,y;x,y\"` those that belong "
         "to the body. `--outline F.csv` writes the outline that was found, x_px,y_px. `--top "
         "IMAGE` from above; `--axis x0,y0,x1,y1` nose and tail by hand, `--top_axis`; "
         "`--nose left` or `right`; `--exclude \"x,y,x,y;...\"`, `--include` strokes of "
         "`--brush` pixels (`--top_exclude`, `--top_include` on the picture from above); "
         "`--thin` things narrower are left out; `--girth`, `--family`, `--name`. Pixels of "
         "the picture as it is seen (its orientation obeyed)"},
        {"blank", "check", blankCheck,
         "blank check BLANK IMAGE [--length MM | --scale ... | --coin ...] [--above] [--out "
         "F.csv] [as for photo]",
         "a new photo laid over a body: what is different, in mm",
         "a new photo laid over a body, turned and moved to where it fits best: `rms_mm`, "
         "`worst_mm` (above 0: the photo reaches farther out), `worst_x_mm`, `worst_edge`. "
         "`--length`, `--scale`, `--coin` give the photo a size of its own; without, it is "
         "made to fit and `scale` says by how much. `--above` for one from above; `--out "
         "F.csv` the difference all along, x_mm,edge,off_mm; axis, nose and strokes as for "
         "`photo`"},
        {"blank", "family", blankFamily,
         "blank family KIND --length MM [--height MM] [--width MM] [--readings "
         "\"x,height,width,girth;...\"] | --on BLANK, [--name TEXT] --out JOB",
         "a body from a kind and readings, 0 for what was not measured",
         "a body from one of minnow, round, flat, cigar, lipless, popper, wake; `--height`, "
         "`--width`, `--readings \"x,height,width,girth;...\"` (0: not measured). `--on BLANK` "
         "instead lays the kind's landmarks on that body"},
        {"blank", "string", blankString,
         "blank string BLANK --at MM --girth MM [--half both|upper|lower] [--out JOB]",
         "the section a string proves",
         "the section exponent that gives this girth, `residual_mm`; `--half both`, `upper` "
         "or `lower`; `--out JOB`"},
        {"blank", "compare", blankCompare, "blank compare BLANK BLANK", "what is different",
         "second less first: length, area, volume, outlines and girths at 41 places, noses "
         "together"},
        {"blank", "wrap", blankWrap, "blank wrap BLANK [--material tape] [--sheet 20x20]",
         "where a sheet lies flat without a cut",
         "widest strip, `strip_length_mm` (20) long, that lies flat along the body, at most "
         "half the girth (`whole_side`); `lies_share` of the skin where a sheet of `--sheet "
         "20x20` does. `--material tape`"},
        {"blank", "table", blankTable, "blank table BLANK --out F.pdf|F.csv", "its measures, for the bench",
         "its measures, for the bench"},
        {"blank", "library", blankLibrary,
         "blank library list|seed|import|export|remove --file WORKSHOP [--blank BLANK] [--id "
         "ID] [--out JOB] [--search WORDS]",
         "the blanks of a workshop file", "the blanks of a workshop file; `--search WORDS`"},
        {"pattern", "list", patternList, "pattern list", "the kinds of marks by family",
         "`kinds`: kind, family, name, whether it is cut, parameters as in `pattern kinds`"},
        {"pattern", "render", patternRender,
         "pattern render JOB --png F [--side L|R|back|belly] [--per_mm 12] [--background #rrggbb]",
         "a picture of the body as painted",
         "a picture of the body as painted, seen straight from a side, from above or from below: `file`, "
         "`width_px`, `height_px`, `elements` (id, kind, whether it is cut, how many openings), `errors` of "
         "those that could not be drawn (exit 3), warnings"},
        {"pattern", "kinds", patternKinds, "pattern kinds [--markdown]",
         "the kinds of marks there are, with what can be set of each",
         "`kinds`: id, name, params (key, name, type, low, high, usual, `usual_from`: the key "
         "whose value an absent one takes, `on_another_size`) and handles; `--markdown`: the "
         "table of docs/FORMAT.md"},
        {"refit", "", refit, "refit JOB --blank BLANK --out JOB2 [--repair]",
         "the same pattern on another blank",
         "the same pattern on another blank: `elements` (id, fate: kept, moved, rescaled, fewer, more, "
         "collides, "
         "falls_off, overlaps, anchor_missing or unknown; text; `repair`, what would mend it), `masks`, "
         "`offered_landmarks`, warnings; `--repair` mends what can be mended. Exit 3 when something is left "
         "to "
         "do; the job is written all the same"},
        {"mask", "kinds", maskKindsTold, "mask kinds [--markdown]",
         "the kinds of masks there are, with what can be set of each",
         "the same for masks: `kinds`: id, name, params; `--markdown`: their table of docs/FORMAT.md"},
        {"fit", "", fit,
         "fit BLANK --patch side,x0,x1,g0,g1 | --disc side,x,g,r [--material "
         "paper|card|film|tape|vinyl] [--strain 0.01] [--vertices N] [--relief auto|none] "
         "[--apply loose|lateral|back] [--svg F] [--map F.csv [--points F.csv]]",
         "does a sheet lie there, where does art land",
         "strain, verdict, lift, landing, landing when traced. `--material`, `--strain` (a "
         "fraction, instead of the material's), `--vertices`, `--apply`, `--svg F`, `--map "
         "F.csv [--points F.csv]`. Slits are planned for whole sides and bodies only; exit 3 where the "
         "sheet cannot lie"},
        {"fit", "", fit,
         "fit BLANK --kind side|wrap [--seam belly|back] [--material ...] [--relief auto|none|N] [--strain "
         "0.01] "
         "[--vertices N] [--apply ...] [--svg F] [--map F.csv] [--borders F.csv]",
         "a whole side or the whole body, with the slits or pieces its material needs",
         "a whole side, or the whole body with its edges on the seam; 5 % of the length stay bare at each "
         "tip. "
         "As above, and `answer`: plain, slits, halves (one a side), strips (along the body), pieces (across "
         "it) "
         "or patches (no few sheets do); `relief_cuts` and `pieces` of all together, `strain_plain` without "
         "a "
         "slit, `widest_mouth_mm`, `patch_mm`, `sheets`: size, slits in x, g, marks; `press`: where to press "
         "with "
         "two fingers, and how far it is tight, when it does not lie. `--relief auto` (as few as will do), "
         "`none`, or a number of slits across. `--map` and `--borders` are of the first sheet"},
        {"fit", "", fit, "fit JOB", "the same for every mask of a job",
         "the same for every mask, with its marks, `kind`, `relief_cuts`, `pieces`. `--vertices`"},
        {"land", "", land,
         "land BLANK --map F.csv --side L --marks \"x,g;x,g\" [--borders F.csv] [--apply ...]",
         "lays any flat map back on the body",
         "lays any flat map back on the body: `landing_rms_mm`, `landing_max_mm`, `lands`. `--borders`: its "
         "border "
         "loops, loop,u_mm,v_mm, lips of slits among them; then the map's own points are asked for. Exit 3 "
         "when "
         "it lands more than 0.3 mm off, the least a hand can do"},
        {"cut", "", cut,
         "cut JOB --out DIR [--sheet A4|Letter|210x297] [--format svg,pdf,dxf] [--tool "
         "knife|scissors|plotter|hot] [--tidy]",
         "true-size pages of all masks; --tidy takes away sheets of an earlier, longer run",
         "pages of all masks. `--sheet A4`, `Letter` or `210x297`; `--format svg,pdf,dxf`; "
         "`--tool knife`, `scissors`, `plotter`, `hot`. Without `--sheet` the job's own sheet "
         "and places; another sheet lays all out anew. Sheets of an earlier, longer run are "
         "told (`old_pages`), with `--tidy` taken away"},
        {"spray", "edge", sprayEdge,
         "spray edge --gap MM --distance MM --pressure KPA --needle MM [--angle DEG] [--paint "
         "opaque] [--reduction 4:1] [--flow_ml_min 0.4] [--speed_mm_s 120] [--film UM] "
         "[--stroke along|across] [--aim_mm 0] [--thickness MM]",
         "how wide an edge is and how far paint creeps",
         "`edge_width_mm` (10-90 %), `creep_mm` (from the window's rim to where 5 % of the "
         "film lies: the shift `shift_mm` of the whole edge is part of it, and so is "
         "`liquid_mm` drawn in wet), `shift_mm`, `film_um` of one pass. `--angle` off "
         "straight-on, `--paint opaque`, `pearl`, `transparent`, `ink`, `primer`, "
         "`--reduction 4:1`, `--flow_ml_min`, `--speed_mm_s`, `--film` (um wet), `--stroke "
         "along` or `across`, `--aim_mm` onto the mask, `--thickness` of the sheet"},
        {"scales", "list", scalesList, "scales list [--file WORKSHOP]", "the nets there are",
         "`nets`: `name`, weave, cell along and across, strand, share that is open, stretch, tear, uses"},
        {"scales", "put", scalesPut,
         "scales put NET.json --file WORKSHOP | scales put --remove ID --file WORKSHOP",
         "keeps a net of the shop's own",
         "a net as in a job's `scales`, kept as a row of the workshop file: `id`. One of the same id is "
         "replaced, also one that "
         "ships; `--remove` brings that back. `--file` of the other verbs takes nets from there"},
        {"scales", "choose", scalesChoose,
         "scales choose BLANK [--fish_mm 180 --fish_count 215 | --count N | --eye_mm MM] [--tolerance 0.2]",
         "which net gives scales of the wanted size",
         "`wanted_mm`, the length of one scale, and all `nets`, best first, single and doubled, with `ratio` "
         "and `reason`; "
         "`too_coarse` where none is fine enough: then they are a hint only"},
        {"scales", "lines", scalesLines,
         "scales lines BLANK [--width MM] [--lean DEG] [--short MM] [--tail MM] [--below "
         "nothing|one_way|both_ways] [--out F.pdf|F.svg]",
         "lines to press into foil",
         "two families that meet on the lateral line: `diamonds` along it, their `width_mm` and `height_mm`, "
         "`stations`: where "
         "along the line each pair begins and where it ends. `--out`: a strip to wrap, true to size"},
        {"scales", "", scales,
         "scales BLANK --net NAME | --lattice PITCHxANGLE [--side L] [--pull N/m] [--clips x1,x2,...] "
         "[--clip MM] [--allowed MM] "
         "[--gather belly|back] [--hook tail|LANDMARK] [--web MM] [--strip F.pdf|F.svg]",
         "a net, or a cut lattice, on a body",
         "`cells_along_lateral` (end to end), `aspect_min`, `aspect_max` (height over length, 1 as on the "
         "bench), `area_min`, "
         "`area_max`, `opening_min`, `opening_max` (share between strands), all from 6 to 94 % of the length "
         "without the hundredth "
         "part at either end; `fishnet_aspect_min`, `fishnet_aspect_max` were its threads not to stretch; "
         "`piece_mm`, along and across, of one layer; `clips`, planned unless given; "
         "`stand_off_mm` (a range: "
         "how knots push back is not known); `flags`, `steps`. `--strip`: the clips on a strip, true to "
         "size. A job's own net and "
         "clips are used where nothing is said. `--lattice 4x23`: lozenges 4 mm long whose sides lean 23 "
         "degrees off the girth, "
         "`--web` between. Exit 3 when the net tears or stands off more than allowed"},
        {"spray", "plan", sprayPlan, "spray plan JOB [--paint opaque] [--width 0.2] [--needles 0.2,0.35]",
         "settings for every mask, with their reasons",
         "settings for every mask, from the job's `spray` chapter: `layers` with needle, "
         "pressure, distance, angle, reduction, coats (they follow the paint), passes, edge, "
         "creep (shift included), `film_um` wet of a coat, `pass_film_um` of a pass, "
         "`worst_place` (where the sheet stands off most), `reasons` (what is practice, what "
         "is pinned, what was computed, what to change first), `steps` (what the next step in "
         "each direction would spoil); `worst` gap; `recipe`: every sprayed step in order with its "
         "`work`, those without a mask with their settings, the others with their `mask`. Paint, drops and "
         "coats of a mask are those of its step unless pinned. `--bench FILE` (My bench), `--needles "
         "0.2,0.35` instead of its guns, `--paint` and `--width` (mm) instead of the job's "
         "wishes. Exit 3 when an edge is not as wanted; pins that contradict are an error "
         "that names the one that binds"},
        {"recipe", "show", recipeShow, "recipe show JOB", "the steps in order, with the colour after each",
         "`steps`: id, act, name, on, paint, coats, dry, where; `covers`, the share of the skin it reaches; "
         "`colour`, its mean there after it, matt or under the clear; `ground` before it; `words` for how "
         "well the two are told apart"},
        {"recipe", "check", recipeCheck, "recipe check JOB [--mend --out JOB2]",
         "what the order of the steps would ruin",
         "`findings`: rule, severity (hint, caution, fault), step, text, repair. `--mend`: every repair "
         "done, the "
         "job written to `--out`. Exit 3 when there is a fault"},
        {"recipe", "begin", recipeBegin, "recipe begin JOB --school light|back --out JOB2 [--shelf FILE]",
         "a first recipe from pattern, masks and net",
         "light to dark, or the back first; paints are the nearest of the shelf that ships, or of `--shelf`, "
         "a JSON "
         "list of paints. Steps there were are replaced. `steps`, `paints`, `findings`"},
        {"recipe", "amounts", recipeAmounts, "recipe amounts JOB --lures N", "how much paint each step takes",
         "`steps`: area of one body, `paint_ml`, `reducer_ml`, `drops` of both for all N, `fills` of the "
         "cup, with what "
         "misses the body (about two thirds) and stays in the cup; `paints`: `ml` of each bottle in all"},
        {"recipe", "render", recipeRender,
         "recipe render JOB --png F [--step ID] [--side L|R|back|belly] [--per_mm 12]",
         "the body after a step",
         "as `pattern render`, in the colours the paints make, after the step, or all of them"},
        {"paint", "list", paintList, "paint list [--shelf FILE]", "the paints there are",
         "`paints`: id, name, family, `colour` of three coats over white, over black, `misfit_steps` of its "
         "swatches"},
        {"paint", "mix", paintMix,
         "paint mix ID:DROPS,ID:DROPS [--reducer DROPS] [--over #rrggbb] [--coats N]",
         "what drops of paints make together",
         "`colour` after N coats (4) over a ground, over white and black; `reducer_share`; `enough`: coats "
         "after which "
         "another changes nothing to see"},
        {"paint", "nearest", paintNearest,
         "paint nearest #rrggbb [--over #rrggbb] [--coats N] [--shelf FILE]",
         "the nearest paint of the shelf, and the nearest mixes",
         "`mixes`: of one, two, three bottles in whole drops, with `colour` and `difference` (CIEDE2000); "
         "`offered`, the "
         "one with fewest bottles within 1 of the best"},
        {"bench", "plan", benchPlan,
         "bench plan JOB [--lures N] [--with JOB2,JOB3] [--guns 0.35,0.3] [--bench FILE] [--painters 2] "
         "[--tray 8] [--rack 16] "
         "[--start 2026-11-30T08:30:00Z] [--tries N]",
         "the order of work for several lures",
         "the order of work: `tasks` with `start_s`, `end_s`, `rested_s` from the start, tray, lures, gun, "
         "cup and what is cleaned "
         "for them; `ready_s` and `ready`, `bound_s` (no plan is ready sooner), `cleanings` against "
         "`cleanings_lure_by_lure`, `cups` with their ml, `trays`, `stood_too_long`, `load_w`. `--with`: "
         "other jobs on the "
         "same bench; `--guns` the needle of each, `0.35+0.2` for a gun with two; `--tries` orders to try"},
        {"bench", "steps", benchSteps, "bench steps JOB [--exact] [--guns 0.35,0.3] [--bench FILE]",
         "the steps of one lure, with what is checked before each",
         "the steps of one lure in order: `says`, `mix`, `set` at the gun, `gates` (what is checked before a "
         "step, `after` it, "
         "`openings` to count, `asked` or switched off). `--exact` solves the masks first, for their lift "
         "and marks"},
        {"log", "list", logList, "log list --file WORKSHOP [--search WORDS]",
         "recipe cards, newest first, and what is worn",
         "recipe cards that hold every word (name, paint, colour, blank, date, mishap), newest first; "
         "`wear`: uses of masks, nets "
         "and brushes, what is left of them, cost of a use"},
        {"log", "show", logShow, "log show CARD --file WORKSHOP", "one card: steps as they were laid down",
         "one card whole, by its id; `left_against_right`: what the measured sides say"},
        {"log", "export", logExport, "log export --file WORKSHOP --out F.json [--id CARD]", "cards as a file",
         "all cards, or one, with their jobs and pictures, as one JSON file"},
        {"log", "import", logImport, "log import F.json --file WORKSHOP", "cards from such a file",
         "adds them; those that are here already, alike, are passed over, others of the same id are both "
         "kept"},
        {"demo", "", demo, "demo --out DIR", "the demo job and all that comes of it",
         "the demo job, its readings, fit report and pages"},
    };
    return all;
}

std::string helpText() {
    std::string text = "nine-leaves-cli: fitted stencils for lure painters\n\n";
    for (const VerbEntry& verb : verbTable())
        text += wrapped(verb.usage) + "      " + std::string(verb.about) + "\n";
    return text + R"(
BLANK is a station table (.csv) or a job (*.nineleaves.json). x runs from the nose, g is the
arc along the girth from the datum line, + towards the back; mm. L and R are the fish's own.
--json prints one JSON object. Exit: 0 done, 1 wrong input, 2 wrong usage, 3 done with a fault.
)";
}

std::string helpMarkdown() {
    std::string text = "| verb | prints or writes |\n|---|---|\n";
    for (const VerbEntry& verb : verbTable()) {
        text += "| `";
        for (const char* c = verb.usage; *c != 0; ++c) {
            if (*c == '|') text += '\\';  // a cell ends there otherwise
            text += *c;
        }
        text += "` | " + std::string(verb.details) + " |\n";
    }
    return text;
}

}  // namespace nine::cli
