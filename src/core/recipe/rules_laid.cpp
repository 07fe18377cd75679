// Rules of masks and nets: dry under them, off in order, there when they are sprayed through.
#include "recipe/rule_parts.h"

namespace nine {

using namespace rule_parts;

namespace {

const Rule kLaidRules[] = {
    {"mask_on_wet", Severity::Fault,
     NINE_WORDS("core", "The mask of \"{step}\" is laid on paint that is not dry: it lifts the paint."),
     NINE_WORDS("core", "Dry the paint first"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             const auto wet = s.act == Act::MaskOn ? wetBefore(v, k) : std::nullopt;
             return wet && !holds(v.recipe.steps[*wet].dry);
         });
     },
     driedBefore},
    {"net_on_wet", Severity::Caution,
     NINE_WORDS("core", "The net of \"{step}\" is laid on wet paint and will glue itself in."),
     NINE_WORDS("core", "Dry the paint first"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             const auto wet = s.act == Act::NetOn ? wetBefore(v, k) : std::nullopt;
             // Tacky, or wet on wet, is wanted by those who say so.
             return wet && v.recipe.steps[*wet].dry == Dry::Flash;
         });
     },
     driedBefore},
    {"net_forgotten", Severity::Fault,
     NINE_WORDS("core", "The net is still on when \"{step}\" comes: it would be buried."),
     NINE_WORDS("core", "Take the net off first"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             if (!finishes(s) && s.act != Act::Lock) return false;
             const auto lying = lyingBefore(v, k);
             return std::find(lying.begin(), lying.end(), "net") != lying.end();
         });
     },
     [](Recipe r, std::size_t k, const RecipeFacts&) {
         Step step = coatOf(r, Act::NetOff, "net-off", "Net off");
         r.steps.insert(r.steps.begin() + static_cast<std::ptrdiff_t>(k), step);
         return r;
     }},
    {"mask_forgotten", Severity::Fault, NINE_WORDS("core", "A mask is still on when \"{step}\" comes."),
     NINE_WORDS("core", "Take it off first"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             if (!finishes(s) && s.act != Act::Lock) return false;
             const auto lying = lyingBefore(v, k);
             return std::any_of(lying.begin(), lying.end(),
                                [](const std::string& what) { return what != "net"; });
         });
     },
     [](Recipe r, std::size_t k, const RecipeFacts& facts) {
         auto lying = lyingBefore({r, facts}, k);
         std::reverse(lying.begin(), lying.end());
         for (const std::string& what : lying) {
             if (what == "net") continue;
             Step step = coatOf(r, Act::MaskOff, "mask-off", "Mask off");
             step.mask = what.substr(5);
             r.steps.insert(r.steps.begin() + static_cast<std::ptrdiff_t>(k++), step);
         }
         return r;
     }},
    {"order_of_masks", Severity::Fault,
     NINE_WORDS("core", "\"{step}\" takes off what still lies under something else."),
     NINE_WORDS("core", "Take off first what lies on top"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             if (s.act != Act::MaskOff && s.act != Act::NetOff) return false;
             const auto lying = lyingBefore(v, k);
             const std::string own = s.act == Act::NetOff ? "net" : "mask:" + s.mask;
             const auto found = std::find(lying.begin(), lying.end(), own);
             if (found == lying.end()) return false;
             // Masks of the two sides lie beside each other.
             const auto sideOf = [&](const std::string& what) {
                 for (const MaskFact& m : v.facts.masks)
                     if ("mask:" + m.id == what) return m.right ? 2 : 1;
                 return 3;
             };
             return std::any_of(found + 1, lying.end(),
                                [&](const std::string& over) { return (sideOf(over) & sideOf(own)) != 0; });
         });
     },
     [](Recipe r, std::size_t k, const RecipeFacts& facts) {
         const std::string top = lyingBefore({r, facts}, k).back();
         for (std::size_t later = k + 1; later < r.steps.size(); ++later) {
             const Step& s = r.steps[later];
             if (s.on && ((s.act == Act::NetOff && top == "net") ||
                          (s.act == Act::MaskOff && top == "mask:" + s.mask)))
                 return moved(std::move(r), later, k);
         }
         Step step = coatOf(r, top == "net" ? Act::NetOff : Act::MaskOff, "off", "Off");
         if (top != "net") step.mask = top.substr(5);
         r.steps.insert(r.steps.begin() + static_cast<std::ptrdiff_t>(k), step);
         return r;
     }},
    {"never_laid", Severity::Caution,
     NINE_WORDS("core", "\"{step}\" sprays through something that is not on the body then."),
     NINE_WORDS("core", "Lay it on before, take it off after"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             if (!paints(s.act)) return false;
             const bool net = s.where.reaches == Reaches::Net || s.where.reaches == Reaches::Grazing;
             const bool mask = s.where.reaches == Reaches::Windows;
             if (!net && !mask) return false;
             const auto lying = lyingBefore(v, k);
             return std::find(lying.begin(), lying.end(), net ? "net" : "mask:" + s.where.of) == lying.end();
         });
     },
     [](Recipe r, std::size_t k, const RecipeFacts&) {
         const Where where = at(r, k).where;
         const bool net = where.reaches != Reaches::Windows;
         Step on = coatOf(r, net ? Act::NetOn : Act::MaskOn, "on", net ? "Net on" : "Mask on");
         if (!net) on.mask = where.of;
         r.steps.insert(r.steps.begin() + static_cast<std::ptrdiff_t>(k), on);
         Step back = coatOf(r, net ? Act::NetOff : Act::MaskOff, "off", net ? "Net off" : "Mask off");
         if (!net) back.mask = where.of;
         r.steps.insert(r.steps.begin() + static_cast<std::ptrdiff_t>(k) + 2, back);
         return r;
     }},
    {"fabric_lifted_wet", Severity::Caution,
     NINE_WORDS("core",
                "\"{step}\" lifts a fabric net off wet paint: it smears. Only metal mesh comes off wet."),
     NINE_WORDS("core", "Dry the paint first"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             const auto wet = s.act == Act::NetOff && v.facts.fabricNet ? wetBefore(v, k) : std::nullopt;
             return wet && !holds(v.recipe.steps[*wet].dry);
         });
     },
     driedBefore},
    {"cutouts_lost", Severity::Fault,
     NINE_WORDS("core", "\"{step}\" needs the cut-outs of its mask, which are not kept."),
     NINE_WORDS("core", "Spray it without them"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t) {
             return paints(s.act) && s.where.reaches == Reaches::Negatives &&
                    std::any_of(v.facts.masks.begin(), v.facts.masks.end(),
                                [&](const MaskFact& m) { return m.id == s.where.of && !m.keepsCutouts; });
         });
     },
     [](Recipe r, std::size_t k, const RecipeFacts&) {
         at(r, k).where = {};
         return r;
     }},
    {"not_wiped", Severity::Caution,
     NINE_WORDS("core", "\"{step}\" lays a sheet on that was sprayed before: wipe and dry it, or it prints."),
     NINE_WORDS("core", "Wipe it first"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t k) {
             if (s.act != Act::MaskOn || s.doing("wipe")) return false;
             bool used = false;
             v.before(k, [&](std::size_t b) {
                 used = used || (v.recipe.steps[b].act == Act::MaskOn && v.recipe.steps[b].mask == s.mask);
                 return !used;
             });
             return used;
         });
     },
     [](Recipe r, std::size_t k, const RecipeFacts&) {
         at(r, k).does.push_back("wipe");
         return r;
     }},
    {"mask_gone", Severity::Fault, NINE_WORDS("core", "The mask of \"{step}\" is gone."),
     NINE_WORDS("core", "Switch the step off"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t) {
             const std::string mask = maskOf(s);
             return !mask.empty() && !isMask(v.facts, mask);
         });
     },
     off},
    {"net_gone", Severity::Fault, NINE_WORDS("core", "\"{step}\" needs a net, and the job has none."),
     NINE_WORDS("core", "Switch the step off"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t) {
             const bool net =
                 s.act == Act::NetOn || s.act == Act::NetOff ||
                 (paints(s.act) && (s.where.reaches == Reaches::Net || s.where.reaches == Reaches::Grazing));
             return net && !v.facts.net;
         });
     },
     off},
    {"element_gone", Severity::Fault, NINE_WORDS("core", "The mark \"{step}\" follows is gone."),
     NINE_WORDS("core", "Switch the step off"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t) {
             return paints(s.act) && s.where.reaches == Reaches::Element &&
                    std::find(v.facts.elements.begin(), v.facts.elements.end(), s.where.of) ==
                        v.facts.elements.end();
         });
     },
     off},
    {"paint_gone", Severity::Fault, NINE_WORDS("core", "A paint of \"{step}\" is not known to this job."),
     NINE_WORDS("core", "Switch the step off"),
     [](const RuleView& v) {
         return those(v, [&](const Step& s, std::size_t) {
             return paints(s.act) && std::any_of(s.paint.begin(), s.paint.end(),
                                                 [&](const MixPart& p) { return !v.bottle(p.bottle); });
         });
     },
     off},
};

}  // namespace

std::span<const Rule> rulesOfWhatIsLaidOn() {
    return kLaidRules;
}

}  // namespace nine
