// Independent pieces of work on all cores.
#pragma once

#include <atomic>
#include <thread>
#include <vector>

namespace nine {

/// Calls work(i) for i in 0..count-1, each once, from up to as many threads as there are cores. Returns when
/// all are done. `work` must not throw and must not touch what another i touches.
template <typename Work>
void forEachInParallel(std::size_t count, const Work& work) {
    std::atomic<std::size_t> next{0};
    const auto run = [&] {
        for (std::size_t i = next++; i < count; i = next++) work(i);
    };
    const std::size_t cores = std::max(1u, std::thread::hardware_concurrency());
    std::vector<std::thread> threads;
    for (std::size_t t = 1; t < std::min(cores, count); ++t) threads.emplace_back(run);
    run();
    for (std::thread& thread : threads) thread.join();
}

}  // namespace nine
