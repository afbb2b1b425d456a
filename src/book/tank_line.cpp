#include "tank_line.h"

#include "record_reader.h"

#include "chem/nutrient.h"
#include "things/choices.h"
#include "things/figures.h"
#include "things/things.h"
#include "typed_numbers.h"
#include "units/convert.h"

#include <algorithm>
#include <array>

namespace butte::book {

using core::ProblemCode;
using exchange::Amount;
using exchange::Figure;
using exchange::ObjectReader;

namespace {

constexpr double mostLitres = 1e9, mostGrams = 1e9;
constexpr exchange::Choices<TankDid, 13> dids{{{"noted", TankDid::Noted},
                                               {"filled", TankDid::Filled},
                                               {"poured", TankDid::Poured},
                                               {"salts", TankDid::Salts},
                                               {"drained", TankDid::Drained},
                                               {"emptied", TankDid::Emptied},
                                               {"rained", TankDid::Rained},
                                               {"bleeds", TankDid::Bleeds},
                                               {"medium", TankDid::Medium},
                                               {"analysed", TankDid::Analysed},
                                               {"planted", TankDid::Planted},
                                               {"calibrated", TankDid::Calibrated},
                                               {"cups", TankDid::Cups}}};
constexpr exchange::Choices<TankLiquid, 2> liquids{
    {{"feed", TankLiquid::Feed}, {"water", TankLiquid::Water}}};

bool needsVolume(TankDid did) {
  return did == TankDid::Filled || did == TankDid::Poured || did == TankDid::Drained ||
         did == TankDid::Rained || did == TankDid::Cups || did == TankDid::Bleeds || did == TankDid::Medium;
}

/// By weight, else by volume.
Amount weighedAmount(ObjectReader& reader) {
  const bool byVolume = reader.has("volume");
  const Figure what =
      byVolume ? Figure{"", "volume", "mL", 0, 1e9, true} : Figure{"", "weight", "g", 0, mostGrams, true};
  const auto read = exchange::typedAmount(reader, what);
  if (!read) reader.fail(ProblemCode::MissingKey, "weight", {"a weight (or a volume) with its unit"});
  return read.value_or(Amount{});
}

bool isVolume(const Amount& amount) {
  return core::convert(1, amount.unit, "mL").operator bool();
}

/// The unit to hold a figure of a laboratory against: its own where it counts moles or charges.
std::string_view molarOr(std::string_view mass, const Json* amount) {
  static constexpr std::array<std::string_view, 3> molar{"mmol/L", "umol/L", "meq/L"};
  if (!amount || !amount->is_object()) return mass;
  const auto unit = amount->find("unit");
  if (unit == amount->end() || !unit->is_string()) return mass;
  const auto found = std::find(molar.begin(), molar.end(), unit->get<std::string>());
  return found == molar.end() ? mass : *found;
}

class LineReader {
public:
  explicit LineReader(const Json& json) : m_top(json, "", m_problem) {}

  core::Result<TankLine> read() {
    readHead();
    readAmounts();
    readWeighed();
    readFigures();
    m_out.about = m_top.text("about").value_or("");
    m_out.text = m_top.text("text").value_or("");
    m_top.finish();
    if (m_problem) return *m_problem;
    return std::move(m_out);
  }

private:
  void readHead() {
    m_out.vesselUid = m_top.text("vessel").value_or("");
    if (m_out.vesselUid.empty()) m_top.fail(ProblemCode::MissingKey, "vessel", {"the vessel it is of"});
    m_out.at = momentIn(m_top, "at");
    m_out.who = m_top.text("who").value_or("");
    if (!m_top.has("did")) m_top.fail(ProblemCode::MissingKey, "did", {"what was done"});
    m_out.did = exchange::chosen(m_top, "did", dids);
    m_out.liquid = exchange::chosen(m_top, "liquid", liquids);
  }

  void readAmounts() {
    static constexpr Figure volume{"", "volume", "L", 0, mostLitres, true};
    static constexpr Figure left{"", "left", "L", 0, mostLitres, true};
    static constexpr Figure strength{"", "strength_percent", "%", 0, 1000};
    static constexpr Figure slope{"", "slope_percent", "%", 0, 200};
    m_out.volume = exchange::typedAmount(m_top, volume).value_or(Amount{});
    m_out.left = exchange::typedAmount(m_top, left).value_or(Amount{});
    if (const auto percent = exchange::figure(m_top, exchange::Dialect::Document, strength))
      m_out.strengthPercent = {m_top.text("strength_percent").value_or(""), ""};
    if (const auto percent = exchange::figure(m_top, exchange::Dialect::Document, slope))
      m_out.slopePercent = {m_top.text("slope_percent").value_or(""), ""};
    if (needsVolume(m_out.did) && m_out.volume.isEmpty())
      m_top.fail(ProblemCode::MissingKey, "volume", {"how much"});
    m_out.formulaUid = m_top.text("formula").value_or("");
    static constexpr Figure version{"formula_version", "", "", 0, 1e9};
    m_out.formulaVersion =
        static_cast<int>(exchange::figure(m_top, exchange::Dialect::Script, version).value_or(0));
    m_out.batchUid = m_top.text("batch").value_or("");
    m_out.runUid = m_top.text("run").value_or("");
    if (comesFromFormula(m_out.did) && m_out.formulaUid.empty())
      m_top.fail(ProblemCode::MissingKey, "formula", {"what says what was poured"});
  }

  void readWeighed() {
    const auto* list = m_top.array("weighed");
    for (std::size_t i = 0; list && i < list->size() && !m_problem; ++i) {
      ObjectReader reader((*list)[i], "weighed[" + std::to_string(i) + "]", m_problem);
      WeighedIn one{reader.text("product").value_or(""), weighedAmount(reader)};
      if (one.product.empty()) reader.fail(ProblemCode::MissingKey, "product", {"the product's id"});
      reader.finish();
      m_out.weighed.push_back(std::move(one));
    }
    if (m_out.did == TankDid::Salts && m_out.weighed.empty())
      m_top.fail(ProblemCode::MissingKey, "weighed", {"what was weighed in"});
  }

  void readFigures() {
    const auto* list = m_top.array("figures");
    for (std::size_t i = 0; list && i < list->size() && !m_problem; ++i) {
      ObjectReader reader((*list)[i], "figures[" + std::to_string(i) + "]", m_problem);
      const Figure found{"", "found", molarOr("mg/L", reader.any("found")), 0, 1e6, true};
      AnalysedFigure one{reader.text("element").value_or(""), {}};
      const auto nutrient = core::nutrientFromKey(one.element);
      if (!nutrient || *nutrient == core::Nutrient::N)
        reader.fail(ProblemCode::NotOneOf, "element", {one.element, "N_NO3, N_NH4, P, K, Ca, Mg, S ..."});
      one.amount = exchange::typedAmount(reader, found).value_or(Amount{});
      if (one.amount.isEmpty()) reader.fail(ProblemCode::MissingKey, "found", {"the figure with its unit"});
      reader.finish();
      m_out.figures.push_back(std::move(one));
    }
    const bool found = m_out.did == TankDid::Analysed || m_out.did == TankDid::Medium;
    if (found && m_out.figures.empty())
      m_top.fail(ProblemCode::MissingKey, "figures", {"what the laboratory found"});
  }

  Trouble m_problem;
  ObjectReader m_top;
  TankLine m_out;
};

} // namespace

std::string_view code(TankDid did) {
  return std::find_if(dids.begin(), dids.end(), [&](const auto& one) { return one.second == did; })->first;
}

bool comesFromFormula(TankDid did) {
  return did == TankDid::Filled || did == TankDid::Poured || did == TankDid::Salts;
}

core::Result<TankLine> tankLineFromJson(const Json& json) {
  return LineReader(json).read();
}

Json toJson(const TankLine& line) {
  Json out{{"vessel", line.vesselUid}, {"at", line.at.iso()}, {"did", code(line.did)}};
  const auto put = [&](const char* key, const Amount& amount) {
    if (!amount.isEmpty()) out[key] = exchange::amountJson(amount.digits, amount.unit);
  };
  const auto text = [&](const char* key, const std::string& value) {
    if (!value.empty()) out[key] = value;
  };
  text("who", line.who);
  put("volume", line.volume);
  put("left", line.left);
  if (comesFromFormula(line.did)) out["liquid"] = line.liquid == TankLiquid::Feed ? "feed" : "water";
  text("strength_percent", line.strengthPercent.digits);
  text("slope_percent", line.slopePercent.digits);
  text("formula", line.formulaUid);
  if (line.formulaVersion > 0) out["formula_version"] = line.formulaVersion;
  text("batch", line.batchUid);
  text("run", line.runUid);
  for (const auto& one : line.weighed)
    out["weighed"].push_back({{"product", one.product},
                              {isVolume(one.amount) ? "volume" : "weight",
                               exchange::amountJson(one.amount.digits, one.amount.unit)}});
  for (const auto& one : line.figures)
    out["figures"].push_back(
        {{"element", one.element}, {"found", exchange::amountJson(one.amount.digits, one.amount.unit)}});
  text("about", line.about);
  text("text", line.text);
  return out;
}

} // namespace butte::book
