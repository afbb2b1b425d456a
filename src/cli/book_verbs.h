#pragma once
#include "verbs.h"

#include <optional>
#include <string>

/// Verbs over a farm's book: it is opened to be read, never written.
namespace butte::cli {

struct ShelfAsked {
  std::string book, at, currency;
  int weeks = 8;
};
/// What is on the shelf, how long it does, what to buy.
core::Result<Outcome> shelf(const ShelfAsked& asked);

struct CostAsked {
  std::string book, at, from, before, crop;
};
/// What batches cost.
core::Result<Outcome> cost(const CostAsked& asked);

} // namespace butte::cli
