#include "typed_numbers.h"

#include "base/decimal.h"

namespace butte::exchange {

using namespace core;

double Amount::value() const {
  return parseDecimal(digits).value_or(0);
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
