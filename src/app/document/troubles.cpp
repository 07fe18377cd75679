#include "app/document/troubles.h"

namespace nine::app {

Troubles& Troubles::instance() {
    static Troubles one;
    return one;
}

}  // namespace nine::app
