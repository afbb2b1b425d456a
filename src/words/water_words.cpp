#include "water_words.h"

#include "language.h"
#include "measures.h"

#include "words.h"

#include <array>
#include <cmath>
#include <string_view>

namespace butte::words {

using namespace core;

namespace {

struct Name {
  std::string_view key, text;
};
constexpr std::array<Name, 28> keyNames{{{"N_NO3", "NO3-N"},
                                         {"As", "arsenic"},
                                         {"Co", "cobalt"},
                                         {"N_NH4", "NH4-N"},
                                         {"N_urea", "urea-N"},
                                         {"P", "phosphorus"},
                                         {"S", "SO4-S"},
                                         {"Na", "sodium"},
                                         {"Cl", "chloride"},
                                         {"Ca", "calcium"},
                                         {"Mg", "magnesium"},
                                         {"K", "potassium"},
                                         {"Fe", "iron"},
                                         {"Mn", "manganese"},
                                         {"Zn", "zinc"},
                                         {"B", "boron"},
                                         {"Cu", "copper"},
                                         {"Mo", "molybdenum"},
                                         {"SO4", "sulfate"},
                                         {"NO3", "nitrate"},
                                         {"HCO3", "bicarbonate"},
                                         {"F", "fluoride"},
                                         {"alkalinity_as_CaCO3", "alkalinity as CaCO3"},
                                         {"hardness_as_CaCO3", "hardness as CaCO3"},
                                         {"TDS", "dissolved solids"},
                                         {"free_chlorine", "free chlorine"},
                                         {"suspended_solids", "suspended solids"},
                                         {"SAR", "sodium adsorption ratio"}}};

/// "stated as HCO3" wants the formula, not the name.
std::string formName(const std::string& key) {
  for (const auto* plain : {"NO3", "SO4", "HCO3", "NH4", "Ca", "Mg", "CaO", "MgO"}) {
    if (key == plain) return key;
  }
  return reportKeyName(key);
}

} // namespace

std::string reportKeyName(const std::string& key) {
  for (const auto& name : keyNames) {
    if (name.key == key) return text(name.text);
  }
  return key;
}

std::string reportUnitName(const std::string& unit) {
  if (unit == "mg/L_CaCO3") return text("mg/L as CaCO3");
  if (unit == "dH") return "°dH";
  if (unit == "fH") return "°fH";
  if (unit == "clark") return text("°Clark");
  if (unit == "gpg_CaCO3") return text("grains/gal");
  if (unit == "ug/L") return "µg/L";
  if (unit == "umol/L") return text("µmol/L");
  return unit;
}

std::string doubtText(const DoubtFound& found) {
  const auto f = [&](std::size_t i) { return figure(found.figures[i]); };
  switch (found.doubt) {
  case WaterDoubt::ChargeUnbalanced:
    return said("Cations {} and anions {} meq/L differ by {}; a report may differ by {} (Standard Methods "
                "1030 E). Likely: one figure in another form or unit, or an ion that was not measured.",
                f(0), f(1), figure(std::abs(found.figures[0] - found.figures[1])), f(2));
  case WaterDoubt::ConductivityDisagrees:
    return said(
        "The ions make EC {}, the meter read {}. {}",
        measures().text(core::Conductivity::fromMilliSiemensPerCm(found.figures[1])),
        measures().digits(core::Conductivity::fromMilliSiemensPerCm(found.figures[0])),
        found.figures[1] < found.figures[0]
            ? text("Likely: an ion is missing or too small, or the meter wants calibrating.")
            : text("Likely: a figure too large or in another unit, or a cold reading without compensation."));
  case WaterDoubt::HardnessDisagrees:
    return said(
        "The stated hardness is {} mg/L as CaCO3; calcium and magnesium make {}. Likely: one of them in "
        "another unit, or stated as CaCO3 itself. Ca and Mg are used.",
        f(0), f(1));
  case WaterDoubt::AlkalinityDisagrees:
    return said("The stated alkalinity is {} mg/L as CaCO3; HCO3 (and CO3) make {}. HCO3 is used.", f(0),
                f(1));
  case WaterDoubt::AlkalinityAgainstPh:
    return said(
        "An alkalinity of {} meq/L and pH {} can't both be right: below pH 4.5 there is none. Read the "
        "pH again on a fresh sample; the alkalinity is used.",
        f(0), f(1));
  case WaterDoubt::SolidsDisagree:
    return said(
        "Dissolved solids are stated as {} mg/L; the ions sum up to {}. Likely: solids guessed from EC "
        "on another scale, or an ion missing.",
        f(0), f(1));
  case WaterDoubt::Softened:
    return said(
        "Sodium {} against hardness {} meq/L: this looks like softened water. The softener put sodium "
        "in the place of calcium; plants want it the other way round. Take the water before the "
        "softener, or put a membrane behind it.",
        f(1), f(0));
  case WaterDoubt::PhOfPureWater:
    return said(
        "pH {} of nearly pure water says next to nothing: there is too little in it for a pen to read, "
        "and a breath of air moves it.",
        f(0));
  case WaterDoubt::MagnesiumAboveCalcium:
    return said(
        "More magnesium ({} meq/L) than calcium ({}): rare in wells. Are the two in each other's rows?", f(0),
        f(1));
  }
  return {};
}

std::string_view code(WaterDoubt doubt) {
  switch (doubt) {
  case WaterDoubt::ChargeUnbalanced:
    return "charge_unbalanced";
  case WaterDoubt::ConductivityDisagrees:
    return "conductivity_disagrees";
  case WaterDoubt::HardnessDisagrees:
    return "hardness_disagrees";
  case WaterDoubt::AlkalinityDisagrees:
    return "alkalinity_disagrees";
  case WaterDoubt::AlkalinityAgainstPh:
    return "alkalinity_against_ph";
  case WaterDoubt::SolidsDisagree:
    return "solids_disagree";
  case WaterDoubt::Softened:
    return "softened";
  case WaterDoubt::PhOfPureWater:
    return "ph_of_pure_water";
  case WaterDoubt::MagnesiumAboveCalcium:
    return "magnesium_above_calcium";
  }
  return {};
}

std::string rereadingText(const Rereading& way) {
  switch (way.kind) {
  case RereadingKind::OtherForm:
    return said("{} {} stated as {}", formName(way.from), figure(way.value), formName(way.to));
  case RereadingKind::OtherUnit:
    if (way.from.empty()) return said("all figures in {}", reportUnitName(way.to));
    return said("{} {} in {}", reportKeyName(way.from), figure(way.value), reportUnitName(way.to));
  case RereadingKind::Swapped:
    return said("{} and {} swapped", reportKeyName(way.from), reportKeyName(way.to));
  case RereadingKind::Missing:
    return said("{} mg/L {}, not measured", figure(way.value), reportKeyName(way.to));
  case RereadingKind::Slipped:
    return said("{} {}, a decimal point off", reportKeyName(way.from), figure(way.value));
  }
  return {};
}

std::string rereadingDone(const Rereading& way) {
  switch (way.kind) {
  case RereadingKind::OtherForm:
    return said("{} read as {}", formName(way.from), formName(way.to));
  case RereadingKind::OtherUnit:
    return said("{} read in {}", way.from.empty() ? text("all figures") : reportKeyName(way.from),
                reportUnitName(way.to));
  case RereadingKind::Swapped:
    return said("{} and {} swapped", reportKeyName(way.from), reportKeyName(way.to));
  case RereadingKind::Missing:
    return said("{} {} mg/L assumed", reportKeyName(way.to), figure(way.value));
  case RereadingKind::Slipped:
    return said("{} read as {}", reportKeyName(way.from), figure(way.value));
  }
  return {};
}

std::string levelText(VerdictLevel level) {
  switch (level) {
  case VerdictLevel::Fine:
    return text("fine");
  case VerdictLevel::Watch:
    return text("watch");
  case VerdictLevel::TooHigh:
    return text("too high");
  case VerdictLevel::NotMeasured:
    return text("not measured");
  }
  return {};
}

} // namespace butte::words
