#pragma once
#include "document/tank_story.h"

#include <map>
#include <optional>
#include <string>
#include <utility>

namespace butte::app {

/// What a version of a formula makes.
struct Made {
  core::FeedContent feed, water;
  const exchange::FormulaDocument* document = nullptr;
};

/// What the lines of a vessel's log poured and weighed in: each version of a formula is worked out once.
class TankLiquids {
public:
  explicit TankLiquids(const TankGiven& given) : m_given(given) {}
  /// Nothing where the formula is not known or can't be computed.
  std::optional<Made> made(const std::string& formulaUid, int version);
  /// As a batch was weighed: what it had of each product above its plan, or below, is in each litre of it.
  std::optional<Made> madeOfBatch(const std::string& uid);
  /// `otherwise` where the line's own formula is not known.
  core::FeedContent liquidOf(const book::TankLine& line, const Made& otherwise);
  core::logged::Dissolved weighedIn(const book::TankLine& line, const Made& otherwise);

private:
  const TankGiven& m_given;
  std::map<std::pair<std::string, int>, Made> m_made;
};

/// What a growing medium brought. What holds the charge in it is not analysed: it comes without base or acid.
core::logged::Dissolved mediumCharge(const book::TankLine& line);

/// In that unit; 0 where nothing is said.
double amountIn(const exchange::Amount& amount, const char* unit);

} // namespace butte::app
