#include "wording/reading_words.h"

#include "deed_words.h"
#include "language.h"
#include "measures.h"
#include "services/units_shown.h"
#include "units/convert.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

namespace butte::app {

namespace {
std::string_view keptUnit(std::string_view quantity) {
  const auto* known = book::quantityFrom(quantity);
  return known ? known->unit : std::string_view();
}
} // namespace

std::string preferredUnit(std::string_view quantity) {
  const auto& measures = words::measures();
  const auto kept = keptUnit(quantity);
  return kept == "mS/cm" ? measures.conductivityUnit()
         : kept == "L"   ? measures.volumeUnit()
         : kept == "C"   ? measures.temperatureUnit()
                         : std::string();
}

double readingIn(std::string_view quantity, double kept) {
  const auto unit = preferredUnit(quantity);
  const auto* known = book::quantityFrom(quantity);
  if (unit.empty() || !known) return kept;
  const auto shown = core::convert(kept, std::string(known->unit), unit);
  return shown ? *shown : kept;
}

QString readingValueText(std::string_view quantity, double kept) {
  const auto& measures = words::measures();
  const auto unit = keptUnit(quantity);
  if (unit == "mS/cm") return qtext(measures.text(core::Conductivity::fromMilliSiemensPerCm(kept)));
  if (unit == "L") return qtext(measures.text(core::Volume::fromLitres(kept)));
  if (unit == "C") return qtext(measures.text(core::Temperature::fromCelsius(kept)));
  return localNumber(kept, 1);
}

QString readingUnitNote(std::string_view quantity) {
  const auto unit = preferredUnit(quantity);
  return unit.empty() ? QString() : ", " + qtext(words::unitName(unit));
}

QString readingText(const book::Reading& reading) {
  const auto unit = preferredUnit(reading.quantity);
  if (unit.empty() || reading.typed.ends_with(" " + words::unitName(unit))) return qtext(reading.typed);
  return readingValueText(reading.quantity, reading.value);
}

} // namespace butte::app
