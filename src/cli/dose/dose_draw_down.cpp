#include "dose/dose_answer.h"
#include "dose/draw_down.h"
#include "dose/uneven_feed.h"

#include <algorithm>

namespace butte::cli {

using namespace core;

namespace {

const char* const part = "draw_down";

/// A figure per tank in the tanks' order; `otherwise` for those not named. Nothing, with the problem noted,
/// for a tank that there is none of, or where all must be named and one is not.
template <typename T>
std::optional<std::vector<T>> perTank(DoseAnswer& answer, const std::vector<std::pair<std::string, T>>& named,
                                      const std::string& key, std::optional<T> otherwise) {
  const auto& tanks = answer.input.given.stock.tanks;
  const auto path = std::string(part) + "." + key;
  for (const auto& [name, value] : named) {
    const auto& wanted = name;
    if (std::any_of(tanks.begin(), tanks.end(), [&](const Tank& t) { return t.name == wanted; })) continue;
    answer.problem = problemAt(ProblemCode::UnknownTank, path, {name, "those of stock.tanks"});
    return std::nullopt;
  }
  std::vector<T> out;
  for (const auto& tank : tanks) {
    const auto it =
        std::find_if(named.begin(), named.end(), [&](const auto& n) { return n.first == tank.name; });
    if (it == named.end() &&
        !answer.need(otherwise.has_value(), path + "." + tank.name, "litres drawn from every tank"))
      return std::nullopt;
    out.push_back(it == named.end() ? *otherwise : it->second);
  }
  return out;
}

template <typename T> Json byName(const DoseAnswer& answer, const std::vector<T>& values) {
  Json out = Json::object();
  for (std::size_t t = 0; t < values.size(); ++t)
    out[answer.input.given.stock.tanks[t].name] = values[t];
  return out;
}

/// The levels alone: which tank draws too little.
std::optional<DrawDown> verdictOf(DoseAnswer& answer, Json& out) {
  const auto& stock = answer.input.given.stock;
  const auto drawn = perTank<Volume>(answer, answer.asked.drawDown->drawn, "drawn_l", std::nullopt);
  if (!drawn) return std::nullopt;
  std::vector<double> factors;
  for (const auto& tank : stock.tanks)
    factors.push_back(tank.ownFactor.value_or(stock.factor));
  const auto verdict = judgeDrawDown(*drawn, factors, answer.asked.drawDown->feed);
  if (!verdict) {
    answer.fail(verdict.problem(), part);
    return std::nullopt;
  }
  out["of_due"] = byName(answer, verdict->ofDue);
  out["due_known"] = verdict->dueKnown;
  out["weak"] = verdict->weak ? Json(stock.tanks[*verdict->weak].name) : Json(nullptr);
  out["shut"] = verdict->shut;
  return *verdict;
}

void addUnevenFeed(const DoseAnswer& answer, const std::vector<double>& draws,
                   const std::vector<double>& strengths, Json& out) {
  const auto& setpoint = answer.asked.drawDown->setpoint;
  const auto uneven = unevenFeed(answer.delivery(), draws, strengths, setpoint);
  out["feed"] = nullptr;
  if (setpoint) out["strength"] = uneven ? Json(uneven->pace) : Json(nullptr);
  if (!uneven) return;
  out["gives"] = byName(answer, uneven->gives);
  out["feed"] = Json{{"elements_mg_per_l", nutrientObject(uneven->feed.milligramsPerLitre)},
                     {"ec_ms_per_cm_25c", uneven->feed.conductivity.milliSiemensPerCm()},
                     {"ph", optionalNumber(uneven->feed.ph)}};
}

} // namespace

void answerDrawDown(DoseAnswer& answer) {
  if (!answer.asked.drawDown) return;
  const auto& asked = *answer.asked.drawDown;
  const auto strengths = perTank<double>(answer, asked.ofPlan, "of_plan", 1.0);
  if (!strengths) return;
  Json out = Json::object();
  std::vector<double> draws;
  if (!asked.drawn.empty() || asked.ofPlan.empty()) {
    const auto verdict = verdictOf(answer, out);
    if (!verdict) return;
    draws = verdict->ofDue;
  }
  if (answer.formula)
    addUnevenFeed(answer, draws, *strengths, out);
  else if (draws.empty() && !answer.need(false, "products", "a formula, whose feed the strengths change"))
    return;
  answer.out.json["draw_down"] = out;
}

} // namespace butte::cli
