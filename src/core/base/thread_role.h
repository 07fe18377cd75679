// Which thread paints the window. Long work asserts in builds with assertions that it is not on it, so that a
// view that computes instead of asking for a result is found by the first test that shows it.
#pragma once

namespace nine {

/// True on the thread that draws and takes events; set once by a program with a window.
inline thread_local bool thisThreadPaints = false;

}  // namespace nine
