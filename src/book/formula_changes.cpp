#include "formula_changes.h"

#include "base/decimal.h"
#include "formula_json.h"
#include "words.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace butte::book {
namespace {

using words::figure;

constexpr std::size_t mostInOneLine = 4;
constexpr double sameShare = 0.0005; // weights nearer than this are the same on any scale

struct Computed {
  exchange::FormulaDocument document;
  core::Answer answer;

  double litres() const { return document.given.request.volume.litres(); }
  std::string nameOf(const std::string& id) const {
    for (const auto& product : document.products)
      if (product.id == id) return product.name;
    return id;
  }
  /// Grams in 1000 L of feed of each product that is used.
  std::map<std::string, double> gramsPer1000() const {
    std::map<std::string, double> out;
    const auto& shelf = document.given.request.shelf;
    for (std::size_t i = 0; i < shelf.size() && i < answer.solution.grams.size(); ++i) {
      if (answer.solution.grams[i].grams() > 0)
        out[shelf[i].id] = answer.solution.grams[i].grams() * 1000 / litres();
    }
    return out;
  }
  const core::ShelfProduct* product(const std::string& id) const {
    for (const auto& entry : document.given.request.shelf)
      if (entry.id == id) return &entry;
    return nullptr;
  }
};

std::optional<Computed> computed(const Json& json) {
  auto document = exchange::readFormulaDocument(json);
  if (!document) return std::nullopt;
  auto answer = core::compute(document->given);
  if (!answer) return std::nullopt;
  return Computed{std::move(document).value(), std::move(answer).value()};
}

std::string weight(double grams) {
  return grams >= 1000 ? figure(grams / 1000) + " kg" : figure(grams) + " g";
}

/// "22.3 to 22.7 kg": the unit once where both have it.
std::string weights(double before, double after) {
  if (before >= 1000 && after >= 1000) return figure(before / 1000) + " to " + figure(after / 1000) + " kg";
  if (before < 1000 && after < 1000) return figure(before) + " to " + figure(after) + " g";
  return weight(before) + " to " + weight(after);
}

/// An effect is told in two digits: "+4", "+0.35".
std::string twoDigits(double value) {
  const double scale = std::pow(10.0, 1 - std::floor(std::log10(value)));
  return core::decimalText(std::round(value * scale) / scale);
}

/// What so many grams more in 1000 L do: the two elements that move most, ": K +4 mg/L".
std::string effect(const core::ShelfProduct* product, double gramsMore) {
  if (!product) return {};
  std::vector<std::pair<double, std::string>> moved;
  for (const auto nutrient : core::allNutrients) {
    // The sum of the nitrogen forms stands for them: "N +2".
    if (nutrient == core::Nutrient::NNitrate || nutrient == core::Nutrient::NAmmonium ||
        nutrient == core::Nutrient::NUrea)
      continue;
    const double mgPerLitre = product->composition.massFraction.of(nutrient) * gramsMore;
    if (std::abs(mgPerLitre) > 1e-4) moved.emplace_back(mgPerLitre, words::nutrientSymbol(nutrient));
  }
  std::sort(moved.begin(), moved.end(),
            [](const auto& a, const auto& b) { return std::abs(a.first) > std::abs(b.first); });
  std::string out;
  for (std::size_t i = 0; i < moved.size() && i < 2; ++i)
    out += (i ? ", " : ": ") + moved[i].second + " " + (moved[i].first > 0 ? "+" : "−") +
           twoDigits(std::abs(moved[i].first)) + " mg/L";
  return out;
}

std::string textAt(const Json& json, const char* pointer) {
  const Json::json_pointer place(pointer);
  return json.contains(place) && json[place].is_string() ? json[place].get<std::string>() : std::string();
}

/// {"amount": "200", "unit": "L"} as "200 L"; a text as it is; everything else as "none".
std::string shown(const Json& value) {
  if (value.is_string()) return value.get<std::string>();
  if (value.is_object() && value.contains("amount") && value["amount"].is_string())
    return value["amount"].get<std::string>() + " " + value.value("unit", "");
  if (value.is_boolean()) return value.get<bool>() ? "yes" : "no";
  if (value.is_number()) return core::decimalText(value.get<double>());
  return "none";
}

void placeChanged(std::vector<std::string>& out, const Json& before, const Json& after, const char* pointer,
                  const std::string& name) {
  const Json::json_pointer place(pointer);
  const Json a = before.contains(place) ? before[place] : Json(),
             b = after.contains(place) ? after[place] : Json();
  if (a != b) out.push_back(name + " " + shown(a) + " to " + shown(b));
}

/// "31.9 mg/L", "< 50 µg/L": a row's figure as typed.
std::string figureIn(const Json& row, const char* value, const std::string& unit) {
  const std::string sign = row.value("below", false) ? "< " : "";
  if (row.contains(value)) return sign + row.value(value, std::string()) + unit;
  if (row.contains("amount"))
    return sign + row.value("amount", std::string()) + " " + row.value("unit", std::string("mg/L"));
  return {};
}

/// "205" of "205 mg/L to 250 mg/L".
std::string withoutUnit(const std::string& a, const std::string& b, const std::string& unit) {
  return a.ends_with(unit) && b.ends_with(unit) ? a.substr(0, a.size() - unit.size()) : a;
}

/// Rows such as {"key": "Ca", "mg_per_l": "31.9"} on both sides.
void rowsChanged(std::vector<std::string>& out, const Json& before, const Json& after, const char* pointer,
                 const char* key, const char* value, const std::string& name, const std::string& unit) {
  const Json::json_pointer place(pointer);
  std::vector<std::string> order;
  std::map<std::string, std::pair<std::string, std::string>> rows;
  const auto collect = [&](const Json& side, bool first) {
    if (!side.contains(place) || !side[place].is_array()) return;
    for (const auto& row : side[place]) {
      if (!row.is_object()) continue;
      const auto id = row.value(key, std::string());
      if (!rows.contains(id)) order.push_back(id);
      (first ? rows[id].first : rows[id].second) = figureIn(row, value, unit);
    }
  };
  collect(before, true);
  collect(after, false);
  for (const auto& id : order) {
    const auto& [a, b] = rows[id];
    if (a == b) continue;
    if (a.empty())
      out.push_back(name + " " + id + " new: " + b);
    else if (b.empty())
      out.push_back(name + " " + id + " taken out (was " + a + ")");
    else
      out.push_back(name + " " + id + " " + withoutUnit(a, b, unit) + " to " + b);
  }
}

/// The largest share of change first.
void weightsChanged(std::vector<std::string>& out, const Computed& left, const Computed& right) {
  const auto was = left.gramsPer1000(), is = right.gramsPer1000();
  const double batches = right.litres() / 1000;
  std::vector<std::pair<double, std::string>> lines; // share of change, words
  for (const auto& [id, grams] : is) {
    const auto old = was.find(id);
    if (old == was.end()) {
      lines.emplace_back(1e9, right.nameOf(id) + " new, " + weight(grams * batches) +
                                  effect(right.product(id), grams));
      continue;
    }
    const double share = std::abs(grams / old->second - 1);
    if (share > sameShare)
      lines.emplace_back(share, right.nameOf(id) + " " + weights(old->second * batches, grams * batches) +
                                    effect(right.product(id), grams - old->second));
  }
  for (const auto& [id, grams] : was) {
    if (!is.contains(id))
      lines.emplace_back(1e9, left.nameOf(id) + " left out (was " + weight(grams * batches) + ")" +
                                  effect(left.product(id), -grams));
  }
  std::stable_sort(lines.begin(), lines.end(),
                   [](const auto& a, const auto& b) { return a.first > b.first; });
  for (auto& line : lines)
    out.push_back(std::move(line.second));
}

/// First what a hand changed, then what followed from it.
/// What a report says and what is done to its water.
void sourceChanges(std::vector<std::string>& out, const Json& before, const Json& after,
                   const std::string& place, const std::string& name) {
  rowsChanged(out, before, after, (place + "/rows").c_str(), "key", "mg_per_l", name, " mg/L");
  placeChanged(out, before, after, (place + "/ph").c_str(), name + " pH");
  placeChanged(out, before, after, (place + "/ec").c_str(), name + " EC");
  placeChanged(out, before, after, (place + "/treatment/kind").c_str(), name + " treatment");
  placeChanged(out, before, after, (place + "/treatment/rejection_percent").c_str(), name + " rejection");
}

/// Sources, their shares, acid before use.
void blendChanges(std::vector<std::string>& out, const Json& before, const Json& after) {
  const auto count = [](const Json& side) {
    const auto& water = side.contains("water") ? side["water"] : side;
    return water.contains("parts") ? water["parts"].size() : 0;
  };
  for (std::size_t i = 0; i < std::max(count(before), count(after)); ++i) {
    const auto place = "/water/parts/" + std::to_string(i);
    const Json::json_pointer nameAt(place + "/name");
    const auto& side = i < count(after) ? after : before;
    const auto name =
        side.contains(nameAt) && side[nameAt].is_string() ? side[nameAt].get<std::string>() : "source";
    placeChanged(out, before, after, (place + "/share").c_str(), name + " share");
    sourceChanges(out, before, after, place, name);
  }
  placeChanged(out, before, after, "/water/acid_first/product", "acid before use");
  placeChanged(out, before, after, "/water/acid_first/alkalinity_left", "alkalinity left by it");
  placeChanged(out, before, after, "/water/system", "drain");
}

/// Tanks by their place: volume, use, water, ratio; then what a hand moved.
void tanksChanged(std::vector<std::string>& out, const Json& before, const Json& after) {
  const auto tanks = [](const Json& json) {
    const Json::json_pointer place("/stock/tanks");
    return json.contains(place) ? json[place] : Json::array();
  };
  const auto a = tanks(before), b = tanks(after);
  for (std::size_t i = 0; i < std::min(a.size(), b.size()); ++i) {
    const auto place = "/stock/tanks/" + std::to_string(i) + "/";
    const auto name = "tank " + b[i].value("name", std::to_string(i + 1)) + " ";
    for (const auto* key : {"volume", "use", "made_with", "own_factor"})
      placeChanged(out, before, after, (place + key).c_str(),
                   name + (*key == 'v'   ? "volume"
                           : *key == 'u' ? "use"
                           : *key == 'm' ? "water"
                                         : "ratio"));
  }
  for (auto i = a.size(); i < b.size(); ++i)
    out.push_back("tank " + b[i].value("name", std::string("?")) + " added");
  for (auto i = b.size(); i < a.size(); ++i)
    out.push_back("tank " + a[i].value("name", std::string("?")) + " taken away");
  const Json::json_pointer placed("/stock/placed");
  const auto hand = [&](const Json& json) { return json.contains(placed) ? json[placed] : Json::array(); };
  if (hand(before) != hand(after)) out.push_back("salts moved between tanks by hand");
}

std::vector<std::string> formulaChanges(const Json& before, const Json& after) {
  std::vector<std::string> out;
  if (const auto a = textAt(before, "/name"), b = textAt(after, "/name"); a != b)
    out.push_back("renamed from “" + a + "” to “" + b + "”");
  placeChanged(out, before, after, "/crop", "crop");
  placeChanged(out, before, after, "/water/name", "water");
  sourceChanges(out, before, after, "/water", "water");
  blendChanges(out, before, after);
  placeChanged(out, before, after, "/target/name", "target");
  rowsChanged(out, before, after, "/target/rows", "nutrient", "mg_per_l", "target", " mg/L");
  rowsChanged(out, before, after, "/target/rows", "nutrient", "tolerance_percent", "band of", " %");
  rowsChanged(out, before, after, "/target/caps", "nutrient", "mg_per_l", "cap on", " mg/L");
  placeChanged(out, before, after, "/aim/way", "aim");
  placeChanged(out, before, after, "/aim/at_most", "at most so many products");
  placeChanged(out, before, after, "/alkalinity_left", "alkalinity left");
  placeChanged(out, before, after, "/acid/product", "acid");
  placeChanged(out, before, after, "/acid/target_ph", "pH wanted");
  placeChanged(out, before, after, "/batch", "batch");
  placeChanged(out, before, after, "/stock/factor", "stock factor");
  placeChanged(out, before, after, "/stock/coldest", "coldest night");
  tanksChanged(out, before, after);
  const auto left = computed(before), right = computed(after);
  if (!left || !right) return out;
  weightsChanged(out, *left, *right);
  const double a = left->answer.feed.conductivity.milliSiemensPerCm(),
               b = right->answer.feed.conductivity.milliSiemensPerCm();
  if (std::abs(a - b) >= 0.005) out.push_back("EC " + figure(a) + " to " + figure(b) + " mS/cm");
  return out;
}

std::vector<std::string> waterChanges(const Json& before, const Json& after) {
  std::vector<std::string> out;
  placeChanged(out, before, after, "/name", "name");
  placeChanged(out, before, after, "/note", "note");
  const auto count = [](const Json& json) { return json.contains("reports") ? json["reports"].size() : 0; };
  const auto a = count(before), b = count(after);
  for (auto i = a; i < b; ++i)
    out.push_back("report of " + after["reports"][i].value("date", std::string("?")) + " added");
  for (std::size_t i = 0; i < std::min(a, b); ++i) {
    const auto name = after["reports"][i].value("date", std::string("?"));
    const auto place = "/reports/" + std::to_string(i);
    rowsChanged(out, before, after, (place + "/water/rows").c_str(), "key", "mg_per_l", name, " mg/L");
    placeChanged(out, before, after, (place + "/water/ph").c_str(), name + " pH");
    placeChanged(out, before, after, (place + "/water/ec").c_str(), name + " EC");
    placeChanged(out, before, after, (place + "/date").c_str(), "date");
  }
  if (b < a) out.push_back(std::to_string(a - b) + " report(s) taken out");
  return out;
}

} // namespace

std::vector<std::string> changesBetween(Kind kind, const Json& before, const Json& after) {
  if (kind == Kind::Formula) return formulaChanges(before, after);
  if (kind == Kind::Water) return waterChanges(before, after);
  std::vector<std::string> out;
  placeChanged(out, before, after, "/name", "name");
  for (const auto* key :
       {"/crop", "/stage", "/season", "/note", "/currency", "/bag", "/colour", "/hatch", "/hazards",
        "/entry/formula", "/entry/purity_percent", "/entry/price_per_kg", "/entry/density_kg_per_l",
        "/stock/factor", "/stock/coldest", "/stock/tanks/0/volume", "/stock/tanks/1/volume"}) {
    std::string name(key);
    name.erase(0, name[1] == 'e' ? 7 : 1);
    for (auto& c : name) {
      if (c == '_' || c == '/') c = ' ';
    }
    placeChanged(out, before, after, key, name);
  }
  rowsChanged(out, before, after, "/target/rows", "nutrient", "mg_per_l", "target", " mg/L");
  rowsChanged(out, before, after, "/entry/label", "key", "percent", "label", " %");
  return out;
}

std::string changeWords(Kind kind, const Json& before, const Json& after) {
  const auto all = changesBetween(kind, before, after);
  std::string out;
  for (std::size_t i = 0; i < all.size() && i < mostInOneLine; ++i)
    out += (i ? "; " : "") + all[i];
  if (all.size() > mostInOneLine) out += "; and " + std::to_string(all.size() - mostInOneLine) + " more";
  return out.empty() ? "nothing that changes the feed" : out;
}

FormulaComparison compareFormulas(const Json& left, const Json& right) {
  FormulaComparison out;
  const auto a = computed(left), b = computed(right);
  std::vector<std::string> order;
  std::map<std::string, ComparedRow> products;
  const auto collect = [&](const std::optional<Computed>& side, std::optional<double> ComparedRow::*where) {
    if (!side) return;
    const auto grams = side->gramsPer1000();
    for (const auto& entry : side->document.given.request.shelf) {
      const auto used = grams.find(entry.id);
      if (used == grams.end()) continue;
      if (!products.contains(entry.id)) {
        order.push_back(entry.id);
        products[entry.id].name = entry.name;
      }
      products[entry.id].*where = used->second;
    }
  };
  collect(a, &ComparedRow::left);
  collect(b, &ComparedRow::right);
  for (const auto& id : order)
    out.products.push_back(products[id]);
  for (const auto nutrient : core::allNutrients) {
    ComparedRow row{words::nutrientSymbol(nutrient), {}, {}};
    if (a) row.left = a->answer.feed.milligramsPerLitre.of(nutrient);
    if (b) row.right = b->answer.feed.milligramsPerLitre.of(nutrient);
    if (row.left.value_or(0) > 1e-6 || row.right.value_or(0) > 1e-6) out.elements.push_back(row);
  }
  if (a) out.leftEc = a->answer.feed.conductivity.milliSiemensPerCm();
  if (b) out.rightEc = b->answer.feed.conductivity.milliSiemensPerCm();
  return out;
}

} // namespace butte::book
