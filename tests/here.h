// Where the tests find the project: the one file that knows paths of the machine, so that a build in another
// folder compiles the same text and can be taken from the compiler's cache.
#pragma once

#include <string>

namespace nine {

std::string sourceDir();
std::string commandLinePath();  ///< of the program built with these tests; empty without one
std::string wordsFile();        ///< the list for translators; empty without the window

}  // namespace nine
