#include "water/rereading.h"

#include "chem/ions.h"
#include "water/water_solutes.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <initializer_list>

namespace butte::core {
namespace {

struct Pair {
  std::string_view one, other;
  double doubt = 0; ///< added to the score: how seldom it happens
};
// The classic mix-ups of reports, the usual ones first (common practice).
constexpr std::array<Pair, 8> forms{{{"HCO3", "alkalinity_as_CaCO3", 0},
                                     {"NO3", "N_NO3", 0.4},
                                     {"SO4", "S", 0.4},
                                     {"NH4", "N_NH4", 0.6},
                                     {"H2PO4", "P", 0.8},
                                     {"P2O5", "P", 1},
                                     {"CaO", "Ca", 1.5},
                                     {"MgO", "Mg", 1.5}}};
constexpr std::array<Pair, 5> swaps{{{"Ca", "Mg"}, {"Cl", "SO4"}, {"Na", "K"}, {"NO3", "SO4"}, {"Na", "Cl"}}};
/// With what makes it less likely to be the one that is missing (common practice: a laboratory asked for the
/// hardness leaves sodium out, hardly ever calcium or magnesium).
struct LeftOut {
  std::string_view key;
  bool cation;
  double doubt;
};
constexpr std::array<LeftOut, 7> oftenLeftOut{{{"Na", true, 0},
                                               {"Cl", false, 0},
                                               {"SO4", false, 0},
                                               {"HCO3", false, 0},
                                               {"NO3", false, 0},
                                               {"Mg", true, 0.5},
                                               {"Ca", true, 0.5}}};
constexpr std::size_t most = 4;
/// Beyond what anybody waters with (FAO 29, from memory: severe restriction from 3 dS/m, some 30 meq/L): a
/// way to read a report that ends there is none.
constexpr double brackishMeqPerL = 60;
/// A slip or a swap must explain a gap of some size.
constexpr double worthASlipMeqPerL = 0.5;

struct ScoredReading {
  Rereading way;
  double score = 0; ///< smaller is likelier
};

class RereadingSearch {
public:
  explicit RereadingSearch(const TypedReport& report) : m_report(report) {}

  std::vector<Rereading> run() {
    otherForms();
    otherUnits();
    missing();
    swapped();
    slipped();
    std::stable_sort(m_found.begin(), m_found.end(),
                     [](const ScoredReading& a, const ScoredReading& b) { return a.score < b.score; });
    std::vector<Rereading> out;
    for (auto& found : m_found) {
      if (out.size() < most) out.push_back(std::move(found.way));
    }
    return out;
  }

private:
  int indexOf(std::string_view key) const {
    for (std::size_t i = 0; i < m_report.rows.size(); ++i) {
      if (m_report.rows[i].key == key) return static_cast<int>(i);
    }
    return -1;
  }

  /// Keeps the reading when it balances and does not offend the meter. `doubt` ranks the kinds.
  void consider(Rereading way, double doubt) {
    auto report = m_report;
    report.rows = way.rows;
    const auto water = waterOf(report);
    if (!water) return;
    const auto ions = ionBalance(water->milligramsPerLitre, water->alkalinityMeqPerL.value_or(0));
    const double cations = ions.cationsMeqPerL(), anions = ions.anionsMeqPerL();
    way.differenceMeqPerL = cations - anions;
    const double allowed = allowedImbalanceMeqPerL(cations, anions);
    if (std::abs(way.differenceMeqPerL) > allowed || cations > brackishMeqPerL) return;
    double score = doubt + std::abs(way.differenceMeqPerL) / allowed;
    if (const auto read = report.conductivityMsPerCm) {
      const auto computed = computedConductivityMsPerCm(*water);
      if (!computed) return;
      const double off = std::abs(*read - *computed) / std::max(*read, 0.02);
      if (off > 0.15) return;
      score += off / 0.1;
    }
    // Two ways to say the same figures (mmol and meq of one charge) are one.
    for (auto& known : m_found) {
      if (!sayTheSame(known.way, way)) continue;
      if (score < known.score) known = {std::move(way), score};
      return;
    }
    m_found.push_back({std::move(way), score});
  }

  static bool sayTheSame(const Rereading& a, const Rereading& b) {
    return std::equal(a.rows.begin(), a.rows.end(), b.rows.begin(), b.rows.end(),
                      [](const ReportRow& x, const ReportRow& y) {
                        const auto mine = milligramsPerLitre(x), other = milligramsPerLitre(y);
                        return x.key == y.key && mine && other &&
                               std::abs(*mine - *other) <= 1e-9 * std::abs(*mine);
                      });
  }

  void otherForms() {
    for (const auto& [a, b, doubt] : forms) {
      for (const auto& [from, to] : {std::pair{a, b}, std::pair{b, a}}) {
        const int at = indexOf(from);
        if (at < 0 || indexOf(to) >= 0) continue;
        Rereading way{RereadingKind::OtherForm, std::string(from), std::string(to), 0, m_report.rows, 0};
        auto& row = way.rows[static_cast<std::size_t>(at)];
        row.key = to;
        way.value = row.value;
        consider(std::move(way), doubt);
      }
    }
  }

  void otherUnits() {
    // The whole report, then single rows.
    for (const auto* unit : {"mg/L", "meq/L", "mmol/L"}) {
      Rereading all{RereadingKind::OtherUnit, "", unit, 0, m_report.rows, 0};
      bool changed = false;
      for (auto& row : all.rows) {
        const bool main =
            reportCharge(row.key) > 0 && (row.unit == "mg/L" || row.unit == "meq/L" || row.unit == "mmol/L");
        changed = changed || (main && row.unit != unit);
        if (main) row.unit = unit;
      }
      if (changed) consider(std::move(all), 1);
      for (std::size_t i = 0; i < m_report.rows.size(); ++i) {
        const auto& row = m_report.rows[i];
        if (row.unit == unit || reportCharge(row.key) == 0) continue;
        Rereading one{RereadingKind::OtherUnit, row.key, unit, row.value, m_report.rows, 0};
        one.rows[i].unit = unit;
        consider(std::move(one), 2);
      }
    }
    asHardness({"Ca", "Mg"}, "mg/L_CaCO3", 0.8);
    for (const auto* degrees : {"dH", "fH"})
      asHardness({"Ca", "Mg", "HCO3", "alkalinity_as_CaCO3", "hardness_as_CaCO3"}, degrees, 1.2);
  }

  /// What makes a water hard, and its alkalinity, are stated in units of hardness too.
  void asHardness(std::initializer_list<const char*> keys, const char* unit, double doubt) {
    for (const auto* key : keys) {
      const int at = indexOf(key);
      if (at < 0) continue;
      auto& row = m_report.rows[static_cast<std::size_t>(at)];
      if (row.unit == unit) continue;
      Rereading one{RereadingKind::OtherUnit, key, unit, row.value, m_report.rows, 0};
      one.rows[static_cast<std::size_t>(at)].unit = unit;
      consider(std::move(one), doubt);
    }
  }

  void missing() {
    const auto now = waterOf(m_report);
    if (!now) return;
    const auto ions = ionBalance(now->milligramsPerLitre, now->alkalinityMeqPerL.value_or(0));
    const double gap = ions.cationsMeqPerL() - ions.anionsMeqPerL();
    for (const auto& [key, cation, doubt] : oftenLeftOut) {
      const bool there = indexOf(key) >= 0 || (key == "SO4" && indexOf("S") >= 0) ||
                         (key == "HCO3" && indexOf("alkalinity_as_CaCO3") >= 0) ||
                         (key == "Mg" && indexOf("MgO") >= 0) || (key == "Ca" && indexOf("CaO") >= 0) ||
                         (key == "NO3" && (indexOf("N_NO3") >= 0 || indexOf("N") >= 0));
      if (there || (gap > 0) == cation) continue;
      const double mg = std::abs(gap) * *milligramsPerMillimole(key) / reportCharge(key);
      Rereading way{RereadingKind::Missing, "", std::string(key), mg, m_report.rows, 0};
      way.rows.push_back({std::string(key), mg, "mg/L", false});
      consider(std::move(way), 1.5 + doubt);
    }
  }

  void swapped() {
    for (const auto& [a, b, doubt] : swaps) {
      const int one = indexOf(a), other = indexOf(b);
      if (one < 0 || other < 0) continue;
      Rereading way{RereadingKind::Swapped, std::string(a), std::string(b), 0, m_report.rows, 0};
      auto& first = way.rows[static_cast<std::size_t>(one)];
      auto& second = way.rows[static_cast<std::size_t>(other)];
      std::swap(first.value, second.value);
      std::swap(first.unit, second.unit);
      std::swap(first.below, second.below);
      way.value = first.value;
      consider(std::move(way), 2 + doubt);
    }
  }

  void slipped() {
    for (std::size_t i = 0; i < m_report.rows.size(); ++i) {
      for (const double factor : {0.1, 10.0}) {
        Rereading way{
            RereadingKind::Slipped, m_report.rows[i].key, m_report.rows[i].key, 0, m_report.rows, 0};
        way.rows[i].value *= factor;
        way.value = way.rows[i].value;
        const auto before = milligramsPerLitre(m_report.rows[i]), after = milligramsPerLitre(way.rows[i]);
        const auto perMillimole = milligramsPerMillimole(m_report.rows[i].key);
        if (!before || !after || !perMillimole) continue;
        const double moved = std::abs(*after - *before) / *perMillimole * reportCharge(m_report.rows[i].key);
        if (moved >= worthASlipMeqPerL) consider(std::move(way), 2.5);
      }
    }
  }

  const TypedReport& m_report;
  std::vector<ScoredReading> m_found;
};

} // namespace

std::vector<Rereading> rereadingsOf(const TypedReport& report) {
  return RereadingSearch(report).run();
}

} // namespace butte::core
