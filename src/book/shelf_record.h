#pragma once
#include "amount.h"
#include "base/result.h"
#include "record.h"
#include "units/quantity.h"

#include <optional>
#include <string>
#include <string_view>

namespace butte::book {

/// One delivery of a product, or an offer of one: bags (or carboys) of one size. The body of a Kind::Lot
/// record is this as JSON (docs/formats/book.md).
struct Lot {
  std::string product; ///< its id, as formulas and batches have it
  std::string name;
  std::string mark; ///< the number on the bag; empty where there is none
  Moment bought;
  int bags = 1;              ///< 0: an offer, nothing was bought
  exchange::Amount bag;      ///< what is in one: by weight, or of a liquid by volume
  std::string densityKgPerL; ///< digits; of a liquid that is bought by volume
  std::string bagPrice;      ///< digits; empty: not known
  std::string currency;
  std::string supplier, place, note;
  std::optional<int> leadDays; ///< from the order to the delivery
  std::optional<Moment> bestBefore;

  core::Mass bagMass() const;
  std::optional<double> price() const;
  /// Of this product, in a lot's unit of weight or of volume; nothing for another kind of unit.
  std::optional<core::Mass> massOf(const exchange::Amount& amount) const;
};

/// What was done to a lot on the shelf, or found of it. Codes stand in the file for good.
enum class ShelfDid {
  Counted, ///< "counted": so much is left
  Wasted,  ///< "wasted": thrown away, spilled, caked
  Opened,  ///< "opened": the first bag of it, or the next
  Dried    ///< "dried": a sample was dried, to learn what water the bag took
};
std::string_view code(ShelfDid did);

/// The body of a Kind::ShelfLine record is this as JSON (docs/formats/book.md).
struct ShelfLine {
  std::string lotUid;
  Moment at;
  std::string who;
  ShelfDid did = ShelfDid::Counted;
  exchange::Amount amount; ///< left of Counted (0 is a count too), of Wasted; the sample of Dried
  exchange::Amount dried;  ///< what the sample weighed dry
  /// A sample of a sealed bag beside it, before and after: a salt with water in its crystals loses some of
  /// that too.
  exchange::Amount sealed, sealedDried;
  std::string text;
};

inline constexpr int mostBagsOfLot = 100000;

/// Reads strictly: a Problem names the key, the value and what would be right.
core::Result<Lot> lotFromJson(const Json& json);
Json toJson(const Lot& lot);
core::Result<ShelfLine> shelfLineFromJson(const Json& json);
Json toJson(const ShelfLine& line);

} // namespace butte::book
