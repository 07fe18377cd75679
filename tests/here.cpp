#include "tests/here.h"

#ifndef NINE_CLI_PATH
#define NINE_CLI_PATH ""
#endif
#ifndef NINE_WORDS_FILE
#define NINE_WORDS_FILE ""
#endif

namespace nine {

std::string sourceDir() {
    return NINE_SOURCE_DIR;
}

std::string commandLinePath() {
    return NINE_CLI_PATH;
}

std::string wordsFile() {
    return NINE_WORDS_FILE;
}

}  // namespace nine
