#include "edits/target_edits.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "edit.h"
#include "formula_json.h"
#include "target_json.h"

#include <QFile>

namespace butte::app {

using core::Nutrient;
using exchange::Amount;
using exchange::Json;

namespace {

std::string keyOf(Nutrient n) {
  return std::string(core::nutrientKey(n));
}

std::string rounded(double value, int digits) {
  return core::decimalText(QString::number(value, 'g', digits).toDouble());
}

/// Four figures: finer than anybody weighs.
constexpr int typedDigits = 4, draggedDigits = 3, balanceDigits = 5, turnedDigits = 12;

Amount typedFigureOf(const Json& row) {
  const auto [digits, unit] = exchange::typedFigure(row);
  return {digits, unit};
}

void setMilligrams(Json& row, Nutrient nutrient, double milligramsPerLitre, int digits) {
  const auto unit = exchange::typedFigure(row).second;
  exchange::setTypedFigure(row, rounded(exchange::targetIn(nutrient, milligramsPerLitre, unit), digits),
                           unit);
}

const std::vector<Json>& sampleJsons() {
  static const std::vector<Json> all = [] {
    QFile file(":/demo/targets.json");
    if (!file.open(QIODevice::ReadOnly)) return std::vector<Json>();
    const auto text = file.readAll();
    const auto targets = Json::parse(text.begin(), text.end(), nullptr, false);
    return targets.is_array() ? std::vector<Json>(targets.begin(), targets.end()) : std::vector<Json>();
  }();
  return all;
}

const char* basisKey(core::RatioBasis basis) {
  return basis == core::RatioBasis::Mass    ? "mass"
         : basis == core::RatioBasis::Moles ? "moles"
                                            : "equivalents";
}

} // namespace

void TargetEdits::setName(const QString& name) {
  set({DeedCode::TargetNamed, {name.toStdString()}}, "/target/name", name.toStdString(), true);
}

void TargetEdits::take(const core::CatalogueTarget& target, bool withCrop) {
  exchange::Edit edit{{DeedCode::TargetTaken, {target.name}},
                      {{"/target", json()["target"], exchange::targetJson(target)}},
                      {}};
  if (withCrop && m_editor.document().crop.empty())
    edit.changes.push_back({"/crop", json().value("crop", Json()), target.crop});
  m_editor.apply(edit);
}

void TargetEdits::takeSample(std::size_t index) {
  if (index >= sampleJsons().size()) return;
  const auto& target = sampleJsons()[index];
  set({DeedCode::TargetTaken, {target.value("name", std::string())}}, "/target", target);
}

std::vector<TypedTargetRow> TargetEdits::rows() const {
  std::vector<TypedTargetRow> out;
  for (const auto& row : json()["target"]["rows"])
    out.push_back({core::nutrientFromKey(row.value("nutrient", std::string())).value_or(Nutrient::N),
                   typedFigureOf(row), row.value("tolerance_percent", std::string("5"))});
  return out;
}

std::optional<TypedTargetRow> TargetEdits::row(Nutrient nutrient) const {
  for (auto& row : rows()) {
    if (row.nutrient == nutrient) return row;
  }
  return std::nullopt;
}

int TargetEdits::indexOf(Nutrient nutrient) const {
  const auto& rows = m_editor.document().given.request.rows;
  for (std::size_t i = 0; i < rows.size(); ++i) {
    if (rows[i].nutrient == nutrient) return static_cast<int>(i);
  }
  return -1;
}

void TargetEdits::setRows(const Deed& deed, const Json& rows, bool merge) {
  set(deed, "/target/rows", rows, merge);
}

void TargetEdits::setFigure(Nutrient nutrient, const Amount& figure) {
  const int at = indexOf(nutrient);
  const Deed deed = figure.isEmpty()
                        ? Deed{DeedCode::ElementFree, {keyOf(nutrient)}}
                        : Deed{DeedCode::ElementTarget, {keyOf(nutrient), figure.digits, figure.unit}};
  Json rows = json()["target"]["rows"];
  if (at >= 0 && !figure.isEmpty()) {
    Json row = rows[static_cast<std::size_t>(at)];
    exchange::setTypedFigure(row, figure.digits, figure.unit);
    set(deed, "/target/rows/" + std::to_string(at), row, true);
    return;
  }
  if (at >= 0) {
    rows.erase(static_cast<std::size_t>(at));
  } else if (!figure.isEmpty()) {
    Json row{{"nutrient", keyOf(nutrient)}};
    exchange::setTypedFigure(row, figure.digits, figure.unit);
    row["tolerance_percent"] = core::isTraceElement(nutrient) ? "15" : "5";
    rows.push_back(row);
  }
  setRows(deed, rows);
}

void TargetEdits::moveTo(Nutrient nutrient, double milligramsPerLitre) {
  const int at = indexOf(nutrient);
  if (at < 0) return;
  Json row = json()["target"]["rows"][static_cast<std::size_t>(at)];
  setMilligrams(row, nutrient, std::max(0.0, milligramsPerLitre), draggedDigits);
  const auto figure = typedFigureOf(row);
  set({DeedCode::ElementTarget, {keyOf(nutrient), figure.digits, figure.unit}},
      "/target/rows/" + std::to_string(at), row, true);
}

void TargetEdits::setUnit(Nutrient nutrient, const std::string& unit) {
  const int at = indexOf(nutrient);
  if (at < 0) return;
  const double mg = m_editor.document().given.request.rows[static_cast<std::size_t>(at)].milligramsPerLitre;
  Json row = json()["target"]["rows"][static_cast<std::size_t>(at)];
  const double turned = exchange::targetIn(nutrient, mg, unit);
  exchange::setTypedFigure(row, QString::number(turned, 'g', turnedDigits).toStdString(), unit);
  set({DeedCode::ElementUnit, {keyOf(nutrient), unit}}, "/target/rows/" + std::to_string(at), row);
}

void TargetEdits::setTolerance(Nutrient nutrient, const QString& percent) {
  const int at = indexOf(nutrient);
  if (at < 0) return;
  set({DeedCode::ElementBand, {keyOf(nutrient), percent.toStdString()}},
      "/target/rows/" + std::to_string(at) + "/tolerance_percent", percent.toStdString(), true);
}

void TargetEdits::setNitrogen(const QString& total, const QString& ammoniumPercent) {
  const auto whole = core::parseDecimal(core::normalisedDecimal(total.toStdString()));
  if (!whole) return;
  const double share =
      core::parseDecimal(core::normalisedDecimal(ammoniumPercent.toStdString())).value_or(0) / 100;
  std::string nitrateBand = "5", ammoniumBand = "15";
  Json others = Json::array();
  for (const auto& row : json()["target"]["rows"]) {
    if (row["nutrient"] == "N_NO3") nitrateBand = row.value("tolerance_percent", nitrateBand);
    if (row["nutrient"] == "N_NH4") ammoniumBand = row.value("tolerance_percent", ammoniumBand);
    if (row["nutrient"] != "N" && row["nutrient"] != "N_NO3" && row["nutrient"] != "N_NH4")
      others.push_back(row);
  }
  Json rows = Json::array();
  if (*whole > 0)
    rows.push_back({{"nutrient", "N_NO3"},
                    {"mg_per_l", rounded(*whole * (1 - share), typedDigits)},
                    {"tolerance_percent", nitrateBand}});
  if (*whole > 0 && share > 0)
    rows.push_back({{"nutrient", "N_NH4"},
                    {"mg_per_l", rounded(*whole * share, typedDigits)},
                    {"tolerance_percent", ammoniumBand}});
  for (const auto& row : others)
    rows.push_back(row);
  setRows({DeedCode::NitrogenSplit,
           {core::normalisedDecimal(total.toStdString()),
            ammoniumPercent.isEmpty() ? std::string("0")
                                      : core::normalisedDecimal(ammoniumPercent.toStdString())}},
          rows, true);
}

void TargetEdits::scale(const Deed& deed, const std::vector<core::TargetRow>& scaled) {
  setRows(deed, scaledRows(scaled));
}

Json TargetEdits::scaledRows(const std::vector<core::TargetRow>& scaled) const {
  Json rows = json()["target"]["rows"];
  const auto& now = m_editor.document().given.request.rows;
  for (std::size_t i = 0; i < scaled.size() && i < rows.size(); ++i) {
    if (scaled[i].milligramsPerLitre != now[i].milligramsPerLitre)
      setMilligrams(rows[i], scaled[i].nutrient, scaled[i].milligramsPerLitre, typedDigits);
  }
  return rows;
}

void TargetEdits::takeFeed(const core::NutrientAmounts& milligramsPerLitre, const QString& name) {
  Json rows = json()["target"]["rows"];
  for (auto& row : rows)
    if (const auto nutrient = core::nutrientFromKey(row["nutrient"].get<std::string>());
        nutrient && milligramsPerLitre.of(*nutrient) > 0)
      setMilligrams(row, *nutrient, milligramsPerLitre.of(*nutrient), balanceDigits);
  setRows({DeedCode::TargetTaken, {name.toStdString()}}, rows);
}

void TargetEdits::balance(const std::vector<std::pair<Nutrient, double>>& milligramsPerLitre) {
  Json rows = json()["target"]["rows"];
  for (auto& row : rows) {
    for (const auto& [nutrient, mg] : milligramsPerLitre) {
      if (row["nutrient"] == keyOf(nutrient)) setMilligrams(row, nutrient, mg, balanceDigits);
    }
  }
  setRows({DeedCode::TargetBalanced, {}}, rows);
}

std::vector<TypedRatio> TargetEdits::ratios() const {
  std::vector<TypedRatio> out;
  for (const auto& ratio : json()["target"].value("ratios", Json::array()))
    out.push_back({ratio.value("value", std::string()), ratio.value("tolerance_percent", std::string("10"))});
  return out;
}

void TargetEdits::addRatio(const core::RatioWish& wish, const std::string& name) {
  const auto keys = [](const std::vector<Nutrient>& side) {
    Json out = Json::array();
    for (const auto n : side)
      out.push_back(keyOf(n));
    return out;
  };
  Json ratios = json()["target"].value("ratios", Json::array());
  ratios.push_back({{"above", keys(wish.above)},
                    {"below", keys(wish.below)},
                    {"value", rounded(wish.value, 3)},
                    {"basis", basisKey(wish.basis)},
                    {"tolerance_percent", core::decimalText(wish.tolerancePercent)}});
  set({DeedCode::RatioWished, {name}}, "/target/ratios", ratios);
}

void TargetEdits::removeRatio(std::size_t index) {
  Json ratios = json()["target"]["ratios"];
  ratios.erase(index);
  set({DeedCode::RatioDropped, {}}, "/target/ratios", ratios);
}

void TargetEdits::setRatioValue(std::size_t index, const QString& digits) {
  set({DeedCode::RatioValue, {digits.toStdString()}}, "/target/ratios/" + std::to_string(index) + "/value",
      digits.toStdString(), true);
}

void TargetEdits::setRatioTolerance(std::size_t index, const QString& percent) {
  set({DeedCode::RatioBand, {percent.toStdString()}},
      "/target/ratios/" + std::to_string(index) + "/tolerance_percent", percent.toStdString(), true);
}

std::string TargetEdits::cap(Nutrient nutrient) const {
  for (const auto& cap : json()["target"].value("caps", Json::array())) {
    if (cap["nutrient"] == keyOf(nutrient)) return cap.value("mg_per_l", std::string());
  }
  return {};
}

void TargetEdits::setCap(Nutrient nutrient, const QString& digits) {
  Json caps = Json::array();
  const auto old = json()["target"].value("caps", Json::array());
  for (const auto& cap : old) {
    if (cap["nutrient"] != keyOf(nutrient)) caps.push_back(cap);
  }
  if (!digits.isEmpty()) caps.push_back({{"nutrient", keyOf(nutrient)}, {"mg_per_l", digits.toStdString()}});
  set(digits.isEmpty() ? Deed{DeedCode::CapDropped, {keyOf(nutrient)}}
                       : Deed{DeedCode::CapSet, {keyOf(nutrient), digits.toStdString()}},
      "/target/caps", caps, true);
}

bool TargetEdits::addCropTarget(Json target) {
  if (!target.is_object() || target["rows"].empty()) return false;
  target.erase("ratios");
  target.erase("caps");
  Json crops = json().value("crops", Json::array());
  crops.push_back(target);
  return set({DeedCode::CropAdded, {target.value("name", std::string())}}, "/crops", crops);
}

bool TargetEdits::addOwnAsCrop() {
  return addCropTarget(json()["target"]);
}

bool TargetEdits::addCrop(BookDesk& desk, const std::string& targetUid) {
  const auto record = desk.book().record({book::Kind::Target, targetUid});
  return record && *record && addCropTarget((*record)->body["target"]);
}

bool TargetEdits::addCrop(const core::CatalogueTarget& target) {
  return addCropTarget(exchange::targetJson(target));
}

void TargetEdits::removeCrop(std::size_t index) {
  Json crops = json()["crops"];
  const auto name = crops[index].value("name", std::string());
  crops.erase(index);
  set({DeedCode::CropRemoved, {name}}, "/crops", crops);
}

const std::vector<SampleTarget>& sampleTargets() {
  static const std::vector<SampleTarget> all = [] {
    std::vector<SampleTarget> out;
    for (const auto& target : sampleJsons()) {
      std::optional<core::Problem> problem;
      out.push_back({QString::fromStdString(target.value("name", std::string())),
                     exchange::readTargetDocument(target, "target", problem).rows});
    }
    return out;
  }();
  return all;
}

std::vector<CropStage> stagesOf(BookDesk& desk, const std::string& crop) {
  std::vector<CropStage> out;
  if (!desk.isOpen()) return out;
  const auto heads = desk.book().store().list(book::Kind::Target, false);
  if (!heads) return out;
  for (const auto& head : *heads) {
    const auto record = desk.book().record(head.ref);
    if (!record || !*record) continue;
    const auto& body = (*record)->body;
    if (body.value("crop", std::string()) != crop || !body.contains("target")) continue;
    std::optional<core::Problem> problem;
    auto target = exchange::readTargetDocument(body["target"], "target", problem);
    if (problem) continue;
    out.push_back({head.ref, QString::fromStdString(body.value("name", std::string())),
                   core::parseDecimal(body.value("from_week", std::string())).value_or(0),
                   std::move(target.rows)});
  }
  std::stable_sort(out.begin(), out.end(),
                   [](const CropStage& a, const CropStage& b) { return a.fromWeek < b.fromWeek; });
  return out;
}

std::vector<core::TargetRow> targetInBook(BookDesk& desk, const std::string& uid) {
  const auto record = desk.book().record({book::Kind::Target, uid});
  if (!record || !*record) return {};
  std::optional<core::Problem> problem;
  return exchange::readTargetDocument((*record)->body["target"], "target", problem).rows;
}

} // namespace butte::app
