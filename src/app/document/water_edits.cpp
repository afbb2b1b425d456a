#include "document/water_edits.h"

#include "base/decimal.h"
#include "document/formula_editor.h"

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

} // namespace

int rowIndex(const Json& part, const std::string& key) {
  if (!part.contains("rows")) return -1;
  const auto& rows = part["rows"];
  for (std::size_t i = 0; i < rows.size(); ++i) {
    if (rows[i]["key"] == key) return static_cast<int>(i);
  }
  return -1;
}

std::size_t WaterEdits::count() const {
  const auto& water = m_editor.json()["water"];
  return hasParts(water) ? water["parts"].size() : 1;
}

const Json& WaterEdits::part(std::size_t index) const {
  const auto& water = m_editor.json()["water"];
  return hasParts(water) ? water["parts"][index] : water;
}

std::string WaterEdits::pointer(std::size_t index) const {
  return hasParts(m_editor.json()["water"]) ? "/water/parts/" + std::to_string(index) : "/water";
}

void WaterEdits::set(std::size_t index, const QString& words, const std::string& key, const Json& value,
                     bool merge) {
  m_editor.set(words, pointer(index) + "/" + key, value, merge);
}

void WaterEdits::setRow(std::size_t index, const std::string& key, const QString& digits,
                        const std::string& unit, bool merge) {
  const auto& source = part(index);
  Json rows = source.contains("rows") ? source["rows"] : Json::array();
  const int at = rowIndex(source, key);
  const bool below = digits.startsWith('<');
  const auto plain = (below ? digits.mid(1) : digits).trimmed().toStdString();
  if (digits.isEmpty()) {
    if (at < 0) return;
    rows.erase(static_cast<std::size_t>(at));
  } else {
    const auto row = exchange::waterRowJson(key, plain, unit, below);
    if (at >= 0)
      rows[static_cast<std::size_t>(at)] = row;
    else
      rows.push_back(row);
  }
  const auto place = pointer(index) + "/rows";
  const auto words =
      "water: " + key +
      (digits.isEmpty() ? std::string(" not measured") : " to " + digits.toStdString() + " " + unit);
  m_editor.apply({words,
                  {{place, source.contains("rows") ? source["rows"] : Json(), rows}},
                  merge ? place + key : std::string()});
}

void WaterEdits::setRows(std::size_t index, const QString& words, const std::vector<core::ReportRow>& rows) {
  Json list = Json::array();
  for (const auto& row : rows)
    list.push_back(exchange::waterRowJson(row.key, core::decimalText(row.value), row.unit, row.below));
  // Figures that stay as they are keep their digits as typed.
  const auto& source = part(index);
  for (auto& row : list) {
    const int at = rowIndex(source, row["key"].get<std::string>());
    if (at < 0) continue;
    const auto& old = source["rows"][static_cast<std::size_t>(at)];
    for (const auto* key : {"mg_per_l", "amount"}) {
      if (old.contains(key) && row.contains(key) &&
          core::parseDecimal(old[key].get<std::string>()) == core::parseDecimal(row[key].get<std::string>()))
        row[key] = old[key];
    }
  }
  m_editor.set(words, pointer(index) + "/rows", list);
}

bool WaterEdits::put(const QString& words, const Json& water) {
  return !m_editor.set(words, "/water", water);
}

void WaterEdits::setShares(const std::vector<double>& percent, bool merge) {
  Json parts = m_editor.json()["water"]["parts"];
  QString words = "blend ";
  for (std::size_t i = 0; i < parts.size() && i < percent.size(); ++i) {
    const auto digits = core::decimalText(std::round(percent[i] * 10) / 10);
    parts[i]["share"] = digits;
    words += (i ? " : " : "") + QString::fromStdString(digits);
  }
  m_editor.set(words, "/water/parts", parts, merge);
}

void WaterEdits::add(const Json& source, const QString& words) {
  Json water = m_editor.json()["water"];
  if (!hasParts(water)) {
    Json blend{{"name", "Blend"}, {"parts", Json::array({asPart(water)})}};
    blend["parts"][0]["share"] = "100";
    for (const auto* key : {"system", "acid_first", "titration"}) {
      if (water.contains(key)) blend[key] = water[key];
    }
    water = blend;
  }
  Json fresh = source;
  fresh["share"] = "0";
  water["parts"].push_back(fresh);
  put(words, water);
}

void WaterEdits::remove(std::size_t index) {
  Json water = m_editor.json()["water"];
  if (!hasParts(water)) return;
  const auto name = QString::fromStdString(water["parts"][index].value("name", std::string("a source")));
  water["parts"].erase(index);
  if (water["parts"].size() == 1) water = asPlain(water, water["parts"][0]);
  put(name + " out of the blend", water);
}

bool WaterEdits::replace(std::size_t index, const Json& source, const QString& words) {
  Json water = m_editor.json()["water"];
  if (!hasParts(water)) {
    auto plain = asPlain(water, source);
    if (water.contains("treatment")) plain["treatment"] = water["treatment"];
    plain.erase("titration"); // the drops were counted in the other water
    return put(words, plain);
  }
  Json part = source;
  const auto& old = water["parts"][index];
  for (const auto* key : {"share", "treatment"}) {
    if (old.contains(key)) part[key] = old[key];
  }
  water["parts"][index] = part;
  return put(words, water);
}

} // namespace butte::app
