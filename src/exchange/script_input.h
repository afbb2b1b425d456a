#pragma once
#include "base/result.h"
#include "bench/weigh_plan.h"
#include "dose/doser.h"
#include "dose/ratio.h"
#include "dose/reading_line.h"
#include "dose/vessel.h"
#include "formula/formula_answer.h"
#include "formula/uncertainty.h"
#include "run/run_event.h"
#include "run/run_plan.h"
#include "solve/many_crops.h"
#include "stock/dissolving.h"

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace butte::exchange {

/// What the chemistry verbs read beside the mixture.
struct ScriptChemistry {
  std::optional<core::ShelfProduct> acid;
  std::optional<double> targetPh;
  std::optional<double> heldPh;
  std::optional<double> temperatureCelsius;
  bool openToAir = false;
  double carbonDioxideAtm = core::airCarbonDioxideAtm;
};

/// A figure for every product, with a default.
struct PerProduct {
  std::optional<double> otherwise;
  std::map<std::string, double> of;
  std::optional<double> forId(const std::string& id) const;
};

/// How far things may be off, where a script says so; the usual figures else.
struct ScriptErrors {
  PerProduct contentPercent, moisturePercent, weighingGrams;
  std::optional<double> volumePercent, dosingPercent, waterPercent;
};

/// A water or a target of a batch, by its name.
struct NamedWater {
  std::string name;
  core::Water water;
};

/// What `solve` is asked beside the plain formula.
struct ScriptModes {
  bool audit = false; ///< what do these weights give, and which line is wrong
  bool fromCatalogue = false;
  std::optional<int> atMostProducts;
  bool fewestProducts = false;
  bool mends = false;
  std::optional<PerProduct> roundToGrams;
  std::optional<ScriptErrors> errors;
  std::vector<core::CropWish> crops; ///< one set of stocks for all of them
  bool corrections = true;
  std::vector<core::CropWish> batchTargets; ///< with --out
  std::vector<NamedWater> batchWaters;
};

/// What `stock` is asked beside the plain plan.
struct ScriptStock {
  std::vector<double> nightsCelsius;
  std::optional<core::DissolvingPlan> dissolve;
  std::vector<core::Scale> scales; ///< for pre-stocks
  std::optional<core::Volume> feedPerDay;
  double fillDays = 7;
  std::optional<double> seasonDays;
};

/// A vessel of feed for `dose`: by a straight line through two readings, or by the formula where there is
/// one.
struct ScriptReservoir {
  std::optional<core::Volume> volume, finished; ///< finished: the full mark, by the formula
  core::Volume present, lastWater;
  std::optional<core::Conductivity> now, water, target, fullStrength;
  std::optional<double> stockMlPerLitre;
  bool cautious = false;
};

struct ScriptGap {
  std::optional<core::Conductivity> expected, read; ///< expected: the formula's own where it is missing
};

struct ScriptDrawDown {
  std::vector<std::pair<std::string, core::Volume>> drawn; ///< by the tank's name
  std::vector<std::pair<std::string, double>> ofPlan;      ///< the salts in a tank over the planned
  std::optional<core::Volume> feed;
  std::optional<core::Conductivity> setpoint; ///< of a controller
};

/// What `dose` is asked; each part by itself.
struct ScriptDose {
  std::optional<ScriptReservoir> reservoir;
  std::vector<core::DosedReading> readings;
  std::optional<ScriptGap> compare;
  std::optional<ScriptDrawDown> drawDown;
  std::optional<core::Vessel> vessel;
  std::optional<core::Volume> lineFor;
  std::optional<double> levelCm;
  std::vector<std::pair<core::RatioForm, double>> ratios; ///< one
  std::optional<core::Volume> injectorDrawn, injectorFeed;
  std::vector<double> seriesMlPerLitre;
  std::optional<core::DosingPump> pump;
  std::optional<core::Volume> pumpFeedPerHour;
};

/// A run at the bench: what it set out to do, and what became of it.
struct ScriptRun {
  core::RunPlan plan;
  std::vector<core::RunEvent> events;
};

struct NamedSet;

/// What one JSON object of the scripting interface says (docs/formats/script.md).
struct ScriptInput {
  core::Given given;
  bool hasTarget = false;
  ScriptChemistry chemistry;
  ScriptModes modes;
  ScriptStock stock;
  ScriptDose dose;
  std::optional<core::Scale> scale; ///< what `weigh` weighs on
  std::optional<ScriptRun> run;
  std::vector<NamedSet> sets; ///< several sets of tanks, each a whole input
  std::optional<std::map<std::string, core::Mass>> weights;
  std::vector<std::pair<core::LabelRemark, std::string>> labelRemarks; ///< with the product id
  std::vector<std::string> weightsIgnored;                             ///< in a solve: given but not locked
};

/// One of several sets of tanks.
struct NamedSet {
  std::string name;
  ScriptInput input;
};

/// Reads and checks the whole object; every problem names its key.
core::Result<ScriptInput> readScriptInput(std::string_view text);

} // namespace butte::exchange
