#include "dose/dose_answer.h"
#include "dose/doser.h"
#include "dose/ratio.h"
#include "dose/vessel.h"

namespace butte::cli {

using namespace core;

void answerVessel(DoseAnswer& answer) {
  if (!answer.asked.vessel) return;
  Json out = Json::object();
  const auto fail = [&](Problem problem) {
    problem.where = "vessel." + (problem.where == "volume" ? std::string("line_for_l") : problem.where);
    answer.problem = problem;
  };
  if (answer.asked.lineFor) {
    const auto height = heightForVolume(*answer.asked.vessel, *answer.asked.lineFor);
    if (!height) return fail(height.problem());
    out["line_cm"] = *height;
  }
  if (answer.asked.levelCm) {
    const auto volume = volumeAtHeight(*answer.asked.vessel, *answer.asked.levelCm);
    if (!volume) return fail(volume.problem());
    out["volume_l"] = volume->litres();
  }
  if (answer.need(!out.empty(), "vessel.line_for_l", "line_for_l or level_cm"))
    answer.out.json["vessel"] = out;
}

void answerRatio(DoseAnswer& answer) {
  if (answer.asked.ratios.empty()) return;
  const auto factor = factorFrom(answer.asked.ratios[0].first, answer.asked.ratios[0].second);
  if (!factor) {
    answer.problem = factor.problem();
    answer.problem->where = "ratio." + answer.problem->where;
    return;
  }
  Json out = Json::object();
  for (int i = 0; i < ratioFormCount; ++i)
    out[std::string(ratioKey(static_cast<RatioForm>(i)))] = figureOf(static_cast<RatioForm>(i), *factor);
  answer.out.json["ratio"] = out;
}

void answerInjector(DoseAnswer& answer) {
  Json out = Json::object();
  if (answer.asked.injectorDrawn || answer.asked.injectorFeed) {
    if (!answer.need(answer.asked.injectorDrawn.has_value(), "injector.drawn_l", "how much it drew") ||
        !answer.need(answer.asked.injectorFeed.has_value(), "injector.feed_l",
                     "how much feed was made meanwhile"))
      return;
    const auto factor = factorFromDraw(*answer.asked.injectorDrawn, *answer.asked.injectorFeed);
    if (!factor) {
      answer.problem = factor.problem();
      answer.problem->where = "injector." + answer.problem->where + "_l";
      return;
    }
    out["factor"] = *factor;
  }
  if (!answer.asked.seriesMlPerLitre.empty()) {
    out["finished_ml_per_l"] = dosesInSeries(answer.asked.seriesMlPerLitre);
    const auto settings = settingsInSeries(answer.asked.seriesMlPerLitre);
    out["settings_for_these_ml_per_l"] = settings ? Json(*settings) : Json(nullptr);
  }
  if (!out.empty()) answer.out.json["injector"] = out;
}

void answerPump(DoseAnswer& answer) {
  if (!answer.asked.pump) return;
  const auto duty =
      pumpDuty(*answer.asked.pump, *answer.asked.pumpFeedPerHour, answer.input.given.stock.factor);
  if (!duty) {
    answer.problem = duty.problem();
    answer.problem->where = "pump." + answer.problem->where;
    return;
  }
  answer.out.json["pump"] =
      Json{{"runs_per_hour", duty->runsPerHour},
           {"seconds_per_hour", duty->secondsPerHour > 0 ? Json(duty->secondsPerHour) : Json(nullptr)},
           {"drawn_l_per_hour", duty->drawnPerHour.litres()}};
}

} // namespace butte::cli
