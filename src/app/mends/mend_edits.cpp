#include "mends/mend_edits.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edit.h"
#include "formula_json.h"
#include "water/shares.h"

#include <cmath>

namespace butte::app {

using core::Mend;
using core::MendKind;
using exchange::Json;

namespace {

/// A change of one place, with what stands there now.
exchange::Change changeAt(const Json& json, const std::string& pointer, const Json& value) {
  const Json::json_pointer place(pointer);
  return {pointer, json.contains(place) ? json[place] : Json(), value};
}

/// One source, a part of it through a membrane.
Json withMembrane(Json water, double share) {
  const auto percent = [](double s) { return core::decimalText(std::round(100 * s)); };
  Json raw = Json::object();
  for (const auto* key : {"name", "rows", "ec", "ph", "temperature", "estimate", "source", "report"}) {
    if (water.contains(key)) raw[key] = water[key];
    if (std::string(key) != "name") water.erase(key);
  }
  Json behind = raw;
  behind["treatment"] = {
      {"kind", "reverse_osmosis"}, {"rejection_percent", "97"}, {"recovery_percent", "50"}};
  raw["share"] = percent(1 - share);
  behind["share"] = percent(share);
  water.erase("treatment");
  water["parts"] = Json::array({raw, behind});
  return water;
}

/// More of one source, the others less in proportion.
Json withShare(Json water, const core::WaterPlan& plan, std::size_t option, double share) {
  std::vector<double> now;
  for (const auto& part : plan.parts)
    now.push_back(part.share);
  const auto then = core::withShareOf(now, option, share);
  for (std::size_t i = 0; i < water["parts"].size(); ++i)
    water["parts"][i]["share"] = core::decimalText(std::round(1000 * then[i]) / 10);
  return water;
}

std::string sharesText(const Json& water) {
  std::string out;
  for (const auto& part : water["parts"])
    out += (out.empty() ? "" : " : ") + part.value("share", std::string());
  return out;
}

} // namespace

void MendEdits::takeProducts(const std::vector<std::pair<std::string, QString>>& products) {
  Json shelf = json()["shelf"];
  QStringList names;
  for (const auto& [id, name] : products) {
    const int at = m_editor.indexOf(id);
    if (at >= 0)
      shelf[static_cast<std::size_t>(at)]["on"] = true;
    else
      shelf.push_back(exchange::shelfEntry(id));
    names << name;
  }
  m_editor.apply(
      {{DeedCode::ProductAdded, {names.join(", ").toStdString()}}, {changeAt(json(), "/shelf", shelf)}, {}});
}

void MendEdits::takeWater(const Mend& mend) {
  const auto& water = json()["water"];
  const bool single = !water.contains("parts") || water["parts"].empty();
  const Json next = single ? withMembrane(water, mend.value)
                           : withShare(water, m_editor.document().water.plan, mend.option, mend.value);
  set({DeedCode::BlendShares, {sharesText(next)}}, "/water", next);
}

void MendEdits::take(const Mend& mend, const std::vector<std::pair<std::string, QString>>& products) {
  if (mend.kind == MendKind::MorePure) return takeWater(mend);
  if (mend.kind == MendKind::AddProduct) return takeProducts(products);
  const auto key = std::string(core::nutrientKey(mend.nutrient));
  exchange::Edit edit{{DeedCode::AimSet, {"bands_first"}}, {}, {}};
  const auto change = [&](const std::string& pointer, const Json& value) {
    edit.changes.push_back(changeAt(json(), pointer, value));
  };
  const auto& request = m_editor.document().given.request;
  if (mend.kind == MendKind::WidenBand) {
    edit.deed = {DeedCode::ElementBand, {key, core::decimalText(mend.value)}};
    for (std::size_t i = 0; i < request.rows.size(); ++i) {
      if (request.rows[i].nutrient == mend.nutrient)
        change("/target/rows/" + std::to_string(i) + "/tolerance_percent", core::decimalText(mend.value));
    }
  }
  if (mend.kind == MendKind::LiftCap) {
    edit.deed = {DeedCode::CapSet, {key, core::decimalText(mend.value)}};
    for (std::size_t c = 0; c < mend.request.caps.size(); ++c) {
      if (mend.request.caps[c].nutrient == mend.nutrient)
        change("/target/caps/" + std::to_string(c) + "/mg_per_l", core::decimalText(mend.value));
    }
  }
  if (mend.kind == MendKind::LetFree) {
    edit.deed = {DeedCode::ProductFree, {m_editor.nameOf(mend.product)}};
    change("/shelf/" + std::to_string(m_editor.indexOf(mend.product)) + "/held", nullptr);
  }
  if (mend.request.require == core::Require::BandsFirst && request.require != core::Require::BandsFirst) {
    Json aim = json().value("aim", Json::object());
    aim["way"] = "bands_first";
    change("/aim", aim);
  }
  if (!edit.changes.empty()) m_editor.apply(edit);
}

} // namespace butte::app
