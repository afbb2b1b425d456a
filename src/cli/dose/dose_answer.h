#pragma once
#include "dose/reading_line.h"
#include "stock/delivered_feed.h"
#include "verb_json.h"

/// The parts of `butte-cli dose`: each answers one question of the input and leaves the others alone.
namespace butte::cli {

/// The input, what its formula brings, and the answer as it grows.
class DoseAnswer {
public:
  explicit DoseAnswer(const exchange::ScriptInput& given);

  struct Formula {
    std::vector<core::Mass> grams;
    core::StockAnswer stock;
    core::MixResult water;
  };
  core::Delivery delivery() const;

  /// False, with the problem noted, where a key is missing.
  bool need(bool there, const std::string& key, const char* why);
  void fail(core::Problem problem, const std::string& part);
  /// A reading that no dose can bring is no bad input: there is no answer.
  void noAnswer(core::Problem problem, const std::string& part);

  const exchange::ScriptInput& input;
  const exchange::ScriptDose& asked;
  std::optional<Formula> formula;  ///< where the input holds one
  std::optional<Outcome> unsolved; ///< its target has no answer
  std::optional<core::Problem> problem;
  Json warnings = Json::array();
  Outcome out;

private:
  void planFormula();
};

void answerReservoir(DoseAnswer& answer);
void answerReadings(DoseAnswer& answer);
void answerCompare(DoseAnswer& answer);
void answerDrawDown(DoseAnswer& answer);
void answerVessel(DoseAnswer& answer);
void answerRatio(DoseAnswer& answer);
void answerInjector(DoseAnswer& answer);
void answerPump(DoseAnswer& answer);

} // namespace butte::cli
