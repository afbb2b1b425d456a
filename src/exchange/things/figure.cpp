#include "things/figure.h"

#include "base/decimal.h"
#include "json_reader.h"
#include "typed_numbers.h"
#include "units/convert.h"

#include <algorithm>
#include <cmath>

namespace butte::exchange {

using namespace core;

namespace {

struct Given {
  double value;
  std::string typed; ///< as it stands, with its unit
  std::string key;   ///< where a problem belongs
};

std::optional<Given> inScript(ObjectReader& reader, const Figure& what) {
  const auto value = reader.number(what.script);
  return value ? std::optional(Given{*value, decimalText(*value), std::string(what.script)}) : std::nullopt;
}

std::optional<Given> digitsIn(ObjectReader& reader, std::string_view key) {
  const auto text = reader.text(key);
  if (!text) return std::nullopt;
  const auto value = parseDecimal(*text);
  if (value) return Given{*value, *text, std::string(key)};
  reader.fail(ProblemCode::NotANumber, key, {*text});
  return std::nullopt;
}

/// {"amount": digits, "unit": unit}; null counts as not given.
std::optional<Given> amountIn(ObjectReader& parent, const Figure& what) {
  const auto* object = parent.any(what.document);
  if (!object || object->is_null()) return std::nullopt;
  ObjectReader reader(*object, parent.pathOf(what.document), parent.sink());
  auto digits = digitsIn(reader, "amount");
  const auto unit = reader.text("unit");
  reader.finish();
  if (!parent.failed() && (!digits || !unit))
    reader.fail(ProblemCode::MissingKey, digits ? "unit" : "amount", {"an amount needs digits and a unit"});
  if (parent.failed()) return std::nullopt;
  const auto converted = convert(digits->value, *unit, what.unit);
  if (!converted) {
    reader.fail(converted.problem().code, "unit", converted.problem().values);
    return std::nullopt;
  }
  return Given{*converted, digits->typed + " " + *unit, std::string(what.document) + ".amount"};
}

} // namespace

std::optional<Problem> outside(const Figure& what, double value, const std::string& asGiven) {
  const std::string unit(what.unit);
  if (what.above && !(value > what.least))
    return problemAt(ProblemCode::NotAbove, "", {asGiven, decimalText(what.least), unit});
  const bool tiny = value != 0 && std::abs(value) < leastFigure;
  if (value >= what.least && value <= std::min(what.most, mostFigure) && !tiny) return std::nullopt;
  const auto limit = [](double end) { return std::abs(end) == noLimit ? std::string() : decimalText(end); };
  return problemAt(ProblemCode::OutsideLimits, "",
                   {asGiven, limit(tiny ? std::max(what.least, leastFigure) : what.least),
                    limit(value > mostFigure ? std::min(what.most, mostFigure) : what.most), unit});
}

std::optional<double> figure(ObjectReader& reader, Dialect dialect, const Figure& what) {
  const auto given = dialect == Dialect::Script ? inScript(reader, what)
                     : what.typedUnit           ? amountIn(reader, what)
                                                : digitsIn(reader, what.document);
  if (!given) return std::nullopt;
  if (const auto problem = outside(what, given->value, given->typed)) {
    reader.fail(problem->code, given->key, problem->values);
    return std::nullopt;
  }
  return given->value;
}

std::optional<Amount> typedAmount(ObjectReader& reader, const Figure& what) {
  if (!figure(reader, Dialect::Document, what)) return std::nullopt;
  return figureFrom(*reader.any(what.document));
}

std::optional<Volume> volumeOf(ObjectReader& reader, Dialect dialect, const Figure& litres) {
  const auto value = figure(reader, dialect, litres);
  return value ? std::optional(Volume::fromLitres(*value)) : std::nullopt;
}

std::optional<Temperature> temperatureOf(ObjectReader& reader, Dialect dialect, const Figure& celsius) {
  const auto value = figure(reader, dialect, celsius);
  return value ? std::optional(Temperature::fromCelsius(*value)) : std::nullopt;
}

std::optional<Conductivity> conductivityOf(ObjectReader& reader, Dialect dialect,
                                           const Figure& milliSiemens) {
  const auto value = figure(reader, dialect, milliSiemens);
  return value ? std::optional(Conductivity::fromMilliSiemensPerCm(*value)) : std::nullopt;
}

} // namespace butte::exchange
