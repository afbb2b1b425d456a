#include "water_script.h"

#include "base/decimal.h"
#include "base/encoding.h"
#include "things/choices.h"
#include "things/figures.h"
#include "things/things.h"
#include "typed_numbers.h"
#include "units/constants.h"
#include "water_json.h"

#include <algorithm>

namespace butte::exchange {
namespace {

using namespace core;

std::optional<double> within(ObjectReader& reader, std::string_view key, double low, double high,
                             std::string_view unit) {
  return figure(reader, Dialect::Script, {key, key, unit, low, high});
}

class WaterScriptReader {
public:
  explicit WaterScriptReader(const Json& json) : m_top(json, "", m_problem) {}

  Result<WaterScript> read() {
    readSources();
    readAcidFirst();
    readUse();
    readWantedShare();
    m_top.finish();
    if (m_problem) return *m_problem;
    return std::move(m_out);
  }

private:
  void readSources() {
    const auto* one = m_top.object("water");
    const auto* several = m_top.array("waters");
    if (one && several) return m_top.fail(ProblemCode::UnknownKey, "water", {"the sources stand in waters"});
    if (!one && (!several || several->empty()))
      return m_top.fail(ProblemCode::MissingKey, "water", {"one water, or waters with several sources"});
    if (one) return readSource(*one, "water");
    for (std::size_t i = 0; i < several->size() && !m_problem; ++i)
      readSource((*several)[i], item("waters", i));
  }

  void readSource(const Json& json, const std::string& path) {
    ObjectReader reader(json, path, m_problem);
    WaterPart part;
    m_out.names.push_back(reader.text("name").value_or("source " + std::to_string(m_out.names.size() + 1)));
    part.share = figure(reader, Dialect::Script, figures::share).value_or(1);
    readMeters(reader, Dialect::Script, part.report);
    if (const auto* analysis = reader.object("analysis_mg_per_l")) {
      ObjectReader rows(*analysis, path + ".analysis_mg_per_l", m_problem);
      for (const auto& [key, value] : analysis->items()) {
        if (!key.starts_with("x_")) part.report.rows.push_back({key, rows.number(key).value_or(0)});
      }
    }
    const auto* rows = reader.array("rows");
    for (std::size_t i = 0; rows && i < rows->size() && !m_problem; ++i)
      part.report.rows.push_back(readRow((*rows)[i], item(path + ".rows", i)));
    if (const auto* treatment = reader.object("treatment"))
      part.treatment = readTreatment(*treatment, path + ".treatment", Dialect::Script, m_problem);
    reader.finish();
    m_out.plan.parts.push_back(std::move(part));
  }

  ReportRow readRow(const Json& json, const std::string& path) {
    ObjectReader reader(json, path, m_problem);
    ReportRow row;
    row.key = reader.text("key").value_or("");
    if (row.key.empty()) reader.fail(ProblemCode::MissingKey, "key", {"what is stated: Ca, NO3, HCO3 ..."});
    const auto value = figure(reader, Dialect::Script, figures::reported);
    if (!value) reader.fail(ProblemCode::MissingKey, "value", {"a row needs its figure"});
    row.value = value.value_or(0);
    row.unit = reader.text("unit").value_or("mg/L");
    row.below = reader.flag("below").value_or(false);
    reader.finish();
    return row;
  }

  void readAcidFirst() {
    const auto* json = m_top.object("acid_first");
    if (!json) return;
    ObjectReader reader(*json, "acid_first", m_problem);
    const auto product = bottleFor(reader, "product");
    const auto left = figure(reader, Dialect::Script, figures::alkalinityLeft).value_or(1);
    reader.finish();
    if (product) m_out.plan.acid = AcidFirst{product->composition, product->densityKgPerL, left};
  }

  void readUse() {
    m_out.use.system = chosen(m_top, "system", growingSystems);
    m_out.use.onLeaves = chosen(m_top, "watering", waterings);
    m_out.use.crop = m_top.text("crop").value_or("");
    const auto* target = m_top.object("target_mg_per_l");
    if (!target) return;
    ObjectReader rows(*target, "target_mg_per_l", m_problem);
    for (const auto& [key, value] : target->items()) {
      const auto nutrient = nutrientAt(rows, key, key);
      const auto wanted = within(rows, key, 0, figures::wantedMgPerL.most, "mg/L");
      if (nutrient && wanted) m_out.target.push_back({*nutrient, *wanted});
    }
  }

  void readWantedShare() {
    const auto* json = m_top.object("find_share");
    if (!json || m_problem) return;
    ObjectReader reader(*json, "find_share", m_problem);
    const auto name = reader.text("of").value_or("");
    const auto at = std::find(m_out.names.begin(), m_out.names.end(), name);
    if (at == m_out.names.end()) {
      std::string known;
      for (const auto& one : m_out.names)
        known += (known.empty() ? "" : ", ") + one;
      reader.fail(ProblemCode::NotOneOf, "of", {name, known});
    }
    WantedShare wanted{static_cast<std::size_t>(at - m_out.names.begin()), {}};
    int limits = 0;
    const auto take = [&](const char* key, BlendGoal goal, double perUnit) {
      const auto value = within(reader, key, 0, 100000, "");
      if (!value) return;
      ++limits;
      wanted.limit = {goal, *value / perUnit};
    };
    take("alkalinity_as_CaCO3_mg_per_l", BlendGoal::Alkalinity, constant::milligramsCaCO3PerMeq);
    take("ec_ms_per_cm", BlendGoal::Conductivity, 1);
    take("Na_mg_per_l", BlendGoal::Sodium, 1);
    take("Cl_mg_per_l", BlendGoal::Chloride, 1);
    take("Ca_mg_per_l", BlendGoal::Calcium, 1);
    if (limits != 1)
      reader.fail(ProblemCode::MissingKey, "of",
                  {"one limit: alkalinity_as_CaCO3_mg_per_l, ec_ms_per_cm, Na_mg_per_l, Cl_mg_per_l or "
                   "Ca_mg_per_l"});
    reader.finish();
    m_out.wanted = wanted;
  }

  std::optional<Problem> m_problem;
  ObjectReader m_top;
  WaterScript m_out;
};

} // namespace

Result<WaterScript> readWaterScript(std::string_view bytes) {
  const std::string text = utf8From(bytes);
  const auto first = text.find_first_not_of(" \t\r\n");
  if (first != std::string_view::npos && text[first] != '{') {
    auto table = reading::readReportText(text);
    const bool empty = table.report.rows.empty() && !table.report.conductivityMsPerCm;
    if (empty)
      return problemAt(ProblemCode::BadFile, "FILE",
                       {"no row of a water report was recognised; a JSON object begins with {"});
    WaterScript out;
    out.names.emplace_back("report");
    out.plan.parts.push_back({std::move(table.report), {}, 1});
    out.unplaced = std::move(table.unplaced);
    return out;
  }
  const auto json = parseJsonObject(text);
  if (!json) return json.problem();
  return WaterScriptReader(*json).read();
}

} // namespace butte::exchange
