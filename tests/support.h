// Bodies with closed forms, files and programs for tests.
#pragma once

#include <gtest/gtest.h>
#include <sys/wait.h>

#include <array>
#include <cmath>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <iostream>
#include <optional>
#include <sstream>
#include <string>

#include "base/files.h"
#include "base/number_text.h"
#include "base/result.h"
#include "tests/here.h"

namespace nine::test {

inline std::string plainJobPath() {
    return nine::sourceDir() + "/tests/data/three-marks.nineleaves.json";
}
inline std::string example(const std::string& name) {
    return nine::sourceDir() + "/examples/" + name;
}
inline std::string data(const std::string& name) {
    return nine::sourceDir() + "/tests/data/" + name;
}

/// Fails the test with the error's own sentence.
template <typename T>
T need(Result<T> result) {
    if (!result)
        throw std::runtime_error(result.error().code + ": " + result.error().text() + " @ " +
                                 result.error().where);
    return std::move(*result);
}

/// A folder of its own, removed at the end.
class TemporaryFolder {
  public:
    TemporaryFolder() {
        std::string name = (std::filesystem::temp_directory_path() / "nine-test-XXXXXX").string();
        path_ = ::mkdtemp(name.data());
    }
    ~TemporaryFolder() {
        std::error_code ignored;
        std::filesystem::remove_all(path_, ignored);
    }
    TemporaryFolder(const TemporaryFolder&) = delete;
    TemporaryFolder& operator=(const TemporaryFolder&) = delete;
    std::string operator/(const std::string& name) const { return path_ + "/" + name; }
    const std::string& path() const { return path_; }

  private:
    std::string path_;
};

inline void write(const std::string& path, const std::string& text) {
    std::ofstream(path, std::ios::binary) << text;
}
inline std::string read(const std::string& path) {
    std::ostringstream text;
    text << std::ifstream(path, std::ios::binary).rdbuf();
    return text.str();
}

/// A drawing of what failed, for whoever looks into it: kept, and its path printed, when the test has failed.
inline void keepOnFailure(const std::string& name, const std::string& svg) {
    if (!::testing::Test::HasFailure()) return;
    const std::string path = (std::filesystem::temp_directory_path() / ("nine-" + name + ".svg")).string();
    write(path, svg);
    std::cerr << "Drawn in " << path << "\n";
}

struct Ran {
    int exitCode = -1;
    std::string out;
};

/// Runs a shell command and keeps its standard output.
inline Ran shell(const std::string& command) {
    Ran ran;
    FILE* pipe = ::popen(command.c_str(), "r");
    if (!pipe) return ran;
    std::array<char, 4096> buffer;
    for (std::size_t n; (n = std::fread(buffer.data(), 1, buffer.size(), pipe)) > 0;)
        ran.out.append(buffer.data(), n);
    const int status = ::pclose(pipe);
    ran.exitCode = WIFEXITED(status) ? WEXITSTATUS(status) : 128 + WTERMSIG(status);
    return ran;
}

inline bool haveProgram(const std::string& name) {
    return shell("command -v " + name).exitCode == 0;
}

}  // namespace nine::test

#define NINE_NEED_PROGRAM(name) \
    if (!nine::test::haveProgram(name)) GTEST_SKIP() << "reference program not installed: " << name
