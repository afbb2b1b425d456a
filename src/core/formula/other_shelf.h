#pragma once
#include "formula/formula_answer.h"

#include <optional>
#include <vector>

namespace butte::core {

/// An element that is outside its band already may go so much of its target further before that counts
/// (our choice: less than a laboratory tells apart).
inline constexpr double furtherOutShare = 0.01;

/// An element that another shelf takes out of its band, or further out.
struct Suffering {
  std::size_t row = 0;          ///< index into the request's rows
  double before = 0, after = 0; ///< mg/L
};

/// The formula solved again because a product did not arrive, or another is to be used up.
struct OtherShelf {
  Answer answer;
  std::vector<Suffering> suffers;
  /// Of the batch; nothing where a used product has no price.
  std::optional<double> costBefore, costAfter;
};

/// The same given without one product of its shelf. Errors: those of compute().
Result<OtherShelf> withoutProduct(const Given& given, const Answer& answer, std::size_t product);

/// The same with as much of one product as its target allows: no element suffers. Never more than `most`.
/// Nothing where it can't be more than it is already.
std::optional<OtherShelf> withMostOf(const Given& given, const Answer& answer, std::size_t product,
                                     Mass most);

} // namespace butte::core
