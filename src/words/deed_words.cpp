#include "deed_words.h"

#include "base/decimal.h"
#include "chem/nutrient.h"
#include "language.h"
#include "measures.h"
#include "named.h"
#include "water_words.h"
#include "words.h"

#include <algorithm>
#include <array>
#include <utility>

namespace butte::words {
namespace {

using core::DeedCode;

struct Pattern {
  DeedCode code;
  const char* english;
};

/// {0} is the first value as it stands, {0:figure} digits, {0:element} and the like a key in words.
constexpr std::array<Pattern, core::deedCount> patterns{{
    {DeedCode::Told, "{0}"},
    {DeedCode::FormulaNamed, "named “{0}”"},
    {DeedCode::CropNamed, "crop “{0}”"},
    {DeedCode::BatchVolume, "weights for {0:figure} {1:unit}"},
    {DeedCode::AimSet, "aim: {0:way}"},
    {DeedCode::AtMostProducts, "at most {0:figure} product{0:plural}"},
    {DeedCode::AnyNumberOfProducts, "any number of products"},
    {DeedCode::WholeSteps, "weights in the scale's steps"},
    {DeedCode::WeightsAsComputed, "weights as computed"},
    {DeedCode::AlkalinityLeft, "alkalinity left to {0:figure} meq/L"},
    {DeedCode::NoAcidInRecipe, "no acid in the recipe"},
    {DeedCode::AcidToAimedPh, "acid to the aimed pH"},
    {DeedCode::TargetNamed, "target named “{0}”"},
    {DeedCode::TargetTaken, "target “{0}”"},
    {DeedCode::ElementTarget, "{0:element} target to {1:figure} {2:unit}"},
    {DeedCode::ElementFree, "{0:element} left free"},
    {DeedCode::ElementUnit, "{0:element} in {1:unit}"},
    {DeedCode::ElementBand, "{0:element} band to ±{1:figure} %"},
    {DeedCode::NitrogenSplit, "nitrogen {0:figure} mg/L, {1:figure} % as ammonium"},
    {DeedCode::TargetScaled, "target scaled to EC {0:ec}"},
    {DeedCode::StrengthTimes, "{0:figure} % of the strength"},
    {DeedCode::TargetOfSeason, "target's strength: {0}"},
    {DeedCode::TargetBalanced, "the nearest target that balances"},
    {DeedCode::RatioWished, "wish for {0}"},
    {DeedCode::RatioDropped, "ratio no longer wished for"},
    {DeedCode::RatioValue, "ratio to {0:figure}"},
    {DeedCode::RatioBand, "band of the ratio to ±{0:figure} %"},
    {DeedCode::CapSet, "{0:element} at most {1:figure} mg/L"},
    {DeedCode::CapDropped, "no cap on {0:element}"},
    {DeedCode::PhWanted, "pH wanted {0:figure}"},
    {DeedCode::CropAdded, "{0} shares the tanks"},
    {DeedCode::CropRemoved, "{0} no longer shares the tanks"},
    {DeedCode::CropWeightsHeld, "weights shared by the crops"},
    {DeedCode::ProductOn, "{0} switched on"},
    {DeedCode::ProductOff, "{0} switched off"},
    {DeedCode::ProductFree, "{0} let free"},
    {DeedCode::ProductHeld, "{0} held at {1:figure} {2:unit}"},
    {DeedCode::ProductAdded, "{0} put on the shelf"},
    {DeedCode::ProductChanged, "{0} changed"},
    {DeedCode::ProductRemoved, "{0} taken off the shelf"},
    {DeedCode::ProductAsInBook, "{0} as in the book"},
    {DeedCode::StockOntoShelf, "{0} onto the shelf"},
    {DeedCode::ScaleReadability, "{0:scale} shows steps of {1:figure} {2:unit}"},
    {DeedCode::ScaleCapacity, "{0:scale} takes up to {1:figure} {2:unit}"},
    {DeedCode::ScaleRemoved, "{0:scale} taken away"},
    {DeedCode::StageAdded, "stage “{0}” beside the others"},
    {DeedCode::StageInHand, "stage “{0}” opened"},
    {DeedCode::StageNamed, "stage named “{0}”"},
    {DeedCode::StageRemoved, "stage “{0}” taken away"},
    {DeedCode::SpoonsUsed, "level spoons where no scale is nearer"},
    {DeedCode::NoSpoons, "no spoons"},
    {DeedCode::AcidFirst, "acid before the salts"},
    {DeedCode::AcidLast, "acid after the salts"},
    {DeedCode::WaterNamed, "water named “{0}”"},
    {DeedCode::WaterTaken, "water “{0}”"},
    {DeedCode::WaterReportTaken, "water “{0}”, report of {1}"},
    {DeedCode::WaterWorstTaken, "water “{0}”, the worst of all reports"},
    {DeedCode::WaterFigure, "water: {0:stated} to {1:figure} {2:unit}"},
    {DeedCode::WaterFigureBelow, "water: {0:stated} below {1:figure} {2:unit}"},
    {DeedCode::WaterFigureUnknown, "water: {0:stated} not measured"},
    {DeedCode::WaterFigureForm, "the water's figure is stated as {0:stated}"},
    {DeedCode::WaterReread, "water: {0:stated} read otherwise"},
    {DeedCode::WaterRestGuessed, "what is not measured is guessed"},
    {DeedCode::WaterNotGuessed, "no guessing"},
    {DeedCode::WaterConductivity, "water EC to {0:figure} {1:unit}"},
    {DeedCode::WaterConductivityUnknown, "water EC not measured"},
    {DeedCode::WaterPh, "water pH to {0:figure}"},
    {DeedCode::WaterPhUnknown, "water pH not measured"},
    {DeedCode::TreatmentNone, "the water untreated"},
    {DeedCode::TreatmentMembrane, "treatment: reverse osmosis"},
    {DeedCode::TreatmentSoftener, "treatment: softener"},
    {DeedCode::SoftenerLeaves, "softener leaves {0:figure} meq/L"},
    {DeedCode::MembraneRejects, "rejection of the membrane to {0:figure} %"},
    {DeedCode::MembraneRecovers, "recovery of the membrane to {0:figure} %"},
    {DeedCode::IonRejected, "membrane holds back {1:figure} % of {0:element}"},
    {DeedCode::IonRejectedAsUsual, "membrane holds back as usual of {0:element}"},
    {DeedCode::BlendShares, "blend {0}"},
    {DeedCode::SourceAdded, "a source added"},
    {DeedCode::SourceRemoved, "{0} out of the blend"},
    {DeedCode::ReportPasted, "a pasted report"},
    {DeedCode::AcidBeforeUse, "{0}, down to {1:figure} meq/L"},
    {DeedCode::NoAcidBeforeUse, "no acid before use"},
    {DeedCode::DrainToWaste, "drain runs to waste"},
    {DeedCode::DrainUsedAgain, "drain is used again"},
    {DeedCode::RootsWatered, "water reaches the roots alone"},
    {DeedCode::LeavesWatered, "water wets the leaves"},
    {DeedCode::AcidAim, "aim of the acid to pH {0:figure}"},
    {DeedCode::AcidChosen, "acid: {0}"},
    {DeedCode::RecipeAcid, "acid of the recipe: {0}"},
    {DeedCode::TitrationUsed, "own titration used"},
    {DeedCode::TitrationNotUsed, "own titration not used"},
    {DeedCode::TitrationSample, "titration in {0:figure} {1:unit}"},
    {DeedCode::TitrationSeeks, "titration to find {0:sought}"},
    {DeedCode::TitrationReadings, "own titration, {0:figure} reading{0:plural}"},
    {DeedCode::TankNamed, "tank name to {0}"},
    {DeedCode::TankVolume, "tank volume to {0:figure} {1:unit}"},
    {DeedCode::TankOwnRatio, "own ratio 1:{0:figure}"},
    {DeedCode::TankRatioOfAll, "the ratio of all"},
    {DeedCode::TankUsed, "tank holds {0:use}"},
    {DeedCode::TankMadeWithPure, "made up with rain, distilled or membrane water"},
    {DeedCode::TankMadeWithBlend, "made up with the formula's water"},
    {DeedCode::TankMadeWithSource, "made up with {0}"},
    {DeedCode::TankVessel, "vessel of the tank"},
    {DeedCode::TankVesselUnknown, "vessel not known"},
    {DeedCode::TankAdded, "a tank added"},
    {DeedCode::TankRemoved, "a tank taken away"},
    {DeedCode::LettersSwapped, "tank letters swapped"},
    {DeedCode::MovedToTank, "{0} into tank {1}"},
    {DeedCode::HalfMovedToTank, "half of {0} into tank {1}"},
    {DeedCode::BackToRules, "{0} back to its own tank"},
    {DeedCode::StraightIntoVessel, "straight into a vessel"},
    {DeedCode::ThroughStocks, "through stock tanks"},
    {DeedCode::VesselHoldsAlready, "in the vessel already: {0:figure} {1:unit}"},
    {DeedCode::VesselHeldReads, "what is in the vessel reads {0:figure} {1:unit}"},
    {DeedCode::VesselIsEmpty, "the vessel is empty"},
    {DeedCode::VesselHeldIsFull, "what is in the vessel is at full strength"},
    {DeedCode::StockStrength, "stock strength to {0:figure}"},
    {DeedCode::StockRatio, "strength to 1:{0:figure}"},
    {DeedCode::DilutionStated, "dilution as {0:ratio}"},
    {DeedCode::ColdestTank, "coldest tank to {0:celsius}"},
    {DeedCode::StockMargin, "margin to {0:figure} %"},
    {DeedCode::StocksAs, "stocks as “{0}”"},
    {DeedCode::DosingFigure, "{0:dosing} to {1:figure} {2:unit}"},
    {DeedCode::DosingAsUsual, "{0:dosing}: the usual"},
    {DeedCode::DosingOn, "{0:dosing}: yes"},
    {DeedCode::DosingOff, "{0:dosing}: no"},
    {DeedCode::DosedBy, "dosed by {0:device}"},
    {DeedCode::MixedOnDropped, "day of mixing taken out"},
    {DeedCode::MixedOn, "mixed on {0}"},
    {DeedCode::SecondSet, "second set: {0}"},
    {DeedCode::NoSecondSet, "no second set"},
    {DeedCode::BatchKept, "batch of {0}"},
    {DeedCode::Weighed, "{0} weighed: {1:figure} {2:unit}"},
    {DeedCode::WeighedNothing, "{0} weighed: nothing"},
    {DeedCode::LotNamed, "lot of {0}: {1}"},
    {DeedCode::BatchEcRead, "EC read: {0:figure} {1:unit}"},
    {DeedCode::BatchPhRead, "pH read: {0:figure}"},
    {DeedCode::ReadingTakenOff, "{0:meter} reading taken away"},
    {DeedCode::BatchMixedBy, "mixed by {0}"},
    {DeedCode::BatchNote, "note: {0}"},
    {DeedCode::FactTyped, "{0}, {1:fact}: {2}"},
    {DeedCode::FactTakenAway, "{0}, {1:fact}: nothing"},
    {DeedCode::ReadingCorrected, "{0:quantity} of {1} corrected to {2:figure} {3:unit}"},
    {DeedCode::ReadingKept, "{0:quantity} of {1}"},
    {DeedCode::ThingMade, "{0} made"},
    {DeedCode::ThingKept, "{0} kept"},
    {DeedCode::ThingKeptAnew, "{0} kept anew"},
    {DeedCode::ThingNamed, "named “{0}”"},
    {DeedCode::IntoBin, "“{0}” into the bin"},
    {DeedCode::OutOfBin, "“{0}” out of the bin"},
    {DeedCode::BackToVersion, "back to version {0}"},
    {DeedCode::FirstFormula, "first formula"},
    {DeedCode::FormulaMade, "new formula"},
    {DeedCode::FormulaCopied, "copy of {0}"},
    {DeedCode::FormulaOpened, "formula from {0}"},
    {DeedCode::RunBegun, "{0} begun at the bench"},
    {DeedCode::RunTold, "a step at the bench of {0}"},
    {DeedCode::ScaleChecked, "{0} checked with a known weight"},
    {DeedCode::VesselFact, "{0}, {1:fact}: {2:figure} {3:unit}"},
    {DeedCode::LoggerSet, "the logger {0} set up"},
    {DeedCode::TankTold, "{0}: {1:did} {2:figure} {3:unit}"},
    {DeedCode::LotCame, "{0}: {1:figure} × {2:figure} {3:unit} came"},
    {DeedCode::PriceNoted, "{0}: price of {2:figure} {3:unit}"},
    {DeedCode::LotChanged, "{0}: lot changed"},
    {DeedCode::LotCounted, "{0}: {1:figure} {2:unit} counted"},
    {DeedCode::LotWasted, "{0}: {1:figure} {2:unit} thrown away"},
    {DeedCode::LotOpened, "{0}: bag opened"},
    {DeedCode::LotDried, "{0}: sample of {1:figure} {2:unit} dried"},
    {DeedCode::ChoreKept, "“{0}” in the calendar"},
    {DeedCode::ChoreDone, "{0}: done"},
    {DeedCode::ChoreLeftOut, "{0}: not this time"},
    {DeedCode::ChoreMoved, "{0}: moved to {1}"},
    {DeedCode::ChoresBroughtIn, "{0:figure} chore{0:plural} from a calendar"},
    {DeedCode::LayoutKept, "the layout of {0} remembered"},
    {DeedCode::RowsBroughtIn, "{0:figure} row{0:plural} from {1}"},
    {DeedCode::ReadingsBroughtIn, "{0:figure} reading{0:plural} from {1}"},
    {DeedCode::BookMade, "book made"},
}};

constexpr Named ways[] = {
    {"closest", "come nearest"}, {"bands_first", "bands first"}, {"cheapest", "cheapest"}};
constexpr Named uses[] = {{"salts", "salts, by what may stand together"},
                          {"traces", "traces and chelates"},
                          {"acid", "acid"},
                          {"alone", "one product alone: silicate, calcium chloride"}};
constexpr Named ratios[] = {{"one_to", "1 :"},
                            {"percent", "%"},
                            {"ml_per_l", "mL per L"},
                            {"ml_per_gal_us", "mL per US gal"},
                            {"ml_per_gal_imp", "mL per imp gal"},
                            {"floz_per_gal_us", "fl oz per US gal"}};
constexpr Named devices[] = {{"injector", "one proportional injector"},
                             {"series", "injectors one behind the other"},
                             {"pumps", "dosing pumps run alike"},
                             {"setpoint", "a controller on a setpoint"},
                             {"hand", "hand"}};
constexpr Named sought[] = {{"alkalinity", "alkalinity"}, {"strength", "strength"}, {"both", "both"}};
constexpr Named scales[] = {{"0", "first scale"}, {"1", "second scale"}};
constexpr Named meters[] = {{"ec", "EC"}, {"ph", "pH"}};
std::string elementName(const std::string& key) {
  const auto nutrient = core::nutrientFromKey(key);
  return nutrient ? nutrientName(*nutrient) : key;
}

/// Kept in degC and mS/cm, told as the person measures; what is no number stays as it stands.
std::string temperatureText(const std::string& celsius) {
  const auto value = core::parseDecimal(celsius);
  return value ? measures().text(core::Temperature::fromCelsius(*value)) : celsius;
}

std::string conductivityText(const std::string& milliSiemens) {
  const auto value = core::parseDecimal(milliSiemens);
  return value ? measures().text(core::Conductivity::fromMilliSiemensPerCm(*value)) : milliSiemens;
}

using Wording = std::string (*)(const std::string&);
constexpr std::pair<std::string_view, Wording> wordings[] = {
    {"figure", [](const std::string& v) { return figureText(v); }},
    {"celsius", [](const std::string& v) { return temperatureText(v); }},
    {"ec", [](const std::string& v) { return conductivityText(v); }},
    {"plural", [](const std::string& v) { return std::string(v == "1" ? "" : "s"); }},
    {"unit", [](const std::string& v) { return unitName(v); }},
    {"element", elementName},
    {"stated", [](const std::string& v) { return reportKeyName(v); }},
    {"way", [](const std::string& v) { return named(ways, v); }},
    {"use", [](const std::string& v) { return named(uses, v); }},
    {"ratio", [](const std::string& v) { return named(ratios, v); }},
    {"device", [](const std::string& v) { return named(devices, v); }},
    {"sought", [](const std::string& v) { return named(sought, v); }},
    {"scale", [](const std::string& v) { return named(scales, v); }},
    {"meter", [](const std::string& v) { return named(meters, v); }},
    {"quantity", [](const std::string& v) { return quantityName(v); }},
    {"fact", [](const std::string& v) { return factName(v); }},
    {"did", [](const std::string& v) { return tankDidName(v); }},
    {"dosing", [](const std::string& v) { return dosingName(v); }}};

/// One place of a pattern, such as "1:figure", filled in.
std::string placeText(std::string_view place, const std::vector<std::string>& values) {
  const auto colon = place.find(':');
  const auto index = static_cast<std::size_t>(place.front() - '0');
  if (index >= values.size()) return {};
  if (colon == std::string_view::npos) return values[index];
  const auto kind = place.substr(colon + 1);
  for (const auto& [name, wording] : wordings) {
    if (name == kind) return wording(values[index]);
  }
  return values[index];
}

} // namespace

std::string deedText(const core::Deed& deed) {
  const auto& known = patterns[static_cast<std::size_t>(deed.code)];
  const auto pattern = text(known.english);
  std::string out;
  for (std::size_t i = 0; i < pattern.size(); ++i) {
    const auto end = pattern[i] == '{' ? pattern.find('}', i) : std::string::npos;
    if (end == std::string::npos || end == i + 1) {
      out += pattern[i];
      continue;
    }
    out += placeText(std::string_view(pattern).substr(i + 1, end - i - 1), deed.values);
    i = end;
  }
  while (!out.empty() && out.back() == ' ')
    out.pop_back(); // a figure without a unit
  return out;
}

} // namespace butte::words
