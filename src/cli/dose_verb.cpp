/// `butte-cli dose`: from a reading to mL, from draws to a verdict, from a vessel to a line.
#include "dose/draw_down.h"
#include "dose/reach_reading.h"
#include "dose/reading_causes.h"
#include "dose/reservoir_plan.h"
#include "stock/delivered_feed.h"
#include "stock_words.h"
#include "verb_json.h"

namespace butte::cli {

using namespace core;
using exchange::ScriptInput;

namespace {

class DoseVerb {
public:
  explicit DoseVerb(const ScriptInput& input) : m_input(input), m_dose(input.dose) {}

  Result<Outcome> run() {
    if (hasFormula()) planFormula();
    if (m_problem) return *m_problem;
    if (m_unsolved) return *m_unsolved;
    using Part = void (DoseVerb::*)();
    for (const Part part :
         {&DoseVerb::reservoir, &DoseVerb::readings, &DoseVerb::compare, &DoseVerb::drawDown,
          &DoseVerb::vessel, &DoseVerb::ratio, &DoseVerb::injector, &DoseVerb::pump}) {
      (this->*part)();
      if (m_problem) return *m_problem;
    }
    if (m_out.json.empty())
      return problemAt(
          ProblemCode::MissingKey, "reservoir",
          {"dose needs one of reservoir, readings, compare, draw_down, vessel, ratio, injector, pump"});
    m_out.json["warnings"] = m_formula ? m_warnings : Json::array();
    return m_out;
  }

private:
  struct Formula {
    std::vector<Mass> grams;
    StockAnswer stock;
    MixResult water;
  };

  bool hasFormula() const {
    return !m_input.given.request.shelf.empty() && (m_input.weights || m_input.hasTarget);
  }

  void planFormula() {
    auto grams = weightsForTanks(m_input, m_warnings, m_unsolved);
    if (!grams) {
      m_problem = grams.problem();
      return;
    }
    if (m_unsolved) return;
    const auto& request = m_input.given.request;
    m_formula = Formula{std::move(grams).value(), {}, {}};
    m_formula->stock = planStock(request.shelf, m_formula->grams, request.volume, m_input.given.stock);
    m_formula->water = core::mix(request.water, {}, {}, Volume::fromLitres(1));
  }

  Delivery delivery() const {
    return {m_input.given.request.shelf, m_formula->grams, m_input.given.request.volume, m_formula->stock,
            m_formula->water};
  }

  /// False, with the problem noted, where a key is missing.
  bool need(bool there, const char* key, const char* why) {
    if (!there) m_problem = problemAt(ProblemCode::MissingKey, key, {why});
    return there;
  }

  /// A reading that no dose can bring is no bad input: there is no answer.
  void noAnswer(Problem problem, const char* part) {
    if (problem.code != ProblemCode::OutOfRange || problem.where == "volume_l" ||
        problem.where == "finished" || problem.where == "present" || problem.where == "last_water") {
      problem.where = std::string(part) + "." + problem.where;
      m_problem = problem;
      return;
    }
    problem.where = std::string(part) + "." + problem.where;
    m_out.exitCode = 3;
    m_out.json["status"] = "impossible";
    m_out.json["reasons"] = Json::array({words::problemLine(problem)});
  }

  void reservoir() {
    if (!m_dose.reservoir) return;
    const auto& r = *m_dose.reservoir;
    if (!need(r.target.has_value(), "reservoir.ec_target", "the reading that is wanted, mS/cm")) return;
    if (r.finished && m_formula) return byFormula(r);
    if (!need(r.volume.has_value(), "reservoir.volume_l", "how much is in it") ||
        !need(r.now.has_value(), "reservoir.ec_now", "what the meter reads now, mS/cm") ||
        !need(r.water.has_value(), "reservoir.ec_water", "what the water alone reads, mS/cm") ||
        !need(r.fullStrength.has_value(), "reservoir.ec_full_strength",
              "the reading at stock_ml_per_l, mS/cm") ||
        !need(r.stockMlPerLitre.has_value(), "reservoir.stock_ml_per_l", "the dose of ec_full_strength"))
      return;
    if (!(*r.fullStrength > *r.water)) {
      m_problem = problemAt(ProblemCode::OutOfRange, "reservoir.ec_full_strength",
                            {std::to_string(r.fullStrength->milliSiemensPerCm()), "above ec_water"});
      return;
    }
    byLine(r);
  }

  void byLine(const exchange::ScriptReservoir& r) {
    const auto& tanks = m_input.given.stock.tanks;
    const int count = static_cast<int>(tanks.size());
    const auto curve = straightCurve(*r.water, *r.fullStrength, *r.stockMlPerLitre);
    const auto way = reachReading(*r.volume, *r.now, *r.target, count, curve);
    if (!way) return noAnswer(way.problem(), "reservoir");
    auto& out = m_out.json;
    if (way->water > Volume{}) {
      out["add_water_l"] = way->water.litres();
    } else {
      Json each = Json::object();
      for (const auto& tank : tanks)
        each[tank.name] = way->stockEach.millilitres();
      out["add_ml"] = each;
    }
    const auto steps = reachInSteps(*r.volume, *r.now, *r.target, count, curve, r.cautious);
    Json list = Json::array();
    for (const auto& step : *steps)
      list.push_back({{"add_ml_each", step.stockEach.millilitres()},
                      {"add_water_l", step.water.litres()},
                      {"ec_expected", step.expected.milliSiemensPerCm()},
                      {"volume_after_l", step.volumeAfter.litres()}});
    out["ec_expected"] = steps->back().expected.milliSiemensPerCm();
    out["steps"] = list;
  }

  void byFormula(const exchange::ScriptReservoir& r) {
    ReservoirGiven given;
    given.finished = *r.finished;
    given.present = r.present;
    given.lastWater = r.lastWater;
    given.reading = r.now.value_or(Conductivity{});
    given.target = *r.target;
    given.cautious = r.cautious;
    given.acid = m_input.chemistry.acid;
    given.targetPh = m_input.chemistry.targetPh.value_or(given.targetPh);
    if (given.present > Volume{} &&
        !need(r.now.has_value(), "reservoir.ec_now", "what is in it reads, mS/cm"))
      return;
    const auto steps = planReservoir(given, m_formula->stock, m_formula->water);
    if (!steps) return noAnswer(steps.problem(), "reservoir");
    Json list = Json::array(), sums = Json::object();
    double water = 0;
    for (const auto& step : *steps) {
      Json row{{"act", words::code(step.act)},
               {"ml", step.amount.millilitres()},
               {"ec_expected", step.expected.milliSiemensPerCm()},
               {"ph_expected", optionalNumber(step.ph)},
               {"volume_after_l", step.volumeAfter.litres()},
               {"read_now", step.readNow}};
      if (step.act == ReservoirAct::Acid) row["g"] = step.mass.grams();
      if (step.act == ReservoirAct::Stock) {
        const auto& name = m_formula->stock.tanks[step.tank].tank.name;
        row["tank"] = name;
        sums[name] = sums.value(name, 0.0) + step.amount.millilitres();
      }
      if (step.act == ReservoirAct::Water || step.act == ReservoirAct::LastWater)
        water += step.amount.litres();
      list.push_back(row);
    }
    m_out.json["steps"] = list;
    m_out.json["add_ml"] = sums;
    m_out.json["add_water_l"] = water;
    if (!steps->empty()) m_out.json["ec_expected"] = steps->back().expected.milliSiemensPerCm();
  }

  void readings() {
    if (m_dose.readings.empty()) return;
    const auto line = fitReadings(m_dose.readings);
    if (!line) {
      m_problem = line.problem();
      return;
    }
    Json out{{"ec_base", line->base.milliSiemensPerCm()},
             {"ec_per_ml_per_l", line->slope},
             {"plus_minus", line->plusMinus.milliSiemensPerCm()}};
    if (m_formula) addCorrection(out);
    m_out.json["line"] = out;
  }

  /// The same readings against the rise that the formula's own curve expects: 1 where it is right.
  void addCorrection(Json& out) {
    const auto stocks = delivery();
    const double due = m_formula->stock.doseMlPerLitre;
    const auto expected = [&](double dose) {
      return stocks.conductivity(std::vector<double>(stocks.tankCount(), dose / due), dose / due);
    };
    std::vector<DosedReading> against;
    for (const auto& r : m_dose.readings)
      against.push_back({(expected(r.x) - expected(0)).milliSiemensPerCm(), r.reading});
    if (const auto line = fitReadings(against)) {
      out["of_expected_rise"] = line->slope;
      out["ec_base_by_curve"] = line->base.milliSiemensPerCm();
    }
  }

  void compare() {
    if (!m_dose.compare) return;
    ReadingGap gap;
    if (!need(m_dose.compare->expected || m_formula, "compare.ec_expected",
              "what was expected, or a formula"))
      return;
    gap.read = *m_dose.compare->read;
    std::vector<std::string> names;
    if (m_formula) {
      const auto stocks = delivery();
      gap.expected = m_dose.compare->expected.value_or(stocks.conductivity({}));
      gap.water = m_formula->water.conductivity;
      for (std::size_t t = 0; t < stocks.tankCount(); ++t) {
        std::vector<double> draws(stocks.tankCount(), 1.0);
        draws[t] = 0;
        gap.withTankShut.push_back(stocks.conductivity(draws));
        names.push_back(m_formula->stock.tanks[t].tank.name);
      }
    } else {
      gap.expected = *m_dose.compare->expected;
    }
    if (m_dose.reservoir) {
      gap.volume = m_dose.reservoir->volume ? m_dose.reservoir->volume : m_dose.reservoir->finished;
      if (m_dose.reservoir->water) gap.water = *m_dose.reservoir->water;
    }
    Json list = Json::array();
    for (const auto& cause : causesOf(gap))
      list.push_back({{"code", words::code(cause.cause)},
                      {"text", words::causeText(cause, gap, names)},
                      {"value", cause.value},
                      {"unlikeliness", cause.unlikeliness}});
    m_out.json["causes"] = list;
  }

  void drawDown() {
    if (!m_dose.drawDown) return;
    const auto& tanks = m_input.given.stock.tanks;
    std::vector<Volume> drawn;
    std::vector<double> factors;
    for (const auto& tank : tanks) {
      const auto& list = m_dose.drawDown->drawn;
      const auto it =
          std::find_if(list.begin(), list.end(), [&](const auto& d) { return d.first == tank.name; });
      if (!need(it != list.end(), ("draw_down.drawn_l." + tank.name).c_str(), "litres drawn from every tank"))
        return;
      drawn.push_back(it->second);
      factors.push_back(tank.ownFactor.value_or(m_input.given.stock.factor));
    }
    for (const auto& [name, volume] : m_dose.drawDown->drawn) {
      const bool known =
          std::any_of(tanks.begin(), tanks.end(), [&](const Tank& t) { return t.name == name; });
      if (!known) {
        m_problem = problemAt(ProblemCode::UnknownTank, "draw_down.drawn_l", {name, "those of stock.tanks"});
        return;
      }
    }
    const auto verdict = judgeDrawDown(drawn, factors, m_dose.drawDown->feed);
    if (!verdict) {
      m_problem = verdict.problem();
      m_problem->where = "draw_down." + m_problem->where;
      return;
    }
    Json ofDue = Json::object();
    for (std::size_t t = 0; t < tanks.size(); ++t)
      ofDue[tanks[t].name] = verdict->ofDue[t];
    Json out{{"of_due", ofDue},
             {"due_known", verdict->dueKnown},
             {"weak", verdict->weak ? Json(tanks[*verdict->weak].name) : Json(nullptr)},
             {"shut", verdict->shut}};
    if (m_formula) addUnequalFeed(out, *verdict);
    m_out.json["draw_down"] = out;
  }

  void addUnequalFeed(Json& out, const DrawDown& verdict) {
    const auto stocks = delivery();
    const auto print = [](const DeliveredFeed& feed) {
      return Json{{"elements_mg_per_l", nutrientObject(feed.milligramsPerLitre)},
                  {"ec_ms_per_cm_25c", feed.conductivity.milliSiemensPerCm()},
                  {"ph", optionalNumber(feed.ph)}};
    };
    if (!m_dose.drawDown->setpoint) {
      out["feed"] = print(stocks.feed(verdict.ofDue));
      return;
    }
    const auto held = atSetpoint(stocks, verdict.ofDue, *m_dose.drawDown->setpoint);
    out["feed"] = held ? print(held->feed) : Json(nullptr);
    out["strength"] = held ? Json(held->strength) : Json(nullptr);
  }

  void vessel() {
    if (!m_dose.vessel) return;
    Json out = Json::object();
    const auto fail = [&](Problem problem) {
      problem.where = "vessel." + (problem.where == "volume" ? std::string("line_for_l") : problem.where);
      m_problem = problem;
    };
    if (m_dose.lineFor) {
      const auto height = heightForVolume(*m_dose.vessel, *m_dose.lineFor);
      if (!height) return fail(height.problem());
      out["line_cm"] = *height;
    }
    if (m_dose.levelCm) {
      const auto volume = volumeAtHeight(*m_dose.vessel, *m_dose.levelCm);
      if (!volume) return fail(volume.problem());
      out["volume_l"] = volume->litres();
    }
    if (need(!out.empty(), "vessel.line_for_l", "line_for_l or level_cm")) m_out.json["vessel"] = out;
  }

  void ratio() {
    if (m_dose.ratios.empty()) return;
    const auto factor = factorFrom(m_dose.ratios[0].first, m_dose.ratios[0].second);
    if (!factor) {
      m_problem = factor.problem();
      m_problem->where = "ratio." + m_problem->where;
      return;
    }
    Json out = Json::object();
    for (int i = 0; i < ratioFormCount; ++i)
      out[std::string(ratioKey(static_cast<RatioForm>(i)))] = figureOf(static_cast<RatioForm>(i), *factor);
    m_out.json["ratio"] = out;
  }

  void injector() {
    Json out = Json::object();
    if (m_dose.injectorDrawn || m_dose.injectorFeed) {
      if (!need(m_dose.injectorDrawn.has_value(), "injector.drawn_l", "how much it drew") ||
          !need(m_dose.injectorFeed.has_value(), "injector.feed_l", "how much feed was made meanwhile"))
        return;
      const auto factor = factorFromDraw(*m_dose.injectorDrawn, *m_dose.injectorFeed);
      if (!factor) {
        m_problem = factor.problem();
        m_problem->where = "injector." + m_problem->where + "_l";
        return;
      }
      out["factor"] = *factor;
    }
    if (!m_dose.seriesMlPerLitre.empty()) {
      out["finished_ml_per_l"] = dosesInSeries(m_dose.seriesMlPerLitre);
      const auto settings = settingsInSeries(m_dose.seriesMlPerLitre);
      out["settings_for_these_ml_per_l"] = settings ? Json(*settings) : Json(nullptr);
    }
    if (!out.empty()) m_out.json["injector"] = out;
  }

  void pump() {
    if (!m_dose.pump) return;
    const auto duty = pumpDuty(*m_dose.pump, *m_dose.pumpFeedPerHour, m_input.given.stock.factor);
    if (!duty) {
      m_problem = duty.problem();
      m_problem->where = "pump." + m_problem->where;
      return;
    }
    m_out.json["pump"] =
        Json{{"runs_per_hour", duty->runsPerHour},
             {"seconds_per_hour", duty->secondsPerHour > 0 ? Json(duty->secondsPerHour) : Json(nullptr)},
             {"drawn_l_per_hour", duty->drawnPerHour.litres()}};
  }

  const ScriptInput& m_input;
  const exchange::ScriptDose& m_dose;
  std::optional<Formula> m_formula;
  std::optional<Outcome> m_unsolved;
  std::optional<Problem> m_problem;
  Json m_warnings = Json::array();
  Outcome m_out;
};

} // namespace

Result<Outcome> dose(const ScriptInput& input) {
  return DoseVerb(input).run();
}

} // namespace butte::cli
