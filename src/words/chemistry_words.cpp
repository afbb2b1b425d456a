#include "words.h"

#include "language.h"

#include <array>
#include <utility>

namespace butte::words {
namespace {

constexpr std::array<std::pair<std::string_view, std::string_view>, 13> solids{
    {{"gypsum", "gypsum (calcium sulfate)"},
     {"calcite", "calcite (lime scale)"},
     {"aragonite", "aragonite (lime scale)"},
     {"brushite", "brushite (calcium phosphate)"},
     {"monetite", "monetite (calcium phosphate)"},
     {"octacalcium_phosphate", "octacalcium phosphate"},
     {"hydroxyapatite", "hydroxyapatite (calcium phosphate)"},
     {"struvite", "struvite (magnesium ammonium phosphate)"},
     {"k_struvite", "potassium struvite (magnesium potassium phosphate)"},
     {"newberyite", "newberyite (magnesium phosphate)"},
     {"amorphous_silica", "silica gel"},
     {"brucite", "magnesium hydroxide"},
     {"portlandite", "calcium hydroxide"}}};

} // namespace

std::string solidName(const std::string& solid) {
  for (const auto& [key, name] : solids) {
    if (key == solid) return text(name);
  }
  return solid;
}

std::string kineticsText(core::FormsWithin kinetics, double saturationIndex) {
  constexpr double clearlyOver = 0.5;
  switch (kinetics) {
  case core::FormsWithin::Minutes:
    return saturationIndex < clearlyOver ? text("over hours") : text("within minutes");
  case core::FormsWithin::Hours:
    return text("over hours");
  case core::FormsWithin::Days:
    return text("over days");
  case core::FormsWithin::Months:
    return text("over months, if at all");
  case core::FormsWithin::NeverFirst:
    return text("another form comes first");
  }
  return {};
}

} // namespace butte::words
