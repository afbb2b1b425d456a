#include "stock/acid_tank.h"

#include "formula/acid_plan.h"
#include "solution/water_properties.h"
#include "stock/heat_of_solution.h"
#include "units/constants.h"

namespace butte::core {
namespace {

AcidTank describeAcidTank(const std::vector<ShelfProduct>& shelf, const TankContent& content,
                          const TankItem& item, const MixResult& water) {
  AcidTank out;
  const auto& acid = shelf[item.product];
  out.product = item.product;
  out.mass = item.mass;
  if (acid.densityKgPerL) out.volume = Volume::fromLitres(item.mass.kilograms() / *acid.densityKgPerL);
  const double pureGramsPerLitre = item.strength.gramsPerLitre() * acid.composition.anhydrousFraction;
  out.strengthPercent = pureGramsPerLitre / (content.densityKgPerLitre * 10);
  const double moles = molesOf(acid, item.mass);
  const double waterKg = content.waterKgPerLitre * content.tank.volume.litres();
  if (moles > 0 && waterKg > 0) {
    const double waterMolPerMol = waterKg * 1000 / constant::waterGramsPerMol / moles;
    if (const auto heat = heatOfDilutionKilojoules(acid, item.mass, waterMolPerMol))
      out.warmsByKelvin = *heat / (waterKg * waterHeatKilojoulesPerKgKelvin);
  }
  if (water.ph) {
    const double dose = item.strength.gramsPerLitre() / content.factor;
    if (const auto settled = withDose(titrated(water), acid.composition.solutesPerGram, dose))
      out.waterPh = settled->ph;
  }
  return out;
}

} // namespace

std::vector<AcidTank> acidTanks(const std::vector<ShelfProduct>& shelf, const StockAnswer& stock,
                                const MixResult& water) {
  std::vector<AcidTank> out;
  for (std::size_t t = 0; t < stock.tanks.size(); ++t) {
    for (const auto& item : stock.tanks[t].items) {
      if (shelf[item.product].composition.role != ProductRole::Acid) continue;
      out.push_back(describeAcidTank(shelf, stock.tanks[t], item, water));
      out.back().tank = t;
    }
  }
  return out;
}

} // namespace butte::core
