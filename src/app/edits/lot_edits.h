#pragma once
#include "book/shelf_record.h"

#include <QString>
#include <optional>
#include <string>
#include <vector>

namespace butte::app {

class BookDesk;

/// A product that can be bought: of the shelf, of a formula, or shipped.
struct Buyable {
  std::string id;
  QString name;
  std::optional<double> densityKgPerL; ///< of a liquid
};

/// Deliveries, offers, counts and waste in the book.
class LotEdits {
public:
  explicit LotEdits(BookDesk& desk) : m_desk(desk) {}

  /// Every product that a lot may be of, by name: those that batches took or that were bought, of the
  /// formulas in the book, the shipped ones.
  std::vector<Buyable> buyables() const;
  /// The newest delivery or offer of a product: what the next one is likely to be.
  std::optional<book::Lot> lastOf(const std::string& product) const;
  core::Result<book::Lot> lot(const std::string& uid) const;
  /// Gives the lot's uid.
  core::Result<std::string> keep(const book::Lot& lot);
  book::Trouble change(const std::string& uid, const book::Lot& lot);
  /// A count, waste, an opening, a dried sample; who and when are filled in.
  book::Trouble tell(book::ShelfLine line);
  book::Trouble strike(const book::Ref& ref, const QString& what);

private:
  BookDesk& m_desk;
};

} // namespace butte::app
