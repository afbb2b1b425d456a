#include "simulated_tank.h"

#include "tank/tank_meters.h"

#include <algorithm>

namespace butte::core {
namespace {

/// A feed with the crop's own ratios, each element a little off, its charge closed by sulfate or chloride.
FeedContent feedFor(const CropUptake& crop, Dice& dice) {
  FeedContent out;
  const double strength = dice.between(0.9, 1.5);
  for (const auto& element : crop.elements)
    out.milligramsPerLitre.add(element.nutrient, element.millimolesPerLitre.value *
                                                     molarMass(element.nutrient) * strength *
                                                     dice.between(0.85, 1.2));
  out.milligramsPerLitre.add(Nutrient::Na, dice.between(5, 40));
  out.milligramsPerLitre.add(Nutrient::Cl, dice.between(5, 30));
  out.alkalinityMeqPerL = dice.between(0.2, 1);
  ReservoirContent litre{Volume::fromLitres(1), out.milligramsPerLitre, out.alkalinityMeqPerL * 1};
  const double cationsOver = -litre.unbalancedMeq(); // meq that want an anion
  if (cationsOver > 0)
    out.milligramsPerLitre.add(Nutrient::S, cationsOver / 2 * molarMass(Nutrient::S));
  else
    out.milligramsPerLitre.add(Nutrient::K, -cationsOver * molarMass(Nutrient::K));
  return out;
}

/// What truly happens, unknown to the grower.
class Truth {
public:
  Truth(const TankPriors& priors, const ReservoirContent& start, Dice& dice)
      : m_priors(priors), m_dice(dice), m_content(start) {
    m_water = priors.transpirationSd * dice.normal();
    m_level = priors.uptakeLevelSd * dice.normal();
    for (const auto n : keptNutrients)
      m_own.add(n, priors.uptakeSd.of(n) * dice.normal());
    penGain = std::exp(priors.penGainSd * dice.normal());
    penPh = priors.penPhSd * dice.normal();
  }
  void day() {
    auto flow = m_priors.flow;
    flow.transpirationLPerDay *= std::exp(m_water + m_priors.dayToDaySd * m_dice.normal());
    flow.uptake = {};
    for (const auto n : keptNutrients) {
      const double own = std::exp(m_own.of(n));
      flow.uptake.millimolesPerLitre.add(n, m_priors.flow.uptake.millimolesPerLitre.of(n) * own *
                                                std::exp(m_level));
      flow.uptake.shareOfConcentration.add(n, m_priors.flow.uptake.shareOfConcentration.of(n) * own);
    }
    m_content = passed(m_content, flow, 1).content;
    m_content.alkalinityMeq += m_priors.alkalinityWander * m_content.volume.litres() * m_dice.normal();
    m_water += m_priors.waterWander * m_dice.normal();
    m_level += m_priors.levelWander * m_dice.normal();
    for (const auto n : keptNutrients)
      if (m_priors.uptakeSd.of(n) > 0) m_own.add(n, m_priors.elementWander * m_dice.normal());
  }
  void fillTo(const FeedContent& feed, Volume mark) {
    const double missing = mark.litres() - m_content.volume.litres() +
                           m_priors.markSd * m_priors.full.litres() * m_dice.normal();
    if (missing <= 0) return;
    auto poured = feed;
    const double strength = 1 + m_priors.pourSd * m_dice.normal();
    poured.milligramsPerLitre = {};
    poured.milligramsPerLitre.addScaled(feed.milligramsPerLitre, strength);
    poured.alkalinityMeqPerL *= strength;
    m_content.pour(poured, Volume::fromLitres(missing));
  }
  /// Acid or base as a grower doses it, once the pH leaves 5.2 to 6.8: nothing where it is in between.
  std::optional<logged::Dissolved> doseTowards(double wantedPh) {
    const auto perLitre = *m_content.perLitre();
    const auto ph = phOf(perLitre, m_priors.air);
    const auto then = alkalinityAtPh(perLitre, wantedPh, m_priors.air);
    if (!ph || !then || (*ph > 5.2 && *ph < 6.8)) return std::nullopt;
    const double meq =
        (perLitre.alkalinityMeqPerL - *then) * m_content.volume.litres() * (1 + 0.1 * m_dice.normal());
    logged::Dissolved dose;
    dose.alkalinityMeq = -meq;
    if (meq > 0)
      dose.milligrams.add(Nutrient::NNitrate, meq * molarMass(Nutrient::NNitrate));
    else
      dose.milligrams.add(Nutrient::K, -meq * molarMass(Nutrient::K));
    const double truly = 1 + m_priors.pourSd * m_dice.normal();
    m_content.milligrams.addScaled(dose.milligrams, truly);
    m_content.alkalinityMeq += dose.alkalinityMeq * truly;
    return dose;
  }
  const ReservoirContent& content() const { return m_content; }
  double penGain = 1, penPh = 0;

private:
  TankPriors m_priors;
  Dice& m_dice;
  ReservoirContent m_content;
  double m_water = 0, m_level = 0;
  NutrientAmounts m_own;
};

logged::Read reading(const Truth& truth, const TankPriors& priors, double chance, Dice& dice) {
  logged::Read out;
  const auto perLitre = *truth.content().perLitre();
  if (dice.even() < chance) {
    const auto ec = conductivityOf(perLitre, priors.air);
    if (ec)
      out.at25 =
          Conductivity::fromMilliSiemensPerCm(*ec * truth.penGain * (1 + out.conductivitySd * dice.normal()));
  }
  if (dice.even() < chance) {
    const auto ph = phOf(perLitre, priors.air);
    if (ph) out.ph = *ph + truth.penPh + out.phSd * dice.normal();
  }
  if (dice.even() < chance) {
    out.levelSd = priors.full * 0.02;
    out.level = std::max(truth.content().volume + out.levelSd * dice.normal(), Volume{});
  }
  return out;
}

ReservoirContent started(const FeedContent& feed, const TankStart& believed, Dice& dice) {
  ReservoirContent out;
  auto off = feed;
  const double common = believed.relativeSd * dice.normal();
  off.milligramsPerLitre = {};
  off.alkalinityMeqPerL *= 1 + common;
  for (const auto n : keptNutrients)
    off.milligramsPerLitre.add(n, feed.milligramsPerLitre.of(n) *
                                      (1 + common + believed.relativeSd * 0.5 * dice.normal()));
  out.pour(off, believed.priors.full * (1 + believed.priors.markSd * dice.normal()));
  return out;
}

} // namespace

SimulatedTank simulatedTank(std::uint64_t seed, const SimulatedManner& manner) {
  Dice dice(seed);
  SimulatedTank out;
  const auto& crops = cropUptakes();
  const auto& crop = crops[static_cast<std::size_t>(dice.even() * static_cast<double>(crops.size()))];
  auto& believed = out.believed;
  const double litres = dice.between(100, 1500);
  believed.priors = priorsFor(crop, 1, WaterSeason::SpringOrAutumn);
  believed.priors.flow.transpirationLPerDay = litres * dice.between(0.03, 0.1);
  believed.priors.full = Volume::fromLitres(litres);
  out.feed = feedFor(crop, dice);
  believed.content.pour(out.feed, believed.priors.full);
  Truth truth(believed.priors, started(out.feed, believed, dice), dice);
  for (int day = 0; day <= manner.days; ++day) {
    if (day > 0) truth.day();
    out.truthOfDay.push_back(truth.content());
    const auto reads = readingsOf(*truth.content().perLitre(), believed.priors.air);
    out.readsOfDay.push_back(reads ? std::optional(*reads) : std::nullopt);
    const auto read = reading(truth, believed.priors, manner.readsPerDay, dice);
    if (read.at25 || read.ph || read.level) out.log.push_back({static_cast<double>(day), read});
    if (day <= manner.dosesUntilDay)
      if (const auto dose = truth.doseTowards(5.8)) out.log.push_back({static_cast<double>(day), *dose});
    if (truth.content().volume < believed.priors.full * 0.7) {
      truth.fillTo(out.feed, believed.priors.full);
      if (!manner.forgetsRefill)
        out.log.push_back({static_cast<double>(day), logged::FilledTo{out.feed, believed.priors.full}});
    }
  }
  return out;
}

} // namespace butte::core
