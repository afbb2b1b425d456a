#pragma once
#include "units/quantity.h"

#include <cstdint>
#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace butte::core {

/// A sum in one currency; currencies are never converted.
struct Money {
  std::string currency;
  double amount = 0;
  bool operator==(const Money&) const = default;
};

/// One delivery of a product: bags (or carboys) of one size at one price.
struct ShelfLot {
  std::string id;
  std::string product;
  std::string mark; ///< the lot's number as it is printed on the bag; empty where there is none
  std::int64_t boughtAtSeconds = 0;
  int bags = 1;
  Mass bag;
  std::optional<double> pricePerBag;
  std::string currency;
  std::optional<std::int64_t> bestBeforeSeconds;

  Mass bought() const { return bag * bags; }
  std::optional<double> pricePerKg() const {
    return pricePerBag && bag > Mass{} ? std::optional(*pricePerBag / bag.kilograms()) : std::nullopt;
  }
};

/// What happened on the shelf after a delivery.
namespace shelved {
/// Of a use: the lot that it came from by its mark, and how much of it where that is known.
struct From {
  std::string mark;
  std::optional<Mass> mass;
};
/// Weighed out for a batch.
struct Used {
  std::string product;
  Mass mass;
  std::vector<From> from; ///< none: the oldest first
  std::string batch;      ///< its uid
};
/// What is left of a lot by a count, or by putting the bag on the scale.
struct Counted {
  std::string lot;
  Mass left;
};
/// Thrown away, spilled, caked.
struct Wasted {
  std::string lot;
  Mass mass;
};
} // namespace shelved

struct ShelfEvent {
  std::int64_t atSeconds = 0;
  std::variant<shelved::Used, shelved::Counted, shelved::Wasted> what;
};

} // namespace butte::core
