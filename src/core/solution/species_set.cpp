#include "solution/species_set.h"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <limits>

namespace butte::core {
namespace {

constexpr auto carbonate = static_cast<std::size_t>(Component::Carbonate);
/// A plan asks for some thirty sets: its two tanks, its feed, and the pairs of salts that might not mix.
constexpr std::size_t mostKept = 64;

struct Kept {
  ComponentSet there;
  std::optional<double> lnCarbonateGas;
  double celsius;
  std::shared_ptr<const SpeciesSet> set;
  bool operator==(const Kept& o) const {
    return there == o.there && lnCarbonateGas == o.lnCarbonateGas && celsius == o.celsius;
  }
};

} // namespace

SpeciesSet::SpeciesSet(ComponentSet there, const HeldActivities& held, Temperature temperature)
    : m_held(held), m_there(there) {
  if (held.lnCarbonateGas) m_there.set(carbonate);
  for (std::size_t i = 0; i < componentCount; ++i) {
    const bool isHeld = i == carbonate && held.lnCarbonateGas;
    m_unknownOf[i] = m_there[i] && !isHeld ? m_unknowns++ : -1;
  }
  if (!held.lnHydrogen) m_hydrogenUnknown = m_unknowns++;
  addSpecies(temperature);
  findOwnForms();
}

std::shared_ptr<const SpeciesSet> SpeciesSet::of(ComponentSet there, const HeldActivities& held,
                                                 Temperature temperature) {
  // A search for a pH holds another one each time.
  if (held.lnHydrogen) return std::make_shared<const SpeciesSet>(there, held, temperature);
  // A function of its arguments alone; kept, since a keystroke asks for the sets of the last one.
  thread_local std::vector<Kept> kept;
  thread_local std::size_t oldest = 0;
  Kept wanted{there, held.lnCarbonateGas, temperature.celsius(), nullptr};
  if (const auto it = std::find(kept.begin(), kept.end(), wanted); it != kept.end()) return it->set;
  wanted.set = std::make_shared<const SpeciesSet>(there, held, temperature);
  if (kept.size() < mostKept) {
    kept.push_back(wanted);
  } else {
    kept[oldest] = wanted;
    oldest = (oldest + 1) % mostKept;
  }
  return wanted.set;
}

SpeciesSet::Reduced SpeciesSet::reduce(const Stoichiometry& made) const {
  Reduced out{Vector::Zero(m_unknowns), 0, made.water};
  double hydrogen = made.hydrogen;
  for (const auto& [component, power] : made.components) {
    if (m_held.lnCarbonateGas && component == carbonate) {
      // Open to a gas, water takes part in what the gas makes: CO3 H^2 = p K a(H2O).
      out.lnHeld += power * *m_held.lnCarbonateGas;
      out.water += power;
      hydrogen -= 2 * power;
    } else if (const int unknown = m_unknownOf[component]; unknown >= 0) {
      out.row[unknown] += power;
    } else if (power != 0) {
      out.lnHeld = std::numeric_limits<double>::quiet_NaN();
      return out;
    }
  }
  if (m_held.lnHydrogen)
    out.lnHeld += hydrogen * *m_held.lnHydrogen;
  else
    out.row[m_hydrogenUnknown] += hydrogen;
  return out;
}

void SpeciesSet::addSpecies(Temperature temperature) {
  const auto& data = EquilibriumData::instance();
  const auto& lnK = data.at(temperature).lnFormation;
  std::vector<std::size_t> kindHere(data.activityKinds().size(), data.activityKinds().size());
  for (std::size_t i = 0; i < data.species().size(); ++i) {
    const auto& record = data.species()[i];
    if ((record.parts & ~m_there).any()) continue;
    const auto [row, lnHeld, water] = reduce(record.made);
    Active a{i, lnK[i] + lnHeld, water, {}};
    for (int u = 0; u < m_unknowns; ++u) {
      if (row[u] == 0) continue;
      assert(static_cast<std::size_t>(a.termCount) < a.terms.size() &&
             "a species of more parts than Active holds");
      a.terms[static_cast<std::size_t>(a.termCount++)] = {u, row[u]};
    }
    addPairs(a);
    a.halfSquaredCharge = 0.5 * record.charge * record.charge;
    auto& kind = kindHere[record.activityKind];
    if (kind == kindHere.size()) {
      kind = m_kinds.size();
      m_kinds.push_back(data.activityKinds()[record.activityKind]);
    }
    a.kind = kind;
    m_species.push_back(a);
  }
}

void SpeciesSet::addPairs(Active& species) {
  const auto own = static_cast<std::size_t>(species.termCount);
  for (std::size_t t = 0; t < own; ++t) {
    const auto& [row, power] = species.terms[t];
    for (std::size_t v = 0; v <= t; ++v) { // the terms stand in the order of the unknowns
      const auto& other = species.terms[v];
      m_pairs.push_back({static_cast<std::size_t>(row * mostUnknowns + other.unknown), power * other.power});
      ++species.pairCount;
    }
    if (row == m_hydrogenUnknown) m_hydrogenUses.push_back({m_species.size(), std::abs(power)});
  }
}

void SpeciesSet::findOwnForms() {
  for (std::size_t i = 0; i < m_species.size(); ++i) {
    OwnForm form{i, m_hydrogenUnknown, 0};
    int components = 0;
    bool single = true;
    for (int t = 0; t < m_species[i].termCount; ++t) {
      const auto& term = m_species[i].terms[static_cast<std::size_t>(t)];
      if (term.unknown == m_hydrogenUnknown) {
        form.hydrogen = static_cast<int>(std::lround(term.power));
        assert(std::abs(form.hydrogen) <= mostHydrogen);
      } else {
        ++components;
        single = single && term.power == 1;
        form.unknown = term.unknown;
      }
    }
    if (single && components <= 1) m_ownForms.push_back(form);
  }
}

} // namespace butte::core
