/// libFuzzer target for the formula parser: cmake --preset fuzz; build/fuzz/bench/fuzz_formula
/// -max_total_time=60
#include "chem/formula.h"

#include <cstdint>
#include <cstdlib>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const auto formula = butte::core::parseFormula({reinterpret_cast<const char*>(data), size});
  if (formula && !(formula->molarMassGPerMol > 0)) std::abort();
  return 0;
}
