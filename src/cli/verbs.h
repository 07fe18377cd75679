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

using Arguments = std::vector<std::string>;

Result<Reply> blankMeasure(const Arguments& words, const Task& task);
Result<Reply> blankDistance(const Arguments& words, const Task& task);
Result<Reply> blankString(const Arguments& words, const Task& task);
Result<Reply> blankCompare(const Arguments& words, const Task& task);
Result<Reply> blankWrap(const Arguments& words, const Task& task);
Result<Reply> blankLibrary(const Arguments& words, const Task& task);
Result<Reply> blankTable(const Arguments& words, const Task& task);
Result<Reply> blankSheet(const Arguments& words, const Task& task);
Result<Reply> blankTrace(const Arguments& words, const Task& task);
Result<Reply> blankPhoto(const Arguments& words, const Task& task);
Result<Reply> blankCheck(const Arguments& words, const Task& task);
Result<Reply> blankFamily(const Arguments& words, const Task& task);
Result<Reply> patternList(const Arguments& words, const Task& task);
Result<Reply> patternRender(const Arguments& words, const Task& task);
Result<Reply> patternKinds(const Arguments& words, const Task& task);
Result<Reply> refit(const Arguments& words, const Task& task);
Result<Reply> maskKindsTold(const Arguments& words, const Task& task);
Result<Reply> fit(const Arguments& words, const Task& task);
Result<Reply> land(const Arguments& words, const Task& task);
Result<Reply> cut(const Arguments& words, const Task& task);
Result<Reply> sprayEdge(const Arguments& words, const Task& task);
Result<Reply> scales(const Arguments& words, const Task& task);
Result<Reply> scalesList(const Arguments& words, const Task& task);
Result<Reply> scalesChoose(const Arguments& words, const Task& task);
Result<Reply> scalesPut(const Arguments& words, const Task& task);
Result<Reply> scalesLines(const Arguments& words, const Task& task);
Result<Reply> sprayPlan(const Arguments& words, const Task& task);
Result<Reply> recipeShow(const Arguments& words, const Task& task);
Result<Reply> recipeCheck(const Arguments& words, const Task& task);
Result<Reply> recipeBegin(const Arguments& words, const Task& task);
Result<Reply> recipeAmounts(const Arguments& words, const Task& task);
Result<Reply> recipeRender(const Arguments& words, const Task& task);
Result<Reply> paintList(const Arguments& words, const Task& task);
Result<Reply> paintMix(const Arguments& words, const Task& task);
Result<Reply> paintNearest(const Arguments& words, const Task& task);
Result<Reply> benchPlan(const Arguments& words, const Task& task);
Result<Reply> benchSteps(const Arguments& words, const Task& task);
Result<Reply> logList(const Arguments& words, const Task& task);
Result<Reply> logShow(const Arguments& words, const Task& task);
Result<Reply> logExport(const Arguments& words, const Task& task);
Result<Reply> logImport(const Arguments& words, const Task& task);
Result<Reply> demo(const Arguments& words, const Task& task);

Json warningsJson(const Warnings& warnings);
/// One line a warning.
std::string warningsText(const Warnings& warnings);

}  // namespace nine::cli
