#include "edits/edits.h"

#include "document/formula_editor.h"
#include "typed_numbers.h"

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

} // namespace butte::app
