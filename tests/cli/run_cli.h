// Runs the built command line as a user would.
#pragma once

#include <nlohmann/json.hpp>

#include "tests/here.h"
#include "tests/support.h"

namespace nine::test {

struct CliRan {
    int exitCode;
    std::string out, err;
    nlohmann::json json() const { return nlohmann::json::parse(out); }
};

/// `arguments` are passed through the shell; `environment` stands before the command.
inline CliRan cli(const std::string& arguments, const std::string& environment = "") {
    const TemporaryFolder folder;
    const std::string err = folder / "err";
    const Ran ran = shell(environment + " " + nine::commandLinePath() + " " + arguments + " 2>" + err);
    return {ran.exitCode, ran.out, read(err)};
}

inline std::string quoted(const std::string& path) {
    return "'" + path + "'";
}

}  // namespace nine::test
