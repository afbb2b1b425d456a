#include "shelf_record.h"

#include "record_reader.h"

#include "base/decimal.h"
#include "things/choices.h"
#include "things/figures.h"
#include "typed_numbers.h"
#include "units/convert.h"

#include <algorithm>
#include <cmath>

namespace butte::book {

using core::ProblemCode;
using exchange::Amount;
using exchange::Figure;
using exchange::ObjectReader;

namespace {

constexpr double mostGrams = 1e9, mostMillilitres = 1e9, mostPrice = 1e9;
constexpr exchange::Choices<ShelfDid, 4> dids{{{"counted", ShelfDid::Counted},
                                               {"wasted", ShelfDid::Wasted},
                                               {"opened", ShelfDid::Opened},
                                               {"dried", ShelfDid::Dried}}};

std::optional<double> inUnit(const Amount& amount, std::string_view unit) {
  const auto digits = core::parseDecimal(amount.digits);
  const auto out = core::convert(digits.value_or(0), amount.unit, unit);
  return digits && out ? std::optional(*out) : std::nullopt;
}

bool isByVolume(const Json* amount) {
  if (!amount || !amount->is_object()) return false;
  const auto unit = amount->find("unit");
  return unit != amount->end() && unit->is_string() &&
         static_cast<bool>(core::convert(1, unit->get<std::string>(), "mL"));
}

/// By weight or by volume; nothing where it is not given.
Amount quantity(ObjectReader& reader, std::string_view key, bool above) {
  const Figure weight{"", key, "g", 0, mostGrams, true, above},
      volume{"", key, "mL", 0, mostMillilitres, true, above};
  const bool byVolume = reader.has(key) && isByVolume(reader.any(key));
  return exchange::typedAmount(reader, byVolume ? volume : weight).value_or(Amount{});
}

std::string digitsOf(ObjectReader& reader, const Figure& figure) {
  const bool given = exchange::figure(reader, exchange::Dialect::Document, figure).has_value();
  return given ? reader.text(figure.document).value_or("") : std::string();
}

void put(Json& out, const char* key, const std::string& text) {
  if (!text.empty()) out[key] = text;
}
void put(Json& out, const char* key, const Amount& amount) {
  if (!amount.isEmpty()) out[key] = exchange::amountJson(amount.digits, amount.unit);
}

int bagsIn(ObjectReader& reader) {
  const double bags = reader.number("bags").value_or(1);
  if (bags >= 0 && bags <= mostBagsOfLot && bags == std::floor(bags)) return static_cast<int>(bags);
  reader.fail(ProblemCode::OutsideLimits, "bags",
              {core::decimalText(bags), "0", std::to_string(mostBagsOfLot), ""});
  return 1;
}

/// Whether a line of this kind has to say how much.
void checkAmounts(ObjectReader& reader, const ShelfLine& line) {
  if (line.did != ShelfDid::Opened && line.amount.isEmpty())
    reader.fail(ProblemCode::MissingKey, "amount", {"how much, with its unit"});
  if (line.did != ShelfDid::Dried) return;
  const auto below = [&](const char* key, const Amount& wet, const Amount& dry) {
    const auto before = inUnit(wet, "g"), after = inUnit(dry, "g");
    if (!before || !after || !(*after > 0 && *after <= *before))
      reader.fail(ProblemCode::OutOfRange, key,
                  {dry.digits + " " + dry.unit, "a weight above 0 and not above what it was before"});
  };
  below("dried", line.amount, line.dried);
  if (!line.sealed.isEmpty() || !line.sealedDried.isEmpty())
    below("sealed_dried", line.sealed, line.sealedDried);
}

} // namespace

std::string_view code(ShelfDid did) {
  return std::find_if(dids.begin(), dids.end(), [&](const auto& one) { return one.second == did; })->first;
}

std::optional<core::Mass> Lot::massOf(const Amount& amount) const {
  if (const auto grams = inUnit(amount, "g")) return core::Mass::fromGrams(*grams);
  const auto litres = inUnit(amount, "L");
  const auto density = core::parseDecimal(densityKgPerL);
  if (litres && density) return core::Mass::fromKilograms(*litres * *density);
  return std::nullopt;
}

core::Mass Lot::bagMass() const {
  return massOf(bag).value_or(core::Mass());
}

std::optional<double> Lot::price() const {
  return core::parseDecimal(bagPrice);
}

core::Result<Lot> lotFromJson(const Json& json) {
  static constexpr Figure price{"", "bag_price", "", 0, mostPrice, false, true};
  Trouble problem;
  Lot out;
  ObjectReader reader(json, "", problem);
  out.product = neededText(reader, "product", "the product's id");
  out.name = neededText(reader, "name", "the product's name");
  out.mark = reader.text("mark").value_or("");
  out.bought = momentIn(reader, "bought");
  out.bags = bagsIn(reader);
  static constexpr Figure lead{"lead_days", "", "d", 0, 3650};
  if (const auto days = exchange::figure(reader, exchange::Dialect::Script, lead))
    out.leadDays = static_cast<int>(*days);
  out.bag = quantity(reader, "bag", true);
  if (out.bag.isEmpty()) reader.fail(ProblemCode::MissingKey, "bag", {"what is in one, with its unit"});
  out.densityKgPerL = digitsOf(reader, exchange::figures::density);
  if (!out.bag.isEmpty() && !out.massOf(out.bag))
    reader.fail(ProblemCode::MissingKey, "density_kg_per_l", {"what a litre of it weighs"});
  out.bagPrice = digitsOf(reader, price);
  out.currency = reader.text("currency").value_or("");
  out.supplier = reader.text("supplier").value_or("");
  out.place = reader.text("place").value_or("");
  out.note = reader.text("note").value_or("");
  if (reader.has("best_before")) out.bestBefore = momentIn(reader, "best_before");
  reader.finish();
  if (problem) return *problem;
  return out;
}

Json toJson(const Lot& lot) {
  Json out{{"product", lot.product}, {"name", lot.name}, {"bought", lot.bought.iso()}, {"bags", lot.bags}};
  put(out, "mark", lot.mark);
  put(out, "bag", lot.bag);
  put(out, "density_kg_per_l", lot.densityKgPerL);
  put(out, "bag_price", lot.bagPrice);
  put(out, "currency", lot.currency);
  put(out, "supplier", lot.supplier);
  put(out, "place", lot.place);
  put(out, "note", lot.note);
  if (lot.leadDays) out["lead_days"] = *lot.leadDays;
  if (lot.bestBefore) out["best_before"] = lot.bestBefore->iso();
  return out;
}

core::Result<ShelfLine> shelfLineFromJson(const Json& json) {
  Trouble problem;
  ShelfLine out;
  ObjectReader reader(json, "", problem);
  out.lotUid = neededText(reader, "lot", "the lot it is of");
  out.at = momentIn(reader, "at");
  out.who = reader.text("who").value_or("");
  if (!reader.has("did")) reader.fail(ProblemCode::MissingKey, "did", {"what was done"});
  out.did = exchange::chosen(reader, "did", dids);
  out.amount = quantity(reader, "amount", out.did == ShelfDid::Wasted || out.did == ShelfDid::Dried);
  out.dried = quantity(reader, "dried", true);
  out.sealed = quantity(reader, "sealed", true);
  out.sealedDried = quantity(reader, "sealed_dried", true);
  checkAmounts(reader, out);
  out.text = reader.text("text").value_or("");
  reader.finish();
  if (problem) return *problem;
  return out;
}

Json toJson(const ShelfLine& line) {
  Json out{{"lot", line.lotUid}, {"at", line.at.iso()}, {"did", code(line.did)}};
  put(out, "who", line.who);
  put(out, "amount", line.amount);
  put(out, "dried", line.dried);
  put(out, "sealed", line.sealed);
  put(out, "sealed_dried", line.sealedDried);
  put(out, "text", line.text);
  return out;
}

} // namespace butte::book
