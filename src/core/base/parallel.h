// Independent pieces of work on all cores.
#pragma once

#include <algorithm>
#include <atomic>
#include <exception>
#include <mutex>
#include <thread>
#include <vector>

namespace nine {

/// Calls work(i) for i in 0..count-1, each once, from up to as many threads as there are cores. Returns when
/// all are done. `work` must not touch what another i touches. When one throws, those that have not begun are
/// left out and the first exception is thrown on here, on the caller's thread.
template <typename Work>
void forEachInParallel(std::size_t count, const Work& work) {
    std::atomic<std::size_t> next{0};
    std::exception_ptr thrown;
    std::mutex throwing;
    const auto run = [&] {
        try {
            for (std::size_t i = next++; i < count; i = next++) work(i);
        } catch (...) {
            next = count;
            const std::lock_guard lock(throwing);
            if (!thrown) thrown = std::current_exception();
        }
    };
    const std::size_t cores = std::max(1u, std::thread::hardware_concurrency());
    std::vector<std::thread> threads;
    try {
        for (std::size_t t = 1; t < std::min(cores, count); ++t) threads.emplace_back(run);
    } catch (...) {  // no thread to be had: those there are do it all
    }
    run();
    for (std::thread& thread : threads) thread.join();
    if (thrown) std::rethrow_exception(thrown);
}

}  // namespace nine
