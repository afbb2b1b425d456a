#pragma once
#include <string>
#include <vector>

namespace butte::words {

/// One hazard and the products it concerns.
struct Caution {
  std::string text;
  std::vector<std::string> products;
};

/// What is known of a product's hazards.
struct HazardFacts {
  std::string name;
  std::vector<std::string> hazardCodes; ///< GHS: "H318"
  bool oxidiser = false;
  bool acid = false;
  bool base = false;
};

/// The usual cautions for these very products, the gravest first, each once with the products' names. They
/// remind; the product's own label and safety data sheet outrank them.
std::vector<Caution> cautionsFor(const std::vector<HazardFacts>& products);

/// Always shown at the bench (common practice).
std::string generalCaution();

} // namespace butte::words
