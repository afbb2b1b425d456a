#include "report/raw_row.h"

#include "base/decimal.h"
#include "units/convert.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace butte::reading {
namespace {

using core::ReportRow;

/// Two figures for one thing agree: a second unit, a page repeated. Reports round to two or three digits.
constexpr double agrees = 0.02;

struct MeterUnit {
  std::string_view unit;
  double toMilliSiemensPerCm;
};
constexpr std::array<MeterUnit, 5> meterUnits{
    {{"mS/cm", 1}, {"uS/cm", 1e-3}, {"mS/m", 0.01}, {"S/m", 10}, {"uS/m", 1e-5}}};

class Judge {
public:
  ReportText judge(std::vector<RawRow> rows) {
    const bool total = std::any_of(rows.begin(), rows.end(), [](const RawRow& row) {
      return row.analyte && row.analyte->key == "alkalinity_as_CaCO3" && !row.analyte->oneOfAlkalinity &&
             row.kind == Item::Kind::Figure;
    });
    for (auto& row : rows) {
      if (total && row.analyte && row.analyte->oneOfAlkalinity && row.analyte->key == "alkalinity_as_CaCO3")
        row.analyte->aside = true;
      take(row);
    }
    return std::move(m_out);
  }

private:
  void take(const RawRow& row) {
    if (!row.analyte)
      return leave(row, row.kind == Item::Kind::Formula ? WhyUnplaced::Formula : WhyUnplaced::UnknownName);
    if (row.analyte->aside)
      return row.kind == Item::Kind::NotMeasured ? void() : leave(row, WhyUnplaced::NotNeeded);
    switch (row.kind) {
    case Item::Kind::NotMeasured:
      return;
    case Item::Kind::Formula:
      return leave(row, WhyUnplaced::Formula);
    case Item::Kind::Figure:
      return row.figure.above ? leave(row, WhyUnplaced::NoFigure) : takeFigure(row);
    default:
      return leave(row, WhyUnplaced::NoFigure);
    }
  }

  void takeFigure(const RawRow& row) {
    std::vector<ReportRow> couldBe;
    if (row.candidates.size() > 1) {
      for (const auto& one : row.candidates)
        offer(couldBe, row, row.analyte->key, one.figure);
      return leave(row, WhyUnplaced::WhichFigure, std::move(couldBe));
    }
    if (row.figure.otherwise) {
      auto other = row.figure;
      std::swap(other.value, *other.otherwise);
      offer(couldBe, row, row.analyte->key, row.figure);
      offer(couldBe, row, row.analyte->key, other);
      return leave(row, WhyUnplaced::UnclearNumber, std::move(couldBe));
    }
    if (!row.analyte->otherwise.empty() && !row.figure.below) {
      offer(couldBe, row, row.analyte->key, row.figure);
      for (const auto& key : row.analyte->otherwise)
        offer(couldBe, row, key, row.figure);
      return leave(row, WhyUnplaced::UnclearName, std::move(couldBe));
    }
    const auto read = rowOf(row, row.analyte->key, row.figure);
    read ? put(row, *read) : leave(row, WhyUnplaced::BadUnit, inUsualUnits(row));
  }

  /// A unit that is not known may be a usual one, written oddly.
  static std::vector<ReportRow> inUsualUnits(const RawRow& row) {
    std::vector<ReportRow> out;
    if (row.unit.empty() || core::milligramsPerLitre({"Ca", 1, row.unit, false})) return out;
    if (std::any_of(meterUnits.begin(), meterUnits.end(),
                    [&](const auto& u) { return u.unit == row.unit; }) ||
        row.unit == "C" || row.unit == "F" || row.unit == "pH")
      return out;
    auto usual = row;
    for (const auto* unit : {"mg/L", "ug/L"}) {
      usual.unit = unit;
      if (const auto read = rowOf(usual, row.analyte->key, row.figure)) out.push_back(*read);
    }
    return out;
  }

  void offer(std::vector<ReportRow>& list, const RawRow& row, const std::string& key,
             const Figure& figure) const {
    if (const auto read = rowOf(row, key, figure)) list.push_back(*read);
  }

  /// The row in a unit that its key can have; nothing where it can't.
  static std::optional<ReportRow> rowOf(const RawRow& row, const std::string& key, const Figure& figure) {
    ReportRow out{key, figure.value * row.analyte->factor, row.unit, figure.below};
    if (out.value < 0) return std::nullopt;
    if (key == "EC") return meter(out);
    if (key == "temperature") return temperature(out);
    if (key == "pH") {
      if (!out.unit.empty() && out.unit != "pH") return std::nullopt;
      out.unit.clear();
      return out.value > 0 && out.value <= 14 ? std::optional(out) : std::nullopt;
    }
    if (out.unit.empty()) out.unit = "mg/L";
    if (out.unit == "g/L") out.value *= 1000, out.unit = "mg/L";
    const bool hardness = key == "hardness_as_CaCO3" || key == "alkalinity_as_CaCO3";
    if (hardness && (out.unit == "F" || out.unit == "mg/L_CaCO3")) out.unit = out.unit == "F" ? "fH" : "mg/L";
    // An alkalinity's mmol are those of the acid it takes, one charge each.
    if (key == "alkalinity_as_CaCO3" && out.unit == "mmol/L") out.unit = "meq/L";
    if (row.analyte->asCalciumCarbonate && out.unit == "mg/L") out.unit = "mg/L_CaCO3";
    if (row.analyte->asCalciumCarbonate && out.unit == "ug/L") return std::nullopt;
    return core::milligramsPerLitre(out) ? std::optional(out) : std::nullopt;
  }

  static std::optional<ReportRow> meter(ReportRow row) {
    // Laboratories leave the unit out; hundreds can only be uS/cm.
    constexpr double mostMilliSiemens = 20;
    if (row.unit.empty()) row.unit = row.value > mostMilliSiemens ? "uS/cm" : "mS/cm";
    const auto* it =
        std::find_if(meterUnits.begin(), meterUnits.end(), [&](const auto& u) { return u.unit == row.unit; });
    if (it == meterUnits.end()) return std::nullopt;
    row.value *= it->toMilliSiemensPerCm;
    row.unit = "mS/cm";
    return row.value < 1000 ? std::optional(row) : std::nullopt;
  }

  static std::optional<ReportRow> temperature(ReportRow row) {
    if (row.unit.empty()) row.unit = "C";
    const auto celsius = core::convert(row.value, row.unit, "C");
    if (!celsius) return std::nullopt;
    row.value = *celsius;
    row.unit = "C";
    return row;
  }

  std::optional<double>* meterPlace(const std::string& key) {
    auto& report = m_out.report;
    return key == "EC"            ? &report.conductivityMsPerCm
           : key == "pH"          ? &report.ph
           : key == "temperature" ? &report.temperatureCelsius
                                  : nullptr;
  }

  void put(const RawRow& from, const ReportRow& row) {
    const auto same = std::find_if(m_out.read.begin(), m_out.read.end(),
                                   [&](const ReadRow& r) { return r.row.key == row.key; });
    if (same != m_out.read.end()) {
      if (!isSame(same->row, row)) leave(from, WhyUnplaced::Twice, {row});
      return;
    }
    if (auto* place = meterPlace(row.key)) {
      if (row.below) return leave(from, WhyUnplaced::NoFigure);
      *place = row.value;
    } else {
      m_out.report.rows.push_back(row);
    }
    m_out.read.push_back({from.place, from.name, row, !from.unit.empty()});
  }

  static bool isSame(const ReportRow& a, const ReportRow& b) {
    const auto inOne = [](const ReportRow& row) { return core::milligramsPerLitre(row); };
    const auto x = inOne(a), y = inOne(b);
    const double p = x ? *x : a.value, q = y ? *y : b.value;
    return a.below == b.below && std::abs(p - q) <= agrees * std::max(p, q);
  }

  void leave(const RawRow& row, WhyUnplaced why, std::vector<ReportRow> couldBe = {}) {
    m_out.unplaced.push_back({row.place, row.name, row.value, row.unit, why, std::move(couldBe)});
  }

  ReportText m_out;
};

} // namespace

ReportText reportOf(std::vector<RawRow> rows) {
  return Judge().judge(std::move(rows));
}

} // namespace butte::reading
