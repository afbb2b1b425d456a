#pragma once

namespace butte::app {

/// Runs the desktop program: words on the command line, settings, the last book, the window.
int runApplication(int argc, char** argv);

} // namespace butte::app
