#include "dose/dose_answer.h"
#include "dose/reach_reading.h"
#include "dose/reservoir_plan.h"
#include "stock_words.h"

namespace butte::cli {

using namespace core;

namespace {

void byLine(DoseAnswer& answer, const exchange::ScriptReservoir& r) {
  const auto& tanks = answer.input.given.stock.tanks;
  const int count = static_cast<int>(tanks.size());
  const auto curve = straightCurve(*r.water, *r.fullStrength, *r.stockMlPerLitre);
  const auto way = reachReading(*r.volume, *r.now, *r.target, count, curve);
  if (!way) return answer.noAnswer(way.problem(), "reservoir");
  auto& out = answer.out.json;
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

void byFormula(DoseAnswer& answer, const exchange::ScriptReservoir& r) {
  ReservoirGiven given;
  given.finished = *r.finished;
  given.present = r.present;
  given.lastWater = r.lastWater;
  given.reading = r.now.value_or(Conductivity{});
  given.target = *r.target;
  given.cautious = r.cautious;
  given.acid = answer.input.chemistry.acid;
  given.targetPh = answer.input.chemistry.targetPh.value_or(given.targetPh);
  if (given.present > Volume{} &&
      !answer.need(r.now.has_value(), "reservoir.ec_now", "what is in it reads, mS/cm"))
    return;
  const auto steps = planReservoir(given, answer.formula->stock, answer.formula->water);
  if (!steps) return answer.noAnswer(steps.problem(), "reservoir");
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
      const auto& name = answer.formula->stock.tanks[step.tank].tank.name;
      row["tank"] = name;
      sums[name] = sums.value(name, 0.0) + step.amount.millilitres();
    }
    if (step.act == ReservoirAct::Water || step.act == ReservoirAct::LastWater) water += step.amount.litres();
    list.push_back(row);
  }
  answer.out.json["steps"] = list;
  answer.out.json["add_ml"] = sums;
  answer.out.json["add_water_l"] = water;
  if (!steps->empty()) answer.out.json["ec_expected"] = steps->back().expected.milliSiemensPerCm();
}

} // namespace

void answerReservoir(DoseAnswer& answer) {
  if (!answer.asked.reservoir) return;
  const auto& r = *answer.asked.reservoir;
  if (!answer.need(r.target.has_value(), "reservoir.ec_target", "the reading that is wanted, mS/cm")) return;
  if (r.finished && answer.formula) return byFormula(answer, r);
  if (!answer.need(r.volume.has_value(), "reservoir.volume_l", "how much is in it") ||
      !answer.need(r.now.has_value(), "reservoir.ec_now", "what the meter reads now, mS/cm") ||
      !answer.need(r.water.has_value(), "reservoir.ec_water", "what the water alone reads, mS/cm") ||
      !answer.need(r.fullStrength.has_value(), "reservoir.ec_full_strength",
                   "the reading at stock_ml_per_l, mS/cm") ||
      !answer.need(r.stockMlPerLitre.has_value(), "reservoir.stock_ml_per_l", "the dose of ec_full_strength"))
    return;
  if (!(*r.fullStrength > *r.water)) {
    answer.problem = problemAt(ProblemCode::OutOfRange, "reservoir.ec_full_strength",
                               {std::to_string(r.fullStrength->milliSiemensPerCm()), "above ec_water"});
    return;
  }
  byLine(answer, r);
}

} // namespace butte::cli
