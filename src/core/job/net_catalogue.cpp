#include "job/net_catalogue.h"

#include <algorithm>

#include "job/chapters/scales.h"
#include "job/json_fields.h"

namespace nine {

std::string netText(const Net& net) {
    return json::textOf(json::netJson(net));
}

Result<Net> parseNet(std::string_view text, const std::string& source) {
    return json::readText<Net>(text, source, "net", [](const json::Value& whole) {
        json::Fields fields(whole, "");
        Net net = json::readNet(fields, "");
        return net;
    });
}

Result<std::vector<Net>> netsOf(const Workshop& workshop, Warnings* warnings) {
    std::vector<Net> nets = netsOfCatalogue();
    const Result<std::vector<WorkshopRow>> rows = workshop.list(kNetKind);
    if (!rows) return rows.error();
    for (const WorkshopRow& listed : *rows) {
        const Result<std::optional<WorkshopRow>> row = workshop.get(kNetKind, listed.id);
        if (!row) return row.error();
        if (!*row) continue;
        Result<Net> net = parseNet((*row)->json, "workshop net " + listed.id);
        if (!net) {
            if (warnings) warnings->push_back({net.error().code, net.error().words, net.error().where});
            continue;
        }
        net->id = listed.id;
        const auto same =
            std::find_if(nets.begin(), nets.end(), [&](const Net& n) { return n.id == listed.id; });
        if (same == nets.end())
            nets.push_back(std::move(*net));
        else
            *same = std::move(*net);
    }
    return nets;
}

Result<std::string> putNet(Workshop& workshop, Net net) {
    if (net.id.empty()) {
        const Result<std::string> id = workshop.freeId(kNetKind, net.name);
        if (!id) return id.error();
        net.id = *id;
    }
    if (Status ok = checkNet(net, "net"); !ok) return ok.error();
    if (Status ok = workshop.put(
            {kNetKind, net.id, net.name, std::string(nameOf(net.weave).id), netText(net), {}, {}});
        !ok)
        return ok.error();
    return net.id;
}

Status removeNet(Workshop& workshop, const std::string& id) {
    return workshop.remove(kNetKind, id);
}

}  // namespace nine
