#pragma once

namespace butte::app {

/// Runs the desktop program: words on the command line, settings, the draft of an earlier run, the window.
int runApplication(int argc, char** argv);

} // namespace butte::app
