#include "cautions.h"

#include "language.h"

#include <algorithm>
#include <array>
#include <string_view>

namespace butte::words {
namespace {

struct Rule {
  std::array<std::string_view, 3> codes;
  std::string_view text;
};

// The codes' meanings: GHS hazard statements (UN GHS, EU CLP), from memory; which product carries which
// stands in data/products.csv with its source.
constexpr std::array<Rule, 10> rules{{
    {{"H314", "", ""}, "Burns skin and eyes: gloves, goggles and apron; rinse at once with much water."},
    {{"H331", "", ""}, "Toxic fumes: pour outdoors or under extraction, never on metal or organic matter."},
    {{"H318", "", ""}, "Can damage eyes for good: goggles on before the bag is opened."},
    {{"H360FD", "", ""},
     "May harm fertility and the unborn child: gloves and dust mask; not for those who are or may be "
     "pregnant."},
    {{"H272", "", ""}, "Oxidiser: away from heat, sawdust, paper, oil and anything that burns."},
    {{"H301", "H302", ""}, "Harmful if swallowed: no food or drink at the bench."},
    {{"H373", "", ""}, "Dust harms nerves and organs with time: dust mask (P2 or N95)."},
    {{"H315", "H319", ""}, "Irritates skin or eyes: gloves and goggles."},
    {{"H335", "", ""}, "Dust or fume irritates the airways: mask, no draught."},
    {{"H410", "H411", ""}, "Very harmful to water life: no spill into drains."},
}};

void addTo(std::vector<Caution>& cautions, const std::string& sentence, const std::string& product) {
  auto it =
      std::find_if(cautions.begin(), cautions.end(), [&](const Caution& c) { return c.text == sentence; });
  if (it == cautions.end()) it = cautions.insert(cautions.end(), Caution{sentence, {}});
  if (std::find(it->products.begin(), it->products.end(), product) == it->products.end())
    it->products.push_back(product);
}

} // namespace

std::vector<Caution> cautionsFor(const std::vector<HazardFacts>& products) {
  std::vector<Caution> cautions;
  for (const auto& p : products) {
    if (p.acid)
      addTo(cautions,
            text("Acid into water, never water into acid; it heats up. Never near bleach or other "
                 "hypochlorite: chlorine gas."),
            p.name);
    if (p.base)
      addTo(cautions, text("Base into cold water, slowly; it heats up. Never together with acid."), p.name);
  }
  for (const auto& rule : rules) {
    for (const auto& p : products) {
      const bool applies = std::any_of(rule.codes.begin(), rule.codes.end(), [&](std::string_view code) {
        return !code.empty() &&
               std::find(p.hazardCodes.begin(), p.hazardCodes.end(), code) != p.hazardCodes.end();
      });
      const bool oxidiser = p.oxidiser && rule.codes[0] == "H272";
      if (applies || oxidiser) addTo(cautions, text(rule.text), p.name);
    }
  }
  return cautions;
}

std::string generalCaution() {
  return text(
      "Gloves, eye protection and a dust mask when handling powders; children and food away; label every "
      "tank. The "
      "product's own label and safety data sheet, local rules and licensed practice come before this "
      "sheet.");
}

} // namespace butte::words
