#pragma once
#include "amount.h"
#include "base/result.h"
#include "record.h"
#include "units/quantity.h"

#include <string>
#include <vector>

namespace butte::book {

/// A known weight on a scale, and what it showed. The body of a Kind::ScaleCheck record is this as JSON
/// (docs/formats/book.md).
struct ScaleCheck {
  Moment at;
  std::string scale;      ///< by its name
  exchange::Amount known; ///< as typed, with its unit
  exchange::Amount shown;
  std::string who;

  core::Mass knownMass() const;
  core::Mass error() const; ///< shown less known
  double errorPercent() const;
};

/// Reads strictly: a Problem names the key, the value and what would be right.
core::Result<ScaleCheck> scaleCheckFromJson(const Json& json);
Json toJson(const ScaleCheck& check);

} // namespace butte::book
