#include "formula_json.h"

#include "base/decimal.h"
#include "product/catalogue.h"
#include "stages.h"
#include "stock_json.h"
#include "target_json.h"
#include "things/choices.h"
#include "things/figures.h"
#include "things/things.h"
#include "units/convert.h"
#include "water_json.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace butte::exchange {
namespace {

using namespace core;

constexpr Figure heldFigure{"", "held", "g", 0, 1e9, true};

/// Of a proportional injector in good order: common practice.
constexpr double usualDosingPercent = 3;

struct AimRead {
  FormulaAim aim;
  bool bandsFirst = false;
};

AimRead aimFrom(ObjectReader& reader) {
  enum class Way { Closest, BandsFirst, Cheapest };
  static constexpr Choices<Way, 3> ways{
      {{"closest", Way::Closest}, {"bands_first", Way::BandsFirst}, {"cheapest", Way::Cheapest}}};
  AimRead out;
  const auto way = chosen(reader, "way", ways);
  out.aim.cheapest = way == Way::Cheapest;
  out.bandsFirst = way == Way::BandsFirst;
  if (const auto count = figure(reader, Dialect::Document, {"", "at_most", "", 1, 60}))
    out.aim.atMostProducts = static_cast<int>(*count);
  out.aim.wholeSteps = reader.flag("whole_steps").value_or(false);
  reader.finish();
  return out;
}

class DocumentReader {
public:
  explicit DocumentReader(const Json& json) : m_top(json, "", m_problem) {}

  Result<FormulaDocument> read() {
    readHead();
    readWater();
    readTarget();
    readShelf();
    readBatch();
    readStock();
    readDirect();
    readScales();
    readAcid();
    readAim();
    readAccuracy();
    readCrops();
    readStages();
    m_top.finish();
    fillGiven();
    if (m_problem) return *m_problem;
    return std::move(m_out);
  }

private:
  SolveRequest& request() { return m_out.given.request; }
  void readHead() {
    const auto format = m_top.text("format");
    if (format != std::optional<std::string>(formulaFormatName))
      m_top.fail(ProblemCode::OutOfRange, "format",
                 {"'" + format.value_or("") + "'", "\"" + std::string(formulaFormatName) + "\""});
    const double version = m_top.number("version").value_or(0);
    if (version > formulaFormatVersion)
      m_top.fail(ProblemCode::NewerFormat, "version",
                 {decimalText(version), std::to_string(formulaFormatVersion)});
    else if (version < 1 || version != std::floor(version))
      m_top.fail(ProblemCode::OutOfRange, "version",
                 {decimalText(version), std::to_string(formulaFormatVersion)});
    m_out.name = m_top.text("name").value_or("");
    m_out.crop = m_top.text("crop").value_or("");
  }

  void take(const Problem& problem, const std::string& path) {
    if (m_problem) return;
    m_problem = problem;
    m_problem->where = path + "." + problem.where;
  }

  void readWater() {
    const auto* object = m_top.object("water");
    if (!object) return m_top.fail(ProblemCode::MissingKey, "water", {"a formula needs a water"});
    m_out.water = readWaterDocument(*object, "water", m_problem);
    if (m_problem) return;
    m_out.waterName = m_out.water.name;
    m_out.given.titration = m_out.water.titration;
    m_out.given.waterPlan = m_out.water.plan;
  }

  void readAcid() {
    const auto* object = m_top.any("acid");
    auto& plan = m_out.given.acid;
    if (object && !object->is_null()) {
      ObjectReader reader(*object, "acid", m_problem);
      if (reader.has("product")) plan.product = bottleFor(reader, "product");
      plan.targetPh = figure(reader, Dialect::Document, figures::targetPh).value_or(plan.targetPh);
      reader.finish();
    }
    if (m_problem || plan.product) return;
    // Nothing chosen yet: the acid on the shelf, else nitric.
    std::string id = "hno3_60";
    for (std::size_t i = m_out.products.size(); i-- > 0;) {
      if (!m_out.products[i].own && m_out.allProducts[i].composition.role == ProductRole::Acid)
        id = m_out.products[i].catalogueId;
    }
    const Json chosen{{"product", id}};
    ObjectReader reader(chosen, "acid", m_problem);
    plan.product = bottleFor(reader, "product");
  }

  void readTarget() {
    const auto* object = m_top.object("target");
    if (!object)
      return m_top.fail(ProblemCode::MissingKey, "target", {"a formula needs a target, even an empty one"});
    auto target = readTargetDocument(*object, "target", m_problem);
    m_out.targetName = target.name;
    request().rows = std::move(target.rows);
    request().ratios = std::move(target.ratios);
    request().caps = std::move(target.caps);
    for (std::size_t r = 0; r < request().ratios.size() && !m_problem; ++r) {
      if (!ratioDivisor(request().rows, request().ratios[r]))
        m_problem = problemAt(ProblemCode::MissingKey, item("target.ratios", r),
                              {"a ratio needs a target on one of its sides"});
    }
  }

  /// The stages that are not in hand have to be readable too: one press brings each into hand.
  void readStages() {
    m_out.stage = m_top.text("stage").value_or("");
    const auto* list = m_top.array("stages");
    if (!list) return;
    if (list->size() > mostStages)
      m_top.fail(ProblemCode::OutOfRange, "stages",
                 {std::to_string(list->size()), "up to " + std::to_string(mostStages)});
    for (std::size_t i = 0; i < list->size() && !m_problem; ++i) {
      ObjectReader reader((*list)[i], item("stages", i), m_problem);
      const auto name = reader.text("name").value_or("");
      if (name.empty()) reader.fail(ProblemCode::MissingKey, "name", {"every stage needs a name"});
      if (std::find(m_out.stages.begin(), m_out.stages.end(), name) != m_out.stages.end())
        reader.fail(ProblemCode::DuplicateProduct, "name", {name});
      m_out.stages.push_back(name);
    }
    const bool inHand =
        std::find(m_out.stages.begin(), m_out.stages.end(), m_out.stage) != m_out.stages.end();
    if (!m_problem && !inHand)
      m_top.fail(ProblemCode::NotOneOf, "stage", {m_out.stage, "the name of one of the stages"});
    for (std::size_t i = 0; i < list->size() && !m_problem; ++i) {
      ObjectReader reader((*list)[i], item("stages", i), m_problem);
      if (reader.text("name") != m_out.stage) readStage(reader, item("stages", i));
      reader.finish();
    }
  }

  void readStage(ObjectReader& reader, const std::string& path) {
    const auto* target = reader.object("target");
    if (!target) return reader.fail(ProblemCode::MissingKey, "target", {"a stage needs its target"});
    readTargetDocument(*target, path + ".target", m_problem);
    if (const auto* aim = reader.object("aim")) {
      ObjectReader read(*aim, path + ".aim", m_problem);
      aimFrom(read);
    }
    const auto* weights = reader.array("weights");
    for (std::size_t i = 0; weights && i < weights->size() && !m_problem; ++i) {
      ObjectReader weight((*weights)[i], item(path + ".weights", i), m_problem);
      weight.text("product");
      weight.flag("on");
      typedAmount(weight, heldFigure);
      weight.finish();
    }
  }

  /// After the shelf: the cheapest needs a price on every product that takes part.
  void readAim() {
    const auto* object = m_top.object("aim");
    if (!object) return;
    ObjectReader reader(*object, "aim", m_problem);
    const auto read = aimFrom(reader);
    m_out.aim = read.aim;
    if (read.bandsFirst) request().require = Require::BandsFirst;
    for (const auto& p : request().shelf) {
      if (m_out.aim.cheapest && !p.pricePerKg) m_out.withoutPrice.push_back(p.name);
    }
    if (m_out.aim.cheapest && m_out.withoutPrice.empty()) request().objective = Objective::Cheapest;
  }

  void readAccuracy() {
    const auto* object = m_top.object("accuracy");
    if (!object) return;
    ObjectReader reader(*object, "accuracy", m_problem);
    const auto hand = readHandErrors(reader, Dialect::Document);
    m_out.accuracy = {hand.volumePercent, hand.dosingPercent, hand.waterPercent};
    reader.finish();
  }

  void readCrops() {
    const auto* list = m_top.array("crops");
    for (std::size_t i = 0; list && i < list->size() && !m_problem; ++i) {
      auto target = readTargetDocument((*list)[i], item("crops", i), m_problem);
      m_out.crops.push_back({target.name, std::move(target.rows)});
    }
  }

  void readShelf() {
    const auto* list = m_top.array("shelf");
    if (!list) return;
    std::set<std::string> ids;
    for (std::size_t i = 0; i < list->size() && !m_problem; ++i) {
      const auto path = item("shelf", i);
      ObjectReader reader((*list)[i], path, m_problem);
      DocumentProduct seen;
      ShelfProduct product;
      product.id = seen.id = reader.text("id").value_or("");
      if (seen.id.empty()) reader.fail(ProblemCode::MissingKey, "id", {"every product needs an id"});
      if (!ids.insert(seen.id).second) reader.fail(ProblemCode::DuplicateProduct, "id", {seen.id});
      readWhatItIs(reader, path, seen, product);
      readLook(reader, seen);
      seen.on = reader.flag("on").value_or(true);
      seen.held = typedAmount(reader, heldFigure);
      if (seen.held) product.locked = Mass::fromGrams(*figure(reader, Dialect::Document, heldFigure));
      readBag(reader, product);
      seen.code = reader.text("code").value_or("");
      if (seen.code.size() > 12) reader.fail(ProblemCode::OutOfRange, "code", {seen.code, "up to 4 letters"});
      seen.step = typedAmount(reader, {"", "step", "g", 0, 1e7, true, true});
      if (const auto grams =
              figure(reader, Dialect::Document, {"", "ten_teaspoons", "g", 0, 1000, true, true}))
        product.levelTeaspoon = Mass::fromGrams(*grams / 10);
      seen.contentPercent = figure(reader, Dialect::Document, {"", "content_error_percent", "%", 0, 50});
      reader.finish();
      if (seen.on) {
        m_out.active.push_back(i);
        request().shelf.push_back(product);
      }
      m_out.allProducts.push_back(std::move(product));
      m_out.products.push_back(std::move(seen));
    }
  }

  /// A price per bag goes before one per kilogram.
  void readBag(ObjectReader& reader, ShelfProduct& product) {
    const auto kilograms = figure(reader, Dialect::Document, {"", "bag", "kg", 0, 1e6, true, true});
    const auto price = figure(reader, Dialect::Document, {"", "bag_price", "", 0, 1e9});
    if (kilograms && price) product.pricePerKg = *price / *kilograms;
  }

  /// A shipped product by its id, or one of the grower's own by formula or label.
  void readWhatItIs(ObjectReader& reader, const std::string& path, DocumentProduct& seen,
                    ShelfProduct& product) {
    seen.catalogueId = reader.text("catalogue").value_or("");
    const auto name = reader.text("name");
    const auto* asShipped = reader.object("as_shipped");
    readProductFacts(reader, Dialect::Document, product);
    if (m_problem) return;
    if (seen.catalogueId.empty()) {
      seen.own = true;
      seen.name = product.name = name.value_or(seen.id);
      return readComposition(reader, Dialect::Document, product, m_out.labelRemarks);
    }
    for (const auto* key : {"formula", "label", "purity_percent"})
      reader.any(key); // the catalogue's own figures count
    const auto* entry = findInCatalogue(seen.catalogueId);
    if (!entry) return reader.fail(ProblemCode::UnknownProduct, "catalogue", {seen.catalogueId});
    product.composition = entry->composition;
    product.liquid = entry->liquid;
    product.densityKgPerL = entry->densityKgPerL;
    seen.name = product.name = name.value_or(entry->shortName);
    if (asShipped) readAsShipped(*asShipped, path + ".as_shipped", product);
  }

  /// A shipped product as the catalogue had it when it came onto this shelf.
  void readAsShipped(const Json& json, const std::string& path, ShelfProduct& product) {
    ObjectReader reader(json, path, m_problem);
    const auto formula = reader.text("formula").value_or("");
    const auto purity = figure(reader, Dialect::Document, figures::purity);
    std::vector<LabelRow> label;
    if (const auto* rows = reader.array("label")) label = readLabelRows(*rows, path + ".label", m_problem);
    const auto price = product.pricePerKg;
    readProductFacts(reader, Dialect::Document, product);
    product.pricePerKg = price; // the grower's own
    reader.finish();
    if (m_problem) return;
    auto composition = compositionAsSold(formula, purity.value_or(100), label);
    if (!composition) return take(composition.problem(), path);
    product.composition = std::move(composition).value();
  }

  void readBatch() {
    request().volume = volumeOf(m_top, Dialect::Document, figures::batch).value_or(Volume::fromLitres(1000));
    request().alkalinityLeftMeqPerL = figure(m_top, Dialect::Document, figures::alkalinityLeft);
  }

  void readStock() {
    const auto* object = m_top.object("stock");
    if (!object) return m_top.fail(ProblemCode::MissingKey, "stock", {"a formula needs its stock tanks"});
    m_out.given.stock = readStockDocument(*object, "stock", m_out.tanks, m_problem);
    const auto* dosing = m_top.object("dosing");
    const Json none = Json::object();
    m_out.dosing =
        readDosingDocument(dosing ? *dosing : none, "dosing", m_out.given.stock.tanks.size(), m_problem);
    m_out.given.dosing = m_out.dosing;
  }

  /// Straight into one vessel, or by stocks; what was typed of the other way stays.
  void readDirect() {
    static constexpr Choices<bool, 2> ways{{{"stocks", false}, {"direct", true}}};
    const bool direct = chosen(m_top, "way", ways);
    DirectPlan plan;
    if (const auto* object = m_top.object("direct")) {
      ObjectReader reader(*object, "direct", m_problem);
      plan = readDirectPlan(reader, Dialect::Document);
      reader.finish();
    }
    if (direct) m_out.given.direct = plan;
  }

  void readScales() {
    if (const auto* list = m_top.array("scales")) {
      const Scale usual{"scale", Mass::fromGrams(1), Mass::fromKilograms(5)};
      for (std::size_t i = 0; i < list->size(); ++i)
        m_out.scales.push_back(readScale((*list)[i], item("scales", i), Dialect::Document, usual, m_problem));
    }
    m_out.spoons = m_top.flag("spoons").value_or(false);
    if (m_out.spoons) m_out.scales.push_back(levelSpoons());
    if (m_out.scales.empty()) m_out.scales.push_back({"scale", Mass::fromGrams(1), Mass::fromKilograms(5)});
  }

  /// What the core needs beside the request.
  void fillGiven() {
    auto& given = m_out.given;
    given.atMostProducts = m_out.aim.atMostProducts;
    given.wholeSteps = m_out.aim.wholeSteps;
    given.crop = m_out.crop.empty() ? m_out.targetName : m_out.crop;
    given.scales = m_out.scales;
    given.errors = usualErrors(request().shelf);
    const auto& own = m_out.accuracy;
    given.errors.volumePercent = own.volumePercent.value_or(given.errors.volumePercent);
    given.errors.dosingPercent = own.dosingPercent.value_or(usualDosingPercent);
    given.errors.waterPercent = own.waterPercent.value_or(given.errors.waterPercent);
    for (std::size_t j = 0; j < m_out.active.size(); ++j) {
      const auto& seen = m_out.products[m_out.active[j]];
      given.errors.contentPercent[j] = seen.contentPercent.value_or(given.errors.contentPercent[j]);
      const auto step = seen.step ? convert(seen.step->value(), seen.step->unit, "g") : Result<double>(0.0);
      given.steps.push_back(Mass::fromGrams(step ? *step : 0));
    }
  }

  std::optional<Problem> m_problem;
  ObjectReader m_top;
  FormulaDocument m_out;
};

} // namespace

Result<FormulaDocument> readFormulaDocument(const Json& json) {
  return DocumentReader(json).read();
}

std::optional<Problem> formulaProblem(const Json& json) {
  const auto document = readFormulaDocument(json);
  if (!document) return document.problem();
  const auto waters = plannedWaters(document->given);
  return waters ? std::nullopt : std::optional(waters.problem());
}

Result<Json> parseFormulaText(std::string_view text) {
  auto json = parseJsonObject(text);
  if (!json) return json.problem();
  if (auto problem = formulaProblem(*json)) return *problem;
  auto current = std::move(json).value();
  current["version"] = formulaFormatVersion; // what an older version holds is valid in this one
  return current;
}

} // namespace butte::exchange
