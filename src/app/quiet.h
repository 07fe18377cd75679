// What the toolkit says for its developers is not for painters who start the program from a terminal.
#pragma once

namespace nine::app {

/// Gives the toolkit the private folder for sockets it would otherwise complain of lacking. Before the
/// application is made.
void provideRuntimeFolder();

/// Its warnings are kept from standard error, which is for what the user must know; what ends the program is
/// still written there. With NINE_LEAVES_VERBOSE set all of them are.
void keepToolkitQuiet();

}  // namespace nine::app
