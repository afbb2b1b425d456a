#include "edits/mixing_edits.h"

#include "document/formula_editor.h"
#include "formula_json.h"

namespace butte::app {

using exchange::Json;

bool MixingEdits::isDirect() const {
  return m_editor.document().given.direct.has_value();
}

void MixingEdits::setDirect(bool direct) {
  if (direct == isDirect()) return;
  set({direct ? DeedCode::StraightIntoVessel : DeedCode::ThroughStocks, {}}, "/way",
      direct ? "direct" : "stocks");
}

void MixingEdits::put(const Deed& deed, const char* key, const exchange::Amount& amount) {
  Json direct = json().value("direct", Json::object());
  if (amount.isEmpty())
    direct.erase(key);
  else
    direct[key] = exchange::figureJson(amount);
  set(deed, "/direct", direct, true);
}

core::AcidTurn MixingEdits::acidTurn() const {
  const auto& plan = m_editor.document().given.direct;
  return plan ? plan->acid : core::AcidTurn::Last;
}

void MixingEdits::setAcidTurn(core::AcidTurn turn) {
  if (turn == acidTurn()) return;
  const bool first = turn == core::AcidTurn::First;
  Json direct = json().value("direct", Json::object());
  direct["acid"] = first ? "first" : "last";
  set({first ? DeedCode::AcidFirst : DeedCode::AcidLast, {}}, "/direct", direct);
}

void MixingEdits::setPresent(const exchange::Amount& volume) {
  put(volume.isEmpty() ? Deed{DeedCode::VesselIsEmpty, {}}
                       : Deed{DeedCode::VesselHoldsAlready, {volume.digits, volume.unit}},
      "present", volume);
}

void MixingEdits::setReading(const exchange::Amount& conductivity) {
  put(conductivity.isEmpty() ? Deed{DeedCode::VesselHeldIsFull, {}}
                             : Deed{DeedCode::VesselHeldReads, {conductivity.digits, conductivity.unit}},
      "reading", conductivity);
}

} // namespace butte::app
