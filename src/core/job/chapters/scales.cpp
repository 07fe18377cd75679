#include "job/chapters/scales.h"

#include <algorithm>

#include "job/job.h"
#include "job/json_fields.h"
#include "scale/limits.h"

namespace nine {

using namespace json;

Net json::readNet(Fields& f, const std::string& path) {
    Net net;
    f.need("name");
    f.read("name", net.name);
    f.read("id", net.id);
    if (net.id.empty()) net.id = net.name;
    std::string weave(nameOf(net.weave).id);
    f.read("weave", weave);
    bool found = false;
    for (const WeaveName& name : weaveNames())
        if (name.id == weave) {
            net.weave = name.weave;
            found = true;
        }
    if (!found)
        fail("bad_value",
             Words(NINE_WORDS("core", "Nets are woven as hexagon, square or diamond, not as \"{weave}\"."))
                 .name("weave", weave),
             f.at("weave"));
    f.read("along_mm", net.along_mm);
    f.read("across_mm", net.across_mm);
    f.read("strand_mm", net.strand_mm);
    f.read("stiffness_n_m", net.stiffness_n_m);
    f.read("knot_n_m", net.knot_n_m);
    f.read("stretch_along", net.stretchAlong);
    f.read("stretch_across", net.stretchAcross);
    f.read("shear", net.shear);
    f.read("tear_n_m", net.tear_n_m);
    f.read("uses", net.uses);
    f.read("lift_wet", net.liftWet);
    f.read("doubles", net.doubles);
    if (Status ok = checkNet(net, path); !ok) throw Bad{ok.error()};
    net.unknownJson = f.unknown();
    return net;
}

json::Json json::netJson(const Net& net) {
    Json into{{"id", net.id},
              {"name", net.name},
              {"weave", std::string(nameOf(net.weave).id)},
              {"along_mm", net.along_mm},
              {"across_mm", net.across_mm},
              {"strand_mm", net.strand_mm},
              {"stiffness_n_m", net.stiffness_n_m},
              {"knot_n_m", net.knot_n_m},
              {"stretch_along", net.stretchAlong},
              {"stretch_across", net.stretchAcross},
              {"shear", net.shear},
              {"tear_n_m", net.tear_n_m},
              {"uses", net.uses},
              {"lift_wet", net.liftWet},
              {"doubles", net.doubles}};
    addUnknown(into, net.unknownJson);
    return into;
}

namespace {

/// One of a few words, as an enum.
template <typename E>
void readWord(Fields& f, const char* key, E& into, std::initializer_list<std::pair<const char*, E>> words) {
    std::string text;
    f.read(key, text);
    if (text.empty()) return;
    std::string all;
    for (const auto& [word, value] : words) {
        if (text == word) {
            into = value;
            return;
        }
        all += (all.empty() ? "" : ", ") + std::string(word);
    }
    fail("bad_value",
         Words(NINE_WORDS("core", "{key} is one of {all}, not \"{text}\"."))
             .name("key", key)
             .name("all", all)
             .name("text", text),
         f.at(key));
}
template <typename E>
std::string wordOf(E value, std::initializer_list<std::pair<const char*, E>> words) {
    for (const auto& [word, v] : words)
        if (v == value) return word;
    return {};
}
const std::initializer_list<std::pair<const char*, Gather>> kGathers{{"belly", Gather::Belly},
                                                                     {"back", Gather::Back}};
const std::initializer_list<std::pair<const char*, ScaleFrom>> kFroms{
    {"fish", ScaleFrom::Fish}, {"count", ScaleFrom::Count}, {"eye", ScaleFrom::Eye}};
const std::initializer_list<std::pair<const char*, BelowLateral>> kBelows{
    {"nothing", BelowLateral::Nothing},
    {"one_way", BelowLateral::Ribs},
    {"both_ways", BelowLateral::Diamonds}};
const std::initializer_list<std::pair<const char*, bool>> kLifts{{"dry", false}, {"wet", true}};
const std::initializer_list<std::pair<const char*, bool>> kStacks{{"over", false}, {"under", true}};

void needWithin(Fields& f, const char* key, double value, double low, double high) {
    const std::string path = f.at(key);
    if (Status ok = checkWithin(key, value, low, high, path.substr(0, path.rfind('.'))); !ok)
        throw Bad{ok.error()};
}

ScaleWish readWish(Fields& w, const std::string& path) {
    ScaleWish wish;
    readWord(w, "from", wish.from, kFroms);
    w.read("fish_mm", wish.fish_mm);
    w.read("fish_count", wish.fishCount);
    w.read("count", wish.count);
    w.read("eye_mm", wish.eye_mm);
    w.read("tolerance", wish.tolerance);
    if (Status ok = checkScaleWish(wish, path); !ok) throw Bad{ok.error()};
    return wish;
}

}  // namespace

ScalesChapter ChapterOf<ScalesChapter>::read(Fields& f, Warnings&) {
    // In one piece: key by key, in the order they are written.
    ScalesChapter s;
    if (const Value* net = f.find("net")) {
        Fields n(*net, f.at("net"));
        s.net = readNet(n, f.at("net"));
    }
    f.read("doubled", s.doubled);
    if (const Value* second = f.find("second")) {
        const auto numbers = numbersIn(*second, 3);
        if (!numbers)
            fail("bad_value", NINE_WORDS("core", "A second layer is moved by [along, across, degrees]."),
                 f.at("second"));
        s.second = {(*numbers)[0], (*numbers)[1], (*numbers)[2]};
    }
    if (const Value* wish = f.find("wish")) {
        Fields w(*wish, f.at("wish"));
        s.wish = readWish(w, f.at("wish"));
        s.unknownWishJson = w.unknown();
    }
    f.read("pull_n_m", s.pull_n_m);
    needWithin(f, "pull_n_m", s.pull_n_m, kLeastPull_n_m, kMostPull_n_m);
    readWord(f, "gather", s.gather, kGathers);
    f.read("hook", s.hook);
    if (const Value* reach = f.find("reach")) {
        const auto numbers = numbersIn(*reach, 3);
        if (!numbers)
            fail("bad_value",
                 NINE_WORDS("core", "A piece of skin for the net is [from, to, share of the half girth]."),
                 f.at("reach"));
        s.reach = {(*numbers)[0], (*numbers)[1], (*numbers)[2]};
        if (!(s.reach.downTo > 0 && s.reach.downTo <= 1))
            fail("out_of_range",
                 NINE_WORDS("core", "A net reaches down over a share from 0 to 1 of the half girth."),
                 f.at("reach"));
    }
    if (const Value* clips = f.find("clips")) {
        for (const Value& item : needArray(*clips, f.at("clips"))) {
            const auto x = item.number();
            if (!x)
                fail("bad_value", NINE_WORDS("core", "Clips are places in millimetres from the nose."),
                     f.at("clips"));
            s.clips.push_back({*x});
        }
        std::sort(s.clips.begin(), s.clips.end(),
                  [](const Clip& a, const Clip& b) { return a.x_mm < b.x_mm; });
        if (s.clips.size() > kMostClips)
            fail("out_of_range",
                 Words(NINE_WORDS("core", "There are {count} clips; {most} are the most."))
                     .number("count", static_cast<double>(s.clips.size()), 0)
                     .number("most", kMostClips, 0),
                 f.at("clips"));
    }
    f.read("clip_mm", s.clip_mm);
    needWithin(f, "clip_mm", s.clip_mm, kNarrowestClip_mm, kWidestClip_mm);
    f.read("allowed_mm", s.allowed_mm);
    needWithin(f, "allowed_mm", s.allowed_mm, kLeastAllowed_mm, kMostAllowed_mm);
    f.read("uses_left", s.usesLeft);
    readWord(f, "lift", s.liftWet, kLifts);
    f.read("mask", s.mask);
    readWord(f, "net_lies", s.netUnder, kStacks);
    f.read("slant_deg", s.slant_deg);
    needWithin(f, "slant_deg", s.slant_deg, 0, kMostSlant_deg);
    f.read("from_deg", s.from_deg);
    needWithin(f, "from_deg", s.from_deg, -360, 360);
    if (const Value* foil = f.find("foil")) {
        Fields l(*foil, f.at("foil"));
        FoilWish& wish = s.foil.emplace();
        l.read("width_mm", wish.width_mm);
        l.read("lean_deg", wish.lean_deg);
        l.read("short_mm", wish.short_mm);
        l.read("tail_mm", wish.tail_mm);
        readWord(l, "below", wish.below, kBelows);
        if (Status ok = checkFoil(wish, f.at("foil")); !ok) throw Bad{ok.error()};
        s.unknownFoilJson = l.unknown();
    }
    return s;
}

void ChapterOf<ScalesChapter>::write(Json& json, const ScalesChapter& s) {
    const ScalesChapter usual;
    if (s.net) json["net"] = netJson(*s.net);
    if (s.doubled) json["doubled"] = true;
    if (!(s.second == usual.second))
        json["second"] = {s.second.along_mm, s.second.across_mm, s.second.angle_deg};
    if (!(s.wish == usual.wish) || !s.unknownWishJson.empty()) {
        json["wish"] = {{"from", wordOf(s.wish.from, kFroms)},
                        {"fish_mm", s.wish.fish_mm},
                        {"fish_count", s.wish.fishCount},
                        {"count", s.wish.count},
                        {"eye_mm", s.wish.eye_mm},
                        {"tolerance", s.wish.tolerance}};
        addUnknown(json["wish"], s.unknownWishJson);
    }
    const auto put = [&](const char* key, const auto& value, const auto& normal) {
        if (value != normal) json[key] = value;
    };
    put("pull_n_m", s.pull_n_m, usual.pull_n_m);
    put("gather", wordOf(s.gather, kGathers), std::string("belly"));
    put("hook", s.hook, usual.hook);
    if (!(s.reach == usual.reach)) json["reach"] = {s.reach.fromX_mm, s.reach.toX_mm, s.reach.downTo};
    for (const Clip& clip : s.clips) json["clips"].push_back(clip.x_mm);
    put("clip_mm", s.clip_mm, usual.clip_mm);
    put("allowed_mm", s.allowed_mm, usual.allowed_mm);
    put("uses_left", s.usesLeft, usual.usesLeft);
    put("lift", wordOf(s.liftWet, kLifts), std::string("dry"));
    put("mask", s.mask, usual.mask);
    put("net_lies", wordOf(s.netUnder, kStacks), std::string("under"));
    put("slant_deg", s.slant_deg, usual.slant_deg);
    put("from_deg", s.from_deg, usual.from_deg);
    if (s.foil) {
        json["foil"] = {{"width_mm", s.foil->width_mm},
                        {"lean_deg", s.foil->lean_deg},
                        {"short_mm", s.foil->short_mm},
                        {"tail_mm", s.foil->tail_mm},
                        {"below", wordOf(s.foil->below, kBelows)}};
        addUnknown(json["foil"], s.unknownFoilJson);
    }
}

Status ChapterOf<ScalesChapter>::check(const Job& job) {
    const ScalesChapter& s = job.get<ScalesChapter>();
    // What is typed is held to the same limits as what is read, or a job could be saved that never opens
    // again.
    if (s.net)
        if (Status ok = checkNet(*s.net, "scales.net"); !ok) return ok;
    if (s.foil)
        if (Status ok = checkFoil(*s.foil, "scales.foil"); !ok) return ok;
    for (const Status& ok :
         {checkScaleWish(s.wish, "scales.wish"),
          checkWithin("pull_n_m", s.pull_n_m, kLeastPull_n_m, kMostPull_n_m, "scales"),
          checkWithin("clip_mm", s.clip_mm, kNarrowestClip_mm, kWidestClip_mm, "scales"),
          checkWithin("allowed_mm", s.allowed_mm, kLeastAllowed_mm, kMostAllowed_mm, "scales"),
          checkWithin("slant_deg", s.slant_deg, 0, kMostSlant_deg, "scales"),
          checkWithin("from_deg", s.from_deg, -360, 360, "scales"),
          checkWithin("reach", s.reach.downTo, 0.01, 1, "scales"),
          checkWithin("reach", s.reach.fromX_mm, -1e4, 1e4, "scales"),
          checkWithin("reach", s.reach.toX_mm, -1e4, 1e4, "scales"),
          checkWithin("second", s.second.along_mm, -1e3, 1e3, "scales"),
          checkWithin("second", s.second.across_mm, -1e3, 1e3, "scales"),
          checkWithin("second", s.second.angle_deg, -360, 360, "scales"),
          checkWithin("uses_left", s.usesLeft, -1, 1e6, "scales")})
        if (!ok) return ok;
    if (!s.mask.empty()) {
        const auto specs = maskSpecs(job);
        if (std::none_of(specs.begin(), specs.end(), [&](const MaskSpecPtr& m) { return m->id == s.mask; }))
            return Error{"unknown_mask",
                         Words(NINE_WORDS("core", "There is no mask \"{mask}\" to lay on the net."))
                             .name("mask", s.mask),
                         "scales.mask"};
    }
    if (s.hook != "tail" && !job.get<BlankChapter>().landmarks.count(s.hook))
        return Error{
            "no_hanger",
            Words(NINE_WORDS("core", "The blank has no {hook} to hook the net on; hook it at the tail."))
                .words("hook", spokenName(s.hook)),
            "scales.hook"};
    return Done{};
}

std::shared_ptr<const ScalesChapter> ChapterOf<ScalesChapter>::inStep(
    const Job& job, const std::shared_ptr<const ScalesChapter>& now) {
    const auto specs = maskSpecs(job);
    const bool masked =
        now->mask.empty() ||
        std::any_of(specs.begin(), specs.end(), [&](const MaskSpecPtr& m) { return m->id == now->mask; });
    const bool hooked = now->hook == "tail" || job.get<BlankChapter>().landmarks.count(now->hook);
    if (masked && hooked) return now;
    auto next = std::make_shared<ScalesChapter>(*now);
    if (!masked) next->mask.clear();
    if (!hooked) next->hook = "tail";
    return next;
}

}  // namespace nine
