#include "stations/tank/fact_field.h"

namespace butte::app {

NumberField* factField(FieldSpec spec, const QString& object, std::function<void(const QString&)> typed,
                       std::function<void(const QString&)> said) {
  constexpr int width = 60;
  spec.mayBeEmpty = true;
  auto* out = new NumberField(std::move(spec));
  out->setObjectName(object);
  out->setFixedWidth(width);
  out->onTyped = std::move(typed);
  out->onMessage = std::move(said);
  return out;
}

} // namespace butte::app
