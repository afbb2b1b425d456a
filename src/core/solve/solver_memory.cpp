#include "solve/solver_memory.h"

#include <glpk.h>

namespace butte::core {

void releaseSolverMemory() {
  glp_free_env();
}

} // namespace butte::core
