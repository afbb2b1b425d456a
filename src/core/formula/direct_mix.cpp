#include "formula/direct_mix.h"

#include "base/decimal.h"
#include "dose/reach_reading.h"
#include "solution/conductivity.h"

#include <algorithm>

namespace butte::core {
namespace {

class DirectMixer {
public:
  DirectMixer(const MixResult& water, const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& grams,
              Volume vessel)
      : m_water(water), m_shelf(shelf), m_grams(grams), m_vessel(vessel) {
    for (std::size_t j = 0; j < shelf.size(); ++j)
      m_salts.addScaled(shelf[j].composition.solutesPerGram, grams[j].grams());
    m_out.vessel = vessel;
    m_out.grams.resize(shelf.size());
    // What a water that is known by its EC alone adds to every reading.
    m_beyond = water.conductivity - conductivity(water.solutesPerLitre);
  }

  Result<DirectMix> mix(const DirectPlan& plan) {
    if (!(plan.present >= Volume{}) || plan.present > m_vessel)
      return problemAt(ProblemCode::OutOfRange, "direct.present",
                       {decimalText(plan.present.litres()) + " L",
                        "up to the " + decimalText(m_vessel.litres()) + " L of the full vessel"});
    m_out.present = plan.present;
    if (plan.present > Volume{}) {
      const auto strength = strengthOf(plan.reading);
      if (!strength)
        return problemAt(ProblemCode::OutOfRange, "direct.reading",
                         {decimalText(plan.reading->milliSiemensPerCm()) + " mS/cm",
                          "from the water's own " + decimalText(m_water.conductivity.milliSiemensPerCm()) +
                              " mS/cm to what its salts can give"});
      m_out.presentStrength = *strength;
    }
    const double share = pourIn();
    addSalts(share, plan.acid);
    return std::move(m_out);
  }

private:
  Conductivity conductivity(const Solutes& perLitre) const {
    EquilibriumConditions conditions;
    conditions.temperature = m_water.temperature;
    const auto at25 = conductivityAt25(perLitre, m_water.waterKgPerLitre, conditions);
    return at25 ? *at25 : Conductivity{};
  }

  /// Of the whole vessel with so much of the formula's salts in so much water.
  Conductivity reading(const Solutes& salts, Volume volume) const {
    auto perLitre = m_water.solutesPerLitre;
    perLitre.addScaled(salts, 1 / volume.litres());
    return conductivity(perLitre) + m_beyond;
  }

  std::optional<double> strengthOf(const std::optional<Conductivity>& stands) const {
    if (!stands) return 1;
    return doseAt([&](double strength) { return reading(m_salts.scaled(strength), m_vessel); }, *stands);
  }

  /// Water first, or out with what is too strong; the share of the salts that is still to come.
  double pourIn() {
    auto stays = m_out.present;
    if (m_out.presentStrength * (stays / m_vessel) > 1) stays = m_vessel * (1 / m_out.presentStrength);
    m_out.drain = m_out.present - stays;
    const bool any = std::any_of(m_grams.begin(), m_grams.end(), [](Mass g) { return g > Mass{}; });
    const double share = any ? std::max(0.0, 1 - m_out.presentStrength * (stays / m_vessel)) : 0;
    const auto before = m_vessel * (share > nothingMissing ? waterBeforeSalts : 1);
    m_out.mixingVolume = std::max(before, stays);
    m_out.pour = m_out.mixingVolume - stays;
    m_out.toMark = m_vessel - m_out.mixingVolume;
    m_inVessel = m_salts.scaled(m_out.presentStrength * (stays / m_vessel));
    m_out.beforeSalts = reading(m_inVessel, m_out.mixingVolume);
    return share > nothingMissing ? share : 0;
  }

  void addSalts(double share, AcidTurn acid) {
    for (std::size_t j = 0; j < m_grams.size(); ++j)
      m_out.grams[j] = m_grams[j] * share;
    for (const auto j : mixingOrder(m_shelf, m_out.grams, MixingInto::Vessel, acid)) {
      m_inVessel.addScaled(m_shelf[j].composition.solutesPerGram, m_out.grams[j].grams());
      m_out.steps.push_back({j, m_out.grams[j], reading(m_inVessel, m_out.mixingVolume)});
    }
  }

  static constexpr double nothingMissing = 1e-9;
  const MixResult& m_water;
  const std::vector<ShelfProduct>& m_shelf;
  const std::vector<Mass>& m_grams;
  Volume m_vessel;
  Solutes m_salts, m_inVessel; ///< mol, of the whole vessel
  Conductivity m_beyond;
  DirectMix m_out;
};

} // namespace

Result<DirectMix> mixDirectly(const MixResult& waterAlone, const std::vector<ShelfProduct>& shelf,
                              const std::vector<Mass>& grams, Volume vessel, const DirectPlan& plan) {
  return DirectMixer(waterAlone, shelf, grams, vessel).mix(plan);
}

} // namespace butte::core
