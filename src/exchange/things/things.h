#pragma once
#include "bench/weigh_plan.h"
#include "dose/dosing.h"
#include "dose/reading_line.h"
#include "dose/vessel.h"
#include "formula/direct_mix.h"
#include "formula/uncertainty.h"
#include "json_fwd.h"
#include "product/shelf_product.h"
#include "stock/dissolving.h"
#include "stock/tank.h"
#include "target/ratio.h"
#include "things/figure.h"
#include "water/water_plan.h"

#include <optional>
#include <string>
#include <vector>

/// What scripts and documents both speak of, read by one reader each. Problems go to the reader's sink, with
/// their place; what is returned then is not to be used.
namespace butte::exchange {

/// `formula` or a label, `purity_percent`: what is in a product. A label stands in a script as an object
/// {"K2O": 30} under `label_percent`, in a document as rows under `label`.
void readComposition(ObjectReader& reader, Dialect dialect, core::ShelfProduct& product,
                     std::vector<core::LabelRemark>& remarks);
/// Rows {"key", "percent"} of a document's label.
std::vector<core::LabelRow> readLabelRows(const Json& rows, const std::string& path,
                                          std::optional<core::Problem>& problem);
/// `liquid`, `density_kg_per_l`, `price_per_kg`.
void readProductFacts(ObjectReader& reader, Dialect dialect, core::ShelfProduct& product);

/// The element at a key; a problem that lists what is known where there is none.
std::optional<core::Nutrient> nutrientAt(ObjectReader& reader, std::string_view key, const std::string& text);
std::vector<core::Nutrient> readRatioSide(ObjectReader& reader, std::string_view key);
/// A wish such as K : Ca = 1.5.
core::RatioWish readRatioWish(const Json& json, const std::string& path, Dialect dialect,
                              std::optional<core::Problem>& problem);

/// `use` of a tank, `shape` of a vessel; missing: salts, round.
core::TankUse readTankUse(ObjectReader& tank);
core::VesselShape readVesselShape(ObjectReader& vessel);
/// Shape and sizes of a vessel.
core::Vessel readVessel(ObjectReader& vessel, Dialect dialect);
/// Name's, make-up's and vessel's keys are left to the caller.
void readTank(ObjectReader& tank, Dialect dialect, core::Tank& out);

void readDissolving(ObjectReader& reader, Dialect dialect, core::DissolvingPlan& out);
/// What stands in the one vessel that the salts go into, and when its acid goes in.
core::DirectPlan readDirectPlan(ObjectReader& reader, Dialect dialect);
core::Scale readScale(const Json& json, const std::string& path, Dialect dialect, const core::Scale& usual,
                      std::optional<core::Problem>& problem);
core::DosingPump readPump(ObjectReader& reader, Dialect dialect);
/// `ml_per_l` with `ec`; nothing where one of them is missing.
std::optional<core::DosedReading> readDosedReading(ObjectReader& reader, Dialect dialect);

/// `kind` of a treatment with its figures. What a membrane holds back of single ions stands in a script as an
/// object under `rejection_of_percent`, in a document as rows under `rejection`.
core::Treatment readTreatment(const Json& json, const std::string& path, Dialect dialect,
                              std::optional<core::Problem>& problem);
/// pH, temperature, EC of a report; its rows are left to the caller.
void readMeters(ObjectReader& reader, Dialect dialect, core::TypedReport& out);
/// `volume_percent`, `dosing_percent`, `water_percent`.
struct HandErrors {
  std::optional<double> volumePercent, dosingPercent, waterPercent;
};
HandErrors readHandErrors(ObjectReader& reader, Dialect dialect);

} // namespace butte::exchange
