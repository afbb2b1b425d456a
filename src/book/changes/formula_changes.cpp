#include "changes/formula_changes.h"

#include "base/decimal.h"
#include "changes/computed_formula.h"
#include "changes/json_changes.h"

#include <algorithm>
#include <cmath>

namespace butte::book {
namespace {

using core::Change;
using core::ChangeCode;
using core::decimalText;

constexpr double sameShare = 0.0005;       // weights nearer than this are the same on any scale
constexpr double sameMilliSiemens = 0.005; // nor does a meter tell these apart

/// What so many grams more in 1000 L do: the two elements that move most, each with its mg/L.
std::vector<std::string> effect(const core::ShelfProduct* product, double gramsMore) {
  if (!product) return {};
  std::vector<std::pair<double, std::string>> moved;
  for (const auto nutrient : core::allNutrients) {
    // The sum of the nitrogen forms stands for them: "N +2".
    if (nutrient == core::Nutrient::NNitrate || nutrient == core::Nutrient::NAmmonium ||
        nutrient == core::Nutrient::NUrea)
      continue;
    const double mgPerLitre = product->composition.massFraction.of(nutrient) * gramsMore;
    if (std::abs(mgPerLitre) > 1e-4) moved.emplace_back(mgPerLitre, core::nutrientKey(nutrient));
  }
  std::sort(moved.begin(), moved.end(),
            [](const auto& a, const auto& b) { return std::abs(a.first) > std::abs(b.first); });
  std::vector<std::string> out;
  for (std::size_t i = 0; i < moved.size() && i < 2; ++i) {
    out.push_back(moved[i].second);
    out.push_back(decimalText(moved[i].first));
  }
  return out;
}

Change withEffect(Change change, const core::ShelfProduct* product, double gramsMore) {
  const auto moved = effect(product, gramsMore);
  change.values.insert(change.values.end(), moved.begin(), moved.end());
  return change;
}

/// The largest share of change first. Weights are told for the batch of the later formula.
void weightsChanged(std::vector<Change>& out, const ComputedFormula& left, const ComputedFormula& right) {
  const auto was = left.gramsPer1000(), is = right.gramsPer1000();
  const double batches = right.litres() / 1000;
  const auto told = [&](double gramsPer1000) { return decimalText(gramsPer1000 * batches); };
  std::vector<std::pair<double, Change>> lines; // share of change, what
  for (const auto& [id, grams] : is) {
    const auto old = was.find(id);
    if (old == was.end()) {
      lines.emplace_back(1e9, withEffect({ChangeCode::ProductNew, {right.nameOf(id), told(grams)}},
                                         right.product(id), grams));
      continue;
    }
    const double share = std::abs(grams / old->second - 1);
    if (share > sameShare)
      lines.emplace_back(
          share, withEffect({ChangeCode::ProductWeight, {right.nameOf(id), told(old->second), told(grams)}},
                            right.product(id), grams - old->second));
  }
  for (const auto& [id, grams] : was) {
    if (!is.contains(id))
      lines.emplace_back(1e9, withEffect({ChangeCode::ProductLeftOut, {left.nameOf(id), told(grams)}},
                                         left.product(id), -grams));
  }
  std::stable_sort(lines.begin(), lines.end(),
                   [](const auto& a, const auto& b) { return a.first > b.first; });
  for (auto& line : lines)
    out.push_back(std::move(line.second));
}

/// What a report says and what is done to its water.
void sourceChanges(const Differences& found, const std::string& place, const std::string& whose) {
  found.rows({place + "/rows", "water", whose, "key", "mg_per_l", "mg/L"});
  found.place(place + "/ph", "water_ph", whose);
  found.place(place + "/ec", "water_ec", whose);
  found.place(place + "/treatment/kind", "treatment", whose);
  found.place(place + "/treatment/rejection_percent", "rejection", whose);
}

/// Sources, their shares, acid before use.
void blendChanges(const Differences& found) {
  const auto parts = [](const Json& side) {
    const Json::json_pointer place("/water/parts");
    return side.contains(place) && side[place].is_array() ? side[place] : Json::array();
  };
  const auto a = parts(found.before), b = parts(found.after);
  for (std::size_t i = 0; i < std::max(a.size(), b.size()); ++i) {
    const auto place = "/water/parts/" + std::to_string(i);
    const auto& part = i < b.size() ? b[i] : a[i];
    const auto name = part.is_object() ? part.value("name", std::string()) : std::string();
    found.place(place + "/share", "share", name);
    sourceChanges(found, place, name);
  }
  found.place("/water/acid_first/product", "acid_first");
  found.place("/water/acid_first/alkalinity_left", "acid_first_left");
  found.place("/water/system", "drain");
}

/// Tanks by their place: volume, use, water, ratio; then what a hand moved.
void tanksChanged(const Differences& found) {
  const auto listAt = [](const Json& json, const char* pointer) {
    const Json::json_pointer place(pointer);
    return json.contains(place) ? json[place] : Json::array();
  };
  const auto a = listAt(found.before, "/stock/tanks"), b = listAt(found.after, "/stock/tanks");
  const auto nameOf = [](const Json& tank, std::size_t i) {
    return tank.value("name", std::to_string(i + 1));
  };
  for (std::size_t i = 0; i < std::min(a.size(), b.size()); ++i) {
    const auto place = "/stock/tanks/" + std::to_string(i) + "/";
    for (const auto* key : {"volume", "use", "made_with", "own_factor"})
      found.place(place + key, std::string("tank_") + key, nameOf(b[i], i));
  }
  for (auto i = a.size(); i < b.size(); ++i)
    found.out.push_back({ChangeCode::TankAdded, {nameOf(b[i], i)}});
  for (auto i = b.size(); i < a.size(); ++i)
    found.out.push_back({ChangeCode::TankTakenAway, {nameOf(a[i], i)}});
  if (listAt(found.before, "/stock/placed") != listAt(found.after, "/stock/placed"))
    found.out.push_back({ChangeCode::SaltsMovedByHand, {}});
}

void handChanges(const Differences& found) {
  const auto name = textAt(found.before, "/name"), now = textAt(found.after, "/name");
  if (name != now) found.out.push_back({ChangeCode::Renamed, {name, now}});
  found.place("/crop", "crop");
  found.place("/water/name", "water");
  sourceChanges(found, "/water", "");
  blendChanges(found);
  found.place("/target/name", "target");
  found.rows({"/target/rows", "target", "", "nutrient", "mg_per_l", "mg/L"});
  found.rows({"/target/rows", "band", "", "nutrient", "tolerance_percent", "%"});
  found.rows({"/target/caps", "cap", "", "nutrient", "mg_per_l", "mg/L"});
  found.place("/aim/way", "aim");
  found.place("/aim/at_most", "at_most");
  found.place("/alkalinity_left", "alkalinity_left");
  found.place("/acid/product", "acid");
  found.place("/acid/target_ph", "ph_wanted");
  found.place("/batch", "batch");
  found.place("/stock/factor", "stock_factor");
  found.place("/stock/coldest", "coldest");
  tanksChanged(found);
}

} // namespace

std::vector<Change> formulaChanges(const Json& before, const Json& after) {
  std::vector<Change> out;
  handChanges({before, after, out});
  const auto left = computed(before), right = computed(after);
  if (!left || !right) return out;
  weightsChanged(out, *left, *right);
  const double a = left->answer.feed.conductivity.milliSiemensPerCm(),
               b = right->answer.feed.conductivity.milliSiemensPerCm();
  if (std::abs(a - b) >= sameMilliSiemens)
    out.push_back({ChangeCode::Conductivity, {decimalText(a), decimalText(b)}});
  return out;
}

} // namespace butte::book
