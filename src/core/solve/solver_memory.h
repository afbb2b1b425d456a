#pragma once

namespace butte::core {

/// Gives back what the solver library keeps for the calling thread. For the end of a thread's work; no search
/// may be alive on it.
void releaseSolverMemory();

} // namespace butte::core
