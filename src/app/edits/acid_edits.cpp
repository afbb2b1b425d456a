#include "edits/acid_edits.h"

#include "document/formula_editor.h"
#include "edit.h"
#include "formula_json.h"

namespace butte::app {

using exchange::Amount;
using exchange::Json;

namespace {

constexpr const char* usualAim = "5.8"; // middle of the usual 5.5 to 6.2 (common practice)

Json titrationJson(const TypedTitration& titration) {
  Json readings = Json::array();
  for (const auto& [ml, ph] : titration.readings)
    readings.push_back({{"ml", ml}, {"ph", ph}});
  return Json{{"acid", titration.acidId},
              {"seek", titration.seek},
              {"sample", exchange::figureJson(titration.sample)},
              {"readings", readings},
              {"use", titration.used}};
}

} // namespace

void AcidEdits::setAim(const QString& digits, const std::string& productId) {
  set({DeedCode::AcidAim, {digits.toStdString()}}, "/acid",
      Json{{"product", productId}, {"target_ph", digits.toStdString()}}, true);
}

void AcidEdits::setPhWanted(const QString& digits) {
  Json acid = json().value("acid", Json::object());
  if (!acid.is_object()) acid = Json::object();
  acid["target_ph"] = digits.toStdString();
  set({DeedCode::PhWanted, {digits.toStdString()}}, "/acid", acid, true);
}

void AcidEdits::setBottle(const std::string& productId, const QString& name) {
  const auto target = aim().empty() ? std::string(usualAim) : aim();
  exchange::Edit edit{
      {DeedCode::AcidChosen, {name.toStdString()}},
      {{"/acid", json().value("acid", Json()), Json{{"product", productId}, {"target_ph", target}}}},
      ""};
  if (hasTitration() && titration().readings.empty())
    edit.changes.push_back({"/water/titration", json()["water"]["titration"], Json(nullptr)});
  m_editor.apply(edit);
}

void AcidEdits::setRecipeAcid(const std::string& productId, const QString& name,
                              const QString& usualLeftMeqPerL) {
  Json shelf = json()["shelf"];
  bool there = false;
  for (std::size_t i = 0; i < shelf.size(); ++i) {
    if (m_editor.document().allProducts[i].composition.role != core::ProductRole::Acid) continue;
    const bool mine = shelf[i].value("catalogue", std::string()) == productId;
    there = there || mine;
    shelf[i]["on"] = mine;
  }
  if (!there) shelf.push_back(exchange::shelfEntry(productId));
  exchange::Edit edit{{DeedCode::RecipeAcid, {name.toStdString()}}, {{"/shelf", json()["shelf"], shelf}}, {}};
  if (!m_editor.document().given.request.alkalinityLeftMeqPerL)
    edit.changes.push_back({"/alkalinity_left", json().value("alkalinity_left", Json()),
                            exchange::figureJson(typed(usualLeftMeqPerL, "meq/L"))});
  m_editor.apply(edit);
}

bool AcidEdits::hasTitration() const {
  const auto& water = json()["water"];
  return water.contains("titration") && water["titration"].is_object();
}

TypedTitration AcidEdits::titration() const {
  TypedTitration out;
  if (!hasTitration()) {
    const auto& product = m_editor.document().given.acid.product;
    out.acidId = product ? product->id : "hno3_60";
    out.seek = "alkalinity";
    out.sample = {"1", "L"};
    return out;
  }
  const auto& stored = json()["water"]["titration"];
  out.acidId = stored.value("acid", std::string());
  out.seek = stored.value("seek", std::string("alkalinity"));
  out.sample = stored.contains("sample") ? exchange::figureFrom(stored["sample"]) : Amount{"1", "L"};
  out.used = stored.value("use", true);
  for (const auto& row : stored.value("readings", Json::array()))
    out.readings.emplace_back(row.value("ml", std::string()), row.value("ph", std::string()));
  return out;
}

void AcidEdits::writeTitration(const Deed& deed, const TypedTitration& titration) {
  set(deed, "/water/titration", titrationJson(titration), true);
}

void AcidEdits::setTitrationUsed(bool used) {
  auto now = titration();
  now.used = used;
  writeTitration({used ? DeedCode::TitrationUsed : DeedCode::TitrationNotUsed, {}}, now);
}

void AcidEdits::setTitrationSample(const Amount& sample) {
  auto now = titration();
  now.sample = sample;
  writeTitration({DeedCode::TitrationSample, {sample.digits, sample.unit}}, now);
}

void AcidEdits::setTitrationSeek(const std::string& seek) {
  auto now = titration();
  now.seek = seek;
  writeTitration({DeedCode::TitrationSeeks, {seek}}, now);
}

void AcidEdits::setTitrationReadings(const std::vector<std::pair<std::string, std::string>>& readings) {
  auto now = titration();
  if (readings.empty() && !hasTitration()) return; // a row that is not whole yet
  if (readings == now.readings) return;
  now.readings = readings;
  writeTitration({DeedCode::TitrationReadings, {std::to_string(readings.size())}}, now);
}

void AcidEdits::setAcidBeforeUse(const std::string& productId, const QString& name,
                                 const QString& leftMeqPerL) {
  Json acid;
  if (!productId.empty())
    acid =
        Json{{"product", productId}, {"alkalinity_left", exchange::figureJson(typed(leftMeqPerL, "meq/L"))}};
  set(productId.empty() ? Deed{DeedCode::NoAcidBeforeUse, {}}
                        : Deed{DeedCode::AcidBeforeUse, {name.toStdString(), leftMeqPerL.toStdString()}},
      "/water/acid_first", acid, true);
}

} // namespace butte::app
