#include "edits/formula_edits.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edit.h"
#include "formula_json.h"
#include "units/convert.h"
#include "wording/tr.h"

#include <cmath>

namespace butte::app {

using exchange::Amount;
using exchange::Json;

void FormulaEdits::setName(const QString& name) {
  set({DeedCode::FormulaNamed, {name.toStdString()}}, "/name", name.toStdString());
}

void FormulaEdits::setCrop(const QString& crop, bool merge) {
  set({DeedCode::CropNamed, {crop.toStdString()}}, "/crop", crop.toStdString(), merge);
}

namespace {

/// A typed figure times a factor, in the shortest digits that say it to 1e-13: so the figure that was typed
/// comes back with the batch that it was typed for.
std::string scaledDigits(double value) {
  for (int digits = 1; digits <= 13; ++digits) {
    const auto text = QString::number(value, 'g', digits).toStdString();
    const double read = core::parseDecimal(text).value_or(0);
    if (std::abs(read - value) <= 1e-13 * std::abs(value)) return core::decimalText(read);
  }
  return core::decimalText(value);
}

} // namespace

void FormulaEdits::setBatch(const Amount& volume) {
  const auto litres = core::convert(volume.value(), volume.unit, "L");
  if (!litres || *litres <= 0) return;
  const double ratio = *litres / m_editor.document().given.request.volume.litres();
  exchange::Edit edit{{DeedCode::BatchVolume, {volume.digits, volume.unit}}, {}, "/batch"};
  edit.changes.push_back({"/batch", json()["batch"], exchange::figureJson(volume)});
  const auto& products = m_editor.document().products;
  for (std::size_t i = 0; i < products.size(); ++i) {
    if (!products[i].held) continue;
    const auto pointer = "/shelf/" + std::to_string(i) + "/held";
    edit.changes.push_back(
        {pointer, json()[Json::json_pointer(pointer)],
         exchange::amountJson(scaledDigits(products[i].held->value() * ratio), products[i].held->unit)});
  }
  m_editor.apply(edit);
}

std::string FormulaEdits::way() const {
  const auto way = figure("/aim/way").digits;
  return way.empty() ? "closest" : way;
}

void FormulaEdits::setWay(const std::string& way) {
  Json aim = json().value("aim", Json::object());
  aim["way"] = way;
  set({DeedCode::AimSet, {way}}, "/aim", aim);
}

void FormulaEdits::setAtMost(const QString& digits) {
  Json aim = json().value("aim", Json::object());
  const auto whole = digits.section('.', 0, 0).toStdString();
  if (whole.empty())
    aim.erase("at_most");
  else
    aim["at_most"] = whole;
  set(whole.empty() ? Deed{DeedCode::AnyNumberOfProducts, {}} : Deed{DeedCode::AtMostProducts, {whole}},
      "/aim", aim);
}

void FormulaEdits::setWholeSteps(bool on) {
  Json aim = json().value("aim", Json::object());
  aim["whole_steps"] = on;
  set({on ? DeedCode::WholeSteps : DeedCode::WeightsAsComputed, {}}, "/aim", aim);
}

std::size_t FormulaEdits::scaleCount() const {
  return json().value("scales", Json::array()).size();
}

void FormulaEdits::setScaleReadability(std::size_t scale, const Amount& step) {
  setScale(scale, "readability", step, DeedCode::ScaleReadability);
}

void FormulaEdits::setScaleCapacity(std::size_t scale, const Amount& most) {
  setScale(scale, "capacity", most, DeedCode::ScaleCapacity);
}

namespace {

/// What a scale is called follows from what it takes: "15 kg scale".
std::string scaleName(const Json& scale) {
  const auto capacity = exchange::figureFrom(scale["capacity"]);
  if (capacity.unit == "lb" || capacity.unit == "oz")
    return tr("%1 scale").arg(QString::fromStdString(capacity.digits + " " + capacity.unit)).toStdString();
  const auto grams = core::convert(capacity.value(), capacity.unit, "g");
  const double g = grams ? *grams : 0;
  const auto size = g >= 1000 ? core::decimalText(g / 1000) + " kg" : core::decimalText(g) + " g";
  return tr("%1 scale").arg(QString::fromStdString(size)).toStdString();
}

} // namespace

void FormulaEdits::setSpoons(bool on) {
  const Deed deed{on ? DeedCode::SpoonsUsed : DeedCode::NoSpoons, {}};
  if (on || scaleCount() > 0) return static_cast<void>(set(deed, "/spoons", on));
  Json scales = Json::array(); // something has to weigh
  scales.push_back(
      {{"readability", exchange::amountJson("1", "g")}, {"capacity", exchange::amountJson("5000", "g")}});
  scales[0]["name"] = scaleName(scales[0]);
  m_editor.apply({deed, {{"/scales", json().value("scales", Json()), scales}, {"/spoons", true, false}}, {}});
}

void FormulaEdits::setScale(std::size_t scale, const char* key, const Amount& amount, DeedCode code) {
  Json scales = json().value("scales", Json::array());
  const auto which = std::to_string(scale);
  Deed deed{code, {which, amount.digits, amount.unit}};
  if (amount.isEmpty()) {
    if (scale < scales.size()) scales.erase(scale);
    deed = {DeedCode::ScaleRemoved, {which}};
  } else {
    while (scales.size() <= scale)
      scales.push_back(
          {{"readability", exchange::amountJson("1", "g")}, {"capacity", exchange::amountJson("5000", "g")}});
    scales[scale][key] = exchange::figureJson(amount);
    scales[scale].erase("name");
    scales[scale]["name"] = scaleName(scales[scale]);
  }
  const bool bySpoon = scales.empty() && !m_editor.document().spoons; // with no scale at all
  std::vector<exchange::Change> changes{{"/scales", json().value("scales", Json()), scales}};
  if (bySpoon) changes.push_back({"/spoons", json().value("spoons", Json()), true});
  m_editor.apply({deed, changes, bySpoon ? std::string() : "scale" + which + key});
}

Amount FormulaEdits::scaleReadability(std::size_t scale) const {
  return figure("/scales/" + std::to_string(scale) + "/readability");
}

Amount FormulaEdits::scaleCapacity(std::size_t scale) const {
  return figure("/scales/" + std::to_string(scale) + "/capacity");
}

void FormulaEdits::setScaleUnit(std::size_t scale, const QString& unit) {
  Json scales = json().value("scales", Json::array());
  if (scale >= scales.size()) return;
  const auto inUnit = [&](const Amount& amount) { return typed(digitsIn(amount, unit), unit); };
  const auto step = inUnit(scaleReadability(scale));
  scales[scale]["capacity"] = exchange::figureJson(inUnit(scaleCapacity(scale)));
  scales[scale]["readability"] = exchange::figureJson(step);
  scales[scale]["name"] = scaleName(scales[scale]);
  const Deed deed{DeedCode::ScaleReadability, {std::to_string(scale), step.digits, step.unit}};
  m_editor.apply({deed, {{"/scales", json().value("scales", Json()), scales}}, {}});
}

void FormulaEdits::setAlkalinityLeft(const QString& digits) {
  set(digits.isEmpty() ? Deed{DeedCode::NoAcidInRecipe, {}}
                       : Deed{DeedCode::AlkalinityLeft, {digits.toStdString()}},
      "/alkalinity_left", exchange::figureJson(typed(digits, "meq/L")), true);
}

} // namespace butte::app
