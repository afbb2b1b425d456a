#include "edits/edits.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "typed_numbers.h"
#include "units/convert.h"
#include "words.h"

namespace butte::app {

using exchange::Json;

const Json& Edits::json() const {
  return m_editor.json();
}

bool Edits::set(const Deed& deed, const std::string& pointer, const Json& value, bool merge) {
  return !m_editor.set(deed, pointer, value, merge);
}

exchange::Amount Edits::figure(const std::string& pointer) const {
  const Json::json_pointer place(pointer);
  return json().contains(place) ? exchange::figureFrom(json()[place]) : exchange::Amount{};
}

exchange::Amount typed(const QString& digits, const QString& unit) {
  return {digits.toStdString(), unit.toStdString()};
}

QString shownIn(const exchange::Amount& amount, const QString& unit) {
  const auto asked = unit.toStdString();
  if (amount.isEmpty() || amount.unit == asked) return QString::fromStdString(amount.digits);
  const auto converted = core::convert(amount.value(), amount.unit, asked);
  return QString::fromStdString(converted ? words::digits(*converted) : amount.digits);
}

QString digitsIn(const exchange::Amount& amount, const QString& unit) {
  const auto asked = unit.toStdString();
  if (amount.isEmpty() || amount.unit == asked) return QString::fromStdString(amount.digits);
  const auto converted = core::convert(amount.value(), amount.unit, asked);
  constexpr int digits = 6; // finer than any scale, coarser than the noise of a conversion
  return converted
             ? QString::fromStdString(core::decimalText(QString::number(*converted, 'g', digits).toDouble()))
             : QString::fromStdString(amount.digits);
}

} // namespace butte::app
