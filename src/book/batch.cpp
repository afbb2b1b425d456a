#include "batch.h"
#include "record_reader.h"
#include "things/figure.h"
#include "typed_numbers.h"

#include "base/decimal.h"
#include "units/convert.h"

#include <algorithm>
#include <cmath>

namespace butte::book {

using core::ProblemCode;
using exchange::Amount;
using exchange::ObjectReader;

namespace {

std::optional<double> inUnit(const Amount& amount, std::string_view unit) {
  const auto value = core::parseDecimal(amount.digits);
  if (!value) return std::nullopt;
  const auto converted = core::convert(*value, amount.unit, unit);
  return converted ? std::optional(*converted) : std::nullopt;
}

class BatchReader {
public:
  explicit BatchReader(const Json& json) : m_top(json, "", m_problem) {}

  core::Result<Batch> read() {
    m_out.at = momentIn(m_top, "at");
    m_out.formulaUid = m_top.text("formula").value_or("");
    m_out.formulaVersion = static_cast<int>(number("formula_version", 0, 1e6).value_or(0));
    m_out.formulaName = m_top.text("formula_name").value_or("");
    m_out.crop = m_top.text("crop").value_or("");
    m_out.waterName = m_top.text("water_name").value_or("");
    const auto litres = number("litres", 1e-3, 1e9);
    if (!litres) m_top.fail(ProblemCode::MissingKey, "litres", {"a batch needs its volume in litres"});
    m_out.litres = litres.value_or(1);
    m_out.ecPlanned = number("ec_planned", 0, 1000);
    m_out.phPlanned = number("ph_planned", 0, 14);
    m_out.ecRead = exchange::typedAmount(m_top, {"", "ec_read", "mS/cm", 0, 1000, true});
    m_out.phRead = ph();
    m_out.who = m_top.text("who").value_or("");
    m_out.note = m_top.text("note").value_or("");
    m_out.sheet = m_top.text("sheet").value_or("");
    weights();
    m_top.finish();
    if (m_problem) return *m_problem;
    return std::move(m_out);
  }

private:
  std::optional<double> number(std::string_view key, double low, double high) {
    if (m_top.has(key) && m_top.any(key)->is_null()) return std::nullopt;
    const auto value = m_top.number(key);
    if (value && !(*value >= low && *value <= high))
      m_top.fail(ProblemCode::OutOfRange, key,
                 {core::decimalText(*value), core::decimalText(low) + " to " + core::decimalText(high)});
    return value;
  }

  std::optional<std::string> ph() {
    if (m_top.has("ph_read") && m_top.any("ph_read")->is_null()) return std::nullopt;
    const auto text = m_top.text("ph_read");
    if (!text) return std::nullopt;
    const auto value = core::parseDecimal(*text);
    if (!value)
      m_top.fail(ProblemCode::NotANumber, "ph_read", {*text});
    else if (*value < 0 || *value > 14)
      m_top.fail(ProblemCode::OutsideLimits, "ph_read", {*text, "0", "14", ""});
    return text;
  }

  void weights() {
    const auto* list = m_top.array("weights");
    for (std::size_t i = 0; list && i < list->size() && !m_problem; ++i) {
      ObjectReader row((*list)[i], "weights[" + std::to_string(i) + "]", m_problem);
      BatchWeight weight;
      weight.productId = row.text("product").value_or("");
      weight.productName = row.text("name").value_or(weight.productId);
      weight.tank = row.text("tank").value_or("");
      weight.plannedGrams = row.number("planned_g").value_or(0);
      if (!(weight.plannedGrams >= 0 && weight.plannedGrams <= 1e9))
        row.fail(ProblemCode::OutsideLimits, "planned_g",
                 {core::decimalText(weight.plannedGrams), "0", "1000000000", "g"});
      weight.actual = exchange::typedAmount(row, {"", "actual", "g", 0, 1e9, true});
      weight.lot = row.text("lot").value_or("");
      row.finish();
      m_out.weights.push_back(std::move(weight));
    }
  }

  std::optional<core::Problem> m_problem;
  ObjectReader m_top;
  Batch m_out;
};

Json optionalNumber(const std::optional<double>& value) {
  return value ? Json(*value) : Json();
}
Json amountOrNull(const std::optional<Amount>& amount) {
  return amount ? exchange::amountJson(amount->digits, amount->unit) : Json();
}

} // namespace

std::optional<double> BatchWeight::actualGrams() const {
  return actual ? inUnit(*actual, "g") : std::nullopt;
}

std::optional<double> BatchWeight::deviationPercent() const {
  const auto grams = actualGrams();
  if (!grams || plannedGrams <= 0) return std::nullopt;
  return (*grams / plannedGrams - 1) * 100;
}

std::optional<double> Batch::ecReadMilliSiemens() const {
  return ecRead ? inUnit(*ecRead, "mS/cm") : std::nullopt;
}

std::optional<double> Batch::worstDeviationPercent() const {
  std::optional<double> worst;
  for (const auto& weight : weights) {
    if (const auto off = weight.deviationPercent()) worst = std::max(worst.value_or(0), std::abs(*off));
  }
  return worst;
}

core::Result<Batch> batchFromJson(const Json& json) {
  return BatchReader(json).read();
}

Json toJson(const Batch& batch) {
  Json weights = Json::array();
  for (const auto& w : batch.weights)
    weights.push_back({{"product", w.productId},
                       {"name", w.productName},
                       {"tank", w.tank},
                       {"planned_g", w.plannedGrams},
                       {"actual", amountOrNull(w.actual)},
                       {"lot", w.lot}});
  return Json{{"at", batch.at.iso()},
              {"formula", batch.formulaUid},
              {"formula_version", batch.formulaVersion},
              {"formula_name", batch.formulaName},
              {"crop", batch.crop},
              {"water_name", batch.waterName},
              {"litres", batch.litres},
              {"ec_planned", optionalNumber(batch.ecPlanned)},
              {"ph_planned", optionalNumber(batch.phPlanned)},
              {"ec_read", amountOrNull(batch.ecRead)},
              {"ph_read", batch.phRead ? Json(*batch.phRead) : Json()},
              {"who", batch.who},
              {"note", batch.note},
              {"sheet", batch.sheet},
              {"weights", weights}};
}

} // namespace butte::book
