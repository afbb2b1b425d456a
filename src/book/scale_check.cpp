#include "scale_check.h"

#include "record_reader.h"

#include "base/decimal.h"
#include "things/figure.h"
#include "typed_numbers.h"
#include "units/convert.h"

namespace butte::book {

using core::Mass;
using core::ProblemCode;
using exchange::ObjectReader;

namespace {

constexpr double mostCheckedGrams = 1e9;

Mass massOf(const exchange::Amount& amount) {
  const auto digits = core::parseDecimal(amount.digits);
  const auto grams = core::convert(digits.value_or(0), amount.unit, "g");
  return Mass::fromGrams(grams ? *grams : 0);
}

exchange::Amount weight(ObjectReader& reader, const std::string& key, double least) {
  const auto read = exchange::typedAmount(reader, {"", key, "g", least, mostCheckedGrams, true});
  if (!read) reader.fail(ProblemCode::MissingKey, key, {"a weight with its unit"});
  return read.value_or(exchange::Amount{});
}

} // namespace

Mass ScaleCheck::knownMass() const {
  return massOf(known);
}

Mass ScaleCheck::error() const {
  return massOf(shown) - massOf(known);
}

double ScaleCheck::errorPercent() const {
  constexpr double percent = 100;
  return percent * (error() / knownMass());
}

core::Result<ScaleCheck> scaleCheckFromJson(const Json& json) {
  constexpr double leastKnown = 1e-4;
  Trouble problem;
  ScaleCheck out;
  ObjectReader reader(json, "", problem);
  out.at = momentIn(reader, "at");
  out.scale = reader.text("scale").value_or("");
  if (out.scale.empty()) reader.fail(ProblemCode::MissingKey, "scale", {"the scale's name"});
  out.known = weight(reader, "known", leastKnown);
  out.shown = weight(reader, "shown", 0);
  out.who = reader.text("who").value_or("");
  reader.finish();
  if (problem) return *problem;
  return out;
}

Json toJson(const ScaleCheck& check) {
  Json out{{"at", check.at.iso()},
           {"scale", check.scale},
           {"known", exchange::amountJson(check.known.digits, check.known.unit)},
           {"shown", exchange::amountJson(check.shown.digits, check.shown.unit)}};
  if (!check.who.empty()) out["who"] = check.who;
  return out;
}

} // namespace butte::book
