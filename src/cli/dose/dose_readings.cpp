#include "dose/dose_answer.h"
#include "dose/reading_causes.h"
#include "stock_words.h"

namespace butte::cli {

using namespace core;

namespace {

/// The same readings against the rise that the formula's own curve expects: 1 where it is right.
void addCorrection(const DoseAnswer& answer, Json& out) {
  const auto stocks = answer.delivery();
  const double due = answer.formula->stock.doseMlPerLitre;
  const auto expected = [&](double dose) {
    return stocks.conductivity(std::vector<double>(stocks.tankCount(), dose / due), dose / due);
  };
  std::vector<DosedReading> against;
  for (const auto& r : answer.asked.readings)
    against.push_back({(expected(r.x) - expected(0)).milliSiemensPerCm(), r.reading});
  if (const auto line = fitReadings(against)) {
    out["of_expected_rise"] = line->slope;
    out["ec_base_by_curve"] = line->base.milliSiemensPerCm();
  }
}

} // namespace

void answerReadings(DoseAnswer& answer) {
  if (answer.asked.readings.empty()) return;
  const auto line = fitReadings(answer.asked.readings);
  if (!line) {
    answer.problem = line.problem();
    return;
  }
  Json out{{"ec_base", line->base.milliSiemensPerCm()},
           {"ec_per_ml_per_l", line->slope},
           {"plus_minus", line->plusMinus.milliSiemensPerCm()}};
  if (answer.formula) addCorrection(answer, out);
  answer.out.json["line"] = out;
}

void answerCompare(DoseAnswer& answer) {
  if (!answer.asked.compare) return;
  ReadingGap gap;
  if (!answer.need(answer.asked.compare->expected || answer.formula, "compare.ec_expected",
                   "what was expected, or a formula"))
    return;
  gap.read = *answer.asked.compare->read;
  std::vector<std::string> names;
  if (answer.formula) {
    const auto stocks = answer.delivery();
    gap.expected = answer.asked.compare->expected.value_or(stocks.conductivity({}));
    gap.water = answer.formula->water.conductivity;
    for (std::size_t t = 0; t < stocks.tankCount(); ++t) {
      std::vector<double> draws(stocks.tankCount(), 1.0);
      draws[t] = 0;
      gap.withTankShut.push_back(stocks.conductivity(draws));
      names.push_back(answer.formula->stock.tanks[t].tank.name);
    }
  } else {
    gap.expected = *answer.asked.compare->expected;
  }
  if (answer.asked.reservoir) {
    gap.volume =
        answer.asked.reservoir->volume ? answer.asked.reservoir->volume : answer.asked.reservoir->finished;
    if (answer.asked.reservoir->water) gap.water = *answer.asked.reservoir->water;
  }
  Json list = Json::array();
  for (const auto& cause : causesOf(gap))
    list.push_back({{"code", words::code(cause.cause)},
                    {"text", words::causeText(cause, gap, names)},
                    {"value", cause.value},
                    {"unlikeliness", cause.unlikeliness}});
  answer.out.json["causes"] = list;
}

} // namespace butte::cli
