#include "words.h"

#include "language.h"

#include <array>
#include <utility>

namespace butte::words {
namespace {

constexpr std::array<std::pair<std::string_view, std::string_view>, 25> solids{
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
     {"portlandite", "calcium hydroxide"},
     {"sodium_nitrate", "sodium nitrate"},
     {"sodium_chloride", "sodium chloride (table salt)"},
     {"ammonium_chloride", "ammonium chloride"},
     {"calcium_chloride_hexahydrate", "calcium chloride hexahydrate"},
     {"boussingaultite", "boussingaultite (ammonium magnesium sulfate)"},
     {"syngenite", "syngenite (potassium calcium sulfate)"},
     {"picromerite", "picromerite (potassium magnesium sulfate)"},
     {"leonite", "leonite (potassium magnesium sulfate)"},
     {"glaserite", "glaserite (potassium sodium sulfate)"},
     {"carnallite", "carnallite (potassium magnesium chloride)"},
     {"mirabilite", "mirabilite (sodium sulfate)"},
     {"hexahydrite", "magnesium sulfate hexahydrate"}}};

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
