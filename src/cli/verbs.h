// The verbs of the command line and what they answer.
#pragma once

#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "base/result.h"
#include "base/task.h"

namespace nine::cli {

using Json = nlohmann::ordered_json;

constexpr int kDone = 0, kWrongInput = 1, kWrongUsage = 2, kFault = 3;

struct Reply {
    Json json;
    std::string text;  ///< plain sentences and aligned figures, lines ended
    int exitCode = kDone;
};

using Words = std::vector<std::string>;

Result<Reply> blankMeasure(const Words& words, const Task& task);
Result<Reply> blankDistance(const Words& words, const Task& task);
Result<Reply> blankString(const Words& words, const Task& task);
Result<Reply> blankCompare(const Words& words, const Task& task);
Result<Reply> blankWrap(const Words& words, const Task& task);
Result<Reply> blankLibrary(const Words& words, const Task& task);
Result<Reply> blankTable(const Words& words, const Task& task);
Result<Reply> blankSheet(const Words& words, const Task& task);
Result<Reply> blankTrace(const Words& words, const Task& task);
Result<Reply> blankPhoto(const Words& words, const Task& task);
Result<Reply> blankCheck(const Words& words, const Task& task);
Result<Reply> blankFamily(const Words& words, const Task& task);
Result<Reply> fit(const Words& words, const Task& task);
Result<Reply> land(const Words& words, const Task& task);
Result<Reply> cut(const Words& words, const Task& task);
Result<Reply> sprayEdge(const Words& words, const Task& task);
Result<Reply> sprayPlan(const Words& words, const Task& task);
Result<Reply> demo(const Words& words, const Task& task);

Json warningsJson(const Warnings& warnings);
/// One line a warning.
std::string warningsText(const Warnings& warnings);

}  // namespace nine::cli
