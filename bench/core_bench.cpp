// CPU seconds of the core's long work, as a table for docs/BENCH.md, with the ratio to a reference in the
// same run.
//
//   build/bench/bench/nine-bench examples/sedge60.csv
#include <algorithm>
#include <chrono>
#include <cmath>
#include <ctime>
#include <functional>
#include <iostream>

#include "bench_rows.h"

#include "base/files.h"
#include "base/number_text.h"
#include "base/units.h"
#include "blank/measure.h"
#include "image/picture_file.h"
#include "image/silhouette.h"
#include "image/tracing.h"
#include "job/blank_library.h"
#include "job/demo_job.h"
#include "job/export.h"
#include "job/recipe_section.h"
#include "job/refit.h"
#include "paint/mix.h"
#include "pattern/cut_scales.h"
#include "pattern/kinds.h"
#include "scale/cells.h"
#include "scale/clip_plan.h"
#include "spray/plan.h"
#ifdef NINE_HAVE_CGAL
#include "tests/oracles/cgal_arap.h"
#endif

namespace nine {
namespace {

double cpuSeconds() {
    timespec t{};
    clock_gettime(CLOCK_PROCESS_CPUTIME_ID, &t);
    return static_cast<double>(t.tv_sec) + 1e-9 * static_cast<double>(t.tv_nsec);
}

double wallSeconds() {
    return std::chrono::duration<double>(std::chrono::steady_clock::now().time_since_epoch()).count();
}

/// Least of several runs: what the machine can do when nothing else disturbs it.
double best(int runs, const std::function<double()>& clock, const std::function<void()>& work) {
    double least = 1e300;
    for (int i = 0; i < runs; ++i) {
        const double start = clock();
        work();
        least = std::min(least, clock() - start);
    }
    return least;
}

void row(const std::string& what, double seconds, const std::string& target, const std::string& ratio = "") {
    std::cout << "| " << what << " | " << fixedText(1000 * seconds, seconds < 0.01 ? 2 : 0) << " | " << target
              << " | " << ratio << " |\n";
}

/// Mixes sought among the paints that ship and ten more; twelve steps of colour over one another on 50 000
/// places, with fades and windows.
void benchColour() {
    std::vector<Bottle> shelf = genericShelf();
    for (std::size_t i = 0; shelf.size() < 40; ++i) {
        Bottle more = shelf[i];
        more.id += "-2";
        for (Swatch& s : more.swatches) s.seen.g = std::min(255.0, s.seen.g + 9);
        shelf.push_back(std::move(more));
    }
    Wanted wanted;
    wanted.colour = labOf(xyzOf(linearOf(Srgb{120, 105, 60})));
    row("a paint found from four swatches", best(5, cpuSeconds, [&] { (void)filmOf(shelf[4]); }), "");
    const Palette palette = paletteOf(shelf);
    const double quick = best(3, cpuSeconds, [&] { (void)nearestMixes(palette, wanted); });
    const double all = best(1, cpuSeconds, [&] { (void)nearestByTryingAll(palette, wanted); });
    row("nearest mixes of up to three of 40 paints", quick, "50",
        "all tried " + fixedText(1000 * all, 0) + " ms: " + fixedText(all / quick, 1) + " times ours");
    constexpr std::size_t kPlaces = 50000;
    std::vector<Step> steps;
    std::vector<std::shared_ptr<const Cover>> covers;
    for (std::size_t k = 0; k < 12; ++k) {
        Step step;
        step.id = std::to_string(k);
        step.act = Act::Colour;
        step.paint = {{shelf[3 * k % 30].id, 4}};
        step.reducer = 1;
        step.coats = 2;
        steps.push_back(std::move(step));
        auto cover = std::make_shared<Cover>();
        cover->thins = k % 3 != 0;
        for (std::size_t p = 0; p < kPlaces; ++p) {
            const double along = static_cast<double>(p % 250) / 250,
                         round = static_cast<double>(p / 250) / 200;
            const double v = cover->thins
                                 ? 4 * (0.5 - std::abs(along - 0.08 * static_cast<double>(k))) + round
                                 : (std::sin(40 * along + k) > 0.2 ? 1.0 : 0.0);
            cover->share.push_back(static_cast<float>(std::clamp(v, 0.0, 1.0)));
        }
        covers.push_back(std::move(cover));
    }
    row("colour of 12 steps on 50 000 places",
        best(3, cpuSeconds, [&] { (void)painted(steps, palette, covers, kPlaces, evenBands(.45)); }), "1500");
}

/// The demo's recipe on its body, as the window works it out: whole, and when one step has changed.
void benchRecipe() {
    const Result<Job> demo = demoJob();
    if (!demo) return;
    Derivations derived;
    for (const auto& [raster, fineness, what, budget] :
         {std::tuple(SkinRaster{160, 110}, Fineness::Glance, "coarse", "120"),
          std::tuple(SkinRaster{512, 300}, Fineness::Cut, "exact", "400")}) {
        const Result<RecipeOnBody> before = recipeOnBody(*demo, derived, raster, fineness);
        if (!before) return;
        LayersChapter layers = demo->get<LayersChapter>();
        const std::size_t last = layers.recipe.steps.size();
        for (std::size_t s = 0; s < last; ++s)
            if (layers.recipe.steps[s].where.reaches == Reaches::Fade) {
                layers.recipe.steps[s].where.reach_mm += 1;  // early, so that most is above it
                break;
            }
        const Job changed = demo->with(std::move(layers));
        const double whole =
            best(1, wallSeconds, [&] { (void)recipeOnBody(*demo, derived, raster, fineness); });
        const double again = best(3, wallSeconds, [&] {
            const auto on = recipeOnBody(changed, derived, raster, fineness, {}, &*before);
            if (on) (void)colourAfter(*on, last - 1);
        });
        row(std::string("a changed fade of the demo's recipe on the holder, ") + what, again, budget,
            "whole " + fixedText(1000 * whole, 0) + " ms: " + fixedText(whole / again, 1) + " times that");
        row(std::string("what its rules say, ") + what,
            best(1, wallSeconds, [&] { (void)findingsOf(*before); }), "");
        row(std::string("a cut through its films, ") + what,
            best(3, wallSeconds, [&] { (void)sectionOf(*before, 30, Side::Left); }), "");
    }
}

/// A lattice of some 1500 windows to a mask, verdict and all, wall clock.
void benchLattice() {
    const Result<Job> demo = demoJob();
    if (!demo) return;
    PatternChapter pattern;
    Element scales = cutScalesElement(1.45, 1.0, 0.3);
    scales.id = "scales";
    scales.values.set("from_length", 0.12);
    scales.values.set("to_length", 0.9);
    scales.values.set("to_girth", 0.9);
    pattern.elements = {std::make_shared<const Element>(scales)};
    Job job = inStep(demo->with(pattern).with(MasksChapter()));
    std::size_t windows = 0;
    const double seconds = best(1, wallSeconds, [&] {
        Derivations derived;
        for (const MaskResult& mask : derived.masks(job))
            if (mask.mask)
                for (const Sheet& sheet : (*mask.mask)->sheets)
                    windows = std::max(windows, sheet.windows.size());
    });
    row("a cut lattice of " + std::to_string(windows) + " windows to masks of both sides, wall clock",
        seconds, "4000");
}

/// A pattern of sixty marks put on another blank, and on five at a glance as the strip of blanks does.
void benchRefit(const Job& demo) {
    PatternChapter pattern;
    for (int i = 0; i < 60; ++i) {
        Element e;
        e.id = "row-" + std::to_string(i);
        e.kind = i % 2 == 0 ? "dot_row" : "oval_patch";
        e.values = usualValues(*findKind(e.kind));
        for (const char* size : {"first_mm", "last_mm", "along_mm", "across_mm"})
            if (e.values.find(size)) e.values.set(size, 0.6);
        if (e.values.find("spacing_mm")) e.values.set("spacing_mm", 1.5);
        e.dx_mm = 14 + 3.0 * (i % 10);
        e.dg_mm = -6 + 2.2 * (i / 10);
        pattern.elements.push_back(std::make_shared<const Element>(e));
    }
    Job job = demo.with(std::move(pattern));
    job = job.with(MasksChapter()).with(SprayChapter());
    std::vector<BlankChapter> blanks;
    for (const BlankChapter& blank : demoBlanks())
        if (blank.name != job.get<BlankChapter>().name && blanks.size() < 5) blanks.push_back(blank);
    // As in the window: what the job itself looks like is known.
    const auto refitted = [&](std::size_t count, Derivations& derived) {
        for (std::size_t i = 0; i < count; ++i) (void)refitJob(job, blanks[i], derived);
    };
    const auto timed = [&](std::size_t count) {
        double least = 1e9;
        for (int k = 0; k < 5; ++k) {
            Derivations derived;
            for (std::size_t i = 0; i < 60; ++i) (void)derived.artAtAGlance(job, i);
            least = std::min(least, best(1, wallSeconds, [&] { refitted(count, derived); }));
        }
        return least;
    };
    row("60 marks refitted to another blank", timed(1), "100");
    row("60 marks refitted to five blanks", timed(5), "400");
    row("the demo's pattern refitted to another blank",
        best(3, wallSeconds,
             [&] {
                 Derivations derived;
                 (void)refitJob(demo, blanks[0], derived);
             }),
        "");
    for (std::size_t i = 0; i < demo.get<PatternChapter>().elements.size(); ++i)
        if (demo.get<PatternChapter>().elements[i]->kind == "tracks")
            row("worm tracks of a whole side, exact",
                best(3, wallSeconds,
                     [&] {
                         Derivations derived;
                         (void)derived.art(demo, i);
                     }),
                "1000");
}

/// A tracing of 12 megapixels read back and a photo of as many: the demo's own, enlarged.
void benchPictures() {
    const auto large = [](const char* name) {
        const Result<std::string> bytes = readFile(name, kMaxPictureFileBytes);
        const Picture small = bytes ? decodePicture(*bytes, name)->picture : Picture(40, 40);
        Picture out(4000, 3000);
        for (int y = 0; y < out.height; ++y)
            for (int x = 0; x < out.width; ++x) {
                const Vec3 c = sampleRgb(
                    small, Vec2((x + 0.5) * small.width / out.width, (y + 0.5) * small.height / out.height));
                for (int k = 0; k < 3; ++k) out.at(x, y)[k] = static_cast<std::uint8_t>(c[k]);
            }
        return jpegOf(out, 90);
    };
    const std::string tracing = large("examples/pictures/sedge60-tracing.jpg"),
                      photo = large("examples/pictures/sedge60-photo.jpg");
    row("tracing sheet of 12 megapixels, from the file to outlines, wall clock",
        best(3, wallSeconds, [&] { (void)readTracing(decodePicture(tracing, "")->picture, {}); }), "3000");
    row("photo of 12 megapixels, from the file to its silhouette, wall clock",
        best(3, wallSeconds, [&] { (void)silhouetteOf(decodePicture(photo, "")->picture, {}); }), "3000");
}

int run(const std::string& path) {
    const Result<std::string> text = readFile(path);
    const Result<StationTable> table =
        text ? parseStationTable(*text, path) : Result<StationTable>(text.error());
    const Result<Skin> made = table ? Skin::of(*table) : Result<Skin>(table.error());
    if (!made) {
        std::cerr << made.error().text() << '\n';
        return 1;
    }
    const Skin& skin = *made;
    std::cout << "| work | ms | target ms | reference in the same run |\n|---|---|---|---|\n";
    row("geodesic, nose to tail round the body (error below 1e-5 mm)",
        best(20, cpuSeconds,
             [&] {
                 (void)shortestWay(skin, {Side::Left, 8, 3}, {Side::Right, 50, -4});
             }),
        "5");
    row("measure the body", best(5, cpuSeconds, [&] { (void)measureBody(skin); }), "");

    constexpr int kMany = 500;
    DrapeWish net;
    net.net = *findNet("tulle-1.6");
    row("a net draped, preview at 4 mm",
        best(5, cpuSeconds, [&] { (void)drape(skin, net, kDrapePreview_mm); }), "70");
    const Result<DrapePtr> laid = drape(skin, net);
    row("a net draped at 2 mm", best(3, cpuSeconds, [&] { (void)drape(skin, net); }), "350");
    if (laid) {
        DrapeWish more = net;
        more.pull_n_m *= 1.1;
        row("the same, pulled a tenth more",
            best(3, cpuSeconds, [&] { (void)drape(skin, more, kDrapeSpacing_mm, laid->get()); }), "30");
        ClipWish clips;
        for (int i = 0; i < 7; ++i)
            clips.clips.push_back({skin.noseX_mm() + skin.length_mm() * (0.065 + 0.145 * i)});
        row("clipped in seven places, both ends of the range",
            best(3, cpuSeconds, [&] { (void)clipNet(skin, **laid, clips); }), "450");
        row("its threads", best(3, cpuSeconds, [&] { (void)strandsOf(**laid, {}, 100000); }), "10");
        row("a plan of clips for 0.5 mm, wall clock",
            best(2, wallSeconds, [&] { (void)planClips(skin, **laid, {}); }), "1500");
    }
    benchColour();
    benchRecipe();
    benchLattice();
    row("edge width and creep of a setting",
        best(5, cpuSeconds,
             [] {
                 for (int i = 0; i < kMany; ++i) (void)edgeFigures({}, 0.002 * i);
             }) /
            kMany,
        "1");
    row("spray plan of a mask, with what its next steps spoil",
        best(20, cpuSeconds, [] { (void)planSpray({}, {}); }), "");
    for (const int vertices : {2000, 10000}) {
        const Result<PatchMesh> mesh = meshPatch(skin, BandPatch{15, 45, -7, 7}, vertices, "patch");
        const std::string n = std::to_string(vertices / 1000) + "k";
        std::string ratio;
        const double preview = best(3, cpuSeconds, [&] { (void)previewPatch(*mesh); });
        const double whole = best(3, cpuSeconds, [&] { (void)flattenPatch(*mesh); });
#ifdef NINE_HAVE_CGAL
        const double reference = best(1, cpuSeconds, [&] { (void)test::cgalArap(mesh->mesh); });
        ratio = "CGAL ARAP " + fixedText(1000 * reference, 0) + " ms: " + fixedText(reference / preview, 1) +
                " times ours";
#endif
        row("preview (conformal, rigid), " + n + " vertices", preview, vertices == 2000 ? "50" : "350",
            ratio);
        row("whole solve (+ relaxed), " + n + " vertices", whole, vertices == 2000 ? "150" : "1000");
        const Result<FlatPatch> flat = flattenPatch(*mesh);
        row("least reachable strain, " + n + " vertices",
            best(1, cpuSeconds, [&] { (void)feasibleMap(flat->rest, flat->map); }),
            vertices == 2000 ? "600" : "");
        if (vertices > 2000) continue;
        row("verdict, landing and traced landing",
            best(3, cpuSeconds, [&] { (void)judgeFit(skin, *flat, 0.005, Laying::Loose); }), "");
    }

    benchPictures();
    benchBenchAndLog(
        row, [](int runs, const std::function<void()>& work) { return best(runs, cpuSeconds, work); });
    std::cout << "\n| cap of a sphere, rad | least strain | Milnor's bound | above it |\n|---|---|---|---|\n";
    StationTable ball;
    for (int i = 0; i <= 14; ++i) {
        const double r = i == 0 || i == 14 ? 0 : 20 * std::sin(kPi * i / 14);
        ball.stations.push_back({20 * (1 - std::cos(kPi * i / 14)), r, r, r, 2, 2, {}});
    }
    const Result<Skin> sphere = Skin::of(ball);
    for (const double a : {0.2, 0.4, 0.8}) {
        const Result<FlatPatch> cap =
            flattenPatch(*meshPatch(*sphere, DiscPatch{20, 0, 20 * a}, 2000, "cap"));
        const double reached =
            summarize(cap->rest, strainsOf(cap->rest, *feasibleMap(cap->rest, cap->map))).max;
        const double bound = 0.5 * std::log(a / std::sin(a));
        std::cout << "| " << fixedText(a, 1) << " | " << fixedText(reached, 5) << " | " << fixedText(bound, 5)
                  << " | " << fixedText(100 * (reached / bound - 1), 1) << " % |\n";
    }
    std::cout << "\n| work | ms | target ms | |\n|---|---|---|---|\n";
    const Result<Job> job = demoJob();
    row("demo job to all pages, wall clock",
        best(3, wallSeconds,
             [&] {
                 Derivations derived;
                 const auto masks = derived.masks(*job);
                 const Result<CutPages> pages = cutPages(*job, masks);
                 (void)pageFiles(drawPages(*job, masks, *pages), {true, true, false});
             }),
        "3000");
    benchRefit(*job);
    return 0;
}

}  // namespace
}  // namespace nine

int main(int count, char** words) {
    return nine::run(count > 1 ? words[1] : "examples/sedge60.csv");
}
