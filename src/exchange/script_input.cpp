#include "script_input.h"

#include "base/decimal.h"
#include "json_reader.h"
#include "script_modes.h"
#include "script_run.h"
#include "script_stock.h"
#include "tank_script.h"
#include "things/choices.h"
#include "things/figures.h"
#include "things/things.h"

#include <cmath>
#include <set>

namespace butte::exchange {
namespace {

using namespace core;

std::string element(std::string_view list, std::size_t index) {
  return std::string(list) + "[" + std::to_string(index) + "]";
}

class Reader {
public:
  explicit Reader(const Json& json) : m_top(json, "", m_problem) {}

  Result<ScriptInput> read() {
    readWater();
    readProducts();
    readTarget();
    readCaps();
    readChoices();
    readScriptStock(m_top, m_tanksByHand, m_out);
    readScriptDose(m_top, m_out.dose);
    readWeights();
    readChemistry();
    readScriptModes(m_top, m_out);
    readScriptRun(m_top, m_out);
    m_top.finish();
    if (m_problem) return *m_problem;
    return std::move(m_out);
  }

private:
  SolveRequest& request() { return m_out.given.request; }

  std::optional<double> notNegative(ObjectReader& reader, std::string_view key) {
    const auto value = reader.number(key);
    if (value && !(*value >= 0))
      reader.fail(ProblemCode::OutsideLimits, key, {decimalText(*value), "0", "", ""});
    return value;
  }

  void readWater() {
    const auto* object = m_top.object("water");
    if (!object) {
      request().water = pureWater();
      return;
    }
    request().water = readScriptWater(*object, "water", m_problem);
  }

  void readProducts() {
    const auto* list = m_top.array("products");
    if (!list) return;
    std::set<std::string> ids;
    for (std::size_t i = 0; i < list->size() && !m_problem; ++i) {
      const auto path = element("products", i);
      ObjectReader reader((*list)[i], path, m_problem);
      auto product = readProduct(reader, path, "");
      if (m_problem) return;
      if (!ids.insert(product.id).second) reader.fail(ProblemCode::DuplicateProduct, "id", {product.id});
      request().shelf.push_back(std::move(product));
    }
  }

  ShelfProduct readProduct(ObjectReader& reader, const std::string& path, const std::string& otherwiseId) {
    ShelfProduct p;
    p.id = reader.text("id").value_or(otherwiseId);
    if (p.id.empty()) reader.fail(ProblemCode::MissingKey, "id", {"every product needs an id"});
    p.name = reader.text("name").value_or(p.id);
    std::vector<LabelRemark> remarks;
    readComposition(reader, Dialect::Script, p, remarks);
    readProductFacts(reader, Dialect::Script, p);
    for (const auto remark : remarks)
      m_out.labelRemarks.emplace_back(remark, p.id);
    p.least = Mass::fromGrams(notNegative(reader, "min_g").value_or(0));
    if (const auto most = notNegative(reader, "max_g")) p.most = Mass::fromGrams(*most);
    if (p.most && *p.most < p.least)
      reader.fail(ProblemCode::OutsideLimits, "max_g",
                  {decimalText(p.most->grams()), decimalText(p.least.grams()), "", "g"});
    if (const auto* tank = reader.any("tank")) m_tanksByHand.push_back({p.id, path + ".tank", *tank});
    reader.finish();
    return p;
  }

  /// Reads {"Ca": number, ...} with only nutrient keys (and "default" where allowed).
  template <class Take> void perNutrient(std::string_view key, bool allowDefault, Take taken) {
    const auto* object = m_top.object(key);
    if (!object) return;
    ObjectReader reader(*object, std::string(key), m_problem);
    for (const auto& [name, value] : object->items()) {
      if (name.starts_with("x_")) continue;
      const bool isDefault = allowDefault && name == "default";
      const auto nutrient = isDefault ? std::nullopt : nutrientAt(reader, name, name);
      if (!nutrient && !isDefault) return;
      const auto number = notNegative(reader, name);
      if (m_problem) return;
      taken(nutrient, number.value_or(0), reader, name);
    }
  }

  void readTarget() {
    m_out.hasTarget = m_top.has("target_mg_per_l");
    perNutrient("target_mg_per_l", false, [&](auto nutrient, double value, auto&, const auto&) {
      request().rows.push_back({*nutrient, value, 5, 1});
    });
    const auto rowOf = [&](Nutrient n) -> TargetRow* {
      for (auto& row : request().rows) {
        if (row.nutrient == n) return &row;
      }
      return nullptr;
    };
    // The default first, whatever the order of the keys, then the elements' own.
    for (const bool defaults : {true, false}) {
      perNutrient("tolerance_percent", true,
                  [&](auto nutrient, double value, auto& reader, const auto& name) {
                    if (nutrient.has_value() == defaults) return;
                    if (defaults) {
                      for (auto& row : request().rows)
                        row.tolerancePercent = value;
                    } else if (auto* row = rowOf(*nutrient)) {
                      row->tolerancePercent = value;
                    } else {
                      reader.fail(ProblemCode::ToleranceWithoutTarget, name, {name});
                    }
                  });
      perNutrient("weight", true, [&](auto nutrient, double value, auto&, const auto&) {
        if (nutrient.has_value() == defaults) return;
        for (auto& row : request().rows) {
          if (defaults || row.nutrient == *nutrient) row.weight = value;
        }
      });
    }
  }

  void readCaps() {
    perNutrient("max_mg_per_l", false, [&](auto nutrient, double value, auto&, const auto&) {
      request().caps.push_back({*nutrient, value});
    });
  }

  void readChoices() {
    static constexpr Choices<Objective, 2> objectives{
        {{"closest", Objective::Closest}, {"cheapest", Objective::Cheapest}}};
    static constexpr Choices<Require, 3> requires_{
        {{"best", Require::Best}, {"bands", Require::Bands}, {"bands_first", Require::BandsFirst}}};
    request().objective = chosen(m_top, "objective", objectives);
    request().require = chosen(m_top, "require", requires_);
    request().alkalinityLeftMeqPerL = figure(m_top, Dialect::Script, figures::alkalinityLeft);
    request().volume = volumeOf(m_top, Dialect::Script, figures::batch).value_or(Volume::fromLitres(1));
  }

  void readChemistry() {
    auto& chemistry = m_out.chemistry;
    static constexpr Figure heldPh{"ph", "ph", "", 0, 14};
    static constexpr Figure temperature{"temperature_c", "temperature", "C", 0, 45};
    static constexpr Figure pressure{"pco2_atm", "pco2_atm", "atm", 1e-9, 1};
    static constexpr Choices<bool, 2> openings{{{"closed", false}, {"open", true}}};
    chemistry.targetPh = figure(m_top, Dialect::Script, figures::targetPh);
    chemistry.heldPh = figure(m_top, Dialect::Script, heldPh);
    chemistry.temperatureCelsius = figure(m_top, Dialect::Script, temperature);
    const auto atm = figure(m_top, Dialect::Script, pressure);
    if (atm) chemistry.carbonDioxideAtm = *atm;
    if (atm && !m_top.has("co2"))
      m_top.fail(ProblemCode::MissingKey, "co2", {"pco2_atm counts only with \"co2\": \"open\""});
    chemistry.openToAir = chosen(m_top, "co2", openings);
    if (const auto* object = m_top.object("acid")) {
      ObjectReader reader(*object, "acid", m_problem);
      chemistry.acid = readProduct(reader, "acid", "acid");
    }
  }

  ShelfProduct* productNamed(const std::string& id) {
    for (auto& p : request().shelf) {
      if (p.id == id) return &p;
    }
    return nullptr;
  }

  void readWeights() {
    if (const auto* object = m_top.object("weights_g")) {
      m_out.weights.emplace();
      ObjectReader reader(*object, "weights_g", m_problem);
      for (const auto& [id, value] : object->items()) {
        if (id.starts_with("x_") && !productNamed(id)) continue;
        if (!productNamed(id)) return reader.fail(ProblemCode::UnknownProduct, id, {id});
        (*m_out.weights)[id] = Mass::fromGrams(notNegative(reader, id).value_or(0));
      }
    }
    if (const auto* list = m_top.array("locked")) {
      for (std::size_t i = 0; i < list->size() && !m_problem; ++i)
        lock((*list)[i], element("locked", i));
    }
    if (!m_out.weights) return;
    for (const auto& [id, mass] : *m_out.weights) {
      if (!productNamed(id)->locked) m_out.weightsIgnored.push_back(id);
    }
  }

  void lock(const Json& value, const std::string& path) {
    if (!value.is_string()) {
      m_problem = problemAt(ProblemCode::WrongType, path, {"a product's id", typeName(value)});
      return;
    }
    const auto id = value.get<std::string>();
    auto* product = productNamed(id);
    if (!product) {
      m_problem = problemAt(ProblemCode::UnknownProduct, path, {id});
    } else if (!m_out.weights || !m_out.weights->contains(id)) {
      m_problem = problemAt(ProblemCode::MissingKey, "weights_g." + id,
                            {"'" + id + "' is locked and needs its weight"});
    } else {
      product->locked = m_out.weights->at(id);
    }
  }

  std::optional<Problem> m_problem;
  ObjectReader m_top;
  ScriptInput m_out;
  std::vector<TankByHand> m_tanksByHand;
};

} // namespace

namespace {

/// A set of tanks is the whole object with the set's own keys in place of its own.
Result<std::vector<NamedSet>> readSets(const Json& whole, const Json& sets) {
  std::vector<NamedSet> out;
  if (!sets.is_object())
    return problemAt(ProblemCode::WrongType, "sets", {"an object of sets by name", typeName(sets)});
  for (const auto& [name, own] : sets.items()) {
    if (name.starts_with("x_")) continue;
    if (!own.is_object())
      return problemAt(ProblemCode::WrongType, "sets." + name, {"an object", typeName(own)});
    Json merged = whole;
    merged.erase("sets");
    for (const auto& [key, value] : own.items())
      merged[key] = value;
    auto input = Reader(merged).read();
    if (!input) {
      auto problem = input.problem();
      problem.where = "sets." + name + "." + problem.where;
      return problem;
    }
    out.push_back({name, std::move(input).value()});
  }
  if (out.empty()) return problemAt(ProblemCode::MissingKey, "sets", {"one set at least"});
  return out;
}

} // namespace

Result<ScriptInput> scriptInputFrom(const Json& json) {
  return Reader(json).read();
}

Result<ScriptInput> readScriptInput(std::string_view text) {
  const auto json = parseJsonObject(text);
  if (!json) return json.problem();
  if (!json->contains("sets")) return Reader(*json).read();
  Json plain = *json;
  plain.erase("sets");
  auto input = Reader(plain).read();
  if (!input) return input.problem();
  auto sets = readSets(*json, (*json)["sets"]);
  if (!sets) return sets.problem();
  auto out = std::move(input).value();
  out.sets = std::move(sets).value();
  return out;
}

} // namespace butte::exchange
