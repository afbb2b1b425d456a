#include "practice.h"

#include "base/decimal.h"
#include "typed_numbers.h"

#include <array>
#include <cmath>
#include <map>

namespace butte::book {

using core::ProblemCode;
using exchange::item;
using exchange::ObjectReader;
namespace truly = core::truly;

namespace {

constexpr std::size_t mostTrueEvents = 100000;
constexpr double millisecondsPerSecond = 1000, mostSeconds = 1e11, mostSeed = 9007199254740991.0; // 2^53 - 1
constexpr std::array<std::string_view, core::gearCount> gearKeys{"goggles", "gloves", "mask"};

struct Writer {
  const core::RunPlan& names;
  Json out = Json::object();

  void is(const char* name) { out["did"] = name; }
  std::string product(std::size_t p) const { return names.shelf[p].id; }
  std::string vessel(std::size_t v) const { return names.vessels[v].name; }

  void operator()(const truly::Wore& d) {
    is("wore"), out["piece"] = gearKeys[static_cast<std::size_t>(d.piece)];
  }
  void operator()(const truly::Poured& d) {
    is("poured"), out["vessel"] = vessel(d.vessel), out["volume_l"] = d.volume.litres();
  }
  void operator()(const truly::Filled& d) {
    is("filled"), out["product"] = product(d.product), out["g"] = d.mass.grams();
  }
  void operator()(const truly::TookOtherCup& d) {
    is("took_other_cup"), out["product"] = product(d.product), out["g"] = d.mass.grams();
  }
  void operator()(const truly::Tipped& d) { is("tipped"), out["vessel"] = vessel(d.vessel); }
  void operator()(const truly::Stirred& d) { is("stirred"), out["vessel"] = vessel(d.vessel); }
  void operator()(const truly::Happened& d) {
    is("happened"), out["mishap"] = core::mishapKey(d.what.mishap), out["vessel"] = vessel(d.what.vessel);
    out["product"] = product(d.what.product), out["other"] = product(d.what.other);
  }
  void operator()(const truly::Mended& d) { is("mended"), out["mishap"] = core::mishapKey(d.mishap); }
};

class EventReader {
public:
  EventReader(const Json& json, const std::string& path, const core::RunPlan& names, Trouble& sink)
      : m_reader(json, path, sink), m_names(names) {}

  core::TrueEvent read() {
    core::TrueEvent out;
    out.atMilliseconds =
        static_cast<std::int64_t>(std::llround(millisecondsPerSecond * number("at_s", 0, mostSeconds)));
    out.afterTold = static_cast<std::size_t>(number("after", 0, mostTrueEvents));
    const auto did = m_reader.text("did").value_or("");
    const auto known = readers().find(did);
    if (known == readers().end())
      m_reader.fail(ProblemCode::NotOneOf, "did", {did, "what can truly happen at a bench"});
    else
      out.deed = known->second(*this);
    m_reader.finish();
    return out;
  }

private:
  using Reader = core::TrueDeed (*)(EventReader&);
  static const std::map<std::string, Reader, std::less<>>& readers() {
    static const std::map<std::string, Reader, std::less<>> all{
        {"wore", [](EventReader& r) -> core::TrueDeed { return truly::Wore{r.piece()}; }},
        {"poured",
         [](EventReader& r) -> core::TrueDeed {
           const auto vessel = r.vessel();
           return truly::Poured{vessel, core::Volume::fromLitres(r.number("volume_l", 0, mostAmount))};
         }},
        {"filled",
         [](EventReader& r) -> core::TrueDeed {
           const auto product = r.product("product");
           return truly::Filled{product, core::Mass::fromGrams(r.number("g", -mostAmount, mostAmount))};
         }},
        {"took_other_cup",
         [](EventReader& r) -> core::TrueDeed {
           const auto product = r.product("product");
           return truly::TookOtherCup{product, core::Mass::fromGrams(r.number("g", 0, mostAmount))};
         }},
        {"tipped", [](EventReader& r) -> core::TrueDeed { return truly::Tipped{r.vessel()}; }},
        {"stirred", [](EventReader& r) -> core::TrueDeed { return truly::Stirred{r.vessel()}; }},
        {"happened",
         [](EventReader& r) -> core::TrueDeed {
           const auto mishap = r.mishap();
           const auto vessel = r.vessel();
           const auto product = r.product("product");
           return truly::Happened{{mishap, vessel, product, r.product("other")}};
         }},
        {"mended", [](EventReader& r) -> core::TrueDeed { return truly::Mended{r.mishap()}; }}};
    return all;
  }

  static constexpr double mostAmount = 1e9;
  double number(std::string_view key, double low, double high) {
    const auto value = m_reader.number(key);
    if (!value || !std::isfinite(*value) || *value < low || *value > high) {
      m_reader.fail(
          ProblemCode::OutsideLimits, key,
          {value ? core::decimalText(*value) : "", core::decimalText(low), core::decimalText(high), ""});
      return 0;
    }
    return *value;
  }
  std::size_t product(std::string_view key) {
    const auto id = m_reader.text(key).value_or("");
    for (std::size_t p = 0; p < m_names.shelf.size(); ++p)
      if (m_names.shelf[p].id == id) return p;
    m_reader.fail(ProblemCode::UnknownProduct, key, {id});
    return 0;
  }
  std::size_t vessel() {
    const auto name = m_reader.text("vessel").value_or("");
    std::string all;
    for (std::size_t v = 0; v < m_names.vessels.size(); ++v) {
      if (m_names.vessels[v].name == name) return v;
      all += (all.empty() ? "" : ", ") + m_names.vessels[v].name;
    }
    m_reader.fail(ProblemCode::UnknownTank, "vessel", {name, all});
    return 0;
  }
  core::Mishap mishap() {
    const auto key = m_reader.text("mishap").value_or("");
    const auto known = core::mishapFromKey(key);
    if (!known)
      m_reader.fail(ProblemCode::NotOneOf, "mishap",
                    {key, "draught, mislabelled_cup, wont_dissolve, drifting_pen, swapped_cups"});
    return known.value_or(core::Mishap::Draught);
  }
  core::Gear piece() {
    const auto key = m_reader.text("piece").value_or("");
    for (std::size_t i = 0; i < gearKeys.size(); ++i)
      if (gearKeys[i] == key) return static_cast<core::Gear>(i);
    m_reader.fail(ProblemCode::NotOneOf, "piece", {key, "goggles, gloves, mask"});
    return core::Gear::Goggles;
  }

  ObjectReader m_reader;
  const core::RunPlan& m_names;
};

} // namespace

Json toJson(const core::TrueEvent& event, const core::RunPlan& names) {
  Writer writer{names};
  std::visit(writer, event.deed);
  writer.out["at_s"] = static_cast<double>(event.atMilliseconds) / millisecondsPerSecond;
  writer.out["after"] = event.afterTold;
  return writer.out;
}

Json toJson(const Practice& practice, const core::RunPlan& names) {
  Json truth = Json::array();
  for (const auto& event : practice.truth)
    truth.push_back(toJson(event, names));
  return {{"seed", practice.seed}, {"truth", truth}};
}

core::Result<Practice> practiceFromJson(const Json& json, const std::string& path,
                                        const core::RunPlan& names) {
  Trouble problem;
  Practice out;
  ObjectReader reader(json, path, problem);
  const auto seed = reader.number("seed");
  if (!seed || !(*seed >= 0 && *seed <= mostSeed) || std::floor(*seed) != *seed)
    reader.fail(ProblemCode::OutsideLimits, "seed",
                {seed ? core::decimalText(*seed) : "", "0", core::decimalText(mostSeed), ""});
  out.seed = problem ? 0 : static_cast<std::uint64_t>(*seed);
  const auto* truth = reader.array("truth");
  if (truth && truth->size() > mostTrueEvents) reader.mostIn("truth", mostTrueEvents);
  for (std::size_t i = 0; truth && i < truth->size() && !problem; ++i)
    out.truth.push_back(EventReader((*truth)[i], item(path + ".truth", i), names, problem).read());
  reader.finish();
  if (problem) return *problem;
  return out;
}

} // namespace butte::book
