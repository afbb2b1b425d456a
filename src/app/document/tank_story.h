#pragma once
#include "book/batch.h"
#include "book/reading.h"
#include "book/tank_line.h"
#include "book/vessel_facts.h"
#include "formula_document.h"
#include "tank/tank_advice.h"
#include "tank/tank_estimate.h"

#include <map>
#include <memory>
#include <optional>
#include <utility>
#include <vector>

namespace butte::app {

/// What the book holds of a vessel, gathered: plain values that may go to another thread.
struct TankGiven {
  book::VesselFacts facts;
  std::vector<book::TankLine> lines;   ///< in the order of time
  std::vector<book::Reading> readings; ///< in the order of time
  std::vector<book::Reading> doubted;  ///< of loggers, shown and not counted
  bool thinned = false;                ///< the book holds more readings than these
  /// Each version of a formula that a line names; under 0 the one that fills it, as it stands.
  std::map<std::pair<std::string, int>, std::shared_ptr<const exchange::FormulaDocument>> formulas;
  std::map<std::string, book::Batch> batches; ///< that fill it, or did, by uid
  book::Moment now;
};

/// Why nothing can be told.
enum class NoStory { None, NoVolume, NoFormula, NoLog };

/// A dose of acid or base as it worked here: what memory knows.
struct PastDose {
  std::int64_t at = 0;  ///< seconds since 1970
  std::size_t line = 0; ///< index into the given lines
  double phBefore = 0, phAfter = 0;
  std::optional<double> expected; ///< what the reading after was expected to be
  std::string otherWater;         ///< the water it was in, where that is not the one of now
};

/// What follows from it: past, present, where it is heading, what to pour in.
struct TankStory {
  NoStory none = NoStory::NoLog;
  std::int64_t start = 0;                    ///< seconds since 1970: day 0 of the estimates
  std::vector<core::TankEstimate> estimates; ///< at each entry and whole day, up to now
  std::vector<core::ReadingCheck> checks;
  core::ForecastScore conductivity, ph, level;
  std::vector<core::TankEstimate> forecast; ///< from now
  std::vector<core::ElementCourse> courses;
  core::AlkalinityBudget budget;
  double neutralAmmoniumShare = 0; ///< of the nitrogen taken, at which the pH would stand
  core::AdviceRequest request;     ///< what the advice was made from: target, caps, shelf, feed
  std::vector<core::Advice> advice;
  std::vector<std::string> productIds; ///< parallel to the request's shelf
  std::vector<PastDose> doses;         ///< of acid or base, the newest last
  double drunkLPerDay = 0;             ///< by the plants, as far as it is known now
  bool cropKnown = false, waterGuessed = false, startGuessed = false;

  std::int64_t secondsOf(double day) const { return start + static_cast<std::int64_t>(day * 86400); }
  const core::TankEstimate* now() const { return estimates.empty() ? nullptr : &estimates.back(); }
};

/// Works it out; may take some tenths of a second for a year.
TankStory tankStory(const TankGiven& given);

/// A laboratory's figure in mg/L of the element; 0 where its unit can't be that.
double milligramsOf(const book::AnalysedFigure& figure);

inline constexpr int forecastDays = 14;

} // namespace butte::app
