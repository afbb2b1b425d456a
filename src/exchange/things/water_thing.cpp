#include "json_reader.h"
#include "things/figures.h"
#include "things/things.h"

namespace butte::exchange {

using namespace core;

namespace {

void reject(ObjectReader& reader, std::string_view key, const std::string& ion, std::optional<double> percent,
            ReverseOsmosis& plant) {
  const auto nutrient = nutrientFromKey(ion);
  if (!nutrient || *nutrient == Nutrient::N)
    reader.fail(ProblemCode::UnknownKey, key, {"N_NO3 N_NH4 P K Ca Mg S B Si Na Cl ..."});
  else if (percent)
    plant.rejectionOf[*nutrient] = *percent;
}

ReverseOsmosis readMembrane(ObjectReader& reader, Dialect dialect) {
  ReverseOsmosis plant;
  plant.rejectionPercent = figure(reader, dialect, figures::rejection).value_or(plant.rejectionPercent);
  plant.recoveryPercent = figure(reader, dialect, figures::recovery).value_or(plant.recoveryPercent);
  if (dialect == Dialect::Script) {
    const auto* ions = reader.object("rejection_of_percent");
    if (!ions) return plant;
    ObjectReader rows(*ions, reader.pathOf("rejection_of_percent"), reader.sink());
    for (const auto& [key, value] : ions->items())
      reject(rows, key, key, figure(rows, dialect, {key, key, "%", 0, 100}), plant);
    return plant;
  }
  const auto* list = reader.array("rejection");
  for (std::size_t i = 0; list && i < list->size() && !reader.failed(); ++i) {
    ObjectReader row((*list)[i], reader.pathOf("rejection") + "[" + std::to_string(i) + "]", reader.sink());
    const auto ion = row.text("key").value_or("");
    reject(row, "key", ion, figure(row, dialect, figures::labelPercent), plant);
    row.finish();
  }
  return plant;
}

} // namespace

Treatment readTreatment(const Json& json, const std::string& path, Dialect dialect,
                        std::optional<Problem>& problem) {
  ObjectReader reader(json, path, problem);
  const auto kind = reader.text("kind").value_or("");
  Treatment out;
  if (kind == "reverse_osmosis")
    out = readMembrane(reader, dialect);
  else if (kind == "softener")
    out = Softener{figure(reader, dialect, figures::hardnessLeft).value_or(0)};
  else
    reader.fail(ProblemCode::NotOneOf, "kind", {kind, "reverse_osmosis, softener"});
  reader.finish();
  return out;
}

void readMeters(ObjectReader& reader, Dialect dialect, TypedReport& out) {
  out.ph = figure(reader, dialect, figures::ph);
  out.temperatureCelsius = figure(reader, dialect, figures::waterTemperature);
  out.conductivityMsPerCm = figure(reader, dialect, figures::waterConductivity);
  out.estimateTheRest = reader.flag("estimate").value_or(false);
}

} // namespace butte::exchange
