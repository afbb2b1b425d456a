#include "balance_script.h"

#include "base/decimal.h"
#include "base/read_file.h"
#include "formula/mix.h"
#include "tank_log_csv.h"
#include "tank_script.h"
#include "things/choices.h"
#include "things/figures.h"

#include <algorithm>
#include <cmath>

namespace butte::exchange {
namespace {

using namespace core;

constexpr double mostMgPerL = 1e6, mostLitresPerDay = 1e9;
constexpr std::size_t largestLog = 64u << 20;
constexpr Figure litres{"volume_l", "volume_l", "L", 0, 1e9, false, true};
constexpr Figure full{"full_l", "full_l", "L", 0, 1e9, false, true};
constexpr Figure celsius{"temperature_c", "temperature_c", "C", 0, 45};
constexpr Figure alkalinity{"alkalinity_meq_per_l", "alkalinity_meq_per_l", "meq/L", -1000, 1000};
constexpr Figure below{"below_l", "below_l", "L", 0, 1e9};
constexpr Figure pressure{"pco2_atm", "pco2_atm", "atm", 1e-9, 1};
constexpr Figure daysAsked{"days", "days", "", 0, 10000};

class BalanceReader {
public:
  explicit BalanceReader(const Json& json) : m_json(json), m_top(json, "", m_problem) {}

  Result<BalanceScript> read() {
    if (const auto problem = readShared()) return *problem;
    readVessel();
    readLiquids();
    readRule();
    readFlow();
    readAir();
    readLog();
    m_out.estimate = m_top.flag("estimate").value_or(false);
    setPriors();
    const auto days = figure(m_top, Dialect::Script, daysAsked);
    if (days && *days != std::floor(*days))
      m_top.fail(ProblemCode::OutOfRange, "days", {decimalText(*days), "a whole number of days"});
    m_out.plan.days = static_cast<int>(days.value_or(usualDays()));
    m_top.finish();
    if (m_problem) return *m_problem;
    return std::move(m_out);
  }

private:
  std::optional<Problem> readShared() {
    const auto shared = sharedKeysOf(m_json);
    for (const auto& [key, value] : shared.items())
      m_top.any(key);
    if (shared.empty()) return std::nullopt;
    auto input = scriptInputFrom(shared);
    if (!input) return input.problem();
    const auto& request = input->given.request;
    std::vector<Mass> grams;
    for (const auto& product : request.shelf) {
      const auto weight =
          input->weights ? input->weights->find(product.id) : decltype(input->weights->end()){};
      grams.push_back(input->weights && weight != input->weights->end() ? weight->second : Mass{});
    }
    m_water = feedContentOf(request.water);
    m_shelf = request.shelf;
    if (!input->weights) return std::nullopt;
    m_mixed = feedContentOf(core::mix(request.water, request.shelf, grams, request.volume));
    if (!request.water.alkalinityMeqPerL) m_out.remarks.push_back(BalanceRemark::AlkalinityOfWater);
    return std::nullopt;
  }

  void readVessel() {
    const auto* object = m_top.object("vessel");
    if (!object) return m_top.fail(ProblemCode::MissingKey, "vessel", {"volume_l and full_l of the tank"});
    ObjectReader reader(*object, "vessel", m_problem);
    const auto holds = volumeOf(reader, Dialect::Script, litres);
    const auto mark = volumeOf(reader, Dialect::Script, full);
    if (!holds && !mark)
      reader.fail(ProblemCode::MissingKey, "volume_l", {"what is in the tank at the start"});
    m_out.plan.start.volume = holds ? *holds : mark.value_or(Volume{});
    m_out.plan.full = mark ? *mark : holds.value_or(Volume{});
    if (const auto at = figure(reader, Dialect::Script, celsius))
      m_out.plan.air.temperature = Temperature::fromCelsius(*at);
    reader.finish();
  }

  /// `start` or `refill`: elements with alkalinity; nothing where the key is missing.
  std::optional<FeedContent> liquidAt(std::string_view key, BalanceRemark withoutAlkalinity) {
    const auto* object = m_top.object(key);
    if (!object) return std::nullopt;
    ObjectReader reader(*object, std::string(key), m_problem);
    FeedContent out;
    if (const auto elements = nutrientObjectAt(reader, "elements_mg_per_l", mostMgPerL, "mg/L"))
      out.milligramsPerLitre = elements->amounts;
    if (const auto meq = figure(reader, Dialect::Script, alkalinity)) {
      out.alkalinityMeqPerL = *meq;
    } else if (!m_problem) {
      m_out.remarks.push_back(withoutAlkalinity);
      ReservoirContent one{Volume::fromLitres(1), out.milligramsPerLitre, 0};
      out.alkalinityMeqPerL = -one.unbalancedMeq();
    }
    reader.finish();
    return out;
  }

  void readLiquids() {
    auto start = liquidAt("start", BalanceRemark::StartAlkalinity);
    if (!start && !m_mixed)
      return m_top.fail(ProblemCode::MissingKey, "start",
                        {"what is in the tank: elements_mg_per_l, or water and products with weights_g"});
    if (!start) m_out.remarks.push_back(BalanceRemark::StartIsFeed);
    const auto first = start ? *start : *m_mixed;
    auto refill = liquidAt("refill", BalanceRemark::RefillAlkalinity);
    if (!refill && m_mixed) refill = m_mixed;
    if (!refill) m_out.remarks.push_back(BalanceRemark::RefillIsStart);
    m_out.plan.refill = refill.value_or(first);
    const auto volume = m_out.plan.start.volume;
    m_out.plan.start = {};
    m_out.plan.start.pour(first, volume);
  }

  /// "daily", "never", {"below_l": 120}, or "below" with below_l beside it.
  void readRule() {
    auto& rule = m_out.plan.rule;
    const auto* asked = m_top.any("refill_when");
    auto limit = figure(m_top, Dialect::Script, below);
    if (asked && asked->is_object()) {
      ObjectReader reader(*asked, "refill_when", m_problem);
      limit = figure(reader, Dialect::Script, below);
      if (!limit) reader.fail(ProblemCode::MissingKey, "below_l", {"the litres below which it is filled"});
      reader.finish();
    } else if (asked && !asked->is_string()) {
      m_top.fail(ProblemCode::WrongType, "refill_when",
                 {"daily, never or {\"below_l\": litres}", typeName(*asked)});
    } else if (asked) {
      static constexpr Choices<RefillRule::When, 4> words{{{"daily", RefillRule::When::Daily},
                                                           {"never", RefillRule::When::Never},
                                                           {"below", RefillRule::When::Below},
                                                           {"below_l", RefillRule::When::Below}}};
      rule.when = chosen(m_top, "refill_when", words);
      if (rule.when == RefillRule::When::Below && !limit)
        m_top.fail(ProblemCode::MissingKey, "below_l", {"the litres below which it is filled"});
      if (rule.when != RefillRule::When::Below) limit.reset();
    }
    if (!limit) return;
    rule = {RefillRule::When::Below, Volume::fromLitres(*limit)};
  }

  double perDay(std::string_view key) {
    return figure(m_top, Dialect::Script, {key, key, "L", 0, mostLitresPerDay}).value_or(0);
  }

  void readFlow() {
    auto& flow = m_out.plan.flow;
    flow.transpirationLPerDay = perDay("transpiration_l_per_day");
    flow.evaporationLPerDay = perDay("evaporation_l_per_day");
    flow.rainLPerDay = perDay("rain_l_per_day");
    flow.drainLPerDay = perDay("drain_l_per_day");
    flow.uptake = readUptake(m_top);
  }

  void readAir() {
    static constexpr Choices<bool, 2> openings{{{"open", true}, {"closed", false}}};
    const auto atm = figure(m_top, Dialect::Script, pressure);
    if (!chosen(m_top, "co2", openings))
      m_out.plan.air.carbonDioxideAtm.reset();
    else if (atm)
      m_out.plan.air.carbonDioxideAtm = *atm;
    m_out.plan.precipitate = m_top.flag("precipitate").value_or(true);
  }

  /// The table itself, or the name of a file that holds it.
  void readLog() {
    const auto text = m_top.text("log");
    if (!text || m_problem) return;
    std::string csv = *text;
    if (csv.find('\n') == std::string::npos) {
      const auto read = readWholeFile(csv, largestLog);
      if (!read) {
        m_problem = read.problem();
        m_problem->where = "log";
        return;
      }
      csv = *read;
    }
    auto log = readTankLog(csv, {m_out.plan.refill, m_water, m_shelf});
    if (!log)
      m_problem = log.problem();
    else
      m_out.log = std::move(log).value();
  }

  /// As long as the log goes.
  double usualDays() const {
    constexpr double usual = 30;
    return m_out.log && !m_out.log->empty() ? std::ceil(m_out.log->back().day) : usual;
  }

  void setPriors() {
    constexpr double usualUptakeSd = 0.15;
    auto& priors = m_out.priors;
    priors.flow = m_out.plan.flow;
    priors.air = m_out.plan.air;
    priors.full = m_out.plan.full;
    for (const auto n : keptNutrients)
      if (priors.flow.uptake.millimolesPerLitre.of(n) > 0 ||
          priors.flow.uptake.shareOfConcentration.of(n) > 0)
        priors.uptakeSd.add(n, usualUptakeSd);
  }

  const Json& m_json;
  std::optional<Problem> m_problem;
  ObjectReader m_top;
  BalanceScript m_out;
  std::optional<FeedContent> m_mixed;
  FeedContent m_water;
  std::vector<ShelfProduct> m_shelf;
};

class SteerReader {
public:
  explicit SteerReader(const Json& json) : m_top(json, "", m_problem) {}

  Result<SteerScript> read() {
    auto& request = m_out.request;
    request.feedMgPerL = needed("feed_mg_per_l", "what is given now").amounts;
    request.drainMgPerL = needed("drain_mg_per_l", "the analysis of drain or root zone").amounts;
    const auto target = needed("root_zone_target_mg_per_l", "what the root zone should hold");
    request.targetMgPerL = target.amounts;
    request.withTarget = target.named;
    static constexpr Choices<SteerSchool, 2> schools{
        {{"classes", SteerSchool::Classes}, {"balance", SteerSchool::Balance}}};
    request.school = chosen(m_top, "school", schools);
    readLeaching(request);
    m_top.finish();
    if (m_problem) return *m_problem;
    return std::move(m_out);
  }

private:
  NutrientObject needed(std::string_view key, const char* what) {
    auto out = nutrientObjectAt(m_top, key, mostMgPerL, "mg/L");
    if (!out) m_top.fail(ProblemCode::MissingKey, key, {what});
    return out.value_or(NutrientObject{});
  }

  /// By percent, by volumes, or by what goes in and out in EC.
  void readLeaching(SteerRequest& request) {
    static constexpr Figure percent{"drain_percent", "drain_percent", "%", 0, 100};
    static constexpr Figure given{"given_l", "given_l", "L", 0, 1e9, false, true};
    static constexpr Figure drained{"drained_l", "drained_l", "L", 0, 1e9};
    static constexpr Figure feedEc{"feed_ec", "feed_ec", "mS/cm", 0, 500, false, true};
    static constexpr Figure drainEc{"drain_ec", "drain_ec", "mS/cm", 0, 500, false, true};
    const auto share = figure(m_top, Dialect::Script, percent);
    const auto in = figure(m_top, Dialect::Script, given), out = figure(m_top, Dialect::Script, drained);
    const auto inEc = figure(m_top, Dialect::Script, feedEc), outEc = figure(m_top, Dialect::Script, drainEc);
    if (in.has_value() != out.has_value())
      m_top.fail(ProblemCode::MissingKey, in ? "drained_l" : "given_l",
                 {"given_l and drained_l go together"});
    if (inEc.has_value() != outEc.has_value())
      m_top.fail(ProblemCode::MissingKey, inEc ? "drain_ec" : "feed_ec",
                 {"feed_ec and drain_ec go together"});
    if (m_problem) return;
    if (share) {
      request.leachingFraction = *share / 100;
    } else if (in) {
      const auto found = leachingFraction(*in, *out);
      if (!found) m_top.fail(ProblemCode::OutOfRange, "drained_l", {decimalText(*out), "at most given_l"});
      request.leachingFraction = found.value_or(0);
    } else if (inEc) {
      const auto found = leachingFractionByStrength(*inEc, *outEc);
      if (!found) m_top.fail(ProblemCode::OutOfRange, "drain_ec", {decimalText(*outEc), "at least feed_ec"});
      request.leachingFraction = found.value_or(0);
    }
  }

  std::optional<Problem> m_problem;
  ObjectReader m_top;
  SteerScript m_out;
};

} // namespace

Result<BalanceScript> readBalanceScript(std::string_view text) {
  const auto json = parseJsonObject(text);
  if (!json) return json.problem();
  return BalanceReader(*json).read();
}

Result<SteerScript> readSteerScript(std::string_view text) {
  const auto json = parseJsonObject(text);
  if (!json) return json.problem();
  return SteerReader(*json).read();
}

} // namespace butte::exchange
