#include "edits/water_edits.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edit.h"
#include "typed_numbers.h"
#include "water_json.h"
#include "wording/tr.h"

#include <cmath>

namespace butte::app {

using exchange::Json;

namespace {

/// What belongs to a source and moves with it; the rest belongs to the water as a whole.
constexpr const char* sourceKeys[] = {"rows",     "ec",        "ph",     "temperature",
                                      "estimate", "treatment", "source", "report"};

bool hasParts(const Json& water) {
  return water.contains("parts") && !water["parts"].empty();
}

/// The one source of a plain water, as a part.
Json asPart(const Json& water) {
  Json part{{"name", water.value("name", std::string())}};
  for (const auto* key : sourceKeys) {
    if (water.contains(key)) part[key] = water[key];
  }
  return part;
}

/// A part's figures at the top again.
Json asPlain(const Json& water, const Json& part) {
  Json out{{"name", part.value("name", std::string())}};
  for (const auto* key : sourceKeys) {
    if (part.contains(key)) out[key] = part[key];
  }
  if (!out.contains("rows")) out["rows"] = Json::array();
  for (const auto* key : {"system", "acid_first", "titration"}) {
    if (water.contains(key)) out[key] = water[key];
  }
  return out;
}

/// Position of a key in a report's rows; -1 when it is not there.
int rowIndex(const Json& part, const std::string& key) {
  if (!part.contains("rows")) return -1;
  const auto& rows = part["rows"];
  for (std::size_t i = 0; i < rows.size(); ++i) {
    if (rows[i]["key"] == key) return static_cast<int>(i);
  }
  return -1;
}

Json rowsOf(const Json& part) {
  return part.contains("rows") ? part["rows"] : Json::array();
}

/// The whole report as it stands in files.
Json rowsJson(const std::vector<core::ReportRow>& rows) {
  Json list = Json::array();
  for (const auto& row : rows)
    list.push_back(exchange::waterRowJson(row.key, core::decimalText(row.value), row.unit, row.below));
  return list;
}

} // namespace

std::size_t WaterEdits::count() const {
  const auto& water = json()["water"];
  return hasParts(water) ? water["parts"].size() : 1;
}

const Json& WaterEdits::part(std::size_t source) const {
  const auto& water = json()["water"];
  return hasParts(water) ? water["parts"][source] : water;
}

std::string WaterEdits::pointer(std::size_t source) const {
  return hasParts(json()["water"]) ? "/water/parts/" + std::to_string(source) : "/water";
}

void WaterEdits::setIn(std::size_t source, const Deed& deed, const std::string& key, const Json& value,
                       bool merge) {
  set(deed, pointer(source) + "/" + key, value, merge);
}

std::string WaterEdits::name(std::size_t source) const {
  return part(source).value("name", std::string());
}

void WaterEdits::setName(std::size_t source, const QString& name) {
  setIn(source, {DeedCode::WaterNamed, {name.toStdString()}}, "name", name.toStdString());
}

void WaterEdits::setGuessing(std::size_t source, bool on) {
  setIn(source, {on ? DeedCode::WaterRestGuessed : DeedCode::WaterNotGuessed, {}}, "estimate",
        on ? Json(true) : Json(), false);
}

std::optional<TypedReportFigure> WaterEdits::reported(std::size_t source, const std::string& key) const {
  const int at = rowIndex(part(source), key);
  if (at < 0) return std::nullopt;
  const auto& row = part(source)["rows"][static_cast<std::size_t>(at)];
  const bool plain = row.contains("mg_per_l");
  return TypedReportFigure{{row.value(plain ? "mg_per_l" : "amount", std::string()),
                            plain ? std::string("mg/L") : row.value("unit", std::string("mg/L"))},
                           row.value("below", false)};
}

void WaterEdits::setReported(std::size_t source, const std::string& key, const QString& digits,
                             const std::string& unit, bool merge) {
  Json rows = rowsOf(part(source));
  const int at = rowIndex(part(source), key);
  const bool below = digits.startsWith('<');
  const auto plain = (below ? digits.mid(1) : digits).trimmed().toStdString();
  Deed deed{below ? DeedCode::WaterFigureBelow : DeedCode::WaterFigure, {key, plain, unit}};
  if (digits.isEmpty()) {
    if (at < 0) return;
    rows.erase(static_cast<std::size_t>(at));
    deed = {DeedCode::WaterFigureUnknown, {key}};
  } else {
    const auto row = exchange::waterRowJson(key, plain, unit, below);
    if (at >= 0)
      rows[static_cast<std::size_t>(at)] = row;
    else
      rows.push_back(row);
  }
  const auto place = pointer(source) + "/rows";
  m_editor.apply({deed,
                  {{place, part(source).contains("rows") ? part(source)["rows"] : Json(), rows}},
                  merge ? place + key : std::string()});
}

void WaterEdits::setStatedAs(std::size_t source, const std::string& key, const std::string& as) {
  const int at = rowIndex(part(source), key);
  if (at < 0 || key == as) return;
  Json rows = rowsOf(part(source));
  rows[static_cast<std::size_t>(at)]["key"] = as;
  setIn(source, {DeedCode::WaterFigureForm, {as}}, "rows", rows, false);
}

void WaterEdits::reread(std::size_t source, const std::string& key,
                        const std::vector<core::ReportRow>& rows) {
  Json list = rowsJson(rows);
  // Figures that stay as they are keep their digits as typed.
  for (auto& row : list) {
    const int at = rowIndex(part(source), row["key"].get<std::string>());
    if (at < 0) continue;
    const auto& old = part(source)["rows"][static_cast<std::size_t>(at)];
    for (const auto* place : {"mg_per_l", "amount"}) {
      if (old.contains(place) && row.contains(place) &&
          core::parseDecimal(old[place].get<std::string>()) ==
              core::parseDecimal(row[place].get<std::string>()))
        row[place] = old[place];
    }
  }
  setIn(source, {DeedCode::WaterReread, {key}}, "rows", list, false);
}

void WaterEdits::setConductivity(std::size_t source, const exchange::Amount& conductivity) {
  setIn(source,
        conductivity.isEmpty() ? Deed{DeedCode::WaterConductivityUnknown, {}}
                               : Deed{DeedCode::WaterConductivity, {conductivity.digits, conductivity.unit}},
        "ec", exchange::figureJson(conductivity));
}

void WaterEdits::setPh(std::size_t source, const QString& digits) {
  setIn(source,
        digits.isEmpty() ? Deed{DeedCode::WaterPhUnknown, {}}
                         : Deed{DeedCode::WaterPh, {digits.toStdString()}},
        "ph", exchange::figureJson(typed(digits)));
}

bool WaterEdits::takePasted(std::size_t source, const core::TypedReport& report) {
  Json fresh{{"name", part(source).value("name", std::string("water"))}, {"rows", rowsJson(report.rows)}};
  if (report.conductivityMsPerCm)
    fresh["ec"] = exchange::amountJson(core::decimalText(*report.conductivityMsPerCm), "mS/cm");
  if (report.ph) fresh["ph"] = core::decimalText(*report.ph);
  if (report.temperatureCelsius)
    fresh["temperature"] = exchange::amountJson(core::decimalText(*report.temperatureCelsius), "C");
  return replace(source, fresh, {DeedCode::ReportPasted, {}});
}

void WaterEdits::setTreatment(std::size_t source, SourceTreatment treatment) {
  switch (treatment) {
  case SourceTreatment::None:
    return setIn(source, {DeedCode::TreatmentNone, {}}, "treatment", Json(), false);
  case SourceTreatment::Membrane:
    return setIn(source, {DeedCode::TreatmentMembrane, {}}, "treatment",
                 Json{{"kind", "reverse_osmosis"}, {"rejection_percent", "97"}, {"recovery_percent", "50"}},
                 false);
  case SourceTreatment::Softener:
    return setIn(source, {DeedCode::TreatmentSoftener, {}}, "treatment",
                 Json{{"kind", "softener"}, {"hardness_left", exchange::amountJson("0.2", "meq/L")}}, false);
  }
}

std::string WaterEdits::membraneRejection(std::size_t source) const {
  return figure(pointer(source) + "/treatment/rejection_percent").digits;
}

std::string WaterEdits::membraneRecovery(std::size_t source) const {
  return figure(pointer(source) + "/treatment/recovery_percent").digits;
}

std::string WaterEdits::softenerLeaves(std::size_t source) const {
  return figure(pointer(source) + "/treatment/hardness_left").digits;
}

void WaterEdits::setInTreatment(std::size_t source, DeedCode code, const char* key, const QString& digits) {
  if (!part(source).contains("treatment") || !part(source)["treatment"].is_object()) return;
  Json treatment = part(source)["treatment"];
  treatment[key] = digits.toStdString();
  setIn(source, {code, {digits.toStdString()}}, "treatment", treatment);
}

void WaterEdits::setMembraneRejection(std::size_t source, const QString& percent) {
  setInTreatment(source, DeedCode::MembraneRejects, "rejection_percent", percent);
}

void WaterEdits::setMembraneRecovery(std::size_t source, const QString& percent) {
  setInTreatment(source, DeedCode::MembraneRecovers, "recovery_percent", percent);
}

void WaterEdits::setSoftenerLeaves(std::size_t source, const QString& meqPerL) {
  setIn(source, {DeedCode::SoftenerLeaves, {meqPerL.toStdString()}}, "treatment",
        Json{{"kind", "softener"}, {"hardness_left", exchange::figureJson(typed(meqPerL, "meq/L"))}});
}

void WaterEdits::setIonRejection(std::size_t source, core::Nutrient nutrient, const QString& percent) {
  if (!part(source).contains("treatment") || !part(source)["treatment"].is_object()) return;
  const auto key = std::string(core::nutrientKey(nutrient));
  Json treatment = part(source)["treatment"], list = Json::array();
  for (const auto& row : treatment.value("rejection", Json::array())) {
    if (row["key"] != key) list.push_back(row);
  }
  if (!percent.isEmpty()) list.push_back({{"key", key}, {"percent", percent.toStdString()}});
  treatment["rejection"] = list;
  setIn(source,
        percent.isEmpty() ? Deed{DeedCode::IonRejectedAsUsual, {key}}
                          : Deed{DeedCode::IonRejected, {key, percent.toStdString()}},
        "treatment", treatment);
}

bool WaterEdits::put(const Deed& deed, const Json& water) {
  return set(deed, "/water", water);
}

void WaterEdits::setShares(const std::vector<double>& percent, bool merge) {
  if (!hasParts(json()["water"])) return;
  Json parts = json()["water"]["parts"];
  std::string all;
  for (std::size_t i = 0; i < parts.size() && i < percent.size(); ++i) {
    const auto digits = core::decimalText(std::round(percent[i] * 10) / 10);
    parts[i]["share"] = digits;
    all += (i ? " : " : "") + digits;
  }
  set({DeedCode::BlendShares, {all}}, "/water/parts", parts, merge);
}

void WaterEdits::addSource(const QString& name) {
  Json water = json()["water"];
  if (!hasParts(water)) {
    Json blend{{"name", tr("Blend").toStdString()}, {"parts", Json::array({asPart(water)})}};
    blend["parts"][0]["share"] = "100";
    for (const auto* key : {"system", "acid_first", "titration"}) {
      if (water.contains(key)) blend[key] = water[key];
    }
    water = blend;
  }
  water["parts"].push_back({{"name", name.toStdString()}, {"rows", Json::array()}, {"share", "0"}});
  put({DeedCode::SourceAdded, {}}, water);
}

void WaterEdits::remove(std::size_t source) {
  Json water = json()["water"];
  if (!hasParts(water)) return;
  const auto name = water["parts"][source].value("name", std::string());
  water["parts"].erase(source);
  if (water["parts"].size() == 1) water = asPlain(water, water["parts"][0]);
  put({DeedCode::SourceRemoved, {name}}, water);
}

bool WaterEdits::replace(std::size_t source, const Json& with, const Deed& deed) {
  Json water = json()["water"];
  if (!hasParts(water)) {
    auto plain = asPlain(water, with);
    if (water.contains("treatment")) plain["treatment"] = water["treatment"];
    plain.erase("titration"); // the drops were counted in the other water
    return put(deed, plain);
  }
  Json fresh = with;
  const auto& old = water["parts"][source];
  for (const auto* key : {"share", "treatment"}) {
    if (old.contains(key)) fresh[key] = old[key];
  }
  water["parts"][source] = fresh;
  return put(deed, water);
}

bool WaterEdits::take(std::size_t source, const WaterOffer& water) {
  return replace(source, *water.water, {DeedCode::WaterTaken, {water.water->value("name", std::string())}});
}

bool WaterEdits::takeReport(std::size_t source, const SourceReports& reports, const std::string& date) {
  const auto name = reports.name.toStdString();
  return replace(source, sourceFrom(reports, date),
                 date == "worst" ? Deed{DeedCode::WaterWorstTaken, {name}}
                                 : Deed{DeedCode::WaterReportTaken, {name, date}});
}

void WaterEdits::setDrainUsedAgain(bool on) {
  set({on ? DeedCode::DrainUsedAgain : DeedCode::DrainToWaste, {}}, "/water/system",
      on ? "recirculating" : "open");
}

void WaterEdits::setOnLeaves(bool on) {
  set({on ? DeedCode::LeavesWatered : DeedCode::RootsWatered, {}}, "/water/watering",
      on ? "overhead" : "roots");
}

} // namespace butte::app
