#include "typed_numbers.h"

#include "base/decimal.h"
#include "units/convert.h"

namespace butte::exchange {

using namespace core;

double Amount::value() const {
  return parseDecimal(digits).value_or(0);
}

std::optional<double> digits(ObjectReader& reader, std::string_view key, double low, double high,
                             const std::string& right) {
  const auto text = reader.text(key);
  if (!text) return std::nullopt;
  const auto value = parseDecimal(*text);
  if (!value)
    reader.fail(ProblemCode::NotANumber, key, {*text});
  else if (!(*value >= low && *value <= high))
    reader.fail(ProblemCode::OutOfRange, key, {*text, right});
  return value;
}

std::optional<double> amount(ObjectReader& parent, std::string_view key, std::string_view base, double low,
                             double high, Amount* asTyped) {
  const auto* object = parent.any(key);
  if (!object || object->is_null()) return std::nullopt;
  ObjectReader reader(*object, parent.pathOf(key), parent.sink());
  const auto text = reader.text("amount");
  const auto unit = reader.text("unit");
  reader.finish();
  if (!text || !unit) {
    if (!parent.failed())
      reader.fail(ProblemCode::MissingKey, text ? "unit" : "amount", {"an amount needs digits and a unit"});
    return std::nullopt;
  }
  const auto value = parseDecimal(*text);
  if (!value) {
    reader.fail(ProblemCode::NotANumber, "amount", {*text});
    return std::nullopt;
  }
  const auto converted = convert(*value, *unit, base);
  if (!converted) {
    reader.fail(converted.problem().code, "unit", converted.problem().values);
    return std::nullopt;
  }
  if (!(*converted >= low && *converted <= high))
    reader.fail(
        ProblemCode::OutOfRange, "amount",
        {*text + " " + *unit, decimalText(low) + " to " + decimalText(high) + " " + std::string(base)});
  if (asTyped) *asTyped = {*text, *unit};
  return *converted;
}

Json amountJson(const std::string& digits, const std::string& unit) {
  return Json{{"amount", digits}, {"unit", unit}};
}

Json figureJson(const Amount& figure) {
  if (figure.isEmpty()) return {};
  return figure.unit.empty() ? Json(figure.digits) : amountJson(figure.digits, figure.unit);
}

Amount figureFrom(const Json& json) {
  if (json.is_string()) return {json.get<std::string>(), {}};
  if (!json.is_object()) return {};
  return {json.value("amount", std::string()), json.value("unit", std::string())};
}

std::string item(const std::string& list, std::size_t index) {
  return list + "[" + std::to_string(index) + "]";
}

} // namespace butte::exchange
